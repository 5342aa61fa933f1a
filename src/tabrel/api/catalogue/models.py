"""The catalogues of the core, as they go out."""

from __future__ import annotations

from typing import Annotated, Literal

from tabrel.core.catalogue.glossary import Term
from tabrel.core.catalogue.observation import Observation
from tabrel.core.catalogue.stations import Station
from tabrel.core.catalogue.units import ShownUnit
from tabrel.core.field_units import Celsius
from tabrel.core.maps.quantities import MapQuantity
from tabrel.core.review.copies import PartToCopy
from tabrel.core.review.needs import Need
from tabrel.document.results import WireModel
from tabrel.document.wire import WIRED


class QuantityOut(WireModel):
    """A quantity, as search finds it."""

    key: str
    title: str
    part: str
    stage: str
    synonyms: list[str]
    views: list[str]


class DetailOut(WireModel):
    """A detail of study, engine or sample."""

    key: str
    title: str
    kind: str
    help: str
    choices: list[str]
    whole_only: bool
    """Readable only before the filter is cut open."""
    stage: str
    synonyms: list[str]
    usual: str
    """Assumed if nothing is stated."""
    usual_inch: str
    views: list[str]


class PartTitleOut(WireModel):
    """A part with the words people use for it."""

    key: str
    title: str
    stage: str
    synonyms: list[str]


class TermsOut(WireModel):
    """Words for what is named by keys, in the order they are listed."""

    provenance: dict[str, str]
    state: dict[str, str]
    correction: dict[str, str]
    instrument: dict[str, str]
    speaker: dict[str, str]
    bypass_location: dict[str, str]
    regulator_fault: dict[str, str]
    gauge_tap: dict[str, str]
    section: dict[str, str]
    outlet: dict[str, str]
    plate_circle: dict[str, str]
    loss_part: dict[str, str]
    basis: dict[str, str]
    opening_way: dict[str, str]
    uncertainty_source: dict[str, str]
    left_out: dict[str, str]
    verdict: dict[str, str]
    part_verdict: dict[str, str]
    claim_comparison: dict[str, str]
    media_deduction: dict[str, str]
    screening_input: dict[str, str]
    assumption: dict[str, str]
    input: dict[str, str]


ShownUnitOut = Annotated[ShownUnit, WIRED]


class UnitOut(WireModel):
    """The unit that a key ends in, as shown in each family."""

    metric: ShownUnitOut
    inch: ShownUnitOut


class ResultRowOut(WireModel):
    """A result: its name in the working, its key in answers, its title, the suffix of its unit."""

    name: str
    key: str
    title: str
    unit: str
    is_headline: bool
    has_working: bool


class CircuitPartOut(WireModel):
    """A part of the circuit's drawing, with its details and those written beside it."""

    name: str
    title: str
    details: list[str]
    in_drawing: list[str]


class ServiceOut(WireModel):
    """What serves, by version, and whether anything can be changed."""

    version: str
    python: str
    sqlite: str
    warning: str
    """Why nothing can be changed, such as a full disk; empty where it can."""


class FieldColourOut(WireModel):
    """A colour of a map, and at which share of its scale."""

    share: float
    colour: str


class CatalogueOut(WireModel):
    """Everything that can be measured, seen or typed, and the words for it."""

    stations: Annotated[list[Station], WIRED]
    hole_shapes: list[str]
    parts: list[PartTitleOut]
    part_titles: dict[str, str]
    quantities: list[QuantityOut]
    observations: Annotated[list[Observation], WIRED]
    details: list[DetailOut]
    terms: TermsOut
    input_fields: dict[str, str]
    units: dict[Literal["mm", "mm2", "cm2", "kpa", "mpa", "l", "l_min", "percent", "g", "c", "k", "km"], UnitOut]
    results: list[ResultRowOut]
    claimable_results: list[str]
    map_quantities: Annotated[list[MapQuantity], WIRED]
    circuit_parts: list[CircuitPartOut]
    map_needs: list[str]
    engine_side: list[str]
    never_closes_c: Celsius
    cut_methods: dict[str, str]
    cautions: list[str]
    short_sheet: Annotated[list[Need], WIRED]
    parts_to_copy: Annotated[dict[str, PartToCopy], WIRED]
    oil_grades: list[str]
    date_tokens: dict[str, str]
    study_bytes: int
    package_bytes: int
    workbook_bytes: int
    duty_cycle_bytes: int
    count_table_bytes: int
    glossary: Annotated[list[Term], WIRED]
    sample_colours: list[str]
    """By place in the rack, from the first again after the last."""
    field_colours: list[FieldColourOut]
    """Of a map, by share of its scale."""

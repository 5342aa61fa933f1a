"""The catalogues of the core, as they go out."""

from __future__ import annotations

from typing import Literal

from tabrel.core.field_units import Celsius
from tabrel.core.maps.quantities import MapQuantityName
from tabrel.document.results import WireModel


class QuantityOut(WireModel):
    """A quantity, as search finds it."""

    key: str
    title: str
    part: str
    stage: str
    synonyms: list[str]
    views: list[str]


class ChoiceOut(WireModel):
    """A choice of an observation."""

    value: str
    meaning: str


class ObservationOut(WireModel):
    """Something seen, with its choices and the views of practitioners, the default first."""

    key: str
    title: str
    part: str
    stage: str
    choices: list[ChoiceOut]
    views: list[str]
    whole_only: bool
    """Readable only before the filter is cut open."""
    closed: bool
    several: bool
    synonyms: list[str]


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
    claim_comparison: dict[str, str]
    media_deduction: dict[str, str]
    screening_input: dict[str, str]
    assumption: dict[str, str]
    input: dict[str, str]


class ShownUnitOut(WireModel):
    """A unit as it is printed; multiply a number of the key's unit by the factor and add the zero, which no difference has."""

    symbol: str
    factor: float = 1.0
    zero: float = 0.0


class UnitOut(WireModel):
    """The unit that a key ends in, as shown in each family."""

    metric: ShownUnitOut
    inch: ShownUnitOut


class StationOut(WireModel):
    """A station of the work; one that is a stage takes the readings of that stage."""

    name: str
    title: str
    synonyms: list[str]
    is_stage: bool
    has_tape: bool
    """The results stand below it."""


class ResultRowOut(WireModel):
    """A result: its name in the working, its key in answers, its title, the suffix of its unit."""

    name: str
    key: str
    title: str
    unit: str
    is_headline: bool
    has_working: bool


class MapQuantityOut(WireModel):
    """A quantity of a map: title, key of its grid, suffix of its unit, and its scale."""

    name: MapQuantityName
    title: str
    grid: str
    unit: str
    of_filter_alone: bool
    is_logarithmic: bool
    title_in_slice: str


class CircuitPartOut(WireModel):
    """A part of the circuit's drawing, with its details and those written beside it."""

    name: str
    title: str
    details: list[str]
    in_drawing: list[str]


class GlossaryTermOut(WireModel):
    """A term of the glossary."""

    term: str
    meaning: str
    unit: str
    standard: str


class ServiceOut(WireModel):
    """Why nothing can be changed, such as a full disk; empty where it can."""

    warning: str


class ShortWayOut(WireModel):
    """A way to what a row of the short sheet asks for."""

    title: str
    keys: list[str]


class ShortRowOut(WireModel):
    """A row of the short sheet: the field it asks for and how, other ways to the same, and what is left out without it."""

    key: str
    title: str
    how: str
    instead: list[ShortWayOut]
    without: str


class PartToCopyOut(WireModel):
    """A part of a sample that another one can be begun with."""

    key: str
    title: str
    holds: str
    is_usual: bool


class CatalogueOut(WireModel):
    """Everything that can be measured, seen or typed, and the words for it."""

    stations: list[StationOut]
    hole_shapes: list[str]
    parts: list[PartTitleOut]
    quantities: list[QuantityOut]
    observations: list[ObservationOut]
    details: list[DetailOut]
    terms: TermsOut
    input_fields: dict[str, str]
    units: dict[Literal["mm", "mm2", "cm2", "kpa", "mpa", "l", "l_min", "percent", "g", "c", "k", "km"], UnitOut]
    results: list[ResultRowOut]
    claimable_results: list[str]
    map_quantities: list[MapQuantityOut]
    circuit_parts: list[CircuitPartOut]
    map_needs: list[str]
    engine_side: list[str]
    never_closes_c: Celsius
    cut_methods: dict[str, str]
    cautions: list[str]
    short_sheet: list[ShortRowOut]
    parts_to_copy: list[PartToCopyOut]
    oil_grades: list[str]
    date_tokens: dict[str, str]
    study_bytes: int
    package_bytes: int
    workbook_bytes: int
    duty_cycle_bytes: int
    count_table_bytes: int
    glossary: list[GlossaryTermOut]

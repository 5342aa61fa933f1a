"""Wire models of the comparison sheet."""

from __future__ import annotations

from typing import Literal

from tabrel.api.catalogue.models import ShownUnitOut
from tabrel.api.comparison.judged_models import Compared
from tabrel.core.field_units import Mm
from tabrel.core.judge.comparison_sheet import Mark
from tabrel.document.results import WireModel


class SheetColumnOut(WireModel):
    """A filter of the sheet; one of another study with that study's name, and in what its engine or oil is another."""

    sample_id: int
    label: str
    rack_place: int | None
    """From 0; null for a filter of another study."""
    is_reference: bool
    can_height_mm: Mm | None
    can_diameter_mm: Mm | None
    other_study: str | None
    other_conditions: list[str]
    """Parts of engine and oil that its own study has otherwise: it is computed with those of this study."""


class SheetCellOut(WireModel):
    """One filter in one row; with neither value, bound nor words, `reason` says why."""

    value: float | None
    expanded_uncertainty: float | None
    low: float | None
    high: float | None
    basis: str | None
    reason: str
    is_spread_assumed: bool
    words: str
    """Printed in place of a number that nobody stated."""
    evidence: str
    """Of an efficiency: the evidence and kind of test."""
    metric: str | None
    inch: str | None
    mark: Mark
    """Best, worst, tied with the best, or empty."""
    difference: float | None
    """To the reference part, in the row's unit of differences; null if one of the two is unknown."""
    differs: bool


class SheetRowOut(WireModel):
    """One row: a number with its unit in each family, or words."""

    key: str
    title: str
    group: str
    is_number: bool
    """False for what is seen rather than measured."""
    better: Literal["high", "low"] | None
    matters: bool
    differs: bool
    difference_unit: str
    """Per cent, or kelvin of a temperature."""
    metric: ShownUnitOut
    inch: ShownUnitOut
    working: str | None
    """Result whose working it shows; null for what is read or seen."""
    cells: list[SheetCellOut]


class OfferedColumnOut(WireModel):
    """A filter of another study that can be put beside these."""

    sample_id: int
    label: str
    maker: str | None
    part_number: str | None
    other_study: str


class ComparisonSheetOut(WireModel):
    """Everything known of several filters, each against the reference part."""

    study_name: str
    compared: Compared
    use_id: int | None
    has_uncertainty_of_behaviour: bool
    groups: list[str]
    columns: list[SheetColumnOut]
    rows: list[SheetRowOut]

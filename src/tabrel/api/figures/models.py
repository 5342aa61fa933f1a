"""Wire models of the figures beside the opened filter."""

from __future__ import annotations

from typing import Annotated

from tabrel.core.field_units import Kpa, Mm, Percent, Um, Um2, UmC
from tabrel.core.figures.media_deductions import StripAreas
from tabrel.core.figures.opening_evidence import OpeningComparison
from tabrel.core.figures.parts_tray import CanStrength, MassBalance
from tabrel.core.figures.pleat_count import PleatCountCurve
from tabrel.core.figures.pleat_pack import DrawnPack
from tabrel.core.parts.valve_curve import ValveCurve
from tabrel.document.results import ResultOut, WireModel
from tabrel.document.wire import WIRED
from tabrel.report.figures.drawings import DrawnFilter


class ValveOut(WireModel):
    """The bypass valve: evidence, drawing, curves."""

    comparison: Annotated[OpeningComparison, WIRED]
    senses: str | None
    kind: str | None
    opening_kpa: Kpa | None
    full_open_kpa: Kpa | None
    lift_limit_mm: Mm | None
    lift_is_assumed: bool
    drawing: Annotated[DrawnFilter, WIRED]
    curves: Annotated[list[ValveCurve], WIRED]


class ClaimedEfficiencyOut(WireModel):
    """An efficiency claim: its own point, two where the scale of its size is not named, and what it allows at 20 µm(c)."""

    words: str
    source: str
    relation: str
    """= unless the claim says otherwise."""
    sizes_um_c: list[UmC]
    percent: Percent | None
    low_at_20_percent: Percent | None
    high_at_20_percent: Percent | None
    why_not: str
    is_used: bool


class EfficiencyOut(WireModel):
    """Claims, and the screening estimate as a band, in percent over size."""

    claims: list[ClaimedEfficiencyOut]
    sizes_um_c: list[UmC]
    estimate: list[float]
    low: list[float]
    high: list[float]
    valid_to_um_c: UmC | None
    estimate_is_used: bool
    counted_at_20: ResultOut | None
    fibre_diameter_um: Um | None
    solidity_percent: Percent | None
    assumed: list[str]
    permeability_um2: Um2 | None
    permeability_basis: str | None
    permeability_factor: float


class FiguresOut(WireModel):
    """Everything that is drawn beside the readings of the opened filter."""

    valve: ValveOut
    tray: Annotated[MassBalance, WIRED]
    strength: Annotated[CanStrength, WIRED]
    pack: Annotated[DrawnPack, WIRED]
    pleat_curve: Annotated[PleatCountCurve | None, WIRED]
    pack_drawing: Annotated[DrawnFilter, WIRED]
    strip: Annotated[StripAreas | None, WIRED]
    strip_drawing: Annotated[DrawnFilter | None, WIRED]
    efficiency: EfficiencyOut
    section: Annotated[DrawnFilter, WIRED]

"""Wire models of the figures beside the opened filter."""

from __future__ import annotations

from typing import Literal

from tabrel.core.field_units import Celsius, Cm2, GPerM2, Grams, Kpa, LPerMin, Mm, Mm2, Mpa, Percent, Um, Um2, UmC
from tabrel.document.results import ResultOut, WireModel


class EvidenceOut(WireModel):
    """One way to the opening pressure."""

    basis: str
    kpa: Kpa
    expanded_kpa: Kpa | None
    low_kpa: Kpa | None
    high_kpa: Kpa | None
    is_used: bool


class AgreementOut(WireModel):
    """Whether two ways agree."""

    first: str
    second: str
    normalised_error: float | None
    """Difference over its expanded uncertainty: beyond 1 the two disagree."""
    agrees: bool
    reservation: str
    """Which uncertainty is not in it; empty where both are."""


class StatedBandOut(WireModel):
    """A stated band, read as start to full open and as a tolerance."""

    low_kpa: Kpa
    high_kpa: Kpa
    opens_at_low: AgreementOut
    full_open_at_high: AgreementOut | None
    within_tolerance: bool


class ValveCurveOut(WireModel):
    """Lift and flow against pressure at one oil temperature."""

    temperature_c: Celsius
    kpa: list[Kpa]
    lift_mm: list[Mm]
    l_min: list[LPerMin]


class ValveSizesOut(WireModel):
    """Sizes with which the valve is drawn; typical ones stand in for what was not measured."""

    form: Literal["coil", "leaf", "flap"]
    seat_inside_mm: Mm
    seat_outside_mm: Mm
    disc_mm: Mm
    lift_mm: Mm
    spring_width_mm: Mm
    spring_length_mm: Mm
    wire_mm: Mm
    coils: float
    is_typical: bool
    """A typical size stands in for a missing one, for the drawing only."""


class ValveOut(WireModel):
    """The bypass valve: evidence, sizes for the drawing, curves."""

    evidence: list[EvidenceOut]
    agreements: list[AgreementOut]
    closing_kpa: Kpa | None
    stated_band: StatedBandOut | None
    senses: str | None
    kind: str | None
    opening_kpa: Kpa | None
    full_open_kpa: Kpa | None
    half_open_kpa: Kpa | None
    lift_limit_mm: Mm | None
    lift_is_assumed: bool
    sizes: ValveSizesOut
    coil_bound: bool | None
    curves: list[ValveCurveOut]


class TrayPartOut(WireModel):
    """A part on the tray."""

    part: str
    grams: Grams | None
    state: str | None
    """Reason for the missing value."""


class TrayOut(WireModel):
    """Mass balance, and what compares cans."""

    parts: list[TrayPartOut]
    whole_grams: Grams | None
    difference_grams: Grams | None
    difference_expanded_grams: Grams | None
    closes: bool | None
    words: str
    shell_grams: Grams | None
    shell_ratio: float | None
    hoop_stress_mpa: Mpa | None
    yield_mpa: list[Mpa] | None
    thread_engagement_mm: Mm | None


class PackOut(WireModel):
    """The pleat pack seen end-on; what was not measured stands at a typical size."""

    outside_mm: Mm
    inside_mm: Mm
    count: int
    thickness_mm: Mm
    depth_mm: Mm
    can_inside_mm: Mm | None
    measured: list[str]
    opening_percent: Percent
    crowding: str
    tube_open_mm2: Mm2 | None


class PleatCurveOut(WireModel):
    """Viscous loss against the number of pleats, in multiples of this filter's."""

    counts: list[int]
    media: list[float]
    channels: list[float]
    count: float
    optimum: int
    least_loss: float
    largest_count: int


class DeductionOut(WireModel):
    """A part of the gross area that no oil passes."""

    key: str
    cm2: Cm2
    measured: bool


class StripOut(WireModel):
    """The strip laid flat."""

    length_mm: Mm
    width_mm: Mm
    potting_mm: Mm
    overlap_mm: Mm
    blocked_length_mm: Mm
    gross_cm2: Cm2
    effective_cm2: Cm2
    deductions: list[DeductionOut]
    is_forecast: bool
    pulled_length_mm: Mm | None
    pleats_length_mm: Mm | None
    length_off_percent: Percent | None
    grammage_g_m2: GPerM2 | None


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


class SectionPartOut(WireModel):
    """A cut part, right half, y upward."""

    key: str
    material: str
    points_mm: list[list[Mm]]
    guessed: bool


class SectionDimensionOut(WireModel):
    """A dimension line."""

    key: str
    points_mm: list[list[Mm]]


class OilWayOut(WireModel):
    """A way of the oil."""

    kind: str
    points_mm: list[list[Mm]]


class WholeSectionOut(WireModel):
    """The section through the whole filter; a filter is round, and the left half mirrors the right."""

    parts: list[SectionPartOut]
    dimensions: list[SectionDimensionOut]
    ways: list[OilWayOut]
    radius_mm: Mm
    bottom_mm: Mm
    top_mm: Mm
    problems: list[str]
    has_can: bool


class FiguresOut(WireModel):
    """Everything that is drawn beside the readings of the opened filter."""

    valve: ValveOut
    tray: TrayOut
    pack: PackOut
    pleat_curve: PleatCurveOut | None
    strip: StripOut | None
    efficiency: EfficiencyOut
    section: WholeSectionOut

"""What goes out of the figures beside the readings of the opened filter."""

from __future__ import annotations

from typing import Literal

from tabrel.document.results import ResultOut, WireModel


class EvidenceOut(WireModel):
    """One way to the opening pressure."""

    basis: str
    kpa: float
    expanded_kpa: float | None
    is_used: bool


class AgreementOut(WireModel):
    """Whether two ways agree."""

    first: str
    second: str
    normalised_error: float | None
    agrees: bool


class StatedBandOut(WireModel):
    """A stated band, read as start to full open and as a tolerance."""

    low_kpa: float
    high_kpa: float
    opens_at_low: AgreementOut
    full_open_at_high: AgreementOut | None
    within_tolerance: bool


class ValveCurveOut(WireModel):
    """Lift and flow against pressure at one oil temperature."""

    temperature_c: float
    kpa: list[float]
    lift_mm: list[float]
    l_min: list[float]


class ValveSizesOut(WireModel):
    """Sizes with which the valve is drawn; typical ones stand in for what was not measured."""

    form: Literal["coil", "leaf", "flap"]
    seat_inside_mm: float
    seat_outside_mm: float
    disc_mm: float
    lift_mm: float
    spring_width_mm: float
    spring_length_mm: float
    wire_mm: float
    coils: float
    is_typical: bool


class ValveOut(WireModel):
    """The bypass valve: evidence, sizes for the drawing, curves."""

    evidence: list[EvidenceOut]
    agreements: list[AgreementOut]
    closing_kpa: float | None
    stated_band: StatedBandOut | None
    senses: str | None
    kind: str | None
    opening_kpa: float | None
    full_open_kpa: float | None
    half_open_kpa: float | None
    lift_limit_mm: float | None
    lift_is_assumed: bool
    sizes: ValveSizesOut
    coil_bound: bool | None
    curves: list[ValveCurveOut]


class TrayPartOut(WireModel):
    """A part on the tray."""

    part: str
    grams: float | None
    state: str | None


class TrayOut(WireModel):
    """Mass balance, and what compares cans."""

    parts: list[TrayPartOut]
    whole_grams: float | None
    difference_grams: float | None
    difference_expanded_grams: float | None
    closes: bool | None
    words: str
    shell_grams: float | None
    shell_ratio: float | None
    hoop_stress_mpa: float | None
    yield_mpa: list[float] | None
    thread_engagement_mm: float | None


class PackOut(WireModel):
    """The pleat pack seen end-on; what was not measured stands at a typical size."""

    outside_mm: float
    inside_mm: float
    count: int
    thickness_mm: float
    depth_mm: float
    can_inside_mm: float | None
    measured: list[str]
    opening_percent: float
    room: str
    tube_open_mm2: float | None


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
    cm2: float
    measured: bool


class StripOut(WireModel):
    """The strip laid flat."""

    length_mm: float
    width_mm: float
    potting_mm: float
    overlap_mm: float
    blocked_length_mm: float
    gross_cm2: float
    effective_cm2: float
    deductions: list[DeductionOut]
    is_forecast: bool
    pulled_length_mm: float | None
    pleats_length_mm: float | None
    length_off_percent: float | None
    grammage_g_m2: float | None


class ClaimedEfficiencyOut(WireModel):
    """An efficiency claim: its own point, two where the scale of its size is not named, and what it allows at 20 µm(c)."""

    words: str
    source: str
    relation: str
    sizes_um_c: list[float]
    percent: float | None
    low_at_20_percent: float | None
    high_at_20_percent: float | None
    why_not: str
    is_used: bool


class EfficiencyOut(WireModel):
    """Claims, and the screening estimate as a band, in percent over size."""

    claims: list[ClaimedEfficiencyOut]
    sizes_um_c: list[float]
    estimate: list[float]
    low: list[float]
    high: list[float]
    valid_to_um_c: float | None
    estimate_is_used: bool
    counted_at_20: ResultOut | None
    fibre_diameter_um: float | None
    solidity_percent: float | None
    assumed: list[str]
    permeability_um2: float | None
    permeability_basis: str | None
    permeability_factor: float


class SectionPartOut(WireModel):
    """A cut part, right half, y upward."""

    key: str
    material: str
    points_mm: list[list[float]]
    guessed: bool


class SectionDimensionOut(WireModel):
    """A dimension line."""

    key: str
    points_mm: list[list[float]]


class OilWayOut(WireModel):
    """A way of the oil."""

    kind: str
    points_mm: list[list[float]]


class WholeSectionOut(WireModel):
    """The section through the whole filter; a filter is round, and the left half mirrors the right."""

    parts: list[SectionPartOut]
    dimensions: list[SectionDimensionOut]
    ways: list[OilWayOut]
    radius_mm: float
    bottom_mm: float
    top_mm: float
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

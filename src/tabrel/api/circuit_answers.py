"""What goes out over the wire about oil, engine, maps, slices and starts."""

from __future__ import annotations

from typing import Literal

from tabrel.api.answers import InputSourceOut
from tabrel.core.study.plans import Scenario
from tabrel.document.results import Grid, WireModel


class FlowOnsetOut(WireModel):
    """Bypass onset of the filter alone over the flow through it; null where the valve stays closed."""

    filter_flow_l_min: list[float]
    temperature_c: list[float | None]
    reopens_c: list[float | None]


class FilterAloneOut(WireModel):
    """The filter by itself, rows by temperature; null where the oil does not pump."""

    temperature_c: list[float]
    filter_flow_l_min: list[float]
    element_kpa: Grid
    filter_kpa: Grid
    unfiltered_percent: Grid
    lift_mm: Grid
    onset: FlowOnsetOut
    coldest_pumping_c: float
    inputs: list[InputSourceOut]


class AssumptionOut(WireModel):
    """An assumption, between what it was moved, and what that did."""

    name: str
    value: float
    low: float
    high: float
    is_factor: bool
    mean_change_percent: float
    onset_low_c: float | None
    onset_high_c: float | None


class RestingOut(WireModel):
    """What a map rests on; the strongest assumption first."""

    inputs: list[InputSourceOut]
    assumptions: list[AssumptionOut]


class OilPointOut(WireModel):
    """A point of the viscosity line, in both kinds of viscosity, and as it was stated in one of them."""

    temperature_c: float
    stated: float
    kinematic_mm2_s: float
    dynamic_mpa_s: float
    is_dynamic: bool
    high_shear: bool


class OilLineOut(WireModel):
    """The viscosity line in steps of half a kelvin, its points, and where it is only extended."""

    temperature_c: list[float]
    kinematic_mm2_s: list[float]
    dynamic_mpa_s: list[float]
    density_kg_m3: list[float]
    points: list[OilPointOut]
    coldest_point_c: float
    warmest_point_c: float
    coldest_pumping_c: float


class StudLossOut(WireModel):
    """A bore of the stud, and what it costs at the hot point."""

    bore_mm: float
    loss_kpa: float


class HotPointOut(WireModel):
    """The circuit at its hot point."""

    displaced_l_min: float
    slip_l_min: float
    flow_l_min: float
    bearings_l_min: float
    jets_l_min: float
    jet_diameter_mm: float | None
    bearing_viscosity_mpa_s: float
    stated_kpa: float
    computed_kpa: float | None
    leftover_percent: float | None
    studs: list[StudLossOut]


class LibraryEngineOut(WireModel):
    """An engine of the library; `id` is null for one that is shipped."""

    id: int | None
    name: str
    words: str


class EngineOut(WireModel):
    """Oil and engine of a study, with a sample fitted for the check."""

    oil: OilLineOut | None
    grades: list[str]
    hot_point: HotPointOut | None
    missing: list[str]
    problem: str | None
    library: list[LibraryEngineOut]


class ScenarioOut(WireModel):
    """A kept scenario."""

    id: int
    scenario: Scenario
    words: list[str]


class PartShareOut(WireModel):
    """A part's share of the filter's own loss."""

    name: str
    loss_kpa: float
    share_percent: float


class WarmUpTotalsOut(WireModel):
    """What a start comes to."""

    filled_after_s: float | None
    pressure_after_s: float | None
    bypass_minutes: float
    unfiltered_l: float
    volume_l: float
    lowest_gallery_kpa: float | None
    dry_s: float


class SideOut(WireModel):
    """One series at the crosshair: what restricts, when it bypasses, what a start comes to; or why that cannot be said.

    A series is a sample, or the sample in hand in one scenario; the same `key` names it in a slice.
    """

    key: str
    sample_id: int
    label: str
    parts: list[PartShareOut]
    filter_kpa: float | None
    gallery_kpa: float | None
    unfiltered_percent: float | None
    onset_c: float | None
    filling_onset_c: float | None
    has_valve: bool
    start: WarmUpTotalsOut | None
    problem: str | None
    missing: list[str]


class SideBySideOut(WireModel):
    """All samples of a study at one place, or one sample in all its scenarios."""

    temperature_c: float
    speed_rpm: float
    start_c: float
    duty_cycle: str
    sides: list[SideOut]


class SliceProgressOut(WireModel):
    """How far the Monte Carlo of one series has come."""

    kind: Literal["progress"]
    key: str
    done: int
    total: int


class SliceBandOut(WireModel):
    """A quantity along the slice with its 95 % band, and the bypass onset with its interval."""

    kind: Literal["band"]
    key: str
    along: list[float]
    value: list[float | None]
    low: list[float | None]
    middle: list[float | None]
    high: list[float | None]
    unit: str
    draws: int
    impossible: int
    onset_c: float | None
    onset_low_c: float | None
    onset_high_c: float | None
    shut_percent: float


class SliceProblemOut(WireModel):
    """Why a series has no band."""

    kind: Literal["problem"]
    key: str
    message: str
    missing: list[str]


class SliceLineOut(WireModel):
    """One line of the stream."""

    line: SliceProgressOut | SliceBandOut | SliceProblemOut


class WarmUpTraceOut(WireModel):
    """A start drawn over time."""

    time_s: list[float]
    temperature_c: list[float]
    can_temperature_c: list[float]
    speed_rpm: list[float]
    element_kpa: list[float | None]
    gallery_kpa: list[float | None]
    gauge_kpa: list[float | None]
    filter_flow_l_min: list[float | None]
    unfiltered_percent: list[float | None]


class LifeRowOut(WireModel):
    """Hours to the first opening of the bypass at one oil temperature; null where it never opens, 0 from new."""

    temperature_c: float
    is_cold_start: bool
    steady_loading: float | None
    steady_hours: float | None
    filling_hours: float | None
    never_steady: bool
    never_filling: bool


class CleanUpOut(WireModel):
    """Half-life of particles of a size in the sump."""

    size_um: float
    efficiency_percent: float
    minutes: float


class LifeOut(WireModel):
    """How long a filter lasts and how fast it cleans."""

    capacity_g: float
    capacity_assumed: bool
    rows: list[LifeRowOut]
    clean_up: list[CleanUpOut]


class StartOut(WireModel):
    """One sample's start and life; or why they cannot be computed."""

    sample_id: int
    label: str
    totals: WarmUpTotalsOut | None
    trace: WarmUpTraceOut | None
    life: LifeOut | None
    problem: str | None
    missing: list[str]


class WarmUpOut(WireModel):
    """The start of every sample of a study."""

    duty_cycle: str
    cycles: list[str]
    assumed: list[str]
    warm_c: float
    speed_rpm: float
    starts: list[StartOut]

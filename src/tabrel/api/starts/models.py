"""Wire models of starts and life."""

from __future__ import annotations

from pydantic import Field

from tabrel.api.wire import FileText, RequestModel
from tabrel.core.field_units import Celsius, Grams, Hours, Kpa, Litres, LPerMin, Minutes, Percent, Rpm, Seconds, Um
from tabrel.core.rules.limits import MOST_LETTERS_OF_A_CYCLE
from tabrel.core.study.plans import Scenario
from tabrel.document.results import WireModel


class WarmUpIn(RequestModel):
    """Request for a start: the study as it is, or a scenario."""

    scenario: Scenario | None = None


class WarmUpTotalsOut(WireModel):
    """Totals of a start."""

    filled_after_s: Seconds | None
    pressure_after_s: Seconds | None
    bypass_minutes: Minutes
    unfiltered_l: Litres
    volume_l: Litres
    lowest_gallery_kpa: Kpa | None
    dry_s: Seconds


class WarmUpTraceOut(WireModel):
    """A start drawn over time."""

    time_s: list[Seconds]
    temperature_c: list[Celsius]
    can_temperature_c: list[Celsius]
    speed_rpm: list[Rpm]
    element_kpa: list[Kpa | None]
    gallery_kpa: list[Kpa | None]
    gauge_kpa: list[Kpa | None]
    filter_flow_l_min: list[LPerMin | None]
    unfiltered_percent: list[Percent | None]


class LifeRowOut(WireModel):
    """Hours to the first opening of the bypass at one oil temperature; null where it never opens, 0 from new."""

    temperature_c: Celsius
    is_cold_start: bool
    steady_loading: float | None
    """Loading at which the valve opens; null for never."""
    steady_hours: Hours | None
    filling_hours: Hours | None
    never_steady: bool
    never_filling: bool
    steady_is_least: bool
    """The counted test ended before: the filter lasts at least this long."""
    filling_is_least: bool
    """The counted test ended before: the filter lasts at least this long."""


class CleanUpOut(WireModel):
    """Half-life of particles of a size in the sump; only a bound or an envelope where the efficiency is one."""

    size_um: Um
    minutes: Minutes | None
    low_minutes: Minutes | None
    """Null if only a bound is known."""
    high_minutes: Minutes | None
    """Null if only a bound is known."""


class ReachingOut(WireModel):
    """Share of the particles of a size that reaches the engine over a start, past the media and through it."""

    size_um: Um
    percent: Percent | None
    """Of all particles that the oil carries to the filter; null if only bounds are known."""
    low_percent: Percent | None
    high_percent: Percent | None
    basis: str


class LifeOut(WireModel):
    """How long a filter lasts and how fast it cleans, at one speed."""

    speed_rpm: Rpm
    capacity_g: Grams
    capacity_basis: str
    """Source of the dirt capacity: counts, stated, or family (assumed)."""
    capacity_is_least: bool
    """The test ended before the terminal ratio: the filter holds at least this much."""
    capacity_corrected_by: str
    """Label of the counted filter of the family that corrects an assumed capacity; empty for none."""
    factor: float
    """Every time is good to this factor either way at 95 %, by what is assumed of capacity and ingress; 1 for nothing."""
    rows: list[LifeRowOut]
    clean_up: list[CleanUpOut]


class EndOfServiceOut(WireModel):
    """The same start at the end of the stated service, and the onset beside that of the new filter."""

    hours: Hours
    captured_g: Grams
    loading: float
    is_least: bool
    """The counted test ended before: it is loaded at least so much."""
    totals: WarmUpTotalsOut
    onset_c: Celsius | None
    onset_new_c: Celsius | None


class LifeSpeedOut(WireModel):
    """A speed at which lives are told, and the share of the running time for which it is not exceeded."""

    share_percent: Percent
    speed_rpm: Rpm


class StartOut(WireModel):
    """One sample's start and life; or why they cannot be computed."""

    sample_id: int
    label: str
    totals: WarmUpTotalsOut | None
    trace: WarmUpTraceOut | None
    lives: list[LifeOut]
    reaching: list[ReachingOut]
    end_of_service: EndOfServiceOut | None
    """Null while no hours of service are stated, or nothing says what the filter holds."""
    problem: str | None
    """Reason why there is no result, one sentence."""
    missing: list[str]


class WarmUpOut(WireModel):
    """The start of every sample of a study."""

    duty_cycle: str
    cycles: list[str]
    assumed: list[str]
    warm_c: Celsius
    speeds: list[LifeSpeedOut]
    starts: list[StartOut]


class DutyCycleIn(RequestModel):
    """A duty cycle as CSV."""

    name: str
    csv: FileText = Field(max_length=MOST_LETTERS_OF_A_CYCLE)

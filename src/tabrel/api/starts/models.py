"""What goes over the wire about starts and life."""

from __future__ import annotations

from pydantic import Field

from tabrel.api.wire import FileText, RequestModel
from tabrel.core.rules.limits import MOST_LETTERS_OF_A_CYCLE
from tabrel.core.study.plans import Scenario
from tabrel.document.results import WireModel


class WarmUpIn(RequestModel):
    """What a start is asked with: the study as it is, or what if."""

    scenario: Scenario | None = None


class WarmUpTotalsOut(WireModel):
    """What a start comes to."""

    filled_after_s: float | None
    pressure_after_s: float | None
    bypass_minutes: float
    unfiltered_l: float
    volume_l: float
    lowest_gallery_kpa: float | None
    dry_s: float


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
    steady_is_least: bool
    filling_is_least: bool


class CleanUpOut(WireModel):
    """Half-life of particles of a size in the sump; only a bound or an envelope where the efficiency is one."""

    size_um: float
    minutes: float | None
    low_minutes: float | None
    high_minutes: float | None


class ReachingOut(WireModel):
    """What of the particles of a size reaches the engine over the start, past the media and through it."""

    size_um: float
    percent: float | None
    low_percent: float | None
    high_percent: float | None
    basis: str


class LifeOut(WireModel):
    """How long a filter lasts and how fast it cleans, at one speed."""

    speed_rpm: float
    capacity_g: float
    capacity_basis: str
    capacity_is_least: bool
    rows: list[LifeRowOut]
    clean_up: list[CleanUpOut]


class LifeSpeedOut(WireModel):
    """A speed at which lives are told, and the share of the running time for which it is not exceeded."""

    share_percent: float
    speed_rpm: float


class StartOut(WireModel):
    """One sample's start and life; or why they cannot be computed."""

    sample_id: int
    label: str
    totals: WarmUpTotalsOut | None
    trace: WarmUpTraceOut | None
    lives: list[LifeOut]
    reaching: list[ReachingOut]
    problem: str | None
    missing: list[str]


class WarmUpOut(WireModel):
    """The start of every sample of a study."""

    duty_cycle: str
    cycles: list[str]
    assumed: list[str]
    warm_c: float
    speeds: list[LifeSpeedOut]
    starts: list[StartOut]


class DutyCycleIn(RequestModel):
    """A duty cycle as CSV."""

    name: str
    csv: FileText = Field(max_length=MOST_LETTERS_OF_A_CYCLE)

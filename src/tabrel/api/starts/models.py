"""Wire models of starts and life."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from tabrel.api.wire import FileText, RequestModel
from tabrel.core.field_units import Celsius, Grams, Hours, Kpa, Litres, LPerMin, Minutes, Percent, Rpm, Seconds
from tabrel.core.rules.limits import MOST_LETTERS_OF_A_CYCLE
from tabrel.core.starts.life import Life, Reaching
from tabrel.core.study.plans import Scenario
from tabrel.document.results import WireModel
from tabrel.document.wire import WIRED


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
    lives: Annotated[list[Life], WIRED]
    reaching: Annotated[list[Reaching], WIRED]
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

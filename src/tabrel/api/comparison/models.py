"""Wire models of filters side by side."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from tabrel.api.maps.models import ConditionIn
from tabrel.api.starts.models import WarmUpTotalsOut
from tabrel.api.wire import RequestModel
from tabrel.core.field_units import Celsius, Rpm
from tabrel.core.maps.comparison import FilterAtPoint
from tabrel.core.study.plans import Scenario
from tabrel.document.results import WireModel
from tabrel.document.wire import WIRED


class ComparedFilterOut(WireModel):
    """One series at the crosshair: what restricts, when it bypasses, what a start comes to; or why that cannot be said.

    A series is a sample, or the selected sample in one scenario; the same `key` names it in a slice.
    """

    key: str
    sample_id: int
    label: str
    at_point: Annotated[FilterAtPoint | None, WIRED]
    start: WarmUpTotalsOut | None
    problem: str | None
    """Reason why there is no result, one sentence."""
    missing: list[str]


class ComparisonOut(WireModel):
    """All samples of a study at one place, or one sample in all its scenarios."""

    temperature_c: Celsius
    speed_rpm: Rpm
    start_c: Celsius
    duty_cycle: str
    filters: list[ComparedFilterOut]


class PlaceIn(RequestModel):
    """A place of the map, and how the circuit is thought there; with a sample, that one in all saved scenarios."""

    temperature_c: Celsius = Field(ge=-100, le=300)
    speed_rpm: Rpm = Field(gt=0, le=20000)
    condition: ConditionIn = "steady"
    scenario: Scenario | None = None
    sample_id: int | None = None

"""Wire models of slices of a map."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from tabrel.api.maps.models import ConditionIn
from tabrel.api.wire import RequestModel
from tabrel.core.field_units import Celsius, Percent
from tabrel.core.maps.quantities import MapQuantityName
from tabrel.core.study.plans import Scenario
from tabrel.document.results import WireModel


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
    onset_c: Celsius | None
    onset_low_c: Celsius | None
    onset_high_c: Celsius | None
    shut_percent: Percent


class SliceProblemOut(WireModel):
    """Why a series has no band."""

    kind: Literal["problem"]
    key: str
    message: str
    missing: list[str]


class SliceLineOut(WireModel):
    """One line of the stream."""

    line: SliceProgressOut | SliceBandOut | SliceProblemOut


class SliceIn(RequestModel):
    """A slice through the maps of several series, by the keys that the side-by-side table gave them."""

    keys: list[str] = Field(min_length=1, max_length=100)
    along: Literal["temperature", "speed"] = "temperature"
    at: float = Field(ge=-100, le=20000)
    quantity: MapQuantityName = "element_pressure"
    condition: ConditionIn = "steady"
    scenario: Scenario | None = None

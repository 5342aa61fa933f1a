"""What comes in over the wire about oil, engine, maps, slices and starts."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from tabrel.api.requests import RequestModel
from tabrel.core.study.model import ViscosityPoint
from tabrel.core.study.plans import Scenario

ConditionIn = Literal["steady", "filling"]
QuantityName = Literal[
    "element_pressure",
    "filter_pressure",
    "gallery_pressure",
    "gauge_excess",
    "filter_flow",
    "unfiltered_fraction",
    "regulator_fraction",
    "media_fraction",
    "lift",
]


class MapIn(RequestModel):
    """Which map is asked for: condition, particle size [µm(c)] of the system efficiency, and a scenario."""

    condition: ConditionIn = "steady"
    size_um: float = Field(default=20.0, gt=0.1, le=1000)
    scenario: Scenario | None = None


class FilterAloneIn(RequestModel):
    """The filter by itself, as it is or in a scenario."""

    scenario: Scenario | None = None


class RestingIn(RequestModel):
    """Of which map the assumptions are asked; with a filter flow, of the filter alone."""

    condition: ConditionIn = "steady"
    quantity: QuantityName = "element_pressure"
    speed_rpm: float = Field(default=2000.0, gt=0, le=20000)
    filter_flow_l_min: float | None = Field(default=None, gt=0, le=1000)
    scenario: Scenario | None = None


class PlaceIn(RequestModel):
    """A place of the map, and how the circuit is thought there; with a sample, that one in all kept scenarios."""

    temperature_c: float = Field(ge=-100, le=300)
    speed_rpm: float = Field(gt=0, le=20000)
    condition: ConditionIn = "steady"
    scenario: Scenario | None = None
    sample_id: int | None = None


class SliceIn(RequestModel):
    """A slice through the maps of several series, by the keys that the side-by-side table gave them."""

    keys: list[str] = Field(min_length=1, max_length=100)
    along: Literal["temperature", "speed"] = "temperature"
    at: float = Field(ge=-100, le=20000)
    quantity: QuantityName = "element_pressure"
    condition: ConditionIn = "steady"
    scenario: Scenario | None = None


class OilLineIn(RequestModel):
    """Viscosity points and density, to draw the line of an oil that is not kept."""

    density_15c_kg_m3: float
    viscosity: list[ViscosityPoint] = Field(max_length=40)
    pumping_limit_c: float | None = None


class OilIn(RequestModel):
    """The points of the study's oil, or the grade whose typical oil it is to become; and the points that were seen."""

    grade: str | None = None
    viscosity: list[ViscosityPoint] | None = Field(default=None, max_length=40)
    seen: list[ViscosityPoint] | None = None


class EngineIn(RequestModel):
    """Which engine of the library the study is to have."""

    name: str


class DutyCycleIn(RequestModel):
    """A duty cycle as CSV."""

    name: str
    csv: str = Field(max_length=20_000_000)

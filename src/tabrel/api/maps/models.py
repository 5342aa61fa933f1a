"""Wire models of maps and scenarios."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from tabrel.api.wire import RequestModel, UnitFamilyIn
from tabrel.core.field_units import Celsius, Kpa, LPerMin, Mm, Percent, Rpm, Um
from tabrel.core.maps.quantities import MapQuantityName
from tabrel.core.maps.sensitivity import InputSource
from tabrel.core.study.plans import Scenario
from tabrel.document.results import Grid, MapOut, OnsetOut, WireModel
from tabrel.document.wire import WIRED

ConditionIn = Literal["steady", "filling"]


class LossPartOut(WireModel):
    """One part's loss over the map: viscous, inertial, and what it holds back whatever the flow (null: nothing)."""

    name: str
    viscous_kpa: Grid[Kpa]
    inertial_kpa: Grid[Kpa]
    spring_kpa: Grid[Kpa] | None
    """Held back whatever the flow; null for nothing."""


class EfficiencyAtOut(WireModel):
    """The media's efficiency at a size, from the best evidence; null where there is none."""

    size_um: Um
    value_percent: Percent | None
    low_percent: Percent | None
    high_percent: Percent | None
    basis: str | None
    missing: list[str]


InputSources = Annotated[list[InputSource], WIRED]
"""Inputs of a map, and where each comes from."""


class OperatingMapOut(MapOut):
    """The operating map with its pressure-loss breakdown and curves, as the map view draws it.

    The system efficiency is the share through the media times the media's efficiency; where only a
    bound is known it is that bound.
    """

    condition: Literal["steady", "filling"]
    lift_mm: Grid[Mm]
    unfiltered_percent: Grid[Percent]
    gauge_minus_gallery_kpa: Grid[Kpa]
    relief_flow_percent: Grid[Percent]
    system_efficiency_percent: Grid[Percent] | None
    efficiency: EfficiencyAtOut
    regulator: OnsetOut
    evaluations: int
    inputs: InputSources
    loss_breakdown: list[LossPartOut]
    left_out: list[str]
    bypass_location: str
    coldest_pumping_c: Celsius
    gauge: Literal["pump", "filter_inlet", "gallery"]


class FlowOnsetOut(WireModel):
    """Bypass onset of the filter alone over the flow through it; null where the valve stays closed."""

    filter_flow_l_min: list[LPerMin]
    temperature_c: list[Celsius | None]
    reopens_c: list[Celsius | None]


class FilterAloneOut(WireModel):
    """The filter by itself, rows by temperature; null where the oil does not pump."""

    temperature_c: list[Celsius]
    filter_flow_l_min: list[LPerMin]
    element_kpa: Grid[Kpa]
    filter_kpa: Grid[Kpa]
    unfiltered_percent: Grid[Percent]
    lift_mm: Grid[Mm]
    onset: FlowOnsetOut
    loss_breakdown: list[LossPartOut]
    left_out: list[str]
    bypass_location: str
    coldest_pumping_c: Celsius
    inputs: InputSources


class AssumptionOut(WireModel):
    """An assumption, between what it was moved, and what that did."""

    name: str
    value: float
    low: float
    high: float
    unit: str
    is_factor: bool
    """Spread as a factor; else over a range."""
    mean_change_percent: Percent
    onset_low_c: Celsius | None
    onset_high_c: Celsius | None


class SensitivityOut(WireModel):
    """Inputs and sensitivity of a map; the strongest assumption first."""

    inputs: InputSources
    assumptions: list[AssumptionOut]


class ScenarioOut(WireModel):
    """A saved scenario."""

    id: int
    scenario: Scenario
    words: list[str]


class ScenarioValueIn(RequestModel):
    """Text of a field of a scenario, with the scenario as it is so far."""

    scenario: Scenario
    key: str
    text: str
    family: UnitFamilyIn = "metric"


class MapIn(RequestModel):
    """Which map is asked for: condition, particle size [µm(c)] of the system efficiency, and a scenario."""

    condition: ConditionIn = "steady"
    size_um: Um = Field(default=20.0, gt=0.1, le=1000)
    scenario: Scenario | None = None


class FilterAloneIn(RequestModel):
    """The filter by itself, as it is or in a scenario."""

    scenario: Scenario | None = None


class SensitivityIn(RequestModel):
    """Of which map the assumptions are asked; with a filter flow, of the filter alone."""

    condition: ConditionIn = "steady"
    quantity: MapQuantityName = "element_pressure"
    speed_rpm: Rpm = Field(default=2000.0, gt=0, le=20000)
    filter_flow_l_min: LPerMin | None = Field(default=None, gt=0, le=1000)
    scenario: Scenario | None = None

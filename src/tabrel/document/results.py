"""Results and maps as JSON, in the units people read; the command line and the API share these models."""

from __future__ import annotations

from typing import TypeVar

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict

from tabrel.core.catalogue.results import RESULTS, wire_factor
from tabrel.core.field_units import Celsius, Kpa, LPerMin, Rpm
from tabrel.core.maps.onset import BypassOnset
from tabrel.core.maps.operating_map import OperatingMap
from tabrel.core.numbers import known_or_none
from tabrel.core.results.analysis import SampleAnalysis, SampleResults
from tabrel.core.uncertainty.propagation import Result

T = TypeVar("T")
Grid = list[list[T | None]]


class WireModel(BaseModel):
    """A model that goes out and never comes in."""

    model_config = ConfigDict(frozen=True, use_attribute_docstrings=True)


class ResultOut(WireModel):
    """One result in the unit its key names."""

    value: float | None
    standard_uncertainty: float | None
    expanded_uncertainty: float | None
    low: float | None
    high: float | None
    relation: str
    """>= or <= if only a bound is known; else =."""
    basis: str | None
    missing: list[str]
    assumed: list[str]
    words: str | None
    """Printed in place of a number that nobody stated: a claim as it was made."""


class FlowAreaOut(ResultOut):
    """The tapping plate flow area, with the section that controls it, and what it is on other studs of the engine."""

    controlled_by: str | None
    least_stud: float | None
    greatest_stud: float | None


class WarningOut(WireModel):
    """Something implausible: code, sentence, place."""

    code: str
    message: str
    where: str
    """Key, or path in the document; empty for the whole."""


class ResultsOut(WireModel):
    """The results of one sample; each key ends in its unit."""

    inlet_hole_area_mm2: ResultOut
    plate_flow_area_mm2: FlowAreaOut
    plate_series_area_mm2: ResultOut
    media_gross_area_cm2: ResultOut
    media_effective_area_cm2: ResultOut
    pleat_opening_at_inside_percent: ResultOut
    media_permeability_m2: ResultOut
    bypass_opening_kpa: ResultOut
    bypass_full_open_kpa: ResultOut
    efficiency_at_20_um_percent: ResultOut
    size_at_beta_75_um: ResultOut
    size_at_beta_2_um: ResultOut
    efficiency_slope: ResultOut
    retention_capacity_g: ResultOut


class AnalysisOut(WireModel):
    """Results and warnings of one sample."""

    label: str
    results: ResultsOut
    warnings: list[WarningOut]


def result_out(result: Result) -> ResultOut:
    """Return one result, scaled already; numbers that are not finite are null."""
    return ResultOut(
        value=known_or_none(result.value),
        standard_uncertainty=known_or_none(result.standard_uncertainty),
        expanded_uncertainty=known_or_none(result.expanded_uncertainty),
        low=known_or_none(result.low),
        high=known_or_none(result.high),
        relation=result.relation,
        basis=result.basis,
        missing=list(result.missing),
        assumed=list(result.assumed),
        words=result.words,
    )


def results_out(results: SampleResults) -> ResultsOut:
    """Return the results of a sample in the units of their keys."""
    filled: dict[str, ResultOut] = {}
    for row in RESULTS.values():
        result: Result = getattr(results, row.name).scaled(wire_factor(row.unit))
        out = result_out(result)
        is_area = row.name == "plate_flow_area"
        filled[row.key] = out
        if is_area:
            studs = {name: known_or_none(getattr(result, name)) for name in ("least_stud", "greatest_stud")}
            filled[row.key] = FlowAreaOut(**dict(out), controlled_by=result.controlled_by, **studs)
    return ResultsOut.model_validate(filled)


def analysis_out(label: str, analysis: SampleAnalysis) -> AnalysisOut:
    """Return results and warnings of a sample."""
    warnings = [WarningOut(code=w.code, message=w.message, where=w.where) for w in analysis.warnings]
    return AnalysisOut(label=label, results=results_out(analysis.results), warnings=warnings)


class OnsetOut(WireModel):
    """The bypass onset curve; null where the valve stays closed."""

    speed_rpm: list[Rpm]
    temperature_c: list[Celsius | None]
    reopens_c: list[Celsius | None]


class MapOut(WireModel):
    """The operating map, rows by temperature; null where the oil does not pump."""

    temperature_c: list[Celsius]
    speed_rpm: list[Rpm]
    element_kpa: Grid[Kpa]
    filter_kpa: Grid[Kpa]
    bypass_fraction: Grid[float]
    defect_fraction: Grid[float]
    gallery_kpa: Grid[Kpa]
    filter_inlet_kpa: Grid[Kpa]
    pump_kpa: Grid[Kpa]
    gauge_kpa: Grid[Kpa]
    filter_flow_l_min: Grid[LPerMin]
    regulator_fraction: Grid[float]
    onset: OnsetOut


MAP_SCALES: dict[str, tuple[str, float]] = {
    "element_kpa": ("element_pressure", 1e-3),
    "filter_kpa": ("filter_pressure", 1e-3),
    "bypass_fraction": ("bypass_fraction", 1.0),
    "defect_fraction": ("defect_fraction", 1.0),
    "gallery_kpa": ("gallery_pressure", 1e-3),
    "filter_inlet_kpa": ("filter_inlet_pressure", 1e-3),
    "pump_kpa": ("pump_pressure", 1e-3),
    "gauge_kpa": ("gauge_pressure", 1e-3),
    "filter_flow_l_min": ("filter_flow", 60e3),
    "regulator_fraction": ("regulator_fraction", 1.0),
}
"""Array of the core and factor from SI by wire key."""


def map_out(solved: OperatingMap, onset: BypassOnset) -> MapOut:
    """Return a map and its onset curve in the units of their keys."""
    return MapOut.model_validate(
        {
            "temperature_c": solved.temperature.tolist(),
            "speed_rpm": solved.speed.tolist(),
            **{key: grid_out(solved.quantity(name) * factor) for key, (name, factor) in MAP_SCALES.items()},
            "onset": onset_out(onset),
        }
    )


def onset_out(onset: BypassOnset) -> OnsetOut:
    """Return the onset curve with gaps as null."""
    return OnsetOut(
        speed_rpm=onset.speed.tolist(),
        temperature_c=row_out(onset.temperature),
        reopens_c=row_out(onset.reopens),
    )


def grid_out(array: NDArray[np.float64]) -> Grid[float]:
    """Return a two-dimensional array as lists, null for what is not finite."""
    if np.isfinite(array).all():
        plain: Grid[float] = array.tolist()
        return plain
    return [row_out(row) for row in array]


def row_out(row: NDArray[np.float64]) -> list[float | None]:
    """Return a row as a list, null for what is not finite."""
    if np.isfinite(row).all():
        plain: list[float | None] = row.tolist()
        return plain
    return [known_or_none(value) for value in row.tolist()]

"""Behaviour of a filter in its engine, independent of its use: the greatest pressure on its element, and when it bypasses."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.maps.onset import bypass_onset
from tabrel.core.maps.operating_map import operating_map
from tabrel.core.study.model import Sample, Study

SPEEDS = np.arange(600.0, 7000.1, 400.0)
"""At which the onset is known. [rpm]"""
WARMEST = 140.0
TEMPERATURES = 24
"""So many, from the coldest at which the oil pumps; the element is pressed most at the cold end."""


@dataclass(frozen=True)
class Behaviour:
    """Behaviour of a filter in its engine over the whole map.

    Attributes
    ----------
    coldest_pumping : float
        Lowest temperature at which the oil pumps. [°C]
    element_greatest : float or None
        Greatest differential pressure of the element, steady or filling; None where nothing is solved. [Pa]
    element_greatest_stuck : float or None
        The same with the bypass valve stuck shut. [Pa]
    speed : tuple of float
        [rpm]
    onset, filling_onset : tuple of float or None
        Bypass onset temperature at each speed, steady and filling; None where the valve stays shut. [°C]
    """

    coldest_pumping: float
    element_greatest: float | None
    element_greatest_stuck: float | None
    speed: tuple[float, ...]
    onset: tuple[float | None, ...]
    filling_onset: tuple[float | None, ...]


def behaviour(study: Study, sample: Sample) -> Behaviour:
    """Return what a filter does in its study's engine.

    Raises
    ------
    MissingInputsError
        Names everything that is missing.
    StudyError
        If what is there cannot work together.
    """
    steady = operating_point(study, sample)
    points = [steady, replace(steady, condition="filling")]
    coldest = steady.oil.coldest_pumping(-40.0)
    with np.errstate(all="ignore"):
        onset, filling = (
            tuple(None if np.isnan(celsius) else float(celsius) for celsius in bypass_onset(point, SPEEDS.tolist()).temperature)
            for point in points
        )
        return Behaviour(
            coldest,
            _greatest(points, coldest),
            _greatest([replace(point, filter=replace(point.filter, valve=None)) for point in points], coldest),
            tuple(SPEEDS.tolist()),
            onset,
            filling,
        )


def _greatest(points: list[OperatingPoint], coldest: float) -> float | None:
    temperatures = np.linspace(coldest, WARMEST, TEMPERATURES).tolist()
    arrays = [operating_map(point, temperatures, SPEEDS.tolist()).quantity("element_pressure") for point in points]
    known = np.concatenate([grid[np.isfinite(grid)] for grid in arrays])
    return float(known.max()) if known.size else None

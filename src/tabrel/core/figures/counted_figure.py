"""Figure of a counted test: points with intervals, the curve with its band, the test along time, loading."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.dirt_loading import TERMINAL_RATIO, measured_loading, retention_capacity
from tabrel.core.counts.along_time import AlongTime, along_time
from tabrel.core.counts.checks import CountCheck, count_checks, extrapolation
from tabrel.core.counts.counted_test import TOLD_BETAS, CountedTest
from tabrel.core.counts.curve import CountedCurve
from tabrel.core.counts.dust_loading import DustLoading
from tabrel.core.parts.efficiency import REFERENCE_SIZE
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.propagation import Result

FloatArray = NDArray[np.float64]

CURVE_POINTS = 97
BEYOND = 1.6
"""The curve is drawn, dashed, so many times beyond the counted sizes."""


@dataclass(frozen=True)
class DrawnCurve:
    """A curve with its band; low and high are NaN where it has none.

    Attributes
    ----------
    scale : str
        On which the test's sizes were read.
    size : ndarray, shape (n,)
        [µm(c)]
    value, low, high : ndarray, shape (n,)
        Efficiency. [-]
    lowest, highest : float
        Counted sizes; beyond them it is an extrapolation. [µm(c)]
    """

    scale: str
    size: FloatArray
    value: FloatArray
    low: FloatArray
    high: FloatArray
    lowest: float
    highest: float


@dataclass(frozen=True)
class CountedFigure:
    """Figure of a counted test.

    Attributes
    ----------
    test : CountedTest
        Worked out.
    curves : tuple of DrawnCurve
        One a reading of the scale.
    sizes_at : tuple of (float, Result, bool)
        Filtration ratio, the size at which it is reached [µm(c)], and whether that is an extrapolation.
    shares : tuple of (str, float)
        What the uncertainty at 20 µm(c) is made of: input, and share of the variance, the largest first.
    checks : tuple of CountCheck
    along : tuple of AlongTime
        One a counted size.
    loading : DustLoading or Result or None
    capacity : Result
        At the terminal ratio. [kg]
    terminal_ratio : float
    """

    test: CountedTest
    curves: tuple[DrawnCurve, ...]
    sizes_at: tuple[tuple[float, Result, bool], ...]
    shares: tuple[tuple[str, float], ...]
    checks: tuple[CountCheck, ...]
    along: tuple[AlongTime, ...]
    loading: DustLoading | Result | None
    capacity: Result
    terminal_ratio: float


def counted_figure(measured: MeasuredSample) -> CountedFigure | None:
    """Return what is drawn and told of a sample's counted test, or None where there is none that can be worked out."""
    test = measured.counted
    if not isinstance(test, CountedTest):
        return None
    sizes_at = []
    for beta in TOLD_BETAS:
        result = test.size_at(beta)
        known = result.value or result.low or result.high
        sizes_at.append((beta, result, known is not None and bool(extrapolation(test, known))))
    return CountedFigure(
        test=test,
        curves=tuple(_drawn(curve.scale, curve.curve) for curve in test.readings if isinstance(curve.curve, CountedCurve)),
        sizes_at=tuple(sizes_at),
        shares=_shares(test),
        checks=count_checks(test),
        along=tuple(along_time(test.totals, i) for i in range(len(test.counts.sizes_um))),
        loading=measured_loading(measured),
        capacity=retention_capacity(measured),
        terminal_ratio=test.counts.terminal_ratio or TERMINAL_RATIO,
    )


def _drawn(scale: str, curve: CountedCurve) -> DrawnCurve:
    sizes = np.geomspace(curve.lowest / BEYOND, curve.highest * BEYOND, CURVE_POINTS)
    sizes = np.unique(np.concatenate([sizes, [curve.lowest, curve.highest, REFERENCE_SIZE]]))
    return DrawnCurve(scale, sizes, *curve.drawn(sizes), curve.lowest, curve.highest)


def _shares(test: CountedTest) -> tuple[tuple[str, float], ...]:
    curve = test.curve
    if curve is None or not curve.has_interval:
        return ()
    shares: dict[str, float] = {}
    for variable, component in curve.log_beta(REFERENCE_SIZE).error_components().items():
        shares[str(variable.tag)] = shares.get(str(variable.tag), 0.0) + component**2
    whole = sum(shares.values())
    return tuple(sorted(((key, share / whole) for key, share in shares.items()), key=lambda pair: -pair[1]))

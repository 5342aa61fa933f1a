"""A counted test, worked out once: totals, curve, the test along time, and what it says of any size."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache
from math import exp, hypot, log

import numpy as np
from numpy.typing import NDArray
from uncertainties import std_dev, ufloat

from tabrel.core.catalogue.physical_limits import MOST_PARTICLES
from tabrel.core.counts.curve import NORMAL_COVERAGE, CountedCurve, NoCurve, fit_curve
from tabrel.core.counts.totals import Totals, count_totals, missing_volumes
from tabrel.core.errors import OutOfRangeError
from tabrel.core.parts.efficiency import possible_sizes
from tabrel.core.study.model import Counts
from tabrel.core.uncertainty.propagation import Result, Uncertain, missing_result

FloatArray = NDArray[np.float64]

TOLD_BETAS = (2.0, 20.0, 75.0, 200.0, 1000.0)
"""Filtration ratios whose sizes are told."""

RATIO_UNCERTAINTY, SIZE_UNCERTAINTY = 0.03, 0.05
"""Relative standard uncertainties of the volume ratio and of the size scale, where none is stated; our own figures."""


MOST_MISFIT = 3.0
"""φ of a curve; where it is more, a size that was counted itself speaks before the curve."""


@dataclass(frozen=True)
class ReadAs:
    """A test whose sizes are read on one scale.

    Attributes
    ----------
    scale : str
        ``um(c)``, ``um(b)`` or ``um``.
    sizes : ndarray
        In µm(c); NaN where a size lies outside the scale.
    curve : CountedCurve or NoCurve
        Through the sizes that are used.
    """

    scale: str
    sizes: FloatArray
    curve: CountedCurve | NoCurve


@dataclass(frozen=True)
class CountedTest:
    """A counted test, worked out.

    Attributes
    ----------
    totals : Totals
        What was counted and what of it is used.
    readings : tuple of ReadAs
        One where the scale is named; where it is not, plain µm and µm(c) both stand.
    """

    totals: Totals
    readings: tuple[ReadAs, ...]

    @property
    def counts(self) -> Counts:
        """The test as kept, in intervals."""
        return self.totals.counts

    @property
    def assumed(self) -> tuple[str, ...]:
        """Assumptions: the scale if none is named, and unstated conditions."""
        scale = ("counts.scale",) if len(self.readings) > 1 else ()
        return (*scale, *self.totals.assumed)

    @property
    def curve(self) -> CountedCurve | None:
        """The curve, where there is one and the scale is named."""
        only = self.readings[0].curve
        return only if len(self.readings) == 1 and isinstance(only, CountedCurve) else None

    def why_no_curve(self) -> str:
        """Return why there is no curve; empty where there is one."""
        return next((curve.curve.why for curve in self.readings if isinstance(curve.curve, NoCurve)), "")

    def efficiency(self, size: float) -> Result:
        """Return the efficiency at a size [µm(c)]. [-]

        Where no curve can be laid, only the bounds are left that the counted sizes give, as efficiency rises with size.
        Where the curve fits badly (`MOST_MISFIT`), a size that was counted itself speaks.
        """
        return self._spanned([_efficiency(self.totals, curve, size) for curve in self.readings])

    def point(self, size: float) -> CountedPoint | None:
        """Return the point counted at a size [µm(c)] itself, or None where that size was not counted or has no curve.

        Its interval holds counting, the volumes, and the size scale by the slope of the curve there.
        """
        return _point(self.totals, self.readings[0], size) if len(self.readings) == 1 else None

    def deciding_point(self, size: float) -> CountedPoint | None:
        """Return the point counted at a size [µm(c)] where it speaks before the curve, since that fits badly."""
        return self.point(size) if self.curve is not None and self.curve.misfit > MOST_MISFIT else None

    def bounding_betas(self, read: ReadAs, size: float) -> list[tuple[str, int, float]]:
        """Return which counted sizes bound the efficiency at a size [µm(c)] where there is no curve: E₁ or E₂, index, β."""
        return _bounding_betas(self.totals, read, size)

    def size_at(self, beta: float) -> Result:
        """Return the size at which a β is reached. [µm(c)]"""
        results = [curve.curve.size_at(beta) for curve in self.readings if isinstance(curve.curve, CountedCurve)]
        if len(results) < len(self.readings):
            return missing_result("counts.curve", basis="counts", assumed=self.assumed)
        return self._spanned(results)

    def slope(self) -> Result:
        """Return m. [-]"""
        collected = []
        for read_as in self.readings:
            if not isinstance(read_as.curve, CountedCurve):
                return missing_result("counts.curve", basis="counts", assumed=self.assumed)
            collected.append(read_as.curve.slope_result())
        return self._spanned(collected)

    def _spanned(self, results: list[Result]) -> Result:
        """Return one result; where the scale is not named, an envelope of what both readings say."""
        if len(results) == 1:
            return replace(results[0], assumed=self.assumed)
        lows = [result.low if result.low is not None else result.value for result in results]
        highs = [result.high if result.high is not None else result.value for result in results]
        low = None if None in lows else min(end for end in lows if end is not None)
        high = None if None in highs else max(end for end in highs if end is not None)
        relation = "=" if low is not None and high is not None else ">=" if low is not None else "<="
        return Result(None, low=low, high=high, relation=relation, basis="counts", assumed=self.assumed)


@lru_cache(maxsize=64)
def counted_test(counts: Counts) -> CountedTest | Result:
    """Return a test worked out, or a result that names what it lacks."""
    if not counts.intervals and not counts.rows:
        return missing_result("counts", basis="counts")
    if lacking := missing_volumes(counts):
        return missing_result(*lacking, basis="counts")
    if any(max(*one.upstream, *one.downstream) > MOST_PARTICLES for one in counts.intervals):
        return missing_result("counts", basis="counts")
    totals = count_totals(counts)
    scales = ("um", "um(c)") if counts.scale == "unnamed" else (counts.scale,)
    readings = tuple(_read_as(totals, scale) for scale in scales)
    return CountedTest(totals, readings)


def _read_as(totals: Totals, scale: str) -> ReadAs:
    counts = totals.counts
    sizes = np.array([_size(size, scale) for size in counts.sizes_um])
    used = np.array([not fault for fault in totals.size_faults]) & np.isfinite(sizes)
    ratio_u = RATIO_UNCERTAINTY if counts.ratio_uncertainty_percent is None else counts.ratio_uncertainty_percent / 100
    size_u = SIZE_UNCERTAINTY if counts.size_uncertainty_percent is None else counts.size_uncertainty_percent / 100
    if not totals.kept:
        return ReadAs(scale, sizes, NoCurve("no interval is left: the counter saw more than its coincidence limit in each"))
    if not used.any():
        return ReadAs(scale, sizes, NoCurve("no counted size can be used"))
    curve = fit_curve(
        sizes[used].tolist(),
        totals.net.upstream[used],
        totals.net.downstream[used],
        totals.ratio,
        ratio_uncertainty=ratio_u,
        size_uncertainty=size_u,
    )
    return ReadAs(scale, sizes, curve)


def _size(size: float, scale: str) -> float:
    try:
        return possible_sizes(size, scale)[0]
    except OutOfRangeError:
        return float("nan")


def _efficiency(totals: Totals, read: ReadAs, size: float) -> Result:
    if isinstance(read.curve, CountedCurve):
        counted = _point(totals, read, size) if read.curve.misfit > MOST_MISFIT else None
        return counted.result if counted else read.curve.efficiency(size)
    ends = {symbol: max(1 - 1 / beta, 0.0) for symbol, _, beta in _bounding_betas(totals, read, size)}
    low, high = ends.get("E₁"), ends.get("E₂")
    if low is None and high is None:
        return missing_result("counts.sizes", basis="counts")
    relation = "=" if low is not None and high is not None else ">=" if low is not None else "<="
    return Result(None, low=low, high=high, relation=relation, basis="counts")


@dataclass(frozen=True)
class CountedPoint:
    """z = ln(β − 1) as it was counted at one size: its error by counting, volumes and size scale, and how far 95 % reaches."""

    index: int
    log_beta: float
    error: Uncertain
    below: float
    above: float

    @property
    def result(self) -> Result:
        """The efficiency there. [-]"""
        value, low, high = (
            1 / (1 + exp(-end)) for end in (self.log_beta, self.log_beta - self.below, self.log_beta + self.above)
        )
        u = value * (1 - value) * float(std_dev(self.error))
        return Result(value, u, NORMAL_COVERAGE * u, low=low, high=high, basis="counts")


def _point(totals: Totals, read: ReadAs, size: float) -> CountedPoint | None:
    at = np.flatnonzero(np.isclose(read.sizes, size, rtol=1e-6))
    curve, betas = read.curve, totals.betas
    if not at.size or not isinstance(curve, CountedCurve) or not curve.has_interval or totals.size_faults[i := int(at[0])]:
        return None
    beta, low, high = (float(array[i]) for array in (betas.value, betas.low, betas.high))
    if not beta > 1 or not low > 1 or not np.isfinite(high):
        return None
    z, *ends = (log(ratio - 1) for ratio in (beta, low, high))
    other = curve.log_beta_error(size)
    below, above = (hypot(end - z, NORMAL_COVERAGE * float(std_dev(other))) for end in ends)
    counting = ufloat(0.0, (ends[1] - ends[0]) / 2 / NORMAL_COVERAGE, "counts.counting")
    return CountedPoint(i, z, counting + other, below, above)


def _bounding_betas(totals: Totals, read: ReadAs, size: float) -> list[tuple[str, int, float]]:
    betas, use = totals.betas, np.array([not fault for fault in totals.size_faults])
    below = np.flatnonzero(use & (read.sizes <= size) & np.isfinite(betas.low))
    above = np.flatnonzero(use & (read.sizes >= size) & np.isfinite(betas.high))
    pairs = []
    if below.size:
        i = int(below[np.argmax(betas.low[below])])
        pairs.append(("E₁", i, float(betas.low[i])))
    if above.size:
        i = int(above[np.argmin(betas.high[above])])
        pairs.append(("E₂", i, float(betas.high[i])))
    return pairs

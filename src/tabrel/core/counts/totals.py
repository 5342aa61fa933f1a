"""Counts of a test: which intervals and sizes are used, gross and net totals, and β at each counted size.

Practice: ISO 4548-12 and ISO 16889; counters calibrated to ISO 11171. Totals are weighted by time, never means of ratios.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.special import betaincinv, chdtri

from tabrel.core.study.model import CountInterval, Counts

FloatArray = NDArray[np.float64]

BLANK_LIMIT = 0.10
"""Share of a gross count beyond which a blank makes its size unfit for the curve. [-]"""

CONFIDENCE = 0.95

FEW_COUNTS = 20
"""Gross counts below which the blank's own share is not simply taken off the ends of the interval."""


@dataclass(frozen=True)
class Sides:
    """Counts at and above each size, before and after the filter.

    Attributes
    ----------
    upstream, downstream : ndarray, shape (sizes,)
        Particles; time-weighted sums and net counts are no whole numbers.
    """

    upstream: FloatArray
    downstream: FloatArray

    def minus(self, other: Sides) -> Sides:
        """Return the difference."""
        return Sides(self.upstream - other.upstream, self.downstream - other.downstream)


@dataclass(frozen=True)
class Betas:
    """Filtration ratios with their exact 95 % intervals; arrays of one shape.

    Attributes
    ----------
    value : ndarray
        NaN where nothing was counted downstream: then only `low` is known, one-sided to 95 %.
    low, high : ndarray
        NaN where nothing is known on that side.
    sheds : ndarray of bool
        More came out than went in: shedding or a miscount, never clipped.
    """

    value: FloatArray
    low: FloatArray
    high: FloatArray
    sheds: NDArray[np.bool_]


@dataclass(frozen=True)
class Totals:
    """A test as it is computed with.

    Attributes
    ----------
    counts : Counts
        As kept, the older form turned into one interval.
    ratio : float
        r, counted volume over dilution, downstream over upstream. [-]
    interval_faults : tuple of str
        A sentence for each interval: why it is left out; empty where it is used.
    weights : ndarray, shape (intervals,)
        By duration; zero where an interval is left out.
    gross, blank, net : Sides
        Totals, the blank's share of them, and what is left.
    size_faults : tuple of str
        A sentence for each size: why the curve leaves it out; empty where it is used.
    betas : Betas
        At each size.
    assumed : tuple of str
        What was not stated and had to be assumed.
    """

    counts: Counts
    ratio: float
    interval_faults: tuple[str, ...]
    weights: FloatArray
    gross: Sides
    blank: Sides
    net: Sides
    size_faults: tuple[str, ...]
    betas: Betas
    assumed: tuple[str, ...]

    @property
    def kept(self) -> int:
        """How many intervals are used."""
        return int(np.count_nonzero(self.weights))

    @cached_property
    def along(self) -> Betas:
        """β of each interval at each size, shape (intervals, sizes), of those left out too."""
        share = 1 / len(self.counts.intervals)
        return betas(_counted(self.counts), _blank(self.counts, share), self.ratio)


def with_intervals(counts: Counts) -> Counts:
    """Return counts in intervals: the older form means one interval, the same volume and dilution on both sides.

    Examples
    --------
    >>> from tabrel.core.study.model import CountRow
    >>> old = Counts(scale="um(c)", volume_ml=10, dilution=1, rows=(CountRow(20, 90, 3), CountRow(10, 400, 90)))
    >>> with_intervals(old).sizes_um, with_intervals(old).intervals[0].downstream
    ((10, 20), (90, 3))
    """
    if not counts.rows:
        return counts
    rows = sorted(counts.rows, key=lambda row: row.size_um)
    return replace(
        counts,
        rows=(),
        volume_ml=None,
        dilution=None,
        sizes_um=tuple(row.size_um for row in rows),
        upstream_ml=counts.volume_ml,
        downstream_ml=counts.volume_ml,
        upstream_dilution=counts.dilution,
        downstream_dilution=counts.dilution,
        intervals=(CountInterval(tuple(row.upstream for row in rows), tuple(row.downstream for row in rows)),),
    )


def missing_volumes(counts: Counts) -> tuple[str, ...]:
    """Return which volumes or dilutions are missing because they are stated of the other side only."""
    texts = []
    for text, other in (("upstream_ml", "downstream_ml"), ("upstream_dilution", "downstream_dilution")):
        for name, opposite in ((text, other), (other, text)):
            if getattr(counts, name) is None and getattr(counts, opposite) is not None:
                texts.append(f"counts.{name}")
    return tuple(texts)


def volume_ratio(counts: Counts) -> float:
    """Return r = (volume/dilution) downstream over the same upstream; what is stated of neither side is taken as equal."""
    volume = (counts.downstream_ml or 1.0) / (counts.upstream_ml or 1.0)
    return volume * (counts.upstream_dilution or 1.0) / (counts.downstream_dilution or 1.0)


def betas(gross: Sides, blank: Sides, ratio: float) -> Betas:
    """Return β and its exact 95 % interval, from Clopper and Pearson's [1]_ of the share D/(U + D).

    Parameters
    ----------
    gross, blank : Sides
        Counts, and what of them is the blank's; they broadcast against each other.
    ratio : float
        r of β = r·U/D.

    Returns
    -------
    Betas
        Where nothing is left downstream one-sided: β > r·(1/p − 1) with p = 1 − 0.05^(1/U). Where few were counted and
        there is a blank, it is taken off the exact Poisson limits of what was counted [2]_.

    References
    ----------
    .. [1] C. J. Clopper, E. S. Pearson, Biometrika 26 (1934) 404-413.
    .. [2] F. Garwood, Biometrika 28 (1936) 437-442.

    Examples
    --------
    >>> none = Sides(np.zeros(1), np.zeros(1))
    >>> betas(Sides(np.array([100.0]), np.array([0.0])), none, 1.0).low.round(1)
    array([32.9])
    """
    net = gross.minus(blank)
    up, down, tail = net.upstream, net.downstream, (1 - CONFIDENCE) / 2
    with np.errstate(divide="ignore", invalid="ignore"):
        value = np.where((up > 0) & (down > 0), ratio * up / down, np.nan)
        counted = np.maximum(down, 0.0)
        most = np.where(counted > 0, betaincinv(counted + 1, up, 1 - tail), 1 - (1 - CONFIDENCE) ** (1 / up))
        least = np.where(counted > 0, betaincinv(counted, up + 1, tail), np.nan)
        low, high = ratio * (1 - most) / most, ratio * (1 - least) / least
        few = (blank.downstream > 0) & (gross.downstream < FEW_COUNTS)
        if few.any():
            above = np.where(down > 0, tail, 1 - CONFIDENCE)
            upper = chdtri(2 * gross.downstream + 2, above) / 2 - blank.downstream
            lower = np.where(down > 0, chdtri(2 * gross.downstream, 1 - tail) / 2 - blank.downstream, np.nan)
            low = np.where(few, np.where(upper > 0, ratio * up / upper, np.nan), low)
            high = np.where(few, np.where(lower > 0, ratio * up / lower, np.nan), high)
    known = up > 0
    return Betas(
        value, np.where(known, low, np.nan), np.where(known & np.isfinite(high), high, np.nan), known & (down > ratio * up)
    )


def count_totals(counts: Counts) -> Totals:
    """Return a test as it is computed with: intervals and sizes used, totals, and β at each size.

    Parameters
    ----------
    counts : Counts
        With one interval at least.
    """
    counts = with_intervals(counts)
    ratio = volume_ratio(counts)
    faults = tuple(_interval_fault(counts, interval) for interval in counts.intervals)
    is_kept = np.array([not fault for fault in faults])
    weights, times_known = _weights(counts, is_kept)
    counted = _counted(counts)
    gross = Sides(weights @ counted.upstream, weights @ counted.downstream)
    blank = _blank(counts, is_kept.mean())
    assumed = [
        f"counts.{name}" for name in ("ratio_uncertainty", "size_uncertainty") if getattr(counts, f"{name}_percent") is None
    ]
    if counts.upstream_ml is None or counts.upstream_dilution is None:
        assumed.append("counts.volumes")
    if not times_known and is_kept.sum() > 1:
        assumed.append("counts.times")
    return Totals(
        counts=counts,
        ratio=ratio,
        interval_faults=faults,
        weights=weights,
        gross=gross,
        blank=blank,
        net=gross.minus(blank),
        size_faults=tuple(
            _size_fault(i, gross, blank) if is_kept.any() else "no interval is left" for i in range(len(counts.sizes_um))
        ),
        betas=betas(gross, blank, ratio),
        assumed=tuple(assumed),
    )


def _weights(counts: Counts, is_kept: NDArray[np.bool_]) -> tuple[FloatArray, bool]:
    """Return Δt over its mean over the kept intervals, zero for the others, and whether times say so."""
    ends = [interval.time_min for interval in counts.intervals]
    if any(end is None for end in ends) or not is_kept.any():
        return is_kept.astype(float), False
    durations = np.diff(np.array([0.0, *(end or 0.0 for end in ends)]))
    return np.where(is_kept, durations / durations[is_kept].mean(), 0.0), True


def _interval_fault(counts: Counts, interval: CountInterval) -> str:
    """Return why an interval is not used, where the counter itself saw more than its coincidence limit."""
    limit = counts.coincidence_per_ml
    for side in ("upstream", "downstream"):
        volume = getattr(counts, f"{side}_ml")
        if limit is None or volume is None or not getattr(interval, side):
            continue
        seen = getattr(interval, side)[0] / volume
        if seen > limit:
            limited = f"more than its coincidence limit of {limit:,.0f}: dilute more"
            return f"the counter saw {seen:,.0f} particles in 1 mL {side}, {limited}"
    return ""


def _counted(counts: Counts) -> Sides:
    """Return what was counted in every interval, shape (intervals, sizes)."""
    rows = [(interval.upstream, interval.downstream) for interval in counts.intervals]
    both = np.array(rows, dtype=float)
    return Sides(both[:, 0], both[:, 1])


def _blank(counts: Counts, share: float) -> Sides:
    if counts.blank is None:
        none = np.zeros(len(counts.sizes_um))
        return Sides(none, none)
    return Sides(share * np.array(counts.blank.upstream, dtype=float), share * np.array(counts.blank.downstream, dtype=float))


def _size_fault(i: int, gross: Sides, blank: Sides) -> str:
    for side in ("upstream", "downstream"):
        counted, of_blank = getattr(gross, side)[i], getattr(blank, side)[i]
        if of_blank > 0 and of_blank > BLANK_LIMIT * counted:
            share = f"{100 * of_blank / counted:.0f} %" if counted > 0 else "all"
            return f"its blank is {share} of what was counted {side}, more than {100 * BLANK_LIMIT:.0f} %"
    if gross.upstream[i] - blank.upstream[i] <= 0:
        return "nothing was counted upstream"
    return ""

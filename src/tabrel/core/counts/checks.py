"""Objections to a counted test and open points, in sentences: nothing is left out or assumed in silence."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from tabrel.core.counts.counted_test import MOST_MISFIT, CountedTest
from tabrel.core.counts.curve import CountedCurve, NoCurve
from tabrel.core.numbers import interval

STEADY = 0.2
"""Range of the upstream counts at the smallest size, over their mean, up to which a test counts as steady. [-]"""


@dataclass(frozen=True)
class CountCheck:
    """One sentence on a test.

    Attributes
    ----------
    code : str
        Of its kind.
    words : str
        The sentence.
    is_grave : bool
        Whether something is wrong, rather than open.
    """

    code: str
    words: str
    is_grave: bool


def local_slopes(test: CountedTest) -> list[float]:
    """Return the slopes of ln(β − 1) over ln x between neighbouring sizes that are used."""
    read, betas = test.readings[0], test.totals.betas
    use = np.array([not fault for fault in test.totals.size_faults]) & (betas.value > 1) & np.isfinite(read.sizes)
    x, y = np.log(read.sizes[use]), np.log(betas.value[use] - 1)
    return [float(slope) for slope in np.diff(y) / np.diff(x)]


def count_checks(test: CountedTest) -> tuple[CountCheck, ...]:
    """Return what speaks against a test, and what is open about it."""
    return tuple((*_left_out(test), *_of_curve(test), *_open(test)))


def _interval(test: CountedTest, index: int) -> str:
    end = test.counts.intervals[index].time_min
    return f"interval {index + 1}" + ("" if end is None else f" (to {end:g} min)")


def _left_out(test: CountedTest) -> Iterator[CountCheck]:
    totals, sizes = test.totals, test.counts.sizes_um
    for i, fault in enumerate(totals.interval_faults):
        if fault:
            yield CountCheck("interval_left_out", f"{_interval(test, i)} is left out: {fault}", True)
    for size, fault in zip(sizes, totals.size_faults, strict=True):
        if fault:
            yield CountCheck("size_left_out", f"{size:g} µm is left out of the curve: {fault}", True)
    for read in test.readings:
        off = [size for size, own in zip(sizes, read.sizes, strict=True) if not np.isfinite(own)]
        if off:
            listed = ", ".join(f"{size:g}" for size in off)
            words = f"{listed} µm is left out where sizes are read on the ISO 4402 scale, which runs from 1 to 40 µm"
            yield CountCheck("size_off_scale", words, True)
    for i, size in enumerate(sizes):
        if totals.betas.sheds[i]:
            words = (
                f"at {size:g} µm more came out than went in: the filter sheds, or something was miscounted; nothing is cut off"
            )
            yield CountCheck("sheds", words, True)
    rising = [
        size
        for k, size in enumerate(sizes[1:], 1)
        if any(
            count_interval.upstream[k] > count_interval.upstream[k - 1]
            or count_interval.downstream[k] > count_interval.downstream[k - 1]
            for count_interval in test.counts.intervals
        )
    ]
    if rising:
        listed = ", ".join(f"{size:g}" for size in rising)
        words = f"counts rise with size at {listed} µm, which they cannot: check them; channels there are pooled"
        yield CountCheck("counts_rise", words, True)


def _of_curve(test: CountedTest) -> Iterator[CountCheck]:
    for read in test.readings:
        curve = read.curve
        if isinstance(curve, NoCurve):
            yield CountCheck("no_curve", f"no curve can be laid through the points: {curve.why}", True)
            return
        if not curve.has_interval:
            yield CountCheck(
                "three_channels", "with three sizes the points have intervals and the curve has none: count more sizes", False
            )
        elif not curve.fits:
            slopes = local_slopes(test)
            span = f", with local slopes from {min(slopes):.1f} to {max(slopes):.1f}" if len(slopes) > 1 else ""
            words = (
                f"the curve fits worse than counting explains (φ = {curve.misfit:.1f}{span}): "
                "two parameters do not describe this filter, and the interval is as wide as the misfit"
                f"{'; a size that was counted speaks for itself' if curve.misfit > MOST_MISFIT else ''}"
            )
            yield CountCheck("misfit", words, True)
        return


def _open(test: CountedTest) -> Iterator[CountCheck]:
    counts, totals = test.counts, test.totals
    if len(test.readings) > 1:
        words = "the scale of the sizes is not named, so that plain µm and µm(c) both stand: ask when it was tested"
        yield CountCheck("scale_unnamed", words, False)
    if counts.coincidence_per_ml is None:
        yield CountCheck(
            "no_coincidence", "whether the counter saw too much at once cannot be told: state its coincidence limit", False
        )
    if counts.blank is None:
        yield CountCheck("no_blank", "there is no blank count: what the fluid brought itself is not taken off", False)
    if counts.upstream_ml is None or counts.upstream_dilution is None:
        words = "volumes or dilutions are not stated: they are taken to be the same on both sides"
        yield CountCheck("volumes_assumed", words, False)
    if "counts.times" in totals.assumed:
        yield CountCheck(
            "times_assumed", "the ends of the intervals are not all stated: they are taken to be equally long", False
        )
    kept = np.array(
        [
            count_interval.upstream[0]
            for count_interval, fault in zip(counts.intervals, totals.interval_faults, strict=True)
            if not fault
        ]
    )
    if kept.size > 1 and kept.mean() > 0 and np.ptp(kept) > STEADY * kept.mean():
        share, size = 100 * np.ptp(kept) / kept.mean(), counts.sizes_um[0]
        words = f"upstream counts at {size:g} µm range over {share:.0f} % of their mean: the test was not steady"
        yield CountCheck("not_steady", words, True)
    last = next(
        (
            count_interval.differential_pressure_kpa
            for count_interval in reversed(counts.intervals)
            if count_interval.differential_pressure_kpa is not None
        ),
        None,
    )
    if counts.terminal_kpa is not None and last is not None and last < 0.99 * counts.terminal_kpa:
        words = f"the test stopped at {last:g} kPa, before its terminal differential pressure of {counts.terminal_kpa:g} kPa"
        yield CountCheck("not_ended", words, False)


def extrapolation(test: CountedTest, size: float) -> str:
    """Return what is said of a size [µm(c)] outside the counted ones; empty inside."""
    curves = [read_as.curve for read_as in test.readings if isinstance(read_as.curve, CountedCurve)]
    if not curves or not any(curve.extrapolates(size) for curve in curves):
        return ""
    low, high = min(curve.lowest for curve in curves), max(curve.highest for curve in curves)
    return f"{size:g} µm(c) lies outside the counted sizes, {interval(low, high)} µm(c): the curve is an extrapolation there"

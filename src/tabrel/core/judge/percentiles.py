"""Where the numbers of one filter lie among those of all filters of its size that were ever measured here."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.catalogue.measures import better_of
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.results import RESULTS
from tabrel.core.judge.categories import Better
from tabrel.core.judge.comparison_sheet import DIRECTED
from tabrel.core.judge.known import of_reading, of_result
from tabrel.core.judge.same_part import EVIDENCE
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.sample.measured_sample import MeasuredSample

FloatArray = NDArray[np.float64]

SIZES: dict[str, float] = {"can.outside_diameter": 0.15, "can.height": 0.25}
"""Filters are of one size where each of these differs by no more than this share."""

FEWEST = 12
"""Among fewer others nothing is called unusual."""

FAR_OUTSIDE = 0.25
"""A value is questioned where it lies outside everything seen by more than this share of what was seen."""

QUANTILES: tuple[int, ...] = (0, 5, 25, 50, 75, 95, 100)

NOT_MEASURED: frozenset[str] = frozenset({"stated", "claim", "estimate", "family"})
"""Bases of a result that say nothing about the filter itself: a statement, a usual figure of its kind."""

Numbers = Mapping[str, float]
"""Of one filter, by measure, in the measure's metric unit."""


@dataclass(frozen=True)
class Percentile:
    """One number of a filter among those of others.

    Attributes
    ----------
    measure : str
    value : float
        In the measure's metric unit, as all that follow.
    count : int
        Of how many others it is known.
    percentile : float or None
        Share of the others that lie below, ties half. [%]
    quantiles : tuple of float
        Of the others, at `QUANTILES`.
    is_outside : bool
        Whether it lies far outside everything that was seen.
    better : str or None
        ``high`` or ``low`` where one of them is.
    best : int or None
        Which of the others has the best so far, by its place among them.
    """

    measure: str
    value: float
    count: int
    percentile: float | None
    quantiles: tuple[float, ...]
    is_outside: bool
    better: Better | None
    best: int | None


def numbers_of(measured: MeasuredSample) -> dict[str, float]:
    """Return every number of a filter that was measured, or follows from what was.

    On the way to a result a usual figure may stand for what was not read; a reading that is published or assumed, and a result
    that rests on a statement or on a usual figure alone, is left out.
    """
    values: dict[str, float] = {}
    for key in QUANTITIES:
        estimate = measured.estimates.get(key)
        if estimate is not None and estimate.provenance in EVIDENCE:
            known = of_reading(key, measured).value
            if known is not None and known.value is not None:
                values[key] = known.value
    analysis = analyse_measured(measured)
    for row in RESULTS.values():
        value = of_result(row.key, analysis, measured).value
        if value is not None and value.value is not None and value.basis not in NOT_MEASURED:
            values[row.key] = value.value
    return {key: float(f"{value:.9g}") for key, value in values.items() if np.isfinite(value)}


MEASURES: tuple[str, ...] = (*QUANTITIES, *(row.key for row in RESULTS.values()))
"""The columns of `row_of`."""

_COLUMNS = {measure: i for i, measure in enumerate(MEASURES)}


def row_of(numbers: Numbers) -> FloatArray:
    """Return the numbers of a filter as a row; shape (len(MEASURES),), NaN where one is not known."""
    row = np.full(len(MEASURES), np.nan)
    for measure, value in numbers.items():
        if measure in _COLUMNS:
            row[_COLUMNS[measure]] = value
    return row


def are_of_size(own: FloatArray, others: FloatArray) -> NDArray[np.bool_]:
    """Return which filters are of one size with one of them; one whose size is not known is of every size.

    Parameters
    ----------
    own : ndarray, shape (m,)
    others : ndarray, shape (n, m)
        Rows as `row_of` makes them.

    Returns
    -------
    ndarray of bool, shape (n,)
    """
    alike = np.ones(len(others), dtype=bool)
    for measure, share in SIZES.items():
        at = _COLUMNS[measure]
        apart = np.abs(others[:, at] - own[at]) > share * own[at]
        alike &= ~apart  # NaN is never apart
    return alike


def percentiles_of(own: FloatArray, others: FloatArray) -> tuple[Percentile, ...]:
    """Return where each number of a filter lies among those of others.

    Parameters
    ----------
    own : ndarray, shape (m,)
        Of the filter, as `row_of` makes it.
    others : ndarray, shape (n, m)
        Of the others, of its size; not itself.

    Returns
    -------
    tuple of PlaceAmong
        Of every measure of which the filter has a number.
    """
    return tuple(_place(MEASURES[i], float(own[i]), others[:, i]) for i in np.flatnonzero(np.isfinite(own)))


def _place(measure: str, value: float, others: FloatArray) -> Percentile:
    better = better_of(measure) if measure in DIRECTED else None
    seen = np.sort(others[np.isfinite(others)])
    count = len(seen)
    if not count:
        return Percentile(measure, value, 0, None, (), False, better, None)
    below, up_to = np.searchsorted(seen, value, "left"), np.searchsorted(seen, value, "right")
    low, high = float(seen[0]), float(seen[-1])
    allowance = FAR_OUTSIDE * (high - low)
    at = np.array(QUANTILES) / 100 * (count - 1)
    return Percentile(
        measure=measure,
        value=value,
        count=count,
        percentile=100 * float(below + 0.5 * (up_to - below)) / count,
        quantiles=tuple(np.interp(at, np.arange(count), seen).tolist()),
        is_outside=count >= FEWEST and not low - allowance <= value <= high + allowance,
        better=better,
        best=None if better is None else int(np.nanargmax(others) if better == "high" else np.nanargmin(others)),
    )

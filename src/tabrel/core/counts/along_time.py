"""The test along time: lowest, average and last efficiency at a size are three different claims."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.counts.totals import Totals

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class AlongTime:
    """Efficiency along the test at one counted size; NaN where nothing can be said. [-]

    Attributes
    ----------
    value, low, high : ndarray, shape (intervals,)
        Of each interval, with its exact 95 % interval.
    lowest, average, last : float or None
        Lowest of the intervals used, of their totals, and of the last of them.
    """

    value: FloatArray
    low: FloatArray
    high: FloatArray
    lowest: float | None
    average: float | None
    last: float | None


def along_time(totals: Totals, size_index: int) -> AlongTime:
    """Return the efficiency of each interval at one counted size.

    Parameters
    ----------
    totals : Totals
        From `totals.count_totals`.
    size_index : int
        Of the size.
    """
    betas = totals.along
    value, low, high = (1 - 1 / array[:, size_index] for array in (betas.value, betas.low, betas.high))
    used = value[totals.weights > 0]
    known = used[np.isfinite(used)]
    whole = totals.betas.value[size_index]
    return AlongTime(
        value,
        low,
        high,
        lowest=float(known.min()) if known.size else None,
        average=float(1 - 1 / whole) if np.isfinite(whole) else None,
        last=float(used[-1]) if used.size and np.isfinite(used[-1]) else None,
    )

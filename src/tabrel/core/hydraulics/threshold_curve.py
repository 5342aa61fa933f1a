"""Where something opens and closes as the oil warms: a curve of temperature, solved as a curve."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.hydraulics.root_finding import Indices, falling_roots

FloatArray = NDArray[np.float64]

COLDEST = -45.0
HOTTEST = 150.0
SCAN_STEP = 2.0
"""Unless said otherwise, so a window of opening narrower than that may go unseen. [K]"""

SLOPE_STEP = 1e-3  # K

LOOKED_AT_ONCE = 20_000
"""Temperatures × columns, small enough for the caches of a processor."""

Surplus = Callable[[FloatArray, Indices], FloatArray]
"""Takes temperatures [°C] whose last axis runs over columns, and which columns those are; above zero means open."""


@dataclass(frozen=True)
class ThresholdCurve:
    """First closing and first opening after it, column by column.

    Attributes
    ----------
    closes : ndarray, shape (n,)
        First closing coming from the cold end; NaN where it is closed there already, 150 where it
        never closes. [°C]
    reopens : ndarray, shape (n,)
        First opening above that (or above the cold end); NaN where it stays closed. [°C]
    """

    closes: FloatArray
    reopens: FloatArray


def threshold_curve(
    surplus: Surplus, *, columns: int, cold_end: float, tolerance: FloatArray, scan_step: float = SCAN_STEP
) -> ThresholdCurve:
    """Return where a surplus falls through zero and rises again as the oil warms.

    The surplus is looked at step by step from the cold end to 150 °C, and each change is refined by
    Newton's method.

    Parameters
    ----------
    surplus : callable
        Of temperatures and columns.
    columns : int
        How many there are.
    cold_end : float
        Where to start. [°C]
    tolerance : ndarray, shape (columns,)
        Surplus at which a change counts as found.
    scan_step : float
        A window of opening narrower than it may go unseen. [K]

    Returns
    -------
    ThresholdCurve
    """
    everyone = np.arange(columns)
    if cold_end >= HOTTEST:
        return closed_curve(columns)
    steps = int(np.ceil((HOTTEST - cold_end) / scan_step)) + 1
    scan = np.linspace(cold_end, HOTTEST, steps)
    at_once = max(1, LOOKED_AT_ONCE // steps)
    blocks = [everyone[first : first + at_once] for first in range(0, columns, at_once)]
    looked = np.concatenate([surplus(scan[:, None], block) for block in blocks], axis=1)
    is_open = looked > 0
    closing = _first_change(is_open, starting_open=True, after=np.zeros(columns, dtype=int))
    opening_after = np.where(is_open[0], np.where(closing < 0, steps, closing + 1), 0)
    opening = _first_change(is_open, starting_open=False, after=opening_after)
    closes, reopens = _refined(surplus, scan, looked, np.stack([closing, opening]), tolerance)
    return ThresholdCurve(np.where(is_open[0] & (closing < 0), HOTTEST, closes), reopens)


def closed_curve(columns: int) -> ThresholdCurve:
    """Return the curve of something that never opens."""
    return ThresholdCurve(np.full(columns, np.nan), np.full(columns, np.nan))


def _first_change(is_open: NDArray[np.bool_], *, starting_open: bool, after: NDArray[np.int_]) -> NDArray[np.int_]:
    """Return the row before the first change from `starting_open` at or after a row, or −1."""
    changes = (is_open[:-1] == starting_open) & (is_open[1:] != starting_open)
    changes &= np.arange(len(changes))[:, None] >= after[None, :]
    if starting_open:
        changes &= is_open[0][None, :]
    return np.where(changes.any(axis=0), changes.argmax(axis=0), -1)


def _refined(surplus: Surplus, scan: FloatArray, looked: FloatArray, rows: NDArray[np.int_], tolerance: FloatArray) -> FloatArray:
    """Return the temperature of the change that follows each row, NaN where the row is −1. [°C]

    The surplus falls through zero where the valve closes, in the first line of `rows`, and rises where it opens, in
    the second. It is first sought on the straight line between the two rows; its slope is taken over a thousandth of
    a kelvin.
    """
    result = np.full(rows.shape, np.nan)
    line, column = np.nonzero(rows >= 0)
    if not column.size:
        return result
    sign, row = np.where(line == 0, 1.0, -1.0), rows[line, column]
    low, high = scan[row], scan[row + 1]
    before, after = looked[row, column], looked[row + 1, column]
    start = low + (high - low) * before / (before - after)

    def function(temperature: FloatArray, i: Indices) -> tuple[FloatArray, FloatArray]:
        pair = np.stack([temperature, temperature + SLOPE_STEP])
        here, beside = sign[i] * surplus(pair, column[i])
        return here, (beside - here) / SLOPE_STEP

    roots = falling_roots(function, lower=low, upper=high, start=start, tolerance=tolerance[column], foresees=True)
    result[line, column] = roots.values
    return result

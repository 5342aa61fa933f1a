"""Where something opens and closes as the oil warms: a curve of temperature, solved as a curve."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.hydraulics.root_finding import PLACES_AT_ONCE, Indices, falling_roots

FloatArray = NDArray[np.float64]

COLDEST = -45.0
HOTTEST = 150.0
SCAN_STEP = 2.0
"""Unless said otherwise, so a window of opening narrower than that may go unseen. [K]"""

DIFFERENCE_STEP = 0.05
"""Over which slope and bend of a surplus are taken. [K]"""

SLOPE_STEP = 1e-3  # K, where it is taken again and again

HALLEY_STEPS = 3
"""Before a change is sought as if nothing was known of it."""

LEAST_BEND = 0.05
"""Of any surplus for what is left after a step: its second derivative over the first, as of oil that thins. [1/K]"""

MOST_BEND = 0.2
"""Second derivative over the first of what is smooth; what bends more strongly may have a corner there. [1/K]"""

BEND_MARGIN = 5.0
"""How many times the square of the bend times the third power of the step may be left."""

SEEN_EVERY = 3.0
"""Temperatures that are farther apart are not enough to tell where a curve runs. [K]"""

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


@dataclass(frozen=True)
class Seen:
    """Signs known already, such as those of a solved map.

    Attributes
    ----------
    temperature : ndarray, shape (m,)
        Rising. [°C]
    excess : ndarray, shape (m, n)
        By column; above zero means open. Below it, it is smooth in temperature.
    """

    temperature: FloatArray
    excess: FloatArray

    def reaches(self, cold_end: float) -> bool:
        """Return whether its temperatures are close enough from a temperature on, and all of it is known."""
        rows = np.concatenate([[cold_end], self.temperature])
        return len(rows) > 2 and bool(np.diff(rows).max() <= SEEN_EVERY and np.isfinite(self.excess).all())

    def prolonged(self, cold_end: float) -> tuple[FloatArray, FloatArray]:
        """Return temperatures and excess from the cold end to as far beyond 150 °C as its hottest temperature is below.

        It goes on straight at both ends. So whatever would change by 150 °C, though it went up to twice as fast, is looked for.
        """
        below = self.temperature < HOTTEST
        temperature, excess = self.temperature[below], self.excess[below]
        ends = np.array([[cold_end], [2 * HOTTEST - temperature[-1]]])
        slope = np.diff(excess, axis=0)[[0, -1]] / np.diff(temperature)[[0, -1], None]
        colder, hotter = excess[[0, -1]] + (ends - temperature[[0, -1], None]) * slope
        return np.concatenate([ends[0], temperature, ends[1]]), np.concatenate([colder[None], excess, hotter[None]])


def threshold_curve(
    surplus: Surplus,
    *,
    columns: int,
    cold_end: float,
    tolerance: FloatArray,
    scan_step: float = SCAN_STEP,
    seen: Seen | None = None,
) -> ThresholdCurve:
    """Return where a surplus falls through zero and rises again as the oil warms.

    The surplus is looked at step by step from the cold end to 150 °C, unless it has been seen where it changes; each
    change is then refined.

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
    seen : Seen or None
        Spares the look at columns of which it tells all.
    """
    if cold_end >= HOTTEST:
        return closed_curve(columns)
    curve, unknown = closed_curve(columns), np.ones(columns, dtype=bool)
    if seen is not None and seen.reaches(cold_end):
        curve, is_found = _found(surplus, *seen.prolonged(cold_end), tolerance, is_seen=True)
        unknown = ~is_found
    if unknown.any():
        rest = np.flatnonzero(unknown)
        scan = np.linspace(cold_end, HOTTEST, int(np.ceil((HOTTEST - cold_end) / scan_step)) + 1)
        at_once = max(1, PLACES_AT_ONCE // len(scan))
        blocks = [rest[first : first + at_once] for first in range(0, len(rest), at_once)]
        looked = np.concatenate([surplus(scan[:, None], block) for block in blocks], axis=1)
        whole, _ = _found(lambda celsius, i: surplus(celsius, rest[i]), scan, looked, tolerance[rest])
        curve.closes[rest], curve.reopens[rest] = whole.closes, whole.reopens
    return curve


def closed_curve(columns: int) -> ThresholdCurve:
    """Return the curve of something that never opens."""
    return ThresholdCurve(np.full(columns, np.nan), np.full(columns, np.nan))


def _found(
    surplus: Surplus, scan: FloatArray, looked: FloatArray, tolerance: FloatArray, *, is_seen: bool = False
) -> tuple[ThresholdCurve, NDArray[np.bool_]]:
    """Return the curve by where the surplus changes from row to row, and in which columns the changes were found there."""
    is_open, count = looked > 0, len(scan)
    shut = _first(~is_open)
    again = _first(is_open & (np.arange(count)[:, None] > shut))
    rows = np.stack([np.where(shut < count, shut, 0), np.where(again < count, again, 0)]) - 1
    changes, is_found = np.full(rows.shape, np.nan), np.ones(rows.shape, dtype=bool)
    line, column = np.nonzero(rows >= 0)
    if column.size:
        row = rows[line, column]
        # what was seen bends least on the shut side, if enough of it was; the surplus itself is smooth on both
        steps, is_shut_after = np.arange(4)[:, None], (line == 0) & (row < count - 4)
        neighbour = np.where(is_shut_after, row + 1 + steps, row - steps) if is_seen else row - 1 + steps
        sign, farther = np.where(line == 0, 1.0, -1.0), SEEN_EVERY if is_seen else 0.0
        changes[line, column], is_found[line, column] = _refined(
            lambda celsius, i: sign[i] * surplus(celsius, column[i]),
            np.maximum(scan[row] - farther, scan[0]),
            np.minimum(scan[row + 1] + farther, HOTTEST),
            np.minimum(_where_zero(scan, looked, row, column, neighbour), HOTTEST),
            tolerance[column],
        )
    closes, reopens = np.where(shut == count, HOTTEST, np.minimum(changes[0], HOTTEST)), changes[1]
    return ThresholdCurve(closes, np.where(reopens > HOTTEST, np.nan, reopens)), np.asarray(is_found.all(axis=0))


def _first(there: NDArray[np.bool_]) -> NDArray[np.intp]:
    """Return the first row in which something is there, column by column, or how many rows there are."""
    return np.where(there.any(axis=0), there.argmax(axis=0), len(there))


def _where_zero(scan: FloatArray, looked: FloatArray, row: Indices, column: Indices, neighbour: Indices) -> FloatArray:
    """Return about where a change after a row is, by a polynomial of temperature through rows neighbour it. [°C]

    It is taken by Neville's scheme. Where it leaves the row and the next, the straight line between them is taken.
    """
    at = np.minimum(np.maximum(neighbour, 0), len(scan) - 1)
    array, values = scan[at], looked[at, column]
    low, high, before, after = scan[row], scan[row + 1], looked[row, column], looked[row + 1, column]
    with np.errstate(divide="ignore", invalid="ignore"):
        for k in range(1, len(at)):
            array = (values[:-k] * array[1:] - values[k:] * array[:-1]) / (values[:-k] - values[k:])
    return np.where((array[0] >= low) & (array[0] <= high), array[0], low + (high - low) * before / (before - after))


def _refined(
    falling: Surplus, low: FloatArray, high: FloatArray, start: FloatArray, tolerance: FloatArray
) -> tuple[FloatArray, NDArray[np.bool_]]:
    """Return at which temperatures between two a surplus falls through zero [°C], and whether that was found.

    It is infinite where it has not done so at 150 °C.

    By Halley's method, whose steps triple the digits, until a step is bound to be within tolerance by how the surplus bends
    there, so that nothing is evaluated after it. Where it has a corner, as where a valve of the engine opens, or where that
    does not happen, by Newton's method within the bracket.
    """
    values, done, smooth = start.copy(), np.zeros(start.shape, dtype=bool), np.arange(start.size)
    for _ in range(HALLEY_STEPS):
        celsius = values[smooth]
        pieces = np.stack([celsius - DIFFERENCE_STEP, celsius, celsius + DIFFERENCE_STEP])
        below, here, above = falling(pieces, smooth)
        slope, bend = (above - below) / (2 * DIFFERENCE_STEP), (above - 2 * here + below) / DIFFERENCE_STEP**2
        with np.errstate(divide="ignore", invalid="ignore"):
            newton, bent = -here / slope, bend / slope
            step = newton / (1 + 0.5 * newton * bent)
            left = BEND_MARGIN * np.abs(np.maximum(np.abs(bent), LEAST_BEND) ** 2 * step**3 * slope)
            inside = (slope < 0) & (celsius + step >= low[smooth]) & (celsius + step <= high[smooth])
        is_smooth = np.abs(bent) <= MOST_BEND
        never = (celsius >= HOTTEST) & (here > 0)
        values[smooth] = np.where(never, np.inf, np.where(inside, celsius + step, celsius))
        is_near = np.abs(step) <= 0.5 * DIFFERENCE_STEP  # so that a corner on the way would have been seen
        done[smooth] = never | (inside & is_smooth & is_near & (left <= tolerance[smooth]))
        smooth = smooth[is_smooth & ~done[smooth]]
        if not smooth.size:
            break
    rest = np.flatnonzero(~done)
    if not rest.size:
        return values, done

    def function(celsius: FloatArray, i: Indices) -> tuple[FloatArray, FloatArray]:
        here, there = falling(np.stack([celsius, celsius + SLOPE_STEP]), rest[i])
        return here, (there - here) / SLOPE_STEP

    roots = falling_roots(function, lower=low[rest], upper=high[rest], start=values[rest], tolerance=tolerance[rest])
    values[rest], done[rest] = roots.values, roots.converged
    return values, done

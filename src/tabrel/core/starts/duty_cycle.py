"""A duty cycle: engine speed over time, from CSV or shipped, and the oil temperature where it was recorded."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.entry.table_text import divided
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.study.model import Study
from tabrel.core.study.plans import WarmUpPlan

FloatArray = NDArray[np.float64]

TIME, SPEED, TEMPERATURE = "time_s", "speed_rpm", "oil_temperature_c"
LONGEST = 24 * 3600.0
"""No start is followed for longer. [s]"""

MOST_ROWS = 200_000
FASTEST = 20_000.0  # rpm
USUAL_STEPS_OF_A_GAP, LEAST_GAP = 20.0, 30.0
"""A step this many times the usual one, and longer than this many seconds, is a gap in a record."""


@dataclass(frozen=True)
class CycleTrace:
    """A duty cycle as numbers.

    Attributes
    ----------
    time : ndarray, shape (n,)
        Rising from zero. [s]
    speed : ndarray, shape (n,)
        Zero while the engine is stopped. [rpm]
    temperature : ndarray, shape (n,), or None
        Of the oil, where it was recorded. [°C]
    """

    time: FloatArray
    speed: FloatArray
    temperature: FloatArray | None


def read_duty_cycle(text: str, path: str = "duty_cycle") -> CycleTrace:
    """Return a duty cycle from CSV with the columns time_s, speed_rpm and, if recorded, oil_temperature_c.

    Parameters
    ----------
    text : str
        Comma, semicolon or tab between the columns; lines that start with # are notes.
    path : str
        Place named in errors.

    Returns
    -------
    CycleTrace
        Its time begins at zero.

    Raises
    ------
    StudyError
        One sentence that names the line and the correction.
    """
    try:
        divider, rows = divided(text)
    except ReadingTextError as error:
        raise StudyError(path, str(error)) from error
    if not rows:
        raise StudyError(path, f"the duty cycle is empty: give lines with {TIME},{SPEED}")
    names = [name.lower() for name in rows[0].cells]
    for name in (TIME, SPEED):
        if name not in names:
            raise StudyError(
                path, f"line {rows[0].line} names no column {name}: begin with a line like {TIME},{SPEED},{TEMPERATURE}"
            )
    unknown = [name for name in names if name not in (TIME, SPEED, TEMPERATURE)]
    if unknown:
        raise StudyError(
            path, f"line {rows[0].line} names a column {unknown[0]!r}: only {TIME}, {SPEED} and {TEMPERATURE} are known"
        )
    if len(rows) < 3:
        raise StudyError(path, "a duty cycle needs two rows of numbers at least: add more")
    if len(rows) > MOST_ROWS:
        raise StudyError(path, f"a duty cycle of {len(rows)} rows is longer than {MOST_ROWS}: thin it out")
    has_points = divider == "comma"  # else the comma is a decimal one
    body = [(row.line, row.cells if has_points else [cell.replace(",", ".") for cell in row.cells]) for row in rows[1:]]
    lines = [line for line, _ in body]
    numbers = np.array([_row(cells, names, line, path) for line, cells in body])
    columns = {name: numbers[:, k] for k, name in enumerate(names)}
    _check_time(columns[TIME], lines, path)
    _check_range(columns[SPEED], 0.0, FASTEST, f"a {SPEED}", lines, path)
    if TEMPERATURE in columns:
        _check_range(columns[TEMPERATURE], -60.0, 200.0, f"an {TEMPERATURE}", lines, path)
    return CycleTrace(columns[TIME] - columns[TIME][0], columns[SPEED], columns.get(TEMPERATURE))


def _row(cells: Sequence[str], names: list[str], line: int, path: str) -> list[float]:
    if len(cells) != len(names):
        raise StudyError(path, f"line {line} holds {len(cells)} cells, the heading {len(names)}: make them agree")
    numbers = []
    for name, cell in zip(names, cells, strict=True):
        if not cell:
            raise StudyError(path, f"line {line} holds no {name}: fill the gap, or take the line out")
        try:
            number = float(cell)
        except ValueError as error:
            raise StudyError(path, f"line {line} holds {cell[:40]!r} as {name}, which is no number: type it as digits") from error
        if not np.isfinite(number):
            raise StudyError(path, f"line {line} holds {cell[:40]!r} as {name}, which is no number: type it as digits")
        numbers.append(number)
    return numbers


def _check_time(time: FloatArray, lines: list[int], path: str) -> None:
    steps = np.diff(time)
    if (steps <= 0).any():
        k = int(np.argmax(steps <= 0))
        raise StudyError(
            path, f"line {lines[k + 1]} goes back in time, from {time[k]:g} to {time[k + 1]:g} s: put the rows in order of time"
        )
    if time[-1] - time[0] > LONGEST:
        raise StudyError(path, f"the duty cycle lasts {(time[-1] - time[0]) / 3600:.0f} h: give 24 h at most")
    gap = max(USUAL_STEPS_OF_A_GAP * float(np.median(steps)), LEAST_GAP)
    if len(steps) > 4 and (steps > gap).any():
        k = int(np.argmax(steps > gap))
        raise StudyError(
            path,
            f"line {lines[k + 1]} follows after a gap of {steps[k]:g} s, where {np.median(steps):g} s is usual: "
            "fill the gap, or cut the record there",
        )


def _check_range(values: FloatArray, low: float, high: float, what: str, lines: list[int], path: str) -> None:
    off = (values < low) | (values > high)
    if off.any():
        k = int(np.argmax(off))
        raise StudyError(path, f"line {lines[k]} holds {what} of {values[k]:g}: it must lie between {low:g} and {high:g}")


MOST_CORNERS_A_SECOND = 3
"""A second that holds more corners than that is averaged; fewer are followed as they are."""


def evened(cycle: CycleTrace) -> CycleTrace:
    """Return a cycle in which whatever changes faster than a second is averaged over a second, not sampled.

    Returns
    -------
    CycleTrace
        The same corners where a second holds few of them; elsewhere a corner at each full second, the mean
        over the half second before and after it.

    Examples
    --------
    >>> fast = CycleTrace(np.arange(0, 10.05, 0.1), np.resize([1000.0, 3000.0], 101), None)
    >>> evened(fast).speed[3:7].round(6).tolist()
    [2000.0, 2000.0, 2000.0, 2000.0]
    """
    second = np.floor(cycle.time).astype(int)
    crowded = np.bincount(second) > MOST_CORNERS_A_SECOND
    if not crowded.any():
        return cycle
    edges = np.unique(np.concatenate([np.flatnonzero(crowded), np.flatnonzero(crowded) + 1]))
    edges = edges[edges <= cycle.time[-1]].astype(float)
    kept = ~crowded[second] & ~np.isin(cycle.time, edges)
    kept[-1] = cycle.time[-1] not in edges
    time = np.concatenate([cycle.time[kept], edges])
    order = np.argsort(time)

    def averaged(values: FloatArray) -> FloatArray:
        means = _mean_around(edges, cycle.time, values)
        return np.concatenate([values[kept], means])[order]

    return CycleTrace(time[order], averaged(cycle.speed), None if cycle.temperature is None else averaged(cycle.temperature))


def _mean_around(moments: FloatArray, time: FloatArray, values: FloatArray) -> FloatArray:
    """Return the mean of straight pieces over the half second before and after each moment."""
    before, after = np.maximum(moments - 0.5, 0.0), np.minimum(moments + 0.5, time[-1])
    so_far = np.concatenate([[0.0], np.cumsum(np.diff(time) * (values[1:] + values[:-1]) / 2)])

    def integral(at: FloatArray) -> FloatArray:
        piece = np.clip(np.searchsorted(time, at, side="right") - 1, 0, len(time) - 2)
        here = np.interp(at, time, values)
        return np.asarray(so_far[piece] + (at - time[piece]) * (values[piece] + here) / 2)

    return np.asarray((integral(after) - integral(before)) / (after - before))


def running_speed(cycle: CycleTrace, share: float) -> float:
    """Return the speed that the engine does not exceed for a share of the time in which it turns. [rpm]

    The time between two corners counts with the straight line between their speeds.

    Parameters
    ----------
    cycle : CycleTrace
    share : float, 0 to 1
        Of the running time: 0.5 for the median.

    Returns
    -------
    float
        Zero where the engine never turns.

    Examples
    --------
    >>> idle_then_fast = CycleTrace(np.array([0.0, 60.0, 60.001, 600.0]), np.array([900.0, 900.0, 3000.0, 3000.0]), None)
    >>> running_speed(idle_then_fast, 0.5), running_speed(idle_then_fast, 0.05)
    (3000.0, 900.0)
    """
    lasting = np.diff(cycle.time)
    low, high = np.minimum(cycle.speed[1:], cycle.speed[:-1]), np.maximum(cycle.speed[1:], cycle.speed[:-1])
    turning = high > 0
    lasting, low, high = lasting[turning], low[turning], high[turning]
    if not lasting.size:
        return 0.0
    speeds = np.unique(np.concatenate([low, high]))
    ramps = high > low
    # of a ramp, the time below a speed rises evenly from its low to its high end: a slope that begins and ends
    slope = np.zeros(len(speeds))
    steepness = lasting[ramps] / (high[ramps] - low[ramps])
    np.add.at(slope, np.searchsorted(speeds, low[ramps]), steepness)
    np.add.at(slope, np.searchsorted(speeds, high[ramps]), -steepness)
    rising = np.concatenate([[0.0], np.cumsum(np.cumsum(slope)[:-1] * np.diff(speeds))])
    steady = np.zeros(len(speeds))
    np.add.at(steady, np.searchsorted(speeds, low[~ramps]), lasting[~ramps])
    up_to = np.cumsum(steady)
    asked = share * lasting.sum()
    below, reached = rising + up_to - steady, rising + up_to
    k = int(min(np.searchsorted(reached, asked), len(speeds) - 1))
    if k == 0 or asked >= below[k]:
        return float(speeds[k])
    part = (asked - reached[k - 1]) / (below[k] - reached[k - 1])
    return float(speeds[k - 1] + part * (speeds[k] - speeds[k - 1]))


def _pieces(*pairs: tuple[float, float]) -> CycleTrace:
    """Return a cycle from corner points of minutes and speeds."""
    minutes, speeds = np.array(pairs).T
    return CycleTrace(minutes * 60, speeds, None)


def _mountain_road() -> CycleTrace:
    """Return idling, then bends: short pulls and lifted throttle again and again."""
    corners = [(0.0, 1150.0), (0.5, 1150.0), (0.6, 1700.0)]
    for k in range(28):
        start = 0.8 + 1.04 * k
        corners += [(start, 1500.0), (start + 0.35, 3300.0), (start + 0.7, 3400.0), (start + 0.85, 1400.0)]
    return _pieces(*corners, (30.0, 900.0))


SHIPPED_CYCLES: dict[str, CycleTrace] = {
    "idle and creep": _pieces((0, 1100), (5, 950), (5.2, 1400), (9, 1400), (9.2, 900), (20, 900), (20.3, 1600), (30, 1600)),
    "mountain road": _mountain_road(),
    "driven hard at once": _pieces(
        (0, 1200), (0.3, 1200), (0.5, 3600), (10, 3800), (10.2, 2600), (20, 2600), (20.2, 3900), (30, 3900)
    ),
}
"""Made up, by name: half an hour each after a cold start."""


def cycle_of(study: Study, plan: WarmUpPlan) -> CycleTrace:
    """Return the duty cycle a plan names, shipped or of the study."""
    own = {cycle.name: cycle.csv for cycle in study.duty_cycles}
    name = plan.duty_cycle or ""
    if name in own:
        return read_duty_cycle(own[name])
    if name not in SHIPPED_CYCLES:
        raise StudyError("plan.duty_cycle", f"the duty cycle {name!r} is no longer there: choose another")
    return SHIPPED_CYCLES[name]

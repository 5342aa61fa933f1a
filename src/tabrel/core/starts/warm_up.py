"""A start and what follows: the oil warms, the galleries fill, the bypass closes."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, fields, replace

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.engine_circuit import Condition
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.errors import StudyError
from tabrel.core.oil.model import OilModel
from tabrel.core.starts.duty_cycle import CycleTrace, evened
from tabrel.core.starts.together import Following, Found, Wanted, followed, solved_alone, solved_by_draw
from tabrel.core.study.defaults import USUAL_PLAN
from tabrel.core.study.plans import WarmUpPlan
from tabrel.core.uncertainty.model_arrays import one_draw

FloatArray = NDArray[np.float64]

PRESSURE_THERE = 100e3
"""Gallery pressure that counts as pressure in the time to pressure. [Pa]"""

STEP, FILLING_STEP = 1.0, 0.1
"""Between two moments at which the circuit is solved: with full galleries, and while they fill. [s]"""

FILLING_STRETCH = 20.0
"""The filling is followed in stretches of this length, since nobody knows beforehand how long it lasts. [s]"""

ROUNDS, PIECES = 2, 45
"""The step in which a valve closes or a pressure is reached is divided into so many pieces, so often: to 0.5 ms."""

_SLOWEST_TURNING = 50.0  # rpm; below it the engine is stopped

_QUANTITIES = (
    "element_pressure",
    "filter_flow",
    "gallery_pressure",
    "gauge_pressure",
    "unfiltered_fraction",
    "bypass_fraction",
)


@dataclass(frozen=True)
class WarmUp:
    """A start followed in time.

    Attributes
    ----------
    time : ndarray, shape (n,)
        Every second, every corner of the cycle, the moments of the filling; the moment at which the galleries
        are full is there twice, as it was and as it is from then on. [s]
    temperature, can_temperature : ndarray, shape (n,)
        Of the oil in the sump, and in the filter. [°C]
    speed : ndarray, shape (n,)
        [rpm]
    element_pressure, gallery_pressure, gauge_pressure : ndarray, shape (n,)
        [Pa]
    filter_flow : ndarray, shape (n,)
        [m³/s]
    bypass_fraction, unfiltered_fraction : ndarray, shape (n,)
        Shares of the filter flow; NaN where the oil does not pump.
    is_filling : ndarray of bool, shape (n,)
        While the galleries are empty.
    filled_after, pressure_after : float or None
        When the galleries are full, and when there is pressure; None where that does not come. [s]
    bypass_time : float
        With the bypass valve open. [s]
    unfiltered_volume, volume : float
        Of oil past the media, and of all oil through the filter. [m³]
    lowest_gallery_pressure : float or None
        Once the galleries are full and the engine turns. [Pa]
    dry_time : float
        In which the oil does not pump. [s]
    """

    time: FloatArray
    temperature: FloatArray
    can_temperature: FloatArray
    speed: FloatArray
    element_pressure: FloatArray
    gallery_pressure: FloatArray
    gauge_pressure: FloatArray
    filter_flow: FloatArray
    bypass_fraction: FloatArray
    unfiltered_fraction: FloatArray
    is_filling: NDArray[np.bool_]
    filled_after: float | None
    pressure_after: float | None
    bypass_time: float
    unfiltered_volume: float
    volume: float
    lowest_gallery_pressure: float | None
    dry_time: float


def completed_plan(plan: WarmUpPlan | None) -> tuple[WarmUpPlan, tuple[str, ...]]:
    """Return a plan with usual values for what it does not state, and the names of those.

    Raises
    ------
    StudyError
        If the end is not above the start.
    """
    stated = plan or WarmUpPlan()
    assumed = tuple(field.name for field in fields(WarmUpPlan) if getattr(stated, field.name) is None)
    whole = replace(stated, **{name: getattr(USUAL_PLAN, name) for name in assumed})
    if (whole.end_c or 0.0) < (whole.start_c or 0.0):
        raise StudyError("warm_up.end_c", "the oil would end colder than it starts: check both temperatures")
    return whole, assumed


def warm_up(point: OperatingPoint, cycle: CycleTrace, plan: WarmUpPlan) -> WarmUp:
    """Return a start followed through a duty cycle.

    The sump warms exponentially, or as the cycle recorded it, and the can lags behind it; the galleries
    are filled first, by all that the pump delivers, and from then on the circuit is steady at each
    moment's temperature and speed. Amounts are integrated by the trapezoidal rule between the moments
    solved; when the galleries are full, when there is pressure and when the valve opens or closes is found
    between them, to 0.01 s. What changes faster than a second is averaged (`duty_cycle.evened`).

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil and loading; the condition is set here.
    cycle : CycleTrace
        Speed over time.
    plan : WarmUpPlan
        From `completed_plan`.
    """
    [start] = followed([_start(_Run(_Course(evened(cycle), plan), point.oil))], solved_alone(point))
    return start


def warm_ups(sampled: OperatingPoint, count: int, cycle: CycleTrace, plan: WarmUpPlan) -> list[WarmUp]:
    """Return the start of every draw, as `warm_up` does, all followed at once.

    Parameters
    ----------
    sampled : OperatingPoint
        Its numbers have shape (count, 1) wherever they are uncertain.
    count : int
        Draws.
    cycle, plan : CycleTrace, WarmUpPlan
        As of `warm_up`.
    """
    course = _Course(evened(cycle), plan)
    starts = [_start(_Run(course, one_draw(sampled.oil, i))) for i in range(count)]
    return followed(starts, solved_by_draw(sampled, count))


def _start(run: _Run) -> Following[WarmUp]:
    """Follow a start; return it."""
    course = run.course
    filling, filled_after = yield from _filling(run, (course.plan.gallery_volume_l or 0.0) * 1e-3)
    phases = []
    if len(filling):
        phases.append((yield from _phase(run, "filling", filling)))
    full = None
    if filled_after is not None:
        later = course.moments[course.moments > filled_after]
        full = yield from _phase(run, "steady", np.concatenate([[filled_after], later]))
        phases.append(full)
    time = np.concatenate([phase.time for phase in phases])
    collected = {name: np.concatenate([phase.found[name] for phase in phases]) for name in _QUANTITIES}
    running = full.found["gallery_pressure"][run.flows(full.time)] if full else np.array([])
    bypass_time = dry_time = 0.0
    for phase in phases:
        bypass_time += yield from phase.lasting(_IS_OPEN)
        dry_time += yield from phase.lasting(_IS_DRY)
    return WarmUp(
        time=time,
        temperature=course.temperature(time),
        can_temperature=course.can_temperature(time),
        speed=course.speed(time),
        **collected,
        is_filling=np.concatenate([np.full(len(phase.time), phase.condition == "filling") for phase in phases]),
        filled_after=filled_after,
        pressure_after=(yield from full.first(_HAS_PRESSURE)) if full else None,
        bypass_time=bypass_time,
        unfiltered_volume=sum(phase.amount("filter_flow", "unfiltered_fraction") for phase in phases),
        volume=sum(phase.amount("filter_flow") for phase in phases),
        lowest_gallery_pressure=float(np.nanmin(running)) if running.size else None,
        dry_time=dry_time,
    )


class _Course:
    """Course of a start as given: speed and temperatures at any moment.

    Parameters
    ----------
    cycle : CycleTrace
        From `evened`.
    plan : WarmUpPlan
        From `completed_plan`.
    """

    def __init__(self, cycle: CycleTrace, plan: WarmUpPlan) -> None:
        self._cycle, self.plan = cycle, plan
        self.end = float(cycle.time[-1])
        self.moments = np.unique(np.concatenate([np.arange(0.0, self.end, STEP), cycle.time]))
        lag = 60 * (plan.can_time_constant_min or 0.0)
        self._can = _lagging(self.moments, self.temperature(self.moments), lag)
        self._lags = lag > 0

    def speed(self, time: FloatArray) -> FloatArray:
        """Return the engine speed. [rpm]"""
        return np.interp(time, self._cycle.time, self._cycle.speed)

    def temperature(self, time: FloatArray) -> FloatArray:
        """Return the oil temperature in the sump. [°C]"""
        if self._cycle.temperature is not None:
            return np.interp(time, self._cycle.time, self._cycle.temperature)
        start, end = self.plan.start_c or 0.0, self.plan.end_c or 0.0
        return np.asarray(end - (end - start) * np.exp(-time / (60 * (self.plan.time_constant_min or 1.0))))

    def can_temperature(self, time: FloatArray) -> FloatArray:
        """Return the oil temperature in the filter. [°C]"""
        return np.interp(time, self.moments, self._can) if self._lags else self.temperature(time)

    def turns(self, time: FloatArray) -> NDArray[np.bool_]:
        """Return where the engine turns."""
        return np.asarray(self.speed(time) > _SLOWEST_TURNING)


@dataclass(frozen=True)
class _Run:
    """A course with an oil in the engine."""

    course: _Course
    oil: OilModel

    def flows(self, time: FloatArray) -> NDArray[np.bool_]:
        """Return where the engine turns and the oil pumps."""
        course, pumps = self.course, self.oil.pumps
        return course.turns(time) & pumps(course.temperature(time)) & pumps(course.can_temperature(time))

    def solved(self, condition: Condition, time: FloatArray, names: tuple[str, ...] = _QUANTITIES) -> Following[Found]:
        """Have quantities solved at moments; return them, zero while the engine is stopped, NaN where the oil does not pump."""
        course = self.course
        result = {name: np.where(course.turns(time), np.nan, 0.0) for name in names}
        flows = self.flows(time)
        if flows.any():
            at = time[flows]
            solved = yield Wanted(condition, course.temperature(at), course.speed(at), course.can_temperature(at), names)
            for name in names:
                result[name][flows] = solved[name]
        return result


@dataclass(frozen=True)
class _Statement:
    """Says of each moment whether something is the case, of the course there and of what was solved there.

    Attributes
    ----------
    names : tuple of str
        Quantities it is about.
    holds : callable
    """

    names: tuple[str, ...]
    holds: Callable[[_Run, FloatArray, Found], NDArray[np.bool_]]

    def at(self, run: _Run, condition: Condition, time: FloatArray) -> Following[NDArray[np.bool_]]:
        """Find whether it is the case at moments that have not been solved; return that."""
        computed = (yield from run.solved(condition, time, self.names)) if self.names else {}
        return self.holds(run, time, computed)


_IS_OPEN = _Statement(("bypass_fraction",), lambda _, __, arrays: np.nan_to_num(arrays["bypass_fraction"]) > 0)
_HAS_PRESSURE = _Statement(
    ("gallery_pressure",), lambda _, __, arrays: np.nan_to_num(arrays["gallery_pressure"]) >= PRESSURE_THERE
)
_IS_DRY = _Statement((), lambda run, time, _: run.course.turns(time) & ~run.flows(time))


@dataclass(frozen=True)
class _Phase:
    """A stretch of the start in one condition, solved at its moments.

    Attributes
    ----------
    run : _Run
    condition : str
    time : ndarray, shape (n,)
        [s]
    found : mapping
        Quantities there.
    """

    run: _Run
    condition: Condition
    time: FloatArray
    found: Found

    def amount(self, *names: str) -> float:
        """Return the integral over time of a product of quantities; nothing where the oil does not pump."""
        product = np.prod([np.nan_to_num(self.found[name]) for name in names], axis=0)
        return float(np.trapezoid(product, self.time))

    def lasting(self, statement: _Statement) -> Following[float]:
        """Find for how long something is the case; return it. [s]"""
        holds = statement.holds(self.run, self.time, self.found)
        before, after = self.time[:-1], self.time[1:]
        share = np.where(holds[:-1] & holds[1:], 1.0, 0.0)
        turning = np.flatnonzero(holds[:-1] != holds[1:])
        if turning.size:
            turn = yield from self._turns(statement, before[turning], after[turning], holds[1:][turning])
            reached = (turn - before[turning]) / (after - before)[turning]
            share[turning] = np.where(holds[1:][turning], 1 - reached, reached)
        return float(np.sum(share * (after - before)))

    def first(self, statement: _Statement) -> Following[float | None]:
        """Find from when on something is the case for the first time; return it, or None. [s]"""
        holds = statement.holds(self.run, self.time, self.found)
        if not holds.any():
            return None
        k = int(np.argmax(holds))
        if k == 0:
            return float(self.time[0])
        turn = yield from self._turns(statement, self.time[k - 1 : k], self.time[k : k + 1], np.array([True]))
        return float(turn[0])

    def _turns(
        self, statement: _Statement, before: FloatArray, after: FloatArray, holds_after: NDArray[np.bool_]
    ) -> Following[FloatArray]:
        """Find between pairs of moments when a statement turns, by dividing what lies between, a round at once; return it."""
        every = np.arange(len(before))
        for _ in range(ROUNDS):
            moments = np.linspace(before, after, PIECES + 1, axis=1)
            inside = moments[:, 1:-1]
            holds = yield from statement.at(self.run, self.condition, inside.ravel())
            is_late = holds.reshape(inside.shape) == holds_after[:, None]
            turned = np.where(is_late.any(axis=1), np.argmax(is_late, axis=1) + 1, PIECES)
            before, after = moments[every, turned - 1], moments[every, turned]
        return (before + after) / 2


def _phase(run: _Run, condition: Condition, time: FloatArray) -> Following[_Phase]:
    outcome = yield from run.solved(condition, time)
    return _Phase(run, condition, time, outcome)


def _filling(run: _Run, volume: float) -> Following[tuple[FloatArray, float | None]]:
    """Find the moments while the galleries fill, and when they are full; return both, None where that does not come."""
    course = run.course
    held, begin, parts = 0.0, 0.0, [np.array([])]
    if volume <= 0:
        return parts[0], 0.0
    while begin < course.end:
        stop = min(course.end, begin + FILLING_STRETCH)
        corners = course.moments[(course.moments > begin) & (course.moments < stop)]
        time = np.unique(np.concatenate([np.arange(begin, stop, FILLING_STEP), corners, [stop]]))
        solved = yield from run.solved("filling", time, ("filter_flow",))
        flow = np.nan_to_num(solved["filter_flow"])
        inside = held + np.concatenate([[0.0], np.cumsum(np.diff(time) * (flow[1:] + flow[:-1]) / 2)])
        if inside[-1] >= volume:
            k = int(np.searchsorted(inside, volume))
            full = float(np.interp(volume, inside[k - 1 : k + 1], time[k - 1 : k + 1]))
            return np.concatenate([*parts, time[:k], [full]]), full
        parts.append(time[:-1])
        held, begin = float(inside[-1]), stop
    return np.concatenate([*parts, [course.end]]), None


def _lagging(time: FloatArray, temperature: FloatArray, lag: float) -> FloatArray:
    """Return what follows a temperature with a time constant [s], exactly for straight pieces of it."""
    if lag <= 0:
        return temperature.copy()
    step = np.diff(time)
    behind = np.diff(temperature) / step * lag
    given, behinds, fades = temperature.tolist(), behind.tolist(), np.exp(-step / lag).tolist()
    lagging = given[:1]
    for k, (late, fade) in enumerate(zip(behinds, fades, strict=True)):
        lagging.append(given[k + 1] - late + (lagging[k] - given[k] + late) * fade)
    return np.array(lagging)

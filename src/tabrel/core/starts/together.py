"""Courses that are followed at once, so that the circuits of all of them are solved together."""

from __future__ import annotations

from collections.abc import Callable, Generator, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import groupby
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.engine_circuit import Condition
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.hydraulics.root_finding import PLACES_AT_ONCE
from tabrel.core.uncertainty.model_arrays import flattened, picked

FloatArray = NDArray[np.float64]
EndT = TypeVar("EndT")


@dataclass(frozen=True)
class Wanted:
    """Request of a course: quantities of its circuit at places.

    Attributes
    ----------
    condition : str
        ``steady`` or ``filling``.
    temperature, speed, can_temperature : ndarray, shape (n,)
        [°C], [rpm], [°C]
    names : tuple of str
        Of `solution.SOLVED_QUANTITIES`.
    """

    condition: Condition
    temperature: FloatArray
    speed: FloatArray
    can_temperature: FloatArray
    names: tuple[str, ...]


Found = Mapping[str, FloatArray]
Following = Generator[Wanted, Found, EndT]
"""Yields what it wants to know, is sent it, and returns what it comes to."""

Solve = Callable[[Sequence[int], Sequence[Wanted]], list[Found]]
"""Takes which courses want something, and what, all of one condition, and returns it."""


def followed(courses: Sequence[Following[EndT]], solve: Solve) -> list[EndT]:
    """Return what courses come to, all that are in one condition solved together.

    Parameters
    ----------
    courses : sequence of generators
        Not begun.
    solve : callable
        From `solved_alone` or `solved_by_draw`.
    """
    ended: dict[int, EndT] = {}
    wanted: dict[int, Wanted] = {}

    def go_on(i: int, arrays: Found | None) -> None:
        wanted.pop(i, None)
        try:
            wanted[i] = next(courses[i]) if arrays is None else courses[i].send(arrays)
        except StopIteration as end:
            ended[i] = end.value

    for i in range(len(courses)):
        go_on(i, None)
    while wanted:
        for some in _at_once(wanted):
            for i, arrays in zip(some, solve(some, [wanted[i] for i in some]), strict=True):
                go_on(i, arrays)
    return [ended[i] for i in range(len(courses))]


def _at_once(wanted: Mapping[int, Wanted]) -> Iterator[list[int]]:
    """Yield which of those that want something to solve in one go: of one condition, and not too many places."""
    ordered = sorted(wanted, key=lambda i: wanted[i].condition)
    for _, same in groupby(ordered, key=lambda i: wanted[i].condition):
        some: list[int] = []
        places = 0
        for i in same:
            if some and places + len(wanted[i].speed) > PLACES_AT_ONCE:
                yield some
                some, places = [], 0
            some.append(i)
            places += len(wanted[i].speed)
        yield some


def solved_alone(point: OperatingPoint) -> Solve:
    """Return what solves the circuit of the one course that is followed."""

    def solve(_: Sequence[int], wanted: Sequence[Wanted]) -> list[Found]:
        return [_solved(point, request) for request in wanted]

    return solve


def solved_by_draw(sampled: OperatingPoint, count: int) -> Solve:
    """Return what solves the circuits of courses of which each has one of `count` draws; arrays have shape (count, 1)."""
    draws = flattened(sampled, (count, 1))

    def solve(which: Sequence[int], wanted: Sequence[Wanted]) -> list[Found]:
        places = [len(request.speed) for request in wanted]
        names = tuple(dict.fromkeys(name for request in wanted for name in request.names))
        whole = Wanted(
            wanted[0].condition,
            np.concatenate([request.temperature for request in wanted]),
            np.concatenate([request.speed for request in wanted]),
            np.concatenate([request.can_temperature for request in wanted]),
            names,
        )
        arrays = _solved(picked(draws, np.repeat(np.asarray(which), places)), whole)
        ends = np.cumsum(places)[:-1]
        divided = {name: np.split(arrays[name], ends) for name in names}
        return [{name: divided[name][k] for name in request.names} for k, request in enumerate(wanted)]

    return solve


def _solved(point: OperatingPoint, wanted: Wanted) -> Found:
    problem = replace(point, condition=wanted.condition)
    solved = solve_circuit(problem, problem.place(wanted.temperature, wanted.speed, wanted.can_temperature))
    return {name: solved.quantity(name) for name in wanted.names}

"""Bands by Monte Carlo: readings, engine and model sampled together, the whole circuit solved for every draw.

Source: JCGM 101:2008, with a fixed seed and a fixed number of draws.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.engine_circuit import Condition
from tabrel.core.circuit.operating_point import AS_IT_IS, operating_point
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.hydraulics.root_finding import PLACES_AT_ONCE
from tabrel.core.hydraulics.threshold_curve import COLDEST, HOTTEST
from tabrel.core.maps.onset import onset_of_columns
from tabrel.core.study.model import Sample, Study
from tabrel.core.study.plans import Scenario
from tabrel.core.uncertainty.model_arrays import finite_places, flattened, picked
from tabrel.core.uncertainty.sampling import Quantiles, SampledVariables

FloatArray = NDArray[np.float64]

DRAWS = 1000
BAND = (0.025, 0.5, 0.975)
"""Ends and middle of a 95 % band."""


@dataclass(frozen=True)
class SampledProblem:
    """The circuit problem with its draws.

    Attributes
    ----------
    nominal : OperatingPoint
        Best estimates.
    sampled : OperatingPoint
        Its numbers have shape (count, 1) wherever they are uncertain.
    count : int
        Draws that are possible.
    impossible : int
        Draws left out, since a size came out below zero.
    possible : ndarray of bool, shape (count + impossible,)
        Which of all draws these are.
    """

    nominal: OperatingPoint
    sampled: OperatingPoint
    count: int
    impossible: int
    possible: NDArray[np.bool_]


def sampled_problem(
    study: Study,
    sample: Sample,
    *,
    quantiles: Quantiles,
    condition: Condition = "steady",
    loading: float = 1.0,
    scenario: Scenario = AS_IT_IS,
) -> SampledProblem:
    """Return the circuit problem of a sample with draws of everything that is uncertain.

    Parameters
    ----------
    study, sample : Study, Sample
        As typed.
    quantiles : callable
        From `draws`.
    condition : str
        ``steady`` or ``filling``.
    loading : float
        Multiplies the media's resistance.
    scenario : Scenario
        What is thought to be different.

    Raises
    ------
    MissingInputsError, StudyError
        As `operating_point.operating_point`.
    """
    nominal = operating_point(study, sample, condition=condition, loading=loading, scenario=scenario)
    draws = SampledVariables(quantiles, sample.label)
    with np.errstate(all="ignore"):
        sampled = operating_point(study, sample, condition=condition, loading=loading, scenario=scenario, variables=draws)
    size = len(quantiles("size"))
    good = finite_places(replace(sampled, loading=1.0), size)
    return SampledProblem(nominal, picked(sampled, good), int(good.sum()), int(size - good.sum()), good)


@dataclass(frozen=True)
class Progress:
    """How many draws are done, of how many."""

    done: int
    total: int


@dataclass(frozen=True)
class Band:
    """A quantity along a slice with its 95 % band; NaN where the oil does not pump.

    Attributes
    ----------
    value : ndarray, shape (n,)
        With the best estimates, in SI units.
    low, middle, high : ndarray, shape (n,)
        2.5 %, 50 % and 97.5 % of the draws.
    draws, impossible : int
        Used, and left out.
    """

    value: FloatArray
    low: FloatArray
    middle: FloatArray
    high: FloatArray
    draws: int
    impossible: int


@dataclass(frozen=True)
class SampledBand:
    """A quantity along a slice for a part of the draws.

    Attributes
    ----------
    value : ndarray, shape (n,)
        With the best estimates, in SI units; NaN where the oil does not pump.
    pumps : ndarray of bool, shape (n,)
        Where it does.
    sampled : ndarray, shape (draws, m)
        There.
    impossible : int
        Draws left out.
    """

    value: FloatArray
    pumps: NDArray[np.bool_]
    sampled: FloatArray
    impossible: int


def sampled_along(
    problem: SampledProblem, temperature: FloatArray, speed: FloatArray, quantity: str
) -> Iterator[Progress | SampledBand]:
    """Yield progress, and at last a quantity at places for every draw; parameters as in `quantity_band`."""
    nominal, pumps = problem.nominal, problem.nominal.oil.pumps(temperature)
    value = np.full(len(temperature), np.nan)
    sampled = np.empty((problem.count, int(pumps.sum())))
    if pumps.any():
        celsius, rpm = temperature[pumps], speed[pumps]
        best = solve_circuit(nominal, nominal.place(celsius, rpm))
        value[pumps] = best.quantity(quantity)
        at_once = max(1, PLACES_AT_ONCE // len(celsius))
        for first in range(0, problem.count, at_once):
            rows = slice(first, min(first + at_once, problem.count))
            some = picked(problem.sampled, rows)
            with np.errstate(all="ignore"):
                solved = solve_circuit(some, some.place(celsius, rpm))
                sampled[rows] = solved.quantity(quantity)
            yield Progress(rows.stop, problem.count)
    yield SampledBand(value, pumps, sampled, problem.impossible)


def band_of(parts: Sequence[SampledBand]) -> Band:
    """Return the band of all draws of one slice, however they were divided."""
    value, sampled = parts[0].value, np.concatenate([part.sampled for part in parts])
    ends = np.full((3, len(value)), np.nan)
    if sampled.size:
        ends[:, parts[0].pumps] = quantiles_of(sampled, BAND)
    return Band(value, ends[0], ends[1], ends[2], len(sampled), sum(part.impossible for part in parts))


def quantity_band(
    problem: SampledProblem, temperature: FloatArray, speed: FloatArray, quantity: str
) -> Iterator[Progress | Band]:
    """Yield progress, and at last the band of a quantity at places.

    Parameters
    ----------
    problem : SampledProblem
        With its draws.
    temperature, speed : ndarray, shape (n,)
        Places. [°C], [rpm]
    quantity : str
        One of `solution.SOLVED_QUANTITIES`.

    Yields
    ------
    Progress or Band
        Whoever does not ask for the next one stops the work.
    """
    for step in sampled_along(problem, temperature, speed, quantity):
        yield band_of([step]) if isinstance(step, SampledBand) else step


def quantiles_of(sampled: FloatArray, shares: tuple[float, ...]) -> FloatArray:
    """Return quantiles over the first axis, of the draws that have a value; NaN where none has."""
    with np.errstate(all="ignore"):
        ordered = np.sort(sampled, axis=0)  # NaN last
        count = np.count_nonzero(~np.isnan(ordered), axis=0)
        place = np.array(shares)[:, None] * np.maximum(count - 1, 0)
        below = np.floor(place).astype(int)
        above = np.minimum(below + 1, np.maximum(count - 1, 0))
        column = np.arange(sampled.shape[1])
        low, high = ordered[below, column], ordered[above, column]
        # two equal ends need no interpolation, which would make infinity less infinity
        return np.where(count > 0, np.where(low == high, low, low + (place - below) * (high - low)), np.nan)


@dataclass(frozen=True)
class OnsetInterval:
    """The onset temperature at one speed with its 95 % interval.

    Attributes
    ----------
    value, low, high : float or None
        None where the valve stays shut from the cold end on, 150 where it never closes. [°C]
    shut_share : float
        Share of the draws in which it stays shut.
    draws : int
        Used.
    """

    value: float | None
    low: float | None
    high: float | None
    shut_share: float
    draws: int


def onset_interval(problem: SampledProblem, speed: float) -> OnsetInterval:
    """Return the bypass onset temperature at a speed with its 95 % interval.

    Parameters
    ----------
    problem : SampledProblem
        With its draws.
    speed : float
        [rpm]
    """
    return interval_of([sampled_onset(problem, speed)])


@dataclass(frozen=True)
class SampledOnset:
    """The onset temperature with the best estimates, and for a part of the draws, NaN where the valve stays shut. [°C]"""

    best: float
    closes: FloatArray


def sampled_onset(problem: SampledProblem, speed: float) -> SampledOnset:
    """Return the bypass onset temperature at a speed for every draw; parameters as in `onset_interval`."""
    cold_end = problem.nominal.oil.coldest_pumping(COLDEST)
    best = float(onset_of_columns(problem.nominal, np.array([speed]), cold_end).closes[0])
    if not problem.count:
        return SampledOnset(best, np.empty(0))
    columns = flattened(problem.sampled, (problem.count, 1))
    with np.errstate(all="ignore"):
        return SampledOnset(best, onset_of_columns(columns, np.full(problem.count, speed), cold_end).closes)


def interval_of(parts: Sequence[SampledOnset]) -> OnsetInterval:
    """Return the onset with the interval of all draws, however they were divided."""
    best, closes = parts[0].best, np.concatenate([part.closes for part in parts])
    if not closes.size:
        return OnsetInterval(_onset_words(best), None, None, 0.0, 0)
    with np.errstate(all="ignore"):
        below = np.where(np.isnan(closes), -np.inf, closes)
        low, _, high = quantiles_of(below[:, None], BAND)[:, 0]
    shut = float(np.isnan(closes).mean())
    return OnsetInterval(_onset_words(best), _onset_words(low), _onset_words(high), shut, len(closes))


def _onset_words(celsius: float) -> float | None:
    return float(min(celsius, HOTTEST)) if np.isfinite(celsius) else None

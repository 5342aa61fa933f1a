"""How long a filter lasts: dirt up to the first opening of the bypass, and how fast it cleans the sump."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import exp, hypot, log
from typing import Annotated

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.dirt_loading import INGRESS_LOG_U, TERMINAL_RATIO, Capacity, LoadingLaw, dirt_capacity
from tabrel.core.circuit.engine_circuit import Condition
from tabrel.core.circuit.filter_alone import unknown_at_opening
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.circuit.state import OperatingPoint, Problem
from tabrel.core.field_units import INSIDE, OUTSIDE, Duration, LifeTime, Out, ParticleSize, Share, Speed, Temperature
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Sample, Study
from tabrel.core.study.plans import WarmUpPlan
from tabrel.core.uncertainty.model_arrays import picked
from tabrel.core.uncertainty.propagation import Result
from tabrel.core.uncertainty.sampling import NORMAL_95

FloatArray = NDArray[np.float64]

MOST_LOADING = 1e6
CONDITIONS: tuple[Condition, ...] = ("steady", "filling")


def loading_at_onset(point: OperatingPoint, temperatures: FloatArray, speed: float) -> FloatArray:
    """Return the loading at which the bypass first opens, at each temperature.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil, condition; its numbers are floats, or draws, one for each temperature.
    temperatures : ndarray, shape (n,)
        [°C]
    speed : float
        [rpm]

    Returns
    -------
    ndarray, shape (n,)
        1 where it is open with a new filter, infinite where it stays shut up to a million times the
        clean media's resistance, NaN where the oil does not pump or there is no valve.
    """
    array = np.full(len(temperatures), np.nan)
    pumps = point.oil.pumps(temperatures)
    if point.filter.valve is None or not pumps.any():
        return array
    celsius = temperatures[pumps]
    drawn = picked(point, pumps)
    problem = Problem(drawn, drawn.place(celsius, np.full(len(celsius), speed)))

    everywhere = np.arange(len(celsius))

    def surplus(log_loading: FloatArray, i: NDArray[np.intp]) -> FloatArray:
        """Return the flow left over with the valve just opening; above zero means open."""
        here = picked(problem, i.astype(int))
        loaded = replace(here.point, loading=here.point.loading * np.exp(log_loading))
        x = unknown_at_opening(loaded.filter, loaded.loading, here.place.can_fluid)
        return np.asarray(loaded.state(x, here.place).balance.value)

    low, high = np.zeros(len(celsius)), np.full(len(celsius), log(MOST_LOADING))
    is_open = surplus(low, everywhere) > 0
    from scipy.optimize import elementwise  # what computes no life does not wait for SciPy's optimisers

    roots = elementwise.find_root(surplus, (low, high), args=(everywhere,))
    result = np.where(is_open, 1.0, np.where(roots.success, np.exp(roots.x), np.inf))
    array[pumps] = result
    return array


def captured_mass(law: LoadingLaw, before: float, loading: FloatArray) -> tuple[FloatArray, NDArray[np.bool_]]:
    """Return the dirt that loads the media so many times more [kg], and where that is only a least mass.

    Parameters
    ----------
    law : LoadingLaw
        How dirt loads it.
    before : float
        How loaded it is already.
    loading : ndarray
        By how much more; infinite and NaN stay.
    """
    start, _ = law.mass_at(before)
    pairs = [law.mass_at(before * ratio) if np.isfinite(ratio) else (ratio, True) for ratio in loading.tolist()]
    mass = np.array([mass - start if np.isfinite(mass) else mass for mass, _ in pairs])
    return mass, np.array([not is_known for _, is_known in pairs])


def half_life(volume: float, media_flow: float, efficiency: float) -> float:
    """Return how long until half the particles of a size are out of the sump, V·ln 2/(Q·E), if no more come. [s]

    Examples
    --------
    >>> round(half_life(5e-3, 5e-4, 0.5), 2)
    13.86
    """
    return volume * log(2) / (media_flow * efficiency)


def media_flow(point: OperatingPoint, temperature: float, speed: float) -> float:
    """Return the flow through the media at one temperature [°C] and speed [rpm]. [m³/s]"""
    solved = solve_circuit(point, point.place(np.array([temperature]), np.array([speed])))
    return float((solved.quantity("filter_flow") * solved.quantity("media_fraction"))[0])


CLEAN_UP_SIZES = (5.0, 10.0, 15.0, 20.0, 30.0)  # µm(c)
COLD_STARTS = (-30.0, -25.0, -20.0, -15.0, -10.0, 0.0, 20.0)  # °C


@dataclass(frozen=True)
class LifeRow:
    """Life to the first opening of the bypass at one oil temperature.

    Attributes
    ----------
    is_cold_start : bool
        Whether the oil is cold there.
    steady_loading : float
        Loading at which it opens with the galleries full; infinite for never, NaN where the oil does not pump.
    steady_time, filling_time : float
        Time to that, steady and in the first seconds of a start; 0 from new, infinite for never.
    steady_is_least, filling_is_least : bool
        Whether the test ended before, so that it is only a least time.
    """

    temperature: Temperature
    is_cold_start: bool
    steady_loading: Annotated[float, Out("", "", has_gaps=True)]
    steady_time: LifeTime
    filling_time: LifeTime
    steady_is_least: bool = False
    filling_is_least: bool = False

    @property
    def never_steady(self) -> Annotated[bool, OUTSIDE]:
        """Whether it never opens with the galleries full."""
        return self.steady_time == np.inf

    @property
    def never_filling(self) -> Annotated[bool, OUTSIDE]:
        """Whether it never opens in the first seconds of a start."""
        return self.filling_time == np.inf


LIFE_SHARES = (0.5, 0.9)
"""A life is told at the speeds that the engine does not exceed for these shares of its running time."""


@dataclass(frozen=True)
class CleanUp:
    """How long half the particles of a size stay in the sump.

    Attributes
    ----------
    efficiency : Result
        Of the media, a value, a bound or an envelope. [-]
    half_life : float or None
        None where the efficiency has no value.
    low, high : float or None
        Where the efficiency is a bound or an envelope: a least efficiency bounds the half-life from above.
    """

    size: ParticleSize
    efficiency: Annotated[Result, INSIDE]
    half_life: Duration | None
    low: Duration | None
    high: Duration | None


@dataclass(frozen=True)
class Life:
    """How long a filter lasts, and how fast it cleans a warm sump, at a speed.

    A time is good to `factor` either way, 95 %, by what is assumed of capacity and ingress; 1 where both were stated.
    """

    speed: Speed
    capacity: Capacity
    rows: tuple[LifeRow, ...]
    clean_up: tuple[CleanUp, ...]
    factor: float = 1.0


def filter_life(
    point: OperatingPoint,
    measured: MeasuredSample,
    plan: WarmUpPlan,
    speed: float,
    efficiencies: Sequence[Result],
    *,
    ingress_is_assumed: bool = False,
) -> Life | None:
    """Return life and clean-up at a speed, warm and at cold starts, or None while nothing says what the filter holds.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil.
    measured : MeasuredSample
        The filter.
    plan : WarmUpPlan
        From `warm_up.completed_plan`: warm temperature, ingress, terminal loading, sump.
    speed : float
        Such as `duty_cycle.running_speed` at one of `LIFE_SHARES`. [rpm]
    efficiencies : sequence of Result
        Of the media at `CLEAN_UP_SIZES`. [-]
    ingress_is_assumed : bool
        Whether nobody stated the ingress.
    """
    capacity = dirt_capacity(measured, plan.terminal_ratio or TERMINAL_RATIO)
    if capacity is None:
        return None
    warm, before = plan.end_c or 0.0, float(np.mean(point.loading))
    per_second = (plan.ingress_g_h or 1.0) * 1e-3 / 3600
    temperatures = np.array([*COLD_STARTS, warm])
    loadings = [loading_at_onset(replace(point, condition=name), temperatures, speed) for name in CONDITIONS]
    (steady, steady_least), (filling, filling_least) = (captured_mass(capacity.law, before, values) for values in loadings)
    rows = tuple(
        LifeRow(
            celsius,
            celsius != warm,
            float(loadings[0][i]),
            float(steady[i] / per_second),
            float(filling[i] / per_second),
            bool(steady_least[i]),
            bool(filling_least[i]),
        )
        for i, celsius in enumerate(temperatures.tolist())
    )
    through = media_flow(point, warm, speed)
    volume = (plan.sump_volume_l or 1.0) * 1e-3
    clean_up = tuple(
        computed
        for size, efficiency in zip(CLEAN_UP_SIZES, efficiencies, strict=True)
        if through > 0 and (computed := _clean_up(size, efficiency, volume, through))
    )
    off = hypot(capacity.log_uncertainty, INGRESS_LOG_U if ingress_is_assumed else 0.0)
    return Life(speed, capacity, rows, clean_up, exp(NORMAL_95 * off))


@dataclass(frozen=True)
class EndOfService:
    """A filter after so many hours of service: the dirt it has caught, and how many times its media resists.

    Attributes
    ----------
    hours : float
    captured : float
        [kg]
    loading : float
        Over what it is at the beginning; a least one where the test that told ended before.
    is_least : bool
    """

    hours: float
    captured: float
    loading: float
    is_least: bool


def end_of_service(capacity: Capacity, before: float, plan: WarmUpPlan, hours: float) -> EndOfService:
    """Return a filter at the end of its service.

    Parameters
    ----------
    capacity : Capacity
        From `dirt_capacity`.
    before : float
        How loaded it is at the beginning.
    plan : WarmUpPlan
        Gives the ingress.
    hours : float
        Of service, as stated.
    """
    captured = (plan.ingress_g_h or 1.0) * 1e-3 * hours
    start, _ = capacity.law.mass_at(before)
    ratio, is_known = capacity.law.ratio_at(start + captured)
    return EndOfService(hours, captured, min(ratio / before, MOST_LOADING), not is_known)


def service_hours(study: Study, sample: Sample) -> float | None:
    """Return the hours of service that are stated: of a use, of the filter, of the engine; None where nobody states any. [h]"""
    of_uses = [use.interval_h for use in study.uses if use.interval_h is not None]
    of_filter = sample.change_interval.hours if sample.change_interval else None
    of_engine = [interval.hours for interval in study.intervals if interval.hours is not None]
    return next(iter(of_uses), None) or of_filter or min(of_engine, default=None)


def _clean_up(size: float, efficiency: Result, volume: float, through: float) -> CleanUp | None:
    """Return the clean-up at a size, with the bounds of its efficiency turned round, or None where nothing is known."""

    def lasting(share: float | None) -> float | None:
        return half_life(volume, through, share) if share else None

    collected = CleanUp(size, efficiency, lasting(efficiency.value), lasting(efficiency.high), lasting(efficiency.low))
    return collected if collected.half_life or collected.low or collected.high else None


@dataclass(frozen=True)
class Reaching:
    """Share of the particles of a size that reaches the engine over a start: past the media, and through it.

    Attributes
    ----------
    value, low, high : float or None
        Share of all that the oil carries to the filter; bounds turned round from the efficiency's.
    basis : str or None
        Of the efficiency.
    """

    size: ParticleSize
    value: Share | None
    low: Share | None
    high: Share | None
    basis: str | None


def reaching_the_engine(unfiltered: float, efficiencies: Sequence[Result]) -> tuple[Reaching, ...]:
    """Return what reaches the engine at each of `CLEAN_UP_SIZES`: the share unfiltered, and of the rest what penetrates.

    Parameters
    ----------
    unfiltered : float
        Share of the volume that passed no media.
    efficiencies : sequence of Result
        At `CLEAN_UP_SIZES`, as at the flow and viscosity at which they were taken. [-]

    Returns
    -------
    tuple of Reaching
        Without sizes at which nothing is known.

    Examples
    --------
    >>> one = Result(0.9)
    >>> round(reaching_the_engine(0.2, [one, one, one, one, one])[0].value, 3)
    0.28
    """

    def share(efficiency: float | None) -> float | None:
        return None if efficiency is None else unfiltered + (1 - unfiltered) * (1 - efficiency)

    return tuple(
        Reaching(size, share(result.value), share(result.high), share(result.low), result.basis)
        for size, result in zip(CLEAN_UP_SIZES, efficiencies, strict=True)
        if result.is_known
    )

"""Behaviour of filters at the points of a use: the model's best estimate, with draws that all filters share."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri

from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES
from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.circuit.dirt_loading import INGRESS_LOG_U, TERMINAL_RATIO, dirt_capacity
from tabrel.core.circuit.engine_circuit import Condition
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.errors import MissingInputsError, TabrelError
from tabrel.core.judge.categories import CategoryValue
from tabrel.core.judge.chances import NORMAL_COVERAGE
from tabrel.core.judge.known import Known
from tabrel.core.maps.behaviour import SPEEDS, TEMPERATURES, WARMEST
from tabrel.core.maps.monte_carlo import DRAWS, SampledProblem, sampled_onset, sampled_problem
from tabrel.core.maps.operating_map import operating_map
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.starts.duty_cycle import cycle_of
from tabrel.core.starts.life import captured_mass, loading_at_onset
from tabrel.core.starts.warm_up import WarmUp, completed_plan, warm_up, warm_ups
from tabrel.core.study.model import Study
from tabrel.core.study.uses import Use
from tabrel.core.uncertainty.model_arrays import flattened, picked
from tabrel.core.uncertainty.sampling import random_quantiles

FloatArray = NDArray[np.float64]

START_DRAWS = 24
"""Draws of which a start is followed: each of them is a whole run."""

_AT_COLD: dict[str, tuple[str, float]] = {
    "element_cold_kpa": ("element_pressure", 1e-3),
    "unfiltered_cold_percent": ("unfiltered_fraction", 100.0),
}
_AT_HOT: dict[str, tuple[str, float]] = {
    "filter_hot_kpa": ("filter_pressure", 1e-3),
    "gallery_hot_kpa": ("gallery_pressure", 1e-3),
}
_ONSETS: dict[str, Condition] = {"onset_c": "steady", "filling_onset_c": "filling"}
STARTS = ("minutes_in_bypass", "unfiltered_litres")
"""Measures of a start."""

_GREATEST = ("element_greatest_kpa", "element_greatest_stuck_kpa")


def behaviour_at_points(
    study: Study,
    measured: MeasuredSample,
    use: Use,
    measures: Iterable[str],
    *,
    draws: int = DRAWS,
    sampled: Callable[[], SampledProblem] | None = None,
) -> dict[str, Known]:
    """Return measures of behaviour of one filter.

    Parameters
    ----------
    study : Study
        Gives oil, circuit, duty cycle and plan of the start.
    measured : MeasuredSample
        The filter.
    use : Use
        Gives the points.
    measures : iterable of str
        Of `measures.BEHAVIOUR_MEASURES`.
    draws : int
        Of the model, at least one, with which there is no uncertainty; the same numbers for every filter, so that what two
        filters share cancels in their difference.
    sampled : callable or None
        Gives what `sampled_filter` does, if somebody keeps it.

    Returns
    -------
    dict
        By measure; without a value, and with the reason, where it cannot be computed.
    """
    wanted = [measure for measure in measures if measure in BEHAVIOUR_MEASURES]
    if not wanted:
        return {}
    filter_here = _FilterAtPoints(study, measured, use, draws, sampled or (lambda: sampled_filter(study, measured, draws)))
    known_values = {}
    with np.errstate(all="ignore"):
        for measure in wanted:
            try:
                known_values[measure] = filter_here.measure(measure)
            except MissingInputsError as error:
                known_values[measure] = Known(None, f"needs {', '.join(error.keys)}")
            except TabrelError as error:
                known_values[measure] = Known(None, str(error))
    return known_values


@dataclass
class _FilterAtPoints:
    """One filter, its problem sampled once for each condition."""

    study: Study
    measured: MeasuredSample
    use: Use
    draws: int
    sampled: Callable[[], SampledProblem]

    @cached_property
    def steady(self) -> SampledProblem:
        return self.sampled()

    @cached_property
    def filling(self) -> SampledProblem:
        return replace(
            self.steady,
            nominal=(nominal := replace(self.steady.nominal, condition="filling")),
            sampled=nominal if self.draws == 1 else replace(self.steady.sampled, condition="filling"),
        )

    def measure(self, measure: str) -> Known:
        """Return one measure."""
        if measure in _AT_COLD:
            return self._at_place(*_AT_COLD[measure], self.use.temperature_c, self.use.speed_rpm, "cold")
        if measure in _AT_HOT:
            return self._at_place(*_AT_HOT[measure], self.use.hot_temperature_c, self.use.hot_speed_rpm, "hot")
        if measure in _ONSETS:
            return self._onset(_ONSETS[measure])
        if measure in STARTS:
            return self._start(measure)
        return self._greatest(measure) if measure in _GREATEST else self._life()

    def _known(self, value: float, sampled: FloatArray, problem: SampledProblem) -> Known:
        """Return a value with the U of its draws, each draw at its own place among all."""
        aligned = np.full(self.draws, np.nan)
        aligned[problem.possible] = sampled
        good = sampled[np.isfinite(sampled)]
        uncertainty = NORMAL_COVERAGE * float(np.std(good, ddof=1)) if good.size > 1 else 0.0
        if not np.isfinite([value, uncertainty]).all():
            return Known(None, "no balance of flows was found there: check the engine's numbers")
        if good.size < 2:
            return Known(CategoryValue(value, uncertainty, basis="model"), draws=aligned)
        low, high = (float(end) for end in np.quantile(good, (0.025, 0.975)))
        return Known(CategoryValue(value, uncertainty, min(low, value), max(high, value), "model"), draws=aligned)

    def _at_place(self, quantity: str, factor: float, celsius: float | None, rpm: float | None, name: str) -> Known:
        if celsius is None or rpm is None:
            return Known(None, f"the use has no {name} point: give its oil temperature and engine speed")
        problem = self.steady
        if not problem.nominal.oil.pumps(np.array([celsius]))[0]:
            return Known(None, f"the oil does not pump at {shown_in_both(celsius, '°C', 6)}")
        value, sampled = _solved(problem, quantity, celsius, rpm)
        return self._known(factor * value, factor * sampled, problem)

    def _onset(self, condition: Condition) -> Known:
        if self.use.speed_rpm is None:
            return Known(None, "the use has no cold point: give its engine speed")
        problem = self.steady if condition == "steady" else self.filling
        if problem.nominal.filter.valve is None:
            return Known(None, "there is no bypass valve")
        coldest = problem.nominal.oil.coldest_pumping(-40.0)
        onset = sampled_onset(replace(problem, count=0) if self.draws == 1 else problem, self.use.speed_rpm)
        if not np.isfinite(onset.best):
            return Known(CategoryValue(None, 0.0, None, coldest, "model"))
        closes = onset.closes if self.draws > 1 else np.array([onset.best])
        return self._known(onset.best, np.where(np.isfinite(closes), closes, coldest), problem)

    def _greatest(self, measure: str) -> Known:
        """Return the greatest element differential pressure: found with the best estimates, spread by draws at that place."""
        is_stuck = measure == "element_greatest_stuck_kpa"
        temperatures = np.linspace(self.steady.nominal.oil.coldest_pumping(-40.0), WARMEST, TEMPERATURES)
        best: tuple[float, SampledProblem, float, float] | None = None
        for problem in (self.steady, self.filling):
            shown = _stuck(problem) if is_stuck else problem
            grid = operating_map(shown.nominal, temperatures.tolist(), SPEEDS.tolist()).quantity("element_pressure")
            if not np.isfinite(grid).any():
                continue
            row, column = np.unravel_index(np.nanargmax(grid), grid.shape)
            if best is None or grid[row, column] > best[0]:
                best = float(grid[row, column]), shown, float(temperatures[row]), float(SPEEDS[column])
        if best is None:
            return Known(None, "nothing is solved on the whole map")
        value, shown, celsius, rpm = best
        return self._known(1e-3 * value, 1e-3 * _solved(shown, "element_pressure", celsius, rpm)[1], shown)

    @cached_property
    def starts(self) -> tuple[WarmUp, list[WarmUp]]:
        """The start with the best estimates, and with the first few draws."""
        plan, _ = completed_plan(self.study.warm_up)
        cycle = cycle_of(self.study, plan)
        count = self._followed_draws
        drawn = picked(self.steady.sampled, slice(0, count))
        return warm_up(self.steady.nominal, cycle, plan), warm_ups(drawn, count, cycle, plan) if count else []

    def _start(self, measure: str) -> Known:
        def asked(start: WarmUp) -> float:
            return start.bypass_time / 60 if measure == "minutes_in_bypass" else start.unfiltered_volume * 1e3

        best, drawn = self.starts
        return self._followed(asked(best), [asked(start) for start in drawn])

    def _life(self) -> Known:
        """Return the life at the hot point: hours to the first opening of the bypass valve there, the galleries full."""
        celsius, rpm = self.use.hot_temperature_c, self.use.hot_speed_rpm
        if celsius is None or rpm is None:
            return Known(None, "the use has no hot point: give its oil temperature and engine speed")
        plan, without = completed_plan(self.study.warm_up)
        capacity = dirt_capacity(self.measured, plan.terminal_ratio or TERMINAL_RATIO)
        if capacity is None:
            return Known(None, "nothing says what the filter holds")
        per_hour = (plan.ingress_g_h or 1.0) * 1e-3

        def hours(point: OperatingPoint, count: int) -> tuple[FloatArray, NDArray[np.bool_]]:
            """Return the life of each of so many draws [h], and where it is a least one."""
            loading, before = loading_at_onset(point, np.full(count, celsius), rpm), np.broadcast_to(point.loading, count)
            pairs = [captured_mass(capacity.law, float(before[i]), loading[i : i + 1]) for i in range(count)]
            return np.array([mass[0] for mass, _ in pairs]) / per_hour, np.array([is_least[0] for _, is_least in pairs])

        assumed = [
            word for word, is_so in (("capacity", capacity.log_uncertainty > 0), ("ingress", "ingress_g_h" in without)) if is_so
        ]
        (value,), (is_least,) = hours(self.steady.nominal, 1)
        if np.isnan(value):
            return Known(None, "there is no bypass valve that would open, or the oil does not pump there")
        if is_least or np.isinf(value):
            least = float(value) if np.isfinite(value) else capacity.mass / per_hour
            return Known(CategoryValue(None, 0.0, least, None, capacity.basis), rests_on_assumed=" and ".join(assumed))
        count = self.steady.count if self.draws > 1 else 0
        if not count:
            return replace(self._followed(float(value), []), rests_on_assumed=" and ".join(assumed))
        quantiles = random_quantiles(self.draws)
        of_ingress = INGRESS_LOG_U * ndtri(quantiles("plan.ingress")[:, 0]) if "ingress" in assumed else np.zeros(self.draws)
        own = quantiles(f"{self.measured.sample.label}/plan.capacity")[:, 0]
        factor = np.exp(capacity.log_uncertainty * ndtri(own) - of_ingress)[self.steady.possible]
        drawn = hours(flattened(self.steady.sampled, (count, 1)), count)[0] * factor
        return replace(self._followed(float(value), drawn.tolist()), rests_on_assumed=" and ".join(assumed))

    @property
    def _followed_draws(self) -> int:
        """How many draws are followed; none where there is no uncertainty."""
        return min(START_DRAWS, self.steady.count) if self.draws > 1 else 0

    def _followed(self, value: float, drawn: list[float]) -> Known:
        sampled = np.full(self.steady.count, np.nan)
        sampled[: len(drawn)] = [number if np.isfinite(number) else np.nan for number in drawn]
        return self._known(value, sampled, self.steady)


def sampled_filter(study: Study, measured: MeasuredSample, draws: int) -> SampledProblem:
    """Return a filter in the circuit with so many draws; of one draw, with its best estimates.

    Raises
    ------
    TabrelError
        If something of it is missing.
    """
    if draws > 1:
        return sampled_problem(study, measured.sample, quantiles=random_quantiles(draws))
    nominal = operating_point(study, measured.sample)
    return SampledProblem(nominal, nominal, 1, 0, np.ones(1, dtype=bool))


def _stuck(problem: SampledProblem) -> SampledProblem:
    """Return a problem with the bypass valve stuck shut."""

    def shut(point: OperatingPoint) -> OperatingPoint:
        return replace(point, filter=replace(point.filter, valve=None))

    nominal = shut(problem.nominal)
    return replace(problem, nominal=nominal, sampled=nominal if problem.sampled is problem.nominal else shut(problem.sampled))


def _solved(problem: SampledProblem, quantity: str, celsius: float, rpm: float) -> tuple[float, FloatArray]:
    """Return a quantity at one place with the best estimates, and for every draw."""
    temperature, speed = np.array([celsius]), np.array([rpm])
    best = solve_circuit(problem.nominal, problem.nominal.place(temperature, speed))
    if problem.sampled is problem.nominal:
        value = float(best.quantity(quantity)[0])
        return value, np.array([value])
    sampled = solve_circuit(problem.sampled, problem.sampled.place(temperature, speed))
    return float(best.quantity(quantity)[0]), np.broadcast_to(sampled.quantity(quantity), (problem.count, 1))[:, 0]

"""The answer of a study that ranks no filter and asks about a part of the engine: its own run, with the part and without."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from tabrel.core.answer.words import value_words
from tabrel.core.catalogue.units import UnitFamily, in_family, shown
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.errors import TabrelError
from tabrel.core.judge.categories import CategoryValue
from tabrel.core.judge.chances import NORMAL_COVERAGE
from tabrel.core.maps.monte_carlo import SampledProblem, sampled_problem
from tabrel.core.numbers import plain_number
from tabrel.core.study.model import Sample, Study
from tabrel.core.study.plans import Scenario
from tabrel.core.uncertainty.sampling import random_quantiles

FloatArray = NDArray[np.float64]

LOSS = "filter_hot_kpa"
"""Measure whose unit a loss is told in."""


def adapter_sentences(study: Study, *, draws: int, family: UnitFamily = "metric") -> list[str]:
    """Return what the engine's adapter costs beside its filter at the engine's hot point; nothing where there is none.

    The filter is the reference of the study, else its first.
    """
    circuit = study.circuit
    samples = [sample for sample in study.samples if not sample.archived]
    if circuit is None or circuit.adapter is None or circuit.engine is None or not samples:
        return []
    sample = next((sample for sample in samples if sample.label == study.reference), samples[0])
    celsius, rpm = circuit.engine.temperature_c, circuit.engine.speed_rpm
    try:
        together, alone = (
            _loss(study, sample, Scenario("", without_adapter=without), celsius, rpm, draws) for without in (None, True)
        )
    except TabrelError as error:
        return [f"What the adapter costs cannot be said yet: {error}."]
    own, filter_loss = _known(together - alone), _known(alone)
    more, less = (own.value or 0.0) - own.expanded_uncertainty, (own.value or 0.0) + own.expanded_uncertainty
    middle = filter_loss.value or 0.0
    than = "more than" if more > middle else "less than" if less < middle else "about as much as"
    where = f"{shown(celsius, in_family('°C', family), 3)} and {plain_number(rpm)} rpm"
    return [
        f"At {where} the adapter costs {value_words(own, LOSS, family)}, {than} the filter {sample.label} itself "
        f"({value_words(filter_loss, LOSS, family)}).",
        f"Filter and adapter together lose {value_words(_known(together), LOSS, family)}.",
    ]


def _loss(study: Study, sample: Sample, scenario: Scenario, celsius: float, rpm: float, draws: int) -> FloatArray:
    """Return the loss from filter inlet to outlet of every draw, that of the best estimate first. [kPa]"""
    problem: SampledProblem = sampled_problem(study, sample, quantiles=random_quantiles(draws), scenario=scenario)
    temperature, speed = np.array([celsius]), np.array([rpm])
    with np.errstate(all="ignore"):
        best = solve_circuit(problem.nominal, problem.nominal.place(temperature, speed)).quantity("filter_pressure")
        drawn = solve_circuit(problem.sampled, problem.sampled.place(temperature, speed)).quantity("filter_pressure")
    aligned = np.full(draws, np.nan)
    aligned[problem.possible] = np.broadcast_to(drawn, (problem.count, 1))[:, 0]
    return np.concatenate([best, aligned]) / 1e3


def _known(of_draws: FloatArray) -> CategoryValue:
    good = of_draws[1:][np.isfinite(of_draws[1:])]
    return CategoryValue(float(of_draws[0]), NORMAL_COVERAGE * float(np.std(good, ddof=1)) if good.size > 1 else 0.0)

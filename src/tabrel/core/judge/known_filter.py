"""All that is known of one filter in the measures that are asked for, and of its part number."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from math import sqrt

from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES, PRICES, observation_named
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.results import RESULTS
from tabrel.core.judge.allowance import spread_between_specimens
from tabrel.core.judge.at_points import behaviour_at_points
from tabrel.core.judge.known import Known, of_price, of_reading, of_result
from tabrel.core.judge.requirements import GREATEST, GREATEST_STUCK, OPENING
from tabrel.core.judge.same_part import part_number_of
from tabrel.core.maps.monte_carlo import DRAWS, SampledProblem
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Sample, Study
from tabrel.core.study.uses import BY_HAND, Use

_RESULT_KEYS = {row.key for row in RESULTS.values()}


def measures_of_use(use: Use) -> tuple[str, ...]:
    """Return every number of a filter a use speaks of, and those that are asked of every use."""
    asked = [criterion.measure for criterion in use.criteria] + [requirement.measure for requirement in use.requirements]
    numbers = (measure for measure in asked if measure != BY_HAND and observation_named(measure) is None)
    return tuple(dict.fromkeys((*numbers, OPENING, GREATEST, GREATEST_STUCK)))


def known_at_use(study: Study, measured: MeasuredSample, use: Use, *, draws: int = DRAWS) -> dict[str, Known]:
    """Return what is known of a filter in every number a use speaks of, but for orders made by hand."""
    return known_measures(study, measured, use, measures_of_use(use), draws=draws)


def known_measures(
    study: Study,
    measured: MeasuredSample,
    points: Use,
    measures: Iterable[str],
    *,
    draws: int = DRAWS,
    sampled: Callable[[], SampledProblem] | None = None,
) -> dict[str, Known]:
    """Return what is known of a filter in some measures.

    Parameters
    ----------
    study : Study
        Gives oil, engine, duty cycle and plan of the start.
    measured : MeasuredSample
        The filter.
    points : Use
        Gives the points at which it is judged.
    measures : iterable of str
        Numbers; what was seen, and orders made by hand, are passed over.
    draws : int
        Of the model, at least one, with which its behaviour has no uncertainty.
    sampled : callable or None
        As of `at_points.behaviour_at_points`.

    Returns
    -------
    dict
        By measure; without a value, and with the reason, where nothing is known.
    """
    analysis = analyse_measured(measured)
    measures = tuple(measures)
    known = behaviour_at_points(study, measured, points, measures, draws=draws, sampled=sampled)
    for measure in measures:
        if measure in _RESULT_KEYS:
            known[measure] = of_result(measure, analysis, measured)
        elif measure in QUANTITIES:
            known[measure] = of_reading(measure, measured)
        elif measure in PRICES:
            known[measure] = of_price(measured.sample, points, measure)
        elif measure not in BEHAVIOUR_MEASURES and measure != BY_HAND and observation_named(measure) is None:
            known[measure] = Known(None, "comes from a bench that is not computed yet")
    return known


def of_part_numbers(samples: Sequence[Sample], value: Mapping[str, Mapping[str, Known]]) -> dict[str, dict[str, Known]]:
    """Return what is known with the spread between the specimens of each part number in it."""
    widened: dict[str, dict[str, Known]] = {}
    for sample in samples:
        own_number = part_number_of(sample)
        twins = [item.label for item in samples if item is sample or (own_number and part_number_of(item) == own_number)]
        widened[sample.label] = {}
        for measure, known in value[sample.label].items():
            own = number_of(known)
            if own is None:
                widened[sample.label][measure] = known
                continue
            others = [
                number for label in twins if label != sample.label and (number := number_of(value[label][measure])) is not None
            ]
            spread = spread_between_specimens(measure, [own, *others])
            standard = spread.standard_deviation * sqrt(1 + 1 / spread.specimens)
            widened[sample.label][measure] = known.with_spread(standard, is_assumed=spread.is_assumed)
    return widened


def number_of(known: Known) -> float | None:
    """Return the number that is known, if one is."""
    return None if known.value is None else known.value.value

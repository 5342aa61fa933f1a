"""What a use asks, as a sentence: where the engine runs, what a filter must do, what counts and how much."""

from __future__ import annotations

from tabrel.core.answer.words import listed
from tabrel.core.catalogue.measures import MEASURE_ROWS, measure_unit, observation_named
from tabrel.core.catalogue.quantities import PART_TITLES
from tabrel.core.catalogue.units import UnitFamily, in_family, shown
from tabrel.core.judge.requirements import limits_in_words
from tabrel.core.numbers import plain_number
from tabrel.core.study.uses import BY_HAND, Requirement, Use


def asked_sentence(use: Use, family: UnitFamily) -> str:
    """Return what a use asks in one sentence.

    Examples
    --------
    >>> from tabrel.core.study.uses import Criterion
    >>> use = Use("u", -25.0, 2000.0, requirements=(Requirement("unfiltered_litres", at_most=20.0),),
    ...     criteria=(Criterion("media_effective_area_cm2", weight=2.0), Criterion("price", weight=3.0)))
    >>> asked_sentence(use, "metric")
    'Cold at −25 °C and 2000 rpm; it must: litres unfiltered at most 20 L; weighed: price 3 and effective media area 2.'
    """
    places = [("cold", use.temperature_c, use.speed_rpm), ("hot", use.hot_temperature_c, use.hot_speed_rpm)]
    must, weighed = [required_words(line, family) for line in use.requirements], _weighed(use)
    parts = [
        ", ".join(
            f"{name} at {shown(celsius, in_family('°C', family), 6)} and {plain_number(rpm)} rpm"
            for name, celsius, rpm in places
            if celsius is not None and rpm is not None
        ),
        f"it must: {listed(must)}" if must else "nothing is required",
        f"weighed: {listed(weighed)}" if weighed else "nothing is weighed",
    ]
    words = "; ".join(filter(None, parts))
    return f"{words[0].upper()}{words[1:]}."


def title_in_words(measure: str, name: str | None = None) -> str:
    """Return what a measure or an observation is called in a sentence."""
    if measure == BY_HAND:
        return name or MEASURE_ROWS[BY_HAND].title
    observation = observation_named(measure)
    if observation is not None:
        return f"{observation.title} of the {PART_TITLES[observation.part].lower()}"
    return MEASURE_ROWS[measure].title if measure in MEASURE_ROWS else measure.replace("_", " ")


def required_words(line: Requirement, family: UnitFamily) -> str:
    """Return one requirement in words."""
    title = title_in_words(line.measure)
    if line.one_of:
        return f"{title} {listed(line.one_of, 'or')}"
    return f"{title} {limits_in_words(line, measure_unit(line.measure, family))}"


def _weighed(use: Use) -> list[str]:
    counted = [item for item in use.criteria if item.struck is None and item.counted_weight > 0]
    counted.sort(key=lambda item: -item.counted_weight)
    return [f"{title_in_words(item.measure, item.name)} {item.counted_weight:g}" for item in counted]

"""Everything an answer is written from: a use judged, what is known of its filters, who may be named, what passes them."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from tabrel.core.answer.dirt import Passed, passed
from tabrel.core.answer.standing import Candidate, Standing, standing
from tabrel.core.answer.words import listed, price_words, value_words
from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES, MEASURE_ROWS, PRICES, observation_named
from tabrel.core.catalogue.quantities import PART_TITLES
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.judge.categories import Category, CategoryValue, counting, outcome
from tabrel.core.judge.judged_use import JudgedCriterion, JudgedUse
from tabrel.core.judge.known import Known
from tabrel.core.judge.known_filter import measures_of_use
from tabrel.core.judge.requirements import COLLAPSE_KEY, JudgedRequirement
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Sample, Study
from tabrel.core.study.uses import BY_HAND, Use

LIFE, LITRES, DIRT = "life_h", "unfiltered_litres", "efficiency_at_20_um_percent"
DUST_TEST = "run a dust test for its life"
MORE_UNFILTERED = 5.0
"""So many litres more unfiltered in a start are told though they are not told apart; ours. [L]"""

_HOURS = re.compile(r"(\d[\d ]*)\s*(?:h|hours?)\b")


def measures_of_answer(use: Use) -> tuple[str, ...]:
    """Return every number an answer speaks of: those of the use, its life, and what a start leaves unfiltered."""
    return tuple(dict.fromkeys((*measures_of_use(use), LIFE, LITRES)))


def is_number(measure: str) -> bool:
    """Return whether a measure is a number of the filter: no price, no order, nothing that was seen."""
    return measure not in PRICES and measure != BY_HAND and observation_named(measure) is None


@dataclass(frozen=True)
class KnownUse:
    """A use, judged, with what is known of its filters.

    Attributes
    ----------
    study : Study
    judged : JudgedUse
    measured : mapping
        Filters by label.
    known : mapping
        By label and measure, of `measures_of_answer`.
    family : str
        Of the units.
    """

    study: Study
    judged: JudgedUse
    measured: Mapping[str, MeasuredSample]
    known: Mapping[str, Mapping[str, Known]]
    family: UnitFamily

    @property
    def use(self) -> Use:
        """The use."""
        return self.judged.use

    @cached_property
    def standing(self) -> Standing:
        """Who may be named, and in which order."""
        return standing(self.judged, self.measured)

    @cached_property
    def passed(self) -> dict[str, Passed | None]:
        """What passes of a thousand particles, by label."""
        return {label: passed(self.measured[label]) for label in self.judged.labels}

    @cached_property
    def counting(self) -> list[JudgedCriterion]:
        """The criteria that are weighed, the heaviest first."""
        weighed = [item for item in self.judged.criteria if item.category.struck is None and item.category.weight > 0]
        return sorted(weighed, key=lambda item: -item.category.weight)

    def sample(self, label: str) -> Sample:
        """Return a filter."""
        return self.measured[label].sample

    def priced(self, label: str) -> str:
        """Return a filter with its price."""
        return f"{label} ({price_words(self.sample(label), self.use.shop)})"

    def value(self, label: str, measure: str) -> CategoryValue | None:
        """Return what is known of a filter in a measure."""
        known = self.known[label].get(measure)
        return None if known is None else known.value

    def words(self, label: str, measure: str) -> str:
        """Return that in words."""
        return value_words(self.value(label, measure), measure, self.family)

    def told_apart(self, first: str, second: str) -> list[tuple[Category, int | None]]:
        """Return the weighed criteria with who is ahead: 1 the first, −1 the second, 0 neither, None where it is not known."""
        categories = [item.category for item in self.counting]
        return [(category, outcome(category, first, second)) for category in categories]

    def ahead_and_behind(self, first: str, second: str) -> tuple[list[str], list[str]]:
        """Return in which weighed criteria a filter is told to be ahead of another, and in which behind; with both numbers."""
        sides: dict[int, list[str]] = {1: [], -1: []}
        for category, result in self.told_apart(first, second):
            if result not in sides:
                continue
            words = "price" if category.measure in PRICES else category.name
            if is_number(category.measure):
                numbers = (value_words(category.known(label), category.measure, self.family) for label in (first, second))
                words = f"{words} ({' against '.join(numbers)})"
            sides[result].append(words)
        return sides[1], sides[-1]

    @cached_property
    def required_hours(self) -> tuple[float, str] | None:
        """The hours that a filter is to last, and whose they are: of the use, required, stated, or written in the study."""
        if self.use.interval_h:
            return self.use.interval_h, "of this use"
        for asked in self.use.requirements:
            if asked.measure == LIFE and asked.at_least:
                return asked.at_least, "you ask for"
        stated = [interval.hours for interval in self.study.intervals if interval.hours]
        if stated:
            return min(stated), "stated for this engine"
        written = _HOURS.search(self.study.intended_uses or "")
        return (float(written[1].replace(" ", "")), "the study states") if written else None

    def lasts(self, label: str) -> bool | None:
        """Return whether a filter surely lasts those hours, surely does not, or None."""
        value, hours = self.value(label, LIFE), self.required_hours
        if value is None or hours is None or not value.is_known:
            return None
        low = value.low if value.low is not None else (value.value or 0.0) - value.expanded_uncertainty
        high = value.high if value.high is not None else None if value.value is None else value.value + value.expanded_uncertainty
        if low >= hours[0]:
            return True
        return False if high is not None and high < hours[0] else None

    @property
    def first(self) -> Candidate:
        """The candidate that stands first."""
        return self.standing.candidates[0]

    @property
    def buyable(self) -> list[Candidate]:
        """The candidates that may be named to buy, in their order."""
        return [one for one in self.standing.candidates if self.standing.is_buyable(one.label)]


def what_decides(line: JudgedRequirement) -> str:
    """Return what would judge an open line."""
    if line.decided_by == COLLAPSE_KEY:
        return "ask its maker for the collapse pressure"
    if line.measure == LIFE:
        return DUST_TEST
    observation = observation_named(line.decided_by or line.measure)
    if observation is not None:
        return f"look at the {PART_TITLES[observation.part].lower()}: {observation.title}"
    row = MEASURE_ROWS.get(line.measure)
    title = row.title if row else line.measure
    if line.measure in BEHAVIOUR_MEASURES:
        return f"measure what the model needs for its {title}"
    return f"measure its {title} more closely"


def asks_of(label: str, known: KnownUse) -> str:
    """Return what would judge a filter in full, in a clause."""
    return listed(list(dict.fromkeys(what_decides(line) for line in known.standing.open_lines[label])))


def is_dirt_weighed(known: KnownUse) -> bool:
    """Return whether what passes is weighed, and known so alike that it is compared."""
    categories = counting([item.category for item in known.judged.criteria])
    return any(
        category.measure == DIRT
        and category.weight > 0
        and sum(category.known(one.label) is not None for one in known.standing.candidates) > 1
        for category in categories
    )

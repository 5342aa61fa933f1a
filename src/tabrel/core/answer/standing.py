"""Who may be named in an answer: filters of one part as one, in the order of one method, with the chance to be first."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from tabrel.core.answer.seen import Seen, seen_on
from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES
from tabrel.core.judge.categories import Category, counting
from tabrel.core.judge.chances import chance_of_place
from tabrel.core.judge.disagreements import method_figures
from tabrel.core.judge.judged_use import JudgedUse, draws_of
from tabrel.core.judge.known import unit_price
from tabrel.core.judge.ranking_methods import pair_wins, rank_sum, weighted_score
from tabrel.core.judge.requirements import JudgedRequirement
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.uses import RankingMethod, UseVerdict

Sureness = Literal["sure", "fairly sure", "not sure"]

SURE, FAIRLY_SURE = 0.95, 0.80
"""Chances to be first: the level of U, and wrong once in five, for a cheap thing that can be changed; ours."""
DRAWN_LEVEL = 0.02
"""So close two chances are the same."""
LEVEL = 1e-9
"""Figures this close are equal: they differ in their last bits."""


@dataclass(frozen=True)
class Candidate:
    """One part, by the name that speaks for it.

    Attributes
    ----------
    label : str
        The voice.
    twins : tuple of str
        The other names of the part, which nothing tells from it; failed ones among them.
    figure : float or None
        By the method, more is better; None where nothing that weighs is known.
    chance : float
        To be first.
    """

    label: str
    twins: tuple[str, ...]
    figure: float | None
    chance: float


@dataclass(frozen=True)
class Standing:
    """The filters of a use as an answer takes them.

    Attributes
    ----------
    method : str
    candidates : tuple of Candidate
        Those that have not failed, the first first.
    sure : str
        How sure the first place is.
    verdicts : mapping
        By label: what stands, the analyst's before what follows.
    open_lines : mapping
        By label: lines that are not judged.
    seen : mapping
        By label.
    weighs : bool
        Whether anything is weighed.
    judged : JudgedUse
    firsts : mapping
        By method: the candidate that alone is first by it, or None.
    """

    method: RankingMethod
    candidates: tuple[Candidate, ...]
    sure: Sureness
    verdicts: Mapping[str, UseVerdict]
    open_lines: Mapping[str, tuple[JudgedRequirement, ...]]
    seen: Mapping[str, Seen]
    weighs: bool
    judged: JudgedUse
    firsts: Mapping[RankingMethod, str | None] = field(default_factory=dict)

    @property
    def failed(self) -> tuple[str, ...]:
        """Filters that do not do what the use asks."""
        return tuple(label for label in self.judged.labels if self.verdicts[label] == "fails")

    def is_set(self, label: str) -> bool:
        """Return whether the analyst set the verdict that stands."""
        return self.judged.verdicts[label].stated is not None

    def is_buyable(self, label: str) -> bool:
        """Return whether a filter may be named to buy: it does what is asked, nothing is left open, and there is no hazard."""
        if self.seen[label].hazards or self.verdicts[label] in ("fails", "open"):
            return False
        return not self.open_lines[label] or (self.is_set(label) and self.verdicts[label] == "meets")


def standing(judged: JudgedUse, measured: Mapping[str, MeasuredSample]) -> Standing:
    """Return who may be named in the answer of a use, in which order, and how sure the first place is."""
    verdicts: dict[str, UseVerdict] = {
        label: verdict.stated.verdict if verdict.stated else verdict.proposed for label, verdict in judged.verdicts.items()
    }
    open_lines = {
        label: tuple(line for line in lines if line.counts and line.state == "open")
        for label, lines in judged.requirements.items()
    }
    seen = {label: seen_on(measured[label], judged.requirements[label]) for label in judged.labels}
    categories = counting([criterion.category for criterion in judged.criteria])
    weighed = [category for category in categories if category.weight > 0]
    method = judged.use.ranked_by or _method(weighed)
    empty = Standing(method, (), "sure", verdicts, open_lines, seen, bool(weighed), judged)
    groups = _groups(judged)
    voices: dict[str, tuple[str, ...]] = {}
    for group in groups:
        left = [label for label in group if verdicts[label] != "fails"]
        if left:
            voice = min(left, key=lambda label: _fitness(empty, label, weighed, measured[label]))
            voices[voice] = tuple(label for label in group if label != voice)
    if not voices:
        return empty
    labels = tuple(voices)
    figures_by_method = method_figures(
        pair_wins(categories, labels), rank_sum(categories, labels), weighted_score(categories, labels)
    )
    figures = figures_by_method[method]
    if method != "weighted_score":
        categories = [replace(category, weight=1.0) for category in categories]
    chances = chance_of_place(categories, labels, drawn=draws_of(judged.criteria, labels)).of_place
    known = {label: any(category.known(label) for category in weighed) for label in labels}
    candidates = [
        Candidate(label, voices[label], figures.get(label) if known[label] else None, chances[label][0]) for label in labels
    ]
    candidates.sort(
        key=lambda one: (
            one.figure is None,
            -round(one.figure or 0.0, 9),
            -one.chance,
            _price(measured[one.label], judged),
            one.label,
        )
    )
    sure = _sureness(method, categories, candidates)
    first = seen[candidates[0].label]
    if sure == "sure" and (first.cautions or first.not_looked_at):
        sure = "fairly sure"
    firsts = {name: _alone_first(of) for name, of in figures_by_method.items()}
    return replace(empty, candidates=tuple(candidates), sure=sure, firsts=firsts)


def _alone_first(figures: Mapping[str, float]) -> str | None:
    best = [label for label, figure in figures.items() if figure >= max(figures.values()) - LEVEL]
    return best[0] if len(best) == 1 else None


def _method(weighed: Sequence[Category]) -> RankingMethod:
    """Return the method where none is chosen: the weighted score where weights differ, else pair wins, which is blind to them."""
    return "weighted_score" if len({category.weight for category in weighed}) > 1 else "pair_wins"


def _groups(judged: JudgedUse) -> list[list[str]]:
    """Return the filters, those together of which nothing tells any two apart."""
    alike = {frozenset((pair.one, pair.other)) for pair in judged.pairs if pair.verdict == "nothing_tells_them_apart"}
    groups: list[list[str]] = []
    for label in judged.labels:
        home = next((group for group in groups if all(frozenset((label, other)) in alike for other in group)), None)
        if home is None:
            groups.append([label])
        else:
            home.append(label)
    return groups


def _fitness(standing: Standing, label: str, weighed: Sequence[Category], measured: MeasuredSample) -> tuple[object, ...]:
    """Return by what the name is chosen that speaks for a part, the least first."""
    return (
        bool(standing.seen[label].hazards),
        standing.verdicts[label] not in ("meets", "none"),
        len(standing.open_lines[label]),
        sum(category.known(label) is None for category in weighed),
        _price(measured, standing.judged),
        label,
    )


def _price(measured: MeasuredSample, judged: JudgedUse) -> float:
    price = unit_price(measured.sample, judged.use.shop)
    return price[0] if price else float("inf")


def _sureness(method: RankingMethod, categories: Sequence[Category], candidates: Sequence[Candidate]) -> Sureness:
    if len(candidates) < 2:
        return "sure"
    first = candidates[0]
    labels = [candidate.label for candidate in candidates]
    unknown = weighted_score(categories, labels).places.rank_range[first.label][1] > 1 and not all(
        (known := category.known(label)) is not None and known.value is not None
        for category in categories
        if category.weight > 0
        for label in labels
    )
    if unknown or first.figure is None or first.chance < FAIRLY_SURE:
        return "not sure"
    if any(other.chance > first.chance + DRAWN_LEVEL for other in candidates[1:]):
        return "not sure"
    whole = sum(category.weight for category in categories)
    of_model = sum(category.weight for category in categories if category.measure in BEHAVIOUR_MEASURES)
    return "sure" if first.chance >= SURE and 2 * of_model < whole else "fairly sure"

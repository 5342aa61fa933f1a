"""Wire models of a use judged for every filter."""

from __future__ import annotations

from typing import Literal

from tabrel.api.catalogue.models import ShownUnitOut
from tabrel.core.judge.disagreements import RankingMethod
from tabrel.core.judge.requirements import RequirementState
from tabrel.core.study.uses import UseVerdict
from tabrel.document.results import WireModel

Compared = Literal["part_numbers", "specimens"]


class KnownValueOut(WireModel):
    """Knowledge of one filter in one measure; with neither value nor bound, `reason` says why."""

    label: str
    value: float | None
    expanded_uncertainty: float | None
    low: float | None
    high: float | None
    basis: str | None
    reason: str
    is_spread_assumed: bool
    words: str
    """Printed in place of a number that nobody stated."""
    evidence: str
    """Of an efficiency: the evidence and kind of test."""


class JudgedCriterionOut(WireModel):
    """A criterion with what is known of every filter; end points that are not stated are those of the filters."""

    measure: str
    name: str
    better: Literal["high", "low"]
    weight: float
    best: float | None
    worst: float | None
    has_stated_ends: bool
    """False if the end points are those of the filters compared."""
    struck: str | None
    """Reason why it does not count."""
    metric: ShownUnitOut
    inch: ShownUnitOut
    known: list[KnownValueOut]


class PlaceOut(WireModel):
    """A place; null where not knowing could change it, with the first and the last it may be."""

    place: int | None
    """Null if an unknown value could change it."""
    first: int
    last: int


class RankedFilterOut(WireModel):
    """One filter in the three ranking methods."""

    label: str
    pairs_score: int
    pairs_place: int
    rank_sum: float
    """Low is good."""
    rank_sum_low: float
    rank_sum_high: float
    rank_sum_place: PlaceOut
    score: float | None
    """0 to 100, over what is known."""
    score_expanded_uncertainty: float
    score_low: float
    score_high: float
    score_from: float | None
    score_to: float | None
    """Interval of the score, cut at 0 and 100."""
    score_place: PlaceOut
    ties: list[str]
    chances: list[float]


class ComparedPairOut(WireModel):
    """In how many categories two filters could be compared, and who wins how many."""

    first_label: str
    second_label: str
    compared: int
    won_by_first: int
    won_by_second: int


class PullOut(WireModel):
    """Effect of one criterion on a pair of filters: points of the score by which the first leads."""

    measure: str
    name: str
    points: float
    """Negative if the second filter gains."""
    is_told_apart: bool


class DisagreementOut(WireModel):
    """Two filters that the ranking methods put in a different order, and the criteria that make it so."""

    first_label: str
    second_label: str
    first_by: list[RankingMethod]
    second_by: list[RankingMethod]
    pulls: list[PullOut]


class SwapOut(WireModel):
    """The change that would swap two neighbours of the weighted score."""

    above: str
    below: str
    measure: str | None
    """The weight with the smallest relative change that swaps the two; null if none does."""
    weight: float | None
    level_weight: float | None
    value_measure: str | None
    """The value that swaps the two with the fewest of its own U."""
    value_sample: str | None
    change_in_u: float | None


class JudgedLineOut(WireModel):
    """One line of a use for one filter."""

    measure: str
    state: RequirementState
    reason: str
    is_asked_of_every_use: bool
    counts: bool
    """False for a fault that the analyst only imagines."""
    decided_by: str | None
    """Measure that would decide an open line."""


class StatedVerdictOut(WireModel):
    """Verdict that the analyst stated."""

    verdict: UseVerdict
    reason: str | None


class FilterVerdictOut(WireModel):
    """The verdict on one filter: what follows from the lines, what the analyst set, and why."""

    label: str
    proposed: UseVerdict
    stated: StatedVerdictOut | None
    reasons: list[str]
    lines: list[JudgedLineOut]


class JudgedUseOut(WireModel):
    """One use judged for every filter."""

    use_id: int
    name: str
    labels: list[str]
    compared: Compared
    criteria: list[JudgedCriterionOut]
    filters: list[RankedFilterOut]
    pairs: list[ComparedPairOut]
    circles: list[list[str]]
    disagreements: list[DisagreementOut]
    swaps: list[SwapOut]
    verdicts: list[FilterVerdictOut]
    left_out: list[str]
    """Filters of which nothing is known in what counts."""
    without_values: list[str]
    """Criteria in which no filter has anything."""
    asked_end_points: list[str]
    """Criteria whose end points have to be stated before a score of so few filters says anything."""
    same_parts: list[list[str]]
    """Filters that nothing tells apart: one part, which takes one place."""
    followed_draws: int | None
    """Few draws of a start behind the chances; null if they are many."""


class FilterAtUseOut(WireModel):
    """A filter whose behaviour at the points of a use is computed."""

    label: str
    known: list[KnownValueOut]

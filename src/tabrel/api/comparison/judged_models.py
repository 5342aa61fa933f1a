"""Wire models of a use judged for every filter."""

from __future__ import annotations

from typing import Annotated, Literal

from tabrel.api.catalogue.models import ShownUnitOut
from tabrel.core.answer.answer import Answer
from tabrel.core.judge.chances import Swap
from tabrel.core.judge.disagreements import Disagreement
from tabrel.core.judge.judged_use import FilterVerdict
from tabrel.core.judge.ranking_methods import PlaceIn
from tabrel.core.judge.requirements import JudgedRequirement
from tabrel.document.results import WireModel
from tabrel.document.wire import WIRED

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
    places: Annotated[dict[str, PlaceIn | None], WIRED]
    """Of every filter that is ranked, in this criterion; none where it is struck out."""


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
    disagreements: Annotated[list[Disagreement], WIRED]
    swaps: Annotated[list[Swap], WIRED]
    verdicts: Annotated[dict[str, FilterVerdict], WIRED]
    requirements: Annotated[dict[str, list[JudgedRequirement]], WIRED]
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


class UseAnswerOut(WireModel):
    """The answer of a use in sentences."""

    use_id: int
    answer: Annotated[Answer, WIRED]

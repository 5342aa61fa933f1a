"""One use of a study judged whole: knowledge of every filter in every criterion, ranking methods, requirements, verdicts."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.catalogue.measures import MEASURE_ROWS, better_of, observation_named
from tabrel.core.catalogue.observation import observed
from tabrel.core.catalogue.quantities import PART_TITLES
from tabrel.core.catalogue.results import RESULTS
from tabrel.core.circuit.dirt_loading import terminal_ratio, with_capacity_corrections
from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.judge.at_points import STARTS
from tabrel.core.judge.categories import Category, CategoryValue, counting
from tabrel.core.judge.chances import DRAWS, Chances, Swap, chance_of_place, swaps
from tabrel.core.judge.compared import joint_uncertainties, only_alike
from tabrel.core.judge.disagreements import Disagreement, disagreements
from tabrel.core.judge.known import Known, by_choice, by_hand
from tabrel.core.judge.known_filter import known_at_use, of_part_numbers
from tabrel.core.judge.ranking_methods import PairWins, RankSum, WeightedScore, pair_wins, rank_sum, weighted_score
from tabrel.core.judge.requirements import (
    COLLAPSE,
    COLLAPSE_KEY,
    GREATEST,
    GREATEST_STUCK,
    OPENING,
    JudgedRequirement,
    by_pass_lines,
    judge_number,
    judge_seen,
    proposed_verdict,
)
from tabrel.core.judge.same_part import PartComparison, compare_all_parts, part_facts
from tabrel.core.maps.monte_carlo import DRAWS as MODEL_DRAWS
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.study.model import Study
from tabrel.core.study.uses import BY_HAND, Criterion, Use, UseVerdict, Verdict

FloatArray = NDArray[np.float64]

SPREAD_SEED = 20261128

_RESULT_KEYS = {row.key for row in RESULTS.values()}


@dataclass(frozen=True)
class JudgedCriterion:
    """A criterion with what is known of every filter.

    Attributes
    ----------
    category : Category
        As the methods take it.
    known : mapping
        By label; a value that is not alike the others is no longer there, and its reason says so.
    """

    category: Category
    known: Mapping[str, Known]


@dataclass(frozen=True)
class FilterVerdict:
    """The verdict on a filter: what follows from the lines, what the analyst set, the reasons, and the subject of the first."""

    proposed: UseVerdict
    stated: Verdict | None
    reasons: tuple[str, ...]
    about: str


@dataclass(frozen=True)
class JudgedUse:
    """One use judged for every filter.

    Attributes
    ----------
    use : Use
    labels : tuple of str
    is_of_specimens : bool
        Whether the specimens are judged, not their part numbers.
    criteria : tuple of JudgedCriterion
    pair_wins, rank_sum, weighted_score : ranking methods
    chances : Chances
        Of each place, by the weighted score.
    swaps : tuple of Swap
    disagreements : tuple of Disagreement
    requirements : mapping
        By label: the stated lines, then those asked of every use.
    verdicts : mapping
    pairs : tuple of PartComparison
    ranked : tuple of str
        The filters of which something is known in a category that counts; the others are left out of the methods.
    without_values : tuple of str
        Names of the categories in which nobody has anything; they do not count.
    asked_end_points : tuple of str
        Names of the categories whose end points have to be stated before a score of so few filters says anything.
    """

    use: Use
    labels: tuple[str, ...]
    is_of_specimens: bool
    criteria: tuple[JudgedCriterion, ...]
    pair_wins: PairWins
    rank_sum: RankSum
    weighted_score: WeightedScore
    chances: Chances
    swaps: tuple[Swap, ...]
    disagreements: tuple[Disagreement, ...]
    requirements: Mapping[str, tuple[JudgedRequirement, ...]]
    verdicts: Mapping[str, FilterVerdict]
    pairs: tuple[PartComparison, ...]
    ranked: tuple[str, ...]
    without_values: tuple[str, ...]
    asked_end_points: tuple[str, ...]

    @property
    def same_parts(self) -> tuple[tuple[str, ...], ...]:
        """Filters that nothing tells apart, two or more together: one part, which takes one place."""
        group = {label: {label} for label in self.labels}
        for pair in self.pairs:
            if pair.verdict == "nothing_tells_them_apart":
                joined = group[pair.one] | group[pair.other]
                group |= dict.fromkeys(joined, joined)
        together = {frozenset(labels) for labels in group.values() if len(labels) > 1}
        return tuple(sorted(tuple(label for label in self.labels if label in labels) for labels in together))

    @property
    def followed_draws(self) -> int | None:
        """How many draws of a start stand behind the chances, or None where none that weighs does."""
        starts = [
            item.known[label].draws
            for item in self.criteria
            if item.category.measure in STARTS and item.category.weight > 0 and item.category.struck is None
            for label in self.ranked
        ]
        counts = [int(np.isfinite(draws).sum()) for draws in starts if draws is not None]
        return min(counts, default=None) if min(counts, default=FEW_DRAWS) < FEW_DRAWS else None


FEW_DRAWS = 200
"""Below it a chance is told in tenths: its own sampling error is as large."""

MOST_WITHOUT_END_POINTS = 3
"""So many filters set no end points of a score."""


def use_named(study: Study, name: str) -> Use:
    """Return a use by its name; raises `StudyError` where there is none of it."""
    for use in study.uses:
        if use.name == name:
            return use
    names = [use.name for use in study.uses]
    text = f"it has {', '.join(names)}" if names else "it has none yet"
    raise StudyError("use", f"{name!r} is no use of this study{nearest_hint(name, names)}: {text}")


def judge_use(
    study: Study,
    use: Use,
    *,
    specimens: bool = False,
    any_weights: bool = False,
    draws: int = DRAWS,
    model_draws: int = MODEL_DRAWS,
    known_of: Callable[[MeasuredSample], Mapping[str, Known]] | None = None,
    done: Callable[[int, int], None] | None = None,
) -> JudgedUse:
    """Return a use judged for every filter of a study that is not archived.

    Parameters
    ----------
    study : Study
        Checked.
    use : Use
        One of its uses.
    specimens : bool
        Whether the specimens are judged; else their part numbers, which adds what specimens differ by.
    any_weights : bool
        Whether the chances are over all weights there can be.
    draws, model_draws : int
        Of the chances, and of the model.
    known_of : callable or None
        Where what is known of a filter has been computed already: `known_at_use`, kept; else it is computed here.
    done : callable or None
        Told how many filters are done, of how many.

    Raises
    ------
    StudyError
        If there is no filter, or no criterion has a weight.
    """
    samples = [item for item in study.samples if not item.archived and (use.tier is None or item.tier == use.tier)]
    if not samples and use.tier is not None:
        raise StudyError(f"uses.{use.name}.tier", f"no filter is of the tier {use.tier!r}: name the tier of one, or compare all")
    if not samples:
        raise StudyError("samples", "there is no filter to compare: add one, or take one out of the archive")
    counted = [criterion for criterion in use.criteria if criterion.struck is None]
    if counted and not any(criterion.counted_weight > 0 for criterion in counted):
        raise StudyError(f"uses.{use.name}.criteria", "no criterion has a weight above zero: give one of them a weight")
    labels = tuple(sample.label for sample in samples)
    plain = {sample.label: measure_sample(sample, study.circuit) for sample in samples}
    measured = with_capacity_corrections(plain, terminal_ratio(study))
    collected: dict[str, Mapping[str, Known]] = {}
    for i, label in enumerate(labels):
        collected[label] = known_of(measured[label]) if known_of else known_at_use(study, measured[label], use, draws=model_draws)
        if done is not None:
            done(i + 1, len(labels))
    if not specimens:
        collected = {**of_part_numbers(samples, collected)}
    criteria = tuple(_judged(criterion, measured, collected) for criterion in use.criteria)
    every = [judged_criterion.category for judged_criterion in criteria]
    categories = [item for item in every if item.struck is not None or any(item.known(label) for label in labels)]
    ranked = tuple(label for label in labels if any(item.known(label) for item in counting(categories))) or labels
    wins, sums, scores = pair_wins(categories, ranked), rank_sum(categories, ranked), weighted_score(categories, ranked)
    lines = {label: _lines(use, measured[label], collected[label]) for label in labels}
    return JudgedUse(
        use=use,
        labels=labels,
        is_of_specimens=specimens,
        criteria=criteria,
        pair_wins=wins,
        rank_sum=sums,
        weighted_score=scores,
        chances=chance_of_place(categories, ranked, drawn=draws_of(criteria, ranked), any_weights=any_weights, draws=draws),
        swaps=swaps(categories, scores),
        disagreements=disagreements(categories, ranked, wins, sums, scores),
        requirements=lines,
        verdicts={label: _verdict(use, label, lines[label]) for label in labels},
        pairs=compare_all_parts([part_facts(measured[label]) for label in labels]),
        ranked=ranked,
        without_values=tuple(item.name for item in every if item not in categories),
        asked_end_points=tuple(
            item.name
            for item in counting(categories)
            if item.weight > 0 and not item.has_stated_ends and len(ranked) <= MOST_WITHOUT_END_POINTS
        ),
    )


def _judged(
    criterion: Criterion, measured: Mapping[str, MeasuredSample], value: Mapping[str, Mapping[str, Known]]
) -> JudgedCriterion:
    observation = observation_named(criterion.measure)
    if observation is not None:
        known = {
            label: by_choice(criterion, observed(measured_sample.sample, observation))
            for label, measured_sample in measured.items()
        }
    elif criterion.measure == BY_HAND:
        known = {label: by_hand(criterion, label) for label in measured}
    else:
        known = only_alike({label: value[label][criterion.measure] for label in measured})
    category = Category(
        measure=criterion.measure,
        better=criterion.better or better_of(criterion.measure),
        values={label: item.value for label, item in known.items()},
        name=criterion.name or _title_of(criterion.measure),
        weight=criterion.counted_weight,
        best=criterion.best,
        worst=criterion.worst,
        struck=criterion.struck,
        joint=joint_uncertainties(known),
    )
    return JudgedCriterion(category, known)


def _title_of(measure: str) -> str:
    observation = observation_named(measure)
    if observation is not None:
        return f"{PART_TITLES[observation.part].lower()}: {observation.title}"
    row = MEASURE_ROWS.get(measure)
    return row.title if row else measure


def draws_of(criteria: Sequence[JudgedCriterion], labels: Sequence[str]) -> dict[str, FloatArray]:
    """Return the draws of the model for the chances, by measure, with what specimens differ by drawn on top."""
    random = np.random.default_rng(SPREAD_SEED)
    drawn: dict[str, FloatArray] = {}
    for judged_criterion in criteria:
        draws = [judged_criterion.known[label].draws for label in labels]
        size = max((len(d) for d in draws if d is not None), default=0)
        if not size:
            continue
        columns = []
        for label, column in zip(labels, draws, strict=True):
            spread = judged_criterion.known[label].spread * random.standard_normal(size)
            columns.append(np.full(size, np.nan) if column is None else column + spread)
        enough = np.stack(columns, axis=1)
        drawn[judged_criterion.category.measure] = enough[np.isfinite(enough).any(axis=1)]
    return {measure: rows for measure, rows in drawn.items() if len(rows)}


def _lines(use: Use, measured: MeasuredSample, known: Mapping[str, Known]) -> tuple[JudgedRequirement, ...]:
    sample = measured.sample
    why = {measure: item.reason for measure, item in known.items()}
    stated = []
    for asked in use.requirements:
        observation = observation_named(asked.measure)
        if observation is not None:
            stated.append(judge_seen(asked, observation, observed(sample, observation)))
        else:
            assumed = known[asked.measure].rests_on_assumed if asked.measure in known else ""
            stated.append(judge_number(asked, _value(known, asked.measure), why.get(asked.measure, ""), assumed))
    opening, greatest, stuck = (_value(known, measure) for measure in (OPENING, GREATEST, GREATEST_STUCK))
    location = sample.bypass.location
    lines = by_pass_lines(location, opening, greatest, stuck, sample.stated_collapse_kpa, why, not_asked=use.bypass_not_asked)
    return (*stated, *lines)


def _value(known: Mapping[str, Known], measure: str) -> CategoryValue | None:
    return known[measure].value if measure in known else None


def _verdict(use: Use, label: str, lines: Sequence[JudgedRequirement]) -> FilterVerdict:
    proposed = proposed_verdict(lines)
    stated = next((verdict for verdict in use.verdicts if verdict.sample == label), None)
    telling = {"fails": ("failed",), "open": ("open",), "meets": ("met",), "none": ("open",)}[proposed]
    decides = [line for line in lines if line.state in telling and line.counts]
    about = _subject(decides[0]) if decides and proposed != "meets" else ""
    return FilterVerdict(proposed, stated, tuple(line.reason for line in decides), about)


def _subject(line: JudgedRequirement) -> str:
    """Return in a few words what a line is about: what would decide an open one."""
    if line.decided_by == COLLAPSE_KEY:
        return f"{COLLAPSE} not stated"
    return _title_of(line.decided_by or line.measure)

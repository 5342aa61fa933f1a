"""One use of a study judged for every filter: the ranking methods side by side, chances, requirements, verdicts."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import UTC, datetime
from itertools import combinations
from typing import Annotated

from fastapi import APIRouter, Query, Request

from tabrel.api.comparison.judged_models import (
    Compared,
    ComparedPairOut,
    FilterAtUseOut,
    JudgedCriterionOut,
    JudgedUseOut,
    KnownValueOut,
    PlaceOut,
    RankedFilterOut,
    UseAnswerOut,
)
from tabrel.api.comparison.uses import shown_units
from tabrel.api.deps import Connection, SampleId, StudyId, UseId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.turns import HEAVY
from tabrel.core.answer.adapter import adapter_sentences
from tabrel.core.answer.answer import answer_use
from tabrel.core.answer.known_use import measures_of_answer
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.circuit.dirt_loading import terminal_ratio, with_capacity_corrections
from tabrel.core.errors import StudyError
from tabrel.core.judge.comparison_sheet import sheet_measures
from tabrel.core.judge.judged_use import JudgedCriterion, JudgedUse, judge_use
from tabrel.core.judge.knowledge_cache import KnowledgeCache
from tabrel.core.judge.known import Known
from tabrel.core.judge.known_filter import measures_of_use
from tabrel.core.judge.ranking_methods import Places, places_in
from tabrel.core.judge.requirements import COLLAPSE_KEY, JudgedRequirement
from tabrel.core.maps.monte_carlo import DRAWS
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.study.model import Study
from tabrel.core.study.uses import Use
from tabrel.document.judged_use import value_out
from tabrel.store.connection import snapshot
from tabrel.store.errors import NotStoredError
from tabrel.store.sample.samples import load_sample
from tabrel.store.study.studies import load_study
from tabrel.store.study.uses import load_stored_uses

router = APIRouter(prefix="/api", tags=["uses"], responses=PROBLEM_RESPONSES)

ComparedIn = Annotated[
    Compared,
    Query(
        description="Whether part numbers are compared, with what specimens differ by, or these specimens only.",
        examples=["specimens"],
    ),
]
FamilyIn = Annotated[UnitFamily, Query(description="Unit family of the numbers in the sentences.", examples=["inch"])]
AnyWeights = Annotated[bool, Query(description="Whether the chances are over all weights there can be.", examples=[True])]
ForSheet = Annotated[
    bool, Query(description="Whether everything the comparison sheet shows is asked for, not only the use's.", examples=[True])
]
TrialCriterion = Annotated[
    int | None, Query(description="Which criterion, from 0, has a what-if weight.", ge=0, lt=10_000, examples=[0])
]
TrialWeight = Annotated[float | None, Query(description="That weight.", ge=0, le=1e6, allow_inf_nan=False, examples=[3.5])]


@router.get("/studies/{study_id}/uses/{use_id}/judged", dependencies=HEAVY)
def get_judged_use(
    study_id: StudyId,
    use_id: UseId,
    conn: Connection,
    request: Request,
    compared: ComparedIn = "part_numbers",
    any_weights: AnyWeights = False,
    trial_criterion: TrialCriterion = None,
    trial_weight: TrialWeight = None,
) -> JudgedUseOut:
    """Return a use judged for every filter of its study, or with a what-if weight."""
    study, use = _study_and_use(conn, study_id, use_id)
    if trial_criterion is not None and trial_weight is not None:
        use = _with_weight(use, trial_criterion, trial_weight)
    kept: KnowledgeCache = request.app.state.known

    def known_of(measured: MeasuredSample) -> Mapping[str, Known]:
        return kept.of(study, measured, use, measures_of_use(use), DRAWS)

    judged = judge_use(study, use, specimens=compared == "specimens", any_weights=any_weights, known_of=known_of)
    return _judged_out(use_id, judged)


@router.get("/studies/{study_id}/uses/{use_id}/answer", dependencies=HEAVY)
def get_answer(
    study_id: StudyId,
    use_id: UseId,
    conn: Connection,
    request: Request,
    compared: ComparedIn = "part_numbers",
    family: FamilyIn = "metric",
) -> UseAnswerOut:
    """Return the answer of a use in sentences: which filter, at what price, how sure, and what speaks against it."""
    study, use = _study_and_use(conn, study_id, use_id)
    kept: KnowledgeCache = request.app.state.known
    known: dict[str, Mapping[str, Known]] = {}

    def known_of(measured: MeasuredSample) -> Mapping[str, Known]:
        known[measured.sample.label] = kept.of(study, measured, use, measures_of_answer(use), DRAWS)
        return known[measured.sample.label]

    judged = judge_use(study, use, specimens=compared == "specimens", known_of=known_of)
    answer = answer_use(study, judged, known, family=family, today=datetime.now(UTC).date())
    return UseAnswerOut(use_id=use_id, answer=answer)


@router.get("/studies/{study_id}/adapter", dependencies=HEAVY)
def get_adapter(study_id: StudyId, conn: Connection, family: FamilyIn = "metric") -> list[str]:
    """Return what the engine's adapter costs beside its filter, in sentences; none where the engine has no adapter."""
    return adapter_sentences(load_study(conn, study_id), draws=DRAWS, family=family)


@router.get("/studies/{study_id}/uses/{use_id}/filters/{sample_id}", dependencies=HEAVY)
def get_filter_at_use(
    study_id: StudyId,
    use_id: UseId,
    sample_id: SampleId,
    conn: Connection,
    request: Request,
    for_sheet: ForSheet = False,
) -> FilterAtUseOut:
    """Return what one filter does at the points of a use; it is remembered, so that a use is judged a filter at a time."""
    study, use = _study_and_use(conn, study_id, use_id)
    stored = load_sample(conn, sample_id)
    if stored.study_id != study_id:
        raise NotStoredError(f"there is no sample {sample_id} in this study: go back to the study and choose one")
    every = {str(i): measure_sample(sample, study.circuit) for i, sample in enumerate(study.samples) if not sample.archived}
    corrected = with_capacity_corrections({**every, "": measure_sample(stored.sample, study.circuit)}, terminal_ratio(study))
    measured = corrected[""]
    kept: KnowledgeCache = request.app.state.known
    known = kept.of(study, measured, use, sheet_measures(use) if for_sheet else measures_of_use(use), DRAWS)
    return FilterAtUseOut(label=stored.sample.label, known=[known_out(measure, item) for measure, item in known.items()])


def _study_and_use(conn: Connection, study_id: int, use_id: int) -> tuple[Study, Use]:
    """Return a study, and one of its uses as it speaks of the samples that are there."""
    with snapshot(conn):
        study = load_study(conn, study_id)
        ids = [stored.id for stored in load_stored_uses(conn, study_id)]
    if use_id not in ids:
        raise NotStoredError(f"there is no use {use_id} in this study any more: it was removed meanwhile, undo brings it back")
    return study, study.uses[ids.index(use_id)]


def _with_weight(use: Use, index: int, weight: float) -> Use:
    if index >= len(use.criteria):
        raise StudyError("trial_criterion", f"the use has no criterion {index}: it was changed meanwhile, look again")
    criteria = list(use.criteria)
    criteria[index] = replace(criteria[index], weight=weight)
    return replace(use, criteria=tuple(criteria))


def known_out(label: str, known: Known) -> KnownValueOut:
    """Return what is known of a filter as it goes over the wire."""
    value_of = value_out(known.value) or dict.fromkeys(("value", "expanded_uncertainty", "low", "high", "basis"))
    return KnownValueOut(
        label=label,
        reason=known.reason,
        is_spread_assumed=known.is_spread_assumed and known.value is not None,
        words=known.words,
        evidence=known.evidence,
        **value_of,
    )


def _judged_out(use_id: int, judged: JudgedUse) -> JudgedUseOut:
    return JudgedUseOut(
        use_id=use_id,
        name=judged.use.name,
        labels=list(judged.labels),
        compared="specimens" if judged.is_of_specimens else "part_numbers",
        criteria=[_criterion_out(criterion, judged.ranked) for criterion in judged.criteria],
        filters=[_filter_out(judged, label) for label in judged.ranked],
        pairs=[_pair_out(judged, text, other) for text, other in combinations(judged.ranked, 2)],
        circles=[list(circle) for circle in judged.pair_wins.circles],
        disagreements=list(judged.disagreements),
        swaps=list(judged.swaps),
        verdicts=dict(judged.verdicts),
        requirements={label: [_with_field(line) for line in lines] for label, lines in judged.requirements.items()},
        left_out=[label for label in judged.labels if label not in judged.ranked],
        without_values=list(judged.without_values),
        asked_end_points=list(judged.asked_end_points),
        same_parts=[list(labels) for labels in judged.same_parts],
        followed_draws=judged.followed_draws,
    )


def _criterion_out(criterion: JudgedCriterion, ranked: Sequence[str]) -> JudgedCriterionOut:
    category = criterion.category
    best, worst = category.end_points() or (None, None)
    metric, inch = shown_units(category.measure)
    return JudgedCriterionOut(
        measure=category.measure,
        name=category.name,
        better=category.better,
        weight=category.weight,
        best=best,
        worst=worst,
        has_stated_ends=category.has_stated_ends,
        struck=category.struck,
        metric=metric,
        inch=inch,
        known=[known_out(label, known) for label, known in criterion.known.items()],
        places=places_in(category, ranked) if category.struck is None else {},
    )


def _filter_out(judged: JudgedUse, label: str) -> RankedFilterOut:
    total, low, high = judged.rank_sum.sums[label]
    score = judged.weighted_score.scores[label]
    return RankedFilterOut(
        label=label,
        pairs_score=judged.pair_wins.score[label],
        pairs_place=judged.pair_wins.rank[label],
        rank_sum=total,
        rank_sum_low=low,
        rank_sum_high=high,
        rank_sum_place=_place_out(judged.rank_sum.places, label),
        score=score.score,
        score_expanded_uncertainty=score.expanded_uncertainty,
        score_low=score.low,
        score_high=score.high,
        score_from=score.interval[0] if score.interval else None,
        score_to=score.interval[1] if score.interval else None,
        score_place=_place_out(judged.weighted_score.places, label),
        ties=list(score.ties),
        chances=list(judged.chances.of_place[label]),
    )


def _place_out(places: Places, label: str) -> PlaceOut:
    first, last = places.rank_range[label]
    return PlaceOut(place=places.rank[label], first=first, last=last)


def _pair_out(judged: JudgedUse, first: str, second: str) -> ComparedPairOut:
    wins = judged.pair_wins
    return ComparedPairOut(
        first_label=first,
        second_label=second,
        compared=wins.compared[first][second],
        won_by_first=wins.won[first][second],
        won_by_second=wins.won[second][first],
    )


def _with_field(line: JudgedRequirement) -> JudgedRequirement:
    """Return a line with the field in which what would decide it is typed, where the document calls it otherwise."""
    return replace(line, decided_by="sample.stated_collapse") if line.decided_by == COLLAPSE_KEY else line

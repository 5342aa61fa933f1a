"""A judged use as plain JSON values, as `tabrel compare` prints it and the API serves it."""

from __future__ import annotations

from typing import Any

from tabrel.core.judge.categories import CategoryValue
from tabrel.core.judge.chances import Swap
from tabrel.core.judge.judged_use import FilterVerdict, JudgedCriterion, JudgedUse
from tabrel.core.judge.ranking_methods import Places
from tabrel.core.judge.requirements import JudgedRequirement
from tabrel.core.judge.same_part import PartComparison
from tabrel.core.numbers import known_or_none


def judged_use_out(judged: JudgedUse) -> dict[str, Any]:
    """Return a judged use as plain JSON values; values in the unit of their measure, readings in their metric unit."""
    wins, sums, scores = judged.pair_wins, judged.rank_sum, judged.weighted_score
    return {
        "use": judged.use.name,
        "labels": list(judged.labels),
        "compares": "specimens" if judged.is_of_specimens else "part numbers",
        "criteria": [_criterion_out(criterion) for criterion in judged.criteria],
        "schools": {
            "pair_wins": {
                "score": dict(wins.score),
                "rank": dict(wins.rank),
                "compared": {text: dict(others) for text, others in wins.compared.items()},
                "circles": [list(circle) for circle in wins.circles],
            },
            "rank_sum": {
                **{label: dict(zip(("sum", "low", "high"), three, strict=True)) for label, three in sums.sums.items()},
                **_places_out(sums.places),
            },
            "weighted_score": {
                **{
                    label: {
                        "score": score.score,
                        "expanded_uncertainty": score.expanded_uncertainty,
                        "low": score.low,
                        "high": score.high,
                        "ties": list(score.ties),
                    }
                    for label, score in scores.scores.items()
                },
                **_places_out(scores.places),
            },
        },
        "chance_of_place": {label: list(chances) for label, chances in judged.chances.of_place.items()},
        "swaps": [_swap_out(swap) for swap in judged.swaps],
        "requirements": {label: [_line_out(line) for line in lines] for label, lines in judged.requirements.items()},
        "verdicts": {label: _verdict_out(verdict) for label, verdict in judged.verdicts.items()},
        "pairs": [_pair_out(pair) for pair in judged.pairs],
    }


def _places_out(places: Places) -> dict[str, Any]:
    return {"rank": dict(places.rank), "rank_range": {label: list(ends) for label, ends in places.rank_range.items()}}


def value_out(value: CategoryValue | None) -> dict[str, Any] | None:
    """Return what is known of a filter in one measure; numbers that are not finite are null."""
    if value is None:
        return None
    return {
        "value": known_or_none(value.value),
        "expanded_uncertainty": None if value.value is None else known_or_none(value.expanded_uncertainty),
        "low": known_or_none(value.low),
        "high": known_or_none(value.high),
        "basis": value.basis,
    }


def _criterion_out(criterion: JudgedCriterion) -> dict[str, Any]:
    category = criterion.category
    return {
        "measure": category.measure,
        "name": category.name,
        "better": category.better,
        "weight": category.weight,
        "best": category.best,
        "worst": category.worst,
        "struck": category.struck,
        "values": {label: value_out(value) for label, value in category.values.items()},
        "joint_expanded_uncertainty": {label: dict(others) for label, others in category.joint.items()},
        "not_known": {label: known.reason for label, known in criterion.known.items() if known.reason},
        "spread_assumed": [
            label for label, known in criterion.known.items() if known.is_spread_assumed and known.value is not None
        ],
    }


def _swap_out(swap: Swap) -> dict[str, Any]:
    value = None
    if swap.value_measure is not None:
        value = {"measure": swap.value_measure, "sample": swap.value_sample, "change_in_u": swap.change_in_u}
    return {
        "above": swap.above,
        "below": swap.below,
        "measure": swap.measure,
        "weight": swap.weight,
        "level_weight": swap.level_weight,
        "value": value,
    }


def _line_out(line: JudgedRequirement) -> dict[str, Any]:
    return {
        "measure": line.measure,
        "state": line.state,
        "reason": line.reason,
        "asked_of_every_use": line.is_asked_of_every_use,
        "counts": line.counts,
        "decided_by": line.decided_by,
    }


def _verdict_out(verdict: FilterVerdict) -> dict[str, Any]:
    stated = verdict.stated
    return {
        "proposed": verdict.proposed,
        "set": None if stated is None else {"verdict": stated.verdict, "reason": stated.reason},
        "reasons": list(verdict.reasons),
    }


def _pair_out(pair: PartComparison) -> dict[str, Any]:
    return {
        "a": pair.one,
        "b": pair.other,
        "verdict": pair.verdict,
        "one_part_number": pair.is_one_part_number,
        "same": list(pair.keys("same")),
        "different": list(pair.keys("different")),
        "cannot_tell": list(pair.keys("cannot_tell")),
        "not_looked_at": list(pair.not_looked_at),
        "telling": [{"key": finding.key, "difference_percent": finding.difference_percent} for finding in pair.telling],
    }

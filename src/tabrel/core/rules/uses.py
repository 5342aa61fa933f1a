"""Refuse what is impossible in the uses of a study."""

from __future__ import annotations

from collections.abc import Sequence

from tabrel.core.catalogue.measures import better_of, criterion_measures, observation_named, requirement_measures
from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.rules.limits import MOST_LINES_OF_A_USE, MOST_USES
from tabrel.core.rules.refusals import require_limits, require_text
from tabrel.core.study.model import Study
from tabrel.core.study.uses import BY_HAND, Criterion, Requirement, Use


def check_uses(study: Study) -> None:
    """Raise `StudyError` at the first impossible thing in the uses."""
    labels = [sample.label for sample in study.samples]
    names: set[str] = set()
    if len(study.uses) > MOST_USES:
        raise StudyError("uses", f"are {len(study.uses)}, more than {MOST_USES}: remove those that nobody needs")
    for i, use in enumerate(study.uses):
        path = f"uses[{i}]"
        check_use(path, use, labels)
        if use.name in names:
            raise StudyError(f"{path}.name", f"{use.name!r} names two uses: give each its own name")
        names.add(use.name)


def check_use(path: str, use: Use, labels: Sequence[str]) -> None:
    """Raise `StudyError` at the first impossible thing in one use of a study whose samples have these labels."""
    require_text(f"{path}.name", use.name)
    for name, lines in (("criteria", use.criteria), ("requirements", use.requirements)):
        if len(lines) > MOST_LINES_OF_A_USE:
            asked = f"are {len(lines)}, more than {MOST_LINES_OF_A_USE}: leave out what decides nothing"
            raise StudyError(f"{path}.{name}", asked)
    require_limits(path, use)
    if use.bypass_not_asked is not None:
        require_text(f"{path}.bypass_not_asked", use.bypass_not_asked)
    for k, criterion in enumerate(use.criteria):
        _check_criterion(f"{path}.criteria[{k}]", criterion, labels)
    for k, requirement in enumerate(use.requirements):
        _check_requirement(f"{path}.requirements[{k}]", requirement)
    for k, verdict in enumerate(use.verdicts):
        _require_label(f"{path}.verdicts[{k}].sample", verdict.sample, labels)


def _check_requirement(path: str, requirement: Requirement) -> None:
    require_limits(path, requirement)
    low, high = requirement.at_least, requirement.at_most
    if observation_named(requirement.measure) is None:
        _require_known(f"{path}.measure", requirement.measure, requirement_measures())
    elif low is not None or high is not None:
        raise StudyError(path, f"{requirement.measure!r} is seen, not measured: give one_of, the words that will do")
    if low is None and high is None and not requirement.one_of:
        raise StudyError(path, "asks for nothing: give at_least, at_most or one_of")
    if low is not None and high is not None and low > high:
        raise StudyError(path, f"asks for at least {low:g} and at most {high:g}, which nothing can be: swap the two")


def _check_criterion(path: str, criterion: Criterion, labels: Sequence[str]) -> None:
    observation = observation_named(criterion.measure)
    if observation is None:
        _require_known(f"{path}.measure", criterion.measure, criterion_measures())
    require_limits(path, criterion)
    if criterion.best is not None and criterion.worst is not None:
        _check_end_points(path, criterion, criterion.best, criterion.worst)
    if criterion.struck is not None:
        require_text(f"{path}.struck", criterion.struck)
    if criterion.measure != BY_HAND and observation is None:
        if criterion.order:
            raise StudyError(f"{path}.order", f"is an order made by hand: make the measure {BY_HAND!r}, or what was seen")
        return
    if observation is None:
        require_text(f"{path}.name", criterion.name or "")
    placed: set[str] = set()
    for entry in (entry for tied in criterion.order for entry in tied):
        if observation is None:
            _require_label(f"{path}.order", entry, labels)
        else:
            require_text(f"{path}.order", entry)
        if entry in placed:
            raise StudyError(f"{path}.order", f"{entry!r} has two places: give each one place")
        placed.add(entry)


def _check_end_points(path: str, criterion: Criterion, best: float, worst: float) -> None:
    is_low_better = (criterion.better or better_of(criterion.measure)) == "low"
    if best != worst and (best < worst) != is_low_better:
        better = "less" if is_low_better else "more"
        raise StudyError(
            f"{path}.best", f"is {best:g} and worst {worst:g}, but {better} is better here: swap the two, or turn what is better"
        )


def _require_known(path: str, measure: str, known: Sequence[str]) -> None:
    if measure not in known:
        raise StudyError(
            path, f"{measure!r} is no measure{nearest_hint(measure, known)}: use a result, a reading or a measure of a use"
        )


def _require_label(path: str, label: str, labels: Sequence[str]) -> None:
    if label not in labels:
        raise StudyError(path, f"{label!r} is no label of a sample{nearest_hint(label, labels)}: name one of the samples")

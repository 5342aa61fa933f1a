"""Refuse what is impossible in the uses of a study."""

from __future__ import annotations

from collections.abc import Sequence

from tabrel.core.catalogue.measures import number_measures, observation_named, requirement_measures
from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.rules.refusals import require_above_zero, require_temperature, require_text
from tabrel.core.study.model import Study
from tabrel.core.study.uses import BY_HAND, Criterion, Use


def check_uses(study: Study) -> None:
    """Raise `StudyError` at the first impossible thing in the uses."""
    labels = [sample.label for sample in study.samples]
    names: set[str] = set()
    for i, use in enumerate(study.uses):
        path = f"uses[{i}]"
        require_text(f"{path}.name", use.name)
        if use.name in names:
            raise StudyError(f"{path}.name", f"{use.name!r} names two uses: give each its own name")
        names.add(use.name)
        _check_points(path, use)
        for k, criterion in enumerate(use.criteria):
            _check_criterion(f"{path}.criteria[{k}]", criterion, labels)
        for k, requirement in enumerate(use.requirements):
            place = f"{path}.requirements[{k}]"
            if observation_named(requirement.measure) is None:
                _require_known(f"{place}.measure", requirement.measure, requirement_measures())
            elif requirement.at_least is not None or requirement.at_most is not None:
                raise StudyError(place, f"{requirement.measure!r} is seen, not measured: give one_of, the words that will do")
            asked = (requirement.at_least, requirement.at_most, requirement.one_of or None)
            if all(one is None for one in asked):
                raise StudyError(place, "asks for nothing: give at_least, at_most or one_of")
        for k, verdict in enumerate(use.verdicts):
            _require_label(f"{path}.verdicts[{k}].sample", verdict.sample, labels)


def _check_points(path: str, use: Use) -> None:
    require_above_zero(path, speed_rpm=use.speed_rpm, hot_speed_rpm=use.hot_speed_rpm)
    for celsius in (use.temperature_c, use.hot_temperature_c):
        if celsius is not None:
            require_temperature(path, celsius)


def _check_criterion(path: str, criterion: Criterion, labels: Sequence[str]) -> None:
    _require_known(f"{path}.measure", criterion.measure, number_measures())
    if criterion.weight is not None and criterion.weight < 0:
        raise StudyError(f"{path}.weight", f"must not be below zero, not {criterion.weight:g}")
    if criterion.struck is not None:
        require_text(f"{path}.struck", criterion.struck)
    if criterion.measure != BY_HAND:
        if criterion.order:
            raise StudyError(f"{path}.order", f"is an order made by hand: make the measure {BY_HAND!r}")
        return
    require_text(f"{path}.name", criterion.name or "")
    placed: set[str] = set()
    for label in (label for tied in criterion.order for label in tied):
        _require_label(f"{path}.order", label, labels)
        if label in placed:
            raise StudyError(f"{path}.order", f"{label!r} has two places: give each sample one")
        placed.add(label)


def _require_known(path: str, measure: str, known: Sequence[str]) -> None:
    if measure not in known:
        raise StudyError(
            path, f"{measure!r} is no measure{nearest_hint(measure, known)}: use a result, a reading or a measure of a use"
        )


def _require_label(path: str, label: str, labels: Sequence[str]) -> None:
    if label not in labels:
        raise StudyError(path, f"{label!r} is no label of a sample{nearest_hint(label, labels)}: name one of the samples")

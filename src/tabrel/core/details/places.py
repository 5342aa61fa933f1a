"""Read and set a detail at its place in a study or a sample."""

from __future__ import annotations

from dataclasses import MISSING, dataclass, fields, replace
from typing import Any

from tabrel.core.details.detail import Detail
from tabrel.core.errors import ReadingTextError
from tabrel.core.study.defaults import BEGINNINGS
from tabrel.core.study.model import Counts, Mount, TypedNumber
from tabrel.core.study.number_keys import number_places, with_typed_at
from tabrel.core.study.plans import WarmUpPlan


@dataclass(frozen=True)
class _Part:
    """A part of the study that may be absent, and what becomes of it when one of its details is emptied.

    Attributes
    ----------
    head : str
        The detail without which the part is not there; empty: it is never removed.
    first : str
        What is said where another detail is typed before the part is there.
    """

    head: str = ""
    first: str = ""


_PARTS: dict[tuple[str, ...], _Part] = {
    ("oil",): _Part(first="there is no oil yet: choose a grade to begin with"),
    ("circuit", "pump_efficiency"): _Part("fraction"),
    ("circuit", "regulator"): _Part("opening_kpa"),
    ("circuit", "cooler"): _Part("loss_kpa"),
    ("circuit", "head"): _Part("loss_kpa"),
    ("circuit", "engine"): _Part("gallery_kpa"),
    ("circuit", "stud"): _Part("bore_mm", "the stud's bore is not known yet: type it first"),
    ("circuit", "adapter"): _Part("holes", "there is no adapter yet: type its cross-holes first"),
}


def value_at(owner: Any, place: tuple[str, ...]) -> Any:
    """Return what is held at a place of a study or a sample, or None."""
    held = owner
    for name in place:
        if held is None:
            return None
        held = getattr(held, name)
    return held


def with_value(owner: Any, detail: Detail, value: Any) -> Any:
    """Return a study or a sample with the value of one detail set; None removes it.

    Parameters
    ----------
    owner : Study or Sample
        Never changed itself.
    detail : Detail
        With its place in it.
    value : object
        From `understood_detail`.

    Raises
    ------
    ReadingTextError
        If it cannot be removed, or something has to be typed before it.
    """
    return _with(owner, detail, detail.place, (), value)


def number_at(owner: Any, place: tuple[str, ...]) -> Any:
    """Return the number at a place of a study or a sample, which may lie in an item of a list, or None."""
    held = owner
    for step in place:
        name, _, item = step.partition("[")
        held = None if held is None else getattr(held, name)
        if item and held is not None:
            held = held[int(item[:-1])] if int(item[:-1]) < len(held) else None
    return held


def with_typed_value(owner: Any, detail: Detail, value: Any, typed: TypedNumber | None) -> Any:
    """Return a study or a sample with the value of one detail set, and what was typed of it kept.

    Numbers that come into being because their part begins (the speed at which an efficiency is stated) are marked
    assumed; what was typed of numbers that are no longer there is dropped.

    Parameters
    ----------
    owner : Study or Sample
        Never changed itself.
    detail : Detail
        With its place in it.
    value : object
        From `kinds.understood_detail`; None removes it.
    typed : TypedNumber or None
        From `kinds.typed_detail`.

    Raises
    ------
    ReadingTextError
        If it cannot be removed, or something has to be typed before it.
    """
    changed = with_value(owner, detail, value)
    as_typed = with_typed_at(detail.owner, owner.as_typed, detail.place, typed)
    for place in (place for place in number_places(detail.owner) if not any("[]" in step for step in place)):
        before, after = number_at(owner, place), number_at(changed, place)
        if after is None:
            as_typed = with_typed_at(detail.owner, as_typed, place, None)
        elif before is None and place != detail.place:
            as_typed = with_typed_at(detail.owner, as_typed, place, TypedNumber(f"{after:g}", "assumed"))
    return replace(changed, as_typed=as_typed)


def _with(held: Any, detail: Detail, ahead: tuple[str, ...], behind: tuple[str, ...], value: Any) -> Any:
    name, *rest = ahead
    if not rest:
        return replace(held, **{name: value})
    place = (*behind, name)
    part = _PARTS.get(place, _Part())
    inner = getattr(held, name)
    last = len(rest) == 1
    if last and value is None:
        if inner is None and (not part.first or rest[0] == part.head):
            return held
        if rest[0] == part.head:
            return replace(held, **{name: None})
        if inner is not None and not _is_optional(inner, rest[0]):
            raise ReadingTextError(f"the {detail.title} is part of that point and cannot be empty: type it")
    if inner is None and part.first and rest[0] != part.head:
        raise ReadingTextError(part.first)
    changed = _with(BEGINNINGS[place] if inner is None else inner, detail, tuple(rest), place, value)
    return replace(
        held, **{name: None if changed in (WarmUpPlan(), Mount(), Counts("unnamed")) else changed}
    )  # an empty one is none


def _is_optional(part: Any, name: str) -> bool:
    return any(field.name == name and field.default is not MISSING for field in fields(part))

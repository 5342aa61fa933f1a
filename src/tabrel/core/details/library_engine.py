"""Take an engine of the library into a study: what would change, line by line, and which lines are kept."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace
from typing import Annotated, Any

from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.details.circuit_details import CIRCUIT_PARTS
from tabrel.core.details.detail import Detail
from tabrel.core.details.details import DETAILS
from tabrel.core.details.kinds import detail_text, is_number
from tabrel.core.details.places import number_at, value_at, with_value
from tabrel.core.field_units import INSIDE, OUTSIDE
from tabrel.core.study.model import Circuit, Study, TypedNumber
from tabrel.core.study.number_keys import number_places, typed_at, with_typed_at

LIBRARY = "library"
"""Origin of a number that was taken from the library."""


@dataclass(frozen=True)
class EngineLine:
    """One line that taking an engine would change.

    Attributes
    ----------
    detail : Detail
        Which.
    now_metric, now_inch : str or None
        What stands there; None for nothing.
    now_typed : str or None
        The same as it was typed.
    then_metric, then_inch : str or None
        What the library has.
    is_own : bool
        Whether what stands there was stated for this study, and not itself taken from the library or assumed.
    """

    detail: Annotated[Detail, INSIDE]
    now_metric: str | None
    now_inch: str | None
    now_typed: str | None
    then_metric: str | None
    then_inch: str | None
    is_own: bool

    @property
    def key(self) -> Annotated[str, OUTSIDE]:
        """Of the detail."""
        return self.detail.key

    @property
    def title(self) -> Annotated[str, OUTSIDE]:
        """Of the detail."""
        return self.detail.title

    @property
    def part(self) -> Annotated[str, OUTSIDE]:
        """Title of the part of the circuit; empty for the engine as a whole."""
        return CIRCUIT_PARTS.get(self.detail.part, "")


def _engine_details() -> list[Detail]:
    return [detail for detail in DETAILS.values() if detail.place[0] == "circuit"]


def engine_lines(study: Study, engine: Circuit) -> tuple[EngineLine, ...]:
    """Return every line of a study's engine that taking an engine of the library would change."""
    taken = replace(study, circuit=engine)
    lines = []
    for item in _engine_details():
        now, then = value_at(study, item.place), value_at(taken, item.place)
        if now == then:
            continue
        typed = typed_at("study", study.as_typed, item.place) if is_number(item) else None
        is_own = now is not None and (typed is None or (typed.origin != LIBRARY and typed.provenance != "assumed"))
        lines.append(
            EngineLine(
                item,
                _shown(item, now),
                _shown(item, now, "inch"),
                typed.text if typed and typed.provenance != "assumed" else None,
                _shown(item, then),
                _shown(item, then, "inch"),
                is_own,
            )
        )
    return tuple(lines)


def _shown(detail: Detail, value: Any, family: UnitFamily = "metric") -> str | None:
    """Return a value as a person reads it: of several choices, the words of the one."""
    text = detail_text(detail, value, family)
    return text.replace("_", " ") if text and detail.kind == "one_of" else text


def with_library_engine(study: Study, engine: Circuit, keep: Collection[str]) -> Study:
    """Return a study with an engine of the library, but for the lines that are kept.

    Parameters
    ----------
    study : Study
        Never changed itself.
    engine : Circuit
        Of the library.
    keep : collection of str
        Keys of details that stay as they are in the study.

    Returns
    -------
    Study
        Its numbers that came along are marked as taken from the library.

    Raises
    ------
    ReadingTextError
        If a line cannot be kept without another, with the sentence that says which.
    """
    kept = [detail for detail in _engine_details() if detail.key in keep and value_at(study, detail.place) is not None]
    gone = [detail for detail in _engine_details() if detail.key in keep and value_at(study, detail.place) is None]
    changed: Study = replace(study, circuit=engine)
    for item in (*kept, *reversed(gone)):
        changed = with_value(changed, item, value_at(study, item.place))
    as_typed = changed.as_typed
    for place in (place for place in number_places("study") if place[0] == "circuit"):
        before, after = number_at(study, place), number_at(changed, place)
        if after is None:
            as_typed = with_typed_at("study", as_typed, place, None)
        elif before != after:
            as_typed = with_typed_at("study", as_typed, place, TypedNumber(_text(place, after), origin=LIBRARY))
    return replace(changed, as_typed=as_typed)


def _text(place: tuple[str, ...], value: float) -> str:
    """Return the text of a number of the library: in the document's unit, as the library has it."""
    detail = next((item for item in _engine_details() if item.place == place), None)
    return (detail_text(detail, value) if detail else None) or f"{value:g}"

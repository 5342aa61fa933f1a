"""How a study differs from what it was: reading by reading, in the words of the bench."""

from __future__ import annotations

import json
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher
from typing import Any

from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.details.details import DETAIL_AT
from tabrel.core.study.number_keys import Owner, place_of_key


@dataclass(frozen=True)
class Difference:
    """One difference.

    Attributes
    ----------
    where : str
        Label of the filter, or ``study``.
    what : str
    was, now : str or None
        None where there was, or is, nothing.
    """

    where: str
    what: str
    was: str | None
    now: str | None


STUDY = "study"
_LEFT_OUT = ("format", "version", "history", "library")


def study_differences(before: Mapping[str, Any], now: Mapping[str, Any]) -> tuple[Difference, ...]:
    """Return how one study document differs from another, both as `study_to_json` writes them.

    Returns
    -------
    tuple of Difference
        In the order of the document; empty where nothing differs.
    """
    old, new = ({item["label"]: item for item in document.get("samples", [])} for document in (before, now))
    differences = list(
        _of_owner(
            "study", STUDY, *({k: v for k, v in fields.items() if k not in (*_LEFT_OUT, "samples")} for fields in (before, now))
        )
    )
    for label in dict.fromkeys((*old, *new)):
        if label not in new:
            differences.append(Difference(label, "filter", "there", None))
        elif label not in old:
            differences.append(Difference(label, "filter", None, "there"))
        else:
            differences += _of_owner("sample", label, old[label], new[label])
    return tuple(differences)


def _of_owner(owner: Owner, where: str, before: Mapping[str, Any], now: Mapping[str, Any]) -> Iterator[Difference]:
    for key in dict.fromkeys((*before, *now)):
        old, new = before.get(key), now.get(key)
        if old == new:
            continue
        if key == "readings":
            yield from _readings(where, old or {}, new or {})
        elif key == "as_typed":
            yield from _typed(owner, where, before, now)
        else:
            yield from _values(owner, where, (key,), old, new)


def _readings(where: str, before: Mapping[str, list[Any]], now: Mapping[str, list[Any]]) -> Iterator[Difference]:
    for key in dict.fromkeys((*before, *now)):
        title = f"{PART_TITLES[QUANTITIES[key].part]}: {QUANTITIES[key].title}" if key in QUANTITIES else key
        yield from _listed(where, title, before.get(key, []), now.get(key, []))


def _listed(where: str, what: str, before: Sequence[Any], now: Sequence[Any]) -> Iterator[Difference]:
    """Yield what was put in, taken out or changed in a list of entries, each as short as it can be said."""
    old, new = ([_entry(entry) for entry in entries] for entries in (before, now))
    for kind, i, j, k, m in SequenceMatcher(a=old, b=new, autojunk=False).get_opcodes():
        if kind == "equal":
            continue
        for n in range(max(j - i, m - k)):
            was = old[i + n] if i + n < j else None
            is_now = new[k + n] if k + n < m else None
            yield Difference(where, what, was, is_now)


def _entry(item: Any) -> str:
    """Return an entry of a list in words: a reading by its text and what was recorded of it."""
    if isinstance(item, str):
        return item
    if isinstance(item, Mapping) and "text" in item:
        rest = [_worded(key, value) for key, value in item.items() if key != "text"]
        return f"{item['text']} ({'; '.join(rest)})" if rest else str(item["text"])
    return _plain(item)


def _worded(key: str, value: Any) -> str:
    if key == "taken_at":
        return f"taken {str(value)[:16].replace('T', ' ')}"
    words = {"struck_out": "set aside", "insisted": "questioned and confirmed"}.get(key, key.replace("_", " "))
    return words if value is True else f"{words}: {value}"


def _plain(value: Any) -> str:
    return value if isinstance(value, str) else json.dumps(value, ensure_ascii=False)


def _typed(owner: Owner, where: str, before: Mapping[str, Any], now: Mapping[str, Any]) -> Iterator[Difference]:
    """Yield what was typed otherwise of numbers that are the same; of the others, the number itself is told."""
    old, new = (fields.get("as_typed", {}) for fields in (before, now))
    for key in dict.fromkeys((*old, *new)):
        if old.get(key) == new.get(key):
            continue
        place = place_of_key(owner, key)
        if place is not None and _at(before, place) != _at(now, place):
            continue
        was, is_now = (None if (member := side.get(key)) is None else _entry(member) for side in (old, new))
        yield Difference(where, f"{_title(owner, place or (key,))}, as typed", was, is_now)


def _at(document: Any, place: Sequence[str]) -> Any:
    for step in place:
        name, _, item = step.partition("[")
        document = document.get(name) if isinstance(document, Mapping) else None
        if item and isinstance(document, list):
            index = int(item[:-1])
            document = document[index] if index < len(document) else None
    return document


def _values(owner: Owner, where: str, place: tuple[str, ...], before: Any, now: Any) -> Iterator[Difference]:
    if before == now:
        return
    if isinstance(before, Mapping) and isinstance(now, Mapping):
        for key in dict.fromkeys((*before, *now)):
            yield from _values(owner, where, (*place, str(key)), before.get(key), now.get(key))
    elif isinstance(before, list) and isinstance(now, list):
        alike = len(before) == len(now) and all(isinstance(item, Mapping) for item in (*before, *now))
        if alike and place[-1] != "parts":
            for i, (old, new) in enumerate(zip(before, now, strict=True)):
                yield from _values(owner, where, (*place[:-1], f"{place[-1]} {i + 1}"), old, new)
        else:
            yield from _listed(where, _title(owner, place), before, now)
    else:
        was, is_now = (None if item is None else _plain(item) for item in (before, now))
        yield Difference(where, _title(owner, place), was, is_now)


def _title(owner: Owner, place: tuple[str, ...]) -> str:
    detail = DETAIL_AT.get((owner, place))
    if detail is not None:
        return f"{detail.title} ({detail.unit})" if detail.unit else detail.title
    return ", ".join(step.replace("_", " ") for step in place)

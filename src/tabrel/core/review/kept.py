"""Parts of a sample and its study that no station shows yet, as a plain list: benches, photographs, what was found in use."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, fields, is_dataclass
from typing import Any

from tabrel.core.study.model import Sample, Study


@dataclass(frozen=True)
class KeptPart:
    """A part of the document: its title, and its values by key, in their order."""

    title: str
    rows: tuple[tuple[str, str], ...]


_TITLES = {
    "flow_bench": "Flow bench",
    "bypass_bench": "Bypass bench",
    "photographs": "Photographs",
    "kind": "Construction",
    "change_interval": "Change interval",
    "remarks": "Remarks",
    "service": "In use",
    "weighings": "Weighings",
    "captured": "Captured mass",
    "strip": "Strip of the used filter",
    "findings": "Findings",
    "openings": "Ways past the media",
    "bypass_state": "State of the bypass valve",
}
_STUDY_TITLES = {
    "intervals": "Study: change intervals",
    "severe_conditions": "Study: severe conditions",
    "odometer": "Study: odometer",
    "changes": "Study: changes of the filter",
    "gauge_logs": "Study: gauge logs",
    "instruments": "Study: own instruments",
    "typical": "Study: typical values",
}


def kept_parts(sample: Sample, study: Study | None = None) -> tuple[KeptPart, ...]:
    """Return what is kept of a sample, and of its study where that is given, and shown nowhere else, every value of it.

    Examples
    --------
    >>> from tabrel.core.study.evidence import Photograph
    >>> kept_parts(Sample("A", photographs=(Photograph("photographs/3.jpg", caption="the plate"),)))
    (KeptPart(title='Photographs', rows=(('[0].file', 'photographs/3.jpg'), ('[0].caption', 'the plate'))),)
    """
    parts = []
    for owner, titles in ((sample, _TITLES), (study, _STUDY_TITLES)):
        for name, title in titles.items():
            if owner is not None and (held := getattr(owner, name)):
                parts.append(KeptPart(title, tuple((key or name, value) for key, value in _rows("", held))))
    return tuple(parts)


def _rows(path: str, value: Any) -> Iterator[tuple[str, str]]:
    """Yield every value of a part with the keys that lead to it; what is not stated is left out."""
    if is_dataclass(value):
        for field in fields(value):
            yield from _rows(f"{path}.{field.name}" if path else field.name, getattr(value, field.name))
    elif isinstance(value, dict):
        for key, inner in value.items():
            yield from _rows(f"{path}.{key}" if path else str(key), inner)
    elif isinstance(value, tuple | list):
        if value and not any(is_dataclass(item) or isinstance(item, dict | tuple | list) for item in value):
            yield path, ", ".join(_text(item) for item in value)
        else:
            for i, field in enumerate(value):
                yield from _rows(f"{path}[{i}]", field)
    elif value is not None:
        yield path, _text(value)


def _text(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:g}" if isinstance(value, float) else str(value)

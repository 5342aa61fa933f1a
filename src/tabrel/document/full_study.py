"""A study document with what is only in the database otherwise: the study's history, and the library of the workshop."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from pydantic import TypeAdapter

from tabrel.core.study.history import History
from tabrel.core.study.library import Library
from tabrel.core.study.model import Study
from tabrel.document.plain_json import validated, without_empty
from tabrel.document.study_document import (
    CARRIED,
    parsed_document,
    study_of,
    study_schema,
    study_to_json,
)

_HISTORY: TypeAdapter[History] = TypeAdapter(History)
_LIBRARY: TypeAdapter[Library] = TypeAdapter(Library)


@dataclass(frozen=True)
class FullStudy:
    """A study and what its document carries besides; None where it does not."""

    study: Study
    history: History | None = None
    library: Library | None = None


def read_full_study(content: bytes | str) -> FullStudy:
    """Return what a document holds, all of it understood.

    Raises
    ------
    StudyError
        If it is not acceptable, with its place.
    """
    parsed = parsed_document(content)
    history, library = (parsed.get(name) for name in CARRIED)
    return FullStudy(
        study_of(parsed),
        validated(_HISTORY, history, "history") if history is not None else None,
        validated(_LIBRARY, library, "library") if library is not None else None,
    )


def full_study_to_json(full: FullStudy) -> dict[str, Any]:
    """Return the document as plain JSON values; of the history, nothing is left out: an empty column is part of a row."""
    document = study_to_json(full.study)
    if full.history is not None:
        document["history"] = _HISTORY.dump_python(full.history, mode="json")
    if full.library is not None:
        document["library"] = without_empty(_LIBRARY.dump_python(full.library, mode="json", exclude_none=True))
    return document


def full_study_schema() -> dict[str, Any]:
    """Return the JSON Schema of the document with all it may carry."""
    schema = study_schema()
    for key, model in zip(CARRIED, (History, Library), strict=True):
        carried = TypeAdapter(model).json_schema()
        schema["$defs"] |= carried.pop("$defs", {})
        schema["properties"][key] = carried
    return schema

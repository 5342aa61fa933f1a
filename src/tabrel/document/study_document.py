"""Read and write the study document, an open JSON format.

A document is taken whole or refused whole; the refusal is one sentence that names the place.
"""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from tabrel.core.details.details import check_typed_numbers
from tabrel.core.errors import StudyError
from tabrel.core.review.copies import check_copied
from tabrel.core.rules.limits import check_size
from tabrel.core.rules.study import check_study
from tabrel.core.study.model import FORMAT, VERSION, Circuit, Study
from tabrel.document.plain_json import content_of, decoded, parsed_json, validated, without_empty

_ADAPTER: TypeAdapter[Study] = TypeAdapter(Study)
_CIRCUIT_ADAPTER: TypeAdapter[Circuit] = TypeAdapter(Circuit)


def read_study(content: bytes | str) -> Study:
    """Return the study a document holds, of this version or an earlier one.

    Raises
    ------
    StudyError
        If it is not acceptable.
    """
    return study_of(parsed_document(content))


CARRIED = ("history", "library")
"""Keys of what a document may carry besides the study; see `full_study`."""


def parsed_document(content: bytes | str) -> dict[str, Any]:
    """Return a document as plain JSON values, of a size that a study has.

    Raises
    ------
    StudyError
        If it is no study document.
    """
    parsed = parsed_json(decoded(content))
    _check_header(parsed)
    check_size(parsed)
    document: dict[str, Any] = parsed
    return document


def study_of(parsed: dict[str, Any]) -> Study:
    """Return the study that a parsed document holds, whatever it carries besides.

    Raises
    ------
    StudyError
        If it is not acceptable.
    """
    stated = {key: value for key, value in parsed.items() if key not in CARRIED}
    if isinstance(stated.get("uses"), str):  # what the first version called the intended uses
        stated = _with_intended_uses(stated)
    study = validated(_ADAPTER, stated)
    check_study(study)
    check_typed_numbers(study)
    for i, sample in enumerate(study.samples):
        check_copied(f"samples[{i}]", sample)
    return replace(study, version=VERSION)


def read_study_file(path: Path) -> Study:
    """Return the study in a file; raises `StudyError` where it cannot be read."""
    return read_study(content_of(path))


def study_to_json(study: Study) -> dict[str, Any]:
    """Return the document of a study as plain JSON values; what is unknown or empty is left out."""
    plain: dict[str, Any] = without_empty(_ADAPTER.dump_python(study, mode="json", exclude_none=True, by_alias=True))
    return plain


def write_study(study: Study) -> str:
    """Return the document of a study as text."""
    return json.dumps(study_to_json(study), indent=1, ensure_ascii=False) + "\n"


def circuit_to_json(circuit: Circuit) -> str:
    """Return an engine's circuit as the study document holds it."""
    return json.dumps(
        without_empty(_CIRCUIT_ADAPTER.dump_python(circuit, mode="json", exclude_none=True, by_alias=True)), ensure_ascii=False
    )


def circuit_from_json(text: str) -> Circuit:
    """Return the engine's circuit of a part of a study document."""
    return _CIRCUIT_ADAPTER.validate_json(text, strict=True)


def study_schema() -> dict[str, Any]:
    """Return the JSON Schema of the document."""
    schema = _ADAPTER.json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "Tabrel study document"
    return schema


def _check_header(parsed: Any) -> None:
    if not isinstance(parsed, dict):
        raise StudyError("", f'the document is not an object: a study starts with {{"format": "{FORMAT}"')
    if parsed.get("format") != FORMAT:
        raise StudyError("format", f'must be "{FORMAT}": this is not a study document')
    version = parsed.get("version")
    if isinstance(version, bool) or not isinstance(version, int) or version < 1:
        raise StudyError("version", f"must be a whole number such as {VERSION}")
    if version > VERSION:
        raise StudyError("version", f"{version} is newer than this program reads ({VERSION}): open it with a newer Tabrel")


def _with_intended_uses(parsed: dict[str, Any]) -> dict[str, Any]:
    """Return a document whose intended uses have the name they have from the second version on."""
    if "intended_uses" in parsed:
        raise StudyError("uses", "is text, and there are intended_uses too: leave one of them, or make uses a list")
    return {("intended_uses" if key == "uses" else key): value for key, value in parsed.items()}

"""Read and write the study document, an open JSON format.

A document is taken whole or refused whole; the refusal is one sentence that names the place.
"""

from __future__ import annotations

import json
import types
from dataclasses import is_dataclass, replace
from pathlib import Path
from typing import Any, TypeVar, Union, get_args, get_origin, get_type_hints

from pydantic import TypeAdapter, ValidationError

from tabrel.core.details.details import check_typed_numbers
from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.review.copies import check_copied
from tabrel.core.rules.limits import check_size
from tabrel.core.rules.study import check_study
from tabrel.core.study.model import FORMAT, VERSION, Circuit, Study, field_names

MOST_BYTES = 32_000_000
"""Of a document: a study of the most readings, with a long duty cycle."""

_ADAPTER: TypeAdapter[Study] = TypeAdapter(Study)
_CIRCUIT_ADAPTER: TypeAdapter[Circuit] = TypeAdapter(Circuit)


def read_study(content: bytes | str) -> Study:
    """Return the study a document holds, of this version or an earlier one.

    Parameters
    ----------
    content : bytes or str
        The document.

    Returns
    -------
    Study

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
    parsed = _parsed(_decoded(content))
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


T = TypeVar("T")


def validated(adapter: TypeAdapter[T], value: Any, place: str = "") -> T:
    """Return what a model makes of plain JSON values.

    Raises
    ------
    StudyError
        With the first complaint as one sentence.
    """
    try:
        return adapter.validate_json(json.dumps(value), strict=True)
    except ValidationError as error:
        refused = _refusal(error)
        if not place:
            raise refused from error
        raise StudyError(f"{place}.{refused.path}", refused.message) from error


def read_study_file(path: Path) -> Study:
    """Return the study in a file; raises `StudyError` where it cannot be read."""
    try:
        with path.open("rb") as file:
            content = file.read(MOST_BYTES + 1)
    except OSError as error:
        raise StudyError(str(path), f"cannot be read ({error.strerror}): check the name and the folder") from error
    if len(content) > MOST_BYTES:
        raise StudyError(str(path), f"is larger than {MOST_BYTES / 1e6:g} MB: no study is")
    return read_study(content)


def study_to_json(study: Study) -> dict[str, Any]:
    """Return the document of a study as plain JSON values; what is unknown or empty is left out."""
    plain: dict[str, Any] = without_empty(_ADAPTER.dump_python(study, mode="json", exclude_none=True))
    return plain


def write_study(study: Study) -> str:
    """Return the document of a study as text."""
    return json.dumps(study_to_json(study), indent=1, ensure_ascii=False) + "\n"


def circuit_to_json(circuit: Circuit) -> str:
    """Return an engine's circuit as the study document holds it."""
    return json.dumps(without_empty(_CIRCUIT_ADAPTER.dump_python(circuit, mode="json", exclude_none=True)), ensure_ascii=False)


def circuit_from_json(text: str) -> Circuit:
    """Return the engine's circuit of a part of a study document."""
    return _CIRCUIT_ADAPTER.validate_json(text, strict=True)


def study_schema() -> dict[str, Any]:
    """Return the JSON Schema of the document."""
    schema = _ADAPTER.json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "Tabrel study document"
    return schema


def _decoded(content: bytes | str) -> str:
    if isinstance(content, bytes):
        try:
            content = content.decode("utf-8-sig")
        except UnicodeDecodeError as error:
            raise StudyError("", "the document is not UTF-8 text: save it as UTF-8") from error
    if not content.strip():
        raise StudyError("", "the document is empty: choose a study document")
    return content


def _parsed(text: str) -> Any:
    try:
        return json.loads(text, object_pairs_hook=_unique, parse_constant=_refuse_constant)
    except json.JSONDecodeError as error:
        place = f"line {error.lineno} column {error.colno}"
        raise StudyError("", f"the document is not JSON ({error.msg} at {place}): correct it there") from error
    except RecursionError as error:
        raise StudyError("", "the document is nested too deeply to be a study") from error
    except ValueError as error:
        if isinstance(error, StudyError):
            raise
        raise StudyError("", f"the document holds a number that cannot be read: {error}") from error


def _unique(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found: dict[str, Any] = {}
    for key, value in pairs:
        if key in found:
            raise StudyError(key, "this key is there twice in one object: leave one of them")
        found[key] = value
    return found


def _refuse_constant(name: str) -> None:
    raise StudyError("", f"the document holds {name}, which is no finite number: leave the value out")


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


def _refusal(error: ValidationError) -> StudyError:
    """Return the first complaint as one sentence."""
    details = error.errors(include_url=False, include_input=False)
    unknown = [entry for entry in details if entry["type"] in ("unexpected_keyword_argument", "extra_forbidden")]
    first = (unknown or details)[0]
    location = [step for step in first["loc"] if isinstance(step, int) or not _is_union_tag(step)]
    path = _path(location)
    if unknown:
        known = _known_keys(location[:-1])
        key = str(location[-1])
        return StudyError(path, f"{key!r} is not a key here{nearest_hint(key, known)}: remove or rename it")
    if first["type"] in ("missing", "missing_argument"):
        return StudyError(path, "is missing: add it")
    if path.count("readings") and first["type"] == "string_type":
        return StudyError(path, 'must be text with its unit in quotes, such as "2 15/16 in"')
    if first["type"] == "literal_error":
        return StudyError(path, f"must be one of {first['ctx']['expected']}")
    says = _SENTENCES.get(first["type"])
    return StudyError(path, says or f"is not acceptable ({first['msg'][0].lower()}{first['msg'][1:]}): check it")


_SENTENCES = {
    "string_type": "must be text in quotes",
    "int_type": "must be a whole number without quotes",
    "int_from_float": "must be a whole number",
    "float_type": "must be a number without quotes",
    "finite_number": "must be a finite number: check it",
    "tuple_type": "must be a list in [ ]",
    "dict_type": "must be an object in { }",
    "dataclass_type": "must be an object in { }",
    "too_short": "has too few entries: see the description of the document",
    "too_long": "has too many entries: see the description of the document",
}


def _is_union_tag(step: str) -> bool:
    """Return whether a step of pydantic's location names a member of a union rather than a key."""
    return step in ("str", "float", "int", "Reading") or step.startswith(("tuple[", "constrained", "function"))


def _path(location: list[int | str]) -> str:
    path = ""
    for step in location:
        path += f"[{step}]" if isinstance(step, int) else f".{step}" if path else step
    return path


def _known_keys(location: list[int | str]) -> tuple[str, ...]:
    """Return the keys known at a place of the document."""
    here: Any = Study
    for step in location:
        if isinstance(step, str) and is_dataclass(here):
            here = get_type_hints(here).get(step)
        elif isinstance(step, str) and get_origin(here) is dict:
            here = get_args(here)[1]
        here = _inner_type(here)
    return field_names(here) if isinstance(here, type) and is_dataclass(here) else ()


def _inner_type(hint: Any) -> Any:
    """Return the dataclass inside ``X | None`` and ``tuple[X, ...]``, else the hint itself."""
    while get_origin(hint) in (Union, types.UnionType, tuple):
        arguments = [argument for argument in get_args(hint) if argument not in (type(None), Ellipsis)]
        dataclasses = [argument for argument in arguments if is_dataclass(_inner_type(argument))]
        if not dataclasses:
            return hint
        hint = dataclasses[0]
    return hint


def without_empty(value: Any) -> Any:
    """Return plain JSON values without what is unknown or empty."""
    if isinstance(value, dict):
        cleaned = {key: without_empty(inner) for key, inner in value.items()}
        return {key: inner for key, inner in cleaned.items() if inner not in ({}, [])}
    if isinstance(value, list):
        return [without_empty(inner) for inner in value]
    return value

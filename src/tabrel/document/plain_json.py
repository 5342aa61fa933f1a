"""Plain JSON into the models of a document: read strictly, and refused in one sentence that names the place."""

from __future__ import annotations

import json
import types
from dataclasses import is_dataclass
from pathlib import Path
from typing import Any, TypeVar, Union, get_args, get_origin, get_type_hints

from pydantic import TypeAdapter, ValidationError

from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.study.model import Study, field_names

MOST_BYTES = 32_000_000
"""Of a document: a study of the most readings, with a long duty cycle."""


def decoded(content: bytes | str) -> str:
    """Return a document as text."""
    if isinstance(content, bytes):
        try:
            content = content.decode("utf-8-sig")
        except UnicodeDecodeError as error:
            raise StudyError("", "the document is not UTF-8 text: save it as UTF-8") from error
    if not content.strip():
        raise StudyError("", "the document is empty: choose a study document")
    return content


def parsed_json(text: str) -> Any:
    """Return a document as plain JSON values; a key that is there twice, and what is no number, is refused."""
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
    fields: dict[str, Any] = {}
    for key, value in pairs:
        if key in fields:
            raise StudyError(key, "this key is there twice in one object: leave one of them")
        fields[key] = value
    return fields


def _refuse_constant(name: str) -> None:
    raise StudyError("", f"the document holds {name}, which is no finite number: leave the value out")


T = TypeVar("T")


def validated(adapter: TypeAdapter[T], value: Any, place: str = "", model: type = Study) -> T:
    """Return what a model makes of plain JSON values.

    Raises
    ------
    StudyError
        With the first complaint as one sentence.
    """
    try:
        return adapter.validate_json(json.dumps(value), strict=True)
    except ValidationError as error:
        refused = _refusal(error, model)
        if not place:
            raise refused from error
        raise StudyError(f"{place}.{refused.path}", refused.message) from error


def _refusal(error: ValidationError, model: type) -> StudyError:
    """Return the first complaint as one sentence."""
    details = error.errors(include_url=False, include_input=False)
    unknown = [entry for entry in details if entry["type"] in ("unexpected_keyword_argument", "extra_forbidden")]
    first = (unknown or details)[0]
    location = [step for step in first["loc"] if isinstance(step, int) or not _is_union_tag(step)]
    path = _path(location)
    if unknown:
        known = _known_keys(location[:-1], model)
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


def _known_keys(location: list[int | str], model: type) -> tuple[str, ...]:
    """Return the keys known at a place of a document."""
    here: Any = model
    for step in location:
        if isinstance(step, str) and is_dataclass(here):
            here = get_type_hints(here).get(step)
        elif isinstance(step, str) and get_origin(here) is dict:
            here = get_args(here)[1]
        here = _inner_type(here)
    if not (isinstance(here, type) and is_dataclass(here)):
        return ()
    key_of = here.__dict__.get("__pydantic_config__", {}).get("alias_generator", str)
    return tuple(key_of(name) for name in field_names(here))


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


def content_of(path: Path) -> bytes:
    """Return the content of a document's file; raises `StudyError` where it cannot be read."""
    try:
        with path.open("rb") as file:
            content = file.read(MOST_BYTES + 1)
    except OSError as error:
        raise StudyError(str(path), f"cannot be read ({error.strerror}): check the name and the folder") from error
    if len(content) > MOST_BYTES:
        raise StudyError(str(path), f"is larger than {MOST_BYTES / 1e6:g} MB: no study is")
    return content

"""The library of the workshop in a study document: taken out whole, taken in without changing what is there."""

from __future__ import annotations

import json
import sqlite3
from typing import TypeVar

from tabrel.core.circuit.engine_library import ENGINES
from tabrel.core.entry.date_codes import check_rule
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.review.copies import PARTS_TO_COPY
from tabrel.core.rules.study import check_circuit
from tabrel.core.study.library import Library, SavedEngine, SavedTemplate
from tabrel.document.study_document import circuit_from_json, circuit_to_json
from tabrel.document.template import read_template
from tabrel.store.circuit.engines import save_engine, saved_engines
from tabrel.store.entry.date_codes import date_code_rules, insert_rule
from tabrel.store.sample.templates import list_templates, save_template


def library_of(conn: sqlite3.Connection) -> Library:
    """Return the engines, templates and rules of date codes that are saved."""
    return Library(
        engines=tuple(SavedEngine(engine.name, circuit_from_json(engine.document)) for engine in saved_engines(conn)),
        templates=tuple(
            SavedTemplate(template.name, template.parts, json.loads(template.document)) for template in list_templates(conn)
        ),
        date_code_rules=tuple(rule for _, rule in date_code_rules(conn)),
    )


def insert_library(conn: sqlite3.Connection, library: Library) -> int:
    """Store what is not there yet and return how much; what has the name of something else is stored beside it.

    Raises
    ------
    StudyError
        If something is not understood; the caller's transaction takes back what was stored.
    """
    stored = 0
    engines = {saved_engine.name: saved_engine.document for saved_engine in saved_engines(conn)} | dict.fromkeys(ENGINES, "")
    for i, engine in enumerate(library.engines):
        check_circuit(engine.circuit)
        _require_name(f"library.engines[{i}].name", engine.name)
        document = circuit_to_json(engine.circuit)
        if name := _name_for(engine.name, document, engines):
            save_engine(conn, name, document)
            stored += 1
    templates = {stored_template.name: stored_template.document for stored_template in list_templates(conn)}
    for i, template in enumerate(library.templates):
        _require_name(f"library.templates[{i}].name", template.name)
        unknown = [part for part in template.parts if part not in PARTS_TO_COPY]
        if unknown:
            raise StudyError(f"library.templates[{i}].parts", f"{unknown[0]!r} is no part of a sample: take it out")
        document = json.dumps(template.sample, ensure_ascii=False)
        read_template(document)
        if name := _name_for(template.name, document, templates):
            save_template(conn, name, template.parts, document)
            stored += 1
    rules = {rule.name: (rule.pattern, rule.maker) for _, rule in date_code_rules(conn)}
    for i, rule in enumerate(library.date_code_rules):
        _require_name(f"library.date_code_rules[{i}].name", rule.name)
        try:
            check_rule(rule)
        except ReadingTextError as error:
            raise StudyError(f"library.date_code_rules[{i}].pattern", str(error)) from error
        if name := _name_for(rule.name, (rule.pattern, rule.maker), rules):
            insert_rule(conn, type(rule)(name, rule.pattern, rule.maker))
            stored += 1
    return stored


def _require_name(place: str, name: str) -> None:
    if not name.strip():
        raise StudyError(place, "is empty: give it a name")


T = TypeVar("T")


def _name_for(name: str, held: T, there: dict[str, T]) -> str:
    """Return a name that is free, and take it; empty where the same is there already, under that name or one made here before."""
    free, again = name, 1
    while free in there:
        if there[free] == held:
            return ""
        again += 1
        free = f"{name} ({again})"
    there[free] = held
    return free

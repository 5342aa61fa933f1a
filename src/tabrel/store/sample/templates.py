"""Templates: parts of a sample to begin others with, in every study."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterable
from dataclasses import dataclass

from pydantic import TypeAdapter

from tabrel.store.connection import inserted_id
from tabrel.store.errors import NotStoredError
from tabrel.store.understood import understood

_PARTS: TypeAdapter[tuple[str, ...]] = TypeAdapter(tuple[str, ...])


@dataclass(frozen=True)
class StoredTemplate:
    """A template: its name, the parts it was made of, and a sample of the study document as JSON."""

    id: int
    name: str
    parts: tuple[str, ...]
    document: str
    saved_at: str


SELECT_TEMPLATES = "SELECT * FROM template WHERE removed_at IS NULL ORDER BY name COLLATE NOCASE, id"
SELECT_TEMPLATE = "SELECT * FROM template WHERE id = :id AND removed_at IS NULL"
SELECT_NAMED = "SELECT id, removed_at FROM template WHERE name = :name"
INSERT_TEMPLATE = "INSERT INTO template (name, parts, document) VALUES (:name, :parts, :document)"
REPLACE_TEMPLATE = """
UPDATE template SET parts = :parts, document = :document, removed_at = NULL, saved_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now')
WHERE id = :id
"""
REMOVE_TEMPLATE = "UPDATE template SET removed_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = :id"
PUT_BACK_TEMPLATE = "UPDATE template SET removed_at = NULL WHERE id = :id"


def list_templates(conn: sqlite3.Connection) -> list[StoredTemplate]:
    """Return the templates that are offered, by name."""
    return [_stored(row) for row in conn.execute(SELECT_TEMPLATES)]


def load_template(conn: sqlite3.Connection, template_id: int) -> StoredTemplate:
    """Return a template.

    Raises
    ------
    NotStoredError
        If there is none, or it was removed.
    """
    row = conn.execute(SELECT_TEMPLATE, {"id": template_id}).fetchone()
    if row is None:
        raise NotStoredError("there is no such template, or no longer: choose another, or put it back")
    return _stored(row)


def _stored(row: sqlite3.Row) -> StoredTemplate:
    return StoredTemplate(
        row["id"], row["name"], understood(_PARTS, row["parts"], "a template"), row["document"], row["saved_at"]
    )


def template_named(conn: sqlite3.Connection, name: str) -> int | None:
    """Return the id of the template of a name that is offered, or None."""
    row = conn.execute(SELECT_NAMED, {"name": name}).fetchone()
    return None if row is None or row["removed_at"] else int(row["id"])


def save_template(conn: sqlite3.Connection, name: str, parts: Iterable[str], document: str) -> int:
    """Store a template, in place of one of the same name, and return its id; the caller opens the transaction."""
    values = {"name": name, "parts": json.dumps(list(parts)), "document": document}
    row = conn.execute(SELECT_NAMED, {"name": name}).fetchone()
    if row is None:
        return inserted_id(conn.execute(INSERT_TEMPLATE, values))
    conn.execute(REPLACE_TEMPLATE, {**values, "id": row["id"]})
    return int(row["id"])


def remove_template(conn: sqlite3.Connection, template_id: int) -> None:
    """Offer a template no longer; `put_back_template` brings it back."""
    conn.execute(REMOVE_TEMPLATE, {"id": template_id})


def put_back_template(conn: sqlite3.Connection, template_id: int) -> bool:
    """Offer a removed template again; False where there is none."""
    return conn.execute(PUT_BACK_TEMPLATE, {"id": template_id}).rowcount > 0

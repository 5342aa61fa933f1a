"""Engines saved for other studies; they belong to no study and no filter."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from tabrel.store.errors import NotStoredError


@dataclass(frozen=True)
class SavedEngine:
    """An engine with the id of its row; its circuit is a part of a study document."""

    id: int
    name: str
    document: str


SAVE_ENGINE = """
INSERT INTO kept_engine (name, document) VALUES (:name, :document)
ON CONFLICT (name) DO UPDATE SET document = excluded.document, kept_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now')
"""


def save_engine(conn: sqlite3.Connection, name: str, document: str) -> None:
    """Save an engine under its name, in place of one of the same name; the caller opens the transaction."""
    conn.execute(SAVE_ENGINE, {"name": name, "document": document})


SELECT_ENGINES = "SELECT id, name, document FROM kept_engine ORDER BY name"


def saved_engines(conn: sqlite3.Connection) -> list[SavedEngine]:
    """Return the engines by name."""
    return [SavedEngine(**dict(row)) for row in conn.execute(SELECT_ENGINES)]


DELETE_ENGINE = "DELETE FROM kept_engine WHERE id = :id"


def remove_engine(conn: sqlite3.Connection, engine_id: int) -> None:
    """Remove an engine from the library; studies that use it keep their own copy.

    Raises
    ------
    NotStoredError
        If there is no such engine.
    """
    if conn.execute(DELETE_ENGINE, {"id": engine_id}).rowcount == 0:
        raise NotStoredError(f"there is no saved engine {engine_id}: it was removed meanwhile")

"""Uses of the filters of a study, each a part of the study document."""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass

from pydantic import TypeAdapter

from tabrel.core.study.uses import Use, relabelled
from tabrel.store.connection import inserted_id
from tabrel.store.errors import NotStoredError
from tabrel.store.gather import Reader
from tabrel.store.understood import understood, written

_ADAPTER: TypeAdapter[Use] = TypeAdapter(Use)

INSERT_USE = "INSERT INTO intended_use (study_id, position, document) VALUES (:study_id, :position, :document)"
SELECT_USES = "SELECT document FROM intended_use WHERE study_id = :study_id ORDER BY position"


def insert_uses(conn: sqlite3.Connection, study_id: int, uses: Sequence[Use]) -> None:
    """Store the uses of a study."""
    for position, use in enumerate(uses):
        conn.execute(INSERT_USE, {"study_id": study_id, "position": position, "document": _document(use)})


@dataclass(frozen=True)
class StoredUse:
    """A use with the id of its row."""

    id: int
    use: Use


SELECT_STORED_USES = "SELECT id, document FROM intended_use WHERE study_id = :study_id ORDER BY position"


def load_stored_uses(conn: Reader, study_id: int) -> tuple[StoredUse, ...]:
    """Return the uses of a study in their order, with their ids."""
    rows = conn.execute(SELECT_STORED_USES, {"study_id": study_id})
    return tuple(StoredUse(int(row["id"]), _use(row)) for row in rows)


SELECT_STUDY_OF_USE = "SELECT study_id FROM intended_use WHERE id = :id"


def study_of_use(conn: sqlite3.Connection, use_id: int) -> int:
    """Return the study a use belongs to.

    Raises
    ------
    NotStoredError
        If there is no such use.
    """
    row = conn.execute(SELECT_STUDY_OF_USE, {"id": use_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no use {use_id} any more: it was removed meanwhile, undo brings it back")
    return int(row["study_id"])


SELECT_NEXT_POSITION = "SELECT COALESCE(MAX(position) + 1, 0) AS position FROM intended_use WHERE study_id = :study_id"


def add_use(conn: sqlite3.Connection, study_id: int, use: Use) -> int:
    """Store another use of a study, after the others; return its id."""
    position = conn.execute(SELECT_NEXT_POSITION, {"study_id": study_id}).fetchone()["position"]
    return inserted_id(conn.execute(INSERT_USE, {"study_id": study_id, "position": position, "document": _document(use)}))


UPDATE_USE = "UPDATE intended_use SET document = :document WHERE id = :id"
DELETE_USE = "DELETE FROM intended_use WHERE id = :id"


def change_use(conn: sqlite3.Connection, use_id: int, use: Use) -> None:
    """Store a use in place of what it was."""
    conn.execute(UPDATE_USE, {"id": use_id, "document": _document(use)})


def remove_use(conn: sqlite3.Connection, use_id: int) -> None:
    """Remove a use; the journal keeps it."""
    conn.execute(DELETE_USE, {"id": use_id})


def relabel_in_uses(conn: sqlite3.Connection, study_id: int, label: str, to: str | None) -> None:
    """Have the uses of a study call a sample otherwise; with None they no longer speak of it."""
    for stored in load_stored_uses(conn, study_id):
        changed = relabelled(stored.use, label, to)
        if changed != stored.use:
            change_use(conn, stored.id, changed)


def _document(use: Use) -> str:
    return written(_ADAPTER, use)


def _use(row: sqlite3.Row) -> Use:
    return understood(_ADAPTER, row["document"], "a use")


def load_uses(conn: Reader, study_id: int) -> tuple[Use, ...]:
    """Return the uses of a study in their order."""
    rows = conn.execute(SELECT_USES, {"study_id": study_id})
    return tuple(_use(row) for row in rows)

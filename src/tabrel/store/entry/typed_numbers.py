"""Numbers as they were typed, of a study or of a sample."""

from __future__ import annotations

import sqlite3
from collections.abc import Mapping

from tabrel.core.study.model import TypedNumber
from tabrel.store.gather import Asked, Reader
from tabrel.store.rows import built

_OF = "study_id IS :study_id AND sample_id IS :sample_id"
SELECT_TYPED_NUMBERS = f"SELECT key, text, provenance, origin FROM typed_number WHERE {_OF} ORDER BY id"
INSERT_TYPED_NUMBER = """
INSERT INTO typed_number (study_id, sample_id, key, text, provenance, origin)
VALUES (:study_id, :sample_id, :key, :text, :provenance, :origin)
"""
DELETE_TYPED_NUMBER = f"DELETE FROM typed_number WHERE {_OF} AND key = :key"


def typed_statement(*, study_id: int | None = None, sample_id: int | None = None) -> Asked:
    """Return what loading the numbers of a study or of a sample asks."""
    return SELECT_TYPED_NUMBERS, {"study_id": study_id, "sample_id": sample_id}


def typed_numbers(conn: Reader, *, study_id: int | None = None, sample_id: int | None = None) -> dict[str, TypedNumber]:
    """Return the numbers of a study or of a sample as they were typed, by key."""
    rows = conn.execute(*typed_statement(study_id=study_id, sample_id=sample_id))
    return {row["key"]: built(TypedNumber, row) for row in rows}


def set_typed_numbers(
    conn: sqlite3.Connection,
    numbers: Mapping[str, TypedNumber],
    *,
    study_id: int | None = None,
    sample_id: int | None = None,
) -> None:
    """Make the numbers as typed what they are to be; those that do not change are not touched."""
    owner = {"study_id": study_id, "sample_id": sample_id}
    stored = typed_numbers(conn, **owner)
    for key in stored:
        if stored[key] != numbers.get(key):
            conn.execute(DELETE_TYPED_NUMBER, {**owner, "key": key})
    for key, number in numbers.items():
        if stored.get(key) != number:
            conn.execute(INSERT_TYPED_NUMBER, {**owner, "key": key, **vars(number)})

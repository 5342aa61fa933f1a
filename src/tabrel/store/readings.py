"""Readings: added and struck out, never changed."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable
from dataclasses import dataclass

from tabrel.core.study import ReadingEntry, StruckReading
from tabrel.store.connection import inserted_id
from tabrel.store.errors import NotStoredError
from tabrel.store.rows import built


@dataclass(frozen=True)
class StoredReading:
    """One reading as stored.

    Attributes
    ----------
    id : int
        Of the row.
    quantity_key : str
        Reading key; for a reading of holes the path such as ``holes.inlet[0].diameter``.
    text : str
        As typed.
    taken_at : str
        ISO time, UTC.
    struck_out_reason : str or None
        Why it was struck out; None while it stands.
    """

    id: int
    quantity_key: str
    text: str
    taken_at: str
    struck_out_reason: str | None


INSERT_READING = """
INSERT INTO reading (sample_id, hole_group_id, quantity_key, position, text, struck_out_at, struck_out_reason)
VALUES (:sample_id, :hole_group_id, :quantity_key,
        (SELECT COALESCE(MAX(position) + 1, 0) FROM reading
         WHERE quantity_key = :quantity_key AND sample_id IS :sample_id AND hole_group_id IS :hole_group_id),
        :text,
        CASE WHEN :reason IS NULL THEN NULL ELSE strftime('%Y-%m-%dT%H:%M:%fZ', 'now') END,
        :reason)
"""


def insert_reading(
    conn: sqlite3.Connection,
    key: str,
    text: str,
    *,
    sample_id: int | None = None,
    hole_group_id: int | None = None,
    struck_out_reason: str | None = None,
) -> int:
    """Store one reading behind the others of its quantity and return its id."""
    named = {
        "sample_id": sample_id,
        "hole_group_id": hole_group_id,
        "quantity_key": key,
        "text": text,
        "reason": struck_out_reason,
    }
    return inserted_id(conn.execute(INSERT_READING, named))


def insert_entries(
    conn: sqlite3.Connection,
    key: str,
    entries: Iterable[ReadingEntry],
    *,
    sample_id: int | None = None,
    hole_group_id: int | None = None,
) -> None:
    """Store the entries of one quantity in their order."""
    for entry in entries:
        text, reason = (entry.text, entry.struck_out) if isinstance(entry, StruckReading) else (entry, None)
        insert_reading(conn, key, text, sample_id=sample_id, hole_group_id=hole_group_id, struck_out_reason=reason)


SELECT_ENTRIES = """
SELECT quantity_key, text, struck_out_reason FROM reading
WHERE sample_id IS :sample_id AND hole_group_id IS :hole_group_id
ORDER BY MIN(id) OVER (PARTITION BY quantity_key), position
"""


def entries_by_key(
    conn: sqlite3.Connection, *, sample_id: int | None = None, hole_group_id: int | None = None
) -> dict[str, tuple[ReadingEntry, ...]]:
    """Return the readings of a sample, or of a hole group, as the study holds them."""
    found: dict[str, list[ReadingEntry]] = {}
    for row in conn.execute(SELECT_ENTRIES, {"sample_id": sample_id, "hole_group_id": hole_group_id}):
        reason = row["struck_out_reason"]
        entry = row["text"] if reason is None else StruckReading(row["text"], reason)
        found.setdefault(row["quantity_key"], []).append(entry)
    return {key: tuple(entries) for key, entries in found.items()}


SELECT_READINGS_OF_SAMPLE = """
SELECT reading.id, reading.taken_at, reading.text, reading.struck_out_reason,
       CASE WHEN hole_group.id IS NULL THEN reading.quantity_key
            ELSE 'holes.' || hole_group.placement || '[' || hole_group.position || '].' || reading.quantity_key
       END AS quantity_key
FROM reading LEFT JOIN hole_group ON hole_group.id = reading.hole_group_id
WHERE reading.sample_id = :sample_id OR hole_group.sample_id = :sample_id
ORDER BY reading.position, reading.id
"""


def readings_of_sample(conn: sqlite3.Connection, sample_id: int) -> list[StoredReading]:
    """Return every reading of a sample, those of its holes included, struck ones too, in order."""
    rows = conn.execute(SELECT_READINGS_OF_SAMPLE, {"sample_id": sample_id}).fetchall()
    return [built(StoredReading, row) for row in rows]


SELECT_OWNER_OF_READING = """
SELECT COALESCE(reading.sample_id, hole_group.sample_id) AS sample_id, reading.struck_out_reason
FROM reading LEFT JOIN hole_group ON hole_group.id = reading.hole_group_id
WHERE reading.id = :id
"""
STRIKE_OUT = """
UPDATE reading SET struck_out_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now'), struck_out_reason = :reason
WHERE id = :id AND struck_out_at IS NULL
"""


def strike_out(conn: sqlite3.Connection, reading_id: int, reason: str) -> int:
    """Strike a reading out with a reason and return its sample; one already struck keeps its reason.

    Raises
    ------
    NotStoredError
        If there is no such reading on a sample.
    """
    sample_id = _sample_of(conn, reading_id)
    conn.execute(STRIKE_OUT, {"id": reading_id, "reason": reason})
    return sample_id


RESTORE = "UPDATE reading SET struck_out_at = NULL, struck_out_reason = NULL WHERE id = :id"


def restore(conn: sqlite3.Connection, reading_id: int) -> int:
    """Let a struck reading stand again and return its sample.

    Raises
    ------
    NotStoredError
        If there is no such reading on a sample.
    """
    sample_id = _sample_of(conn, reading_id)
    conn.execute(RESTORE, {"id": reading_id})
    return sample_id


def _sample_of(conn: sqlite3.Connection, reading_id: int) -> int:
    row = conn.execute(SELECT_OWNER_OF_READING, {"id": reading_id}).fetchone()
    if row is None or row["sample_id"] is None:
        raise NotStoredError(f"there is no reading {reading_id} on a sample: load the sample again")
    return int(row["sample_id"])

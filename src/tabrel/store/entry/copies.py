"""Copied facts of a sample that are not confirmed, and their confirmation."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable, Mapping
from typing import Literal

from tabrel.store.gather import Reader

CopiedRow = Literal["readings", "holes", "claims"]

INSERT_COPIED = "INSERT INTO copied_fact (sample_id, thing, copied_from) VALUES (:sample_id, :thing, :copied_from)"
SELECT_COPIED = "SELECT thing, copied_from FROM copied_fact WHERE sample_id = :sample_id ORDER BY id"
DELETE_COPIED = "DELETE FROM copied_fact WHERE sample_id = :sample_id AND thing = :thing"


def mark_copied(conn: sqlite3.Connection, sample_id: int, copied: Mapping[str, str]) -> None:
    """Mark facts of a sample as copied; the caller opens the transaction."""
    rows = [{"sample_id": sample_id, "thing": thing, "copied_from": origin} for thing, origin in copied.items()]
    conn.executemany(INSERT_COPIED, rows)


def copied_facts(conn: Reader, sample_id: int) -> dict[str, str]:
    """Return the facts of a sample that are copied and not confirmed, and from what."""
    return {row["thing"]: row["copied_from"] for row in conn.execute(SELECT_COPIED, {"sample_id": sample_id})}


def unmark_copied(conn: sqlite3.Connection, sample_id: int, things: Iterable[str]) -> None:
    """Take the marks of facts away: they were confirmed, or said anew."""
    conn.executemany(DELETE_COPIED, [{"sample_id": sample_id, "thing": thing} for thing in things])


# Each with the sample it must belong to: a row of another one is never touched.
SELECT_COPIED_ROW: dict[CopiedRow, str] = {
    "readings": """
SELECT reading.copied_from FROM reading LEFT JOIN hole_group ON hole_group.id = reading.hole_group_id
WHERE reading.id = :id AND COALESCE(reading.sample_id, hole_group.sample_id) = :sample_id
""",
    "holes": "SELECT copied_from FROM hole_group WHERE id = :id AND sample_id = :sample_id",
    "claims": "SELECT copied_from FROM claim WHERE id = :id AND sample_id = :sample_id",
}
CONFIRM_ROW: dict[CopiedRow, str] = {
    "readings": "UPDATE reading SET copied_from = NULL, taken_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = :id",
    "holes": "UPDATE hole_group SET copied_from = NULL WHERE id = :id",
    "claims": "UPDATE claim SET copied_from = NULL WHERE id = :id",
}


def origin_of_row(conn: sqlite3.Connection, sample_id: int, kind: CopiedRow, row_id: int) -> str | None:
    """Return what a row of a sample was copied from; None where it is not copied, no longer, or not of this sample."""
    row = conn.execute(SELECT_COPIED_ROW[kind], {"id": row_id, "sample_id": sample_id}).fetchone()
    return None if row is None else row["copied_from"]


def confirm_row(conn: sqlite3.Connection, kind: CopiedRow, row_id: int) -> None:
    """Record that a copied row holds for this sample too; a reading counts as taken now."""
    conn.execute(CONFIRM_ROW[kind], {"id": row_id})

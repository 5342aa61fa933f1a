"""Revisions: how often a study had been changed when one thing of it changed last.

Every change, undo and redo raises them and nothing lowers them, so that a window that names the revision it has seen is told
when somebody was there first, even if the thing looks the same again.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable

from tabrel.store.gather import Asked, Reader

ROWS = {"reading": "readings", "hole_group": "holes", "claim": "claims", "offer": "offers", "scenario": "scenarios"}
"""Name of the things whose rows have a revision of their own, by table."""

CONTENT = "content"
"""The thing that stands for all of a sample, or for what of a study all its samples rest on: engine, oil, plan."""

OF_STUDY = 0
"""In place of a sample: the thing belongs to the whole study."""

SELECT_LAST = "SELECT COALESCE(MAX(revision), 0) AS last FROM revision WHERE study_id = :study_id"
RAISE = """
INSERT INTO revision (study_id, sample_id, thing, revision) VALUES (:study_id, :sample_id, :thing, :revision)
ON CONFLICT DO UPDATE SET revision = excluded.revision
"""
SELECT_ROWS_OF_CHANGE = "SELECT DISTINCT table_name, row_id FROM change_row WHERE change_id = :change_id"


def revision_statements(study_id: int, sample_id: int) -> list[Asked]:
    """Return what looking at the revisions of a sample and its study asks."""
    return [(SELECT_LAST, {"study_id": study_id}), (SELECT_REVISIONS, {"study_id": study_id, "sample_id": sample_id})]


def study_revision(conn: Reader, study_id: int) -> int:
    """Return how often a study was changed, undone and redone."""
    return int(conn.execute(SELECT_LAST, {"study_id": study_id}).fetchone()["last"])


def raise_rows(conn: sqlite3.Connection, study_id: int, sample_id: int | None, change_id: int) -> None:
    """Raise the study's revision and that of the rows of a change that is made, undone or redone."""
    revision = study_revision(conn, study_id) + 1
    rows = conn.execute(SELECT_ROWS_OF_CHANGE, {"change_id": change_id}).fetchall()
    things = [f"{ROWS[row['table_name']]}/{row['row_id']}" for row in rows if row["table_name"] in ROWS]
    scope = OF_STUDY if sample_id is None else sample_id
    _raise(conn, study_id, [(OF_STUDY, "journal"), (scope, CONTENT), *((scope, thing) for thing in things)], revision)


def raise_facts(conn: sqlite3.Connection, study_id: int, things: Iterable[tuple[int, str]]) -> None:
    """Give things, each with its sample or `OF_STUDY`, the study's revision; the caller has just changed them."""
    _raise(conn, study_id, things, study_revision(conn, study_id))


def _raise(conn: sqlite3.Connection, study_id: int, things: Iterable[tuple[int, str]], revision: int) -> None:
    rows = [{"study_id": study_id, "sample_id": scope, "thing": thing, "revision": revision} for scope, thing in things]
    conn.executemany(RAISE, rows)


SELECT_REVISIONS = """
SELECT thing, revision FROM revision WHERE study_id = :study_id AND sample_id IN (0, :sample_id)
  AND thing NOT IN ('journal', 'content')
"""


def revisions_of(conn: Reader, study_id: int, sample_id: int) -> dict[str, int]:
    """Return the revisions of what was changed of a sample and its study; what was not has revision 0."""
    rows = conn.execute(SELECT_REVISIONS, {"study_id": study_id, "sample_id": sample_id})
    return {row["thing"]: int(row["revision"]) for row in rows}


SELECT_REVISION = """
SELECT COALESCE(MAX(revision), 0) AS revision FROM revision
WHERE study_id = :study_id AND sample_id IN (0, :sample_id) AND thing GLOB :thing
"""


def revision_of(conn: sqlite3.Connection, study_id: int, sample_id: int, thing: str) -> int:
    """Return the revision of one thing, or the last of several where `thing` holds ``*``; 0 if it was never changed."""
    named = {"study_id": study_id, "sample_id": sample_id, "thing": thing}
    return int(conn.execute(SELECT_REVISION, named).fetchone()["revision"])

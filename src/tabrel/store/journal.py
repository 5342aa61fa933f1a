"""The journal: every change a person makes, row by row, so that it can be undone and redone.

Triggers on every table of a study write each changed row, as it was before and after, into `change_row`
while a change is being recorded. Undo puts the rows back as they were, redo as they became. Nothing in
the journal is ever deleted, so that the history of a value stays even when it was undone.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from tabrel.store.connection import inserted_id, transaction, window_of
from tabrel.store.errors import ConflictError
from tabrel.store.gather import Asked, Reader
from tabrel.store.revisions import raise_rows

JOURNALED = (
    "study",
    "sample",
    "observation",
    "claim",
    "evidence",
    "typed_number",
    "intended_use",
    "arithmetic_line",
    "hole_group",
    "outline_point",
    "reading",
    "offer",
    "quantity_state",
    "copied_fact",
    "scenario",
    "duty_cycle",
    "study_part",
)
"""Tables whose rows are recorded; a test holds the list against the schema."""


@dataclass(frozen=True)
class Change:
    """One thing a person did: its words, the place it was done at, when, and in which window."""

    id: int
    study_id: int
    sample_id: int | None
    words: str
    place: str
    made_at: str
    made_in: str | None


def install_triggers(conn: sqlite3.Connection) -> None:
    """Make the triggers fit the tables as they are; called whenever the database is opened, and writes nothing if they do."""
    wanted = _triggers(conn)
    there = {row["name"]: row["sql"] for row in conn.execute(SELECT_TRIGGERS)}
    if there == wanted:
        return
    with transaction(conn):
        for name in there:
            conn.execute(f"DROP TRIGGER {name}")
        for statement in wanted.values():
            conn.execute(statement)


SELECT_TRIGGERS = "SELECT name, sql FROM sqlite_master WHERE type = 'trigger' AND name LIKE 'journal!_%' ESCAPE '!'"


def _triggers(conn: sqlite3.Connection) -> dict[str, str]:
    """Return the statements that make the triggers, by name."""
    made = {}
    for table in JOURNALED:
        columns = conn.execute("SELECT name, type FROM pragma_table_info(:table)", {"table": table}).fetchall()
        if not columns:  # an older database has it no sooner than it is brought up to date
            continue
        for event, before, after in (("INSERT", False, True), ("UPDATE", True, True), ("DELETE", True, False)):
            name = f"journal_{table}_{event.lower()}"
            made[name] = (
                f"CREATE TRIGGER {name} AFTER {event} ON {table} "
                "WHEN (SELECT change_id FROM recording) IS NOT NULL BEGIN "
                "INSERT INTO change_row (change_id, table_name, row_id, before, after) "
                f"VALUES ((SELECT change_id FROM recording), '{table}', {'NEW' if after else 'OLD'}.rowid, "
                f"{_image(columns, 'OLD') if before else 'NULL'}, {_image(columns, 'NEW') if after else 'NULL'}); END"
            )
    return made


def _image(columns: list[sqlite3.Row], row: str) -> str:
    """Return the expression of a row as JSON: its numbers to the last digit, of which SQLite's own JSON has fifteen."""
    values = {
        column["name"]: (
            f"json(CASE WHEN {row}.{column['name']} IS NULL THEN 'null' ELSE printf('%!.17g', {row}.{column['name']}) END)"
            if column["type"] == "REAL"
            else f"{row}.{column['name']}"
        )
        for column in columns
    }
    return "json_object(" + ", ".join(f"'{name}', {value}" for name, value in values.items()) + ")"


INSERT_CHANGE = """
INSERT INTO change (study_id, sample_id, words, place, made_in) VALUES (:study_id, :sample_id, :words, :place, :made_in)
"""
RECORD = "UPDATE recording SET change_id = :change_id WHERE id = 1"


@contextmanager
def recorded(conn: sqlite3.Connection, study_id: int, sample_id: int | None, words: str, place: str) -> Iterator[int]:
    """Commit everything in the block as one change that can be undone, or nothing; yield the change's id.

    The change belongs to the window of the connection.
    """
    with transaction(conn):
        named = {"study_id": study_id, "sample_id": sample_id, "words": words, "place": place, "made_in": window_of(conn)}
        change_id = inserted_id(conn.execute(INSERT_CHANGE, named))
        conn.execute(RECORD, {"change_id": change_id})
        yield change_id
        conn.execute(RECORD, {"change_id": None})
        raise_rows(conn, study_id, sample_id, change_id)


UPDATE_CHANGE_SAMPLE = "UPDATE change SET sample_id = :sample_id WHERE id = :id"


def belongs_to_sample(conn: sqlite3.Connection, change_id: int, sample_id: int) -> None:
    """Say that a change being recorded concerns a sample that it has only just made."""
    conn.execute(UPDATE_CHANGE_SAMPLE, {"id": change_id, "sample_id": sample_id})


_SCOPE = "study_id = :study_id AND (sample_id = :sample_id OR sample_id IS NULL)"
SELECT_LAST = f"""
SELECT id, study_id, sample_id, words, place, made_at, made_in FROM change
WHERE {_SCOPE} AND undone_at IS NULL ORDER BY id DESC LIMIT 1
"""
SELECT_NEXT_UNDONE = f"""
SELECT id, study_id, sample_id, words, place, made_at, made_in FROM change
WHERE {_SCOPE} AND undone_at IS NOT NULL
  AND id > COALESCE((SELECT MAX(id) FROM change WHERE {_SCOPE} AND undone_at IS NULL), 0)
ORDER BY undone_at DESC, id LIMIT 1
"""


def movable_statements(study_id: int, sample_id: int) -> list[Asked]:
    """Return what looking for the changes that undo and redo would move asks."""
    named = {"study_id": study_id, "sample_id": sample_id}
    return [(SELECT_LAST, named), (SELECT_NEXT_UNDONE, named)]


def last_change(conn: Reader, study_id: int, sample_id: int) -> Change | None:
    """Return the change that undo would revert: of this sample or of its study."""
    return _change(conn, SELECT_LAST, study_id, sample_id)


def next_undone(conn: Reader, study_id: int, sample_id: int) -> Change | None:
    """Return the change that redo would repeat, the one undone last; none once something else was done after the undo."""
    return _change(conn, SELECT_NEXT_UNDONE, study_id, sample_id)


def _change(conn: Reader, statement: str, study_id: int, sample_id: int) -> Change | None:
    row = conn.execute(statement, {"study_id": study_id, "sample_id": sample_id}).fetchone()
    return None if row is None else Change(**dict(row))


MARK_UNDONE = "UPDATE change SET undone_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now') WHERE id = :id"
MARK_DONE = "UPDATE change SET undone_at = NULL WHERE id = :id"
SELECT_ROWS = "SELECT table_name, row_id, before, after FROM change_row WHERE change_id = :change_id ORDER BY id"


def undo(conn: sqlite3.Connection, change: Change) -> None:
    """Take a change back, which is the last one; the caller opens the transaction.

    Raises
    ------
    ConflictError
        If another row has the place of one that is to be put back.
    """
    rows = conn.execute(SELECT_ROWS, {"change_id": change.id}).fetchall()
    _put(conn, [(row["table_name"], row["row_id"], row["after"], row["before"]) for row in reversed(rows)])
    conn.execute(MARK_UNDONE, {"id": change.id})
    raise_rows(conn, change.study_id, change.sample_id, change.id)


def redo(conn: sqlite3.Connection, change: Change) -> None:
    """Repeat a change, which is the one undone last; the caller opens the transaction.

    Raises
    ------
    ConflictError
        If another row has the place of one that is to be put back.
    """
    rows = conn.execute(SELECT_ROWS, {"change_id": change.id}).fetchall()
    _put(conn, [(row["table_name"], row["row_id"], row["before"], row["after"]) for row in rows])
    conn.execute(MARK_DONE, {"id": change.id})
    raise_rows(conn, change.study_id, change.sample_id, change.id)


def _put(conn: sqlite3.Connection, images: list[tuple[str, int, str | None, str | None]]) -> None:
    """Make rows, by table, id and what they are now, what their images say; a table's name comes from `JOURNALED`."""
    conn.execute("PRAGMA defer_foreign_keys = ON")
    for table, row_id, now, image in images:
        if table not in JOURNALED:
            raise sqlite3.DataError(f"the journal names a table {table!r} that is not recorded")
        if image is None:
            conn.execute(f"DELETE FROM {table} WHERE rowid = :row_id", {"row_id": row_id})
            continue
        values = json.loads(image)
        known = [row["name"] for row in conn.execute("SELECT name FROM pragma_table_info(:table)", {"table": table})]
        columns = [column for column in known if column in values]
        exists = conn.execute(f"SELECT 1 FROM {table} WHERE rowid = :row_id", {"row_id": row_id}).fetchone()
        if exists and now is None:  # ids are given once, but were not in the first versions
            raise ConflictError("this cannot be put back: something else has taken its place since. Enter it again")
        if exists:
            assignments = ", ".join(f"{column} = :{column}" for column in columns)
            conn.execute(f"UPDATE {table} SET {assignments} WHERE rowid = :row_id_", {**values, "row_id_": row_id})
        else:
            names, places = ", ".join(columns), ", ".join(f":{column}" for column in columns)
            conn.execute(f"INSERT INTO {table} (rowid, {names}) VALUES (:row_id_, {places})", {**values, "row_id_": row_id})


SELECT_HISTORY = """
SELECT change.words, change.made_at, change.undone_at
FROM change_row JOIN change ON change.id = change_row.change_id
WHERE change_row.table_name = :table_name AND change_row.row_id = :row_id ORDER BY change_row.id
"""


def history(conn: sqlite3.Connection, table: str, row_id: int) -> list[tuple[str, str, bool]]:
    """Return what was done to a row: words, time, whether it was undone."""
    rows = conn.execute(SELECT_HISTORY, {"table_name": table, "row_id": row_id})
    return [(row["words"], row["made_at"], row["undone_at"] is not None) for row in rows]

"""A study with how it came about: all its rows and every change of them, taken out and taken in again.

Taken in, rows get ids of their own, and whatever names a row names the new one: in rows, in the images of the journal, in the
changes. What comes out must be the study that stands beside it, and taking every change back must come to an end, or nothing is
taken in.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, QUANTITIES
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.errors import StudyError, TabrelError
from tabrel.core.rules.study import check_study
from tabrel.core.study.history import ChangedRow, History, RecordedChange, Value
from tabrel.core.study.model import Study
from tabrel.store.connection import inserted_id
from tabrel.store.errors import NotStoredError
from tabrel.store.journal import JOURNALED, Change, undo
from tabrel.store.migrate import shipped_migrations
from tabrel.store.study.studies import load_study

Row = Mapping[str, Value]
PLACE = "history"
"""In the document."""


@dataclass(frozen=True)
class _Table:
    """A recorded table: its columns, the one that is the id, and of which table a column names a row."""

    name: str
    columns: tuple[str, ...]
    id_column: str
    names_row_of: Mapping[str, str]


def _tables(conn: sqlite3.Connection) -> dict[str, _Table]:
    tables = {}
    for name in JOURNALED:
        columns = conn.execute("SELECT name, pk FROM pragma_table_info(:table)", {"table": name}).fetchall()
        keys = conn.execute('SELECT "table", "from" FROM pragma_foreign_key_list(:table)', {"table": name}).fetchall()
        [id_column] = [row["name"] for row in columns if row["pk"]]
        tables[name] = _Table(name, tuple(row["name"] for row in columns), id_column, {row["from"]: row["table"] for row in keys})
    return tables


SELECT_CHANGES = """
SELECT id, sample_id, words, place, made_at, made_in, undone_at FROM change WHERE study_id = :study_id ORDER BY id
"""
SELECT_CHANGED_ROWS = """
SELECT change_row.change_id, change_row.table_name, change_row.row_id, change_row.before, change_row.after
FROM change_row JOIN change ON change.id = change_row.change_id WHERE change.study_id = :study_id ORDER BY change_row.id
"""


def history_of(conn: sqlite3.Connection, study_id: int) -> History:
    """Return all rows of a study and every change of them; the caller reads everything at one moment."""
    rows: dict[str, tuple[dict[str, Value], ...]] = {}
    ids: dict[str, str] = {}
    for name, table in _tables(conn).items():
        of_it = "id = :study" if name == "study" else " OR ".join(
            f"{column} IN (SELECT value FROM json_each(:{parent}))" for column, parent in table.names_row_of.items()
        )  # fmt: skip
        result = conn.execute(
            f"SELECT * FROM {name} WHERE {of_it} ORDER BY {table.id_column}", {**ids, "study": ids.get("study", study_id)}
        ).fetchall()
        ids[name] = json.dumps([row[table.id_column] for row in result])
        if result:
            rows[name] = tuple(dict(row) for row in result)
    changed: dict[int, list[ChangedRow]] = {}
    for row in conn.execute(SELECT_CHANGED_ROWS, {"study_id": study_id}):
        before, after = (json.loads(image) if image else None for image in (row["before"], row["after"]))
        changed.setdefault(row["change_id"], []).append(ChangedRow(row["table_name"], row["row_id"], before, after))
    changes = []
    for row in conn.execute(SELECT_CHANGES, {"study_id": study_id}):
        words = {name: row[name] for name in ("sample_id", "words", "place", "made_at", "made_in", "undone_at")}
        changes.append(RecordedChange(rows=tuple(changed.get(row["id"], ())), **words))
    return History(max(shipped_migrations()), rows, tuple(changes))


def insert_with_history(conn: sqlite3.Connection, study: Study, history: History) -> int:
    """Store a study with its history and return its id; the caller opens the transaction.

    Parameters
    ----------
    conn : sqlite3.Connection
    study : Study
        What the history must lead to.
    history : History

    Raises
    ------
    StudyError
        If the history is of other tables, does not fit together, or does not lead to the study.
    """
    newest = max(shipped_migrations())
    if history.database_version != newest:
        raise StudyError(
            PLACE,
            f"is of version {history.database_version} of the database, and this program has {newest}: take the history out of "
            "the document to import the study alone, or open it with the Tabrel it is of and export it again",
        )
    try:
        study_id = _Intake(conn, history).stored()
        if load_study(conn, study_id) != study:
            raise StudyError(PLACE, "leads to another study than the one beside it: take it out, or leave both as exported")
        _try_undo(conn, study_id)
    except (sqlite3.IntegrityError, sqlite3.ProgrammingError, NotStoredError, ValueError, KeyError, TypeError) as error:
        if isinstance(error, StudyError):
            raise
        raise StudyError(PLACE, f"does not fit together ({_short(error)}): take it out to import the study alone") from error
    return study_id


def _short(error: Exception) -> str:
    return " ".join(str(error).split())[:200]


INSERT_CHANGE = """
INSERT INTO change (study_id, sample_id, words, place, made_at, made_in, undone_at)
VALUES (:study_id, :sample_id, :words, :place, :made_at, :made_in, :undone_at)
"""
INSERT_CHANGED_ROW = """
INSERT INTO change_row (change_id, table_name, row_id, before, after) VALUES (:change_id, :table_name, :row_id, :before, :after)
"""
SELECT_TAKEN = "SELECT COALESCE((SELECT seq FROM sqlite_sequence WHERE name = :table), 0) AS taken"
RAISE_TAKEN = "UPDATE sqlite_sequence SET seq = MAX(seq, :taken) WHERE name = :table"
MOST_ID = 2**53


class _Intake:
    """Takes the rows and changes of a history in under new ids."""

    def __init__(self, conn: sqlite3.Connection, history: History) -> None:
        self._conn = conn
        self._history = history
        self._tables = _tables(conn)
        unknown = {*history.rows, *(row.table for change in history.changes for row in change.rows)} - set(self._tables)
        if unknown:
            raise StudyError(PLACE, f"names a table {sorted(unknown)[0]!r} that is not recorded: take it out")
        if len(history.rows.get("study", ())) != 1:
            raise StudyError(f"{PLACE}.rows.study", "must be the one row of the study")
        self._new = {name: self._numbered(table) for name, table in self._tables.items()}

    def _numbered(self, table: _Table) -> dict[int, int]:
        """Return new ids by old ones, in the same order, above every id that was ever given."""
        old = {self._id(row.get(table.id_column)) for row in self._history.rows.get(table.name, ())}
        old |= {self._id(row.row_id) for change in self._history.changes for row in change.rows if row.table == table.name}
        taken = self._conn.execute(SELECT_TAKEN, {"table": table.name}).fetchone()["taken"]
        return {number: taken + 1 + i for i, number in enumerate(sorted(old))}

    @staticmethod
    def _id(value: Value) -> int:
        if isinstance(value, bool) or not isinstance(value, int) or not 0 < value < MOST_ID:
            raise StudyError(PLACE, f"holds {value!r} where the number of a row should be: take it out")
        return value

    def _moved(self, table: _Table, row: Row) -> dict[str, Value]:
        """Return a row under its new id, naming rows by theirs."""
        unknown = row.keys() - set(table.columns)
        if unknown:
            raise StudyError(PLACE, f"has a column {sorted(unknown)[0]!r} that {table.name} has not: take it out")
        if table.name == "reading":
            _check_reading(row)
        moved = dict(row)
        for column, parent in ((table.id_column, table.name), *table.names_row_of.items()):
            value = row.get(column)
            if value is not None:
                moved[column] = self._new[parent][self._id(value)]
        return moved

    def stored(self) -> int:
        """Store everything and return the id of the study."""
        conn, history = self._conn, self._history
        conn.execute("PRAGMA defer_foreign_keys = ON")
        for name, rows in history.rows.items():
            for row in rows:
                moved = self._moved(self._tables[name], row)
                if name == "study":
                    moved["status"] = "in_use"
                conn.execute(f"INSERT INTO {name} ({', '.join(moved)}) VALUES ({', '.join(f':{text}' for text in moved)})", moved)
        study_id = next(iter(self._new["study"].values()))
        for change in history.changes:
            self._store_change(study_id, change)
        for name, ids in self._new.items():
            conn.execute(RAISE_TAKEN, {"table": name, "taken": max(ids.values(), default=0)})
        return study_id

    def _store_change(self, study_id: int, change: RecordedChange) -> None:
        fields = {name: getattr(change, name) for name in ("words", "place", "made_at", "made_in", "undone_at")}
        sample_id = None if change.sample_id is None else self._new["sample"][change.sample_id]
        change_id = inserted_id(self._conn.execute(INSERT_CHANGE, {"study_id": study_id, "sample_id": sample_id, **fields}))
        for row in change.rows:
            table = self._tables[row.table]
            images = {
                name: None if image is None else json.dumps(self._moved(table, image), ensure_ascii=False)
                for name, image in (("before", row.before), ("after", row.after))
            }
            named = {"change_id": change_id, "table_name": row.table, "row_id": self._new[row.table][row.row_id], **images}
            self._conn.execute(INSERT_CHANGED_ROW, named)


def _check_reading(row: Row) -> None:
    key = str(row.get("quantity_key"))
    quantity = QUANTITIES.get(key) or HOLE_QUANTITIES.get(key)
    if quantity is None:
        raise StudyError(PLACE, f"has a reading of {key!r}, which is no quantity: take it out")
    try:
        parse_reading(str(row.get("text")), quantity.dimension)
    except TabrelError as error:
        raise StudyError(PLACE, f"has a reading that is not understood: {error}") from error


SELECT_UNDOABLE = """
SELECT id, study_id, sample_id, words, place, made_at, made_in FROM change
WHERE study_id = :study_id AND undone_at IS NULL ORDER BY id DESC
"""


def _try_undo(conn: sqlite3.Connection, study_id: int) -> None:
    """Take every change back, look at what is left, and leave everything as it was."""
    conn.execute("SAVEPOINT tried")
    try:
        for change in _undoable(conn, study_id):
            undo(conn, change)
        check_study(load_study(conn, study_id))
    finally:
        conn.execute("ROLLBACK TO tried")
        conn.execute("RELEASE tried")


def _undoable(conn: sqlite3.Connection, study_id: int) -> Iterator[Change]:
    for row in conn.execute(SELECT_UNDOABLE, {"study_id": study_id}).fetchall():
        yield Change(**dict(row))

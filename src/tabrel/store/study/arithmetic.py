"""Printed sums that are kept with a study, each line a part of the study document."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable
from dataclasses import dataclass

from pydantic import TypeAdapter

from tabrel.core.study.arithmetic import ArithmeticLine
from tabrel.store.errors import NotStoredError
from tabrel.store.gather import Reader
from tabrel.store.understood import understood

_ADAPTER: TypeAdapter[ArithmeticLine] = TypeAdapter(ArithmeticLine)

INSERT_LINE = "INSERT INTO arithmetic_line (study_id, position, document) VALUES (:study_id, :position, :document)"
SELECT_LINES = "SELECT id, document FROM arithmetic_line WHERE study_id = :study_id ORDER BY position"
SELECT_NEXT_POSITION = "SELECT COALESCE(MAX(position) + 1, 0) AS position FROM arithmetic_line WHERE study_id = :study_id"
SELECT_LINE = "SELECT study_id, document FROM arithmetic_line WHERE id = :id"
DELETE_LINE = "DELETE FROM arithmetic_line WHERE id = :id"


@dataclass(frozen=True)
class StoredLine:
    """A line with the id of its row."""

    id: int
    line: ArithmeticLine


def add_lines(conn: sqlite3.Connection, study_id: int, lines: Iterable[ArithmeticLine]) -> None:
    """Store lines of a study, after those that are there."""
    first = int(conn.execute(SELECT_NEXT_POSITION, {"study_id": study_id}).fetchone()["position"])
    for position, line in enumerate(lines, start=first):
        document = _ADAPTER.dump_json(line).decode()
        conn.execute(INSERT_LINE, {"study_id": study_id, "position": position, "document": document})


def _line(row: sqlite3.Row) -> ArithmeticLine:
    return understood(_ADAPTER, row["document"], "a line of arithmetic", strict=False)


def load_lines(conn: Reader, study_id: int) -> tuple[StoredLine, ...]:
    """Return the lines of a study in their order."""
    rows = conn.execute(SELECT_LINES, {"study_id": study_id})
    return tuple(StoredLine(int(row["id"]), _line(row)) for row in rows)


def place_of_line(conn: sqlite3.Connection, line_id: int) -> tuple[int, ArithmeticLine]:
    """Return the study of a line, and the line.

    Raises
    ------
    NotStoredError
        If there is no such line.
    """
    row = conn.execute(SELECT_LINE, {"id": line_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no line {line_id} any more: it was removed meanwhile, undo brings it back")
    return int(row["study_id"]), _line(row)


def remove_line(conn: sqlite3.Connection, line_id: int) -> None:
    """Remove a line; the journal keeps it."""
    conn.execute(DELETE_LINE, {"id": line_id})

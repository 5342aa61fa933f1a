"""Several statements read as one: a sheet asks a dozen small questions of the same moment.

Who loads something asks a `Reader`, which is a connection, or what was gathered from one: a question that was gathered is
answered from there, any other by the connection. What is asked, and how it is answered, is the same either way.
"""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Iterable, Iterator, Mapping
from functools import lru_cache
from typing import Any, Protocol

Asked = tuple[str, Mapping[str, Any]]
"""A statement and its parameters."""


class Rows(Protocol):
    """Rows of an answer, each by column."""

    def fetchone(self) -> Any:
        """Return the next row, or None."""

    def fetchall(self) -> list[Any]:
        """Return the rows that are left."""

    def __iter__(self) -> Iterator[Any]:
        """Return itself."""


class Reader(Protocol):
    """Answers statements that only read."""

    def execute(self, sql: str, parameters: Any = ..., /) -> Rows:
        """Return the rows of a statement."""


class _Answer:
    """Rows that are there already."""

    def __init__(self, rows: list[dict[str, Any]]) -> None:
        self._rows = iter(rows)

    def fetchone(self) -> dict[str, Any] | None:
        return next(self._rows, None)

    def fetchall(self) -> list[dict[str, Any]]:
        return list(self._rows)

    def __iter__(self) -> Iterator[dict[str, Any]]:
        return self._rows


class Gathered:
    """Answers from what was gathered, and asks the connection for the rest."""

    def __init__(self, conn: sqlite3.Connection, answers: dict[Any, list[dict[str, Any]]]) -> None:
        self.conn = conn
        self.answers = answers

    def execute(self, sql: str, parameters: Mapping[str, Any] | None = None, /) -> Rows:
        """Return the rows of a statement."""
        named = parameters or {}
        rows = self.answers.get(_key(sql, named))
        return self.conn.execute(sql, named) if rows is None else _Answer(rows)


def _key(sql: str, named: Mapping[str, Any]) -> Any:
    return sql, tuple(sorted(named.items()))


_COLUMNS: dict[str, tuple[str, ...]] = {}
"""Of the answer of a statement; the tables of a running server do not change."""


def gathered(reader: Reader, asked: Iterable[Asked]) -> Gathered:
    """Ask several statements at once and return a reader that answers them.

    Parameters
    ----------
    reader : Reader
        A connection within a snapshot or a transaction; what it has gathered already stays.
    asked : iterable
        Statements with parameters of plain values; their rows keep the order they ask for.
    """
    if isinstance(reader, Gathered):
        conn, answers = reader.conn, dict(reader.answers)
    else:
        assert isinstance(reader, sqlite3.Connection)
        conn, answers = reader, {}
    wanted = [(sql, named) for sql, named in asked if _key(sql, named) not in answers]
    if not wanted:
        return Gathered(conn, answers)
    columns = tuple(_columns(conn, sql, named) for sql, named in wanted)
    statement = _joined(tuple(sql for sql, _ in wanted), columns)
    cursor = conn.cursor()
    cursor.row_factory = None
    parameters = {f"{name}_{i}": value for i, (_, named) in enumerate(wanted) for name, value in named.items()}
    result: list[list[dict[str, Any]]] = [[] for _ in wanted]
    for row in cursor.execute(statement, parameters):
        result[row[0]].append(dict(zip(columns[row[0]], row[1:], strict=False)))
    for (sql, named), rows in zip(wanted, result, strict=True):
        answers[_key(sql, named)] = rows
    return Gathered(conn, answers)


@lru_cache(maxsize=64)
def _joined(statements: tuple[str, ...], columns: tuple[tuple[str, ...], ...]) -> str:
    """Return statements as one, whose rows begin with the number of theirs; its parameters end in it."""
    width = max(len(names) for names in columns)
    parts = []
    for i, (sql, names) in enumerate(zip(statements, columns, strict=True)):
        text = re.sub(r":([a-z][a-z_]*)", rf":\1_{i}", sql)
        filled = ", ".join([*(f'"{name}"' for name in names), *["NULL"] * (width - len(names))])
        ordered = text if "LIMIT" in text else f"{text} LIMIT -1"  # a limit keeps the order of what is inside
        parts.append(f"SELECT {i}, {filled} FROM ({ordered})")
    return " UNION ALL ".join(parts)


def _columns(conn: sqlite3.Connection, sql: str, named: Mapping[str, Any]) -> tuple[str, ...]:
    if sql not in _COLUMNS:
        description = conn.execute(f"SELECT * FROM ({sql}) LIMIT 0", named).description
        _COLUMNS[sql] = tuple(column[0] for column in description)
    return _COLUMNS[sql]

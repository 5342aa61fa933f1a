"""Which row a migration cannot carry: found by leaving rows out until one is left with which the migration fails."""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Iterator, Sequence

_READ_FROM = re.compile(r"\b(?:FROM|UPDATE|JOIN)\s+(\w+)", re.IGNORECASE)
MOST_SHOWN, LONGEST_SHOWN = 4, 40


def misfit_words(conn: sqlite3.Connection, script: str) -> str:
    """Return which row a script fails at, in words; empty where it is at no single one.

    Parameters
    ----------
    conn : sqlite3.Connection
        Outside a transaction, on a database that the script was not applied to; it is left as it is.
    script : str
        SQL.
    """
    conn.execute("BEGIN IMMEDIATE")
    try:
        for statement in statements_of(script):
            if _passes(conn, statement):
                conn.execute(statement)
                continue
            for table in dict.fromkeys(_READ_FROM.findall(statement)):
                if (row := _row_at_fault(conn, table, statement)) is not None:
                    return _words(conn, table, row)
            return ""
        at_fault = conn.execute("PRAGMA foreign_key_check").fetchone()
        if at_fault is None or at_fault["rowid"] is None:
            return ""
        return f"{_words(conn, at_fault['table'], at_fault['rowid'])}, which names a row of {at_fault['parent']} that is gone,"
    finally:
        conn.execute("ROLLBACK")


def statements_of(script: str) -> Iterator[str]:
    """Return the statements of a script; one of a trigger holds several lines that end in a semicolon."""
    statement = ""
    for line in script.splitlines(keepends=True):
        statement += line
        if sqlite3.complete_statement(statement):
            yield statement
            statement = ""


def _passes(conn: sqlite3.Connection, statement: str, without: tuple[str, Sequence[int]] | None = None) -> bool:
    """Return whether a statement can be run, without some rows of a table; nothing of it stays."""
    conn.execute("SAVEPOINT tried")
    try:
        if without is not None:
            table, rows = without
            conn.executemany(f"DELETE FROM {table} WHERE rowid = ?", ((row,) for row in rows))
        conn.execute(statement)
    except sqlite3.Error:
        return False
    finally:
        conn.execute("ROLLBACK TO tried")
        conn.execute("RELEASE tried")
    return True


def _row_at_fault(conn: sqlite3.Connection, table: str, statement: str) -> int | None:
    """Return the row of a table that a statement fails at on its own, or None where there is none such."""
    if not conn.execute("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = :table", {"table": table}).fetchone():
        return None
    rows = [row[0] for row in conn.execute(f"SELECT rowid FROM {table}")]
    left = rows
    while len(left) > 1:
        half = left[: len(left) // 2]
        kept = set(half)
        others = [row for row in rows if row not in kept]
        left = left[len(half) :] if _passes(conn, statement, (table, others)) else half
    return left[0] if left and not _passes(conn, statement, (table, [row for row in rows if row != left[0]])) else None


def _words(conn: sqlite3.Connection, table: str, row: int) -> str:
    held = conn.execute(f"SELECT * FROM {table} WHERE rowid = :row", {"row": row}).fetchone()
    shown = [(key, held[key]) for key in held.keys() if held[key] not in (None, "", row)][:MOST_SHOWN]  # noqa: SIM118
    return f"row {row} of {table} ({', '.join(f'{key} {str(value)[:LONGEST_SHOWN]!r}' for key, value in shown)})"

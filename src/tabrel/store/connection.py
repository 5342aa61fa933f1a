"""Open the database, and make several writes one."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path


def connect(path: Path) -> sqlite3.Connection:
    """Open the database; the only place that sets connection options.

    A connection may pass between threads, since the server opens one for each request in whichever
    worker thread comes; it is used by one at a time.
    """
    conn = sqlite3.connect(path, isolation_level=None, check_same_thread=False)
    conn.row_factory = sqlite3.Row
    for pragma in ("foreign_keys = ON", "journal_mode = WAL", "busy_timeout = 5000"):
        conn.execute(f"PRAGMA {pragma}")
    return conn


@contextmanager
def transaction(conn: sqlite3.Connection) -> Iterator[sqlite3.Connection]:
    """Commit everything in the block, or nothing."""
    conn.execute("BEGIN IMMEDIATE")
    try:
        yield conn
        conn.execute("COMMIT")
    except BaseException:
        if conn.in_transaction:
            conn.execute("ROLLBACK")
        raise


def inserted_id(cursor: sqlite3.Cursor) -> int:
    """Return the id of the row just inserted."""
    if cursor.lastrowid is None:
        raise sqlite3.ProgrammingError("the statement inserted no row")
    return cursor.lastrowid

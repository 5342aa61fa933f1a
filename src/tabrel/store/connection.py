"""Open the database, and make several writes one."""

from __future__ import annotations

import sqlite3
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Literal

from tabrel.store.errors import BusyError

BUSY_SECONDS = 5.0
"""A write waits so long for others before it is refused."""

_TURNS: dict[str, threading.Lock] = {}
"""Whose turn it is to write, by file: threads of one process wait in line here, where none is passed over."""


class Database(sqlite3.Connection):
    """A connection that knows its file, and the window whose changes it makes."""

    path: str = ""
    window: str | None = None


def window_of(conn: sqlite3.Connection) -> str | None:
    """Return the window whose changes a connection makes; None where it was not said."""
    return conn.window if isinstance(conn, Database) else None


Access = Literal["create", "write", "read", "frozen"]
"""Make the file if it is not there; change it; only read it; only read what is in the main file, which nobody changes."""

_MODES: dict[Access, str] = {"create": "mode=rwc", "write": "mode=rw", "read": "mode=rw", "frozen": "mode=ro&immutable=1"}


def connect(path: Path, *, window: str | None = None, access: Access = "write") -> Database:
    """Open the database; the only place that sets connection options.

    A connection may pass between threads, since the server opens one for each request in whichever
    worker thread comes; it is used by one at a time.

    Raises
    ------
    sqlite3.Error
        If the file is not there, or cannot be opened; see `errors.fault_of`.
    """
    address = f"{path.absolute().as_uri()}?{_MODES[access]}"
    conn = sqlite3.connect(address, uri=True, isolation_level=None, check_same_thread=False, factory=Database)
    conn.path = str(path)
    conn.window = window
    conn.row_factory = sqlite3.Row
    pragmas = ["foreign_keys = ON", f"busy_timeout = {1000 * BUSY_SECONDS:.0f}"]
    pragmas.append("journal_mode = WAL" if access in ("create", "write") else "query_only = ON")
    try:
        for pragma in pragmas:
            conn.execute(f"PRAGMA {pragma}")
    except BaseException:
        conn.close()
        raise
    return conn


@contextmanager
def transaction(conn: sqlite3.Connection) -> Iterator[sqlite3.Connection]:
    """Commit everything in the block, or nothing; a block within another one is part of it.

    From its first line no one else writes: what is decided in the block holds when it is written.

    Raises
    ------
    BusyError
        If others write longer than `BUSY_SECONDS`.
    """
    if conn.in_transaction:
        yield conn
        return
    turn = _TURNS.setdefault(conn.path if isinstance(conn, Database) else "", threading.Lock())
    if not turn.acquire(timeout=BUSY_SECONDS):
        raise BusyError
    try:
        conn.execute("BEGIN IMMEDIATE")
        try:
            yield conn
            conn.execute("COMMIT")
        except BaseException:
            if conn.in_transaction:
                conn.execute("ROLLBACK")
            raise
    finally:
        turn.release()


@contextmanager
def snapshot(conn: sqlite3.Connection) -> Iterator[sqlite3.Connection]:
    """Read everything in the block as it was at one moment, whatever others write meanwhile."""
    if conn.in_transaction:
        yield conn
        return
    conn.execute("BEGIN")
    try:
        yield conn
    finally:
        if conn.in_transaction:
            conn.execute("ROLLBACK")  # nothing was written


def inserted_id(cursor: sqlite3.Cursor) -> int:
    """Return the id of the row just inserted."""
    if cursor.lastrowid is None:
        raise sqlite3.ProgrammingError("the statement inserted no row")
    return cursor.lastrowid

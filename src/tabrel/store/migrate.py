"""Numbered migrations, forward only, each whole or not at all."""

from __future__ import annotations

import sqlite3
from functools import cache
from importlib.resources import files
from pathlib import Path
from time import sleep

from tabrel.store import from_22
from tabrel.store.connection import connect
from tabrel.store.errors import MigrationError, MisfitError, fault_of, primary_code
from tabrel.store.journal import install_triggers
from tabrel.store.misfit import misfit_words


@cache
def shipped_migrations() -> dict[int, str]:
    """Return the migrations that come with the application, by number."""
    folder = files("tabrel.store").joinpath("migrations")
    scripts = sorted((entry.name, entry.read_text("utf-8")) for entry in folder.iterdir() if entry.name.endswith(".sql"))
    return {int(name.split("_")[0]): text for name, text in scripts}


def migrate(conn: sqlite3.Connection, scripts: dict[int, str]) -> None:
    """Apply the scripts above the database's ``user_version``.

    Raises
    ------
    MigrationError
        If the database is newer than the scripts, or older than what they begin from.
    MisfitError
        If a script meets what it cannot carry; nothing of that script stays.
    """
    applied = conn.execute("PRAGMA user_version").fetchone()[0]
    _require_known(applied, scripts)
    conn.execute("PRAGMA foreign_keys = OFF")  # no effect inside a transaction, so set here
    try:
        for number in sorted(n for n in scripts if n > applied):
            _apply(conn, number, scripts[number] if applied != from_22.VERSION or number != FIRST else None)
    finally:
        conn.execute("PRAGMA foreign_keys = ON")


FIRST = from_22.VERSION + 1
"""The version whose script makes all tables."""


def _apply(conn: sqlite3.Connection, number: int, script: str | None) -> None:
    """Apply a script, or where there is none bring over a database of the version before the first script."""
    try:
        conn.executescript(f"BEGIN IMMEDIATE;\n{script or ''}\n;PRAGMA user_version = {number};")
        if script is None:
            from_22.carry_over(conn)
        if conn.execute("PRAGMA foreign_key_check").fetchall():
            raise MisfitError(f"version {number} breaks a foreign key")
        conn.execute("COMMIT")
    except BaseException as error:
        if conn.in_transaction:
            conn.execute("ROLLBACK")
        is_misfit = isinstance(error, MisfitError | KeyError | TypeError | ValueError)
        if is_misfit or (isinstance(error, sqlite3.Error) and fault_of(error) is None):
            row = misfit_words(conn, script or from_22.SCRIPT)
            raise MisfitError(
                f"the database cannot be brought up to date: {row or 'something in it'} does not fit version {number} ({error}). "
                "It is left as it was: correct that row, or put an older copy back"
            ) from error
        raise


SELECT_COLUMNS = """
SELECT made.name AS table_name, held.name AS column_name FROM sqlite_master AS made, pragma_table_info(made.name) AS held
WHERE made.type = 'table'
"""


@cache
def _columns_made() -> frozenset[tuple[str, str]]:
    """Return every table and column that the shipped migrations make."""
    conn = sqlite3.connect(":memory:", isolation_level=None)
    try:
        migrate(conn, shipped_migrations())
        return frozenset(conn.execute(SELECT_COLUMNS))
    finally:
        conn.close()


def lost_columns(conn: sqlite3.Connection) -> list[str]:
    """Return the columns that a database of the newest version lacks, such as ``sample.label``: one flipped bit renames one."""
    if conn.execute("PRAGMA user_version").fetchone()[0] != max(shipped_migrations()):
        return []
    there = {tuple(row) for row in conn.execute(SELECT_COLUMNS)}
    return [f"{table}.{column}" for table, column in sorted(_columns_made() - there)]


APPLICATION_ID = 0x54616272
"""Of the header of a database of this program: "Tabr"."""


def open_database(path: Path) -> None:
    """Create the database or bring it up to date; where nothing is to be changed, nothing is written.

    Raises
    ------
    MigrationError
        If the file is no database of this program or a newer one, or its folder cannot be made.
    sqlite3.Error
        If it cannot be read or written; see `errors.fault_of`.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise MigrationError(f"the folder {path.parent} cannot be made ({error.strerror}): choose another") from error
    if path.is_dir():
        raise MigrationError(f"{path} is a folder: name a file in it")
    if path.is_file() and path.stat().st_size:
        require_own(path)  # before anything is opened for writing
    conn = connect(path, access="create")
    try:
        conn.execute("BEGIN IMMEDIATE")  # whether it can be written at all
        conn.execute("ROLLBACK")
        migrate(conn, shipped_migrations())
        install_triggers(conn)
    finally:
        conn.close()


def needs_migration(path: Path) -> bool:
    """Return whether a file is a database of an older version of this program."""
    if not (path.is_file() and path.stat().st_size):
        return False
    require_own(path)
    conn = connect(path, access="read")
    try:
        version = int(conn.execute("PRAGMA user_version").fetchone()[0])
    finally:
        conn.close()
    return 0 < version < max(shipped_migrations())


def require_own(path: Path) -> None:
    """Raise `MigrationError` for another program's file."""
    signed, version, tables = _head_of(path)
    if version < 0:
        raise MigrationError(f"{path} says it has version {version}, which none has: choose another file, or put back a copy")
    if signed != APPLICATION_ID and (signed or tables):
        raise MigrationError(f"{path} is another program's database: it is left as it is, choose another file")
    _require_known(version, shipped_migrations())


LOOKS, BETWEEN_LOOKS = 6, 0.05
"""A file that is written while its head is read may seem damaged for a moment: it is read so often, so far apart. [s]"""


def _head_of(path: Path) -> tuple[int, int, set[str]]:
    """Return signature, version and tables of a file, read without touching it, whoever writes it meanwhile."""
    left = LOOKS
    while True:
        left -= 1
        try:
            conn = connect(path, access="frozen")
            try:
                signed, version = (conn.execute(f"PRAGMA {name}").fetchone()[0] for name in ("application_id", "user_version"))
                tables = {row["name"] for row in conn.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
                return signed, version, tables
            finally:
                conn.close()
        except sqlite3.DatabaseError as error:
            if primary_code(error) == sqlite3.SQLITE_NOTADB:
                raise MigrationError(f"{path} is no Tabrel database ({error}): choose another file") from error
            if not left or primary_code(error) != sqlite3.SQLITE_CORRUPT:
                raise
            sleep(BETWEEN_LOOKS)


def _require_known(version: int, scripts: dict[int, str]) -> None:
    if scripts and version > max(scripts):
        raise MigrationError(f"the database has version {version}, newer than this program: start a newer Tabrel")
    if scripts and 0 < version < min(scripts) - 1:
        raise MigrationError(
            f"the database has version {version}, and this program brings up to date what has {min(scripts) - 1} or more: "
            f"open it once with the Tabrel that makes databases of version {min(scripts) - 1}, then with this one"
        )

"""Numbered migrations, forward only, each whole or not at all."""

from __future__ import annotations

import sqlite3
from importlib.resources import files
from pathlib import Path

from tabrel.store.connection import connect, transaction
from tabrel.store.errors import MigrationError
from tabrel.store.journal import install_triggers


def shipped_migrations() -> dict[int, str]:
    """Return the migrations that come with the application, by number."""
    folder = files("tabrel.store").joinpath("migrations")
    scripts = sorted((entry.name, entry.read_text("utf-8")) for entry in folder.iterdir() if entry.name.endswith(".sql"))
    return {int(name.split("_")[0]): text for name, text in scripts}


def migrate(conn: sqlite3.Connection, scripts: dict[int, str]) -> None:
    """Apply the scripts above the database's ``user_version``.

    Parameters
    ----------
    conn : sqlite3.Connection
        Outside a transaction.
    scripts : dict
        SQL by number.

    Raises
    ------
    MigrationError
        If the database is newer than the scripts, or a script breaks a foreign key; nothing of that
        script stays.
    """
    applied = conn.execute("PRAGMA user_version").fetchone()[0]
    if scripts and applied > max(scripts):
        raise MigrationError(f"the database has version {applied}, newer than this program: start a newer Tabrel")
    conn.execute("PRAGMA foreign_keys = OFF")  # no effect inside a transaction, so set here
    try:
        for number in sorted(n for n in scripts if n > applied):
            _apply(conn, number, scripts[number])
    finally:
        conn.execute("PRAGMA foreign_keys = ON")


def _apply(conn: sqlite3.Connection, number: int, script: str) -> None:
    try:
        conn.executescript(f"BEGIN IMMEDIATE;\n{script}\n;PRAGMA user_version = {number};")
        if conn.execute("PRAGMA foreign_key_check").fetchall():
            raise MigrationError(f"migration {number} breaks a foreign key")
        conn.execute("COMMIT")
    except BaseException:
        if conn.in_transaction:
            conn.execute("ROLLBACK")
        raise


def open_database(path: Path) -> None:
    """Create the database or bring it up to date.

    Raises
    ------
    MigrationError
        If the file is no database of this program or a newer one, or its folder cannot be made.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise MigrationError(f"the folder {path.parent} cannot be made ({error.strerror}): choose another") from error
    try:
        conn = connect(path)
    except sqlite3.DatabaseError as error:
        raise MigrationError(f"{path} is no Tabrel database ({error}): choose another file") from error
    try:
        migrate(conn, shipped_migrations())
        with transaction(conn):
            install_triggers(conn)
    finally:
        conn.close()

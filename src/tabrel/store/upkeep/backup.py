"""A copy of a database while others write to it, and putting one back."""

from __future__ import annotations

import os
import shutil
import sqlite3
from datetime import datetime
from pathlib import Path

from tabrel.core.errors import TabrelError
from tabrel.store.connection import connect
from tabrel.store.migrate import open_database, require_own
from tabrel.store.service import served_alone
from tabrel.store.upkeep.verify import faults_of

PAGES_AT_ONCE = 2000
"""Others get to write in between."""

ROOM = 2
"""A copy is left out where less than so many times the file's size is free."""


class BackupError(TabrelError):
    """A copy cannot be made or put back; nothing was changed."""


def backup(database: Path, target: Path) -> Path:
    """Copy a database while it is in use, verify the copy, and return where it is.

    Copying the open file itself would lose what still lies beside it; SQLite's online backup does not.

    Parameters
    ----------
    database : Path
    target : Path
        A file that is not there yet, or a folder, in which the copy is named by date and time.

    Raises
    ------
    BackupError
        If there is no room, something is there already, or the copy is not whole.
    """
    if not database.is_file():
        raise BackupError(f"there is no database {database}: name it with --database")
    require_own(database)
    if target.is_dir():
        target = target / f"{database.stem}-{_stamp()}.db"
    if target.exists():
        raise BackupError(f"{target} is there already: name another file, nothing is overwritten")
    if not target.parent.is_dir():
        raise BackupError(f"there is no folder {target.parent}: make it first, or name another")
    _require_room(database, target.parent)
    part = target.with_name(target.name + ".part")
    try:
        _copy(database, part)
        faults = faults_of(part, access="frozen")
        if faults:
            raise BackupError(f"the copy is not whole, and was not kept: {faults[0]}")
        os.replace(part, target)
    finally:
        part.unlink(missing_ok=True)
    return target


def restore(database: Path, source: Path) -> Path | None:
    """Put a copy in the place of a database that nobody serves, and return where what was there is kept.

    Raises
    ------
    BackupError
        If the copy is not whole, or there is no room.
    ServedAlreadyError
        If a server has the database.
    """
    if not source.is_file():
        raise BackupError(f"there is no copy {source}: name the file that was backed up")
    if source.resolve() == database.resolve():
        raise BackupError(f"{source} is the database itself: name a copy of it")
    faults = [fault for fault in faults_of(source) if not fault.startswith("it is of version")]
    if faults:
        raise BackupError(f"{source} is not whole: {faults[0]}")
    with served_alone(database, "tabrel restore"):
        database.parent.mkdir(parents=True, exist_ok=True)
        _require_room(source, database.parent)
        part = database.with_name(database.name + ".part")
        try:
            _copy(source, part)
            kept = _put_aside(database)
            os.replace(part, database)
        finally:
            part.unlink(missing_ok=True)
        open_database(database)
    return kept


def _put_aside(database: Path) -> Path | None:
    """Rename a database with what lies beside it, so that it stays whole, and return its new name."""
    if not database.exists():
        return None
    kept = database.with_name(f"{database.stem}-before-{_stamp()}{database.suffix}")
    for end in ("-wal", "-shm", ""):
        beside = database.with_name(database.name + end)
        if beside.exists():
            os.replace(beside, kept.with_name(kept.name + end))
    return kept


def _copy(database: Path, part: Path) -> None:
    part.unlink(missing_ok=True)
    source, copy = connect(database, access="read"), sqlite3.connect(part)
    try:
        source.backup(copy, pages=PAGES_AT_ONCE, sleep=0.01)
        copy.execute("PRAGMA journal_mode = DELETE")  # one file, without another beside it
    finally:
        copy.close()
        source.close()
    with part.open("rb+") as file:
        os.fsync(file.fileno())


def _require_room(database: Path, folder: Path) -> None:
    beside = database.with_name(database.name + "-wal")
    size = database.stat().st_size + (beside.stat().st_size if beside.is_file() else 0)
    free = shutil.disk_usage(folder).free
    if free < ROOM * size:
        raise BackupError(f"{folder} has {free / 1e6:.0f} MB free, and {ROOM * size / 1e6:.0f} MB are wanted: make room first")


def _stamp() -> str:
    return datetime.now().strftime("%Y-%m-%d-%H%M%S")

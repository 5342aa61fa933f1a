"""A copy of a database while others write to it, and putting one back."""

from __future__ import annotations

import os
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from datetime import datetime
from pathlib import Path

from tabrel.core.errors import TabrelError
from tabrel.store.connection import connect
from tabrel.store.errors import fault_of
from tabrel.store.identity import renew_identity
from tabrel.store.migrate import open_database, require_own
from tabrel.store.served_alone import served_alone
from tabrel.store.upkeep.verify import OF_VERSION, damage_of, faults_of

PAGES_AT_ONCE = 2000
"""Others get to write in between."""

STAMP = "%Y-%m-%d-%H%M%S"
"""How a copy is named by its time."""

COPIES_OF_SPACE = 2
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
    _require_space(database, target.parent)
    part = target.with_name(target.name + ".part")
    with _in_words(target.parent):
        try:
            _copy(database, part)
            faults = faults_but_of_version(part)
            if faults:
                raise BackupError(f"the copy is not whole, and was not kept: {faults[0]}")
            os.replace(part, target)
        finally:
            part.unlink(missing_ok=True)
    return target


@contextmanager
def _in_words(folder: Path) -> Iterator[None]:
    """Say what a disk or a database refuses as one sentence."""
    try:
        yield
    except OSError as error:
        raise BackupError(f"{folder} cannot be written ({error.strerror}): see that there is room and who may write") from error
    except sqlite3.Error as error:
        fault = fault_of(error)
        raise BackupError(str(fault) if fault else f"the copy could not be made ({error})") from error


def faults_but_of_version(copy: Path) -> list[str]:
    """Return what is wrong with a copy that nobody writes; to be of an older version is no fault of a copy."""
    return [fault for fault in faults_of(copy, access="frozen") if not fault.startswith(OF_VERSION)]


def restore(database: Path, source: Path) -> Path | None:
    """Put a copy in the place of a database that nobody serves, and return where what was there is kept.

    Raises
    ------
    BackupError
        If the copy is not whole, or there is no room.
    ServedAlreadyError
        If a server has the database.
    """
    with served_alone(database, "tabrel restore"):
        return put_back(database, source)


def put_back(database: Path, source: Path) -> Path | None:
    """Put a copy in the place of a database that is not open, brought up to date, and return where what was there is kept.

    It becomes another database: windows that have seen the old one are told so.

    Raises
    ------
    BackupError
        If the copy is not whole, or there is no room; the database stays as it was.
    """
    if not source.is_file():
        raise BackupError(f"there is no copy {source}: name the file that was backed up")
    if source.resolve() == database.resolve():
        raise BackupError(f"{source} is the database itself: name a copy of it")
    if damage := damage_of(source):
        raise BackupError(f"{source} is not whole ({damage}): choose another copy")
    part = database.with_name(database.name + ".part")
    with _in_words(database.parent):
        database.parent.mkdir(parents=True, exist_ok=True)
        _require_space(source, database.parent)
        try:
            _copy(source, part)
            faults = faults_but_of_version(part)
            if faults:
                raise BackupError(f"{source} is not whole: {faults[0]}")
            open_database(part)
            with closing(connect(part)) as conn:
                renew_identity(conn)
            kept = _put_aside(database)
            os.replace(part, database)
        finally:
            for end in ("", "-wal", "-shm"):
                part.with_name(part.name + end).unlink(missing_ok=True)
    return kept


def _put_aside(database: Path) -> Path | None:
    """Give a database a second name, with what lies beside it, so that it stays whole; it is never absent meanwhile."""
    if not database.exists():
        return None
    with suppress(sqlite3.Error):  # whoever closes it last merges what lies beside it; a damaged one is kept as it is
        connect(database).close()
    kept = database.with_name(f"{database.stem}-before-{_stamp()}{database.suffix}")
    try:
        os.link(database, kept)
    except OSError:
        shutil.copyfile(database, kept)
    for end in ("-wal", "-shm"):
        part = database.with_name(database.name + end)
        if part.exists():
            os.replace(part, kept.with_name(kept.name + end))
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


def _require_space(database: Path, folder: Path) -> None:
    log = database.with_name(database.name + "-wal")
    size = database.stat().st_size + (log.stat().st_size if log.is_file() else 0)
    free = shutil.disk_usage(folder).free
    if free < COPIES_OF_SPACE * size:
        wanted = f"{COPIES_OF_SPACE * size / 1e6:.0f} MB are wanted"
        raise BackupError(f"{folder} has {free / 1e6:.0f} MB free, and {wanted}: free some space first")


def _stamp() -> str:
    return datetime.now().strftime(STAMP)

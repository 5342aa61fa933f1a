"""Errors of the store, and what a fault of the database means for a person."""

from __future__ import annotations

import sqlite3

from tabrel.core.errors import TabrelError


class NotStoredError(TabrelError):
    """There is no such row."""


class MigrationError(TabrelError):
    """A migration cannot be applied."""


class MisfitError(MigrationError):
    """A migration meets a row that it cannot carry."""


class NothingToUndoError(TabrelError):
    """There is no change to undo, or none to redo."""


class ConflictError(TabrelError):
    """The fact to be changed differs from the one the window showed."""


class ChangedMeanwhileError(ConflictError):
    """The fact to be changed has another revision than the window showed."""


class OtherDatabaseError(ConflictError):
    """The window has seen another database than the one that is there."""

    def __init__(self) -> None:
        super().__init__("a copy of the database was put back since this window was opened: nothing was changed, load it again")


class RevisionNeededError(TabrelError):
    """A change that overwrites does not say which revision it has seen."""

    def __init__(self) -> None:
        super().__init__("the request does not say what it has seen: send its revision in If-Match, from its ETag or the sheet")


class DatabaseFaultError(TabrelError):
    """The database cannot be read or written; nothing was changed."""


class BusyError(DatabaseFaultError):
    """Others write to the database for longer than a change waits."""

    def __init__(self) -> None:
        super().__init__(
            "the database is busy: other windows or programs are writing. Nothing was changed; try again in a moment"
        )


class NotWritableError(DatabaseFaultError):
    """The database cannot be written; it may be there to be read."""


class DiskFullError(NotWritableError):
    """There is no room to write."""


_FAULTS = {
    sqlite3.SQLITE_READONLY: "the database cannot be written: the file or its folder is read-only. Allow writing, then try again",
    sqlite3.SQLITE_CANTOPEN: "the database file cannot be opened: see that it is there and that its folder can be written",
    sqlite3.SQLITE_PERM: "the database file may not be opened: see who may read and write it",
    sqlite3.SQLITE_IOERR: "the disk does not read or write the database: see that it is there and has room",
    sqlite3.SQLITE_NOTADB: "the file is not a database: choose another, or put back a copy of it",
    sqlite3.SQLITE_CORRUPT: "the database file is damaged: put back a copy of it, and keep the damaged file",
}


def primary_code(error: sqlite3.Error) -> int | None:
    """Return SQLite's primary error code, or None where it has none."""
    code = getattr(error, "sqlite_errorcode", None)
    return None if code is None else int(code) & 0xFF


_NOT_WRITABLE = (sqlite3.SQLITE_READONLY, sqlite3.SQLITE_CANTOPEN, sqlite3.SQLITE_PERM, sqlite3.SQLITE_IOERR)


def is_not_text(error: sqlite3.Error) -> bool:
    """Return whether a text of the database is none any more."""
    return "Could not decode to UTF-8" in str(error)


def fault_of(error: sqlite3.Error) -> DatabaseFaultError | None:
    """Return what a fault of the database means, or None for an error of the program."""
    primary = primary_code(error)
    if primary in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
        return BusyError()
    if primary == sqlite3.SQLITE_FULL:
        return DiskFullError("the disk is full: nothing was changed. Free some room, then try again")
    if is_not_text(error):
        primary = sqlite3.SQLITE_CORRUPT
    text = _FAULTS.get(primary) if primary is not None else None
    if text is None and "no such table" in str(error):
        text = "the database file has been replaced or emptied meanwhile: stop Tabrel, put the file back, and start again"
    kind = NotWritableError if primary in _NOT_WRITABLE else DatabaseFaultError
    return kind(f"{text}. Nothing was changed") if text else None

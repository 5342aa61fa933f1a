"""A database as it is served: connections are handed out, and called back while a copy is put in its place.

It is opened to be changed; where it cannot be written, to be read and exported; where it is damaged, its last good copy is
read instead until that is put back.
"""

from __future__ import annotations

import atexit
import shutil
import sqlite3
import tempfile
import threading
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from pathlib import Path
from time import monotonic

from tabrel.store.connection import Access, Database, connect
from tabrel.store.errors import (
    BusyError,
    DatabaseFaultError,
    MigrationError,
    MisfitError,
    NotWritableError,
    OtherDatabaseError,
    fault_of,
)
from tabrel.store.identity import identity_of
from tabrel.store.migrate import needs_migration, open_database, require_own, shipped_migrations
from tabrel.store.upkeep.backup import BackupError, PutBack, put_back
from tabrel.store.upkeep.kept import folder_of, is_kept_as_it_is, keep_copy, last_good, missing_words
from tabrel.store.upkeep.verify import damage_of


@dataclass(frozen=True)
class Opened:
    """How a database could be opened.

    Attributes
    ----------
    path : Path
        Of the file that is read; a copy where the file itself cannot be opened.
    access : str
        Of every connection.
    warning : str
        Why nothing can be changed, one or two sentences; empty where it can.
    note : str
        What else has to be known, such as a copy that was left out; mostly empty.
    """

    path: Path
    access: Access
    warning: str
    note: str = ""


def open_for_service(path: Path) -> Opened:
    """Open the database, which is created or brought up to date; to be read only where it cannot be written or is damaged.

    Before it is brought up to date, a dated copy is kept.

    Raises
    ------
    MigrationError
        If the file is no database of this program or a newer one.
    DatabaseFaultError
        If it can be neither written nor read.
    """
    damage = damage_of(path)
    if damage:
        return _last_good_copy(path, damage)
    try:
        note = _kept_before_migration(path)
        open_database(path)
    except MisfitError as error:
        raise MisfitError(f"{error}; {note or f'a copy of it is in {folder_of(path)}'}") from error
    except sqlite3.Error as error:
        fault = fault_of(error)
        if fault is None:
            raise
        if isinstance(fault, NotWritableError) and path.is_file():
            return _to_be_read(path, fault)
        raise fault from error
    if not _is_readable(path):
        return _last_good_copy(path, "its tables are not readable")
    return Opened(path, "write", "", note)


def _is_readable(path: Path) -> bool:
    """Return whether a database that was opened can be opened again: a quick look does not see all that is wrong."""
    try:
        conn = connect(path, access="read")
        try:
            return bool(identity_of(conn))
        finally:
            conn.close()
    except (sqlite3.DatabaseError, UnicodeDecodeError, TypeError):
        return False


def _kept_before_migration(path: Path) -> str:
    """Keep a copy of a database that is about to be brought up to date, or return why none was kept."""
    if not needs_migration(path) or is_kept_as_it_is(path, "before_migration"):
        return ""
    try:
        keep_copy(path, "before_migration")
    except BackupError as error:
        return f"no copy was kept before the database was brought up to date: {error}"
    return ""


def _last_good_copy(path: Path, damage: str) -> Opened:
    """Return a service that reads the last good copy of a damaged database."""
    good = last_good(path)
    if good is None:
        with suppress(sqlite3.DatabaseError):
            require_own(path)
        raise DatabaseFaultError(
            f"{path} is damaged ({damage}), and there is no good copy of it beside it: put one back with tabrel restore, "
            "and keep the damaged file"
        )
    shown = _temporary() / path.name
    shutil.copyfile(good.path, shown)
    open_database(shown)
    return Opened(
        shown,
        "read",
        f"{path.name} is damaged ({damage}). Shown instead is its last good copy, {good.path.name}; {missing_words(good, path)}. "
        "Nothing can be changed until that copy is put back, under Backups; the damaged file is kept then",
    )


def _to_be_read(path: Path, fault: NotWritableError) -> Opened:
    """Return a service that reads: from a copy, since the newest rows lie in a second file that only a writer can merge."""
    why = f"{str(fault).partition('. ')[0]}. Everything can be read and exported; nothing can be changed"
    folder = _temporary()
    copy = folder / path.name
    try:
        for end in ("", "-wal"):
            part = path.with_name(path.name + end)
            if part.is_file():
                shutil.copyfile(part, folder / part.name)
        open_database(copy)
    except (OSError, sqlite3.Error):
        shutil.rmtree(folder, ignore_errors=True)
        _require_current(path)
        return Opened(path, "frozen", f"{why}, and there is no room for a copy: the latest readings may be missing")
    return Opened(copy, "read", why)


def _temporary() -> Path:
    """Return a folder that is gone when the program ends."""
    folder = Path(tempfile.mkdtemp(prefix="tabrel-"))
    atexit.register(shutil.rmtree, folder, ignore_errors=True)
    return folder


def _require_current(path: Path) -> None:
    require_own(path)
    conn = connect(path, access="frozen")
    try:
        if conn.execute("PRAGMA user_version").fetchone()[0] != max(shipped_migrations()):
            raise MigrationError(
                f"{path} is of another version and cannot be brought up to date here: make room, then start again"
            )
    finally:
        conn.close()


PATIENCE = 10.0
"""So long a copy waits for what is under way before it is put back, and a request while one is. [s]"""


MOST_IDLE = 8
"""So many connections wait for the next request: opening one costs more than most of what is asked."""


def _which_file(path: Path) -> tuple[int, int] | None:
    """Return which file is at a path, or None where there is none."""
    try:
        there = path.stat()
    except OSError:
        return None
    return there.st_dev, there.st_ino


class Service:
    """A database as it is served; shared by the threads of one server.

    Parameters
    ----------
    database : Path
        The file that was named.

    Attributes
    ----------
    opened : Opened
        How it could be opened.
    identity : str
        Of the database: another one once a copy was put in its place.
    left_out : str
        Why the copy of today is missing; empty where it is not.
    """

    def __init__(self, database: Path) -> None:
        self.database = database
        self.left_out = ""
        self._borrowed = 0
        self._changed = threading.Condition()
        self._called_back = False
        self._held: Database | None = None
        self._idle: list[Database] = []
        self._file: tuple[int, int] | None = None
        self._reopen()

    def _reopen(self) -> None:
        self.opened = open_for_service(self.database)
        conn = connect(self.opened.path, access=self.opened.access)
        try:
            self.identity = identity_of(conn)
        finally:
            conn.close()

    @contextmanager
    def borrowed(self, window: str | None = None, seen: str | None = None) -> Iterator[Database]:
        """Lend a connection to whoever answers a request.

        Parameters
        ----------
        window : str, optional
            Whose changes it makes.
        seen : str, optional
            Identity of the database that the window has seen.

        Raises
        ------
        BusyError
            If a copy is being put back, for longer than one waits.
        OtherDatabaseError
            If the window has seen another database.
        """
        with self._changed:
            if not self._changed.wait_for(lambda: not self._called_back, PATIENCE):
                raise BusyError
            if seen is not None and seen != self.identity:
                raise OtherDatabaseError
            self._borrowed += 1
        conn = None
        try:
            conn = self._idle_or_new()
            conn.window = window
            yield conn
        finally:
            with self._changed:
                self._borrowed -= 1
                if conn is not None and self._can_be_reused(conn):
                    self._idle.append(conn)
                elif conn is not None:
                    conn.close()
                self._changed.notify_all()

    def _idle_or_new(self) -> Database:
        """Return a connection to the file that is there now: one to a file that was moved away would take readings with it."""
        there = _which_file(self.opened.path)
        with self._changed:
            if there != self._file:
                self._close_idle()
                self._file = there
            if self._idle:
                return self._idle.pop()
        return connect(self.opened.path, access=self.opened.access)

    def _can_be_reused(self, conn: Database) -> bool:
        return not conn.in_transaction and len(self._idle) < MOST_IDLE and _which_file(self.opened.path) == self._file

    def _close_idle(self) -> None:
        for conn in self._idle:
            conn.close()
        self._idle.clear()

    @contextmanager
    def held_open(self) -> Iterator[None]:
        """Keep the files beside the database there while the block runs: a full disk could not take them anew."""
        self._hold()
        try:
            yield
        finally:
            with self._changed:
                self._close_idle()
            self._let_go()

    def _hold(self) -> None:
        if self.opened.access == "write":
            self._held = connect(self.opened.path)
            self._held.execute("SELECT COUNT(*) FROM sqlite_master").fetchone()

    def _let_go(self) -> None:
        if self._held is not None:
            self._held.close()
            self._held = None

    def put_back(self, source: Path) -> PutBack:
        """Put a copy in the database's place once all connections are back, and return what is kept of what was there.

        Raises
        ------
        BackupError
            If the copy is not whole, or there is no room; the database stays as it was.
        BusyError
            If something else does not come to an end.
        """
        with self._all_back():
            was_held = self._held is not None
            with self._changed:
                self._close_idle()
            self._let_go()
            try:
                kept = put_back(self.database, source)
            finally:
                self._reopen()
                if was_held:
                    self._hold()
        return kept

    @contextmanager
    def _all_back(self) -> Iterator[None]:
        """Lend nothing while the block runs, and begin it when nothing is lent any more."""
        until = monotonic() + PATIENCE
        with self._changed:
            if not self._changed.wait_for(lambda: not self._called_back, PATIENCE):
                raise BusyError
            self._called_back = True
            if not self._changed.wait_for(lambda: self._borrowed == 0, until - monotonic()):
                self._called_back = False
                self._changed.notify_all()
                raise BusyError
        try:
            yield
        finally:
            with self._changed:
                self._called_back = False
                self._changed.notify_all()

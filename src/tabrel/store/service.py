"""Open the database for service: to be changed, or, where that cannot be, to be read and exported; by one server at a time."""

from __future__ import annotations

import atexit
import fcntl
import os
import shutil
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from pathlib import Path

from tabrel.store.connection import Access, connect
from tabrel.store.errors import MigrationError, NotWritableError, fault_of
from tabrel.store.migrate import open_database, require_own, shipped_migrations


@dataclass(frozen=True)
class Service:
    """A database as it is served.

    Attributes
    ----------
    path : Path
        Of the file that is read; a copy where the file itself cannot be opened.
    access : str
        Of every connection.
    warning : str
        Why nothing can be changed, one or two sentences; empty where it can.
    """

    path: Path
    access: Access
    warning: str


def open_for_service(path: Path) -> Service:
    """Open the database, which is created or brought up to date; to be read only where it cannot be written.

    Raises
    ------
    MigrationError
        If the file is no database of this program or a newer one.
    DatabaseFaultError
        If it can be neither written nor read.
    """
    try:
        open_database(path)
    except sqlite3.Error as error:
        fault = fault_of(error)
        if fault is None:
            raise
        if isinstance(fault, NotWritableError) and path.is_file():
            return _to_be_read(path, fault)
        raise fault from error
    return Service(path, "write", "")


def _to_be_read(path: Path, fault: NotWritableError) -> Service:
    """Return a service that reads: from a copy, since the newest rows lie in a second file that only a writer can merge."""
    why = f"{str(fault).partition('. ')[0]}. Everything can be read and exported; nothing can be changed"
    folder = Path(tempfile.mkdtemp(prefix="tabrel-"))
    atexit.register(shutil.rmtree, folder, ignore_errors=True)
    copy = folder / path.name
    try:
        for end in ("", "-wal"):
            beside = path.with_name(path.name + end)
            if beside.is_file():
                shutil.copyfile(beside, folder / beside.name)
        open_database(copy)
    except (OSError, sqlite3.Error):
        shutil.rmtree(folder, ignore_errors=True)
        _require_current(path)
        return Service(path, "frozen", f"{why}, and there is no room for a copy: the latest readings may be missing")
    return Service(copy, "read", why)


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


@contextmanager
def held_open(service: Service) -> Iterator[None]:
    """Keep the files beside a database there while the block runs: a full disk could not take them anew, not even to read."""
    if service.access != "write":
        yield
        return
    conn = connect(service.path)
    try:
        conn.execute("SELECT COUNT(*) FROM sqlite_master").fetchone()
        yield
    finally:
        conn.close()


class ServedAlreadyError(MigrationError):
    """Another server has the database."""


@contextmanager
def served_alone(path: Path, address: str) -> Iterator[None]:
    """Keep other servers from a database while the block runs; where nothing can be written beside it, nobody is kept.

    Raises
    ------
    ServedAlreadyError
        If another server has it, with its address.
    """
    mark = path.with_name(path.name + "-server")
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        held = os.open(mark, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o644)
    except OSError:
        yield
        return
    try:
        try:
            fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as error:
            there = os.pread(held, 200, 0).decode(errors="replace").strip() or "an address it has not said"
            raise ServedAlreadyError(f"{path} is served already, at {there}: open that, or name another --database") from error
        with suppress(OSError):  # on a full disk the address is missing, and the lock holds all the same
            os.truncate(held, 0)
            os.pwrite(held, address.encode(), 0)
        try:
            yield
        finally:
            with suppress(OSError):
                mark.unlink()
    finally:
        os.close(held)  # the lock goes with it, and with the process

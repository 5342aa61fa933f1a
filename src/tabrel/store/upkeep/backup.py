"""A copy of a database while others write to it, and putting one back."""

from __future__ import annotations

import os
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from tabrel.core.errors import TabrelError
from tabrel.store.connection import connect
from tabrel.store.errors import fault_of
from tabrel.store.identity import renew_identity
from tabrel.store.migrate import open_database, require_own
from tabrel.store.served_alone import served_alone
from tabrel.store.study.report_numbers import numbers_given, raise_numbers
from tabrel.store.upkeep.verify import OF_VERSION, damage_of, faults_of

PAGES_AT_ONCE = 2000
"""Others get to write in between."""

STAMP = "%Y-%m-%d-%H%M%S"
"""How a copy is named by its time."""

COPIES_OF_SPACE = 2
"""A copy is left out where less than so many times the file's size is free."""


class BackupError(TabrelError):
    """A copy cannot be made or put back; nothing was changed."""


@dataclass(frozen=True)
class PutBack:
    """What became of a database in whose place a copy was put.

    Attributes
    ----------
    kept : Path or None
        The database as it was; None where there was none.
    reports : tuple of str
        Numbers of the issued reports that the copy lacks.
    folder : Path or None
        Where they are kept as files.
    """

    kept: Path | None = None
    reports: tuple[str, ...] = ()
    folder: Path | None = None

    @property
    def words(self) -> str:
        """What is kept, as the end of a sentence."""
        kept = f"; what was there is kept as {self.kept}" if self.kept else ""
        if not self.reports:
            return kept
        names = (
            f"the issued report {self.reports[0]} is"
            if len(self.reports) == 1
            else f"the issued reports {', '.join(self.reports)} are"
        )
        return f"{kept}; {names} not in the copy, and kept in {self.folder}"


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


def restore(database: Path, source: Path) -> PutBack:
    """Put a copy in the place of a database that nobody serves, and return what is kept of what was there.

    Raises
    ------
    BackupError
        If the copy is not whole, or there is no room.
    ServedAlreadyError
        If a server has the database.
    """
    with served_alone(database, "tabrel restore"):
        return put_back(database, source)


def put_back(database: Path, source: Path) -> PutBack:
    """Put a copy in the place of a database that is not open, brought up to date, and return what is kept of what was there.

    It becomes another database: windows that have seen the old one are told so. No number of an issued report is given again.

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
                raise_numbers(conn, numbers_given(database))
            lost = _reports_lost(database, part)
            kept = _put_aside(database)
            folder = _keep_reports(kept, lost) if kept and lost else None  # before the copy takes its place
            os.replace(part, database)
        finally:
            for end in ("", "-wal", "-shm"):
                part.with_name(part.name + end).unlink(missing_ok=True)
    return PutBack(kept, tuple(row["number"] for row in lost), folder)


SELECT_LOST = """
SELECT id, number FROM main.issued_report AS issued
WHERE NOT EXISTS (SELECT 1 FROM copy.issued_report AS kept WHERE kept.number = issued.number AND kept.sha256 = issued.sha256)
ORDER BY id
"""


def _reports_lost(database: Path, copy: Path) -> list[sqlite3.Row]:
    """Return the reports that were issued in a database and are not in a copy; none where it cannot be read."""
    if not database.is_file():
        return []
    try:
        with closing(connect(database, access="read")) as conn:
            conn.execute("ATTACH :copy AS copy", {"copy": str(copy)})
            return conn.execute(SELECT_LOST).fetchall()
    except (sqlite3.Error, UnicodeDecodeError):
        return []


def _keep_reports(kept: Path, reports: list[sqlite3.Row]) -> Path:
    """Write issued reports into a folder beside the database they are taken from: their pages, and the study they are of."""
    folder = kept.with_name(f"{kept.stem}-reports")
    folder.mkdir(exist_ok=True)
    with closing(connect(kept, access="read")) as conn:
        for report in reports:  # one at a time: all of them may be more than fits in memory
            row = conn.execute("SELECT document, pdf FROM issued_report WHERE id = :id", {"id": report["id"]}).fetchone()
            (folder / f"report {report['number']}.pdf").write_bytes(row["pdf"])
            (folder / f"report {report['number']}.json").write_text(row["document"], encoding="utf-8")
    return folder


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

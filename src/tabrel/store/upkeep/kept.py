"""The copies kept beside a database: made before it is brought up to date, on each day it is used, and when asked for."""

from __future__ import annotations

import glob
import re
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path
from typing import Literal, cast

from tabrel.store.connection import connect
from tabrel.store.errors import MigrationError
from tabrel.store.upkeep.backup import STAMP, BackupError, backup, faults_but_of_version

FOLDER = "backups"
"""Beside the database."""

KEPT = 10
"""So many of those made by themselves are kept, the newest; those that were asked for stay."""

UNDER_WAY_AT_MOST = 3600.0
"""So old a copy that is not finished never will be. [s]"""

CLOCKS_DIFFER = timedelta(minutes=5)

Occasion = Literal["daily", "before_migration", "asked"]


@dataclass(frozen=True)
class Copy:
    """A copy kept beside a database, and what it was made for."""

    path: Path
    occasion: Occasion
    made: datetime

    @property
    def is_of_future(self) -> bool:
        """Whether its date lies ahead: the clock was wrong when it was made, or is now."""
        return self.made > datetime.now().astimezone() + CLOCKS_DIFFER


def folder_of(database: Path) -> Path:
    """Return where the copies of a database are kept."""
    return database.parent / FOLDER


_NAMED = re.compile(r"(?P<stem>.+)-(?P<made>\d{4}-\d\d-\d\d-\d{6})(?:-\d+)?-(?P<occasion>daily|before_migration|asked)\.db")


def copies_of(database: Path) -> list[Copy]:
    """Return the copies kept of a database, those first that hold the most of it: a date is only as good as the clock was."""
    return folder_looked_through(database)[0]


def folder_looked_through(database: Path) -> tuple[list[Copy], list[str]]:
    """Return the copies kept of a database, those first that hold the most of it, and a sentence for what is none."""
    copies, strays = [], []
    for path in sorted(folder_of(database).glob(f"{glob.escape(database.stem)}-*.db")):
        match = _NAMED.fullmatch(path.name)
        if match and match["stem"] != database.stem:
            continue  # of another database in this folder
        try:
            made = datetime.strptime(match["made"], STAMP).astimezone() if match else None
        except ValueError:
            made = None
        if made is None or match is None:
            strays.append(f"{path.name} is not named like a copy: move it elsewhere")
        elif path.is_file():
            copies.append(Copy(path, cast("Occasion", match["occasion"]), made))
        else:
            strays.append(f"{path.name} is no file{', but a link to what is gone' if path.is_symlink() else ''}: remove it")
    rows = _last_shared_rows(database, copies)
    return sorted(
        copies, key=lambda copy: (rows[copy.path], not copy.is_of_future, copy.made, copy.path.name), reverse=True
    ), strays


SELECT_LAST_SHARED = """
SELECT kept.id FROM copy.change AS kept
WHERE EXISTS (SELECT 1 FROM main.change WHERE change.id = kept.id AND change.made_at = kept.made_at)
ORDER BY kept.id DESC LIMIT 1
"""


def _last_shared_rows(database: Path, copies: list[Copy]) -> dict[Path, int]:
    """Return the last row of the journal that each copy shares with a database; 0 where either cannot be read."""
    rows = {copy.path: 0 for copy in copies}
    with suppress(sqlite3.Error, UnicodeDecodeError), closing(connect(database, access="read")) as conn:
        for copy in copies:
            with suppress(sqlite3.Error, UnicodeDecodeError), _attached(conn, copy):
                shared = conn.execute(SELECT_LAST_SHARED).fetchall()
                rows[copy.path] = shared[0]["id"] if shared else 0
    return rows


@contextmanager
def _attached(conn: sqlite3.Connection, copy: Copy) -> Iterator[None]:
    """Have a copy beside a database, as the schema `copy`, while the block runs."""
    conn.execute("ATTACH :copy AS copy", {"copy": f"{copy.path.absolute().as_uri()}?mode=ro&immutable=1"})
    try:
        yield
    finally:
        conn.execute("DETACH copy")


def keep_copy(database: Path, occasion: Occasion) -> Copy:
    """Copy a database into the folder beside it; of the copies made by themselves, the oldest beyond `KEPT` are removed.

    Raises
    ------
    BackupError
        If there is no room, the folder cannot be written, or the copy is not whole.
    """
    folder, made = folder_of(database), datetime.now().astimezone()
    try:
        folder.mkdir(exist_ok=True)
    except OSError as error:
        raise BackupError(f"the folder {folder} cannot be made ({error.strerror}): see who may write there") from error
    for part in folder.glob(f"{database.stem}-*.part"):  # of a copy that was ended from outside
        if part.stat().st_mtime < made.timestamp() - UNDER_WAY_AT_MOST:
            part.unlink(missing_ok=True)
    path, again = folder / f"{database.stem}-{made.strftime(STAMP)}-{occasion}.db", 1
    while path.exists():
        again += 1
        path = folder / f"{database.stem}-{made.strftime(STAMP)}-{again}-{occasion}.db"
    backup(database, path)
    for old in [copy for copy in copies_of(database) if copy.occasion != "asked"][KEPT:]:
        if old.path != path:
            old.path.unlink(missing_ok=True)
    return Copy(path, occasion, made.replace(microsecond=0))


def keep_daily(database: Path) -> Copy | None:
    """Keep the copy of a day on which the database is used, unless it is there already or nothing was written since the last.

    Raises
    ------
    BackupError
        If it cannot be kept.
    """
    copies, now = copies_of(database), datetime.now().astimezone()
    if not database.is_file() or any(copy.made.date() == now.date() and not copy.is_of_future for copy in copies):
        return None
    if copies:
        missing = missing_from(copies[0], database)
        if missing and not missing.changes and not missing.studies and _written(database) < copies[0].path.stat().st_mtime:
            return None
    return keep_copy(database, "daily")


def _written(database: Path) -> float:
    """Return when a database was written last, as the file system has it."""
    files = [database, database.with_name(database.name + "-wal")]
    return max(path.stat().st_mtime for path in files if path.is_file())


def is_kept_as_it_is(database: Path, occasion: Occasion) -> bool:
    """Return whether a copy for an occasion is newer than the database: one more would only push out older ones."""
    return any(copy.occasion == occasion and copy.path.stat().st_mtime > _written(database) for copy in copies_of(database))


def last_good(database: Path) -> Copy | None:
    """Return the newest copy of a database that is whole; one of an older version counts."""
    for copy in copies_of(database):
        try:
            if not faults_but_of_version(copy.path):
                return copy
        except MigrationError:
            continue
    return None


@dataclass(frozen=True)
class Missing:
    """Changes that a copy lacks.

    Attributes
    ----------
    changes : int
        So many were made since the copy: undone ones, engines, templates, rules, preferences and issued reports count too.
    last : tuple of str
        The words of the last of those that can be undone, newest first.
    studies : tuple of str
        Names of studies that are not in the copy.
    reports : tuple of str
        Numbers of issued reports that are not in the copy.
    """

    changes: int
    last: tuple[str, ...]
    studies: tuple[str, ...]
    reports: tuple[str, ...]


MOST_NAMED = 5
SELECT_MISSING = """
SELECT change.words, COUNT(*) OVER () AS changes FROM main.change
WHERE NOT EXISTS (SELECT 1 FROM copy.change AS kept WHERE kept.id = change.id AND kept.made_at = change.made_at)
ORDER BY change.id DESC LIMIT :most
"""
SELECT_STUDIES_MISSING = """
SELECT study.name FROM main.study
WHERE NOT EXISTS (SELECT 1 FROM copy.study AS kept WHERE kept.id = study.id) ORDER BY study.id DESC
"""

OF_NO_STUDY = {
    "issued_report": "number, sha256",
    "kept_engine": "name, document",
    "template": "name, document, removed_at",
    "date_code_rule": "name, pattern, maker",
    "preference": "observation, preferred",
}
"""Tables whose rows are in no journal, and what makes a row another."""


def missing_from(copy: Copy, database: Path) -> Missing | None:
    """Return what a database has and a copy of it lacks, or None where either cannot be read."""
    try:
        with closing(connect(database, access="read")) as conn, _attached(conn, copy):
            changes = conn.execute(SELECT_MISSING, {"most": MOST_NAMED}).fetchall()
            studies = conn.execute(SELECT_STUDIES_MISSING).fetchall()
            others = {table: _rows_missing(conn, table, columns) for table, columns in OF_NO_STUDY.items()}
    except (sqlite3.Error, UnicodeDecodeError):
        return None
    return Missing(
        changes=(changes[0]["changes"] if changes else 0) + sum(map(len, others.values())),
        last=tuple(row["words"] for row in changes),
        studies=tuple(row["name"] for row in studies),
        reports=tuple(row["number"] for row in others["issued_report"]),
    )


def _rows_missing(conn: sqlite3.Connection, table: str, columns: str) -> list[sqlite3.Row]:
    is_there = conn.execute("SELECT 1 FROM copy.sqlite_master WHERE name = :table", {"table": table}).fetchone()
    but_those = f" EXCEPT SELECT {columns} FROM copy.{table}" if is_there else ""  # an older version has no such table
    return conn.execute(f"SELECT {columns} FROM main.{table}{but_those}").fetchall()


def missing_words(copy: Copy, database: Path) -> str:
    """Return what a copy lacks, in words."""
    missing = missing_from(copy, database)
    if missing is None:
        return f"what was entered after {copy.made:%Y-%m-%d %H:%M} is missing in it"
    if not missing.changes and not missing.studies:
        return "nothing is missing in it"
    changes = f"{missing.changes} {'change' if missing.changes == 1 else 'changes'}" if missing.changes else ""
    named = f" (the last: {', '.join(missing.last)})" if missing.last else ""
    studies = f"the {'study' if len(missing.studies) == 1 else 'studies'} {', '.join(missing.studies[:MOST_NAMED])}"
    reports = f"the issued {'report' if len(missing.reports) == 1 else 'reports'} {', '.join(missing.reports[:MOST_NAMED])}"
    lacks = [part for part in (changes + named, studies if missing.studies else "", reports if missing.reports else "") if part]
    return f"what was entered after {copy.made:%Y-%m-%d %H:%M} is missing in it: {' and '.join(lacks)}"


DAYS = 60
SELECT_DAYS = """
SELECT date(made_at, 'localtime') AS day, COUNT(*) AS changes FROM change GROUP BY day ORDER BY day DESC LIMIT :most
"""


def changes_by_day(database: Path) -> list[tuple[str, int]]:
    """Return on how many of the last `DAYS` days of use something was entered, and how much, oldest first."""
    try:
        with closing(connect(database, access="read")) as conn:
            rows = conn.execute(SELECT_DAYS, {"most": DAYS}).fetchall()
    except (sqlite3.Error, UnicodeDecodeError):
        return []
    return [(row["day"], row["changes"]) for row in reversed(rows)]

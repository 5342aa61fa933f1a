"""Whether a database is whole: its pages, its references, every text in it, and its journal."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterator
from hashlib import sha256
from pathlib import Path

from tabrel.core.details.details import check_typed_numbers
from tabrel.core.errors import TabrelError
from tabrel.core.review.copies import check_copied
from tabrel.core.rules.study import check_study
from tabrel.store.connection import Access, connect, snapshot
from tabrel.store.errors import fault_of, is_not_text, primary_code
from tabrel.store.journal import JOURNALED
from tabrel.store.migrate import lost_columns, require_own, shipped_migrations
from tabrel.store.study.studies import load_study

MOST_FAULTS = 100
"""Of one kind: a damaged file may have as many as it has rows."""

OF_VERSION = "it is of version"
"""Begins the fault of a database that only has to be brought up to date."""

UNRECORDED = {("study", "status")}
"""Columns that change without a change of the journal."""


def faults_of(path: Path, *, access: Access = "read") -> list[str]:
    """Return what is wrong with a database, each fault one line; nothing is changed.

    Parameters
    ----------
    path : Path
        Of the file; it may be in use.
    access : str
        ``frozen`` for a copy that nobody writes.

    Raises
    ------
    MigrationError
        If it is no database of this program, or a newer one.
    """
    try:
        require_own(path)
        conn = connect(path, access=access)
        try:
            with snapshot(conn):
                return [*_faults(conn)]
        finally:
            conn.close()
    except UnicodeDecodeError:
        return ["the file cannot be read to its end (its tables are not readable): put back a copy of it"]
    except sqlite3.DatabaseError as error:
        fault = fault_of(error)
        return [str(fault) if fault else f"the file cannot be read to its end ({error}): put back a copy of it"]


def damage_of(path: Path) -> str:
    """Return how a file that should be a database is damaged, in words, by a quick look; empty where it is not or is not there.

    Who may not read it, or whose it is, is another matter.
    """
    if not (path.is_file() and path.stat().st_size):
        return ""
    try:
        conn = connect(path, access="read")
        try:
            words = conn.execute("PRAGMA quick_check(1)").fetchone()[0]
            lost = lost_columns(conn)
        finally:
            conn.close()
    except UnicodeDecodeError:  # of a message about what cannot be read
        return "its tables are not readable"
    except sqlite3.Error as error:
        if is_not_text(error):
            return "its tables are not readable"
        texts = {
            sqlite3.SQLITE_CORRUPT: "its pages do not fit together",
            sqlite3.SQLITE_ERROR: "its tables are not readable",
            sqlite3.SQLITE_NOTADB: "its beginning is not readable",
        }
        return texts.get(primary_code(error) or 0, "")
    if words == "ok" and lost:
        return f"it has no {lost[0]} any more"
    return "" if words == "ok" else " ".join(str(words).split())


SELECT_COUNTS = """
SELECT (SELECT COUNT(*) FROM study) AS studies, (SELECT COUNT(*) FROM sample) AS samples,
       (SELECT COUNT(*) FROM reading) AS readings, (SELECT COUNT(*) FROM change) AS changes
"""


def counts_of(path: Path, *, access: Access = "read") -> dict[str, int]:
    """Return how many studies, samples, readings and changes a database holds, deleted ones too; 0 where it cannot be read."""
    try:
        conn = connect(path, access=access)
        try:
            return dict(conn.execute(SELECT_COUNTS).fetchone())
        finally:
            conn.close()
    except (sqlite3.Error, UnicodeDecodeError):
        return dict.fromkeys(("studies", "samples", "readings", "changes"), 0)


def _faults(conn: sqlite3.Connection) -> Iterator[str]:
    damaged = [row[0] for row in conn.execute(f"PRAGMA integrity_check({MOST_FAULTS})") if row[0] != "ok"]
    yield from (f"the file is damaged: {words}" for words in damaged)
    if damaged:
        return
    for row in conn.execute("PRAGMA foreign_key_check").fetchmany(MOST_FAULTS):
        yield f"row {row['rowid']} of {row['table']} belongs to nothing in {row['parent']}"
    version, newest = conn.execute("PRAGMA user_version").fetchone()[0], max(shipped_migrations())
    if version < newest:
        yield f"{OF_VERSION} {version} and has to be brought up to {newest}: start Tabrel on it once, then verify it again"
        return
    if lost := lost_columns(conn):
        yield f"the file is damaged: it has no {', '.join(lost)} any more"
        return
    yield from _studies(conn)
    yield from _journal(conn)
    yield from _issued(conn)


SELECT_ISSUED_PDFS = "SELECT number, pdf, sha256 FROM issued_report ORDER BY id"


def _issued(conn: sqlite3.Connection) -> Iterator[str]:
    """Yield a fault for each issued report that is no longer as it was issued."""
    for row in conn.execute(SELECT_ISSUED_PDFS):
        if sha256(row["pdf"]).hexdigest() != row["sha256"]:
            yield f"report {row['number']} is no longer as it was issued: put back a copy from before"


SELECT_STUDIES = "SELECT id, name, status FROM study ORDER BY id"


def _studies(conn: sqlite3.Connection) -> Iterator[str]:
    """Yield a fault for each study that is not understood as it is stored."""
    for row in conn.execute(SELECT_STUDIES).fetchall():
        if row["status"] == "deleted":
            continue
        try:
            study = load_study(conn, row["id"])
            check_study(study)
            check_typed_numbers(study)
            for i, sample in enumerate(study.samples):
                check_copied(f"samples[{i}]", sample)
        except (TabrelError, ValueError, TypeError, KeyError) as error:
            yield f"study {row['id']}, {row['name']!r}, is not understood: {' '.join(str(error).split())[:300]}"


SELECT_IMAGES = """
SELECT change_row.table_name, change_row.row_id, change_row.before, change_row.after, change.undone_at
FROM change_row JOIN change ON change.id = change_row.change_id ORDER BY change_row.id
"""


def _journal(conn: sqlite3.Connection) -> Iterator[str]:
    """Yield a fault where a row is not what the last change of it, made or undone, left behind."""
    left: dict[tuple[str, int], str | None] = {}
    undone_first: set[tuple[str, int]] = set()
    for row in conn.execute(SELECT_IMAGES):
        place = (row["table_name"], int(row["row_id"]))
        if place[0] not in JOURNALED:
            yield f"the journal names a table {place[0]!r} that is not recorded"
            return
        if row["undone_at"] is None:
            left[place] = row["after"]
            undone_first.discard(place)
        elif place not in undone_first:  # of several undone in a row, the earliest left it as it was before
            left[place] = row["before"]
            undone_first.add(place)
    number = 0
    for (table, row_id), image in left.items():
        fault = _differs(conn, table, row_id, image)
        if fault:
            yield fault
            number += 1
            if number == MOST_FAULTS:
                return


def _differs(conn: sqlite3.Connection, table: str, row_id: int, image: str | None) -> str | None:
    row = conn.execute(f"SELECT * FROM {table} WHERE rowid = :row_id", {"row_id": row_id}).fetchone()
    if image is None:
        return f"row {row_id} of {table} is there, and the journal says it was removed" if row else None
    if row is None:
        return f"row {row_id} of {table} is gone, and the journal says it is there"
    try:
        kept = json.loads(image)
    except ValueError:
        return f"the journal of row {row_id} of {table} is not readable"
    columns = [name for name in row.keys() if name in kept and (table, name) not in UNRECORDED]  # noqa: SIM118
    wrong = [name for name in columns if row[name] != kept[name]]
    return f"row {row_id} of {table} is not as the journal left it ({', '.join(wrong)})" if wrong else None

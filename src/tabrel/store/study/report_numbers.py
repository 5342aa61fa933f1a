"""Numbers of issued reports: one that was given is never given again, also where an older copy takes the database's place.

The highest of each year stands in the database, so in each copy of it, and in a small file beside the database, since a copy
that is put back knows nothing of what came after it.
"""

from __future__ import annotations

import json
import os
import sqlite3
from collections.abc import Mapping
from contextlib import closing, suppress
from pathlib import Path

from tabrel.store.connection import Database, connect
from tabrel.store.errors import NotWritableError

SELECT_HIGHEST = "SELECT year, highest FROM report_number"
SELECT_OF_ISSUED = """
SELECT CAST(substr(number, 1, 4) AS INTEGER) AS year, MAX(CAST(substr(number, 6) AS INTEGER)) AS highest
FROM issued_report GROUP BY year
"""
"""For a database of a version that does not remember them."""
RAISE_HIGHEST = """
INSERT INTO report_number (year, highest) VALUES (:year, :highest)
ON CONFLICT (year) DO UPDATE SET highest = excluded.highest WHERE excluded.highest > highest
"""


def file_of_numbers(database: Path) -> Path:
    """Return the file beside a database that remembers its highest numbers."""
    return database.with_name(f"{database.stem}-report-numbers.json")


def next_number(conn: sqlite3.Connection, year: int) -> str:
    """Return the number that the next report of a year gets."""
    highest = max(_stored(conn).get(year, 0), _remembered(_path_of(conn)).get(year, 0))
    return f"{year}-{highest + 1:04d}"


def give(conn: sqlite3.Connection, number: str) -> None:
    """Remember a number as given; call it within the transaction that gives it.

    It is remembered beside the database first: where the transaction fails after that, the number is left out.

    Raises
    ------
    NotWritableError
        If it cannot be remembered.
    """
    year, _, count = number.partition("-")
    raise_numbers(conn, {int(year): int(count)})
    remember(_path_of(conn), _stored(conn))


def raise_numbers(conn: sqlite3.Connection, numbers: Mapping[int, int]) -> None:
    """Make the highest number of each year at least as high as given."""
    conn.executemany(RAISE_HIGHEST, [{"year": year, "highest": highest} for year, highest in numbers.items()])


def numbers_given(database: Path) -> dict[int, int]:
    """Return the highest number of each year that a database and the file beside it know of; what cannot be read knows none."""
    numbers = _remembered(database)
    for statement in (SELECT_HIGHEST, SELECT_OF_ISSUED) if database.is_file() else ():
        with suppress(sqlite3.Error), closing(connect(database, access="read")) as conn:
            numbers = _highest(numbers, _stored(conn, statement))
    return numbers


def remember(database: Path, numbers: Mapping[int, int]) -> None:
    """Write the highest numbers beside a database; those that stand there already stay where they are higher.

    Raises
    ------
    NotWritableError
        If the file cannot be written; it stays as it was.
    """
    path = file_of_numbers(database)
    unfinished = path.with_name(f"{path.name}.part")
    try:
        with unfinished.open("w", encoding="utf-8") as file:
            json.dump({str(year): highest for year, highest in sorted(_highest(numbers, _remembered(database)).items())}, file)
            file.flush()
            os.fsync(file.fileno())
        unfinished.replace(path)
    except OSError as error:
        with suppress(OSError):
            unfinished.unlink(missing_ok=True)
        raise NotWritableError(
            f"the number of a report cannot be remembered in {path} ({error.strerror}): see that there is room and who may "
            "write. Nothing was issued"
        ) from error


def _highest(first: Mapping[int, int], second: Mapping[int, int]) -> dict[int, int]:
    return {year: max(first.get(year, 0), second.get(year, 0)) for year in first.keys() | second.keys()}


def _stored(conn: sqlite3.Connection, statement: str = SELECT_HIGHEST) -> dict[int, int]:
    return {row["year"]: row["highest"] for row in conn.execute(statement)}


def _remembered(database: Path) -> dict[int, int]:
    try:
        numbers = json.loads(file_of_numbers(database).read_text(encoding="utf-8"))
        return {int(year): int(highest) for year, highest in numbers.items()}
    except (OSError, ValueError, TypeError, AttributeError):  # it is written anew with the next report
        return {}


def _path_of(conn: sqlite3.Connection) -> Path:
    assert isinstance(conn, Database)
    return Path(conn.path)

"""Readings: added and set aside, never changed."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Container, Iterable
from dataclasses import dataclass
from typing import Any

from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, QUANTITIES
from tabrel.core.study.model import QuantityState, Reading, ReadingEntry, as_entry, as_reading
from tabrel.store.connection import inserted_id
from tabrel.store.errors import NotStoredError
from tabrel.store.gather import Reader
from tabrel.store.understood import not_understood


@dataclass(frozen=True)
class StoredReading:
    """One reading as stored.

    Attributes
    ----------
    id : int
        Of the row.
    quantity_key : str
        Reading key; for a reading of holes the path such as ``holes.inlet[0].diameter``.
    reading : Reading
        As typed, with what was recorded of it.
    """

    id: int
    quantity_key: str
    reading: Reading


# Which of the two owners a reading has decides the index, so each has statements of its own: asked for both at once,
# SQLite may walk through all readings that have no sample.
_OWNED_BY_SAMPLE = "sample_id = :sample_id"
_OWNED_BY_HOLES = "hole_group_id = :hole_group_id"


def _owner(statement: str, sample_id: int | None, hole_group_id: int | None) -> tuple[str, dict[str, int | None]]:
    """Return a statement with its owner's condition in place of ``{owner}``, and the owner's parameters."""
    condition = _OWNED_BY_HOLES if sample_id is None else _OWNED_BY_SAMPLE
    return statement.replace("{owner}", condition), {"sample_id": sample_id, "hole_group_id": hole_group_id}


SELECT_NEXT_POSITION = """
SELECT COALESCE(MAX(position) + 1, 0) AS position FROM reading WHERE {owner} AND quantity_key = :quantity_key
"""
INSERT_READING = """
INSERT INTO reading (sample_id, hole_group_id, quantity_key, position, text, taken_at, instrument, provenance, note, confirmed,
                     copied_from, hole, uncertainty, photograph, set_aside_at, set_aside_reason)
VALUES (:sample_id, :hole_group_id, :quantity_key, :position, :text, :taken_at, :instrument, :provenance, :note, :confirmed,
        :copied_from, :hole, :uncertainty, :photograph,
        CASE WHEN :set_aside IS NULL THEN NULL ELSE strftime('%Y-%m-%dT%H:%M:%fZ', 'now') END,
        :set_aside)
"""


def insert_reading(
    conn: sqlite3.Connection,
    key: str,
    entry: ReadingEntry,
    *,
    sample_id: int | None = None,
    hole_group_id: int | None = None,
) -> int:
    """Store one reading behind the others of its quantity and return its id; the caller opens the transaction."""
    [row] = _rows(conn, key, [entry], sample_id, hole_group_id)
    return inserted_id(conn.execute(INSERT_READING, row))


def _rows(
    conn: sqlite3.Connection, key: str, entries: Iterable[ReadingEntry], sample_id: int | None, hole_group_id: int | None
) -> list[dict[str, Any]]:
    """Return entries as rows behind those that are there."""
    statement, owner = _owner(SELECT_NEXT_POSITION, sample_id, hole_group_id)
    named = {**owner, "quantity_key": key}
    first = int(conn.execute(statement, named).fetchone()["position"])
    return [{**named, "position": position, **vars(as_reading(entry))} for position, entry in enumerate(entries, first)]


SELECT_NOW = "SELECT strftime('%Y-%m-%dT%H:%M:%fZ', 'now') AS now"


def time_now(conn: sqlite3.Connection) -> str:
    """Return the time as the store writes it."""
    return str(conn.execute(SELECT_NOW).fetchone()["now"])


def insert_entries(
    conn: sqlite3.Connection,
    key: str,
    entries: Iterable[ReadingEntry],
    *,
    sample_id: int | None = None,
    hole_group_id: int | None = None,
) -> None:
    """Store the entries of one quantity in their order, behind those that are there."""
    conn.executemany(INSERT_READING, _rows(conn, key, entries, sample_id, hole_group_id))


SELECT_READINGS_OF_SAMPLE = """
SELECT reading.*,
       CASE WHEN hole_group.id IS NULL THEN reading.quantity_key
            ELSE 'holes.' || hole_group.placement || '[' || hole_group.position || '].' || reading.quantity_key
       END AS full_key
FROM reading LEFT JOIN hole_group ON hole_group.id = reading.hole_group_id
WHERE reading.sample_id = :sample_id
   OR reading.hole_group_id IN (SELECT id FROM hole_group WHERE hole_group.sample_id = :sample_id)
ORDER BY reading.position, reading.id
"""
"""Those of its holes too, and those set aside."""
SELECT_READINGS_OF_ADAPTER = """
SELECT reading.* FROM reading JOIN hole_group ON hole_group.id = reading.hole_group_id
WHERE hole_group.study_id = :study_id ORDER BY reading.position, reading.id
"""


def entries_by_key(conn: Reader, sample_id: int) -> dict[str, tuple[ReadingEntry, ...]]:
    """Return the readings of a sample as the study holds them; those of its holes belong to these."""
    rows = conn.execute(SELECT_READINGS_OF_SAMPLE, {"sample_id": sample_id})
    return _by_key((row for row in rows if row["hole_group_id"] is None), QUANTITIES)


def entries_of_holes(
    conn: Reader, *, sample_id: int | None = None, study_id: int | None = None
) -> dict[int, dict[str, tuple[ReadingEntry, ...]]]:
    """Return the readings of the hole groups of a sample, or of the adapter of a study, by group and dimension."""
    of_sample = (SELECT_READINGS_OF_SAMPLE, {"sample_id": sample_id})
    collected: dict[int, list[sqlite3.Row]] = {}
    for row in conn.execute(*((SELECT_READINGS_OF_ADAPTER, {"study_id": study_id}) if sample_id is None else of_sample)):
        if row["hole_group_id"] is not None:
            collected.setdefault(row["hole_group_id"], []).append(row)
    return {group: _by_key(rows, HOLE_QUANTITIES) for group, rows in collected.items()}


def _by_key(rows: Iterable[sqlite3.Row], known: Container[str]) -> dict[str, tuple[ReadingEntry, ...]]:
    """Return readings by key in the order in which each key was first read."""
    result: dict[str, list[sqlite3.Row]] = {}
    for row in rows:
        key = row["quantity_key"]
        if key not in known:
            raise not_understood(f"the name of what was read, {key!r},")
        result.setdefault(key, []).append(row)
    first_read = sorted(result.items(), key=lambda pair: min(row["id"] for row in pair[1]))
    return {key: tuple(as_entry(_reading(row)) for row in held) for key, held in first_read}


def _reading(row: sqlite3.Row) -> Reading:
    return Reading(
        row["text"],
        set_aside=row["set_aside_reason"],
        taken_at=row["taken_at"],
        instrument=row["instrument"],
        provenance=row["provenance"],
        note=row["note"],
        confirmed=None if row["confirmed"] is None else bool(row["confirmed"]),
        copied_from=row["copied_from"],
        hole=row["hole"],
        uncertainty=row["uncertainty"],
        photograph=row["photograph"],
    )


SELECT_USED_OF_STUDY = """
SELECT * FROM reading
WHERE sample_id IN (SELECT id FROM sample WHERE study_id = :study_id)
  AND quantity_key IN (SELECT value FROM json_each(:keys)) AND set_aside_at IS NULL
ORDER BY position
"""


def used_readings_of_study(conn: sqlite3.Connection, study_id: int, keys: Iterable[str]) -> dict[tuple[int, str], list[Reading]]:
    """Return the readings in use of a few quantities, of every sample of a study, by sample and key."""
    readings: dict[tuple[int, str], list[Reading]] = {}
    for row in conn.execute(SELECT_USED_OF_STUDY, {"study_id": study_id, "keys": json.dumps(list(keys))}):
        readings.setdefault((row["sample_id"], row["quantity_key"]), []).append(_reading(row))
    return readings


def readings_of_sample(conn: Reader, sample_id: int) -> list[StoredReading]:
    """Return every reading of a sample, those of its holes included, those set aside too, in order."""
    rows = conn.execute(SELECT_READINGS_OF_SAMPLE, {"sample_id": sample_id}).fetchall()
    return [StoredReading(row["id"], row["full_key"], _reading(row)) for row in rows]


SELECT_OWNER_OF_READING = """
SELECT reading.*,
       hole_group.placement, hole_group.position AS place, COALESCE(reading.sample_id, hole_group.sample_id) AS owner_id
FROM reading LEFT JOIN hole_group ON hole_group.id = reading.hole_group_id
WHERE reading.id = :id
"""


@dataclass(frozen=True)
class ReadingPlace:
    """Where a reading belongs: its sample, full key, hole group if it is one of holes; and the reading itself."""

    sample_id: int
    key: str
    hole_group_id: int | None
    reading: Reading

    @property
    def text(self) -> str:
        """The reading as typed."""
        return self.reading.text

    @property
    def set_aside(self) -> str | None:
        """Why it is set aside."""
        return self.reading.set_aside


def place_of_reading(conn: sqlite3.Connection, reading_id: int) -> ReadingPlace:
    """Return where a reading belongs.

    Raises
    ------
    NotStoredError
        If there is no such reading on a sample.
    """
    row = conn.execute(SELECT_OWNER_OF_READING, {"id": reading_id}).fetchone()
    if row is None or row["owner_id"] is None:
        raise NotStoredError(f"there is no reading {reading_id} on a sample: load the sample again")
    key = row["quantity_key"]
    if row["hole_group_id"] is not None:
        key = f"holes.{row['placement']}[{row['place']}].{key}"
    return ReadingPlace(int(row["owner_id"]), key, row["hole_group_id"], _reading(row))


SELECT_STANDING = """
SELECT * FROM reading WHERE {owner} AND quantity_key = :quantity_key AND set_aside_at IS NULL ORDER BY position
"""


def used_readings(
    conn: sqlite3.Connection, key: str, *, sample_id: int | None = None, hole_group_id: int | None = None
) -> list[Reading]:
    """Return the readings of one quantity that are in use."""
    statement, owner = _owner(SELECT_STANDING, sample_id, hole_group_id)
    return [_reading(row) for row in conn.execute(statement, {**owner, "quantity_key": key})]


SET_ASIDE = """
UPDATE reading SET set_aside_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now'), set_aside_reason = :reason
WHERE id = :id AND set_aside_at IS NULL
"""


def set_aside(conn: sqlite3.Connection, reading_id: int, reason: str) -> None:
    """Set a reading aside with a reason; one already set aside keeps its reason."""
    conn.execute(SET_ASIDE, {"id": reading_id, "reason": reason})


USE_AGAIN = "UPDATE reading SET set_aside_at = NULL, set_aside_reason = NULL WHERE id = :id"


def use_again(conn: sqlite3.Connection, reading_id: int) -> None:
    """Use a reading again that was set aside; that it was, and why, stays in the journal."""
    conn.execute(USE_AGAIN, {"id": reading_id})


CONFIRM = "UPDATE reading SET confirmed = 1 WHERE id = :id"


def confirm(conn: sqlite3.Connection, reading_id: int) -> None:
    """Record that a questioned reading is meant as typed."""
    conn.execute(CONFIRM, {"id": reading_id})


DELETE_STATE = "DELETE FROM quantity_state WHERE sample_id = :sample_id AND quantity_key = :key"
INSERT_STATE = "INSERT INTO quantity_state (sample_id, quantity_key, state) VALUES (:sample_id, :key, :state)"


def set_state(conn: sqlite3.Connection, sample_id: int, key: str, state: str | None) -> None:
    """Say why a quantity has no value; None removes the state."""
    conn.execute(DELETE_STATE, {"sample_id": sample_id, "key": key})
    if state is not None:
        conn.execute(INSERT_STATE, {"sample_id": sample_id, "key": key, "state": state})


SELECT_STATES = "SELECT quantity_key, state FROM quantity_state WHERE sample_id = :sample_id ORDER BY id"


def states_of(conn: Reader, sample_id: int) -> dict[str, QuantityState]:
    """Return the states of a sample's quantities."""
    return {row["quantity_key"]: row["state"] for row in conn.execute(SELECT_STATES, {"sample_id": sample_id})}

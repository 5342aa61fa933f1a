"""Samples of a study."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass, replace
from typing import Any, Literal

from tabrel.core.study.model import Bypass, Cut, Leak, Price, Sample, SampleHoles, field_names
from tabrel.store.connection import inserted_id
from tabrel.store.entry.copies import SELECT_COPIED, copied_facts, mark_copied
from tabrel.store.entry.holes import hole_statements, insert_hole_groups, load_hole_groups
from tabrel.store.entry.readings import (
    SELECT_READINGS_OF_SAMPLE,
    SELECT_STATES,
    entries_by_key,
    insert_entries,
    set_state,
    states_of,
)
from tabrel.store.entry.typed_numbers import set_typed_numbers, typed_numbers, typed_statement
from tabrel.store.errors import ConflictError, NotStoredError
from tabrel.store.gather import Asked, Reader, gathered
from tabrel.store.parts import OF_SAMPLE
from tabrel.store.rows import built
from tabrel.store.sample.claims import SELECT_CLAIMS, claims_of, insert_claim
from tabrel.store.sample.offers import SELECT_OFFERS, insert_offer, offers_of

Status = Literal["in_use", "archived", "deleted"]
"""Of a sample and of a study."""


@dataclass(frozen=True)
class StoredSample:
    """A sample with the ids of its row and its study."""

    id: int
    study_id: int
    sample: Sample


_NESTED: dict[str, Any] = {"price": Price, "cut": Cut, "bypass": Bypass, "leak": Leak}
"""Fields of a sample whose own fields are columns, such as ``price_amount``."""
_FIELDS = {name: tuple(field for field in field_names(part) if field != "stated_kpa") for name, part in _NESTED.items()}
_BAND = ("bypass_stated_low_kpa", "bypass_stated_high_kpa")
"""Of a stated opening pressure: one figure, or a band."""
_COLUMNS = (
    "label", "kind", "maker", "part_number", "seller", "bought", "pack", "date_code", "made", "origin", "tier", "restriction",
    "warranty", "condition", "used_km", "used_hours", "expectation", "media_family", "media_air_drop_pa", "capacity_g",
    "stated_collapse_kpa", *_BAND,
    *(f"{name}_{field}" for name, fields in _FIELDS.items() for field in fields),
)  # fmt: skip
"""What a sample has one value of."""
_NEW = ("study_id", "position", "status", *_COLUMNS)
INSERT_SAMPLE = f"INSERT INTO sample ({', '.join(_NEW)}) VALUES ({', '.join(f':{column}' for column in _NEW)})"
_DETAILS = tuple(column for column in _COLUMNS if not column.startswith("cut_"))
UPDATE_SAMPLE = f"UPDATE sample SET {', '.join(f'{column} = :{column}' for column in _DETAILS)} WHERE id = :id"
INSERT_OBSERVATION = "INSERT INTO observation (sample_id, key, text) VALUES (:sample_id, :key, :text)"


def insert_sample(conn: sqlite3.Connection, study_id: int, position: int, sample: Sample) -> int:
    """Store a sample with its readings and return its id."""
    status = "archived" if sample.archived else "in_use"
    row = {"study_id": study_id, "position": position, "status": status, **_sample_row(sample)}
    sample_id = inserted_id(conn.execute(INSERT_SAMPLE, row))
    for key, entries in sample.readings.items():
        insert_entries(conn, key, entries, sample_id=sample_id)
    insert_hole_groups(conn, "inlet", sample.holes.inlet, sample_id=sample_id)
    insert_hole_groups(conn, "centre_tube", sample.holes.centre_tube, sample_id=sample_id)
    for key, text in sample.observations.items():
        conn.execute(INSERT_OBSERVATION, {"sample_id": sample_id, "key": key, "text": text})
    for key, state in sample.states.items():
        set_state(conn, sample_id, key, state)
    for claim in sample.claims:
        insert_claim(conn, sample_id, claim)
    for offer in sample.offers:
        insert_offer(conn, sample_id, offer)
    OF_SAMPLE.insert(conn, sample_id, sample)
    mark_copied(conn, sample_id, sample.copied)
    set_typed_numbers(conn, sample.as_typed, sample_id=sample_id)
    return sample_id


def _sample_row(sample: Sample) -> dict[str, Any]:
    stated = sample.bypass.stated_kpa
    row = {column: getattr(sample, column, None) for column in _COLUMNS}
    for name, fields in _FIELDS.items():
        row |= {f"{name}_{field}": getattr(getattr(sample, name), field, None) for field in fields}
    return row | dict(zip(_BAND, stated if isinstance(stated, tuple) else (stated, None), strict=True))


def update_sample_details(conn: sqlite3.Connection, sample_id: int, sample: Sample) -> None:
    """Change the details of a sample that have one value at a time; readings, claims and holes stay."""
    conn.execute(UPDATE_SAMPLE, {"id": sample_id, **_sample_row(sample)})
    set_typed_numbers(conn, sample.as_typed, sample_id=sample_id)


UPDATE_CUT = "UPDATE sample SET cut_method = :method, cut_at = :at, cut_note = :note WHERE id = :id"


def set_cut(conn: sqlite3.Connection, sample_id: int, cut: Cut) -> None:
    """Record how a filter was cut open."""
    conn.execute(UPDATE_CUT, {"id": sample_id, **vars(cut)})


DELETE_OBSERVATION = "DELETE FROM observation WHERE sample_id = :sample_id AND key = :key"


def set_observation(conn: sqlite3.Connection, sample_id: int, key: str, text: str | None) -> None:
    """Set what was seen; None removes it."""
    conn.execute(DELETE_OBSERVATION, {"sample_id": sample_id, "key": key})
    if text is not None:
        conn.execute(INSERT_OBSERVATION, {"sample_id": sample_id, "key": key, "text": text})


SELECT_NEXT_POSITION = "SELECT COALESCE(MAX(position) + 1, 0) AS position FROM sample WHERE study_id = :study_id"


def next_position(conn: sqlite3.Connection, study_id: int) -> int:
    """Return the place of a new sample in the rack."""
    return int(conn.execute(SELECT_NEXT_POSITION, {"study_id": study_id}).fetchone()["position"])


SELECT_SAMPLE = "SELECT * FROM sample WHERE id = :id"


def load_sample(conn: Reader, sample_id: int) -> StoredSample:
    """Return a sample.

    Raises
    ------
    NotStoredError
        If there is no such sample.
    """
    reader = gathered(conn, sample_statements(sample_id))
    return _stored(reader, _row(reader, sample_id))


def stated_statements(sample_id: int) -> list[Asked]:
    """Return what loading the stated part of a sample asks."""
    asked = (SELECT_STATES, SELECT_OBSERVATIONS, SELECT_COPIED)
    named = {"sample_id": sample_id}
    return [(SELECT_SAMPLE, {"id": sample_id}), *((sql, named) for sql in asked), typed_statement(sample_id=sample_id)]


def sample_statements(sample_id: int) -> list[Asked]:
    """Return what loading a sample asks."""
    asked = (SELECT_READINGS_OF_SAMPLE, SELECT_CLAIMS, SELECT_OFFERS, OF_SAMPLE.select)
    return [
        *stated_statements(sample_id),
        *((sql, {"sample_id": sample_id}) for sql in asked),
        *hole_statements("inlet", sample_id),
        *hole_statements("centre_tube", sample_id),
    ]


SELECT_STUDY_OF_SAMPLE = """
SELECT sample.study_id, sample.label, sample.status, study.status AS study_status
FROM sample JOIN study ON study.id = sample.study_id WHERE sample.id = :id
"""


def study_of_sample(conn: sqlite3.Connection, sample_id: int) -> int:
    """Return the study a sample belongs to.

    Raises
    ------
    NotStoredError
        If there is no such sample, or it or its study was deleted.
    """
    row = conn.execute(SELECT_STUDY_OF_SAMPLE, {"id": sample_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no sample {sample_id}: go back to the study and choose one")
    _require_there(row["label"], row["status"])
    if row["study_status"] == "deleted":
        raise NotStoredError("there is no such study any more, it was deleted: put it back in the list of studies to go on")
    return int(row["study_id"])


def _require_there(label: str, status: Status) -> None:
    if status == "deleted":
        raise NotStoredError(
            f"there is no sample {label!r} any more, it was deleted: put it back in the list of studies to go on"
        )


SELECT_STATUS = "SELECT study_id, label, status FROM sample WHERE id = :id"
SET_STATUS = "UPDATE sample SET status = :status WHERE id = :id"
SELECT_NAMESAKE = "SELECT 1 FROM sample WHERE study_id = :study_id AND label = :label AND id <> :id AND status <> 'deleted'"


def set_sample_status(conn: sqlite3.Connection, sample_id: int, status: Status) -> None:
    """Put a sample away, delete it, or put it back; everything of it stays.

    Raises
    ------
    ConflictError
        If another sample of the study has its label by now.
    """
    row = status_of_sample(conn, sample_id)
    namesake = conn.execute(SELECT_NAMESAKE, {"study_id": row.study_id, "label": row.label, "id": sample_id}).fetchone()
    if row.status == "deleted" and namesake:
        raise ConflictError(
            f"another sample of its study is called {row.label!r} by now: rename that one, then put this one back"
        )
    conn.execute(SET_STATUS, {"id": sample_id, "status": status})


@dataclass(frozen=True)
class SampleStatus:
    """A sample's study and label, and whether it is in use, archived or deleted."""

    study_id: int
    label: str
    status: Status


def status_of_sample(conn: sqlite3.Connection, sample_id: int) -> SampleStatus:
    """Return whether a sample is in use, archived or deleted.

    Raises
    ------
    NotStoredError
        If there never was such a sample.
    """
    row = conn.execute(SELECT_STATUS, {"id": sample_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no sample {sample_id}: go back to the study and choose one")
    return built(SampleStatus, row)


SELECT_SAMPLES = """
SELECT * FROM sample WHERE study_id = :study_id AND status IN ('in_use', CASE WHEN :archived THEN 'archived' END)
ORDER BY position
"""


def load_samples(conn: Reader, study_id: int, *, archived: bool = True) -> list[StoredSample]:
    """Return the samples of a study in their order, those that are archived only if that is said; deleted ones never."""
    named = {"study_id": study_id, "archived": archived}
    rows = conn.execute(SELECT_SAMPLES, named).fetchall()
    return [_stored(gathered(conn, sample_statements(row["id"])), row) for row in rows]


@dataclass(frozen=True)
class SampleName:
    """Names of a sample."""

    id: int
    label: str
    maker: str | None
    part_number: str | None
    status: Status


SELECT_NAMES = """
SELECT id, label, maker, part_number, status FROM sample WHERE study_id = :study_id AND status <> 'deleted' ORDER BY position
"""


def names_of_samples(conn: sqlite3.Connection, study_id: int) -> list[SampleName]:
    """Return what the samples of a study are called, in their order; nothing else of them is read."""
    return [built(SampleName, row) for row in conn.execute(SELECT_NAMES, {"study_id": study_id})]


def load_stated(conn: Reader, sample_id: int) -> StoredSample:
    """Return a sample with what is stated and seen of it: without readings, holes, claims and evidence but counts.

    Raises
    ------
    NotStoredError
        If there is no such sample.
    """
    reader = gathered(conn, [*stated_statements(sample_id), (OF_SAMPLE.select, {"sample_id": sample_id})])
    stated = _stated(reader, _row(reader, sample_id))
    return replace(stated, sample=replace(stated.sample, counts=OF_SAMPLE.one(reader, sample_id, "counts")))


def _row(conn: Reader, sample_id: int) -> sqlite3.Row:
    row: sqlite3.Row | None = conn.execute(SELECT_SAMPLE, {"id": sample_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no sample {sample_id}: go back to the study and choose one")
    _require_there(row["label"], row["status"])
    return row


def _stored(conn: Reader, row: sqlite3.Row) -> StoredSample:
    stated = _stated(conn, row)
    sample = replace(
        stated.sample,
        readings=entries_by_key(conn, stated.id),
        holes=SampleHoles(
            inlet=load_hole_groups(conn, "inlet", stated.id),
            centre_tube=load_hole_groups(conn, "centre_tube", stated.id),
        ),
        claims=tuple(claim for _, claim in claims_of(conn, stated.id)),
        offers=tuple(offer for _, offer in offers_of(conn, stated.id)),
        **OF_SAMPLE.of(conn, stated.id),
    )
    return replace(stated, sample=sample)


def _stated(conn: Reader, row: sqlite3.Row) -> StoredSample:
    sample_id = int(row["id"])
    low, high = (row[column] for column in _BAND)
    stated = {name: {field: row[f"{name}_{field}"] for field in held} for name, held in _FIELDS.items()}
    sample = built(
        Sample,
        row,
        **{name: _NESTED[name](**held) for name, held in stated.items() if any(value is not None for value in held.values())},
        states=states_of(conn, sample_id),
        observations=_observations(conn, sample_id),
        as_typed=typed_numbers(conn, sample_id=sample_id),
        copied=copied_facts(conn, sample_id),
        archived=True if row["status"] == "archived" else None,
    )
    bypass = replace(sample.bypass, stated_kpa=low if high is None else (low, high))
    return StoredSample(sample_id, int(row["study_id"]), replace(sample, bypass=bypass))


SELECT_OBSERVATIONS = "SELECT key, text FROM observation WHERE sample_id = :sample_id ORDER BY rowid"


def _observations(conn: Reader, sample_id: int) -> dict[str, str]:
    rows = conn.execute(SELECT_OBSERVATIONS, {"sample_id": sample_id})
    return {row["key"]: row["text"] for row in rows}

"""Samples of a study."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Any

from tabrel.core.study import (
    Bypass,
    Claim,
    CountRow,
    Counts,
    Leak,
    Price,
    Sample,
    SampleHoles,
)
from tabrel.store.connection import inserted_id
from tabrel.store.errors import NotStoredError
from tabrel.store.holes import insert_hole_groups, load_hole_groups
from tabrel.store.readings import entries_by_key, insert_entries
from tabrel.store.rows import built


@dataclass(frozen=True)
class StoredSample:
    """A sample with the ids of its row and its study."""

    id: int
    study_id: int
    sample: Sample


INSERT_SAMPLE = """
INSERT INTO sample (study_id, position, label, maker, part_number, price_amount, price_currency, condition,
                    media_family, media_air_drop_pa, bypass_location, bypass_kind, bypass_spring_material,
                    bypass_stated_low_kpa, bypass_stated_high_kpa, leak_count, leak_diameter_mm)
VALUES (:study_id, :position, :label, :maker, :part_number, :price_amount, :price_currency, :condition,
        :media_family, :media_air_drop_pa, :bypass_location, :bypass_kind, :bypass_spring_material,
        :bypass_stated_low_kpa, :bypass_stated_high_kpa, :leak_count, :leak_diameter_mm)
"""
INSERT_OBSERVATION = "INSERT INTO observation (sample_id, key, text) VALUES (:sample_id, :key, :text)"
INSERT_CLAIM = """
INSERT INTO claim (sample_id, position, kind, relation, efficiency_percent, source, size_um, scale, standard, seen)
VALUES (:sample_id, :position, :kind, :relation, :efficiency_percent, :source, :size_um, :scale, :standard, :seen)
"""
INSERT_COUNTS = """
INSERT INTO particle_counts (sample_id, scale, volume_ml, dilution) VALUES (:sample_id, :scale, :volume_ml, :dilution)
"""
INSERT_COUNT_ROW = """
INSERT INTO particle_count_row (sample_id, position, size_um, upstream, downstream)
VALUES (:sample_id, :position, :size_um, :upstream, :downstream)
"""


def insert_sample(conn: sqlite3.Connection, study_id: int, position: int, sample: Sample) -> int:
    """Store a sample with its readings and return its id."""
    row = {"study_id": study_id, "position": position, **_sample_row(sample)}
    sample_id = inserted_id(conn.execute(INSERT_SAMPLE, row))
    for key, entries in sample.readings.items():
        insert_entries(conn, key, entries, sample_id=sample_id)
    insert_hole_groups(conn, "inlet", sample.holes.inlet, sample_id=sample_id)
    insert_hole_groups(conn, "centre_tube", sample.holes.centre_tube, sample_id=sample_id)
    for key, text in sample.observations.items():
        conn.execute(INSERT_OBSERVATION, {"sample_id": sample_id, "key": key, "text": text})
    for i, claim in enumerate(sample.claims):
        conn.execute(INSERT_CLAIM, {"sample_id": sample_id, "position": i, **vars(claim)})
    if counts := sample.counts:
        named = {"sample_id": sample_id, "scale": counts.scale, "volume_ml": counts.volume_ml, "dilution": counts.dilution}
        conn.execute(INSERT_COUNTS, named)
        for i, count_row in enumerate(counts.rows):
            conn.execute(INSERT_COUNT_ROW, {"sample_id": sample_id, "position": i, **vars(count_row)})
    return sample_id


def _sample_row(sample: Sample) -> dict[str, Any]:
    stated = sample.bypass.stated_kpa
    low, high = stated if isinstance(stated, tuple) else (stated, None)
    return {
        "label": sample.label,
        "maker": sample.maker,
        "part_number": sample.part_number,
        "price_amount": sample.price.amount if sample.price else None,
        "price_currency": sample.price.currency if sample.price else None,
        "condition": sample.condition,
        "media_family": sample.media_family,
        "media_air_drop_pa": sample.media_air_drop_pa,
        "bypass_location": sample.bypass.location,
        "bypass_kind": sample.bypass.kind,
        "bypass_spring_material": sample.bypass.spring_material,
        "bypass_stated_low_kpa": low,
        "bypass_stated_high_kpa": high,
        "leak_count": sample.leak.count if sample.leak else None,
        "leak_diameter_mm": sample.leak.diameter_mm if sample.leak else None,
    }


SELECT_SAMPLE = "SELECT * FROM sample WHERE id = :id"


def load_sample(conn: sqlite3.Connection, sample_id: int) -> StoredSample:
    """Return a sample.

    Raises
    ------
    NotStoredError
        If there is no such sample.
    """
    row = conn.execute(SELECT_SAMPLE, {"id": sample_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no sample {sample_id}: go back to the study and choose one")
    return _stored(conn, row)


SELECT_SAMPLES = "SELECT * FROM sample WHERE study_id = :study_id ORDER BY position"


def load_samples(conn: sqlite3.Connection, study_id: int) -> list[StoredSample]:
    """Return the samples of a study in their order."""
    return [_stored(conn, row) for row in conn.execute(SELECT_SAMPLES, {"study_id": study_id}).fetchall()]


def _stored(conn: sqlite3.Connection, row: sqlite3.Row) -> StoredSample:
    sample_id = int(row["id"])
    low, high = row["bypass_stated_low_kpa"], row["bypass_stated_high_kpa"]
    sample = built(
        Sample,
        row,
        price=Price(row["price_amount"], row["price_currency"]) if row["price_currency"] is not None else None,
        readings=entries_by_key(conn, sample_id=sample_id),
        holes=SampleHoles(
            inlet=load_hole_groups(conn, "inlet", sample_id),
            centre_tube=load_hole_groups(conn, "centre_tube", sample_id),
        ),
        bypass=Bypass(
            location=row["bypass_location"],
            kind=row["bypass_kind"],
            spring_material=row["bypass_spring_material"],
            stated_kpa=low if high is None else (low, high),
        ),
        leak=Leak(row["leak_count"], row["leak_diameter_mm"]) if row["leak_count"] is not None else None,
        observations=_observations(conn, sample_id),
        claims=_claims(conn, sample_id),
        counts=_counts(conn, sample_id),
    )
    return StoredSample(sample_id, int(row["study_id"]), sample)


SELECT_OBSERVATIONS = "SELECT key, text FROM observation WHERE sample_id = :sample_id ORDER BY rowid"


def _observations(conn: sqlite3.Connection, sample_id: int) -> dict[str, str]:
    rows = conn.execute(SELECT_OBSERVATIONS, {"sample_id": sample_id})
    return {row["key"]: row["text"] for row in rows}


SELECT_CLAIMS = "SELECT * FROM claim WHERE sample_id = :sample_id ORDER BY position"


def _claims(conn: sqlite3.Connection, sample_id: int) -> tuple[Claim, ...]:
    return tuple(built(Claim, row) for row in conn.execute(SELECT_CLAIMS, {"sample_id": sample_id}))


SELECT_COUNTS = "SELECT * FROM particle_counts WHERE sample_id = :sample_id"
SELECT_COUNT_ROWS = "SELECT * FROM particle_count_row WHERE sample_id = :sample_id ORDER BY position"


def _counts(conn: sqlite3.Connection, sample_id: int) -> Counts | None:
    row = conn.execute(SELECT_COUNTS, {"sample_id": sample_id}).fetchone()
    if row is None:
        return None
    rows = conn.execute(SELECT_COUNT_ROWS, {"sample_id": sample_id}).fetchall()
    return built(Counts, row, rows=tuple(built(CountRow, count_row) for count_row in rows))

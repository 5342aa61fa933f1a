"""A typed line, stored: readings, states, the count of a group of holes."""

from __future__ import annotations

import sqlite3
from dataclasses import replace

from tabrel.core.review.echo import parse_hole_key
from tabrel.core.review.typed_reading import FieldChange, ReadingField, reading_field
from tabrel.core.study.model import Reading
from tabrel.store.entry.holes import hole_group_ids, load_hole_groups, update_hole_group
from tabrel.store.entry.readings import insert_reading, set_state, time_now, used_readings


def load_field(conn: sqlite3.Connection, sample_id: int, key: str) -> tuple[ReadingField, int | None]:
    """Return the field of a key on a sample, and the id of its group of holes.

    Raises
    ------
    StudyError
        If there is no such field.
    """
    hole = parse_hole_key(key)
    if hole is None:
        return reading_field(key), None
    place = reading_field(key, load_hole_groups(conn, hole.placement, sample_id))
    return place, hole_group_ids(conn, sample_id)[hole.placement][hole.position]


def used_in_field(conn: sqlite3.Connection, sample_id: int, place: ReadingField, hole_group_id: int | None) -> list[Reading]:
    """Return the readings of a field that are in use."""
    if place.hole is None:
        return used_readings(conn, place.key, sample_id=sample_id)
    return used_readings(conn, place.hole.dimension, hole_group_id=hole_group_id)


def store_field_change(
    conn: sqlite3.Connection, sample_id: int, place: ReadingField, hole_group_id: int | None, change: FieldChange
) -> None:
    """Store what was typed into a field; the caller opens the transaction."""
    now = time_now(conn)
    for key, reading in change.readings:
        taken = replace(reading, taken_at=now)
        if place.hole is None:
            insert_reading(conn, key, taken, sample_id=sample_id)
        else:
            insert_reading(conn, place.hole.dimension, taken, hole_group_id=hole_group_id)
    if place.hole is None:
        for key in {place.key, *(key for key, _ in change.readings)}:
            set_state(conn, sample_id, key, change.state)
    elif change.group is not None and hole_group_id is not None:
        update_hole_group(conn, hole_group_id, change.group)

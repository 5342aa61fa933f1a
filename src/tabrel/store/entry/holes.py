"""Hole groups with their readings."""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from tabrel.core.catalogue.hole_dimensions import SHAPE_DIMENSIONS
from tabrel.core.study.model import HoleGroup, HoleReadings
from tabrel.store.connection import inserted_id
from tabrel.store.entry.readings import entries_of_holes, insert_entries
from tabrel.store.errors import NotStoredError
from tabrel.store.gather import Asked, Reader
from tabrel.store.rows import built
from tabrel.store.understood import not_understood

Placement = Literal["inlet", "centre_tube", "adapter"]

INSERT_HOLE_GROUP = """
INSERT INTO hole_group (sample_id, study_id, placement, position, shape, count, open_fraction, copied_from)
VALUES (:sample_id, :study_id, :placement, :position, :shape, :count, :open_fraction, :copied_from)
"""
INSERT_OUTLINE_POINT = """
INSERT INTO outline_point (hole_group_id, position, x_mm, y_mm) VALUES (:hole_group_id, :position, :x_mm, :y_mm)
"""


def insert_hole_groups(
    conn: sqlite3.Connection,
    placement: Placement,
    groups: Sequence[HoleGroup],
    *,
    sample_id: int | None = None,
    study_id: int | None = None,
) -> None:
    """Store hole groups of a sample, or of the adapter of a study."""
    for position, group in enumerate(groups):
        insert_hole_group(conn, placement, position, group, sample_id=sample_id, study_id=study_id)


def insert_hole_group(
    conn: sqlite3.Connection,
    placement: Placement,
    position: int,
    group: HoleGroup,
    *,
    sample_id: int | None = None,
    study_id: int | None = None,
) -> None:
    """Store one hole group with its readings."""
    named = {"sample_id": sample_id, "study_id": study_id, "placement": placement, "position": position}
    about = {"shape": group.shape, "count": group.count, "open_fraction": group.open_fraction, "copied_from": group.copied_from}
    group_id = inserted_id(conn.execute(INSERT_HOLE_GROUP, named | about))
    for dimension, entries in group.readings.by_dimension():
        insert_entries(conn, dimension, entries, hole_group_id=group_id)
    insert_outline(conn, group_id, group.readings.points_mm)


def insert_outline(conn: sqlite3.Connection, group_id: int, points: Sequence[tuple[float, float]]) -> None:
    """Store the points of an outline in their order."""
    for i, (x, y) in enumerate(points):
        conn.execute(INSERT_OUTLINE_POINT, {"hole_group_id": group_id, "position": i, "x_mm": x, "y_mm": y})


UPDATE_HOLE_GROUP = """
UPDATE hole_group SET shape = :shape, count = :count, open_fraction = :open_fraction, copied_from = NULL WHERE id = :id
"""
DELETE_OUTLINE = "DELETE FROM outline_point WHERE hole_group_id = :id"


def update_hole_group(conn: sqlite3.Connection, group_id: int, group: HoleGroup) -> None:
    """Change shape, count, open fraction and outline of a group, which is said of this filter then; its readings stay."""
    about = {"id": group_id, "shape": group.shape, "count": group.count, "open_fraction": group.open_fraction}
    conn.execute(UPDATE_HOLE_GROUP, about)
    conn.execute(DELETE_OUTLINE, {"id": group_id})
    insert_outline(conn, group_id, group.readings.points_mm)


DELETE_READINGS_OF_GROUP = "DELETE FROM reading WHERE hole_group_id = :id"
DELETE_HOLE_GROUP = "DELETE FROM hole_group WHERE id = :id"
SELECT_BEHIND = """
SELECT id, position FROM hole_group
WHERE sample_id = :sample_id AND placement = :placement AND position > :position ORDER BY position
"""
MOVE_UP = "UPDATE hole_group SET position = :position WHERE id = :id"


def remove_hole_group(conn: sqlite3.Connection, sample_id: int, placement: Placement, position: int, group_id: int) -> None:
    """Remove a group and close the gap; the journal keeps it with its readings."""
    conn.execute(DELETE_READINGS_OF_GROUP, {"id": group_id})
    conn.execute(DELETE_OUTLINE, {"id": group_id})
    conn.execute(DELETE_HOLE_GROUP, {"id": group_id})
    behind = conn.execute(SELECT_BEHIND, {"sample_id": sample_id, "placement": placement, "position": position}).fetchall()
    for row in behind:  # one after the other: a place is taken once at every moment
        conn.execute(MOVE_UP, {"id": row["id"], "position": row["position"] - 1})


SELECT_HOLE_GROUPS = """
SELECT * FROM hole_group
WHERE placement = :placement AND (sample_id = :owner OR study_id = :owner)
ORDER BY position
"""
SELECT_OUTLINE_POINTS = """
SELECT outline_point.hole_group_id, outline_point.x_mm, outline_point.y_mm
FROM outline_point JOIN hole_group ON hole_group.id = outline_point.hole_group_id
WHERE hole_group.placement = :placement AND (hole_group.sample_id = :owner OR hole_group.study_id = :owner)
ORDER BY outline_point.hole_group_id, outline_point.position
"""


def hole_statements(placement: Placement, owner: int) -> list[Asked]:
    """Return what loading the hole groups of a sample, or of the adapter of a study, asks."""
    named = {"placement": placement, "owner": owner}
    return [(sql, named) for sql in (SELECT_HOLE_GROUPS, SELECT_OUTLINE_POINTS)]


def load_hole_groups(conn: Reader, placement: Placement, owner: int) -> tuple[HoleGroup, ...]:
    """Return the hole groups of a sample, or of the adapter of a study."""
    named = {"placement": placement, "owner": owner}
    points: dict[int, list[tuple[float, float]]] = {}
    for row in conn.execute(SELECT_OUTLINE_POINTS, named):
        points.setdefault(row["hole_group_id"], []).append((row["x_mm"], row["y_mm"]))
    entries = entries_of_holes(conn, study_id=owner) if placement == "adapter" else entries_of_holes(conn, sample_id=owner)
    groups = []
    for row in conn.execute(SELECT_HOLE_GROUPS, named):
        if row["shape"] not in SHAPE_DIMENSIONS:
            raise not_understood(f"the shape of a hole, {row['shape']!r},")
        readings = HoleReadings(**entries.get(row["id"], {}), points_mm=tuple(points.get(row["id"], ())))
        groups.append(built(HoleGroup, row, readings=readings))
    return tuple(groups)


SELECT_HOLE_GROUP_IDS = "SELECT id, placement FROM hole_group WHERE sample_id = :sample_id ORDER BY position"


def hole_group_ids(conn: Reader, sample_id: int) -> dict[str, list[int]]:
    """Return the ids of the hole groups of a sample by placement, in their order."""
    ids: dict[str, list[int]] = {}
    for row in conn.execute(SELECT_HOLE_GROUP_IDS, {"sample_id": sample_id}):
        ids.setdefault(row["placement"], []).append(int(row["id"]))
    return ids


@dataclass(frozen=True)
class HolePlace:
    """Where a group of holes of a sample is."""

    sample_id: int
    placement: Literal["inlet", "centre_tube"]
    position: int


SELECT_HOLE_PLACE = "SELECT sample_id, placement, position FROM hole_group WHERE id = :id AND sample_id IS NOT NULL"


def place_of_hole_group(conn: sqlite3.Connection, group_id: int) -> HolePlace:
    """Return where a group of holes of a sample is.

    Raises
    ------
    NotStoredError
        If there is no such group.
    """
    row = conn.execute(SELECT_HOLE_PLACE, {"id": group_id}).fetchone()
    if row is None:
        raise NotStoredError("there is no such group of holes, or no longer: load the sample again")
    return HolePlace(int(row["sample_id"]), row["placement"], int(row["position"]))

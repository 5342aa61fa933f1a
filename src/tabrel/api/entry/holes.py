"""Groups of holes: added in one line, changed, removed."""

from __future__ import annotations

import re
from dataclasses import replace

from fastapi import APIRouter

from tabrel.api.change.bench import Bench
from tabrel.api.change.models import ChangedOut
from tabrel.api.deps import Connection, HoleGroupId, SampleId
from tabrel.api.entry.models import EchoOut, HoleGroupIn, HolesIn
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.sample.sheet import group_words
from tabrel.api.wire import NothingIn
from tabrel.core.catalogue.quantities import HOLE_PLACEMENTS, HOLE_QUANTITIES
from tabrel.core.catalogue.units import UnitFamily, shown
from tabrel.core.entry.hole_line import understand_hole_group
from tabrel.core.entry.likely_errors import question
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.rules.study import check_hole_group, check_reading_text
from tabrel.core.study.model import HoleGroup, as_reading
from tabrel.core.uncertainty.estimate import estimate_quantity
from tabrel.store.connection import transaction
from tabrel.store.entry.holes import (
    HolePlace,
    insert_hole_group,
    load_hole_groups,
    place_of_hole_group,
    remove_hole_group,
    update_hole_group,
)
from tabrel.store.entry.readings import time_now
from tabrel.store.sample.samples import study_of_sample

router = APIRouter(prefix="/api", tags=["holes"], responses=PROBLEM_RESPONSES)


@router.post("/samples/{sample_id}/holes", status_code=201)
def post_holes(sample_id: SampleId, given: HolesIn, bench: Bench) -> ChangedOut:
    """Add a group of holes from one line such as ``8 x 5.6 mm``."""
    conn = bench.conn
    with transaction(conn):
        study_of_sample(conn, sample_id)
        group = _understood(given)
        position = len(load_hole_groups(conn, given.placement, sample_id))
        title, place = HOLE_PLACEMENTS[given.placement].title, f"holes.{given.placement}[{position}]"
        with bench.recorded(sample_id, f"{title}: {' '.join(given.text.split())}", place):
            now = time_now(conn)
            timed = {
                dimension: tuple(replace(as_reading(entry), taken_at=now) for entry in entries)
                for dimension, entries in group.readings.by_dimension()
            }
            readings = replace(group.readings, **timed)  # type: ignore[arg-type]
            insert_hole_group(conn, given.placement, position, replace(group, readings=readings), sample_id=sample_id)
    return bench.answer(sample_id)


def _understood(given: HolesIn) -> HoleGroup:
    try:
        group = understand_hole_group(given.text, given.family)
        check_hole_group("holes", group)
    except ReadingTextError as error:
        raise StudyError("holes", str(error)) from error
    return group


@router.post("/samples/{sample_id}/holes/echo")
def post_holes_echo(sample_id: SampleId, given: HolesIn, conn: Connection) -> EchoOut:
    """Return what would be understood of a line that describes holes; nothing is stored."""
    study_of_sample(conn, sample_id)
    try:
        group = _understood(given)
    except StudyError as error:
        return EchoOut(text=given.text, metric="", inch="", problem=error.message, question=None, correction=None, estimate=None)
    asked = None
    for dimension, entries in group.readings.by_dimension():
        quantity = HOLE_QUANTITIES[dimension]
        for entry in entries:
            reading = as_reading(entry)
            asked = asked or question(quantity, reading.text, check_reading_text(quantity, reading.text))
    return EchoOut(
        text=" ".join(given.text.split()),
        metric=_words(group, "metric"),
        inch=_words(group, "inch"),
        problem=None,
        question=asked[0] if asked else None,
        correction=None,
        estimate=None,
    )


def _words(group: HoleGroup, family: UnitFamily) -> str:
    """Return a group in words, its sizes in one family."""
    sizes = []
    for dimension, entries in group.readings.by_dimension():
        quantity = HOLE_QUANTITIES[dimension]
        estimate = estimate_quantity(quantity, entries)
        sizes.append(f"{quantity.title} {shown(estimate.value, quantity.unit(family)) if estimate else 'unknown'}")
    if group.readings.points_mm:
        sizes.append(f"{len(group.readings.points_mm)} points")
    covered = "" if group.open_fraction is None else f", {group.open_fraction:.0%} open"
    return f"{group.count} {group.shape}, {', '.join(sizes)}{covered}"


@router.put("/holes/{hole_group_id}")
def put_hole_group(hole_group_id: HoleGroupId, given: HoleGroupIn, bench: Bench) -> ChangedOut:
    """Change shape, count, open part or outline of a group; its readings stay."""
    conn = bench.conn
    with transaction(conn):
        place, group = _seen_group(bench, hole_group_id)
        path = f"holes.{place.placement}[{place.position}]"
        pairs = tuple((float(x), float(y)) for x, y in _POINTS.findall(given.points)) if given.shape == "outline" else ()
        kept = replace(
            group,
            shape=given.shape,
            count=given.count,
            open_fraction=None if given.open_percent == 100 else given.open_percent / 100,
            readings=replace(group.readings, points_mm=pairs),
        )
        check_hole_group(path, kept)
        words = f"{HOLE_PLACEMENTS[place.placement].title}: {given.count} {given.shape}"
        with bench.recorded(place.sample_id, words, path):
            update_hole_group(conn, hole_group_id, kept)
    return bench.answer(place.sample_id, f"holes/{hole_group_id}")


_POINTS = re.compile(r"(-?\d+(?:\.\d+)?)[\s,]+(-?\d+(?:\.\d+)?)")


@router.delete("/holes/{hole_group_id}")
def delete_hole_group(hole_group_id: HoleGroupId, _: NothingIn, bench: Bench) -> ChangedOut:
    """Remove a group of holes, if it is still as it was seen; undo brings it back with its readings."""
    conn = bench.conn
    with transaction(conn):
        place, group = _seen_group(bench, hole_group_id)
        words = f"{HOLE_PLACEMENTS[place.placement].title}: {group.count} {group.shape} removed"
        with bench.recorded(place.sample_id, words, f"holes.{place.placement}[{place.position}]"):
            remove_hole_group(conn, place.sample_id, place.placement, place.position, hole_group_id)
    return bench.answer(place.sample_id)


def _seen_group(bench: Bench, group_id: int) -> tuple[HolePlace, HoleGroup]:
    """Return a group of holes that is still as the window has seen it."""
    place = place_of_hole_group(bench.conn, group_id)
    group = load_hole_groups(bench.conn, place.placement, place.sample_id)[place.position]
    says = f"another window has made this group {group_words(group)!r} meanwhile: look, then change it again"
    bench.require_seen(place.sample_id, f"holes/{group_id}", says)
    return place, group

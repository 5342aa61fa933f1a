"""Readings: added as typed, set aside, corrected, confirmed, used again."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass, replace

from fastapi import APIRouter

from tabrel.api.change.bench import Bench
from tabrel.api.change.models import ChangedOut
from tabrel.api.deps import Connection, ReadingId, SampleId
from tabrel.api.entry.models import CorrectionIn, EchoOut, HistoryOut, ReadingIn, SetAsideIn
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.sample.sheet import estimate_out
from tabrel.api.wire import NothingIn
from tabrel.core.catalogue.hole_dimensions import dimensions_of
from tabrel.core.catalogue.quantities import INSTRUMENT_DIMENSIONS, PART_TITLES, QUANTITIES, Quantity
from tabrel.core.catalogue.terms import CORRECTION_REASONS, STATE_WORDS
from tabrel.core.entry.field_line import FieldEntry, understand_entry
from tabrel.core.errors import ReadingTextError, StudyError, nearest_hint
from tabrel.core.review.echo import HoleKey, echo, parse_hole_key, quantity_of, questions
from tabrel.core.rules.study import check_hole_group, check_reading_text
from tabrel.core.study.model import HoleGroup, Reading
from tabrel.store.connection import transaction
from tabrel.store.entry.holes import hole_group_ids, load_hole_groups, update_hole_group
from tabrel.store.entry.readings import (
    ReadingPlace,
    confirm,
    insert_reading,
    place_of_reading,
    set_aside,
    set_state,
    time_now,
    use_again,
    used_readings,
)
from tabrel.store.errors import ChangedMeanwhileError, ConflictError
from tabrel.store.journal import history
from tabrel.store.sample.samples import study_of_sample

router = APIRouter(prefix="/api", tags=["readings"], responses=PROBLEM_RESPONSES)


@dataclass(frozen=True)
class _Place:
    """Where readings go: the quantity, the key within its owner, and the owner."""

    quantity: Quantity
    key: str
    sample_id: int | None
    hole_group_id: int | None
    group: HoleGroup | None = None

    def title(self) -> str:
        part = "Holes" if self.hole_group_id is not None else PART_TITLES[self.quantity.part]
        return f"{part}, {self.quantity.title}"

    def used_readings(self, conn: sqlite3.Connection) -> list[Reading]:
        return used_readings(conn, self.key, sample_id=self.sample_id, hole_group_id=self.hole_group_id)


@router.post("/samples/{sample_id}/readings", status_code=201)
def post_reading(sample_id: SampleId, given: ReadingIn, bench: Bench) -> ChangedOut:
    """Take what was typed into a field: readings, or a state that is no value, which overwrites another."""
    conn = bench.conn
    with transaction(conn):
        study_of_sample(conn, sample_id)
        place = _place(conn, sample_id, given.key)
        if given.hole_group_id not in (None, place.hole_group_id):
            raise ConflictError("another window has removed a group of holes meanwhile: look which this one is, then type again")
        entry = _entry(given, place)
        if entry.state is not None:
            if place.used_readings(conn):
                raise StudyError(given.key, "there are readings in use: set them aside first, then say why there is none")
            if place.hole_group_id is not None:
                raise StudyError(given.key, "a size of a hole has no state: remove the group of holes instead")
            thing = f"states/{given.key}"
            bench.require_seen(sample_id, thing, SAID_MEANWHILE)
            with bench.recorded(sample_id, f"{place.title()}: {STATE_WORDS[entry.state][0]}", given.key):
                set_state(conn, sample_id, given.key, entry.state)
            return bench.answer(sample_id, thing)
        asked = questions(entry.readings, place.quantity, place.used_readings(conn))
        texts = ", ".join(reading.text for reading in entry.thread.values() or entry.readings)
        with bench.recorded(sample_id, f"{place.title()}: {texts}", given.key):
            now = time_now(conn)
            for reading, question in zip(entry.readings, asked, strict=True):
                kept = replace(reading, taken_at=now, insisted=True if question and given.confirm else None)
                insert_reading(conn, place.key, kept, sample_id=place.sample_id, hole_group_id=place.hole_group_id)
            for key, reading in entry.thread.items():  # a named thread says both its sizes
                if key != given.key:
                    insert_reading(conn, key, replace(reading, taken_at=now), sample_id=sample_id)
                    set_state(conn, sample_id, key, None)
            if place.hole_group_id is None:
                set_state(conn, sample_id, given.key, None)
            elif place.group is not None and entry.count is not None and _says_anew(place.group, entry.count):
                update_hole_group(conn, place.hole_group_id, replace(place.group, count=entry.count))
    return bench.answer(sample_id)


def _says_anew(group: HoleGroup, count: int) -> bool:
    """Return whether a count typed with a size is another one, or confirms one that was only copied."""
    return count != group.count or group.copied_from is not None


SAID_MEANWHILE = "another window has said meanwhile why there is no value: look, then say it again"


def _entry(given: ReadingIn, place: _Place) -> FieldEntry:
    """Return what was typed, with what was chosen beside the field, or refuse it at the field."""
    quantity = place.quantity
    try:
        entry = understand_entry(given.text, quantity, given.family, counted=place.hole_group_id is not None)
        for reading in entry.readings:
            check_reading_text(quantity, reading.text)
    except ReadingTextError as error:
        raise StudyError(given.key, str(error)) from error
    if given.instrument and quantity.dimension not in INSTRUMENT_DIMENSIONS[given.instrument]:
        name = given.instrument.replace("_", " ")
        raise StudyError(given.key, f"a {name} does not measure a {quantity.dimension.replace('_', ' ')}: choose another")
    if entry.count is not None and place.group is not None:
        check_hole_group(given.key, replace(place.group, count=entry.count))
    chosen = None if given.provenance == "measured" else given.provenance
    note = " ".join((given.note or "").split()) or None
    readings = tuple(
        replace(
            reading,
            provenance=reading.provenance or chosen,
            instrument=reading.instrument or given.instrument,
            note=reading.note or note,
        )
        for reading in entry.readings
    )
    return replace(entry, readings=readings)


@router.post("/readings/{reading_id}/set-aside")
def post_set_aside(reading_id: ReadingId, given: SetAsideIn, bench: Bench) -> ChangedOut:
    """Set a reading aside with a reason; it stays visible and is not used."""
    with transaction(bench.conn):
        reason = " ".join(given.reason.split())
        if not reason:
            raise StudyError("reason", "is empty: say in a few words why the reading does not count")
        place = _used_place(bench, reading_id)
        with bench.recorded(place.sample_id, f"{place.text} set aside: {reason}", place.key):
            set_aside(bench.conn, reading_id, reason)
    return bench.answer(place.sample_id, f"readings/{reading_id}")


def _used_place(bench: Bench, reading_id: int) -> ReadingPlace:
    """Return where a reading belongs that is in use and still as the window has seen it."""
    place = place_of_reading(bench.conn, reading_id)
    if place.struck_out is not None:
        says = f"another window has set {place.text} aside meanwhile ({place.struck_out}): look, then go on"
        raise ChangedMeanwhileError(says)
    _require_seen(bench, reading_id, place)
    return place


def _require_seen(bench: Bench, reading_id: int, place: ReadingPlace) -> None:
    says = f"another window has changed what is recorded of {place.text} meanwhile: look, then go on"
    bench.require_seen(place.sample_id, f"readings/{reading_id}", says)


@router.post("/readings/{reading_id}/use-again")
def post_use_again(reading_id: ReadingId, _: NothingIn, bench: Bench) -> ChangedOut:
    """Use a reading again that was set aside; that it was, and why, stays in its history."""
    conn, thing = bench.conn, f"readings/{reading_id}"
    with transaction(conn):
        place = place_of_reading(conn, reading_id)
        if place.struck_out is None:
            return bench.answer(place.sample_id, thing)
        _require_seen(bench, reading_id, place)
        with bench.recorded(place.sample_id, f"{place.text} used again", place.key):
            use_again(conn, reading_id)
            if place.hole_group_id is None:
                set_state(conn, place.sample_id, place.key, None)
    return bench.answer(place.sample_id, thing)


@router.post("/readings/{reading_id}/confirm")
def post_confirm(reading_id: ReadingId, _: NothingIn, bench: Bench) -> ChangedOut:
    """Record that a questioned reading is meant as typed."""
    with transaction(bench.conn):
        place = _used_place(bench, reading_id)
        with bench.recorded(place.sample_id, f"{place.text} confirmed", place.key):
            confirm(bench.conn, reading_id)
    return bench.answer(place.sample_id, f"readings/{reading_id}")


@router.post("/readings/{reading_id}/correct")
def post_correction(reading_id: ReadingId, meant: CorrectionIn, bench: Bench) -> ChangedOut:
    """Set an error aside with the reason and put in what was meant, as one change; what was recorded of it goes along."""
    conn = bench.conn
    with transaction(conn):
        stored = _used_place(bench, reading_id)
        place = _place(conn, stored.sample_id, stored.key)
        right = _corrected(stored, place, meant)
        with bench.recorded(stored.sample_id, f"{stored.text} corrected to {right.text}", stored.key):
            set_aside(conn, reading_id, f"{CORRECTION_REASONS[meant.reason]}, {right.text} was meant")
            kept = replace(right, taken_at=time_now(conn))
            insert_reading(conn, place.key, kept, sample_id=place.sample_id, hole_group_id=place.hole_group_id)
    return bench.answer(stored.sample_id, f"readings/{reading_id}")


def _corrected(wrong: ReadingPlace, place: _Place, meant: CorrectionIn) -> Reading:
    """Return the one reading that was meant, with what was recorded of the wrong one unless it is said anew."""
    quantity = place.quantity
    try:
        entry = understand_entry(meant.text, quantity, meant.family)
        if entry.state is not None or len(entry.readings) != 1:
            raise ReadingTextError("one reading takes the place of one: type one value")
        [right] = entry.readings
        check_reading_text(quantity, right.text)
    except ReadingTextError as error:
        raise StudyError(wrong.key, str(error)) from error
    was = wrong.reading
    return replace(
        right,
        provenance=right.provenance or was.provenance,
        instrument=right.instrument or (None if meant.reason == "instrument" else was.instrument),
        note=", ".join(note for note in (right.note or was.note, f"corrected from {was.text}") if note),
    )


@router.get("/readings/{reading_id}/history")
def get_history(reading_id: ReadingId, conn: Connection) -> list[HistoryOut]:
    """Return what was done to a reading: typed, set aside, used again, confirmed."""
    place_of_reading(conn, reading_id)
    return [HistoryOut(words=words, at=at, undone=undone) for words, at, undone in history(conn, "reading", reading_id)]


@router.post("/samples/{sample_id}/echo")
def post_echo(sample_id: SampleId, given: ReadingIn, conn: Connection) -> EchoOut:
    """Return what would be understood of a text, and the mean it would make; nothing is stored."""
    place = _place(conn, sample_id, given.key)
    counted = place.hole_group_id is not None
    understood = echo(given.text, place.quantity, given.family, used=place.used_readings(conn), counted=counted)
    estimate = estimate_out(place.quantity, understood.estimate) if understood.estimate else None
    return EchoOut(**{**vars(understood), "estimate": estimate})


def _place(conn: sqlite3.Connection, sample_id: int, key: str) -> _Place:
    """Return where the readings of a key go, or refuse the key."""
    quantity, hole = quantity_of(key), parse_hole_key(key)
    if quantity is None:
        raise StudyError("key", f"{key!r} is no reading key{nearest_hint(key, QUANTITIES)}: use a key of the catalogue")
    if hole is None:
        study_of_sample(conn, sample_id)
        return _Place(quantity, key, sample_id, None)
    group_id, group = _hole_group(conn, sample_id, key, hole)
    if hole.dimension not in dimensions_of(group.shape):
        raise StudyError("key", f"a {group.shape} hole has no {hole.dimension}")
    return _Place(quantity, hole.dimension, None, group_id, group)


def _hole_group(conn: sqlite3.Connection, sample_id: int, key: str, hole: HoleKey) -> tuple[int, HoleGroup]:
    groups = hole_group_ids(conn, sample_id).get(hole.placement, [])
    if hole.position >= len(groups):
        study_of_sample(conn, sample_id)
        raise StudyError("key", f"this sample has no hole group {key.rpartition('.')[0]!r}: add it first")
    return groups[hole.position], load_hole_groups(conn, hole.placement, sample_id)[hole.position]

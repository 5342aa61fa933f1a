"""Readings: added as typed, set aside, corrected, confirmed, used again."""

from __future__ import annotations

from fastapi import APIRouter

from tabrel.api.change.bench import Bench
from tabrel.api.change.models import ChangedOut
from tabrel.api.deps import Connection, ReadingId, SampleId
from tabrel.api.entry.models import CorrectionIn, EchoOut, HistoryOut, ReadingIn, SetAsideIn
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.sample.sheet import estimate_out
from tabrel.api.wire import NothingIn
from tabrel.core.errors import StudyError
from tabrel.core.review.echo import echo
from tabrel.core.review.typed_reading import FieldChange, Typed, correction, field_change
from tabrel.store.connection import transaction
from tabrel.store.entry.readings import ReadingPlace, confirm, place_of_reading, set_aside, set_state, use_again
from tabrel.store.entry.typed import load_field, store_field_change, used_in_field
from tabrel.store.errors import ChangedMeanwhileError, ConflictError
from tabrel.store.journal import history
from tabrel.store.sample.samples import study_of_sample

router = APIRouter(prefix="/api", tags=["readings"], responses=PROBLEM_RESPONSES)


@router.post("/samples/{sample_id}/readings", status_code=201)
def post_reading(sample_id: SampleId, given: ReadingIn, bench: Bench) -> ChangedOut:
    """Take what was typed into a field: readings, or a state that is no value, which overwrites another."""
    conn = bench.conn
    with transaction(conn):
        study_of_sample(conn, sample_id)
        place, hole_group_id = load_field(conn, sample_id, given.key)
        if given.hole_group_id not in (None, hole_group_id):
            raise ConflictError("another window has removed a group of holes meanwhile: look which this one is, then type again")
        typed = Typed(given.text, given.family, given.provenance, given.instrument, given.note, given.confirm)
        change = field_change(place, typed, used_in_field(conn, sample_id, place, hole_group_id))
        facts = [] if change.state is None else [f"states/{given.key}"]
        for fact in facts:
            bench.require_seen(sample_id, fact, STATED_MEANWHILE)
        with bench.recorded(sample_id, change.words, given.key):
            store_field_change(conn, sample_id, place, hole_group_id, change)
    return bench.answer(sample_id, *facts)


STATED_MEANWHILE = "another window has said meanwhile why there is no value: look, then say it again"


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
    if place.set_aside is not None:
        says = f"another window has set {place.text} aside meanwhile ({place.set_aside}): look, then go on"
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
        if place.set_aside is None:
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
        place, hole_group_id = load_field(conn, stored.sample_id, stored.key)
        right, why = correction(place, stored.reading, Typed(meant.text, meant.family), meant.reason)
        with bench.recorded(stored.sample_id, f"{stored.text} corrected to {right.text}", stored.key):
            set_aside(conn, reading_id, why)
            change = FieldChange("", ((stored.key, right),))
            store_field_change(conn, stored.sample_id, place, hole_group_id, change)
    return bench.answer(stored.sample_id, f"readings/{reading_id}")


@router.get("/readings/{reading_id}/history")
def get_history(reading_id: ReadingId, conn: Connection) -> list[HistoryOut]:
    """Return what was done to a reading: typed, set aside, used again, confirmed."""
    place_of_reading(conn, reading_id)
    return [HistoryOut(words=words, at=at, undone=undone) for words, at, undone in history(conn, "reading", reading_id)]


@router.post("/samples/{sample_id}/echo")
def post_echo(sample_id: SampleId, given: ReadingIn, conn: Connection) -> EchoOut:
    """Return what would be understood of a text, and the mean it would make; nothing is stored."""
    study_of_sample(conn, sample_id)
    place, hole_group_id = load_field(conn, sample_id, given.key)
    used = used_in_field(conn, sample_id, place, hole_group_id)
    understood = echo(given.text, place.quantity, given.family, used=used, counted=place.hole is not None)
    estimate = estimate_out(place.quantity, understood.estimate) if understood.estimate else None
    return EchoOut(**{**vars(understood), "estimate": estimate})

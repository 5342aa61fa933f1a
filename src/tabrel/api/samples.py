"""Samples: the bench sheet, readings, results."""

from __future__ import annotations

import sqlite3

from fastapi import APIRouter

from tabrel.api.deps import Connection
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.sheet import sheet_out
from tabrel.api.wire import EchoOut, ReadingIn, SheetOut, StrikeOutIn
from tabrel.core.analysis import analyse_sample
from tabrel.core.echo import echo, parse_hole_key, quantity_of, with_unit
from tabrel.core.errors import ReadingTextError, StudyError, nearest_hint
from tabrel.core.hole_shapes import SHAPE_DIMENSIONS
from tabrel.core.quantities import QUANTITIES, Quantity
from tabrel.core.study_checks import check_reading_text
from tabrel.document.results import AnalysisOut, analysis_out
from tabrel.store.circuits import load_circuit
from tabrel.store.connection import transaction
from tabrel.store.holes import hole_group_id
from tabrel.store.readings import insert_reading, restore, strike_out
from tabrel.store.samples import load_sample

router = APIRouter(prefix="/api", tags=["samples"], responses=PROBLEM_RESPONSES)


@router.get("/samples/{sample_id}")
def get_sheet(sample_id: int, conn: Connection) -> SheetOut:
    """Return the bench sheet of a sample."""
    return sheet_out(conn, sample_id)


@router.get("/samples/{sample_id}/results")
def get_results(sample_id: int, conn: Connection) -> AnalysisOut:
    """Return results and warnings of a sample."""
    stored = load_sample(conn, sample_id)
    return analysis_out(stored.sample.label, analyse_sample(stored.sample, load_circuit(conn, stored.study_id)))


@router.post("/samples/{sample_id}/readings", status_code=201)
def post_reading(sample_id: int, reading: ReadingIn, conn: Connection) -> SheetOut:
    """Add a reading as typed and return the sheet as it then stands."""
    quantity = _quantity(reading.key)
    text = with_unit(reading.text, quantity, reading.family)
    try:
        check_reading_text(quantity, text)
    except ReadingTextError as error:
        raise StudyError(reading.key, str(error)) from error
    with transaction(conn):
        _insert(conn, sample_id, reading.key, text)
    return sheet_out(conn, sample_id)


@router.post("/readings/{reading_id}/strike-out")
def post_strike_out(reading_id: int, strike: StrikeOutIn, conn: Connection) -> SheetOut:
    """Strike a reading out with a reason; it stays visible and counts for nothing."""
    reason = " ".join(strike.reason.split())
    if not reason:
        raise StudyError("reason", "is empty: say in a few words why the reading does not count")
    with transaction(conn):
        sample_id = strike_out(conn, reading_id, reason)
    return sheet_out(conn, sample_id)


@router.post("/readings/{reading_id}/restore")
def post_restore(reading_id: int, conn: Connection) -> SheetOut:
    """Let a struck reading stand again."""
    with transaction(conn):
        sample_id = restore(conn, reading_id)
    return sheet_out(conn, sample_id)


@router.post("/echo")
def post_echo(reading: ReadingIn) -> EchoOut:
    """Return what would be understood of a text; nothing is stored."""
    understood = echo(reading.text, _quantity(reading.key), reading.family)
    return EchoOut(**vars(understood))


def _quantity(key: str) -> Quantity:
    quantity = quantity_of(key)
    if quantity is None:
        raise StudyError("key", f"{key!r} is no reading key{nearest_hint(key, QUANTITIES)}: use a key of the catalogue")
    return quantity


def _insert(conn: sqlite3.Connection, sample_id: int, key: str, text: str) -> None:
    stored = load_sample(conn, sample_id)
    hole = parse_hole_key(key)
    if hole is None:
        insert_reading(conn, key, text, sample_id=sample_id)
        return
    groups = getattr(stored.sample.holes, hole.placement)
    group_id = hole_group_id(conn, sample_id, hole.placement, hole.position)
    if group_id is None:
        raise StudyError("key", f"this sample has no hole group {key.rpartition('.')[0]!r}: it has {len(groups)} there")
    takes = SHAPE_DIMENSIONS[groups[hole.position].shape]
    if hole.dimension not in takes.required + takes.optional:
        raise StudyError("key", f"a {groups[hole.position].shape} hole has no {hole.dimension}")
    insert_reading(conn, hole.dimension, text, hole_group_id=group_id)

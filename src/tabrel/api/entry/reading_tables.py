"""Tables of readings that come in: looked at first, then taken, each filter one change that can be undone."""

from __future__ import annotations

import sqlite3
from dataclasses import replace

from fastapi import APIRouter, Response

from tabrel.api import stale
from tabrel.api.deps import Connection, Content, StudyId, content_of
from tabrel.api.entry.table_models import (
    ReadingTableIn,
    ReadingTableOut,
    SheetTextOut,
    TableReadingOut,
    TakenFilterOut,
    TakenTableOut,
)
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.turns import HEAVY, HEAVY_WHERE_LARGE
from tabrel.core.catalogue.quantities import PART_TITLES
from tabrel.core.errors import StudyError
from tabrel.core.review.reading_table import ReadingTable, TableReading, read_reading_table
from tabrel.core.study.model import Sample, used_readings
from tabrel.document.spreadsheet import sheets_as_text
from tabrel.store.connection import snapshot, transaction
from tabrel.store.entry.readings import insert_reading, set_state
from tabrel.store.journal import belongs_to_sample, recorded
from tabrel.store.sample.samples import StoredSample, insert_sample, load_samples, names_of_samples, next_position
from tabrel.store.study.studies import load_study_frame
from tabrel.store.study.uses import relabel_in_uses

router = APIRouter(prefix="/api", tags=["readings"], responses=PROBLEM_RESPONSES)

PLACE = "readings"
"""Where the journal says readings came from a table."""

THERE = "is there already"


WORKBOOK = content_of("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", {"type": "string", "format": "binary"})


@router.post("/spreadsheet-text", dependencies=HEAVY, openapi_extra=WORKBOOK)
def post_spreadsheet_text(content: Content) -> list[SheetTextOut]:
    """Return the sheets of a workbook as text, to be looked at; nothing is taken."""
    return [SheetTextOut(name=name, text=text) for name, text in sheets_as_text(content).items()]


@router.post("/studies/{study_id}/readings-table/preview", dependencies=HEAVY_WHERE_LARGE)
def post_readings_table_preview(study_id: StudyId, given: ReadingTableIn, conn: Connection) -> ReadingTableOut:
    """Return what is understood of a table of readings, what is asked, questioned and refused; nothing is taken."""
    with snapshot(conn):
        load_study_frame(conn, study_id)
        samples = load_samples(conn, study_id)
    return _table_out(_read(given, samples), samples)


@router.post("/studies/{study_id}/readings-table", status_code=201, dependencies=HEAVY_WHERE_LARGE, responses=stale.naming(201))
def post_readings_table(study_id: StudyId, given: ReadingTableIn, conn: Connection, response: Response) -> TakenTableOut:
    """Take what is understood of a table of readings, whole or not at all; a filter of another label is begun."""
    with transaction(conn):
        load_study_frame(conn, study_id)
        samples = load_samples(conn, study_id)
        table = _read(given, samples)
        if not table.is_complete:
            raise StudyError("text", _why_not(table))
        taken = [_take(conn, study_id, label, table, samples) for label in table.labels]
    whole = stale.whole_study(study_id, (sample.id for sample in names_of_samples(conn, study_id)))
    stale.name_stale(response, [f"{stale.STUDIES}/{study_id}", *whole])
    return TakenTableOut(filters=taken)


def _why_not(table: ReadingTable) -> str:
    if table.problem:
        return table.problem
    if table.asks_decimal:
        return f"{table.asks_decimal!r} can be read either way: say which mark is the decimal one"
    if table.asks_units:
        return "some numbers have no unit: name it in the heading, or say whose units they are in"
    return "nothing in the table is understood: see what is said beside each cell"


def _read(given: ReadingTableIn, samples: list[StoredSample]) -> ReadingTable:
    own = next((stored.sample.label for stored in samples if stored.id == given.sample_id), "")
    table = read_reading_table(given.text, decimal=given.decimal, family=given.family, own_label=own)
    there = {
        (stored.sample.label.casefold(), key, reading.text)
        for stored in samples
        for key, entries in stored.sample.readings.items()
        for reading in used_readings(entries)
    }
    return replace(table, readings=tuple(_unless_there(table_reading, there) for table_reading in table.readings))


def _unless_there(value: TableReading, there: set[tuple[str, str, str]]) -> TableReading:
    """Leave out what a filter has in exactly these words: a table taken twice adds nothing."""
    if not value.is_taken or value.quantity is None:
        return value
    new = tuple(reading for reading in value.readings if (value.label.casefold(), value.quantity.key, reading.text) not in there)
    if new == value.readings:
        return value
    return replace(value, readings=new) if new else replace(value, readings=(), state="left_out", why=THERE)


def _take(
    conn: sqlite3.Connection, study_id: int, label: str, table: ReadingTable, samples: list[StoredSample]
) -> TakenFilterOut:
    there = next((stored.id for stored in samples if stored.sample.label.casefold() == label.casefold()), None)
    cells = [
        table_reading
        for table_reading in table.readings
        if table_reading.label == label and table_reading.is_taken and table_reading.quantity is not None
    ]
    count = sum(len(table_reading.readings) for table_reading in cells)
    words = f"{count} reading{'' if count == 1 else 's'} of {label} from a table"
    with recorded(conn, study_id, there, words, PLACE) as change_id:
        sample_id = there
        if sample_id is None:
            relabel_in_uses(conn, study_id, label, None)  # of one of that label that was deleted
            sample_id = insert_sample(conn, study_id, next_position(conn, study_id), Sample(label))
            belongs_to_sample(conn, change_id, sample_id)
        for table_reading in cells:
            key = table_reading.quantity.key if table_reading.quantity is not None else ""
            for reading in table_reading.readings:
                kept = replace(reading, confirmed=True if table_reading.state == "questioned" else None)
                insert_reading(conn, key, kept, sample_id=sample_id)
            set_state(conn, sample_id, key, None)
    return TakenFilterOut(sample_id=sample_id, label=label, reading_count=count, is_new=there is None)


def _table_out(table: ReadingTable, samples: list[StoredSample]) -> ReadingTableOut:
    known = {stored.sample.label.casefold() for stored in samples}
    return ReadingTableOut(
        layout=table.layout,
        problem=table.problem,
        asks_decimal=table.asks_decimal,
        asks_units=table.asks_units,
        is_complete=table.is_complete,
        new_labels=[label for label in table.labels if label.casefold() not in known],
        readings=[
            TableReadingOut(
                line=table_reading.line,
                label=table_reading.label,
                words=table_reading.words,
                understood_as=""
                if table_reading.quantity is None
                else f"{PART_TITLES[table_reading.quantity.part]}: {table_reading.quantity.title}",
                text=table_reading.text,
                readings=[reading.text for reading in table_reading.readings],
                state=table_reading.state,
                why=table_reading.why,
            )
            for table_reading in table.readings
        ],
    )

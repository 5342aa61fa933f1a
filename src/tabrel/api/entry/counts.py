"""Particle counts of a test: a table is looked at first, taken only when asked, and given back in our own layout."""

from __future__ import annotations

import sqlite3

from fastapi import APIRouter, Response

from tabrel.api.change.bench import ETAG, Bench, etag
from tabrel.api.change.models import ChangedOut
from tabrel.api.deps import Connection, SampleId
from tabrel.api.entry.count_models import (
    CountsOut,
    CountTableIn,
    CountTableOut,
    HeadingOut,
    SettingOut,
)
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.turns import HEAVY_WHERE_LARGE
from tabrel.api.wire import NothingIn
from tabrel.core.counts.totals import with_intervals
from tabrel.core.details.condition_details import with_counts
from tabrel.core.entry.count_columns import CountTable, TableChoices
from tabrel.core.entry.count_table import read_count_table, with_conditions_of
from tabrel.core.entry.count_writing import count_table_text
from tabrel.core.errors import StudyError
from tabrel.core.rules.evidence import check_counts
from tabrel.core.study.model import Counts, Sample
from tabrel.store.connection import snapshot, transaction
from tabrel.store.errors import NotStoredError
from tabrel.store.parts import OF_SAMPLE
from tabrel.store.revisions import revision_of
from tabrel.store.sample.samples import load_sample, study_of_sample, update_sample_details
from tabrel.store.study.plans import require_exportable

router = APIRouter(prefix="/api", tags=["counts"], responses=PROBLEM_RESPONSES)

ROWS_SENT, CELLS_SENT = 300, 30_000
"""Of a larger table only so many rows are shown, and those at fault."""

THING = "counts"
CHANGED = "another window has changed the counts meanwhile: look, then take your table again"


@router.get("/samples/{sample_id}/counts", responses={200: {"headers": ETAG}})
def get_counts(sample_id: SampleId, conn: Connection, response: Response) -> CountsOut:
    """Return the counts of a sample's test as a table in our own layout, empty where there are none."""
    with snapshot(conn):
        stored = load_sample(conn, sample_id)
        response.headers["ETag"] = etag(revision_of(conn, stored.study_id, sample_id, THING))
    counts = stored.sample.counts
    there = counts is not None and bool(counts.intervals or counts.rows)
    return CountsOut(csv=count_table_text(with_intervals(counts)) if counts and there else "")


@router.post("/samples/{sample_id}/counts/preview", dependencies=HEAVY_WHERE_LARGE)
def post_preview(sample_id: SampleId, given: CountTableIn, conn: Connection) -> CountTableOut:
    """Return what is understood of a table of counts, what is asked and what is at fault; nothing is taken."""
    study_of_sample(conn, sample_id)
    return _table_out(_read(given))


@router.put("/samples/{sample_id}/counts", dependencies=HEAVY_WHERE_LARGE)
def put_counts(sample_id: SampleId, given: CountTableIn, bench: Bench) -> ChangedOut:
    """Take a table of counts in place of those there were; conditions it does not name stay."""
    conn = bench.conn
    table = _read(given)
    if table.counts is None:
        name = next(
            iter([fault.words for fault in table.faults] + [question.words for question in table.questions]),
            "nothing is there to take",
        )
        raise StudyError("text", name)
    with transaction(conn):
        sample = load_sample(conn, sample_id).sample
        counts = with_conditions_of(table.counts, sample.counts)
        bench.require_seen(sample_id, THING, CHANGED)
        check_counts("counts", counts)
        if counts != sample.counts:
            with bench.recorded(sample_id, _words(counts), THING):
                _set(conn, sample_id, with_counts(sample, counts))
        require_exportable(conn, study_of_sample(conn, sample_id), "text")
    return bench.answer(sample_id, THING)


@router.delete("/samples/{sample_id}/counts")
def delete_counts(sample_id: SampleId, _: NothingIn, bench: Bench) -> ChangedOut:
    """Remove the counts of a sample's test with its conditions; undo brings them back."""
    conn = bench.conn
    with transaction(conn):
        sample = load_sample(conn, sample_id).sample
        if sample.counts is None:
            raise NotStoredError("there are no counts: load the sample again")
        bench.require_seen(sample_id, THING, CHANGED)
        with bench.recorded(sample_id, "particle counts removed", THING):
            _set(conn, sample_id, with_counts(sample, None))
    return bench.answer(sample_id, THING)


def _set(conn: sqlite3.Connection, sample_id: int, sample: Sample) -> None:
    update_sample_details(conn, sample_id, sample)
    OF_SAMPLE.set(conn, sample_id, "counts", sample.counts)


def _words(counts: Counts) -> str:
    many = len(counts.intervals)
    return f"particle counts: {len(counts.sizes_um)} sizes, {many} interval{'' if many == 1 else 's'}"


def _read(given: CountTableIn) -> CountTable:
    return read_count_table(given.text, TableChoices(decimal=given.decimal, scale=given.scale))


def _table_out(table: CountTable) -> CountTableOut:
    rows = table.table.rows if table.table else ()
    at_fault = {fault.line for fault in table.faults}
    most = min(ROWS_SENT, CELLS_SENT // max((len(row.cells) for row in rows), default=1))
    shown = [row for i, row in enumerate(rows) if i < most or row.line in at_fault]
    return CountTableOut(
        rows=shown,
        row_count=len(rows),
        heading_line=table.heading_line,
        headings=[
            HeadingOut(column=heading.index, text=heading.text, words=heading.words, is_used=heading.column is not None)
            for heading in table.headings
        ],
        settings=[SettingOut(title=condition.title, text=text) for condition, text in table.settings],
        notes=list(table.notes),
        questions=list(table.questions),
        faults=list(table.faults),
        intervals=len(table.counts.intervals) if table.counts else 0,
        sizes_um=list(table.counts.sizes_um) if table.counts else [],
        is_complete=table.counts is not None,
    )

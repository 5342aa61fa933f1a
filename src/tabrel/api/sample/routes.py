"""Samples: the bench sheet and the results."""

from __future__ import annotations

from fastapi import APIRouter, Request

from tabrel.api.deps import Connection, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.sample.models import KeptPartOut, KeptRowOut, SheetOut
from tabrel.api.sample.sent_sheets import SentSheets
from tabrel.api.sample.sheet import sheet_out
from tabrel.core.review.kept import kept_parts
from tabrel.store.sample.samples import load_sample
from tabrel.store.study.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["samples"], responses=PROBLEM_RESPONSES)


@router.get("/samples/{sample_id}")
def get_sheet(sample_id: SampleId, conn: Connection, request: Request) -> SheetOut:
    """Return the bench sheet of a sample."""
    sheets: SentSheets = request.app.state.sheets
    return sheets.keep(sheet_out(conn, sample_id))


@router.get("/samples/{sample_id}/kept")
def get_kept(sample_id: SampleId, conn: Connection) -> list[KeptPartOut]:
    """Return what is kept of a sample and of its study, shown by no station yet."""
    stored = load_sample(conn, sample_id)
    parts = kept_parts(stored.sample, load_study_frame(conn, stored.study_id))
    return [KeptPartOut(title=part.title, rows=[KeptRowOut(key=key, value=value) for key, value in part.rows]) for part in parts]

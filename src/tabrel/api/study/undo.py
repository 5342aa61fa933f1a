"""Undo and redo across the whole bench of a sample and of its study."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable

from fastapi import APIRouter

from tabrel.api.deps import Connection, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.sample.sheet import sheet_out
from tabrel.api.study.models import UndoneOut
from tabrel.api.wire import NothingIn
from tabrel.store.connection import transaction
from tabrel.store.errors import ConflictError, NotStoredError
from tabrel.store.journal import Change, redo, undo
from tabrel.store.sample.samples import study_of_sample

router = APIRouter(prefix="/api", tags=["journal"], responses=PROBLEM_RESPONSES)


@router.post("/samples/{sample_id}/undo")
def post_undo(sample_id: SampleId, _: NothingIn, conn: Connection) -> UndoneOut:
    """Undo the last change of a sample or of its study."""
    return _moved(conn, sample_id, undo)


@router.post("/samples/{sample_id}/redo")
def post_redo(sample_id: SampleId, _: NothingIn, conn: Connection) -> UndoneOut:
    """Redo the change that was undone last."""
    return _moved(conn, sample_id, redo)


def _moved(conn: sqlite3.Connection, sample_id: int, move: Callable[[sqlite3.Connection, int, int], Change]) -> UndoneOut:
    try:
        with transaction(conn):
            change = move(conn, study_of_sample(conn, sample_id), sample_id)
    except sqlite3.IntegrityError as error:
        raise ConflictError("this cannot be undone: something done later on another sample depends on it") from error
    try:
        sheet = sheet_out(conn, sample_id)
    except NotStoredError:
        sheet = None
    return UndoneOut(words=change.words, place=change.place, sheet=sheet)

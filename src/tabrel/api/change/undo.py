"""Undo and redo across the whole bench of a sample and of its study."""

from __future__ import annotations

import sqlite3
from typing import Literal

from fastapi import APIRouter

from tabrel.api.change.bench import Bench
from tabrel.api.change.models import MoveIn, UndoneOut
from tabrel.api.deps import SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.store.connection import transaction, window_of
from tabrel.store.errors import ConflictError, NothingToUndoError, NotStoredError
from tabrel.store.journal import Change, last_change, next_undone, redo, undo
from tabrel.store.sample.samples import study_of_sample

router = APIRouter(prefix="/api", tags=["journal"], responses=PROBLEM_RESPONSES)


@router.post("/samples/{sample_id}/undo")
def post_undo(sample_id: SampleId, given: MoveIn, bench: Bench) -> UndoneOut:
    """Undo the last change of a sample or of its study; one that another window made only if that is said."""
    return _moved(bench, sample_id, "undo", given)


@router.post("/samples/{sample_id}/redo")
def post_redo(sample_id: SampleId, given: MoveIn, bench: Bench) -> UndoneOut:
    """Redo the change that was undone last; one that another window made only if that is said."""
    return _moved(bench, sample_id, "redo", given)


def _moved(bench: Bench, sample_id: int, way: Literal["undo", "redo"], given: MoveIn) -> UndoneOut:
    try:
        with transaction(bench.conn):
            change = _change(bench.conn, sample_id, way, given)
            with bench.raising(change.study_id, sample_id, change.place, of_study=change.sample_id is None):
                (undo if way == "undo" else redo)(bench.conn, change)
    except sqlite3.IntegrityError as error:
        raise ConflictError(f"this cannot be {way}ne: something done later on another sample depends on it") from error
    try:
        changed = bench.answer(sample_id)
    except NotStoredError:
        changed = bench.gone(change.study_id, sample_id)
    return UndoneOut(words=change.words, place=change.place, **vars(changed))


def _change(conn: sqlite3.Connection, sample_id: int, way: Literal["undo", "redo"], given: MoveIn) -> Change:
    """Return the change to be moved, if it is the one that was seen and a window's own, or known to be another's."""
    study_id = study_of_sample(conn, sample_id)
    change = (last_change if way == "undo" else next_undone)(conn, study_id, sample_id)
    if change is None:
        raise NothingToUndoError(f"there is nothing to {way}")
    if given.change_id is not None and given.change_id != change.id:
        raise ConflictError(f"something else was done meanwhile, “{change.words}” is now what {way} would move: look, then {way}")
    if change.made_in != window_of(conn) and not given.of_another_window:
        raise ConflictError(f"“{change.words}” was done in another window: {way} once more to {way} it all the same")
    return change

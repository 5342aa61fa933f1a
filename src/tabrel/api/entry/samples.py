"""Changes of a sample as a whole: its status, states of quantities, the cut."""

from __future__ import annotations

from fastapi import APIRouter

from tabrel.api.change.bench import Bench
from tabrel.api.change.models import ChangedOut
from tabrel.api.deps import FactKey, SampleId, StudyId
from tabrel.api.entry.models import CutIn, StateIn
from tabrel.api.entry.readings import STATED_MEANWHILE
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.study.models import StatusIn
from tabrel.api.wire import TextIn
from tabrel.core.catalogue.quantities import PART_TITLES
from tabrel.core.catalogue.terms import STATE_WORDS
from tabrel.core.errors import StudyError
from tabrel.core.rules.study import known_quantity
from tabrel.core.study.model import Cut, Sample, used_readings
from tabrel.store.connection import transaction
from tabrel.store.entry.readings import set_state, time_now
from tabrel.store.journal import belongs_to_sample, recorded
from tabrel.store.sample.samples import (
    Status,
    insert_sample,
    load_sample,
    names_of_samples,
    next_position,
    set_cut,
    set_sample_status,
    status_of_sample,
)
from tabrel.store.study.studies import load_study_frame
from tabrel.store.study.uses import relabel_in_uses

router = APIRouter(prefix="/api", tags=["samples"], responses=PROBLEM_RESPONSES)


@router.post("/studies/{study_id}/samples", status_code=201)
def post_sample(study_id: StudyId, label: TextIn, bench: Bench) -> ChangedOut:
    """Add an empty sample to a study and return its sheet."""
    conn = bench.conn
    with transaction(conn):
        name = " ".join(label.text.split())
        if not name:
            raise StudyError("label", "is empty: type a short name for the sample")
        if any(other.label == name for other in names_of_samples(conn, study_id)):
            raise StudyError("label", f"{name!r} names a sample of this study already: give each its own label")
        load_study_frame(conn, study_id)
        with recorded(conn, study_id, None, f"sample {name} added", "sample.label") as change_id:
            relabel_in_uses(conn, study_id, name, None)  # of one of that label that was deleted
            sample_id = insert_sample(conn, study_id, next_position(conn, study_id), Sample(name))
            belongs_to_sample(conn, change_id, sample_id)
    return bench.answer(sample_id)


STATUS_WORDS: dict[Status, str] = {"in_use": "put back", "archived": "archived", "deleted": "deleted"}


@router.put("/samples/{sample_id}/status")
def put_sample_status(sample_id: SampleId, given: StatusIn, bench: Bench) -> ChangedOut:
    """Put a sample away, delete it, or put it back; everything of it stays, and undo of its study moves it too."""
    conn = bench.conn
    with transaction(conn):
        row = status_of_sample(conn, sample_id)
        load_study_frame(conn, row.study_id)
        if given.status != row.status:
            with recorded(conn, row.study_id, None, f"sample {row.label} {STATUS_WORDS[given.status]}", "sample.label"):
                set_sample_status(conn, sample_id, given.status)
    return bench.gone(row.study_id, sample_id) if given.status == "deleted" else bench.answer(sample_id)


@router.put("/samples/{sample_id}/states/{key}")
def put_state(sample_id: SampleId, key: FactKey, given: StateIn, bench: Bench) -> ChangedOut:
    """Say why a quantity has no value, or remove that."""
    thing = f"states/{key}"
    with transaction(bench.conn):
        quantity = known_quantity("key", key)
        stored = load_sample(bench.conn, sample_id)
        if given.state is not None and used_readings(stored.sample.readings.get(key, ())):
            raise StudyError(key, "there are readings in use: set them aside first, then say why there is none")
        if given.state == stored.sample.states.get(key):
            return bench.answer(sample_id, thing)
        bench.require_seen(sample_id, thing, STATED_MEANWHILE)
        words = STATE_WORDS[given.state][0] if given.state else "no longer marked"
        with bench.recorded(sample_id, f"{PART_TITLES[quantity.part]}, {quantity.title}: {words}", key):
            set_state(bench.conn, sample_id, key, given.state)
    return bench.answer(sample_id, thing)


@router.post("/samples/{sample_id}/cut")
def post_cut(sample_id: SampleId, given: CutIn, bench: Bench) -> ChangedOut:
    """Record that the filter was cut open, and how; what was missing before can no longer be measured."""
    conn = bench.conn
    with transaction(conn):
        stored = load_sample(conn, sample_id)
        method, note = " ".join(given.method.split()), " ".join(given.note.split())
        if not method:
            raise StudyError("method", "is empty: say how the filter was cut open")
        if stored.sample.cut is not None:
            raise StudyError("method", f"the filter was cut already ({stored.sample.cut.method}): undo that if it was not")
        with bench.recorded(sample_id, f"cut open: {method}", "cut"):
            set_cut(conn, sample_id, Cut(method, time_now(conn), note or None))
    return bench.answer(sample_id)

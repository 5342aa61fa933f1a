"""Samples: the bench sheet and the results."""

from __future__ import annotations

from fastapi import APIRouter

from tabrel.api.deps import Connection, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.sample.models import CutIn, KeptPartOut, KeptRowOut, SheetOut, StateIn
from tabrel.api.sample.sheet import sheet_out
from tabrel.core.catalogue.quantities import PART_TITLES
from tabrel.core.catalogue.terms import STATE_WORDS
from tabrel.core.errors import StudyError
from tabrel.core.results.analysis import analyse_sample
from tabrel.core.review.kept import kept_parts
from tabrel.core.rules.study import known_quantity
from tabrel.core.study.model import Cut, used_readings
from tabrel.document.results import AnalysisOut, analysis_out
from tabrel.store.circuit.circuits import load_circuit
from tabrel.store.connection import transaction
from tabrel.store.entry.readings import set_state, time_now
from tabrel.store.journal import recorded
from tabrel.store.sample.samples import load_sample, set_cut
from tabrel.store.study.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["samples"], responses=PROBLEM_RESPONSES)


@router.get("/samples/{sample_id}")
def get_sheet(sample_id: SampleId, conn: Connection) -> SheetOut:
    """Return the bench sheet of a sample."""
    return sheet_out(conn, sample_id)


@router.get("/samples/{sample_id}/results")
def get_results(sample_id: SampleId, conn: Connection) -> AnalysisOut:
    """Return results and warnings of a sample."""
    stored = load_sample(conn, sample_id)
    return analysis_out(stored.sample.label, analyse_sample(stored.sample, load_circuit(conn, stored.study_id)))


@router.get("/samples/{sample_id}/kept")
def get_kept(sample_id: SampleId, conn: Connection) -> list[KeptPartOut]:
    """Return what is kept of a sample and its study and shown by no station yet: counts, benches, photographs, uses."""
    stored = load_sample(conn, sample_id)
    parts = kept_parts(load_study_frame(conn, stored.study_id), stored.sample)
    return [KeptPartOut(title=part.title, rows=[KeptRowOut(key=key, value=value) for key, value in part.rows]) for part in parts]


@router.post("/samples/{sample_id}/states")
def post_state(sample_id: SampleId, given: StateIn, conn: Connection) -> SheetOut:
    """Say why a quantity has no value, or remove that."""
    with transaction(conn):
        quantity = known_quantity("key", given.key)
        stored = load_sample(conn, sample_id)
        if given.state is not None and used_readings(stored.sample.readings.get(given.key, ())):
            raise StudyError(given.key, "there are readings in use: set them aside first, then say why there is none")
        words = STATE_WORDS[given.state][0] if given.state else "no longer marked"
        title = f"{PART_TITLES[quantity.part]}, {quantity.title}"
        with recorded(conn, stored.study_id, sample_id, f"{title}: {words}", given.key):
            set_state(conn, sample_id, given.key, given.state)
    return sheet_out(conn, sample_id)


@router.post("/samples/{sample_id}/cut")
def post_cut(sample_id: SampleId, given: CutIn, conn: Connection) -> SheetOut:
    """Record that the filter was cut open, and how; what was missing before can no longer be measured."""
    with transaction(conn):
        stored = load_sample(conn, sample_id)
        method, note = " ".join(given.method.split()), " ".join(given.note.split())
        if not method:
            raise StudyError("method", "is empty: say how the filter was cut open")
        if stored.sample.cut is not None:
            raise StudyError("method", f"the filter was cut already ({stored.sample.cut.method}): undo that if it was not")
        with recorded(conn, stored.study_id, sample_id, f"cut open: {method}", "cut"):
            set_cut(conn, sample_id, Cut(method, time_now(conn), note or None))
    return sheet_out(conn, sample_id)

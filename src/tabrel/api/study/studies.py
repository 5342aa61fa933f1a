"""Studies: list, import, open, export."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Any, TypeVar

from fastapi import APIRouter, Query, Response

from tabrel.api import stale
from tabrel.api.deps import Connection, Content, StudyId, content_of
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.study.library import insert_library, library_of
from tabrel.api.study.models import BehaviourOut, SampleNameOut, SampleSummaryOut, SampleTagOut, StatusIn, StudyOut, StudyRowOut
from tabrel.api.turns import HEAVY, HEAVY_WHERE_LARGE
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.errors import MissingInputsError, TabrelError
from tabrel.core.maps.behaviour import behaviour
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.review.copies import count_copied
from tabrel.core.review.needs import needs_of_maps
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.model import Reading, Study
from tabrel.core.uncertainty.estimate import Estimate, estimate_quantity
from tabrel.document.full_study import FullStudy, full_study_to_json, read_full_study
from tabrel.document.results import WireModel, analysis_out
from tabrel.store.connection import snapshot, transaction
from tabrel.store.entry.readings import used_readings_of_study
from tabrel.store.sample.samples import SampleName, StoredSample, load_sample, names_of_samples
from tabrel.store.sample.stored_results import Kind, bases_of, keep_results, stored_results
from tabrel.store.study.history import history_of, insert_with_history
from tabrel.store.study.studies import (
    insert_study,
    list_studies,
    load_study,
    load_study_frame,
    samples_by_study,
    set_study_status,
)

WithHistory = Annotated[bool, Query(description="Whether the document carries every change of the study.", examples=[False])]
WithLibrary = Annotated[
    bool, Query(description="Whether it carries the saved engines, templates and rules of date codes.", examples=[False])
]

RACK_SIZES = {"can_height_mm": "can.height", "can_diameter_mm": "can.outside_diameter"}
"""Quantities that the rack draws."""
RACK_FACTS = frozenset(
    f"details/{key}"
    for key in (
        *("study.name", "study.question", "study.reference", "oil.name", "engine.name"),
        *("sample.label", "sample.maker", "sample.part_number"),
    )
)
"""Facts that the rack and the head of a study show."""

router = APIRouter(prefix="/api/studies", tags=["studies"], responses=PROBLEM_RESPONSES)


@router.get("")
def get_studies(conn: Connection) -> list[StudyRowOut]:
    """Return every study, archived and deleted ones too, with its samples."""
    with snapshot(conn):
        samples = samples_by_study(conn)
        return [
            StudyRowOut(**vars(row), samples=[SampleNameOut(**vars(sample)) for sample in samples.get(row.id, [])])
            for row in list_studies(conn)
        ]


@router.put("/{study_id}/status", responses=stale.naming(200))
def put_study_status(study_id: StudyId, given: StatusIn, conn: Connection, response: Response) -> list[StudyRowOut]:
    """Put a study away, delete it, or put it back, and return the list; everything of it stays.

    It is no change of what the study holds: undo in the study does not move it, putting it back does.
    """
    with transaction(conn):
        set_study_status(conn, study_id, given.status)
    ids = [sample.id for sample in names_of_samples(conn, study_id)]
    stale.name_stale(response, [f"{stale.STUDIES}/{study_id}", *stale.whole_study(study_id, ids)])
    return get_studies(conn)


@router.get("/{study_id}/results")
def get_study_results(study_id: StudyId, conn: Connection) -> list[SampleSummaryOut]:
    """Return what is known of each sample in use, in short: read where it was computed before and nothing has changed since."""
    return _read_or_computed(conn, study_id, "summary", SampleSummaryOut, lambda study, stored: _summary(study, stored))


@router.get("/{study_id}/behaviour", dependencies=HEAVY)
def get_behaviour(study_id: StudyId, conn: Connection) -> list[BehaviourOut]:
    """Return what each sample in use does in the engine whatever it is used for; read where nothing has changed since."""
    return _read_or_computed(conn, study_id, "behaviour", BehaviourOut, lambda study, stored: _behaviour(study, stored))


Told = TypeVar("Told", bound=WireModel)


def _read_or_computed(
    conn: Connection, study_id: int, kind: Kind, model: type[Told], compute: Callable[[Study, StoredSample], Told]
) -> list[Told]:
    """Return what is kept of each sample in use; what is not is computed and kept."""
    with snapshot(conn):
        study = load_study_frame(conn, study_id)
        ids = [sample.id for sample in names_of_samples(conn, study_id) if sample.status == "in_use"]
        bases = bases_of(conn, ids)
        words = stored_results(conn, kind, bases)
        lacking = [load_sample(conn, number) for number in ids if number not in words]
    computed = {stored.id: compute(study, stored) for stored in lacking}
    keep_results(conn, kind, bases, {number: out.model_dump_json() for number, out in computed.items()})
    return [computed[number] if number in computed else model.model_validate_json(words[number]) for number in ids]


def _behaviour(study: Study, stored: StoredSample) -> BehaviourOut:
    try:
        result = behaviour(study, stored.sample)
    except TabrelError as error:
        missing = list(error.keys) if isinstance(error, MissingInputsError) else []
        return BehaviourOut(
            sample_id=stored.id,
            coldest_pumping_c=None,
            element_greatest_kpa=None,
            element_greatest_stuck_kpa=None,
            speed_rpm=[],
            onset_c=[],
            filling_onset_c=[],
            problem=str(error),
            missing=missing,
        )
    greatest, stuck = (
        None if value is None else value / 1e3 for value in (result.element_greatest, result.element_greatest_stuck)
    )
    return BehaviourOut(
        sample_id=stored.id,
        coldest_pumping_c=result.coldest_pumping,
        element_greatest_kpa=greatest,
        element_greatest_stuck_kpa=stuck,
        speed_rpm=list(result.speed),
        onset_c=list(result.onset),
        filling_onset_c=list(result.filling_onset),
        problem=None,
        missing=[],
    )


def _summary(study: Study, stored: StoredSample) -> SampleSummaryOut:
    measured = measure_sample(stored.sample, study.circuit)
    analysis = analyse_measured(measured)
    out = analysis_out(stored.sample.label, analysis)
    return SampleSummaryOut(
        sample_id=stored.id,
        **{name: _millimetres(measured.estimates.get(key)) for name, key in RACK_SIZES.items()},
        results=out.results,
        needs=[need.title for need in needs_of_maps(study, measured)[0]],
        copied_count=count_copied(stored.sample),
        warning_count=len(out.warnings),
    )


DOCUMENT = content_of("application/json", {"type": "object"})


@router.post("", status_code=201, dependencies=HEAVY_WHERE_LARGE, openapi_extra=DOCUMENT, responses=stale.naming(201))
def post_study(content: Content, conn: Connection, response: Response) -> StudyOut:
    """Import a study document with all it carries, whole or not at all: its history can be undone where it is now."""
    return stored_study(read_full_study(content), conn, response)


def stored_study(full: FullStudy, conn: Connection, response: Response) -> StudyOut:
    """Store a study with all its document carries, and return it opened."""
    stale.name_stale(response, [stale.STUDIES, *([stale.TEMPLATES, stale.EVERY_ENGINE] if full.library else [])])
    with transaction(conn):
        study_id = insert_with_history(conn, full.study, full.history) if full.history else insert_study(conn, full.study)
        saved = insert_library(conn, full.library) if full.library else 0
    sentences = []
    if full.history:
        sentences.append(f"its history of {len(full.history.changes)} changes came with it")
    if full.library:
        new = f"{saved} of its saved engines, templates and rules are new here"
        sentences.append(new if saved else "its library was here already")
    return get_study(study_id, conn).model_copy(update={"notes": "; ".join(sentences)})


@router.get("/{study_id}")
def get_study(study_id: StudyId, conn: Connection) -> StudyOut:
    """Open a study."""
    study = load_study_frame(conn, study_id)
    return StudyOut(
        id=study_id,
        name=study.name,
        question=study.question,
        oil_name=study.oil.name if study.oil else None,
        circuit_name=study.circuit.name if study.circuit else None,
        samples=_tags(conn, study_id, study.reference),
        notes="",
    )


@router.get("/{study_id}/document")
def get_document(
    study_id: StudyId, conn: Connection, history: WithHistory = False, library: WithLibrary = False
) -> dict[str, Any]:
    """Export a study as its document."""
    with snapshot(conn):
        return full_study_to_json(
            FullStudy(
                load_study(conn, study_id),
                history_of(conn, study_id) if history else None,
                library_of(conn) if library else None,
            )
        )


def _tags(conn: Connection, study_id: int, reference: str | None) -> list[SampleTagOut]:
    """Return the samples as the rack shows them: names, and the can to scale."""
    used = used_readings_of_study(conn, study_id, RACK_SIZES.values())
    return [_tag(sample, used, reference) for sample in names_of_samples(conn, study_id)]


def _tag(sample: SampleName, used: dict[tuple[int, str], list[Reading]], reference: str | None) -> SampleTagOut:
    def size(key: str) -> float | None:
        readings = used.get((sample.id, key))
        return _millimetres(estimate_quantity(QUANTITIES[key], readings) if readings else None)

    return SampleTagOut(
        **vars(sample), **{name: size(key) for name, key in RACK_SIZES.items()}, is_reference=sample.label == reference
    )


def _millimetres(estimate: Estimate | None) -> float | None:
    return estimate.value * 1e3 if estimate else None

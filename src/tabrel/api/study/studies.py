"""Studies: list, import, open, export."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request, Response

from tabrel.api import stale
from tabrel.api.deps import Connection, StudyId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.study.models import SampleTagOut, StudyOut, StudyRowOut
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.uncertainty.estimate import estimate_quantity
from tabrel.document.study_document import read_study, study_to_json
from tabrel.store.connection import transaction
from tabrel.store.entry.readings import used_readings_of_study
from tabrel.store.sample.samples import names_of_samples
from tabrel.store.study.studies import insert_study, list_studies, load_study, load_study_frame

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
    """Return every study."""
    return [StudyRowOut(**vars(row)) for row in list_studies(conn)]


async def _raw_body(request: Request) -> bytes:
    return await request.body()


DOCUMENT_BODY = {"requestBody": {"content": {"application/json": {"schema": {"type": "object"}}}, "required": True}}


@router.post("", status_code=201, openapi_extra=DOCUMENT_BODY, responses=stale.naming(201))
def post_study(content: Annotated[bytes, Depends(_raw_body)], conn: Connection, response: Response) -> StudyOut:
    """Import a study document, whole or not at all."""
    study = read_study(content)
    stale.name_stale(response, [stale.STUDIES])
    with transaction(conn):
        study_id = insert_study(conn, study)
    return get_study(study_id, conn)


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
    )


@router.get("/{study_id}/document")
def get_document(study_id: StudyId, conn: Connection) -> dict[str, Any]:
    """Export a study as its document."""
    return study_to_json(load_study(conn, study_id))


def _tags(conn: Connection, study_id: int, reference: str | None) -> list[SampleTagOut]:
    """Return the samples as the rack shows them: names, and the can to scale."""
    used = used_readings_of_study(conn, study_id, RACK_SIZES.values())

    def millimetres(sample_id: int, key: str) -> float | None:
        readings = used.get((sample_id, key))
        estimate = estimate_quantity(QUANTITIES[key], readings) if readings else None
        return estimate.value * 1e3 if estimate else None

    return [
        SampleTagOut(
            **vars(one),
            **{name: millimetres(one.id, key) for name, key in RACK_SIZES.items()},
            is_reference=one.label == reference,
        )
        for one in names_of_samples(conn, study_id)
    ]

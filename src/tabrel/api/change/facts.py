"""One fact, reading, group of holes or claim with its revision as ETag: what a change of it names as seen."""

from __future__ import annotations

import sqlite3

from fastapi import APIRouter, Response

from tabrel.api.change.bench import etag
from tabrel.api.change.models import FactOut
from tabrel.api.deps import ClaimId, Connection, FactKey, HoleGroupId, ReadingId, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.sample.models import ClaimOut, HoleGroupOut, ReadingOut
from tabrel.api.sample.sheet import sheet_out
from tabrel.core.catalogue.observation import Observation, observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.details.detail import Detail
from tabrel.core.details.details import DETAILS, detail_values
from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.rules.study import known_quantity
from tabrel.store.connection import snapshot
from tabrel.store.entry.holes import place_of_hole_group
from tabrel.store.entry.readings import place_of_reading
from tabrel.store.revisions import revision_of
from tabrel.store.sample.claims import sample_of_claim
from tabrel.store.sample.samples import load_sample, study_of_sample
from tabrel.store.study.studies import load_study_frame

ETAG = {"ETag": {"description": "Its revision, for If-Match.", "schema": {"type": "string"}, "example": '"17"'}}
"""Header of an answer that is one thing, for the interface description."""

router = APIRouter(prefix="/api", tags=["facts"], responses={200: {"headers": ETAG}, **PROBLEM_RESPONSES})


def known_detail(key: str) -> Detail:
    """Return the detail of a key, or refuse the key."""
    if key not in DETAILS:
        raise StudyError("key", f"{key!r} is no detail{nearest_hint(key, DETAILS)}: use a key of the catalogue")
    return DETAILS[key]


def known_observation(key: str) -> Observation:
    """Return the observation of a key, or refuse the key."""
    if key not in OBSERVATIONS:
        raise StudyError("key", f"{key!r} is no observation{nearest_hint(key, OBSERVATIONS)}: use a key of the catalogue")
    return OBSERVATIONS[key]


@router.get("/samples/{sample_id}/details/{key}")
def get_detail(sample_id: SampleId, key: FactKey, conn: Connection, response: Response) -> FactOut:
    """Return a detail of a sample, of its study or of its engine, as text."""
    known_detail(key)
    with snapshot(conn):
        stored = load_sample(conn, sample_id)
        value = detail_values(load_study_frame(conn, stored.study_id), stored.sample).get(key)
        _tag(conn, response, sample_id, f"details/{key}")
    return FactOut(key=key, text=value.text if value else None)


@router.get("/samples/{sample_id}/observations/{key}")
def get_observation(sample_id: SampleId, key: FactKey, conn: Connection, response: Response) -> FactOut:
    """Return what was seen of an observation."""
    observation = known_observation(key)
    with snapshot(conn):
        value = observed(load_sample(conn, sample_id).sample, observation)
        _tag(conn, response, sample_id, f"observations/{key}")
    return FactOut(key=key, text=value)


@router.get("/samples/{sample_id}/states/{key}")
def get_state(sample_id: SampleId, key: FactKey, conn: Connection, response: Response) -> FactOut:
    """Return why a quantity has no value."""
    known_quantity("key", key)
    with snapshot(conn):
        state = load_sample(conn, sample_id).sample.states.get(key)
        _tag(conn, response, sample_id, f"states/{key}")
    return FactOut(key=key, text=state)


@router.get("/readings/{reading_id}")
def get_reading(reading_id: ReadingId, conn: Connection, response: Response) -> ReadingOut:
    """Return a reading as the sheet shows it."""
    with snapshot(conn):
        place = place_of_reading(conn, reading_id)
        sheet = sheet_out(conn, place.sample_id)
        _tag(conn, response, place.sample_id, f"readings/{reading_id}")
    return next(
        reading for part in sheet.parts for field in part.fields for reading in field.readings if reading.id == reading_id
    )


@router.get("/holes/{hole_group_id}")
def get_hole_group(hole_group_id: HoleGroupId, conn: Connection, response: Response) -> HoleGroupOut:
    """Return what of a group of holes is no reading."""
    with snapshot(conn):
        place = place_of_hole_group(conn, hole_group_id)
        sheet = sheet_out(conn, place.sample_id)
        _tag(conn, response, place.sample_id, f"holes/{hole_group_id}")
    return next(part.hole_group for part in sheet.parts if part.hole_group and part.hole_group.id == hole_group_id)


@router.get("/claims/{claim_id}")
def get_claim(claim_id: ClaimId, conn: Connection, response: Response) -> ClaimOut:
    """Return a claim with what the readings say of it."""
    with snapshot(conn):
        sample_id = sample_of_claim(conn, claim_id)
        sheet = sheet_out(conn, sample_id)
        _tag(conn, response, sample_id, f"claims/{claim_id}")
    return next(claim for claim in sheet.claims if claim.id == claim_id)


def _tag(conn: sqlite3.Connection, response: Response, sample_id: int, thing: str) -> None:
    response.headers["ETag"] = etag(revision_of(conn, study_of_sample(conn, sample_id), sample_id, thing))

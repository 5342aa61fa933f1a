"""Claims: recorded with wording, source, date and speaker; marked stale, never silently dropped."""

from __future__ import annotations

from dataclasses import replace

from fastapi import APIRouter

from tabrel.api.change.bench import Bench
from tabrel.api.change.models import ChangedOut
from tabrel.api.deps import ClaimId, SampleId
from tabrel.api.entry.dates import dated
from tabrel.api.entry.models import ClaimIn
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.wire import NothingIn, TextIn
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.entry.claim_text import CLAIMABLE_RESULTS, check_from_text, claim_from_wording
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.review.claims import claim_words
from tabrel.core.rules.study import check_sample
from tabrel.core.study.model import Claim, Sample
from tabrel.store.connection import transaction
from tabrel.store.sample.claims import insert_claim, remove_claim, sample_of_claim, set_stale
from tabrel.store.sample.samples import study_of_sample

router = APIRouter(prefix="/api", tags=["claims"], responses=PROBLEM_RESPONSES)


@router.post("/samples/{sample_id}/claims", status_code=201)
def post_claim(sample_id: SampleId, given: ClaimIn, bench: Bench) -> ChangedOut:
    """Record a claim; one on a reading or an observation is a check that the bench confirms or refutes."""
    conn = bench.conn
    with transaction(conn):
        study_of_sample(conn, sample_id)
        source = " ".join(given.source.split())
        if not source:
            raise StudyError("source", "is empty: say where the claim is made, such as box or page")
        claim = replace(_understood(given, source), speaker=given.speaker, seen=dated("seen", given.seen))
        check_sample("sample", Sample("claims", claims=(claim,)))
        with bench.recorded(sample_id, f"claim: {claim_words(claim)}", "claims"):
            insert_claim(conn, sample_id, claim)
    return bench.answer(sample_id)


def _understood(given: ClaimIn, source: str) -> Claim:
    wording = " ".join(given.wording.split()) or None
    if given.key is None:
        if wording is None:
            raise StudyError("wording", "is empty: type what is claimed, as printed")
        return claim_from_wording(wording, source)
    value = " ".join(given.value.split())
    if not value:
        raise StudyError("value", "is empty: type what is claimed")
    if given.key in OBSERVATIONS:
        return Claim("observation", source, key=given.key, value=value, wording=wording)
    if given.key not in QUANTITIES and given.key not in CLAIMABLE_RESULTS:
        raise StudyError("key", f"{given.key!r} is no reading, result or observation: choose one of the list")
    try:
        return replace(check_from_text(given.key, value, source), wording=wording)
    except ReadingTextError as error:
        raise StudyError("value", str(error)) from error


@router.post("/claims/{claim_id}/stale")
def post_stale(claim_id: ClaimId, why: TextIn, bench: Bench) -> ChangedOut:
    """Mark a claim stale with a reason; an empty text removes the mark."""
    conn = bench.conn
    with transaction(conn):
        sample_id = _seen_claim(bench, claim_id)
        reason = " ".join(why.text.split()) or None
        words = f"claim marked stale: {reason}" if reason else "claim no longer marked stale"
        with bench.recorded(sample_id, words, "claims"):
            set_stale(conn, claim_id, reason)
    return bench.answer(sample_id, f"claims/{claim_id}")


@router.delete("/claims/{claim_id}")
def delete_claim(claim_id: ClaimId, _: NothingIn, bench: Bench) -> ChangedOut:
    """Remove a claim that was typed wrongly; undo brings it back."""
    conn = bench.conn
    with transaction(conn):
        sample_id = _seen_claim(bench, claim_id)
        with bench.recorded(sample_id, "claim removed", "claims"):
            remove_claim(conn, claim_id)
    return bench.answer(sample_id)


def _seen_claim(bench: Bench, claim_id: int) -> int:
    """Return the sample of a claim that is still as the window has seen it."""
    sample_id = sample_of_claim(bench.conn, claim_id)
    says = "another window has changed this claim meanwhile: look, then change it again"
    bench.require_seen(sample_id, f"claims/{claim_id}", says)
    return sample_id

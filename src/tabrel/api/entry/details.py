"""Details of study, engine and sample, and what is seen rather than measured."""

from __future__ import annotations

from dataclasses import replace

from fastapi import APIRouter

from tabrel.api.deps import Connection, SampleId
from tabrel.api.entry.models import DetailIn, ObservationIn
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.sample.models import SheetOut
from tabrel.api.sample.sheet import sheet_out
from tabrel.core.catalogue.observation import observed, with_field_observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_TITLES
from tabrel.core.circuit.hot_point import circuit_problem
from tabrel.core.details.details import DETAILS, detail_values, with_sample_detail, with_study_detail
from tabrel.core.errors import ReadingTextError, StudyError, nearest_hint
from tabrel.core.rules.plans import check_plan
from tabrel.core.rules.study import check_circuit, check_oil, check_sample
from tabrel.core.starts.duty_cycle import SHIPPED_CYCLES
from tabrel.core.study.model import Sample, Study
from tabrel.store.connection import transaction
from tabrel.store.errors import ConflictError
from tabrel.store.journal import recorded
from tabrel.store.sample.samples import load_sample, names_of_samples, set_observation, update_sample_details
from tabrel.store.study.studies import load_study_frame, update_study_details

router = APIRouter(prefix="/api", tags=["details"], responses=PROBLEM_RESPONSES)


@router.post("/samples/{sample_id}/details")
def post_detail(sample_id: SampleId, given: DetailIn, conn: Connection) -> SheetOut:
    """Set a detail of a sample, of its study or of its engine; an empty text removes it."""
    with transaction(conn):
        if given.key not in DETAILS:
            raise StudyError("key", f"{given.key!r} is no detail{nearest_hint(given.key, DETAILS)}: use a key of the catalogue")
        detail = DETAILS[given.key]
        stored = load_sample(conn, sample_id)
        names = names_of_samples(conn, stored.study_id)
        study = replace(load_study_frame(conn, stored.study_id), samples=tuple(Sample(one.label) for one in names))
        known = detail_values(study, stored.sample).get(given.key)
        now = known.text if known else None
        text = " ".join(given.text.split())
        if text == (now or "") or (known and not known.is_typed and text in (known.metric, known.inch)):
            return sheet_out(conn, sample_id)
        came_along = known and not known.is_typed and known.provenance == "assumed"  # with another number; nobody has set it
        if given.seen or not came_along:
            _same_as_seen(now, given.seen, detail.title)
        words = f"{detail.title}: {text or 'removed'}"
        try:
            if detail.owner == "sample":
                sample = with_sample_detail(stored.sample, given.key, text, given.family)
                check_sample("sample", sample)
                if any(other.label == sample.label for other in names if other.id != sample_id):
                    raise StudyError(given.key, f"{sample.label!r} names another sample: give each its own label")
                with recorded(conn, stored.study_id, sample_id, words, given.key):
                    update_sample_details(conn, sample_id, sample)
                    if given.key == "sample.label" and study.reference == stored.sample.label:
                        update_study_details(conn, stored.study_id, replace(study, reference=sample.label))
            else:
                changed = with_study_detail(study, given.key, text, given.family)
                _check_frame(changed, study)
                with recorded(conn, stored.study_id, None, words, given.key):
                    update_study_details(conn, stored.study_id, changed)
        except ReadingTextError as error:
            raise StudyError(given.key, str(error)) from error
    return sheet_out(conn, sample_id)


def _check_frame(changed: Study, before: Study) -> None:
    """Refuse what makes oil, engine or plan impossible; an old fault does not bar a new detail."""
    if changed.circuit != before.circuit and changed.circuit:
        check_circuit(changed.circuit)
    if changed.oil != before.oil and changed.oil:
        check_oil(changed.oil)
    if changed.warm_up != before.warm_up and changed.warm_up:
        check_plan(changed.warm_up, [*(cycle.name for cycle in changed.duty_cycles), *SHIPPED_CYCLES])
    problem = circuit_problem(changed)
    if problem and not circuit_problem(before):
        raise problem


@router.post("/samples/{sample_id}/observations")
def post_observation(sample_id: SampleId, given: ObservationIn, conn: Connection) -> SheetOut:
    """Set what is seen of an observation; null removes it."""
    with transaction(conn):
        if given.key not in OBSERVATIONS:
            hint = nearest_hint(given.key, OBSERVATIONS)
            raise StudyError("key", f"{given.key!r} is no observation{hint}: use a key of the catalogue")
        observation = OBSERVATIONS[given.key]
        stored = load_sample(conn, sample_id)
        text = " ".join((given.text or "").split()) or None
        now = observed(stored.sample, observation)
        if text == now:
            return sheet_out(conn, sample_id)
        _same_as_seen(now, given.seen, observation.title)
        words = f"{PART_TITLES[observation.part]}, {observation.title}: {text or 'removed'}"
        with recorded(conn, stored.study_id, sample_id, words, given.key):
            if observation.field:
                update_sample_details(conn, sample_id, with_field_observed(stored.sample, observation, text))
            else:
                set_observation(conn, sample_id, given.key, text)
    return sheet_out(conn, sample_id)


def _same_as_seen(now: str | None, seen: str | None, title: str) -> None:
    """Refuse to overwrite what another window has put there meanwhile."""
    if (now or "") != (seen or ""):
        raise ConflictError(f"another window has set the {title} to {now or 'nothing'!r} meanwhile: look, then type again")

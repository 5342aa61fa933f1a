"""Details of study, engine and sample, and what is seen rather than measured."""

from __future__ import annotations

from dataclasses import replace

from fastapi import APIRouter

from tabrel.api.change.bench import Bench
from tabrel.api.change.models import ChangedOut
from tabrel.api.deps import FactKey, SampleId
from tabrel.api.entry.copies import confirm_copied
from tabrel.api.entry.dates import dated
from tabrel.api.entry.models import DetailIn, ObservationIn
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.core.catalogue.observation import Observation, observed, seen_words, with_field_observed
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
from tabrel.store.parts import OF_SAMPLE
from tabrel.store.sample.samples import load_sample, names_of_samples, set_observation, update_sample_details
from tabrel.store.study.studies import load_study_frame, update_study_details
from tabrel.store.study.uses import relabel_in_uses

router = APIRouter(prefix="/api", tags=["details"], responses=PROBLEM_RESPONSES)


def known_observation(key: str) -> Observation:
    """Return the observation of a key, or refuse the key."""
    if key not in OBSERVATIONS:
        raise StudyError("key", f"{key!r} is no observation{nearest_hint(key, OBSERVATIONS)}: use a key of the catalogue")
    return OBSERVATIONS[key]


@router.put("/samples/{sample_id}/details/{key}")
def put_detail(sample_id: SampleId, key: FactKey, given: DetailIn, bench: Bench) -> ChangedOut:
    """Set a detail of a sample, of its study or of its engine; an empty text removes it."""
    conn, thing = bench.conn, f"details/{key}"
    with transaction(conn):
        if key not in DETAILS:
            raise StudyError("key", f"{key!r} is no detail{nearest_hint(key, DETAILS)}: use a key of the catalogue")
        detail = DETAILS[key]
        stored = load_sample(conn, sample_id)
        names = names_of_samples(conn, stored.study_id)
        study = replace(
            load_study_frame(conn, stored.study_id), samples=tuple(Sample(sample_name.label) for sample_name in names)
        )
        known = detail_values(study, stored.sample).get(key)
        now = known.text if known else None
        text = " ".join(given.text.split())
        if detail.kind == "date" and text:
            text = dated(key, text) or ""
        if text == (now or "") or (known and not known.is_typed and text in (known.metric, known.inch)):
            if thing in stored.sample.copied:
                confirm_copied(bench, sample_id, [thing])
            return bench.answer(sample_id, thing)
        bench.require_seen(sample_id, thing, _set_meanwhile(now, detail.title))
        words = f"{detail.title}: {text or 'removed'}"
        try:
            if detail.owner == "sample":
                sample = with_sample_detail(stored.sample, key, text, given.family)
                check_sample("sample", sample)
                if any(other.label == sample.label for other in names if other.id != sample_id):
                    raise StudyError(key, f"{sample.label!r} names another sample: give each its own label")
                with bench.recorded(sample_id, words, key, of_study=_is_renamed_in(study, stored.sample, sample)):
                    if sample.label != stored.sample.label:
                        relabel_in_uses(conn, stored.study_id, sample.label, None)  # of one of that label that was deleted
                        relabel_in_uses(conn, stored.study_id, stored.sample.label, sample.label)
                    update_sample_details(conn, sample_id, sample)
                    if sample.counts != stored.sample.counts:
                        OF_SAMPLE.set(conn, sample_id, "counts", sample.counts)
            else:
                changed = with_study_detail(study, key, text, given.family)
                _check_frame(changed, study)
                with bench.recorded(sample_id, words, key, of_study=True):
                    update_study_details(conn, stored.study_id, changed)
        except ReadingTextError as error:
            raise StudyError(key, str(error)) from error
    return bench.answer(sample_id, thing)


def _is_renamed_in(study: Study, before: Sample, after: Sample) -> bool:
    """Return whether a sample is called otherwise and the study has uses, which may speak of it."""
    return bool(study.uses) and before.label != after.label


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


@router.put("/samples/{sample_id}/observations/{key}")
def put_observation(sample_id: SampleId, key: FactKey, given: ObservationIn, bench: Bench) -> ChangedOut:
    """Set what is seen of an observation; null removes it."""
    conn, thing = bench.conn, f"observations/{key}"
    with transaction(conn):
        observation = known_observation(key)
        stored = load_sample(conn, sample_id)
        text = seen_words(observation, " ".join((given.text or "").split())) or None
        now = observed(stored.sample, observation)
        if text == now:
            if thing in stored.sample.copied:
                confirm_copied(bench, sample_id, [thing])
            return bench.answer(sample_id, thing)
        bench.require_seen(sample_id, thing, _set_meanwhile(now, observation.title))
        words = f"{PART_TITLES[observation.part]}, {observation.title}: {text or 'removed'}"
        with bench.recorded(sample_id, words, key):
            if observation.field:
                update_sample_details(conn, sample_id, with_field_observed(stored.sample, observation, text))
            else:
                set_observation(conn, sample_id, key, text)
    return bench.answer(sample_id, thing)


def _set_meanwhile(now: str | None, title: str) -> str:
    return f"another window has set the {title} to {now or 'nothing'!r} meanwhile: look, then type again"

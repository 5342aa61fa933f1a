"""Filters compared as parts: whether two are one part under two names."""

from __future__ import annotations

from fastapi import APIRouter

from tabrel.api.comparison.part_models import FindingOut, InBothOut, PairOut, SamePartOut
from tabrel.api.deps import Connection, StudyId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.turns import HEAVY
from tabrel.core.catalogue.units import in_family, shown
from tabrel.core.judge.same_part import (
    ENOUGH_SAME,
    Finding,
    PartComparison,
    compare_all_parts,
    finding_name,
    finding_unit,
    part_facts,
)
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.store.sample.samples import load_samples
from tabrel.store.study.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["comparison"], responses=PROBLEM_RESPONSES)

DIGITS = 4


@router.get("/studies/{study_id}/same-part", dependencies=HEAVY)
def get_same_part(study_id: StudyId, conn: Connection) -> SamePartOut:
    """Return every pair of a study's filters compared as parts, dimension by dimension."""
    study = load_study_frame(conn, study_id)
    samples = [one.sample for one in load_samples(conn, study_id, archived=False)]
    facts = [part_facts(measure_sample(sample, study.circuit)) for sample in samples]
    return SamePartOut(
        labels=[sample.label for sample in samples],
        enough_same=ENOUGH_SAME,
        pairs=[_pair(pair) for pair in compare_all_parts(facts)],
    )


def _pair(pair: PartComparison) -> PairOut:
    return PairOut(
        first_label=pair.one,
        second_label=pair.other,
        part_verdict=pair.verdict,
        is_one_part_number=pair.is_one_part_number,
        not_looked_at=list(pair.not_looked_at),
        findings=[_finding(finding) for finding in pair.findings],
    )


def _finding(finding: Finding) -> FindingOut:
    part, title = finding_name(finding.key)
    return FindingOut(
        key=finding.key,
        part=part,
        title=title,
        finding=finding.state,
        of_first=_in_both(finding.key, finding.one),
        of_second=_in_both(finding.key, finding.other),
        difference_percent=finding.difference_percent,
        difference_in_rooms=finding.difference_in_rooms,
    )


def _in_both(key: str, value: float | str | None) -> InBothOut | None:
    if value is None:
        return None
    if isinstance(value, str):
        return InBothOut(metric=value, inch=value)
    unit = finding_unit(key)
    return InBothOut(metric=shown(value, unit, DIGITS), inch=shown(value, in_family(unit, "inch"), DIGITS))

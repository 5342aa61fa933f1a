"""Filters compared as parts: whether two are one part under two names."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from fastapi import APIRouter

from tabrel.api.comparison.models import FindingOut, InBothOut, LotsOut, PairOut, SamePartOut, SpecimenOut
from tabrel.api.comparison.other_samples import OtherSamples, other_study
from tabrel.api.deps import Connection, StudyId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.turns import HEAVY
from tabrel.core.catalogue.units import in_family, shown
from tabrel.core.judge.same_part import (
    ENOUGH_SAME,
    Finding,
    Lot,
    PartComparison,
    compare_all_parts,
    finding_name,
    finding_unit,
    lot_changes,
    part_facts,
    part_number_of,
)
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.model import Sample
from tabrel.store.connection import snapshot
from tabrel.store.sample.samples import load_sample, load_samples
from tabrel.store.study.studies import EverySample, every_sample, load_study_frame

router = APIRouter(prefix="/api", tags=["comparison"], responses=PROBLEM_RESPONSES)

DIGITS = 4


@router.get("/studies/{study_id}/same-part", dependencies=HEAVY)
def get_same_part(study_id: StudyId, conn: Connection, others: OtherSamples = []) -> SamePartOut:  # noqa: B006
    """Return every pair of a study's filters, and of those put beside them, compared as parts, dimension by dimension."""
    with snapshot(conn):
        study = load_study_frame(conn, study_id)
        samples = [stored.sample for stored in load_samples(conn, study_id, archived=False)]
        for sample_id in dict.fromkeys(others):
            other = load_study_frame(conn, other_study(conn, study_id, sample_id))
            sample = load_sample(conn, sample_id).sample
            samples.append(replace(sample, label=f"{sample.label} ({other.name})"))
    facts = [part_facts(measure_sample(sample, study.circuit)) for sample in samples]
    return SamePartOut(
        labels=[sample.label for sample in samples],
        enough_same=ENOUGH_SAME,
        pairs=[_pair(pair) for pair in compare_all_parts(facts)],
    )


@router.get("/studies/{study_id}/lots", dependencies=HEAVY)
def get_lots(study_id: StudyId, conn: Connection) -> list[LotsOut]:
    """Return what changed from lot to lot of every part number of a study, over all its specimens in the database."""
    with snapshot(conn):
        load_study_frame(conn, study_id)
        own = [stored.sample for stored in load_samples(conn, study_id, archived=False)]
        everything = every_sample(conn)
        numbers = dict.fromkeys(number for sample in own if (number := part_number_of(sample)))
        specimens = {number: [item for item in everything if _number(item) == number] for number in numbers}
        loaded = {item.id: load_sample(conn, item.id).sample for some in specimens.values() if len(some) > 1 for item in some}
    return [_lots(some, loaded) for some in specimens.values() if len(some) > 1]


def _number(sample: EverySample) -> tuple[str, ...]:
    return part_number_of(Sample(sample.label, maker=sample.maker, part_number=sample.part_number))


def _lots(specimens: Sequence[EverySample], loaded: Mapping[int, Sample]) -> LotsOut:
    """Return the specimens of one part number; one of another study carries its study's name, since labels may be the same."""
    ordered = sorted(specimens, key=lambda specimen: (not loaded[specimen.id].made, loaded[specimen.id].made or ""))
    lots = []
    for item in ordered:
        sample = replace(loaded[item.id], label=f"{item.label} ({item.study_name})")
        lots.append(Lot(part_facts(measure_sample(sample, None)), sample.made or ""))
    return LotsOut(
        maker=ordered[0].maker or "",
        part_number=ordered[0].part_number or "",
        specimens=[
            SpecimenOut(sample_id=item.id, label=item.label, study_name=item.study_name, made=loaded[item.id].made)
            for item in ordered
        ],
        pairs=[_pair(pair) for pair in lot_changes(lots)],
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
        difference_in_allowances=finding.difference_in_allowances,
    )


def _in_both(key: str, value: float | str | None) -> InBothOut | None:
    if value is None:
        return None
    if isinstance(value, str):
        return InBothOut(metric=value, inch=value)
    unit = finding_unit(key)
    return InBothOut(metric=shown(value, unit, DIGITS), inch=shown(value, in_family(unit, "inch"), DIGITS))

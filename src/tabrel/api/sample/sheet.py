"""Put a sample's bench sheet together: fields by part, details, claims, plate, the cut, results."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from datetime import date

from tabrel.api.sample.models import (
    BeforeCutOut,
    BoundOut,
    ClaimOut,
    CutOut,
    EstimateOut,
    FieldOut,
    FieldWarningOut,
    HoleGroupOut,
    MovableOut,
    NeedsOut,
    ObservedValueOut,
    PartOut,
    PlateOut,
    ReadingOut,
    SheetOut,
    offer_out,
)
from tabrel.core.catalogue.hole_dimensions import dimensions_of
from tabrel.core.catalogue.observation import observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import (
    HOLE_PLACEMENTS,
    HOLE_QUANTITIES,
    INSTRUMENT_DIMENSIONS,
    PART_TITLES,
    QUANTITIES,
    STAGE_TITLES,
    Placement,
    Quantity,
)
from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.catalogue.terms import PROVENANCE_ORDER
from tabrel.core.catalogue.units import UNITS, printed, shown
from tabrel.core.details.details import DETAILS, detail_questions, detail_values
from tabrel.core.details.kinds import is_number
from tabrel.core.details.shelf_age import shelf_age_years
from tabrel.core.entry.reading_text import ParsedReading, names_drill, parse_reading
from tabrel.core.figures.plate_summary import plate_summary
from tabrel.core.oil.model import oil_model
from tabrel.core.results.analysis import SampleAnalysis, analyse_measured
from tabrel.core.results.bounded import measured_at_limits
from tabrel.core.results.working_chains import CHAINS, working_of
from tabrel.core.review.before_cut import missing_before_cut
from tabrel.core.review.claims import check_claim, claim_words, contradictions
from tabrel.core.review.echo import reading_words
from tabrel.core.review.needs import needs_of_maps
from tabrel.core.review.reading_warnings import SampleWarning
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.study.model import Claim, HoleGroup, Reading, Sample, Study
from tabrel.core.uncertainty.estimate import Estimate, quantity_limits
from tabrel.core.uncertainty.propagation import Result, expanded_uncertainty
from tabrel.document.results import analysis_out
from tabrel.report.figures.plate_drawing import plate_drawing
from tabrel.store.connection import snapshot, window_of
from tabrel.store.entry.holes import SELECT_HOLE_GROUP_IDS, hole_group_ids
from tabrel.store.entry.readings import StoredReading, readings_of_sample
from tabrel.store.gather import Reader, gathered
from tabrel.store.journal import Change, last_change, movable_statements, next_undone
from tabrel.store.revisions import revision_statements, revisions_of, study_revision
from tabrel.store.sample.claims import claims_of
from tabrel.store.sample.offers import offers_of
from tabrel.store.sample.samples import StoredSample, load_sample, sample_statements
from tabrel.store.study.studies import frame_statements, load_study_frame

OLD_RUBBER_YEARS = 5.0


def _movable(window: str | None, change: Change | None) -> MovableOut | None:
    if change is None:
        return None
    return MovableOut(change_id=change.id, words=change.words, is_own=change.made_in == window)


@dataclass(frozen=True)
class OpenedSample:
    """A sample as stored, the study around it, and what follows from its readings."""

    stored: StoredSample
    study: Study
    measured: MeasuredSample
    reader: Reader
    """The rest of the sheet was read at the same moment."""


def opened_sample(conn: sqlite3.Connection, sample_id: int) -> OpenedSample:
    """Return a sample with all that sheet and figures are made of."""
    with snapshot(conn):
        of_sample = gathered(conn, [*sample_statements(sample_id), (SELECT_HOLE_GROUP_IDS, {"sample_id": sample_id})])
        stored = load_sample(of_sample, sample_id)
        asked = (
            frame_statements(stored.study_id),
            movable_statements(stored.study_id, sample_id),
            revision_statements(stored.study_id, sample_id),
        )
        reader = gathered(of_sample, [pair for some in asked for pair in some])
        study = load_study_frame(reader, stored.study_id)
    return OpenedSample(stored, study, measure_sample(stored.sample, study.circuit), reader)


def sheet_out(conn: sqlite3.Connection, sample_id: int) -> SheetOut:
    """Return the bench sheet of a sample, everything of it as it was at one moment."""
    with snapshot(conn):
        return sheet_of(opened_sample(conn, sample_id), window_of(conn))


def sheet_of(opened: OpenedSample, window: str | None) -> SheetOut:
    """Return the bench sheet of a sample as a window sees it."""
    stored, study, measured, conn = opened.stored, opened.study, opened.measured, opened.reader
    sample_id, sample = stored.id, stored.sample
    analysis = analyse_measured(measured)
    readings: dict[str, list[StoredReading]] = {}
    for reading in readings_of_sample(conn, sample_id):
        readings.setdefault(reading.quantity_key, []).append(reading)
    undo, redo = last_change(conn, stored.study_id, sample_id), next_undone(conn, stored.study_id, sample_id)
    by_key = {row.key: getattr(analysis.results, name) for name, row in RESULTS.items()}
    claims = claims_of(conn, sample_id)
    group_ids = hole_group_ids(conn, sample_id)
    cut, details, worked = sample.cut, detail_values(study, sample), measured_at_limits(measured)
    return SheetOut(
        id=sample_id,
        study_id=stored.study_id,
        revision=study_revision(conn, stored.study_id),
        revisions=revisions_of(conn, stored.study_id, sample_id),
        label=sample.label,
        parts=list(_parts(measured, readings, group_ids, analysis)),
        details={key: value.text for key, value in details.items()},
        detail_numbers={key: value for key, value in details.items() if is_number(DETAILS[key])},
        detail_questions=detail_questions(study),
        claims=[_claim_out(claim_id, claim, sample, measured, by_key) for claim_id, claim in claims],
        contradictions=[contradiction.words for contradiction in contradictions(sample)],
        offers=[offer_out(offer_id, offer) for offer_id, offer in offers_of(conn, sample_id)],
        copied=sample.copied | _copied_rows(sample, group_ids, claims),
        shelf=_shelf(sample),
        plate=PlateOut(
            drawing=plate_drawing(measured), summary=plate_summary(measured, oil_model(study.oil) if study.oil else None)
        ),
        before_cut=BeforeCutOut(
            missing=list(missing_before_cut(sample)),
            cut=CutOut(method=cut.method, at=cut.at, note=cut.note) if cut else None,
        ),
        needs=NeedsOut(**dict(zip(("filter_alone", "map"), needs_of_maps(study, measured), strict=True))),
        analysis=analysis_out(sample.label, analysis),
        input_counts={name: _input_counts(name, worked) for name in HEADLINES if _is_there(analysis, name)},
        undo=_movable(window, undo),
        redo=_movable(window, redo),
    )


def _copied_rows(sample: Sample, group_ids: dict[str, list[int]], claims: Iterable[tuple[int, Claim]]) -> dict[str, str]:
    """Return which groups of holes and claims are copied and not confirmed, by thing."""
    groups = {"inlet": sample.holes.inlet, "centre_tube": sample.holes.centre_tube}
    pairs = [
        (f"holes/{group_ids[placement][i]}", group.copied_from)
        for placement, held in groups.items()
        for i, group in enumerate(held)
    ]
    pairs += [(f"claims/{claim_id}", claim.copied_from) for claim_id, claim in claims]
    return {thing: origin for thing, origin in pairs if origin is not None}


_OF_PART = {
    (stage, part): (
        {key: quantity for key, quantity in QUANTITIES.items() if (quantity.stage, quantity.part) == (stage, part)},
        [observation for observation in OBSERVATIONS.values() if (observation.stage, observation.part) == (stage, part)],
    )
    for stage in STAGE_TITLES
    for part in PART_TITLES
}
"""Quantities and observations by stage and part."""


def _parts(
    measured: MeasuredSample, readings: dict[str, list[StoredReading]], group_ids: dict[str, list[int]], analysis: SampleAnalysis
) -> Iterator[PartOut]:
    """Yield the parts stage by stage, in the order of the bench."""
    sample, estimates = measured.sample, measured.estimates | measured.hole_estimates

    def field(key: str, quantity: Quantity, counted: bool) -> FieldOut:
        return _field(
            key, quantity, readings.get(key, []), estimates.get(key), analysis.warnings, sample.states.get(key), counted
        )

    for stage in STAGE_TITLES:
        for part, title in PART_TITLES.items():
            quantities, observations = _OF_PART[stage, part]
            if quantities or observations:
                yield PartOut(
                    key=part,
                    title=title,
                    stage=stage,
                    fields=[field(key, quantity, False) for key, quantity in quantities.items()],
                    observations=[ObservedValueOut(key=a.key, value=observed(sample, a)) for a in observations],
                    hole_group=None,
                )
            if part == "plate" and stage == "outside":
                yield from _hole_parts("inlet", sample.holes.inlet, group_ids, field)
            if part == "tube" and stage == "element":
                yield from _hole_parts("centre_tube", sample.holes.centre_tube, group_ids, field)


def _hole_parts(
    placement: Placement, groups: Iterable[HoleGroup], ids: dict[str, list[int]], field: Callable[[str, Quantity, bool], FieldOut]
) -> Iterator[PartOut]:
    for i, group in enumerate(groups):
        key = f"holes.{placement}[{i}]"
        share = 1.0 if group.open_fraction is None else group.open_fraction
        yield PartOut(
            key=key,
            title=HOLE_PLACEMENTS[placement].title,
            stage=HOLE_PLACEMENTS[placement].stage,
            fields=[
                field(f"{key}.{name}", HOLE_QUANTITIES[name], True)
                for name in dimensions_of(group.shape)
                if placement == "inlet" or name != "circle_diameter"
            ],
            observations=[],
            hole_group=HoleGroupOut(
                id=ids[placement][i],
                placement=placement,
                position=i,
                shape=group.shape,
                count=group.count,
                open_percent=100 * share,
                points=points_text(group),
                words=group_words(group),
            ),
        )


def points_text(group: HoleGroup) -> str:
    """Return the points of an outline as they are typed."""
    return ", ".join(f"{x:g} {y:g}" for x, y in group.readings.points_mm)


def group_words(group: HoleGroup) -> str:
    """Return what of a group is no reading, in words."""
    covered = "" if group.open_fraction in (None, 1) else f", {group.open_fraction:.6g} open"
    outline = f", {points_text(group)}" if group.readings.points_mm else ""
    return f"{group.count} {group.shape}{covered}{outline}"


def _field(
    key: str,
    quantity: Quantity,
    readings: list[StoredReading],
    estimate: Estimate | None,
    warnings: Iterable[SampleWarning],
    state: str | None,
    counted: bool,
) -> FieldOut:
    counting = [stored for stored in readings if stored.reading.set_aside is None]
    outliers = {counting[i].id for i in estimate.outliers} if estimate else set()
    used = {counting[i].id for i in estimate.used} if estimate else set()
    return FieldOut(
        key=key,
        title=quantity.title,
        metric_unit=printed(quantity.metric_unit),
        inch_unit=printed(quantity.inch_unit),
        instrument=quantity.instrument,
        instruments=[name for name, measures in INSTRUMENT_DIMENSIONS.items() if quantity.dimension in measures],
        drawing=quantity.drawing,
        counted=counted,
        whole_only=quantity.whole_only,
        readings=[_reading(stored, quantity, stored.id in outliers, stored.id in used) for stored in readings],
        estimate=estimate_out(quantity, estimate) if estimate else None,
        bound=None if estimate or not counting else _bound_out(quantity, [stored.reading for stored in counting]),
        state=state,
        warnings=[_warning(warning, key, counting) for warning in warnings if _is_at(warning, key)],
    )


def _bound_out(quantity: Quantity, readings: list[Reading]) -> BoundOut | None:
    """Return the bounds read of a quantity that has no value, in both families."""
    limits = quantity_limits(quantity, readings)
    if limits is None:
        return None
    ends = (("at least", limits.low), ("at most", limits.high))

    def words(unit: str) -> str:
        return ", ".join(f"{word} {shown(end, unit)}" for word, end in ends if end is not None)

    return BoundOut(metric=words(quantity.metric_unit), inch=words(quantity.inch_unit))


def _is_at(warning: SampleWarning, key: str) -> bool:
    return warning.where == key or warning.where.startswith(f"{key}[")


def _warning(warning: SampleWarning, key: str, counting: list[StoredReading]) -> FieldWarningOut:
    place = warning.where.removeprefix(key).strip("[]")
    return FieldWarningOut(
        message=warning.message,
        reading_id=counting[int(place)].id if place.isdigit() else None,
        correction=warning.correction,
        confirmed=warning.confirmed,
    )


def _reading(stored: StoredReading, quantity: Quantity, outlier: bool, used: bool) -> ReadingOut:
    reading = stored.reading
    meaning = parse_reading(reading.text, quantity.dimension)
    return ReadingOut(
        id=stored.id,
        text=reading.text,
        taken_at=reading.taken_at,
        instrument=reading.instrument,
        provenance=reading.counts_as,
        note=reading.note,
        confirmed=bool(reading.confirmed),
        set_aside_reason=reading.set_aside,
        metric=reading_words(meaning, quantity.metric_unit),
        inch=reading_words(meaning, quantity.inch_unit),
        outlier=outlier,
        used=used,
        copied_from=reading.copied_from,
        hole=reading.hole,
        nominal_metric=_nominal(meaning, reading.text, quantity.metric_unit),
        nominal_inch=_nominal(meaning, reading.text, quantity.inch_unit),
    )


def _nominal(meaning: ParsedReading, text: str, unit: str) -> str | None:
    """Return the nominal size of a drill, which is counted as the middle of what it and the next one leave."""
    is_drill = meaning.interval is not None and names_drill(text)
    return shown(meaning.interval[0], unit) if is_drill and meaning.interval else None


def estimate_out(quantity: Quantity, estimate: Estimate) -> EstimateOut:
    """Return an estimate in both families."""
    metric, inch = (UNITS[unit].factor if unit else 1.0 for unit in (quantity.metric_unit, quantity.inch_unit))
    expanded = expanded_uncertainty(estimate)
    return EstimateOut(
        metric_value=estimate.value / metric,
        metric_uncertainty=estimate.standard_uncertainty / metric,
        metric_expanded=expanded / metric,
        inch_value=estimate.value / inch,
        inch_uncertainty=estimate.standard_uncertainty / inch,
        inch_expanded=expanded / inch,
        provenance=estimate.provenance,
        used=len(estimate.used),
    )


def _claim_out(claim_id: int, claim: Claim, sample: Sample, measured: MeasuredSample, results: dict[str, Result]) -> ClaimOut:
    check = check_claim(claim, sample, measured.estimates, results=results)
    return ClaimOut(
        id=claim_id,
        kind=claim.kind,
        words=claim_words(claim),
        source=claim.source,
        speaker=claim.speaker,
        seen=claim.seen,
        stale=claim.stale,
        verdict=check.verdict,
        reason=check.words,
    )


def _shelf(sample: Sample) -> str | None:
    """Return the shelf age in words, with a caution where rubber ages."""
    years = shelf_age_years(sample, date.today())
    if years is None:
        return None
    if years < 0:
        return "bought before it was made: check both dates"
    age = f"{years:.1f} years" if years >= 1 else f"{12 * years:.0f} months"
    caution = ": look for hard or cracked rubber" if years > OLD_RUBBER_YEARS else ""
    return f"{age} on the shelf{'' if sample.bought else ' so far'}{caution}"


def _is_there(analysis: SampleAnalysis, name: str) -> bool:
    return name in CHAINS and getattr(analysis.results, name).is_known


def _input_counts(name: str, measured: MeasuredSample) -> dict[str, int]:
    """Return how many inputs of each provenance a result is computed from, best evidence first."""
    result = list(working_of(name, measured).inputs().values())
    return {provenance: count for provenance in PROVENANCE_ORDER if (count := result.count(provenance))}

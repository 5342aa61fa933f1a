"""The comparison sheet: filters as columns, everything known of them as rows, samples of other studies beside them."""

from __future__ import annotations

import sqlite3
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated

from fastapi import APIRouter, Query, Request

from tabrel.api.comparison.judged import ComparedIn, known_out
from tabrel.api.comparison.other_samples import OtherSamples, other_study
from tabrel.api.comparison.sheet_models import (
    ComparisonSheetOut,
    OfferedColumnOut,
    SheetCellOut,
    SheetColumnOut,
    SheetRowOut,
)
from tabrel.api.comparison.uses import shown_units
from tabrel.api.deps import Connection, StudyId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.study.studies import RACK_SIZES
from tabrel.api.turns import HEAVY
from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES, MEASURE_ROWS, PRICES
from tabrel.core.catalogue.results import RESULTS
from tabrel.core.catalogue.units import ShownUnit
from tabrel.core.circuit.dirt_loading import terminal_ratio, with_capacity_corrections
from tabrel.core.errors import StudyError
from tabrel.core.judge.comparison_sheet import GROUPS, SheetCell, SheetRow, comparison_sheet, sheet_measures
from tabrel.core.judge.knowledge_cache import KnowledgeCache
from tabrel.core.judge.known import Known
from tabrel.core.judge.known_filter import of_part_numbers
from tabrel.core.maps.monte_carlo import DRAWS
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.study.model import Study
from tabrel.core.study.uses import Use
from tabrel.store.connection import snapshot
from tabrel.store.errors import NotStoredError
from tabrel.store.sample.samples import StoredSample, load_sample, load_samples
from tabrel.store.study.studies import load_study_frame, samples_of_other_studies
from tabrel.store.study.uses import load_stored_uses

router = APIRouter(prefix="/api", tags=["comparison"], responses=PROBLEM_RESPONSES)

MOST_OFFERED = 40
NO_POINTS = Use("")

UseOfSheet = Annotated[
    int | None, Query(description="Use whose points and criteria count; none: no behaviour.", ge=0, lt=2**63, examples=[1])
]
LookedFor = Annotated[
    str,
    Query(description="Part of a label, a maker, a part number or the name of a study.", max_length=100, examples=["spare"]),
]
WithDraws = Annotated[
    bool,
    Query(description="Whether behaviour has its uncertainty, from draws of the model: that takes longer.", examples=[True]),
]


@dataclass(frozen=True)
class _Column:
    stored: StoredSample
    rack_place: int | None
    frame: Study


@router.get("/studies/{study_id}/comparison-sheet", dependencies=HEAVY)
def get_comparison_sheet(
    study_id: StudyId,
    conn: Connection,
    request: Request,
    compared: ComparedIn = "part_numbers",
    use_id: UseOfSheet = None,
    others: OtherSamples = [],  # noqa: B006
    with_draws: WithDraws = False,
) -> ComparisonSheetOut:
    """Return everything known of a study's filters, and of others put beside them, each against the reference part."""
    with snapshot(conn):
        study = load_study_frame(conn, study_id)
        own = [_Column(stored, i, study) for i, stored in enumerate(load_samples(conn, study_id)) if not stored.sample.archived]
        other_columns = [_of_other_study(conn, study_id, sample_id) for sample_id in dict.fromkeys(others)]
        use = _use(conn, study_id, use_id)
    columns = [*own, *other_columns]
    if not columns:
        raise StudyError("samples", "there is no filter to compare: add one, or take one out of the archive")
    plain = {str(column.stored.id): measure_sample(column.stored.sample, study.circuit) for column in columns}
    measured = with_capacity_corrections(plain, terminal_ratio(study))
    kept: KnowledgeCache = request.app.state.known
    measures = sheet_measures(use, is_rough=not with_draws)
    draws = DRAWS if with_draws else 1  # of one, there is no uncertainty
    known: Mapping[str, Mapping[str, Known]] = {
        key: kept.of(study, measured_sample, use or NO_POINTS, measures, draws) for key, measured_sample in measured.items()
    }
    samples = {key: replace(measured_sample.sample, label=key) for key, measured_sample in measured.items()}
    if compared == "part_numbers":
        known = of_part_numbers(list(samples.values()), known)
    reference = next((str(column.stored.id) for column in own if column.stored.sample.label == study.reference), None)
    rows = comparison_sheet(samples, known, use, reference, is_rough=not with_draws)
    return ComparisonSheetOut(
        study_name=study.name,
        compared=compared,
        use_id=use_id,
        has_uncertainty_of_behaviour=with_draws,
        groups=[group for group in GROUPS if any(row.group == group for row in rows)],
        columns=[_column_out(column, measured[str(column.stored.id)], study, reference) for column in columns],
        rows=[_row_out(row, list(samples), is_rough=not with_draws) for row in rows],
    )


@router.get("/studies/{study_id}/others")
def get_others(study_id: StudyId, conn: Connection, words: LookedFor = "") -> list[OfferedColumnOut]:
    """Return samples of other studies that can be put beside those of this one, the latest studies first."""
    load_study_frame(conn, study_id)
    return [
        OfferedColumnOut(
            sample_id=sample.sample_id,
            label=sample.label,
            maker=sample.maker,
            part_number=sample.part_number,
            other_study=sample.study,
        )
        for sample in samples_of_other_studies(conn, study_id, words.strip(), MOST_OFFERED)
    ]


def _of_other_study(conn: sqlite3.Connection, study_id: int, sample_id: int) -> _Column:
    return _Column(load_sample(conn, sample_id), None, load_study_frame(conn, other_study(conn, study_id, sample_id)))


def _use(conn: sqlite3.Connection, study_id: int, use_id: int | None) -> Use | None:
    if use_id is None:
        return None
    for stored in load_stored_uses(conn, study_id):
        if stored.id == use_id:
            return stored.use
    raise NotStoredError(f"there is no use {use_id} in this study any more: it was removed meanwhile, undo brings it back")


def _column_out(column: _Column, measured: MeasuredSample, study: Study, reference: str | None) -> SheetColumnOut:
    sizes = {
        name: None if (estimate := measured.estimates.get(key)) is None else estimate.value * 1e3
        for name, key in RACK_SIZES.items()
    }
    conditions = []
    if column.frame.circuit != study.circuit:
        conditions.append("engine")
    if column.frame.oil != study.oil:
        conditions.append("oil")
    return SheetColumnOut(
        sample_id=column.stored.id,
        label=column.stored.sample.label,
        rack_place=column.rack_place,
        is_reference=str(column.stored.id) == reference,
        other_study=None if column.rack_place is not None else column.frame.name,
        other_conditions=conditions,
        **sizes,
    )


_WORKINGS = {row.key: row.name for row in RESULTS.values()}


def _row_out(row: SheetRow, columns: Sequence[str], *, is_rough: bool) -> SheetRowOut:
    metric, inch = shown_units(row.key)
    currencies = {cell.known.alike.removeprefix("in ") for cell in row.cells.values() if cell.known and cell.known.value}
    is_mixed = row.key in PRICES and len(currencies) > 1
    if row.key in PRICES and len(currencies) == 1:
        metric = inch = ShownUnit(symbol=currencies.pop())
    is_temperature = row.is_number and MEASURE_ROWS[row.key].unit == "°C"
    return SheetRowOut(
        key=row.key,
        title=row.title,
        group=row.group,
        is_number=row.is_number,
        better=row.better,
        matters=row.matters,
        differs=row.differs,
        difference_unit="K" if is_temperature else "%",
        metric=metric,
        inch=inch,
        working=_WORKINGS.get(row.key),
        cells=[
            _cell_out(row.cells[column], is_rough=is_rough and row.key in BEHAVIOUR_MEASURES, is_mixed=is_mixed)
            for column in columns
        ],
    )


def _cell_out(cell: SheetCell, *, is_rough: bool, is_mixed: bool) -> SheetCellOut:
    known = known_out("", cell.known) if cell.known is not None else known_out("", Known(None))
    if is_rough:  # what only specimens differ by is not the uncertainty of what the model says
        known = known.model_copy(update={"expanded_uncertainty": None, "is_spread_assumed": False})
    if is_mixed and cell.known is not None:  # of several currencies each price says its own
        known = known.model_copy(update={"basis": cell.known.alike or None})
    metric, inch = cell.words or (None, None)
    return SheetCellOut(
        **known.model_dump(exclude={"label"}),
        metric=metric,
        inch=inch,
        mark=cell.mark,
        difference=cell.difference,
        differs=cell.differs,
    )

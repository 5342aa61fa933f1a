"""Percentiles of a filter over every other of its size that was measured, the best so far, values outside of everything."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from fastapi import APIRouter, Request
from numpy.typing import NDArray

from tabrel.api.comparison.models import BestSoFarOut, PercentileOut, PercentilesOut
from tabrel.api.comparison.numbers_cache import NumbersCache
from tabrel.api.comparison.uses import shown_units
from tabrel.api.deps import Connection, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.turns import HEAVY
from tabrel.core.judge.comparison_sheet import title_of
from tabrel.core.judge.percentiles import MEASURES, QUANTILES, SIZES, Percentile, are_of_size, percentiles_of
from tabrel.store.sample.samples import study_of_sample
from tabrel.store.study.studies import EverySample, every_sample

router = APIRouter(prefix="/api", tags=["comparison"], responses=PROBLEM_RESPONSES)


@router.get("/samples/{sample_id}/percentiles", dependencies=HEAVY)
def get_percentiles(sample_id: SampleId, conn: Connection, request: Request) -> PercentilesOut:
    """Return where every number of a sample lies among those of all others of its size in the database."""
    study_of_sample(conn, sample_id)
    kept: NumbersCache = request.app.state.numbers
    samples = {sample.id: sample for sample in every_sample(conn)}
    ids, table, remaining = kept.table(conn, list(samples), sample_id)
    own = table[ids.index(sample_id)]
    alike = are_of_size(own, table)
    others = [samples[number] for number, is_alike in zip(ids, alike, strict=True) if is_alike and number != sample_id]
    rows = table[alike & (np.array(ids) != sample_id)]
    return PercentilesOut(
        label=samples[sample_id].label,
        other_count=len(others),
        remaining=remaining,
        is_size_known=all(np.isfinite(own[MEASURES.index(key)]) for key in SIZES),
        quantile_percents=list(QUANTILES),
        places=[_place_out(place, others, rows) for place in percentiles_of(own, rows)],
    )


def _place_out(place: Percentile, others: Sequence[EverySample], rows: NDArray[np.float64]) -> PercentileOut:
    best = None
    if place.best is not None:
        holder, value = others[place.best], rows[place.best, MEASURES.index(place.measure)]
        best = BestSoFarOut(label=holder.label, study_name=holder.study_name, value=float(value))
    metric, inch = shown_units(place.measure)
    return PercentileOut(
        measure=place.measure,
        title=title_of(place.measure),
        value=place.value,
        count=place.count,
        percentile=place.percentile,
        quantiles=list(place.quantiles),
        is_outside=place.is_outside,
        better=place.better,
        best=best,
        metric=metric,
        inch=inch,
    )

"""The efficiency station: counts with their curve, claims and the screening estimate side by side."""

from __future__ import annotations

import numpy as np
from fastapi import APIRouter
from numpy.typing import NDArray

from tabrel.api.deps import Connection, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.figures.efficiency_models import (
    AlongTestOut,
    BudgetShareOut,
    ComparedClaimOut,
    CountCheckOut,
    CountedTestOut,
    EfficiencyCurveOut,
    EfficiencyPointOut,
    EfficiencyStationOut,
    EstimateCurveOut,
    SizeAtBetaOut,
)
from tabrel.api.sample.sheet import opened_sample
from tabrel.core.catalogue.terms import INPUTS
from tabrel.core.counts.dust_loading import DustLoading
from tabrel.core.figures.counted_figure import CountedFigure, DrawnCurve, counted_figure
from tabrel.core.figures.efficiency_evidence import DRAWN_SIZES, EfficiencyEvidence, efficiency_evidence
from tabrel.core.review.claims import claim_words
from tabrel.core.sample.efficiency import efficiency_results
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.propagation import Result
from tabrel.document.results import result_out, row_out

router = APIRouter(prefix="/api", tags=["efficiency"], responses=PROBLEM_RESPONSES)

MOST_DRAWN = 400
"""Of a long test, so many intervals are drawn."""

FloatArray = NDArray[np.float64]


@router.get("/samples/{sample_id}/efficiency")
def get_efficiency(sample_id: SampleId, conn: Connection) -> EfficiencyStationOut:
    """Return everything that speaks of the micron efficiency of a sample, each labelled for what it is."""
    measured = opened_sample(conn, sample_id).measured
    evidence, figure = efficiency_evidence(measured), counted_figure(measured)
    efficiency, size = efficiency_results(measured)
    return EfficiencyStationOut(
        result=result_out(efficiency.scaled(100)),
        size_at_beta_75_um=result_out(size),
        test=_test(figure) if figure else None,
        problem=_problem(measured),
        claims=[
            ComparedClaimOut(
                words=claim_words(claimed.claim),
                source=claimed.claim.source,
                relation=claimed.claim.relation or "=",
                sizes_um_c=list(claimed.point.sizes) if claimed.point else [],
                percent=claimed.claim.efficiency_percent,
                verdict=claimed.compared.verdict if claimed.compared else None,
                why=claimed.compared.words if claimed.compared else claimed.why_not,
                fibre_um=claimed.fibre,
                fibre_words=claimed.fibre_words,
            )
            for claimed in evidence.claims
        ],
        estimate=_estimate(evidence),
    )


def _problem(measured: MeasuredSample) -> str:
    """Return why the counts there are cannot be computed with; empty where they can, or where there are none."""
    if not isinstance(measured.counted, Result):
        return ""
    return f"cannot be computed with yet: {' and '.join(INPUTS[key].title for key in measured.counted.missing)} is not stated"


def _percent(share: float) -> float | None:
    return None if np.isnan(share) else 100 * share


def _number(value: float) -> float | None:
    return None if np.isnan(value) else float(value)


def _test(figure: CountedFigure) -> CountedTestOut:
    test, totals = figure.test, figure.test.totals
    curve = test.curve
    return CountedTestOut(
        scale=test.counts.scale,
        intervals=len(test.counts.intervals),
        intervals_used=totals.kept,
        volume_ratio=totals.ratio,
        points=[_point(figure, i) for i in range(len(test.counts.sizes_um))],
        curves=[_curve(drawn_curve) for drawn_curve in figure.curves],
        why_no_curve=test.why_no_curve(),
        misfit=curve.misfit if curve else None,
        slope=result_out(test.slope()),
        sizes_at_beta=[
            SizeAtBetaOut(beta=beta, size_um=result_out(size), extrapolated=beyond) for beta, size, beyond in figure.sizes_at
        ],
        budget=[BudgetShareOut(key=key, title=INPUTS[key].title, share_percent=100 * share) for key, share in figure.shares],
        checks=[CountCheckOut(code=check.code, message=check.words, is_grave=check.is_grave) for check in figure.checks],
        along=_along(figure),
        capacity_g=result_out(figure.capacity.scaled(1e3)),
        terminal_ratio=figure.terminal_ratio,
    )


def _point(figure: CountedFigure, i: int) -> EfficiencyPointOut:
    test, totals, betas, along = figure.test, figure.test.totals, figure.test.totals.betas, figure.along[i]
    value, low, high = (array[i] for array in (betas.value, betas.low, betas.high))
    return EfficiencyPointOut(
        size_um=test.counts.sizes_um[i],
        sizes_um_c=[float(curve.sizes[i]) for curve in test.readings if np.isfinite(curve.sizes[i])],
        gross_upstream=totals.gross.upstream[i],
        gross_downstream=totals.gross.downstream[i],
        blank_upstream=totals.blank.upstream[i],
        blank_downstream=totals.blank.downstream[i],
        beta=_number(value),
        beta_low=_number(low),
        beta_high=_number(high),
        percent=_percent(1 - 1 / value),
        low_percent=_percent(1 - 1 / low),
        high_percent=_percent(1 - 1 / high),
        sheds=bool(betas.sheds[i]),
        why_not=totals.size_faults[i],
        lowest_percent=None if along.lowest is None else 100 * along.lowest,
        average_percent=None if along.average is None else 100 * along.average,
        last_percent=None if along.last is None else 100 * along.last,
    )


def _curve(curve: DrawnCurve) -> EfficiencyCurveOut:
    return EfficiencyCurveOut(
        read_as=curve.scale,
        sizes_um_c=curve.size.tolist(),
        percent=(100 * curve.value).tolist(),
        low_percent=row_out(100 * curve.low),
        high_percent=row_out(100 * curve.high),
        counted_from_um_c=curve.lowest,
        counted_to_um_c=curve.highest,
    )


def _along(figure: CountedFigure) -> AlongTestOut:
    counts, totals, loading = figure.test.counts, figure.test.totals, figure.loading
    every = np.unique(np.linspace(0, len(counts.intervals) - 1, min(MOST_DRAWN, len(counts.intervals))).astype(int))
    intervals = [counts.intervals[i] for i in every]
    measured = loading if isinstance(loading, DustLoading) else None

    def rows(arrays: list[FloatArray]) -> list[list[float | None]]:
        return [row_out(100 * array[every]) for array in arrays]

    return AlongTestOut(
        time_min=[
            i + 1.0 if interval.time_min is None else interval.time_min
            for i, interval in zip(every.tolist(), intervals, strict=True)
        ],
        is_used=[not totals.interval_faults[i] for i in every],
        why_not=[totals.interval_faults[i] for i in every],
        percent=rows([along.value for along in figure.along]),
        low_percent=rows([along.low for along in figure.along]),
        high_percent=rows([along.high for along in figure.along]),
        differential_kpa=[interval.differential_pressure_kpa for interval in intervals],
        retained_g=(measured.mass * 1e3).tolist() if measured else [],
        ratio=measured.ratio.tolist() if measured else [],
        missing=[INPUTS[key].title for key in loading.missing] if isinstance(loading, Result) else [],
    )


def _estimate(evidence: EfficiencyEvidence) -> EstimateCurveOut | None:
    medium = evidence.medium
    if medium is None:
        return None
    return EstimateCurveOut(
        sizes_um_c=DRAWN_SIZES.tolist(),
        percent=[100 * (result.value or 0.0) for result in evidence.estimate],
        low_percent=[100 * (result.low or 0.0) for result in evidence.estimate],
        high_percent=[100 * (result.high or 0.0) for result in evidence.estimate],
        valid_to_um_c=medium.largest_valid_size(),
    )

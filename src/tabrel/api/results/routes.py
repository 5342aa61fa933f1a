"""The working of a result, line by line."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path

from tabrel.api.deps import Connection, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.results.models import (
    BudgetOut,
    ContributionOut,
    WorkingOut,
    WorkingPieceOut,
    WorkingStepOut,
)
from tabrel.core.errors import MissingInputsError, StudyError, nearest_hint
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.results.bounded import measured_at_limits
from tabrel.core.results.budget import uncertainty_budget, why_no_budget
from tabrel.core.results.working import Operand, Step, shown_result, shown_uncertainty
from tabrel.core.results.working_chains import CHAINS, working_of
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.store.circuit.circuits import load_circuit
from tabrel.store.sample.samples import load_sample

ResultName = Annotated[str, Path(description="Name of a result, as the catalogue has it.", examples=["inlet_hole_area"])]

router = APIRouter(prefix="/api", tags=["workings"], responses=PROBLEM_RESPONSES)


@router.get("/samples/{sample_id}/working/{name}")
def get_working(sample_id: SampleId, name: ResultName, conn: Connection) -> WorkingOut:
    """Return every line that leads to a result, from readings to the number on the tape."""
    stored = load_sample(conn, sample_id)
    if name not in CHAINS:
        raise StudyError("name", f"{name!r} is no result with a working{nearest_hint(name, CHAINS)}: choose another")
    measured = measure_sample(stored.sample, load_circuit(conn, stored.study_id))
    result = getattr(analyse_measured(measured).results, name)
    if not result.is_known:
        raise MissingInputsError(result.missing)
    measured = measured_at_limits(measured)
    working = working_of(name, measured)
    last = working.steps[-1]
    return WorkingOut(
        title=working.title,
        steps=[*(_step(step) for step in working.steps[:-1]), _step(last, result.expanded_uncertainty)],
        budget=_budget(last, measured),
        without_budget=why_no_budget(result.basis),
    )


def _budget(last: Step, measured: MeasuredSample) -> BudgetOut | None:
    budget = uncertainty_budget(last, measured)
    if not budget.contributions:
        return None
    return BudgetOut(
        metric_uncertainty=shown_uncertainty(budget.standard_uncertainty, last.measure, "metric"),
        inch_uncertainty=shown_uncertainty(budget.standard_uncertainty, last.measure, "inch"),
        contributions=[
            ContributionOut(
                key=contribution.key,
                title=contribution.title,
                source=contribution.source,
                metric=shown_uncertainty(contribution.amount, last.measure, "metric"),
                inch=shown_uncertainty(contribution.amount, last.measure, "inch"),
                share_percent=100 * contribution.share,
                smaller=contribution.smaller,
            )
            for contribution in budget.contributions
        ],
        covariances=list(budget.covariances),
    )


def _step(step: Step, uncertainty: float | None = None) -> WorkingStepOut:
    return WorkingStepOut(
        symbol=step.symbol,
        words=step.words,
        formula=step.formula(),
        pieces=[
            _piece(piece, metric, inch)
            for piece, metric, inch in zip(step.pieces(), step.shown_pieces("metric"), step.shown_pieces("inch"), strict=True)
        ],
        metric=shown_result(step.value, uncertainty, step.measure, "metric"),
        inch=shown_result(step.value, uncertainty, step.measure, "inch"),
    )


def _piece(piece: str | Operand, metric: str, inch: str) -> WorkingPieceOut:
    if isinstance(piece, str):
        return WorkingPieceOut(text=piece)
    return WorkingPieceOut(
        text=piece.symbol,
        metric=metric,
        inch=inch,
        words=piece.words,
        key=piece.key or None,
        provenance=piece.provenance,
    )

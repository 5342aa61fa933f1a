"""The working of a result, line by line."""

from __future__ import annotations

from fastapi import APIRouter

from tabrel.api.deps import Connection
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.results.models import WorkingOut, WorkingPieceOut, WorkingStepOut
from tabrel.core.errors import MissingInputsError, StudyError, nearest_hint
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.results.working import Operand, Step, shown_number
from tabrel.core.results.working_chains import CHAINS, working_of
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.store.circuit.circuits import load_circuit
from tabrel.store.sample.samples import load_sample

router = APIRouter(prefix="/api", tags=["workings"], responses=PROBLEM_RESPONSES)


@router.get("/samples/{sample_id}/working/{name}")
def get_working(sample_id: int, name: str, conn: Connection) -> WorkingOut:
    """Return every line that leads to a result, from readings to the number on the tape."""
    stored = load_sample(conn, sample_id)
    if name not in CHAINS:
        raise StudyError("name", f"{name!r} is no result with a working{nearest_hint(name, CHAINS)}: choose another")
    measured = measure_sample(stored.sample, load_circuit(conn, stored.study_id))
    result = getattr(analyse_measured(measured).results, name)
    if result.value is None and result.low is None:
        raise MissingInputsError(result.missing)
    working = working_of(name, measured)
    last = working.steps[-1]
    u = result.expanded_uncertainty
    return WorkingOut(
        title=working.title,
        steps=[*(_step(step) for step in working.steps[:-1]), _step(last, u)],
        metric_uncertainty=shown_number(u, last.measure, "metric", 2) if u else None,
        inch_uncertainty=shown_number(u, last.measure, "inch", 2) if u else None,
    )


def _step(step: Step, spread: float | None = None) -> WorkingStepOut:
    return WorkingStepOut(
        symbol=step.symbol,
        words=step.words,
        formula=step.formula(),
        pieces=[_piece(piece) for piece in step.pieces()],
        metric=shown_number(step.value, step.measure, "metric", spread=spread),
        inch=shown_number(step.value, step.measure, "inch", spread=spread),
    )


def _piece(piece: str | Operand) -> WorkingPieceOut:
    if isinstance(piece, str):
        return WorkingPieceOut(text=piece)
    return WorkingPieceOut(
        text=piece.symbol,
        metric=shown_number(piece.value, piece.measure, "metric"),
        inch=shown_number(piece.value, piece.measure, "inch"),
        words=piece.words,
        key=piece.key or None,
        provenance=piece.provenance,
    )

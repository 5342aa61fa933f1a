"""Audit of printed sums: written or pasted, recomputed line by line, kept with the study."""

from __future__ import annotations

import sqlite3
from collections.abc import Mapping

from fastapi import APIRouter, Response

from tabrel.api import stale
from tabrel.api.comparison.models import ArithmeticOut, CheckedLineOut, ClaimedSumOut, FormulaOut, LinesIn
from tabrel.api.deps import Connection, LineId, StudyId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.turns import HEAVY_WHERE_LARGE
from tabrel.api.wire import NothingIn
from tabrel.core.audit.arithmetic import FORMULAS, LineCheck, check_line, slip_words
from tabrel.core.audit.written import MOST_LINES, WrittenLine, read_lines, written_text
from tabrel.core.catalogue.units import printed
from tabrel.core.errors import StudyError
from tabrel.store.connection import transaction
from tabrel.store.journal import recorded
from tabrel.store.sample.samples import load_samples, names_of_samples
from tabrel.store.study.arithmetic import add_lines, load_lines, place_of_line, remove_line
from tabrel.store.study.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["arithmetic"], responses=PROBLEM_RESPONSES)

PLACE = "arithmetic"
"""Where the journal says a line was changed."""

WRITTEN: Mapping[str, str] = {
    "round_holes_area": "8 holes 0.24 in = 0.362 in2",
    "round_area": "ø 12.00 mm = 113.1 mm2",
    "rectangle_area": "9 by 5.3 mm = 47.7 mm2",
    "sum": "10.2 + 11.4 mm2 = 21.6 mm2",
    "difference": "98.4 - 78.2 mm = 20.2 mm",
    "ratio": "1258 cm2 / 719 cm2 = 1.75",
    "percent_more": "1258 cm2 is 75 % more than 719 cm2",
    "efficiency_of_beta": "β 75 = 98.7 %",
    "beta_of_efficiency": "98.7 % = β 77",
}
"""How a line of each formula is written."""


@router.get("/studies/{study_id}/arithmetic")
def get_arithmetic(study_id: StudyId, conn: Connection) -> ArithmeticOut:
    """Return the lines that are kept with a study, recomputed, and the sums that its claims hold."""
    load_study_frame(conn, study_id)
    kept = [_line_out(check_line(stored.line), stored.id) for stored in load_lines(conn, study_id)]
    claimed = []
    for stored in load_samples(conn, study_id, archived=False):
        for claim in stored.sample.claims:
            for line in read_lines(claim.wording or "")[:MOST_LINES]:
                if line.check is not None:
                    text = f"{stored.sample.label}, {claim.source}: {line.text}"
                    claimed.append(ClaimedSumOut(label=stored.sample.label, source=claim.source, text=text))
    there = {line.text for line in kept}
    return ArithmeticOut(
        lines=kept,
        formulas=[FormulaOut(name=name, words=formula.words, written=WRITTEN[name]) for name, formula in FORMULAS.items()],
        claimed=[claimed_sum_out for claimed_sum_out in claimed if _understood_text(claimed_sum_out.text) not in there],
    )


@router.post("/arithmetic-preview", dependencies=HEAVY_WHERE_LARGE)
def post_arithmetic_preview(given: LinesIn) -> list[CheckedLineOut]:
    """Return what each line of a text is understood as, recomputed, or what is wrong with it; nothing is kept."""
    return [_written_out(line) for line in read_lines(given.text)]


@router.post("/studies/{study_id}/arithmetic", dependencies=HEAVY_WHERE_LARGE, responses=stale.naming(200))
def post_arithmetic(study_id: StudyId, given: LinesIn, conn: Connection, response: Response) -> ArithmeticOut:
    """Keep the lines of a text with the study; refused where one of them cannot be recomputed."""
    lines = []
    for i, line in enumerate(read_lines(given.text)):
        if line.check is None:
            raise StudyError(f"text[{i}]", line.problem)
        lines.append(line.check.line)
    if not lines:
        raise StudyError("text", "is empty: write a line, such as inlet: 8 holes 0.24 in = 0.362 in2")
    with transaction(conn):
        load_study_frame(conn, study_id)
        if len(load_lines(conn, study_id)) + len(lines) > MOST_LINES:
            raise StudyError("text", f"makes more than {MOST_LINES} lines: remove some that are settled")
        words = f"arithmetic: {lines[0].label}" if len(lines) == 1 else f"arithmetic: {len(lines)} lines"
        with recorded(conn, study_id, None, words, PLACE):
            add_lines(conn, study_id, lines)
    _say_stale(response, conn, study_id)
    return get_arithmetic(study_id, conn)


@router.delete("/arithmetic/{line_id}", responses=stale.naming(200))
def delete_arithmetic_line(line_id: LineId, _: NothingIn, conn: Connection, response: Response) -> ArithmeticOut:
    """Remove a line; undo brings it back."""
    with transaction(conn):
        study_id, line = place_of_line(conn, line_id)
        load_study_frame(conn, study_id)
        with recorded(conn, study_id, None, f"arithmetic: {line.label} removed", PLACE):
            remove_line(conn, line_id)
    _say_stale(response, conn, study_id)
    return get_arithmetic(study_id, conn)


def _say_stale(response: Response, conn: sqlite3.Connection, study_id: int) -> None:
    stale.name_stale(response, stale.whole_study(study_id, (sample.id for sample in names_of_samples(conn, study_id))))


def _understood_text(text: str) -> str:
    (line,) = read_lines(text)
    return text if line.check is None else _line_out(line.check).text


def _written_out(line: WrittenLine) -> CheckedLineOut:
    if line.check is not None:
        return _line_out(line.check)
    return CheckedLineOut(
        id=None,
        label="",
        text=line.text,
        follows=None,
        computed_low=None,
        computed_high=None,
        printed_low=None,
        printed_high=None,
        unit="",
        would_explain=[],
        sentence="",
        problem=line.problem,
    )


def _line_out(check: LineCheck, line_id: int | None = None) -> CheckedLineOut:
    return CheckedLineOut(
        id=line_id,
        label=check.line.label,
        text=written_text(check.line),
        follows=check.verdict,
        computed_low=check.computed[0],
        computed_high=check.computed[1],
        printed_low=check.stated[0],
        printed_high=check.stated[1],
        unit=printed(check.unit) if check.unit else "",
        would_explain=[slip_words(code) for code in check.would_explain],
        sentence=check.sentence,
        problem="",
    )

"""Wire models of the audit of printed sums."""

from __future__ import annotations

from pydantic import Field

from tabrel.api.wire import RequestModel
from tabrel.core.audit.arithmetic import Verdict
from tabrel.document.results import WireModel


class CheckedLineOut(WireModel):
    """One line recomputed: the range its inputs allow and the printed one, in the unit as printed."""

    id: int | None
    """Null for a line that is not stored."""
    label: str
    text: str
    follows: Verdict | None
    """Null if the line could not be read."""
    computed_low: float | None
    computed_high: float | None
    printed_low: float | None
    printed_high: float | None
    unit: str
    """As printed; empty for a bare number."""
    would_explain: list[str]
    sentence: str
    problem: str
    """Reason why the line could not be read, with the correction; empty if it could."""


class FormulaOut(WireModel):
    """A formula that a line can have."""

    name: str
    words: str
    written: str


class ClaimedSumOut(WireModel):
    """A claim that holds a sum: of which filter, and the line in it."""

    label: str
    source: str
    text: str


class ArithmeticOut(WireModel):
    """The lines that are kept with a study, what can be written, and the sums its claims hold."""

    lines: list[CheckedLineOut]
    formulas: list[FormulaOut]
    claimed: list[ClaimedSumOut]


class LinesIn(RequestModel):
    """Lines as they were written or pasted."""

    text: str = Field(max_length=100_000)

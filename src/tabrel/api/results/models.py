"""The working of a result, as it goes out."""

from __future__ import annotations

from tabrel.document.results import WireModel


class WorkingPieceOut(WireModel):
    """A piece of a line: plain text, or a number with what it is and where it comes from."""

    text: str
    metric: str | None = None
    inch: str | None = None
    words: str | None = None
    key: str | None = None
    provenance: str | None = None


class WorkingStepOut(WireModel):
    """One line of a working."""

    symbol: str
    words: str
    formula: str
    pieces: list[WorkingPieceOut]
    metric: str
    inch: str


class WorkingOut(WireModel):
    """The working of one result, line by line."""

    title: str
    steps: list[WorkingStepOut]
    metric_uncertainty: str | None
    inch_uncertainty: str | None

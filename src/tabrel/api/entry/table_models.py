"""A table of readings over the wire."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from tabrel.api.wire import FileText, RequestModel
from tabrel.document.results import WireModel

READING_TABLE_LETTERS = 800_000


class ReadingTableIn(RequestModel):
    """A table as pasted, what has been answered of it, and whose the readings without a label are."""

    text: FileText = Field(max_length=READING_TABLE_LETTERS)
    decimal: Literal[".", ","] | None = None
    """Null until the analyst answers."""
    family: Literal["metric", "inch"] | None = None
    """Unit family of bare numbers; null until the analyst answers."""
    sample_id: Annotated[int, Field(ge=0, lt=2**63)] | None = None


class TableReadingOut(WireModel):
    """One cell: what it was understood as, the readings it would become, or why it becomes none."""

    line: int
    """From 1."""
    label: str
    words: str
    understood_as: str
    """Empty for nothing."""
    text: str
    readings: list[str]
    state: Literal["understood", "questioned", "refused", "left_out"]
    why: str
    """Question, or reason why it becomes no reading."""


class ReadingTableOut(WireModel):
    """A table of readings as understood; nothing is stored yet."""

    layout: Literal["filters_down", "filters_across", "readings_down"] | None
    """Null if none is recognised."""
    problem: str
    """Reason why nothing could be read; empty otherwise."""
    asks_decimal: str
    asks_units: bool
    is_complete: bool
    new_labels: list[str]
    readings: list[TableReadingOut]


class TakenFilterOut(WireModel):
    """Readings taken for one filter."""

    sample_id: int
    label: str
    reading_count: int
    is_new: bool


class TakenTableOut(WireModel):
    """Readings taken, filter by filter."""

    filters: list[TakenFilterOut]


class SheetTextOut(WireModel):
    """A sheet of a workbook as text."""

    name: str
    text: str

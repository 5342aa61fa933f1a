"""A table of particle counts: what comes in, and what was understood of it."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from tabrel.api.body_limit import COUNT_TABLE_BYTES
from tabrel.api.wire import FileText, RequestModel
from tabrel.core.field_units import Um
from tabrel.core.study.model import SizeScale
from tabrel.document.results import WireModel


class CountTableIn(RequestModel):
    """A table as pasted or from a file, and what has been answered of it."""

    text: FileText = Field(max_length=COUNT_TABLE_BYTES)
    decimal: Literal[".", ","] | None = None
    """Null until the analyst answers."""
    scale: SizeScale | None = None
    """If the table names none."""


class CountsOut(WireModel):
    """Counts as a table in our own layout."""

    csv: str
    """Empty if there are no counts."""


class TableRowOut(WireModel):
    """A row of a table: its line in the text, and its cells."""

    line: int
    """From 1."""
    cells: list[str]


class HeadingOut(WireModel):
    """A heading and its meaning."""

    column: int
    """From 0; null for the whole line."""
    text: str
    words: str
    is_used: bool


class SettingOut(WireModel):
    """A condition found before the headings."""

    title: str
    text: str


class QuestionOut(WireModel):
    """A question about a table that reads two ways, with each answer and its meaning."""

    key: str
    words: str
    answers: list[list[str]]


class CellFaultOut(WireModel):
    """A fault of a cell; without a column, of the whole line; without a line, of the table."""

    line: int | None
    """From 1; null for the whole table."""
    column: int | None
    """From 0; null for the whole line."""
    words: str


class CountTableOut(WireModel):
    """A table of counts as understood; nothing is stored yet."""

    rows: list[TableRowOut]
    """The first of a long table, and those at fault."""
    row_count: int
    heading_line: int
    """0 if there is none."""
    headings: list[HeadingOut]
    settings: list[SettingOut]
    notes: list[str]
    questions: list[QuestionOut]
    faults: list[CellFaultOut]
    intervals: int
    """0 until the table can be taken."""
    sizes_um: list[Um]
    """On the scale of the test."""
    is_complete: bool

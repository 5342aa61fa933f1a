"""A table of particle counts: what comes in, and what was understood of it."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from tabrel.api.body_limit import COUNT_TABLE_BYTES
from tabrel.api.wire import FileText, RequestModel
from tabrel.core.entry.count_columns import CellFault, Question
from tabrel.core.entry.table_text import TableRow
from tabrel.core.field_units import Um
from tabrel.core.study.model import SizeScale
from tabrel.document.results import WireModel
from tabrel.document.wire import WIRED


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


class CountTableOut(WireModel):
    """A table of counts as understood; nothing is stored yet."""

    rows: Annotated[list[TableRow], WIRED]
    """The first of a long table, and those at fault."""
    row_count: int
    heading_line: int
    """0 if there is none."""
    headings: list[HeadingOut]
    settings: list[SettingOut]
    notes: list[str]
    questions: Annotated[list[Question], WIRED]
    faults: Annotated[list[CellFault], WIRED]
    intervals: int
    """0 until the table can be taken."""
    sizes_um: list[Um]
    """On the scale of the test."""
    is_complete: bool

"""Columns and conditions of a table of particle counts by name, and a table as understood."""

from __future__ import annotations

from dataclasses import dataclass

from tabrel.core.catalogue.conditions import CONDITIONS, CONDITIONS_BY_FIELD, SCALES, Condition
from tabrel.core.entry.table_columns import Column, Heading
from tabrel.core.entry.table_text import DecimalMark, TableText
from tabrel.core.study.evidence import Counts

TIME = Column("time_min", "end of interval", ("time", "elapsed", "minutes", "end of interval", "t"), "min")
PRESSURE = Column(
    "differential_pressure_kpa",
    "differential pressure",
    ("differential pressure", "pressure drop", "pressure difference", "δp", "dp", "delta p"),
    "kPa",
)
INJECTED = Column("injected_g", "dust injected", ("injected", "dust injected", "mass injected", "dust added"), "g")
CIRCULATING = Column(
    "circulating_mg_l", "circulating upstream", ("circulating", "upstream mass", "mass concentration", "gravimetric"), "mg/L"
)
SIZE = Column("size_um", "size", ("size", "particle size", "threshold", "particle diameter", "channel"))
UPSTREAM = Column("upstream", "upstream", ("upstream", "up", "inlet", "before", "in"))
DOWNSTREAM = Column("downstream", "downstream", ("downstream", "down", "outlet", "after", "out"))
BLANK_UPSTREAM = Column("blank_upstream", "blank upstream", ("blank upstream", "upstream blank", "blank up"))
BLANK_DOWNSTREAM = Column("blank_downstream", "blank downstream", ("blank downstream", "downstream blank", "blank down"))
ROW = Column("row", "row", ("row", "interval", "no"))
COLUMNS = (ROW, TIME, PRESSURE, INJECTED, CIRCULATING, SIZE, UPSTREAM, DOWNSTREAM, BLANK_UPSTREAM, BLANK_DOWNSTREAM)
MEASURED = (TIME, PRESSURE, INJECTED, CIRCULATING)
SIDES = (UPSTREAM, DOWNSTREAM)

_SCALE_MARKS = (
    ("um(c)", ("µm(c)", "μm(c)", "um(c)", "µm (c)", "μm (c)", "um (c)", "µmc", "11171")),
    ("um(b)", ("µm(b)", "μm(b)", "um(b)", "µm (b)", "um (b)")),
    ("um", ("4402", "acftd")),
)
PER_VOLUME = ("/ml", "per ml", "/cm", "/100 ml", "per 100 ml", "/l)", "ml-1")


@dataclass(frozen=True)
class CellFault:
    """A fault at a line and column; a column of None is the whole line, a line of None the table."""

    line: int | None
    column: int | None
    words: str


@dataclass(frozen=True)
class Question:
    """A question about a table that reads two ways, with the meaning of each answer."""

    key: str
    words: str
    answers: tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class TableChoices:
    """Answers given so far about a table.

    Attributes
    ----------
    decimal : str or None
        The decimal mark.
    scale : str or None
        Of the sizes.
    """

    decimal: DecimalMark | None = None
    scale: str | None = None


NOTHING_CHOSEN = TableChoices()


@dataclass(frozen=True)
class CountTable:
    """A table of counts as understood.

    Attributes
    ----------
    table : TableText or None
        Its cells; None where it is none.
    headings : tuple of Heading
        In their order.
    heading_line : int
        Line of the headings; 0 where none were found.
    settings : tuple of (Condition, str)
        Conditions found before the headings, as written.
    notes : tuple of str
        What was understood, a sentence each.
    questions : tuple of Question
        Still open.
    faults : tuple of CellFault
    counts : Counts or None
        None while a question is open or a cell at fault.
    """

    table: TableText | None
    headings: tuple[Heading, ...] = ()
    heading_line: int = 0
    settings: tuple[tuple[Condition, str], ...] = ()
    notes: tuple[str, ...] = ()
    questions: tuple[Question, ...] = ()
    faults: tuple[CellFault, ...] = ()
    counts: Counts | None = None


def scale_named(text: str) -> str | None:
    """Return the scale that a heading or a condition names, or None."""
    if text in SCALES:
        return text
    return next((scale for scale, marks in _SCALE_MARKS if any(mark in text for mark in marks)), None)


def is_bare_number(text: str) -> bool:
    """Return whether a text is a number without a unit."""
    return text.replace(",", ".").replace(".", "", 1).isdigit()


def condition_named(name: str) -> Condition | None:
    """Return the condition that a name means, or None."""
    plain = name.casefold().strip("# ")
    if plain in CONDITIONS_BY_FIELD:
        return CONDITIONS_BY_FIELD[plain]
    plain = plain.replace("_", " ")
    return next((row for row in CONDITIONS if plain in (row.title, *row.synonyms)), None)

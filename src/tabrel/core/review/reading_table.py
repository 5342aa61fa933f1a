"""A table of readings that comes in, an old spreadsheet for instance: what is understood, questioned or refused, row by row.

Three layouts are understood: a filter a row with a quantity a column; a quantity a row with a filter a column; a reading
a row. Nothing is taken by reading it, and nothing is converted: a bare number gets the unit its heading names, or is not taken.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from tabrel.core.catalogue.quantities import PART_TITLES, Quantity
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.entry.field_line import understand_entry
from tabrel.core.entry.quantity_words import NamedQuantity, named_quantity
from tabrel.core.entry.table_text import DecimalMark, TableRow, TableText, read_table, unmarked
from tabrel.core.errors import ReadingTextError
from tabrel.core.review.echo import questions
from tabrel.core.rules.limits import hidden_letter
from tabrel.core.rules.study import check_reading_text
from tabrel.core.stopping import stop_if_nobody_waits
from tabrel.core.study.model import Reading

Layout = Literal["filters_down", "filters_across", "readings_down"]
State = Literal["understood", "questioned", "refused", "left_out"]

MOST_CELLS = 20_000
SAMPLE_WORDS = ("filter", "sample", "label", "name", "part number", "maker", "brand")
QUANTITY_WORDS = ("key", "quantity", "what", "dimension", "measurement", "size")
READING_WORDS = ("as typed", "reading", "value", "measured", "result")
BESIDE_READINGS = ("unit", "units", "note", "notes", "remark", "remarks", "comment", "source", "tool", "instrument", "with")
"""Headings of columns that hold no filter where filters stand across."""
LONGEST_LABEL = 100
LONGEST_TEXT = 400
"""Of a cell that is to become a reading."""
_BARE = re.compile(r"[\d.,/\s+-]+(?:[eE][+-]?\d+)?")


@dataclass(frozen=True)
class TableReading:
    """One cell that is to become readings.

    Attributes
    ----------
    line : int
        In the text, from 1.
    label : str
        Of the filter; empty where none is named.
    words : str
        By which the quantity was named.
    quantity : Quantity or None
    text : str
        Of the cell, as written.
    readings : tuple of Reading
        As they would be taken.
    state : str
    why : str
        The question, or why it is refused or left out; empty where it is understood.
    """

    line: int
    label: str
    words: str
    quantity: Quantity | None
    text: str
    readings: tuple[Reading, ...]
    state: State
    why: str = ""

    @property
    def is_taken(self) -> bool:
        """Whether it is taken once the table is accepted."""
        return self.state in ("understood", "questioned")


@dataclass(frozen=True)
class ReadingTable:
    """A table of readings as understood.

    Attributes
    ----------
    layout : str or None
        None where none of the three is recognised.
    readings : tuple of TableReading
        In the order of the table.
    asks_decimal : str
        A cell whose comma or point could be read either way; empty where nothing is asked.
    asks_units : bool
        Whether bare numbers have no unit, and nobody has said whose they take.
    problem : str
        Why nothing is understood; empty where something is.
    """

    layout: Layout | None
    readings: tuple[TableReading, ...]
    asks_decimal: str = ""
    asks_units: bool = False
    problem: str = ""

    @property
    def labels(self) -> tuple[str, ...]:
        """The filters of which something is taken, in their order."""
        return tuple(dict.fromkeys(reading.label for reading in self.readings if reading.is_taken))

    @property
    def is_complete(self) -> bool:
        """Whether it can be taken: nothing is asked, and something is understood."""
        return not self.asks_decimal and not self.asks_units and any(reading.is_taken for reading in self.readings)


def read_reading_table(
    text: str, *, decimal: DecimalMark | None = None, family: UnitFamily | None = None, own_label: str = ""
) -> ReadingTable:
    """Return what a table of readings says; it never raises.

    Parameters
    ----------
    text : str
        As pasted or from a file; see `table_text.read_table`.
    decimal : str or None
        The decimal mark, where somebody has said which.
    family : str or None
        Whose unit a bare number takes; None: it is asked where one is bare.
    own_label : str
        Of the filter that readings without a label are of.
    """
    try:
        table = read_table(text, decimal=decimal)
    except ReadingTextError as error:
        return ReadingTable(None, (), problem=str(error))
    if sum(len(row.cells) for row in table.rows) > MOST_CELLS:
        return ReadingTable(None, (), problem=f"the table has more than {MOST_CELLS:,} cells: give it in parts")
    pair = _laid_out(table, family, own_label)
    if pair is None:
        says = "no heading and no first cell names anything that is measured: name the columns, such as “can: height [mm]”"
        return ReadingTable(None, (), problem=says)
    layout, cells = pair
    read = tuple(_while_somebody_waits(cells))
    bare = any(reading.why == NO_UNIT for reading in read)
    return ReadingTable(layout, read, table.example if table.is_asked else "", bare and family is None)


def _while_somebody_waits(cells: Iterator[TableReading]) -> Iterator[TableReading]:
    for table_reading in cells:
        stop_if_nobody_waits()
        yield table_reading


NO_UNIT = "has no unit: name it in the heading, or say whose units bare numbers are in"


def _laid_out(table: TableText, family: UnitFamily | None, own_label: str) -> tuple[Layout, Iterator[TableReading]] | None:
    head, *rest = table.rows
    heads = [unmarked(cell) for cell in head.cells]
    long = _long_columns(heads)
    if long is not None:
        return "readings_down", _readings_down(rest, long, table.decimal, family, own_label)
    across = [named_quantity(cell) for cell in heads]
    down = [named_quantity(unmarked(row.cells[0])) if row.cells else NamedQuantity(()) for row in rest]
    named_across, named_down = (sum(bool(quantity.quantities) for quantity in names) for names in (across, down))
    if not named_across and not named_down:
        return None
    if named_across >= named_down:
        return "filters_down", _filters_down(rest, heads, across, table.decimal, family, own_label)
    return "filters_across", _filters_across(rest, heads, down, table.decimal, family, own_label)


@dataclass(frozen=True)
class _LongColumns:
    quantity: int
    reading: int
    sample: int | None
    unit: int | None
    set_aside: int | None
    note: int | None


def _long_columns(heads: Sequence[str]) -> _LongColumns | None:
    plain = [" ".join(head.casefold().split()) for head in heads]

    def at(words: Sequence[str]) -> int | None:
        return next((plain.index(word) for word in words if word in plain), None)

    quantity, reading = at(QUANTITY_WORDS), at(READING_WORDS)
    if quantity is None or reading is None:
        return None
    return _LongColumns(
        quantity, reading, at(SAMPLE_WORDS), at(("unit", "units")), at(("set aside because", "set aside")), at(("note", "remark"))
    )


def _cell(row: TableRow, index: int | None) -> str:
    return unmarked(row.cells[index]).strip() if index is not None and index < len(row.cells) else ""


def _readings_down(
    rows: Sequence[TableRow], columns: _LongColumns, decimal: DecimalMark, family: UnitFamily | None, own_label: str
) -> Iterator[TableReading]:
    for row in rows:
        words, text = _cell(row, columns.quantity), _cell(row, columns.reading)
        if not words and not text:
            continue
        named, unit = named_quantity(words), _cell(row, columns.unit)
        label = " ".join(_cell(row, columns.sample).split()) or own_label
        table_reading = _understood(row.line, label, words, replace(named, unit=unit or named.unit), text, decimal, family)
        reason = _cell(row, columns.set_aside)
        if reason and table_reading.is_taken:
            table_reading = replace(table_reading, readings=(), state="left_out", why=f"was set aside there: {reason}")
        note = _cell(row, columns.note)
        if note and table_reading.is_taken and not hidden_letter(note):
            table_reading = replace(
                table_reading, readings=tuple(replace(reading, note=reading.note or note) for reading in table_reading.readings)
            )
        yield table_reading


def _filters_down(
    rows: Sequence[TableRow],
    heads: Sequence[str],
    named: Sequence[NamedQuantity],
    decimal: DecimalMark,
    family: UnitFamily | None,
    own_label: str,
) -> Iterator[TableReading]:
    plain = [" ".join(head.casefold().split()) for head in heads]
    free = [i for i, quantity in enumerate(named) if not quantity.quantities]
    label_at = next((plain.index(word) for word in SAMPLE_WORDS if word in plain), free[0] if free and free[0] == 0 else None)
    for row in rows:
        label = " ".join(_cell(row, label_at).split()) or own_label
        for i, head in enumerate(heads):
            text = _cell(row, i)
            if i != label_at and text:
                yield _understood(row.line, label, head, named[i], text, decimal, family)


def _filters_across(
    rows: Sequence[TableRow],
    heads: Sequence[str],
    named: Sequence[NamedQuantity],
    decimal: DecimalMark,
    family: UnitFamily | None,
    own_label: str,
) -> Iterator[TableReading]:
    plain = [" ".join(head.casefold().split()) for head in heads]
    unit_at = next((plain.index(word) for word in ("unit", "units") if word in plain), None)
    for row, name in zip(rows, named, strict=True):
        words = _cell(row, 0)
        for i in range(1, len(row.cells)):
            text = _cell(row, i)
            if not text or (i < len(plain) and plain[i] in BESIDE_READINGS):
                continue
            label = " ".join(heads[i].split()) if i < len(heads) else ""
            unit = _cell(row, unit_at) or name.unit
            yield _understood(row.line, label or own_label, words, replace(name, unit=unit), text, decimal, family)


def _understood(
    line: int, label: str, words: str, named: NamedQuantity, text: str, decimal: DecimalMark, family: UnitFamily | None
) -> TableReading:
    def cell(state: State, why: str, readings: tuple[Reading, ...] = (), quantity: Quantity | None = None) -> TableReading:
        return TableReading(line, label, words, quantity, text, readings, state, why)

    if not named.quantities:
        return cell("left_out", "names nothing that is measured here")
    if len(named.quantities) > 1:
        names = ", ".join(f"{PART_TITLES[item.part].lower()}: {item.title}" for item in named.quantities[:4])
        return cell("refused", f"could be each of {names}: name the part too")
    quantity = named.quantities[0]
    if not label:
        return cell("refused", "says of no filter that it is: add a column with the filter's label", quantity=quantity)
    if len(label) > LONGEST_LABEL:
        return cell("refused", f"is of a filter whose label has more than {LONGEST_LABEL} letters: shorten it", quantity=quantity)
    if len(text) > LONGEST_TEXT:
        return cell("refused", f"is {len(text):,} letters long: give one reading a cell", quantity=quantity)
    if hidden := hidden_letter(label + text):
        return cell("refused", f"holds a letter that does not show ({hidden}): take it out", quantity=quantity)
    written = text.replace(",", ".") if decimal == "," and _BARE.fullmatch(text.split()[0]) else text
    if _BARE.fullmatch(written):
        if quantity.metric_unit and named.unit:
            written = f"{written.strip()} {named.unit}"
        elif quantity.metric_unit and family is None:
            return cell("refused", NO_UNIT, quantity=quantity)
    try:
        entry = understand_entry(written, quantity, family or "metric")
        for reading in entry.readings:
            check_reading_text(quantity, reading.text)
    except ReadingTextError as error:
        return cell("refused", str(error), quantity=quantity)
    if not entry.readings:
        return cell("left_out", "says that there is no value: say so at its field", quantity=quantity)
    asked = next((question[0] for question in questions(entry.readings, quantity) if question), "")
    if not named.is_exact and not asked:
        asked = f"is taken for {PART_TITLES[quantity.part].lower()}: {quantity.title}, by some of its words: is that what it is?"
    return cell("questioned" if asked else "understood", asked, entry.readings, quantity)

"""The headings of a table of particle counts, the conditions before them, and the questions that both raise."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from tabrel.core.catalogue.conditions import SCALES, Condition
from tabrel.core.entry.count_columns import (
    BLANK_DOWNSTREAM,
    BLANK_UPSTREAM,
    COLUMNS,
    PER_VOLUME,
    SIDES,
    CellFault,
    Question,
    TableChoices,
    condition_named,
    is_bare_number,
    scale_named,
)
from tabrel.core.entry.stated_number import understood_number
from tabrel.core.entry.table_columns import Column, Heading, require_units, understood_headings
from tabrel.core.entry.table_text import TableRow, TableText
from tabrel.core.errors import ReadingTextError
from tabrel.core.stopping import stop_if_nobody_waits

MARKS = {".": "the point", ",": "the comma"}
MOST_FAULTS = 50
MOST_LINES_BEFORE = 60
"""So many lines may stand before the headings."""
LONGEST_CONDITION = 400
MOST_NAMED = 12


class TooManyFaultsError(Exception):
    """So much is at fault that nobody reads more of it."""


def listed(words: Sequence[str]) -> str:
    """Return words in one line, the first of them where there are many.

    Examples
    --------
    >>> listed(["4", "6"]), listed([str(size) for size in range(4, 20)])
    ('4, 6', '4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15 and 4 more')
    """
    more = len(words) - MOST_NAMED
    return ", ".join(words[:MOST_NAMED]) + (f" and {more:,} more" if more > 0 else "")


class HeadingReader:
    """Reads headings and conditions of one table; collects what it understands, asks and finds at fault."""

    def __init__(self, table: TableText, choices: TableChoices) -> None:
        self.table = table
        self.choices = choices
        self.faults: list[CellFault] = []
        self.questions: list[Question] = []
        self.notes: list[str] = []
        self.settings: list[tuple[Condition, str]] = []
        self.conditions: dict[str, Any] = {}
        self.headings: tuple[Heading, ...] = ()
        self.heading_line = 0

    def headings_read(self) -> list[TableRow]:
        """Read the lines down to the headings and return the rows below them."""
        for i, row in enumerate(self.table.rows[: MOST_LINES_BEFORE + 1]):
            stop_if_nobody_waits()
            headings = understood_headings(row.cells, COLUMNS)
            keys = {heading.column.key for heading in headings if heading.column}
            if {"upstream", "downstream"} <= keys:
                self.headings, self.heading_line = headings, row.line
                return list(self.table.rows[i + 1 :])
            self._setting(row)
        message = (
            f"no headings were found in the first {MOST_LINES_BEFORE} lines: give a line that names upstream and downstream, "
            "with sizes in a column or in the headings"
        )
        self.fault(None, None, message)
        return []

    def _setting(self, row: TableRow) -> None:
        """Take a line of a name and a value as a condition of the test; a title is passed over."""
        cells = [cell for cell in row.cells if cell]
        if len(cells) == 1 and ":" in cells[0]:
            cells = [part.strip() for part in cells[0].split(":", 1)]
        if len(cells) < 2:
            return
        name, text = cells[0].rstrip(":= ").strip(), " ".join(cells[1:])
        condition = condition_named(name)
        if condition is None:
            self.notes.append(f"Line {row.line}, {name[:40]!r}, is no condition that is known, and is left out.")
            return
        try:
            self.conditions[condition.field] = self._understood(condition, text, is_key=name.casefold() == condition.field)
            bare = text if not condition.unit or text.endswith(condition.unit) else f"{text} {condition.unit}"
            self.settings.append((condition, bare if is_bare_number(text) else text))
        except ReadingTextError as error:
            self.fault(row.line, 1 if len(row.cells) > 1 else 0, str(error))

    def _understood(self, condition: Condition, text: str, *, is_key: bool) -> Any:
        if len(text) > LONGEST_CONDITION:
            raise ReadingTextError(f"{condition.title} is {len(text):,} letters long: shorten it to {LONGEST_CONDITION}")
        if condition.kind == "quantity":
            if is_key:
                try:
                    return self.table.number(text)
                except ReadingTextError:
                    pass
            if condition.unit and is_bare_number(text):
                raise ReadingTextError(f"{text!r} names no unit: write {condition.title} like {text} {condition.unit}")
            unit = "share" if condition.unit == "%" else condition.unit
            number = understood_number(text, unit, condition.title, "metric")
            return 100 * number if condition.unit == "%" else number
        if condition.kind == "one_of":
            word = scale_named(text.casefold()) if condition.field == "scale" else text
            if word not in condition.choices:
                raise ReadingTextError(f"{text!r} is no {condition.title}: choose one of {', '.join(condition.choices)}")
            return word
        return text

    def fault(self, line: int | None, column: int | None, words: str) -> None:
        """Keep a fault of a cell, a line or the table; raises `TooManyFaultsError` where nobody would read on."""
        self.faults.append(CellFault(line, column, words))
        if len(self.faults) >= MOST_FAULTS:
            raise TooManyFaultsError

    # what has to be asked

    def ask_decimal(self) -> None:
        """Ask for the decimal mark if the table can be read either way."""
        if self.table.is_asked:
            example = self.table.example
            mark = "," if "," in example else "."
            other = "." if mark == "," else ","
            whole, fraction = example.replace(mark, ""), example.replace(mark, ".")
            self.questions.append(
                Question(
                    "decimal",
                    f"{example!r} can be read two ways: which number is it?",
                    (
                        (other, f"{whole}: {MARKS[mark]} divides thousands"),
                        (mark, f"{fraction}: {MARKS[mark]} is the decimal mark"),
                    ),
                )
            )

    def scale(self) -> str:
        """Return the scale of the sizes, asked for where none is named."""
        if self.choices.scale in SCALES:
            return str(self.choices.scale)
        if "scale" in self.conditions:
            return str(self.conditions["scale"])
        for heading in self.headings:
            if named := scale_named(heading.text.casefold()):
                return named
        self.questions.append(
            Question(
                "scale",
                "the scale of the sizes is not named: how was the counter calibrated?",
                (
                    ("um(c)", "µm(c), by ISO 11171"),
                    ("um(b)", "µm(b), by ISO 11171 with the older standard material"),
                    ("um", "plain µm, by ISO 4402"),
                    ("unnamed", "not known: plain µm and µm(c) both stand, and the answer spans both"),
                ),
            )
        )
        return "unnamed"

    def check_headings(self) -> None:
        """Find headings without a unit, of a concentration, or given twice; name those left out."""
        line = self.heading_line
        for index, words in require_units(self.headings):
            self.fault(line, index, words)
        for heading in self.headings:
            if heading.column in (*SIDES, BLANK_UPSTREAM, BLANK_DOWNSTREAM) and any(
                mark in heading.text.casefold() for mark in PER_VOLUME
            ):
                words = "is a concentration: give the particles that were counted, and volume and dilution as conditions"
                self.fault(line, heading.index, f"{heading.text!r} {words}")
        seen: dict[tuple[str, float | None], str] = {}
        for heading in self.headings:
            if heading.column is None:
                continue
            name = (heading.column.key, heading.number if heading.column in SIDES else None)
            if name in seen:
                message = f"{heading.text!r} means the same as {seen[name]!r}: leave one of them out"
                self.fault(line, heading.index, message)
            seen[name] = heading.text
        left_out = [heading.text for heading in self.headings if heading.column is None and heading.text]
        if left_out:
            self.notes.append(f"Left out: {listed([repr(text[:30]) for text in left_out])}.")

    def heading_of(self, column: Column) -> Heading | None:
        """Return the heading of a column, if the table has it."""
        return next((heading for heading in self.headings if heading.column is column), None)

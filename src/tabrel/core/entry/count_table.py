"""A table of particle counts, as pasted or from a file: from cells to the counts of a test.

Two layouts are understood. Sizes down: a column of sizes, one upstream and one downstream, and, for several intervals, a
column of times. Sizes across: a row an interval, a column for each side and size. Lines of a name and a value before the
headings are conditions of the test. Nothing is taken while a cell is at fault or a question is open.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import cached_property
from operator import gt

from tabrel.core.catalogue.conditions import CONDITIONS_BY_FIELD
from tabrel.core.entry.count_columns import (
    BLANK_DOWNSTREAM,
    BLANK_UPSTREAM,
    MEASURED,
    NOTHING_CHOSEN,
    SIDES,
    SIZE,
    TIME,
    CellFault,
    CountTable,
    TableChoices,
)
from tabrel.core.entry.count_headings import MARKS, HeadingReader, TooManyFaultsError, listed
from tabrel.core.entry.table_columns import Column, Heading, whole_number
from tabrel.core.entry.table_text import DIVIDERS, PLAIN_DIGITS, TableRow, read_table
from tabrel.core.errors import ReadingTextError
from tabrel.core.stopping import stop_if_nobody_waits
from tabrel.core.study.evidence import BlankCounts, CountInterval, Counts

LEAST_SIZES = 3
MOST_INTERVALS = 20_000

_DIVIDED = {"tab": "tabs", "semicolon": "semicolons", "comma": "commas", "spaces": "spaces", "bar": "bars"}
assert set(_DIVIDED) == set(DIVIDERS)


def read_count_table(text: str, choices: TableChoices = NOTHING_CHOSEN) -> CountTable:
    """Return what a table of particle counts says, with what is at fault and what has to be asked.

    Parameters
    ----------
    text : str
        As pasted.
    choices : TableChoices
        What has been answered so far.
    """
    try:
        table = read_table(text, decimal=choices.decimal)
    except ReadingTextError as error:
        return CountTable(None, faults=(CellFault(None, None, str(error)),))
    reader = _Reader(table, choices)
    return reader.result()


class _Reader(HeadingReader):
    """Reads one table; collects what it understands, asks and finds at fault."""

    def result(self) -> CountTable:
        counts = None
        try:
            body = self.headings_read()
            if self.headings:
                self.notes.append(
                    f"Columns are divided by {_DIVIDED[self.table.divider]}; the decimal mark is {MARKS[self.table.decimal]}."
                )
                self.ask_decimal()
                scale = self.scale()
                self.check_headings()
                if not self.faults and not self.table.is_asked:  # numbers that can be read two ways are not checked
                    counts = self._counts(body, scale)
        except TooManyFaultsError:
            self.faults.append(CellFault(None, None, "no further faults were looked for: correct these first"))
        if self.faults or self.questions:
            counts = None
        if not self.headings:
            self.notes, self.settings = [], []
        return CountTable(
            self.table, self.headings, self.heading_line, tuple(self.settings), tuple(self.notes), tuple(self.questions),
            tuple(self.faults), counts,
        )  # fmt: skip

    # cells

    def _counts(self, body: list[TableRow], scale: str) -> Counts | None:
        width = len(self.headings)
        for row in body:
            if len(row.cells) != width:
                words = f"line {row.line} holds {len(row.cells)} cells, the headings {width}: make them agree"
                self.fault(row.line, None, words)
        body = [row for row in body if len(row.cells) == width]
        if any(heading.column is SIZE for heading in self.headings):
            sizes, intervals, blank = self._sizes_down(body)
        else:
            sizes, intervals, blank = self._sizes_across(body)
        if self.faults:
            return None
        stated = {name: value for name, value in self.conditions.items() if name != "scale"}
        return Counts(scale=scale, sizes_um=sizes, intervals=tuple(intervals), blank=blank, **stated)  # type: ignore[arg-type]

    def _cell(self, row: TableRow, index: int) -> float | None:
        """Return the number of a cell, None where it is empty or at fault."""
        text = row.cells[index]
        if not text or text in ("-", "–", "—"):
            return None
        try:
            return self.table.number(text)
        except ReadingTextError as error:
            self.fault(row.line, index, str(error))
            return None

    def _side(self, row: TableRow, places: Sequence[int], what: Sequence[str]) -> tuple[int, ...]:
        """Return what was counted on one side, a count a size; nearly always all are plain digits."""
        cells = [row.cells[i] for i in places]
        joined = "".join(cells)
        if joined.isdigit() and joined.isascii() and all(cells) and max(map(len, cells)) <= PLAIN_DIGITS:
            return tuple(map(int, cells))
        return tuple(self._particles(row, i, words) for i, words in zip(places, what, strict=True))

    def _particles(self, row: TableRow, index: int, what: str) -> int:
        text = row.cells[index]
        if text.isascii() and text.isdigit() and len(text) <= PLAIN_DIGITS:
            return int(text)
        before = len(self.faults)
        number = self._cell(row, index)
        if number is None:
            if len(self.faults) == before:
                self.fault(row.line, index, f"nothing is given {what}: type 0 if nothing was counted")
            return 0
        try:
            return whole_number(number, what)
        except ReadingTextError as error:
            self.fault(row.line, index, str(error))
            return 0

    @cached_property
    def recorded(self) -> list[tuple[Column, Heading]]:
        """Columns of what is recorded besides counts, with their headings."""
        return [(column, heading) for column in MEASURED if (heading := self.heading_of(column)) is not None]

    def _recorded(self, row: TableRow) -> dict[str, float]:
        """Return what a row records besides counts, in the document's units."""
        values = {}
        for column, heading in self.recorded:
            if (number := self._cell(row, heading.index)) is not None:
                if number < 0:
                    self.fault(row.line, heading.index, f"{number:g} {column.title} is below zero: check it")
                values[column.key] = number if heading.factor == 1 else float(f"{number * heading.factor:.12g}")
        return values

    def _sizes_across(self, body: list[TableRow]) -> tuple[tuple[float, ...], list[CountInterval], BlankCounts | None]:
        sides = {column.key: {h.number: h for h in self.headings if h.column is column} for column in SIDES}
        for column, other in (SIDES, SIDES[::-1]):
            for size, heading in sides[column.key].items():
                if size is None:
                    message = f"{heading.text!r} names no size: write it like {column.key} 10, or give a column of sizes"
                    self.fault(self.heading_line, heading.index, message)
                elif size not in sides[other.key]:
                    message = f"{size:g} µm is counted {column.key} and not {other.key}: give both"
                    self.fault(self.heading_line, heading.index, message)
        sizes = sorted(size for size in sides["upstream"] if size is not None and size in sides["downstream"])
        if not self._enough(len(sizes)):
            return (), [], None
        places = [[sides[side.key][size].index for size in sizes] for side in SIDES]
        intervals, lines, blank = [], [], None
        what = [[f"{side.key} at {size:g} µm" for size in sizes] for side in SIDES]
        counted_at = {i for where in places for i in where}
        others = [i for i in range(len(self.headings)) if i not in counted_at]
        for row in body:
            stop_if_nobody_waits()
            both = [self._side(row, where, words) for where, words in zip(places, what, strict=True)]
            if any(row.cells[i][:1] in ("b", "B") and row.cells[i].casefold().startswith("blank") for i in others):
                blank = BlankCounts(*both)
            else:
                intervals.append(_interval(both, self._recorded(row)))
                lines.append(row)
            for where, counted in zip(places, both, strict=True):
                if any(map(gt, counted[1:], counted)):
                    self._check_falls([(row.line, i) for i in where], sizes, counted)
        self._check_counted(intervals, sizes, [[(row.line, i) for i in places[0]] for row in lines[:1]])
        self._check_times([(row.line, interval) for row, interval in zip(lines, intervals, strict=True)])
        return tuple(sizes), intervals, blank

    def _sizes_down(self, body: list[TableRow]) -> tuple[tuple[float, ...], list[CountInterval], BlankCounts | None]:
        size_at, time_at = self.heading_of(SIZE), self.heading_of(TIME)
        sides = [self.heading_of(side) for side in SIDES]
        if size_at is None or sides[0] is None or sides[1] is None:
            return (), [], None
        groups: dict[float | str | None, list[tuple[float, TableRow]]] = {}
        before = len(self.faults)
        for row in body:
            stop_if_nobody_waits()
            size = self._size(row, size_at.index)
            is_blank = any(cell.casefold().startswith("blank") for cell in row.cells)
            time = "blank" if is_blank else None if time_at is None else self._cell(row, time_at.index)
            if size is not None:
                groups.setdefault(time, []).append((size, row))
        if len(self.faults) > before:
            return (), [], None
        blank_rows = groups.pop("blank", [])
        if not groups:
            self.fault(None, None, "there is no line of counts below the headings: paste them too")
            return (), [], None
        sizes = sorted(size for size, _ in next(iter(groups.values())))
        if not self._enough(len(sizes)):
            return (), [], None
        intervals: list[CountInterval] = []
        places = [sides[0].index, sides[1].index]
        taken = [*groups.values(), *([blank_rows] if blank_rows else [])]
        collected = []
        for rows in taken:
            stop_if_nobody_waits()
            rows.sort(key=lambda entry: entry[0])
            if [size for size, _ in rows] != sizes:
                line = rows[0][1].line
                here, before_it = (listed([f"{size:g}" for size in several]) for several in ((size for size, _ in rows), sizes))
                words = f"from line {line} on the sizes are {here}, before {before_it}: give the same at all times"
                self.fault(line, size_at.index, words)
                return (), [], None
            both = [
                tuple(self._particles(row, i, _at(size, side.key)) for size, row in rows)
                for i, side in zip(places, SIDES, strict=True)
            ]
            for i, counted in zip(places, both, strict=True):
                self._check_falls([(row.line, i) for _, row in rows], sizes, counted)
            collected.append(both)
        for rows, both in zip(list(groups.values()), collected, strict=False):
            intervals.append(_interval(both, self._recorded(rows[0][1])))
        blank = (
            BlankCounts(*collected[-1])
            if blank_rows
            else self._blank_columns([row for _, row in next(iter(groups.values()))], sizes)
        )
        first = next(iter(groups.values()))
        self._check_counted(intervals, sizes, [[(row.line, places[0]) for _, row in first]])
        self._check_times([(rows[0][1].line, interval) for rows, interval in zip(groups.values(), intervals, strict=True)])
        return tuple(sizes), intervals, blank

    def _size(self, row: TableRow, index: int) -> float | None:
        text = row.cells[index].lstrip("≥>= ")
        for mark in ("µm(c)", "μm(c)", "um(c)", "µm", "μm", "um"):
            text = text.removesuffix(mark).strip()
        try:
            size = self.table.number(text)
        except ReadingTextError:
            words = f"{row.cells[index][:30]!r} is no size: give one number, at and above which was counted"
            self.fault(row.line, index, words)
            return None
        if size <= 0:
            self.fault(row.line, index, f"a size of {size:g} µm is not above zero: check it")
            return None
        return size

    def _blank_columns(self, rows: list[TableRow], sizes: list[float]) -> BlankCounts | None:
        columns = [self.heading_of(BLANK_UPSTREAM), self.heading_of(BLANK_DOWNSTREAM)]
        if columns[0] is None or columns[1] is None:
            return None
        both = [
            tuple(
                self._particles(row, heading.index, f"in the blank at {size:g} µm") for size, row in zip(sizes, rows, strict=True)
            )
            for heading in columns
            if heading is not None
        ]
        return BlankCounts(*both)

    # what cannot be

    def _enough(self, sizes: int) -> bool:
        if sizes >= LEAST_SIZES:
            return True
        words = f"{sizes} sizes are given, and a curve needs {LEAST_SIZES} at least: add the others"
        if not self.faults:  # a line at fault may hold them
            self.fault(self.heading_line, None, words)
        return False

    def _check_falls(self, cells: Sequence[tuple[int, int]], sizes: Sequence[float], counted: Sequence[int]) -> None:
        """Find where counts rise with size; `cells` are line and column of each."""
        if not any(map(gt, counted[1:], counted)):
            return
        if any(fault.line == line and fault.column == i for fault in self.faults for line, i in cells):
            return  # what is no number is said already
        for i in range(1, len(counted)):
            if counted[i] > counted[i - 1]:
                self.fault(*cells[i], _rises(counted, sizes, i))
                return

    def _check_counted(
        self, intervals: Sequence[CountInterval], sizes: Sequence[float], cells: Sequence[Sequence[tuple[int, int]]]
    ) -> None:
        """Find sizes at which nothing at all was counted upstream; `cells` are those of the first interval."""
        if not intervals:
            self.fault(None, None, "there is no line of counts below the headings: paste them too")
            return
        if len(intervals) > MOST_INTERVALS:
            self.fault(None, None, f"{len(intervals):,} intervals are more than {MOST_INTERVALS:,}: thin them out")
        for k, size in enumerate(sizes):
            if not self.faults and not any(interval.upstream[k] for interval in intervals):
                words = f"zero particles were counted upstream at {size:g} µm: leave that size out, or count a larger volume"
                self.fault(*cells[0][k], words)

    def _check_times(self, intervals: Sequence[tuple[int, CountInterval]]) -> None:
        heading = self.heading_of(TIME)
        if heading is None:
            return
        last = 0.0
        for line, interval in intervals:
            if interval.time_min is None:
                if len(intervals) > 1:
                    self.fault(line, heading.index, "the end of this interval is not given: type it")
                continue
            if interval.time_min <= last:
                words = f"{interval.time_min:g} min is not after {last:g} min before it: put the intervals in order of time"
                self.fault(line, heading.index, words)
                return
            last = interval.time_min


def _interval(both: Sequence[tuple[int, ...]], recorded: dict[str, float]) -> CountInterval:
    """Return an interval: counts upstream and downstream, and what was recorded at its end, by key."""
    return CountInterval(both[0], both[1], **recorded)


def _at(size: float, side: str) -> str:
    return f"{side} at {size:g} µm"


def _rises(counted: Sequence[int], sizes: Sequence[float], i: int) -> str:
    return (
        f"{counted[i]:,} at {sizes[i]:g} µm after {counted[i - 1]:,} at {sizes[i - 1]:g} µm: counts cannot rise with size, "
        "as each is of all particles at and above it; check the two, or add up the channels"
    )


def with_conditions_of(counts: Counts, before: Counts | None) -> Counts:
    """Return counts of a table that keep the conditions which were stated before and which the table does not name."""
    if before is None:
        return counts
    kept = {
        name: getattr(before, name)
        for name in CONDITIONS_BY_FIELD
        if name != "scale" and getattr(counts, name) is None and getattr(before, name) is not None
    }
    return replace(counts, **kept)

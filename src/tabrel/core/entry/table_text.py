"""A table as pasted or from a file: what divides its columns, which mark is the decimal one, its cells and its numbers.

Every table that comes in is read here. What can be read two ways is asked, never guessed.
"""

from __future__ import annotations

import csv
import io
import re
from dataclasses import dataclass
from typing import Literal

from tabrel.core.errors import ReadingTextError
from tabrel.core.stopping import stop_if_nobody_waits

DecimalMark = Literal[".", ","]
Divider = Literal["tab", "semicolon", "comma", "spaces", "bar"]

DIVIDERS: dict[Divider, str] = {"tab": "\t", "semicolon": ";", "bar": "|", "comma": ",", "spaces": " "}
MOST_LETTERS = 20_000_000
MOST_ROWS = 100_000
MOST_COLUMNS = 1_000
MOST_CELLS = 800_000
LONGEST_CELL = 50_000
PLAIN_DIGITS = 15
"""So many digits are a number whatever stands around them."""

_WITH_COMMA = re.compile(r"[-+]?\d+(?:[.' \u00a0\u202f]\d{3})*,\d+(?:[eE][-+]?\d+)?")
_WITH_POINT = re.compile(r"[-+]?\d+(?:[,' \u00a0\u202f]\d{3})*\.\d+(?:[eE][-+]?\d+)?")
_THREE_AFTER = re.compile(r"[-+]?\d{1,3}[.,]\d{3}")
_GROUPS_OF_THREE = re.compile(r"[-+]?\d{1,3}(?:([.,' \u00a0\u202f])\d{3})(?:\1\d{3})*(?!\d)")
_SPACES = re.compile(r"(?<=\d)['\u00a0\u202f ](?=\d{3}(?!\d))")


@dataclass(frozen=True)
class TableRow:
    """One row: its line in the text, from 1, and its cells."""

    line: int
    cells: tuple[str, ...]


@dataclass(frozen=True)
class TableText:
    """A table, divided into cells.

    Attributes
    ----------
    rows : tuple of TableRow
        Without empty lines.
    divider : str
        What divides the columns.
    decimal : str
        The decimal mark.
    is_asked : bool
        Whether the decimal mark could be read either way and nobody has said which.
    example : str
        A cell that could be read either way.
    """

    rows: tuple[TableRow, ...]
    divider: Divider
    decimal: DecimalMark
    is_asked: bool
    example: str

    def number(self, cell: str) -> float:
        r"""Return the number in a cell.

        Raises
        ------
        ReadingTextError
            If it is none.

        Examples
        --------
        >>> table = read_table("size;count\n4,5;41.230\n10;8 120")
        >>> [table.number(cell) for row in table.rows[1:] for cell in row.cells]
        [4.5, 41230.0, 10.0, 8120.0]
        """
        if (
            cell.isascii()
            and len(cell) <= PLAIN_DIGITS
            and (cell.isdigit() or (self.decimal == "." and cell.replace(".", "", 1).isdigit()))
        ):
            return float(cell)
        plain = _SPACES.sub("", cell.replace("−", "-"))
        thousands = "," if self.decimal == "." else "."
        if thousands in plain:
            whole, mark, rest = plain.partition(self.decimal)
            if not _GROUPS_OF_THREE.fullmatch(whole):
                raise ReadingTextError(
                    f"{cell[:40]!r} is no number where {self.decimal!r} is the decimal mark: type it as digits"
                )
            plain = whole.replace(thousands, "") + mark + rest
        try:
            number = float(plain.replace(",", "."))
        except ValueError:
            raise ReadingTextError(f"{cell[:40]!r} is no number: type it as digits") from None
        if number != number or number in (float("inf"), float("-inf")) or "_" in plain:
            raise ReadingTextError(f"{cell[:40]!r} is no number: type it as digits")
        return number


def unmarked(cell: str) -> str:
    """Return a cell without the mark that keeps spreadsheets from taking it for a formula.

    Examples
    --------
    >>> unmarked("'-25"), unmarked("3000")
    ('-25', '3000')
    """
    return cell[1:] if cell[:1] == "'" and cell[1:2] in tuple("=+-@\t\r") else cell


def read_table(text: str, *, decimal: DecimalMark | None = None) -> TableText:
    """Return a table, divided into cells.

    Parameters
    ----------
    text : str
        Tab, semicolon, bar, comma or several spaces between the columns; quotes as in CSV. Lines that start with # are notes.
    decimal : str or None
        The decimal mark, where somebody has said which.

    Raises
    ------
    ReadingTextError
        If it is empty, too large, or its numbers contradict each other.
    """
    divider, rows = divided(text)
    if not rows:
        raise ReadingTextError("the table is empty: paste it with its headings")
    if len(rows) > MOST_ROWS:
        raise ReadingTextError(f"the table has {len(rows):,} rows, more than {MOST_ROWS:,}: thin it out")
    name, example = (".", "") if divider == "comma" else _decimal_mark(rows)
    mark: DecimalMark = decimal or ("," if name == "," else ".")
    return TableText(tuple(rows), divider, mark, name == "?" and decimal is None, example)


def divided(text: str) -> tuple[Divider, list[TableRow]]:
    """Return what divides the columns of a text, and its rows; empty lines and notes (#) are passed over.

    Raises
    ------
    ReadingTextError
        If it is too large.
    """
    if len(text) > MOST_LETTERS:
        raise ReadingTextError(f"the table is {len(text):,} letters long, more than {MOST_LETTERS:,}: give it in parts")
    lines = [
        (i, line)
        for i, line in enumerate(text.lstrip("\ufeff").splitlines(), 1)
        if line.strip() and not line.lstrip().startswith("#")
    ]
    divider = _divider([line for _, line in lines])
    rows: list[TableRow] = []
    cells = 0
    for i, line in lines:
        row = TableRow(i, _cells(line, divider, i))
        cells += len(row.cells)
        if len(row.cells) > MOST_COLUMNS:
            raise ReadingTextError(f"line {i} has {len(row.cells):,} cells, more than {MOST_COLUMNS:,}: leave columns out")
        if cells > MOST_CELLS:
            raise ReadingTextError(f"the table has more than {MOST_CELLS:,} cells: thin it out, or leave columns out")
        stop_if_nobody_waits()
        rows.append(row)
    return divider, rows


def _divider(lines: list[str]) -> Divider:
    """Return what divides the columns: what every line with a digit holds most evenly, tab before semicolon before comma."""
    body = lines[:200]
    result: tuple[Divider, ...] = ("tab", "semicolon", "bar")
    for divider in result:
        if 2 * sum(DIVIDERS[divider] in line for line in body) > len(body):
            return divider
    commas = sum(line.count(",") for line in body)
    gaps = sum(len(re.findall(r"\S {2,}\S", line)) for line in body)
    if commas and commas >= gaps and not _is_divided_by_spaces(body):
        return "comma"
    return "spaces"


def _is_divided_by_spaces(lines: list[str]) -> bool:
    """Return whether the commas are decimal ones: numbers are divided by single spaces everywhere."""
    numbers = [line for line in lines if line[:1].isdigit()]
    return bool(numbers) and all(re.fullmatch(r"\s*[-+\d.,]+( +[-+\d.,]+)+\s*", line) for line in numbers)


def _cells(line: str, divider: Divider, number: int) -> tuple[str, ...]:
    if divider == "spaces":
        parts = re.split(r" {2,}", line.strip())
        return tuple(parts) if len(parts) > 1 else tuple(line.split())
    if divider == "bar":
        line = line.strip().removeprefix("|").removesuffix("|")
    mark = DIVIDERS[divider]
    try:
        cells = next(csv.reader(io.StringIO(line), delimiter=mark)) if '"' in line else line.split(mark)
        if len(line) > LONGEST_CELL and (longest := max(map(len, cells))) > LONGEST_CELL:
            raise ReadingTextError(f"line {number} holds a cell of {longest:,} letters: check its quotes and what divides it")
    except csv.Error as error:
        raise ReadingTextError(f"line {number} cannot be divided into cells ({error}): check its quotes") from error
    if "'" in line:
        return tuple(unmarked(cell.strip()) for cell in cells)
    return tuple([cell.strip() for cell in cells])


def _decimal_mark(rows: list[TableRow]) -> tuple[str, str]:
    """Return the decimal mark that the cells give away, ``?`` where they could be read either way, and such a cell.

    A number with both marks, or with other than three digits after its only mark, decides.
    """
    comma, point, unclear = "", "", ""
    for row in rows:
        stop_if_nobody_waits()
        for cell in row.cells:
            if cell.isdigit() or ("," not in cell and "." not in cell):
                continue
            if _THREE_AFTER.fullmatch(cell) and not cell.lstrip("+-").startswith("0"):
                unclear = unclear or cell
            elif _WITH_COMMA.fullmatch(cell):
                comma = comma or cell
            elif _WITH_POINT.fullmatch(cell):
                point = point or cell
    if comma and point:
        raise ReadingTextError(f"{comma!r} has a decimal comma and {point!r} a decimal point: write all numbers one way")
    if comma or point:
        return ("," if comma else "."), ""
    return ("?", unclear) if unclear else (".", "")

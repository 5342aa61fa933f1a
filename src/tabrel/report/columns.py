"""Widths of the columns of a table on paper: none narrower than its longest word, the rest by what each holds."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from pathlib import Path
from typing import Any

from tabrel.report.blocks import Paper, Table

FONTS = Path(__file__).parent / "fonts"
PAPER_MM: dict[Paper, tuple[float, float]] = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}
MARGIN, TURNED_MARGIN, INSET = 18.0, 14.0, 1.5
"""Of the page, of a turned page, and on either side of a cell. [mm]"""
SIZES = (8.0, 7.5, 7.0, 6.5, 6.0)
"""Sizes of letters a table may be set in: the largest in which its words fit. [pt]"""
MOST_COLUMNS_LARGE = 7
POINT = 25.4 / 72
_TO_WRITE_IN = 6.5
"""Width of an empty column of a form, in the size of its letters."""
SHORT_CELL = 12
"""So many letters stay in one line."""
UNBROKEN = "\N{NO-BREAK SPACE}"
_FALLBACK = 0.62
"""Width of a letter that the font lacks, in its size."""


@lru_cache
def _advances(weight: str) -> tuple[dict[int, str], Any, float]:
    from fontTools.ttLib import TTFont

    with TTFont(FONTS / f"IBMPlexSans-{weight}.ttf", lazy=True) as font:
        return font.getBestCmap(), font["hmtx"].metrics, font["head"].unitsPerEm


@lru_cache(maxsize=4096)
def _width(letter: str, weight: str) -> float:
    names, metrics, per_em = _advances(weight)
    name = names.get(ord(letter))
    return _FALLBACK if name is None else metrics[name][0] / per_em


@lru_cache(maxsize=20_000)
def text_width(words: str, *, strong: bool = False) -> float:
    """Return the width of words in one line, in the size of their letters."""
    weight = "SemiBold" if strong else "Regular"
    return sum(_width(letter, weight) for letter in words)


def together(cell: str) -> str:
    """Return a cell with what belongs together in one word, so that no line ends within: a number with its U, a short cell whole.

    Examples
    --------
    >>> [len(together(cell).split(" ")) for cell in ("1231.2 ± 7.2 mm²", "not judged")]
    [2, 1]
    """
    return cell.replace(" ", UNBROKEN) if len(cell) <= SHORT_CELL else cell.replace(" ± ", f"{UNBROKEN}±{UNBROKEN}")


def column_widths(table: Table, room: float) -> tuple[tuple[float, ...], float]:
    """Return the widths of the columns of a table, and the size of its letters.

    As browsers do it: each column gets its longest word, and the rest is shared by how much wider each would be in one line.

    Parameters
    ----------
    table : Table
    room : float
        From margin to margin. [mm]

    Returns
    -------
    widths : tuple of float
        [mm]
    size : float
        [pt]
    """
    least, most = _bounds(table)
    sizes = SIZES if len(table.columns) < MOST_COLUMNS_LARGE else SIZES[1:]
    size = next((size for size in sizes if sum(_in_mm(width, size) for width in least) <= room), SIZES[-1])
    low = [_in_mm(width, size) for width in least]
    high = [_in_mm(width, size) for width in most]
    if sum(low) >= room:  # a word longer than the page: it is broken where it must
        return tuple(room * width / sum(low) for width in low), size
    if sum(high) <= room:  # what is over goes where there is most to read
        over = room - sum(high)
        return tuple(width + over * width / sum(high) for width in high), size
    share = (room - sum(low)) / (sum(high) - sum(low))
    return tuple(a + share * (b - a) for a, b in zip(low, high, strict=True)), size


def _in_mm(width: float, size: float) -> float:
    return width * size * POINT + 2 * INSET + 0.1


def _bounds(table: Table) -> tuple[list[float], list[float]]:
    """Return of every column the width of its longest word and of its longest line, in the size of its letters."""
    least, most = [], []
    for i, column in enumerate(table.columns):
        cells = [(column.title, True), *((together(row[i]), False) for row in table.rows if len(row) == len(table.columns))]
        lines = [(line, strong) for cell, strong in cells for line in cell.split("\n")]
        words = [(word, strong) for line, strong in lines for word in line.split(" ")]
        room = _TO_WRITE_IN if table.is_form and not any(cell for cell, strong in cells if not strong) else 0.0
        least.append(max(room, *(text_width(word, strong=strong) for word, strong in words)))
        most.append(max(room, *(text_width(line, strong=strong) for line, strong in lines)))
    return least, most


def without_empty_columns(table: Table) -> Table:
    """Return a table without the columns in which no row has anything; a form, which is to be filled in, as it is."""
    full = [row for row in table.rows if len(row) == len(table.columns)]
    if table.is_form or not full:
        return table
    kept: Sequence[int] = [i for i in range(len(table.columns)) if i == 0 or any(row[i] for row in full)]
    if len(kept) == len(table.columns):
        return table
    rows = tuple(tuple(row[i] for i in kept) if len(row) == len(table.columns) else row for row in table.rows)
    return Table(table.caption, tuple(table.columns[i] for i in kept), rows, table.is_wide, table.is_form)

"""Columns of a table by their headings: words, units, sizes; the same for every imported table."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from tabrel.core.catalogue.physical_limits import MOST_PARTICLES
from tabrel.core.catalogue.units import UNITS, Dimension, printed, unit_of
from tabrel.core.errors import ReadingTextError


@dataclass(frozen=True)
class Column:
    """A kind of column that a table may have.

    Attributes
    ----------
    key : str
        In the document, with its unit.
    title : str
        What a person calls it.
    words : tuple of str
        Headings that mean it, in lower case.
    unit : str
        Of the document; empty for numbers that have none.
    """

    key: str
    title: str
    words: tuple[str, ...]
    unit: str = ""


@dataclass(frozen=True)
class Heading:
    """A heading as understood.

    Attributes
    ----------
    index : int
        Of the column, from 0.
    text : str
        As written.
    column : Column or None
        None where nothing known is meant: the column is left out, and that is said.
    number : float or None
        A number in the heading, such as a size.
    unit : str
        Written in it; empty for none.
    factor : float
        From the heading's unit to the document's.
    """

    index: int
    text: str
    column: Column | None
    number: float | None = None
    unit: str = ""
    factor: float = 1.0

    @property
    def words(self) -> str:
        """Meaning of the column, in words."""
        if self.column is None:
            return "left out"
        size = "" if self.number is None else f" {self.number:g}"
        return f"{self.column.title}{size}{f', {printed(self.unit)}' if self.unit else ''}"


LONGEST_HEADING = 200
_NUMBER = re.compile(r"\d+(?:[.,]\d+)?")
_BRACKETS = re.compile(r"[\[(]([^\[\]()]*(?:\(c\)|\(b\))?[^\[\]()]*)[\])]")


def understood_headings(cells: Sequence[str], columns: Sequence[Column]) -> tuple[Heading, ...]:
    """Return what the headings of a table mean.

    Parameters
    ----------
    cells : sequence of str
        As written.
    columns : sequence of Column
        The kinds it may have; the longest words that are found in a heading decide.

    Examples
    --------
    >>> pressure = Column("differential_pressure_kpa", "differential pressure", ("differential pressure", "δp"), "kPa")
    >>> found = understood_headings(["Δp (bar)", "remark"], [pressure])
    >>> found[0].words, found[0].factor, found[1].words
    ('differential pressure, bar', 100.0, 'left out')
    """
    words = _words(tuple(columns))
    return tuple(
        _heading(i, cell, columns)
        if len(cell) <= LONGEST_HEADING and words.search(cell.casefold().replace("_", " "))
        else Heading(i, cell, None)
        for i, cell in enumerate(cells)
    )


@lru_cache
def _words(columns: tuple[Column, ...]) -> re.Pattern[str]:
    """Return what is in every heading of these columns; most cells of a table are numbers, and hold nothing of it."""
    words = (word for column in columns for word in (column.key.replace("_", " "), *column.words))
    return re.compile("|".join(re.escape(word).replace(r"\ ", r"\s+") for word in words))


def _heading(index: int, cell: str, columns: Sequence[Column]) -> Heading:
    plain = " ".join(re.sub(r"[_\s]+", " ", cell).casefold().split())
    column = next((item for item in columns if plain == item.key.replace("_", " ")), None)
    if column is not None:
        return Heading(index, cell, column, unit=column.unit)
    pairs = [(len(word), -i, item) for i, item in enumerate(columns) for word in item.words if _holds(plain, word)]
    if not pairs:
        return Heading(index, cell, None)
    column = max(pairs, key=lambda entry: entry[:2])[2]
    number = _NUMBER.search(plain)
    unit = _unit(plain, column)
    factor = UNITS[unit].factor / UNITS[column.unit].factor if unit and column.unit in UNITS else 1.0
    return Heading(index, cell, column, float(number[0].replace(",", ".")) if number else None, unit, factor)


def _holds(plain: str, word: str) -> bool:
    """Return whether a heading holds a word as such."""
    return _as_such(word).search(plain) is not None


@lru_cache
def _as_such(word: str) -> re.Pattern[str]:
    return re.compile(rf"(?<![^\W\d_]){re.escape(word)}(?![^\W\d_])")


def _unit(plain: str, column: Column) -> str:
    """Return the symbol of the unit that a heading names, empty for none."""
    if column.unit not in UNITS:
        return ""
    dimension: Dimension = UNITS[column.unit].dimension
    marks = [inner.strip() for inner in _BRACKETS.findall(plain)]
    last = re.split(r"[\s,/]+(?=\S+$)", plain)[-1] if " " in plain or "," in plain else ""
    for mark in [*marks, last, " ".join(plain.split()[-2:]).replace(" ", "/")]:
        if mark and (unit := _unit_like(mark, dimension)):
            return unit
    return ""


def _unit_like(mark: str, dimension: Dimension) -> str:
    if result := unit_of(mark, dimension):
        return result.symbol
    return next((unit.symbol for unit in UNITS.values() if unit.dimension == dimension and unit.symbol.casefold() == mark), "")


def require_units(headings: Sequence[Heading]) -> list[tuple[int, str]]:
    """Return a sentence for each column whose numbers have a unit that its heading does not name."""
    return [
        (
            heading.index,
            f"the heading {heading.text!r} names no unit: write it like {heading.column.title} ({printed(heading.column.unit)})",
        )
        for heading in headings
        if heading.column is not None and heading.column.unit and not heading.unit
    ]


def whole_number(number: float, what: str) -> int:
    """Return a number of particles.

    Raises
    ------
    ReadingTextError
        If it is below zero or no whole number.
    """
    if number < 0:
        raise ReadingTextError(f"{number:g} {what} is below zero: a count cannot be")
    if number > MOST_PARTICLES:
        raise ReadingTextError(f"{number:g} {what} is more than any counter counts: check the number")
    if number != int(number):
        raise ReadingTextError(f"{number:g} {what} is no whole number: give the particles counted, not a concentration")
    return int(number)

"""How a study came about: what its document carries besides on request, so that undo goes on where it is taken in."""

from __future__ import annotations

from dataclasses import dataclass

from tabrel.core.study.strict import Strict

Value = str | int | float | None
"""Of a column."""


@dataclass(frozen=True)
class ChangedRow(Strict):
    """A row of a table as it was before a change and as it is after; None where there was, or is, none."""

    table: str
    row_id: int
    before: dict[str, Value] | None = None
    after: dict[str, Value] | None = None


@dataclass(frozen=True)
class RecordedChange(Strict):
    """One thing a person did: its words, its place, when, in which window, when it was undone, and the rows it changed."""

    words: str
    place: str
    made_at: str
    rows: tuple[ChangedRow, ...]
    sample_id: int | None = None
    made_in: str | None = None
    undone_at: str | None = None


@dataclass(frozen=True)
class History(Strict):
    """All rows of a study and every change of them, oldest first.

    Attributes
    ----------
    database_version : int
        Of the tables that the rows are of.
    rows : dict
        Rows by table, each by column; those of deleted samples too.
    changes : tuple of RecordedChange
    """

    database_version: int
    rows: dict[str, tuple[dict[str, Value], ...]]
    changes: tuple[RecordedChange, ...] = ()

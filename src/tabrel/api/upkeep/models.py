"""Wire models of the copies of a database."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from tabrel.api.wire import RequestModel
from tabrel.document.results import WireModel
from tabrel.store.upkeep.kept import Occasion


class CopyOut(WireModel):
    """A copy kept beside the database, and what it lacks."""

    name: str
    occasion: Occasion
    words: str
    made: str
    """ISO time."""
    bytes: int
    changes_missing: int | None
    """Changes made since, issued reports too; null if it cannot be determined."""
    last_missing: list[str]
    studies_missing: list[str]
    reports_missing: list[str]
    """Numbers of issued reports; putting the copy back keeps them as files."""


class DayOut(WireModel):
    """How much was entered on a day."""

    day: str
    changes: int


class BackupsOut(WireModel):
    """Where the database and its copies are."""

    database: str
    folder: str
    kept: int
    bytes: int
    bytes_free: int
    copies: list[CopyOut]
    days: list[DayOut]
    notes: str


class CopyNamedIn(RequestModel):
    """A copy, by its name."""

    copy_name: Annotated[str, Field(max_length=200)]
    """Null for the database itself."""


class VerificationIn(RequestModel):
    """Request to verify a copy, by its name, or the database itself."""

    copy_name: Annotated[str | None, Field(max_length=200)] = None
    """Null for the database itself."""


class VerificationOut(WireModel):
    """Result of a verification: faults, each one sentence."""

    studies: int
    samples: int
    readings: int
    changes: int
    faults: list[str]

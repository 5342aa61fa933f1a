"""Refuse single values that cannot be, naming the place and the correction."""

from __future__ import annotations

import re
from datetime import date

from tabrel.core.catalogue.physical_limits import MOST_HOLES, limits_of
from tabrel.core.errors import StudyError
from tabrel.core.rules.limits import require_shown
from tabrel.core.study.strict import Strict


def require_text(path: str, text: str) -> None:
    """Refuse an empty text, or one with letters that do not show."""
    if not text.strip():
        raise StudyError(path, "is empty: give it a few words")
    require_shown(path, text)


def require_count(path: str, count: int) -> None:
    """Refuse what is no number of holes."""
    if not 1 <= count <= MOST_HOLES:
        raise StudyError(f"{path}.count", f"must be a whole number from 1 to {MOST_HOLES}, not {count}: count the holes")


def require_limits(path: str, thing: Strict) -> None:
    """Refuse the first number of a part of a study that lies beyond its physical limits; None is not known."""
    for name, value in vars(thing).items():
        limits = None if value is None else limits_of(type(thing), name)
        if limits and not limits.allow(value):
            raise StudyError(f"{path}.{name}", limits.why_not(value))


def require_date(path: str, text: str | None) -> None:
    """Refuse what is no ISO date; a month or a year alone is one, and so is a date with a time."""
    if text is not None and not is_date(text.partition("T")[0]):
        raise StudyError(path, f"{text!r} is no date: write it like 2026-10-02")


def is_date(text: str) -> bool:
    """Return whether a text is an ISO date, month or year.

    Examples
    --------
    >>> is_date("2026-10-02"), is_date("2026-10"), is_date("2026"), is_date("2026-13")
    (True, True, True, False)
    """
    if not re.fullmatch(r"\d{4}(-\d{2}){0,2}", text):
        return False
    try:
        date.fromisoformat(text + "-01-01"[3 * text.count("-") :])
    except ValueError:
        return False
    return True

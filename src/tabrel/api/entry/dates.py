"""Dates that come in as people type them."""

from __future__ import annotations

from datetime import date

from tabrel.core.entry.dates import iso_date
from tabrel.core.errors import ReadingTextError, StudyError


def dated(where: str, text: str | None) -> str | None:
    """Return a date as typed in ISO form, None for an empty text, or refuse it at its place."""
    if not (text or "").strip():
        return None
    try:
        return iso_date(text or "", date.today())
    except ReadingTextError as error:
        raise StudyError(where, str(error)) from error

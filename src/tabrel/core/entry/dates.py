"""Dates as people type them: ``3 Oct``, ``03.10.26``, ``yesterday``; never guessed where there are two readings."""

from __future__ import annotations

import calendar
import re
from datetime import date, timedelta

from tabrel.core.errors import ReadingTextError

OLDEST_IN_SHORT = 50
"""From this one on two figures mean a year of the last century; between next year and this one they could be either."""

_HOW = "type it like 3 Oct 2026, 2026-10-03, or only 2026-10 or 2026"
_MONTHS = {name.casefold(): i for i, name in enumerate(calendar.month_name) if name}
_WEEKDAYS = {name.casefold(): i for i, name in enumerate(calendar.day_name)}
_YEAR = r"(?P<year>\d{4}|'?\d{2})"
_MONTH = r"(?P<month>[a-z]{3,9})\.?"
_DAY = r"(?P<day>\d{1,2})(?:st|nd|rd|th|\.)?"
_IN_WORDS = tuple(
    re.compile(pattern)
    for pattern in (
        rf"{_DAY}(?: of)? {_MONTH}(?:,? {_YEAR})?",
        rf"{_MONTH} {_DAY}(?:,? {_YEAR})?",
        rf"{_MONTH},? (?P<year>\d{{4}})",
    )
)
_ISO = re.compile(r"\d{4}(?:-\d{2}(?:-\d{2})?)?")
_DOTTED = re.compile(rf"(?P<day>\d{{1,2}})\.\s?(?P<month>\d{{1,2}})\.(?:\s?{_YEAR})?")
_SLASHED = re.compile(r"(?P<first>\d{1,2})/(?P<second>\d{1,2})/(?P<year>\d{4}|\d{2})")
_AGO = re.compile(r"(?P<count>\d{1,3}) (?P<unit>day|week)s? ago")


def iso_date(text: str, today: date) -> str:
    """Return a date as typed in ISO form: a day, or a month or year where no more is said.

    A day without a year is the last one that was. Two figures of a year are of this century up to next year, from 50 on of the
    last.
    With dots the day comes first; with slashes both orders are in use, so that a date which could be either is refused.

    Raises
    ------
    ReadingTextError
        If it is no date, one that does not exist, or one with two readings.

    Examples
    --------
    >>> today = date(2026, 11, 26)
    >>> [iso_date(text, today) for text in ("3 Oct", "3 Dec", "03.10.26", "10/25/26", "Oct 2019", "yesterday", "2 weeks ago")]
    ['2026-10-03', '2025-12-03', '2026-10-03', '2026-10-25', '2019-10', '2026-11-25', '2026-11-12']
    """
    plain = " ".join(text.casefold().split())
    relative = _relative(plain, today)
    if relative is not None:
        return relative.isoformat()
    if _ISO.fullmatch(plain):
        return _checked_iso(plain, text)
    if match := _DOTTED.fullmatch(plain):
        return _day(text, today, int(match["day"]), int(match["month"]), match["year"])
    if match := _SLASHED.fullmatch(plain):
        return _slashed(text, today, int(match["first"]), int(match["second"]), match["year"])
    for pattern in _IN_WORDS:
        match = pattern.fullmatch(plain)
        if match and (month := _month(match["month"])):
            if "day" in match.re.groupindex:
                return _day(text, today, int(match["day"]), month, match["year"])
            return f"{match['year']}-{month:02}"
    raise ReadingTextError(f"{text!r} is no date: {_HOW}")


def _relative(plain: str, today: date) -> date | None:
    days = {"today": 0, "yesterday": 1, "the day before yesterday": 2}
    if plain in days:
        return today - timedelta(days[plain])
    if match := _AGO.fullmatch(plain):
        return today - timedelta(int(match["count"]) * (7 if match["unit"] == "week" else 1))
    weekday = _WEEKDAYS.get(plain.removeprefix("last "))
    if weekday is None:
        return None
    return today - timedelta((today.weekday() - weekday - 1) % 7 + 1)  # the last one before today


def _month(word: str) -> int | None:
    numbers = [number for name, number in _MONTHS.items() if name.startswith(word) or (word == "sept" and number == 9)]
    return numbers[0] if len(numbers) == 1 else None


def _full_year(year: str, today: date) -> int:
    figures = year.lstrip("'")
    if len(figures) == 4:
        return int(figures)
    century = today.year // 100 * 100
    if int(figures) <= today.year % 100 + 1:
        return century + int(figures)
    if int(figures) < OLDEST_IN_SHORT:
        raise ReadingTextError(f"a year {figures} is still to come, or long ago: type it in four figures")
    return century - 100 + int(figures)


def _checked_iso(plain: str, text: str) -> str:
    parts = [int(part) for part in plain.split("-")]
    try:
        date(*[*parts, 1, 1][:3])
    except ValueError as error:
        raise _no_such(text) from error
    return plain


def _day(text: str, today: date, day: int, month: int, year: str | None) -> str:
    if not 1 <= month <= 12:
        raise ReadingTextError(f"{text!r} has a month {month}: with dots the day comes first; {_HOW}")
    if year is None and (month, day) == (2, 29):
        raise ReadingTextError(f"{text!r} is not in every year: type the year too")
    full_year = today.year if year is None else _full_year(year, today)
    try:
        result = date(full_year, month, day)
    except ValueError as error:
        raise _no_such(text) from error
    to_come = year is None and result > today
    return (result.replace(year=today.year - 1) if to_come else result).isoformat()


def _slashed(text: str, today: date, first: int, second: int, year: str) -> str:
    if first <= 12 and second <= 12 and first != second:
        names = calendar.month_name
        raise ReadingTextError(
            f"{text!r} can be read two ways, {first} {names[second]} or {second} {names[first]}: type the month in words"
        )
    day, month = (first, second) if first > 12 else (second, first)
    return _day(text, today, day, month, year)


def _no_such(text: str) -> ReadingTextError:
    return ReadingTextError(f"{text!r}: there is no such day: check day and month")

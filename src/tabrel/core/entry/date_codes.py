"""Date codes, decoded by rules that the analyst states: a pattern, and with it what its figures mean.

A pattern is written with what stands for a part of a date in braces; everything else stands for itself. ``{Y}{DDD}`` reads
``7226`` as day 226 of a year that ends in 7. A year of one figure comes round every ten years: the last such day that is not
after the filter was bought is taken, and the one ten years before is named beside it.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import date, timedelta

from tabrel.core.errors import ReadingTextError, nearest_hint
from tabrel.core.study.library import DateCodeRule

MONTH_LETTERS = "ABCDEFGHIJKL"


@dataclass(frozen=True)
class DateToken:
    """A token of a pattern: the characters it takes, and their meaning."""

    takes: str
    means: str
    part: str = ""


DATE_TOKENS: dict[str, DateToken] = {
    "YYYY": DateToken(r"\d{4}", "the year, four figures", "year"),
    "YY": DateToken(r"\d{2}", "the last two figures of the year", "year"),
    "Y": DateToken(r"\d", "the last figure of the year", "year"),
    "MM": DateToken(r"\d{2}", "the month, 01 to 12", "month"),
    "ML": DateToken(f"[{MONTH_LETTERS}]", "the month as a letter, A for January to L for December", "month"),
    "DD": DateToken(r"\d{2}", "the day of the month, 01 to 31", "day"),
    "DDD": DateToken(r"\d{3}", "the day of the year, 001 to 366", "day of the year"),
    "WW": DateToken(r"\d{2}", "the week of the year, 01 to 53 (ISO 8601)", "week"),
    "W": DateToken(r"[1-7]", "the day of the week, 1 for Monday to 7 for Sunday", "day of the week"),
    "?": DateToken(r".", "any one character", ""),
    "*": DateToken(r".*?", "anything, or nothing", ""),
}
"""By what stands in the braces."""

_PIECE = re.compile(r"\{(?P<token>[^{}]*)\}|(?P<plain>[^{}]+)|(?P<brace>[{}])")


@dataclass(frozen=True)
class DecodedDate:
    """A code as read by a rule: the date in ISO form, in words, and the one a decade before if that is possible too."""

    iso: str
    words: str
    decade_before: str | None = None


def check_rule(rule: DateCodeRule) -> None:
    """Raise `ReadingTextError` where a pattern is none, with what is wrong with it."""
    _tokens(rule.pattern)


def decoded(rule: DateCodeRule, code: str, latest: date) -> DecodedDate | None:
    """Return the date a rule makes of a code, or None where it does not fit.

    Parameters
    ----------
    rule : DateCodeRule
        Checked.
    code : str
        As stamped; capitals and spaces do not matter.
    latest : date
        When the filter was bought, or today.

    Examples
    --------
    >>> decoded(DateCodeRule("own", "{Y}{DDD}"), "7 226", date(2026, 11, 27))
    DecodedDate(iso='2017-08-14', words='day 226 of 2017', decade_before='2007-08-14')
    """
    tokens = _tokens(rule.pattern)
    expression = "".join(f"({DATE_TOKENS[piece].takes})" if is_token else re.escape(_plain(piece)) for piece, is_token in tokens)
    match = re.fullmatch(expression, _plain(code))
    if match is None:
        return None
    names = [piece for piece, is_token in tokens if is_token]
    held = zip(names, match.groups(), strict=True)
    texts = {DATE_TOKENS[name].part: (name, text) for name, text in held if DATE_TOKENS[name].part}
    name, figures = texts["year"]
    if name == "YYYY":
        return _day(texts, int(figures))
    step = 100 if name == "YY" else 10
    year = latest.year - (latest.year - int(figures)) % step
    decoded_date = _day(texts, year)
    if decoded_date is None or _first_day(decoded_date.iso) > latest:  # it would be still to come: a round earlier
        year -= step
        decoded_date = _day(texts, year)
    if decoded_date is None:
        return None
    before = _day(texts, year - step) if step == 10 else None
    return DecodedDate(decoded_date.iso, decoded_date.words, before.iso if before else None)


def _day(tokens: dict[str, tuple[str, str]], year: int) -> DecodedDate | None:
    """Return the date of what was found in a year, or None where there is no such day."""
    parts = {part: (MONTH_LETTERS.index(text) + 1 if name == "ML" else int(text)) for part, (name, text) in tokens.items()}
    try:
        if "day of the year" in parts:
            day = date(year, 1, 1) + timedelta(parts["day of the year"] - 1)
            if parts["day of the year"] < 1 or day.year != year:
                return None
            return DecodedDate(day.isoformat(), f"day {parts['day of the year']} of {year}")
        if "week" in parts:
            day = date.fromisocalendar(year, parts["week"], parts.get("day of the week", 1))
            of_week = f"week {parts['week']} of {year}"
            if "day of the week" in parts:
                return DecodedDate(day.isoformat(), f"day {parts['day of the week']} of {of_week}")
            return DecodedDate(day.isoformat(), f"{of_week}, which begins on {day.isoformat()}")
        if "day" in parts:
            day = date(year, parts["month"], parts["day"])
            return DecodedDate(day.isoformat(), f"day {parts['day']} of month {parts['month']}, {year}")
        if "month" in parts:
            return DecodedDate(date(year, parts["month"], 1).isoformat()[:7], f"month {parts['month']} of {year}")
    except ValueError:
        return None
    return DecodedDate(f"{year:04}", f"the year {year}")


def _first_day(iso: str) -> date:
    return date.fromisoformat(iso + {4: "-01-01", 7: "-01", 10: ""}[len(iso)])


def pattern_words(pattern: str) -> str:
    """Return what a pattern wants, in words.

    Examples
    --------
    >>> pattern_words("L{Y}{ML}")
    '“L”, the last figure of the year, the month as a letter, A for January to L for December'
    """
    return ", ".join(DATE_TOKENS[piece].means if is_token else f"“{piece}”" for piece, is_token in _tokens(pattern))


def _plain(text: str) -> str:
    return "".join(text.split()).upper()


def _tokens(pattern: str) -> list[tuple[str, bool]]:
    """Return the pieces of a pattern, each with whether it is a token.

    Raises
    ------
    ReadingTextError
        If a token is unknown, a part of the date is said twice, or the parts do not make a date.
    """
    pieces: list[tuple[str, bool]] = []
    for match in _PIECE.finditer(pattern.strip()):
        if match["brace"]:
            raise ReadingTextError(
                f"{pattern!r} has a brace without its other one: write a part of the date like {{Y}} or {{DDD}}"
            )
        token = None if match["token"] is None else match["token"].strip().upper()
        if token is not None and token not in DATE_TOKENS:
            known = ", ".join(f"{{{name}}}" for name in DATE_TOKENS)
            raise ReadingTextError(f"{{{match['token']}}} means nothing{nearest_hint(token, DATE_TOKENS)}: use {known}")
        pieces.append((match["plain"], False) if token is None else (token, True))
    parts = [DATE_TOKENS[piece].part for piece, is_token in pieces if is_token and DATE_TOKENS[piece].part]
    for part in parts:
        if parts.count(part) > 1:
            raise ReadingTextError(f"{pattern!r} says the {part} twice: leave one of them out")
    if "year" not in parts:
        raise ReadingTextError(f"{pattern!r} says no year: write where it stands, as {{YYYY}}, {{YY}} or {{Y}}")
    ways = [way for way in (("day of the year",), ("week",), ("month",)) if way[0] in parts]
    if len(ways) > 1:
        raise ReadingTextError(f"{pattern!r} says the day in more than one way: leave all but one out")
    if "day" in parts and "month" not in parts:
        raise ReadingTextError(f"{pattern!r} says a day of the month and no month: add {{MM}} or {{ML}}, or use {{DDD}}")
    if "day of the week" in parts and "week" not in parts:
        raise ReadingTextError(f"{pattern!r} says a day of the week and no week: add {{WW}}")
    return pieces

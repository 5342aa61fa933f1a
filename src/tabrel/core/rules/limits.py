"""Refuse what is larger than any study, and letters that do not show, before anything is made of it."""

from __future__ import annotations

import re
import unicodedata
from typing import Any

from tabrel.core.errors import StudyError

MOST_SAMPLES = 500
MOST_ENTRIES = 200_000
"""Of all lists together, readings and intervals of a test; numbers in a list are counted by the size of the document."""
MOST_LETTERS_OF_TESTS = 24_000_000
"""Of all tests and duty cycles of a study together, so that its document is not larger than one that is read."""
MOST_USES = 60
MOST_LINES_OF_A_USE = 80
"""Criteria, and requirements."""
MOST_LETTERS = 10_000
"""Of one text."""
MOST_LETTERS_OF_A_CYCLE = 20_000_000
DEEPEST = 20
"""A study is nested seven deep."""

# halves of letters, controls but tab and line ends, marks of direction, and letters of no width that could hide in a name
_HIDDEN = re.compile(
    "[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\u061c\u200b\u200e\u200f\u202a-\u202e\u2028\u2029\u2060-\u2069\ud800-\udfff\ufeff]"
)

_HIDDEN_IN_ASCII = bytes(code for code in range(128) if _HIDDEN.match(chr(code)))
STRETCH = 4096


def hidden_letter(text: str) -> str | None:
    """Return the name of a letter in a text that does not show, or None.

    Examples
    --------
    >>> hidden_letter("Halvene"), hidden_letter("Halvene" + chr(0x202E))
    (None, 'RIGHT-TO-LEFT OVERRIDE')
    """
    for start in range(0, len(text), STRETCH):
        part = text[start : start + STRETCH]
        if part.isascii() and len(part) == STRETCH and len(part.encode().translate(None, _HIDDEN_IN_ASCII)) == STRETCH:
            continue  # twenty times faster, and most of a long table
        if match := _HIDDEN.search(part):
            code = ord(match[0])
            return unicodedata.name(match[0], f"half of a letter, {code:X}" if code > 0xD000 else f"control character {code}")
    return None


def require_shown(path: str, text: str) -> None:
    """Refuse a text with a letter that does not show."""
    if hidden := hidden_letter(text):
        raise StudyError(path, f"holds a letter that does not show ({hidden}): take it out")


def check_size(parsed: Any) -> None:
    """Raise `StudyError` where a document, as parsed, is larger or deeper than any study.

    Raises
    ------
    StudyError
        With the place and the limit.
    """
    samples = parsed.get("samples") if isinstance(parsed, dict) else None
    if isinstance(samples, list) and len(samples) > MOST_SAMPLES:
        raise StudyError("samples", f"are {len(samples)}, more than {MOST_SAMPLES}: make several studies of them")
    waiting: list[tuple[tuple[str | int, ...], Any]] = [((), parsed)]
    entries = 0
    while waiting:
        path, value = waiting.pop()
        if len(path) > DEEPEST:
            raise StudyError(_words(path[:3]), f"is nested more than {DEEPEST} deep: no study is")
        if isinstance(value, dict):
            for key in value:
                require_shown(_words(path) or "the document", key)
            waiting.extend(((*path, key), item) for key, item in value.items())
        elif isinstance(value, list):
            entries += sum(not isinstance(item, int | float) for item in value)
            if entries > MOST_ENTRIES:
                raise StudyError(_words(path), f"makes more than {MOST_ENTRIES:,} entries in all: make several studies of them")
            waiting.extend(
                ((*path, i), item)
                for i, item in enumerate(value)
                if isinstance(item, dict | list) or (isinstance(item, str) and _is_odd(item))
            )
        elif isinstance(value, str) and _is_odd(value):
            of_cycle = path[:1] == ("duty_cycles",) and path[-1] == "csv"
            most = MOST_LETTERS_OF_A_CYCLE if of_cycle or path[:1] == ("history",) else MOST_LETTERS
            if len(value) > most:
                raise StudyError(_words(path), f"is {len(value)} letters long: shorten it to {most}")
            require_shown(_words(path), value)


def _is_odd(text: str) -> bool:
    """Return whether a text has to be looked at; of a hundred thousand readings, next to none has."""
    return len(text) > MOST_LETTERS or _HIDDEN.search(text) is not None


def _words(path: tuple[str | int, ...]) -> str:
    words = ""
    for step in path:
        words += f"[{step}]" if isinstance(step, int) else f".{step}" if words else step
    return words

"""Echo of a text being typed into a field, in both unit families, before it is accepted."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, QUANTITIES, Quantity
from tabrel.core.catalogue.terms import STATE_WORDS
from tabrel.core.catalogue.units import UnitFamily, shown
from tabrel.core.entry.field_line import FieldEntry, understand_entry
from tabrel.core.entry.reading_text import ParsedReading, parse_reading
from tabrel.core.errors import ReadingTextError
from tabrel.core.review.asked import asked_of_readings
from tabrel.core.rules.study import check_reading_text
from tabrel.core.study.model import Reading
from tabrel.core.uncertainty.estimate import Estimate, estimate_quantity

_HOLE_KEY = re.compile(r"holes\.(?P<placement>inlet|centre_tube)\[(?P<position>\d+)\]\.(?P<dimension>\w+)")


@dataclass(frozen=True)
class HoleKey:
    """The place of a reading of holes: placement, position of the group, dimension."""

    placement: Literal["inlet", "centre_tube"]
    position: int
    dimension: str


def parse_hole_key(key: str) -> HoleKey | None:
    """Return the parts of a key such as ``holes.inlet[0].diameter``, or None."""
    match = _HOLE_KEY.fullmatch(key)
    if match is None or match["dimension"] not in HOLE_QUANTITIES:
        return None
    placement: Literal["inlet", "centre_tube"] = "inlet" if match["placement"] == "inlet" else "centre_tube"
    return HoleKey(placement, int(match["position"]), match["dimension"])


def quantity_of(key: str) -> Quantity | None:
    """Return the quantity of a reading key or of a hole key, or None."""
    hole = parse_hole_key(key)
    return HOLE_QUANTITIES[hole.dimension] if hole else QUANTITIES.get(key)


@dataclass(frozen=True)
class Echo:
    """Echo under a field before a reading is accepted.

    Attributes
    ----------
    text : str
        As it would be stored, with its unit.
    metric, inch : str
        The value or values in both families; empty where nothing was understood.
    problem : str or None
        Why it cannot be taken.
    question : str or None
        Why it is unusual, with the likely error.
    correction : str or None
        What was likely meant, as it would be typed.
    estimate : Estimate or None
        Of the readings in use with the new ones among them.
    """

    text: str
    metric: str
    inch: str
    problem: str | None = None
    question: str | None = None
    correction: str | None = None
    estimate: Estimate | None = None


def echo(text: str, quantity: Quantity, family: UnitFamily, *, used: Sequence[Reading] = (), counted: bool = False) -> Echo:
    """Return what was understood of what is typed into a field.

    Parameters
    ----------
    text : str
        As typed so far.
    quantity : Quantity
        Of the field.
    family : str
        Whose unit a bare number takes.
    used : sequence of Reading
        The readings in use already.
    counted : bool
        Whether the field takes a count before the size.
    """
    try:
        entry = understand_entry(text, quantity, family, counted=counted)
        if entry.state is not None:
            return _state_echo(entry, used)
        meanings = [check_reading_text(quantity, reading.text) for reading in entry.readings]
    except ReadingTextError as error:
        meant = _meant_area(text, quantity)
        return Echo(" ".join(text.split()), "", "", problem=str(error), correction=meant)
    if entry.count is not None and not entry.readings:
        words = f"{entry.count} holes"
        return Echo(words, words, words)
    asked, correction = _question(entry, quantity, used)
    return Echo(
        _stored_text(entry),
        _worded(entry, meanings, quantity, "metric"),
        _worded(entry, meanings, quantity, "inch"),
        question=asked,
        correction=correction,
        estimate=estimate_quantity(quantity, [*used, *entry.readings]),
    )


def _worded(entry: FieldEntry, meanings: Sequence[ParsedReading], quantity: Quantity, family: UnitFamily) -> str:
    """Return what was understood, in one family: values, ranges, bounds, both sizes of a thread."""
    if entry.thread:
        sizes = [
            f"{QUANTITIES[key].title} {reading_words(parse_reading(reading.text, 'length'), QUANTITIES[key].unit(family))}"
            for key, reading in entry.thread.items()
        ]
        return f"{', '.join(sizes)}, both as published"
    return ", ".join(reading_words(meaning, quantity.unit(family)) for meaning in meanings)


def reading_words(meaning: ParsedReading, unit: str) -> str:
    """Return what one reading means in a unit: a value, a range with its ends, or a bound in words.

    Examples
    --------
    >>> reading_words(parse_reading("over 15 oz", "mass"), "g"), reading_words(parse_reading("5 to 5.5", "count"), "")
    ('at least 425.24 g', '5 to 5.5')
    """
    if meaning.bound:
        return f"{meaning.bound.replace('_', ' ')} {shown(meaning.value, unit)}"
    if meaning.interval is not None:
        low, high = (shown(end, unit) for end in meaning.interval)
        return f"{low.removesuffix(unit).strip()} to {high}"
    return shown(meaning.value, unit)


def _stored_text(entry: FieldEntry) -> str:
    if entry.thread:
        return ", ".join(reading.text for reading in entry.thread.values())
    texts = ", ".join(reading.text for reading in entry.readings)
    return f"{entry.count} x {texts}" if entry.count is not None else texts


def _state_echo(entry: FieldEntry, used: Sequence[Reading]) -> Echo:
    words = STATE_WORDS[entry.state][0] if entry.state else ""
    if used and entry.state != "not_measured":
        problem = f"there are readings in use: set them aside first, then say that it is {words}"
        return Echo(words, "", "", problem=problem)
    return Echo(words, words, words)


def questions(
    readings: Sequence[Reading], quantity: Quantity, used: Sequence[Reading] = ()
) -> list[tuple[str, str | None] | None]:
    """Return, for each new reading, the question it raises with what was likely meant, or None.

    Parameters
    ----------
    readings : sequence of Reading
        The new ones.
    quantity : Quantity
        Of the field.
    used : sequence of Reading
        Those in use already, by which an outlier is told; what was only copied tells none.
    """
    used = [reading for reading in used if not reading.copied_from]
    asked = asked_of_readings(quantity, [*used, *readings])
    if readings and not any(asked[len(used) :]):  # that the readings spread is asked of the newest, wherever it shows
        asked[-1] = next((item for item in asked if item and item[0] == "spread"), None)
    return [item and item[1:] for item in asked[len(used) :]]


def _question(entry: FieldEntry, quantity: Quantity, used: Sequence[Reading]) -> tuple[str | None, str | None]:
    """Return the first question of a line, and the whole line with every likely error corrected."""
    asked = questions(entry.readings, quantity, used)
    first = next((pair for pair in asked if pair), None)
    if first is None:
        return None, None
    meant = [pair[1] if pair and pair[1] else reading.text for pair, reading in zip(asked, entry.readings, strict=True)]
    return first[0], ", ".join(meant) if any(pair and pair[1] for pair in asked) else None


def _meant_area(text: str, quantity: Quantity) -> str | None:
    """Return the area meant where a length was typed for one: ``45 mm`` for ``45 mm2``."""
    match = re.fullmatch(r"\s*([\d.,]+)\s*(mm|cm|in)\s*", text)
    return f"{match[1]} {match[2]}2" if match and quantity.dimension == "area" else None

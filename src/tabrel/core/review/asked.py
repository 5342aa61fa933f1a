"""Questions that readings raise: as they are typed, and later in the warnings of a sample."""

from __future__ import annotations

from collections.abc import Sequence
from statistics import median

from tabrel.core.catalogue.quantities import Quantity
from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.entry.likely_errors import count_question, outlier_question, question
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.study.model import Reading
from tabrel.core.uncertainty.estimate import QUESTIONED_SPREAD, outlying, spread_over_pooled

Asked = tuple[str, str, str | None]
"""Code, sentence, and what was likely meant, as it would be typed."""


def asked_of_readings(quantity: Quantity, readings: Sequence[Reading]) -> list[Asked | None]:
    """Return the question that each of the readings in use of one quantity raises, or None.

    Outside the usual range; a count that is no whole number or not what was counted before; one that does not fit the
    others. Readings that spread far more than repeating explains are asked about at the one farthest from the rest.
    """
    parsed = [parse_reading(reading.text, quantity.dimension, zero_allowed=quantity.zero_allowed) for reading in readings]
    valued = [i for i, meaning in enumerate(parsed) if not meaning.bound]
    outliers = {valued[k] for k in outlying([parsed[i] for i in valued])}
    centre = median([parsed[i].value for i in valued]) if valued else 0.0
    pairs: list[Asked | None] = []
    for i, (reading, meaning) in enumerate(zip(readings, parsed, strict=True)):
        asked: Asked | None = None
        if pair := question(quantity, reading.text, meaning):
            asked = ("unusual_reading", *pair)
        elif pair := count_question(quantity, reading.text, meaning, [*parsed[:i], *parsed[i + 1 :]]):
            asked = ("count_again", *pair)
        elif i in outliers:
            asked = ("outlier", *outlier_question(quantity, reading.text, meaning, centre))
        pairs.append(asked)
    if any(pairs) or any(reading.confirmed for reading in readings):
        return pairs
    for hole in {reading.hole for reading in readings}:  # holes may differ: only what was read of one is repeated
        own = [i for i in valued if readings[i].hole == hole]
        times = spread_over_pooled(quantity, [readings[i] for i in own], [parsed[i] for i in own])
        if times <= QUESTIONED_SPREAD:
            continue
        values = [parsed[i].value for i in own]
        middle = median(values)
        farthest = max(own, key=lambda i: (abs(parsed[i].value - middle), i))
        low, high = (shown_in_both(end, quantity.metric_unit, 4) for end in (min(values), max(values)))
        sentence = f"the readings lie between {low} and {high}, {times:.0f} times what repeating one explains"
        pairs[farthest] = ("spread", f"{sentence}: read it again, and set aside what slipped", None)
    return pairs

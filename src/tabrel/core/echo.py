"""What was understood of a typed reading, in both unit families."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

from tabrel.core.checks import quantity_warnings
from tabrel.core.errors import ReadingTextError
from tabrel.core.quantities import HOLE_QUANTITIES, QUANTITIES, Quantity
from tabrel.core.study_checks import check_reading_text
from tabrel.core.units import UnitFamily, shown

_BARE_NUMBER = re.compile(r"[+-]?[\d.,/\s]+(?:[eE][+-]?\d+)?")
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


def with_unit(text: str, quantity: Quantity, family: UnitFamily) -> str:
    """Return the text with the field's unit where a bare number was typed."""
    plain = " ".join(text.split())
    unit = quantity.metric_unit if family == "metric" else quantity.inch_unit
    return f"{plain} {unit}" if unit and _BARE_NUMBER.fullmatch(plain) and re.search(r"\d", plain) else plain


@dataclass(frozen=True)
class Echo:
    """What a field shows under the cursor before a reading is accepted.

    Attributes
    ----------
    text : str
        As it would be stored, with its unit.
    metric, inch : str
        The value in both families; empty where it was not understood.
    problem : str or None
        Why it cannot be taken.
    question : str or None
        Why it is unusual, with the likely slip.
    """

    text: str
    metric: str
    inch: str
    problem: str | None
    question: str | None


def echo(text: str, quantity: Quantity, family: UnitFamily) -> Echo:
    """Return what was understood of a typed reading."""
    stored = with_unit(text, quantity, family)
    try:
        parsed = check_reading_text(quantity, stored)
    except ReadingTextError as error:
        return Echo(stored, "", "", str(error), None)
    question = next((warning.message for warning in quantity_warnings(quantity.key, quantity, (stored,))), None)
    return Echo(stored, shown(parsed.value, quantity.metric_unit), shown(parsed.value, quantity.inch_unit), None, question)

"""Audit of printed sums: each printed result recomputed with the range that its rounded inputs allow, and what would explain it.

A result follows where that range meets the printed one; with rounding, where honest rounding on the way leads there. If
neither, every slip that would explain it is named, never as a verdict on a person.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from math import pi
from typing import Literal

from tabrel.core.audit.printed import PrintedNumber, printed_number
from tabrel.core.catalogue.units import UNITS, Dimension, printed
from tabrel.core.errors import ReadingTextError, StudyError, nearest_hint
from tabrel.core.numbers import plain_number
from tabrel.core.study.arithmetic import ArithmeticLine

Verdict = Literal["follows", "follows_with_rounding", "does_not_follow"]
Range = tuple[float, float]
_Ranges = Mapping[str, Sequence[Range]]

FACTORS = (10.0, 0.1, 100.0, 0.01, 1000.0, 0.001, 25.4, 1 / 25.4, 645.16, 1 / 645.16)
"""By which a slip of the decimal mark or of a unit is off, in the order in which they are named."""

MOST_DECIMALS = 4
"""To which the area of one hole may have been rounded on the way."""


@dataclass(frozen=True)
class Formula:
    """A formula that a line can have.

    Attributes
    ----------
    inputs : mapping
        What each measures, by key; None for whatever the first one measures.
    result : str or None
        What comes out: a dimension, ``fraction`` for per cent, ``count`` for a bare number, None for that of the inputs.
    words : str
        What it works out.
    compute : callable
        From the ranges of the inputs to the range of the result. [SI]
    """

    inputs: Mapping[str, Dimension | None]
    result: Dimension | None
    words: str
    compute: Callable[[_Ranges], Range]


@dataclass(frozen=True)
class LineCheck:
    """Result of recomputing a line.

    Attributes
    ----------
    line : ArithmeticLine
    verdict : str
    computed, stated : tuple of float
        The range that the inputs allow, and the printed one. [in `unit`]
    unit : str
        As printed; empty for a bare number.
    would_explain : tuple of str
        Codes of slips.
    sentence : str
    """

    line: ArithmeticLine
    verdict: Verdict
    computed: Range
    stated: Range
    unit: str
    would_explain: tuple[str, ...]
    sentence: str


def _times(first: Range, second: Range) -> Range:
    ends = [a * b for a in first for b in second]
    return min(ends), max(ends)


def _square(first: Range) -> Range:
    return max(first[0], 0.0) ** 2, first[1] ** 2


def _scaled(first: Range, factor: float) -> Range:
    return first[0] * factor, first[1] * factor


def _sum(ranges: Sequence[Range]) -> Range:
    return sum(low for low, _ in ranges), sum(high for _, high in ranges)


def _quotient(first: Range, second: Range) -> Range:
    if second[0] <= 0:
        raise ReadingTextError("what is divided by may be zero: check it")
    return first[0] / second[1], first[1] / second[0]


def _round_area(x: _Ranges) -> Range:
    return _scaled(_square(x["diameter"][0]), pi / 4)


def _difference(x: _Ranges) -> Range:
    (a,), (b,) = x["a"], x["b"]
    return a[0] - b[1], a[1] - b[0]


def _percent_more(x: _Ranges) -> Range:
    low, high = _quotient(x["a"][0], x["b"][0])
    return low - 1, high - 1


def _efficiency_of_beta(x: _Ranges) -> Range:
    low, high = x["beta"][0]
    return 1 - 1 / low, 1 - 1 / high


def _beta_of_efficiency(x: _Ranges) -> Range:
    low, high = x["efficiency"][0]
    if high >= 1:
        raise ReadingTextError("an efficiency that may be 100 % has no filtration ratio: give it with more digits")
    return 1 / (1 - low), 1 / (1 - high)


_TWO: Mapping[str, Dimension | None] = {"a": None, "b": None}
_SIDES: Mapping[str, Dimension | None] = {"length": "length", "width": "length"}

FORMULAS: dict[str, Formula] = {
    "round_holes_area": Formula(
        {"count": "count", "diameter": "length"}, "area", "area of round holes", lambda x: _times(x["count"][0], _round_area(x))
    ),
    "round_area": Formula({"diameter": "length"}, "area", "area of a circle", _round_area),
    "rectangle_area": Formula(_SIDES, "area", "area of a rectangle", lambda x: _times(x["length"][0], x["width"][0])),
    "sum": Formula({"terms": None}, None, "sum", lambda x: _sum(x["terms"])),
    "difference": Formula(_TWO, None, "difference", _difference),
    "ratio": Formula(_TWO, "count", "ratio", lambda x: _quotient(x["a"][0], x["b"][0])),
    "percent_more": Formula(_TWO, "fraction", "how much more, in per cent", _percent_more),
    "efficiency_of_beta": Formula({"beta": "count"}, "fraction", "efficiency of a filtration ratio", _efficiency_of_beta),
    "beta_of_efficiency": Formula({"efficiency": "fraction"}, "count", "filtration ratio of an efficiency", _beta_of_efficiency),
}
"""By name."""


def check_line(line: ArithmeticLine, path: str = "line") -> LineCheck:
    """Return what recomputing says of one line.

    Raises
    ------
    StudyError
        If the formula is not known, an input is missing or no number, or the units do not go together.
    """
    formula = FORMULAS.get(line.formula)
    if formula is None:
        raise StudyError(
            f"{path}.formula",
            f"{line.formula!r} is no formula{nearest_hint(line.formula, FORMULAS)}: use one of {', '.join(FORMULAS)}",
        )
    numbers = _inputs(line, formula, path)
    stated = _result(line, formula, numbers, path)
    try:
        computed = formula.compute({key: [number.ends for number in some] for key, some in numbers.items()})
    except (ReadingTextError, ZeroDivisionError) as error:
        raise StudyError(f"{path}.inputs", str(error) or "divide by zero: check them") from error
    verdict: Verdict = "follows"
    slips: tuple[str, ...] = ()
    if not _meet(computed, stated.ends):
        verdict = "follows_with_rounding"
        if not any(_meet((value, value), stated.ends) for value in _rounded_on_the_way(line.formula, numbers, stated)):
            verdict, slips = "does_not_follow", tuple(_slips(line.formula, numbers, computed, stated.ends))
    in_unit = (_scaled(computed, 1 / stated.factor), _scaled(stated.ends, 1 / stated.factor))
    sentence = _sentence(line, formula, in_unit, stated, verdict, slips)
    return LineCheck(line, verdict, *in_unit, stated.unit, slips, sentence)


def _inputs(line: ArithmeticLine, formula: Formula, path: str) -> dict[str, list[PrintedNumber]]:
    for key in line.inputs:
        if key not in formula.inputs:
            known = ", ".join(formula.inputs)
            raise StudyError(
                f"{path}.inputs.{key}", f"is no input of {line.formula}{nearest_hint(key, formula.inputs)}: it takes {known}"
            )
    collected: dict[str, list[PrintedNumber]] = {}
    first: Dimension | None = None
    for key, dimension in formula.inputs.items():
        if key not in line.inputs:
            raise StudyError(f"{path}.inputs", f"{key} is missing: add it")
        given = line.inputs[key]
        texts = given if isinstance(given, tuple) else (given,)
        if not texts:
            raise StudyError(f"{path}.inputs.{key}", "is empty: give the terms")
        collected[key] = []
        for i, text in enumerate(texts):
            place = f"{path}.inputs.{key}" + (f"[{i}]" if isinstance(given, tuple) else "")
            try:
                number = printed_number(text, is_count=key == "count")
            except ReadingTextError as error:
                raise StudyError(place, str(error)) from error
            wanted = dimension or first or number.dimension
            first = first or (number.dimension if dimension is None else None)
            if wanted == "fraction" and not number.unit:
                raise StudyError(place, f"{text!r} is told in per cent: write it like {text.strip()} %")
            if number.dimension != wanted:
                raise StudyError(place, f"{text!r} is no {wanted.replace('_', ' ')}: check its unit")
            collected[key].append(number)
    return collected


def _result(line: ArithmeticLine, formula: Formula, numbers: Mapping[str, Sequence[PrintedNumber]], path: str) -> PrintedNumber:
    try:
        stated = printed_number(line.printed)
    except ReadingTextError as error:
        raise StudyError(f"{path}.printed", str(error)) from error
    wanted = formula.result or next(iter(numbers.values()))[0].dimension
    if stated.dimension != wanted:
        example = next((symbol for symbol, unit in UNITS.items() if unit.dimension == wanted), "")
        says = (
            f"is no {wanted}: write it with a unit such as {printed(example)}"
            if wanted != "count"
            else "has a unit where none comes out"
        )
        raise StudyError(f"{path}.printed", f"{line.printed!r} {says}")
    return stated


def _meet(first: Range, second: Range) -> bool:
    tolerance = 1e-12 * max(abs(first[0]), abs(first[1]), abs(second[0]), abs(second[1]))
    return first[0] <= second[1] + tolerance and second[0] <= first[1] + tolerance


def _half_up(value: float, decimals: int) -> float:
    return float(Decimal(repr(value)).quantize(Decimal(1).scaleb(-decimals), rounding=ROUND_HALF_UP))


def _rounded_on_the_way(formula: str, numbers: Mapping[str, Sequence[PrintedNumber]], stated: PrintedNumber) -> Iterator[float]:
    """Yield the results that honest rounding on the way leads to, with the inputs as printed. [SI]"""
    if formula not in ("round_holes_area", "round_area"):
        return
    diameter = numbers["diameter"][0]
    count = numbers["count"][0].value if "count" in numbers else 1.0
    one_hole = pi / 4 * (diameter.value * diameter.factor) ** 2
    if formula == "round_holes_area":
        for decimals in range(MOST_DECIMALS + 1):
            yield count * _half_up(one_hole / stated.factor, decimals) * stated.factor
    if diameter.decimals is not None:
        for decimals in (diameter.decimals + 1, diameter.decimals):
            yield count * pi * (_half_up(diameter.value / 2, decimals) * diameter.factor) ** 2


def _slips(formula: str, numbers: Mapping[str, Sequence[PrintedNumber]], computed: Range, stated: Range) -> Iterator[str]:
    """Yield the code of every slip that would explain a printed result, in their order."""
    is_round = formula in ("round_holes_area", "round_area")
    if formula == "round_holes_area" and _meet(_scaled(computed, 1 / numbers["count"][0].value), stated):
        yield "count_left_out"
    for code, factor in (("diameter_as_radius", 4.0), ("radius_as_diameter", 0.25), ("pi_as_3", 3 / pi)):
        if is_round and _meet(_scaled(computed, factor), stated):
            yield code
    if formula == "sum" and len(numbers["terms"]) > 1:
        for i in range(len(numbers["terms"])):
            if _meet(_sum([number.ends for k, number in enumerate(numbers["terms"]) if k != i]), stated):
                yield f"term_{i + 1}_left_out"
    if formula == "percent_more":
        a, b = numbers["a"][0].ends, numbers["b"][0].ends
        if a[0] > 0 and _meet((1 - b[1] / a[0], 1 - b[0] / a[1]), stated):
            yield "other_base"
    for factor in FACTORS:
        if _meet(_scaled(computed, factor), stated):
            yield f"factor_{factor:.6g}"


SLIPS: dict[str, str] = {
    "count_left_out": "the count left out",
    "diameter_as_radius": "the diameter taken for the radius",
    "radius_as_diameter": "the radius taken for the diameter",
    "pi_as_3": "π taken as 3",
    "other_base": "per cent of the other one",
}
"""In words; terms and factors have theirs by number."""


def slip_words(code: str) -> str:
    """Return a slip in words.

    Examples
    --------
    >>> slip_words("term_2_left_out"), slip_words("factor_25.4"), slip_words("pi_as_3")
    ('term 2 left out', 'a factor of 25.4', 'π taken as 3')
    """
    if code in SLIPS:
        return SLIPS[code]
    if code.startswith("term_"):
        return f"term {code.split('_')[1]} left out"
    return f"a factor of {code.removeprefix('factor_')}"


def _sentence(
    line: ArithmeticLine, formula: Formula, ranges: tuple[Range, Range], stated: PrintedNumber, verdict: str, slips: Sequence[str]
) -> str:
    (low, high), _ = ranges
    unit = f" {printed(stated.unit)}" if stated.unit else ""
    ends = [plain_number(low, 5)] if abs(high - low) <= 1e-9 * abs(high) else [plain_number(end, 5) for end in (low, high)]
    given = f"{' to '.join(ends)}{unit}"
    name = f"{formula.words}: the inputs allow {given}, printed is {line.printed.strip()}"
    if verdict == "follows":
        return f"{name}: it follows"
    if verdict == "follows_with_rounding":
        return f"{name}: it follows with rounding on the way"
    if not slips:
        return f"{name}: it does not follow, and no single slip would explain it"
    return f"{name}: it does not follow; {' or '.join(slip_words(code) for code in slips)} would explain it"

"""Lines of arithmetic as somebody writes them: typed one by one, or pasted from a table.

A line is ``label: expression = result``, or a row of a table: label, formula, inputs, result. What can be read two ways is
not guessed: ``9 x 5.3 mm`` may be nine holes or a slot, and the line says which.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass

from tabrel.core.audit.arithmetic import FORMULAS, LineCheck, check_line
from tabrel.core.audit.printed import printed_number
from tabrel.core.errors import ReadingTextError, StudyError, nearest_hint
from tabrel.core.study.arithmetic import ArithmeticLine

MOST_LINES = 500
LONGEST_LINE = 400

_MULTIPLY = r"\s*(?:x|×|\*)\s*"
_ROUND = r"(?:ø|⌀|dia(?:meter)?|round|circle)"


@dataclass(frozen=True)
class WrittenLine:
    """One line as written: what it was understood as, or what is wrong with it.

    Attributes
    ----------
    text : str
    check : LineCheck or None
    problem : str
        Empty where it was understood.
    """

    text: str
    check: LineCheck | None
    problem: str


def read_lines(text: str) -> tuple[WrittenLine, ...]:
    """Return the lines of a text, each understood or with its problem; empty ones and a row of headings are passed over.

    Raises
    ------
    StudyError
        If there are too many.

    Examples
    --------
    >>> [line.check.verdict for line in read_lines("inlet: 8 holes 0.24 in = 0.362 in2")]
    ['follows']
    """
    rows = [row for row in text.splitlines() if row.strip()]
    if len(rows) > MOST_LINES:
        raise StudyError("text", f"has {len(rows)} lines, more than {MOST_LINES}: give them in parts")
    if rows and _is_heading(rows[0]):
        rows = rows[1:]
    return tuple(_written(row) for row in rows)


def _written(text: str) -> WrittenLine:
    if len(text) > LONGEST_LINE:
        return WrittenLine(f"{text.strip()[:40]}…", None, f"is {len(text):,} letters long: write one sum a line")
    try:
        return WrittenLine(text.strip(), check_line(read_line(text)), "")
    except (StudyError, ReadingTextError) as error:
        return WrittenLine(text.strip(), None, str(error))


def _is_heading(row: str) -> bool:
    cells = [cell.casefold() for cell in _cells(row)]
    return len(cells) > 2 and "formula" in cells


def _cells(row: str) -> list[str]:
    separator = next((mark for mark in ("\t", ";") if mark in row), None)
    return [cell.strip().strip('"').strip() for cell in row.split(separator)] if separator else []


def read_line(text: str) -> ArithmeticLine:
    """Return one written line; raises `ReadingTextError` where it is none, with the correction."""
    cells = [cell for cell in _cells(text) if cell]
    if cells:
        return _of_row(cells)
    label, _, word = text.strip().rpartition(":")
    for read in _READERS:
        arithmetic_line = read(word.strip(), label.strip())
        if arithmetic_line is not None:
            return arithmetic_line
    raise ReadingTextError(
        f"{text.strip()!r} is no line that can be recomputed: write it like inlet: 8 holes 0.24 in = 0.362 in2, "
        "10 + 12 mm = 22 mm, 9 by 5.3 mm = 47.7 mm2 or 98.7 % = β 75"
    )


def _of_row(cells: list[str]) -> ArithmeticLine:
    """Return a row of a table: label, formula, inputs in the formula's order, result."""
    if len(cells) < 4:
        raise ReadingTextError("a row needs a label, a formula, its inputs and the result: this one has fewer cells")
    label, name, *inputs, printed = cells
    words = {formula.words: key for key, formula in FORMULAS.items()}
    formula = name if name in FORMULAS else words.get(name.casefold(), name)
    if formula not in FORMULAS:
        raise ReadingTextError(f"{name!r} is no formula{nearest_hint(name, FORMULAS)}: use one of {', '.join(FORMULAS)}")
    keys = list(FORMULAS[formula].inputs)
    if formula == "sum":
        return ArithmeticLine(label, formula, {"terms": tuple(inputs)}, printed)
    if len(inputs) != len(keys):
        raise ReadingTextError(f"{formula} takes {' and '.join(keys)}: this row has {len(inputs)} of them")
    return ArithmeticLine(label, formula, dict(zip(keys, inputs, strict=True)), printed)


def _sides(line: str) -> tuple[str, str] | None:
    left, equals, right = line.partition("=")
    return (left.strip(), right.strip()) if equals and "=" not in right else None


def _line(label: str, formula: str, inputs: dict[str, str | tuple[str, ...]], printed: str) -> ArithmeticLine:
    return ArithmeticLine(label or FORMULAS[formula].words, formula, inputs, printed)


def _percent_more(line: str, label: str) -> ArithmeticLine | None:
    match = re.fullmatch(r"(?P<a>.+?)\s+is\s+(?P<printed>[-+\d.]+\s*%)\s+(?P<way>more|less)\s+than\s+(?P<b>.+)", line)
    if match is None:
        return None
    printed = match["printed"] if match["way"] == "more" else f"-{match['printed'].lstrip('+-')}"
    a, b = _with_one_unit([match["a"], match["b"]])
    return _line(label, "percent_more", {"a": a, "b": b}, printed)


def _ratio_and_efficiency(line: str, label: str) -> ArithmeticLine | None:
    sides = _sides(line)
    if sides is None:
        return None
    beta = [re.fullmatch(r"(?:β|beta)\s*(?P<ratio>[\d. ]+)", side, re.IGNORECASE) for side in sides]
    if beta[0]:
        return _line(label, "efficiency_of_beta", {"beta": beta[0]["ratio"].strip()}, sides[1])
    if beta[1]:
        return _line(label, "beta_of_efficiency", {"efficiency": sides[0]}, beta[1]["ratio"].strip())
    return None


_HOLES = re.compile(rf"(?P<count>\d+)(?:\s*holes?(?:\s+of)?\s*|{_MULTIPLY}{_ROUND}\s*)(?P<diameter>[\d.].*)", re.IGNORECASE)
_CIRCLE = re.compile(rf"{_ROUND}\s*(?P<diameter>[\d.].*)", re.IGNORECASE)
_SLOT = re.compile(rf"(?:slot|rectangle)\s*(?P<a>.+?){_MULTIPLY}(?P<b>.+)|(?P<c>.+?)\s+by\s+(?P<d>.+)", re.IGNORECASE)


def _areas(line: str, label: str) -> ArithmeticLine | None:
    sides = _sides(line)
    if sides is None:
        return None
    left, printed = sides
    if holes := _HOLES.fullmatch(left):
        return _line(label, "round_holes_area", {"count": holes["count"], "diameter": holes["diameter"]}, printed)
    if circle := _CIRCLE.fullmatch(left):
        return _line(label, "round_area", {"diameter": circle["diameter"]}, printed)
    if slot := _SLOT.fullmatch(left):
        length, width = _with_one_unit([slot["a"] or slot["c"], slot["b"] or slot["d"]])
        return _line(label, "rectangle_area", {"length": length, "width": width}, printed)
    if re.fullmatch(rf"\d+{_MULTIPLY}[\d.].*", left):
        raise ReadingTextError(f"{left!r} may be round holes or a rectangle: write {_two_ways(left)}")
    return None


def _two_ways(left: str) -> str:
    first, second = re.split(_MULTIPLY, left, maxsplit=1)
    return f"{first} holes {second}, or {first} by {second}"


_TWO_TERMS = ((re.compile(r"\s+[-−–]\s+"), "difference"), (re.compile(r"\s*[/÷]\s+|\s+[/÷]\s*"), "ratio"))


def _terms(line: str, label: str) -> ArithmeticLine | None:
    sides = _sides(line)
    if sides is None:
        return None
    left, printed = sides
    terms = re.split(r"\s*\+\s*", left)
    if len(terms) > 1:
        return _line(label, "sum", {"terms": tuple(_with_one_unit(terms))}, printed)
    for sign, formula in _TWO_TERMS:
        parts = sign.split(left)
        if len(parts) == 2:
            a, b = _with_one_unit(parts)
            return _line(label, formula, {"a": a, "b": b}, printed)
    return None


def _with_one_unit(texts: list[str]) -> list[str]:
    """Return numbers of which only the last has a unit with that unit."""
    numbers = [printed_number(text) for text in texts]
    unit = numbers[-1].unit
    if unit and not any(number.unit for number in numbers[:-1]):
        return [f"{text.strip()} {unit}" for text in texts[:-1]] + [texts[-1].strip()]
    return [text.strip() for text in texts]


def written_text(line: ArithmeticLine) -> str:
    """Return a line as it would be written, which reads back to the same.

    Examples
    --------
    >>> written_text(read_line("8 x ø 0.24 in = 0.362 in2"))
    'area of round holes: 8 holes 0.24 in = 0.362 in2'
    """
    x = {key: " + ".join(text) if isinstance(text, tuple) else text for key, text in line.inputs.items()}
    sentence = {
        "round_holes_area": "{count} holes {diameter} = {printed}",
        "round_area": "ø {diameter} = {printed}",
        "rectangle_area": "{length} by {width} = {printed}",
        "sum": "{terms} = {printed}",
        "difference": "{a} - {b} = {printed}",
        "ratio": "{a} / {b} = {printed}",
        "percent_more": "{a} is {printed} more than {b}",
        "efficiency_of_beta": "β {beta} = {printed}",
        "beta_of_efficiency": "{efficiency} = β {printed}",
    }[line.formula]
    return f"{line.label}: {sentence.format(**x, printed=line.printed)}"


_READERS: tuple[Callable[[str, str], ArithmeticLine | None], ...] = (_percent_more, _ratio_and_efficiency, _areas, _terms)

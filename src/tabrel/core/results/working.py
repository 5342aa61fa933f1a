"""The working of a result: every line with its formula, the numbers put in, and what comes out.

A line is written as a template such as ``π·{d}²/4``; the same template is shown with symbols, shown with
numbers, and evaluated, so that a line can never claim what its numbers do not give. That the last line
equals the computed result is tested for every result there is.
"""

from __future__ import annotations

import ast
import operator
import re
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import lru_cache
from math import pi
from typing import Any, Literal

from uncertainties import std_dev, umath

from tabrel.core.catalogue.units import UNITS, UnitFamily, in_family, printed
from tabrel.core.numbers import number_with_uncertainty, plain_number, to_uncertainty
from tabrel.core.study.model import Provenance
from tabrel.core.uncertainty.propagation import Uncertain
from tabrel.core.uncertainty.sampled_number import nominal_value

Measure = Literal[
    "length", "area", "media_area", "pressure", "force", "spring_rate", "modulus", "count", "fraction", "number", "micrometre",
    "permeability", "air_permeability", "viscosity", "mass", "angle",
]  # fmt: skip
_METRIC_UNITS: dict[Measure, str] = {
    "length": "mm",
    "area": "mm2",
    "media_area": "cm2",
    "pressure": "kPa",
    "force": "N",
    "spring_rate": "N/mm",
    "modulus": "GPa",
    "fraction": "%",
    "permeability": "um2",
    "air_permeability": "L/m2/s",
    "viscosity": "uPa.s",
    "mass": "g",
}
"""The metric unit a measure is shown in; the rest has none."""

_BARE_UNITS: dict[Measure, str] = {"count": "", "number": "", "angle": "rad", "micrometre": "µm"}


def shown_unit(measure: Measure, family: UnitFamily) -> tuple[str, float]:
    """Return the unit a measure is shown in, and its size in SI."""
    if measure in _BARE_UNITS:
        return _BARE_UNITS[measure], 1.0
    symbol = in_family(_METRIC_UNITS[measure], family)
    return printed(symbol), UNITS[symbol].factor


@dataclass(frozen=True)
class Operand:
    """A number put into a line.

    Attributes
    ----------
    symbol : str
        As in the formula.
    words : str
        What it is.
    value : uncertain number
        [SI]
    measure : str
        How it is shown.
    key : str
        Reading, detail or claim it comes from; empty for the result of an earlier line.
    provenance : str or None
        Of an input; None for the result of an earlier line.
    """

    symbol: str
    words: str
    value: Uncertain
    measure: Measure
    key: str = ""
    provenance: Provenance | None = None


@dataclass(frozen=True)
class Step:
    """One line: what it works out, from which template and operands, and what comes out."""

    symbol: str
    words: str
    template: str
    operands: tuple[Operand, ...]
    value: Uncertain
    measure: Measure

    def formula(self) -> str:
        """Return the template with symbols."""
        return re.sub(r"\{(.+?)\}", r"\1", self.template)

    def pieces(self) -> list[str | Operand]:
        """Return the template as plain text and operands, in their order."""
        by_symbol = {operand.symbol: operand for operand in self.operands}
        return [by_symbol[piece[1:-1]] if piece.startswith("{") else piece for piece in _SPLIT.split(self.template) if piece]

    def shown_pieces(self, family: UnitFamily) -> list[str]:
        """Return the pieces as they are shown; a number with its unit is in brackets where a power follows: (6.07 mm)²."""
        pieces = self.pieces()
        shown = []
        for piece, after in zip(pieces, [*pieces[1:], ""], strict=True):
            text = piece if isinstance(piece, str) else shown_number(piece.value, piece.measure, family)
            is_raised = isinstance(piece, Operand) and isinstance(after, str) and after.startswith(("²", "³", "⁴", "^"))
            shown.append(f"({text})" if is_raised and " " in text else text)
        return shown


_SPLIT = re.compile(r"(\{.+?\})")


@dataclass
class Working:
    """The lines that lead to one result, in their order."""

    title: str
    steps: list[Step] = field(default_factory=list)

    def line(self, symbol: str, words: str, template: str, operands: list[Operand], measure: Measure) -> Operand:
        """Add a line and return its result, to be put into a later one."""
        value = evaluate(template, {operand.symbol: operand.value for operand in operands})
        self.steps.append(Step(symbol, words, template, tuple(operands), value, measure))
        return Operand(symbol, words, value, measure)

    def inputs(self) -> dict[str, Provenance]:
        """Return the inputs of the result: provenance by key, each input once."""
        return {
            operand.key: operand.provenance
            for step in self.steps
            for operand in step.operands
            if operand.key and operand.provenance is not None
        }


def shown_number(value: Uncertain, measure: Measure, family: UnitFamily, digits: int = 5) -> str:
    """Return a number put into a line, with its unit; its digits follow its standard uncertainty where it has one.

    Examples
    --------
    >>> shown_number(0.00607, "length", "metric")
    '6.07 mm'
    """
    unit, factor = shown_unit(measure, family)
    number, u = float(nominal_value(value)) / factor, float(std_dev(value)) / factor
    if u > 0 and number == 0:
        text = f"(0 ± {to_uncertainty(u, u)})"
    elif u > 0:
        text = to_uncertainty(number, min(u, 10.0))  # whole numbers stay whole, so that the line can be recomputed
    else:
        text = plain_number(number, digits)
    return f"{text} {unit}".strip()


def shown_result(value: Uncertain, uncertainty: float | None, measure: Measure, family: UnitFamily) -> str:
    """Return a result with its expanded uncertainty [SI], where that is known, and its unit.

    Examples
    --------
    >>> shown_result(0.125825, 1.6e-3, "media_area", "metric")
    '1258 ± 16 cm²'
    """
    if not uncertainty:
        return shown_number(value, measure, family)
    unit, factor = shown_unit(measure, family)
    return number_with_uncertainty(float(nominal_value(value)) / factor, uncertainty / factor, unit)


def shown_uncertainty(amount: float, measure: Measure, family: UnitFamily) -> str:
    """Return an uncertainty with its unit, to two digits, a last zero among them.

    Examples
    --------
    >>> shown_uncertainty(0.003, "length", "metric"), shown_uncertainty(0.0163, "length", "metric")
    ('3.0 mm', '16 mm')
    """
    unit, factor = shown_unit(measure, family)
    return f"{to_uncertainty(amount / factor, abs(amount) / factor)} {unit}".strip()


_WORDS = {"^": "**", "·": "*", "−": "-", "²": "**2", "³": "**3", "⁴": "**4", "π": "pi", "√": "sqrt"}
_OPERATORS: dict[type[ast.AST], Callable[..., Any]] = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
    ast.Pow: operator.pow,
    ast.USub: operator.neg,
}
_FUNCTIONS: dict[str, Callable[..., Any]] = {
    "sqrt": umath.sqrt,
    "acos": umath.acos,
    "ln": umath.log,
    "exp": umath.exp,
    "min": lambda *numbers: min(numbers, key=nominal_value),
    "max": lambda *numbers: max(numbers, key=nominal_value),
}


def evaluate(template: str, values: dict[str, Uncertain]) -> Uncertain:
    """Return what a line's template gives with numbers put in.

    Parameters
    ----------
    template : str
        Arithmetic with ``{symbols}``, ``+ − · / ^ ² ³ ⁴ π √ acos ln exp min max``.
    values : dict
        Number by symbol.

    Raises
    ------
    ValueError
        If the template holds anything else.

    Examples
    --------
    >>> round(evaluate("π·{d}²/4", {"d": 2.0}), 6)
    3.141593
    """
    expression, symbols = _parsed(template)
    return _value(expression, {"pi": pi, **{f"v{i}": values[symbol] for i, symbol in enumerate(symbols)}})


@lru_cache(maxsize=1000)
def _parsed(template: str) -> tuple[ast.expr, tuple[str, ...]]:
    """Return a template as an expression of v0, v1 … and the symbols these stand for."""
    symbols: list[str] = []

    def name(match: re.Match[str]) -> str:
        symbols.append(match[1])
        return f"(v{len(symbols) - 1})"

    plain = re.sub(r"\{(.+?)\}", name, template)
    for sign, word in _WORDS.items():
        plain = plain.replace(sign, word)
    return ast.parse(plain, mode="eval").body, tuple(symbols)


def _value(node: ast.AST, names: dict[str, Uncertain]) -> Uncertain:
    if isinstance(node, ast.Constant) and isinstance(node.value, int | float):
        return float(node.value)
    if isinstance(node, ast.Name):
        return names[node.id]
    if isinstance(node, ast.BinOp):
        return _OPERATORS[type(node.op)](_value(node.left, names), _value(node.right, names))
    if isinstance(node, ast.UnaryOp):
        return _OPERATORS[type(node.op)](_value(node.operand, names))
    if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
        return _FUNCTIONS[node.func.id](*(_value(argument, names) for argument in node.args))
    raise ValueError(f"a working line cannot hold {ast.dump(node)}")

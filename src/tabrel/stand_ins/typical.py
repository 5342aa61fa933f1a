"""Invented filters: sizes drawn from a table of what is usual, each by a formula of those before it.

The formulas are a closed grammar, parsed and never run as code: numbers, keys, ``+ - * / ** < >``, ``abs``, ``sqrt``,
``clip``, ``round_to``, ``pi``, ``by_family``, ``SEAT``, ``WIRE`` and ``shear_modulus``.
"""

from __future__ import annotations

import ast
import json
import operator
from collections.abc import Callable, Mapping
from functools import lru_cache
from importlib.resources import files
from math import exp, floor, log, pi, sqrt
from statistics import NormalDist
from typing import Any
from zlib import crc32

import numpy as np

Value = float | str
Truth = dict[str, Value]

FAMILIES = ("cellulose", "blend", "synthetic")
SHEAR_MODULUS = {"music_wire": 81.5e9, "stainless_302": 69.0e9, "chrome_silicon": 77.2e9}
MOST_TRIES = 2000
_NORMAL = NormalDist()
_OPERATORS: dict[type, Callable[..., Any]] = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
    ast.Pow: operator.pow,
    ast.USub: operator.neg,
    ast.Lt: operator.lt,
    ast.Gt: operator.gt,
}


@lru_cache
def typical_table() -> dict[str, Any]:
    """Return the table that ships: rows with parents first, and rules of what cannot be."""
    table: dict[str, Any] = json.loads(files("tabrel.stand_ins").joinpath("typical.json").read_text("utf-8"))
    return table


def invented_truth(seed: int) -> Truth:
    """Return the sizes of an invented filter, SI by reading key: the first draw of the table that breaks no rule.

    Raises
    ------
    RuntimeError
        If none of so many draws is possible.
    """
    for attempt in range(MOST_TRIES):
        truth: Truth = {}
        for row in typical_table()["rows"]:
            share = np.random.default_rng([seed, attempt, crc32(row["key"].encode())]).random()
            truth[row["key"]] = _drawn(row, float(share), truth)
        if not any(evaluate(rule["rule"], truth) for rule in typical_table()["impossible"]):
            return truth
    raise RuntimeError(f"no possible filter in {MOST_TRIES} draws of seed {seed}")


def _drawn(row: Mapping[str, Any], share: float, truth: Truth) -> Value:
    kind = row["kind"]
    if kind == "choice":
        names, weights = list(row["weights"]), np.cumsum(list(row["weights"].values()))
        return str(names[min(int(np.searchsorted(weights, share, side="right")), len(names) - 1)])
    low, high = row.get("limits", (float("-inf"), float("inf")))
    if kind == "uniform":
        return float(low + (high - low) * share)
    if kind == "log_uniform":
        return float(exp(log(low) + (log(high) - log(low)) * share))
    if kind in ("zero_or", "zero_or_count"):
        none = _by_family(row["zero_share"], truth)
        if share < none:
            return 0.0
        share = (share - none) / (1 - none)
        if kind == "zero_or_count":
            return 1.0 + floor(log(1 - share) / log(1 - row["geometric"]))
    middle = float(evaluate(_by_family(row["formula"], truth), truth))
    if kind == "derived":
        return middle
    spread = _by_family(row["spread"], truth) * _NORMAL.inv_cdf(min(max(share, 1e-12), 1 - 1e-12))
    if kind == "logit":
        value = float(evaluate(row["scale"], truth)) / (1 + exp(-(middle + spread)))
    else:
        offset = float(truth[row["offset"]]) if "offset" in row else 0.0
        value = offset + row.get("sign", 1) * middle * exp(spread)
    if "step" in row:
        value = round(value / row["step"]) * row["step"]
    return float(min(max(value, low), high))


def _by_family(entry: Any, truth: Truth) -> Any:
    return entry[truth["media_family"]] if isinstance(entry, dict) else entry


def seat_area(truth: Truth) -> float:
    """Return the area on which the seal bears. [m²]"""
    inside, outside = float(truth["bypass.seat_inside_diameter"]), float(truth["bypass.seat_outside_diameter"])
    return pi / 4 * (inside + float(truth["model.seat_bearing"]) * (outside - inside)) ** 2


def _wire(stiffness: float, outside: float, coils: float, modulus: float) -> float:
    """Return the wire diameter of a coil spring of a stiffness [N/m]: d⁴ = 8·k·n·(D − d)³/G."""
    wire = 1e-3
    for _ in range(40):
        wire = (8 * stiffness * coils * max(outside - wire, 1e-6) ** 3 / modulus) ** 0.25
    return wire


@lru_cache(maxsize=500)
def _parsed(formula: str) -> ast.expr:
    return ast.parse(formula, mode="eval").body


def evaluate(formula: str, truth: Truth) -> Any:
    """Return what a formula of the table gives.

    Examples
    --------
    >>> evaluate("2*element.height+sqrt(4)", {"element.height": 3.0})
    8.0
    """
    return _value(_parsed(formula), truth)


def _value(node: ast.expr, truth: Truth) -> Any:
    if isinstance(node, ast.Constant) and isinstance(node.value, int | float):
        return float(node.value)
    if isinstance(node, ast.BinOp):
        return _OPERATORS[type(node.op)](_value(node.left, truth), _value(node.right, truth))
    if isinstance(node, ast.UnaryOp):
        return _OPERATORS[type(node.op)](_value(node.operand, truth))
    if isinstance(node, ast.Compare) and len(node.ops) == 1:
        return _OPERATORS[type(node.ops[0])](_value(node.left, truth), _value(node.comparators[0], truth))
    if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
        return _called(node.func.id, [_value(argument, truth) for argument in node.args], truth)
    key = ast.unparse(node)
    if key == "pi":
        return pi
    if key == "SEAT":
        return seat_area(truth)
    if key == "shear_modulus":
        return SHEAR_MODULUS[str(truth["bypass.spring_material"])]
    return truth[key]


def _called(name: str, arguments: list[Any], truth: Truth) -> Any:
    if name == "by_family":
        return arguments[FAMILIES.index(str(truth["media_family"]))]
    functions: dict[str, Callable[..., Any]] = {
        "abs": abs,
        "sqrt": sqrt,
        "clip": lambda value, low, high: min(max(value, low), high),
        "round_to": lambda value, step: round(value / step) * step,
        "WIRE": _wire,
    }
    return functions[name](*arguments)

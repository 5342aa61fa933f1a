"""Every default and constant that enters a result has its value and its source in the method."""

from __future__ import annotations

import ast
import dataclasses
import importlib
import inspect
import pkgutil
import re
from pathlib import Path

import pytest

METHOD = (Path(__file__).parents[1] / "docs" / "method.md").read_text()
ROWS: dict[str, str] = dict(re.findall(r"^\| `([A-Z_]+)` \| (.*) \|$", METHOD, flags=re.MULTILINE))
SUBJECTS = ("oil", "hydraulics", "parts", "counts", "circuit", "starts", "uncertainty", "study")

STEERING = {
    *("FIBRES_TRIED", "SIZES_TRIED", "FIRST_STEPS", "FINEST_OF_CURVE", "COARSEST_OF_CURVE"),
    *("VARYING_PLACES", "LARGEST_FIN_NUMBER", "BALANCE_TOLERANCE", "SURPLUS_TOLERANCE", "REPACK_BELOW"),
    *("STEPS_WHILE_SHUT", "SETTLED_STEP", "STEPS_OF_LIFT", "LEAST_LIFT", "MOSTLY_OPEN"),
    *("COARSER", "LEAST_PLACES", "STEPS_OF_A_START", "MOSTLY_SETTLED", "LEAST_TIMES_OPENING"),
    *("DIFFERENCE_STEP", "HALLEY_STEPS", "LEAST_BEND", "MOST_BEND", "BEND_MARGIN", "PLACES_AT_ONCE", "SEEN_EVERY"),
    *(
        "FORESIGHT",
        "FINEST_FIBRE",
        "COARSEST_FIBRE",
        "LEAST_CHANNELS",
        "SLOPES_TRIED",
        "FIBRES_TRIED",
        "STARTS_POLISHED",
        "TOLD_BETAS",
    ),
    *(
        "LARGEST_LOG_SLOPE",
        "GRADIENT_LEFT",
        "HESSIAN_STEP",
        "FARTHEST_LOG_SIZE",
        "LEAST_KNOWN_LOG_SIZE",
        "STEEPEST",
        "FINEST_OF_CURVE",
        "COARSEST_OF_CURVE",
    ),
    *("COLDEST", "HOTTEST", "SCAN_STEP", "SLOPE_STEP", "HOTTEST_OIL", "LINE_TEMPERATURES", "KELVIN"),
    *("REFERENCE_SIZE", "REFERENCE_BETA", "CLEAN_UP_SIZES", "COLD_STARTS", "LIFE_SHARES", "MOST_LOADING"),
    *("STEP", "FILLING_STEP", "FILLING_STRETCH", "ROUNDS", "PIECES", "LONGEST", "MOST_ROWS", "FASTEST"),
    *("USUAL_STEPS_OF_A_GAP", "LEAST_GAP", "MOST_CORNERS_A_SECOND"),
    *("TYPICAL", "POINTS_OF_ROUND", "MOST_DRAWN_HOLES", "TOUCHING"),
    *("COVERAGE", "SEED", "LEAST_SHARE", "BEGINNINGS", "VERSION", "AUDIT_VERSION", "NO_RESTRICTION", "NO_LOSS", "AS_IT_IS"),
    *("INSTRUMENT_ERRORS", "SHIPPED_CYCLES", "GRADES", "ENGINES"),  # tables of their own, in the method or invented
}
"""Constants that steer the computation or a drawing, say what is asked, or are tables of their own."""


def numbers_in(value):
    """Return the numbers of a constant: its own, or those of its parts."""
    if isinstance(value, bool):
        return []
    if isinstance(value, int | float):
        return [float(value)]
    if isinstance(value, dict):
        return [number for item in value.values() for number in numbers_in(item)]
    if isinstance(value, tuple):
        return [number for item in value for number in numbers_in(item)]
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        return [number for field in dataclasses.fields(value) for number in numbers_in(getattr(value, field.name))]
    return []


def constants():
    """Yield name and value of every constant of the computation."""
    for subject in SUBJECTS:
        package = importlib.import_module(f"tabrel.core.{subject}")
        for result in pkgutil.iter_modules(package.__path__):
            module = importlib.import_module(f"{package.__name__}.{result.name}")
            for node in ast.parse(inspect.getsource(module)).body:
                if not isinstance(node, ast.Assign | ast.AnnAssign):
                    continue
                targets = node.targets if isinstance(node, ast.Assign) else [node.target]
                names = [item.id for target in targets for item in ast.walk(target) if isinstance(item, ast.Name)]
                for name in names:
                    if re.fullmatch(r"[A-Z][A-Z_]+", name) and numbers_in(getattr(module, name)):
                        yield name, getattr(module, name)


CONSTANTS = {name: value for name, value in constants() if name not in STEERING}


@pytest.mark.parametrize("name", CONSTANTS)
def test_a_constant_has_its_value_and_its_source(name):
    assert name in ROWS, f"{name} = {CONSTANTS[name]!r} has no row in docs/method.md"
    value, words, source = (cell.strip() for cell in ROWS[name].split("|"))
    assert words
    assert source
    sentences = [float(number) for number in re.findall(r"-?\d+(?:\.\d+)?(?:e[-+]\d+)?", f"{value} {words}")]
    for number in numbers_in(CONSTANTS[name]):
        assert any(
            item == pytest.approx(number, rel=1e-9) or item == pytest.approx(number * 1e6, rel=1e-9) for item in sentences
        ), number


def test_no_row_is_of_a_constant_that_is_gone():
    everything = {name for name, _ in constants()}
    figures = ("STEEL_DENSITY", "YIELD_STRENGTH", "USUAL_SHELL_RATIO", "USUAL_SOLIDITY", "LENGTH_AGREEMENT")
    review = ("LEAST_PLEAT_OPENING", "CIRCUMFERENCE_AGREEMENT")
    assert set(ROWS) <= everything | {*figures, *review}

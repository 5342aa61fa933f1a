"""Printed sums: an independent computation agrees, and every slip is found where it was made."""

from __future__ import annotations

import json
from math import pi
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.audit.arithmetic import FACTORS, check_line
from tabrel.core.audit.printed import printed_number
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.study.arithmetic import ArithmeticLine
from tabrel.document.audit import audit_out, checked, read_audit

CASE = json.loads((Path(__file__).parents[2] / "data" / "audit.json").read_text())


def checked_line(formula, printed, **inputs):
    return check_line(ArithmeticLine("line", formula, inputs, printed))


def test_every_line_agrees_with_an_independent_computation():
    result = audit_out(checked(read_audit(json.dumps(CASE["audit"]))))["lines"]
    for ours, theirs in zip(result, CASE["expected"], strict=True):
        assert (ours["verdict"], ours["would_explain"]) == (theirs["verdict"], theirs["would_explain"]), ours


def test_ranges_are_told_in_the_printed_unit():
    computed = checked_line("round_holes_area", "0.362 in2", count="8", diameter="0.24 in")
    assert computed.unit == "in2"
    assert computed.computed == pytest.approx((8 * pi / 4 * 0.235**2, 8 * pi / 4 * 0.245**2), rel=1e-6)
    assert computed.stated == pytest.approx((0.3615, 0.3625), rel=1e-9)
    assert computed.verdict == "follows"


@pytest.mark.parametrize(
    ("text", "half"),
    [("5.41 mm", 0.005), ("138 mm2", 0.5), ("2 15/16 in", 0.0), ("5/16 in", 0.0), ("1 740 mm", 0.5), ("30 %", 0.5), ("75", 0.5)],
)
def test_a_printed_number_stands_for_half_of_its_last_digit(text, half):
    assert printed_number(text).half == half


def test_the_whole_number_of_a_count_is_exact():
    assert printed_number("6", is_count=True).half == 0


@pytest.mark.parametrize("text", ["", "mm", "5 furlongs", "1/0 in", "five"])
def test_what_is_no_printed_number_is_refused(text):
    with pytest.raises(ReadingTextError):
        printed_number(text)


@pytest.mark.parametrize(
    ("line", "slips"),
    [
        (("round_holes_area", "23.0 mm2", {"count": "6", "diameter": "5.41 mm"}), ["count_left_out"]),
        (("round_holes_area", "552 mm2", {"count": "6", "diameter": "5.41 mm"}), ["diameter_as_radius"]),
        (("round_area", "28.3 mm2", {"diameter": "12.00 mm"}), ["radius_as_diameter"]),
        (("round_area", "108.0 mm2", {"diameter": "12.00 mm"}), ["pi_as_3"]),
        (("sum", "144 g", {"terms": ("96 g", "187 g", "48 g")}), ["term_2_left_out"]),
        (("percent_more", "23 %", {"a": "183 mm2", "b": "141 mm2"}), ["other_base"]),
        (("rectangle_area", "12.26 cm2", {"length": "1.74 m", "width": "70.5 mm"}), ["factor_0.01"]),
        (("difference", "5.0 g", {"a": "96 g", "b": "91 g"}), []),
    ],
)
def test_each_slip_is_named_where_it_was_made(line, slips):
    formula, printed, inputs = line
    collected = checked_line(formula, printed, **inputs)
    assert list(collected.would_explain) == slips
    assert collected.verdict == ("does_not_follow" if slips else "follows")


def test_rounding_on_the_way_is_no_slip():
    # 23.07 mm² rounded to 23 before it is multiplied; a radius of 2.705 taken as 2.71
    assert checked_line("round_holes_area", "138.0 mm2", count="6", diameter="5.42 mm").verdict == "follows_with_rounding"
    area = 6 * pi * 2.71**2
    assert checked_line("round_holes_area", f"{area:.2f} mm2", count="6", diameter="5.41 mm").verdict in (
        "follows",
        "follows_with_rounding",
    )
    assert checked_line("round_holes_area", "150.0 mm2", count="6", diameter="5.42 mm").would_explain == ()


@given(st.integers(1, 12), st.floats(2, 12), st.sampled_from(FACTORS))
def test_what_was_honestly_worked_out_follows_and_a_factor_is_found(count, diameter, factor):
    text = f"{diameter:.2f}"
    area = count * pi / 4 * float(text) ** 2
    assert checked_line("round_holes_area", f"{area:.3f} mm2", count=str(count), diameter=f"{text} mm").verdict == "follows"
    off = checked_line("round_holes_area", f"{area * factor:.6f} mm2", count=str(count), diameter=f"{text} mm")
    assert (off.verdict, f"factor_{factor:.6g}" in off.would_explain) == ("does_not_follow", True)


@pytest.mark.parametrize(
    ("line", "path", "words"),
    [
        (("round_hole_area", "1 mm2", {}), "line.formula", "did you mean 'round_holes_area'"),
        (("round_area", "1 mm2", {}), "line.inputs", "diameter is missing"),
        (("round_area", "1 mm2", {"diametr": "5 mm"}), "line.inputs.diametr", "did you mean 'diameter'"),
        (("round_area", "1 mm2", {"diameter": "5 kg"}), "line.inputs.diameter", "is no length"),
        (("round_area", "1 mm", {"diameter": "5 mm"}), "line.printed", "is no area"),
        (("ratio", "2 mm", {"a": "4 mm", "b": "2 mm"}), "line.printed", "has a unit where none comes out"),
        (("ratio", "2", {"a": "4 mm", "b": "0.2 g"}), "line.inputs.b", "is no length"),
        (("ratio", "2", {"a": "4 mm", "b": "0 mm"}), "line.inputs", "divided by may be zero"),
        (("sum", "2 g", {"terms": ()}), "line.inputs.terms", "is empty"),
        (("beta_of_efficiency", "75", {"efficiency": "98.67"}), "line.inputs.efficiency", "told in per cent"),
        (("beta_of_efficiency", "75", {"efficiency": "100 %"}), "line.inputs", "may be 100 %"),
    ],
)
def test_a_line_that_cannot_be_recomputed_is_refused_at_its_place(line, path, words):
    formula, printed, inputs = line
    with pytest.raises(StudyError) as error:
        checked_line(formula, printed, **inputs)
    assert error.value.path == path
    assert words in error.value.message


@pytest.mark.parametrize(
    ("change", "path", "words"),
    [
        ({"format": "other"}, "format", "tabrel-audit"),
        ({"version": 2}, "version", "newer"),
        ({"lines": []}, "lines", "is empty"),
        ({"lins": []}, "lins", "did you mean 'lines'"),
        ({"lines": [{"label": "a"}]}, "lines[0].formula", "is missing"),
    ],
)
def test_a_malformed_audit_is_refused_whole(change, path, words):
    document = {**CASE["audit"], **change}
    with pytest.raises(StudyError) as error:
        checked(read_audit(json.dumps(document)))
    assert error.value.path == path
    assert words in str(error.value)

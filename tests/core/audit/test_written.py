"""Lines of arithmetic as somebody writes them: each formula, one unit for all, a table, and what can be read two ways."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.audit.arithmetic import FORMULAS
from tabrel.core.audit.written import MOST_LINES, read_line, read_lines, written_text
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.study.arithmetic import ArithmeticLine


@pytest.mark.parametrize(
    ("text", "formula", "inputs", "printed"),
    [
        ("inlet: 8 holes 0.24 in = 0.362 in2", "round_holes_area", {"count": "8", "diameter": "0.24 in"}, "0.362 in2"),
        ("8 x ø 5.6 mm = 197 mm2", "round_holes_area", {"count": "8", "diameter": "5.6 mm"}, "197 mm2"),
        ("ø 12.00 mm = 113.1 mm2", "round_area", {"diameter": "12.00 mm"}, "113.1 mm2"),
        ("circle 0.94 in = 0.694 in²", "round_area", {"diameter": "0.94 in"}, "0.694 in²"),
        ("9 by 5.3 mm = 47.7 mm2", "rectangle_area", {"length": "9 mm", "width": "5.3 mm"}, "47.7 mm2"),
        ("slot 9 mm x 5.3 mm = 47.7 mm2", "rectangle_area", {"length": "9 mm", "width": "5.3 mm"}, "47.7 mm2"),
        ("10.2 + 11.4 + 3 mm2 = 24.6 mm2", "sum", {"terms": ("10.2 mm2", "11.4 mm2", "3 mm2")}, "24.6 mm2"),
        ("98.4 - 78.2 mm = 20.2 mm", "difference", {"a": "98.4 mm", "b": "78.2 mm"}, "20.2 mm"),
        ("2 15/16 in − 1/2 in = 2.4375 in", "difference", {"a": "2 15/16 in", "b": "1/2 in"}, "2.4375 in"),
        ("1258 cm2 / 719 cm2 = 1.75", "ratio", {"a": "1258 cm2", "b": "719 cm2"}, "1.75"),
        ("1258 cm2 is 75 % more than 719 cm2", "percent_more", {"a": "1258 cm2", "b": "719 cm2"}, "75 %"),
        ("719 cm2 is 43 % less than 1258 cm2", "percent_more", {"a": "719 cm2", "b": "1258 cm2"}, "-43 %"),
        ("β 75 = 98.7 %", "efficiency_of_beta", {"beta": "75"}, "98.7 %"),
        ("98.7 % = beta 77", "beta_of_efficiency", {"efficiency": "98.7 %"}, "77"),
    ],
)  # fmt: skip
def test_each_formula_is_read_and_written_back(text, formula, inputs, printed):
    line = read_line(text)
    assert (line.formula, line.inputs, line.printed) == (formula, inputs, printed)
    assert line.label == ("inlet" if text.startswith("inlet") else FORMULAS[formula].words)
    if "-43" not in printed:
        assert read_line(written_text(line)) == line


NUMBERS = st.decimals(min_value="0.01", max_value="999", places=2).map(str)


@given(st.sampled_from(["round_area", "rectangle_area", "sum", "difference", "ratio", "percent_more"]), NUMBERS, NUMBERS, NUMBERS)
def test_whatever_is_written_is_read_as_it_was(formula, first, second, printed):
    keys = list(FORMULAS[formula].inputs)
    inputs = (
        {"terms": (f"{first} mm", f"{second} mm")}
        if formula == "sum"
        else dict(zip(keys, (f"{first} mm", f"{second} mm"), strict=False))
    )
    unit = {"round_area": " mm2", "rectangle_area": " mm2", "ratio": "", "percent_more": " %"}.get(formula, " mm")
    line = ArithmeticLine("a: label", formula, inputs, f"{printed}{unit}")
    assert read_line(written_text(line)) == line


def test_what_may_be_holes_or_a_slot_is_asked_and_not_guessed():
    with pytest.raises(ReadingTextError, match=r"write 9 holes 5\.3 mm, or 9 by 5\.3 mm"):
        read_line("9 x 5.3 mm = 47.7 mm2")


def test_a_pasted_table_is_read_row_by_row_and_a_bad_row_spoils_no_other():
    table = (
        "label\tformula\ta\tb\tresult\n"
        "inlet\tround_holes_area\t8\t0.24 in\t0.362 in2\n"
        "\n"
        "areas\tsum\t1 mm2\t2 mm2\t4 mm2\t7 mm2\n"
        "outlet\tround_holes\t8\t0.24 in\t0.362 in2\n"
        "slot\tarea of a rectangle\t9 mm\t47.7 mm2\n"
        "nothing at all\n"
    ).replace("\\\t", "\t")
    lines = read_lines(table)
    assert [line.check.verdict if line.check else None for line in lines] == ["follows", "follows", None, None, None]
    assert "did you mean 'round_holes_area'" in lines[2].problem
    assert "takes length and width" in lines[3].problem
    assert "is no line that can be recomputed" in lines[4].problem
    assert read_lines(table.replace("\t", ";"))[0].check == lines[0].check


def test_units_that_do_not_go_together_are_told_in_the_line():
    (line,) = read_lines("8 holes 0.24 in = 0.362 in")
    assert line.check is None
    assert "is no area: write it with a unit such as" in line.problem


def test_too_many_lines_are_refused_before_any_is_read():
    with pytest.raises(StudyError, match=f"more than {MOST_LINES}"):
        read_lines("x\n" * (MOST_LINES + 1))

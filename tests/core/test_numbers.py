"""How numbers are printed, held against the table of cases that the front end is held against too."""

from __future__ import annotations

import csv
from math import inf, nan
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core import numbers

CASES = Path(__file__).parents[1] / "data" / "printed_numbers.csv"


def number(text):
    return float(text) if text else None


PRINTED = {
    "number_with_uncertainty": lambda a, b, c: numbers.number_with_uncertainty(float(a), number(b), c),
    "number_with_interval": lambda a, b, c: numbers.number_with_interval(float(a), float(b), float(c)),
    "interval": lambda a, b, c: numbers.interval(number(a), number(b)),
    "significant": lambda a, b, c: numbers.significant(float(a), int(b)),
    "plain_number": lambda a, b, c: numbers.plain_number(float(a), int(b)),
    "signed_number": lambda a, b, c: numbers.signed_number(float(a), int(b)),
    "percentage": lambda a, b, c: numbers.percentage(float(a)),
    "bound": lambda a, b, c: numbers.bound(float(a), int(b), c),
}
"""Each function of the table with its arguments."""


def test_numbers_are_printed_as_the_table_says():
    rows = list(csv.DictReader(line for line in CASES.read_text().splitlines() if not line.startswith("#")))
    assert {row["function"] for row in rows} == PRINTED.keys()
    for row in rows:
        assert PRINTED[row["function"]](row["a"], row["b"], row["c"]) == row["printed"], row


@given(st.floats(-1e9, 1e9), st.floats(1e-6, 1e6))
def test_value_and_uncertainty_end_at_the_same_place_and_are_off_by_half_of_it_at_most(value, uncertainty):
    shown, spread = numbers.number_with_uncertainty(value, uncertainty).split(" ± ")
    assert len(shown.partition(".")[2]) == len(spread.partition(".")[2])
    read = float(spread)
    assert abs(read - uncertainty) <= 0.05 * uncertainty
    assert abs(float(shown.replace("−", "-")) - value) <= 0.05 * read + 1e-9 * abs(value)


@given(st.floats(-1e6, 1e6), st.integers(1, 6))
def test_a_bound_still_holds_when_it_is_rounded(value, digits):
    slack = 1e-8 * abs(value) + 1e-11
    low, high = (float(numbers.bound(value, digits, side).replace("−", "-")) for side in ("lower", "upper"))
    assert low <= value + slack
    assert high >= value - slack


@pytest.mark.parametrize("number", [None, nan, inf, -inf])
def test_what_is_no_number_is_not_known(number):
    assert not numbers.is_known(number)
    assert numbers.known_or_none(number) is None

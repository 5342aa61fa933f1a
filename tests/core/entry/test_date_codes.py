"""Date codes by rules: three invented makers' ways, a code that two rules read, a decade that comes round; dates by hand."""

from __future__ import annotations

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.entry.date_codes import check_rule, decoded, pattern_words
from tabrel.core.errors import ReadingTextError
from tabrel.core.study.library import DateCodeRule

TODAY = date(2026, 11, 27)
KORVATH = DateCodeRule("day of the year", "{Y}{DDD}{*}", "Korvath Works")
YSMERE = DateCodeRule("year and week", "{YY}{WW}")
HALVENE = DateCodeRule("letter of the month", "L{?}-{ML}{DD}{YY}")
MONTH_FIRST = DateCodeRule("year and month", "{YY}{MM}")


@pytest.mark.parametrize(
    ("rule", "code", "iso"),
    [
        (KORVATH, "5 226 B2", "2025-08-14"),  # 31+28+31+30+31+30+31 = 212; 226 - 212 = 14 August
        (KORVATH, "6226", "2026-08-14"),
        (KORVATH, "4366", "2024-12-31"),  # a leap year
        (KORVATH, "5366", None),  # 2025, 2015 and 2005 have no day 366
        (KORVATH, "5000", None),
        (YSMERE, "2118", "2021-05-03"),  # Monday of week 18 of 2021: the 4th of January, a Monday, begins week 1
        (YSMERE, "2654", None),  # no year has a week 54
        (YSMERE, "9922", "1999-05-31"),
        (HALVENE, "l7-c0926", "2026-03-09"),
        (HALVENE, "L7-M0926", None),
        (HALVENE, "L7-B3026", None),  # there is no 30 February
        (MONTH_FIRST, "2605", "2026-05"),
        (DateCodeRule("x", "{YYYY}"), "2019", "2019"),
        (DateCodeRule("x", "{W}{WW}{YY}"), "53226", "2026-08-07"),  # Friday of week 32
    ],
)
def test_a_rule_reads_what_it_says_and_nothing_that_does_not_exist(rule, code, iso):
    result = decoded(rule, code, TODAY)
    assert (result.iso if result else None) == iso


def test_an_ambiguous_code_is_read_two_ways_by_two_rules():
    """2118 is week 18 of 2021 to the one; to the other it has a month 18, and 2105 is both week 5 and May."""
    assert decoded(MONTH_FIRST, "2118", TODAY) is None
    assert decoded(YSMERE, "2105", TODAY).iso == "2021-02-01"
    assert decoded(MONTH_FIRST, "2105", TODAY).iso == "2021-05"


@pytest.mark.parametrize(
    ("code", "bought", "iso", "before"),
    [
        ("7226", date(2026, 11, 27), "2017-08-14", "2007-08-14"),  # 2027 is still to come
        ("6331", date(2026, 11, 27), "2026-11-27", "2016-11-26"),  # made today; 2016 was a leap year
        ("6332", date(2026, 11, 27), "2016-11-27", "2006-11-28"),  # tomorrow: a decade before
        ("0100", date(2020, 1, 15), "2010-04-10", "2000-04-09"),
        ("9001", date(2030, 6, 1), "2029-01-01", "2019-01-01"),
    ],
)
def test_a_year_of_one_figure_comes_round_and_the_decade_before_is_named(code, bought, iso, before):
    computed = decoded(KORVATH, code, bought)
    assert (computed.iso, computed.decade_before) == (iso, before)


@given(st.dates(min_value=date(1990, 1, 1), max_value=date(2040, 12, 31)), st.integers(0, 3649))
def test_every_day_of_the_last_ten_years_is_read_back(bought, days):
    made = bought - timedelta(days)
    code = f"{made.year % 10}{made.timetuple().tm_yday:03}"
    assert decoded(KORVATH, code, bought).iso == made.isoformat()


def test_a_rule_is_of_its_makers_filters_or_of_everybodys():
    assert KORVATH.reads("korvath works")
    assert not KORVATH.reads("Somebody")
    assert not KORVATH.reads(None)
    assert YSMERE.reads(None)


@pytest.mark.parametrize(
    ("pattern", "says"),
    [
        ("{DDD}", "says no year"),
        ("", "says no year"),
        ("{Y}{YY}", "says the year twice"),
        ("{YY}{DD}", "a day of the month and no month"),
        ("{YY}{W}", "a day of the week and no week"),
        ("{YY}{WW}{MM}", "in more than one way"),
        ("{YEAR}", "means nothing"),
        ("{YY}{MM", "a brace without its other one"),
    ],
)
def test_a_pattern_that_is_none_says_what_is_wrong(pattern, says):
    with pytest.raises(ReadingTextError, match=says):
        check_rule(DateCodeRule("x", pattern))


def test_a_pattern_is_told_in_words():
    assert pattern_words("{YY}{WW}") == "the last two figures of the year, the week of the year, 01 to 53 (ISO 8601)"

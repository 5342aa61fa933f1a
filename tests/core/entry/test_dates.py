"""Dates as people type them; a calendar is the yardstick, and what has two readings or none is refused."""

from __future__ import annotations

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.entry.dates import iso_date
from tabrel.core.errors import ReadingTextError

TODAY = date(2026, 11, 26)  # a Thursday


@pytest.mark.parametrize(
    ("text", "iso"),
    [
        ("2026-10-03", "2026-10-03"), ("2026-10", "2026-10"), ("2019", "2019"),
        ("03.10.26", "2026-10-03"), ("3.10.2026", "2026-10-03"), ("3. 10. 2026", "2026-10-03"), ("3.10.", "2026-10-03"),
        ("3 Oct", "2026-10-03"), ("3. Oct 26", "2026-10-03"), ("Oct 3", "2026-10-03"), ("october 3, 2026", "2026-10-03"),
        ("3rd of October 2026", "2026-10-03"), ("Oct. 2019", "2019-10"), ("Sept 2019", "2019-09"), ("1 Sept '19", "2019-09-01"),
        ("27 Nov", "2025-11-27"), ("26 Nov", "2026-11-26"),  # the last one that was
        ("25/10/26", "2026-10-25"), ("10/25/2026", "2026-10-25"), ("4/4/26", "2026-04-04"),
        ("1.5.27", "2027-05-01"), ("1.5.99", "1999-05-01"),
        ("today", "2026-11-26"), ("Yesterday", "2026-11-25"), ("3 days ago", "2026-11-23"), ("a week ago", None),
        ("1 week ago", "2026-11-19"), ("Wednesday", "2026-11-25"), ("Thursday", "2026-11-19"), ("last Friday", "2026-11-20"),
    ],
)  # fmt: skip
def test_a_date_is_read_as_it_is_typed(text, iso):
    if iso is None:
        with pytest.raises(ReadingTextError, match="is no date"):
            iso_date(text, TODAY)
    else:
        assert iso_date(text, TODAY) == iso


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("3/10/26", "two ways, 3 October or 10 March"),
        ("31.02.26", "no such day"),
        ("1.5.28", "type it in four figures"),
        ("2026-02-30", "no such day"),
        ("2026-13", "no such day"),
        ("29 Feb", "not in every year"),
        ("10.25.26", "has a month 25"),
        ("3 Ma 2026", "is no date"),
        ("3 Ju 2026", "is no date"),
        ("soon", "is no date"),
        ("26", "is no date"),
        ("", "is no date"),
    ],
)
def test_what_is_no_date_or_two_is_refused_in_a_sentence(text, says):
    with pytest.raises(ReadingTextError, match=says):
        iso_date(text, TODAY)


@given(st.dates(min_value=date(1950, 1, 1), max_value=TODAY))
def test_every_day_comes_back_however_it_is_written(day):
    for text in (day.isoformat(), f"{day:%d.%m.%Y}", f"{day.day} {day:%B %Y}", f"{day:%b} {day.day}, {day.year}"):
        assert iso_date(text, TODAY) == day.isoformat()


@given(st.integers(min_value=0, max_value=364))
def test_a_day_without_a_year_is_never_to_come_and_less_than_a_year_ago(days):
    day = TODAY - timedelta(days)
    assert iso_date(f"{day.day} {day:%b}", TODAY) == day.isoformat()

"""A requirement is met or failed only if the whole interval says so; else it is open and names what would decide."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import study
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.errors import StudyError
from tabrel.core.judge.categories import CategoryValue
from tabrel.core.judge.requirements import by_pass_lines, judge_number, judge_seen, proposed_verdict
from tabrel.core.rules.study import check_study
from tabrel.core.study.uses import Requirement

AREA = Requirement("plate_flow_area_mm2", at_least=110)
BURR = Requirement("tube.burr", one_of=("none", "away"))
SEEN = OBSERVATIONS["tube.burr_side"]


def kpa(value, allowance=5.0):
    return CategoryValue(float(value), allowance)


@pytest.mark.parametrize(
    ("value", "state"),
    [
        (CategoryValue(120.0, 10.0), "met"),  # its lower end is what is asked for
        (CategoryValue(120.0, 10.1), "open"),
        (CategoryValue(105.0, 4.9), "failed"),
        (CategoryValue(105.0, 5.0), "open"),
        (CategoryValue(None, low=110.0), "met"),
        (CategoryValue(None, low=90.0), "open"),
        (CategoryValue(None, high=100.0), "failed"),
        (CategoryValue(None, high=130.0), "open"),
        (CategoryValue(None), "open"),
        (None, "open"),
    ],
)
def test_at_least(value, state):
    judged = judge_number(AREA, value)
    assert judged.state == state
    assert "at least 110 mm²" in judged.reason
    assert judged.decided_by == ("plate_flow_area_mm2" if state == "open" else None)


def test_the_reason_says_the_number_with_its_room():
    assert judge_number(AREA, CategoryValue(98.0, 4.0)).reason == (
        "Tapping plate flow area is 98.0 ± 4.0 mm²; asked for is at least 110 mm²."
    )
    assert "is 90 to 120 mm²" in judge_number(AREA, CategoryValue(None, low=90.0, high=120.0)).reason


def test_a_valve_that_stays_shut_has_its_onset_below_the_coldest_oil_that_pumps():
    """No value, only an upper bound: it meets a limit above that temperature, and leaves one below it open."""
    shut = CategoryValue(None, high=-31.0)
    assert judge_number(Requirement("onset_c", at_most=-15), shut).state == "met"
    assert judge_number(Requirement("onset_c", at_most=-35), shut).state == "open"


@given(st.floats(-100, 100), st.floats(0, 50), st.floats(-100, 100))
def test_what_meets_a_limit_fails_the_opposite_one(value, allowance, limit):
    result = CategoryValue(value, allowance)
    least = judge_number(Requirement("onset_c", at_least=limit), result).state
    most = judge_number(Requirement("onset_c", at_most=limit), result).state
    assert (least == "failed") <= (most == "met")
    assert (most == "failed") <= (least == "met")


@pytest.mark.parametrize(
    ("words", "state"), [("away from the media", "met"), ("none", "met"), ("towards the media", "failed"), (None, "open")]
)
def test_what_was_seen(words, state):
    judged = judge_seen(BURR, SEEN, words)
    assert judged.state == state
    assert "what will do is: none or away from the media." in judged.reason
    assert judged.decided_by == ("tube.burr_side" if words is None else None)


def test_a_word_in_the_analysts_own_words_is_not_what_will_do():
    assert judge_seen(BURR, SEEN, "away, I think").state == "failed"


OPENING, GREATEST, STUCK = kpa(100), kpa(300), kpa(900)


def lines(location="thread_end", opening=OPENING, collapse=500.0):
    return by_pass_lines(location, opening, GREATEST, STUCK, collapse)


def states(value):
    return [line.state for line in value]


def test_every_use_asks_for_a_by_pass_that_works_and_an_element_that_stands_it():
    assert states(lines()) == ["met", "met", "failed"]
    assert states(lines(collapse=None)) == ["open", "open", "open"]
    assert {line.decided_by for line in lines(collapse=None)} == {"stated_collapse_kpa"}
    assert states(lines(collapse=98.0)) == ["open", "failed", "failed"]
    assert states(lines(collapse=90.0))[0] == "failed"
    assert lines(opening=None)[0].decided_by == "bypass_opening_kpa"
    assert lines(location=None)[0].decided_by == "bypass.location"


def test_a_by_pass_that_is_not_asked_for_decides_nothing_and_says_why():
    first = by_pass_lines("thread_end", OPENING, GREATEST, STUCK, 90.0, not_asked="the engine has its own.")[0]
    assert (first.state, first.counts) == ("failed", False)
    assert first.reason.endswith("It decides nothing here: the engine has its own.")


def test_no_valve_is_a_hazard_and_not_a_merit():
    line = lines(location="none", opening=None)[0]
    assert line.state == "failed"
    assert "no bypass valve anywhere" in line.reason


def test_the_verdict_that_is_proposed():
    met, failed = judge_number(AREA, kpa(130)), judge_number(AREA, kpa(90))
    undecided = judge_number(AREA, kpa(111))
    assert proposed_verdict((met, *lines())) == "meets"  # a valve stuck shut is a what-if
    assert proposed_verdict((met, undecided, *lines())) == "open"
    assert proposed_verdict((met, *lines(collapse=None))) == "open"
    assert proposed_verdict((met, undecided, failed, *lines())) == "fails"
    assert proposed_verdict(lines()) == "none"
    assert proposed_verdict(lines(location="none")) == "fails"
    fatal = judge_seen(BURR, SEEN, "towards the media")
    assert proposed_verdict((met, met, fatal, *lines())) == "fails"


def use_with(requirement):
    return study(("uses", [{"name": "cold start", "requirements": [requirement]}]), ("version", 2))


def test_a_requirement_may_name_the_beginning_of_an_observation():
    check_study(use_with({"measure": "tube.burr", "one_of": ["none", "away"]}))


def test_a_requirement_on_what_is_seen_asks_for_words():
    with pytest.raises(StudyError, match="is seen, not measured: give one_of"):
        check_study(use_with({"measure": "tube.burr", "at_least": 3}))
    with pytest.raises(StudyError, match="no measure"):
        check_study(use_with({"measure": "tube.bur", "one_of": ["none"]}))

"""Details of a scenario: taken as typed, in either unit family; refused with the correction."""

from __future__ import annotations

import pytest

from tabrel.core.details.scenario_details import with_scenario_detail
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.study.plans import RoundHoles, Scenario

WIDE = Scenario("wide", stud_bore_mm=15.0, leak=RoundHoles(2, 0.4))


@pytest.mark.parametrize(
    ("key", "text", "family", "place", "value"),
    [
        ("stud_bore", "20", "metric", "stud_bore_mm", 20.0),
        ("stud_bore", "20 mm", "inch", "stud_bore_mm", 20.0),
        ("stud_bore", "3/4", "inch", "stud_bore_mm", 19.05),
        ("stud_bore", "3/4 in", "metric", "stud_bore_mm", 19.05),
        ("anti_drain_lift", "0.1", "inch", "anti_drain_lift_mm", 2.54),
        ("bypass_opening", "120", "metric", "bypass_opening_kpa", 120.0),
        ("bypass_opening", "20", "inch", "bypass_opening_kpa", 137.895),
        ("bypass_opening", "1.4 bar", "inch", "bypass_opening_kpa", 140.0),
        ("loading", "2,5", "metric", "loading", 2.5),
        ("adapter_holes", "3 x 5.3", "metric", "adapter_holes", RoundHoles(3, 5.3)),
        ("adapter_holes", "3 x 1/4", "inch", "adapter_holes", RoundHoles(3, 6.35)),
        ("leak", "6 x 0.4 mm", "inch", "leak", RoundHoles(6, 0.4)),
        ("leak", "", "metric", "leak", None),
    ],
)
def test_a_value_is_taken_as_it_is_said(key, text, family, place, value):
    result = getattr(with_scenario_detail(WIDE, key, text, family), place)
    if isinstance(value, RoundHoles):
        assert (result.count, result.diameter_mm) == (value.count, pytest.approx(value.diameter_mm))
    else:
        assert result == (None if value is None else pytest.approx(value, rel=1e-5))


def test_the_rest_of_the_scenario_stays():
    changed = with_scenario_detail(WIDE, "loading", "4", "metric")
    assert (changed.stud_bore_mm, changed.leak, changed.loading) == (15.0, RoundHoles(2, 0.4), 4.0)


@pytest.mark.parametrize(
    ("key", "text"),
    [
        ("stud_bore", "wide"),
        ("stud_bore", "0 mm"),
        ("stud_bore", "-12 mm"),
        ("stud_bore", "12 kPa"),
        ("stud_bore", "1e400"),
        ("loading", "1e400"),
        ("loading", "-1"),
        ("loading", "4 mm"),
        ("bypass_opening", "-80 kPa"),
        ("bypass_opening", "80 mm"),
        ("adapter_holes", "slot 3 x 4 x 10"),
        ("adapter_holes", "0 x 5.3"),
        ("leak", "6"),
        ("leak", "6 x 0"),
    ],
)
def test_what_cannot_be_is_refused_with_a_sentence(key, text):
    with pytest.raises((ReadingTextError, StudyError)) as refused:
        with_scenario_detail(WIDE, key, text, "metric")
    assert len(str(refused.value)) > 15

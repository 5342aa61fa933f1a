"""The comparison sheet: marks and differences worked by hand, nothing told apart inside the uncertainty, nothing lost."""

from __future__ import annotations

import pytest

from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES
from tabrel.core.judge.categories import CategoryValue
from tabrel.core.judge.comparison_sheet import GROUPS, comparison_sheet, group_of, sheet_measures
from tabrel.core.judge.known import Known
from tabrel.core.study.model import Claim, Sample
from tabrel.core.study.uses import Criterion, Requirement, Use

USE = Use("cold", criteria=(Criterion("can.height", "low"),), requirements=(Requirement("tube.burr_side", one_of=("none",)),))


def number(value, allowance=0.0, **more):
    return Known(CategoryValue(value, allowance), **more)


def sheet(use=None, reference="A", is_rough=False, samples=None, **found):
    """Return the rows by key, of filters A, B, C; what is not given of a filter is not known."""
    columns = "ABC"
    known = {
        column: {
            measure: found.get(measure.replace(".", "__"), {}).get(column, Known(None, "has not been measured"))
            for measure in sheet_measures(use)
        }
        for column in columns
    }
    rows = comparison_sheet(samples or {c: Sample(c) for c in columns}, known, use, reference, is_rough=is_rough)
    return {row.key: row for row in rows}


def cells(row, name):
    return {column: getattr(cell, name) for column, cell in row.cells.items()}


def test_best_and_worst_are_marked_and_what_is_not_told_from_the_best_is_tied():
    """A − B = 20 with J = √(9² + 9²) = 12.7: told apart; A − C = 10: tied."""
    area = sheet(media_effective_area_cm2={"A": number(100, 9), "B": number(80, 9), "C": number(90, 9)})[
        "media_effective_area_cm2"
    ]
    assert cells(area, "mark") == {"A": "best", "B": "worst", "C": "tied"}
    assert cells(area, "difference") == {"A": 0, "B": -20, "C": pytest.approx(-10)}
    assert cells(area, "differs") == {"A": False, "B": True, "C": False}


def test_where_nothing_is_told_apart_nothing_is_best():
    area = sheet(media_effective_area_cm2={"A": number(100, 30), "B": number(80, 30)})["media_effective_area_cm2"]
    assert set(cells(area, "mark").values()) == {""}
    assert not area.differs


def test_a_reading_has_no_best_unless_the_use_says_what_is_better():
    heights = {"A": number(98.0, 0.1), "B": number(90.0, 0.1)}
    assert set(cells(sheet(can__height=heights)["can.height"], "mark").values()) == {""}
    row = sheet(USE, can__height=heights)["can.height"]
    assert cells(row, "mark") == {"A": "worst", "B": "best", "C": ""}
    assert (row.matters, row.better) == (True, "low")


def test_a_temperature_differs_by_kelvin_and_nothing_by_per_cent_of_zero():
    result = sheet(
        USE, onset_c={"A": number(-10.0, 1), "B": number(5.0, 1)}, unfiltered_cold_percent={"A": number(0.0), "B": number(5.0)}
    )
    assert cells(result["onset_c"], "difference") == {"A": 0, "B": 15, "C": None}
    assert cells(result["unfiltered_cold_percent"], "difference")["B"] is None
    assert result["unfiltered_cold_percent"].cells["B"].differs


def test_what_was_come_by_in_another_way_stays_on_the_sheet_and_is_not_compared():
    collected = {"A": number(99.0, alike="by claim"), "B": number(95.0, alike="by counts"), "C": number(90.0, alike="by counts")}
    row = sheet(efficiency_at_20_um_percent=collected)["efficiency_at_20_um_percent"]
    assert row.cells["A"].known.value.value == 99
    assert "not ranked together" in row.cells["A"].known.reason
    assert cells(row, "mark") == {"A": "", "B": "best", "C": "worst"}
    assert cells(row, "difference") == {"A": None, "B": None, "C": None}


def test_rough_behaviour_tells_nothing_apart():
    computed = {"A": number(10.0), "B": number(5.0)}
    rough = sheet(USE, is_rough=True, filter_hot_kpa=computed, can__height=computed)
    assert set(cells(rough["filter_hot_kpa"], "mark").values()) == {""}
    assert not rough["filter_hot_kpa"].differs
    assert rough["can.height"].differs


def test_a_bound_is_told_apart_only_by_the_side_that_is_surely_there():
    outcome = {
        "A": number(10.0, 1),
        "B": Known(CategoryValue(None, 0.0, 12.0, None)),
        "C": Known(CategoryValue(None, 0.0, None, 12.0)),
    }
    row = sheet(USE, life_h=outcome)["life_h"]
    assert cells(row, "differs") == {"A": False, "B": True, "C": False}
    assert cells(row, "difference")["B"] is None


def test_rows_of_which_nothing_is_known_are_left_out_and_the_others_stand_in_the_order_of_the_bench():
    samples = {
        "A": Sample("A", maker="one", observations={"tube.burr_side": "none"}, claims=(Claim("words", "box", wording="good"),)),
        "B": Sample("B", maker="Two", observations={"tube.burr_side": "towards the media"}),
        "C": Sample("C"),
    }
    actual = sheet(USE, samples=samples, can__height={"A": number(98.0)}, price={"B": number(5.0)})
    assert list(actual) == ["price", "sample.maker", "can.height", "claims", "tube.burr_side"]
    assert cells(actual["sample.maker"], "differs") == {"A": False, "B": True, "C": False}
    assert actual["tube.burr_side"].matters
    assert actual["claims"].cells["A"].words == ("good", "good")
    assert actual["claims"].cells["C"].words is None


def test_without_a_use_there_is_no_behaviour_and_every_measure_has_a_group():
    assert not set(sheet_measures(None)) & set(BEHAVIOUR_MEASURES)
    assert set(BEHAVIOUR_MEASURES) <= set(sheet_measures(USE))
    assert {group_of(measure) for measure in sheet_measures(USE)} <= set(GROUPS)


def test_without_a_reference_part_there_are_no_differences():
    area = sheet(reference=None, media_effective_area_cm2={"A": number(100, 1), "B": number(80, 1)})["media_effective_area_cm2"]
    assert set(cells(area, "difference").values()) == {None}
    assert not area.differs
    assert cells(area, "mark")["A"] == "best"

"""How far two of one kind may lie apart: by what is measured, and by the specimens themselves where there are several."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.catalogue.measures import number_measures
from tabrel.core.judge.allowance import NONE, Allowance, allowance, spread_between_specimens


@pytest.mark.parametrize(
    ("measure", "expected"),
    [
        ("can.height", Allowance(0.01)),
        ("can.wall_thickness", Allowance(0.05)),
        ("media.strip_length", Allowance(0.02)),
        ("can.mass", Allowance(0.02)),
        ("media_effective_area_cm2", Allowance(0.03)),
        ("bypass.opening_force", Allowance(0.10)),
        ("bypass_opening_kpa", Allowance(0.10)),
        ("media.air_permeability", Allowance(0.15)),
        ("element.pleat_count", Allowance(absolute=2)),
        ("thread.turns", Allowance(absolute=0.5)),
        ("holes.inlet[1].length", Allowance(0.01)),
        ("element_cold_kpa", Allowance(0.10)),
        ("efficiency_at_20_um_percent", NONE),
        ("onset_c", Allowance(absolute=1.5)),
        ("price", NONE),
        ("by_hand", NONE),
    ],
)
def test_each_kind_has_its_own(measure, expected):
    assert allowance(measure) == expected


def test_every_measure_has_one_or_none():
    for measure in number_measures():
        assert allowance(measure).at(100.0) >= 0


def test_one_specimen_takes_the_allowance_as_a_rectangle_and_says_so():
    specimens = spread_between_specimens("can.mass", [200.0])
    assert specimens.standard_deviation == pytest.approx(4 / math.sqrt(3))
    assert (specimens.specimens, specimens.is_assumed) == (1, True)
    # u² = 1² + (4/√3)²·2 = 1 + 32/3
    assert specimens.with_measured(1.0) == pytest.approx(math.sqrt(1 + 32 / 3))
    assert not spread_between_specimens("price", [9.0]).is_assumed


def test_several_specimens_speak_for_themselves():
    result = spread_between_specimens("can.mass", [198.0, 200.0, 202.0])
    assert (result.standard_deviation, result.specimens, result.is_assumed) == (pytest.approx(2.0), 3, False)
    assert result.with_measured(1.0) == pytest.approx(math.sqrt(1 + 4 * 4 / 3))


def test_prices_and_efficiencies_have_no_spread_though_two_specimens_differ():
    assert spread_between_specimens("price", [9.0, 12.0]).standard_deviation == 0
    assert spread_between_specimens("efficiency_at_20_um_percent", [90.0, 99.0]).standard_deviation == 0


@given(st.sampled_from([0.0, 0.001, 0.5, 8.0]), st.lists(st.floats(1, 500), min_size=1, max_size=6))
def test_a_part_number_is_never_better_known_than_its_specimen(measured, values):
    assert spread_between_specimens("can.height", values).with_measured(measured) >= measured

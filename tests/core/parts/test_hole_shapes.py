from __future__ import annotations

from math import cos, hypot, pi, sin

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.special import ellipe
from uncertainties import std_dev

from tabrel.core.parts.hole_shapes import d_hole, ellipse, outline_area, outline_perimeter, rectangle, round_hole, slot
from tabrel.core.parts.holes import measure_holes
from tabrel.core.study.model import HoleGroup, HoleReadings
from tabrel.core.uncertainty.propagation import Variables

size = st.floats(0.5e-3, 30e-3)


def test_round():
    hole = round_hole(diameter=2.0)
    assert (hole.area, hole.perimeter) == pytest.approx((pi, 2 * pi))


def test_a_slot_as_long_as_wide_is_round_and_a_long_one_nearly_a_rectangle():
    assert vars(slot(length=2.0, width=2.0)) == pytest.approx(vars(round_hole(diameter=2.0)))
    long = slot(length=1000.0, width=1.0)
    assert long.area == pytest.approx(1000, rel=1e-3)
    assert long.perimeter == pytest.approx(2000, rel=1e-3)


@given(size, size)
def test_a_slot_does_not_care_which_way_it_lies(a, b):
    assert slot(length=a, width=b) == slot(length=b, width=a)


@pytest.mark.parametrize("ratio", [1.0, 1.5, 3.0, 6.0])
def test_ellipse_perimeter_against_the_elliptic_integral(ratio):
    a, b = ratio, 1.0
    exact = 4 * a * ellipe(1 - (b / a) ** 2)
    assert ellipse(length=2 * a, width=2 * b).perimeter == pytest.approx(exact, rel=1e-4)
    assert ellipse(length=2 * a, width=2 * b).area == pytest.approx(pi * a * b)


def test_half_a_d_hole_is_a_half_circle():
    half = d_hole(diameter=2.0, height=1.0)
    assert (half.area, half.perimeter) == pytest.approx((pi / 2, pi + 2))


def test_a_d_hole_no_flat_touches_is_round():
    assert d_hole(diameter=2.0, height=2.0) == round_hole(diameter=2.0)
    assert d_hole(diameter=2.0, height=3.0) == round_hole(diameter=2.0)
    assert d_hole(diameter=2.0, height=1.999999).area == pytest.approx(pi, rel=1e-6)


def test_rectangle_with_corners():
    assert rectangle(length=3.0, width=2.0).area == 6
    assert rectangle(length=3.0, width=2.0).perimeter == 10
    assert vars(rectangle(length=2.0, width=2.0, corner_radius=1.0)) == pytest.approx(vars(round_hole(diameter=2.0)))
    assert rectangle(length=2.0, width=2.0, corner_radius=9.0) == rectangle(length=2.0, width=2.0, corner_radius=1.0)


def test_outline_of_a_square_and_of_a_circle():
    square = [(0, 0), (2, 0), (2, 2), (0, 2)]
    assert (outline_area(square), outline_perimeter(square)) == (4, 8)
    assert outline_area(square[::-1]) == 4
    circle = [(cos(2 * pi * i / 720), sin(2 * pi * i / 720)) for i in range(720)]
    assert outline_area(circle) == pytest.approx(pi, rel=1e-4)
    assert outline_perimeter(circle) == pytest.approx(2 * pi, rel=1e-4)


@given(size, size, st.floats(0.1, 1.0))
def test_no_shape_encloses_more_than_the_circle_of_its_perimeter(a, b, share):
    """The isoperimetric inequality: 4πA ≤ P²."""
    for hole in (
        slot(length=a, width=b),
        rectangle(length=a, width=b, corner_radius=share * min(a, b) / 2),
        d_hole(diameter=a, height=a * share),
    ):
        assert 4 * pi * hole.area <= hole.perimeter**2 * (1 + 1e-9)


def group(shape, count=1, open_fraction=None, points=(), **readings):
    texts = {name: (text,) for name, text in readings.items()}
    return HoleGroup(shape, count, HoleReadings(**texts, points_mm=points), open_fraction)


def test_groups_add_up_and_covered_ones_are_left_out():
    holes = measure_holes(
        "holes.inlet",
        [
            group("round", 4, diameter="5 mm"),
            group("rectangle", 2, 0.5, length="6 mm", width="4 mm"),
            group("ellipse", 3, 0, length="6 mm", width="4 mm"),
        ],
        Variables(),
    )
    assert holes.area.nominal_value == pytest.approx((4 * pi * 25 / 4 + 2 * 0.5 * 24) * 1e-6)
    assert holes.missing == ()


def test_missing_dimensions_are_named():
    holes = measure_holes("holes.inlet", [group("slot", 2, length="6 mm")], Variables())
    assert holes.missing == ("holes.inlet[0].width",)
    assert measure_holes("holes.inlet", [], Variables()).missing == ("holes.inlet",)
    assert measure_holes("holes.inlet", [group("round", 1, 0, diameter="5 mm")], Variables()).missing == ("holes.inlet",)
    assert measure_holes("holes.inlet", [group("outline")], Variables()).missing == ("holes.inlet[0].points_mm",)


def test_an_outline_of_a_round_hole_is_as_uncertain_as_its_diameter():
    points = tuple((2.5 * cos(2 * pi * i / 90), 2.5 * sin(2 * pi * i / 90)) for i in range(90))
    outline = measure_holes("h", [group("outline", points=points)], Variables())
    drilled = measure_holes("h", [group("round", diameter="5 mm")], Variables())
    assert std_dev(outline.area) == pytest.approx(std_dev(drilled.area), rel=0.01)
    assert outline_perimeter(points) == pytest.approx(sum(hypot(x, y) for x, y in points) * 2 * pi / 90, rel=1e-2)

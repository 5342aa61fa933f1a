"""The plate from below: geometry by hand and by laws that hold."""

from __future__ import annotations

from math import asin, cos, hypot, pi, sin, sqrt

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from builders import study
from tabrel.core.figures.plate_summary import HoleProduct, multi_hole_loss_ratio, plate_summary
from tabrel.core.hydraulics.restrictions import thick_edged_loss_coefficient
from tabrel.core.oil.model import oil_model
from tabrel.core.parts.hole_shapes import SHAPES, outline_area
from tabrel.core.parts.holes import measure_holes
from tabrel.core.parts.plate_layout import hole_outline, plate_layout
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.model import Adapter, Circuit, HoleGroup, HoleReadings, Sample, SampleHoles, Stud
from tabrel.core.uncertainty.propagation import Variables

PLATE = {"can.outside_diameter": 76e-3, "gasket.outside_diameter": 71e-3, "gasket.inside_diameter": 62e-3}
THREAD = {"thread.major_diameter": 20e-3, "thread.pitch": 1.5e-3}


def round_group(count, diameter, circle=None):
    readings = HoleReadings(diameter=(f"{diameter} mm",), circle_diameter=(f"{circle} mm",) if circle else ())
    return HoleGroup("round", count, readings)


def laid_out(*groups, known=None, circuit=None):
    return plate_layout(PLATE | THREAD if known is None else known, SampleHoles(inlet=groups), circuit or Circuit())


def codes(layout):
    return {problem.code for problem in layout.problems}


def test_equal_holes_stand_at_equal_steps_on_their_circle():
    layout = laid_out(round_group(8, 6, 44))
    angles = [8 * i * pi / 32 for i in range(8)]
    for hole, angle in zip(layout.holes, angles, strict=True):
        assert hole.centre == pytest.approx((22e-3 * sin(angle), 22e-3 * cos(angle)), abs=1e-12)
    assert not any(hole.wrong for hole in layout.holes)
    assert layout.hole_circles == ((0, pytest.approx(44e-3), True),)


def test_a_circle_that_was_not_measured_runs_midway_and_is_marked():
    layout = laid_out(round_group(8, 6))
    assert layout.hole_circles == ((0, pytest.approx((20 + 62) / 2 * 1e-3), False),)


@given(st.integers(2, 40), st.floats(2, 14), st.floats(36, 48))
def test_holes_overlap_exactly_where_they_cannot_stand_side_by_side(count, diameter, circle):
    """n round holes fit on a circle if and only if n·asin(d/D) ≤ π."""
    diameter, circle = round(diameter, 3), round(circle, 3)
    crowding = count * asin(diameter / circle)
    assume(abs(crowding - pi) > 0.02)
    layout = laid_out(round_group(count, diameter, circle))
    assert ("holes_overlap" in codes(layout)) == (crowding > pi)


@given(st.integers(1, 9), st.integers(1, 6), st.floats(3, 6), st.floats(6, 11))
def test_unlike_holes_that_fit_are_laid_out_without_overlap(small_count, large_count, small, large):
    small, large = round(small, 3), round(large, 3)
    assume(2 * small_count * asin(small / 44) + 2 * large_count * asin(large / 44) < 2 * pi - 0.1)
    layout = laid_out(round_group(small_count, small, 44), round_group(large_count, large, 44))
    assert "holes_overlap" not in codes(layout)
    assert len(layout.holes) == small_count + large_count


def test_groups_on_circles_of_their_own_do_not_get_in_each_others_way():
    assert not codes(laid_out(round_group(12, 4, 32), round_group(12, 4, 52)))
    mixed = laid_out(
        round_group(5, 4.5), HoleGroup("slot", 2, HoleReadings(length=("14 mm",), width=("9 mm",), circle_diameter=("40 mm",)))
    )
    assert not codes(mixed)  # where along the ring they stand is not measured: no false alarm


@pytest.mark.parametrize(
    ("group", "code"),
    [
        (round_group(6, 6, 60), "hole_under_gasket"),
        (round_group(6, 6, 72), "hole_leaves_plate"),
        (round_group(6, 6, 22), "hole_in_thread"),
        (round_group(30, 6, 44), "holes_overlap"),
    ],
)
def test_a_hole_where_it_cannot_be_is_marked_with_words(group, code):
    layout = laid_out(group)
    assert code in codes(layout)
    assert any(hole.wrong for hole in layout.holes)
    assert all(problem.where == "holes.inlet[0]" for problem in layout.problems)


@pytest.mark.parametrize(
    ("known", "circuit", "code"),
    [
        ({"gasket.outside_diameter": 60e-3, "gasket.inside_diameter": 70e-3}, None, "gasket_swapped"),
        ({"gasket.outside_diameter": 80e-3, "can.outside_diameter": 76e-3}, None, "gasket_wider_than_can"),
        ({**THREAD, "plate.centre_hole_diameter": 21e-3}, None, "centre_hole_wider_than_thread"),
        ({**THREAD, "plate.centre_hole_diameter": 16e-3}, None, "centre_hole_narrower_than_thread"),
        (THREAD, Circuit(stud=Stud(20.0, 22)), "stud_bore_is_thread"),
        ({"gasket.protrusion": 7e-3, "gasket.thickness": 6e-3}, None, "gasket_protrusion"),
        ({**THREAD, "plate.centre_hole_diameter": 18.4e-3}, Circuit(stud=Stud(13.0, 22)), None),
    ],
)
def test_diameters_that_contradict_each_other_are_said(known, circuit, code):
    result = codes(laid_out(known=known, circuit=circuit))
    assert result == ({code} if code else set())


def test_what_is_only_typical_keeps_inside_what_was_measured():
    circles = {c.key: c for c in laid_out(known={"can.outside_diameter": 120e-3}).circles}
    assert circles["can.outside_diameter"].measured
    assert not circles["gasket.outside_diameter"].measured
    assert circles["gasket.outside_diameter"].diameter == pytest.approx(71 / 76 * 120e-3)
    around = {c.key: c for c in laid_out(known={"can.circumference": pi * 90e-3}).circles}
    assert (around["can.outside_diameter"].measured, around["can.outside_diameter"].diameter) == (True, pytest.approx(90e-3))


@pytest.mark.parametrize(
    ("shape", "sizes"),
    [
        ("round", {"diameter": 6e-3}),
        ("slot", {"length": 9e-3, "width": 4e-3}),
        ("slot", {"length": 4e-3, "width": 9e-3}),
        ("ellipse", {"length": 9e-3, "width": 5e-3}),
        ("d", {"diameter": 9e-3, "height": 6e-3}),
        ("rectangle", {"length": 9e-3, "width": 4e-3}),
        ("rectangle", {"length": 9e-3, "width": 4e-3, "corner_radius": 1e-3}),
    ],
)
def test_the_drawn_outline_has_the_area_that_is_computed(shape, sizes):
    outline = hole_outline(HoleGroup(shape, 1), sizes)
    assert outline_area(outline) == pytest.approx(SHAPES[shape].geometry(**sizes).area, rel=0.015)
    assert hole_outline(HoleGroup(shape, 1), {}) is None


def measured_round(count, diameter):
    return measure_holes("holes.inlet", [round_group(count, diameter)], Variables())


@pytest.mark.parametrize("count", [2, 5, 16])
def test_the_division_penalty_runs_from_the_root_of_the_count_to_the_count(count):
    """a = 3/(n·r³) in a thin plate and 8L/(π·n·r⁴) in a thick one, so against one hole √n and n."""
    holes = measured_round(count, 6)
    assert multi_hole_loss_ratio(holes, 1e-9).viscous == pytest.approx(sqrt(count), rel=1e-5)
    assert multi_hole_loss_ratio(holes, 10.0).viscous == pytest.approx(count, rel=2e-3)
    assert multi_hole_loss_ratio(measured_round(1, 6), 3e-3).viscous == pytest.approx(1)


def test_the_division_penalty_of_thin_oil_is_that_of_the_loss_coefficients():
    """Without viscosity the ratio is K(L/2r)/K(L/2R) at the same area; R = r·√n."""
    ratio = multi_hole_loss_ratio(measured_round(9, 6), 3e-3, flow_rate=5e-4, dynamic_viscosity=0.0, density=850)
    assert ratio.hot == pytest.approx(thick_edged_loss_coefficient(3 / 6) / thick_edged_loss_coefficient(3 / 18))


def test_every_bore_and_the_adapter_against_it():
    """By hand: eight 6 mm holes are 226.2 mm²; a 12 mm bore is 113.1, a 20 mm one 314.2; 4 × 5.1 mm are 81.7 mm²."""
    holes = SampleHoles(inlet=(round_group(8, 6),))
    stud = Stud(13, 22, least_bore_mm=12, greatest_bore_mm=20)
    adapter = Adapter((round_group(4, 5.1),), 4, 45, reference_bore_mm=12)
    plain = plate_summary(measure_sample(Sample("A", holes=holes), Circuit(stud=stud)), None)
    assert plain.hole_count == 8
    assert plain.products == (HoleProduct(8, pytest.approx(pi * 9e-6), 1.0),)
    assert plain.equivalent_diameter == pytest.approx(6e-3 * sqrt(8))
    assert plain.perimeter == pytest.approx(8 * pi * 6e-3)
    by_name = {outlet.name: outlet for outlet in plain.outlets}
    assert (by_name["least"].controlled_by, by_name["greatest"].controlled_by) == ("outlet", "inlet")
    assert by_name["least"].flow_area == pytest.approx(113.097e-6, rel=1e-4)
    assert by_name["greatest"].flow_area == pytest.approx(226.195e-6, rel=1e-4)
    assert by_name["stud"].adapter_ratio is None
    with_adapter = plate_summary(measure_sample(Sample("A", holes=holes), Circuit(stud=stud, adapter=adapter)), None)
    reference = {outlet.name: outlet for outlet in with_adapter.outlets}["adapter_reference"]
    assert reference.adapter_ratio == pytest.approx(81.713 / 113.097, rel=1e-4)
    assert reference.controlled_by == "adapter"


def test_the_hot_penalty_needs_engine_and_oil():
    whole = study()
    measured = measure_sample(whole.samples[0], whole.circuit)
    with_oil, without = plate_summary(measured, oil_model(whole.oil)), plate_summary(measured, None)
    assert with_oil.multi_hole_loss_ratio.viscous == without.multi_hole_loss_ratio.viscous
    assert without.multi_hole_loss_ratio.hot is None
    lowest, highest = sorted((1.0, with_oil.multi_hole_loss_ratio.viscous))
    assert 0.5 * lowest < with_oil.multi_hole_loss_ratio.hot < highest


def test_reach_is_the_farthest_corner():
    hole = laid_out(round_group(1, 6, 44)).holes[0]
    assert hole.reach == pytest.approx(3e-3)
    assert max(hypot(x, y) for x, y in hole.outline) == pytest.approx(25e-3, rel=1e-3)

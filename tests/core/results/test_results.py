"""Branches of the headline results that the whole cases do not reach, worked by hand."""

from __future__ import annotations

import re
from math import hypot, pi, sqrt

import pytest

from builders import reading, study
from tabrel.core.errors import OutOfRangeError
from tabrel.core.parts.efficiency import (
    ClaimedPoint,
    efficiency_from_claim,
    possible_sizes,
    size_from_claim,
    size_in_um_c,
)
from tabrel.core.parts.seat_and_spring import SHEAR_MODULUS
from tabrel.core.results.analysis import analyse_sample
from tabrel.core.study.model import Claim


def results(*changes):
    made = study(*changes)
    return analyse_sample(made.samples[0], made.circuit).results


def codes(*changes):
    made = study(*changes)
    return {w.code: w.where for w in analyse_sample(made.samples[0], made.circuit).warnings}


SPRING = ("wire_diameter", "outside_diameter", "total_coils", "free_length", "installed_length")
NO_SPRING = [reading(f"bypass.spring_{name}") for name in SPRING]


# --- tapping plate flow area


def test_the_thread_is_an_upper_bound_where_no_stud_is_known():
    thread = [reading("thread.major_diameter", "20 mm"), reading("thread.pitch", "1.5 mm")]
    result = results(("circuit/stud", None), *thread).plate_flow_area
    inlet = 7 * pi * 5.65**2 / 4
    outlet = pi * (20 - 1.0825 * 1.5) ** 2 / 4
    assert result.value * 1e6 == pytest.approx(min(inlet, outlet))
    assert (result.controlled_by, result.relation, result.assumed) == ("inlet", "<=", ("circuit.stud",))


def test_stud_and_thread_both_unknown():
    computed = results(("circuit/stud", None)).plate_flow_area
    assert computed.value is None
    assert computed.missing == ("circuit.stud", "thread.major_diameter", "thread.pitch")


def test_the_anti_drain_gap_can_control():
    gap = [reading("anti_drain.lift", "0.5 mm"), reading("anti_drain.lip_diameter", "50 mm")]
    collected = results(*gap)
    assert collected.plate_flow_area.controlled_by == "anti_drain"
    assert collected.plate_flow_area.value * 1e6 == pytest.approx(pi * 50 * 0.5)
    areas = [7 * pi * 5.65**2 / 4, pi * 25, pi * 13**2 / 4]
    assert collected.plate_series_area.value * 1e6 == pytest.approx(sum(a**-2 for a in areas) ** -0.5)
    assert results(reading("anti_drain.lift", "2 mm")).plate_flow_area.missing == ("anti_drain.lip_diameter",)


# --- media area


def test_deductions_from_the_strip():
    blocked = [reading("media.blocked_pleats", "2"), reading("media.blocked_area", "10 cm2")]
    outcome = results(*blocked).media_effective_area
    depth = (66.4 - 36.2) / 2
    assert outcome.value * 1e6 == pytest.approx((1620 - 12 - 2 * 2 * depth) * (68 - 5) - 1000)


def test_deductions_that_leave_nothing_leave_zero():
    """Both factors below zero would multiply to an area."""
    deep = [reading("element.potting_depth", "40 mm"), reading("media.seam_overlap", "1.7 m")]
    assert results(*deep).media_effective_area.value == 0
    assert results(reading("media.blocked_area", "2000 cm2")).media_effective_area.value == 0


def test_measured_pleat_depth_goes_before_the_diameters():
    actual = results(reading("media.blocked_pleats", "2"), reading("element.pleat_depth", "14 mm"))
    assert actual.media_effective_area.value * 1e6 == pytest.approx((1620 - 12 - 56) * 63)


def test_losses_not_measured_count_as_usual_with_their_spread_and_are_listed():
    """By hand: 2.2 ± 0.9 mm of potting, 10 ± 4 mm of seam; 0.9·2·1.61 m and 4 mm·63.6 mm are 29.0 and 2.5 cm² of it."""
    lost = reading("media.seam_overlap"), reading("element.potting_depth")
    answer = results(*lost).media_effective_area
    assert answer.value * 1e4 == pytest.approx((162 - 1.0) * (6.8 - 0.44))
    measured = results().media_effective_area
    expected = hypot(29.0, 2.54, measured.standard_uncertainty * 1e4)
    assert answer.standard_uncertainty * 1e4 == pytest.approx(expected, rel=0.01)
    assert set(answer.assumed) == {"media.seam_overlap", "element.potting_depth", "media.backing_thickness"}


def test_before_cutting_there_is_a_forecast():
    shown = results(reading("media.strip_length"), reading("element.height", "70 mm"))
    for area, over, relative in ((shown.media_gross_area, 1.0, 0.02), (shown.media_effective_area, 1.11, 0.06)):
        assert area.basis == "forecast"
        assert area.value * 1e6 == pytest.approx(2 * 54 * 15.1 * 70 / over)
        assert area.standard_uncertainty / area.value == pytest.approx(relative, rel=0.02)
    missing = results(reading("media.strip_length")).media_effective_area
    assert (missing.value, missing.missing) == (None, ("media.strip_length",))


def test_pleat_opening_counts_the_backing():
    result_5 = results(reading("media.backing_thickness", "0.1 mm")).pleat_opening_at_inside
    assert result_5.value == pytest.approx(1 - 2 * 54 * 0.92 / (pi * 36.2))


# --- permeability


@pytest.mark.parametrize(
    ("text", "stated", "velocity", "drop"),
    [("150 L/m2/s", None, 0.150, 200), ("30 cfm/ft2", None, 30 * 0.00508, 125), ("150 L/m2/s", 100, 0.150, 100)],
)
def test_permeability_from_air(text, stated, velocity, drop):
    """Darcy: κ = μ·v·t/Δp, air at 20 °C 1.81e-5 Pa s; ISO 9237 at 200 Pa, cfm/ft² at 125 Pa."""
    changes = [reading("media.air_permeability", text)]
    if stated:
        changes.append(("samples/0/media_air_drop_pa", stated))
    result_6 = results(*changes).media_permeability
    assert result_6.value == pytest.approx(1.81e-5 * velocity * 0.82e-3 / drop)
    assert result_6.basis == "air_permeability"


@pytest.mark.parametrize(("family", "kappa"), [("cellulose", 1.2e-11), ("blend", 1.5e-11), ("synthetic", 1.8e-11)])
def test_permeability_by_family(family, kappa):
    assert results(("samples/0/media_family", family)).media_permeability.value == kappa


# --- bypass valve


def seat_area(inside=13.0, outside=14.6):
    return pi * ((inside + outside) / 2 * 1e-3) ** 2 / 4


def test_push_off_force_goes_before_the_spring():
    result_7 = results(reading("bypass.opening_force", "20 N")).bypass_opening
    assert (result_7.basis, result_7.value) == ("force", pytest.approx(20 / seat_area()))


def test_bench_pressure_goes_before_all_and_the_spring_still_sets_full_open():
    result_8 = results(reading("bypass.opening_force", "20 N"), reading("bypass.opening_pressure", "1 bar"))
    assert (result_8.bypass_opening.basis, result_8.bypass_opening.value) == ("pressure", 1e5)
    rate = 81.5e9 * 1.2e-3**4 / (8 * 11.8e-3**3 * 4)
    assert result_8.bypass_full_open.value == pytest.approx(1e5 + rate * 3.5e-3 / seat_area())


@pytest.mark.parametrize("material", SHEAR_MODULUS)
def test_spring_rate_from_its_dimensions(material):
    """k = G·d⁴/(8·D³·n), the textbook formula with the mean coil diameter D = OD − d."""
    modulus = {"music_wire": 81.5e9, "stainless_302": 69.0e9, "chrome_silicon": 77.2e9}[material]
    result_9 = results(("samples/0/bypass/spring_material", material), reading("bypass.spring_dead_coils", "1"))
    rate = modulus * 1.2e-3**4 / (8 * 11.8e-3**3 * 5)
    assert result_9.bypass_opening.value == pytest.approx(rate * 6.8e-3 / seat_area())
    assert result_9.bypass_opening.assumed == ()


def test_what_a_spring_leaves_assumed():
    result_10 = results(("samples/0/bypass/spring_material", None), reading("bypass.seat_outside_diameter"))
    assumed = {"bypass.seat_outside_diameter", "bypass.spring_material", "bypass.spring_dead_coils"}
    assert set(result_10.bypass_opening.assumed) == assumed


def test_a_stated_band_is_a_rectangle_and_a_figure_has_no_uncertainty():
    band = results(*NO_SPRING, ("samples/0/bypass/stated_kpa", [110, 180])).bypass_opening
    assert (band.basis, band.value) == ("stated", pytest.approx(145e3))
    assert band.standard_uncertainty == pytest.approx(70e3 / sqrt(12))
    figure = results(*NO_SPRING, ("samples/0/bypass/stated_kpa", 120))
    assert (figure.bypass_opening.value, figure.bypass_opening.standard_uncertainty) == (120e3, None)
    assert figure.bypass_full_open.value == pytest.approx(180e3)


def test_no_evidence_names_what_is_missing():
    result_11 = results(*NO_SPRING, reading("bypass.seat_inside_diameter")).bypass_opening
    assert result_11.value is None
    assert result_11.missing[0] == "bypass.seat_inside_diameter"
    assert set(result_11.missing[1:]) == {f"bypass.spring_{name}" for name in SPRING}


def test_no_valve_means_no_result_and_nothing_missing():
    result_12 = results(("samples/0/bypass/location", "none")).bypass_opening
    assert (result_12.value, result_12.missing) == (None, ())


def test_a_spring_that_is_not_compressed_holds_nothing():
    change = reading("bypass.spring_installed_length", "23 mm")
    assert results(change).bypass_opening.value == 0
    assert codes(change)["spring_not_compressed"] == "bypass.spring_installed_length"


# --- efficiency


@pytest.mark.parametrize(
    ("size", "scale", "expected"),
    [(25, "um", 21.2), (12.5, "um", 11.3 + 2.3 * 0.5 / 3), (10, "um(b)", 8.98), (20, "um(c)", 20)],
)
def test_size_scales(size, scale, expected):
    assert size_in_um_c(size, scale) == pytest.approx(expected)


def test_old_sizes_outside_their_table_are_refused():
    with pytest.raises(OutOfRangeError, match="1 to 40"):
        size_in_um_c(50, "um")


def test_a_point_claim_at_its_own_size_and_elsewhere():
    """By hand: β = 50 at 20 µm(c), slopes 2 to 6."""
    claim = ClaimedPoint("=", 50.0, (20.0,), Claim("efficiency", "box"))
    here = efficiency_from_claim(claim)
    assert (here.value, here.low, here.high) == pytest.approx((0.98, 0.98, 0.98))
    there = efficiency_from_claim(claim, 10.0)
    assert there.value is None
    assert (there.low, there.high) == pytest.approx((1 - 1 / (1 + 49 / 64), 1 - 1 / (1 + 49 / 4)))
    size = size_from_claim(claim, 75.0)
    assert (size.low, size.high) == pytest.approx((20 * (74 / 49) ** (1 / 6), 20 * sqrt(74 / 49)))


@pytest.mark.parametrize("relation", [">=", ">"])
def test_a_bound_gives_one_side_only(relation):
    claim = ClaimedPoint(relation, 20.0, (25.0,), Claim("efficiency", "box"))
    result_13 = efficiency_from_claim(claim)
    assert (result_13.value, result_13.high, result_13.relation) == (None, None, relation)
    assert result_13.low == pytest.approx(1 - 1 / (1 + 19 * (20 / 25) ** 6))
    size = size_from_claim(claim)
    assert (size.value, size.low) == (None, None)
    assert size.high == pytest.approx(25 * sqrt(74 / 19))


def test_a_size_without_a_named_scale_stands_in_both_readings():
    """98 % at "20 microns": 20 µm(c), or plain 20 µm, which is 17.5 µm(c); at 20 µm(c) by hand with slopes 2 to 6."""
    point = ClaimedPoint("=", 50.0, possible_sizes(20, "unnamed"), Claim("efficiency", "box", scale="unnamed"))
    result_14 = efficiency_from_claim(point)
    assert result_14.value is None
    assert result_14.assumed == ("claims.scale",)
    assert (result_14.low, result_14.high) == pytest.approx((0.98, 1 - 1 / (1 + 49 * (20 / 17.5) ** 6)))
    size = size_from_claim(point)
    assert (size.low, size.high) == pytest.approx((17.5 * (74 / 49) ** (1 / 6), 20 * sqrt(74 / 49)))
    at_least = efficiency_from_claim(ClaimedPoint(">=", 50.0, possible_sizes(20, "unnamed"), point.claim))
    assert (at_least.low, at_least.high) == (pytest.approx(0.98), None)
    up_to = efficiency_from_claim(ClaimedPoint("<=", 50.0, (20.0,), point.claim))
    assert (up_to.low, up_to.high) == (None, pytest.approx(0.98))


def claim(**changes):
    usual = {"kind": "efficiency", "relation": "=", "efficiency_percent": 98, "source": "box"}
    return ("samples/0/claims", [{**usual, **changes}])


def test_a_claim_goes_before_the_estimate_and_one_without_size_does_not():
    assert results(claim(size_um=20, scale="um(c)")).efficiency_at_20_um.basis == "claim"
    assert results(claim(scale="um(c)")).efficiency_at_20_um.basis == "estimate"
    assert results(claim(size_um=20)).efficiency_at_20_um.basis == "estimate"
    assert results(claim(size_um=60, scale="um")).efficiency_at_20_um.basis == "estimate"


# --- warnings


@pytest.mark.parametrize(
    ("changes", "code", "where"),
    [
        ([reading("can.wall_thickness", "0.19 in")], "unusual_reading", "can.wall_thickness[0]"),
        ([reading("can.wall_thickness", "0.47 mm", "0.48 mm", "0.46 mm", "0.9 mm")], "outlier", "can.wall_thickness[3]"),
        ([reading("element.pleat_count", "80")], "pack_cannot_fit", "element.pleat_count"),
        ([reading("element.pleat_count", "64")], "pack_crowded", "element.pleat_count"),
        ([reading("media.strip_length", "1.9 m")], "length_against_pleats", "media.strip_length"),
        ([reading("media.dry_mass", "90 g")], "solidity", "media.dry_mass"),
        ([reading("media.blocked_pleats", "60")], "blocked_pleats", "media.blocked_pleats"),
        ([reading("element.potting_depth", "40 mm")], "potting_too_deep", "element.potting_depth"),
        ([reading("bypass.spring_installed_length", "7 mm")], "spring_below_solid", "bypass.spring_installed_length"),
        ([reading("bypass.spring_installed_length", "9 mm")], "spring_solid_before_lift", "bypass.lift_limit"),
        ([reading("bypass.spring_total_coils", "2")], "spring_without_coils", "bypass.spring_total_coils"),
        ([reading("bypass.spring_outside_diameter", "1.1 mm")], "spring_too_narrow", "bypass.spring_outside_diameter"),
        ([reading("bypass.seat_outside_diameter", "12 mm")], "seat_swapped", "bypass.seat_outside_diameter"),
        ([reading("can.inside_diameter", "66 mm")], "no_clearance", "can.inside_diameter"),
        ([reading("element.inside_diameter", "70 mm")], "element_swapped", "element.inside_diameter"),
        (
            [("samples/0/holes/inlet/0", {"shape": "slot", "count": 2, "readings": {"length": ["4 mm"], "width": ["6 mm"]}})],
            "slot_turned",
            "holes.inlet[0].length",
        ),
        (
            [("samples/0/holes/inlet/0", {"shape": "d", "count": 2, "readings": {"diameter": ["6 mm"], "height": ["7 mm"]}})],
            "flat_outside_hole",
            "holes.inlet[0].height",
        ),
    ],
)  # fmt: skip
def test_implausible_is_a_warning_at_its_place_and_results_still_come(changes, code, where):
    assert codes(*changes).get(code) == where
    assert results(*changes).inlet_hole_area.value is not None


@pytest.mark.parametrize(("limit", "warns"), [("1.8 mm", False), ("2.2 mm", True), (None, True)])
def test_the_spring_goes_solid_against_the_lift_limit_measured_or_assumed(limit, warns):
    """By hand: 6 coils of 1.2 mm are solid at 7.2 mm, 2.0 mm below 9.2 mm; unmeasured, the limit is 13.8/4 = 3.45 mm."""
    changes = [reading("bypass.spring_installed_length", "9.2 mm"), reading("bypass.lift_limit", *([limit] if limit else []))]
    assert ("spring_solid_before_lift" in codes(*changes)) is warns


def test_an_own_instrument_is_said_to_count_as_the_usual_one():
    own = {"text": "76.1 mm", "instrument": "shop caliper"}
    described = ("instruments", [{"name": "shop caliper", "kind": "caliper"}])
    assert codes(described, ("samples/0/readings/can.outside_diameter", [own]))["own_instrument"] == "can.outside_diameter"
    usual = own | {"instrument": "micrometer"}
    assert "own_instrument" not in codes(described, ("samples/0/readings/can.outside_diameter", [usual]))


def test_a_pitch_that_was_only_copied_is_questioned_beside_a_new_diameter():
    """A thread of M20x1.5 copied; this filter's own crests are 22.2 mm across, which is an M22 or 7/8 inch."""
    copied = {"text": "1.5 mm", "copied_from": "A", "provenance": "assumed"}
    diameter = {"text": "20 mm", "copied_from": "A", "provenance": "assumed"}
    pitch = ("samples/0/readings/thread.pitch", [copied])
    new = ("samples/0/readings/thread.major_diameter", [diameter, "22.2 mm"])
    assert codes(pitch, new)["copied_pitch"] == "thread.pitch"
    assert "copied_pitch" not in codes(pitch, ("samples/0/readings/thread.major_diameter", [diameter, "19.9 mm"]))


def test_a_plain_filter_raises_no_alarm():
    assert set(codes()) == {
        "estimate_beyond_domain", "width_at_three_places", "spring_ends_not_told", "seat_mark_not_told",
    }  # fmt: skip


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("0.19 in", r"ten times too large, 0.019 in \(0.4826 mm\) meant"),
        ("15 mm", r"thousandths of an inch typed as mm, 15 thou \(0.381 mm\) meant"),
        ("0.0004 mm", "a thousand times too small, 0.4 mm meant"),
    ],
)
def test_the_likely_slip_is_named(text, says):
    made = study(reading("can.wall_thickness", text))
    messages = [w.message for w in analyse_sample(made.samples[0], made.circuit).warnings]
    assert any(re.search(says, message) for message in messages)


def test_a_strip_that_its_pleats_do_not_explain_says_what_would_settle_it():
    def said(*more):
        whole = study(reading("media.strip_length", "1.9 m"), *more)
        result = analyse_sample(whole.samples[0], whole.circuit).warnings
        return next(item.message for item in result if item.code == "length_against_pleats")

    assert "the depth is only derived from the element's diameters, measure it (element, pleat depth)" in said()
    assert said(reading("element.pleat_depth", "14 mm")).endswith("check length, pleat count and depth")

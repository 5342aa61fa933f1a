"""The opened filter: evidence for the opening pressure, strip, pleat count, parts tray; numbers worked by hand."""

from __future__ import annotations

from math import pi

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import reading, study
from tabrel.core.figures.efficiency_evidence import DRAWN_SIZES, efficiency_evidence
from tabrel.core.figures.media_deductions import strip_areas
from tabrel.core.figures.opening_evidence import opening_comparison
from tabrel.core.figures.parts_tray import can_strength, mass_balance
from tabrel.core.figures.pleat_count import pleat_count_curve
from tabrel.core.figures.pleat_pack import pack_figure
from tabrel.core.oil.model import oil_model
from tabrel.core.parts.valve_curve import full_open_pressure, valve_curve
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.sample.measured_sample import measure_sample

SEAT = (reading("bypass.seat_inside_diameter", "14 mm"), reading("bypass.seat_outside_diameter", "16 mm"))
SPRING = (
    reading("bypass.spring_wire_diameter", "1.25 mm"),
    reading("bypass.spring_outside_diameter", "13.25 mm"),
    reading("bypass.spring_total_coils", "6"),
    reading("bypass.spring_dead_coils", "2"),
    reading("bypass.spring_free_length", "24 mm"),
    reading("bypass.spring_installed_length", "18 mm"),
)
PACK_KEYS = ("element.outside_diameter", "element.inside_diameter", "element.pleat_count", "media.thickness")
NO_SPRING = tuple((path, None) for path, _ in SPRING if "dead" not in path)
STATED = "samples/0/bypass/stated_kpa"


def measured(*changes):
    whole = study(*changes)
    return measure_sample(whole.samples[0], whole.circuit)


def codes(*changes):
    return {warning.code for warning in analyse_measured(measured(*changes)).warnings}


def test_every_way_to_the_opening_pressure_stands_side_by_side():
    result = opening_comparison(
        measured(
            *SEAT, *SPRING, reading("bypass.opening_pressure", "130 kPa"), reading("bypass.opening_force", "22 N"), (STATED, 140)
        )
    )
    opening = {item.basis: item.opening.value for item in result.evidence}
    area = pi * 0.015**2 / 4  # seat at the mean of 14 and 16 mm
    rate = 81.5e9 * 0.00125**4 / (8 * 0.012**3 * 4)  # G d⁴ / (8 (OD − d)³ n)
    assert list(opening) == ["pressure", "force", "spring", "stated"]
    assert opening == pytest.approx({"pressure": 130e3, "force": 22 / area, "spring": rate * 0.006 / area, "stated": 140e3})
    assert [item.is_used for item in result.evidence] == [True, False, False, False]
    assert len(result.agreements) == 6


def test_independent_ways_agree_by_the_usual_normalised_error():
    computed = opening_comparison(
        measured(*SEAT, reading("bypass.opening_pressure", "170 kPa"), reading("bypass.opening_force", "22 N"))
    )
    u = {item.basis: item.opening.expanded_uncertainty for item in computed.evidence}
    x = {item.basis: item.opening.value for item in computed.evidence}
    usual = abs(x["pressure"] - x["force"]) / (u["pressure"] ** 2 + u["force"] ** 2) ** 0.5
    [agreement] = [item for item in computed.agreements if (item.first, item.second) == ("pressure", "force")]
    assert agreement.normalised_error == pytest.approx(
        usual, rel=0.08
    )  # the coverage factor of a difference is not that of its parts
    assert agreement.agrees == (usual <= 1)


def test_ways_that_share_the_seat_are_held_to_less_than_independent_ones():
    collected = opening_comparison(measured(*SEAT, *SPRING, reading("bypass.opening_force", "26 N")))
    force, spring = (item.opening for item in collected.evidence if item.basis in ("force", "spring"))
    [agreement] = [item for item in collected.agreements if (item.first, item.second) == ("force", "spring")]
    independent = abs(force.value - spring.value) / np.hypot(force.expanded_uncertainty, spring.expanded_uncertainty)
    assert agreement.normalised_error > independent


def test_a_stated_band_is_read_both_ways():
    band = opening_comparison(measured(*SEAT, *SPRING, (STATED, [100, 150]))).stated_band
    area, rate = pi * 0.015**2 / 4, 81.5e9 * 0.00125**4 / (8 * 0.012**3 * 4)
    assert 100e3 < rate * 0.006 / area < 150e3
    assert band.within_tolerance
    assert band.opens_at_low.second == "stated"
    assert not opening_comparison(measured(*SEAT, *SPRING, (STATED, [300, 400]))).stated_band.within_tolerance
    assert opening_comparison(measured(*SEAT, *NO_SPRING, (STATED, [100, 150]))).stated_band is None


def test_a_stated_band_keeps_its_ends_and_of_a_single_figure_no_tolerance_is_known():
    band, single = (opening_comparison(measured(*SEAT, *SPRING, (STATED, stated))) for stated in ([100, 160], 140))
    [kept] = [item.opening for item in band.evidence if item.basis == "stated"]
    assert (kept.low, kept.high) == (pytest.approx(100e3), pytest.approx(160e3))
    assert [item.reservation for item in band.agreements] == [""]
    assert [item.reservation for item in single.agreements] == ["the tolerance of the stated figure is not known"]


def test_no_valve_has_no_evidence():
    outcome = opening_comparison(measured(("samples/0/bypass/location", "none")))
    assert (outcome.evidence, outcome.closing, outcome.stated_band) == ((), None, None)


def test_the_valve_opens_at_its_pressure_and_lifts_in_proportion():
    sample = measured(*SEAT, *SPRING, reading("bypass.lift_limit", "3 mm"))
    valve = sample.bypass.valve
    curve = valve_curve(valve, oil_model(study().oil), 20.0)
    full = full_open_pressure(valve)
    assert full == pytest.approx(sample.bypass.full_open.value)
    assert curve.pressure[[0, -1]] == pytest.approx([0, 1.25 * full])
    closed = curve.pressure <= valve.opening_pressure
    assert (curve.lift[closed] == 0).all()
    assert (curve.flow_rate[closed] == 0).all()
    half = (valve.opening_pressure + full) / 2
    assert np.interp(half, curve.pressure, curve.lift) == pytest.approx(0.0015, rel=1e-3)
    assert curve.lift.max() == pytest.approx(0.003)
    assert (np.diff(curve.flow_rate[~closed]) > 0).all()


STRIP = (
    reading("media.strip_length", "1600 mm"),
    reading("media.strip_width", "80 mm"),
    reading("element.potting_depth", "2.5 mm"),
    reading("media.seam_overlap", "10 mm"),
    reading("media.blocked_pleats", "2"),
    reading("element.pleat_depth", "16 mm"),
    reading("media.blocked_area", "10 cm2"),
)


def test_the_strip_loses_its_parts_line_by_line():
    sample = measured(*STRIP)
    strip = strip_areas(sample)
    assert strip.gross == pytest.approx(0.128)
    lost = {line.key: line.area for line in strip.deductions}
    assert lost == pytest.approx(
        {
            "element.potting_depth": 1.6 * 0.005,
            "media.seam_overlap": 0.010 * 0.075,
            "media.blocked_pleats": 4 * 0.016 * 0.075,
            "media.blocked_area": 0.001,
        }
    )
    assert strip.effective == pytest.approx(0.11345)
    assert all(line.measured for line in strip.deductions)
    assert strip.grammage is None
    assert strip_areas(measured(*STRIP, reading("media.dry_mass", "25.6 g"))).grammage == pytest.approx(0.2)  # 200 g/m²
    assert strip.effective == pytest.approx(analyse_measured(sample).results.media_effective_area.value)


@settings(max_examples=60, deadline=None)
@given(st.floats(0, 45), st.integers(0, 120), st.floats(0, 2000), st.floats(0, 1700))
def test_deductions_never_leave_less_than_nothing_and_always_add_up(potting, pleats, blocked, overlap):
    sample = measured(
        *STRIP,
        reading("element.potting_depth", f"{potting:.3f} mm"),
        reading("media.blocked_pleats", f"{pleats}"),
        reading("media.blocked_area", f"{blocked:.3f} cm2"),
        reading("media.seam_overlap", f"{overlap:.3f} mm"),
    )
    strip = strip_areas(sample)
    assert strip.effective == pytest.approx(analyse_measured(sample).results.media_effective_area.value, abs=1e-9)
    lost = sum(line.area for line in strip.deductions)
    assert strip.effective == pytest.approx(max(0.0, strip.gross - lost), abs=1e-12)
    assert strip.overlap + strip.blocked_length <= strip.length + 1e-12


def test_before_the_cut_the_strip_is_a_forecast():
    uncut = measured(reading("media.strip_length"), reading("media.strip_width"), reading("element.height", "66 mm"))
    strip = strip_areas(uncut)
    [usual] = strip.deductions
    assert (strip.is_forecast, usual.key, usual.measured) == (True, "model.forecast_area", False)
    assert strip.effective == pytest.approx(strip.gross - usual.area) == pytest.approx(strip.gross / 1.11)
    assert strip.length == strip.pleats_length == pytest.approx(2 * 54 * (66.4e-3 - 36.2e-3) / 2)
    assert strip.effective == pytest.approx(analyse_measured(uncut).results.media_effective_area.value)
    assert strip_areas(measured(reading("media.strip_length"), reading("element.pleat_count"))) is None


def test_more_pleats_stop_helping():
    curve = pleat_count_curve(measured())
    media, channels = dict(zip(curve.counts, curve.media, strict=True)), dict(zip(curve.counts, curve.channels, strict=True))
    own = round(curve.count)
    assert media[own] + channels[own] == pytest.approx(1)
    assert media[own - 5] / media[own] == pytest.approx(own / (own - 5))  # the area of each pleat stays
    assert all(channels[n] < channels[n + 1] for n in range(own, curve.largest_count))
    total = {n: media[n] + channels[n] for n in curve.counts}
    assert curve.least_loss == pytest.approx(total[curve.optimum])
    assert all(total[n] >= curve.least_loss for n in range(curve.counts[0], curve.largest_count + 1))


@pytest.mark.parametrize(
    ("key", "text"), [("element.pleat_count", "9000000"), ("media.thickness", "0.001 mm"), ("element.inside_diameter", "0.01 mm")]
)
def test_a_slip_in_the_pack_costs_no_time(key, text):
    curve = pleat_count_curve(measured(reading(key, text)))
    assert curve is None or len(curve.counts) <= 402


def test_the_best_count_rests_neither_on_this_filters_count_nor_on_the_points_of_the_curve():
    thin = reading("media.thickness", "0.03 mm")
    curve = pleat_count_curve(measured(thin))
    assert len(curve.counts) < curve.largest_count / 2  # not every number is a point
    other = pleat_count_curve(measured(thin, reading("element.pleat_count", "200")))
    assert other.counts != curve.counts
    assert other.optimum == curve.optimum


def test_a_spring_is_coil_bound_where_its_travel_ends_before_the_lift():
    travel = 18 - 6 * 1.25  # installed less solid length, in mm
    for lift, bound in ((travel - 0.1, False), (travel + 0.1, True)):
        assert opening_comparison(measured(*SEAT, *SPRING, reading("bypass.lift_limit", f"{lift} mm"))).coil_bound is bound
    assert opening_comparison(measured(*SEAT, reading("bypass.spring_wire_diameter"))).coil_bound is None


def test_a_thicker_pack_wants_fewer_pleats():
    thin = pleat_count_curve(measured(reading("media.thickness", "0.5 mm")))
    thick = pleat_count_curve(measured(reading("media.thickness", "1.1 mm")))
    assert thick.optimum < thin.optimum
    assert thick.largest_count == pytest.approx(thin.largest_count * 0.5 / 1.1, abs=1)
    assert pleat_count_curve(measured(reading("media.thickness"))) is None


def weighed(**grams):
    return tuple(reading(f"{part}.mass", f"{mass} g") for part, mass in grams.items())


TRAY = weighed(filter=400, can=90, gasket=9, plate=110, bypass=20, element=150)


def test_a_part_not_weighed_is_named_by_what_is_missing():
    balance = mass_balance(measured(*TRAY))  # 21 g are missing, anti-drainback valve and seating spring were not weighed
    assert balance.difference.value == pytest.approx(0.021)
    assert (balance.closes, balance.likely_missing) == (False, ("seating", "anti_drain"))
    assert balance.words == "21 g (0.741 oz) are missing: seating spring or anti-drainback valve not weighed?"


@pytest.mark.parametrize(
    ("grams", "closes", "says"),
    [
        ({"anti_drain": 6, "seating": 15}, True, "the parts make up the whole"),
        ({"anti_drain": 6, "seating": 40}, False, "25 g (0.882 oz) more than the whole"),
        ({"filter": 480, "anti_drain": 6, "seating": 15}, False, "80 g (2.82 oz) are missing: chips, oil that ran out"),
    ],
)
def test_the_balance_says_what_it_means(grams, closes, says):
    balance = mass_balance(measured(*TRAY, *weighed(**grams)))
    assert balance.closes is closes
    assert says in balance.words


def test_a_lost_part_explains_what_is_missing():
    lost = ("samples/0/states", {"seating.mass": "lost", "anti_drain.mass": "not_applicable"})
    balance = mass_balance(measured(*TRAY, lost))
    assert balance.words == "21 g (0.741 oz) are missing, as the lost seating spring would weigh"
    assert [part.state for part in balance.parts if part.part == "seating"] == ["lost"]


def test_a_balance_needs_the_whole_and_a_part():
    assert "was not weighed" in mass_balance(measured(*weighed(can=90))).words
    nothing = mass_balance(measured(*weighed(filter=400)))
    assert (nothing.difference, nothing.closes) == (None, None)


def test_strength_and_shell_by_hand():
    can = (
        reading("can.wall_thickness", "0.45 mm"),
        reading("can.outside_diameter", "76 mm"),
        reading("can.height", "98 mm"),
        reading("can.mass", "95 g"),
        reading("thread.turns", "6.5"),
        reading("thread.pitch", "1.5 mm"),
    )
    strength = can_strength(measured(*can))
    assert strength.hoop_stress == pytest.approx(1e6 * 76 / 0.9)
    assert strength.yield_pressure == pytest.approx((210e6 * 0.9 / 76, 280e6 * 0.9 / 76))
    assert strength.shell_mass == pytest.approx(7850 * 0.45e-3 * (pi * 0.076 * 0.098 + pi * 0.076**2 / 4))
    assert strength.thread_engagement == pytest.approx(9.75e-3)
    assert "wall_against_can_mass" not in codes(*can)
    assert "wall_against_can_mass" in codes(*can, reading("can.wall_thickness", "0.9 mm"))  # measured on a fold


def test_what_contradicts_is_questioned_and_never_refused():
    assert "closes_above_opening" in codes(
        reading("bypass.opening_pressure", "100 kPa"), reading("bypass.closing_pressure", "120 kPa")
    )
    assert "pulled_below_relaxed" in codes(reading("media.strip_length", "1.6 m"), reading("media.pulled_length", "1.5 m"))
    assert "burr_at_media" in codes(("samples/0/observations", {"tube.burr_side": "towards the media"}))
    glue = ("samples/0/observations", {"element.glue": "missing"})
    assert "glue_missing" in codes(glue)
    assert "glue_missing" not in codes(glue, ("samples/0/leak", {"count": 2, "diameter_mm": 0.5}))


def test_the_pack_is_drawn_whatever_was_read():
    blank = pack_figure(measured(*((f"samples/0/readings/{key}", None) for key in PACK_KEYS)))
    assert blank.measured == ()
    assert blank.outside_diameter > blank.inside_diameter > 0
    own = pack_figure(measured())
    assert (own.count, own.outside_diameter, own.inside_diameter) == (54, pytest.approx(66.4e-3), pytest.approx(36.2e-3))
    assert own.depth == pytest.approx((66.4e-3 - 36.2e-3) / 2)
    assert own.opening == pytest.approx(1 - 2 * 54 * 0.82e-3 / (pi * 36.2e-3))
    swapped = pack_figure(measured(reading("element.inside_diameter", "66.4 mm"), reading("element.outside_diameter", "36.2 mm")))
    assert (swapped.outside_diameter, swapped.inside_diameter) == (own.outside_diameter, own.inside_diameter)
    only_inside = pack_figure(measured(reading("element.outside_diameter"), reading("element.inside_diameter", "80 mm")))
    assert only_inside.outside_diameter > 80e-3
    rooms = {count: pack_figure(measured(reading("element.pleat_count", count))).crowding for count in ("54", "64", "140")}
    assert rooms == {"54": "enough", "64": "crowded", "140": "cannot_fit"}  # 22 %, 8 %, -102 % open
    assert blank.crowding == "unknown"


def claim(**more):
    return {
        "kind": "efficiency",
        "source": "box",
        "relation": ">=",
        "efficiency_percent": 99,
        "size_um": 20,
        "scale": "um(c)",
    } | more


def test_claims_and_the_estimate_stand_side_by_side_each_for_what_it_is():
    stale, old, sizeless = claim(stale="older than this design"), claim(size_um=50, scale="um"), claim()
    del sizeless["size_um"], sizeless["scale"]
    actual = efficiency_evidence(measured(("samples/0/claims", [stale, sizeless, old, claim(), claim(relation="=", size_um=25)])))
    reasons = ["marked stale: older than this design", "it states no size, or a range of sizes", "its size lies outside the old"]
    assert all(item.why_not.startswith(reason) for item, reason in zip(actual.claims, reasons, strict=False))
    assert [item.is_used for item in actual.claims] == [False, False, False, True, False]
    used, point = actual.claims[3:]
    assert (used.at_20_um.low, used.at_20_um.high, used.at_20_um.value) == (pytest.approx(0.99), None, None)
    # β = 100 at 25 µm: at 20 µm β − 1 = 99·0.8^m for slopes m of 2 and 6
    assert point.at_20_um.high == pytest.approx(1 - 1 / (1 + 99 * 0.8**2))
    assert point.at_20_um.low == pytest.approx(1 - 1 / (1 + 99 * 0.8**6))
    assert len(actual.estimate) == len(DRAWN_SIZES)
    assert all(item.low <= item.value <= item.high for item in actual.estimate)
    values = [item.value for item in actual.estimate]
    assert values == sorted(values)


def test_without_a_family_there_is_no_estimate():
    answer = efficiency_evidence(measured(("samples/0/media_family", None)))
    assert (answer.claims, answer.medium, answer.estimate) == ((), None, ())

"""The likely error is named: values worked by hand."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, QUANTITIES
from tabrel.core.entry.likely_errors import question
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.review.echo import echo, questions
from tabrel.core.review.reading_warnings import quantity_warnings
from tabrel.core.study.model import Reading


def asked(key, text):
    quantity = QUANTITIES.get(key) or HOLE_QUANTITIES[key]
    return question(quantity, text, parse_reading(text, quantity.dimension))


@pytest.mark.parametrize(
    ("key", "text", "words", "meant"),
    [
        ("can.wall_thickness", "4.7 mm", "ten times too large", "0.47 mm"),
        ("can.wall_thickness", "0.19 in", "ten times too large", "0.019 in"),
        ("can.height", "9.84 mm", "ten times too small", "98.4 mm"),
        ("can.height", "0.984 mm", "a hundred times too small", "98.4 mm"),
        ("media.strip_length", "1.76 mm", "a thousand times too small", "1760 mm"),
        ("media.thickness", "33 mm", "thousandths of an inch typed as mm", "33 thou"),
        ("can.height", "2.9 mm", "inches typed as mm", "2.9 in"),
        ("gasket.outside_diameter", "71.6 in", "mm typed as inches", "71.6 mm"),
        ("element.inside_diameter", "37 thou", "mm typed as thousandths of an inch", "37 mm"),
        ("can.outside_diameter", "38 mm", "the radius for the diameter", "76 mm"),
        ("media.blocked_area", "1200 cm2", "mm2 typed as cm2", "1200 mm2"),
        ("element.pleat_count", "540", "ten times too large", "54"),
        ("filter.mass", "15.4 g", "ounces typed as grams", "15.4 oz"),
        ("filter.mass", "412 oz", "grams typed as ounces", "412 g"),
        ("bypass.opening_pressure", "14 kPa", "psi typed as kPa", "14 psi"),
        ("diameter", "13/64 mm", "inches typed as mm", "13/64 in"),
        ("can.outside_diameter", "2 63/64 mm", "inches typed as mm", "2 63/64 in"),
    ],
)
def test_each_slip_is_named_with_what_was_meant(key, text, words, meant):
    sentence, correction = asked(key, text)
    assert words in sentence
    assert correction == meant


def test_a_reading_that_no_slip_explains_is_questioned_without_a_guess():
    sentence, correction = asked("element.pleat_count", "7000000")
    assert correction is None
    assert sentence.endswith("check the number and its unit")


def test_two_slips_that_fit_are_both_named_and_the_likelier_is_offered():
    sentence, correction = asked("gasket.protrusion", "25 mm")
    assert correction == "2.5 mm"
    assert "Or thousandths of an inch typed as mm, 25 thou (0.635 mm)?" in sentence


@pytest.mark.parametrize(("key", "text"), [("can.height", "98.4 mm"), ("gasket.protrusion", "0 mm"), ("can.height", "40 mm")])
def test_a_usual_reading_is_not_questioned(key, text):
    assert asked(key, text) is None


@given(st.sampled_from(sorted(QUANTITIES)), st.floats(1e-7, 1e5, allow_nan=False))
def test_what_is_offered_lies_in_the_usual_range(key, value):
    quantity = QUANTITIES[key]
    text = f"{value:.6g} {quantity.metric_unit}".strip()
    result = question(quantity, text, parse_reading(text, quantity.dimension))
    if result and result[1]:
        meant = parse_reading(result[1], quantity.dimension).value
        assert quantity.usual_low * 0.9999 <= meant <= quantity.usual_high * 1.0001


def test_an_outlier_among_good_ones_is_questioned_with_its_slip():
    wall = QUANTITIES["can.wall_thickness"]
    good = [Reading(text) for text in ("0.81 mm", "0.80 mm", "0.82 mm", "0.81 mm")]
    computed = questions([Reading("0.80 mm"), Reading("0.081 mm")], wall, good)
    assert computed[0] is None
    assert computed[1][1] == "0.81 mm"
    computed = questions([Reading("1.0 mm")], wall, good)
    assert "9 times what repeating one explains" in computed[0][0]  # s = 0.085 mm of five, a micrometer repeats to 0.01 mm
    slipped = questions([Reading("1.2 mm")], wall, good)
    assert slipped[0] == ("1.2 mm does not fit the other readings of the wall thickness: measure it again or set it aside", None)


def test_readings_that_spread_far_more_than_repeating_explains_are_asked_about_until_one_is_confirmed():
    """A caliper repeats to 0.03 mm: two readings 0.15 mm apart have s = 0.106 mm, those 0.1 mm apart 0.071 mm."""
    height = QUANTITIES["can.height"]
    assert questions([Reading("98.10 mm")], height, [Reading("98.00 mm")]) == [None]
    [asked] = questions([Reading("98.15 mm")], height, [Reading("98.00 mm")])
    assert asked[0].startswith("the readings lie between 98 mm (3.858 in) and 98.15 mm")
    readings = [Reading("98.00 mm"), Reading("98.15 mm")]
    assert [warning.code for warning in quantity_warnings("can.height", height, readings)] == ["spread"]
    insisted = [readings[0], replace(readings[1], confirmed=True)]
    assert list(quantity_warnings("can.height", height, insisted)) == []
    by_eye = [readings[0], replace(readings[1], provenance="by_eye")]
    assert list(quantity_warnings("can.height", height, by_eye)) == []


def test_what_differs_between_holes_is_no_slip_and_what_differs_within_one_is():
    hole = HOLE_QUANTITIES["diameter"]
    one, other = Reading("6.10 mm", hole=1), Reading("5.62 mm", hole=2)
    assert list(quantity_warnings("holes.inlet[0].diameter", hole, [one, other])) == []
    [warning] = quantity_warnings("holes.inlet[0].diameter", hole, [one, other, Reading("5.90 mm", hole=2)])
    assert (warning.code, "between 5.62 mm" in warning.message) == ("spread", True)


def test_the_echo_offers_the_whole_line_corrected_and_the_mean_it_would_make():
    wall = QUANTITIES["can.wall_thickness"]
    understood = echo("0.47, 4.6, 0.48 mm", wall, "metric", used=[Reading("0.47 mm")])
    assert understood.correction == "0.47 mm, 0.46 mm, 0.48 mm"
    assert understood.estimate.value == pytest.approx((0.47 + 4.6 + 0.48 + 0.47) / 4 * 1e-3)
    assert understood.metric == "0.47 mm, 4.6 mm, 0.48 mm"


def test_a_length_typed_for_an_area_is_refused_with_the_area_meant():
    understood = echo("45 mm", QUANTITIES["media.blocked_area"], "metric")
    assert "measures length" in understood.problem
    assert understood.correction == "45 mm2"


def test_a_state_is_echoed_and_refused_beside_readings():
    mass = QUANTITIES["can.mass"]
    assert echo("lost", mass, "metric").metric == "lost"
    assert "set them aside first" in echo("lost", mass, "metric", used=[Reading("90 g")]).problem


@pytest.mark.parametrize(
    ("text", "used", "says"),
    [
        ("54.5", (), "no whole number"),
        ("55", ("54",), "55 in this count and 54 in another"),
        ("54", ("54", "54"), None),
        ("54 to 55", ("54",), None),
    ],
)
def test_pleats_are_whole_and_counted_alike(text, used, says):
    quantity = QUANTITIES["element.pleat_count"]
    answer = echo(text, quantity, "metric", used=[Reading(item) for item in used])
    assert (answer.question is None) if says is None else says in answer.question
    warnings = [*quantity_warnings("element.pleat_count", quantity, [Reading(item) for item in (*used, text)])]
    assert bool(warnings) == (says is not None)


def test_half_a_coil_is_no_question():
    assert echo("6.5", QUANTITIES["bypass.spring_total_coils"], "metric").question is None

"""Sizes with which the bypass valve is drawn: as measured, and marked where a typical one stands in."""

from __future__ import annotations

import pytest

from builders import reading, study
from tabrel.core.figures.valve_sizes import valve_form, valve_sizes
from tabrel.core.sample.measured_sample import measure_sample

KEYS = (
    "seat_inside_diameter",
    "seat_outside_diameter",
    "lift_limit",
    "spring_wire_diameter",
    "spring_outside_diameter",
    "spring_total_coils",
    "spring_free_length",
    "spring_installed_length",
    "opening_force",
    "opening_pressure",
)
NOTHING = tuple(reading(f"bypass.{key}") for key in KEYS if f"bypass.{key}" in study().samples[0].readings)
WHOLE = (
    *NOTHING,
    reading("bypass.seat_inside_diameter", "14 mm"),
    reading("bypass.seat_outside_diameter", "16 mm"),
    reading("bypass.spring_installed_length", "18 mm"),
    reading("bypass.lift_limit", "3 mm"),
    reading("bypass.spring_wire_diameter", "1.25 mm"),
    reading("bypass.spring_outside_diameter", "13.25 mm"),
    reading("bypass.spring_total_coils", "6"),
)


def sizes(*changes):
    whole = study(*changes)
    return valve_sizes(measure_sample(whole.samples[0], whole.circuit))


def test_what_was_measured_is_drawn():
    drawn = sizes(*WHOLE)
    assert (drawn.seat_inside, drawn.seat_outside, drawn.lift) == pytest.approx((14e-3, 16e-3, 3e-3))
    assert (drawn.spring_width, drawn.spring_length) == pytest.approx((12e-3, 18e-3))  # 13.25 − 1.25 between wire middles
    assert (drawn.wire, drawn.coils, drawn.form, drawn.is_typical) == (pytest.approx(1.25e-3), 6.0, "coil", False)


def test_a_valve_of_which_nothing_is_known_is_drawn_typical():
    drawn = sizes(*NOTHING)
    assert drawn.is_typical
    assert drawn.half_open_pressure is None
    assert 0 < drawn.seat_inside < drawn.seat_outside < drawn.disc
    assert 0 < drawn.lift < drawn.spring_length


def test_a_seat_typed_the_wrong_way_round_is_drawn_with_the_larger_outside():
    swapped = (*WHOLE, reading("bypass.seat_inside_diameter", "16 mm"), reading("bypass.seat_outside_diameter", "14 mm"))
    drawn = sizes(*swapped)
    assert (drawn.seat_inside, drawn.seat_outside) == pytest.approx((14e-3, 16e-3))


@pytest.mark.parametrize("key", ["seat_inside_diameter", "seat_outside_diameter"])
def test_half_a_seat_is_completed_with_a_typical_land(key):
    drawn = sizes(*NOTHING, reading(f"bypass.{key}", "15 mm"))
    assert drawn.is_typical
    assert 0 < drawn.seat_outside - drawn.seat_inside < 3e-3
    assert 15e-3 in (pytest.approx(drawn.seat_inside), pytest.approx(drawn.seat_outside))


def test_a_spring_shorter_than_the_lift_is_still_drawn_longer_than_it():
    drawn = sizes(*WHOLE, reading("bypass.lift_limit", "25 mm"))
    assert drawn.spring_length > drawn.lift == pytest.approx(25e-3)


@pytest.mark.parametrize(
    ("kind", "form"),
    [
        ("leaf spring", "leaf"),
        ("combined with the anti-drainback valve", "flap"),
        ("flap", "flap"),
        ("ball", "coil"),
        ("", "coil"),
    ],
)
def test_the_kind_in_words_says_how_it_moves(kind, form):
    assert valve_form(kind) == form

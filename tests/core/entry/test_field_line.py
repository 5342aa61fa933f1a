"""Meaning of one line typed into a field."""

from __future__ import annotations

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, QUANTITIES
from tabrel.core.catalogue.terms import STATE_WORDS
from tabrel.core.entry.field_line import state_of, understand_entry
from tabrel.core.entry.hole_line import understand_hole_group
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.errors import ReadingTextError
from tabrel.core.review.echo import echo
from tabrel.core.rules.study import check_hole_group

WALL = QUANTITIES["can.wall_thickness"]
HOLE = HOLE_QUANTITIES["diameter"]


def texts(line, quantity=WALL, family="metric", **more):
    return [reading.text for reading in understand_entry(line, quantity, family, **more).readings]


@pytest.mark.parametrize(
    ("line", "family", "expected"),
    [
        ("0.47, 0.52, 0.48 mm", "metric", ["0.47 mm", "0.52 mm", "0.48 mm"]),
        ("0.47, 0.52, 0.48", "inch", ["0.47 in", "0.52 in", "0.48 in"]),
        ("0.47,0.52,0.48", "metric", ["0.47 mm", "0.52 mm", "0.48 mm"]),
        ("0,47; 0,46 mm", "metric", ["0,47 mm", "0,46 mm"]),
        ("0,47, 0,46", "metric", ["0,47 mm", "0,46 mm"]),
        ("0,47", "metric", ["0,47 mm"]),
        ("12 thou, 0.31 mm", "metric", ["12 thou", "0.31 mm"]),
        ("0.47 mm, 12", "inch", ["0.47 mm", "12 in"]),
        ("3/8, 25/64 in", "metric", ["3/8 in", "25/64 in"]),
        ("2 15/16, 3 7/16", "inch", ["2 15/16 in", "3 7/16 in"]),
        ("drill 13/64, 4.4 mm", "metric", ["drill 13/64", "4.4 mm"]),
        ("go 13/64 nogo 7/32", "metric", ["go 13/64 nogo 7/32"]),
        ("5 ft 3 in", "metric", ["5 ft 3 in"]),
        ("+0012.34", "metric", ["+0012.34 mm"]),
        ("0,47 0,52 0,48", "metric", ["0,47 mm", "0,52 mm", "0,48 mm"]),
        ("0.47 .52 0.48 mm", "inch", ["0.47 mm", ".52 mm", "0.48 mm"]),
        ("2-15/16", "inch", ["2-15/16 in"]),
        ("#16, 4.4", "metric", ["#16", "4.4 mm"]),
        ("go 4.4 no-go 4.5", "metric", ["go 4.4 mm nogo 4.5 mm"]),
        ("go 0,17 nogo 0,18", "inch", ["go 0,17 in nogo 0,18 in"]),
        ("  0.47   mm ", "inch", ["0.47 mm"]),
    ],
)
def test_a_bare_number_takes_the_next_unit_or_the_fields(line, family, expected):
    assert texts(line, family=family) == expected


@pytest.mark.parametrize(
    ("line", "text", "provenance", "instrument", "note"),
    [
        ("~12 mm", "12 mm", "by_eye", None, None),
        ("about 12", "12 mm", "by_eye", None, None),
        ("12 mm by eye", "12 mm", "by_eye", None, None),
        ("0.47 published (catalogue)", "0.47 mm", "published", None, "catalogue"),
        ("0.47 mm assumed", "0.47 mm", "assumed", None, None),
        ("0.47 mm derived", "0.47 mm", "derived", None, None),
        ("0.47 mm measured", "0.47 mm", None, None, None),
        ("0.47 with caliper", "0.47 mm", None, "caliper", None),
        ("~0.47 mm with a tape (beside the seam)", "0.47 mm", "by_eye", "tape", "beside the seam"),
    ],
)
def test_words_say_where_a_value_comes_from(line, text, provenance, instrument, note):
    reading = understand_entry(line, WALL, "metric").readings[0]
    assert (reading.text, reading.provenance, reading.instrument, reading.note) == (text, provenance, instrument, note)


@pytest.mark.parametrize(("words", "state"), [(word, state) for state, words in STATE_WORDS.items() for word in words])
def test_a_state_is_no_reading(words, state):
    entry = understand_entry(words.upper(), WALL, "metric")
    assert (entry.readings, entry.state) == ((), state)
    assert state_of("0 mm") is None


def test_a_count_belongs_to_holes_only():
    entry = understand_entry("8 x 5.6, 5.7 mm", HOLE, "metric", counted=True)
    assert (entry.count, [reading.text for reading in entry.readings]) == (8, ["5.6 mm", "5.7 mm"])
    assert understand_entry("5 × drill 13/64", HOLE, "metric", counted=True).count == 5
    with pytest.raises(ReadingTextError, match="counts no holes"):
        understand_entry("0 x 5.6 mm", HOLE, "metric", counted=True)
    with pytest.raises(ReadingTextError, match=r"takes sizes only: type '5\.6 mm'"):
        understand_entry("8 x 5.6 mm", WALL, "metric")


@pytest.mark.parametrize(
    ("line", "says"),
    [("", "empty"), (" , ", "empty"), ("~", "empty|not a number"), ("0.47 with scale", "take one of caliper, micrometer, tape")],
)
def test_what_is_not_understood_says_how_to_mend_it(line, says):
    assert re.search(says, str(echo(line, WALL, "metric").problem))


@given(st.lists(st.decimals(min_value="0.01", max_value="99", places=2), min_size=1, max_size=6))
def test_several_readings_come_back_one_by_one(values):
    line = ", ".join(str(value) for value in values) + " mm"
    assert texts(line) == [f"{value} mm" for value in values]


@pytest.mark.parametrize(
    ("line", "shape", "count", "sizes", "share"),
    [
        ("8 x 5.6 mm", "round", 8, {"diameter": ("5.6 mm",)}, None),
        ("8x5.6", "round", 8, {"diameter": ("5.6 mm",)}, None),
        ("5 x drill 13/64", "round", 5, {"diameter": ("drill 13/64",)}, None),
        ("6 x 5.6, 5.7 mm", "round", 6, {"diameter": ("5.6 mm", "5.7 mm")}, None),
        ("2 x slot 9 x 4", "slot", 2, {"length": ("9 mm",), "width": ("4 mm",)}, None),
        ("3 x slots 3/8 x 1/8 in 50% open", "slot", 3, {"length": ("3/8 in",), "width": ("1/8 in",)}, 0.5),
        ("1 x d 9 by 7 mm", "d", 1, {"diameter": ("9 mm",), "height": ("7 mm",)}, None),
        ("2 x ellipse 9 x 5 mm", "ellipse", 2, {"length": ("9 mm",), "width": ("5 mm",)}, None),
        ("2 x rectangle 9 x 4 mm", "rectangle", 2, {"length": ("9 mm",), "width": ("4 mm",)}, None),
        (
            "2 x rectangle 9 x 4 x 1 mm on 46 mm",
            "rectangle",
            2,
            {"length": ("9 mm",), "width": ("4 mm",), "corner_radius": ("1 mm",), "circle_diameter": ("46 mm",)},
            None,
        ),
        ("4 x round holes 5 mm", "round", 4, {"diameter": ("5 mm",)}, None),
    ],
)
def test_a_line_makes_a_group_of_holes(line, shape, count, sizes, share):
    group = understand_hole_group(line, "metric")
    check_hole_group("holes", group)
    assert (group.shape, group.count, dict(group.readings.by_dimension()), group.open_fraction) == (shape, count, sizes, share)


def test_an_outline_is_typed_as_points():
    group = understand_hole_group("1 x outline 0 0, 4 0, 4 3.5, -1 2", "metric")
    assert group.readings.points_mm == ((0.0, 0.0), (4.0, 0.0), (4.0, 3.5), (-1.0, 2.0))


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("5.6 mm", "how many holes"),
        ("round 5.6 mm", "how many holes"),
        ("2 x slot 9 mm", "takes length, width"),
        ("2 x slott 9 x 4 mm", "did you mean 'slot'"),
        ("3 x lost", "no shape of a hole"),
        ("8 x 5.6 mm 150 % open", "more than the whole hole"),
    ],
)
def test_a_line_that_is_no_group_says_how_to_type_it(line, says):
    with pytest.raises(ReadingTextError, match=says):
        understand_hole_group(line, "metric")


def test_threads_per_inch_are_a_pitch():
    assert parse_reading("16 tpi", "length").value == pytest.approx(25.4e-3 / 16)
    with pytest.raises(ReadingTextError, match="threads per inch measures a length"):
        parse_reading("16 tpi", "mass")
    with pytest.raises(ReadingTextError, match="counts no threads"):
        parse_reading("0 tpi", "length")


@pytest.mark.parametrize(
    ("line", "shape", "count", "sizes"),
    [
        ("6 x letter F", "round", 6, {"diameter": ("drill letter F",)}),
        ("6 x drill #16", "round", 6, {"diameter": ("drill #16",)}),
        ("6 drill 13/64", "round", 6, {"diameter": ("drill 13/64",)}),
        ("8 holes at 6.1 mm", "round", 8, {"diameter": ("6.1 mm",)}),
        ("8 holes 6.1 mm on 46 mm", "round", 8, {"diameter": ("6.1 mm",), "circle_diameter": ("46 mm",)}),
        ("2 x elongated 9 x 4 mm", "slot", 2, {"length": ("9 mm",), "width": ("4 mm",)}),
        ("1 x flat edge 9 x 7 mm", "d", 1, {"diameter": ("9 mm",), "height": ("7 mm",)}),
        ("2 x slot 9,5 x 4,2 mm", "slot", 2, {"length": ("9,5 mm",), "width": ("4,2 mm",)}),
    ],
)
def test_a_line_of_holes_in_the_words_of_the_workshop(line, shape, count, sizes):
    group = understand_hole_group(line, "metric")
    assert (group.shape, group.count) == (shape, count)
    assert {name: getattr(group.readings, name) for name in sizes} == sizes


@pytest.mark.parametrize(
    ("line", "family", "right"),
    [
        ("6 x r 3 mm", "metric", "type 6 x 6 mm"),
        ("6 x radius 1/8 in", "inch", "type 6 x 1/4 in"),
        ("2 x oval 9 x 4 mm", "metric", "type 2 x slot 9 x 4 mm, or 2 x ellipse 9 x 4 mm"),
        ("letter F", "metric", "type it like 6 x letter F"),
        ("6 x 5 mm and 2 x slot 9 x 4 mm", "metric", "type 6 x 5 mm, Enter, then 2 x slot 9 x 4 mm"),
        ("6 x 5 mm, 2 x slot 9 x 4 mm", "metric", "type 6 x 5 mm, Enter, then 2 x slot 9 x 4 mm"),
        ("some holes", "inch", "type it like 8 x 7/32 in"),
        ("some holes", "metric", "type it like 8 x 5.6 mm"),
    ],
)
def test_a_line_of_holes_that_cannot_be_taken_says_the_right_form(line, family, right):
    with pytest.raises(ReadingTextError) as refused:
        understand_hole_group(line, family)
    assert right in str(refused.value)

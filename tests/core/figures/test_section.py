"""The section through the whole filter: it is to scale, it always draws, and it says what cannot be."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import reading, study
from tabrel.core.figures.section_layout import section_layout
from tabrel.core.figures.section_sizes import TYPICAL, section_sizes
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.sample.measured_sample import measure_sample

CAN = (
    reading("can.outside_diameter", "76 mm"),
    reading("can.height", "98 mm"),
    reading("can.wall_thickness", "0.45 mm"),
    reading("element.height", "78 mm"),
)
NO_CAN = ("samples/0/states", {"can.height": "not_applicable"})


def measured(*changes):
    whole = study(*changes)
    return measure_sample(whole.samples[0], whole.circuit)


def extent(parts, axis):
    values = [point[axis] for part in parts for point in part.outline]
    return min(values), max(values)


def test_parts_lie_where_they_were_measured():
    layout = section_layout(measured(*CAN))
    by_key = {}
    for part in layout.parts:
        by_key.setdefault(part.key, []).append(part)
    assert extent(by_key["can.wall_thickness"], 0) == pytest.approx((0, 38e-3))
    assert extent(by_key["can.wall_thickness"], 1) == pytest.approx((0, 98e-3))
    media = by_key["media.thickness"]
    assert extent(media, 0) == pytest.approx((36.2e-3 / 2, 66.4e-3 / 2))
    low, high = extent(media, 1)
    assert high - low == pytest.approx(78e-3 - 2 * 2.5e-3)  # between the potting
    plate = extent(by_key["plate.thickness"], 1)
    assert plate[1] - plate[0] == pytest.approx(2.6e-3)
    assert layout.problems == ()


def test_dimensions_are_as_long_as_what_they_measure():
    sample = measured(*CAN)
    sizes = section_sizes(sample)
    for dimension in section_layout(sample).dimensions:
        (x0, y0), (x1, y1) = dimension.start, dimension.end
        length = ((x1 - x0) ** 2 + (y1 - y0) ** 2) ** 0.5
        assert length == pytest.approx(sizes[dimension.key]), dimension.key
    lengths = {item.key: item.end[0] - item.start[0] for item in section_layout(sample).dimensions}
    assert lengths["can.inside_diameter"] == pytest.approx(71e-3)  # as measured, whatever outside and wall make of it
    assert section_sizes(measured(*CAN, reading("can.inside_diameter")))["can.inside_diameter"] == pytest.approx(75.1e-3)


def test_what_was_not_measured_is_marked_and_follows_the_scale_of_what_was():
    bare = measured(*((f"samples/0/readings/{key}", None) for key in study().samples[0].readings))
    assert all(part.guessed for part in section_layout(bare).parts)
    whole = {part.key: part.guessed for part in section_layout(measured(*CAN)).parts}
    assert not whole["can.wall_thickness"]
    assert not whole["media.thickness"]
    assert whole["gasket.thickness"]
    large = section_sizes(measured(reading("can.outside_diameter", "152 mm"), reading("element.outside_diameter")))
    assert large["element.outside_diameter"] == pytest.approx(2 * TYPICAL["element.outside_diameter"])
    around = section_sizes(measured(reading("can.circumference", "238.76 mm")))
    assert around["can.outside_diameter"] == pytest.approx(76e-3, rel=1e-4)


def test_the_inlet_holes_lie_on_their_circle():
    groups = [{"shape": "round", "count": 7, "readings": {"diameter": ["5.6 mm"], "circle_diameter": ["44 mm"]}}]
    layout = section_layout(measured(("samples/0/holes/inlet", groups), reading("thread.major_diameter", "20 mm")))
    inner, outer = sorted((part for part in layout.parts if part.key == "plate.thickness"), key=lambda part: part.outline[0][0])
    assert max(x for x, _ in inner.outline) == pytest.approx(22e-3 - 2.8e-3)
    assert min(x for x, _ in outer.outline) == pytest.approx(22e-3 + 2.8e-3)
    assert not inner.guessed


def test_a_cartridge_has_no_can():
    layout = section_layout(measured(NO_CAN))
    keys = {part.key for part in layout.parts}
    assert "can.wall_thickness" not in keys
    assert "gasket.thickness" not in keys
    assert {"media.thickness", "element.height"} <= keys
    assert not any(dimension.key.startswith(("can.", "gasket.")) for dimension in layout.dimensions)
    assert layout.radius == pytest.approx(66.4e-3 / 2)


def test_the_oil_goes_in_through_media_and_out_and_past_it_where_the_valve_sits():
    def kinds(*changes):
        return [way.kind for way in section_layout(measured(*changes)).ways]

    assert kinds().count("bypass") == 1
    assert "bypass" not in kinds(("samples/0/bypass/location", "none"))
    place = ("samples/0/bypass/location", "thread_end")
    thread, dome = section_layout(measured(place)), section_layout(measured())
    [low] = [way for way in thread.ways if way.kind == "bypass"]
    [high] = [way for way in dome.ways if way.kind == "bypass"]
    assert max(y for _, y in low.points) < max(y for _, y in high.points)
    for way in (*thread.ways, *dome.ways):
        assert all(item != other for item, other in pairwise(way.points))


@pytest.mark.parametrize("place", ["dome_end", "thread_end", "block", "none"])
def test_the_tube_is_closed_at_the_dome_by_its_cap_or_its_valve(place):
    layout = section_layout(measured(*CAN, ("samples/0/bypass/location", place)))
    top = max(y for part in layout.parts if part.material == "media" for _, y in part.outline) + 2.5e-3  # and its potting
    at_axis = [part for part in layout.parts if any(x == 0 and abs(y - top) < 1e-9 for x, y in part.outline)]
    assert {part.material for part in at_axis} == ({"rubber"} if place == "dome_end" else {"steel"})


def test_an_element_its_can_cannot_hold_is_said_at_the_reading():
    no_inside = reading("can.inside_diameter")
    for change, where in (
        (reading("element.height", "120 mm"), "element.height"),
        (reading("element.height", "96 mm"), "element.height"),  # with 2.6 mm of plate and 0.45 mm of wall in 98 mm
        (reading("element.outside_diameter", "80 mm"), "element.outside_diameter"),
    ):
        sample = measured(*CAN, no_inside, change)
        [problem] = section_layout(sample).problems
        assert problem.where == where
        assert problem.code in {warning.code for warning in analyse_measured(sample).warnings}


def test_a_typical_size_accuses_nobody():
    nothing_else = (reading("can.wall_thickness"), reading("plate.thickness"), reading("can.inside_diameter"))
    assert section_layout(measured(*CAN, *nothing_else, reading("element.height", "97 mm"))).problems == ()
    assert section_layout(measured(*CAN, *nothing_else, reading("element.height", "99 mm"))).problems != ()
    unknown = section_layout(measured(reading("element.height", "200 mm"), reading("element.outside_diameter", "120 mm")))
    assert unknown.problems == ()


@settings(max_examples=60, deadline=None)
@given(st.dictionaries(st.sampled_from(sorted(key for key in TYPICAL if not key.startswith("hole."))), st.floats(0.2, 300)))
def test_whatever_was_read_the_section_draws(sizes):
    layout = section_layout(measured(*(reading(key, f"{value:.3f} mm") for key, value in sizes.items())))
    assert layout.top > layout.bottom
    assert layout.radius > 0
    for part in layout.parts:
        assert len(part.outline) >= 4
        assert all(abs(x) < 10 and abs(y) < 10 for x, y in part.outline)

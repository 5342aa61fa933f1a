"""Drawings lie on the core's own coordinates, on paper and on screen."""

from __future__ import annotations

import json
import re
from math import hypot
from xml.etree import ElementTree

import pytest

from builders import changed, plain_document, reading
from tabrel.api.catalogue.routes import catalogue_out
from tabrel.cli.demo import demo_documents
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.figures.media_deductions import strip_areas
from tabrel.core.figures.pleat_pack import pack_figure
from tabrel.core.figures.section_layout import section_layout
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.document.study_document import read_study
from tabrel.report.figures.drawings import section_drawing
from tabrel.report.figures.map_chart import map_chart, one_two_five
from tabrel.report.figures.media_drawings import lost_patches, pack_drawing, pleat_points, strip_drawing
from tabrel.report.figures.palette import FIELD
from tabrel.report.figures.plate_drawing import plate_drawing
from tabrel.report.figures.svg import Drawing
from tabrel.report.figures.valve_drawing import valve_drawing
from tabrel.report.inputs import ReportInputs

SVG = "{http://www.w3.org/2000/svg}"


def measured(document=None):
    study = read_study(json.dumps(document or plain_document()))
    return measure_sample(study.samples[0], study.circuit)


def paths(svg):
    return [item.get("d") for item in ElementTree.fromstring(svg).iter(f"{SVG}path")]


def points(d):
    return [(float(x), -float(y)) for x, y in re.findall(r"(-?[\d.]+) (-?[\d.]+)", d)]


def test_every_part_of_the_section_is_drawn_on_both_sides_where_the_core_has_it():
    here = measured()
    drawn = [points(d) for d in paths(section_drawing(here, "metric").svg)]
    for part in section_layout(here).parts:
        if part.material == "spring":
            continue
        for side in (1, -1):
            outline = [(side * x * 1e3, y * 1e3) for x, y in part.outline]
            assert any(
                len(item) == len(outline)
                and all(hypot(a - c, b - d) < 2e-3 for (a, b), (c, d) in zip(item, outline, strict=True))
                for item in drawn
            ), part.key


def test_every_measured_size_of_the_section_has_its_number_and_its_value():
    here = measured()
    drawn = section_drawing(here, "metric")
    wanted = {dimension.key for dimension in section_layout(here).dimensions if dimension.key in here.estimates}
    assert len(drawn.sizes) == len(wanted)
    assert [size.number for size in drawn.sizes] == [str(i + 1) for i in range(len(wanted))]
    written = {item.text for item in ElementTree.fromstring(drawn.svg).iter(f"{SVG}text")}
    assert {size.number for size in drawn.sizes} <= written
    assert all("±" in size.words for size in drawn.sizes)


def test_every_hole_of_the_plate_is_drawn_and_each_group_is_lettered():
    here = measured()
    drawn = plate_drawing(here, "metric")
    outlines = [points(d) for d in paths(drawn.svg)]
    for hole in here.plate.holes:
        corners = [(x * 1e3, y * 1e3) for x, y in hole.outline]
        assert any(
            len(outline) == len(corners) and hypot(outline[0][0] - corners[0][0], outline[0][1] - corners[0][1]) < 2e-3
            for outline in outlines
        )
    assert [size.number for size in drawn.sizes if size.number.isalpha()] == ["A"]


def test_holes_that_cannot_lie_so_are_said_and_drawn_in_rust():
    drawn = plate_drawing(measured(changed(("samples/0/holes/inlet/0/readings/diameter", ["30 mm"]))), "metric")
    assert "#8a3417" in drawn.svg
    assert drawn.note


def test_the_pack_has_two_corners_a_pleat_between_its_diameters():
    pack = pack_figure(measured())
    corners = pleat_points(pack)
    assert len(corners) == 2 * pack.count
    radii = [hypot(x, y) for x, y in corners]
    assert max(radii) <= pack.outside_diameter / 2 * 1e3
    assert min(radii) >= (pack.outside_diameter / 2 - pack.depth) * 1e3
    assert "%" in pack_drawing(measured(), "metric").note


def test_what_is_hatched_of_the_strip_is_what_the_core_takes_off():
    here = measured()
    strip = strip_areas(here)
    lost = sum(width * height for _, _, _, width, height in lost_patches(strip))
    assert lost / 100 == pytest.approx((strip.gross - strip.effective) * 1e4, rel=1e-9)  # mm² and m² in cm²


def test_without_strip_and_element_there_is_no_strip_to_draw():
    blank = {"format": "tabrel-study", "version": 1, "name": "blank", "samples": [{"label": "A"}]}
    assert strip_drawing(measured(blank), "metric") is None
    assert section_drawing(measured(blank), "metric").sizes == ()
    assert "typical" in plate_drawing(measured(blank), "metric").note


def test_sizes_are_told_in_the_family_that_is_asked_for():
    words = [size.words for size in section_drawing(measured(changed(reading("can.height", "98.4 mm"))), "inch").sizes]
    assert words
    assert all(word.split(",")[0].endswith(" in") for word in words)


def test_a_text_in_a_drawing_is_text():
    drawing = Drawing(0, 0, 10, 10, 'a <b> & "c"')
    drawing.text((1, 1), "<script>", size=5, ink="#000")
    tree = ElementTree.fromstring(drawing.svg())
    assert next(tree.iter(f"{SVG}title")).text == 'a <b> & "c"'
    assert [item.text for item in tree.iter(f"{SVG}text")] == ["<script>"]


DRAWINGS = (section_drawing, plate_drawing, pack_drawing, strip_drawing, valve_drawing)


def numbers(d):
    return [float(number) for number in re.findall(r"-?\d+\.?\d*", d)]


@pytest.mark.parametrize("draw", DRAWINGS)
def test_the_screen_shows_what_is_printed_and_each_part_leads_to_a_reading(draw):
    here = measured()
    live, printed = ElementTree.fromstring(draw(here).svg), draw(here, "metric").svg
    picked = {item.get("data-pick") for item in live.iter("g")} - {None}
    assert picked
    assert all(key in QUANTITIES or key.startswith("holes.inlet[") for key in picked)
    assert {key for item in live.iter("g") for key in item.get("data-lit", "").split()} >= picked - NOT_LIT
    for family in live.iter("tspan"):
        assert family.get("data-family") in ("metric", "inch")
    largest = max((len(numbers(item.get("d"))) for item in live.iter("path")), default=0)
    drawn = max((item.get("d") for item in live.iter("path")), key=lambda d: len(numbers(d)))
    there = {round(number, 1) for d in paths(printed) for number in numbers(d)}
    assert largest > 4
    if draw is not strip_drawing:  # which is laid in rows of another length on paper
        assert all(min(abs(number - other) for other in there) < 0.11 for number in numbers(drawn))


NOT_LIT = {"bypass.spring_wire_diameter", "bypass.seat_inside_diameter", "gasket.outside_diameter"}
"""Parts that other readings light too, or their circle."""


def test_a_size_in_hand_is_told_in_both_families_and_lit_by_what_gives_it():
    here = measured(changed(reading("can.outside_diameter", "76.15 mm"), reading("can.wall_thickness", "0.468 mm")))
    sizes = {item.get("data-lit"): "".join(item.itertext()) for item in ElementTree.fromstring(plate_drawing(here).svg).iter("g")}
    assert sizes["can.outside_diameter can.circumference"] == "⌀ 76.15 mm⌀ 2.998 in"
    assert any(key and key.startswith("circuit.stud engine.stud_bore") for key in sizes)
    section = ElementTree.fromstring(section_drawing(here).svg)
    [wall] = [item for item in section.iter("g") if item.get("data-size") and item.get("data-lit") == "can.wall_thickness"]
    assert "".join(wall.itertext()) == "0.468 mm0.0184 in"


def test_a_size_that_nobody_measured_says_so():
    blank = {"format": "tabrel-study", "version": 1, "name": "blank", "samples": [{"label": "A"}]}
    for draw, words in ((section_drawing, ", not measured"), (plate_drawing, ", typical")):
        sizes = [item for item in ElementTree.fromstring(draw(measured(blank)).svg).iter("g") if item.get("data-size")]
        assert len(sizes) > 3
        assert all(span.text.endswith(words) for size in sizes for span in size.iter("tspan"))
    assert "typical sizes among them" in pack_drawing(measured(blank)).alt
    assert valve_drawing(measured(blank)).note == "Typical sizes stand in for what was not measured."


def valve(kind="coil_spring", **sizes):
    spring = {"seat_inside_diameter": 13, "seat_outside_diameter": 15, "spring_outside_diameter": 13, "spring_wire_diameter": 1.2,
              "spring_installed_length": 17, "lift_limit": 3}  # fmt: skip
    given = [reading(f"bypass.{name}", f"{value} mm") for name, value in (spring | sizes).items()]
    return measured(changed(*given, ("samples/0/bypass/kind", kind)))


def states_of(drawn, stroke):
    return [numbers(item.get("d")) for item in ElementTree.fromstring(drawn.svg).iter("path") if item.get("stroke") == stroke]


def test_the_valve_lifts_to_scale_and_its_spring_gives_way_by_as_much():
    springs = states_of(valve_drawing(valve()), "var(--slate)")
    lengths = [max(d[1::2]) - min(d[1::2]) for d in springs if len(d) > 4]
    assert len(lengths) == 3
    assert lengths[0] + 1.2 == pytest.approx(17, abs=0.03)  # from middle to middle of the wire
    assert lengths[0] - lengths[1] == pytest.approx(1.5, abs=0.03)
    assert lengths[0] - lengths[2] == pytest.approx(3, abs=0.03)


def test_the_valve_is_drawn_as_it_is_built():
    leaf, flap = valve_drawing(valve("leaf_spring")), valve_drawing(valve("flap"))
    assert [len(d) for d in states_of(leaf, "var(--slate)") if len(d) > 4] == [42, 42, 42]  # blades
    assert [d for d in states_of(flap, "var(--slate)") if len(d) > 4] == []
    discs = [
        numbers(item.get("d")) for item in ElementTree.fromstring(flap.svg).iter("path") if item.get("fill") == "var(--ink-soft)"
    ]
    assert discs[0][1] == discs[2][1]  # its hinge stays
    assert discs[2][3] - discs[0][3] == pytest.approx(3, abs=0.03)
    many = valve_drawing(measured(changed(reading("bypass.spring_total_coils", "9000"))))
    assert len(many.svg) < 20_000


def test_the_printed_map_has_the_contours_and_colours_of_the_screen():
    """Levels of the 1-2-5 series, each written at its line and at the scale of colours; no more of any other."""
    inputs = ReportInputs(read_study(demo_documents()[0]))
    point = inputs.points["Ysmere"]
    svg = map_chart(point, "Ysmere", "metric").svg
    written = re.findall(r">\s*([\d.]+)\s*</text>", svg)
    assert {"1", "2", "5", "10", "20", "50", "100"} <= set(written)
    assert written.count("20") >= 3  # on both maps and at the scale
    assert not {"40", "60", "80"} & set(written)
    assert one_two_five(0.4, 25) == [0.5, 1, 2, 5, 10, 20]
    assert {stop.colour for stop in catalogue_out().field_colours} == {colour for _, colour in FIELD}

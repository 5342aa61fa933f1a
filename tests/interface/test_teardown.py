"""The opened filter in the real interface: a teardown in any order, its drawings, what cannot be."""

from __future__ import annotations

import re
from math import pi

import pytest
from playwright.sync_api import expect

from bench_steps import chips, new_study_at_intake, row, to_station, type_line

pytestmark = pytest.mark.interface

TEARDOWN = {
    "Media": {
        "media.strip_length": "1.6 m",
        "media.strip_width": "80",
        "media.thickness": "0.72, 0.70, 0.71",
        "media.seam_overlap": "10",
        "media.dry_mass": "22",
    },
    "Opened": {
        "can.wall_thickness": "0.46, 0.47 mm",
        "can.mass": "96",
        "plate.mass": "128",
        "anti_drain.mass": "lost",
        "bypass.seat_inside_diameter": "14",
        "bypass.seat_outside_diameter": "16",
        "bypass.spring_wire_diameter": "1.25",
        "bypass.spring_outside_diameter": "13.25",
        "bypass.spring_total_coils": "6",
        "bypass.spring_dead_coils": "2",
        "bypass.spring_free_length": "24",
        "bypass.spring_installed_length": "18",
        "bypass.lift_limit": "3",
        "bypass.opening_force": "22 N",
    },
    "Element": {
        "element.outside_diameter": "69.8",
        "element.inside_diameter": "37.4",
        "element.height": "82",
        "element.pleat_count": "50",
        "element.potting_depth": "2.5",
    },
}
SEEN = {
    "Opened": {"bypass.location": "at the dome end", "bypass.spring_material": "music wire"},
    "Media": {"media.family": "cellulose"},
}


def big(page, name):
    return page.locator(f'[data-result="{name}"] .big')


def put(page, key, text):
    row(page, key).locator("input.input").focus()
    type_line(page, text)


def test_a_teardown_in_any_order_completes_every_headline_or_names_what_it_lacks(page, server):
    new_study_at_intake(page, server, "teardown")
    for station, readings in TEARDOWN.items():
        to_station(page, station)
        for key, text in readings.items():
            put(page, key, text)
            if text != "lost":
                expect(chips(page, key)).not_to_have_count(0)
        for key, choice in SEEN.get(station, {}).items():
            row(page, key).get_by_role("radio", name=choice).click()
            expect(row(page, key).get_by_role("radio", name=choice)).to_be_checked()
    # length less overlap, width less potting, by hand; the force beats the spring as evidence
    assert float(big(page, "media_effective_area_cm2").inner_text()) == pytest.approx(159 * 7.5, rel=5e-3)
    assert float(big(page, "bypass_opening_kpa").inner_text()) == pytest.approx(22 / (pi * 0.0075**2) / 1e3, rel=5e-3)
    expect(page.locator('[data-result="efficiency_at_20_um_percent"]')).to_contain_text("screening estimate")
    expect(page.locator('[data-result="inlet_hole_area_mm2"]')).to_contain_text("needs the inlet holes")
    to_station(page, "Opened")
    valve = page.get_by_label("Bypass valve", exact=True)
    expect(valve).to_contain_text("push-off force used")
    expect(valve).to_contain_text("Push-off force and spring dimensions agree", ignore_case=True)
    expect(valve).to_contain_text("lift 3.0 mm")
    expect(page.get_by_label("Parts tray")).to_contain_text("lost")
    to_station(page, "Media")
    expect(page.get_by_label("Media strip", exact=True)).to_contain_text("effective, cm²1193")
    to_station(page, "Element")
    expect(page.get_by_label("Pleat pack", exact=True)).to_contain_text("The least loss would be with")


def test_choosing_a_part_opens_its_readings_and_the_dimension_in_hand_lights_up(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/opened")
    section = page.locator(".section")
    row(page, "can.inside_diameter").locator("input.input").focus()
    expect(section.locator(".lit [data-family=metric]")).to_have_text("⌀ 75.2 mm")
    section.locator("[data-material=rubber] path").first.click(force=True, position={"x": 3, "y": 3})
    expect(row(page, "gasket.thickness").locator("input.input")).to_be_focused()
    expect(page).to_have_url(re.compile("/outside"))
    expect(page.locator(".section [data-size].lit [data-family=metric]")).to_have_text("6.40 mm")
    row(page, "thread.pitch").locator("input.input").focus()  # the plate shows this one
    expect(page.locator(".plate")).to_be_visible()
    expect(page.locator(".section")).to_have_count(0)


def test_defects_are_typed_where_they_are_found_and_taken_back(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/element")
    row(page, "element.glue").get_by_role("radio", name="missing").click()
    warning = page.locator(".warnings")
    expect(warning).to_contain_text("an open way past the media")
    defects = row(page, "element.leak").locator("input")
    defects.fill("2 x slot 9 x 4 mm")
    defects.press("Enter")  # the last field: the next station opens, and the line says where something waits
    expect(page).to_have_url(re.compile("/media$"))
    expect(page.get_by_role("link", name="Element 1 waits")).to_be_visible()
    page.keyboard.press("Control+ArrowLeft")
    expect(defects).to_have_value("2 x slot 9 x 4 mm")
    expect(row(page, "element.leak")).to_contain_text("round holes of one size: type them like 6 x 0.4 mm")
    expect(page.locator("[data-waits]")).to_have_text(
        "2 readings wait for an answer."
    )  # and the depths of the potting, which differ
    defects.fill("6 x 0.4 mm")
    defects.press("Enter")
    to_station(page, "Element")
    expect(warning).to_have_count(0)
    to_station(page, "Media")
    expect(row(page, "media.strip_width").locator("input.input")).to_be_visible()
    page.keyboard.press("Control+z")
    expect(defects).to_be_focused()  # undo leads back to where it was typed
    expect(defects).to_have_value("")
    expect(warning).to_contain_text("an open way past the media")


def test_impossible_readings_are_questioned_beside_the_field_and_still_drawn(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/opened")
    put(page, "bypass.spring_installed_length", "30, 30, 30")
    expect(row(page, "bypass.spring_installed_length").locator(".hint")).to_contain_text("holds nothing", ignore_case=True)
    to_station(page, "Element")
    put(page, "element.pleat_count", "120, 120, 120, 120")
    expect(page.get_by_label("Pleat pack", exact=True)).to_contain_text("cannot fit")
    expect(page.locator("[data-pick='element.pleat_count'] path[stroke='var(--rust)']")).to_be_visible()
    page.reload()
    expect(chips(page, "element.pleat_count")).to_have_count(5)

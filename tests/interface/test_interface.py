"""The real interface in headless Chromium."""

from __future__ import annotations

import json
import re

import pytest
from playwright.sync_api import expect

from builders import changed, plain_document, reading

pytestmark = pytest.mark.interface


def open_demo(page, server):
    page.goto(server.address)
    page.get_by_role("link", name=re.compile("Mountain road service")).click()
    expect(page.get_by_role("region", name="Results")).to_be_visible()
    expect(page.get_by_role("list", name="Samples")).to_be_visible()


def result(page, key):
    return page.locator(f'[data-result="{key}"]')


def number(page, key):
    return float(result(page, key).locator(".big").inner_text())


def row(page, key):
    return page.locator(f'[data-key="{key}"]')


def at_crosshair(page, key):
    return float(page.locator(f'[data-value="{key}"] .number').inner_text())


def put_crosshair(page, temperature, speed):
    page.get_by_label("Oil temperature in °C").fill(temperature)
    page.get_by_label("Engine speed in rpm").fill(speed)
    page.keyboard.press("Enter")


def to_station(page, name):
    page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile(f"^{name}")).click()


def to_map(page):
    to_station(page, "Operating map")
    expect(page.locator('[data-crosshair="state"]')).to_be_visible()


def test_another_strip_length_changes_area_and_map_and_survives_a_restart(page, server_process):
    """The whole slice: open, change the strip length, see area and map change, restart the server, still there."""
    open_demo(page, server_process)
    area = number(page, "media_effective_area_cm2")
    to_map(page)
    put_crosshair(page, "20", "3000")
    pressure, hatch = at_crosshair(page, "element_kpa"), page.locator('[data-region="bypass"]').get_attribute("d")
    to_station(page, "Media")
    strip = row(page, "media.strip_length")
    strip.locator("input.input").fill("0.9 m")
    strip.locator("input.input").press("Enter")
    expect(strip.get_by_text("0.9 m")).to_be_visible()
    expect(row(page, "media.pulled_length").locator("input.input")).to_be_focused()
    expect(result(page, "media_effective_area_cm2").locator(".big")).not_to_have_text(f"{area:.0f}")
    smaller = number(page, "media_effective_area_cm2")
    expected = ((1760 + 1758 + 900) / 3 - 9) * (76.5 - 4.6) / 100
    assert smaller == pytest.approx(expected, abs=5)  # U is hundreds, so tens are its second digit
    to_map(page)
    expect(page.locator('[data-value="element_kpa"] .number')).not_to_have_text(str(pressure))
    after = at_crosshair(page, "element_kpa")
    assert after > pressure
    assert page.locator('[data-region="bypass"]').get_attribute("d") != hatch

    server_process.kill()
    server_process.start()
    page.reload()
    put_crosshair(page, "20", "3000")
    assert at_crosshair(page, "element_kpa") == after
    to_station(page, "Media")
    expect(result(page, "media_effective_area_cm2").locator(".big")).to_have_text(f"{smaller:g}")
    expect(row(page, "media.strip_length").get_by_text("0.9 m")).to_be_visible()


def test_a_sheet_is_typed_without_the_mouse(page, server):
    open_demo(page, server)
    page.keyboard.press("Alt+2")
    expect(page.get_by_role("link", name=re.compile("Ysmere"))).to_have_attribute("aria-current", "true")
    to_station(page, "Opened")
    row(page, "can.inside_diameter").locator("input.input").focus()
    for text in ("75.2 mm", "", "", "", "", "51 g"):
        page.keyboard.type(text)
        page.keyboard.press("Enter")
    expect(row(page, "can.inside_diameter").get_by_text("75.2 mm").last).to_be_visible()
    expect(row(page, "can.mass").get_by_role("button", name=re.compile("Reading 51 g"))).to_be_visible()
    page.keyboard.press("Shift+Enter")
    expect(row(page, "can.mass").locator("input.input")).to_be_focused()
    page.keyboard.press("Backspace")
    page.keyboard.press("Delete")
    page.keyboard.type("oil left in it")
    page.keyboard.press("Enter")
    expect(row(page, "can.mass").get_by_text("oil left in it")).to_be_visible()
    expect(row(page, "can.mass").locator(".mean")).to_contain_text("61.00 ± 0.82")  # as before
    row(page, "can.mass").locator("input.input").focus()
    page.keyboard.press("Alt+1")
    expect(page.get_by_role("link", name=re.compile("Korvath"))).to_have_attribute("aria-current", "true")
    expect(row(page, "can.mass").locator("input.input")).to_be_focused()


def test_the_field_echoes_and_questions_and_refuses(page, server):
    open_demo(page, server)
    to_station(page, "Opened")
    wall = row(page, "can.wall_thickness")
    wall.locator("input.input").fill("0.019 in")
    expect(wall.locator(".hint")).to_contain_text("0.4826 mm = 0.0190 in")
    wall.locator("input.input").fill("0.19 in")
    expect(wall.locator(".hint")).to_contain_text("ten times too large, 0.019 in (0.4826 mm) meant?")
    readings = wall.locator(".chip").count()
    for bad, says in (("12..3 mm", "is not a number"), ("1e999", "not a finite number"), ("3 furlong", "no unit known here")):
        wall.locator("input.input").fill(bad)
        wall.locator("input.input").press("Enter")
        expect(wall.locator(".hint")).to_contain_text(says)
        expect(wall.locator("input.input")).to_have_value(bad)
    assert wall.locator(".chip").count() == readings
    wall.locator("input.input").press("Escape")
    wall.locator("input.input").fill("0.19 in")
    expect(wall.locator(".hint")).to_contain_text("Enter takes it all the same")
    wall.locator("input.input").press("Enter")
    expect(wall.locator(".chip")).to_have_count(readings + 1)
    expect(wall.locator(".hint")).to_contain_text("Confirmed")


def test_units_switch_everywhere_without_changing_what_was_typed(page, server):
    open_demo(page, server)
    expect(result(page, "inlet_hole_area_mm2")).to_contain_text("mm²")
    area = number(page, "inlet_hole_area_mm2")
    page.keyboard.press("Alt+u")
    expect(result(page, "inlet_hole_area_mm2")).to_contain_text("in²")
    assert number(page, "inlet_hole_area_mm2") == pytest.approx(area / 645.16, rel=2e-3)
    expect(row(page, "can.height").get_by_text("98.4 mm")).to_be_visible()
    expect(row(page, "can.height").locator(".mean")).to_contain_text("in")
    page.reload()
    expect(result(page, "inlet_hole_area_mm2")).to_contain_text("in²")


def test_the_crosshair_moves_by_keys_mouse_and_typing(page, server):
    open_demo(page, server)
    page.get_by_role("link", name=re.compile("Ysmere")).click()
    to_map(page)
    temperature, speed = page.get_by_label("Oil temperature in °C"), page.get_by_label("Engine speed in rpm")
    expect(temperature).to_have_value("-25")
    expect(page.locator('[data-crosshair="state"]')).to_contain_text("unfiltered")
    chart = page.get_by_role("application")
    chart.focus()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Shift+ArrowRight")
    expect(temperature).to_have_value("-22.5")
    expect(speed).to_have_value("2800")
    box = chart.bounding_box()
    page.mouse.click(box["x"] + box["width"] * 0.9, box["y"] + 30)
    expect(page.locator('[data-crosshair="state"]')).to_contain_text("All oil passes the media")
    assert float(temperature.input_value()) > 100
    put_crosshair(page, "500", "2000")
    expect(page.get_by_text("The map runs from -40 to 140 °C")).to_be_visible()
    put_crosshair(page, "-40", "2000")
    expect(page.locator('[data-crosshair="state"]')).to_contain_text("below the pumpability limit")
    page.keyboard.press("Escape")
    put_crosshair(page, "-10", "3000")
    steady = at_crosshair(page, "element_kpa")
    page.get_by_role("button", name="Filling").click()
    expect(page.locator('[data-value="gallery_kpa"] .number')).to_have_text("0")
    assert at_crosshair(page, "element_kpa") > steady
    expect(page.locator('[data-losses="sentence"]')).to_contain_text("the filter's loss")
    expect(page.locator('[data-part="media"]')).to_be_visible()


def test_import_says_what_is_wrong_and_opens_what_is_right(page, server, tmp_path):
    page.goto(server.address)
    expect(page.locator(".list li").first).to_be_visible()
    listed = page.locator(".list li").count()
    for document, says in (
        ("", "is empty"),
        (json.dumps(changed(("version", 4))), "newer than this program reads"),
        (json.dumps(changed(("samples/0/lable", "x"))), "samples[0].lable"),
    ):
        path = tmp_path / "bad.json"
        path.write_text(document)
        page.locator("input[type=file]").set_input_files(path)
        expect(page.get_by_role("alert")).to_contain_text(says)
    expect(page.locator(".list li")).to_have_count(listed)
    path = tmp_path / "good.json"
    path.write_text(json.dumps(plain_document()))
    page.locator("input[type=file]").set_input_files(path)
    expect(page.get_by_role("link", name=re.compile("Pellin"))).to_be_visible()


def test_what_is_missing_is_a_word_and_leads_to_its_field(page, server, tmp_path):
    path = tmp_path / "part.json"
    path.write_text(json.dumps(changed(reading("media.strip_width"), reading("media.thickness"))))
    page.goto(server.address)
    page.locator("input[type=file]").set_input_files(path)
    area = result(page, "media_effective_area_cm2")
    expect(area).to_contain_text("not yet")
    area.get_by_role("button").click()
    expect(row(page, "media.strip_width").locator("input.input")).to_be_focused()
    to_station(page, "Operating map")
    expect(page.get_by_text("The map in the engine cannot be computed yet")).to_be_visible()
    page.get_by_role("link", name="media, thickness").click()
    expect(row(page, "media.thickness").locator("input.input")).to_be_focused()
    page.keyboard.type("0.82")
    page.keyboard.press("Enter")
    row(page, "media.strip_width").locator("input.input").fill("68")
    page.keyboard.press("Enter")
    expect(result(page, "media_effective_area_cm2").locator(".big")).to_have_text("1013")
    to_map(page)


def test_a_map_that_readings_contradict_says_which(page, server, tmp_path):
    path = tmp_path / "swapped.json"
    path.write_text(json.dumps(changed(reading("element.inside_diameter", "70 mm"))))
    page.goto(server.address)
    page.locator("input[type=file]").set_input_files(path)
    to_station(page, "Operating map")
    expect(page.get_by_text("is not below the outside diameter")).to_be_visible()
    page.get_by_role("link", name="Element: inside diameter").click()
    inside = row(page, "element.inside_diameter")
    expect(inside.locator(".hint")).to_contain_text("may be swapped")
    inside.get_by_role("button", name=re.compile("Reading 70 mm")).press("Delete")
    page.keyboard.type("swapped")
    page.keyboard.press("Enter")
    expect(inside.locator(".mean")).to_have_text("not measured")
    inside.locator("input.input").fill("36.2")
    page.keyboard.press("Enter")
    expect(inside.get_by_role("button", name=re.compile("Reading 36.2 mm"))).to_be_visible()
    to_map(page)


def test_nothing_is_fetched_from_elsewhere_and_nothing_is_complained_of(page, server):
    hosts, complaints = set(), []
    page.on("request", lambda request: hosts.add(request.url.split("/")[2]))
    page.on("console", lambda message: complaints.append(message.text) if message.type in ("error", "warning") else None)
    page.on("pageerror", lambda error: complaints.append(str(error)))
    open_demo(page, server)
    to_map(page)
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("switch between steady and filling")
    page.keyboard.press("Escape")
    page.evaluate("document.fonts.ready")
    for font in ("Geologica Variable", "IBM Plex Sans Variable", "JetBrains Mono Variable"):
        assert page.evaluate("name => document.fonts.check(`16px '${name}'`)", font), font
    assert hosts == {server.address.removeprefix("http://")}
    assert complaints == []


def test_a_lost_server_is_said_and_nothing_typed_is_lost(page, server_process):
    open_demo(page, server_process)
    server_process.kill()
    height = row(page, "can.height").locator("input.input")
    height.fill("98.6 mm")
    height.press("Enter")
    expect(row(page, "can.height").locator(".hint")).to_contain_text("The server does not answer")
    expect(height).to_have_value("98.6 mm")
    server_process.start()
    height.press("Enter")
    expect(row(page, "can.height").locator(".chip .typed").last).to_have_text("98.6 mm")

"""The bench before the cut, by keyboard, in the real interface."""

from __future__ import annotations

import json
import re
import urllib.request

import pytest
from playwright.sync_api import expect

from bench_steps import chips, fetch_ahead, new_study, new_study_at_intake, row, to_station, type_line, walk_stage

pytestmark = pytest.mark.interface

METRIC_SHEET = {
    "filter.mass": "412.3",
    "can.height": "98.4, 98.5",
    "can.outside_diameter": "76.2, 76.1",
    "can.circumference": "239",
    "gasket.outside_diameter": "71.6",
    "gasket.inside_diameter": "62.0",
    "gasket.protrusion": "2.4",
    "gasket.thickness": "6.4",
    "gasket.pull_out_force": "not applicable",
    "thread.major_diameter": "20.0",
    "thread.pitch": "1.5",
    "thread.turns": "6.5",
    "plate.centre_hole_diameter": "18.5",
    "plate.thickness": "3.1",
    "holes.inlet": "6 x 6.1, 6.0, 6.1 mm on 44 mm",
    "anti_drain.opening_pressure": "could not be found",
}
"""Text typed into each field of the outside sheet."""

INCH_SHEET = {
    "filter.mass": "14 1/2",
    "can.height": "3 7/8",
    "can.outside_diameter": "3, 2.995",
    "can.circumference": "9.41",
    "gasket.outside_diameter": "2.82",
    "gasket.inside_diameter": "2.44",
    "gasket.protrusion": "95 thou",
    "gasket.thickness": "1/4",
    "gasket.pull_out_force": "4 lbf",
    "thread.major_diameter": "25/32",
    "thread.pitch": "17 tpi",
    "thread.turns": "6 1/2",
    "plate.centre_hole_diameter": "0.728",
    "plate.thickness": "1/8",
    "holes.inlet": "5 x drill 15/64",
    "anti_drain.opening_pressure": "could not be found",
}


SEEN_OUTSIDE = (
    "can.delivered",
    "can.squeeze",
    "can.grip",
    "can.picture_on_box",
    "gasket.section",
    "gasket.rubber",
    "gasket.feel",
    "gasket.fit",
    "gasket.pull_out",
    "thread.cut_quality",
    "anti_drain.material",
    "anti_drain.hole_cover",
    "anti_drain.memory",
    "bypass.seen",
    "tube.seen",
)


def type_intake(page, family):
    """Type the details of sample, study and engine, Enter after each."""
    stud = "13.5" if family == "metric" else "17/32"
    sample = (
        "Ardwen", "Ardwen Works (invented)", "A 88", "9.50 EUR", "a shop", "2026-10-02", "box", "F42", "2026-03", "",
        "standard", "", "", "new",
        "", "", *(("110-180 kPa", "690 kPa") if family == "metric" else ("16-26 psi", "100 psi")), "thin steel, many holes",
    )  # fmt: skip
    page.keyboard.press("Control+a")
    for text in (*sample, "", "which one is worth it?", "daily", "middle", "", "Ardwen", "groomer", stud, "", "", "", "", ""):
        type_line(page, text) if text else page.keyboard.press("Enter")


@pytest.mark.parametrize(("family", "sheet"), [("metric", METRIC_SHEET), ("inch", INCH_SHEET)])
def test_a_blank_study_goes_through_the_first_four_stages_by_keyboard(page, server, family, sheet):
    new_study_at_intake(page, server, f"blank {family}")
    if family == "inch":
        page.keyboard.press("Alt+u")
    type_intake(page, family)
    expect(page.get_by_role("list", name="Samples").get_by_text("Ardwen")).to_be_visible()
    expect(row(page, "engine.stud_bore").locator("input")).to_have_value("13.5 mm" if family == "metric" else "17/32 in")
    # a claim, still by keyboard: the form follows the engine
    page.get_by_label("as printed or said").focus()
    type_line(page, "99+ % at 20 µm(c), ISO 4548-12")
    expect(page.locator(".claims li")).to_contain_text("99+ % at 20 µm(c)")
    page.keyboard.press("Escape")

    page.keyboard.press("Control+ArrowRight")  # the short sheet
    expect(row(page, "holes.inlet").locator("input")).to_be_focused()
    page.keyboard.press("Control+ArrowRight")
    expect(row(page, "filter.mass").locator("input.input")).to_be_focused()
    seen = walk_stage(page, sheet | dict.fromkeys(SEEN_OUTSIDE, 2))
    assert set(SEEN_OUTSIDE) <= set(seen)
    page.keyboard.press("Control+ArrowLeft")
    expect(page.locator('[data-key="holes.inlet[0]"]')).to_be_visible()
    area = page.locator('[data-result="inlet_hole_area_mm2"] .big')
    expected = 6 * 3.14159 * 6.0667**2 / 4 if family == "metric" else 5 * 3.14159 * (15 / 64 + 6.1 / 25.4 - 15 / 64) ** 2 / 4
    if family == "metric":
        expect(area).to_have_text(re.compile("^173"))
        assert float(area.inner_text()) == pytest.approx(expected, rel=2e-3)
    else:
        expect(area).to_have_text(re.compile(r"^0\.2"))
    expect(page.locator(".plate [data-hole]")).to_have_count(6 if family == "metric" else 5)
    expect(page.locator('[data-result="plate_flow_area_mm2"] .big')).to_be_visible()

    expect(row(page, "can.grip").get_by_role("radio", name="fluted")).to_be_checked()
    for key in SEEN_OUTSIDE:
        expect(row(page, key).locator("[role=radio], [role=checkbox]").nth(1)).to_be_checked()

    page.keyboard.press("Control+ArrowRight")
    expect(page.get_by_text("Everything that can be learned only from the whole filter is there")).to_be_visible()
    record = page.get_by_role("button", name="Cut: record it now")
    record.focus()
    page.keyboard.press("Enter")
    expect(page.locator(".done")).to_contain_text("roller cutter")
    expect(page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile("^Cut"))).to_contain_text("cut")
    page.keyboard.press("Control+z")
    expect(page.get_by_role("status").last).to_contain_text("Undone: cut open: roller cutter")
    expect(record).to_be_visible()


def test_a_whole_outside_sheet_of_25_readings_needs_no_mouse(page, server):
    """25 readings typed one after the other, as a caliper that ends with Enter or Tab sends them."""
    new_study(page, server, "fast")
    page.keyboard.press("Control+ArrowRight")
    expect(row(page, "filter.mass").locator("input.input")).to_be_focused()
    sheet = METRIC_SHEET | {
        "holes.inlet": "6 x 6.1, 6.0, 6.1 mm",
        "anti_drain.lip_diameter": "58.5",
        "anti_drain.lift": "2.4, 2.5",
        "anti_drain.opening_pressure": "2.1 kPa",
    }
    keys = page.evaluate("[...document.querySelectorAll('[data-stop]')].map(stop => stop.dataset.key)")
    for i, key in enumerate(keys[: keys.index("anti_drain.opening_pressure") + 1]):
        page.keyboard.type(sheet.get(key, ""))  # nothing for what is seen, and for the line of holes once it is taken
        page.keyboard.press("Tab" if i % 3 and key in sheet else "Enter")
        if key == "holes.inlet":
            page.keyboard.press("Enter")
    for key, text in (("holes.inlet[0].diameter", "6.0, 6.2"), ("holes.inlet[0].circle_diameter", "44, 44.1")):
        row(page, key).locator("input.input").focus()
        type_line(page, text)
    expect(chips(page, "anti_drain.opening_pressure")).to_have_text("2.1 kPa")
    expect(page.locator(".chip")).to_have_count(26)
    expect(chips(page, "can.height")).to_have_text(["98.4 mm", "98.5 mm"])
    expect(chips(page, "gasket.thickness")).to_have_text("6.4 mm")


def test_ctrl_z_takes_back_across_the_bench_and_after_a_reload(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    row(page, "can.height").locator("input.input").fill("98.7")
    page.keyboard.press("Enter")
    expect(chips(page, "can.height")).to_have_count(3)
    row(page, "can.grip").get_by_role("radio", name="coated").click()
    expect(row(page, "can.grip").get_by_role("radio", name="coated")).to_be_checked()
    page.reload()
    expect(chips(page, "can.height")).to_have_count(3)
    page.keyboard.press("Control+z")
    expect(row(page, "can.grip").get_by_role("radio", name="coated")).not_to_be_checked()
    page.keyboard.press("Control+z")
    expect(chips(page, "can.height")).to_have_count(2)
    expect(row(page, "can.height").locator("input.input")).to_be_focused()
    page.keyboard.press("Control+z")
    expect(page.get_by_role("status").last).to_contain_text("nothing to undo")
    page.keyboard.press("Control+Shift+Z")
    expect(chips(page, "can.height")).to_have_count(3)
    # in a field that holds a text Ctrl+Z is the field's own
    row(page, "can.height").locator("input.input").fill("12")
    page.keyboard.press("Control+z")
    page.wait_for_timeout(150)
    expect(chips(page, "can.height")).to_have_count(3)


def test_a_slip_is_named_beside_the_field_and_put_right_with_one_key(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/opened")
    wall = row(page, "can.wall_thickness")
    wall.locator("input.input").fill("4.7")
    expect(wall.locator(".hint")).to_contain_text("ten times too large, 0.47 mm meant?")
    page.keyboard.press("F2")
    expect(wall.locator("input.input")).to_have_value("0.47 mm")
    page.keyboard.press("Enter")
    expect(chips(page, "can.wall_thickness").last).to_have_text("0.47 mm")
    # typed too fast to be asked: the question is beside the field, F2 puts it right, undo takes that back
    wall.locator("input.input").fill("4.8")
    wall.locator("input.input").press("Enter")
    expect(wall.locator(".hint")).to_contain_text("0.48 mm meant?")
    wall.locator("input.input").focus()
    page.keyboard.press("F2")
    expect(wall.locator(".chip.set-aside")).to_contain_text("typing error, 0.48 mm was meant")
    expect(chips(page, "can.wall_thickness").last).to_have_text("0.48 mm")
    page.keyboard.press("Control+z")
    expect(wall.locator(".chip.set-aside")).to_have_count(0)
    wall.locator("input.input").focus()
    page.keyboard.press("F4")
    expect(wall.locator(".hint")).to_contain_text("Confirmed")


def test_the_plate_shows_what_cannot_be_and_lights_up_what_is_typed(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    row(page, "gasket.inside_diameter").locator("input.input").focus()
    expect(page.locator(".plate .lit [data-family=metric]")).to_have_text("⌀ 62.00 mm")
    expect(page.locator(".plate .lit [data-family=inch]")).to_be_hidden()
    page.keyboard.press("Alt+u")
    expect(page.locator(".plate .lit [data-family=inch]")).to_have_text("⌀ 2.441 in")
    expect(page.locator(".plate .lit [data-family=metric]")).to_be_hidden()
    page.keyboard.press("Alt+u")
    row(page, "holes.inlet[0].diameter").locator("input.input").focus()
    expect(page.locator(".plate [data-hole].lit")).to_have_count(8)
    type_line(page, "40 x 6.1 mm")
    expect(page.locator(".plate [data-hole=wrong]").first).to_be_visible()
    expect(page.get_by_role("alert")).to_contain_text("overlap their neighbours")
    expect(page.locator(".product").first).to_contain_text("40 ×")
    page.keyboard.press("Control+z")
    expect(page.locator(".plate [data-hole=wrong]")).to_have_count(0)


def test_each_number_of_the_working_leads_to_where_it_was_entered(page, server):
    page.goto(f"{server.address}/studies/1/samples/4/outside")
    page.get_by_role("button", name="Bypass opening pressure").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1, name=re.compile("Bypass opening pressure"))).to_be_visible()
    last = page.locator(".working tr.last .value")
    rate = 81.5e9 * 1.305e-3**4 / (8 * (13.4e-3 - 1.305e-3) ** 3 * (6.5 - 2))  # G d⁴ / 8 (D − d)³ n
    pressure = rate * (22.5e-3 - 17.2e-3) / (3.14159 * (13.8e-3) ** 2 / 4) / 1e3
    expect(last).to_have_text(re.compile(rf"^{pressure:.0f} ± \d+ kPa$"))
    page.get_by_role("button", name="22.500 mm").click()
    expect(row(page, "bypass.spring_free_length").locator("input.input")).to_be_focused()
    page.go_back()
    page.emulate_media(media="print")
    expect(page.get_by_role("navigation", name="Stations")).to_be_hidden()
    expect(last).to_be_visible()


@pytest.mark.parametrize(
    ("asked", "key"),
    [
        ("base plate", "plate.centre_hole_diameter"),
        ("flapper lift", "anti_drain.lift"),
        ("canister", "can.height"),
        ("relief valve pressure", "bypass.opening_pressure"),
        ("expectation", "sample.expectation"),
    ],
)
def test_the_command_box_finds_by_ones_own_words(page, server, asked, key):
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    expect(row(page, "filter.mass").locator("input.input")).to_be_visible()
    page.keyboard.press("Control+k")
    page.get_by_label("What to find or do").fill(asked)
    expect(page.get_by_role("listbox").get_by_role("option").first).to_be_visible()
    page.keyboard.press("Enter")
    expect(row(page, key).locator("input, textarea").first).to_be_focused()


def test_the_glossary_opens_at_a_term_and_gives_the_field_back(page, server):
    page.goto(f"{server.address}/studies/1/samples/2/outside")
    field = row(page, "can.dome_height").locator("input.input")
    expect(field).to_be_focused()
    page.keyboard.press("Control+k")
    page.get_by_label("What to find or do").fill("what is face velocity")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Find a term")).to_be_focused()
    expect(page.get_by_role("dialog", name="Help")).to_contain_text("Flow rate over media area.")
    page.keyboard.press("Escape")
    expect(field).to_be_focused()
    page.keyboard.press("F1")
    expect(page.get_by_role("dialog", name="Help")).to_contain_text("switch between metric and inch")
    expect(page.get_by_role("dialog", name="Help")).not_to_contain_text("the station before")  # no single keys here
    page.keyboard.press("F1")
    expect(field).to_be_focused()
    page.keyboard.press("/")  # in an empty field
    expect(page.get_by_label("What to find or do")).to_be_focused()


def test_killing_the_server_loses_at_most_the_reading_being_typed(page, server_process):
    page.goto(f"{server_process.address}/studies/1/samples/2/outside")
    expect(row(page, "can.dome_height").locator("input.input")).to_be_focused()  # the first that is not answered
    row(page, "can.circumference").locator("input.input").focus()
    page.keyboard.type("239")
    page.keyboard.press("Enter")
    expect(chips(page, "can.circumference")).to_have_text("239 mm")
    row(page, "gasket.protrusion").locator("input.input").focus()
    for i, character in enumerate("2.41"):
        if i in (1, 3):
            server_process.kill()  # between two keystrokes
            server_process.start()
        page.keyboard.type(character)
    page.keyboard.press("Enter")
    expect(chips(page, "gasket.protrusion")).to_have_text("2.41 mm")
    page.keyboard.type("6.")
    server_process.kill()
    page.keyboard.type("3")
    page.keyboard.press("Enter")
    thickness = row(page, "gasket.thickness")
    expect(thickness.locator(".hint")).to_contain_text("The server does not answer")
    expect(thickness.locator("input.input")).to_have_value("6.3")
    server_process.start()
    page.reload()
    expect(chips(page, "can.circumference")).to_have_text("239 mm")
    expect(chips(page, "gasket.protrusion")).to_have_text("2.41 mm")
    expect(chips(page, "gasket.thickness")).to_have_text("1/4 in")  # as it was before


def test_two_windows_see_each_other_and_never_overwrite(page, context, server):
    address = f"{server.address}/studies/1/samples/1/outside"
    page.goto(address)
    other = context.new_page()
    other.goto(address)
    row(page, "can.height").locator("input.input").fill("98.6")
    page.keyboard.press("Enter")
    expect(chips(page, "can.height")).to_have_count(3)
    expect(chips(other, "can.height")).to_have_count(3)  # at once, in the same browser
    other.keyboard.press("Control+z")
    expect(other.get_by_role("status").last).to_contain_text("was done in another window")
    expect(chips(other, "can.height")).to_have_count(3)
    other.keyboard.press("Control+z")  # it has been told, and wants it
    expect(chips(page, "can.height")).to_have_count(2)
    page.keyboard.press("Control+Shift+Z")  # its own again
    expect(chips(other, "can.height")).to_have_count(3)
    # a window that heard nothing, as in another browser, sees it on its next action
    body = json.dumps({"key": "can.height", "text": "98.3 mm"}).encode()
    request = urllib.request.Request(
        f"{server.address}/api/samples/1/readings", data=body, headers={"Content-Type": "application/json"}
    )
    urllib.request.urlopen(request).close()
    expect(chips(other, "can.height")).to_have_count(3)
    row(other, "filter.mass").locator("input.input").fill("413")
    other.keyboard.press("Enter")
    expect(chips(other, "can.height")).to_have_count(4)

    for window in (page, other):
        to_station(window, "Intake")
        expect(row(window, "sample.seller").locator("input")).to_be_visible()
    row(other, "sample.seller").locator("input").fill("shop B")
    row(page, "sample.seller").locator("input").fill("shop A")
    with page.expect_response(re.compile("/details/sample.seller")):
        page.keyboard.press("Enter")
    row(other, "sample.seller").locator("input").focus()
    other.keyboard.press("Enter")
    expect(row(other, "sample.seller").get_by_role("alert")).to_contain_text("another window has set the seller to 'shop A'")
    expect(row(other, "sample.seller").locator("input")).to_have_value("shop B")
    row(other, "sample.seller").locator("input").focus()
    other.keyboard.press("Enter")  # it has looked, and takes it now
    expect(row(page, "sample.seller").locator("input")).to_have_value("shop B")


def test_the_bench_needs_no_second_request(page, server):
    """A change brings what is different, the figures beside the field and the rack; nothing else on the screen is fetched."""
    asked = []
    fetch_ahead(page)
    with page.expect_response(re.compile("/samples/5$")):  # the last of those that are fetched ahead
        page.goto(f"{server.address}/studies/1/samples/1/opened")
    page.wait_for_load_state("networkidle")
    page.on("request", lambda item: asked.append((item.method, item.url.partition("/api/")[2])) if "/api/" in item.url else None)
    for key, text in (("bypass.spring_free_length", "38.4"), ("bypass.spring_free_length", "38.5")):
        row(page, key).locator("input.input").focus()
        before = chips(page, key).count()
        page.keyboard.insert_text(text)
        with page.expect_response(re.compile("/readings")) as answer:
            page.keyboard.press("Enter")
        expect(chips(page, key)).to_have_count(before + 1)
        assert len(answer.value.body()) < 60_000
    page.wait_for_timeout(300)  # less than maps wait until the hands rest
    assert [item for item in asked if not item[1].endswith("/echo")] == [
        ("POST", f"samples/1/readings?since={since}&figures=true") for since in (0, 1)
    ]


AS_A_CALIPER = """text => [...text].forEach(key => document.activeElement.dispatchEvent(
    new KeyboardEvent('keydown', { key, code: key === '.' ? 'Period' : `Digit${key}`, bubbles: true })))"""


def test_a_caliper_typing_beside_the_fields_changes_no_sample(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    expect(row(page, "can.circumference").locator("input.input")).to_be_focused()
    page.keyboard.press("Escape")
    page.evaluate(AS_A_CALIPER, "2.98")  # in one go, as no automation types on a busy machine
    page.evaluate("document.activeElement.blur()")
    page.evaluate(AS_A_CALIPER, "2.98")
    page.keyboard.type("2[]ud")  # a single key at the bench is a slip, never a command
    page.wait_for_timeout(300)
    expect(page.get_by_role("link", name=re.compile("Korvath"))).to_have_attribute("aria-current", "true")
    expect(page).to_have_url(re.compile("/samples/1/outside$"))
    page.keyboard.press("Alt+2")
    expect(page.get_by_role("link", name=re.compile("Ysmere"))).to_have_attribute("aria-current", "true")
    expect(page.locator("[data-announced]")).to_have_text("Sample 2 selected: Ysmere")

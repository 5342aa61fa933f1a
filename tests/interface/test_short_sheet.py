"""A blank study reaches the five results and the map of the filter alone from the short sheet, by keyboard alone."""

from __future__ import annotations

import re
import time

import pytest
from playwright.sync_api import expect

from bench_steps import SHORT_ANSWERS, chips, new_study, row, to_station, walk_stage

pytestmark = pytest.mark.interface


def headlines(page):
    return [text for text in page.locator(".tape .value").all_inner_texts() if "not yet" in text or "none" in text]


def test_the_short_sheet_is_all_it_takes(page, server):
    begun = time.monotonic()
    new_study(page, server, "short")
    expect(page.locator("[role=status]", has_text="14 more for the five results")).to_be_visible()
    passed = walk_stage(page, SHORT_ANSWERS)
    assert set(SHORT_ANSWERS) | {"oil"} <= set(passed)
    assert passed[-1] == "oil"
    page.keyboard.press("ArrowDown")
    expect(row(page, "oil")).to_contain_text("typical")
    expect(page.locator("[role=status]", has_text="All is there for the five results")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/map$"))
    expect(page.get_by_text("it needs the engine's oil circuit")).to_be_visible()  # beside the map of the filter alone
    expect(page.get_by_role("button", name="CSV")).to_be_visible()
    to_station(page, "Short sheet")
    expect(chips(page, "media.strip_width")).to_have_text(["64 mm"])
    expect(row(page, "thread.major_diameter").locator(".mean").get_by_text("published")).to_be_visible()  # nobody measured it
    assert headlines(page) == []
    assert time.monotonic() - begun < 300  # as a person types it takes a few minutes


def test_a_reading_that_could_not_be_taken_is_not_said_to_be_there(page, server):
    """A state answers its row; what the map needs is still missing, and Enter after the last row does not open it."""
    new_study(page, server, "lost seat")
    walk_stage(page, SHORT_ANSWERS | {"bypass.seat_inside_diameter": "could not be found"})
    page.keyboard.press("ArrowDown")
    expect(row(page, "oil")).to_contain_text("typical")
    expect(page.locator("[role=status]", has_text="1 more for the five results")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/short$"))


def test_everything_else_is_one_key_away(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/short")
    row(page, "bypass.seat_inside_diameter").locator("input.input").focus()
    page.keyboard.press("Alt+m")
    expect(page).to_have_url(re.compile("/opened"))
    expect(row(page, "bypass.seat_inside_diameter").locator("input.input")).to_be_focused()


def test_what_a_map_needs_is_told_as_choices(page, server):
    new_study(page, server, "needs")
    expect(page.locator(".ways", has_text="a bench reading of it")).to_contain_text("six dimensions of spring and seat")
    to_station(page, "Operating map")
    needs = page.locator("[data-need]")
    expect(needs.filter(has_text="the opening pressure")).to_contain_text(
        "a bench reading of it (one entry), or the stated setting (one entry), or the push-off force, with the seat (2 entries)"
    )
    needs.filter(has_text="the opening pressure").get_by_role("link", name="the stated setting").click()
    expect(row(page, "sample.stated_bypass").locator("input")).to_be_focused()
    page.keyboard.type("1.5 bar")
    page.keyboard.press("Enter")
    to_station(page, "Short sheet")
    expect(page.locator("[data-key='bypass.opening_pressure'] + .ways")).to_have_text("Comes from another field already.")


def test_three_misread_numbers_are_corrected_by_keyboard_in_few_strokes(page, server):
    """Backspace in the empty field, the right number, Enter: the reason is the usual one unless another is chosen."""
    page.goto(f"{server.address}/studies/2/samples/6/outside")
    for key, wrong, right in (
        ("can.height", "89.4", "98.4"),
        ("plate.thickness", "4.1", "3.1"),
        ("anti_drain.lift", "4.2", "2.4"),
    ):
        row(page, key).locator("input.input").fill(wrong)
        page.keyboard.press("Enter")
        expect(chips(page, key).last).to_have_text(f"{wrong} mm")
        row(page, key).locator("input.input").focus()
        page.keyboard.press("Backspace")
        page.keyboard.type(right)
        page.keyboard.press("Enter")
        expect(chips(page, key).last).to_have_text(f"{right} mm")
        expect(row(page, key).locator(".chip.set-aside").last).to_contain_text(f"misread, {right} mm was meant")
        expect(row(page, key).locator("input.input")).to_be_focused()
    page.keyboard.press("Control+z")
    expect(row(page, "anti_drain.lift").locator(".chip.set-aside")).to_have_count(0)

"""What is typed and not entered: the hand that goes on enters it, and what cannot be understood stays as it was typed."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from bench_steps import chips, row, to_station


@pytest.fixture
def bench(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    expect(row(page, "can.height").locator("input.input")).to_be_visible()
    return page


def type_height(page, text):
    row(page, "can.height").locator("input.input").click()
    page.keyboard.type(text)


@pytest.mark.parametrize("leave", ["sample", "station", "field", "control"])
def test_going_on_enters_a_reading_as_enter_does(bench, leave):
    before = chips(bench, "can.height").count()
    type_height(bench, "97.77 mm")
    if leave == "sample":
        bench.keyboard.press("Alt+2")
        expect(bench.locator(".rack .in-hand")).to_contain_text("Ysmere")
        expect(row(bench, "can.height").locator("input.input")).to_have_value("")
        expect(chips(bench, "can.height").filter(has_text="97.77")).to_have_count(0)
        bench.keyboard.press("Alt+1")
    elif leave == "station":
        to_station(bench, "Media")
        expect(row(bench, "media.strip_length").locator("input.input")).to_be_visible()
        to_station(bench, "Outside")
    elif leave == "field":
        row(bench, "can.outside_diameter").locator("input.input").click()
    else:
        bench.keyboard.press("Shift+Tab")
    expect(chips(bench, "can.height")).to_have_count(before + 1)
    expect(chips(bench, "can.height").last).to_have_text("97.77 mm")
    expect(row(bench, "can.height").locator("input.input")).to_have_value("")


def test_what_cannot_be_understood_stays_as_typed_with_its_sentence_wherever_the_hand_goes(bench):
    type_height(bench, "97 furlong")
    row(bench, "can.outside_diameter").locator("input.input").click()
    height = row(bench, "can.height")
    expect(height).to_contain_text("no unit known")
    expect(height.locator("input.input")).to_have_value("97 furlong")
    expect(bench.locator("[data-waits]")).to_have_text("1 reading waits for an answer.")
    to_station(bench, "Media")
    expect(bench.locator("[data-waits]")).to_have_count(0)
    to_station(bench, "Outside")
    expect(height.locator("input.input")).to_have_value("97 furlong")
    expect(height).to_contain_text("no unit known")
    bench.keyboard.press("Alt+2")
    expect(bench.locator(".rack .in-hand")).to_contain_text("Ysmere")
    expect(height.locator("input.input")).to_have_value("")
    bench.keyboard.press("Alt+1")
    expect(height.locator("input.input")).to_have_value("97 furlong")


def test_a_page_that_is_loaded_again_warns_and_keeps_what_was_typed(bench):
    warned = []

    def stay_not(dialog):
        warned.append(dialog.type)
        dialog.accept()

    bench.on("dialog", stay_not)
    type_height(bench, "97.7")
    bench.reload()
    assert warned == ["beforeunload"]
    expect(row(bench, "can.height").locator("input.input")).to_have_value("97.7")
    row(bench, "can.height").locator("input.input").press("Enter")
    expect(chips(bench, "can.height").last).to_have_text("97.7 mm")
    bench.reload()
    assert len(warned) == 1
    expect(row(bench, "can.height").locator("input.input")).to_have_value("")


def test_a_line_of_holes_is_entered_too_and_one_that_is_wrong_stays(bench):
    line = row(bench, "holes.inlet").locator("input")
    groups = bench.locator(".row[data-key^='holes.inlet['][data-key$='.diameter']")
    before = groups.count()
    line.click()
    bench.keyboard.type("3 x 4.4 mm")
    to_station(bench, "Media")
    to_station(bench, "Outside")
    expect(groups).to_have_count(before + 1)
    line.click()
    bench.keyboard.type("3 by nothing")
    row(bench, "can.height").locator("input.input").click()
    expect(line).to_have_value("3 by nothing")
    expect(bench.locator("[data-waits]")).to_have_text("1 reading waits for an answer.")

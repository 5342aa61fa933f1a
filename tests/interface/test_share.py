"""Sharing a view: copied with its caption, and linked to so that it opens the same elsewhere."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

pytestmark = pytest.mark.interface


@pytest.fixture
def pasting(page, server):
    page.context.grant_permissions(["clipboard-read", "clipboard-write"], origin=server.address)
    return lambda: page.evaluate("navigator.clipboard.readText()")


def found(page, words):
    page.get_by_role("button", name="Find").click()
    page.get_by_label("What to find or do").fill(words)
    page.get_by_role("dialog").get_by_role("option").first.wait_for()
    page.keyboard.press("Enter")


def test_the_numbers_and_the_picture_of_a_map_are_copied_with_their_caption(page, server, pasting):
    page.goto(f"{server.address}/studies/1/samples/1/map")
    page.locator('[data-copy="begin"]').click()
    expect(page.locator('[data-copy="picture"]')).to_be_focused()
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="numbers copied")).to_be_attached()
    first, second, *rows = pasting().splitlines()
    assert "Korvath" in first
    assert "\t" in second
    assert len(rows) > 60
    page.locator('[data-copy="begin"]').click()
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="picture copied")).to_be_attached()
    assert page.evaluate("navigator.clipboard.read().then(items => items[0].types)") == ["image/png"]


def test_a_link_opens_the_same_crosshair_and_scenario_where_nothing_of_it_is_remembered(page, server, pasting, browser):
    page.goto(f"{server.address}/studies/1/samples/2/map?at=-10,3000&condition=filling&quantity=unfiltered_fraction")
    expect(page.get_by_role("textbox", name=re.compile("oil temperature", re.IGNORECASE)).first).to_have_value("-10")
    found(page, "copy a link")
    expect(page.get_by_text("Link copied")).to_be_visible()
    link = pasting()
    assert link.startswith(f"{server.address}/studies/1/samples/2/map?")
    scenario = "%7B%22name%22%3A%22clogged%22%2C%22loading%22%3A3%7D"
    elsewhere = browser.new_context().new_page()
    elsewhere.goto(f"{link}&scenario={scenario}")
    expect(elsewhere.get_by_role("textbox", name=re.compile("oil temperature", re.IGNORECASE)).first).to_have_value("-10")
    elsewhere.get_by_role("link", name="Comparison").click()
    expect(elsewhere.locator("[data-what-if]")).to_contain_text("media 3 times as resistant")
    expect(elsewhere.get_by_role("button", name="Filling", pressed=True)).to_be_visible()
    elsewhere.context.close()


def test_a_link_that_says_nonsense_opens_the_view_as_usual(page, server):
    page.goto(f"{server.address}/studies/1/samples/2/map?at=x,y&condition=boiling&scenario=%7B&size=-4")
    expect(page.get_by_role("textbox", name=re.compile("oil temperature", re.IGNORECASE)).first).to_have_value("-25")
    expect(page.locator('[data-crosshair="state"]')).to_be_visible()


@pytest.mark.parametrize(("view", "says"), [("opened", "Section through the filter"), ("start", ""), ("efficiency", "")])
def test_the_picture_in_sight_is_copied_from_any_view(page, server, pasting, view, says):
    page.goto(f"{server.address}/studies/1/samples/1/{view}")
    expect(page.locator("main svg[role=img], main svg[aria-label]").first).to_be_visible()
    found(page, "copy the picture in sight")
    expect(page.get_by_text("The picture is copied, with what it shows")).to_be_visible()
    assert page.evaluate("navigator.clipboard.read().then(items => items[0].types)") == ["image/png"]


def test_the_table_in_sight_is_copied_with_what_it_is_of(page, server, pasting):
    page.goto(f"{server.address}/studies/1/samples/1/working/inlet_hole_area")
    expect(page.locator("main table").first).to_be_visible()
    found(page, "copy the table in sight")
    expect(page.get_by_text("The table is copied, with what it shows")).to_be_visible()
    lines = pasting().splitlines()
    assert "Mountain road service, winter filters" in lines[0]
    assert any("231.2" in line and "\t" in line for line in lines[1:])


def test_the_comparison_sheet_is_copied(page, server, pasting):
    page.goto(f"{server.address}/studies/1/samples/1/sheet")
    expect(page.locator('[data-row="media_effective_area_cm2"]')).to_be_visible()
    page.locator('[data-copy="sheet"]').click()
    expect(page.locator('[data-copy="sheet"]')).to_have_text("copied")
    text = pasting()
    assert text.startswith("Comparison sheet of part numbers: value ± U (95 %).")
    assert "Korvath" in text.splitlines()[1]


def test_stations_and_samples_have_addresses_that_open_in_a_tab_of_their_own(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    station = page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile("^Operating map"))
    expect(station).to_have_attribute("href", "/studies/1/samples/1/map")
    sample = page.get_by_role("list", name="Samples").get_by_role("link").nth(2)
    expect(sample).to_have_attribute("href", "/studies/1/samples/3/outside")
    with page.context.expect_page() as opened:
        sample.click(modifiers=["Control"])
    expect(opened.value.locator(".rack .in-hand kbd")).to_have_text("Alt+3")
    assert page.url.endswith("/samples/1/outside")  # the hand stays where it is
    sample.click()
    page.wait_for_url("**/samples/3/outside")
    page.goto(server.address)
    expect(page.locator("[data-study='1'] h2").get_by_role("link")).to_have_attribute("href", "/studies/1/samples/1/outside")

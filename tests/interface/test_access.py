"""Every view, light and dark, against WCAG 2.2 AA and the best practices that axe-core knows, and by its layout."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from bench_steps import row, to_station
from page_checks import laid_out, looked_at

pytestmark = pytest.mark.interface

SAMPLE = "/studies/1/samples/1"
BENCH = ("short", "outside", "opened", "element", "media")
DRAWN = (*BENCH, "efficiency", "engine", "map", "comparison", "start")
VIEWS = (
    *DRAWN,
    "intake",
    "cut",
    "same-part",
    "verdict",
    "sheet",
    "sums",
    "report",
    "readings-table",
)
"""All of a study; those with drawings first."""
FRAME = (".frame > .bar", ".frame > .line", ".frame > .top")
"""The same on every view of a study but for the keys beside the samples."""
WITH_FRAME = ("outside", "report")
"""A view at which one types, and one that is none."""


def test_the_studies(page, server):
    page.goto(server.address)
    expect(page.locator("[data-sample='1'] td").first).not_to_have_text("…")
    assert looked_at(page) == []
    page.get_by_role("button", name="Archived 0").click()
    assert looked_at(page) == []


def test_the_backups(page, server):
    page.goto(f"{server.address}/backups")
    page.get_by_role("button", name="Back up now").click()
    page.get_by_role("button", name="Put back").click()
    assert looked_at(page) == []


def test_what_it_is_built_of(page, server):
    page.goto(f"{server.address}/about")
    page.locator("[data-notice=numpy] summary").click()
    expect(page.locator("[data-notice=numpy] pre")).to_contain_text("Redistribution and use in source and binary forms")
    assert looked_at(page) == []


def test_the_own_preferences(page, server):
    page.goto(f"{server.address}/preferences")
    expect(page.locator("[data-preference]").first).to_be_visible()
    assert looked_at(page) == []


@pytest.mark.parametrize("view", VIEWS)
def test_a_view_is_open_to_everyone_and_nothing_in_it_is_too_small_cut_off_or_on_another(page, server, view):
    """Of one filter by what axe-core knows, of the next one by its layout: at 1280 by 800, in millimetres and in inches."""
    page.goto(f"{server.address}{SAMPLE}/{view}")
    expect(page.locator("main h1")).to_be_attached()
    if view in BENCH:  # the sheet may come after what is drawn beside it
        expect(page.locator("main .row").first).to_be_attached()
    assert looked_at(page, without=() if view in WITH_FRAME else FRAME) == []
    page.keyboard.press("Alt+2")
    page.wait_for_url("**/samples/2/**")
    if view in DRAWN:
        expect(page.locator("svg text:visible").first).to_be_visible()
    for symbol in ("mm", "in"):
        page.wait_for_load_state("networkidle", timeout=120_000)
        assert laid_out(page) == [], symbol
        page.keyboard.press("Alt+u")


def test_a_whole_filter_before_the_cut_and_a_blank_one(page, server):
    for view in ("cut", "outside", "map", "comparison"):
        page.goto(f"{server.address}/studies/2/samples/7/{view}")
        expect(page.locator("main h1")).to_be_attached()
        assert looked_at(page) == []


def test_the_map_and_what_stands_beside_it(page, server):
    page.goto(f"{server.address}{SAMPLE}/map")
    panels = page.get_by_role("group", name="Beside the map")
    for panel in ("What if", "Flow", "Inputs"):
        panels.get_by_role("button", name=panel).click()
        assert looked_at(page, "main aside") == [], panel
    page.keyboard.press("t")
    assert looked_at(page, "main") == []
    page.get_by_role("button", name="Filter alone").click()
    page.keyboard.press("t")
    assert looked_at(page) == []


def test_the_switch_between_light_and_dark_is_the_class_that_is_tried_here(page, server):
    page.goto(f"{server.address}{SAMPLE}/cut")
    page.get_by_role("button", name="Dark").click()
    assert page.evaluate("document.documentElement.classList.contains('dark')")


def test_a_working(page, server):
    page.goto(f"{server.address}{SAMPLE}/working/media_effective_area")
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    assert looked_at(page) == []


def test_what_opens_over_a_view(page, server):
    page.goto(f"{server.address}{SAMPLE}/outside")
    for keys in ("Control+k", "Alt+d", "F1"):
        expect(row(page, "can.height").locator("input.input")).to_be_visible()
        page.keyboard.press(keys)
        expect(page.get_by_role("dialog")).to_be_visible()
        assert looked_at(page, "[role=dialog]") == [], keys
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)


def test_a_field_in_hand_with_what_it_says_and_what_is_copied(page, server):
    page.goto(f"{server.address}{SAMPLE}/outside")
    height = '[data-key="can.height"]'
    page.locator(height).locator("input.input").fill("980 mm")
    expect(page.locator(height).locator(".said-wrong")).to_be_visible()
    assert looked_at(page, height) == []
    page.keyboard.press("Escape")
    page.locator(height).locator(".chip").first.click()
    assert looked_at(page, height) == []
    page.keyboard.press("Escape")
    page.keyboard.press("Alt+d")
    page.get_by_role("button", name="Duplicate", exact=True).click()
    expect(page.locator(".rack .in-hand")).to_contain_text("Korvath 2")
    assert looked_at(page, "main") == []
    to_station(page, "Intake")
    expect(row(page, "sample.maker")).to_contain_text("copied from")
    assert looked_at(page, "main") == []

"""The page that compares filters as parts: the twin of the demo is found, by keyboard too, in inches, and on a blank study."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from bench_steps import new_study

pytestmark = pytest.mark.interface

VERDICT = '[data-part="verdict"]'


def test_the_twin_is_found_and_another_pair_is_told_apart(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/comparison")
    page.get_by_role("link", name="Same part?").click()
    expect(page.locator(VERDICT)).to_have_text("Korvath and Dunmor: nothing tells them apart")
    expect(page.get_by_role("link", name="Comparison")).to_have_attribute("aria-current", "page")
    page.locator('[data-pair="Korvath/Halvene"]').focus()
    page.keyboard.press("Enter")
    expect(page.locator(VERDICT)).to_have_text("Korvath and Halvene: different parts")
    row = page.locator('[data-finding="element.pleat_count"]')
    expect(row).to_contain_text("54")
    expect(row).to_contain_text("−11 %")
    page.keyboard.press("]")
    expect(page).to_have_url(f"{server.address}/studies/1/samples/1/start")


def test_sizes_are_shown_in_the_family_that_is_chosen(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/same-part")
    height = page.locator('[data-finding="can.height"]')
    expect(height).to_contain_text("98.45 mm")
    page.get_by_text("in · psi").click()
    expect(height).to_contain_text("3.8760 in")


def test_one_filter_alone_has_nothing_to_be_compared_with(page, server):
    new_study(page, server, "alone")
    page.goto(page.url.rsplit("/", 1)[0] + "/same-part")
    expect(page.get_by_text("There is one filter only")).to_be_visible()


def test_a_filter_of_another_study_is_compared_and_a_part_number_from_lot_to_lot(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/same-part")
    lots = page.locator('[data-lots="KV 212 W"]')
    expect(lots).to_contain_text("3 specimens, in the order they were made")
    expect(lots).to_contain_text("Snow groomer 7")
    page.get_by_role("button", name="other studies").click()
    page.get_by_role("button", name="Spare").focus()
    page.keyboard.press("Enter")
    pair = page.locator('[data-pair^="Korvath/Spare"]')
    pair.focus()
    page.keyboard.press("Enter")
    expect(page.locator(VERDICT)).to_contain_text("Korvath and Spare (Snow groomer 7")
    page.get_by_role("button", name="this study only").click()
    expect(pair).to_have_count(0)

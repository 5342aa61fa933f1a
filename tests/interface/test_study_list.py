"""The list of studies: what it shows of each, searched and sorted; studies and samples put away, deleted and put back."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from bench_steps import fetch_ahead, new_study, row

pytestmark = pytest.mark.interface


def card(page, name):
    return page.locator("[data-study]").filter(has=page.get_by_role("heading", name=name))


def shown(page):
    return [text.strip() for text in page.locator("[data-study] h2").all_inner_texts()]


def test_a_study_shows_its_cans_results_and_what_is_missing(page, server):
    page.goto(server.address)
    groomer = card(page, "Snow groomer 7")
    spare = groomer.get_by_role("row").filter(has_text="Spare")
    expect(spare).to_contain_text("needs the place of the bypass valve")
    expect(spare.locator("svg.can")).to_be_visible()
    expect(groomer).to_contain_text("last change")
    page.keyboard.press("Alt+u")
    expect(groomer).to_contain_text("in²")
    spare.get_by_role("link", name="Spare").click()
    expect(page.locator(".rack .in-hand")).to_contain_text("Spare")
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    tape = page.locator("[data-result='media_effective_area_cm2'] .big")
    expect(tape).to_be_visible()
    number = tape.inner_text()
    page.goto(server.address)
    expect(page.locator("[data-sample='1']")).to_contain_text(number)  # the same unit family as before, the same number


def test_studies_are_searched_and_sorted(page, server):
    new_study(page, server, "a third one")
    page.goto(server.address)
    expect(page.locator("[data-study]")).to_have_count(3)
    page.get_by_label("sort by").select_option("name")
    assert shown(page) == sorted(shown(page), key=str.lower)
    page.get_by_role("searchbox", name="Search studies").fill("dunm")
    expect(page.locator("[data-study]")).to_have_count(1)
    expect(card(page, "Mountain road service")).to_be_visible()
    page.get_by_role("searchbox", name="Search studies").fill("nobody knows this")
    expect(page.get_by_text("No study here is known by these words")).to_be_visible()


def test_a_study_is_archived_deleted_and_put_back(page, server):
    page.goto(server.address)
    groomer = card(page, "Snow groomer 7")
    groomer.get_by_role("button", name="Archive").click()
    expect(page.get_by_text("is archived: everything of it is kept")).to_be_visible()
    expect(groomer).to_have_count(0)
    page.get_by_role("button", name="Archived 1").click()
    groomer.get_by_role("button", name="Delete").click()
    page.get_by_role("button", name="Deleted 1").click()
    expect(groomer.get_by_role("button")).to_have_text(["Put back"])
    groomer.get_by_role("button", name="Put back").click()
    page.get_by_role("button", name="In use 2").click()
    expect(groomer.locator("[data-sample]")).to_have_count(2)


def test_a_sample_is_deleted_by_its_own_words_undone_and_put_back_from_the_list(page, server):
    page.goto(f"{server.address}/studies/1/samples/3/outside")
    expect(page.locator(".rack .in-hand")).to_contain_text("Halvene")
    page.keyboard.press("Control+k")
    page.keyboard.type("throw away")
    page.keyboard.press("Enter")
    expect(page.get_by_text("“Halvene” is deleted. Ctrl+Z takes it back")).to_be_visible()
    expect(page.locator(".rack")).not_to_contain_text("Halvene")
    page.keyboard.press("Control+z")
    expect(page.locator(".rack")).to_contain_text("Halvene")
    page.locator(".rack").get_by_role("link", name=re.compile("Halvene")).click()
    expect(page.locator(".rack .in-hand")).to_contain_text("Halvene")
    page.locator(".rack").get_by_role("button", name="Delete", exact=True).click()
    expect(page.locator(".rack .in-hand")).not_to_contain_text("Halvene")
    page.goto(f"{server.address}/studies/1/samples/3/outside")
    expect(page.get_by_text("there is no sample 'Halvene' any more, it was deleted: put it back")).to_be_visible()
    page.goto(server.address)
    page.get_by_role("button", name="Put Halvene back").click()
    expect(page.locator("[data-sample='3']")).to_be_visible()


def test_a_deletion_is_taken_back_at_once_while_the_next_sample_is_still_on_its_way(page, server):
    """On a slow machine the next sample's sheet is still the one from before when Ctrl+Z is pressed."""
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    expect(page.locator(".rack .in-hand")).to_contain_text("Korvath")
    page.locator(".rack").get_by_role("link", name=re.compile("Halvene")).click()
    expect(page.locator(".rack .in-hand")).to_contain_text("Halvene")
    held = []
    page.route(re.compile(r"/api/samples/1$"), lambda route: held.append(route))
    page.locator(".rack").get_by_role("button", name="Delete", exact=True).click()
    expect(page.get_by_text("“Halvene” is deleted. Ctrl+Z takes it back")).to_be_visible()
    page.keyboard.press("Control+z")
    page.wait_for_timeout(500)
    for route in held:
        route.continue_()
    page.unroute_all()
    expect(page.locator(".rack")).to_contain_text("Halvene")


def test_a_deletion_is_taken_back_though_the_next_sample_was_fetched_before_it(page, server):
    """A sheet fetched beforehand knows of no deletion yet, and arrives after it."""
    from_before = []
    fetch_ahead(page)

    def answered_late(route):
        from_before.append((route, route.fetch()))

    page.route(re.compile(r"/api/samples/1$"), answered_late, times=1)
    page.goto(f"{server.address}/studies/1/samples/3/outside")
    expect(page.locator(".rack .in-hand")).to_contain_text("Halvene")
    for _ in range(200):
        if not from_before:
            page.wait_for_timeout(50)
    assert from_before
    page.locator(".rack").get_by_role("button", name="Delete", exact=True).click()
    expect(page.locator(".rack .in-hand")).to_contain_text("Korvath")
    for route, response in from_before:
        route.fulfill(response=response)
    page.keyboard.press("Control+z")
    expect(page.locator(".rack")).to_contain_text("Halvene")


def test_two_windows_one_deletes_what_the_other_has_open(context, page, server):
    other = context.new_page()
    for window in (page, other):
        window.goto(f"{server.address}/studies/1/samples/3/outside")
        expect(row(window, "can.height").locator("input.input")).to_be_visible()
    other.locator(".rack").get_by_role("button", name="Delete", exact=True).click()
    expect(other.locator(".rack .in-hand")).not_to_contain_text("Halvene")
    expect(page.get_by_text("there is no sample 'Halvene' any more, it was deleted: put it back")).to_be_visible()
    expect(row(page, "can.height")).to_have_count(0)
    other.keyboard.press("Control+z")
    expect(row(page, "can.height").locator("input.input")).to_be_visible()


def test_an_archived_sample_leaves_the_comparison_and_comes_back(page, server):
    page.goto(f"{server.address}/studies/1/samples/2/comparison")
    table = page.locator("main").get_by_role("button", name="Ysmere")
    expect(table.first).to_be_visible()
    page.locator(".rack").get_by_role("button", name="Archive", exact=True).click()
    expect(page.locator(".rack")).to_contain_text("Ysmere archived")
    expect(table).to_have_count(0)
    page.locator(".rack").get_by_role("button", name="Put back").click()
    expect(table.first).to_be_visible()

"""The comparison sheet: rows chosen, found and opened by keyboard, in inches, ten filters readable, other studies, CSV, print."""

from __future__ import annotations

import copy
import csv
import io
import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from bench_steps import new_study
from builders import plain_document

pytestmark = pytest.mark.interface


def opened(page, server, study=1, sample=1):
    page.goto(f"{server.address}/studies/{study}/samples/{sample}/sheet")
    expect(page.locator("[data-row]").first).to_be_visible(timeout=60_000)


def row(page, key):
    return page.locator(f'[data-row="{key}"]')


def test_rows_are_chosen_found_and_opened_by_keyboard(page, server):
    opened(page, server)
    expect(row(page, "media_effective_area_cm2").locator("td.best")).to_contain_text("1730")
    expect(row(page, "media_effective_area_cm2").locator("td.worst")).to_contain_text("−43 %")
    page.get_by_role("button", name="What matters here").click()
    expect(row(page, "tube.burr_side")).to_contain_text("towards the media")
    expect(row(page, "can.height")).to_have_count(0)
    page.get_by_role("button", name="All", exact=True).click()
    page.get_by_role("searchbox", name="Find a row").fill("wall thick")
    expect(page.locator("[data-row]")).to_have_count(2)
    title = row(page, "can.wall_thickness").get_by_role("button", name="can: wall thickness")
    title.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("img", name="can: wall thickness")).to_be_visible()
    page.get_by_role("button", name="put the columns in this order").click()
    expect(page.locator("thead th[data-column]").first).to_have_attribute("data-column", "Ysmere")  # the slip: twice as thick
    page.get_by_role("button", name="as in the rack", exact=True).click()
    expect(page.locator("thead th[data-column]").first).to_have_attribute("data-column", "Korvath")
    row(page, "can.wall_thickness").locator("td").nth(1).get_by_role("button").click()
    expect(page).to_have_url(re.compile("/samples/2/outside|/samples/2/opened"))


def test_sizes_are_shown_in_inches_and_the_sheet_is_taken_away_in_them(page, server):
    opened(page, server)
    page.get_by_text("in · psi").click()
    height = row(page, "can.height")
    expect(height.locator(".unit")).to_have_text("in")
    expect(height.locator("td").first).to_contain_text("3.876")
    onset = row(page, "onset_c")
    expect(onset.locator(".unit")).to_have_text("°F")
    with page.expect_download() as download:
        page.get_by_role("button", name="CSV").click()
    lines = list(csv.reader(io.StringIO(Path(download.value.path()).read_text())))
    assert lines[0][:4] == ["group", "row", "unit", "Korvath"]
    taken = next(line for line in lines if line[1] == "can: height")
    assert taken[2] == "in"
    assert float(taken[3]) == pytest.approx(98.45 / 25.4, abs=0.01)


def test_a_sample_of_another_study_stands_beside_with_its_warning_until_it_is_taken_away(page, server):
    opened(page, server)
    page.get_by_role("button", name="other studies").click()
    page.get_by_role("textbox", name="find a sample of another study").fill("spare")
    page.get_by_role("button", name="Spare").focus()
    page.keyboard.press("Enter")
    warning = page.get_by_text("Spare was measured for another engine")
    expect(warning).to_be_visible(timeout=60_000)
    page.reload()
    expect(warning).to_be_visible(timeout=60_000)
    page.get_by_role("button", name="Remove Spare of Snow groomer 7").click()
    expect(warning).to_have_count(0)


def test_without_a_reference_part_it_is_said_how_to_name_one(page, server):
    document = plain_document() | {"name": "no reference"}
    document.pop("reference", None)
    study = page.request.post(f"{server.address}/api/studies", data=document).json()
    opened(page, server, study["id"], study["samples"][0]["id"])
    expect(page.locator('[data-part="no-reference"]')).to_contain_text("name one at intake")
    page.get_by_role("link", name="intake", exact=True).click()
    expect(page.locator('[data-key="study.reference"] input')).to_be_focused()


def test_an_opened_row_says_where_the_filter_in_hand_lies_among_all_of_its_size(page, server):
    opened(page, server, sample=4)
    row(page, "media_effective_area_cm2").get_by_role("button", name="effective media area").focus()
    page.keyboard.press("Enter")
    words = page.locator("figcaption")
    expect(words).to_contain_text("Brennig lies above 100 % of 5 others of its size in this database.")
    expect(words).to_contain_text("Best of the others: 1258 cm², Korvath")


def test_ten_filters_are_readable_and_their_headings_stay(page, server):
    document = plain_document() | {"name": "ten"}
    plain = document["samples"][0]
    document["samples"] = [copy.deepcopy(plain) | {"label": f"Filter {i}"} for i in range(10)]
    study = page.request.post(f"{server.address}/api/studies", data=document).json()
    page.set_viewport_size({"width": 1280, "height": 800})
    opened(page, server, study["id"], study["samples"][0]["id"])
    box = page.get_by_role("region", name="Comparison sheet")
    assert box.evaluate("one => one.scrollWidth - one.clientWidth") <= 1
    heading = page.locator('thead th[data-column="Filter 9"]')
    before = heading.bounding_box()
    box.evaluate("one => one.scrollTo(0, 2000)")
    assert box.evaluate("one => one.scrollTop") > 100
    assert heading.bounding_box() == before
    sizes = page.locator(".sheet .figure").evaluate_all("all => all.map(one => parseFloat(getComputedStyle(one).fontSize))")
    assert min(sizes) >= 11


def test_the_sheet_prints_on_landscape_a4_without_what_is_pressed(page, server):
    opened(page, server)
    page.emulate_media(media="print")
    expect(page.get_by_role("heading", name="Comparison sheet, Mountain road service")).to_be_visible()
    for pressed in ("CSV", "These specimens"):
        expect(page.get_by_role("button", name=pressed)).to_be_hidden()
    expect(page.get_by_text("Part numbers: every U holds what specimens differ by")).to_be_visible()
    result = page.pdf(prefer_css_page_size=True)
    assert b"/MediaBox [0 0 841.9" in result


def test_a_blank_study_shows_the_label_and_no_numbers(page, server):
    new_study(page, server, "blank sheet")
    page.goto(page.url.rsplit("/", 1)[0] + "/sheet")
    expect(page.get_by_text("Nothing is known of the filters yet")).to_be_visible()

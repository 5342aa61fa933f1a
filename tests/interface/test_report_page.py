"""The report station: planned by keyboard, looked at as it will print, issued, and what has changed since."""

from __future__ import annotations

import io
import json
import re
from datetime import UTC, datetime

import pypdfium2
import pytest
from playwright.sync_api import expect

from bench_steps import new_study

pytestmark = pytest.mark.interface

NUMBER = f"Report {datetime.now(UTC).year}-0001"
SETTLED = re.compile(r"\d+ pages?, [\d.]+ MB\. Draft, not issued\.")


def settled(page):
    """Wait until what was changed is kept, and the pages are those of it."""
    expect(page.get_by_role("region", name="Plan of the report")).to_have_attribute("aria-busy", "false", timeout=60_000)
    expect(page.get_by_role("status").filter(has_text=SETTLED)).to_be_visible(timeout=90_000)


def parts(page):
    return page.locator("[data-report-part]").evaluate_all("all => all.map(one => one.dataset.reportPart)")


def planned(page, server, *parts):
    """Plan a report of few parts: all of the demo takes ten seconds to set."""
    address = f"{server.address}/api/studies/1/report"
    plan = page.request.get(address).json()["plan"]
    short = plan | {"parts": [{"part": part, "text": None} for part in parts]}
    assert page.request.put(address, data={"plan": short, "seen": plan}).ok


def opened(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/report")
    expect(page.locator("[data-report-part]").first).to_be_visible()


def pressed(page, name):
    page.get_by_role("button", name=name, exact=True).press("Enter")


def without_filters(page):
    """Leave out what takes long to set."""
    kept = ("Claims and what readings say of them", "Oil, engine and circuit", "Method")
    for name in page.locator("[data-report-part] .title").all_inner_texts():
        if name in kept:
            continue
        pressed(page, f"leave out {name}")


def test_parts_are_left_out_moved_and_written_by_keyboard_however_fast_and_stay_after_a_reload(page, server):
    opened(page, server)
    without_filters(page)
    assert parts(page) == ["conditions", "method", "claims"]
    pressed(page, "+ own text")
    expect(page.get_by_role("textbox", name="new own text")).to_be_focused()
    page.keyboard.type("# Advice\n\nFit <b>Korvath</b>.")
    page.keyboard.press("Control+Enter")
    pressed(page, "Move own text 1 up")
    expect(page.get_by_role("button", name="Move own text 1 up")).to_be_focused()
    plan = page.get_by_role("region", name="Plan of the report")
    # what is done while something is on its way goes with the next, as one change: the last move is to be one of its own
    expect(plan).to_have_attribute("aria-busy", "false", timeout=60_000)
    page.keyboard.press("Enter")
    assert parts(page) == ["conditions", "text", "method", "claims"]
    expect(page.get_by_role("button", name="Move own text 1 up")).to_be_focused()
    expect(plan).to_have_attribute("aria-busy", "false", timeout=60_000)
    page.reload()
    expect(page.get_by_role("textbox", name="own text 1")).to_have_value("# Advice\n\nFit <b>Korvath</b>.")
    assert parts(page) == ["conditions", "text", "method", "claims"]
    page.keyboard.press("Control+z")
    expect(page.locator("[data-report-part]").nth(1)).to_have_attribute("data-report-part", "method")


def test_a_report_is_looked_at_issued_kept_and_told_what_has_changed_since(page, server):
    planned(page, server, "claims", "conditions", "method")
    opened(page, server)
    title = page.get_by_role("textbox", name="title")
    title.fill("Winter filters")
    title.press("Tab")
    settled(page)
    first = page.get_by_role("img", name=re.compile(r"^Page 1 of "))
    expect(first).to_be_visible()
    first.evaluate("picture => picture.decode()")
    assert first.evaluate("picture => picture.naturalWidth") > 500
    pressed(page, "Issue this report …")
    expect(page.get_by_role("button", name="issue it")).to_be_focused()
    page.keyboard.press("Enter")
    issued = page.locator("[data-issued]")
    expect(issued).to_contain_text(NUMBER)
    status = page.get_by_role("region", name="Pages").get_by_role("status")
    expect(status).to_contain_text("Issued as report")
    page.get_by_role("button", name="Issue this report …").click()
    page.get_by_role("button", name="issue it").click()
    expect(status).to_contain_text("no second one was issued")
    expect(issued).to_have_count(1)
    expect(issued).to_contain_text("nothing has changed since")
    with page.expect_download() as download:
        issued.get_by_role("link", name=NUMBER).click()
    text = " ".join(
        item.get_textpage().get_text_range() for item in pypdfium2.PdfDocument(io.BytesIO(download.value.path().read_bytes()))
    )
    assert "Winter filters" in text
    assert NUMBER in text
    other = page.context.new_page()
    other.goto(f"{server.address}/studies/1/samples/1/outside")
    taken = {"key": "can.mass", "text": "121 g"}
    other.evaluate(
        "body => fetch('/api/samples/1/readings', {method: 'POST', headers: {'Content-Type': 'application/json'}, body})",
        json.dumps(taken),
    )
    page.reload()
    expect(issued).to_contain_text("one thing has changed since", timeout=60_000)
    issued.get_by_role("button", name="one thing has changed since").click()
    expect(issued.get_by_role("listitem")).to_have_count(1)
    expect(issued.get_by_role("listitem")).to_contain_text("Korvath: Can: mass: nothing → 121 g")


def test_what_is_typed_is_not_replaced_by_what_another_window_does(page, server):
    planned(page, server, "claims", "rules", "method")
    opened(page, server)
    title = page.get_by_role("textbox", name="title")
    title.fill("mine")
    other = page.context.new_page()
    opened(other, server)
    theirs = other.get_by_role("textbox", name="title")
    theirs.fill("theirs")
    theirs.press("Tab")
    expect(page.get_by_role("alert")).to_contain_text("Another window has changed this meanwhile")
    expect(title).to_have_value("mine")
    title.press("Escape")
    expect(title).to_have_value("theirs")


def test_a_size_is_chosen_by_keyboard_and_brings_its_parts(page, server):
    planned(page, server, "conditions")
    opened(page, server)
    size = page.locator('[aria-label="Size of the report"]')
    pressed(size, "Full")
    expect(page.locator("[data-report-part]")).to_have_count(4)
    assert parts(page) == ["conditions", "filters", "readings", "budgets"]
    pressed(size, "Card")
    expect(page.get_by_text("A card is one page: the answer, bars, one table.")).to_be_visible()
    expect(page.get_by_text(re.compile(r"^1 page, "))).to_be_visible(timeout=90_000)
    pressed(size, "Short")
    expect(page.locator("[data-report-part]")).to_have_count(1)
    assert parts(page) == ["conditions"]


def test_of_two_windows_that_change_the_parts_at_once_none_undoes_the_other(page, server):
    planned(page, server, "claims", "rules", "method")
    opened(page, server)
    other = page.context.new_page()
    opened(other, server)
    asked = []
    page.route("**/report", lambda route: asked.append(route) if route.request.method == "PUT" else route.continue_())
    with page.expect_request(lambda request: request.method == "PUT"):
        pressed(page, "leave out Claims and what readings say of them")
    with other.expect_response(lambda answer: answer.request.method == "PUT"):
        pressed(other, "leave out Requirements and what was found")
    asked[0].continue_()
    says = "another window has changed the plan of the report meanwhile"
    expect(page.get_by_role("alert")).to_contain_text(says, timeout=60_000)
    for window in (page, other):
        expect(window.locator('[data-report-part="rules"]')).to_have_count(0)
        expect(window.locator('[data-report-part="claims"]')).to_have_count(1)


def test_a_blank_study_has_its_pages_and_a_wrong_zip_is_refused_in_a_sentence(page, server, tmp_path):
    new_study(page, server, "blank")
    page.goto(page.url.rsplit("/", 1)[0] + "/report")
    settled(page)
    with page.expect_download() as download:
        page.get_by_role("link", name="whole study, ZIP").click()
    zipped = tmp_path / "study.zip"
    download.value.save_as(zipped)
    page.goto(server.address)
    picker = page.locator('input[type="file"]')
    expect(page.get_by_text("blank").first).to_be_visible()
    before = page.locator("article, [data-study]").count()
    wrong = tmp_path / "wrong.zip"
    wrong.write_bytes(b"PK no zip")
    picker.set_input_files(wrong)
    expect(page.get_by_role("alert")).to_contain_text("is no zip file, or a damaged one")
    assert page.locator("article, [data-study]").count() == before
    picker.set_input_files(zipped)
    expect(page).to_have_url(re.compile(r"/studies/\d+/samples/\d+/outside"))
    expect(page.get_by_text("blank").first).to_be_visible()

"""A second filter begun as a copy of the first, by keyboard and by touch; what was typed and not taken is said first."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from bench_steps import SHORT_ANSWERS, chips, new_study, row, to_station, walk_stage

pytestmark = pytest.mark.interface

OWN = {"anti_drain.lift": "2.5", "bypass.opening_pressure": "135", "element.pleat_count": "53", "media.strip_length": "1590"}
"""Readings that differ from specimen to specimen, and are taken on the second one as well."""

COUNT_ACTIONS = """
window.actions = 0
addEventListener('keydown', (event) => { if (!/^(Alt|Shift|Control|Meta)$/.test(event.key)) window.actions += 1 }, true)
addEventListener('pointerdown', () => { window.actions += 1 }, true)
"""


def complete(page):
    expect(page.locator("[role=status]", has_text="All is there for the five results")).to_be_visible()
    return page.locator(".tape .value").all_inner_texts()


def measure_first(page, server):
    new_study(page, server, "two of one part")
    walk_stage(page, SHORT_ANSWERS)
    page.keyboard.press("ArrowDown")  # on the oil: the first grade
    expect(row(page, "oil")).to_contain_text("typical")
    return complete(page)


def confirm_or_measure(page):
    """Go down the short sheet of a copy: type what is measured anew, confirm everything else that is copied."""
    for _ in range(40):
        key, copied = page.evaluate(
            "(() => { const at = document.activeElement.closest('[data-stop]'); return [at?.dataset.key, at?.dataset.copied] })()"
        )
        if key in OWN and chips(page, key).count() < 2:
            page.keyboard.type(OWN[key])
            page.keyboard.press("Enter")
        elif copied:
            page.keyboard.press("Alt+c")
        elif key == "oil":
            return
        else:
            page.keyboard.press("Enter")
        expect(page.locator(f'[data-key="{key}"][data-stop]:focus-within')).to_have_count(0)
    raise AssertionError("the sheet has no end")


def test_the_second_filter_takes_at_most_half_the_actions_of_the_first(page, server):
    page.add_init_script(COUNT_ACTIONS)
    results = measure_first(page, server)
    first = page.evaluate("window.actions")
    page.keyboard.press("Alt+d")
    dialog = page.get_by_role("dialog", name="Duplicate a sample")
    expect(dialog.get_by_label("label of the new one")).to_be_focused()
    dialog.get_by_role("button", name="all of it").click()
    dialog.get_by_role("button", name="Duplicate").click()
    expect(page.locator(".rack .in-hand")).to_contain_text("Sample 2")
    expect(page.get_by_role("button", name=re.compile(r"Confirm all \d+ copied things of the short sheet"))).to_be_visible()
    expect(page.locator(".tape")).to_contain_text("assumed")
    confirm_or_measure(page)
    expect(page.locator(".short [data-copied]")).to_have_count(0)
    second = page.evaluate("window.actions") - first
    assert second <= first / 2, (first, second)
    assert complete(page) != results
    expect(chips(page, "media.strip_length")).to_have_text(["1600 mm", "1590 mm"])
    expect(row(page, "media.strip_length").locator(".chip.unused")).to_have_count(1)
    page.keyboard.press("Control+z")
    expect(page.get_by_text(re.compile("Undone"))).to_be_visible()


def test_what_is_typed_is_said_before_a_copy_is_made_and_taken_before_the_sample_is_deleted(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    row(page, "can.height").locator("input.input").fill("97")
    page.keyboard.press("Alt+d")
    expect(page.get_by_text("Something is typed into “Height” and not taken yet")).to_be_visible()
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.route("**/api/studies/1", lambda route: None)  # the rack waits for no other answer
    page.locator(".rack").get_by_role("button", name="Delete", exact=True).click()  # the hand goes on: it is taken first
    expect(page.get_by_text("“Korvath” is deleted.")).to_be_visible()
    assert "Korvath" not in page.locator(".rack").inner_text()
    page.unroute("**/api/studies/1")
    page.keyboard.press("Control+z")
    expect(page.locator(".rack")).to_contain_text("Korvath")
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    expect(chips(page, "can.height").last).to_have_text("97 mm")


def test_a_template_is_saved_used_in_another_study_removed_and_put_back(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/short")
    page.get_by_role("button", name="Duplicate …").click()
    expect(page.get_by_label("label of the new one")).to_be_focused()
    page.get_by_label("or save these parts as a template").fill("road service")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Saved as “road service”")).to_be_visible()
    page.get_by_label("or save these parts as a template").fill("road service")
    page.keyboard.press("Enter")
    expect(page.get_by_text("there is a template 'road service' already: replace it, or choose another name")).to_be_visible()
    page.get_by_role("button", name="Replace it").click()
    expect(page.get_by_text("Saved as “road service”")).to_be_visible()
    page.keyboard.press("Escape")
    new_study(page, server, "elsewhere")
    page.keyboard.press("Alt+d")
    page.get_by_label("copy from").select_option("road service")
    page.get_by_role("button", name="Duplicate", exact=True).click()
    expect(page.locator(".rack .in-hand")).to_contain_text("road service 2")
    expect(row(page, "plate.thickness").locator(".chip").first).to_have_attribute("title", re.compile("copied from road service"))
    page.keyboard.press("Alt+d")
    page.get_by_label("copy from").select_option("road service")
    page.get_by_role("button", name="Remove this template").click()
    page.get_by_role("button", name="Put it back").click()
    expect(page.get_by_role("option", name="road service", exact=True)).to_have_count(1)


def test_confirming_an_intake_detail_and_a_seen_thing_by_key(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    page.get_by_role("button", name="Duplicate …").click()
    page.get_by_role("button", name="Duplicate", exact=True).click()
    expect(page.locator(".rack .in-hand")).to_contain_text("Korvath 2")
    seen = row(page, "gasket.rubber")
    expect(seen).to_contain_text("copied from Korvath")
    seen.get_by_role("radio", checked=True).focus()
    page.keyboard.press("Alt+c")
    expect(seen).not_to_contain_text("copied from")
    to_station(page, "Intake")
    maker = row(page, "sample.maker")
    expect(maker).to_contain_text("copied from Korvath")
    maker.locator("input").focus()
    page.keyboard.press("Alt+c")
    expect(maker).not_to_contain_text("copied from")
    expect(row(page, "sample.part_number").locator("input")).to_be_focused()
    page.keyboard.press("Control+k")
    page.keyboard.type("confirm")
    page.keyboard.press("Enter")
    expect(page.get_by_text(re.compile(r"Confirmed \d+ copied things"))).to_be_visible()
    expect(page.locator("[data-copied]")).to_have_count(0)


DOUBLE_TAP_MS = 350
"""Two taps at one place within that are a double tap, which puts no caret: no hand goes from Enter to a field so fast."""


def tap(page, locator):
    page.wait_for_timeout(DOUBLE_TAP_MS)
    locator.tap()


@pytest.fixture
def tablet(browser):
    context = browser.new_context(viewport={"width": 820, "height": 1180}, has_touch=True)
    yield context.new_page()
    context.close()


def test_both_filters_are_entered_by_touch_on_a_tablet(tablet, server):
    """Fields are tapped; the tablet's own keyboard types and has an Enter; everything else is a tap."""
    page = tablet
    page.goto(server.address)
    page.get_by_label("Name of a new study").tap()
    page.keyboard.type("by touch")
    page.get_by_role("button", name="New study").tap()
    for key, answer in SHORT_ANSWERS.items():
        if isinstance(answer, int):
            row(page, key).get_by_role("radio").nth(answer - 1).tap()
            expect(row(page, key).get_by_role("radio").nth(answer - 1)).to_be_checked()
            continue
        tap(page, row(page, key).locator("input.input"))
        page.keyboard.type(answer)
        page.keyboard.press("Enter")
        taken = "holes.inlet[0].diameter" if key == "holes.inlet" else key
        expect(chips(page, taken)).to_have_count(1)  # a tap before it came would land elsewhere
    row(page, "oil").locator("select").select_option(index=1)
    results = complete(page)
    page.get_by_role("button", name="Duplicate …").tap()
    dialog = page.get_by_role("dialog", name="Duplicate a sample")
    for part in ("element", "media", "bypass valve, its make", "valve readings", "counts"):
        dialog.get_by_role("checkbox", name=re.compile(f"^{part}")).tap()
    dialog.get_by_role("button", name="Duplicate").tap()
    expect(page.locator(".rack .in-hand")).to_contain_text("Sample 2")
    for key, answer in OWN.items():
        tap(page, row(page, key).locator("input.input"))
        page.keyboard.type(answer)
        page.keyboard.press("Enter")
        expect(chips(page, key)).to_have_count(2)
    page.get_by_role("button", name=re.compile(r"Confirm all \d+ copied things of the short sheet")).tap()
    expect(page.locator(".short [data-copied]")).to_have_count(0)
    assert complete(page) != results

"""Layout: texts of drawings are readable at arm's length, fields on a tablet fit a finger."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from page_checks import CUT_NUMBERS, TOUCHING

pytestmark = pytest.mark.interface

CLIPPED_FIELDS = """() => {
  const sheet = document.querySelector('.sheet').getBoundingClientRect()
  return [...document.querySelectorAll('.sheet :is(.input, .choices button, .mean, .chip)')].flatMap(one => {
    const box = one.getBoundingClientRect()
    const clipped = box.width > 0 && (box.left < sheet.left || box.right > sheet.right)
    const small = one.matches('.input, .choices button, .chip') && box.height > 0 && box.height < 43.5
    return clipped || small ? [`${one.className} ${one.textContent.trim()}: ${box.left}…${box.right}, ${box.height} high`] : []
  })
}"""


@pytest.mark.parametrize("view", ["short", "outside", "opened", "element", "media"])
def test_the_bench_is_whole_on_a_tablet(browser, server, view):
    """Every field, choice and reading lies within the sheet and is large enough for a finger; the drawing is there too."""
    page = browser.new_page(viewport={"width": 820, "height": 1180}, has_touch=True)
    page.goto(f"{server.address}/studies/1/samples/3/{view}")
    for width, height in ((820, 1180), (1024, 768)):
        page.set_viewport_size({"width": width, "height": height})
        expect(page.locator(".sheet .input").first).to_be_visible()
        expect(page.locator(".drawing svg").first).to_be_in_viewport()
        assert page.evaluate(CLIPPED_FIELDS) == [], width
        assert page.evaluate("document.documentElement.scrollWidth") <= width
    page.close()


@pytest.mark.parametrize("view", ["short", "outside"])
def test_the_number_of_a_copied_reading_is_seen_whole(page, server, view):
    page.goto(f"{server.address}/studies/1/samples/1/{view}")
    expect(page.locator(".chip").first).to_be_visible()
    page.keyboard.press("Alt+d")
    page.get_by_role("button", name="all of it").click()
    page.get_by_role("button", name="Duplicate", exact=True).click()
    expect(page.locator(".rack .in-hand")).to_contain_text("Korvath 2")
    expect(page.locator(".chip.copied").first).to_be_visible()
    assert page.evaluate(CUT_NUMBERS) == []
    assert page.evaluate(TOUCHING) == []
    assert page.evaluate("[...document.querySelectorAll('.chip')].every(one => one.scrollWidth <= one.clientWidth + 1)")

"""What must be readable at arm's length and pressed with a finger: texts of drawings, fields on a tablet."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

pytestmark = pytest.mark.interface

SMALL_TEXTS = """() => [...document.querySelectorAll('svg text')].flatMap(text => {
  const box = text.getBoundingClientRect()
  if (!box.width || !text.textContent.trim()) return []
  const { c, d } = text.getScreenCTM()
  const size = parseFloat(getComputedStyle(text).fontSize) * Math.hypot(c, d)
  return size < 10.99 ? [`${text.textContent.trim()}: ${size.toFixed(1)} px`] : []
})"""

VIEWS = ("short", "outside", "opened", "element", "media", "efficiency", "engine", "map", "comparison", "start")


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
@pytest.mark.parametrize("size", [(820, 1180), (1024, 768)])
def test_the_bench_is_whole_on_a_tablet(browser, server, view, size):
    """Every field, choice and reading lies within the sheet and is large enough for a finger; the drawing is there too."""
    width, height = size
    page = browser.new_page(viewport={"width": width, "height": height}, has_touch=True)
    page.goto(f"{server.address}/studies/1/samples/3/{view}")
    expect(page.locator(".sheet .input").first).to_be_visible()
    expect(page.locator(".drawing svg").first).to_be_in_viewport()
    assert page.evaluate(CLIPPED_FIELDS) == []
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    page.close()


TOUCHING = """() => [...document.querySelectorAll('.row')].flatMap(row => {
  const boxes = [...row.querySelectorAll('.input, .mean, .chip')].map(one => [one.className, one.getBoundingClientRect()])
  const seen = boxes.filter(([, box]) => box.width > 0 && box.height > 0)
  return seen.flatMap(([name, box], i) => seen.slice(i + 1)
    .filter(([, other]) => box.left < other.right - 0.5 && other.left < box.right - 0.5
      && box.top < other.bottom - 0.5 && other.top < box.bottom - 0.5)
    .map(([other]) => `${row.dataset.key}: ${name} on ${other}`))
})"""
"""Fields, means and readings of a row that lie on each other."""

CUT_NUMBERS = """() => [...document.querySelectorAll('.chip:has(.about) .typed')]
  .filter(one => one.scrollWidth > one.clientWidth + 1 && one.clientWidth > 0 && getComputedStyle(one).display !== 'inline')
  .map(one => one.textContent)"""
"""Readings of which a figure is not seen: what is said of a reading gives way, the number never."""

CLIPPED = """() => [...document.querySelectorAll('main *')].flatMap(one => {
  const style = getComputedStyle(one)
  const hides = ['hidden', 'clip'].includes(style.overflowX) && one.scrollWidth > one.clientWidth + 1 && one.clientWidth > 1
  const isTold = style.textOverflow === 'ellipsis' && one.closest('[title]') !== null
  const words = one.textContent.trim()
  return hides && !isTold && !one.matches('.unseen') && words ? [`${one.className}: ${words.slice(0, 60)}`] : []
})"""
"""Texts that are cut off at the side, but for those whose whole is told beside them."""


@pytest.mark.parametrize("view", [*VIEWS, "intake", "cut", "same-part", "verdict", "sheet", "sums", "report", "readings-table"])
def test_nothing_is_too_small_cut_off_or_on_another(page, server, view):
    """At 1280 by 800, in millimetres and in inches."""
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"{server.address}/studies/1/samples/2/{view}")
    expect(page.locator("main h1")).to_be_attached()
    if view in VIEWS:
        expect(page.locator("svg text").first).to_be_visible()
    for symbol in ("mm", "in"):
        page.wait_for_load_state("networkidle", timeout=120_000)
        assert page.evaluate(SMALL_TEXTS) == [], symbol
        assert page.evaluate(TOUCHING) == [], symbol
        assert page.evaluate(CLIPPED) == [], symbol
        assert page.evaluate(CUT_NUMBERS) == [], symbol
        assert page.evaluate("document.documentElement.scrollWidth") <= 1280
        page.keyboard.press("Alt+u")


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

"""What must be readable at arm's length: no text of a drawing or a chart under 11 px, in any view at 1280 × 800."""

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

VIEWS = ("short", "outside", "opened", "element", "media", "engine", "map", "comparison", "start")


@pytest.mark.parametrize("view", VIEWS)
def test_no_text_of_a_drawing_is_too_small(page, server, view):
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"{server.address}/studies/1/samples/4/{view}")
    expect(page.locator("svg text").first).to_be_visible()
    page.wait_for_load_state("networkidle")
    assert page.evaluate(SMALL_TEXTS) == []

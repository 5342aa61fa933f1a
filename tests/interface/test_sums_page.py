"""The page of sums: slips of the demo named, lines typed, pasted and kept by keyboard, undone, and on a blank study."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from bench_steps import new_study

pytestmark = pytest.mark.interface

TEXT = "lines, typed or pasted from a table"


def test_the_slips_of_the_demo_are_told_with_what_would_explain_them(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/sums")
    expect(page.locator('[data-part="summary"]')).to_have_text("3 of 6 lines do not follow")
    slip = page.locator('[data-sum="a seller\'s page, outlet bore"]')
    expect(slip).to_contain_text("does not follow")
    expect(slip).to_contain_text("the diameter taken for the radius would explain it")
    expect(page.locator('[data-sum="a drivers\' forum, inlet"]')).to_contain_text("follows with rounding")


def test_lines_are_looked_at_while_typed_kept_by_keyboard_and_taken_back(page, server):
    new_study(page, server, "sums")
    page.goto(page.url.rsplit("/", 1)[0] + "/sums")
    expect(page.get_by_text("No line is kept with this study yet")).to_be_visible()
    box = page.get_by_label(TEXT)
    box.fill("inlet: 8 holes 0.24 in = 0.0452 in2\n9 x 5.3 mm = 47.7 mm2")
    preview = page.locator("[data-preview]")
    expect(preview.first).to_contain_text("the count left out would explain it")
    expect(preview.last).to_contain_text("write 9 holes 5.3 mm, or 9 by 5.3 mm")
    box.press("Control+Enter")
    expect(page.locator('[data-sum="inlet"]')).to_contain_text("does not follow")
    expect(box).to_have_value("9 x 5.3 mm = 47.7 mm2")
    box.fill("9 by 5.3 mm = 47.7 mm2")
    expect(preview).to_have_count(1)
    expect(preview).to_contain_text("follows")
    page.get_by_role("button", name="keep this line").click()
    expect(page.locator('[data-part="summary"]')).to_have_text("1 of 2 lines does not follow")
    page.get_by_role("button", name="Remove inlet").click()
    expect(page.locator('[data-part="summary"]')).to_have_text("The line follows")
    page.keyboard.press("Control+z")
    expect(page.locator('[data-sum="inlet"]')).to_be_visible()


def test_a_sum_in_a_claim_is_recomputed_from_the_claim(page, server):
    new_study(page, server, "claimed sums")
    sample = page.url.rsplit("/", 2)[1]
    claim = {"wording": "8 holes 5.6 mm = 788 mm2", "source": "page"}
    page.request.post(f"{server.address}/api/samples/{sample}/claims", data=claim)
    page.goto(page.url.rsplit("/", 1)[0] + "/sums")
    page.get_by_role("button", name="recompute and keep").click()
    expect(page.locator("[data-sum]")).to_contain_text("the diameter taken for the radius")
    expect(page.get_by_role("button", name="recompute and keep")).to_have_count(0)

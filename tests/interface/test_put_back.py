"""Copies made and put back in the browser, with another window in the middle of a reading."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

pytestmark = pytest.mark.interface


def test_a_copy_put_back_loads_every_window_again_and_says_so(browser, server):
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    page, other = context.new_page(), context.new_page()
    page.goto(f"{server.address}/")
    page.get_by_role("link", name="Backups").click()
    expect(page.get_by_text("There is no copy yet")).to_be_visible()
    page.get_by_role("button", name="Back up now").click()
    expect(page.get_by_role("status").first).to_contain_text("is a whole copy")
    expect(page.locator(".pin.safe")).to_have_count(1)

    other.goto(f"{server.address}/studies/1/samples/1/outside")
    field = other.locator("[data-key='can.height'] input.input")
    expect(other.locator("[data-key='can.height'] .chip").first).to_be_visible()
    before = other.locator("[data-key='can.height'] .chip").count()
    field.focus()
    other.keyboard.type("98.6")
    other.keyboard.press("Enter")
    expect(other.locator("[data-key='can.height'] .chip")).to_have_count(before + 1)
    field.focus()
    other.keyboard.type("98.77")

    page.reload()
    expect(page.locator("tbody")).to_contain_text("1 change (the last: Can, height: 98.6 mm)")
    page.get_by_role("button", name="Put back").press("Enter")
    expect(page.get_by_role("button", name="Put it back")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_text("what was there is kept as")).to_be_visible()
    expect(other.get_by_text("“98.77” was being typed and is not stored")).to_be_visible()
    expect(other.locator("[data-key='can.height'] .chip")).to_have_count(before)
    context.close()


def test_faults_are_told_one_by_one(page, server):
    page.goto(f"{server.address}/backups")
    page.get_by_role("button", name="Verify the database").click()
    expect(page.get_by_role("status").first).to_contain_text("The database is whole: 2 studies, 7 samples")
    with server.app.state.service.borrowed() as conn:
        conn.execute("UPDATE reading SET text = '98 parsecs' WHERE id = 1")
    page.get_by_role("button", name="Verify the database").click()
    expect(page.locator(".faults li")).to_contain_text("is not understood")

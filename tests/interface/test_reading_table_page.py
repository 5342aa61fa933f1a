"""An old spreadsheet comes in: pasted or chosen, asked about, taken by keyboard, and taken back."""

from __future__ import annotations

import openpyxl
import pytest
from playwright.sync_api import expect

pytestmark = pytest.mark.interface

TABLE = "filter\tcan OD\tcan mass [g]\twall thickness [mm]\nKorvath\t3.0\t121\t0.47\nSorrel\t2.9\t119\t0.5\n"


def opened(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/intake")
    page.get_by_role("link", name="Readings from a table or spreadsheet").click()
    return page.get_by_label("readings from a table")


def test_a_pasted_table_is_looked_at_asked_about_and_taken_by_keyboard(page, server):
    box = opened(page, server)
    box.fill(TABLE)
    expect(page.locator('[data-part="summary"]')).to_have_text(
        "a filter a row: 2 understood, 0 questioned, 4 refused, 0 left out"
    )
    expect(page.locator('[data-ask="units"]')).to_contain_text("Some numbers have no unit")
    expect(page.locator("[data-take]")).to_be_disabled()
    page.get_by_role("button", name="in, oz, psi").focus()
    page.keyboard.press("Enter")
    expect(page.locator('[data-part="summary"]')).to_have_text(
        "a filter a row: 4 understood, 0 questioned, 2 refused, 0 left out"
    )
    expect(page.get_by_text("could be each of can: wall thickness, centre tube: wall thickness").first).to_be_visible()
    expect(page.get_by_text("Not in this study yet, and begun when it is taken: Sorrel.")).to_be_visible()
    page.reload()
    expect(page.get_by_label("readings from a table")).to_have_value(TABLE)
    expect(page.locator("[data-take]")).to_have_text("take 4 readings")
    page.get_by_label("readings from a table").focus()
    page.keyboard.press("Control+Enter")
    expect(page.locator("[data-taken]")).to_have_text(["Korvath: 2 readings taken.", "Sorrel, begun: 2 readings taken."])
    expect(page.locator(".rack")).to_contain_text("Sorrel")
    page.get_by_role("link", name="Sorrel", exact=True).click()
    expect(page.locator(".chip").filter(has_text="2.9 in").first).to_be_visible()
    page.keyboard.press("Control+z")
    expect(page.locator(".rack")).not_to_contain_text("Sorrel")


def test_a_workbook_is_shown_as_text_and_a_wrong_one_is_refused_and_what_was_there_stays(page, server, tmp_path):
    box = opened(page, server)
    book = openpyxl.Workbook()
    for row in (["what", "unit", "Korvath"], ["can mass", "g", 121.5], ["gasket OD", "mm", 71.8]):
        book.active.append(row)
    book.save(tmp_path / "old.xlsx")
    page.locator('input[type="file"]').set_input_files(tmp_path / "old.xlsx")
    expect(box).to_have_value("what\tunit\tKorvath\ncan mass\tg\t121.5\ngasket OD\tmm\t71.8")
    expect(page.locator('[data-part="summary"]')).to_contain_text("a filter a column: 2 understood")
    (tmp_path / "wrong.xlsx").write_bytes(b"no workbook")
    page.locator('input[type="file"]').set_input_files(tmp_path / "wrong.xlsx")
    expect(page.get_by_role("alert")).to_contain_text("is no XLSX workbook")
    expect(box).to_have_value("what\tunit\tKorvath\ncan mass\tg\t121.5\ngasket OD\tmm\t71.8")

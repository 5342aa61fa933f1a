"""The efficiency station as a new user works at it: a test-house table pasted, typed, corrected, taken back, by keyboard."""

from __future__ import annotations

import io
import re

import pytest
from playwright.sync_api import expect

from bench_steps import new_study, row, to_station
from tabrel.stand_ins.counter import SimulatedTest, simulated_counts, write_csv

pytestmark = pytest.mark.interface

PASTE = """text => {
  const field = document.querySelector('#counts-text')
  const data = new DataTransfer()
  data.setData('text/plain', text)
  field.focus()
  field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
}"""
RESULT = '[data-efficiency="result"]'


def test_house_table():
    text = io.StringIO()
    write_csv(SimulatedTest(), simulated_counts(SimulatedTest(), 7), text)
    return text.getvalue()


test_house_table.__test__ = False


def station(page, server, sample):
    page.goto(f"{server.address}/studies/1/samples/{sample}/efficiency")
    expect(page.locator(RESULT)).to_be_visible()


def focused(page):
    return page.evaluate("document.activeElement.textContent.trim() || document.activeElement.dataset.cell")


def test_a_claim_that_no_number_follows_from_says_why(page, server):
    station(page, server, 2)
    expect(page.locator("[data-why]")).to_have_text("Not on the chart: it states no size, or a range of sizes.")
    station(page, server, 1)
    expect(page.get_by_role("table", name="Claims beside the counts")).to_contain_text("97 % at 25 µm(c)")
    expect(page.locator("[data-why]")).to_have_count(0)


def test_a_pasted_table_is_taken_with_enter_and_reaches_headline_map_and_life(page, server):
    station(page, server, 1)
    expect(page.locator(RESULT)).to_contain_text("published claim")
    page.evaluate(PASTE, test_house_table())
    take = page.locator("[data-take]")
    expect(take).to_be_focused()
    expect(take).to_have_text("Take 8 sizes, 6 intervals")
    page.keyboard.press("Enter")
    expect(page.locator(RESULT)).to_contain_text("counted in a test")
    expect(page.locator(".tape")).to_contain_text("counted in a test")
    expect(page.locator("[data-point]")).to_have_count(8)
    expect(page.locator("[data-compared]")).to_have_attribute("data-compared", re.compile("claim_higher|agree"))
    expect(page.locator('[data-efficiency="capacity"]')).to_contain_text("g of test dust at 8.0 times")
    expect(row(page, "test.flow_l_min").locator("input")).to_have_value("30 L/min")
    to_station(page, "Operating map")
    expect(page.locator('[data-value="system_efficiency_percent"]')).to_contain_text(re.compile(r"\d \(\d.* to .*\d\) %"))
    to_station(page, "Warm-up, life")
    expect(page.locator('[data-life="speeds"]')).to_contain_text("of test dust, counted")
    expect(page.locator('[data-reaching="Korvath"]')).to_contain_text("to")
    page.keyboard.press("Control+z")
    to_station(page, "Efficiency")
    expect(page.locator(RESULT)).to_contain_text("published claim")


def test_what_can_be_read_two_ways_is_asked_and_what_cannot_be_is_corrected_at_its_cell(page, server):
    station(page, server, 1)
    page.evaluate(PASTE, "Particle size\tupstream\tdownstream\n4\t41.230\t9.120\n10\t20.110\t3.000\n20\t21.900\t10\n")
    expect(page.locator('[data-question="decimal"]')).to_be_visible()
    expect(page.locator('[data-question="decimal"] button').first).to_be_focused()
    page.keyboard.press("Enter")  # the point divides thousands
    expect(page.locator('[data-question="decimal"]')).to_have_count(0)
    page.locator('[data-question="scale"] button', has_text="ISO 11171").first.press("Enter")
    wrong = page.locator('[data-cell="3/1"]')
    expect(wrong).to_be_focused()
    expect(wrong).to_have_attribute("aria-invalid", "true")
    expect(page.locator(".fault")).to_contain_text("counts cannot rise with size")
    expect(page.locator("[data-take]")).to_be_disabled()
    expect(page.locator('[data-cell="1/1"]')).to_have_value("41.230")  # the rest of the table stays
    page.keyboard.press("Control+a")
    page.keyboard.type("1.900")
    expect(page.locator(".fault")).to_have_count(0)
    page.keyboard.press("Enter")  # from the last cell to what is next
    expect(page.locator("[data-take]")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.locator(RESULT)).to_contain_text("counted in a test")
    expect(page.locator('[data-check="three_channels"]')).to_be_visible()


def test_a_table_is_typed_by_keyboard_on_a_blank_study_in_inches_and_outlives_a_reload(page, server):
    new_study(page, server, "blank")
    page.keyboard.press("Alt+u")
    to_station(page, "Efficiency")
    expect(page.locator("#counts-text")).to_be_focused()
    page.locator('[data-begin="type"]').press("Enter")
    expect(page.locator('[data-cell="1/0"]')).to_be_focused()
    for line, cells in enumerate(
        (("5", "98210", "40120"), ("10", "21480", "2790"), ("15", "7020", "285"), ("20", "2610", "31")), 1
    ):
        page.locator(f'[data-cell="{line}/0"]').focus()
        for cell in cells:
            page.keyboard.type(cell)
            page.keyboard.press("Tab")
    expect(page.locator("[data-take]")).to_have_text("Take 4 sizes, 1 interval")
    page.reload()
    expect(page.locator('[data-cell="4/1"]')).to_have_value("2610")
    expect(page.locator("[data-take]")).to_be_enabled()
    page.locator("[data-take]").press("Enter")
    expect(page.locator(RESULT)).to_contain_text("counted in a test")
    expect(page.locator(RESULT)).to_contain_text("Efficiency" if False else "%")
    flow = row(page, "test.flow_l_min").locator("input")
    flow.fill("8 gal/min")
    flow.press("Enter")
    expect(row(page, "test.base_level_mg_l").locator("input")).to_be_focused()
    page.reload()
    expect(row(page, "test.flow_l_min").locator("input")).to_have_value("8 gal/min")


def test_the_crosshair_reads_by_keyboard_and_by_mouse_as_per_cent_and_as_beta(page, server):
    station(page, server, 4)
    stage = page.locator('[data-key="efficiency.crosshair"]')
    expect(stage).to_be_focused()
    caption = page.locator("figure.efficiency figcaption")
    expect(caption).to_contain_text("20.0 µm(c)")
    headline = re.search(r"95\.\d+ \(95\.\d+ to 96\.\d+\)\s%", page.locator(RESULT).inner_text())[
        0
    ]  # one number prints in one way
    expect(caption).to_contain_text(f"E {' '.join(headline.split())}")
    expect(caption).to_contain_text(re.compile(r"β 24\.\d · of 1000 particles of this size, 41 pass"))
    for _ in range(9):
        page.keyboard.press("ArrowDown")
    expect(caption).to_contain_text("extrapolation")
    box = page.locator('[data-figure="efficiency"]').bounding_box()
    page.mouse.move(box["x"] + box["width"] * 0.5, box["y"] + 60)
    expect(caption).not_to_contain_text("extrapolation")
    before = page.locator('[data-line="counts"]').get_attribute("d")
    page.keyboard.press("Alt+b")
    expect(page.locator('[data-figure="efficiency"]')).to_contain_text("filtration ratio β")
    assert page.locator('[data-line="counts"]').get_attribute("d") != before


def test_another_window_s_counts_are_not_written_over(page, server, browser):
    station(page, server, 1)
    other = browser.new_page()
    station(other, server, 1)
    table = "size um(c)\tup\tdown\n4\t9000\t8000\n10\t4000\t900\n20\t900\t12\n30\t200\t1\n"
    for item, text in ((page, table), (other, table.replace("9000", "9500"))):
        item.evaluate(PASTE, text)
        expect(item.locator("[data-take]")).to_be_enabled()
    page.locator("[data-take]").press("Enter")
    expect(page.locator(RESULT)).to_contain_text("counted in a test")
    expect(other.locator("[data-take]")).to_be_visible()  # what is being entered stays
    other.locator("[data-take]").press("Enter")
    expect(other.locator(".entry [role=alert]")).to_contain_text("another window has changed the counts")
    expect(other.locator('[data-cell="1/1"]')).to_have_value("9500")
    other.close()


def test_a_claim_is_held_against_its_counted_size_where_no_curve_fits(page, server):
    station(page, server, 3)
    expect(page.locator("[data-compared]")).to_contain_text("agreecounted 98.19 % to 99.24 %")  # whatever the curve says there
    expect(page.locator('[data-check="misfit"]')).to_contain_text("with local slopes from 2.2 to 4.5")
    page.locator('[data-counts="enter"]').press("Enter")
    page.locator('[data-begin="edit"]').press("Enter")
    expect(page.locator('[data-cell="4/2"], [data-cell="5/2"]').first).to_be_attached()
    page.locator("[data-throw-away]").press("Enter")
    page.locator('[data-counts="remove"]').press("Enter")
    expect(page.locator(RESULT)).to_contain_text("published claim")


def test_the_media_is_loaded_by_grams_of_dust(page, server):
    page.goto(f"{server.address}/studies/1/samples/4/map")
    page.get_by_role("button", name="What if").click()
    loading = page.locator("#wi-loading")
    loading.fill("6 g")
    loading.press("Enter")
    loading.blur()
    expect(loading).to_have_value("6 g")
    expect(page.locator('[data-value="element_kpa"] .was')).to_be_visible()
    loading.fill("90 g")
    loading.blur()
    expect(page.locator("[role=alert]", has_text="ended at 18 g")).to_be_visible()

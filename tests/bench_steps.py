"""Steps of a person at the bench, for the interface tests."""

from __future__ import annotations

import re

from playwright.sync_api import expect

SHORT_ANSWERS = {
    "holes.inlet": "8 x 5.6", "plate.thickness": "3.1", "anti_drain.lip_diameter": "57", "anti_drain.lift": "2.4",
    "thread.major_diameter": "3/4-16 UNF", "bypass.location": 1, "bypass.opening_pressure": "140",
    "bypass.seat_inside_diameter": "15", "element.outside_diameter": "66", "element.inside_diameter": "38",
    "element.pleat_count": "54", "media.strip_length": "1600", "media.strip_width": "64", "media.thickness": "0.8",
    "media.family": 1,
}  # fmt: skip
"""Text typed into the rows of the short sheet, or the number of a choice."""


def row(page, key):
    return page.locator(f'[data-key="{key}"]')


def chips(page, key):
    return row(page, key).locator(".chip .typed")


def to_station(page, name):
    page.get_by_role("navigation", name="Stations").get_by_role("link", name=re.compile(f"^{name}")).click()


def new_study(page, server, name):
    page.goto(server.address)
    page.get_by_label("Name of a new study").fill(name)
    page.keyboard.press("Enter")
    expect(row(page, "holes.inlet").locator("input")).to_be_focused()  # on the short sheet


def new_study_at_intake(page, server, name):
    new_study(page, server, name)
    to_station(page, "Intake")
    page.get_by_role("navigation", name="Stations").focus()
    expect(row(page, "sample.label").locator("input")).to_be_visible()
    row(page, "sample.label").locator("input").focus()


def choices(page, label):
    """Return what a select offers, without choosing."""
    page.get_by_role("combobox", name=label).click()
    offered = page.get_by_role("option").all_inner_texts()
    page.keyboard.press("Escape")
    return offered


def choose(page, label, option):
    page.get_by_role("combobox", name=label).click()
    page.get_by_role("option", name=option, exact=True).click()


IN_HAND = "document.activeElement.closest('[data-stop]')?.dataset.key ?? null"
"""Which stop of the bench has the focus."""


def walk_stage(page, answers):
    """Go over every stop of a stage by keyboard alone, and type or choose what `answers` says of its key.

    A text is typed; a number is a pictured choice; a key without an answer is passed with Enter. Returns the keys in
    the order in which they had the focus.
    """
    passed = []
    key, station = page.evaluate(IN_HAND), page.evaluate("location.pathname")
    while key is not None and key not in passed and page.evaluate("location.pathname") == station:
        passed.append(key)
        answer = answers.get(key)
        if isinstance(answer, int):
            page.keyboard.press(str(answer))
            expect(row(page, key).locator("[role=radio], [role=checkbox]").nth(answer - 1)).to_be_checked()
            assert page.evaluate(IN_HAND) == key
        elif answer:
            page.keyboard.type(answer)
        page.keyboard.press("Enter")
        if key.startswith("holes.") and page.evaluate(IN_HAND) == key and answer:  # a line of holes stays, for the next group
            page.keyboard.press("Enter")
        key = page.evaluate(IN_HAND)
    if not station.endswith(("/intake", "/short")):  # of which one ends with forms, the other where it is whole
        page.wait_for_function("station => location.pathname !== station", arg=station)  # Enter in the last field goes on
    return passed


def type_line(page, text):
    page.keyboard.type(text)
    page.keyboard.press("Enter")


def fetch_ahead(page):
    """Have the page fetch ahead what may be opened next, as it does where a browser is not told to save data."""
    page.add_init_script("Object.defineProperty(navigator.connection, 'saveData', { value: false })")

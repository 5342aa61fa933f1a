"""What a person does at the bench, for the interface tests."""

from __future__ import annotations

import re

from playwright.sync_api import expect


def row(page, key):
    return page.locator(f'[data-key="{key}"]')


def chips(page, key):
    return row(page, key).locator(".chip .typed")


def to_station(page, name):
    page.get_by_role("navigation", name="Stations").get_by_role("button", name=re.compile(f"^{name}")).click()


def new_study(page, server, name):
    page.goto(server.address)
    page.get_by_label("Name of a new study").fill(name)
    page.keyboard.press("Enter")
    expect(row(page, "sample.label").locator("input")).to_be_focused()


def choices(page, label):
    """Return what a select offers, without choosing."""
    page.get_by_role("combobox", name=label).click()
    offered = page.get_by_role("option").all_inner_texts()
    page.keyboard.press("Escape")
    return offered


def choose(page, label, option):
    page.get_by_role("combobox", name=label).click()
    page.get_by_role("option", name=option, exact=True).click()


def type_line(page, text):
    page.keyboard.type(text)
    page.keyboard.press("Enter")

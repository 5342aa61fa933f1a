"""A whole filter from a blank study, by keyboard alone: every stored value is the one that was typed."""

from __future__ import annotations

import json
import re
import time
import urllib.request

import pytest
from playwright.sync_api import expect

from bench_steps import IN_HAND, chips, new_study_at_intake, row, walk_stage
from tabrel.core.catalogue.observations import OBSERVATIONS

pytestmark = pytest.mark.interface

DETAILS = {
    "study.question": ("which is worth it?", "which is worth it?"),
    "engine.name": ("yard truck", "yard truck"),
    "engine.stud_bore": ("9/16", "9/16 in"),
    "engine.stud_length": ("0.9", "0.9 in"),
    "engine.adapter_holes": ("3 x 0.21", "3 x 0.21 in"),
    "engine.adapter_wall": ("5/32", "5/32 in"),
    "engine.adapter_turn": ("60", "60"),
    "sample.label": ("Ardwen", "Ardwen"),
    "sample.price": ("9,50 EUR", "9,50 EUR"),
    "sample.used_km": ("3000 mi", "3000 mi"),
    "sample.stated_bypass": ("8-11", "8-11 psi"),
    "sample.stated_collapse": ("100", "100 psi"),
    "element.leak": ("6 x 0.016", "6 x 0.016 in"),
    "media.capacity": ("about 14", "14 g"),
}
"""By detail: what is typed, and how it stands from then on."""

READINGS = {
    "filter.mass": ("over 14 1/2", ["over 14 1/2 oz"]),
    "can.height": ("3 7/8, 3.88", ["3 7/8 in", "3.88 in"]),
    "can.outside_diameter": ("2.6 inches", ["2.6 inches"]),
    "gasket.outside_diameter": ("2.4", ["2.4 in"]),
    "gasket.inside_diameter": ("2 3/16", ["2 3/16 in"]),
    "gasket.thickness": ("1/4 by eye", ["1/4 in"]),
    "gasket.pull_out_force": ("4 pounds", ["4 pounds"]),
    "thread.major_diameter": ("3/4-16", ["3/4 in"]),
    "thread.turns": ("5 to 5.5", ["5 to 5.5"]),
    "plate.thickness": ("1/8 with caliper", ["1/8 in"]),
    "anti_drain.lip_diameter": ("1.9", ["1.9 in"]),
    "anti_drain.lift": ("95 thou", ["95 thou"]),
    "anti_drain.opening_pressure": ("0.3", ["0.3 psi"]),
    "can.inside_diameter": ("2.56", ["2.56 in"]),
    "can.wall_thickness": ("18 thousandths, 0.019", ["18 thousandths", "0.019 in"]),
    "can.mass": ("3.4", ["3.4 oz"]),
    "bypass.seat_inside_diameter": ("0.512", ["0.512 in"]),
    "bypass.seat_outside_diameter": ("0.575", ["0.575 in"]),
    "bypass.spring_wire_diameter": ("47 thou", ["47 thou"]),
    "bypass.spring_outside_diameter": ("0.512", ["0.512 in"]),
    "bypass.spring_total_coils": ("6", ["6"]),
    "bypass.spring_free_length": ("7/8", ["7/8 in"]),
    "bypass.spring_installed_length": ("0.6", ["0.6 in"]),
    "element.outside_diameter": ("2.4", ["2.4 in"]),
    "element.inside_diameter": ("1.4", ["1.4 in"]),
    "element.height": ("2.7", ["2.7 in"]),
    "element.pleat_count": ("48", ["48"]),
    "element.potting_depth": ("0.09", ["0.09 in"]),
    "tube.wall_thickness": ("22 thou", ["22 thou"]),
    "media.strip_length": ("5 ft 3 in", ["5 ft 3 in"]),
    "media.strip_width": ("2.6", ["2.6 in"]),
    "media.thickness": ("0.031, 0.032", ["0.031 in", "0.032 in"]),
    "media.dry_mass": ("0.8", ["0.8 oz"]),
    "media.seam_overlap": ("3/8", ["3/8 in"]),
    "media.air_permeability": ("40", ["40 cfm/ft2"]),
}
"""By reading: what is typed, and the readings that are stored."""

HOLES = {"holes.inlet": ("8 x drill 15/64", 8, ["drill 15/64"]), "holes.centre_tube": ("60 x 5/32", 60, ["5/32 in"])}

NOT_SEEN = {"bypass.spring_material": 1, "media.family": 2, "bypass.location": 1, "bypass.kind": 1}
CHOICES = {key: NOT_SEEN.get(key, 1 + i % 3) for i, key in enumerate(OBSERVATIONS)}
"""By observation: the number of the choice that is pressed."""


def document(server, page, until=lambda _: True):
    """Return the study as it is stored, once what was entered last is in it; what never comes is missing in the answer."""
    study = re.search(r"/studies/(\d+)/", page.url)[1]
    for _ in range(200):
        with urllib.request.urlopen(f"{server.address}/api/studies/{study}/document") as answer:
            stored = json.load(answer)
        if until(stored["samples"][0]):
            break
        time.sleep(0.05)
    return stored


def station(page, name):
    """Go on by Ctrl+→ until the station is there, with its first stop in hand."""
    while f"/{name}" not in page.url:
        before = page.url
        # while the last field is being saved the arrow is the field's own
        page.wait_for_function("() => !document.activeElement.value || document.activeElement.dataset.detail !== undefined")
        page.keyboard.press("Control+ArrowRight")
        page.wait_for_function("before => location.href !== before", arg=before)
    expect(page.locator(":focus")).to_have_count(1)
    page.wait_for_function(f"() => {IN_HAND} !== null")


def entries(texts):
    return [text if isinstance(text, str) else text["text"] for text in texts]


def test_a_whole_filter_in_inches_by_keyboard_alone(page, server):
    new_study_at_intake(page, server, "by keyboard")
    page.keyboard.press("Alt+u")
    page.keyboard.press("Control+a")
    answers = {key: typed for key, (typed, _) in (DETAILS | READINGS).items()} | {key: line for key, (line, *_) in HOLES.items()}
    passed = walk_stage(page, answers)
    for name in ("outside", "opened", "element", "media"):
        station(page, name)
        passed += walk_stage(page, answers | CHOICES)
    assert set(answers) | set(CHOICES) <= set(passed)
    page.keyboard.press("Control+ArrowLeft")
    expect(chips(page, "media.air_permeability")).to_have_text("40 cfm/ft2")

    choice = next(key for key in reversed(passed) if key in CHOICES)
    stored = document(server, page, lambda item: choice in item["observations"] and "capacity_g" in item["as_typed"])
    sample = stored["samples"][0]
    expected = {key: texts for key, (_, texts) in READINGS.items()} | {"thread.pitch": ["16 tpi"]}
    assert {key: entries(texts) for key, texts in sample["readings"].items()} == expected
    for key, (_, count, texts) in HOLES.items():
        groups = sample["holes"][key.removeprefix("holes.")]
        assert [(group["count"], entries(group["readings"]["diameter"])) for group in groups] == [(count, texts)]
    held = {"media.family": sample["media_family"], **{f"bypass.{name}": sample["bypass"][name] for name in ("location", "kind")}}
    assert held == {"media.family": "blend", "bypass.location": "dome_end", "bypass.kind": "coil_spring"}
    seen = {key: OBSERVATIONS[key].choices[number - 1].value for key, number in CHOICES.items() if not OBSERVATIONS[key].field}
    assert sample["observations"] == seen
    typed = {key: item["text"] for key, item in (stored["as_typed"] | sample["as_typed"]).items()}
    assert typed == {
        "bore_mm": "9/16 in",
        "length_mm": "0.9 in",
        "wall_mm": "5/32 in",
        "turn_deg": "60",
        "price": "9,50 EUR",
        "used_km": "3000 mi",
        "stated_kpa": "8-11 psi",
        "stated_collapse_kpa": "100 psi",
        "leak": "6 x 0.016 in",
        "capacity_g": "14 g",
    }
    assert sample["as_typed"]["capacity_g"]["provenance"] == "by_eye"
    adapter, stud = stored["circuit"]["adapter"], stored["circuit"]["stud"]
    assert (stud["bore_mm"], stud["length_mm"]) == (pytest.approx(14.2875), pytest.approx(22.86))
    assert (adapter["wall_mm"], adapter["turn_deg"]) == (pytest.approx(3.96875), 60)
    assert entries(adapter["holes"][0]["readings"]["diameter"]) == ["0.21 in"]
    assert (sample["leak"]["count"], sample["leak"]["diameter_mm"]) == (6, pytest.approx(0.4064))
    assert sample["bypass"]["stated_kpa"] == [pytest.approx(55.158, abs=1e-3), pytest.approx(75.842, abs=1e-3)]
    assert sample["stated_collapse_kpa"] == pytest.approx(689.476, abs=1e-3)
    assert sample["used_km"] == pytest.approx(4828.032)


def test_the_next_line_after_holes_stays_with_this_sample(page, server):
    """Focus once fell to the page after a group of holes, and `1 x 6.9 mm` went to sample 1 by its digit."""
    page.goto(f"{server.address}/studies/1/samples/2/outside")
    before = document(server, page)["samples"][0]
    line = row(page, "holes.inlet").locator("input")
    line.focus()
    page.keyboard.type("2 x 6.1 mm")
    page.keyboard.press("Enter")
    page.keyboard.type("1 x 6.9 mm")
    page.keyboard.press("Enter")
    expect(row(page, "holes.inlet[2]")).to_be_visible()
    expect(line).to_be_focused()
    groups = document(server, page)["samples"][1]["holes"]["inlet"]
    assert [(group["count"], entries(group["readings"]["diameter"])) for group in groups[1:]] == [
        (2, ["6.1 mm"]),
        (1, ["6.9 mm"]),
    ]
    assert document(server, page)["samples"][0] == before
    # the same after a reading is set aside, and after a group is removed
    field = row(page, "can.height")
    field.locator("input.input").focus()
    page.keyboard.press("Backspace")
    page.keyboard.press("Delete")
    page.keyboard.type("misread")
    page.keyboard.press("Enter")
    expect(field.locator(".chip.set-aside")).to_contain_text("misread")
    expect(field.locator("input.input")).to_be_focused()
    page.keyboard.press("Backspace")
    page.keyboard.press("Enter")  # and used again
    expect(field.locator(".chip.set-aside")).to_have_count(0)
    expect(field.locator("input.input")).to_be_focused()
    row(page, "holes.inlet[2]").get_by_role("button", name="Remove").focus()
    page.keyboard.press("Enter")
    expect(row(page, "holes.inlet[2]")).to_have_count(0)
    page.keyboard.type("2")
    page.wait_for_timeout(200)
    expect(page).to_have_url(re.compile("/samples/2/outside$"))
    assert page.evaluate("document.activeElement !== document.body")


def test_an_engine_of_the_library_before_and_after_the_stud_is_typed(page, server):
    new_study_at_intake(page, server, "library")
    page.keyboard.press("Control+k")
    page.keyboard.type("stud bore")
    page.keyboard.press("Enter")
    expect(row(page, "engine.stud_bore").locator("input")).to_be_focused()
    page.keyboard.type("14.5 mm")
    page.keyboard.press("Enter")
    station(page, "engine")
    page.locator('[data-engine="service diesel, 2.2 L"]').focus()
    page.keyboard.press("Enter")
    stud = page.locator('[data-line="engine.stud_bore"]')
    expect(stud).to_contain_text("14.5 mm")
    expect(stud).to_contain_text("13 mm")
    expect(stud.get_by_role("checkbox")).to_be_checked()
    expect(page.locator('[data-line="engine.gallery"]').get_by_role("checkbox")).not_to_be_checked()
    page.get_by_role("button", name="Take the engine").focus()
    page.keyboard.press("Enter")
    expect(page.locator('[data-library="lines"]')).to_have_count(0)
    stored = document(server, page)["circuit"]
    assert (stored["stud"]["bore_mm"], stored["engine"]["gallery_kpa"]) == (14.5, 330)
    page.locator('[data-part="stud"]').focus()
    page.keyboard.press("Enter")
    expect(row(page, "engine.stud_bore")).to_contain_text("lies outside the limits of this engine")
    expect(row(page, "engine.least_stud_bore")).to_contain_text("from the library")
    # typed after the library: taken with the question, never refused
    row(page, "engine.stud_bore").locator("input").fill("14.6 mm")
    page.keyboard.press("Enter")
    expect(row(page, "engine.stud_bore")).to_contain_text("14.6 mm (0.5748 in) lies outside")
    assert document(server, page)["circuit"]["stud"]["bore_mm"] == 14.6
    # what is refused keeps the text and the hand
    field = row(page, "engine.greatest_stud_bore").locator("input")
    field.fill("12,500")
    page.keyboard.press("Enter")
    expect(row(page, "engine.greatest_stud_bore").get_by_role("alert")).to_contain_text("can be read two ways")
    expect(field).to_be_focused()
    expect(field).to_have_value("12,500")

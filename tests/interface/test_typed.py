"""What is typed and not entered: the hand that goes on enters it, and what cannot be understood stays as it was typed."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from bench_steps import chips, row, to_station


@pytest.fixture
def bench(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    expect(row(page, "can.height").locator("input.input")).to_be_visible()
    return page


def type_height(page, text):
    row(page, "can.height").locator("input.input").click()
    page.keyboard.type(text)


@pytest.mark.parametrize("leave", ["sample", "station", "field", "control"])
def test_going_on_enters_a_reading_as_enter_does(bench, leave):
    before = chips(bench, "can.height").count()
    type_height(bench, "97.77 mm")
    if leave == "sample":
        bench.keyboard.press("Alt+2")
        expect(bench.locator(".rack .in-hand")).to_contain_text("Ysmere")
        expect(row(bench, "can.height").locator("input.input")).to_have_value("")
        expect(chips(bench, "can.height").filter(has_text="97.77")).to_have_count(0)
        bench.keyboard.press("Alt+1")
    elif leave == "station":
        to_station(bench, "Media")
        expect(row(bench, "media.strip_length").locator("input.input")).to_be_visible()
        to_station(bench, "Outside")
    elif leave == "field":
        row(bench, "can.outside_diameter").locator("input.input").click()
    else:
        bench.keyboard.press("Shift+Tab")
    expect(chips(bench, "can.height")).to_have_count(before + 1)
    expect(chips(bench, "can.height").last).to_have_text("97.77 mm")
    expect(row(bench, "can.height").locator("input.input")).to_have_value("")


def test_what_cannot_be_understood_stays_as_typed_with_its_sentence_wherever_the_hand_goes(bench):
    type_height(bench, "97 furlong")
    row(bench, "can.outside_diameter").locator("input.input").click()
    height = row(bench, "can.height")
    expect(height).to_contain_text("no unit known")
    expect(height.locator("input.input")).to_have_value("97 furlong")
    expect(bench.locator("[data-waits]")).to_have_text("1 reading waits for an answer.")
    to_station(bench, "Media")
    expect(bench.locator("[data-waits]")).to_have_count(0)
    to_station(bench, "Outside")
    expect(height.locator("input.input")).to_have_value("97 furlong")
    expect(height).to_contain_text("no unit known")
    bench.keyboard.press("Alt+2")
    expect(bench.locator(".rack .in-hand")).to_contain_text("Ysmere")
    expect(height.locator("input.input")).to_have_value("")
    bench.keyboard.press("Alt+1")
    expect(height.locator("input.input")).to_have_value("97 furlong")


def test_what_is_refused_after_the_hand_has_gone_on_is_found_where_it_was_typed(bench):
    """On a server that takes a second, and where the next sample has to be fetched first."""
    bench.add_init_script(SLOW.replace("MILLISECONDS", "1000"))
    bench.reload()
    height = row(bench, "can.height")
    height.locator("input.input").click()
    bench.keyboard.type("97 furlong", delay=KEY_MS)
    bench.keyboard.press("Alt+3")
    expect(bench.locator(".rack .in-hand")).to_contain_text("Halvene")
    bench.keyboard.press("Alt+1")
    expect(height).to_contain_text("no unit known")
    expect(height.locator("input.input")).to_have_value("97 furlong")
    expect(bench.locator("[data-waits]")).to_have_text("1 reading waits for an answer.")


def test_a_page_that_is_loaded_again_warns_and_keeps_what_was_typed(bench):
    warned = []

    def stay_not(dialog):
        warned.append(dialog.type)
        dialog.accept()

    bench.on("dialog", stay_not)
    type_height(bench, "97.7")
    bench.reload()
    assert warned == ["beforeunload"]
    expect(row(bench, "can.height").locator("input.input")).to_have_value("97.7")
    row(bench, "can.height").locator("input.input").press("Enter")
    expect(chips(bench, "can.height").last).to_have_text("97.7 mm")
    bench.reload()
    assert len(warned) == 1
    expect(row(bench, "can.height").locator("input.input")).to_have_value("")


def test_a_line_of_holes_is_entered_too_and_one_that_is_wrong_stays(bench):
    line = row(bench, "holes.inlet").locator("input")
    groups = bench.locator(".row[data-key^='holes.inlet['][data-key$='.diameter']")
    before = groups.count()
    line.click()
    bench.keyboard.type("3 x 4.4 mm")
    to_station(bench, "Media")
    to_station(bench, "Outside")
    expect(groups).to_have_count(before + 1)
    line.click()
    bench.keyboard.type("3 by nothing")
    row(bench, "can.height").locator("input.input").click()
    expect(line).to_have_value("3 by nothing")
    expect(bench.locator("[data-waits]")).to_have_text("1 reading waits for an answer.")


def test_own_words_and_an_unfinished_claim_belong_to_the_sample_they_were_typed_for(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/outside")
    words = row(page, "can.grip").locator(".words")
    words.click()
    page.keyboard.type("three flats")
    page.keyboard.press("Alt+2")
    expect(page.locator(".rack .in-hand")).to_contain_text("Ysmere")
    expect(words).to_have_value("")
    stored = []
    for _ in range(100):
        parts = page.request.get(f"{server.address}/api/samples/1").json()["parts"]
        stored = [item["value"] for part in parts for item in part["observations"] if item["key"] == "can.grip"]
        if stored == ["three flats"]:
            break
        page.wait_for_timeout(50)
    assert stored == ["three flats"]
    to_station(page, "Intake")
    wording = page.locator(".claims form.add input").first
    wording.fill("97 % at 25 µm(c)")
    page.keyboard.press("Alt+1")
    expect(page.locator(".rack .in-hand")).to_contain_text("Korvath")
    expect(wording).to_have_value("")
    page.keyboard.press("Alt+2")
    expect(wording).to_have_value("97 % at 25 µm(c)")


def test_what_was_typed_for_another_database_is_forgotten(bench):
    """At the same address another database may be served, whose sample 1 is another filter."""
    bench.on("dialog", lambda dialog: dialog.accept())
    type_height(bench, "97.7")
    bench.evaluate("""() => {
      const kept = JSON.parse(sessionStorage.getItem('tabrel.typed'))
      sessionStorage.setItem('tabrel.typed', JSON.stringify({ ...kept, database: 'another' }))
    }""")
    bench.reload()
    expect(row(bench, "can.height").locator("input.input")).to_have_value("")


def test_undo_stays_on_the_short_sheet_and_with_the_sample_in_hand(page, server):
    page.goto(f"{server.address}/studies/1/samples/1/short")
    row(page, "media.strip_length").locator("input.input").fill("1611 mm")
    page.keyboard.press("Enter")
    expect(chips(page, "media.strip_length").last).to_have_text("1611 mm")
    page.keyboard.press("Control+z")
    expect(chips(page, "media.strip_length").filter(has_text="1611")).to_have_count(0)
    expect(page).to_have_url(re.compile("/samples/1/short"))
    page.goto(f"{server.address}/studies/1/samples/3/media")
    page.locator(".rack").get_by_role("button", name="Delete", exact=True).click()
    expect(page.locator(".rack")).not_to_contain_text("Halvene")
    expect(page).to_have_url(re.compile("/samples/1/outside"))
    page.keyboard.press("Control+z")
    expect(page.locator(".rack")).to_contain_text("Halvene")
    expect(page).to_have_url(re.compile("/samples/1/outside$"))


SLOW = """
const plain = window.fetch
window.fetch = async (...asked) => {
  await new Promise((resolve) => setTimeout(resolve, MILLISECONDS))
  return plain(...asked)
}
"""
STOPS = """
[...document.querySelectorAll('.sheet [data-stop]')].map((stop) => ({
  key: stop.dataset.key,
  kind: stop.matches('.row') ? 'reading' : stop.matches('.holes') ? 'holes' : stop.querySelector('[role=group]') ? 'several'
    : stop.querySelector('[role=radiogroup]') ? 'choice' : 'detail',
  counts: stop.querySelector('.unit')?.textContent.trim() === 'count',
}))
"""
KEY_MS = 20


@pytest.mark.parametrize(("station", "answer_ms"), [("media", 1000), ("outside", 150)])
def test_a_whole_station_typed_faster_than_any_hand_on_a_slow_server_is_stored_key_by_key(page, server, station, answer_ms):
    document = {"format": "tabrel-study", "version": 1, "name": "blank", "samples": [{"label": "A"}]}
    study = page.request.post(f"{server.address}/api/studies", data=document).json()
    sample = study["samples"][0]["id"]
    page.add_init_script(SLOW.replace("MILLISECONDS", str(answer_ms)))
    page.goto(f"{server.address}/studies/{study['id']}/samples/{sample}/{station}")
    expect(page.locator(".sheet [data-stop]").first).to_be_visible()
    stops = page.evaluate(STOPS)
    typed, chosen = {}, {}
    page.locator(".sheet [data-stop] input").first.focus()
    for i, stop in enumerate(stops):
        key, kind = stop["key"], stop["kind"]
        if kind == "reading":
            typed[key] = f"{11 + i}" if stop["counts"] else f"{11 + i}.5"
            page.keyboard.type(typed[key], delay=KEY_MS)
        elif kind == "holes":
            page.keyboard.type("3 x 5.6", delay=KEY_MS)
            page.keyboard.press("Enter")
        elif kind in ("choice", "several"):
            chosen[key] = 2 if kind == "choice" else (2, 3)
            page.keyboard.type("2" if kind == "choice" else "23", delay=KEY_MS)
        page.keyboard.press("Enter")
    page.wait_for_function("station => !location.pathname.endsWith(station)", arg=station)  # the last Enter went on
    page.keyboard.press("Control+ArrowLeft")
    expect(page.locator(".underway")).to_have_count(0, timeout=120_000)
    expect(page.locator("[data-unsaved]")).to_have_count(0)
    for key, text in typed.items():
        expect(chips(page, key)).to_have_count(1)
        assert chips(page, key).inner_text().split()[0] == text, key
    for _ in range(240):  # the last of the changes, which go out one after the other, is still on its way
        # asked again where the server closes a connection that rested while the keys were slow
        sheet = page.request.get(f"{server.address}/api/samples/{sample}", max_retries=2).json()
        seen = {item["key"]: item["value"] for part in sheet["parts"] for item in part["observations"] if item["value"]}
        if len(seen) == len(chosen):
            break
        page.wait_for_timeout(500)
    assert seen.keys() == chosen.keys()
    for key, places in chosen.items():
        held = [str(place) for place in (places if isinstance(places, tuple) else (places,))]
        expect(row(page, key).locator("[aria-checked=true] kbd")).to_have_text(held)
    fields = [field for part in sheet["parts"] for field in part["fields"]]
    stored = {
        field["key"]: [reading["text"].split()[0] for reading in field["readings"]] for field in fields if field["readings"]
    }
    assert {key: stored.pop(key) for key in typed} == {key: [text] for key, text in typed.items()}
    assert all(key.startswith("holes.") for key in stored)

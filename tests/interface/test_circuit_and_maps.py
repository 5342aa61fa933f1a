"""Oil, engine, map, side by side and start in a real browser."""

from __future__ import annotations

import re

from playwright.sync_api import expect

from bench_steps import choices, choose, new_study_at_intake, to_station


def open_sample(page, server, sample, station):
    page.goto(f"{server.address}/studies/1/samples/{sample}/{station}")


def test_two_filters_answer_both_questions_within_a_minute(page, server):
    """Which part restricts here, below what temperature is oil unfiltered, and for how long after a start?"""
    page.goto(server.address)
    page.get_by_text("Mountain road service").first.click()
    to_station(page, "Comparison")
    page.get_by_label("Oil temperature in °C").fill("-20")
    page.get_by_label("Engine speed in rpm").fill("1500")
    page.keyboard.press("Enter")
    plain, early = page.locator("[data-side=Korvath]"), page.locator("[data-side=Ysmere]")
    expect(page.get_by_text("restricts at −20 °C, 1500 rpm, % of the filter's loss")).to_be_visible()
    for side in (plain, early):
        expect(side.locator('[data-answer="restricts"]')).to_contain_text("Media")
    onset = early.locator('[data-answer="onset"]')
    expect(onset).to_contain_text(re.compile(r"°C\s+.*…"))  # with its interval
    opens_below = int(onset.locator("strong").inner_text().removesuffix(" °C").replace("−", "-"))
    for temperature, passed in ((opens_below + 1, r"^0$"), (opens_below - 1, r"[1-9]")):
        page.get_by_label("Oil temperature in °C").fill(str(temperature))
        page.keyboard.press("Enter")
        expect(page.get_by_text(f"restricts at {temperature} °C, 1500 rpm".replace("-", "−"))).to_be_visible()
        expect(early.locator('[data-answer="unfiltered"]')).to_have_text(re.compile(passed))
    expect(plain.locator('[data-answer="start"]')).to_have_text(re.compile(r"\d s"))
    expect(early.locator('[data-answer="start"]')).to_have_text(re.compile(r"\d min"))
    expect(page.locator("[data-band]")).to_have_count(5)
    page.get_by_label("Korvath in the slice").uncheck()
    expect(page.locator("[data-band]")).to_have_count(4)
    with page.expect_download() as download:
        page.locator('[data-save="csv"]').click()
    heading = download.value.path().read_text().splitlines()[0]
    assert heading.startswith('"oil temperature, °C, at 1500 rpm"')
    assert "Ysmere low 2.5 %" in heading


def test_a_scenario_is_tried_saved_and_chosen_again_and_a_wrong_one_loses_nothing(page, server):
    open_sample(page, server, 2, "map")
    page.get_by_role("button", name="What if").click()
    page.locator("#wi-stud").fill("wide")
    page.locator("#wi-stud").press("Tab")
    expect(page.get_by_text("is not a number with a unit")).to_be_visible()
    expect(page.locator("#wi-stud")).to_have_value("wide")
    page.locator("#wi-stud").fill("")
    page.locator("#wi-loading").fill("3")
    page.locator("#wi-loading").press("Tab")
    expect(page.locator('[data-curve="unchanged"]')).to_be_visible()
    expect(page.locator('[data-value="element_kpa"]')).to_contain_text("→")
    page.locator("#wi-lift").fill("0.5")
    page.locator("#wi-lift").press("Tab")
    expect(page.get_by_role("alert").filter(has_text="anti_drain.lip_diameter")).to_be_visible()
    expect(page.locator('[data-region="bypass"]')).to_be_visible()  # the map stays, of the kind that was chosen
    expect(page.get_by_role("button", name="In the engine")).to_have_attribute("aria-pressed", "true")
    page.locator("#wi-lift").fill("")
    page.locator("#wi-lift").press("Tab")
    page.get_by_label("Name of the scenario").fill("worn")
    page.get_by_role("button", name="Filter alone").click()  # computing a map takes nothing typed away
    expect(page.get_by_label("Filter flow in L/min")).to_be_visible()
    page.get_by_role("button", name="In the engine").click()
    with page.expect_response(lambda answer: answer.url.endswith("/scenarios") and answer.request.method == "POST"):
        page.get_by_role("button", name="Save", exact=True).click()
    page.get_by_role("button", name="As it is", exact=True).click()
    expect(page.locator('[data-curve="unchanged"]')).to_have_count(0)
    page.reload()
    page.get_by_role("button", name="What if").click()
    choose(page, "Saved scenarios", "worn")
    expect(page.locator('[data-curve="unchanged"]')).to_be_visible()


def test_every_quantity_is_drawn_told_and_saved(page, server):
    open_sample(page, server, 2, "map")
    summary = page.locator("#map-summary")
    for option in choices(page, "What the map shows"):
        choose(page, "What the map shows", option)
        expect(summary).to_contain_text(option)
    choose(page, "What the map shows", "Filter flow")  # the system efficiency has a field beside it that takes keys
    page.keyboard.press("Tab")
    page.locator(".frame").first.press("a")
    expect(page.get_by_label("Filter flow in L/min")).to_be_visible()
    assert len(choices(page, "What the map shows")) == 4
    for kind, starts in (("svg", b"<svg"), ("png", b"\x89PNG"), ("csv", b'"')):
        with page.expect_download() as download:
            page.locator(f'[data-save="{kind}"]').click()
        assert download.value.path().read_bytes().startswith(starts)
    page.get_by_role("button", name="Table", exact=True).click()
    expect(page.get_by_role("region", name=re.compile("as a table"))).to_be_visible()
    page.get_by_role("button", name="Inputs", exact=True).click()
    expect(page.locator('[data-sensitivity="sentence"]')).to_contain_text("the permeability of the media (×/÷ 1.50: ")


def test_crosshair_moves_need_no_request(page, server):
    open_sample(page, server, 2, "map")
    expect(page.locator('[data-crosshair="state"]')).to_be_visible()
    page.wait_for_load_state("networkidle")
    asked = []
    page.on("request", lambda request: asked.append(request.url))
    page.locator("[role=application]").focus()
    for key in ("ArrowUp", "ArrowRight", "Shift+ArrowUp", "ArrowLeft"):
        page.keyboard.press(key)
    expect(page.get_by_label("Oil temperature in °C")).to_have_value("-12.5")
    assert asked == []


def test_oil_and_engine_are_typed_dragged_and_checked(page, server):
    open_sample(page, server, 1, "engine")
    expect(page.locator('[data-hot="leftover"]')).to_contain_text("330 stated")
    page.locator('[data-part="regulator"]').click()
    opening = page.locator('[data-key="engine.regulator_opening"] input')
    expect(opening).to_have_value("470 kPa")
    opening.fill("300")
    opening.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("at or below the hot gallery pressure of 330 kPa")
    expect(opening).to_have_value("300")  # what was typed stays
    opening.press("Escape")
    expect(opening).to_have_value("470 kPa")
    page.get_by_label("Temperature to read the line at, in °C").fill("40")
    page.keyboard.press("Enter")
    expect(page.locator('[data-oil="reading"]')).to_contain_text("66.0 mm²/s")
    point = page.locator('[data-point="1"] circle')
    point.hover()  # waits until nothing moves any more
    box = point.bounding_box()
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2 + 6, steps=4)
    page.mouse.up()
    expect(page.get_by_label("Viscosity of point 2", exact=True)).not_to_have_value("66")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Viscosity of point 2", exact=True)).to_have_value("66")
    page.get_by_label("Viscosity of point 3", exact=True).fill("90")
    page.keyboard.press("Tab")
    expect(page.get_by_role("alert")).to_contain_text("thicker at 100 °C")
    page.locator('[data-engine="work diesel, 5.7 L"]').click()
    lines = page.locator('[data-library="lines"] [data-line]')
    expect(
        page.locator('[data-line="engine.name"]').get_by_role("checkbox")
    ).to_be_checked()  # stated for this study: it stays unless chosen
    lines.filter(has_text="390 kPa").get_by_role("checkbox").uncheck()
    page.get_by_role("button", name="Take the engine").click()
    expect(page.locator('[data-part="gallery"]')).to_contain_text("390 kPa")
    expect(page.locator('[data-part="gallery"]')).to_contain_text("3000 rpm")


def test_a_start_is_planned_and_a_bad_duty_cycle_said_in_one_sentence(page, server, tmp_path):
    open_sample(page, server, 2, "start")
    minutes = page.locator('[data-start="Ysmere"] [data-total="bypass"]')
    before = minutes.inner_text()
    start = page.locator('[data-key="plan.start_c"] input')
    start.fill("-10")
    start.press("Enter")
    expect(minutes).not_to_have_text(before)
    bad, good = tmp_path / "bad.csv", tmp_path / "yard.csv"
    bad.write_text("time_s,speed_rpm\n0,900\n5,900\n3,900\n")
    good.write_text("time_s,speed_rpm\n0,900\n300,1800\n")
    page.get_by_label("Read a duty cycle from CSV").set_input_files(bad)
    expect(page.get_by_role("alert")).to_contain_text("line 4 goes back in time, from 5 to 3 s")
    page.get_by_label("Read a duty cycle from CSV").set_input_files(good)
    expect(page.locator("#duty-cycle")).to_have_text("yard")
    expect(page.locator('[data-life="Ysmere"]')).to_be_visible()


def test_a_press_is_a_click_though_the_page_moves_under_the_pointer(page, server):
    """Leaving a field folds its help between press and release: what lies below moves away, and was not clicked."""
    new_study_at_intake(page, server, "Moving page")
    to_station(page, "Oil, engine")
    pump = page.locator('[data-key="engine.pump_displacement"] input')
    pump.click()
    expect(page.get_by_text("per revolution of the engine, gearing included")).to_be_visible()
    page.locator('[data-engine="small petrol, 1.2 L"]').click()
    lines = page.locator('[data-library="lines"] [data-line]')
    expect(lines.first).to_be_visible()
    everything = page.get_by_label("keep", exact=True)
    everything.check()
    expect(lines.get_by_role("checkbox", checked=False)).to_have_count(0)
    everything.uncheck()
    expect(lines.get_by_role("checkbox", checked=True)).to_have_count(0)
    page.get_by_role("button", name="Take the engine").click()
    expect(pump).to_have_value("9.5 cm³/rev")


def test_the_filter_alone_in_inches_has_its_flow_in_gallons_and_the_crosshair_where_it_was_put(page, server):
    open_sample(page, server, 1, "map")
    page.get_by_role("button", name="Filter alone").click()
    page.keyboard.press("Alt+u")
    flow = page.get_by_label("Filter flow in US gal/min")
    flow.fill("5.3")
    flow.press("Tab")
    put = flow.input_value()
    assert abs(float(put) - 5.3) < 0.3
    expect(page.locator('[data-losses="sentence"]')).to_contain_text("US gal/min")
    page.keyboard.press("Alt+u")
    litres = page.get_by_label("Filter flow in L/min")
    expect(litres).to_have_value(f"{round(float(put) * 3.785411784)}")  # US gallons
    page.keyboard.press("Alt+u")
    expect(flow).to_have_value(put)  # and it has not moved by a node
    temperature = page.get_by_label("Oil temperature in °F")
    temperature.fill("32")
    temperature.press("Enter")
    expect(temperature).to_have_value("32")
    expect(page.locator('[data-losses="sentence"]')).to_contain_text("At 32 °F and")
    page.keyboard.press("Alt+u")
    expect(page.get_by_label("Oil temperature in °C")).to_have_value("0")


def test_an_oil_point_typed_in_fahrenheit_is_kept_as_typed_and_the_others_are_not_converted(page, server):
    open_sample(page, server, 1, "engine")
    page.get_by_text("in · psi").click()
    point = page.get_by_label("Temperature of point 3 in °F", exact=True)
    expect(point).to_have_value("100 °C")
    point.fill("203")
    point.press("Tab")
    expect(point).to_have_value("203 °F")
    expect(page.get_by_label("Temperature of point 2 in °F", exact=True)).to_have_value("40 °C")
    page.keyboard.press("Alt+u")
    expect(page.get_by_label("Temperature of point 2 in °C", exact=True)).to_have_value("40")
    points = page.request.get(f"{server.address}/api/studies/1/document").json()["oil"]["viscosity"]
    assert [item["temperature_c"] for item in points] == [-30, 40, 95]

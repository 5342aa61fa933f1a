"""Run the benchmarks and write build/bench.json: seconds, reference seconds and their ratio, in one run."""

from __future__ import annotations

import json
import resource
import subprocess
import sys
import tempfile
import time
from importlib.resources import files
from pathlib import Path

import numpy as np
from counting import counted_fit, long_table
from growth import (
    SAMPLES_OF_A_STUDY,
    best_of,
    best_of_each,
    elementwise,
    fill_workshop,
    growth_of_draws,
    growth_of_maps,
    growth_of_samples,
    side_by_side,
)
from judging import chances, judged_demo, percentiles, sheet
from playwright.sync_api import Error as PlaywrightError
from playwright.sync_api import Page, sync_playwright
from pointwise import PlainPoint
from reporting import reports
from starting import starting
from typing_beside import typing_beside

import chromium
from tabrel.api.maps.models import MapIn
from tabrel.api.maps.routes import DRAWN_SPEEDS, DRAWN_TEMPERATURES, post_map
from tabrel.api.sample.sheet import sheet_out
from tabrel.cli.demo import fill_demo
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.maps.monte_carlo import onset_interval, quantity_band, sampled_problem
from tabrel.core.maps.onset import bypass_onset, regulator_opening
from tabrel.core.maps.operating_map import OperatingMap, operating_map
from tabrel.core.starts.duty_cycle import CycleTrace
from tabrel.core.starts.warm_up import completed_plan, warm_up
from tabrel.core.study.model import Study
from tabrel.core.uncertainty.sampling import random_quantiles
from tabrel.document.study_document import read_study
from tabrel.store.connection import connect, transaction
from tabrel.store.entry.readings import insert_reading
from tabrel.store.study.studies import load_study

TEMPERATURES = np.linspace(-40, 140, 80).tolist()
"""From as cold as the map of the view is drawn. [°C]"""

SPEEDS = np.linspace(600, 7000, 80).tolist()
REPEATS = 25
STUDIES_OF_A_WORKSHOP = 200
BROWSER_READINGS = 25
HAND_MEASURES = 200
"""Between two readings at least: much less than a hand needs, and what follows a reading is over. [ms]"""
COPY_OF_THE_DAY = 4000
"""Until the copy that the first reading of a day begins is made. [ms]"""
BETWEEN_KEYS = 40
"""Of somebody who types fast. [ms]"""


def map_80x80() -> dict[str, object]:
    """Measure the vectorised map with bypass and regulator curves against brentq point by point on the same residual."""
    study = demo_study()
    point = operating_point(study, study.samples[0])
    known = operating_map(point, TEMPERATURES, SPEEDS)

    def curves(solved: OperatingMap) -> None:
        bypass_onset(point, SPEEDS, solved)
        regulator_opening(point, SPEEDS, solved)

    def vectorised() -> None:
        curves(operating_map(point, TEMPERATURES, SPEEDS))

    def pointwise() -> None:
        for temperature in TEMPERATURES:
            for speed in SPEEDS:
                PlainPoint(point, temperature, speed).solve()

    seconds, reference = best_of(REPEATS, vectorised), best_of(2, pointwise)
    alone, curving, bracketing = best_of_each(
        10,
        lambda: operating_map(point, TEMPERATURES, SPEEDS),
        lambda: curves(known),
        elementwise(point, TEMPERATURES, SPEEDS),
    )
    return {
        "name": "map_80x80",
        "seconds": seconds,
        "reference_seconds": reference,
        "ratio": reference / seconds,
        "residual_evaluations": known.evaluations,
        "map_seconds": alone,
        "elementwise_seconds": bracketing,
        "elementwise_ratio": bracketing / alone,
        "aim_elementwise_ratio": 8.0,
        "curves_share": curving / alone,
        "aim_curves_share": 0.5,
    }


def point_by_point(point: OperatingPoint, temperatures: list[float], speeds: list[float]) -> float:
    """Return what one point costs when solved by itself with brentq. [s]"""
    start = time.perf_counter()
    for temperature in temperatures:
        for speed in speeds:
            PlainPoint(point, temperature, speed).solve()
    return (time.perf_counter() - start) / (len(temperatures) * len(speeds))


def monte_carlo_slice() -> dict[str, object]:
    """Measure the band of 1000 draws on a slice of 40 points, onset interval included, against its points one by one."""
    study = demo_study()
    sample = study.samples[1]

    def band() -> None:
        problem = sampled_problem(study, sample, quantiles=random_quantiles(1000))
        list(quantity_band(problem, np.linspace(-35, 130, 40), np.full(40, 2000.0), "element_pressure"))
        onset_interval(problem, 2000.0)

    seconds = best_of(5, band)
    reference = 40_000 * point_by_point(operating_point(study, sample), TEMPERATURES[::4], SPEEDS[::8])
    return named("monte_carlo_slice", seconds, reference) | {"aim_seconds": 1.5}


def monte_carlo_map() -> dict[str, object]:
    """Measure 256 draws on a map of 40 × 40 points, with the memory the whole process took at most."""
    study = demo_study()
    sample = study.samples[1]
    temperature, speed = (grid.ravel() for grid in np.meshgrid(np.linspace(-35, 130, 40), np.linspace(600, 7000, 40)))

    def band() -> None:
        problem = sampled_problem(study, sample, quantiles=random_quantiles(256))
        list(quantity_band(problem, temperature, speed, "element_pressure"))

    seconds = best_of(2, band)
    reference = 256 * 1600 * point_by_point(operating_point(study, sample), TEMPERATURES[::4], SPEEDS[::8])
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    return named("monte_carlo_map", seconds, reference) | {"aim_seconds": 4.0, "peak_memory_mb": peak, "aim_memory_mb": 500}


def duty_cycle_hour() -> dict[str, object]:
    """Measure a start followed for an hour at one second, against its points one by one."""
    study = demo_study()
    point = operating_point(study, study.samples[1])
    cycle = CycleTrace(np.arange(0.0, 3601.0, 60.0), np.resize([900.0, 1500.0, 3200.0, 2400.0], 61), None)
    plan, _ = completed_plan(None)
    seconds = best_of(5, lambda: warm_up(point, cycle, plan))
    reference = 2 * 3600 * point_by_point(point, TEMPERATURES[::4], SPEEDS[::8])
    return named("duty_cycle_hour", seconds, reference) | {"aim_seconds": 0.5}


def named(name: str, seconds: float, reference: float) -> dict[str, object]:
    """Return a measurement as it is written."""
    return {"name": name, "seconds": seconds, "reference_seconds": reference, "ratio": reference / seconds}


def demo_study() -> Study:
    """Return the study of the demo."""
    return read_study(files("tabrel").joinpath("demo", "mountain_road_service.study.json").read_bytes())


def reading_to_view() -> dict[str, object]:
    """Measure what follows a changed reading (stored, sheet, map of the view, as JSON) against the map point by point."""
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "bench.db"
        fill_demo(database)
        conn = connect(database)

        def follow() -> None:
            with transaction(conn):
                insert_reading(conn, "media.strip_length", "1.76 m", sample_id=1)
            sheet_out(conn, 1).model_dump_json()
            post_map(1, MapIn(), conn).model_dump_json()

        seconds = best_of(REPEATS, follow)
        study = load_study(conn, 1)
        conn.close()
    point = operating_point(study, study.samples[0])

    def pointwise() -> None:
        for temperature in DRAWN_TEMPERATURES.tolist():
            if point.oil.pumps(temperature):
                for speed in DRAWN_SPEEDS.tolist():
                    PlainPoint(point, temperature, speed).solve()

    reference = best_of(2, pointwise)
    return {
        "name": "reading_to_view",
        "seconds": seconds,
        "reference_seconds": reference,
        "ratio": reference / seconds,
    }


WORKSHOPS = (1, 10, 50, STUDIES_OF_A_WORKSHOP)
"""Studies of ten samples each."""


def full_workshops() -> list[dict[str, object]]:
    """Measure a reading taken, stored, answered and shown in a browser among more and more samples, and the lists of results."""
    with tempfile.TemporaryDirectory() as folder:
        databases = {}
        for studies in WORKSHOPS:
            databases[studies * SAMPLES_OF_A_STUDY] = Path(folder) / f"{studies}.db"
            fill_workshop(Path(folder) / f"{studies}.db", studies)
        grown = growth_of_samples(databases)
        seconds = grown["seconds_by_size"]
        small = enter_to_results(Path(folder) / "1.db", 1, 5)
        full = enter_to_results(Path(folder) / f"{STUDIES_OF_A_WORKSHOP}.db", 100, 1000)
    ratio = full["enter_to_results_median"] / small["enter_to_results_median"]
    workshop = {
        "name": "reading_in_a_full_workshop",
        "seconds": seconds[-1],
        "reference_seconds": seconds[0],
        "ratio": seconds[0] / seconds[-1],
        **full,
        "enter_to_results_of_one_study": small["enter_to_results_median"],
        "full_to_one": ratio,
        "aim_full_to_one": 1.2,
    }
    return [grown, workshop]


def enter_to_results(database: Path, study: int, sample: int) -> dict[str, float]:
    """Measure in a real browser, from the key to the changed number on the tape, on a full database. [s]"""
    port = "8797"
    command = [Path(sys.executable).parent / "tabrel", "serve", "--database", str(database), "--port", port]
    server = subprocess.Popen(command, stdout=subprocess.DEVNULL)
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=chromium.EXECUTABLE, args=chromium.ARGUMENTS)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            while server.poll() is None:  # it may take long to begin beside other work
                try:
                    page.goto(f"http://127.0.0.1:{port}/studies/{study}/samples/{sample}/outside")
                    break
                except PlaywrightError:
                    time.sleep(0.1)
            burst = type_readings(page, rest=0)
            page.wait_for_timeout(COPY_OF_THE_DAY)
            page.goto(f"http://127.0.0.1:{port}/studies/{study}/samples/{sample + 1}/outside")
            delays = type_readings(page, rest=HAND_MEASURES)
            moves = moving_about(page, f"http://127.0.0.1:{port}/studies/{study}/samples", f"http://127.0.0.1:{port}", sample)
            browser.close()
    finally:
        server.kill()
    return {
        "enter_to_results_median": delays[len(delays) // 2] / 1e3,
        "aim_enter_to_results_median": 0.06,
        "enter_to_results_worst": delays[-1] / 1e3,
        "aim_enter_to_results_worst": 0.12,
        "enter_to_results_without_rest": burst[len(burst) // 2] / 1e3,
        **moves,
        "aim_map_to_numbers": 0.4,
        "aim_open_to_first_field": 0.3,
        "aim_switch_station": 0.15,
        "aim_switch_sample": 0.15,
    }


def type_readings(page: Page, rest: float) -> list[float]:
    """Type readings into a field one after the other, and return how long each took to show, the shortest first. [ms]"""
    page.wait_for_selector("[data-key='holes.inlet[0].diameter']")
    page.evaluate(WATCH_THE_TAPE)
    for i in range(BROWSER_READINGS):
        page.wait_for_timeout(rest)
        page.locator("[data-key='holes.inlet[0].diameter'] input.input").focus()
        page.keyboard.type(f"{5.5 + 0.07 * i:.2f}", delay=rest and BETWEEN_KEYS)
        page.keyboard.press("Enter")
        page.wait_for_function("count => window.delays.length === count", arg=i + 1)
    return sorted(page.evaluate("window.delays"))


def moving_about(page: Page, study: str, address: str, sample: int) -> dict[str, float]:
    """Measure how soon a hand can go on: after opening a study, changing station and sample, and asking for the map. [s]"""
    first = (sample - 1) // SAMPLES_OF_A_STUDY * SAMPLES_OF_A_STUDY + 1
    times: dict[str, list[float]] = {"open_to_first_field": [], "switch_station": [], "switch_sample": [], "map_to_numbers": []}
    for i in range(MOVES):
        page.goto(address)
        page.wait_for_selector("[data-study] .open")
        page.get_by_label("Name of a new study").fill(f"bench {i}")
        times["open_to_first_field"].append(page.evaluate(until(CLICK_NEW, FIELD_IN_HAND)))
        page.goto(f"{study}/{first + i}/short")
        page.wait_for_selector("[data-key='media.thickness']")
        page.wait_for_timeout(300)
        times["switch_station"].append(page.evaluate(until(CLICK_OUTSIDE, AT_OUTSIDE)))
        page.wait_for_timeout(800)  # the hand rests, as it does at a filter
        times["switch_sample"].append(page.evaluate(until(PRESS_ALT_9, NINTH_SHOWN)))
        page.wait_for_timeout(300)
        times["map_to_numbers"].append(page.evaluate(until(CLICK_MAP, NUMBERS_OF_THE_MAP)))
    return {name: sorted(result)[len(result) // 2] / 1e3 for name, result in times.items()}


MOVES = 7


def until(act: str, there: str) -> str:
    """Return the script that does something and returns after how long something is there. [ms]"""
    return f"""async () => {{
      const begun = performance.now();
      {act};
      while (!({there})) {{
        if (performance.now() - begun > 20000) throw new Error('it never came')
        await new Promise(requestAnimationFrame)
      }}
      return performance.now() - begun
    }}"""


CLICK_NEW = "document.querySelector('.new button').click()"
CLICK_OUTSIDE = "[...document.querySelectorAll('.oil-line a')].find(one => one.textContent.includes('Outside')).click()"
CLICK_MAP = "[...document.querySelectorAll('.oil-line a')].find(one => one.textContent.includes('Operating map')).click()"
NUMBERS_OF_THE_MAP = "/[0-9]/.test(document.querySelector('section[aria-label^=Values] dd .number')?.textContent)"
PRESS_ALT_9 = "document.activeElement.dispatchEvent(new KeyboardEvent('keydown', \
{ code: 'Digit9', key: '9', altKey: true, bubbles: true, cancelable: true }))"
AT_OUTSIDE = "location.pathname.endsWith('/outside') && document.activeElement.closest('main [data-stop]') !== null"
FIELD_IN_HAND = "document.activeElement.matches('main [data-stop] input')"
NINTH_SHOWN = "document.querySelectorAll('.rack .cans a')[8].classList.contains('in-hand') && \
document.querySelector('main h1').textContent.includes(document.querySelectorAll('.rack .cans strong')[8].textContent.trim())"


WATCH_THE_TAPE = """() => {
  window.delays = []
  let pressed = null
  addEventListener('keydown', (event) => { if (event.key === 'Enter') pressed = performance.now() }, true)
  new MutationObserver(() => {
    if (pressed === null) return
    requestAnimationFrame(() => {
      if (pressed !== null) window.delays.push(performance.now() - pressed)
      pressed = null
    })
  }).observe(
    document.querySelector('[data-result="inlet_hole_area_mm2"]'),
    { subtree: true, characterData: true, childList: true },
  )
}"""


def main() -> None:
    """Run all benchmarks."""
    study = demo_study()
    results: list[dict[str, object]] = [
        map_80x80(),
        monte_carlo_slice(),
        monte_carlo_map(),
        duty_cycle_hour(),
        reading_to_view(),
        growth_of_maps(operating_point(study, study.samples[0])),
        growth_of_draws(study),
        counted_fit(),
        long_table(),
        chances(),
        judged_demo(),
        sheet(),
        percentiles(),
        *reports(),
        starting(),
        typing_beside(),
    ]
    with tempfile.TemporaryDirectory() as folder:
        fill_demo(Path(folder) / "demo.db")
        results.append(side_by_side(Path(folder) / "demo.db"))
    results += full_workshops()
    target = Path("build/bench.json")
    target.parent.mkdir(exist_ok=True)
    target.write_text(json.dumps(results, indent=1) + "\n")
    for result in results:
        print(result["name"], file=sys.stderr)
        for key, value in result.items():
            if isinstance(value, float) and not key.startswith("aim_"):
                aim = result.get(f"aim_{key}")
                print(
                    f"  {key.replace('_', ' ')}: {value:.4g}{f' (aim {aim:g})' if isinstance(aim, float) else ''}",
                    file=sys.stderr,
                )


if __name__ == "__main__":
    main()

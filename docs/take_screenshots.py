"""Take one picture of each main view from the demo data, in headless Chromium, into docs/screenshots/."""

from __future__ import annotations

import re
import sys
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import uvicorn
from playwright.sync_api import Page, sync_playwright

import chromium
from tabrel.api.app import create_app
from tabrel.cli.demo import fill_demo

PORT = 8793


@contextmanager
def demo_server() -> Iterator[str]:
    """Serve fresh demo data."""
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "demo.db"
        fill_demo(database)
        server = uvicorn.Server(uvicorn.Config(create_app(database), port=PORT, log_level="error"))
        thread = threading.Thread(target=server.run)
        thread.start()
        while not server.started:
            time.sleep(0.02)
        try:
            yield f"http://127.0.0.1:{PORT}"
        finally:
            server.should_exit = True
            thread.join()


def take(page: Page, path: Path) -> None:
    """Take a picture once nothing moves."""
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")
    page.wait_for_timeout(350)
    page.screenshot(path=path)


def main(target: Path) -> None:
    """Take the pictures."""
    target.mkdir(parents=True, exist_ok=True)
    with demo_server() as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium.EXECUTABLE, args=chromium.ARGUMENTS)
        page = browser.new_page(viewport={"width": 1280, "height": 800}, color_scheme="light")
        page.goto(address)
        page.wait_for_selector("[data-sample='5'] svg.can")
        take(page, target / "studies.png")
        page.get_by_role("link", name="Mountain road service").click()
        page.get_by_role("link", name="Ysmere").click()
        page.get_by_role("link", name="Intake").click()
        page.locator(".claims li").last.scroll_into_view_if_needed()
        take(page, target / "intake.png")
        page.get_by_role("link", name="Halvene").click()
        page.get_by_role("link", name="Short sheet").click()
        page.locator("[data-key='bypass.seat_inside_diameter'] input").first.focus()
        take(page, target / "short-sheet.png")
        page.get_by_role("link", name="Outside").click()
        field = page.locator("[data-key='holes.inlet[0].diameter'] input").first
        field.fill("64")
        field.focus()
        take(page, target / "outside.png")
        field.fill("")
        page.get_by_role("link", name="Brennig").click()
        page.get_by_role("link", name="Opened").click()
        page.locator("[data-key='can.inside_diameter'] input").first.focus()
        take(page, target / "opened.png")
        page.get_by_role("link", name="Element").click()
        take(page, target / "element.png")
        page.get_by_role("link", name=re.compile("^Media")).click()
        take(page, target / "media.png")
        page.get_by_role("link", name=re.compile("^Efficiency counted")).click()
        page.wait_for_selector('[data-line="counts"]')
        take(page, target / "efficiency.png")
        page.get_by_role("link", name="Korvath").click()
        page.get_by_role("button", name="Effective media area").click()
        take(page, target / "working.png")
        page.get_by_role("link", name="Ysmere").click()
        page.get_by_role("link", name="Operating map").click()
        take(page, target / "map-steady.png")
        page.get_by_role("link", name="Oil, engine").click()
        page.wait_for_selector('[data-figure="circuit"]')
        take(page, target / "engine.png")
        page.get_by_role("link", name="Comparison").click()
        page.wait_for_selector('[data-band="5"]')
        take(page, target / "comparison.png")
        page.get_by_role("link", name="Sheet", exact=True).click()
        page.locator('[data-row="media_effective_area_cm2"] .title').click()
        page.get_by_text("behaviour with its uncertainty").wait_for(state="detached", timeout=120_000)
        take(page, target / "sheet.png")
        page.get_by_role("link", name="Verdict").click()
        page.get_by_role("button", name="vans, daily").first.click()
        page.locator('[data-part="answer"]').wait_for(timeout=120_000)
        page.get_by_role("button", name="Dunmor for long interval").wait_for(timeout=120_000)
        take(page, target / "verdict.png")
        page.get_by_role("link", name="Sums").click()
        page.locator("[data-sum]").first.wait_for()
        take(page, target / "sums.png")
        page.goto(f"{address}/studies/1/samples/1/report")
        page.get_by_text("Draft, not issued.").wait_for(timeout=120_000)
        page.locator(".pages img").first.evaluate("picture => picture.decode()")
        take(page, target / "report.png")
        page.goto(f"{address}/studies/1/samples/1/sums")
        page.get_by_role("link", name="Same part?").click()
        page.locator('[data-pair="Korvath/Brennig"]').click()
        take(page, target / "same-part.png")
        page.get_by_role("link", name="Warm-up, life").click()
        page.wait_for_selector('[data-figure="start"]')
        take(page, target / "start.png")
        page.goto(address)
        page.get_by_role("link", name="Snow groomer 7").click()
        page.get_by_role("link", name="Spare").click()
        page.get_by_role("link", name=re.compile("^Cut")).click()
        take(page, target / "cut.png")
        browser.close()


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else Path(__file__).parent / "screenshots")

"""Take one picture of each main view from the demo data, in headless Chromium, into docs/screenshots/."""

from __future__ import annotations

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


def settle(page: Page) -> None:
    """Wait until nothing moves."""
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")
    page.wait_for_timeout(350)


def main(target: Path) -> None:
    """Take the pictures."""
    target.mkdir(parents=True, exist_ok=True)
    with demo_server() as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium.EXECUTABLE, args=chromium.ARGUMENTS)
        page = browser.new_page(viewport={"width": 1280, "height": 800}, color_scheme="light")
        page.goto(address)
        settle(page)
        page.screenshot(path=target / "studies.png")
        page.get_by_role("button", name="Mountain road service").click()
        page.get_by_role("button", name="Ysmere").click()
        page.get_by_label("wall thickness").first.fill("0.15 in")
        page.get_by_label("wall thickness").first.focus()
        settle(page)
        page.screenshot(path=target / "bench.png")
        page.get_by_role("button", name="Operating map").click()
        settle(page)
        page.screenshot(path=target / "map-steady.png")
        page.get_by_role("button", name="Korvath").click()
        page.get_by_role("button", name="Filling").click()
        settle(page)
        page.screenshot(path=target / "map-filling.png")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Dark").click()
        settle(page)
        page.screenshot(path=target / "map-dark.png")
        browser.close()


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else Path(__file__).parent / "screenshots")

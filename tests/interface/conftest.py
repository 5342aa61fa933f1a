"""A real server and a real browser."""

from __future__ import annotations

import shutil
import threading
from pathlib import Path

import pytest
import uvicorn
from playwright.sync_api import expect

import chromium
from serving import ServerProcess
from tabrel.api.app import create_app
from tabrel.cli.demo import fill_demo
from tabrel.cli.serve import listening_socket
from tabrel.core.judge import at_points
from tabrel.store.service import Service

expect.set_options(timeout=15_000)  # a busy machine may be slow; what is waited for comes at once otherwise


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    return {**browser_type_launch_args, "executable_path": chromium.EXECUTABLE, "args": chromium.ARGUMENTS}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {
        **browser_context_args,
        "viewport": {"width": 1280, "height": 800},
        "color_scheme": "light",
        "reduced_motion": "reduce",
    }


@pytest.fixture(scope="session")
def shared_context(browser, browser_context_args, served_app):
    """One browser context for all tests of a worker. A first page keeps the process that has compiled the front end."""
    context = browser.new_context(**browser_context_args)
    context.add_init_script(
        "Object.defineProperty(navigator.connection, 'saveData', { value: true, configurable: true })"
    )  # nothing is fetched ahead
    context.new_page().goto(f"{served_app.address}/api/service")
    yield context
    context.close()


@pytest.fixture
def context(shared_context):
    """The shared context, left without pages, permissions and stored settings."""
    yield shared_context
    for page in shared_context.pages[1:]:
        origin = page.evaluate("location.origin")
        if origin != "null":
            storage = {"origin": origin, "storageTypes": "cookies,local_storage,indexeddb"}
            shared_context.new_cdp_session(page).send("Storage.clearDataForOrigin", storage)
        page.close()
    shared_context.clear_permissions()


@pytest.fixture(autouse=True)
def own_rules(context):
    """See that no view breaks the rules that the application gives its own pages."""
    broken = []

    def listen(message):
        if "Content Security Policy" in message.text:
            broken.append(message.text)

    context.on("console", listen)
    yield broken
    context.remove_listener("console", listen)
    assert broken == []


@pytest.fixture(scope="session")
def demo_database(tmp_path_factory):
    """The demo data, filled once and copied for each test."""
    path = tmp_path_factory.mktemp("demo") / "demo.db"
    fill_demo(path)
    return path


class ServedApp:
    """The application on a socket of its own, in a thread; each test puts its own database under it."""

    def __init__(self, database: Path) -> None:
        self.app = create_app(database)
        listener = listening_socket(0)
        self.address = f"http://127.0.0.1:{listener.getsockname()[1]}"
        self._server = uvicorn.Server(uvicorn.Config(self.app, log_level="error"))
        self._thread = threading.Thread(target=self._server.run, kwargs={"sockets": [listener]}, daemon=True)
        self._thread.start()

    def use(self, database: Path) -> None:
        self.app.state.service = Service(database)

    def stop(self) -> None:
        self._server.should_exit = self._server.force_exit = True
        self._thread.join()


FEW_START_DRAWS = 4
"""Every draw of a start is a whole run: these are enough for what the screen shows of it."""


@pytest.fixture(scope="session")
def served_app(demo_database):
    at_points.START_DRAWS = FEW_START_DRAWS
    running = ServedApp(demo_database)
    yield running
    running.stop()


@pytest.fixture
def server(served_app, demo_database, tmp_path):
    """Serve fresh demo data."""
    served_app.use(Path(shutil.copy(demo_database, tmp_path)))
    return served_app


@pytest.fixture
def server_process(demo_database, tmp_path):
    """Serve fresh demo data from a process that a test may kill."""
    running = ServerProcess(Path(shutil.copy(demo_database, tmp_path)))
    yield running
    running.kill()

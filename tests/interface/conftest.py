"""A real server process and a real browser."""

from __future__ import annotations

import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import pytest

import chromium

TABREL = Path(sys.executable).parent / "tabrel"


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    return {**browser_type_launch_args, "executable_path": chromium.EXECUTABLE, "args": chromium.ARGUMENTS}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}, "color_scheme": "light"}


class Server:
    """The demo as a process of its own, which can be stopped, killed and started again on the same data."""

    def __init__(self, folder: Path) -> None:
        self.database = folder / "demo.db"
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.address = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self) -> None:
        command = [TABREL, "demo", "--database", self.database, "--port", str(self.port)]
        self.process = subprocess.Popen(command, stdout=subprocess.DEVNULL)
        for _ in range(300):
            try:
                urllib.request.urlopen(f"{self.address}/api/studies").close()
                return
            except OSError:
                time.sleep(0.05)
        raise AssertionError("the server did not come up")

    def kill(self) -> None:
        self.process.kill()
        self.process.wait()


@pytest.fixture
def server(tmp_path):
    running = Server(tmp_path)
    yield running
    running.kill()

"""How long a reading takes while many others look, and while large files come in: on a real server."""

from __future__ import annotations

import socket
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import httpx

from tabrel.cli.demo import fill_demo

TABREL = Path(sys.executable).parent / "tabrel"
MANY, FEW = 60, 4
FILE = bytes(30_000_000)
ZIP = {"Content-Type": "application/zip"}


def typing_beside() -> dict[str, object]:
    """Measure a reading alone, and the longest of those typed beside each kind of other request."""
    with tempfile.TemporaryDirectory() as folder, socket.socket() as probe:
        database = Path(folder) / "demo.db"
        fill_demo(database)
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
        probe.close()
        server = subprocess.Popen([TABREL, "serve", "--database", database, "--port", str(port)], stdout=subprocess.DEVNULL)
        try:
            with httpx.Client(base_url=f"http://127.0.0.1:{port}", timeout=120) as client:
                return _measured(client)
        finally:
            server.terminate()
            server.wait()


def _measured(client: httpx.Client) -> dict[str, object]:
    for _ in range(300):
        try:
            client.get("/api/service")
            break
        except httpx.HTTPError:
            time.sleep(0.1)
    preview = client.post("/api/studies/1/report/preview", json={}).json()
    pages = len(preview["pages"])
    alone = statistics.median(_reading(client) for _ in range(9))
    others: dict[str, tuple[int, Callable[[int], object]]] = {
        "beside_60_pages": (MANY, lambda i: client.get(f"/api/report-previews/{preview['key']}/pages/{1 + i % pages}")),
        "beside_60_lists_of_others": (MANY, lambda _: client.get("/api/studies/1/others", params={"words": "a"})),
        "beside_60_documents": (MANY, lambda _: client.get("/api/studies/1/document")),
        "beside_4_packages": (FEW, lambda _: client.post("/api/packages", content=FILE, headers=ZIP)),
        "beside_4_maps": (FEW, lambda i: client.post(f"/api/samples/{1 + i}/map", json={})),
    }
    longest = {name: _longest(client, *other) for name, other in others.items()}
    worst = max(longest.values())
    return {
        "name": "typing_beside",
        "seconds": worst,
        "aim_seconds": 0.3,
        "reference_seconds": alone,
        "ratio": alone / worst,
        **longest,
    }


def _reading(client: httpx.Client) -> float:
    began = time.perf_counter()
    answer = client.post("/api/samples/2/readings", json={"key": "can.height", "text": "97.3 mm", "confirm": True})
    took = time.perf_counter() - began
    if answer.status_code != 201:
        raise RuntimeError(answer.text)
    client.post("/api/samples/2/undo", json={})
    return took


def _longest(client: httpx.Client, count: int, ask: Callable[[int], object]) -> float:
    """Return the longest that a reading takes while so many other requests are under way."""
    with ThreadPoolExecutor(count) as windows:
        asked = [windows.submit(ask, i) for i in range(count)]
        took = [_reading(client)]
        while not all(one.done() for one in asked):
            took.append(_reading(client))
    return max(took)

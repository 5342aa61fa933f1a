"""The application in a process of its own, which a test may kill and start again on the same data."""

from __future__ import annotations

import socket
import time
import urllib.request
from multiprocessing import get_context
from pathlib import Path

FORKING = get_context("forkserver")
FORKING.set_forkserver_preload(["tabrel.api.app", "uvicorn"])
"""A process that has loaded the application once, so that a start takes a tenth of a second."""


def serve_alone(database: Path, port: int) -> None:
    """Serve until killed, as ``tabrel serve`` does, but for copies and warm processes."""
    import uvicorn

    from tabrel.api.app import create_app
    from tabrel.cli.serve import HOST, listening_socket
    from tabrel.store.served_alone import served_alone

    with listening_socket(port) as listener, served_alone(database, f"http://{HOST}:{port}"):
        uvicorn.Server(uvicorn.Config(create_app(database), log_level="error")).run(sockets=[listener])


class ServerProcess:
    """A server on a database, at an address that stays the same when it starts again."""

    def __init__(self, database: Path) -> None:
        self.database = database
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.address = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self) -> None:
        self._process = FORKING.Process(target=serve_alone, args=(self.database, self.port), daemon=True)
        self._process.start()
        for _ in range(600):
            try:
                urllib.request.urlopen(f"{self.address}/api/studies").close()
                return
            except OSError:
                time.sleep(0.05)
        raise AssertionError("the server did not come up")

    def kill(self) -> None:
        self._process.kill()
        self._process.join()

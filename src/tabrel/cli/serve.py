"""``tabrel serve``: the application on this machine."""

from __future__ import annotations

import argparse
import gc
import socket
import sys
from contextlib import suppress
from pathlib import Path

from tabrel.cli.entry import loading
from tabrel.cli.output import put
from tabrel.core.errors import TabrelError

HOST = "127.0.0.1"
DEFAULT_PORT = 8710
DEFAULT_DATABASE = Path("data/tabrel.db")


SWITCH_INTERVAL = 0.0005
"""So long a computation keeps a reading waiting each time that it comes back from the database. [s]"""


class ServeError(TabrelError):
    """The application cannot be served."""


def add_options(parser: argparse.ArgumentParser, database: Path) -> None:
    """Add the options that serving takes."""
    parser.add_argument("--database", type=Path, default=database, metavar="FILE", help=f"default: {database}")
    parser.add_argument("--port", type=int, default=DEFAULT_PORT, help=f"default: {DEFAULT_PORT}")


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what this command takes."""
    add_options(parser, DEFAULT_DATABASE)
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Serve until interrupted."""
    return serve(arguments.database, arguments.port)


def serve(database: Path, port: int) -> int:
    """Serve the application until Ctrl-C and return the exit status."""
    with loading():
        import uvicorn

        from tabrel.api.app import STATIC, create_app
        from tabrel.store.served_alone import served_alone

    if not (STATIC / "index.html").is_file():
        raise ServeError("the front end is not built: run 'make setup' once, then start again")
    with listening_socket(port) as listener, served_alone(database, f"http://{HOST}:{port}"):
        app = create_app(database, stays=True)
        opened = app.state.service.opened
        for words in filter(None, (opened.warning, opened.note)):
            print(f"tabrel: {words}.", file=sys.stderr, flush=True)
        put(f"Tabrel is at http://{HOST}:{port} (data in {database}); stop it with Ctrl-C.")
        _collect_garbage_seldom()
        sys.setswitchinterval(SWITCH_INTERVAL)
        server = uvicorn.Server(uvicorn.Config(app, log_level="warning", timeout_graceful_shutdown=2))
        with suppress(KeyboardInterrupt):
            server.run(sockets=[listener])
    put("Tabrel has stopped; everything entered is saved.")
    return 0


def _collect_garbage_seldom() -> None:
    """Search for garbage seldom, and not in what stays anyway: a search holds up a reading for a tenth of a second."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(50_000, 20, 50)


def listening_socket(port: int) -> socket.socket:
    """Return a socket that already takes connections, so that the address works as soon as it is printed.

    asyncio sends small answers without delay only through sockets that name TCP as their protocol; left unnamed, every
    request waits some 40 ms for the browser's delayed acknowledgement.
    """
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((HOST, port))
    except (OSError, OverflowError) as error:
        listener.close()
        raise ServeError(f"port {port} cannot be used ({error}): stop what runs there, or choose another with --port") from error
    listener.listen(128)
    return listener

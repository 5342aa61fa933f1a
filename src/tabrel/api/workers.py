"""Processes that compute beside the server, so that readings are answered meanwhile."""

from __future__ import annotations

import asyncio
import os
import signal
from collections.abc import Callable
from concurrent.futures import Future, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from multiprocessing import get_context, parent_process
from threading import Lock, Thread
from typing import Any, ParamSpec, TypeVar

from tabrel.api.turns import ComputingError

P = ParamSpec("P")
T = TypeVar("T")

PROCESSES = max(2, min(8, os.cpu_count() or 2))
PRELOADED = ("tabrel.api.maps.slices", "tabrel.report.preview", "tabrel.store.upkeep.kept")
"""Modules that a new process has loaded already."""


def _begin() -> None:
    """Leave an interrupt to the server, and end with it however it ends."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    Thread(target=_end_with_the_server, daemon=True).start()


def _ready() -> bool:
    return True


def _end_with_the_server() -> None:
    server = parent_process()
    if server is not None:
        server.join()
        os._exit(0)


class Workers:
    """A pool of processes, begun when it is first needed and ended with the server.

    Attributes
    ----------
    are_warm : bool
        Whether they wait for work, so that dividing some among them is worth it.
    """

    def __init__(self) -> None:
        self._pool: ProcessPoolExecutor | None = None
        self.are_warm = False
        self._lock = Lock()

    def submit(self, work: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> Future[T]:
        """Have a process call a function of a module; arguments and answer are copied.

        Raises
        ------
        ComputingError
            If the processes were ended from outside; new ones are there for the next.
        """
        with self._lock:
            if self._pool is None:
                context = get_context("forkserver")
                context.set_forkserver_preload([*PRELOADED])
                self._pool = ProcessPoolExecutor(PROCESSES, mp_context=context, initializer=_begin)
            try:
                return self._pool.submit(work, *args, **kwargs)
            except BrokenProcessPool as error:
                self._pool, self.are_warm = None, False
                raise ComputingError("the computation was ended from outside: try again") from error

    def warm(self) -> None:
        """Begin the processes before anybody waits for them."""
        for _ in range(PROCESSES):
            self.submit(_ready).add_done_callback(self._is_ready)

    def _is_ready(self, ready: Future[bool]) -> None:
        self.are_warm = not ready.cancelled() and ready.exception() is None

    def forget(self) -> None:
        """Begin new processes next time."""
        with self._lock:
            self._pool, self.are_warm = None, False

    async def run(self, work: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
        """Wait for what a process returns or raises."""
        try:
            return await asyncio.wrap_future(self.submit(work, *args, **kwargs))
        except BrokenProcessPool as error:
            self.forget()
            raise ComputingError("the computation was ended from outside: try again") from error

    def __enter__(self) -> Workers:
        """Return itself; its processes end with the block."""
        return self

    def __exit__(self, *_: Any) -> None:
        """End the processes."""
        with self._lock:
            if self._pool is not None:
                self._pool.shutdown(wait=True, cancel_futures=True)
                self._pool = None

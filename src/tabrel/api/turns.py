"""What takes long takes turns, so that readings go on meanwhile; a request whose client has gone is not computed.

There are two queues: one for computations, one for what only looks. What changes something waits in neither.
"""

from __future__ import annotations

import asyncio
import os
from collections.abc import AsyncIterator, Callable, Iterator
from contextlib import asynccontextmanager, contextmanager
from threading import Event
from time import monotonic

from fastapi import Depends, Request
from fastapi.routing import APIRoute

from tabrel.core.errors import TabrelError
from tabrel.core.stopping import stop_when

AT_ONCE = max(2, os.cpu_count() or 2)
"""So many maps, slices or starts are computed at a time."""
LOOKING_AT_ONCE = 2
"""So many requests that only look are answered at a time: more would take the processor and the threads from readings."""
PATIENCE = 30.0
"""A request waits so long for its turn. [s]"""
HOLDS_STILL = 0.2
"""A computation holds still for a change no longer than that at a time. [s]"""
LIGHT_BYTES = 50_000
"""What is no longer is read within some milliseconds."""
LOOK_EVERY = 0.25
"""Whether the one who asked is still there. [s]"""


class ComputingError(TabrelError):
    """Too much is being computed already."""


def new_turns() -> asyncio.Semaphore:
    """Return the turns of one application in which is computed."""
    return asyncio.Semaphore(AT_ONCE)


def new_looks() -> asyncio.Semaphore:
    """Return the turns of one application in which is only looked."""
    return asyncio.Semaphore(LOOKING_AT_ONCE)


@asynccontextmanager
async def _turn(request: Request, turns: asyncio.Semaphore) -> AsyncIterator[None]:
    """Hold a turn while the request is answered, or until who asked has gone; waiting for it takes no thread from others."""
    until = monotonic() + PATIENCE
    while True:
        try:
            await asyncio.wait_for(turns.acquire(), LOOK_EVERY)
            break
        except TimeoutError:
            if await request.is_disconnected():
                raise ComputingError("nobody waits for this any more") from None
            if monotonic() > until:
                raise ComputingError("too much is being computed already: try again in a moment") from None
    gone = Event()
    stop_when(_goes_after(request.app.state.changes, gone))
    watching = asyncio.create_task(_watch(request, gone))
    try:
        yield
    finally:
        watching.cancel()
        turns.release()


class Changes:
    """Changes that are being taken: while there are any, what takes long holds still.

    Attributes
    ----------
    there_are_none : Event
    """

    def __init__(self) -> None:
        self.there_are_none = Event()
        self.there_are_none.set()
        self._under_way = 0

    @contextmanager
    def under_way(self) -> Iterator[None]:
        """Count a change; begun and ended in the thread of the event loop only."""
        self._under_way += 1
        self.there_are_none.clear()
        try:
            yield
        finally:
            self._under_way -= 1
            if not self._under_way:
                self.there_are_none.set()


def _goes_after(changes: Changes, gone: Event) -> Callable[[], bool]:
    """Return what a computation asks at every step: it holds still for changes, but goes on for as long as it has held still."""
    goes_on_until = 0.0

    def is_stopped() -> bool:
        nonlocal goes_on_until
        if not changes.there_are_none.is_set() and (began := monotonic()) >= goes_on_until:
            changes.there_are_none.wait(HOLDS_STILL)
            goes_on_until = 2 * monotonic() - began
        return gone.is_set()

    return is_stopped


async def _watch(request: Request, gone: Event) -> None:
    while not await request.is_disconnected():
        await asyncio.sleep(LOOK_EVERY)
    gone.set()


async def _heavy(request: Request) -> AsyncIterator[None]:
    async with _turn(request, request.app.state.turns):
        yield


async def _heavy_where_large(request: Request) -> AsyncIterator[None]:
    announced = request.headers.get("content-length", "")
    if announced.isdecimal() and int(announced) <= LIGHT_BYTES:
        yield
    else:
        async with _turn(request, request.app.state.turns):
            yield


async def take_lane(request: Request) -> AsyncIterator[None]:
    """Have a request that only looks wait for its turn, unless it waits for one of the others anyway."""
    route: APIRoute = request.scope["route"]
    is_heavy = any(dependency in route.dependencies for dependency in (*HEAVY, *HEAVY_WHERE_LARGE))
    if request.method in ("GET", "HEAD") and not is_heavy:
        async with _turn(request, request.app.state.looks):
            yield
    elif is_heavy:
        yield
    else:
        with request.app.state.changes.under_way():
            yield


HEAVY = [Depends(_heavy)]
"""Dependencies of an operation that computes for long."""
HEAVY_WHERE_LARGE = [Depends(_heavy_where_large)]
"""Dependencies of an operation that takes as long as what it reads is large."""

"""Heavy computation takes turns, so that readings go on meanwhile; a request whose client has gone is not computed."""

from __future__ import annotations

import asyncio
import os
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from threading import Event
from time import monotonic

from fastapi import Depends, Request

from tabrel.core.errors import TabrelError
from tabrel.core.stopping import stop_when

AT_ONCE = max(2, os.cpu_count() or 2)
"""So many maps, slices or starts are computed at a time."""
PATIENCE = 30.0
"""A request waits so long for its turn. [s]"""
LIGHT_BYTES = 50_000
"""What is no longer is read within some milliseconds."""
LOOK_EVERY = 0.25
"""Whether the one who asked is still there. [s]"""


class ComputingError(TabrelError):
    """Too much is being computed already."""


def new_turns() -> asyncio.Semaphore:
    """Return the turns of one application."""
    return asyncio.Semaphore(AT_ONCE)


@asynccontextmanager
async def _turn(request: Request) -> AsyncIterator[None]:
    """Hold a turn while the request is answered, or until who asked has gone; waiting for it takes no thread from others."""
    turns: asyncio.Semaphore = request.app.state.turns
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
    stop_when(gone.is_set)
    watching = asyncio.create_task(_watch(request, gone))
    try:
        yield
    finally:
        watching.cancel()
        turns.release()


async def _watch(request: Request, gone: Event) -> None:
    while not await request.is_disconnected():
        await asyncio.sleep(LOOK_EVERY)
    gone.set()


async def _heavy(request: Request) -> AsyncIterator[None]:
    async with _turn(request):
        yield


async def _heavy_where_large(request: Request) -> AsyncIterator[None]:
    announced = request.headers.get("content-length", "")
    if announced.isdecimal() and int(announced) <= LIGHT_BYTES:
        yield
    else:
        async with _turn(request):
            yield


HEAVY = [Depends(_heavy)]
"""Dependencies of an operation that computes for long."""
HEAVY_WHERE_LARGE = [Depends(_heavy_where_large)]
"""Dependencies of an operation that takes as long as what it reads is large."""

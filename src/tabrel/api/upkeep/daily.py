"""The copy of each day of use, made beside the server."""

from __future__ import annotations

import asyncio
import logging
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager, suppress

from tabrel.api.workers import Workers
from tabrel.core.errors import TabrelError
from tabrel.store.service import Service
from tabrel.store.upkeep.kept import keep_daily

FIRST_AFTER = 5.0
"""Once the first windows are open. [s]"""
LOOK_EVERY = 600.0
"""Whether a new day has begun on which something was written. [s]"""


@asynccontextmanager
async def copies_each_day(service: Service, workers: Workers) -> AsyncIterator[None]:
    """Keep a copy on each day on which the database is written, while the block runs."""
    keeping = asyncio.create_task(_keep(service, workers))
    try:
        yield
    finally:
        keeping.cancel()
        with suppress(asyncio.CancelledError):
            await keeping


async def _keep(service: Service, workers: Workers) -> None:
    await asyncio.sleep(FIRST_AFTER)
    while True:
        if service.opened.access == "write":
            try:
                await workers.run(keep_daily, service.database)
            except TabrelError as error:
                logging.getLogger("tabrel").warning("no copy of today was kept: %s", error)
                service.left_out = f"no copy of today was kept: {error}"
            else:
                service.left_out = ""
        await asyncio.sleep(LOOK_EVERY)

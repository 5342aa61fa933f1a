"""Every answer says of which database it is, so that a window sees when a copy was put in its place."""

from __future__ import annotations

from collections.abc import Callable

from starlette.datastructures import MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from tabrel.api.deps import DATABASE_HEADER
from tabrel.store.service import Service


class WhichDatabase:
    """Add the identity of the database to every answer of the API."""

    def __init__(self, app: ASGIApp, service_of: Callable[[], Service]) -> None:
        self.app = app
        self._service_of = service_of

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer one request."""
        if scope["type"] != "http" or not scope["path"].startswith("/api/"):
            await self.app(scope, receive, send)
            return
        identity = self._service_of().identity

        async def named(message: Message) -> None:
            if message["type"] == "http.response.start":
                MutableHeaders(scope=message).setdefault(DATABASE_HEADER, identity)
            await send(message)

        await self.app(scope, receive, named)

"""Refuse a body that is larger than what is asked for could be, while it is still coming in."""

from __future__ import annotations

import re

from starlette.datastructures import Headers
from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from tabrel.api.errors import problem_response
from tabrel.document.plain_json import MOST_BYTES

DUTY_CYCLE_BYTES = 20_000_000
"""Of a file with a duty cycle; as a member of a JSON document it grows by a byte a line."""
PACKAGE_BYTES = 32_000_000
"""Of a zip with a whole study."""
WORKBOOK_BYTES = 10_000_000
"""Of a workbook with readings."""
COUNT_TABLE_BYTES = 5_000_000
"""Of a table of particle counts."""
_LIMITS = (
    (re.compile("/api/studies"), MOST_BYTES),
    (re.compile("/api/packages"), PACKAGE_BYTES),
    (re.compile("/api/spreadsheet-text"), WORKBOOK_BYTES),
    (re.compile(r"/api/studies/\d+/duty-cycles"), round(1.2 * DUTY_CYCLE_BYTES)),
    (re.compile(r"/api/samples/\d+/counts(/preview)?"), round(1.2 * COUNT_TABLE_BYTES)),
)
USUAL_BYTES = 1_000_000


def body_limit(path: str) -> int:
    """Return how many bytes a request to an address may carry."""
    return next((limit for address, limit in _LIMITS if address.fullmatch(path)), USUAL_BYTES)


class BodyLimit:
    """Count what comes in, and stop at the limit; a length that is announced is believed where it is too large."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer one request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        limit, taken = body_limit(scope["path"]), 0
        text = f"the request is larger than {limit / 1e6:g} MB: send less"

        async def counted() -> Message:
            nonlocal taken
            message = await receive()
            taken += len(message.get("body", b""))
            if taken > limit:
                raise HTTPException(413, text)
            return message

        announced = Headers(scope=scope).get("content-length", "")
        if announced.isdecimal() and int(announced) > limit:
            await problem_response(413, text, headers={"Connection": "close"})(scope, receive, send)
        else:
            await self.app(scope, counted, send)

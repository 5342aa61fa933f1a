"""Only the application's own pages may read or change anything: other pages are refused, and told so to the browser."""

from __future__ import annotations

from collections.abc import Mapping

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from tabrel.api.errors import problem_response

LOCAL_HOSTS = ("127.0.0.1", "localhost")
"""Names this machine is called by; a page elsewhere that points its own name here is turned away."""

READING = ("GET", "HEAD", "OPTIONS")
"""Methods that change nothing."""

SENT_BY_PROGRAMS = (
    "application/json",
    "application/zip",
    "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
)
"""Content types of what changes something; a browser asks before it sends one of them for another page."""

SECURITY_HEADERS = {
    "Content-Security-Policy": "; ".join(
        (
            "default-src 'none'",
            "script-src 'self'",
            "style-src 'self' 'unsafe-inline'",  # the component kit adds its styles to the page as elements
            "img-src 'self' data: blob:",
            "font-src 'self'",
            "connect-src 'self'",
            "base-uri 'none'",
            "form-action 'none'",
            "frame-ancestors 'none'",
        )
    ),
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}
"""Headers of every answer."""


def refusal(method: str, path: str, headers: Mapping[str, str]) -> tuple[int, str] | None:
    """Return status and sentence for a request that is not answered, or None.

    A browser says where a request comes from in ``Sec-Fetch-Site`` and ``Origin``, and no page can forge either. A request
    with neither comes from a program; what a page could send unasked has none of the content types that a change must have.

    Parameters
    ----------
    method, path : str
        Of the request.
    headers : Mapping
        By name in lower case.

    Examples
    --------
    >>> refusal("POST", "/api/studies", {"host": "localhost:8710", "origin": "http://localhost:3000"})[0]
    403
    """
    host = headers.get("host", "")
    if host.rpartition(":")[0] not in LOCAL_HOSTS and host not in LOCAL_HOSTS:
        return 400, f"{host!r} is not the name of this machine: open Tabrel as 127.0.0.1 or localhost"
    if _is_foreign(method, path, headers, host):
        text = headers.get("origin") or "another site"
        return 403, f"this request comes from another page ({text}): only Tabrel's own pages read or change what is kept here"
    if method in READING:
        return None
    if headers.get("content-type", "").partition(";")[0].strip().lower() not in SENT_BY_PROGRAMS:
        return 415, "what changes something is sent as JSON: set the content type to application/json"
    if headers.get("content-length", "0") == "0" and "transfer-encoding" not in headers:
        return 422, "the request is empty: send the change as JSON, or {} where there is nothing to say"
    return None


def _is_foreign(method: str, path: str, headers: Mapping[str, str], host: str) -> bool:
    """Return whether a page of another origin sends this; a link that opens the application is none."""
    origin = headers.get("origin")
    if origin is not None and origin not in (f"http://{host}", f"https://{host}"):
        return True
    if headers.get("sec-fetch-site", "none") in ("none", "same-origin"):
        return False
    opens_page = headers.get("sec-fetch-mode") == "navigate" and headers.get("sec-fetch-dest") == "document"
    return method not in READING or not opens_page or path == "/api" or path.startswith("/api/")


class SameOrigin:
    """Refuse what other pages send, and add the headers that keep them out to every answer."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer one request."""
        if scope["type"] == "websocket":
            await send({"type": "websocket.close", "code": 1008, "reason": "there is nothing here"})
            return
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                MutableHeaders(scope=message).update(SECURITY_HEADERS)
            await send(message)

        refused = refusal(scope["method"], scope["path"], Headers(scope=scope))
        answering = problem_response(*refused) if refused else self.app
        await answering(scope, receive, with_headers)

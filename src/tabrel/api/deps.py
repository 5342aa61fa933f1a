"""Dependencies of endpoints."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from typing import Annotated, Any

from fastapi import Depends, Header, Path, Request

from tabrel.store.service import Service

Window = Annotated[
    str | None,
    Header(
        alias="Tabrel-Window",
        description="An id the window has made up, kept with what it changes: undo takes back only one's own.",
        max_length=64,
        pattern=r"^[\w-]+$",
        examples=["3f1c2a70"],
    ),
]


DATABASE_HEADER = "Tabrel-Database"
Seen = Annotated[
    str | None,
    Header(
        alias=DATABASE_HEADER,
        description="Which database the window has seen, from the header of the same name of an answer: once a copy was put "
        "back it is another one, and the request is refused with 412.",
        max_length=64,
        pattern=r"^\w+$",
        examples=["9f3c01d27a5be844"],
    ),
]


def service_of(request: Request) -> Service:
    """Return the database as it is served."""
    service: Service = request.app.state.service
    return service


def _connection(request: Request, window: Window = None, seen: Seen = None) -> Iterator[sqlite3.Connection]:
    with service_of(request).borrowed(window, seen) as conn:
        yield conn


async def _content(request: Request) -> bytes:
    return await request.body()


Content = Annotated[bytes, Depends(_content)]
"""What was sent, byte by byte: a file, which is not taken apart before its turn has come."""


def content_of(media_type: str, schema: dict[str, str]) -> dict[str, Any]:
    """Return how an operation describes that it takes a file."""
    return {"requestBody": {"content": {media_type: {"schema": schema}}, "required": True}}


def _id(of: str) -> Any:
    return Path(description=f"Which {of}, as the answers number them.", ge=0, lt=2**63, examples=[1])


StudyId = Annotated[int, _id("study")]
SampleId = Annotated[int, _id("sample")]
ReadingId = Annotated[int, _id("reading")]
ClaimId = Annotated[int, _id("claim")]
RuleId = Annotated[int, _id("rule")]
OfferId = Annotated[int, _id("offer")]
EngineId = Annotated[int, _id("engine of the library")]
ScenarioId = Annotated[int, _id("scenario")]
FactKey = Annotated[
    str, Path(description="Key of a detail, an observation or a quantity, as the catalogue has it.", examples=["sample.maker"])
]
UseId = Annotated[int, _id("use")]
ReportId = Annotated[int, _id("issued report")]
LineId = Annotated[int, _id("line of arithmetic")]
TemplateId = Annotated[int, _id("template")]
HoleGroupId = Annotated[int, _id("group of holes")]

Connection = Annotated[sqlite3.Connection, Depends(_connection)]
"""A connection for one request."""

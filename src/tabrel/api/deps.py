"""What endpoints depend on."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from typing import Annotated, Any

from fastapi import Depends, Header, Path, Request

from tabrel.store.connection import connect

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


def _connection(request: Request, window: Window = None) -> Iterator[sqlite3.Connection]:
    conn = connect(request.app.state.database, window=window, access=request.app.state.access)
    try:
        yield conn
    finally:
        conn.close()


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
TemplateId = Annotated[int, _id("template")]
HoleGroupId = Annotated[int, _id("group of holes")]

Connection = Annotated[sqlite3.Connection, Depends(_connection)]
"""A connection for one request."""

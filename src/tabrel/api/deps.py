"""What endpoints depend on."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from typing import Annotated, Any

from fastapi import Depends, Path, Request

from tabrel.store.connection import connect


def _connection(request: Request) -> Iterator[sqlite3.Connection]:
    conn = connect(request.app.state.database)
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
EngineId = Annotated[int, _id("engine of the library")]
ScenarioId = Annotated[int, _id("scenario")]
Position = Annotated[int, Path(description="Which group of holes of its place, counted from 0.", ge=0, lt=2**31, examples=[0])]

Connection = Annotated[sqlite3.Connection, Depends(_connection)]
"""A connection for one request."""

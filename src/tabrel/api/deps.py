"""What endpoints depend on."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from typing import Annotated

from fastapi import Depends, Request

from tabrel.store.connection import connect


def _connection(request: Request) -> Iterator[sqlite3.Connection]:
    conn = connect(request.app.state.database)
    try:
        yield conn
    finally:
        conn.close()


Connection = Annotated[sqlite3.Connection, Depends(_connection)]
"""A connection for one request."""

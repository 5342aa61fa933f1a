"""Which database it is: a copy that is put back becomes another one, so that no window writes into what it has not seen."""

from __future__ import annotations

import sqlite3

SELECT_IDENTITY = "SELECT name FROM identity WHERE id = 1"
RENEW_IDENTITY = "UPDATE identity SET name = lower(hex(randomblob(8))) WHERE id = 1"


def identity_of(conn: sqlite3.Connection) -> str:
    """Return the name a database has made up for itself."""
    return str(conn.execute(SELECT_IDENTITY).fetchone()["name"])


def renew_identity(conn: sqlite3.Connection) -> None:
    """Make it another database, though its rows are the same."""
    conn.execute(RENEW_IDENTITY)

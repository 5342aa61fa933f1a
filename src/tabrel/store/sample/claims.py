"""Rows of the claims of a sample."""

from __future__ import annotations

import sqlite3

from tabrel.core.study.model import Claim
from tabrel.store.connection import inserted_id
from tabrel.store.errors import NotStoredError
from tabrel.store.gather import Reader
from tabrel.store.rows import built

INSERT_CLAIM = """
INSERT INTO claim (sample_id, position, kind, source, relation, efficiency_percent, size_um, scale, standard, key, value,
                   wording, speaker, seen, stale, copied_from)
VALUES (:sample_id, (SELECT COALESCE(MAX(position) + 1, 0) FROM claim WHERE sample_id = :sample_id),
        :kind, :source, :relation, :efficiency_percent, :size_um, :scale, :standard, :key, :value,
        :wording, :speaker, :seen, :stale, :copied_from)
"""


def insert_claim(conn: sqlite3.Connection, sample_id: int, claim: Claim) -> int:
    """Store a claim behind the others and return its id."""
    return inserted_id(conn.execute(INSERT_CLAIM, {"sample_id": sample_id, **vars(claim)}))


SELECT_CLAIMS = "SELECT * FROM claim WHERE sample_id = :sample_id ORDER BY position, id"


def claims_of(conn: Reader, sample_id: int) -> list[tuple[int, Claim]]:
    """Return the claims made for a sample with their ids, in order."""
    return [(int(row["id"]), built(Claim, row)) for row in conn.execute(SELECT_CLAIMS, {"sample_id": sample_id})]


SELECT_CLAIM_OWNER = "SELECT sample_id FROM claim WHERE id = :id"
UPDATE_STALE = "UPDATE claim SET stale = :stale WHERE id = :id"
DELETE_CLAIM = "DELETE FROM claim WHERE id = :id"


def sample_of_claim(conn: sqlite3.Connection, claim_id: int) -> int:
    """Return the sample a claim was made for.

    Raises
    ------
    NotStoredError
        If there is no such claim.
    """
    row = conn.execute(SELECT_CLAIM_OWNER, {"id": claim_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no claim {claim_id}: load the sample again")
    return int(row["sample_id"])


def set_stale(conn: sqlite3.Connection, claim_id: int, reason: str | None) -> None:
    """Mark a claim stale with a reason, or take the mark away."""
    conn.execute(UPDATE_STALE, {"id": claim_id, "stale": reason})


def remove_claim(conn: sqlite3.Connection, claim_id: int) -> None:
    """Remove a claim that was typed wrongly; the journal keeps it."""
    conn.execute(DELETE_CLAIM, {"id": claim_id})

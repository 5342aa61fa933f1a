"""Offers of a part by shops."""

from __future__ import annotations

import sqlite3

from tabrel.core.study.model import Offer
from tabrel.store.connection import inserted_id
from tabrel.store.errors import NotStoredError
from tabrel.store.gather import Reader
from tabrel.store.rows import built

INSERT_OFFER = """
INSERT INTO offer (sample_id, position, shop, amount, currency, pack_of, delivery, seen)
VALUES (:sample_id, (SELECT COALESCE(MAX(position) + 1, 0) FROM offer WHERE sample_id = :sample_id),
        :shop, :amount, :currency, :pack_of, :delivery, :seen)
"""
SELECT_OFFERS = "SELECT * FROM offer WHERE sample_id = :sample_id ORDER BY position"
SELECT_OFFER_OWNER = "SELECT sample_id FROM offer WHERE id = :id"
DELETE_OFFER = "DELETE FROM offer WHERE id = :id"


def insert_offer(conn: sqlite3.Connection, sample_id: int, offer: Offer) -> int:
    """Store an offer behind the others and return its id."""
    return inserted_id(conn.execute(INSERT_OFFER, {"sample_id": sample_id, **vars(offer)}))


def offers_of(conn: Reader, sample_id: int) -> list[tuple[int, Offer]]:
    """Return the offers of a part with their ids, in order."""
    return [(int(row["id"]), built(Offer, row)) for row in conn.execute(SELECT_OFFERS, {"sample_id": sample_id})]


def sample_of_offer(conn: sqlite3.Connection, offer_id: int) -> int:
    """Return the sample an offer is of.

    Raises
    ------
    NotStoredError
        If there is no such offer.
    """
    row = conn.execute(SELECT_OFFER_OWNER, {"id": offer_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no offer {offer_id}: load the sample again")
    return int(row["sample_id"])


def remove_offer(conn: sqlite3.Connection, offer_id: int) -> None:
    """Remove an offer that was typed wrongly; the journal keeps it."""
    conn.execute(DELETE_OFFER, {"id": offer_id})

"""Preferences of the analyst among observations; they belong to no study."""

from __future__ import annotations

import json
import sqlite3

from pydantic import TypeAdapter

from tabrel.store.understood import understood

Order = tuple[tuple[str, ...], ...]
"""Choices of an observation, the best first, ties together."""

_ORDER: TypeAdapter[Order] = TypeAdapter(Order)

SELECT_PREFERENCES = "SELECT observation, preferred FROM preference ORDER BY observation"
SET_PREFERENCE = """
INSERT INTO preference (observation, preferred) VALUES (:observation, :preferred)
ON CONFLICT (observation) DO UPDATE SET preferred = excluded.preferred
"""
DELETE_PREFERENCE = "DELETE FROM preference WHERE observation = :observation"


def load_preferences(conn: sqlite3.Connection) -> dict[str, Order]:
    """Return the preferences by the key of their observation."""
    rows = conn.execute(SELECT_PREFERENCES)
    return {row["observation"]: understood(_ORDER, row["preferred"], "your preferences") for row in rows}


def set_preference(conn: sqlite3.Connection, observation: str, order: Order) -> None:
    """Store a preference in place of what it was; an empty one is none."""
    if order:
        conn.execute(SET_PREFERENCE, {"observation": observation, "preferred": json.dumps(order, ensure_ascii=False)})
    else:
        conn.execute(DELETE_PREFERENCE, {"observation": observation})

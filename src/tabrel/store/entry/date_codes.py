"""Rules by which date codes are read."""

from __future__ import annotations

import sqlite3

from tabrel.core.study.library import DateCodeRule
from tabrel.store.connection import inserted_id
from tabrel.store.errors import ConflictError, NotStoredError
from tabrel.store.rows import built

SELECT_RULES = "SELECT * FROM date_code_rule ORDER BY name COLLATE NOCASE, id"
SELECT_NAMED = "SELECT 1 FROM date_code_rule WHERE name = :name"
INSERT_RULE = "INSERT INTO date_code_rule (name, pattern, maker) VALUES (:name, :pattern, :maker)"
DELETE_RULE = "DELETE FROM date_code_rule WHERE id = :id"


def date_code_rules(conn: sqlite3.Connection) -> list[tuple[int, DateCodeRule]]:
    """Return the rules with their ids, by name."""
    return [(int(row["id"]), built(DateCodeRule, row)) for row in conn.execute(SELECT_RULES)]


def insert_rule(conn: sqlite3.Connection, rule: DateCodeRule) -> int:
    """Store a rule and return its id; the caller opens the transaction.

    Raises
    ------
    ConflictError
        If there is one of this name.
    """
    if conn.execute(SELECT_NAMED, {"name": rule.name}).fetchone():
        raise ConflictError(f"there is a rule {rule.name!r} already: choose another name, or remove that one first")
    return inserted_id(conn.execute(INSERT_RULE, vars(rule)))


def remove_rule(conn: sqlite3.Connection, rule_id: int) -> None:
    """Remove a rule; dates that were taken by it stay.

    Raises
    ------
    NotStoredError
        If there is none.
    """
    if not conn.execute(DELETE_RULE, {"id": rule_id}).rowcount:
        raise NotStoredError("there is no such rule, or no longer: look at the list again")

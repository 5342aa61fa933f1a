"""Databases as older versions left them."""

from __future__ import annotations

import json
import sqlite3
from pathlib import Path

from builders import everything
from tabrel.document.study_document import read_study
from tabrel.store.connection import connect, transaction
from tabrel.store.migrate import migrate, open_database, shipped_migrations
from tabrel.store.study.studies import insert_study


def old_database(path: Path, version: int) -> str:
    """Make a database as an older version left it, with a study of everything that version could hold; return its name."""
    conn = connect(path, access="create")
    migrate(conn, {number: script for number, script in shipped_migrations().items() if number <= version})
    name = f"as of version {version}"
    if version >= 12:
        fill_as_of_now(conn, path.with_name("now.db"), name)
    else:
        conn.execute("INSERT INTO study (name) VALUES (:name)", {"name": name})
        conn.execute("INSERT INTO sample (study_id, position, label) VALUES (1, 0, 'A')")
        rows = [(i, f"{90 + i / 100:.2f} mm") for i in range(400)]
        conn.executemany("INSERT INTO reading (sample_id, quantity_key, position, text) VALUES (1, 'can.height', ?, ?)", rows)
    conn.close()
    return name


RENAMED = {"struck_out_at": "set_aside_at", "struck_out_reason": "set_aside_reason", "insisted": "confirmed"}
"""Columns by the name they had."""


def copy_rows(conn: sqlite3.Connection, table: str, newest: str) -> None:
    """Fill a table of an old database with the rows of an attached new one, as far as it has the columns for them."""
    old, new = (
        {row["name"] for row in conn.execute(f"SELECT name FROM pragma_table_info(:table, '{schema}')", {"table": table})}
        for schema in ("main", newest)
    )
    shared = {column: RENAMED.get(column, column) for column in sorted(old) if RENAMED.get(column, column) in new}
    columns = f"({', '.join(shared)}) SELECT {', '.join(shared.values())}"
    kinds = " WHERE kind IN ('counts', 'flow_bench', 'bypass_bench', 'photographs')" if table == "evidence" else ""
    conn.execute(f"INSERT OR REPLACE INTO main.{table} {columns} FROM {newest}.{table}{kinds}")


def forget_own_instruments(conn: sqlite3.Connection) -> None:
    """Take from the readings the instruments that a version without own ones could not describe."""
    conn.execute("UPDATE reading SET instrument = NULL WHERE instrument = 'fine balance'")


def fill_as_of_now(conn: sqlite3.Connection, newest: Path, name: str) -> None:
    """Fill an old database with what a new one holds of a study, as far as it has the tables and columns for it."""
    open_database(newest)
    now = connect(newest)
    with transaction(now):
        insert_study(now, read_study(json.dumps(everything() | {"name": name})))
    now.close()
    conn.execute("PRAGMA foreign_keys = OFF")
    conn.execute("ATTACH DATABASE :newest AS newest", {"newest": str(newest)})
    tables = "SELECT name FROM {schema}.sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite!_%' ESCAPE '!'"
    old, new = ({row["name"] for row in conn.execute(tables.format(schema=schema))} for schema in ("main", "newest"))
    with transaction(conn):
        for table in sorted(old & new):
            copy_rows(conn, table, "newest")
        if "study_part" not in old:
            forget_own_instruments(conn)
    conn.execute("DETACH DATABASE newest")
    conn.execute("PRAGMA foreign_keys = ON")

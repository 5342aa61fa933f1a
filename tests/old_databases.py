"""A database as version 22 left it: the demo and a study of everything, worked on, with changes undone and left behind.

`data/version_22.json.xz` holds its statements, the documents of its studies, and what version 22 itself made of them when every
change was undone, one after the other, and redone.
"""

from __future__ import annotations

import json
import lzma
from functools import cache
from pathlib import Path
from typing import Any

from tabrel.store.connection import connect

VERSION = 22


@cache
def as_version_22_left_it() -> dict[str, Any]:
    """Return the statements (`sql`), the `documents` and the `steps` back and forth."""
    held: dict[str, Any] = json.loads(
        lzma.decompress(Path(__file__).with_name("data").joinpath("version_22.json.xz").read_bytes())
    )
    return held


def old_database(path: Path) -> list[str]:
    """Make a database as version 22 left it; return the names of its studies."""
    conn = connect(path, access="create")
    conn.execute("PRAGMA foreign_keys = OFF")  # tables are filled in the order of their names
    conn.executescript(as_version_22_left_it()["sql"])
    conn.close()
    return [document["name"] for document in as_version_22_left_it()["documents"]]

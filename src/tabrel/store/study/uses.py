"""What the filters of a study are to be good for, each use a part of the study document."""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence

from pydantic import TypeAdapter

from tabrel.core.study.uses import Use
from tabrel.store.gather import Reader

_ADAPTER: TypeAdapter[Use] = TypeAdapter(Use)

INSERT_USE = "INSERT INTO intended_use (study_id, position, document) VALUES (:study_id, :position, :document)"
SELECT_USES = "SELECT document FROM intended_use WHERE study_id = :study_id ORDER BY position"


def insert_uses(conn: sqlite3.Connection, study_id: int, uses: Sequence[Use]) -> None:
    """Store the uses of a study."""
    for position, use in enumerate(uses):
        document = _ADAPTER.dump_json(use, exclude_none=True).decode()
        conn.execute(INSERT_USE, {"study_id": study_id, "position": position, "document": document})


def load_uses(conn: Reader, study_id: int) -> tuple[Use, ...]:
    """Return the uses of a study in their order."""
    rows = conn.execute(SELECT_USES, {"study_id": study_id})
    return tuple(_ADAPTER.validate_json(row["document"], strict=True) for row in rows)

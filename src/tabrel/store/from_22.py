"""A database of version 22 made one of 23, the first that has its tables from one script.

Oil, circuit and the plans of a start and of the report, which had twelve tables, become one document each; so does a scenario,
which had a column for everything. The journal follows: where a change had rows of those tables, it has the document before and
after, so that it can be undone and redone as before.
"""

from __future__ import annotations

import json
import sqlite3
from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from importlib.resources import files
from typing import Any

from pydantic import TypeAdapter

from tabrel.core.study import model
from tabrel.core.study.plans import RoundHoles, Scenario, WarmUpPlan
from tabrel.store.errors import MisfitError
from tabrel.store.misfit import statements_of
from tabrel.store.parts import OF_STUDY
from tabrel.store.rows import built
from tabrel.store.understood import written

VERSION = 22

Image = Mapping[str, Any]
"""A row, by column."""
Rows = dict[tuple[str, int], Image]
"""Rows by table and id."""

PART_OF = {
    "oil": "oil",
    "viscosity_point": "oil",
    "warm_up_plan": "warm_up",
    "report_plan": "report",
    **dict.fromkeys(
        ("stated_loss", "pump_efficiency", "regulator", "engine_hot_point", "stud", "mount", "adapter", "circuit"), "circuit"
    ),
}
"""The part of a study that the rows of a table become."""
_BLOCKS = {
    "pump_efficiency": ("pump_efficiency", model.PumpEfficiency),
    "regulator": ("regulator", model.Regulator),
    "engine_hot_point": ("engine", model.EngineHotPoint),
    "stud": ("stud", model.Stud),
    "mount": ("mount", model.Mount),
    "adapter": ("adapter", model.Adapter),
}
"""Tables with one row of a circuit: its field, and the class of the core."""

_FIRST = files("tabrel.store").joinpath("migrations/0023_initial.sql").read_text("utf-8")
_HOLES, _SCENARIOS = (
    next(statement for statement in statements_of(_FIRST) if f"CREATE TABLE {table} (" in statement)
    for table in ("hole_group", "scenario")
)
SCRIPT = f"""
CREATE TABLE kept AS SELECT * FROM hole_group;
DROP TABLE hole_group;
{_HOLES.strip()}
INSERT INTO hole_group SELECT id, sample_id, adapter_id, placement, position, shape, count, open_fraction, copied_from FROM kept;
DROP TABLE kept;
DROP TABLE scenario;
{_SCENARIOS.strip()}
UPDATE change_row SET before = json_remove(json_set(before, '$.study_id', json_extract(before, '$.adapter_id')), '$.adapter_id')
WHERE table_name = 'hole_group' AND before IS NOT NULL;
UPDATE change_row SET after = json_remove(json_set(after, '$.study_id', json_extract(after, '$.adapter_id')), '$.adapter_id')
WHERE table_name = 'hole_group' AND after IS NOT NULL;
"""


@dataclass
class _Change:
    """A change with the rows of the old tables that it made, in their order, and the rows as it left them."""

    undone_at: str | None
    made: list[tuple[int, tuple[str, int], Image | None, Image | None]] = field(default_factory=list)
    left: Rows = field(default_factory=dict)


def carry_over(conn: sqlite3.Connection) -> None:
    """Make a database of version 22 one of 23; the caller opens the transaction, with foreign keys off.

    Parameters
    ----------
    conn : sqlite3.Connection
        Its triggers of the journal are put back when it is opened.
    """
    given = {row["name"]: row["seq"] for row in conn.execute("SELECT name, seq FROM sqlite_sequence")}
    scenarios = conn.execute("SELECT * FROM scenario ORDER BY id").fetchall()
    for row in conn.execute(
        "SELECT name FROM sqlite_master WHERE type = 'trigger' AND name LIKE 'journal!_%' ESCAPE '!'"
    ).fetchall():
        conn.execute(f"DROP TRIGGER {row['name']}")
    next_id = given.get("study_part", 0) + 1
    for row in conn.execute("SELECT id FROM study ORDER BY id").fetchall():
        next_id = _carry_study(conn, row["id"], next_id)
    for statement in statements_of(SCRIPT):
        conn.execute(statement)
    for scenario in scenarios:
        conn.execute("INSERT INTO scenario VALUES (:id, :study_id, :name, :document)", _scenario_row(dict(scenario)))
    for row in conn.execute("SELECT id, before, after FROM change_row WHERE table_name = 'scenario'").fetchall():
        images = {name: _scenario_image(row[name]) for name in ("before", "after")}
        conn.execute("UPDATE change_row SET before = :before, after = :after WHERE id = :id", {"id": row["id"], **images})
    for table in PART_OF:
        conn.execute(f"DROP TABLE {table}")
    conn.execute("DELETE FROM sqlite_sequence WHERE name IN ('hole_group', 'scenario', 'study_part')")
    given["study_part"] = next_id - 1
    kept = [(name, given.get(name, 0)) for name in ("hole_group", "scenario", "study_part")]
    conn.executemany("INSERT INTO sqlite_sequence (name, seq) VALUES (?, ?)", kept)


REPLACE_IMAGES = """
UPDATE change_row SET table_name = 'study_part', row_id = :row_id, before = :before, after = :after WHERE id = :id
"""


def _carry_study(conn: sqlite3.Connection, study_id: int, next_id: int) -> int:
    """Store the parts of a study and what its changes made of them; return the next free id of a part."""
    now = _rows_now(conn, study_id)
    changes = _changes(conn, study_id)
    start = dict(now)
    for change in reversed([change for change in changes if change.undone_at is None]):
        start = _with(start, ((place, before) for _, place, before, _ in reversed(change.made)))
    ids: dict[str, int] = {}

    def id_of(kind: str) -> int:
        return ids.setdefault(kind, next_id + len(ids))

    for i, change in enumerate(changes):
        in_force = [earlier.left for earlier in changes[:i] if _was_in_force(earlier, change)]
        before = _with(in_force[-1] if in_force else start, ((place, image) for _, place, image, _ in reversed(change.made)))
        change.left = _with(before, ((place, image) for _, place, _, image in change.made))
        was, became = _documents(before), _documents(change.left)
        for kind in dict.fromkeys(PART_OF[place[0]] for _, place, _, _ in change.made):
            row_ids = [row_id for row_id, place, _, _ in change.made if PART_OF[place[0]] == kind]
            if was.get(kind) != became.get(kind):
                images = {
                    name: None
                    if kind not in held
                    else json.dumps(_part_row(id_of(kind), study_id, kind, held[kind]), ensure_ascii=False)
                    for name, held in (("before", was), ("after", became))
                }
                conn.execute(REPLACE_IMAGES, {"id": row_ids.pop(0), "row_id": id_of(kind), **images})
            conn.executemany("DELETE FROM change_row WHERE id = ?", ((row_id,) for row_id in row_ids))
    for kind, document in _documents(now).items():
        row = _part_row(id_of(kind), study_id, kind, document)
        conn.execute("INSERT INTO study_part (id, study_id, kind, document) VALUES (:id, :study_id, :kind, :document)", row)
    return next_id + len(ids)


def _was_in_force(earlier: _Change, change: _Change) -> bool:
    """Return whether an earlier change was not undone when another was made: what is undone later is undone before it."""
    return earlier.undone_at is None or (change.undone_at is not None and earlier.undone_at >= change.undone_at)


def _rows_now(conn: sqlite3.Connection, study_id: int) -> Rows:
    rows: Rows = {}
    for table in PART_OF:
        for row in conn.execute(f"SELECT rowid AS row_id, * FROM {table} WHERE study_id = :study_id", {"study_id": study_id}):
            rows[table, row["row_id"]] = dict(row)
    return rows


def _changes(conn: sqlite3.Connection, study_id: int) -> list[_Change]:
    """Return the changes of a study that have rows of the old tables, in their order."""
    changes: dict[int, _Change] = {}
    selected = conn.execute(
        "SELECT change_row.*, undone_at FROM change_row JOIN change ON change.id = change_id "
        "WHERE study_id = :study_id AND table_name IN (SELECT value FROM json_each(:tables)) ORDER BY change_row.id",
        {"study_id": study_id, "tables": json.dumps(list(PART_OF))},
    )
    for row in selected:
        before, after = (_image(row, name) for name in ("before", "after"))
        change = changes.setdefault(row["change_id"], _Change(row["undone_at"]))
        change.made.append((row["id"], (row["table_name"], row["row_id"]), before, after))
    return [changes[number] for number in sorted(changes)]


def _image(row: sqlite3.Row, name: str) -> Image | None:
    try:
        image: Image | None = None if row[name] is None else json.loads(row[name])
    except ValueError as error:
        raise MisfitError(f"row {row['id']} of change_row is not readable") from error
    return image


def _with(rows: Rows, images: Iterable[tuple[tuple[str, int], Image | None]]) -> Rows:
    """Return rows of which some are another image, or none any more."""
    changed: dict[tuple[str, int], Image | None] = dict(rows)
    changed.update(images)
    return {place: image for place, image in changed.items() if image is not None}


def _documents(rows: Rows) -> dict[str, str]:
    """Return what rows of the old tables are as parts of a study, by kind."""
    by_table: dict[str, list[Any]] = defaultdict(list)
    for (table, _), row in sorted(rows.items(), key=lambda item: (item[0][0], item[1].get("position", 0))):
        by_table[table].append(row)
    documents: dict[str, str | None] = {}
    for oil in by_table["oil"]:
        points = tuple(_built(model.ViscosityPoint, row, "high_shear") for row in by_table["viscosity_point"])
        documents["oil"] = OF_STUDY.document("oil", built(model.Oil, oil, viscosity=points))
    for circuit in by_table["circuit"]:
        by_table["adapter"] = [{**row, "holes": ()} for row in by_table["adapter"]]
        blocks: dict[str, Any] = {name: built(block, row) for table, (name, block) in _BLOCKS.items() for row in by_table[table]}
        losses = {row["part"]: built(model.StatedLoss, row) for row in by_table["stated_loss"]}
        documents["circuit"] = OF_STUDY.document("circuit", built(model.Circuit, circuit, **blocks, **losses))
    for plan in by_table["warm_up_plan"]:
        documents["warm_up"] = OF_STUDY.document("warm_up", built(WarmUpPlan, plan))
    for plan in by_table["report_plan"]:
        documents["report"] = plan["document"]
    return {kind: document for kind, document in documents.items() if document is not None}


def _built(block: type[Any], row: Image, flag: str, **given: Any) -> Any:
    """Return a core object of which one field is a truth value, or not said."""
    return built(block, row, **{flag: None if row.get(flag) is None else bool(row[flag])}, **given)


def _part_row(row_id: int, study_id: int, kind: str, document: str) -> dict[str, Any]:
    return {"id": row_id, "study_id": study_id, "kind": kind, "document": document}


def _scenario_row(row: Image) -> dict[str, Any]:
    holes = {
        name: RoundHoles(row[f"{name}_count"], row[f"{name}_diameter_mm"]) if row.get(f"{name}_count") else None
        for name in ("adapter_holes", "leak")
    }
    document = written(TypeAdapter(Scenario), _built(Scenario, row, "without_adapter", **holes))
    return {"id": row["id"], "study_id": row["study_id"], "name": row["name"], "document": document}


def _scenario_image(image: str | None) -> str | None:
    return None if image is None else json.dumps(_scenario_row(json.loads(image)), ensure_ascii=False)

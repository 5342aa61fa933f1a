"""The oil circuit of a study: a part of it, with the holes of the adapter in rows of their own."""

from __future__ import annotations

import sqlite3
from dataclasses import replace

from tabrel.core.study.model import Circuit, HoleGroup
from tabrel.store.entry.holes import hole_statements, insert_hole_groups, load_hole_groups
from tabrel.store.entry.readings import SELECT_READINGS_OF_ADAPTER
from tabrel.store.gather import Asked, Reader
from tabrel.store.parts import OF_STUDY

DELETE_HOLES = "DELETE FROM hole_group WHERE study_id = :study_id"


def set_circuit(conn: sqlite3.Connection, study_id: int, circuit: Circuit | None) -> None:
    """Make a study's circuit what it is to be; holes of its adapter that do not change keep their rows."""
    if circuit is None:
        return
    holes, stored = _holes(circuit), _holes(load_circuit(conn, study_id))
    OF_STUDY.set(conn, study_id, "circuit", _with_holes(circuit, ()))
    if holes != stored:
        conn.execute(DELETE_HOLES, {"study_id": study_id})
        insert_hole_groups(conn, "adapter", holes, study_id=study_id)


def circuit_statements(study_id: int) -> list[Asked]:
    """Return what loading the parts of a study, its circuit among them, asks."""
    named = {"study_id": study_id}
    return [(OF_STUDY.select, named), *hole_statements("adapter", study_id), (SELECT_READINGS_OF_ADAPTER, named)]


def load_circuit(conn: Reader, study_id: int) -> Circuit | None:
    """Return the circuit of a study, or None."""
    circuit: Circuit | None = OF_STUDY.one(conn, study_id, "circuit")
    if circuit is None or circuit.adapter is None:
        return circuit
    return _with_holes(circuit, load_hole_groups(conn, "adapter", study_id))


def _holes(circuit: Circuit | None) -> tuple[HoleGroup, ...]:
    return circuit.adapter.holes if circuit and circuit.adapter else ()


def _with_holes(circuit: Circuit, holes: tuple[HoleGroup, ...]) -> Circuit:
    return replace(circuit, adapter=replace(circuit.adapter, holes=holes)) if circuit.adapter else circuit

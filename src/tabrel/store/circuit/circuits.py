"""Oil and circuit of a study."""

from __future__ import annotations

import sqlite3
from typing import Any

from tabrel.core.study.model import (
    Adapter,
    Circuit,
    EngineHotPoint,
    Mount,
    Oil,
    PumpEfficiency,
    Regulator,
    StatedLoss,
    Stud,
    ViscosityPoint,
)
from tabrel.store.entry.holes import hole_statements, insert_hole_groups, load_hole_groups
from tabrel.store.entry.readings import SELECT_READINGS_OF_ADAPTER
from tabrel.store.gather import Asked, Reader
from tabrel.store.rows import built

INSERT_OIL = """
INSERT INTO oil (study_id, name, density_15c_kg_m3, pumping_limit_c, provenance)
VALUES (:study_id, :name, :density_15c_kg_m3, :pumping_limit_c, :provenance)
"""
INSERT_VISCOSITY_POINT = """
INSERT INTO viscosity_point (study_id, position, temperature_c, kinematic_mm2_s, dynamic_mpa_s, high_shear)
VALUES (:study_id, :position, :temperature_c, :kinematic_mm2_s, :dynamic_mpa_s, :high_shear)
"""


def insert_oil(conn: sqlite3.Connection, study_id: int, oil: Oil) -> None:
    """Store the oil of a study."""
    conn.execute(INSERT_OIL, {"study_id": study_id, **_plain(oil)})
    for position, point in enumerate(oil.viscosity):
        conn.execute(INSERT_VISCOSITY_POINT, {"study_id": study_id, "position": position, **vars(point)})


DELETE_OIL = "DELETE FROM oil WHERE study_id = :study_id"


def set_oil(conn: sqlite3.Connection, study_id: int, oil: Oil | None) -> None:
    """Set the oil of a study; None removes it."""
    if oil == load_oil(conn, study_id):
        return
    conn.execute(DELETE_OIL, {"study_id": study_id})
    if oil is not None:
        insert_oil(conn, study_id, oil)


SELECT_OIL = "SELECT * FROM oil WHERE study_id = :study_id"
SELECT_VISCOSITY_POINTS = "SELECT * FROM viscosity_point WHERE study_id = :study_id ORDER BY position"


def load_oil(conn: Reader, study_id: int) -> Oil | None:
    """Return the oil of a study, or None."""
    row = conn.execute(SELECT_OIL, {"study_id": study_id}).fetchone()
    if row is None:
        return None
    points = conn.execute(SELECT_VISCOSITY_POINTS, {"study_id": study_id}).fetchall()
    return built(Oil, row, viscosity=tuple(_point(point) for point in points))


def _point(row: sqlite3.Row) -> ViscosityPoint:
    return built(ViscosityPoint, row, high_shear=None if row["high_shear"] is None else bool(row["high_shear"]))


INSERT_CIRCUIT = """
INSERT INTO circuit (study_id, name, pump_displacement_cm3_rev, gauge, provenance)
VALUES (:study_id, :name, :pump_displacement_cm3_rev, :gauge, :provenance)
"""
INSERT_PUMP_EFFICIENCY = """
INSERT INTO pump_efficiency (study_id, fraction, speed_rpm, pressure_kpa, temperature_c)
VALUES (:study_id, :fraction, :speed_rpm, :pressure_kpa, :temperature_c)
"""
INSERT_REGULATOR = """
INSERT INTO regulator (study_id, opening_kpa, full_flow_rise_kpa, full_flow_speed_rpm, sense, safety_kpa)
VALUES (:study_id, :opening_kpa, :full_flow_rise_kpa, :full_flow_speed_rpm, :sense, :safety_kpa)
"""
INSERT_STATED_LOSS = """
INSERT INTO stated_loss (study_id, part, loss_kpa, flow_l_min, temperature_c, viscous_share, bypass_kpa)
VALUES (:study_id, :part, :loss_kpa, :flow_l_min, :temperature_c, :viscous_share, :bypass_kpa)
"""
INSERT_ENGINE_HOT_POINT = """
INSERT INTO engine_hot_point (study_id, gallery_kpa, speed_rpm, temperature_c, jet_share, jet_opening_kpa,
                              jet_count, jet_length_ratio, bearing_rise_k, bearing_heating)
VALUES (:study_id, :gallery_kpa, :speed_rpm, :temperature_c, :jet_share, :jet_opening_kpa,
        :jet_count, :jet_length_ratio, :bearing_rise_k, :bearing_heating)
"""
INSERT_STUD = """
INSERT INTO stud (study_id, bore_mm, length_mm, least_bore_mm, greatest_bore_mm)
VALUES (:study_id, :bore_mm, :length_mm, :least_bore_mm, :greatest_bore_mm)
"""
INSERT_MOUNT = """
INSERT INTO mount (study_id, thread_diameter_mm, thread_pitch_mm, seat_diameter_mm)
VALUES (:study_id, :thread_diameter_mm, :thread_pitch_mm, :seat_diameter_mm)
"""
INSERT_ADAPTER = """
INSERT INTO adapter (study_id, wall_mm, turn_deg, reference_bore_mm)
VALUES (:study_id, :wall_mm, :turn_deg, :reference_bore_mm)
"""


def insert_circuit(conn: sqlite3.Connection, study_id: int, circuit: Circuit) -> None:
    """Store the circuit of a study."""
    conn.execute(INSERT_CIRCUIT, {"study_id": study_id, **_plain(circuit)})
    for name, _, insert, extra in _BLOCKS:
        block = getattr(circuit, name)
        if block is not None:
            conn.execute(insert, {"study_id": study_id, **extra, **_plain(block)})
    if circuit.adapter:
        insert_hole_groups(conn, "adapter", circuit.adapter.holes, adapter_id=study_id)


_BLOCKS: tuple[tuple[str, str, str, dict[str, str]], ...] = (
    ("pump_efficiency", "DELETE FROM pump_efficiency WHERE study_id = :study_id", INSERT_PUMP_EFFICIENCY, {}),
    ("regulator", "DELETE FROM regulator WHERE study_id = :study_id", INSERT_REGULATOR, {}),
    ("cooler", "DELETE FROM stated_loss WHERE study_id = :study_id AND part = :part", INSERT_STATED_LOSS, {"part": "cooler"}),
    ("head", "DELETE FROM stated_loss WHERE study_id = :study_id AND part = :part", INSERT_STATED_LOSS, {"part": "head"}),
    ("engine", "DELETE FROM engine_hot_point WHERE study_id = :study_id", INSERT_ENGINE_HOT_POINT, {}),
    ("stud", "DELETE FROM stud WHERE study_id = :study_id", INSERT_STUD, {}),
    ("mount", "DELETE FROM mount WHERE study_id = :study_id", INSERT_MOUNT, {}),
    ("adapter", "DELETE FROM adapter WHERE study_id = :study_id", INSERT_ADAPTER, {}),
)
"""Parts of a circuit that have a table of their own: name, how a row goes and comes, what else names it."""

UPDATE_CIRCUIT = """
UPDATE circuit SET name = :name, pump_displacement_cm3_rev = :pump_displacement_cm3_rev, gauge = :gauge,
                   provenance = :provenance
WHERE study_id = :study_id
"""


def set_circuit(conn: sqlite3.Connection, study_id: int, circuit: Circuit | None) -> None:
    """Make a study's circuit what it is to be; parts that do not change are not touched."""
    stored = load_circuit(conn, study_id)
    if circuit is None or circuit == stored:
        return
    if stored is None:
        insert_circuit(conn, study_id, circuit)
        return
    conn.execute(UPDATE_CIRCUIT, {"study_id": study_id, **_plain(circuit)})
    for name, delete, insert, extra in _BLOCKS:
        block = getattr(circuit, name)
        if block == getattr(stored, name):
            continue
        conn.execute(delete, {"study_id": study_id, **extra})
        if block is not None:
            conn.execute(insert, {"study_id": study_id, **extra, **_plain(block)})
    if circuit.adapter and circuit.adapter != stored.adapter:
        insert_hole_groups(conn, "adapter", circuit.adapter.holes, adapter_id=study_id)


SELECT_CIRCUIT = "SELECT * FROM circuit WHERE study_id = :study_id"
SELECT_PUMP_EFFICIENCY = "SELECT * FROM pump_efficiency WHERE study_id = :study_id"
SELECT_REGULATOR = "SELECT * FROM regulator WHERE study_id = :study_id"
SELECT_STATED_LOSSES = "SELECT * FROM stated_loss WHERE study_id = :study_id"
SELECT_ENGINE_HOT_POINT = "SELECT * FROM engine_hot_point WHERE study_id = :study_id"
SELECT_STUD = "SELECT * FROM stud WHERE study_id = :study_id"
SELECT_MOUNT = "SELECT * FROM mount WHERE study_id = :study_id"
SELECT_ADAPTER = "SELECT * FROM adapter WHERE study_id = :study_id"


def circuit_statements(study_id: int) -> list[Asked]:
    """Return what loading oil and circuit of a study asks."""
    asked = (
        SELECT_OIL,
        SELECT_VISCOSITY_POINTS,
        SELECT_CIRCUIT,
        SELECT_PUMP_EFFICIENCY,
        SELECT_REGULATOR,
        SELECT_ENGINE_HOT_POINT,
        SELECT_STATED_LOSSES,
        SELECT_STUD,
        SELECT_MOUNT,
        SELECT_ADAPTER,
    )
    return [
        *((sql, {"study_id": study_id}) for sql in asked),
        *hole_statements("adapter", study_id),
        (SELECT_READINGS_OF_ADAPTER, {"study_id": study_id}),
    ]


def load_circuit(conn: Reader, study_id: int) -> Circuit | None:
    """Return the circuit of a study, or None."""
    row = conn.execute(SELECT_CIRCUIT, {"study_id": study_id}).fetchone()
    if row is None:
        return None

    def block(statement: str) -> sqlite3.Row | None:
        result: sqlite3.Row | None = conn.execute(statement, {"study_id": study_id}).fetchone()
        return result

    pump, regulator, engine = block(SELECT_PUMP_EFFICIENCY), block(SELECT_REGULATOR), block(SELECT_ENGINE_HOT_POINT)
    losses = {row["part"]: row for row in conn.execute(SELECT_STATED_LOSSES, {"study_id": study_id})}
    cooler, head = losses.get("cooler"), losses.get("head")
    stud, mount, adapter = block(SELECT_STUD), block(SELECT_MOUNT), block(SELECT_ADAPTER)
    return built(
        Circuit,
        row,
        pump_efficiency=built(PumpEfficiency, pump) if pump else None,
        regulator=built(Regulator, regulator) if regulator else None,
        cooler=built(StatedLoss, cooler) if cooler else None,
        head=built(StatedLoss, head) if head else None,
        engine=built(EngineHotPoint, engine) if engine else None,
        stud=built(Stud, stud) if stud else None,
        mount=built(Mount, mount) if mount else None,
        adapter=built(Adapter, adapter, holes=load_hole_groups(conn, "adapter", study_id)) if adapter else None,
    )


def _plain(block: Any) -> dict[str, Any]:
    """Return the fields of a dataclass that are single values."""
    return {name: value for name, value in vars(block).items() if value is None or isinstance(value, str | int | float)}

"""Oil and circuit of a study."""

from __future__ import annotations

import sqlite3
from typing import Any

from tabrel.core.study import (
    Adapter,
    Circuit,
    EngineHotPoint,
    Oil,
    PumpEfficiency,
    Regulator,
    StatedLoss,
    Stud,
    ViscosityPoint,
)
from tabrel.store.holes import insert_hole_groups, load_hole_groups
from tabrel.store.rows import built

INSERT_OIL = """
INSERT INTO oil (study_id, name, density_15c_kg_m3, pumping_limit_c)
VALUES (:study_id, :name, :density_15c_kg_m3, :pumping_limit_c)
"""
INSERT_VISCOSITY_POINT = """
INSERT INTO viscosity_point (study_id, position, temperature_c, kinematic_mm2_s, dynamic_mpa_s)
VALUES (:study_id, :position, :temperature_c, :kinematic_mm2_s, :dynamic_mpa_s)
"""


def insert_oil(conn: sqlite3.Connection, study_id: int, oil: Oil) -> None:
    """Store the oil of a study."""
    conn.execute(INSERT_OIL, {"study_id": study_id, **_plain(oil)})
    for position, point in enumerate(oil.viscosity):
        conn.execute(INSERT_VISCOSITY_POINT, {"study_id": study_id, "position": position, **vars(point)})


SELECT_OIL = "SELECT * FROM oil WHERE study_id = :study_id"
SELECT_VISCOSITY_POINTS = "SELECT * FROM viscosity_point WHERE study_id = :study_id ORDER BY position"


def load_oil(conn: sqlite3.Connection, study_id: int) -> Oil | None:
    """Return the oil of a study, or None."""
    row = conn.execute(SELECT_OIL, {"study_id": study_id}).fetchone()
    if row is None:
        return None
    points = conn.execute(SELECT_VISCOSITY_POINTS, {"study_id": study_id}).fetchall()
    return built(Oil, row, viscosity=tuple(built(ViscosityPoint, point) for point in points))


INSERT_CIRCUIT = """
INSERT INTO circuit (study_id, name, pump_displacement_cm3_rev, gauge)
VALUES (:study_id, :name, :pump_displacement_cm3_rev, :gauge)
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
INSERT_ADAPTER = """
INSERT INTO adapter (study_id, wall_mm, turn_deg, reference_bore_mm)
VALUES (:study_id, :wall_mm, :turn_deg, :reference_bore_mm)
"""


def insert_circuit(conn: sqlite3.Connection, study_id: int, circuit: Circuit) -> None:
    """Store the circuit of a study."""
    conn.execute(INSERT_CIRCUIT, {"study_id": study_id, **_plain(circuit)})
    blocks: tuple[tuple[str, Any, dict[str, str]], ...] = (
        (INSERT_PUMP_EFFICIENCY, circuit.pump_efficiency, {}),
        (INSERT_REGULATOR, circuit.regulator, {}),
        (INSERT_STATED_LOSS, circuit.cooler, {"part": "cooler"}),
        (INSERT_STATED_LOSS, circuit.head, {"part": "head"}),
        (INSERT_ENGINE_HOT_POINT, circuit.engine, {}),
        (INSERT_STUD, circuit.stud, {}),
        (INSERT_ADAPTER, circuit.adapter, {}),
    )
    for statement, block, extra in blocks:
        if block is not None:
            conn.execute(statement, {"study_id": study_id, **extra, **_plain(block)})
    if circuit.adapter:
        insert_hole_groups(conn, "adapter", circuit.adapter.holes, adapter_id=study_id)


DELETE_STUD = "DELETE FROM stud WHERE study_id = :study_id"
DELETE_ADAPTER = "DELETE FROM adapter WHERE study_id = :study_id"
UPDATE_CIRCUIT_NAME = "UPDATE circuit SET name = :name WHERE study_id = :study_id"


def update_engine_side(conn: sqlite3.Connection, study_id: int, circuit: Circuit | None) -> None:
    """Change the engine's name, stud and adapter; the rest of its circuit stays as it is."""
    stored = load_circuit(conn, study_id)
    if circuit is None or circuit == stored:
        return
    if stored is None:
        insert_circuit(conn, study_id, circuit)
        return
    conn.execute(UPDATE_CIRCUIT_NAME, {"study_id": study_id, "name": circuit.name})
    if circuit.stud != stored.stud:
        conn.execute(DELETE_STUD, {"study_id": study_id})
        if circuit.stud:
            conn.execute(INSERT_STUD, {"study_id": study_id, **_plain(circuit.stud)})
    if circuit.adapter != stored.adapter:
        conn.execute(DELETE_ADAPTER, {"study_id": study_id})
        if circuit.adapter:
            conn.execute(INSERT_ADAPTER, {"study_id": study_id, **_plain(circuit.adapter)})
            insert_hole_groups(conn, "adapter", circuit.adapter.holes, adapter_id=study_id)


SELECT_CIRCUIT = "SELECT * FROM circuit WHERE study_id = :study_id"
SELECT_PUMP_EFFICIENCY = "SELECT * FROM pump_efficiency WHERE study_id = :study_id"
SELECT_REGULATOR = "SELECT * FROM regulator WHERE study_id = :study_id"
SELECT_STATED_LOSS = "SELECT * FROM stated_loss WHERE study_id = :study_id AND part = :part"
SELECT_ENGINE_HOT_POINT = "SELECT * FROM engine_hot_point WHERE study_id = :study_id"
SELECT_STUD = "SELECT * FROM stud WHERE study_id = :study_id"
SELECT_ADAPTER = "SELECT * FROM adapter WHERE study_id = :study_id"


def load_circuit(conn: sqlite3.Connection, study_id: int) -> Circuit | None:
    """Return the circuit of a study, or None."""
    row = conn.execute(SELECT_CIRCUIT, {"study_id": study_id}).fetchone()
    if row is None:
        return None

    def block(statement: str, part: str = "") -> sqlite3.Row | None:
        found: sqlite3.Row | None = conn.execute(statement, {"study_id": study_id, "part": part}).fetchone()
        return found

    pump, regulator, engine = block(SELECT_PUMP_EFFICIENCY), block(SELECT_REGULATOR), block(SELECT_ENGINE_HOT_POINT)
    cooler, head = block(SELECT_STATED_LOSS, "cooler"), block(SELECT_STATED_LOSS, "head")
    stud, adapter = block(SELECT_STUD), block(SELECT_ADAPTER)
    return built(
        Circuit,
        row,
        pump_efficiency=built(PumpEfficiency, pump) if pump else None,
        regulator=built(Regulator, regulator) if regulator else None,
        cooler=built(StatedLoss, cooler) if cooler else None,
        head=built(StatedLoss, head) if head else None,
        engine=built(EngineHotPoint, engine) if engine else None,
        stud=built(Stud, stud) if stud else None,
        adapter=built(Adapter, adapter, holes=load_hole_groups(conn, "adapter", study_id)) if adapter else None,
    )


def _plain(block: Any) -> dict[str, Any]:
    """Return the fields of a dataclass that are single values."""
    return {name: value for name, value in vars(block).items() if value is None or isinstance(value, str | int | float)}

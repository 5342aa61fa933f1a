"""Defaults where a study states nothing, in the units of the document; every place that uses one marks it assumed."""

from __future__ import annotations

from typing import Any

from tabrel.core.study.model import (
    Adapter,
    Circuit,
    Counts,
    EngineHotPoint,
    GaugeTap,
    Mount,
    PressureSense,
    PumpEfficiency,
    Regulator,
    StatedLoss,
    Stud,
)
from tabrel.core.study.plans import WarmUpPlan

VISCOUS_SHARE = 0.5
"""Of the loss of cooler and filter head; the rest goes with flow²."""

COOLER_BYPASS_KPA = 150.0
SAFETY_KPA = 1000.0
PRESSURE_SENSE: PressureSense = "pump"
GAUGE_TAP: GaugeTap = "pump"
JET_SHARE = 0.0
JET_COUNT = 4
JET_LENGTH_RATIO = 6.0
BEARING_RISE_K = 10.0
BEARING_HEATING = 0.5
STUD_LENGTH_MM = 20.0
ADAPTER_WALL_MM = 4.0
ADAPTER_TURN_DEG = 90.0
JET_OPENING_SHARE = 0.5
"""Of the hot gallery pressure."""

USUAL_PLAN = WarmUpPlan(
    start_c=-25.0,
    end_c=95.0,
    time_constant_min=9.0,
    can_time_constant_min=1.5,
    gallery_volume_l=0.8,
    duty_cycle="mountain road",
    ingress_g_h=0.08,
    terminal_ratio=8.0,
    sump_volume_l=5.5,
)
"""Defaults of an unstated plan."""

BEGINNINGS: dict[tuple[str, ...], Any] = {
    ("counts",): Counts("unnamed"),
    ("warm_up",): WarmUpPlan(),
    ("circuit",): Circuit(),
    ("circuit", "pump_efficiency"): PumpEfficiency(0.88, 3000.0, 400.0, 100.0),
    ("circuit", "regulator"): Regulator(480.0, 150.0, 5000.0),
    ("circuit", "cooler"): StatedLoss(15.0, 40.0, 100.0),
    ("circuit", "head"): StatedLoss(12.0, 40.0, 100.0),
    ("circuit", "engine"): EngineHotPoint(340.0, 3000.0, 100.0),
    ("circuit", "stud"): Stud(0.0),
    ("circuit", "mount"): Mount(),
    ("circuit", "adapter"): Adapter(()),
}
"""Start of a part of the study when its first number is typed; the others stand as assumed until they are set."""


def stud_length_mm(stud: Stud) -> float:
    """Return the length of a stud, as stated or as assumed."""
    return STUD_LENGTH_MM if stud.length_mm is None else stud.length_mm


def adapter_wall_mm(adapter: Adapter) -> float:
    """Return the wall of an adapter, as stated or as assumed."""
    return ADAPTER_WALL_MM if adapter.wall_mm is None else adapter.wall_mm


def adapter_turn_deg(adapter: Adapter) -> float:
    """Return by how much an adapter turns the oil, as stated or as assumed."""
    return ADAPTER_TURN_DEG if adapter.turn_deg is None else adapter.turn_deg


def jet_opening_kpa(engine: EngineHotPoint) -> float:
    """Return the gallery pressure at which the piston jets open, as stated or as assumed."""
    return JET_OPENING_SHARE * engine.gallery_kpa if engine.jet_opening_kpa is None else engine.jet_opening_kpa

"""Details of the engine's oil circuit, of the oil and of the plan of a start: row by row."""

from __future__ import annotations

from typing import Any

from tabrel.core.details.detail import Detail, DetailKind
from tabrel.core.study.defaults import (
    BEARING_HEATING,
    BEARING_RISE_K,
    COOLER_BYPASS_KPA,
    GAUGE_TAP,
    JET_COUNT,
    JET_SHARE,
    PRESSURE_SENSE,
    SAFETY_KPA,
    USUAL_PLAN,
    VISCOUS_SHARE,
)

PROVENANCES = ("measured", "published", "assumed")
SENSES = ("pump", "gallery")
TAPS = ("pump", "filter_inlet", "gallery")

CIRCUIT_PARTS: dict[str, str] = {
    "engine": "Engine",
    "pump": "Pump",
    "regulator": "Regulator",
    "cooler": "Cooler",
    "head": "Filter head",
    "stud": "Stud",
    "adapter": "Adapter",
    "gallery": "Hot gallery",
    "jets": "Piston jets",
    "gauge": "Gauge tap",
}
"""The parts of the circuit's drawing, with their titles."""

MAP_NEEDS = (
    "oil.density",
    "engine.pump_displacement",
    "engine.pump_efficiency",
    "engine.regulator_opening",
    "engine.gallery",
    "engine.stud_bore",
)
"""Details of oil and engine without which no map is computed."""


def _engine(part: str, key: str, title: str, unit: str, place: tuple[str, ...], help: str = "", **more: Any) -> Detail:
    kind: DetailKind = "count" if unit == "count" else "quantity"
    unit = "" if unit == "count" else unit
    return Detail(f"engine.{key}", title, kind, ("circuit", *place), help, stage="engine", unit=unit, part=part, **more)


def _engine_choice(
    part: str, key: str, title: str, choices: tuple[str, ...], place: tuple[str, ...], help: str, **more: Any
) -> Detail:
    place = ("circuit", *place)
    return Detail(f"engine.{key}", title, "one_of", place, help, choices=choices, stage="engine", part=part, **more)


_PUMP, _REGULATOR, _COOLER, _HEAD, _HOT = "pump_efficiency", "regulator", "cooler", "head", "engine"

_ENGINE: tuple[Detail, ...] = (
    _engine_choice(
        "engine", "provenance", "engine data are", PROVENANCES, ("provenance",), "where the numbers of this circuit come from"
    ),
    _engine(
        "pump",
        "pump_displacement",
        "pump displacement",
        "cm³/rev",
        ("pump_displacement_cm3_rev",),
        "per revolution of the engine, gearing included",
        in_drawing=True,
    ),
    _engine(
        "pump",
        "pump_efficiency",
        "volumetric efficiency",
        "share",
        (_PUMP, "fraction"),
        "delivered over displaced",
        in_drawing=True,
    ),
    _engine("pump", "pump_efficiency_speed", "efficiency stated at speed", "rpm", (_PUMP, "speed_rpm")),
    _engine("pump", "pump_efficiency_pressure", "efficiency stated at pressure", "kPa", (_PUMP, "pressure_kpa")),
    _engine("pump", "pump_efficiency_temperature", "efficiency stated at oil temperature", "°C", (_PUMP, "temperature_c")),
    _engine(
        "regulator",
        "regulator_opening",
        "regulator opens at",
        "kPa",
        (_REGULATOR, "opening_kpa"),
        "above the hot gallery pressure",
        synonyms=("relief valve", "pressure regulator"),
        in_drawing=True,
    ),
    _engine(
        "regulator",
        "regulator_rise",
        "regulator rise",
        "kPa",
        (_REGULATOR, "full_flow_rise_kpa"),
        "above opening, at which it passes the whole pump flow of the speed below",
        in_drawing=True,
    ),
    _engine("regulator", "regulator_speed", "full relief flow at speed", "rpm", (_REGULATOR, "full_flow_speed_rpm")),
    _engine_choice(
        "regulator",
        "regulator_sense",
        "regulator senses at",
        SENSES,
        (_REGULATOR, "sense"),
        "which pressure moves it",
        usual=PRESSURE_SENSE,
    ),
    _engine(
        "regulator",
        "safety",
        "pump safety valve",
        "kPa",
        (_REGULATOR, "safety_kpa"),
        "opens whatever the regulator does",
        usual=SAFETY_KPA,
    ),
    _engine(
        "cooler",
        "cooler_loss",
        "cooler loss",
        "kPa",
        (_COOLER, "loss_kpa"),
        "leave empty without a cooler",
        synonyms=("oil cooler",),
        in_drawing=True,
    ),
    _engine("cooler", "cooler_flow", "cooler loss stated at flow", "L/min", (_COOLER, "flow_l_min"), in_drawing=True),
    _engine("cooler", "cooler_temperature", "cooler loss stated at oil temperature", "°C", (_COOLER, "temperature_c")),
    _engine(
        "cooler",
        "cooler_viscous_share",
        "viscous share of cooler loss",
        "share",
        (_COOLER, "viscous_share"),
        "the rest goes with flow²",
        usual=VISCOUS_SHARE,
    ),
    _engine(
        "cooler",
        "cooler_bypass",
        "cooler's own bypass",
        "kPa",
        (_COOLER, "bypass_kpa"),
        "limits the loss of the cooler",
        usual=COOLER_BYPASS_KPA,
    ),
    _engine(
        "head",
        "head_loss",
        "filter head loss",
        "kPa",
        (_HEAD, "loss_kpa"),
        "leave empty where it is not known",
        in_drawing=True,
    ),
    _engine("head", "head_flow", "head loss stated at flow", "L/min", (_HEAD, "flow_l_min"), in_drawing=True),
    _engine("head", "head_temperature", "head loss stated at oil temperature", "°C", (_HEAD, "temperature_c")),
    _engine(
        "head",
        "head_viscous_share",
        "viscous share of head loss",
        "share",
        (_HEAD, "viscous_share"),
        "the rest goes with flow²",
        usual=VISCOUS_SHARE,
    ),
    _engine(
        "gallery",
        "gallery",
        "hot gallery pressure",
        "kPa",
        (_HOT, "gallery_kpa"),
        "of the engine with a clean filter, oil hot",
        synonyms=("main gallery", "oil pressure"),
        in_drawing=True,
    ),
    _engine("gallery", "gallery_speed", "gallery pressure stated at speed", "rpm", (_HOT, "speed_rpm"), in_drawing=True),
    _engine("gallery", "gallery_temperature", "gallery pressure stated at oil temperature", "°C", (_HOT, "temperature_c")),
    _engine(
        "jets",
        "jet_share",
        "share of flow to piston jets",
        "share",
        (_HOT, "jet_share"),
        "at the hot point; empty without jets",
        usual=JET_SHARE,
        in_drawing=True,
    ),
    _engine(
        "jets",
        "jet_opening",
        "jets open at",
        "kPa",
        (_HOT, "jet_opening_kpa"),
        "gallery pressure; half the hot one, assumed, while empty",
        in_drawing=True,
    ),
    _engine("jets", "jet_count", "number of jets", "count", (_HOT, "jet_count"), usual=JET_COUNT),
    _engine(
        "gallery",
        "bearing_rise",
        "bearing temperature rise",
        "K",
        (_HOT, "bearing_rise_k"),
        "above the sump, at the hot point",
        usual=BEARING_RISE_K,
    ),
    _engine(
        "gallery",
        "bearing_heating",
        "bearing heating",
        "",
        (_HOT, "bearing_heating"),
        "0 constant, 1 no heat lost",
        usual=BEARING_HEATING,
    ),
    _engine_choice("gauge", "gauge", "gauge tap", TAPS, ("gauge",), "where the gauge is connected", usual=GAUGE_TAP),
)

_OIL: tuple[Detail, ...] = (
    Detail("oil.name", "oil", "words", ("oil", "name"), "as on the can", synonyms=("lubricant",), stage="engine"),
    Detail(
        "oil.provenance",
        "oil data are",
        "one_of",
        ("oil", "provenance"),
        "typical data count as assumed",
        choices=PROVENANCES,
        stage="engine",
    ),
    Detail(
        "oil.density",
        "density at 15 °C",
        "quantity",
        ("oil", "density_15c_kg_m3"),
        stage="engine",
        unit="kg/m³",
        needed="the density at 15 °C is needed for every viscosity: type it",
    ),
    Detail(
        "oil.pumping_limit",
        "pumpability limit",
        "quantity",
        ("oil", "pumping_limit_c"),
        "lowest temperature at which it is stated to pump; empty where not known",
        synonyms=("pumps down to", "borderline pumping temperature"),
        stage="engine",
        unit="°C",
    ),
)


def _plan(field: str, title: str, unit: str, help: str = "", **more: Any) -> Detail:
    usual = getattr(USUAL_PLAN, field)
    return Detail(f"plan.{field}", title, "quantity", ("warm_up", field), help, usual=usual, stage="warm_up", unit=unit, **more)


_PLAN: tuple[Detail, ...] = (
    _plan("start_c", "start temperature", "°C", synonyms=("cold start",)),
    _plan("end_c", "final oil temperature", "°C"),
    _plan("time_constant_min", "warm-up time constant", "min", "63 % of the rise"),
    _plan("can_time_constant_min", "filter lag", "min", "time constant of the filter behind the sump"),
    _plan("gallery_volume_l", "gallery volume", "L", "filled before there is pressure"),
    Detail(
        "plan.duty_cycle",
        "duty cycle",
        "words",
        ("warm_up", "duty_cycle"),
        "a shipped one, or one read from CSV",
        stage="warm_up",
    ),
    _plan("ingress_g_h", "dirt ingress", "g/h", "that reaches the filter"),
    _plan("terminal_ratio", "terminal loading", "", "of the media, when its capacity is reached"),
    _plan("sump_volume_l", "sump volume", "L"),
)

CIRCUIT_DETAILS: tuple[Detail, ...] = (*_ENGINE, *_OIL, *_PLAN)

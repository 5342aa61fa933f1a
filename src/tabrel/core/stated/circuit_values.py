"""Facts of the engine's oil circuit, of the oil and of the plan of a start, and how each changes the study."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from tabrel.core.entry.stated_number import number_text
from tabrel.core.errors import ReadingTextError
from tabrel.core.starts.warm_up import USUAL_PLAN
from tabrel.core.stated.stated_value import Fact
from tabrel.core.study.model import (
    Circuit,
    EngineHotPoint,
    Oil,
    PumpEfficiency,
    Regulator,
    StatedLoss,
    Study,
)
from tabrel.core.study.plans import WarmUpPlan

USUAL_BLOCKS: dict[str, Any] = {
    "pump_efficiency": PumpEfficiency(0.88, 3000.0, 400.0, 100.0),
    "regulator": Regulator(480.0, 150.0, 5000.0),
    "cooler": StatedLoss(15.0, 40.0, 100.0),
    "head": StatedLoss(12.0, 40.0, 100.0),
    "engine": EngineHotPoint(340.0, 3000.0, 100.0),
}
"""What a part of the circuit begins with when its first number is typed; the others are looked at and set next."""

PROVENANCES = ("measured", "published", "assumed")
SENSES = ("pump", "gallery")
TAPS = ("pump", "filter_inlet", "gallery")


@dataclass(frozen=True)
class _Place:
    """Where a fact stands in the study: which part of the circuit (or None), which field, whether it can be empty."""

    block: str | None
    field: str
    optional: bool = False


def _engine(
    key: str, title: str, unit: str, place: _Place, help: str = "", synonyms: tuple[str, ...] = ()
) -> tuple[Fact, _Place]:
    return Fact(f"engine.{key}", title, "quantity", help, synonyms=synonyms, stage="engine", unit=unit), place


_ENGINE: tuple[tuple[Fact, _Place], ...] = (
    (
        Fact(
            "engine.provenance",
            "engine data are",
            "one_of",
            "where the numbers of this circuit come from",
            choices=PROVENANCES,
            stage="engine",
        ),
        _Place(None, "provenance", True),
    ),
    _engine(
        "pump_displacement",
        "pump displacement",
        "cm³/rev",
        _Place(None, "pump_displacement_cm3_rev", True),
        "per turn of the engine, gearing included",
    ),
    _engine(
        "pump_efficiency", "volumetric efficiency", "share", _Place("pump_efficiency", "fraction"), "delivered over displaced"
    ),
    _engine("pump_efficiency_speed", "pump efficiency at", "rpm", _Place("pump_efficiency", "speed_rpm")),
    _engine("pump_efficiency_pressure", "pump efficiency against", "kPa", _Place("pump_efficiency", "pressure_kpa")),
    _engine("pump_efficiency_temperature", "pump efficiency in oil of", "°C", _Place("pump_efficiency", "temperature_c")),
    _engine(
        "regulator_opening",
        "regulator opens at",
        "kPa",
        _Place("regulator", "opening_kpa"),
        "above the hot gallery pressure",
        ("relief valve", "pressure regulator"),
    ),
    _engine(
        "regulator_rise",
        "regulator rise",
        "kPa",
        _Place("regulator", "full_flow_rise_kpa"),
        "above opening, when it dumps the whole pump flow of the speed beside it",
    ),
    _engine("regulator_speed", "regulator full flow at", "rpm", _Place("regulator", "full_flow_speed_rpm")),
    (
        Fact(
            "engine.regulator_sense",
            "regulator senses at",
            "one_of",
            "which pressure moves it",
            choices=SENSES,
            stage="engine",
        ),
        _Place("regulator", "sense", True),
    ),
    _engine("safety", "pump safety valve", "kPa", _Place("regulator", "safety_kpa", True), "dumps whatever the regulator does"),
    _engine("cooler_loss", "cooler loss", "kPa", _Place("cooler", "loss_kpa"), "leave empty without a cooler", ("oil cooler",)),
    _engine("cooler_flow", "cooler loss at", "L/min", _Place("cooler", "flow_l_min")),
    _engine("cooler_temperature", "cooler loss in oil of", "°C", _Place("cooler", "temperature_c")),
    _engine(
        "cooler_viscous_share",
        "viscous share of it",
        "share",
        _Place("cooler", "viscous_share", True),
        "the rest goes with flow²",
    ),
    _engine("cooler_bypass", "cooler's own bypass", "kPa", _Place("cooler", "bypass_kpa", True), "limits the loss of the cooler"),
    _engine("head_loss", "filter head loss", "kPa", _Place("head", "loss_kpa"), "leave empty where it is not known"),
    _engine("head_flow", "head loss at", "L/min", _Place("head", "flow_l_min")),
    _engine("head_temperature", "head loss in oil of", "°C", _Place("head", "temperature_c")),
    _engine(
        "head_viscous_share",
        "viscous share of head",
        "share",
        _Place("head", "viscous_share", True),
        "the rest goes with flow²",
    ),
    _engine(
        "gallery",
        "hot gallery pressure",
        "kPa",
        _Place("engine", "gallery_kpa"),
        "of the engine with a clean filter, oil hot",
        ("main gallery", "oil pressure"),
    ),
    _engine("gallery_speed", "hot gallery at", "rpm", _Place("engine", "speed_rpm")),
    _engine("gallery_temperature", "hot gallery in oil of", "°C", _Place("engine", "temperature_c")),
    _engine(
        "jet_share",
        "piston jets take",
        "share",
        _Place("engine", "jet_share", True),
        "of the flow at the hot point; empty without",
    ),
    _engine("jet_opening", "jets open at", "kPa", _Place("engine", "jet_opening_kpa", True), "gallery pressure"),
    _engine("jet_count", "number of jets", "", _Place("engine", "jet_count", True), ""),
    _engine(
        "bearing_rise", "bearings warmer by", "K", _Place("engine", "bearing_rise_k", True), "than the sump, at the hot point"
    ),
    _engine(
        "bearing_heating",
        "bearing heating",
        "",
        _Place("engine", "bearing_heating", True),
        "0 constant, 1 no heat lost",
    ),
    (
        Fact("engine.gauge", "gauge tap", "one_of", "where the gauge feels the pressure", choices=TAPS, stage="engine"),
        _Place(None, "gauge", True),
    ),
)

_OIL: tuple[tuple[Fact, str], ...] = (
    (Fact("oil.name", "oil", "words", "as on the can", synonyms=("lubricant",), stage="engine"), "name"),
    (
        Fact("oil.provenance", "oil data are", "one_of", "typical data count as assumed", choices=PROVENANCES, stage="engine"),
        "provenance",
    ),
    (Fact("oil.density", "density at 15 °C", "quantity", "", stage="engine", unit="kg/m³"), "density_15c_kg_m3"),
    (
        Fact("oil.pumping_limit", "pumps down to", "quantity", "as stated; empty where not known", stage="engine", unit="°C"),
        "pumping_limit_c",
    ),
)


def _plan(field: str, title: str, unit: str, help: str, synonyms: tuple[str, ...] = ()) -> tuple[Fact, str]:
    usual = number_text(getattr(USUAL_PLAN, field), unit)
    fact = Fact(f"plan.{field}", title, "quantity", help, synonyms=synonyms, stage="warm_up", unit=unit, usual=usual or "")
    return fact, field


_PLAN: tuple[tuple[Fact, str], ...] = (
    _plan("start_c", "start at", "°C", "", ("cold start",)),
    _plan("end_c", "oil tends to", "°C", ""),
    _plan("time_constant_min", "oil warms within", "min", "63 % of the way"),
    _plan("can_time_constant_min", "can lags by", "min", "behind the sump"),
    _plan("gallery_volume_l", "galleries hold", "L", "what fills before there is pressure"),
    (
        Fact("plan.duty_cycle", "duty cycle", "words", "a shipped one, or one read from CSV", stage="warm_up"),
        "duty_cycle",
    ),
    _plan("ingress_g_h", "dirt ingress", "g/h", "that reaches the filter"),
    _plan("terminal_ratio", "terminal loading", "", "of the media, when its capacity is full"),
    _plan("sump_volume_l", "sump holds", "L", ""),
)

_USUAL = {
    "engine.safety": "1000 kPa",
    "engine.cooler_viscous_share": "50 %",
    "engine.cooler_bypass": "150 kPa",
    "engine.head_viscous_share": "50 %",
    "engine.jet_count": "4",
    "engine.bearing_rise": "10 K",
    "engine.bearing_heating": "0.5",
    "engine.jet_share": "0 %",
    "engine.regulator_sense": "pump",
    "engine.gauge": "pump",
}
_ENGINE = tuple((replace(fact, usual=_USUAL.get(fact.key, "")), place) for fact, place in _ENGINE)

CIRCUIT_FACTS: tuple[Fact, ...] = tuple(fact for fact, _ in (*_ENGINE, *_OIL, *_PLAN))
_ENGINE_PLACES = {fact.key: (fact, place) for fact, place in _ENGINE}
_FIELDS = {fact.key: (fact, field) for fact, field in (*_OIL, *_PLAN)}


def circuit_fact_texts(study: Study) -> dict[str, str | None]:
    """Return the facts known of a study's circuit, oil and plan, as text, by key."""
    circuit = study.circuit or Circuit()
    texts: dict[str, str | None] = {}
    for key, (fact, place) in _ENGINE_PLACES.items():
        owner = circuit if place.block is None else getattr(circuit, place.block)
        texts[key] = _text(fact, getattr(owner, place.field) if owner else None)
    for key, (fact, field) in _FIELDS.items():
        owner = study.oil if key.startswith("oil.") else study.warm_up
        texts[key] = _text(fact, getattr(owner, field) if owner else None)
    return texts


def _text(fact: Fact, value: Any) -> str | None:
    return number_text(value, fact.unit) if fact.kind == "quantity" else value


def with_circuit_fact(study: Study, key: str, value: Any) -> Study:
    """Return a study with one fact of its circuit, oil or plan set; None takes it away.

    Raises
    ------
    ReadingTextError
        If that cannot be, with the mend.
    """
    if key in _ENGINE_PLACES:
        fact, place = _ENGINE_PLACES[key]
        return replace(study, circuit=_with_engine_value(study.circuit or Circuit(), fact, place, value))
    fact, field = _FIELDS[key]
    if key.startswith("plan."):
        plan = replace(study.warm_up or WarmUpPlan(), **{field: value})
        return replace(study, warm_up=None if plan == WarmUpPlan() else plan)
    return replace(study, oil=_with_oil_value(study.oil, fact, field, value))


def _with_engine_value(circuit: Circuit, fact: Fact, place: _Place, value: Any) -> Circuit:
    if place.block is None:
        return replace(circuit, **{place.field: value})
    block = getattr(circuit, place.block)
    if value is None and not place.optional:
        if place.field in ("loss_kpa", "fraction", "opening_kpa", "gallery_kpa"):
            return replace(circuit, **{place.block: None})
        raise ReadingTextError(f"the {fact.title} is part of that point and cannot be empty: type it")
    if place.field == "jet_count" and value is not None:
        if value != int(value):
            raise ReadingTextError(f"{value:g} jets cannot be: type a whole number")
        value = int(value)
    if block is None and value is None:
        return circuit
    changed = replace(block or USUAL_BLOCKS[place.block], **{place.field: value})
    if place.field == "jet_share" and value and changed.jet_opening_kpa is None:
        changed = replace(changed, jet_opening_kpa=round(changed.gallery_kpa / 2))
    return replace(circuit, **{place.block: changed})


def _with_oil_value(oil: Oil | None, fact: Fact, field: str, value: Any) -> Oil:
    if oil is None:
        raise ReadingTextError("there is no oil yet: choose a grade to begin with")
    if value is None and field == "density_15c_kg_m3":
        raise ReadingTextError(f"the {fact.title} is needed for every viscosity: type it")
    return replace(oil, **{field: value})

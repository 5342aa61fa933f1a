"""Small studies for tests, built from one plain filter."""

from __future__ import annotations

import copy
import json
from pathlib import Path
from typing import Any

import numpy as np

from document_in_use import IN_USE
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.circuit.solution import SolvedCircuit, solve_circuit
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.study.model import Study
from tabrel.document.study_document import read_study

PLAIN = json.loads((Path(__file__).parent / "data" / "cases" / "plain.study.json").read_text())


def plain_document() -> dict[str, Any]:
    """Return a fresh copy of the plain case's document."""
    return copy.deepcopy(PLAIN)


def changed(*changes: tuple[str, Any]) -> dict[str, Any]:
    """Return the plain document with values set at paths; None removes, `/` separates the steps."""
    document = plain_document()
    for path, value in changes:
        *steps, last = (int(step) if step.isdigit() else step for step in path.split("/"))
        here: Any = document
        for step in steps:
            here = here[step] if isinstance(step, int) else here.setdefault(step, {})
        if value is None:
            del here[last]
        else:
            here[last] = copy.deepcopy(value)
    return document


def study(*changes: tuple[str, Any]) -> Study:
    """Return the plain study with values set at paths."""
    return read_study(json.dumps(changed(*changes)))


def point(*changes: tuple[str, Any], **more: Any) -> OperatingPoint:
    """Return the circuit problem of the plain study with values set at paths."""
    made = study(*changes)
    return operating_point(made, made.samples[0], **more)


def solved_at(problem: OperatingPoint, temperature: float, speed: float) -> SolvedCircuit:
    """Return a circuit problem solved at one temperature [°C] and speed [rpm]."""
    return solve_circuit(problem, problem.place(np.array([temperature]), np.array([speed])))


def reading(key: str, *texts: str) -> tuple[str, Any]:
    """Return a change that sets the readings of a key; without texts it removes them."""
    return (f"samples/0/readings/{key}", list(texts) or None)


SAMPLE = "samples/0"

EVIDENCE: list[tuple[str, Any]] = [
    (
        f"{SAMPLE}/counts",
        {
            "scale": "unnamed",
            "test_kind": "multi_pass",
            "standard": "ISO 4548-12",
            "source": "a laboratory",
            "sizes_um": [10, 20],
            "volume_ml": 10,
            "dilution": 20,
            "upstream_ml": 10,
            "upstream_dilution": 20,
            "downstream_ml": 20,
            "downstream_dilution": 20,
            "coincidence_per_ml": 8000,
            "ratio_uncertainty_percent": 3,
            "size_uncertainty_percent": 2,
            "dust": "ISO 12103-1 A3",
            "fluid": "MIL-PRF-5606",
            "blank": {"upstream": [3, 0], "downstream": [4, 1]},
            "system_volume_l": 6,
            "flow_l_min": 30,
            "temperature_c": 80,
            "clean_hardware_kpa": 4.1,
            "clean_element_kpa": 5.5,
            "terminal_ratio": 8,
            "dust_lot": "A3-0417",
            "tested": "2026-03-18",
            "kinematic_mm2_s": 15,
            "base_level_mg_l": 5,
            "terminal_kpa": 70,
            "intervals": [
                {
                    "time_min": 5,
                    "differential_pressure_kpa": 12.1,
                    "injected_g": 2.1,
                    "circulating_mg_l": 4,
                    "upstream": [41230, 900],
                    "downstream": [18040, 42],
                }
            ],
        },
    ),
    (
        f"{SAMPLE}/flow_bench",
        [
            {
                "oil": {
                    "density_15c_kg_m3": 860,
                    "viscosity": [{"temperature_c": 40, "kinematic_mm2_s": 32}, {"temperature_c": 100, "kinematic_mm2_s": 5.4}],
                },
                "hardware_only": True,
                "rows": [{"flow_l_min": 10, "temperature_c": 60, "differential_pressure_kpa": 11.2, "uncertainty_kpa": 0.3}],
            }
        ],
    ),
    (
        f"{SAMPLE}/bypass_bench",
        {
            "temperature_c": 20,
            "stated_flow_l_min": 1,
            "gauge_error_percent": 5,
            "rows": [{"pressure_kpa": 90, "flow_l_min": 0.2, "falling": False}],
        },
    ),
    (
        f"{SAMPLE}/photographs",
        [
            {
                "file": "photographs/3.jpg",
                "sha256": 64 * "a",
                "caption": "plate",
                "taken": "2026-10-05",
                "scale": {"length": "50 mm", "from_px": [102, 311], "to_px": [1480, 322]},
                "marks": [{"kind": "circle", "points": [[1, 2.5], [3, 4]]}],
            }
        ],
    ),
    (f"{SAMPLE}/stated_collapse_kpa", 1000),
    (f"{SAMPLE}/as_typed", {"capacity_g": {"text": "18 g", "provenance": "published", "origin": "library"}}),
]
"""Changes that give a sample everything that tests, benches and photographs say."""

USES: list[dict[str, Any]] = [
    {
        "name": "cold start",
        "temperature_c": -25,
        "speed_rpm": 2000,
        "hot_temperature_c": 110,
        "hot_speed_rpm": 5000,
        "interval_km": 15_000,
        "interval_h": 250,
        "criteria": [
            {"measure": "media_effective_area_cm2", "better": "high", "weight": 2},
            {"measure": "price", "better": "low", "weight": 1, "best": 5, "worst": 20},
            {"measure": "efficiency_at_20_um_percent", "better": "high", "weight": 2, "struck": "test kinds differ"},
            {"measure": "by_hand", "name": "construction", "order": [["Pellin"]], "weight": 1},
        ],
        "requirements": [
            {"measure": "plate_flow_area_mm2", "at_least": 110},
            {"measure": "onset_c", "at_most": -15},
            {"measure": "tube.burr_side", "one_of": ["none", "away from the media"]},
        ],
        "verdicts": [{"sample": "Pellin", "verdict": "fails", "reason": "too small"}],
    }
]


def everything() -> dict[str, Any]:
    """Return a document that uses every key there is."""
    return changed(
        ("version", 3),
        ("question", "Which one?"),
        ("oil/pumping_limit_c", -35),
        ("oil/provenance", "published"),
        ("oil/viscosity/0/high_shear", False),
        ("circuit/name", "engine"),
        ("circuit/provenance", "assumed"),
        ("circuit/regulator/safety_kpa", 900),
        ("circuit/cooler/viscous_share", 0.4),
        ("circuit/cooler/bypass_kpa", 140),
        ("circuit/head", {"loss_kpa": 12, "flow_l_min": 40, "temperature_c": 100}),
        ("circuit/engine/jet_count", 5),
        ("circuit/engine/jet_length_ratio", 5.5),
        ("circuit/engine/bearing_heating", 0.4),
        (
            "circuit/adapter",
            {
                "holes": [{"shape": "round", "count": 3, "readings": {"diameter": ["5.3 mm"]}}],
                "wall_mm": 4,
                "turn_deg": 60,
                "reference_bore_mm": 12,
            },
        ),
        (
            "scenarios",
            [
                {
                    "name": "worn and cold",
                    "loading": 3,
                    "oil_grade": "15W-40",
                    "stud_bore_mm": 11.5,
                    "adapter_holes": {"count": 4, "diameter_mm": 5},
                    "bypass_location": "block",
                    "bypass_opening_kpa": 90,
                    "leak": {"count": 3, "diameter_mm": 0.5},
                    "regulator": "stuck_open",
                    "anti_drain_lift_mm": 0.8,
                },
                {
                    "name": "dusty",
                    "loading_g": 4,
                },
                {"name": "off the adapter", "without_adapter": True},
            ],
        ),
        ("duty_cycles", [{"name": "yard", "csv": "time_s,speed_rpm\n0,900\n60,1500\n"}]),
        (
            "warm_up",
            {
                "start_c": -20,
                "end_c": 90,
                "time_constant_min": 8,
                "can_time_constant_min": 0,
                "gallery_volume_l": 0.7,
                "duty_cycle": "yard",
                "ingress_g_h": 0.1,
                "terminal_ratio": 6,
                "sump_volume_l": 5,
            },
        ),
        (f"{SAMPLE}/capacity_g", 18),
        (f"{SAMPLE}/maker", "somebody"),
        (f"{SAMPLE}/archived", True),
        (f"{SAMPLE}/tier", "premium"),
        (f"{SAMPLE}/restriction", "racing only"),
        (f"{SAMPLE}/warranty", "one season"),
        (
            f"{SAMPLE}/offers",
            [
                {"shop": "here", "amount": 9.5, "currency": "EUR"},
                {"shop": "there", "amount": 80, "currency": "EUR", "pack_of": 10, "delivery": 4.9, "seen": "2026-10-02"},
            ],
        ),
        ("interval_school", "oil analysis"),
        ("circuit/mount", {"thread_diameter_mm": 19.05, "thread_pitch_mm": 1.5875, "seat_diameter_mm": 74}),
        (f"{SAMPLE}/part_number", "42"),
        (f"{SAMPLE}/price", {"amount": 9.5, "currency": "EUR"}),
        (f"{SAMPLE}/condition", "used"),
        (f"{SAMPLE}/used_km", 12_000),
        (f"{SAMPLE}/used_hours", 240),
        ("circuit/stud", {"bore_mm": 13, "length_mm": 22, "least_bore_mm": 12.5, "greatest_bore_mm": 13.5}),
        (f"{SAMPLE}/media_air_drop_pa", 125),
        (f"{SAMPLE}/bypass/kind", "coil_spring"),
        (f"{SAMPLE}/bypass/stated_kpa", [110, 180]),
        (f"{SAMPLE}/leak", {"count": 6, "diameter_mm": 0.4}),
        (f"{SAMPLE}/observations", {"anti_drain.material": "silicone"}),
        (f"{SAMPLE}/copied", {"details/sample.maker": "another", "observations/anti_drain.material": "another"}),
        (
            f"{SAMPLE}/claims",
            [
                {
                    "kind": "efficiency",
                    "relation": ">=",
                    "efficiency_percent": 99,
                    "size_um": 20,
                    "scale": "um(c)",
                    "standard": "ISO 4548-12",
                    "source": "box",
                    "seen": "2026-10-02",
                },
                {"kind": "efficiency", "relation": "=", "efficiency_percent": 97, "source": "page", "copied_from": "another"},
            ],
        ),
        *EVIDENCE,
        *IN_USE,
        ("uses", USES),
        (
            "report",
            {
                "title": "Everything",
                "prepared_by": "the workshop",
                "prepared_for": "the depot",
                "paper": "letter",
                "units": "inch",
                "sections": ["drawings", "working"],
                "parts": [{"part": "answer"}, {"part": "text", "text": "# Seen\n\n*all* of it"}, {"part": "filters"}],
            },
        ),
        ("arithmetic", [{"label": "inlet", "formula": "sum", "inputs": {"terms": ["1 mm", "2 mm"]}, "printed": "3 mm"}]),
        (
            "as_typed",
            {"gallery_kpa": {"text": "50 psi", "provenance": "by_eye"}, "bore_mm": {"text": "13 mm", "origin": "library"}},
        ),
        ("circuit/engine/gallery_kpa", 344.737865),
        reading("can.height", "98 mm", {"text": "3 7/8 in", "copied_from": "another"}),
        (f"{SAMPLE}/readings/can.mass", [{"text": "12 g", "struck_out": "wet"}, {"text": "90 g", "instrument": "fine balance"}]),
        (
            f"{SAMPLE}/holes/inlet",
            [
                {"shape": "slot", "count": 2, "readings": {"length": ["9 mm"], "width": ["4 mm"]}, "open_fraction": 0.5},
                {"shape": "outline", "count": 1, "readings": {"points_mm": [[0, 0], [4, 0], [4, 3.5]]}},
                {
                    "shape": "rectangle",
                    "count": 1,
                    "readings": {"length": ["9 mm"], "width": ["4 mm"], "corner_radius": ["1 mm"]},
                },
                {"shape": "d", "count": 1, "readings": {"diameter": ["9 mm"], "height": ["4 mm"]}, "copied_from": "another"},
            ],
        ),
    )


FEW = {"draws": 2000, "model_draws": 60}
COLD_USE = {"name": "cold", "temperature_c": -20, "speed_rpm": 2000, "hot_temperature_c": 110, "hot_speed_rpm": 5000}


def made(*criteria, requirements=(), samples=({}, {}), use=COLD_USE, **study_fields):
    """Return the plain filter as several samples, each changed at paths, with one use."""
    document = changed()
    plain = document["samples"][0]
    document["samples"] = []
    for i, changes in enumerate(samples):
        sample = copy.deepcopy(plain) | {"label": "ABCD"[i]}
        for path, value in changes.items():
            *steps, last = path.split("/")
            here = sample
            for step in steps:
                here = here.setdefault(step, {})
            here[last] = value
        document["samples"].append(sample)
    document |= {"version": 2, "uses": [use | {"criteria": list(criteria), "requirements": list(requirements)}], **study_fields}
    study = read_study(json.dumps(document))
    return study, study.uses[0]

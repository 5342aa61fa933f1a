"""What the third version of the study document adds, as changes of a small one."""

from __future__ import annotations

SAMPLE = "samples/0"

IN_USE = (
    (f"{SAMPLE}/kind", "spin_on"),
    (f"{SAMPLE}/bypass/spring_ends", "closed_ground"),
    (f"{SAMPLE}/bypass/seat_mark", "inner"),
    (f"{SAMPLE}/bypass/opening_at", 1.5),
    (
        f"{SAMPLE}/change_interval",
        {"distance_km": 15000, "months": 12, "hours": 300, "who": "filter_maker", "source": "box"},
    ),
    (f"{SAMPLE}/remarks", [{"part": "media", "text": "soft to the touch", "severity": "note"}]),
    (
        f"{SAMPLE}/service",
        {
            "distance_uncertainty_km": 50,
            "fitted_on": "2026-03-02",
            "removed_on": "2026-10-20",
            "oil": "5W-30, as delivered",
            "drained_hot": True,
            "drained_oil": "black, no glitter",
            "leaks": "none seen",
            "uses": ["short trips", "towing"],
            "mounting_angle_deg": 45,
            "removed_by": "hand",
            "old_gasket_came_off": True,
            "new_specimens": ["another"],
        },
    ),
    (
        f"{SAMPLE}/weighings",
        [
            {
                "what": "element",
                "state": "drying",
                "rows": [{"after_min": 30, "mass": "108.6 g"}, {"after_min": 60, "mass": "4 oz"}],
            }
        ],
    ),
    (
        f"{SAMPLE}/captured",
        {
            "used": "104.3 g",
            "new": ["95.7 g"],
            "caught": "0.6 g",
            "caught_uncertainty": "0.1 g",
            "media": "45 g",
            "conditioned": True,
            "instrument": "fine balance",
        },
    ),
    (
        f"{SAMPLE}/strip",
        {
            "burr_at": "420 mm",
            "inlet_holes_at": ["105 mm"],
            "half_band": "30 mm",
            "reach": "10 mm",
            "inspected_area": "981 cm2",
            "inspected_all_round": True,
            "turn_marked": False,
        },
    ),
    (
        f"{SAMPLE}/findings",
        [
            {
                "part": "media",
                "kind": "debris",
                "along": "412 mm",
                "across": "20 mm",
                "count": 1,
                "magnetic": True,
                "note": "dull",
            },
            {
                "part": "media",
                "kind": "worn",
                "pleat": 14,
                "across": "35 mm",
                "length": "12 mm",
                "width": "2 mm",
                "stage": "fluffy",
                "photograph": "photographs/3.jpg",
            },
        ],
    ),
    (
        f"{SAMPLE}/openings",
        [
            {
                "name": "slit",
                "kind": "hole",
                "shape": "slot",
                "count": 1,
                "readings": {"length": ["8 mm"], "width": ["0.4 mm"]},
                "cut_in": "service",
            },
            {"name": "cap", "kind": "lifted_cap", "diameter": "66 mm", "arc_deg": 60, "lift": "0.3 mm", "land": "5 mm"},
            {"name": "edge", "kind": "pleat_edge", "pleats": 1, "gap": "0.15 mm", "land": "4 mm"},
        ],
    ),
    (f"{SAMPLE}/bypass_state", {"state": "jammed_open", "lift": "0.5 mm"}),
    (
        "intervals",
        [
            {
                "who": "vehicle_maker",
                "conditions": "severe",
                "distance_km": 10000,
                "months": 6,
                "source": "handbook",
                "stated_on": "2025-05-01",
            }
        ],
    ),
    ("severe_conditions", ["short trips"]),
    ("odometer", [{"on": "2027-01-03", "km": 0}, {"on": "2027-04-05", "km": 4210, "hours": 96}]),
    ("changes", [{"on": "2027-08-31", "km": 9100, "sample": "another"}]),
    (
        "gauge_logs",
        [
            {
                "name": "before the change",
                "sample": "another",
                "tap": "filter_inlet",
                "rows": [{"time_s": 0, "speed_rpm": 900, "oil_temperature_c": 20, "pressure_kpa": 447.7}],
            }
        ],
    ),
    (
        "instruments",
        [
            {
                "name": "fine balance",
                "kind": "scale",
                "resolution": "0.1 g",
                "permissible_error": "0.1 g",
                "repeatability": "0.1 g",
                "range": "0 to 600 g",
                "calibrated_on": "2026-05-04",
                "due_on": "2027-05-04",
                "certificate": "K 17",
                "corrections": [["100 g", "-0.02 g"]],
            }
        ],
    ),
    ("typical", {"table_version": 1, "spread_factor": 1.5}),
    (
        f"{SAMPLE}/readings/element.potting_depth",
        [{"text": "2.1 mm", "uncertainty": "0.2 mm", "photograph": "photographs/3.jpg"}],
    ),
    (
        f"{SAMPLE}/holes/centre_tube",
        [
            {
                "shape": "round",
                "count": 60,
                "readings": {"diameter": [{"text": "4.0 mm", "hole": 3}, {"text": "4.1 mm", "hole": 7}]},
            }
        ],
    ),
)
"""What the third version of the document adds."""


def without_in_use(document):
    """Take out of a document what databases of before the third version have no place for."""
    for path in (change[0] for change in IN_USE):
        *steps, name = path.split("/")
        held = document
        for step in steps:
            held = held[int(step)] if isinstance(held, list) else held[step]
        if path == f"{SAMPLE}/readings/element.potting_depth":
            held[name] = ["2.1 mm"]
        elif path == f"{SAMPLE}/holes/centre_tube":
            held[name][0]["readings"]["diameter"] = ["4.0 mm", "4.1 mm"]
        else:
            del held[name]
    document["samples"][0]["readings"]["can.mass"][1] = "90 g"

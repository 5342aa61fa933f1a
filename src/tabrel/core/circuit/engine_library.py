"""Three invented engines to begin with; no engine in the world is one of them."""

from __future__ import annotations

from tabrel.core.study.model import Circuit, EngineHotPoint, PumpEfficiency, Regulator, StatedLoss, Stud

ENGINES: dict[str, Circuit] = {
    "small petrol, 1.2 L": Circuit(
        name="small petrol, 1.2 L",
        pump_displacement_cm3_rev=9.5,
        pump_efficiency=PumpEfficiency(0.90, 3000.0, 350.0, 100.0),
        regulator=Regulator(420.0, 120.0, 5500.0, "pump", 900.0),
        head=StatedLoss(8.0, 28.0, 100.0),
        engine=EngineHotPoint(290.0, 3000.0, 100.0, bearing_rise_k=8.0),
        stud=Stud(12.0, 20.0, 11.6, 12.6),
        gauge="gallery",
        provenance="assumed",
    ),
    "service diesel, 2.2 L": Circuit(
        name="service diesel, 2.2 L",
        pump_displacement_cm3_rev=15.5,
        pump_efficiency=PumpEfficiency(0.87, 3000.0, 400.0, 100.0),
        regulator=Regulator(470.0, 160.0, 4800.0, "pump", 1100.0),
        cooler=StatedLoss(18.0, 40.0, 100.0, 0.35, 150.0),
        head=StatedLoss(9.0, 40.0, 100.0, 0.1),
        engine=EngineHotPoint(330.0, 3000.0, 100.0, jet_share=0.28, jet_opening_kpa=160.0),
        stud=Stud(13.0, 22.0, 12.6, 13.4),
        gauge="filter_inlet",
        provenance="assumed",
    ),
    "work diesel, 5.7 L": Circuit(
        name="work diesel, 5.7 L",
        pump_displacement_cm3_rev=42.0,
        pump_efficiency=PumpEfficiency(0.85, 2000.0, 450.0, 100.0),
        regulator=Regulator(560.0, 180.0, 2600.0, "gallery", 1300.0),
        cooler=StatedLoss(35.0, 80.0, 100.0, 0.6, 200.0),
        head=StatedLoss(10.0, 80.0, 100.0),
        engine=EngineHotPoint(390.0, 1800.0, 100.0, jet_share=0.22, jet_opening_kpa=200.0, jet_count=6, bearing_rise_k=12.0),
        stud=Stud(19.0, 30.0, 18.4, 19.6),
        gauge="gallery",
        provenance="assumed",
    ),
}
"""By name. All numbers are made up to fit each other, and assumed."""

"""Flows balance everywhere: what the pump delivers is slip, relief flow and filter flow; that is media, bypass and
defects; and that is what the engine takes. Slip, relief flow and the sum are worked here by hand from what is stated of
the engine, not asked of the model."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from builders import point, reading, solved_at

LEAK = ("samples/0/leak", {"count": 5, "diameter_mm": 0.7})
WEAK = reading("bypass.spring_installed_length", "19 mm")
CIRCUITS = {
    "as stated": point(),
    "a weak valve and defects": point(WEAK, LEAK),
    "valve in the block": point(WEAK, ("samples/0/bypass/location", "block")),
    "galleries empty": point(WEAK, LEAK, condition="filling"),
    "loaded media": point(WEAK, loading=6.0),
}

DISPLACEMENT = 14e-6  # m³ a turn, as stated
EFFICIENCY, AT_SPEED, AT_PRESSURE, AT_TEMPERATURE = 0.88, 3000.0, 400e3, 100.0
OPENING, FULL_AT = 480e3, 150e3 / (DISPLACEMENT * 5000 / 60)  # Pa, Pa per m³/s


@pytest.mark.parametrize("circuit", CIRCUITS)
@settings(max_examples=25, deadline=None)
@given(temperature=st.floats(-30.0, 140.0), speed=st.floats(600.0, 6500.0))
def test_what_the_pump_delivers_goes_somewhere(circuit, temperature, speed):
    problem = CIRCUITS[circuit]
    solved = solved_at(problem, temperature, speed)
    viscosity = {t: float(problem.oil.dynamic_viscosity(t)) for t in (temperature, AT_TEMPERATURE)}
    pump = float(solved.quantity("pump_pressure")[0])
    slip = (
        (1 - EFFICIENCY)
        * DISPLACEMENT
        * AT_SPEED
        / 60
        * (pump / AT_PRESSURE)
        * (viscosity[AT_TEMPERATURE] / viscosity[temperature])
    )
    relief = max(0.0, pump - OPENING) / FULL_AT + max(0.0, pump - problem.circuit.safety) / FULL_AT
    filter_flow = float(solved.quantity("filter_flow")[0])
    assert slip + relief + filter_flow == pytest.approx(DISPLACEMENT * speed / 60, rel=1e-6)


@pytest.mark.parametrize("circuit", CIRCUITS)
@settings(max_examples=25, deadline=None)
@given(temperature=st.floats(-30.0, 140.0), speed=st.floats(600.0, 6500.0))
def test_what_enters_the_filter_leaves_it_and_the_engine_takes_it(circuit, temperature, speed):
    problem = CIRCUITS[circuit]
    solved = solved_at(problem, temperature, speed)
    shares = [float(solved.quantity(f"{way}_fraction")[0]) for way in ("media", "bypass", "defect")]
    assert sum(shares) == pytest.approx(1.0, rel=1e-9)
    assert min(shares) >= 0
    if problem.condition == "filling":
        assert solved.quantity("gallery_pressure")[0] == 0
        return
    taken = problem.circuit.gallery_flow(solved.quantity("gallery_pressure"), solved.place.fluid, solved.place.bearing_viscosity)
    np.testing.assert_allclose(taken, solved.quantity("filter_flow"), rtol=1e-9)

"""Flows balance everywhere: what the pump delivers is slip, relief flow and filter flow; that is media, bypass and
defects; and that is what the engine takes. Slip, relief flow and the sum are worked here by hand from what is stated of
the engine, not asked of the model."""

from __future__ import annotations

import numpy as np
import pytest

from builders import point, reading
from tabrel.core.circuit.solution import solve_circuit

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

PLACES = np.random.default_rng(20261126).uniform(0.0, 1.0, (2, 400))
TEMPERATURES, SPEEDS = -30.0 + 170.0 * PLACES[0], 600.0 + 5900.0 * PLACES[1]


def solved(problem):
    return solve_circuit(problem, problem.place(TEMPERATURES, SPEEDS))


@pytest.mark.parametrize("circuit", CIRCUITS)
def test_what_the_pump_delivers_goes_somewhere(circuit):
    problem = CIRCUITS[circuit]
    result = solved(problem)
    pump = result.quantity("pump_pressure")
    thicker = problem.oil.dynamic_viscosity(np.array(AT_TEMPERATURE)) / problem.oil.dynamic_viscosity(TEMPERATURES)
    slip = (1 - EFFICIENCY) * DISPLACEMENT * AT_SPEED / 60 * (pump / AT_PRESSURE) * thicker
    relief = (np.maximum(0.0, pump - OPENING) + np.maximum(0.0, pump - problem.circuit.safety)) / FULL_AT
    assert (relief > 0).any()
    assert (relief == 0).any()
    np.testing.assert_allclose(slip + relief + result.quantity("filter_flow"), DISPLACEMENT * SPEEDS / 60, rtol=1e-6)


@pytest.mark.parametrize("circuit", CIRCUITS)
def test_what_enters_the_filter_leaves_it_and_the_engine_takes_it(circuit):
    problem = CIRCUITS[circuit]
    computed = solved(problem)
    shares = np.array([computed.quantity(f"{way}_fraction") for way in ("media", "bypass", "defect")])
    np.testing.assert_allclose(shares.sum(axis=0), 1.0, rtol=1e-9)
    assert shares.min() >= 0
    if problem.condition == "filling":
        assert not computed.quantity("gallery_pressure").any()
        return
    taken = problem.circuit.gallery_flow(
        computed.quantity("gallery_pressure"), computed.place.fluid, computed.place.bearing_viscosity
    )
    np.testing.assert_allclose(taken, computed.quantity("filter_flow"), rtol=1e-9)

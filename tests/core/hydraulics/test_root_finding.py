"""Many roots at once: cube roots, which are known, with and without foresight; and a circuit of which too much was foreseen."""

from __future__ import annotations

import numpy as np

from builders import point
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.circuit.state import BALANCE_TOLERANCE
from tabrel.core.hydraulics import root_finding
from tabrel.core.hydraulics.root_finding import falling_roots

WANTED = np.linspace(0.5, 3.0, 400)


def cube_roots(**how):
    asked = []

    def short(x, i):
        asked.append(i.size)
        return WANTED[i] ** 3 - x**3, -3 * x**2

    ends = {"lower": np.zeros(400), "upper": np.full(400, 4.0), "start": np.full(400, 2.0)}
    return falling_roots(short, tolerance=np.full(400, 1e-9), **ends, **how), sum(asked)


def test_what_is_foreseen_is_within_tolerance_and_costs_less():
    plain, cost = cube_roots()
    foreseen, less = cube_roots(foresees=True)
    for roots in (plain, foreseen):
        assert roots.converged.all()
        assert np.abs(WANTED**3 - roots.values**3).max() <= 1e-9
    assert less < cost


def test_a_circuit_of_which_too_much_was_foreseen_is_solved_after_all(monkeypatch):
    monkeypatch.setattr(root_finding, "FORESIGHT", 0.0)  # the second step is then taken for the last one everywhere
    problem = point()
    place = problem.place(np.linspace(-20.0, 120.0, 30)[:, None], np.linspace(700.0, 6000.0, 30)[None, :])
    off = np.abs(problem.state(problem.solve(place, foresees=True).values, place).balance.value)
    tolerance = BALANCE_TOLERANCE * problem.circuit.pump_delivery(place.speed)
    assert (off > tolerance).any()
    result = solve_circuit(problem, place)
    assert result.converged.all()
    assert (np.abs(result.state.balance.value) <= tolerance).all()

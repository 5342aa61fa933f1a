"""Quantities of a solved circuit at each place: pressures, flows, shares."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.state import CircuitState, OperatingPoint, Place

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class SolvedCircuit:
    """The circuit solved at a place.

    Attributes
    ----------
    point : OperatingPoint
        What was solved.
    place : Place
        Where.
    state : CircuitState
        The solution.
    converged : ndarray of bool
        Where there is one; the pump may be unable to open the anti-drainback valve.
    evaluations : int
        How often the residual was evaluated for all places together.
    """

    point: OperatingPoint
    place: Place
    state: CircuitState
    converged: NDArray[np.bool_]
    evaluations: int

    def quantity(self, name: str) -> FloatArray:
        """Return one of `SOLVED_QUANTITIES` in SI units, NaN where there is no solution."""
        values = SOLVED_QUANTITIES[name](self)
        return values if self.converged.all() else np.where(self.converged, values, np.nan)


def solve_circuit(point: OperatingPoint, place: Place) -> SolvedCircuit:
    """Return the circuit solved at every place at once.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil, condition and loading; its numbers may be draws.
    place : Place
        Where.
    """
    roots = point.solve(place, foresees=True)
    state = point.state(roots.values, place)
    if (roots.converged & (np.abs(state.balance.value) > point.balance_tolerance(place))).any():  # not as foreseen
        missed = roots.evaluations
        roots = point.solve(place, roots.values)
        roots, state = replace(roots, evaluations=roots.evaluations + missed), point.state(roots.values, place)
    return SolvedCircuit(point, place, state, roots.converged, roots.evaluations)


def _gauge(solved: SolvedCircuit) -> FloatArray:
    state = solved.state
    taps = {"pump": state.pump.value, "filter_inlet": state.filter_inlet.value, "gallery": state.gallery.value}
    return taps[solved.point.circuit.gauge]


def _share(flow: Callable[[CircuitState], FloatArray]) -> Callable[[SolvedCircuit], FloatArray]:
    return lambda solved: flow(solved.state) / solved.state.filter.flow_rate.value


SOLVED_QUANTITIES: dict[str, Callable[[SolvedCircuit], FloatArray]] = {
    "element_pressure": lambda solved: solved.state.filter.element_pressure.value,
    "filter_pressure": lambda solved: solved.state.filter.filter_pressure.value,
    "gallery_pressure": lambda solved: solved.state.gallery.value,
    "filter_inlet_pressure": lambda solved: solved.state.filter_inlet.value,
    "pump_pressure": lambda solved: solved.state.pump.value,
    "gauge_pressure": _gauge,
    "gauge_excess": lambda solved: _gauge(solved) - solved.state.gallery.value,
    "filter_flow": lambda solved: solved.state.filter.flow_rate.value,
    "bypass_fraction": _share(lambda state: state.filter.bypass_flow),
    "defect_fraction": _share(lambda state: state.filter.defect_flow),
    "unfiltered_fraction": _share(lambda state: state.filter.bypass_flow + state.filter.defect_flow),
    "media_fraction": _share(lambda state: state.filter.media_flow),
    "regulator_fraction": lambda solved: (
        solved.state.relief_flow.value / (solved.state.relief_flow.value + solved.state.filter.flow_rate.value)
    ),
    "lift": lambda solved: solved.state.filter.lift,
    "balance": lambda solved: solved.state.balance.value / solved.point.circuit.pump_delivery(solved.place.speed),
}
"""By name: pressures [Pa], filter flow [m³/s], shares [-], lift [m]; the balance is what is left over of it."""

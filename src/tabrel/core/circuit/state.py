"""The whole circuit at one unknown of the filter, and the solution of its flow balance at many places at once."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.engine_circuit import CircuitModel, Condition
from tabrel.core.circuit.filter_flow import FilterState, axial_constants, filter_state, lowest_unknown
from tabrel.core.circuit.filter_model import FilterModel
from tabrel.core.hydraulics.flow_curve import FlowCurve, Fluid, fluid_at
from tabrel.core.hydraulics.grid_roots import grid_roots
from tabrel.core.hydraulics.root_finding import Roots
from tabrel.core.oil.model import OilModel
from tabrel.core.uncertainty.sampled_number import FloatOrArray

FloatArray = NDArray[np.float64]

BALANCE_TOLERANCE = 1e-9
"""Of the flow balance, relative to the pump's delivery."""

LEAST_GUESSED_PRESSURE = 10e3  # Pa, of the gallery, to begin with


@dataclass(frozen=True)
class Place:
    """Where the circuit is solved: arrays that broadcast against each other and against the models' draws.

    Attributes
    ----------
    fluid : Fluid
        Oil in the sump, and in the circuit.
    can_fluid : Fluid
        Oil in the filter, which a cold can may hold back.
    speed : ndarray
        Of the engine. [rpm]
    bearing_viscosity : ndarray
        μ in the bearings; zero while the galleries are empty. [Pa s]
    """

    fluid: Fluid
    can_fluid: Fluid
    speed: FloatArray
    bearing_viscosity: FloatArray


@dataclass(frozen=True)
class CircuitState:
    """Pressures [Pa] and flow rates [m³/s] of the whole circuit at an unknown x of the filter."""

    filter: FilterState
    gallery: FlowCurve
    head: FloatArray
    filter_inlet: FlowCurve
    cooler: FloatArray
    pump: FlowCurve
    relief_flow: FloatArray
    balance: FlowCurve


@dataclass(frozen=True)
class OperatingPoint:
    """The parts of a circuit problem that do not change while it is solved.

    Attributes
    ----------
    filter, circuit, oil : FilterModel, CircuitModel, OilModel
        The parts.
    condition : str
        ``steady``, or ``filling``: galleries empty in the first seconds.
    loading : float, or an array
        Multiplies the media's resistance.
    """

    filter: FilterModel
    circuit: CircuitModel
    oil: OilModel
    condition: Condition = "steady"
    loading: FloatOrArray = 1.0

    def bearing_viscosity(self, temperature: FloatArray, speed: FloatArray) -> FloatArray:
        """Return μ in the bearings [Pa s]; zero while the galleries are empty."""
        if self.condition == "filling":
            return np.zeros(np.broadcast_shapes(np.shape(temperature), np.shape(speed)))
        return self.circuit.bearing_viscosity(self.oil, temperature, speed)

    def place(self, temperature: FloatArray, speed: FloatArray, can_temperature: FloatArray | None = None) -> Place:
        """Return the place at sump temperatures [°C] and speeds [rpm]; the can is as warm unless said."""
        fluid = fluid_at(self.oil, temperature)
        can_fluid = fluid if can_temperature is None else fluid_at(self.oil, can_temperature)
        return Place(fluid, can_fluid, speed, self.bearing_viscosity(temperature, speed))

    def state(self, x: FloatArray, place: Place) -> CircuitState:
        """Return the state of the circuit where the filter's unknown is x [Pa].

        The balance is what the pump delivers less slip, relief flow and filter flow; it falls with x.
        """
        circuit, fluid = self.circuit, place.fluid
        inside = filter_state(self.filter, x, place.can_fluid, loading=self.loading)
        flow = inside.flow_rate
        if self.condition == "filling":
            gallery = FlowCurve(np.zeros_like(flow.value), np.zeros_like(flow.value))
        else:
            pressure, slope = circuit.gallery_pressure(flow.value, fluid, place.bearing_viscosity)
            gallery = FlowCurve(pressure, slope * flow.slope)
        head, head_slope = circuit.head.pressure(flow.value, fluid)
        cooler, cooler_slope = circuit.cooler.pressure(flow.value, fluid)
        inlet = FlowCurve(
            gallery.value + inside.filter_pressure.value + head,
            gallery.slope + inside.filter_pressure.slope + head_slope * flow.slope,
        )
        pump = FlowCurve(inlet.value + cooler, inlet.slope + cooler_slope * flow.slope)
        relief_flow = circuit.relief_flow(pump, gallery)
        per_pressure = circuit.slip / fluid.dynamic_viscosity
        balance = FlowCurve(
            circuit.pump_delivery(place.speed) - per_pressure * pump.value - relief_flow.value - flow.value,
            -per_pressure * pump.slope - relief_flow.slope - flow.slope,
        )
        return CircuitState(inside, gallery, head, inlet, cooler, pump, relief_flow.value, balance)

    def solve(self, place: Place, start: FloatArray | None = None, *, foresees: bool = False) -> Roots:
        """Return the filter's unknown at every place, with the evaluations it cost.

        Parameters
        ----------
        place : Place
            Where; its arrays and the models' draws broadcast to the shape of the result.
        start : ndarray or None
            A first guess that broadcasts to that shape. [Pa]
        foresees : bool
            As of `falling_roots`.

        Returns
        -------
        Roots
        """
        first = self._first_guess(place) if start is None else start
        upper = np.asarray(self.circuit.highest_pump_pressure(place.speed))
        shape = np.broadcast_shapes(np.shape(first), place.bearing_viscosity.shape, upper.shape)
        return grid_roots(
            Problem(self, place),
            lambda problem, x: problem.point.state(x, problem.place).balance,
            shape,
            upper=upper,
            start=np.clip(first, 0.0, upper),
            lower=lowest_unknown(self.filter),
            tolerance=self.balance_tolerance(place),
            foresees=foresees,
        )

    def balance_tolerance(self, place: Place) -> FloatArray:
        """Return what may be left of the flow balance where the circuit counts as solved. [m³/s]"""
        return np.asarray(BALANCE_TOLERANCE * self.circuit.pump_delivery(place.speed))

    def _first_guess(self, place: Place) -> FloatArray:
        """Return x of a circuit whose pump is held where the regulator would hold it.

        The engine takes what it would at the regulator's pressure, and the holes' inertia that of the
        flow which the viscous parts alone would pass.
        """
        circuit, model, loading = self.circuit, self.filter, self.loading
        delivery, upper = circuit.pump_delivery(place.speed), circuit.highest_pump_pressure(place.speed)
        cosh, _, conductance = axial_constants(model, loading)
        element = cosh / conductance * place.can_fluid.dynamic_viscosity
        ways = model.hardware + circuit.cooler.restriction + circuit.head.restriction
        total = element + ways.a * place.fluid.dynamic_viscosity
        if self.condition == "steady":
            at = np.clip(circuit.regulator_opening, LEAST_GUESSED_PRESSURE, circuit.safety)
            total = total + at / circuit.gallery_flow(at, place.fluid, place.bearing_viscosity)
        most = circuit.regulator_opening + delivery / circuit.regulator_conductance
        flow = np.minimum(most / total, delivery)
        total = total + ways.b * place.fluid.density * flow
        return np.asarray(np.minimum(np.minimum(most / total, delivery) * element, 0.5 * upper))


@dataclass(frozen=True)
class Problem:
    """A circuit and where it is solved: all that differs from place to place."""

    point: OperatingPoint
    place: Place

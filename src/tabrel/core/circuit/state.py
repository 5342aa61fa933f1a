"""The whole circuit at one unknown of the filter, and the solution of its flow balance at many places at once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import reduce

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.engine_circuit import CircuitModel, Condition
from tabrel.core.circuit.filter_alone import unknown_at_opening
from tabrel.core.circuit.filter_flow import FilterState, axial_constants, filter_state, hardware_pressure, lowest_unknown
from tabrel.core.circuit.filter_model import FILTER_SENSED, FilterModel
from tabrel.core.hydraulics.coarser_grid import coarser_grid
from tabrel.core.hydraulics.flow_curve import FlowCurve, Fluid, fluid_at
from tabrel.core.hydraulics.grid_roots import grid_roots
from tabrel.core.hydraulics.root_finding import Roots
from tabrel.core.oil.model import OilModel
from tabrel.core.parts.bypass_flow import times_opening_pressure
from tabrel.core.uncertainty.model_arrays import chosen, holds_arrays
from tabrel.core.uncertainty.sampled_number import FloatOrArray

FloatArray = NDArray[np.float64]

BALANCE_TOLERANCE = 1e-9
"""Of the flow balance, relative to the pump's delivery."""

STEPS_WHILE_SHUT = 6
"""Of Newton's method for the circuit with its bypass valve shut, before the whole circuit is solved instead."""

STEPS_OF_A_START = 2
"""Of the same where it only begins another search: on a coarser grid, and where the valve is open."""

SETTLED_STEP = 5e-6
"""Of the flow while the valve is shut, relative to the pump's delivery; the step after it is about its square."""

MOSTLY_SETTLED = 0.95
"""Share of places that are settled, above which the whole circuit is as soon solved at the others."""

LEAST_TIMES_OPENING = 1.02
"""Of its opening pressure a guess where the valve is open; Newton's method does well from above, where the flow rises fast."""


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
    filter_inlet: FlowCurve
    pump: FlowCurve
    relief_flow: FlowCurve
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
        inside = filter_state(self.filter, x, place.can_fluid, loading=self.loading)
        flow = inside.flow_rate
        gallery, inlet, pump = self._pressures(flow, inside.filter_pressure, place)
        relief_flow = self.circuit.relief_flow(pump, gallery)
        per_pressure = self.circuit.slip / place.fluid.dynamic_viscosity
        balance = FlowCurve(
            self.circuit.pump_delivery(place.speed) - per_pressure * pump.value - relief_flow.value - flow.value,
            -per_pressure * pump.slope - relief_flow.slope - flow.slope,
        )
        return CircuitState(inside, gallery, inlet, pump, relief_flow, balance)

    def _pressures(self, flow: FlowCurve, filter_pressure: FlowCurve, place: Place) -> tuple[FlowCurve, FlowCurve, FlowCurve]:
        """Return the pressure in the gallery, at the filter's inlet and at the pump, of a flow and the filter's pressure."""
        circuit = self.circuit
        if self.condition == "filling":
            gallery = FlowCurve(np.zeros_like(flow.value), np.zeros_like(flow.value))
        else:
            pressure, slope = circuit.gallery_pressure(flow.value, place.fluid, place.bearing_viscosity)
            gallery = FlowCurve(pressure, slope * flow.slope)
        inlet = circuit.head.before(gallery + filter_pressure, flow, place.fluid)
        return gallery, inlet, circuit.cooler.before(inlet, flow, place.fluid)

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
        """
        first, settled = self._first_guess(place) if start is None else (start, None)
        upper = np.asarray(self.circuit.highest_pump_pressure(place.speed))
        shape = np.broadcast_shapes(np.shape(first), place.bearing_viscosity.shape, upper.shape)
        return grid_roots(
            Problem(self, place),
            lambda problem, x: problem.point.state(x, problem.place).balance,
            shape,
            upper=upper,
            start=np.minimum(np.maximum(first, 0.0), upper),
            lower=lowest_unknown(self.filter),
            tolerance=self.balance_tolerance(place),
            foresees=foresees,
            settled=settled if foresees else None,
        )

    def balance_tolerance(self, place: Place) -> FloatArray:
        """Return what may be left of the flow balance where the circuit counts as solved. [m³/s]"""
        return np.asarray(BALANCE_TOLERANCE * self.circuit.pump_delivery(place.speed))

    def _first_guess(self, place: Place) -> tuple[FloatArray, NDArray[np.bool_]]:
        """Return x of the circuit with its bypass valve shut and without leak, and where that is the solution.

        Then one flow passes all its parts, so that it costs a fraction of the whole. Where it would open the valve, x
        is about what the valve sees when it passes the rest.
        """
        model, fluid = self.filter, place.can_fluid
        cosh, _, conductance = axial_constants(model, self.loading)
        at_far_end = fluid.dynamic_viscosity / conductance
        flow, settled = self._flow_while_shut(place, at_far_end * cosh)
        x = flow * (at_far_end * cosh if model.is_solved_at_plate_end else at_far_end)
        if model.leak is not None:
            settled = np.zeros_like(settled)
        if model.valve is None:
            return x, settled
        sees = x
        if model.location in FILTER_SENSED:
            sees = x + hardware_pressure(model, FlowCurve(flow, np.ones_like(flow)), fluid).value
        is_shut = sees < model.valve.opening_pressure * fluid.valve_scale
        return self._with_bypass_flow(x, ~is_shut, place), settled & is_shut

    def _with_bypass_flow(self, x: FloatArray, is_open: NDArray[np.bool_], place: Place) -> FloatArray:
        """Return the guess where the valve is open as well.

        There the filter's pressure hardly rises above that at which the valve opens, which says how much flows in all, and
        so what is left for the valve.
        """
        if not is_open.any():
            return x
        shape = np.broadcast_shapes(x.shape, is_open.shape)
        x, where = np.array(np.broadcast_to(x, shape)), np.nonzero(np.broadcast_to(is_open, shape))
        here = chosen(Problem(self, place), shape, where)
        point, fluid = here.point, here.place.can_fluid
        model, valve, mu = point.filter, point.filter.valve, fluid.dynamic_viscosity
        opening = unknown_at_opening(model, point.loading, fluid)
        cosh, resistance, conductance = axial_constants(model, point.loading)
        media_flow, viscous, inertial, held, share = opening * conductance / mu, 0.0, 0.0, 0.0, 1.0
        if model.location in FILTER_SENSED:
            media_flow, sees = media_flow / cosh, valve.opening_pressure * fluid.valve_scale
        else:
            viscous, inertial, held = model.hardware.a * mu, model.hardware.b * fluid.density, model.anti_drain_pressure
            if model.is_solved_at_plate_end:
                media_flow, sees = media_flow / cosh, opening
            else:  # what passes the valve comes along the element
                along, share = resistance * mu / cosh, cosh
                viscous, sees = viscous + along, opening * cosh - along * media_flow
        total, _ = point._flow_through(here.place, viscous, inertial, sees + held, most_steps=STEPS_OF_A_START)
        times = times_opening_pressure(valve, np.maximum(total, media_flow) / share, fluid, media_flow / share)
        x[where] = np.minimum(x[where], opening * np.maximum(times, LEAST_TIMES_OPENING))
        return x

    def _flow_while_shut(self, place: Place, element: FloatArray) -> tuple[FloatArray, NDArray[np.bool_]]:
        """Return the flow while all of it passes an element of which a differential pressure over flow is known [Pa s/m³]."""
        hardware, fluid = self.filter.hardware, place.can_fluid
        viscous, inertial = element + hardware.a * fluid.dynamic_viscosity, hardware.b * fluid.density
        start, held = None, self.filter.anti_drain_pressure
        grid = coarser_grid(place.fluid.dynamic_viscosity, place.speed)
        if grid and not holds_arrays(self):
            kept, through = grid.kept(place), (grid.kept(viscous), grid.kept(inertial), held)
            start = grid.in_between(self._flow_through(kept, *through, most_steps=STEPS_OF_A_START)[0])
        return self._flow_through(place, viscous, inertial, held, start)

    def _flow_through(
        self,
        place: Place,
        viscous: FloatOrArray,
        inertial: FloatOrArray,
        held: FloatOrArray,
        start: FloatArray | None = None,
        most_steps: int = STEPS_WHILE_SHUT,
    ) -> tuple[FloatArray, NDArray[np.bool_]]:
        """Return the flow of the circuit through something in place of the filter, and where it is found.

        It is sought by Newton's method from a first guess, else from that without jets, safety valve and limits of cooler
        and head, which is the root of a quadratic.

        Parameters
        ----------
        place : Place
            Where.
        viscous, inertial, held : float or ndarray
            The differential pressure is held + viscous·flow + inertial·flow². [Pa], [Pa s/m³], [Pa s²/m⁶]
        start : ndarray or None
            The first guess. [m³/s]
        most_steps : int
            Of Newton's method.
        """
        circuit, delivery = self.circuit, self.circuit.pump_delivery(place.speed)
        slip = circuit.slip / place.fluid.dynamic_viscosity
        g, opening = circuit.regulator_conductance, circuit.regulator_opening
        is_regulated = bool(np.all(np.isfinite(opening)))
        flow = self._flow_without_limits(place, viscous, inertial, held) if start is None else start
        for _ in range(most_steps):
            inertia = inertial * flow
            through = FlowCurve((viscous + inertia) * flow + held, viscous + 2 * inertia)
            gallery, _inlet, pump = self._pressures(FlowCurve(flow, np.ones(())), through, place)
            sensed = gallery if circuit.sense == "gallery" else pump
            # what is relieved is less than none where a valve is shut: the least balance is the true one
            balances = [(delivery - slip * pump.value - flow, 1 + slip * pump.slope)]
            valves = [(sensed, opening)] if is_regulated else []
            if (pump.value > circuit.safety).any():
                valves.append((pump, circuit.safety))
            for valve, over in valves:
                relief, slope = g * (valve.value - over), g * valve.slope
                balances += [(left - relief, fall + slope) for left, fall in balances]
            step = reduce(np.minimum, (left / fall for left, fall in balances))
            flow = np.maximum(flow + step, 0.0)
            settled = np.abs(step) <= SETTLED_STEP * delivery
            if np.count_nonzero(settled) >= MOSTLY_SETTLED * settled.size:
                break
        return flow, settled

    def _flow_without_limits(self, place: Place, viscous: FloatOrArray, inertial: FloatOrArray, held: FloatOrArray) -> FloatArray:
        """Return the flow as in `_flow_through` without jets, safety valve and limits of cooler and head."""
        circuit, delivery = self.circuit, self.circuit.pump_delivery(place.speed)
        fluid, bearings = place.fluid, self.circuit.bearings * place.bearing_viscosity
        slip, before = circuit.slip / fluid.dynamic_viscosity, circuit.cooler.restriction + circuit.head.restriction
        all_viscous = viscous + before.a * fluid.dynamic_viscosity + bearings
        all_inertial = inertial + before.b * fluid.density
        # the pump less its slip; and less what the regulator passes, which would be less than none where it is shut
        flow = _positive_root(slip * all_inertial, 1 + slip * all_viscous, delivery - slip * held)
        g, opening = circuit.regulator_conductance, circuit.regulator_opening
        if not np.all(np.isfinite(opening)):
            return flow
        sensed_viscous, sensed_inertial, sensed_held = (
            (bearings, 0.0, 0.0) if circuit.sense == "gallery" else (all_viscous, all_inertial, held)
        )
        relieved = _positive_root(
            slip * all_inertial + g * sensed_inertial,
            1 + slip * all_viscous + g * sensed_viscous,
            delivery - slip * held + g * (opening - sensed_held),
        )
        return np.minimum(flow, relieved)


@dataclass(frozen=True)
class Problem:
    """A circuit and where it is solved: all that differs from place to place."""

    point: OperatingPoint
    place: Place


def _positive_root(square: FloatOrArray, linear: FloatArray, constant: FloatArray) -> FloatArray:
    """Return the root q ≥ 0 of square·q² + linear·q = constant, and zero where there is none."""
    constant = np.maximum(constant, 0.0)
    return np.asarray(2 * constant / (linear + np.sqrt(linear**2 + 4 * square * constant)))

"""The operating map: the whole circuit solved over oil temperature and engine speed at once."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit import NO_LOSS, CircuitModel, Condition
from tabrel.core.errors import OutOfRangeError, require_positive
from tabrel.core.filter_flow import FilterState, FlowCurve, Fluid, axial_constants, filter_state, fluid_at
from tabrel.core.filter_model import FilterModel
from tabrel.core.oil import HOTTEST_OIL, OilModel
from tabrel.core.restrictions import Restriction
from tabrel.core.root_finding import Indices, Roots, falling_roots

FloatArray = NDArray[np.float64]

COLDEST_OIL = -100.0
"""No map goes below it. [°C]"""

BALANCE_TOLERANCE = 1e-9
"""Of the flow balance, relative to the pump's delivery."""


@dataclass(frozen=True)
class CircuitState:
    """Pressures [Pa] and flow rates [m³/s] of the whole circuit at an unknown x of the filter."""

    filter: FilterState
    gallery: FlowCurve
    head: FloatArray
    filter_inlet: FlowCurve
    cooler: FloatArray
    pump: FlowCurve
    dumped: FloatArray
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
    loading : float
        Multiplies the media's resistance.
    """

    filter: FilterModel
    circuit: CircuitModel
    oil: OilModel
    condition: Condition = "steady"
    loading: float = 1.0

    def bearing_viscosity(self, temperature: FloatArray, speed: FloatArray) -> FloatArray:
        """Return μ in the bearings [Pa s]; zero while the galleries are empty."""
        if self.condition == "filling":
            return np.zeros(np.broadcast_shapes(np.shape(temperature), np.shape(speed)))
        rise = self.circuit.bearing_temperature_rise(self.oil, temperature, speed)
        return self.oil.dynamic_viscosity(temperature + rise)

    def state(self, x: FloatArray, fluid: Fluid, speed: FloatArray, bearing_viscosity: FloatArray) -> CircuitState:
        """Return the state of the circuit where the filter's unknown is x [Pa].

        The balance is what the pump delivers less slip, dump and filter flow; it falls with x.
        """
        circuit = self.circuit
        inside = filter_state(self.filter, x, fluid, loading=self.loading)
        flow = inside.flow_rate
        if self.condition == "filling":
            gallery = FlowCurve(np.zeros_like(flow.value), np.zeros_like(flow.value))
        else:
            pressure, slope = circuit.gallery_pressure(flow.value, fluid, bearing_viscosity)
            gallery = FlowCurve(pressure, slope * flow.slope)
        head, head_slope = circuit.head.pressure(flow.value, fluid)
        cooler, cooler_slope = circuit.cooler.pressure(flow.value, fluid)
        inlet = FlowCurve(
            gallery.value + inside.filter_pressure.value + head,
            gallery.slope + inside.filter_pressure.slope + head_slope * flow.slope,
        )
        pump = FlowCurve(inlet.value + cooler, inlet.slope + cooler_slope * flow.slope)
        dumped = circuit.dumped(pump, gallery)
        per_pressure = circuit.slip / fluid.dynamic_viscosity
        balance = FlowCurve(
            circuit.pump_delivery(speed) - per_pressure * pump.value - dumped.value - flow.value,
            -per_pressure * pump.slope - dumped.slope - flow.slope,
        )
        return CircuitState(inside, gallery, head, inlet, cooler, pump, dumped.value, balance)

    def solve(self, fluid: Fluid, speed: FloatArray, bearing_viscosity: FloatArray) -> Roots:
        """Return the filter's unknown at every point, with the evaluations it cost."""
        shape = bearing_viscosity.shape
        mu, rho, scale, rpm, bearing = (
            np.broadcast_to(array, shape).ravel()
            for array in (fluid.dynamic_viscosity, fluid.density, fluid.valve_scale, speed, bearing_viscosity)
        )
        delivery = self.circuit.pump_delivery(rpm)
        upper = self.circuit.highest_pump_pressure(rpm)

        def balance(x: FloatArray, i: Indices) -> tuple[FloatArray, FloatArray]:
            curve = self.state(x, Fluid(mu[i], rho[i], scale[i]), rpm[i], bearing[i]).balance
            return curve.value, curve.slope

        roots = falling_roots(
            balance,
            lower=np.zeros_like(upper),
            upper=upper,
            start=self._first_guess(Fluid(mu, rho, scale), delivery, upper, bearing),
            tolerance=BALANCE_TOLERANCE * delivery,
        )
        return Roots(roots.values.reshape(shape), roots.converged.reshape(shape), roots.evaluations)

    def _first_guess(self, fluid: Fluid, delivery: FloatArray, upper: FloatArray, bearing_viscosity: FloatArray) -> FloatArray:
        """Return x of a circuit without inertia, with the pump held where the regulator would hold it."""
        circuit = self.circuit
        cosh, _, conductance = axial_constants(self.filter, self.loading)
        element = cosh / conductance * fluid.dynamic_viscosity
        others = (self.filter.hardware.a + circuit.cooler.restriction.a + circuit.head.restriction.a) * (
            fluid.dynamic_viscosity
        ) + circuit.bearings * bearing_viscosity
        total = element + others
        held = np.minimum(circuit.regulator_opening + delivery / circuit.regulator_conductance, total * delivery)
        return np.minimum(held * element / total, 0.5 * upper)


@dataclass(frozen=True)
class LedgerPart:
    """One part's differential pressure over the map, by its origin. [Pa]

    Attributes
    ----------
    name : str
        Of the part.
    viscous, inertial : ndarray
        Rising with flow and with its square.
    spring : float
        What the part holds back whatever the flow, such as the anti-drain valve.
    """

    name: str
    viscous: FloatArray
    inertial: FloatArray
    spring: float

    @property
    def total(self) -> FloatArray:
        """All of it. [Pa]"""
        return self.viscous + self.inertial + self.spring


@dataclass(frozen=True)
class OperatingMap:
    """The solved map; arrays have shape (temperatures, speeds).

    They are NaN where the oil does not pump, or where the pump cannot open the anti-drain valve.

    Attributes
    ----------
    temperature, speed : ndarray
        Axes. [°C], [rpm]
    element_pressure, filter_pressure, gallery_pressure, filter_inlet_pressure, pump_pressure,
    gauge_pressure : ndarray
        [Pa]
    bypass_fraction, defect_fraction, regulator_fraction : ndarray
        Shares of the filter flow, and of the delivery that the regulator dumps.
    filter_flow : ndarray
        All that passes the filter. [m³/s]
    lift : ndarray
        Of the bypass valve. [m]
    balance : ndarray
        Left over of the flow balance, relative to the pump's delivery.
    ledger : tuple of LedgerPart
        From pump to gallery.
    evaluations : int
        How often the residual was evaluated for the whole grid.
    """

    temperature: FloatArray
    speed: FloatArray
    element_pressure: FloatArray
    filter_pressure: FloatArray
    bypass_fraction: FloatArray
    defect_fraction: FloatArray
    gallery_pressure: FloatArray
    filter_inlet_pressure: FloatArray
    pump_pressure: FloatArray
    gauge_pressure: FloatArray
    filter_flow: FloatArray
    regulator_fraction: FloatArray
    lift: FloatArray
    balance: FloatArray
    ledger: tuple[LedgerPart, ...]
    evaluations: int


def check_axes(temperatures: Sequence[float], speeds: Sequence[float]) -> None:
    """Raise `OutOfRangeError` unless the axes are finite temperatures [°C] and speeds above zero [rpm]."""
    for temperature in temperatures:
        if not COLDEST_OIL <= temperature <= HOTTEST_OIL:
            span = f"{COLDEST_OIL:g} to {HOTTEST_OIL:g} °C"
            raise OutOfRangeError(f"{temperature:g} °C is outside the model, which runs from {span}")
    for speed in speeds:
        if not (np.isfinite(speed) and speed > 0):
            raise OutOfRangeError(f"a speed of {speed:g} rpm is not above zero: give engine speeds in rpm")
    if not len(temperatures) or not len(speeds):
        raise OutOfRangeError("a map needs one temperature and one speed at least")


def operating_map(point: OperatingPoint, temperatures: Sequence[float], speeds: Sequence[float]) -> OperatingMap:
    """Return the circuit solved over a grid in one pass.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil, condition and loading.
    temperatures : sequence of float, shape (m,)
        Oil temperatures. [°C]
    speeds : sequence of float, shape (n,)
        Engine speeds, above zero. [rpm]

    Returns
    -------
    OperatingMap

    Raises
    ------
    OutOfRangeError
        If an axis or the loading is outside the model.
    """
    check_axes(temperatures, speeds)
    require_positive(loading=point.loading)
    temperature, speed = np.asarray(temperatures, dtype=float), np.asarray(speeds, dtype=float)
    pumps = point.oil.pumps(temperature)
    warm = temperature[pumps][:, None]
    fluid = fluid_at(point.oil, warm)
    bearing_viscosity = point.bearing_viscosity(warm, speed[None, :])
    roots = point.solve(fluid, speed[None, :], bearing_viscosity)
    state = point.state(roots.values, fluid, speed[None, :], bearing_viscosity)
    solved = _map_arrays(point, state, speed[None, :])
    shape = (len(temperature), len(speed))
    all_converged = bool(roots.converged.all())

    def placed(array: FloatArray) -> FloatArray:
        whole = np.full(shape, np.nan)
        whole[pumps] = array if all_converged else np.where(roots.converged, array, np.nan)
        return whole

    return OperatingMap(
        temperature=temperature,
        speed=speed,
        ledger=tuple(
            LedgerPart(name, placed(viscous), placed(inertial), spring)
            for name, viscous, inertial, spring in _ledger(point, state, fluid)
        ),
        evaluations=roots.evaluations,
        **{name: placed(array) for name, array in solved.items()},
    )


def _map_arrays(point: OperatingPoint, state: CircuitState, speed: FloatArray) -> dict[str, FloatArray]:
    flow = state.filter.flow_rate.value
    taps = {
        "pump": state.pump.value,
        "filter_inlet": state.filter_inlet.value,
        "gallery": state.gallery.value,
    }
    return {
        "element_pressure": state.filter.element_pressure.value,
        "filter_pressure": state.filter.filter_pressure.value,
        "bypass_fraction": state.filter.bypass_flow / flow,
        "defect_fraction": state.filter.defect_flow / flow,
        "gallery_pressure": state.gallery.value,
        "filter_inlet_pressure": state.filter_inlet.value,
        "pump_pressure": state.pump.value,
        "gauge_pressure": taps[point.circuit.gauge],
        "filter_flow": flow,
        "regulator_fraction": state.dumped / (state.dumped + flow),
        "lift": state.filter.lift,
        "balance": state.balance.value / point.circuit.pump_delivery(speed),
    }


def _ledger(point: OperatingPoint, state: CircuitState, fluid: Fluid) -> Iterator[tuple[str, FloatArray, FloatArray, float]]:
    """Yield name, viscous, inertial and spring loss of every part from pump to gallery. [Pa]"""
    model, circuit, inside = point.filter, point.circuit, state.filter
    flow, media_flow, hardware_flow = inside.flow_rate.value, inside.media_flow, inside.hardware_flow
    mu, rho, none = fluid.dynamic_viscosity, fluid.density, np.zeros_like(flow)

    def passive(name: str, part: Restriction, through: FloatArray) -> tuple[str, FloatArray, FloatArray, float]:
        return name, part.a * mu * through, part.b * rho * through**2, 0.0

    if circuit.cooler is not NO_LOSS:
        yield passive("cooler", circuit.cooler.restriction, circuit.cooler.inner_flow(flow, fluid))
    if circuit.head is not NO_LOSS:
        yield passive("head", circuit.head.restriction, circuit.head.inner_flow(flow, fluid))
    yield passive("inlet_holes", model.inlet, hardware_flow)
    if model.anti_drain.a or model.anti_drain_pressure:
        name, viscous, inertial, _ = passive("anti_drain", model.anti_drain, hardware_flow)
        yield name, viscous, inertial, model.anti_drain_pressure
    media, pleats, tube = (a * mu * media_flow for a in (point.loading * model.media, model.pleats, model.tube.a))
    yield "media", media, none, 0.0
    yield "pleat_channels", pleats, none, 0.0
    if model.axial_way is not None:
        yield "axial_way", inside.element_pressure.value - media - pleats - tube, none, 0.0
    if model.tube.a:
        yield "centre_tube", tube, model.tube.b * rho * hardware_flow**2, 0.0
    yield passive("outlet", model.outlet, hardware_flow)
    if model.adapter.a:
        yield passive("adapter", model.adapter, hardware_flow)

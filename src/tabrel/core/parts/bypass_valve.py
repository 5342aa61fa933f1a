"""Bypass valve: opening pressure from the best evidence, full-open pressure, and the valve as a part."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import pi

from tabrel.core.hydraulics.restrictions import DISCHARGE_COEFFICIENT, Restriction, round_hole_restriction
from tabrel.core.parts.bypass_opening import FULL_LIFT_PRESSURE_RATIO, OpeningWay, opening_ways
from tabrel.core.parts.seat_and_spring import SPRING_KEYS, Seat, Spring, bypass_seat, coil_spring
from tabrel.core.study.model import Bypass
from tabrel.core.uncertainty.propagation import Result, Uncertain, Variables, missing_result
from tabrel.core.uncertainty.sampled_number import FloatOrArray, at_least_zero, nominal_value, values_of

PORT_PLATE = 1e-3  # m, the plate the valve's port is punched through


@dataclass(frozen=True)
class BypassEvidence:
    """The bypass valve from everything known of it.

    Attributes
    ----------
    opening : Result
        Opening pressure at 20 °C. [Pa]
    full_open : Result
        Pressure at full lift. [Pa]
    valve : BypassValve or None
        The valve as a part of the circuit; None while something is missing.
    missing : tuple of str
        What the valve as a part lacks.
    spring : Spring or None
        The coil spring, where its dimensions are all there.
    ways : tuple of OpeningWay
        Every way to the opening pressure there is, the best first.
    has_edges : bool
        Whether the seal may bear on either edge of the seat.
    """

    opening: Result
    full_open: Result
    valve: BypassValve | None
    missing: tuple[str, ...]
    spring: Spring | None = None
    ways: tuple[OpeningWay, ...] = ()
    has_edges: bool = False


@dataclass(frozen=True)
class BypassValve:
    """The bypass valve as a part of the circuit, at 20 °C.

    Attributes
    ----------
    opening_pressure : float, or draws of it
        [Pa]
    seat_area : float, or draws of it
        [m²]
    seat_diameter : float, or draws of it
        [m]
    land : float, or draws of it
        Length of the gap at closing. [m]
    spring_rate : float, or draws of it
        [N/m]
    lift_limit : float, or draws of it
        [m]
    port : Restriction
        The hole behind the seat.
    discharge : float, or draws of it
        Discharge coefficient of the curtain under the lifted disc.
    """

    opening_pressure: FloatOrArray
    seat_area: FloatOrArray
    seat_diameter: FloatOrArray
    land: FloatOrArray
    spring_rate: FloatOrArray
    lift_limit: FloatOrArray
    port: Restriction
    discharge: FloatOrArray = DISCHARGE_COEFFICIENT

    @property
    def rise_per_lift(self) -> FloatOrArray:
        """By how much of its opening pressure what it sees rises with its lift. [1/m]"""
        return self.spring_rate / (self.seat_area * self.opening_pressure)


def bypass_evidence(known: Mapping[str, Uncertain], bypass: Bypass, variables: Variables) -> BypassEvidence:
    """Return opening pressure, full-open pressure and the valve, from the best evidence there is.

    In this order: pressure on a bench, push-off force over the seat area, spring dimensions, the
    stated setting. A stated band of unstated meaning is taken as a rectangular distribution of the
    opening pressure; of a single stated figure the uncertainty is not known. Where the range is lopsided (an edge of the
    seat that is not known, a spring wire that is assumed, a pressure read at the first drip or at a flow), the result has
    its low and high end: the formula at either side, each with the rest of U.

    Parameters
    ----------
    known : mapping
        Measured quantities by key.
    bypass : Bypass
        What was noted of the valve.
    variables : Variables
        For the uncertainty.

    References
    ----------
    .. [1] ISO 4548-2, test of the bypass valve, for how it is measured; no result here is such a test.
    """
    if bypass.location == "none":
        nothing = Result(value=None, basis=None)
        return BypassEvidence(nothing, nothing, None, ())
    seat = bypass_seat(known, bypass.seat_mark, variables)
    spring = coil_spring(known, bypass, variables)
    ways = opening_ways(known, bypass, seat, spring, variables)
    if not ways:
        missing = _missing(known, seat)
        nothing = missing_result(*missing)
        return BypassEvidence(nothing, nothing, None, missing)
    pressure, basis, assumed = ways[0].pressure, ways[0].basis, ways[0].assumed
    opening = ways[0].result
    full_open, full_assumed, full_missing = _full_open_pressure(known, pressure, seat, spring)
    if full_open is None:
        full_result = missing_result(*full_missing, basis=basis)
    elif opening.standard_uncertainty is None:
        full_result = Result(float(nominal_value(full_open)), basis=basis, assumed=assumed + full_assumed)
    else:
        full_result = variables.result(full_open, basis=basis, assumed=assumed + full_assumed)
    valve = None if seat is None else _valve_part(known, pressure, seat, spring)
    missing = () if seat else ("bypass.seat_inside_diameter",)
    return BypassEvidence(opening, full_result, valve, missing, spring, ways, has_edges=seat is not None and bool(seat.edges))


def _missing(known: Mapping[str, Uncertain], seat: Seat | None) -> tuple[str, ...]:
    """Return what the nearest way to the opening pressure lacks."""
    needs_spring = "bypass.opening_force" not in known
    missing = [key for key in SPRING_KEYS if needs_spring and key not in known]
    if seat is None:
        missing.insert(0, "bypass.seat_inside_diameter")
    # all dimensions there and still no spring: they contradict each other (see `coil_spring`)
    return tuple(missing) or ("bypass.spring_outside_diameter", "bypass.spring_total_coils")


def _full_open_pressure(
    known: Mapping[str, Uncertain], pressure: Uncertain, seat: Seat | None, spring: Spring | None
) -> tuple[Uncertain | None, tuple[str, ...], tuple[str, ...]]:
    """Return the full-open pressure, what was assumed and what is missing."""
    if spring is None:
        return FULL_LIFT_PRESSURE_RATIO * pressure, ("bypass.spring_rate",), ()
    if seat is None:
        return None, (), ("bypass.seat_inside_diameter",)
    assumed = () if "bypass.lift_limit" in known else ("bypass.lift_limit",)
    lift = known.get("bypass.lift_limit", seat.diameter / 4)
    return pressure + spring.rate * lift / seat.area, assumed + seat.assumed + spring.assumed, ()


def _valve_part(known: Mapping[str, Uncertain], pressure: Uncertain, seat: Seat, spring: Spring | None) -> BypassValve:
    diameter = values_of(seat.diameter)
    area = pi * diameter**2 / 4
    lift_limit = values_of(known["bypass.lift_limit"]) if "bypass.lift_limit" in known else diameter / 4
    opening = values_of(at_least_zero(pressure))
    softest = (FULL_LIFT_PRESSURE_RATIO - 1) * opening * area / lift_limit
    rate = softest if spring is None else values_of(spring.rate)
    return BypassValve(
        opening_pressure=opening,
        seat_area=area,
        seat_diameter=diameter,
        land=seat.land,
        spring_rate=rate,
        lift_limit=lift_limit,
        port=round_hole_restriction(count=1, diameter=seat.inside_diameter, thickness=PORT_PLATE),
    )

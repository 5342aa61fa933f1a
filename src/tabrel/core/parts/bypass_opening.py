"""Opening pressure of a bypass valve: every way there is to it, each with its interval."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from math import pi, sqrt

from tabrel.core.hydraulics.restrictions import DISCHARGE_COEFFICIENT
from tabrel.core.parts.seat_and_spring import SHEAR_MODULUS, Seat, Spring
from tabrel.core.study.model import Bypass
from tabrel.core.uncertainty.propagation import Result, Uncertain, Variables, rectangular
from tabrel.core.uncertainty.sampled_number import nominal_value

STATED_FACTOR = 1.2
"""A single stated setting of unstated tolerance is taken as good to this factor in a Monte Carlo; our own figure."""

FULL_LIFT_PRESSURE_RATIO = 1.5  # full lift over opening pressure where no spring was measured
EARLIEST_DRIP = 0.2
"""A seal that creeps lets the first drip through by up to this share of the opening pressure too early."""

ONE_SIDED = 1.5 / 1.96
"""What is left of U beyond an edge of the seat, where only one side can be missed: it holds 93 % of seals that bear on the very
edge, and 99 % of those that bear anywhere between."""

LEAST_RISE = 0.02
"""Rise of a valve to the flow at which its pressure was read that is told in the interval, over the opening pressure."""

USUAL_DENSITY = 850.0
"""Of oil, to find the lift at a flow of a bench. [kg/m³]"""


@dataclass(frozen=True)
class OpeningWay:
    """One way to the opening pressure: its basis, the pressure at 20 °C [Pa], what was assumed, and the same as a result."""

    basis: str
    pressure: Uncertain
    assumed: tuple[str, ...] = ()
    result: Result = field(default_factory=lambda: Result(None))


def opening_ways(
    known: Mapping[str, Uncertain],
    bypass: Bypass,
    seat: Seat | None,
    spring: Spring | None,
    variables: Variables,
) -> tuple[OpeningWay, ...]:
    """Return every way to the opening pressure, the best first, with a low and a high end where those are not as far from it."""
    ways = list(_opening_ways(known, bypass, seat, spring, variables))
    at_edges = [
        {way.basis: way.pressure for way in _opening_ways(known, bypass, _at_edge(seat, side), spring, variables)}
        for side in ("outer", "inner")
    ]
    results = []
    for way in ways:
        result = variables.result(way.pressure, basis=way.basis, assumed=way.assumed)
        if way.basis == "stated" and isinstance(bypass.stated_kpa, tuple):
            low_kpa, high_kpa = bypass.stated_kpa  # the band as it is stated, not a spread about its middle
            result = replace(result, low=low_kpa * 1e3, high=high_kpa * 1e3)
        elif way.basis == "stated":
            result = Result(result.value, basis=way.basis, assumed=way.assumed)
        elif result.standard_uncertainty is not None:
            low, high = sorted((at_edge[way.basis] for at_edge in at_edges), key=nominal_value)
            result = _with_ends(result, low, high, bypass, seat, spring, variables)
        results.append(replace(way, result=result))
    return tuple(results)


def _with_ends(
    opening: Result,
    low: Uncertain,
    high: Uncertain,
    bypass: Bypass,
    seat: Seat | None,
    spring: Spring | None,
    variables: Variables,
) -> Result:
    """Return an opening pressure with its low and high end, from the pressures at either edge of the seat."""
    least, greatest = 1.0, 1.0
    if opening.basis == "spring" and bypass.spring_material is None:
        least = min(SHEAR_MODULUS.values()) / SHEAR_MODULUS["music_wire"]
    if opening.basis == "pressure" and bypass.opening_at == "first_drip":
        greatest = 1 / (1 - EARLIEST_DRIP)
    elif opening.basis == "pressure" and bypass.opening_at is not None and seat is not None:
        rise = _rise_at_flow(float(bypass.opening_at), low, seat, spring)
        least = 1 / (1 + rise) if rise > LEAST_RISE else 1.0
    has_edges = seat is not None and bool(seat.edges) and opening.basis in ("spring", "force")
    if least == greatest and not has_edges:
        return opening
    bottom, top = low * least, high * greatest
    factor = ONE_SIDED if has_edges else 1.0  # at an edge only one side can be missed
    return replace(
        opening,
        low=max(float(nominal_value(bottom)) - factor * variables.expanded_uncertainty(bottom), 0.0),
        high=float(nominal_value(top)) + factor * variables.expanded_uncertainty(top),
    )


def _at_edge(seat: Seat | None, side: str) -> Seat | None:
    """Return a seat whose seal bears on one edge; the same seat where the edge is known."""
    if seat is None or not seat.edges:
        return seat
    inside, outside = seat.edges
    return replace(seat, diameter=outside if side == "outer" else inside)


def _rise_at_flow(flow_l_min: float, pressure: Uncertain, seat: Seat, spring: Spring | None) -> float:
    """Return by what share of its opening pressure a valve has risen at a flow, by the curtain under its disc alone."""
    opening, diameter = float(nominal_value(pressure)), float(nominal_value(seat.diameter))
    if opening <= 0:
        return 0.0
    speed = DISCHARGE_COEFFICIENT * sqrt(2 * opening / USUAL_DENSITY)
    lift = flow_l_min / 60e3 / (pi * diameter * speed)
    if spring is None:
        return (FULL_LIFT_PRESSURE_RATIO - 1) * lift / (diameter / 4)
    return float(nominal_value(spring.rate)) * lift / (opening * pi * diameter**2 / 4)


def _opening_ways(
    known: Mapping[str, Uncertain], bypass: Bypass, seat: Seat | None, spring: Spring | None, variables: Variables
) -> Iterator[OpeningWay]:
    """Yield every way to the opening pressure, the best first."""
    if "bypass.opening_pressure" in known:
        yield OpeningWay("pressure", known["bypass.opening_pressure"])
    if "bypass.opening_force" in known and seat:
        yield OpeningWay("force", known["bypass.opening_force"] / seat.area, seat.assumed)
    if spring and seat:
        yield OpeningWay("spring", spring.installed_force / seat.area, seat.assumed + spring.assumed)
    if isinstance(bypass.stated_kpa, tuple):
        low, high = (pressure * 1e3 for pressure in bypass.stated_kpa)
        middle = variables.with_rectangular("bypass.stated_kpa", (low + high) / 2, rectangular(high - low))
        yield OpeningWay("stated", middle, ("bypass.stated_kpa",))
    elif bypass.stated_kpa is not None:
        yield OpeningWay("stated", variables.with_model_factor("model.stated_setting", bypass.stated_kpa * 1e3, STATED_FACTOR))

"""Bypass valve: opening pressure from the best evidence, full-open pressure, and the valve as a part."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from math import pi

from tabrel.core.hydraulics.restrictions import DISCHARGE_COEFFICIENT, Restriction, round_hole_restriction
from tabrel.core.study.model import Bypass
from tabrel.core.uncertainty.propagation import Result, Uncertain, Variables, missing_result, rectangular
from tabrel.core.uncertainty.sampled_number import FloatOrArray, at_least_zero, nominal_value, values_of

SHEAR_MODULUS: dict[str, float] = {"music_wire": 81.5e9, "stainless_302": 69.0e9, "chrome_silicon": 77.2e9}
"""Of spring wire. [Pa]"""

DEFAULT_DEAD_COILS = 2.0
DEAD_COILS_RANGE = (1.5, 2.5)  # what closed and ground ends may come to
DEFAULT_LAND = 0.5e-3  # m, where only one seat diameter is known
PORT_PLATE = 1e-3  # m, the plate the valve's port is punched through
STATED_FACTOR = 1.2
"""A single stated setting of unstated tolerance is taken as good to this factor in a Monte Carlo; our own figure."""

FULL_LIFT_PRESSURE_RATIO = 1.5  # full lift over opening pressure where no spring was measured
SPRING_KEYS = (
    "bypass.spring_wire_diameter",
    "bypass.spring_outside_diameter",
    "bypass.spring_total_coils",
    "bypass.spring_free_length",
    "bypass.spring_installed_length",
)


@dataclass(frozen=True)
class Seat:
    """The seat of the valve.

    Attributes
    ----------
    diameter : uncertain number
        Effective diameter: mean of inside and outside, with the width between them as uncertainty. [m]
    inside_diameter, land : float, or draws of it
        Land is half the difference of the diameters. [m]
    assumed : tuple of str
        What was assumed.
    """

    diameter: Uncertain
    inside_diameter: FloatOrArray
    land: FloatOrArray
    assumed: tuple[str, ...]

    @property
    def area(self) -> Uncertain:
        """Seat area. [m²]"""
        return pi * self.diameter**2 / 4


@dataclass(frozen=True)
class Spring:
    """A coil spring: rate [N/m], force when installed [N], its dead coils, what was assumed."""

    rate: Uncertain
    installed_force: Uncertain
    dead_coils: Uncertain
    assumed: tuple[str, ...]


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
    """

    opening: Result
    full_open: Result
    valve: BypassValve | None
    missing: tuple[str, ...]
    spring: Spring | None = None
    ways: tuple[OpeningWay, ...] = ()


@dataclass(frozen=True)
class OpeningWay:
    """One way to the opening pressure: its basis, the pressure at 20 °C [Pa], what was assumed."""

    basis: str
    pressure: Uncertain
    assumed: tuple[str, ...] = ()


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


def bypass_seat(known: Mapping[str, Uncertain], variables: Variables) -> Seat | None:
    """Return the seat, or None while its inside diameter is unknown.

    An elastic seal may bear on either edge of the seat, so the width between the edges is a
    rectangular uncertainty of the effective diameter.
    """
    if "bypass.seat_inside_diameter" not in known:
        return None
    inside = known["bypass.seat_inside_diameter"]
    if "bypass.seat_outside_diameter" not in known:
        return Seat(inside, values_of(inside), DEFAULT_LAND, ("bypass.seat_outside_diameter",))
    outside = known["bypass.seat_outside_diameter"]
    width = abs(float(nominal_value(outside - inside)))
    diameter = variables.with_type_b("bypass.seat_diameter", (inside + outside) / 2, rectangular(width))
    return Seat(diameter, values_of(inside), width / 2 or DEFAULT_LAND, ())


def coil_spring(known: Mapping[str, Uncertain], material: str | None, variables: Variables) -> Spring | None:
    """Return the coil spring from its dimensions, or None while one is missing.

    k = G·d⁴/(8·(OD − d)³·n), the textbook rate of a helical compression spring; n = total − dead
    coils. Dead coils that were not counted by hand are 2, evenly between 1.5 and 2.5, and that is part of
    the uncertainty. A spring that is not compressed carries no force.
    """
    if any(key not in known for key in SPRING_KEYS):
        return None
    wire, outside, total, free, installed = (known[key] for key in SPRING_KEYS)
    assumed = [] if material else ["bypass.spring_material"]
    if "bypass.spring_dead_coils" in known:
        dead = known["bypass.spring_dead_coils"]
    else:
        dead = variables.with_range("model.dead_coils", DEFAULT_DEAD_COILS, *DEAD_COILS_RANGE)
        assumed.append("bypass.spring_dead_coils")
    if nominal_value(total - dead) <= 0 or nominal_value(outside - wire) <= 0:
        return None
    modulus = SHEAR_MODULUS[material or "music_wire"]
    if material is None:
        modulus = variables.with_model_range("model.shear_modulus", modulus, min(SHEAR_MODULUS.values()), modulus)
    rate = modulus * wire**4 / (8 * (outside - wire) ** 3 * (total - dead))
    force = rate * (free - installed)
    return Spring(rate, at_least_zero(force), dead, tuple(assumed))


def bypass_evidence(known: Mapping[str, Uncertain], bypass: Bypass, variables: Variables) -> BypassEvidence:
    """Return opening pressure, full-open pressure and the valve, from the best evidence there is.

    In this order: pressure on a bench, push-off force over the seat area, spring dimensions, the
    stated setting. A stated band of unstated meaning is taken as a rectangular distribution of the
    opening pressure; of a single stated figure the uncertainty is not known.

    Parameters
    ----------
    known : mapping
        Measured quantities by key.
    bypass : Bypass
        What was noted of the valve.
    variables : Variables
        For the uncertainty.

    Returns
    -------
    BypassEvidence

    References
    ----------
    .. [1] ISO 4548-2, test of the bypass valve, for how it is measured; no result here is such a test.
    """
    if bypass.location == "none":
        nothing = Result(value=None, basis=None)
        return BypassEvidence(nothing, nothing, None, ())
    seat = bypass_seat(known, variables)
    spring = coil_spring(known, bypass.spring_material, variables)
    ways = tuple(_opening_ways(known, bypass, seat, spring, variables))
    if not ways:
        missing = _missing(known, seat)
        nothing = missing_result(*missing)
        return BypassEvidence(nothing, nothing, None, missing)
    pressure, basis, assumed = ways[0].pressure, ways[0].basis, ways[0].assumed
    opening = variables.result(pressure, basis=basis, assumed=assumed)
    if basis == "stated" and not isinstance(bypass.stated_kpa, tuple):
        opening = Result(opening.value, basis=basis, assumed=assumed)
    full_open, full_assumed, full_missing = _full_open_pressure(known, pressure, seat, spring)
    if full_open is None:
        full_result = missing_result(*full_missing, basis=basis)
    elif opening.standard_uncertainty is None:
        full_result = Result(float(nominal_value(full_open)), basis=basis, assumed=assumed + full_assumed)
    else:
        full_result = variables.result(full_open, basis=basis, assumed=assumed + full_assumed)
    valve = None if seat is None else _valve_part(known, pressure, seat, spring)
    missing = () if seat else ("bypass.seat_inside_diameter",)
    return BypassEvidence(opening, full_result, valve, missing, spring, ways)


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
        middle = variables.with_type_b("bypass.stated_kpa", (low + high) / 2, rectangular(high - low))
        yield OpeningWay("stated", middle, ("bypass.stated_kpa",))
    elif bypass.stated_kpa is not None:
        yield OpeningWay("stated", variables.with_model_factor("model.stated_setting", bypass.stated_kpa * 1e3, STATED_FACTOR))


def _missing(known: Mapping[str, Uncertain], seat: Seat | None) -> tuple[str, ...]:
    """Return what the nearest way to the opening pressure lacks."""
    needs_spring = "bypass.opening_force" not in known
    missing = [key for key in SPRING_KEYS if needs_spring and key not in known]
    if seat is None:
        missing.insert(0, "bypass.seat_inside_diameter")
    # all dimensions there and still no spring: they contradict each other (see `coil_spring`)
    return tuple(missing) or ("bypass.spring_outside_diameter", "bypass.spring_total_coils")


def spring_travel(known: Mapping[str, Uncertain]) -> Uncertain | None:
    """Return how far the installed spring can give way before it goes solid, or None while a size is missing. [m]"""
    keys = ("bypass.spring_installed_length", "bypass.spring_wire_diameter", "bypass.spring_total_coils")
    if any(key not in known for key in keys):
        return None
    installed, wire, coils = (known[key] for key in keys)
    return installed - wire * coils


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

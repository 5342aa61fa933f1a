"""Seat and coil spring of a bypass valve, from their dimensions."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import pi

from tabrel.core.study.model import Bypass, SeatMark, SpringEnds
from tabrel.core.uncertainty.propagation import Uncertain, Variables, rectangular
from tabrel.core.uncertainty.sampled_number import FloatOrArray, at_least_zero, nominal_value, values_of

SHEAR_MODULUS: dict[str, float] = {"music_wire": 81.5e9, "stainless_302": 69.0e9, "chrome_silicon": 77.2e9}
"""Of spring wire. [Pa]"""

DEAD_COILS: dict[SpringEnds, tuple[float, float, float]] = {
    "open": (0.5, 0.0, 1.0),
    "closed": (2.0, 1.5, 2.5),
    "closed_ground": (2.0, 1.5, 2.5),
    "unknown": (2.0, 1.0, 3.0),
}
"""Coils that do not work by the ends of a spring: usual, least and greatest."""

COIL_COUNTING = 0.25
"""How far a count of coils may be off, either way: one ends where the other begins."""

DEFAULT_LAND = 0.5e-3  # m, where only one seat diameter is known
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
        Effective diameter: that of the edge that is marked, else the mean of inside and outside with the width between
        them as uncertainty. [m]
    inside_diameter, land : float, or draws of it
        Land is half the difference of the diameters. [m]
    assumed : tuple of str
        What was assumed.
    edges : tuple of uncertain number
        Inside and outside diameter where the seal may bear on either; empty where it is known. [m]
    """

    diameter: Uncertain
    inside_diameter: FloatOrArray
    land: FloatOrArray
    assumed: tuple[str, ...]
    edges: tuple[Uncertain, ...] = ()

    @property
    def area(self) -> Uncertain:
        """Seat area. [m²]"""
        return pi * self.diameter**2 / 4


@dataclass(frozen=True)
class Spring:
    """A coil spring: rate [N/m], force when installed [N], its dead and total coils, what was assumed."""

    rate: Uncertain
    installed_force: Uncertain
    dead_coils: Uncertain
    total_coils: Uncertain
    assumed: tuple[str, ...]


def bypass_seat(known: Mapping[str, Uncertain], mark: SeatMark | None, variables: Variables) -> Seat | None:
    """Return the seat, or None while its inside diameter is unknown.

    An elastic seal may bear on either edge of the seat, so the width between the edges is a
    rectangular uncertainty of the effective diameter; an edge on which it left its mark is the effective diameter.
    """
    if "bypass.seat_inside_diameter" not in known:
        return None
    inside = known["bypass.seat_inside_diameter"]
    if "bypass.seat_outside_diameter" not in known:
        return Seat(inside, values_of(inside), DEFAULT_LAND, ("bypass.seat_outside_diameter",))
    outside = known["bypass.seat_outside_diameter"]
    width = abs(float(nominal_value(outside - inside)))
    land = width / 2 or DEFAULT_LAND
    if mark in ("inner", "outer"):
        return Seat(inside if mark == "inner" else outside, values_of(inside), land, ())
    diameter = variables.with_rectangular("bypass.seat_diameter", (inside + outside) / 2, rectangular(width))
    return Seat(diameter, values_of(inside), land, (), (inside, outside))


def coil_spring(known: Mapping[str, Uncertain], bypass: Bypass, variables: Variables) -> Spring | None:
    """Return the coil spring from its dimensions, or None while one is missing.

    k = G·d⁴/(8·(OD − d)³·n), the textbook rate of a helical compression spring; n = total − dead
    coils. Dead coils that were not counted by hand follow from the ends of the spring (`DEAD_COILS`), and their range
    is part of the uncertainty, as is counting. A spring that is not compressed carries no force.
    """
    if any(key not in known for key in SPRING_KEYS):
        return None
    wire, outside, total, free, installed = (known[key] for key in SPRING_KEYS)
    material, ends = bypass.spring_material, bypass.spring_ends or "unknown"
    assumed = [] if material else ["bypass.spring_material"]
    total = variables.with_rectangular("bypass.coil_counting", total, rectangular(2 * COIL_COUNTING))
    if "bypass.spring_dead_coils" in known:
        dead = known["bypass.spring_dead_coils"]
    else:
        dead = variables.with_range("model.dead_coils", *DEAD_COILS[ends])
        assumed.append("bypass.spring_dead_coils")
    if nominal_value(total - dead) <= 0 or nominal_value(outside - wire) <= 0:
        return None
    modulus = SHEAR_MODULUS[material or "music_wire"]
    if material is None:
        modulus = variables.with_model_range("model.shear_modulus", modulus, min(SHEAR_MODULUS.values()), modulus)
    rate = modulus * wire**4 / (8 * (outside - wire) ** 3 * (total - dead))
    force = rate * (free - installed)
    return Spring(rate, at_least_zero(force), dead, total, tuple(assumed))


def spring_travel(known: Mapping[str, Uncertain]) -> Uncertain | None:
    """Return how far the installed spring can give way before it goes solid, or None while a size is missing. [m]"""
    keys = ("bypass.spring_installed_length", "bypass.spring_wire_diameter", "bypass.spring_total_coils")
    if any(key not in known for key in keys):
        return None
    installed, wire, coils = (known[key] for key in keys)
    return installed - wire * coils

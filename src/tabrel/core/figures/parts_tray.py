"""The parts of the opened filter on the scale: mass balance, the wall against the can's mass, strength as a comparison."""

from __future__ import annotations

from dataclasses import dataclass
from math import log, pi, sqrt
from typing import Annotated

from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.field_units import IN_GRAMS, INSIDE, Length, Mass, Stress
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.propagation import Result
from tabrel.core.uncertainty.sampled_number import nominal_value

WEIGHED_PARTS = ("can", "gasket", "plate", "anti_drain", "bypass", "seating", "element")
"""Parts that make up the whole filter; the element is weighed with its centre tube."""

STEEL_DENSITY = 7850.0
YIELD_STRENGTH = (210e6, 280e6)
"""Of drawn steel sheet. [Pa]"""

USUAL_SHELL_RATIO = (0.7, 1.4)
"""Can over the plain shell of its wall: folds, seam and paint add, holes of the cover remove."""


@dataclass(frozen=True)
class WeighedPart:
    """A part on the tray: its mass or None, and why there is none where that was said."""

    part: str
    mass: Mass | None
    state: str | None


@dataclass(frozen=True)
class MassBalance:
    """The whole against its parts.

    Attributes
    ----------
    parts : tuple of WeighedPart
        In the order of the bench.
    whole : float or None
        Of the whole filter before the cut.
    difference : Result or None
        Whole less all parts weighed.
    closes : bool or None
        Whether the difference lies within its U; None while nothing was weighed.
    likely_missing : tuple of str
        Parts not weighed that the difference could be, the likeliest first.
    words : str
        What it means.
    """

    parts: tuple[WeighedPart, ...]
    whole: Mass | None
    difference: Annotated[Result, IN_GRAMS] | None
    closes: bool | None
    likely_missing: Annotated[tuple[str, ...], INSIDE]
    words: str


@dataclass(frozen=True)
class CanStrength:
    """Figures that compare cans and rate none.

    Attributes
    ----------
    shell_mass : float or None
        Of a plain steel shell with this wall.
    shell_ratio : float or None
        The can's mass over it.
    hoop_stress : float or None
        At 1 MPa inside.
    yield_pressure : tuple of float or None
        At which drawn steel of 210 to 280 MPa yields in the plain wall.
    thread_engagement : float or None
        Turns times pitch.
    """

    shell_mass: Mass | None
    shell_ratio: float | None
    hoop_stress: Stress | None
    yield_pressure: tuple[Stress, Stress] | None
    thread_engagement: Length | None


def mass_balance(measured: MeasuredSample) -> MassBalance:
    """Return the mass balance with the part that is likely missing."""
    known, states = measured.known, measured.sample.states
    parts = tuple(WeighedPart(part, _mass(measured, f"{part}.mass"), states.get(f"{part}.mass")) for part in WEIGHED_PARTS)
    weighed = [part.part for part in parts if part.mass is not None]
    whole = _mass(measured, "filter.mass")
    if whole is None or not weighed:
        lacks = "the whole filter was not weighed" if whole is None else "no part was weighed yet"
        return MassBalance(parts, whole, None, None, (), f"{lacks}: there is nothing to balance")
    rest = known["filter.mass"] - sum(known[f"{part}.mass"] for part in weighed)
    difference = measured.variables.result(rest)
    off, allowance = float(nominal_value(rest)), difference.expanded_uncertainty or 0.0
    open_parts = [part.part for part in parts if part.mass is None and part.state not in ("not_applicable",)]
    closes = abs(off) <= allowance
    missing = (
        ()
        if off <= allowance
        else tuple(sorted((p for p in open_parts if _could_be(p, off, allowance)), key=lambda p: _off(p, off)))
    )
    lost = {part.part for part in parts if part.state == "lost"}
    return MassBalance(parts, whole, difference, closes, missing, _words(off, closes, missing, open_parts, lost))


def _mass(measured: MeasuredSample, key: str) -> float | None:
    return float(nominal_value(measured.known[key])) if key in measured.known else None


def _could_be(part: str, mass: float, allowance: float) -> bool:
    usual = QUANTITIES[f"{part}.mass"]
    return usual.usual_low - allowance <= mass <= usual.usual_high + allowance


def _off(part: str, mass: float) -> float:
    """Return how far a mass is from the middle of a part's usual range, as a ratio's logarithm."""
    usual = QUANTITIES[f"{part}.mass"]
    return abs(log(max(mass, 1e-6) / sqrt(usual.usual_low * usual.usual_high)))


def _words(off: float, closes: bool, missing: tuple[str, ...], open_parts: list[str], lost: set[str]) -> str:
    grams = shown_in_both(abs(off), "g")
    if closes:
        return "the parts make up the whole" if not open_parts else "the parts weighed make up the whole"
    if off < 0:
        return f"the parts weigh {grams} more than the whole: oil left in the element, or one weighed twice?"
    if missing and missing[0] in lost:
        return f"{grams} are missing, as the lost {PART_TITLES[missing[0]].lower()} would weigh"
    if missing:
        names = " or ".join(PART_TITLES[part].lower() for part in missing[:2])
        return f"{grams} are missing: {names} not weighed?"
    return f"{grams} are missing: chips, oil that ran out, or a part lost?"


def can_strength(measured: MeasuredSample, inside_pressure: float = 1e6) -> CanStrength:
    """Return figures that compare cans: the seam or the plate usually fails first.

    Thin-walled cylinder: σ = p·D/(2·t). The shell is π·D·H and one end, of steel.

    Parameters
    ----------
    measured : MeasuredSample
        From `measured.measure_sample`.
    inside_pressure : float
        For the hoop stress. [Pa]
    """
    known = {key: float(nominal_value(number)) for key, number in measured.known.items()}
    wall, height, mass = (known.get(f"can.{name}") for name in ("wall_thickness", "height", "mass"))
    diameter = known.get("can.outside_diameter") or (known["can.circumference"] / pi if "can.circumference" in known else None)
    turns, pitch = known.get("thread.turns"), known.get("thread.pitch")
    shell = None
    if wall and height and diameter:
        shell = STEEL_DENSITY * wall * pi * diameter * (height + diameter / 4)
    yields = None
    if wall and diameter:
        yields = (2 * wall * YIELD_STRENGTH[0] / diameter, 2 * wall * YIELD_STRENGTH[1] / diameter)
    return CanStrength(
        shell_mass=shell,
        shell_ratio=mass / shell if mass and shell else None,
        hoop_stress=inside_pressure * diameter / (2 * wall) if wall and diameter else None,
        yield_pressure=yields,
        thread_engagement=turns * pitch if turns and pitch else None,
    )

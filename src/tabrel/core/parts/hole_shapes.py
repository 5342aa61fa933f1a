"""Area and perimeter of one hole, by shape.

Every function takes plain or uncertain numbers in metres and returns the same kind. A dimension
that contradicts its own name is put right the only way it can be meant: of a slot's two dimensions
the larger is its length; a d-hole taller than its diameter is round; a corner radius is at most half
the shorter side. `analysis` warns about it.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import hypot, pi

from tabrel.core.uncertainty.propagation import Uncertain
from tabrel.core.uncertainty.sampled_number import arc_cosine, nominal_value, square_root


@dataclass(frozen=True)
class HoleGeometry:
    """Area [m²] and perimeter [m] of one hole, plain or uncertain."""

    area: Uncertain
    perimeter: Uncertain


def round_hole(*, diameter: Uncertain) -> HoleGeometry:
    """Return the geometry of a round hole."""
    return HoleGeometry(pi * diameter**2 / 4, pi * diameter)


def slot(*, length: Uncertain, width: Uncertain) -> HoleGeometry:
    """Return the geometry of a slot with round ends: overall length and width."""
    short, long = sorted((length, width), key=nominal_value)
    return HoleGeometry(
        short * (long - short) + pi * short**2 / 4,
        2 * (long - short) + pi * short,
    )


def ellipse(*, length: Uncertain, width: Uncertain) -> HoleGeometry:
    """Return the geometry of an ellipse with the two axes; perimeter by Ramanujan's second formula.

    Source: S. Ramanujan, Modular equations and approximations to π, 1914, eq. 49.
    """
    h = ((length - width) / (length + width)) ** 2
    perimeter = pi * (length + width) / 2 * (1 + 3 * h / (10 + square_root(4 - 3 * h)))
    return HoleGeometry(pi * length * width / 4, perimeter)


def d_hole(*, diameter: Uncertain, height: Uncertain) -> HoleGeometry:
    """Return the geometry of a round hole cut by a flat, `height` left from flat to far edge."""
    if nominal_value(height) >= nominal_value(diameter):
        return round_hole(diameter=diameter)
    radius = diameter / 2
    half_angle = arc_cosine((radius - height) / radius)
    chord = 2 * square_root(2 * radius * height - height**2)
    return HoleGeometry(
        half_angle * radius**2 - (radius - height) * chord / 2,
        2 * radius * half_angle + chord,
    )


def rectangle(*, length: Uncertain, width: Uncertain, corner_radius: Uncertain = 0.0) -> HoleGeometry:
    """Return the geometry of a rectangle with rounded corners."""
    corner = min(corner_radius, min(length, width, key=nominal_value) / 2, key=nominal_value)
    return HoleGeometry(
        width * length - (4 - pi) * corner**2,
        2 * (width + length) - (8 - 2 * pi) * corner,
    )


def outline_area(points: Sequence[tuple[float, float]]) -> float:
    """Return the area inside a closed outline (shoelace formula), in the unit of the points squared."""
    closed = [*points[1:], points[0]]
    return abs(sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(points, closed, strict=True))) / 2


def outline_perimeter(points: Sequence[tuple[float, float]]) -> float:
    """Return the length of a closed outline, in the unit of the points."""
    closed = [*points[1:], points[0]]
    return sum(hypot(x2 - x1, y2 - y1) for (x1, y1), (x2, y2) in zip(points, closed, strict=True))


SHAPES: dict[str, Callable[..., HoleGeometry]] = {
    "round": round_hole,
    "slot": slot,
    "ellipse": ellipse,
    "d": d_hole,
    "rectangle": rectangle,
}
"""Geometry by shape name; an outline has its own two functions, since it takes points."""

"""One hole by its shape: area, perimeter, the lines of its working, and its outline as it is drawn.

Every geometry takes plain or uncertain numbers in metres and returns the same kind. A dimension
that contradicts its own name is put right the only way it can be meant: of a slot's two dimensions
the larger is its length; a d-hole taller than its diameter is round; a corner radius is at most half
the shorter side. `analysis` warns about it.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from math import cos, hypot, pi, sin
from typing import Literal

from tabrel.core.study.model import HoleShape
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


Point = tuple[float, float]
Sizes = Mapping[str, float]
"""Of one hole by dimension. [m]"""

POINTS_OF_ROUND = 36
_TURNS = [2 * pi * i / POINTS_OF_ROUND for i in range(POINTS_OF_ROUND)]


def _round_outline(sizes: Sizes) -> tuple[Point, ...]:
    radius = sizes["diameter"] / 2
    return tuple((radius * cos(turn), radius * sin(turn)) for turn in _TURNS)


def _d_outline(sizes: Sizes) -> tuple[Point, ...]:
    flat = sizes["diameter"] / 2 - sizes["height"]
    return tuple((x, max(flat, y)) for x, y in _round_outline(sizes))


def _ellipse_outline(sizes: Sizes) -> tuple[Point, ...]:
    return tuple((sizes["length"] / 2 * cos(turn), sizes["width"] / 2 * sin(turn)) for turn in _TURNS)


def _slot_outline(sizes: Sizes) -> tuple[Point, ...]:
    return _rectangle_outline({**sizes, "corner_radius": min(sizes["length"], sizes["width"]) / 2})


def _rectangle_outline(sizes: Sizes) -> tuple[Point, ...]:
    long, short = sizes["length"] / 2, sizes["width"] / 2
    corner = min(sizes.get("corner_radius", 0.0), long, short)

    def reach(size: float, direction: float) -> float:
        return (size - corner if direction > 0 else corner - size) + corner * direction

    return tuple((reach(long, cos(turn)), reach(short, sin(turn))) for turn in [turn + pi / POINTS_OF_ROUND for turn in _TURNS])


@dataclass(frozen=True)
class AreaLine:
    """A line of the working of the area of one hole; without a symbol it is the area itself.

    The template names sizes by `LETTERS` and earlier lines by their symbol.
    """

    template: str
    symbol: str | None = None
    words: str = ""
    measure: Literal["area", "length", "angle"] = "area"


LETTERS = {"diameter": "d", "length": "l", "width": "w", "height": "h", "corner_radius": "c"}
"""Symbol in a working by dimension."""


def _round_lines(_: Sizes) -> tuple[AreaLine, ...]:
    return (AreaLine("π·{d}²/4"),)


def _d_lines(sizes: Sizes) -> tuple[AreaLine, ...]:
    if sizes["height"] >= sizes["diameter"]:
        return _round_lines(sizes)
    return (
        AreaLine("{d}/2", "R", "radius", "length"),
        AreaLine("acos(({R} − {h})/{R})", "θ", "half the angle left", "angle"),
        AreaLine("{θ}·{R}² − ({R} − {h})·√(2·{R}·{h} − {h}²)"),
    )


def _ellipse_lines(_: Sizes) -> tuple[AreaLine, ...]:
    return (AreaLine("π·{l}·{w}/4"),)


def _slot_lines(sizes: Sizes) -> tuple[AreaLine, ...]:
    is_turned = sizes["length"] < sizes["width"]
    return (AreaLine("{l}·({w} − {l}) + π·{l}²/4" if is_turned else "{w}·({l} − {w}) + π·{w}²/4"),)


def _rectangle_lines(sizes: Sizes) -> tuple[AreaLine, ...]:
    return (AreaLine("{w}·{l} − (4 − π)·min({c}, {w}/2, {l}/2)²" if "corner_radius" in sizes else "{w}·{l}"),)


@dataclass(frozen=True)
class Shape:
    """Everything that depends on the shape of a hole.

    Attributes
    ----------
    geometry : callable
        Area and perimeter of its sizes.
    outline : callable
        Corner points of its sizes about the centre, the long side across.
    lines : callable
        Working of the area, for these sizes.
    """

    geometry: Callable[..., HoleGeometry]
    outline: Callable[[Sizes], tuple[Point, ...]]
    lines: Callable[[Sizes], tuple[AreaLine, ...]]


SHAPES: dict[HoleShape, Shape] = {
    "round": Shape(round_hole, _round_outline, _round_lines),
    "slot": Shape(slot, _slot_outline, _slot_lines),
    "ellipse": Shape(ellipse, _ellipse_outline, _ellipse_lines),
    "d": Shape(d_hole, _d_outline, _d_lines),
    "rectangle": Shape(rectangle, _rectangle_outline, _rectangle_lines),
}
"""By name; an outline has its own functions, since it takes points."""

"""The plate seen from below, to scale: where every hole lies, and which of them cannot lie there.

What was measured is drawn as measured; what was not is drawn at a typical size and marked as such.
Lengths in metres, origin at the plate's centre, angles from the top.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from math import atan2, cos, hypot, pi, sin
from typing import Annotated

from tabrel.core.catalogue.hole_dimensions import SHAPE_DIMENSIONS
from tabrel.core.catalogue.quantities import HOLE_QUANTITIES
from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.field_units import IN_DRAWN_MM, INSIDE, OUTSIDE, Length
from tabrel.core.parts.flow_area import MINOR_DIAMETER_FACTOR
from tabrel.core.parts.hole_shapes import SHAPES, Point
from tabrel.core.study.model import Circuit, HoleGroup, SampleHoles, used_readings
from tabrel.core.uncertainty.estimate import estimate_quantity
from tabrel.core.uncertainty.propagation import Uncertain
from tabrel.core.uncertainty.sampled_number import nominal_value

TYPICAL: dict[str, float] = {
    "can.outside_diameter": 76e-3,
    "gasket.outside_diameter": 71e-3,
    "gasket.inside_diameter": 62e-3,
    "thread.major_diameter": 20e-3,
    "thread.pitch": 1.5e-3,
}
"""Sizes drawn dashed while they are not measured. [m]"""

MOST_DRAWN_HOLES = 240
TOUCHING = 1e-5  # m; sizes on paper may touch


@dataclass(frozen=True)
class PlateCircle:
    """A circle of the plate: which dimension it is, its diameter, and whether it was measured."""

    key: str
    diameter: Length
    measured: bool


@dataclass(frozen=True)
class PlacedHole:
    """One hole where it lies.

    Attributes
    ----------
    group : int
        Position of its group.
    outline : tuple of (float, float)
        Corner points.
    reach : float
        From the centre to the farthest corner. [m]
    wrong : bool
        Whether it overlaps something or leaves the plate.
    """

    group: int
    outline: Annotated[tuple[Point, ...], IN_DRAWN_MM]
    centre: Annotated[Point, INSIDE]
    reach: Annotated[float, INSIDE]
    wrong: bool = False


@dataclass(frozen=True)
class PlateProblem:
    """A contradiction among measurements: a code, a sentence, and the reading to look at."""

    code: str
    message: str
    where: str


@dataclass(frozen=True)
class PlateLayout:
    """The plate from below.

    Attributes
    ----------
    circles : tuple of PlateCircle
        Rim, gasket, thread, bores; widest first.
    holes : tuple of PlacedHole
        Every hole of every group that has its sizes.
    hole_circles : tuple of (int, float, bool)
        Group, diameter of the circle its centres lie on [m], whether that was measured.
    problems : tuple of PlateProblem
        In words.
    """

    circles: tuple[PlateCircle, ...]
    holes: tuple[PlacedHole, ...]
    hole_circles: Annotated[tuple[tuple[int, float, bool], ...], INSIDE]
    problems: tuple[PlateProblem, ...]

    @property
    def hole_circles_measured(self) -> Annotated[bool, OUTSIDE]:
        """Whether every circle of holes was measured."""
        return all(measured for _, _, measured in self.hole_circles)


def plate_layout(known: Mapping[str, Uncertain], holes: SampleHoles, circuit: Circuit) -> PlateLayout:
    """Return the plate from below with its inlet holes laid out.

    Holes follow each other with equal gaps, unlike ones spread among each other; slots, ellipses and
    rectangles lie along their circle. A circle that was not measured runs midway between what bounds it
    inside (thread or centre hole) and outside (gasket).

    """
    circles = _circles(known, circuit)
    by_key = {circle.key: circle for circle in circles}
    rim, inside_gasket = by_key["can.outside_diameter"], by_key["gasket.inside_diameter"]
    centre = by_key.get("plate.centre_hole_diameter", by_key["thread.major_diameter"])
    typical = (centre.diameter + min(inside_gasket.diameter, rim.diameter)) / 2
    shapes, circle_of = _shapes(holes.inlet, typical)
    placed = _placed(shapes, {group: diameter for group, (diameter, _) in circle_of.items()}, [g.count for g in holes.inlet])
    wrong, problems = _problems(placed, rim, inside_gasket, centre, holes.inlet)
    return PlateLayout(
        circles,
        tuple(replace(hole, wrong=i in wrong) for i, hole in enumerate(placed)),
        tuple((group, diameter, measured) for group, (diameter, measured) in circle_of.items()),
        (*problems, *_circle_problems(by_key, known, circuit)),
    )


def _circles(known: Mapping[str, Uncertain], circuit: Circuit) -> tuple[PlateCircle, ...]:
    def circle(key: str) -> PlateCircle:
        if key in known:
            return PlateCircle(key, float(nominal_value(known[key])), True)
        return PlateCircle(key, TYPICAL[key], False)

    rim = circle("can.outside_diameter")
    if not rim.measured and "can.circumference" in known:
        rim = PlateCircle(rim.key, float(nominal_value(known["can.circumference"])) / pi, True)
    gasket = [circle("gasket.outside_diameter"), circle("gasket.inside_diameter")]
    if rim.measured:  # keep what is only typical inside what was measured
        gasket = [
            ring if ring.measured else PlateCircle(ring.key, rim.diameter * TYPICAL[ring.key] / TYPICAL[rim.key], False)
            for ring in gasket
        ]
    thread, pitch = circle("thread.major_diameter"), circle("thread.pitch")
    minor = thread.diameter - MINOR_DIAMETER_FACTOR * pitch.diameter
    collected = [rim, *gasket, thread, PlateCircle("thread.minor_diameter", minor, thread.measured and pitch.measured)]
    for key in ("anti_drain.lip_diameter", "plate.centre_hole_diameter"):
        if key in known:
            collected.append(circle(key))
    if stud := circuit.stud:
        bores = {
            "circuit.stud": stud.bore_mm,
            "circuit.stud.least": stud.least_bore_mm,
            "circuit.stud.greatest": stud.greatest_bore_mm,
        }
        collected += [PlateCircle(key, bore * 1e-3, True) for key, bore in bores.items() if bore is not None]
    return tuple(sorted(collected, key=lambda plate_circle: -plate_circle.diameter))


def _shapes(groups: Sequence[HoleGroup], typical: float) -> tuple[dict[int, tuple[Point, ...]], dict[int, tuple[float, bool]]]:
    """Return the outline of one hole about its centre, and the circle of its group, by group."""
    shapes: dict[int, tuple[Point, ...]] = {}
    circle_of: dict[int, tuple[float, bool]] = {}
    for i, group in enumerate(groups):
        sizes = {
            dimension: estimate.value
            for dimension, entries in group.readings.by_dimension()
            if (readings := used_readings(entries)) and (estimate := estimate_quantity(HOLE_QUANTITIES[dimension], readings))
        }
        outline = hole_outline(group, sizes)
        if outline is None:
            continue
        shapes[i] = outline
        circle = sizes.get("circle_diameter")
        circle_of[i] = (typical, False) if circle is None else (circle, True)
    return shapes, circle_of


def hole_outline(group: HoleGroup, sizes: Mapping[str, float]) -> tuple[Point, ...] | None:
    """Return the outline of one hole about its centre, its long side across, or None while a size is missing. [m]"""
    if group.shape == "outline":
        points = group.readings.points_mm
        if not points:
            return None
        x0 = (min(x for x, _ in points) + max(x for x, _ in points)) / 2
        y0 = (min(y for _, y in points) + max(y for _, y in points)) / 2
        return tuple(((x - x0) * 1e-3, (y - y0) * 1e-3) for x, y in points)
    lacking = [dimension for dimension in SHAPE_DIMENSIONS[group.shape].required if dimension not in sizes]
    return None if lacking else SHAPES[group.shape].outline(sizes)


def _placed(shapes: Mapping[int, tuple[Point, ...]], circles: Mapping[int, float], counts: Sequence[int]) -> list[PlacedHole]:
    """Return every hole at its place.

    Holes that share a ring of the plate follow each other with equal gaps, unlike ones spread among each
    other; where along the ring the first one stands is not measured. So they overlap only if they cannot
    stand side by side at all.
    """
    placed: list[PlacedHole] = []
    for together in _rings(shapes, circles):
        half = {group: _half_angle(shapes[group], circles[group] / 2) for group in together}
        reaches = {group: max(hypot(x, y) for x, y in shapes[group]) for group in together}
        drawn = {group: range(min(counts[group], MOST_DRAWN_HOLES)) for group in together}
        order = [group for _, group in sorted(((i + 0.5) / counts[group], group) for group in together for i in drawn[group])]
        del order[MOST_DRAWN_HOLES:]
        gap = (2 * pi - sum(2 * half[group] for group in order)) / len(order)
        angle = -half[order[0]]
        for group in order:
            angle += half[group]
            outline, centre = _turned(shapes[group], circles[group] / 2, angle)
            placed.append(PlacedHole(group, outline, centre, reaches[group]))
            angle += half[group] + gap
    return placed


def _rings(shapes: Mapping[int, tuple[Point, ...]], circles: Mapping[int, float]) -> list[list[int]]:
    """Return the groups that share a ring of the plate, since their holes reach over the same radii."""
    bands = sorted(
        (circles[group] / 2 + min(y for _, y in outline), circles[group] / 2 + max(y for _, y in outline), group)
        for group, outline in shapes.items()
    )
    rings: list[list[int]] = []
    reached = -1.0
    for inner, outer, group in bands:
        if inner < reached:
            rings[-1].append(group)
        else:
            rings.append([group])
        reached = max(reached, outer)
    return rings


def _half_angle(outline: Sequence[Point], radius: float) -> float:
    """Return half the angle that a hole takes up, seen from the plate's centre."""
    return max(abs(atan2(x, max(radius + y, 1e-9))) for x, y in outline)


def _turned(outline: Sequence[Point], radius: float, angle: float) -> tuple[tuple[Point, ...], Point]:
    """Return an outline moved out to a radius and turned with it; angle 0 is at the top."""
    centre = (radius * sin(angle), radius * cos(angle))
    c, s = cos(angle), sin(angle)
    return tuple((centre[0] + x * c + y * s, centre[1] - x * s + y * c) for x, y in outline), centre


def _problems(
    placed: Sequence[PlacedHole],
    rim: PlateCircle,
    inside_gasket: PlateCircle,
    centre: PlateCircle,
    groups: Sequence[HoleGroup],
) -> tuple[set[int], list[PlateProblem]]:
    """Return which holes are wrong, and why, one sentence a kind and group."""
    wrong: set[int] = set()
    words: dict[tuple[str, int], str] = {}
    for i, hole in enumerate(placed):
        farthest = max(hypot(x, y) for x, y in hole.outline)
        nearest = min(hypot(x, y) for x, y in hole.outline)
        for code, is_wrong, message in (
            ("hole_leaves_plate", farthest > rim.diameter / 2 + TOUCHING, "reach beyond the rim of the plate"),
            ("hole_under_gasket", farthest > inside_gasket.diameter / 2 + TOUCHING, "reach under the gasket"),
            ("hole_in_thread", nearest < centre.diameter / 2 - TOUCHING, "run into the thread or the centre hole"),
        ):
            if is_wrong and not (code == "hole_under_gasket" and ("hole_leaves_plate", hole.group) in words):
                wrong.add(i)
                words[code, hole.group] = message
        for j in range(i):
            if _overlap(hole, placed[j]):
                wrong |= {i, j}
                words["holes_overlap", hole.group] = "overlap their neighbours"
    problems = [
        PlateProblem(
            code,
            f"as measured, {_holes_words(groups[group])} {message}: check count, size and circle of the holes",
            f"holes.inlet[{group}]",
        )
        for (code, group), message in words.items()
    ]
    return wrong, problems


def _holes_words(group: HoleGroup) -> str:
    return f"the {group.count} {group.shape} holes" if group.count > 1 else f"the {group.shape} hole"


def _overlap(first: PlacedHole, second: PlacedHole) -> bool:
    if hypot(first.centre[0] - second.centre[0], first.centre[1] - second.centre[1]) >= first.reach + second.reach - TOUCHING:
        return False
    return any(_inside(point, second.outline) for point in _shrunk(first)) or any(
        _inside(point, first.outline) for point in _shrunk(second)
    )


def _shrunk(hole: PlacedHole) -> Iterator[Point]:
    """Yield the outline drawn in by the touching tolerance, and the centre."""
    yield hole.centre
    for x, y in hole.outline:
        dx, dy = x - hole.centre[0], y - hole.centre[1]
        size = hypot(dx, dy) or 1.0
        yield x - dx / size * TOUCHING, y - dy / size * TOUCHING


def _inside(point: Point, outline: Sequence[Point]) -> bool:
    """Return whether a point lies inside a closed outline (crossing number)."""
    x, y = point
    inside = False
    x1, y1 = outline[-1]
    for x2, y2 in outline:
        if (y1 > y) != (y2 > y) and x < x1 + (y - y1) * (x2 - x1) / (y2 - y1):
            inside = not inside
        x1, y1 = x2, y2
    return inside


def _circle_problems(
    circles: Mapping[str, PlateCircle], known: Mapping[str, Uncertain], circuit: Circuit
) -> Iterator[PlateProblem]:
    """Yield what diameters of the plate contradict each other."""
    rim, outer, inner = (circles[key] for key in ("can.outside_diameter", "gasket.outside_diameter", "gasket.inside_diameter"))
    thread, minor = circles["thread.major_diameter"], circles["thread.minor_diameter"]
    if outer.measured and inner.measured and inner.diameter >= outer.diameter:
        message = "the gasket is no wider outside than inside: the two readings may be swapped"
        yield PlateProblem("gasket_swapped", message, "gasket.inside_diameter")
    if outer.measured and rim.measured and outer.diameter > rim.diameter:
        message = "the gasket is wider than the can: check both outside diameters"
        yield PlateProblem("gasket_wider_than_can", message, "gasket.outside_diameter")
    hole = circles.get("plate.centre_hole_diameter")
    if hole and thread.measured and hole.diameter > thread.diameter + 0.2e-3:
        message = (
            f"the centre hole is wider than the thread's major diameter of {shown_in_both(thread.diameter, 'mm', 4)}, "
            "so that no thread would be left: check both"
        )
        yield PlateProblem("centre_hole_wider_than_thread", message, "plate.centre_hole_diameter")
    elif hole and minor.measured and hole.diameter < minor.diameter - 0.8e-3:
        message = (
            f"the centre hole is narrower than the thread's minor diameter of {shown_in_both(minor.diameter, 'mm', 4)}: "
            "check pitch and diameters"
        )
        yield PlateProblem("centre_hole_narrower_than_thread", message, "plate.centre_hole_diameter")
    if circuit.stud and thread.measured:
        bore = circuit.stud.bore_mm * 1e-3
        if bore >= minor.diameter - 0.5e-3:
            message = (
                f"the stud's bore of {shown_in_both(bore, 'mm', 4)} leaves no wall inside the thread: "
                "was the thread measured instead of the bore?"
            )
            yield PlateProblem("stud_bore_is_thread", message, "engine.stud_bore")
    if (
        "gasket.protrusion" in known
        and "gasket.thickness" in known
        and nominal_value(known["gasket.protrusion"] - known["gasket.thickness"]) > 0
    ):
        message = "the gasket stands higher above the plate than it is thick: check both readings"
        yield PlateProblem("gasket_protrusion", message, "gasket.protrusion")

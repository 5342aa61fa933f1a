"""The section through the whole filter, to scale: its parts, its dimensions, the way of the oil.

Metres; x is the radius to the right, y rises from the outer face of the plate to the dome. Only the right
half is laid out, since a filter is round; what is drawn on both sides is mirrored by whoever draws it.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import cos, pi, sin
from typing import Annotated, Literal

from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.field_units import IN_DRAWN_MM, Length
from tabrel.core.figures.section_sizes import SectionSizes, section_sizes
from tabrel.core.sample.measured_sample import MeasuredSample

Material = Literal["steel", "rubber", "media", "spring", "tube", "potting"]
OilKind = Literal["unfiltered", "filtered", "bypass"]
Point = tuple[float, float]

CAP = 0.6e-3
COVER = 0.7e-3
SLACK = 1e-3
DISC = 2e-3


@dataclass(frozen=True)
class SectionPart:
    """A cut part, right half.

    Attributes
    ----------
    key : str
        Reading that choosing it opens.
    material : str
        How it is hatched.
    outline : tuple of (float, float)
        Corners.
    guessed : bool
        Whether a size of it was not measured.
    """

    key: str
    material: Material
    outline: Annotated[tuple[Point, ...], IN_DRAWN_MM]
    guessed: bool


@dataclass(frozen=True)
class SectionDimension:
    """A dimension line from point to point, and where it reaches over both halves; and whether its size was measured."""

    key: str
    start: Annotated[Point, IN_DRAWN_MM]
    end: Annotated[Point, IN_DRAWN_MM]
    measured: bool = True


@dataclass(frozen=True)
class OilWay:
    """A way of the oil through the right half."""

    kind: OilKind
    points: Annotated[tuple[Point, ...], IN_DRAWN_MM]


@dataclass(frozen=True)
class SectionProblem:
    """A contradiction among measurements: a code, a sentence, and the reading to look at."""

    code: str
    message: str
    where: str


@dataclass(frozen=True)
class SectionLayout:
    """The section.

    Attributes
    ----------
    parts : tuple of SectionPart
        From the outside in.
    dimensions : tuple of SectionDimension
        One for every reading the section can show.
    ways : tuple of OilWay
        Of the oil.
    radius, bottom, top : float
        What the drawing must hold.
    problems : tuple of SectionProblem
        What cannot be as measured.
    has_can : bool
        Whether there is a can.
    """

    parts: tuple[SectionPart, ...]
    dimensions: tuple[SectionDimension, ...]
    ways: tuple[OilWay, ...]
    radius: Length
    bottom: Length
    top: Length
    problems: tuple[SectionProblem, ...]
    has_can: bool


@dataclass(frozen=True)
class _Levels:
    """Heights of the section. [m]"""

    plate_top: float
    element_bottom: float
    element_top: float
    dome: float


def section_layout(measured: MeasuredSample) -> SectionLayout:
    """Return the section of a measured sample; impossible readings still make a drawing."""
    sizes = section_sizes(measured)
    levels = _levels(sizes)
    parts = [*_element(sizes, levels), *_bypass(measured, sizes, levels)]
    if sizes.has_can:
        parts = [*_can(sizes, levels), *_plate(sizes, levels), *_seating(measured, sizes, levels), *parts]
    radius = (sizes["can.outside_diameter"] if sizes.has_can else sizes["element.outside_diameter"]) / 2
    return SectionLayout(
        parts=tuple(part for part in parts if part.outline),
        dimensions=tuple(replace(size, measured=not sizes.guessed(size.key)) for size in _dimensions(sizes, levels)),
        ways=tuple(_ways(measured, sizes, levels)),
        radius=max(radius, sizes["element.outside_diameter"] / 2),
        bottom=-sizes["gasket.protrusion"] if sizes.has_can else 0.0,
        top=max(levels.dome, levels.element_top),
        problems=tuple(_problems(sizes, levels)),
        has_can=sizes.has_can,
    )


def _levels(sizes: SectionSizes) -> _Levels:
    if not sizes.has_can:
        return _Levels(0.0, 0.0, sizes["element.height"], sizes["element.height"])
    plate_top = COVER + sizes["plate.thickness"]
    bottom = plate_top + sizes["anti_drain.thickness"] + SLACK + sizes["element.spacer_height"]
    return _Levels(plate_top, bottom, bottom + sizes["element.height"], sizes["can.height"])


def _box(x0: float, y0: float, x1: float, y1: float) -> tuple[Point, ...]:
    return ((x0, y0), (x1, y0), (x1, y1), (x0, y1)) if x1 > x0 and y1 > y0 else ()


def _dome(radius: float, top: float, bend: float) -> list[Point]:
    """Return one face of the shell: up the side, round the bend, to the axis."""
    angles = [i * pi / 16 for i in range(9)]
    arc = [(radius - bend + bend * cos(angle), top - bend + bend * sin(angle)) for angle in angles]
    return [(radius, 0.0), *arc, (0.0, top)]


def _can(sizes: SectionSizes, levels: _Levels) -> list[SectionPart]:
    outer, wall = sizes["can.outside_diameter"] / 2, sizes["can.wall_thickness"]
    top = levels.dome
    bend = min(outer / 3, top / 4)
    shell = (*_dome(outer, top, bend), *reversed(_dome(outer - wall, top - wall, max(bend - wall, bend / 2))))
    half = [sizes["gasket.outside_diameter"] / 2, sizes["gasket.inside_diameter"] / 2]
    ring_out, ring_in = max(half), min(half)
    low, cover = -sizes["gasket.protrusion"], _box(ring_out, 0.0, outer - wall, COVER)
    sizes_of_can = ("can.outside_diameter", "can.height", "can.wall_thickness")
    sizes_of_gasket = ("gasket.outside_diameter", "gasket.inside_diameter", "gasket.thickness", "gasket.protrusion")
    return [
        SectionPart("can.wall_thickness", "steel", shell, sizes.guessed(*sizes_of_can)),
        SectionPart("can.outside_diameter", "steel", cover, sizes.guessed("can.outside_diameter")),
        SectionPart(
            "gasket.thickness",
            "rubber",
            _box(ring_in, low, ring_out, low + sizes["gasket.thickness"]),
            sizes.guessed(*sizes_of_gasket),
        ),
    ]


def _plate(sizes: SectionSizes, levels: _Levels) -> list[SectionPart]:
    inner = sizes["thread.major_diameter"] / 2
    ring = sizes["gasket.inside_diameter"] / 2
    hole, circle = sizes["hole.diameter"], sizes["hole.circle_diameter"] / 2
    outer = max(ring, circle + hole / 2 + SLACK)
    guessed = sizes.guessed("plate.thickness", "thread.major_diameter", "hole.diameter", "hole.circle_diameter")
    lip, rubber = sizes["anti_drain.lip_diameter"] / 2, sizes["anti_drain.thickness"]
    return [
        SectionPart("plate.thickness", "steel", _box(inner, COVER, circle - hole / 2, levels.plate_top), guessed),
        SectionPart("plate.thickness", "steel", _box(circle + hole / 2, COVER, outer, levels.plate_top), guessed),
        SectionPart(
            "anti_drain.thickness",
            "rubber",
            _box(inner + SLACK, levels.plate_top, max(lip, inner + 2 * SLACK), levels.plate_top + rubber),
            sizes.guessed("anti_drain.lip_diameter", "anti_drain.thickness"),
        ),
    ]


def _seating(measured: MeasuredSample, sizes: SectionSizes, levels: _Levels) -> list[SectionPart]:
    """Return the spring between element and dome, unless there is none."""
    low, high = levels.element_top + CAP, levels.dome - sizes["can.wall_thickness"]
    if measured.sample.observations.get("seating.kind") == "none" or high - low < 2 * SLACK:
        return []
    guessed = "seating.spring_free_length" not in measured.known
    half = 0.8 * sizes["element.inside_diameter"] / 2
    return [SectionPart("seating.spring_free_length", "spring", _box(0.0, low, half, high), guessed)]


def _element(sizes: SectionSizes, levels: _Levels) -> list[SectionPart]:
    radii = sorted((sizes["element.inside_diameter"] / 2, sizes["element.outside_diameter"] / 2))
    inner, outer = radii
    bottom, top = levels.element_bottom, levels.element_top
    potting = min(sizes["element.potting_depth"], (top - bottom) / 2)
    guessed = sizes.guessed("element.outside_diameter", "element.inside_diameter", "element.height")
    wall = sizes["tube.wall_thickness"]
    return [
        SectionPart("media.thickness", "media", _box(inner, bottom + potting, outer, top - potting), guessed),
        *(
            SectionPart("element.potting_depth", "potting", _box(inner, low, outer, low + potting), guessed)
            for low in (bottom, top - potting)
        ),
        SectionPart("element.height", "steel", _box(inner - wall, bottom - CAP, outer, bottom), guessed),
        SectionPart("element.height", "steel", _box(inner - wall, top, outer, top + CAP), guessed),
        SectionPart("tube.wall_thickness", "tube", _box(inner - wall, bottom, inner, top), sizes.guessed("tube.wall_thickness")),
    ]


def _bypass(measured: MeasuredSample, sizes: SectionSizes, levels: _Levels) -> list[SectionPart]:
    place = measured.sample.bypass.location
    seats = sorted((sizes["bypass.seat_inside_diameter"] / 2, sizes["bypass.seat_outside_diameter"] / 2))
    hole, seat = seats
    # the plate the valve sits in closes the tube at the dome; at the thread end oil leaves around it
    inner = sizes["element.inside_diameter"] / 2 if place == "dome_end" else seat + 1.5e-3
    length = sizes["bypass.spring_installed_length"]
    coil = sizes["bypass.spring_outside_diameter"] / 2
    guessed = sizes.guessed("bypass.seat_inside_diameter", "bypass.seat_outside_diameter")
    spring_guessed = sizes.guessed("bypass.spring_installed_length", "bypass.spring_outside_diameter")
    top = levels.element_top
    closed = _box(0.0, top, sizes["element.inside_diameter"] / 2, top + CAP)
    far_end = [] if place == "dome_end" else [SectionPart("element.height", "steel", closed, sizes.guessed("element.height"))]
    if place not in ("dome_end", "thread_end"):
        return far_end
    at, way = (top, -1.0) if place == "dome_end" else (levels.element_bottom, 1.0)
    ring = sorted((at, at - way * CAP))
    disc = sorted((at, at + way * DISC))
    spring = sorted((at + way * DISC, at + way * (DISC + length)))
    return [
        *far_end,
        SectionPart("bypass.seat_inside_diameter", "steel", _box(hole, ring[0], inner, ring[1]), guessed),
        SectionPart("bypass.seat_outside_diameter", "rubber", _box(0.0, disc[0], seat + SLACK / 2, disc[1]), guessed),
        SectionPart("bypass.spring_installed_length", "spring", _box(0.0, spring[0], coil, spring[1]), spring_guessed),
    ]


def section_problems(measured: MeasuredSample) -> tuple[SectionProblem, ...]:
    """Return what cannot be as measured: an element that its can does not hold."""
    sizes = section_sizes(measured)
    return tuple(_problems(sizes, _levels(sizes)))


def _problems(sizes: SectionSizes, levels: _Levels) -> Iterator[SectionProblem]:
    if not sizes.has_can:
        return
    held = sum(sizes[key] for key in ("plate.thickness", "element.spacer_height", "can.wall_thickness") if not sizes.guessed(key))
    over = sizes["element.height"] + held - levels.dome
    if over > 0 and not sizes.guessed("can.height", "element.height"):
        message = f"the element and what it sits on are {shown_in_both(over, 'mm')} higher than the can: check both heights"
        yield SectionProblem("element_too_high", message, "element.height")
    if sizes.guessed("can.inside_diameter") and not sizes.guessed("can.outside_diameter", "element.outside_diameter"):
        wall = 0.0 if sizes.guessed("can.wall_thickness") else sizes["can.wall_thickness"]
        if sizes["element.outside_diameter"] > sizes["can.outside_diameter"] - 2 * wall:
            message = "the element is wider than the inside of its can: check both outside diameters"
            yield SectionProblem("element_wider_than_can", message, "element.outside_diameter")


def _dimensions(sizes: SectionSizes, levels: _Levels) -> list[SectionDimension]:
    bottom, top = levels.element_bottom, levels.element_top
    edge, inner = sizes["element.outside_diameter"] / 2, sizes["element.inside_diameter"] / 2
    spacer = sizes["element.spacer_height"]

    def across(key: str, y: float) -> SectionDimension:
        half = sizes[key] / 2
        return SectionDimension(key, (-half, y), (half, y))

    def upright(key: str, x: float, y: float) -> SectionDimension:
        return SectionDimension(key, (x, y), (x, y + sizes[key]))

    collected = [
        across("element.outside_diameter", top + 4e-3),
        across("element.inside_diameter", (bottom + top) / 2),
        upright("element.height", -edge - 3e-3, bottom),
        upright("element.potting_depth", edge - 3e-3, bottom),
        SectionDimension("tube.wall_thickness", (inner - sizes["tube.wall_thickness"], top / 2), (inner, top / 2)),
    ]
    if not sizes.has_can:
        return collected
    outer, wall, mid = sizes["can.outside_diameter"] / 2, sizes["can.wall_thickness"], 0.6 * levels.dome
    low, ring = -sizes["gasket.protrusion"], sizes["gasket.outside_diameter"] / 2
    thread = sizes["thread.major_diameter"] / 2
    return [
        *collected,
        across("can.outside_diameter", levels.dome + 4e-3),
        across("can.inside_diameter", 0.5 * levels.dome),
        upright("can.height", -outer - 4e-3, 0.0),
        SectionDimension("can.wall_thickness", (outer - wall, mid), (outer, mid)),
        across("gasket.outside_diameter", low - 4e-3),
        across("gasket.inside_diameter", low - 4e-3),
        upright("gasket.thickness", ring + 2e-3, low),
        upright("gasket.protrusion", ring + 2e-3, low),
        across("thread.major_diameter", COVER / 2),
        upright("plate.thickness", thread + 2e-3, COVER),
        across("anti_drain.lip_diameter", levels.plate_top + 3e-3),
        upright("anti_drain.lift", sizes["anti_drain.lip_diameter"] / 2, levels.plate_top),
        upright("anti_drain.thickness", thread + 4e-3, levels.plate_top),
        upright("element.spacer_height", edge - 6e-3, bottom - spacer),
    ]


def _ways(measured: MeasuredSample, sizes: SectionSizes, levels: _Levels) -> list[OilWay]:
    inner, outer = sorted((sizes["element.inside_diameter"] / 2, sizes["element.outside_diameter"] / 2))
    bottom, top = levels.element_bottom, levels.element_top
    at, place = bottom + (top - bottom) / 3, measured.sample.bypass.location
    wall = sizes["can.outside_diameter"] / 2 - sizes["can.wall_thickness"] if sizes.has_can else outer + 6e-3
    gap = (outer + max(wall, outer + 1e-3)) / 2
    under = levels.plate_top + 1.5e-3
    start, below = (sizes["hole.circle_diameter"] / 2, -8e-3) if sizes.has_can else (gap, bottom - 6e-3), bottom - CAP
    entering = [start, (start[0], under)] if sizes.has_can else [start]
    down = 0.75 * inner if place == "thread_end" else inner / 2
    ways = [
        OilWay("unfiltered", (*entering, (gap, bottom), (gap, at), (outer - 1e-3, at))),
        OilWay("filtered", ((inner, at), (down, at), (down, below))),
    ]
    if sizes.has_can:
        leave = 0.6 * sizes["thread.major_diameter"] / 2
        ways.append(OilWay("filtered", ((down, below), (leave, COVER), (leave, -9e-3))))
    if place == "dome_end":
        above = top + 3e-3
        ways.append(OilWay("bypass", ((gap, at), (gap, above), (inner / 4, above), (inner / 4, top - (top - at) / 2))))
    elif place == "thread_end" and sizes.has_can:
        ways.append(OilWay("bypass", ((start[0], under), (inner / 4, below - 1e-3), (inner / 4, bottom + (at - bottom) / 2))))
    return ways

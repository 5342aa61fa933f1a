"""The bypass valve in section at three lifts, to scale, for paper and screen."""

from __future__ import annotations

from functools import lru_cache

from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.units import UnitFamily, unit_in
from tabrel.core.figures.valve_sizes import ValveSizes, valve_sizes
from tabrel.core.numbers import significant
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.report.figures.drawings import FAMILIES, MM, MOST_LINES, DrawnFilter, size_words
from tabrel.report.figures.svg import Drawing, Point

PLATE, SEAT, DISC, ABOVE, ASIDE = 1.2, 1.0, 2.0, 3.0, 3.0
"""Thickness of the plate, height of the seat, thickness of the disc, room above the plate and beside each valve. [mm]"""
WORDS = 42
"""Room below for what stands there, in fine lines."""


def _lights(*parts: str) -> tuple[str, ...]:
    return tuple(key for key in QUANTITIES if any(key.startswith(f"bypass.{part}") for part in parts))


def valve_drawing(measured: MeasuredSample, family: UnitFamily | None = None) -> DrawnFilter:
    """Return the bypass valve closed, opening and full open.

    Parameters
    ----------
    measured : MeasuredSample
        From `measure_sample`.
    family : str or None
        Units of its lifts and pressures; None for the screen.
    """
    return _valve(valve_sizes(measured), measured.bypass.opening.value, measured.bypass.full_open.value, family)


@lru_cache(maxsize=64)
def _valve(sizes: ValveSizes, opening: float | None, full_open: float | None, family: UnitFamily | None) -> DrawnFilter:
    """Return the drawing, drawn once as long as nothing of it changes."""
    wide = max(sizes.disc, sizes.spring_width) * MM + 2 * ASIDE
    support = -(ABOVE + PLATE + SEAT + DISC + sizes.spring_length * MM)
    states = (
        ("closed", 0.0, opening),
        ("opening", sizes.lift / 2, sizes.half_open_pressure),
        ("full open", sizes.lift, full_open),
    )
    alt = "Bypass valve in section, its lift to scale: closed, opening, full open."
    whole = 3 * wide + 2 * ASIDE
    drawing = Drawing(-1, support - 2 - WORDS * whole / 300, whole + 1, 1, alt, name="" if family else "valve")
    steel = drawing.hatch("steel", drawing.inks.slate, drawing.inks.paper)
    for i, (name, lift, pressure) in enumerate(states):
        axis = wide * (i + 0.5) + i * ASIDE
        _state(drawing, sizes, axis, lift * MM, wide, support, steel)
        words = size_words(lift * MM, 2, "lift {}") if lift else {}
        low, line = support - 2, drawing.line
        drawing.text((axis, low - 10 * line), name, size=11.5, ink=drawing.inks.ink)
        if pressure is not None:
            at = {in_: f"{'below ' if not lift else ''}{_pressure(pressure, in_)}" for in_ in FAMILIES}
            drawing.text((axis, low - 23 * line), at, size=11.2, ink=drawing.inks.ink_soft)
        if words:
            drawing.text((axis, low - 35 * line), words, size=11.2, ink=drawing.inks.ink_soft)
    return DrawnFilter(drawing.svg(), alt, (), "Typical sizes stand in for what was not measured." if sizes.is_typical else "")


def _pressure(pascal: float, family: UnitFamily) -> str:
    unit = unit_in("kPa", family)
    return f"{significant(unit.number(pascal / 1e3), 3)} {unit.symbol}"


def _state(drawing: Drawing, sizes: ValveSizes, axis: float, lift: float, wide: float, support: float, steel: str) -> None:
    """Draw the valve at one lift."""
    inks, line = drawing.inks, drawing.line
    seat = -(ABOVE + PLATE + SEAT)  # its face; what moves hangs below it
    inner, outer, disc = (size / 2 * MM for size in (sizes.seat_inside, sizes.seat_outside, sizes.disc))
    for side in (1.0, -1.0) if lift else ():
        y = seat - lift / 2
        way = [(side * inner / 2.5, seat + SEAT + PLATE + 2), (side * inner / 2.5, y), (side * (outer + 2), y)]
        look = {"stroke": inks.rust, "stroke_linejoin": "round", "stroke_linecap": "round"}
        drawing.path(drawing.d(_at(axis, way), closed=False), **look, stroke_width=max(1.5 * line, lift / 4), opacity=0.75)
    face = seat - lift
    top = face - DISC
    with drawing.part("bypass.spring_wire_diameter", lit=_lights("spring")):
        if sizes.form == "coil":
            _spring(drawing, sizes, axis, top, support)
        elif sizes.form == "leaf":
            blade = [(x / 10 * disc, support + (top - support) * (1 - (x / 10) ** 2)) for x in range(-10, 11)]
            drawing.path(drawing.d(_at(axis, blade), closed=False), stroke=inks.slate, stroke_width=1.2 * line)
    high = seat + SEAT + PLATE
    with drawing.part("bypass.seat_inside_diameter", lit=_lights("seat")):
        for side in (1.0, -1.0):
            edge = side * wide / 2
            half = [(side * inner, high), (edge, high), (edge, high - PLATE), (side * outer, high - PLATE),
                    (side * outer, seat), (side * inner, seat)]  # fmt: skip
            drawing.path(drawing.d(_at(axis, half)), fill=steel, stroke=inks.ink, stroke_width=line)
    hinge = seat if sizes.form == "flap" else face  # a flap bends away from its left edge
    moving = [(-disc, hinge), (disc, face), (disc, top), (-disc, hinge - DISC)]
    drawing.path(drawing.d(_at(axis, moving)), fill=inks.ink_soft, stroke=inks.ink, stroke_width=line)
    rest = [(-wide / 2, support), (wide / 2, support), (wide / 2, support - PLATE), (-wide / 2, support - PLATE)]
    drawing.path(drawing.d(_at(axis, rest)), fill=steel, stroke=inks.ink, stroke_width=line)
    if lift:
        with drawing.part(lit=_lights("lift")):
            x = disc + 1.6
            marks = [[(disc, face), (disc + 2.4, face)], [(outer, seat), (outer + 2.9, seat)], [(x, seat), (x, face)]]
            d = drawing.d(*(_at(axis, mark) for mark in marks), closed=False)
            drawing.path(d, stroke=inks.hand, stroke_width=line)


def _at(axis: float, points: list[Point]) -> list[Point]:
    return [(axis + x, y) for x, y in points]


def _spring(drawing: Drawing, sizes: ValveSizes, axis: float, top: float, support: float) -> None:
    """Draw a coil spring: the zigzag of its coils, and its wire where it is cut."""
    inks, line, wire = drawing.inks, drawing.line, sizes.wire / 2 * MM
    turns = min(MOST_LINES, max(2, round(2 * sizes.coils)))
    high, low, half = top - wire, support + wire, sizes.spring_width / 2 * MM
    points = _at(axis, [(half if i % 2 else -half, high + (low - high) * i / turns) for i in range(turns + 1)])
    drawing.path(drawing.d(points, closed=False), stroke=inks.slate, stroke_width=1.2 * line, stroke_linejoin="round")
    drawing.dots(points, wire, fill=inks.slate_wash, stroke=inks.ink, stroke_width=0.8 * line)

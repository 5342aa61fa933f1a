"""Drawings of a filter for paper and screen, from the core's own layouts: the section, and what all share."""

from __future__ import annotations

from collections.abc import Collection, Container, Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import hypot
from typing import Annotated

from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.catalogue.units import UnitFamily, unit_in
from tabrel.core.field_units import INSIDE
from tabrel.core.figures.section_layout import SectionLayout, section_layout
from tabrel.core.numbers import significant
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.report.figures.svg import Drawing, Point
from tabrel.report.words import estimate_words, sentence

MM = 1e3
MARGIN = 20.0
"""Beside a drawing, for its balloons. [mm]"""
MOST_LINES = 60
"""Whatever size was typed, no more lines than can be told apart."""

SIDES = (1.0, -1.0)
FAMILIES: tuple[UnitFamily, ...] = ("metric", "inch")


@dataclass(frozen=True)
class KeyedSize:
    """A size of a drawing: its number there, what it is, and its value with U."""

    number: str
    title: str
    words: str
    key: str = ""


@dataclass(frozen=True)
class DrawnFilter:
    """A drawing as SVG, with what stands beside it.

    Attributes
    ----------
    svg, alt : str
    sizes : tuple of KeyedSize
        By the numbers in the drawing.
    note : str
        What is not measured; empty where nothing is to be said.
    problems : tuple of str
        What cannot be as measured.
    """

    svg: str
    alt: str
    sizes: Annotated[tuple[KeyedSize, ...], INSIDE]
    note: str
    problems: tuple[str, ...] = ()

    @property
    def words(self) -> str:
        """Note and problems."""
        return " ".join(filter(None, (self.note, *map(sentence, self.problems))))


def section_drawing(
    measured: MeasuredSample, family: UnitFamily | None = None, *, keys: Collection[str] | None = None
) -> DrawnFilter:
    """Return the section through the whole filter with a number at every size that was measured.

    Parameters
    ----------
    measured : MeasuredSample
        From `measure_sample`.
    family : str or None
        Units of the sizes beside it; None for the screen, where a size shows itself when it is in hand.
    keys : collection of str or None
        Of the sizes to be numbered instead, measured or not.
    """
    layout = section_layout(measured)
    if family is None:
        return _on_screen(layout)
    drawing = _section(layout, "")
    sizes = _section_sizes(drawing, layout, measured, family, measured.estimates if keys is None else keys)
    return _drawn(drawing, layout, sizes)


@lru_cache(maxsize=64)
def _on_screen(layout: SectionLayout) -> DrawnFilter:
    """Return the section for the screen, drawn once as long as nothing of it changes."""
    drawing = _section(layout, "section")
    _sizes_in_hand(drawing, layout)
    return _drawn(drawing, layout, ())


def _drawn(drawing: Drawing, layout: SectionLayout, sizes: tuple[KeyedSize, ...]) -> DrawnFilter:
    guessed = sorted({PART_TITLES[part.key.partition(".")[0]].lower() for part in layout.parts if part.guessed})
    note = f"Dashed, at typical sizes: {', '.join(guessed)}." if guessed else ""
    return DrawnFilter(drawing.svg(), drawing.title, sizes, note, tuple(problem.message for problem in layout.problems))


def _section(layout: SectionLayout, name: str) -> Drawing:
    """Draw parts and ways of the oil."""
    radius, bottom, top = layout.radius * MM, layout.bottom * MM, layout.top * MM
    alt = "Section through the filter, drawn to scale from its readings."
    aside = 11 if name else MARGIN
    drawing = Drawing(-radius - aside, bottom - 12, radius + aside, top + 10, alt, name=name)
    line, inks = drawing.line, drawing.inks
    fills = {
        "steel": drawing.hatch("steel", inks.slate, inks.paper),
        "rubber": drawing.hatch("rubber", inks.ink, inks.ink_soft, pitch=2.4),
        "media": inks.amber_wash,
        "potting": inks.line_strong if name else inks.line,
    }
    fills["tube"] = fills["steel"]
    axis = drawing.d([(0, bottom - 9), (0, top + 8)], closed=False)
    drawing.path(axis, stroke=inks.ink_soft, stroke_width=0.5 * line, stroke_dasharray=dash_lengths(line, 8, 2, 2, 2))
    for part in layout.parts:
        points = [(x * MM, y * MM) for x, y in part.outline]
        dashes = dash_lengths(line, 4, 2.5) if part.guessed else None
        with drawing.part(part.key, lit=[part.key], material=part.material):
            if part.material == "spring":
                drawing.path(
                    drawing.d(_coils(points), closed=False), stroke=inks.slate, stroke_width=1.4 * line, stroke_dasharray=dashes
                )
                continue
            for sides in [SIDES] if drawing.name else [SIDES[:1], SIDES[1:]]:
                halves = drawing.d(*([(side * x, y) for x, y in points] for side in sides))
                look = {"fill": fills[part.material], "fill_opacity": 0.45 if part.guessed else None, "stroke": inks.ink}
                drawing.path(halves, **look, stroke_width=0.9 * line, stroke_dasharray=dashes)
                if part.material == "media":
                    pleats = (line_across for side in sides for line_across in _pleats(points, side))
                    drawing.path(drawing.d(*pleats, closed=False), stroke=inks.amber, stroke_width=0.6 * line)
    _ways(drawing, layout)
    return drawing


def size_words(value: float, digits: int, form: str = "{}") -> dict[UnitFamily, str]:
    """Return a length in words of each unit family; in millimetres."""
    units = {family: unit_in("mm", family) for family in FAMILIES}
    return {family: form.format(f"{significant(unit.number(value), digits)} {unit.symbol}") for family, unit in units.items()}


def _sizes_in_hand(drawing: Drawing, layout: SectionLayout) -> None:
    """Draw the dimension line of every size, each seen while its reading is in hand."""
    line, ink = drawing.line, drawing.inks.hand
    out = 9 * line
    for size in layout.dimensions:
        (x0, y0), (x1, y1) = ((x * MM, y * MM) for x, y in (size.start, size.end))
        length, is_upright = hypot(x1 - x0, y1 - y0), x0 == x1
        is_small = length < 14 * line
        form = "⌀ {}" if size.key.endswith("diameter") and not is_upright else "{}"
        words = size_words(length, 3, form if size.measured else f"{form}, not measured")
        with drawing.part(lit=[size.key], size="section"):
            if is_small:  # arrows from outside, and the words beside, where there is no room between the tips
                along = (0.0, out) if is_upright else (out, 0.0)
                drawing.arrow((x0 - along[0], y0 - along[1]), (x0, y0), ink=ink, both=False)
                drawing.arrow((x1 + along[0], y1 + along[1]), (x1, y1), ink=ink, both=False)
            else:
                drawing.arrow((x0, y0), (x1, y1), ink=ink)
            if is_upright:
                turn, aside = (-90.0, -3 * line) if x0 < 0 else (0.0, 3 * line)
                at, anchor = (x0 + aside, (y0 + y1) / 2 - (0 if turn else aside)), "middle" if turn else "start"
            else:
                turn, at, anchor = 0.0, ((x0 + x1) / 2, y0 + 2.5 * line), "middle"
                if is_small:
                    at, anchor = (x1 + out + 2 * line, at[1]), "start"
            drawing.text(at, words, size=11.2, ink=ink, anchor=anchor, weight=650, turn=turn)


def dash_lengths(line: float, *lengths: float) -> str:
    """Return dashes and gaps as so many fine lines each."""
    return " ".join(f"{length * line:.3f}" for length in lengths)


def _bounds(points: Sequence[Point]) -> tuple[float, float, float, float]:
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), max(xs), min(ys), max(ys)


def _coils(points: Sequence[Point]) -> list[Point]:
    """Return a spring as the zigzag of its coils instead of its box."""
    _, half, low, high = _bounds(points)
    turns = min(MOST_LINES, max(4, 2 * round((high - low) / 3)))
    return [(half if i % 2 else -half, low + (high - low) * i / turns) for i in range(turns + 1)]


def _pleats(points: Sequence[Point], side: float) -> list[list[Point]]:
    """Return lines across the media: pleats seen from the side."""
    left, right, low, high = _bounds(points)
    count = min(MOST_LINES, max(2, round((right - left) / 2.2)))
    xs = [side * (left + (right - left) * i / count) for i in range(1, count)]
    return [[(x, low), (x, high)] for x in xs]


def _ways(drawing: Drawing, layout: SectionLayout) -> None:
    inks = {"unfiltered": drawing.inks.rust, "filtered": drawing.inks.amber, "bypass": drawing.inks.rust}
    for way in layout.ways:
        with drawing.part(way=way.kind):
            for side in (1.0,) if way.kind == "bypass" else SIDES:
                _way(drawing, [(side * x * MM, y * MM) for x, y in way.points], inks[way.kind], is_dashed=way.kind == "bypass")
    media = next((part for part in layout.parts if part.material == "media"), None)
    if media and drawing.name:  # on screen it is as wide as what goes past the media through defects
        left, right, low, high = _bounds([(x * MM, y * MM) for x, y in media.outline])
        with drawing.part(way="defects"):
            for side in SIDES:
                y = low + (high - low) / 3
                _way(drawing, [(side * (right + 3), y), (side * (left - 3), y)], drawing.inks.rust, is_dashed=False)


def _way(drawing: Drawing, points: Sequence[Point], ink: str, *, is_dashed: bool) -> None:
    drawing.path(
        drawing.d(points[:-1], closed=False) if len(points) > 2 else "",
        stroke=ink,
        stroke_width=1.3 * drawing.line,
        stroke_dasharray=dash_lengths(drawing.line, 4, 3) if is_dashed else None,
        stroke_linejoin="round",
    )
    drawing.arrow(points[-2], points[-1], ink=ink, width=1.3, both=False)


def _section_sizes(
    drawing: Drawing, layout: SectionLayout, measured: MeasuredSample, family: UnitFamily, keys: Container[str]
) -> tuple[KeyedSize, ...]:
    """Draw a dimension line for every size that is asked for, with a numbered balloon beside the drawing."""
    known = [dimension for dimension in layout.dimensions if dimension.key in keys]
    sides: dict[float, list[tuple[Point, str]]] = {1.0: [], -1.0: []}
    for i, section_dimension in enumerate(sorted(known, key=lambda dimension: -max(dimension.start[1], dimension.end[1]))):
        start, end = ((x * MM, y * MM) for x, y in (section_dimension.start, section_dimension.end))
        drawing.arrow(start, end, ink=drawing.inks.hand, width=0.8)
        upright = start[0] == end[0]
        side = (1.0 if start[0] > 0 else -1.0) if upright else (1.0 if i % 2 == 0 else -1.0)
        at = (start[0], (start[1] + end[1]) / 2) if upright else max((start, end), key=lambda point: side * point[0])
        sides[side].append((at, section_dimension.key))
    named: list[tuple[str, str]] = []
    gap = 17 * drawing.line
    _, bottom, right, top = drawing.box
    for side, wanted in sides.items():
        wanted.sort(key=lambda item: -item[0][1])
        for (at, key), y in zip(wanted, _apart([at[1] for at, _ in wanted], gap, bottom + gap / 2, top - gap / 2), strict=True):
            place = (side * (right - 9 * drawing.line), y)
            number = str(len(named) + 1)
            named.append((number, key))
            drawing.path(drawing.d([at, place], closed=False), stroke=drawing.inks.hand, stroke_width=0.5 * drawing.line)
            drawing.balloon(place, number, ink=drawing.inks.hand)
    return tuple(KeyedSize(number, size_title(key), _words_of(key, measured, family), key) for number, key in named)


def _words_of(key: str, measured: MeasuredSample, family: UnitFamily) -> str:
    return estimate_words(key, measured.estimates[key], family) if key in measured.estimates else "not measured"


def _apart(wanted: Sequence[float], gap: float, low: float, high: float) -> list[float]:
    """Return heights near those wanted (the highest first), at least a gap from each other and inside the drawing."""
    placed: list[float] = []
    for y in wanted:
        placed.append(min(y, high) if not placed else min(y, placed[-1] - gap))
    for i in range(len(placed) - 1, -1, -1):
        least = low if i == len(placed) - 1 else placed[i + 1] + gap
        placed[i] = max(placed[i], least)
    return placed


def size_title(key: str) -> str:
    """Return what a size is called, with its part."""
    return f"{PART_TITLES[QUANTITIES[key].part]}: {QUANTITIES[key].title}"


def scale_bars(drawing: Drawing, at: Point) -> None:
    """Draw the bar of each unit family, on screen."""
    for family in FAMILIES:
        with drawing.part(family=family, scale="bar"):
            scale_bar(drawing, family, at)


def scale_bar(drawing: Drawing, family: UnitFamily, at: Point) -> None:
    """Draw a bar as long as it says."""
    length, words = (10.0, "10 mm") if family == "metric" else (12.7, "0.5 in")
    (x, y), line = at, drawing.line
    bar = drawing.d([(x, y), (x + length, y)], closed=False)
    ends = "".join(drawing.d([(end, y - 1.2), (end, y + 1.2)], closed=False) for end in (x, x + length))
    drawing.path(bar + ends, stroke=drawing.inks.ink_soft, stroke_width=line)
    drawing.text(
        (x + length + 2, y - 3 * line), words, size=13 if drawing.name else 10, ink=drawing.inks.ink_soft, anchor="start"
    )

"""Drawings of a filter for print, from the core's own layouts: section, plate, pleat pack, strip."""

from __future__ import annotations

from collections.abc import Collection, Container, Sequence
from dataclasses import dataclass

from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.catalogue.terms import PLATE_CIRCLES
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.figures.section_layout import SectionLayout, section_layout
from tabrel.core.parts.plate_layout import PlateLayout
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.report.figures.palette import AMBER, AMBER_WASH, HAND, INK, INK_SOFT, LINE, RUST, RUST_WASH, SLATE, SLATE_WASH
from tabrel.report.figures.svg import Drawing, Point, arc_circle, path_of
from tabrel.report.words import estimate_words, length_words, sentence

MM = 1e3
MARGIN = 20.0
"""Beside a drawing, for its balloons. [mm]"""
MOST_LINES = 60
"""Whatever size was typed, no more lines than can be told apart."""

SIDES = (1.0, -1.0)


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
        What is not measured, or cannot be as measured; empty where nothing is to be said.
    """

    svg: str
    alt: str
    sizes: tuple[KeyedSize, ...]
    note: str


def section_drawing(measured: MeasuredSample, family: UnitFamily, *, keys: Collection[str] | None = None) -> DrawnFilter:
    """Return the section through the whole filter with a number at every size that was measured.

    Parameters
    ----------
    measured : MeasuredSample
        From `measure_sample`.
    family : str
        Units of the sizes beside it.
    keys : collection of str or None
        Of the sizes to be numbered instead, measured or not.

    Returns
    -------
    DrawnFilter
    """
    layout = section_layout(measured)
    radius, bottom, top = layout.radius * MM, layout.bottom * MM, layout.top * MM
    alt = "Section through the filter, drawn to scale from its readings."
    drawing = Drawing(-radius - MARGIN, bottom - 12, radius + MARGIN, top + 10, alt)
    line = drawing.line
    fills = {
        "steel": drawing.hatch("steel", SLATE, "#ffffff"),
        "rubber": drawing.hatch("rubber", INK, INK_SOFT, pitch=2.4),
        "media": AMBER_WASH,
        "potting": LINE,
    }
    fills["tube"] = fills["steel"]
    axis = path_of([(0, bottom - 9), (0, top + 8)], closed=False)
    drawing.path(axis, stroke=INK_SOFT, stroke_width=0.5 * line, stroke_dasharray=dash_lengths(line, 8, 2, 2, 2))
    for part in layout.parts:
        points = [(x * MM, y * MM) for x, y in part.outline]
        dashes = dash_lengths(line, 4, 2.5) if part.guessed else None
        if part.material == "spring":
            drawing.path(_coils(points), stroke=SLATE, stroke_width=1.4 * line, stroke_dasharray=dashes)
            continue
        for side in SIDES:
            half = path_of([(side * x, y) for x, y in points])
            fill = fills[part.material]
            opacity = 0.45 if part.guessed else None
            drawing.path(half, fill=fill, fill_opacity=opacity, stroke=INK, stroke_width=0.9 * line, stroke_dasharray=dashes)
            if part.material == "media":
                drawing.path(_pleats(points, side), stroke=AMBER, stroke_width=0.6 * line)
    _ways(drawing, layout)
    numbered = measured.estimates if keys is None else keys
    sizes = _section_sizes(drawing, layout, measured, family, numbered)
    guessed = sorted({PART_TITLES[part.key.partition(".")[0]].lower() for part in layout.parts if part.guessed})
    text = [f"Dashed, at typical sizes: {', '.join(guessed)}."] if guessed else []
    text += [sentence(problem.message) for problem in layout.problems]
    return DrawnFilter(drawing.svg(), alt, sizes, " ".join(text))


def dash_lengths(line: float, *lengths: float) -> str:
    """Return dashes and gaps as so many fine lines each."""
    return " ".join(f"{length * line:.3f}" for length in lengths)


def _bounds(points: Sequence[Point]) -> tuple[float, float, float, float]:
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), max(xs), min(ys), max(ys)


def _coils(points: Sequence[Point]) -> str:
    """Return a spring as the zigzag of its coils instead of its box."""
    _, half, low, high = _bounds(points)
    turns = min(MOST_LINES, max(4, 2 * round((high - low) / 3)))
    return path_of([(half if i % 2 else -half, low + (high - low) * i / turns) for i in range(turns + 1)], closed=False)


def _pleats(points: Sequence[Point], side: float) -> str:
    """Return lines across the media: pleats seen from the side."""
    left, right, low, high = _bounds(points)
    count = min(MOST_LINES, max(2, round((right - left) / 2.2)))
    xs = [side * (left + (right - left) * i / count) for i in range(1, count)]
    return "".join(path_of([(x, low), (x, high)], closed=False) for x in xs)


def _ways(drawing: Drawing, layout: SectionLayout) -> None:
    inks = {"unfiltered": RUST, "filtered": AMBER, "bypass": RUST}
    for way in layout.ways:
        for side in (1.0,) if way.kind == "bypass" else SIDES:
            points = [(side * x * MM, y * MM) for x, y in way.points]
            dashes = dash_lengths(drawing.line, 4, 3) if way.kind == "bypass" else None
            ink = inks[way.kind]
            drawing.path(
                path_of(points[:-1], closed=False) if len(points) > 2 else "",
                stroke=ink,
                stroke_width=1.3 * drawing.line,
                stroke_dasharray=dashes,
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
        drawing.arrow(start, end, ink=HAND, width=0.8)
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
            drawing.path(path_of([at, place], closed=False), stroke=HAND, stroke_width=0.5 * drawing.line)
            drawing.balloon(place, number, ink=HAND)
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


def plate_drawing(measured: MeasuredSample, family: UnitFamily) -> DrawnFilter:
    """Return the tapping plate seen from below, its hole groups lettered.

    Parameters
    ----------
    measured : MeasuredSample
        From `measure_sample`.
    family : str
        Units of the sizes beside it.

    Returns
    -------
    DrawnFilter
    """
    layout: PlateLayout = measured.plate
    circles = {circle.key: circle for circle in layout.circles}
    half = max(*(circle.diameter for circle in layout.circles), 20e-3) / 2 * MM + 10
    count = len(layout.holes)
    alt = f"Tapping plate seen from below, drawn to scale, with {count} inlet hole{'' if count == 1 else 's'}."
    drawing = Drawing(-half, -half - 4, half, half, alt)
    line = drawing.line
    cross = path_of([(-half + 2, 0), (half - 2, 0)], closed=False) + path_of([(0, -half + 2), (0, half - 2)], closed=False)
    drawing.path(cross, stroke=INK_SOFT, stroke_width=0.5 * line, stroke_dasharray=dash_lengths(line, 9, 2, 2, 2))
    rubber = drawing.hatch("gasket", INK, INK_SOFT, pitch=3)

    def dashed(key: str) -> str | None:
        return None if circles[key].measured else dash_lengths(line, 4, 3)

    def radius(key: str) -> float:
        return circles[key].diameter / 2 * MM

    drawing.circle((0, 0), radius("can.outside_diameter"), fill=SLATE_WASH, stroke=SLATE, stroke_width=1.6 * line,
                   stroke_dasharray=dashed("can.outside_diameter"))  # fmt: skip
    ends = sorted((radius("gasket.outside_diameter"), radius("gasket.inside_diameter")))
    is_measured = circles["gasket.outside_diameter"].measured and circles["gasket.inside_diameter"].measured
    drawing.path(
        arc_circle(ends[1]) + arc_circle(ends[0]),
        fill=rubber,
        fill_rule="evenodd",
        fill_opacity=None if is_measured else 0.3,
        stroke=INK,
        stroke_width=line,
        stroke_dasharray=None if is_measured else dash_lengths(line, 4, 3),
    )
    if "anti_drain.lip_diameter" in circles:
        lip = radius("anti_drain.lip_diameter")
        drawing.circle((0, 0), lip, stroke=INK_SOFT, stroke_width=line, stroke_dasharray=dash_lengths(line, 6, 3))
    for hole in layout.holes:
        outline = path_of([(x * MM, y * MM) for x, y in hole.outline])
        drawing.path(outline, fill=RUST_WASH if hole.wrong else AMBER_WASH, stroke=RUST if hole.wrong else AMBER,
                     stroke_width=(2 if hole.wrong else 1.2) * line)  # fmt: skip
    bore = "plate.centre_hole_diameter" if "plate.centre_hole_diameter" in circles else "thread.minor_diameter"
    if bore in circles:
        drawing.circle((0, 0), radius(bore), fill="#ffffff", stroke=SLATE, stroke_width=1.2 * line)
    thread = radius("thread.major_diameter")
    quarter = f"M0 {-thread:.3f}A{thread:.3f} {thread:.3f} 0 1 0 {thread:.3f} 0"
    drawing.path(quarter, stroke=SLATE, stroke_width=line, stroke_dasharray=dashed("thread.major_diameter"))
    if "circuit.stud" in circles:
        drawing.circle((0, 0), radius("circuit.stud"), stroke=AMBER, stroke_width=1.6 * line)
    lettered = _lettered(drawing, layout)
    scale_bar(drawing, family, (-half + 3, -half))
    sizes = (*_hole_sizes(measured, lettered, family), *_circle_sizes(measured, layout, family))
    guessed = [PLATE_CIRCLES[key] for key in circles if not circles[key].measured and key in MEASURABLE]
    notes = [f"Dashed, at typical sizes: {', '.join(guessed)}."] if guessed else []
    notes += [sentence(problem.message) for problem in layout.problems]
    return DrawnFilter(drawing.svg(), alt, sizes, " ".join(notes))


MEASURABLE = ("can.outside_diameter", "gasket.outside_diameter", "gasket.inside_diameter", "thread.major_diameter")
"""Circles that are drawn dashed while they are not measured."""

LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ"


def _lettered(drawing: Drawing, layout: PlateLayout) -> dict[int, str]:
    """Write the letter of each group into its first hole, or beside it where the hole is small."""
    letters: dict[int, str] = {}
    for hole in layout.holes:
        if hole.group in letters:
            continue
        letters[hole.group] = LETTERS[hole.group % len(LETTERS)]
        x, y = hole.centre[0] * MM, hole.centre[1] * MM
        drawing.text((x, y - 3.5 * drawing.line), letters[hole.group], size=10, ink=INK, weight=600)
    return letters


def _hole_sizes(measured: MeasuredSample, letters: dict[int, str], family: UnitFamily) -> list[KeyedSize]:
    collected = []
    for i, group in enumerate(measured.sample.holes.inlet):
        sentences = []
        for dimension, _ in group.readings.by_dimension():
            key = f"holes.inlet[{i}].{dimension}"
            if key in measured.hole_estimates:
                sentences.append(f"{dimension.replace('_', ' ')} {estimate_words(key, measured.hole_estimates[key], family)}")
        open_part = "" if group.open_fraction in (None, 1.0) else f", {100 * (group.open_fraction or 0):.0f} % open"
        title = f"{group.count} {group.shape} inlet hole{'' if group.count == 1 else 's'}{open_part}"
        collected.append(KeyedSize(letters.get(i, "–"), title, "; ".join(sentences) or "not measured"))
    return collected


def _circle_sizes(measured: MeasuredSample, layout: PlateLayout, family: UnitFamily) -> list[KeyedSize]:
    result = []
    for circle in layout.circles:
        if circle.key in measured.estimates:
            result.append(
                KeyedSize("⌀", PLATE_CIRCLES[circle.key], estimate_words(circle.key, measured.estimates[circle.key], family))
            )
        elif circle.key == "circuit.stud":
            result.append(KeyedSize("⌀", PLATE_CIRCLES[circle.key], f"{length_words(circle.diameter, family)}, of the engine"))
    return result


def scale_bar(drawing: Drawing, family: UnitFamily, at: Point) -> None:
    """Draw a bar as long as it says."""
    length, words = (10.0, "10 mm") if family == "metric" else (12.7, "0.5 in")
    (x, y), line = at, drawing.line
    bar = path_of([(x, y), (x + length, y)], closed=False)
    ends = "".join(path_of([(end, y - 1.2), (end, y + 1.2)], closed=False) for end in (x, x + length))
    drawing.path(bar + ends, stroke=INK_SOFT, stroke_width=line)
    drawing.text((x + length + 2, y - 3 * line), words, size=10, ink=INK_SOFT, anchor="start")

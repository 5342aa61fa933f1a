"""The tapping plate from below for paper and screen, from the core's own layout."""

from __future__ import annotations

from functools import lru_cache

from tabrel.core.catalogue.terms import PLATE_CIRCLES
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.parts.plate_layout import PlateLayout
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.report.figures.drawings import MM, DrawnFilter, KeyedSize, dash_lengths, scale_bar, scale_bars, size_words
from tabrel.report.figures.svg import Drawing, arc_circle
from tabrel.report.words import estimate_words, length_words


def plate_drawing(measured: MeasuredSample, family: UnitFamily | None = None) -> DrawnFilter:
    """Return the tapping plate seen from below, its hole groups lettered.

    Parameters
    ----------
    measured : MeasuredSample
        From `measure_sample`.
    family : str or None
        Units of the sizes beside it; None for the screen, where a size shows itself when it is in hand.
    """
    layout: PlateLayout = measured.plate
    if family is None:
        return _on_screen(layout)
    drawing = _plate(layout, "")
    lettered = _lettered(drawing, layout)
    left, bottom, _, _ = drawing.box
    scale_bar(drawing, family, (left + 3, bottom + 4))
    return _drawn(drawing, layout, (*_hole_sizes(measured, lettered, family), *_circle_sizes(measured, layout, family)))


@lru_cache(maxsize=64)
def _on_screen(layout: PlateLayout) -> DrawnFilter:
    """Return the plate for the screen, drawn once as long as nothing of it changes."""
    drawing = _plate(layout, "plate")
    left, bottom, _, _ = drawing.box
    scale_bars(drawing, (left + 3, bottom + 4))
    _circles_in_hand(drawing, layout, -left)
    return _drawn(drawing, layout, ())


def _drawn(drawing: Drawing, layout: PlateLayout, sizes: tuple[KeyedSize, ...]) -> DrawnFilter:
    circles = {circle.key: circle for circle in layout.circles}
    guessed = [PLATE_CIRCLES[key] for key in circles if not circles[key].measured and key in MEASURABLE]
    notes = [f"Dashed, at typical sizes: {', '.join(guessed)}."] if guessed else []
    notes += ["Dashed holes stand at a typical place."] if layout.holes and not layout.hole_circles_measured else []
    problems = tuple(problem.message for problem in layout.problems)
    return DrawnFilter(drawing.svg(), drawing.title, sizes, " ".join(notes), problems)


def _plate(layout: PlateLayout, name: str) -> Drawing:
    """Draw rim, gasket, holes and bores."""
    circles = {circle.key: circle for circle in layout.circles}
    half = max(*(circle.diameter for circle in layout.circles), 20e-3) / 2 * MM + 10
    count = len(layout.holes)
    alt = f"Tapping plate seen from below, drawn to scale, with {count} inlet hole{'' if count == 1 else 's'}."
    drawing = Drawing(-half, -half - 4, half, half, alt, name=name)
    line, inks = drawing.line, drawing.inks
    cross = drawing.d([(-half + 2, 0), (half - 2, 0)], closed=False) + drawing.d([(0, -half + 2), (0, half - 2)], closed=False)
    drawing.path(cross, stroke=inks.ink_soft, stroke_width=0.5 * line, stroke_dasharray=dash_lengths(line, 9, 2, 2, 2))
    rubber = drawing.hatch("gasket", inks.ink, inks.ink_soft, pitch=3)

    def dashed(key: str) -> str | None:
        return None if circles[key].measured else dash_lengths(line, 4, 3)

    def radius(key: str) -> float:
        return circles[key].diameter / 2 * MM

    with drawing.part("can.outside_diameter", title=PLATE_CIRCLES["can.outside_diameter"]):
        look = {"fill": inks.slate_wash, "stroke": inks.slate, "stroke_dasharray": dashed("can.outside_diameter")}
        drawing.circle((0, 0), radius("can.outside_diameter"), stroke_width=1.6 * line, **look)
    ends = sorted((radius("gasket.outside_diameter"), radius("gasket.inside_diameter")))
    is_measured = circles["gasket.outside_diameter"].measured and circles["gasket.inside_diameter"].measured
    with drawing.part("gasket.outside_diameter", title="gasket"):
        drawing.path(
            arc_circle(ends[1]) + arc_circle(ends[0]),
            fill=rubber,
            fill_rule="evenodd",
            fill_opacity=None if is_measured else 0.3,
            stroke=inks.ink,
            stroke_width=line,
            stroke_dasharray=None if is_measured else dash_lengths(line, 4, 3),
        )
    if "anti_drain.lip_diameter" in circles:
        lip = radius("anti_drain.lip_diameter")
        drawing.circle((0, 0), lip, stroke=inks.ink_soft, stroke_width=line, stroke_dasharray=dash_lengths(line, 6, 3))
    dashes = None if layout.hole_circles_measured else dash_lengths(line, 5, 2)
    for hole in layout.holes:
        outline = drawing.d([(x * MM, y * MM) for x, y in hole.outline])
        key, fill, stroke = f"holes.inlet[{hole.group}]", inks.amber_wash, inks.amber
        if hole.wrong:
            fill, stroke = inks.rust_wash, inks.rust
        with drawing.part(key, lit=[key], hole="wrong" if hole.wrong else "right"):
            width = (2 if hole.wrong else 1.2) * line
            drawing.path(outline, fill=fill, stroke=stroke, stroke_width=width, stroke_dasharray=dashes)
    bore = "plate.centre_hole_diameter" if "plate.centre_hole_diameter" in circles else "thread.minor_diameter"
    if bore in circles:
        drawing.circle((0, 0), radius(bore), fill=inks.paper, stroke=inks.slate, stroke_width=1.2 * line)
    thread = radius("thread.major_diameter")
    quarter = f"M0 {-thread:.3f}A{thread:.3f} {thread:.3f} 0 1 0 {thread:.3f} 0"
    with drawing.part("thread.major_diameter", title=PLATE_CIRCLES["thread.major_diameter"]):
        drawing.path(quarter, stroke=inks.slate, stroke_width=line, stroke_dasharray=dashed("thread.major_diameter"))
    for key in ("circuit.stud.greatest", "circuit.stud", "circuit.stud.least"):
        if key in circles:
            is_own = key == "circuit.stud"
            stroke, dashes = (inks.amber, None) if is_own else (inks.ink_soft, dash_lengths(line, 3, 2))
            width = (1.6 if is_own else 0.9) * line
            with drawing.part(title=PLATE_CIRCLES[key]):
                drawing.circle((0, 0), radius(key), stroke=stroke, stroke_width=width, stroke_dasharray=dashes)
    return drawing


ALSO_LIGHT = {
    "can.outside_diameter": ("can.circumference",),
    "thread.minor_diameter": ("thread.pitch",),
    "circuit.stud": ("engine.stud_bore",),
    "circuit.stud.least": ("engine.least_stud_bore",),
    "circuit.stud.greatest": ("engine.greatest_stud_bore",),
}
"""Readings beside a circle's own at which it is in hand."""


def _circles_in_hand(drawing: Drawing, layout: PlateLayout, half: float) -> None:
    """Draw the size of every circle below the plate, each seen while its reading is in hand."""
    line, ink = drawing.line, drawing.inks.hand
    for circle in layout.circles:
        radius, low = circle.diameter / 2 * MM, -half + 5
        with drawing.part(lit=[circle.key, *ALSO_LIGHT.get(circle.key, ())], size="plate"):
            drawing.circle((0, 0), radius, stroke=ink, stroke_width=2.4 * line)
            sides = "".join(drawing.d([(x, 0), (x, low - 1)], closed=False) for x in (-radius, radius))
            drawing.path(sides, stroke=ink, stroke_width=0.8 * line)
            drawing.arrow((-radius, low), (radius, low), ink=ink)
            words = size_words(2 * radius, 4, "⌀ {}" if circle.measured else "⌀ {}, typical")
            drawing.text((0, low - 13 * line), words, size=13, ink=ink, weight=600)


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
        drawing.text((x, y - 3.5 * drawing.line), letters[hole.group], size=10, ink=drawing.inks.ink, weight=600)
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

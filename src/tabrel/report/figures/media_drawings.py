"""Drawings of the media for print, from the core's own layouts: the pleat pack end-on, the strip laid flat."""

from __future__ import annotations

from collections.abc import Iterable
from math import cos, pi, sin

from tabrel.core.catalogue.terms import MEDIA_DEDUCTIONS
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.figures.media_deductions import StripAreas, strip_areas
from tabrel.core.figures.pleat_pack import DrawnPack, pack_figure
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.report.figures.drawings import MM, DrawnFilter, KeyedSize, dash_lengths, scale_bar, size_title
from tabrel.report.figures.palette import AMBER, AMBER_WASH, RUST, RUST_WASH, SLATE
from tabrel.report.figures.svg import Drawing, Point, path_of
from tabrel.report.words import estimate_words


def pack_drawing(measured: MeasuredSample, family: UnitFamily) -> DrawnFilter:
    """Return the pleat pack seen end-on.

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
    pack = pack_figure(measured)
    half = pack.outside_diameter / 2 * MM + 6
    alt = f"Pleat pack seen end-on: {pack.count} pleats, {100 * pack.opening:.0f} % of the inside circumference open."
    drawing = Drawing(-half, -half - 4, half, half, alt)
    line = drawing.line
    for diameter in (pack.outside_diameter, pack.inside_diameter):
        drawing.circle(
            (0, 0), diameter / 2 * MM, stroke=SLATE, stroke_width=0.8 * line, stroke_dasharray=dash_lengths(line, 5, 3)
        )
    drawing.path(path_of(pleat_points(pack)), stroke=AMBER, stroke_width=max(pack.thickness * MM, line), stroke_linejoin="round")
    scale_bar(drawing, family, (-half + 2, -half))
    keys = ("element.outside_diameter", "element.inside_diameter", "element.pleat_count", "element.pleat_depth",
            "media.thickness", "media.backing_thickness")  # fmt: skip
    sizes = tuple(
        KeyedSize("", size_title(key), estimate_words(key, measured.estimates[key], family))
        for key in keys
        if key in measured.estimates
    )
    crowding = {
        "enough": f"{100 * pack.opening:.0f} % of the inside circumference is open between the pleats.",
        "crowded": f"Only {100 * pack.opening:.0f} % of the inside circumference is open between the pleats: crowded.",
        "cannot_fit": f"The pack cannot fit: its faces would need {100 - 100 * pack.opening:.0f} % of the inside circumference.",
        "unknown": "Drawn at typical sizes where nothing was measured.",
    }
    return DrawnFilter(drawing.svg(), alt, sizes, crowding[pack.crowding])


def pleat_points(pack: DrawnPack) -> list[Point]:
    """Return the corners of the pleated media, out and in, once for every pleat. [mm]"""
    outer = (pack.outside_diameter / 2 - pack.thickness / 2) * MM
    inner = max((pack.outside_diameter / 2 - pack.depth) * MM, 1.0) + pack.thickness / 2 * MM
    angles = [pi * i / pack.count + pi / 2 for i in range(2 * pack.count)]
    return [((inner if i % 2 else outer) * cos(a), (inner if i % 2 else outer) * sin(a)) for i, a in enumerate(angles)]


def strip_drawing(measured: MeasuredSample, family: UnitFamily) -> DrawnFilter | None:
    """Return the media strip laid flat with what is lost of it, or None while neither strip nor element is known.

    Parameters
    ----------
    measured : MeasuredSample
        From `measure_sample`.
    family : str
        Units of the sizes beside it.

    Returns
    -------
    DrawnFilter or None
    """
    strip = strip_areas(measured)
    if strip is None or strip.length <= 0 or strip.width <= 0:
        return None
    length, width = strip.length * MM, strip.width * MM
    rows = min(12, max(1, round((length / (2.6 * 1.12 * width)) ** 0.5)))
    row, gap = length / rows, 0.12 * width
    height = rows * width + (rows - 1) * gap
    alt = f"Media strip laid flat in {rows} row{'' if rows == 1 else 's'}, to scale; hatched is what no oil passes."
    drawing = Drawing(-2, -height - 2, row + 2, 2, alt)
    lost = drawing.hatch("lost", RUST, RUST_WASH)
    for i in range(rows):
        top = -i * (width + gap)
        drawing.path(_box(0, top - width, row, top), fill=AMBER_WASH, stroke=AMBER, stroke_width=0.8 * drawing.line)
        for x, y, wide, high in lost_patches(strip):
            left, right = max(x, i * row), min(x + wide, (i + 1) * row)
            if right > left:
                box = _box(left - i * row, top - y - high, right - i * row, top - y)
                drawing.path(box, fill=lost, stroke=RUST, stroke_width=0.5 * drawing.line)
    keys = ("media.strip_length", "media.strip_width", "element.potting_depth", "media.seam_overlap", "media.blocked_pleats",
            "media.blocked_area")  # fmt: skip
    sizes = tuple(
        KeyedSize("", MEDIA_DEDUCTIONS.get(key) or size_title(key), estimate_words(key, measured.estimates[key], family))
        for key in keys
        if key in measured.estimates
    )
    note = "A forecast from the pleats: the strip has not been measured." if strip.is_forecast else ""
    return DrawnFilter(drawing.svg(), alt, sizes, note)


def _box(left: float, bottom: float, right: float, top: float) -> str:
    return path_of([(left, bottom), (right, bottom), (right, top), (left, top)])


def lost_patches(strip: StripAreas) -> Iterable[tuple[float, float, float, float]]:
    """Yield what is lost of the strip: x along it and y across it from a corner, width, height. [mm]"""
    length, width, potting = strip.length * MM, strip.width * MM, strip.potting * MM
    overlap, blocked = strip.overlap * MM, strip.blocked_length * MM
    between = width - 2 * potting
    area = next((deduction.area for deduction in strip.deductions if deduction.key == "media.blocked_area"), 0.0) * MM**2
    patch = min(area / between, length - overlap - blocked) if between > 0 else 0.0
    parts = (
        (0.0, 0.0, length, potting),
        (0.0, width - potting, length, potting),
        (0.0, potting, overlap, between),
        (length - blocked, potting, blocked, between),
        (overlap + (length - overlap) / 2 - patch / 2, potting, patch, between),
    )
    return (part for part in parts if part[2] > 0 and part[3] > 0)

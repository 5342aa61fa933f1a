"""Drawings of the media for paper and screen, from the core's own layouts: the pleat pack end-on, the strip laid flat."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from functools import lru_cache
from math import cos, pi, sin

from tabrel.core.catalogue.terms import MEDIA_DEDUCTIONS
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.figures.media_deductions import StripAreas, strip_areas
from tabrel.core.figures.pleat_pack import DrawnPack, pack_figure
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.report.figures.drawings import MM, DrawnFilter, KeyedSize, dash_lengths, scale_bar, scale_bars, size_title
from tabrel.report.figures.svg import Drawing, Point
from tabrel.report.words import estimate_words


def pack_drawing(measured: MeasuredSample, family: UnitFamily | None = None) -> DrawnFilter:
    """Return the pleat pack seen end-on.

    Parameters
    ----------
    measured : MeasuredSample
        From `measure_sample`.
    family : str or None
        Units of the sizes beside it; None for the screen.
    """
    keys = ("element.outside_diameter", "element.inside_diameter", "element.pleat_count", "element.pleat_depth",
            "media.thickness", "media.backing_thickness")  # fmt: skip
    return replace(_pack(pack_figure(measured), family), sizes=_keyed(keys, measured, family))


@lru_cache(maxsize=64)
def _pack(pack: DrawnPack, family: UnitFamily | None) -> DrawnFilter:
    """Return the drawing without its sizes, drawn once as long as nothing of it changes."""
    can = (pack.can_inside_diameter or 0.0) / 2 * MM
    half = max(pack.outside_diameter / 2 * MM, can) + 6
    typical = "" if len(pack.measured) == MOST_MEASURED else ", typical sizes among them"
    alt = f"Pleat pack seen end-on: {pack.count} pleats, {100 * pack.opening:.0f} % of the inside circumference open{typical}."
    drawing = Drawing(-half, -half - 4, half, half, alt, name="" if family else "pack")
    line, inks = drawing.line, drawing.inks
    if can:
        with drawing.part("can.inside_diameter", lit=["can.inside_diameter"]):
            drawing.circle((0, 0), can, stroke=inks.slate, stroke_width=2 * line)
    with drawing.part("element.pleat_count", lit=["element.pleat_count", "media.thickness"]):
        look = {"stroke": inks.rust if pack.crowding == "cannot_fit" else inks.amber, "stroke_linejoin": "round"}
        dashes = None if len(pack.measured) == MOST_MEASURED else dash_lengths(line, 9, 5)
        width = max(pack.thickness * MM, line)
        drawing.path(drawing.d(pleat_points(pack)), **look, stroke_width=width, stroke_dasharray=dashes)
    for key, diameter in (("outside", pack.outside_diameter), ("inside", pack.inside_diameter)):
        edge = f"element.{key}_diameter"
        dashes = None if edge in pack.measured else dash_lengths(line, 4, 3)
        with drawing.part(edge, lit=[edge]):
            drawing.circle((0, 0), diameter / 2 * MM, stroke=inks.ink_soft, stroke_width=line, stroke_dasharray=dashes)
    if family:
        scale_bar(drawing, family, (-half + 2, -half))
    else:
        scale_bars(drawing, (-half + 2, -half))
    crowding = {
        "enough": f"{100 * pack.opening:.0f} % of the inside circumference is open between the pleats.",
        "crowded": f"Only {100 * pack.opening:.0f} % of the inside circumference is open between the pleats: crowded.",
        "cannot_fit": f"The pack cannot fit: its faces would need {100 - 100 * pack.opening:.0f} % of the inside circumference.",
        "unknown": "Dashed: not measured, at a typical size.",
    }
    is_problem = pack.crowding in ("crowded", "cannot_fit")
    words = crowding[pack.crowding]
    note, problems = ("", (words,)) if is_problem else (words, ())
    return DrawnFilter(drawing.svg(), alt, (), note, problems)


MOST_MEASURED = 4
"""Sizes of a pack."""


def _keyed(keys: Iterable[str], measured: MeasuredSample, family: UnitFamily | None) -> tuple[KeyedSize, ...]:
    """Return sizes that were measured, on paper."""
    return tuple(
        KeyedSize("", MEDIA_DEDUCTIONS.get(key) or size_title(key), estimate_words(key, measured.estimates[key], family))
        for key in keys
        if family and key in measured.estimates
    )


def pleat_points(pack: DrawnPack) -> list[Point]:
    """Return the corners of the pleated media, out and in, once for every pleat. [mm]"""
    outer = (pack.outside_diameter / 2 - pack.thickness / 2) * MM
    inner = max((pack.outside_diameter / 2 - pack.depth) * MM, 1.0) + pack.thickness / 2 * MM
    angles = [pi * i / pack.count + pi / 2 for i in range(2 * pack.count)]
    return [((inner if i % 2 else outer) * cos(a), (inner if i % 2 else outer) * sin(a)) for i, a in enumerate(angles)]


def strip_drawing(measured: MeasuredSample, family: UnitFamily | None = None) -> DrawnFilter | None:
    """Return the media strip laid flat with what is lost of it, or None while neither strip nor element is known.

    Parameters
    ----------
    measured : MeasuredSample
        From `measure_sample`.
    family : str or None
        Units of the sizes beside it; None for the screen.
    """
    strip = strip_areas(measured)
    if strip is None or strip.length <= 0 or strip.width <= 0:
        return None
    keys = ("media.strip_length", "media.strip_width", "element.potting_depth", "media.seam_overlap", "media.blocked_pleats",
            "media.blocked_area")  # fmt: skip
    return replace(_strip(strip, family), sizes=_keyed(keys, measured, family))


@lru_cache(maxsize=64)
def _strip(strip: StripAreas, family: UnitFamily | None) -> DrawnFilter:
    """Return the drawing without its sizes, drawn once as long as nothing of it changes."""
    length, width = strip.length * MM, strip.width * MM
    aspect = 2.6 if family else 1.35
    rows = min(12, max(1, round((length / (aspect * 1.12 * width)) ** 0.5)))
    row, gap = length / rows, 0.12 * width
    height = rows * width + (rows - 1) * gap
    alt = f"Media strip laid flat in {rows} row{'' if rows == 1 else 's'}, to scale; hatched is what no oil passes."
    drawing = Drawing(-2, -height - 2, row + 2, 2, alt, name="" if family else "strip")
    line, inks = drawing.line, drawing.inks
    lost = drawing.hatch("lost", inks.rust, inks.rust_wash)
    for i in range(rows):
        top = -i * (width + gap)
        dashes = dash_lengths(line, 5, 3) if strip.is_forecast else None
        with drawing.part("media.strip_length", lit=["media.strip_length", "media.strip_width"]):
            box = _box(0, top - width, row, top)
            drawing.path(
                drawing.d(box), fill=inks.amber_wash, stroke=inks.amber, stroke_width=0.8 * line, stroke_dasharray=dashes
            )
        for key, x, y, wide, high in lost_patches(strip):
            left, right = max(x, i * row), min(x + wide, (i + 1) * row)
            if right > left:
                box = _box(left - i * row, top - y - high, right - i * row, top - y)
                with drawing.part(key, lit=[key], title=MEDIA_DEDUCTIONS[key]):
                    drawing.path(drawing.d(box), fill=lost, stroke=inks.rust, stroke_width=0.5 * line)
    note = "A forecast from the pleats: the strip has not been measured." if strip.is_forecast else ""
    return DrawnFilter(drawing.svg(), alt, (), note)


def _box(left: float, bottom: float, right: float, top: float) -> list[Point]:
    return [(left, bottom), (right, bottom), (right, top), (left, top)]


def lost_patches(strip: StripAreas) -> Iterable[tuple[str, float, float, float, float]]:
    """Yield what is lost of the strip: why, x along it and y across it from a corner, width, height. [mm]"""
    length, width, potting = strip.length * MM, strip.width * MM, strip.potting * MM
    overlap, blocked = strip.overlap * MM, strip.blocked_length * MM
    between = width - 2 * potting
    area = next((deduction.area for deduction in strip.deductions if deduction.key == "media.blocked_area"), 0.0) * MM**2
    patch = min(area / between, length - overlap - blocked) if between > 0 else 0.0
    parts = (
        ("element.potting_depth", 0.0, 0.0, length, potting),
        ("element.potting_depth", 0.0, width - potting, length, potting),
        ("media.seam_overlap", 0.0, potting, overlap, between),
        ("media.blocked_pleats", length - blocked, potting, blocked, between),
        ("media.blocked_area", overlap + (length - overlap) / 2 - patch / 2, potting, patch, between),
    )
    return (part for part in parts if part[3] > 0 and part[4] > 0)

"""Understand a whole group of holes typed in one line.

``8 x 5.6 mm`` is eight round holes; ``2 x slot 9 x 4 mm``, ``6 x ellipse 9 x 5 mm``, ``1 x d 9 x 7 mm``,
``4 x rectangle 9 x 4 x 1 mm`` name their shape; ``1 x outline 0 0, 4 0, 4 3.5`` gives points in mm. Several
readings of a round hole are separated by commas. ``50 % open`` at the end says that tabs cover part.
"""

from __future__ import annotations

import re
from dataclasses import replace
from fractions import Fraction
from typing import get_args

from tabrel.core.catalogue.hole_dimensions import SHAPE_DIMENSIONS
from tabrel.core.catalogue.quantities import HOLE_QUANTITIES
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.entry.field_line import understand_entry
from tabrel.core.errors import ReadingTextError, nearest_hint
from tabrel.core.study.model import HoleGroup, HoleReadings, HoleShape, ReadingEntry, as_entry

_COUNTED = re.compile(
    r"^(?P<count>\d+)\s*(?:[x×*]\s*(?:holes?\b\s*)?|holes?\b\s*|(?=drills?\b|letter\b|#))(?:(?:of|at|with)\b\s*)?(?P<rest>.+)$",
    re.IGNORECASE,
)
_OPEN = re.compile(r"^(?P<rest>.+?)[,\s]+(?P<percent>\d+(?:[.,]\d+)?)\s*%\s*(?:open|clear)$", re.IGNORECASE)
_CIRCLE = re.compile(r"^(?P<rest>.+?)\s+(?:on|circle)\s+(?P<circle>.+)$", re.IGNORECASE)
_SHAPE = re.compile(r"^(?P<shape>[a-z]+)s?\b[ -]?(?:holes?\s+)?(?P<rest>.*)$", re.IGNORECASE)
_TIMES = re.compile(r"\s*[x×*]\s*|\s+by\s+", re.IGNORECASE)
_ANOTHER = re.compile(
    rf"(?P<first>.+?)(?:,\s+|\s*[;+&]\s*|\s+and\s+)(?P<next>\d+\s*(?:[x×*]\s*\S|(?:{'|'.join(get_args(HoleShape))})\b).*)$",
    re.IGNORECASE,
)
_RADIUS = re.compile(r"^(?:r|rad|radius)\.?\s*(?P<number>\d+(?:/[1-9]\d*|[.,]\d+)?)\s*(?P<unit>.*)$", re.IGNORECASE)
_DRILL = re.compile(r"^(?:drill|letter|number|#)", re.IGNORECASE)
_PAIR = re.compile(r"(-?\d+(?:\.\d+)?)[\s,]+(-?\d+(?:\.\d+)?)")
EXAMPLES: dict[UnitFamily, str] = {
    "metric": "8 x 5.6 mm, or 2 x slot 9 x 4 mm",
    "inch": "8 x 7/32 in, or 2 x slot 3/8 x 5/32 in",
}
_ALSO_CALLED: dict[str, HoleShape] = {
    "circle": "round", "circular": "round", "dia": "round", "diameter": "round", "hole": "round",
    "elongated": "slot", "obround": "slot", "flat": "d", "rect": "rectangle", "rectangular": "rectangle", "elliptical": "ellipse",
}  # fmt: skip


def understand_hole_group(text: str, family: UnitFamily) -> HoleGroup:
    """Return the group of holes that a line describes.

    Parameters
    ----------
    text : str
        As typed.
    family : str
        Whose unit bare numbers take.

    Returns
    -------
    HoleGroup
        Its readings as texts with unit; the sizes are checked where the group is stored.

    Raises
    ------
    ReadingTextError
        If count or sizes are missing, with an example.

    Examples
    --------
    >>> group = understand_hole_group("2 x slot 9 x 4 mm, 50 % open", "metric")
    >>> group.shape, group.count, group.readings.width, group.open_fraction
    ('slot', 2, ('4 mm',), 0.5)
    """
    plain = " ".join(text.split())
    example = EXAMPLES[family]
    if several := _ANOTHER.match(plain):
        raise ReadingTextError(f"a line takes holes of one kind: type {several['first']}, Enter, then {several['next']}")
    match = _COUNTED.match(plain)
    if match is None:
        like = f"6 x {plain}" if _DRILL.match(plain) else example
        raise ReadingTextError(f"{plain!r} does not start with how many holes there are: type it like {like}")
    count, rest = int(match["count"]), match["rest"]
    if radius := _RADIUS.match(rest):
        number = radius["number"].replace(",", ".")
        double = str(2 * Fraction(number)) if "/" in number else f"{2 * float(number):g}"
        diameter = f"{double} {radius['unit']}".strip()
        raise ReadingTextError(f"{rest!r} is a radius, and holes are typed by their diameter: type {count} x {diameter}")
    open_fraction: float | None = None
    if covered := _OPEN.match(rest):
        open_fraction = float(covered["percent"].replace(",", ".")) / 100
        if open_fraction > 1:
            raise ReadingTextError(f"{covered['percent']} % open is more than the whole hole: type 0 to 100 % open")
        rest = covered["rest"].rstrip(" ,")
    circle: tuple[ReadingEntry, ...] = ()
    if around := _CIRCLE.match(rest):
        circle = _texts(around["circle"], "circle_diameter", family)
        rest = around["rest"]
    shape, sizes = _shape_and_sizes(rest, count)
    if shape == "outline":
        points = tuple((float(x), float(y)) for x, y in _PAIR.findall(sizes))
        return HoleGroup(shape, count, HoleReadings(points_mm=points, circle_diameter=circle), open_fraction)
    takes = SHAPE_DIMENSIONS[shape]
    names = takes.required + takes.optional
    parts = [sizes] if shape == "round" else [part for part in _TIMES.split(sizes) if part]
    if not len(takes.required) <= len(parts) <= len(names):
        raise ReadingTextError(
            f"a {shape} hole takes {', '.join(takes.required)}: type {' x '.join(takes.required)} after the shape, like {example}"
        )
    texts = _with_common_unit(parts)
    readings = HoleReadings(circle_diameter=circle)
    for name, part in zip(names, texts, strict=False):
        readings = replace(readings, **{name: _texts(part, name, family)})  # type: ignore[arg-type]
    return HoleGroup(shape, count, readings, open_fraction)


def _shape_and_sizes(rest: str, count: int) -> tuple[HoleShape, str]:
    match = _SHAPE.match(rest)
    if match is not None and match["shape"].casefold() in ("letter", "number"):
        return "round", f"drill {rest}"
    if match is None or match["shape"].casefold() in ("drill", "go", "about", "ca"):
        return "round", rest
    word = match["shape"].casefold()
    for shape in get_args(HoleShape):
        if word in (shape, f"{shape}s"):
            result: HoleShape = shape
            return result, match["rest"]
    if word == "oval":
        slot, ellipse = (f"{count} x {shape} {match['rest']}" for shape in ("slot", "ellipse"))
        raise ReadingTextError(f"an oval hole has straight sides or none: type {slot}, or {ellipse}")
    if known := _ALSO_CALLED.get(word.rstrip("s")):
        return known, re.sub(r"^(?:edge|hole)s?\s+", "", match["rest"], flags=re.IGNORECASE)
    raise ReadingTextError(
        f"{match['shape']!r} is no shape of a hole known here{nearest_hint(word, get_args(HoleShape))}: "
        f"use {', '.join(get_args(HoleShape))}"
    )


def _with_common_unit(parts: list[str]) -> list[str]:
    """Return the sizes with the last one's unit where they carry none: ``9 x 4 mm``."""
    unit = re.search(r"[^\d\s.,/]+$", parts[-1])
    return [f"{part} {unit[0]}" if unit and re.fullmatch(r"[\d\s.,/]+", part) else part for part in parts]


def _texts(text: str, dimension: str, family: UnitFamily) -> tuple[ReadingEntry, ...]:
    entry = understand_entry(text, HOLE_QUANTITIES[dimension], family)
    if entry.state is not None:
        raise ReadingTextError(f"{text!r} is no size of a hole: type it like {EXAMPLES[family]}")
    return tuple(as_entry(reading) for reading in entry.readings)

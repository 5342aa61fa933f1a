"""Understand a whole group of holes typed in one line.

``8 x 5.6 mm`` is eight round holes; ``2 x slot 9 x 4 mm``, ``6 x ellipse 9 x 5 mm``, ``1 x d 9 x 7 mm``,
``4 x rectangle 9 x 4 x 1 mm`` name their shape; ``1 x outline 0 0, 4 0, 4 3.5`` gives points in mm. Several
readings of a round hole are separated by commas. ``50 % open`` at the end says that tabs cover part.
"""

from __future__ import annotations

import re
from dataclasses import replace
from typing import get_args

from tabrel.core.catalogue.hole_dimensions import SHAPE_DIMENSIONS
from tabrel.core.catalogue.quantities import HOLE_QUANTITIES
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.entry.field_line import understand_entry
from tabrel.core.errors import ReadingTextError, nearest_hint
from tabrel.core.study.model import HoleGroup, HoleReadings, HoleShape, ReadingEntry, as_entry

_COUNTED = re.compile(r"^(?P<count>\d+)\s*(?:[x×*]\s*)(?P<rest>.+)$", re.IGNORECASE)
_OPEN = re.compile(r"^(?P<rest>.+?)[,\s]+(?P<percent>\d+(?:[.,]\d+)?)\s*%\s*(?:open|clear)$", re.IGNORECASE)
_CIRCLE = re.compile(r"^(?P<rest>.+?)\s+(?:on|circle)\s+(?P<circle>.+)$", re.IGNORECASE)
_SHAPE = re.compile(r"^(?P<shape>[a-z]+)s?\b[ -]?(?:holes?\s+)?(?P<rest>.*)$", re.IGNORECASE)
_TIMES = re.compile(r"\s*[x×*]\s*|\s+by\s+", re.IGNORECASE)
_PAIR = re.compile(r"(-?\d+(?:\.\d+)?)[\s,]+(-?\d+(?:\.\d+)?)")
EXAMPLE = "8 x 5.6 mm, or 2 x slot 9 x 4 mm"


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
    match = _COUNTED.match(plain)
    if match is None:
        raise ReadingTextError(f"{plain!r} does not start with how many holes there are: type it like {EXAMPLE}")
    count, rest = int(match["count"]), match["rest"]
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
    shape, sizes = _shape_and_sizes(rest)
    if shape == "outline":
        points = tuple((float(x), float(y)) for x, y in _PAIR.findall(sizes))
        return HoleGroup(shape, count, HoleReadings(points_mm=points, circle_diameter=circle), open_fraction)
    takes = SHAPE_DIMENSIONS[shape]
    names = takes.required + takes.optional
    parts = [sizes] if shape == "round" else [part for part in _TIMES.split(sizes) if part]
    if not len(takes.required) <= len(parts) <= len(names):
        raise ReadingTextError(
            f"a {shape} hole takes {', '.join(takes.required)}: type {' x '.join(takes.required)} after the shape, like {EXAMPLE}"
        )
    texts = _with_common_unit(parts)
    readings = HoleReadings(circle_diameter=circle)
    for name, part in zip(names, texts, strict=False):
        readings = replace(readings, **{name: _texts(part, name, family)})  # type: ignore[arg-type]
    return HoleGroup(shape, count, readings, open_fraction)


def _shape_and_sizes(rest: str) -> tuple[HoleShape, str]:
    match = _SHAPE.match(rest)
    if match is None or match["shape"].casefold() in ("drill", "go", "about", "ca"):
        return "round", rest
    word = match["shape"].casefold()
    for shape in get_args(HoleShape):
        if word in (shape, f"{shape}s"):
            result: HoleShape = shape
            return result, match["rest"]
    if word.rstrip("s") == "hole":
        return "round", match["rest"]
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
        raise ReadingTextError(f"{text!r} is no size of a hole: type it like {EXAMPLE}")
    return tuple(as_entry(reading) for reading in entry.readings)

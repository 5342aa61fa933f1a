"""Which readings a hole of each shape takes."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class ShapeDimensions:
    """Which readings a shape takes."""

    required: tuple[str, ...]
    optional: tuple[str, ...] = ()


SHAPE_DIMENSIONS: dict[str, ShapeDimensions] = {
    "round": ShapeDimensions(("diameter",)),
    "slot": ShapeDimensions(("length", "width")),
    "ellipse": ShapeDimensions(("length", "width")),
    "d": ShapeDimensions(("diameter", "height")),
    "rectangle": ShapeDimensions(("length", "width"), ("corner_radius",)),
    "outline": ShapeDimensions(()),
}


LAYOUT_DIMENSIONS = ("circle_diameter",)
"""Dimensions that any group may have besides: where its holes lie. They change the drawing and no area."""


def dimensions_of(shape: str) -> tuple[str, ...]:
    """Return every reading a group of a shape takes, in the order it is typed."""
    takes = SHAPE_DIMENSIONS[shape]
    return takes.required + takes.optional + LAYOUT_DIMENSIONS

"""Colours of the printed pictures: ink on white paper, amber for filtered oil, rust for unfiltered, slate for metal."""

from __future__ import annotations

INK, INK_SOFT, LINE = "#211d17", "#5b5143", "#d1c4ad"
HAND = "#0c666d"
AMBER, AMBER_INK, AMBER_WASH = "#b9770e", "#7d5206", "#f3dfb4"
RUST, RUST_WASH = "#8a3417", "#f2d9cd"
SLATE, SLATE_WASH = "#55626e", "#dfe3e6"

SAMPLES = ("#4a5bb0", "#3f8146", "#a23f7c", "#86672a", "#23808f", "#6d6478")
"""The colour that follows a sample through every picture; its name always stands beside it."""


def sample_colour(place: int) -> str:
    """Return the colour of the sample at a place of the rack, counted from zero."""
    return SAMPLES[place % len(SAMPLES)]

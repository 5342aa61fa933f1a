"""Colours of the pictures: ink on paper, amber for filtered oil, rust for unfiltered, slate for metal."""

from __future__ import annotations

from dataclasses import dataclass, fields


@dataclass(frozen=True)
class Inks:
    """The colours of a picture."""

    ink: str
    ink_soft: str
    line: str
    line_strong: str
    paper: str
    hand: str
    amber: str
    amber_wash: str
    rust: str
    rust_wash: str
    slate: str
    slate_wash: str


PRINT = Inks(
    ink="#211d17",
    ink_soft="#5b5143",
    line="#d1c4ad",
    line_strong="#93866f",
    paper="#ffffff",
    hand="#0c666d",
    amber="#b9770e",
    amber_wash="#f3dfb4",
    rust="#8a3417",
    rust_wash="#f2d9cd",
    slate="#55626e",
    slate_wash="#dfe3e6",
)
SCREEN = Inks(**{field.name: f"var(--{field.name.replace('_', '-')})" for field in fields(Inks)})
"""Those of the front end, light or dark."""

INK, INK_SOFT, LINE, HAND, AMBER, AMBER_WASH = PRINT.ink, PRINT.ink_soft, PRINT.line, PRINT.hand, PRINT.amber, PRINT.amber_wash
RUST, RUST_WASH, SLATE, SLATE_WASH = PRINT.rust, PRINT.rust_wash, PRINT.slate, PRINT.slate_wash
AMBER_INK = "#7d5206"

SAMPLES = ("#4a5bb0", "#3f8146", "#a23f7c", "#86672a", "#23808f", "#6d6478")
"""The colour that follows a sample through every picture; its name always stands beside it."""


FIELD = ((0.0, "#f9efd6"), (0.2, "#eccb79"), (0.45, "#cb8b24"), (0.75, "#874e14"), (1.0, "#56300f"))
"""Colours of a map by share of its scale: equal steps in lightness, pale oil to dark, without red against green."""


def sample_colour(place: int) -> str:
    """Return the colour of the sample at a place of the rack, counted from zero."""
    return SAMPLES[place % len(SAMPLES)]

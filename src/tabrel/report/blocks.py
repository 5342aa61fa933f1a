"""Blocks of a report, whatever file it becomes: headings, sentences, facts, tables, pictures, the analyst's own text.

Text in a block is text: nothing in it is markup, in any of the formats.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

Tone = Literal["plain", "lead", "opinion", "caution", "assumed", "small"]
Paper = Literal["a4", "letter"]


@dataclass(frozen=True)
class Heading:
    """A heading; some begin a page of their own."""

    level: Literal[1, 2, 3]
    text: str
    begins_page: bool = False


@dataclass(frozen=True)
class Paragraph:
    """Sentences of one tone: `opinion` is the analyst's judgement and marked as such."""

    text: str
    tone: Tone = "plain"


@dataclass(frozen=True)
class Boxed:
    """The answer in its box: the sentence that decides, then what belongs to it, each with its title or none."""

    lead: str
    rows: tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Points:
    """A list of sentences."""

    items: tuple[str, ...]
    tone: Tone = "plain"


@dataclass(frozen=True)
class Facts:
    """Facts of one thing: name and value, row by row."""

    rows: tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Column:
    """A column of a table; numbers stand on the right."""

    title: str
    is_number: bool = False


@dataclass(frozen=True)
class Table:
    """A table whose headings are repeated on every page it runs over.

    Attributes
    ----------
    caption : str
    columns : tuple of Column
    rows : tuple of tuple of str
        A row of one cell is a heading within the table.
    is_wide : bool
        Whether it stands on a page of its own that is turned.
    is_form : bool
        Whether its cells are to be written in by hand.
    """

    caption: str
    columns: tuple[Column, ...]
    rows: tuple[tuple[str, ...], ...]
    is_wide: bool = False
    is_form: bool = False


@dataclass(frozen=True)
class Picture:
    """A drawing or chart, as SVG, with its text alternative.

    Attributes
    ----------
    key : str
        Of its file in the package.
    svg, alt, caption : str
    height : float
        At most so high. [mm]
    """

    key: str
    svg: str
    alt: str
    caption: str
    height: float = 80.0


@dataclass(frozen=True)
class PictureWithFacts:
    """A picture with its sizes beside it."""

    picture: Picture
    facts: tuple[tuple[str, str, str], ...]
    note: str = ""


@dataclass(frozen=True)
class Words:
    """A run of the analyst's own text, upright unless marked."""

    text: str
    is_strong: bool = False
    is_emphasised: bool = False
    is_code: bool = False


@dataclass(frozen=True)
class OwnBlock:
    """A block of the analyst's own text: a heading, a paragraph, or an entry of a list."""

    kind: Literal["heading", "paragraph", "bullet", "number"]
    words: tuple[Words, ...]
    level: int = 1
    number: int = 0


@dataclass(frozen=True)
class OwnText:
    """The analyst's own text, marked as such."""

    blocks: tuple[OwnBlock, ...]


@dataclass(frozen=True)
class Labels:
    """Small labels to cut out: lines of each, the first the largest."""

    items: tuple[tuple[str, ...], ...]


Block = Heading | Paragraph | Boxed | Points | Facts | Table | Picture | PictureWithFacts | OwnText | Labels


@dataclass(frozen=True)
class Report:
    """A whole report.

    Attributes
    ----------
    title : str
    number : str or None
        None: a draft, and every page says so.
    dated : str
        ISO date of issue, or of the draft.
    paper : str
    kind : str
        ``report``, or ``bench`` for what is printed to be written on.
    prepared_by, prepared_for : str or None
    blocks : tuple of Block
    """

    title: str
    number: str | None
    dated: str
    paper: Paper
    kind: Literal["report", "bench"] = "report"
    prepared_by: str | None = None
    prepared_for: str | None = None
    blocks: tuple[Block, ...] = field(default=())

    @property
    def standing(self) -> str:
        """Footer of every page."""
        if self.kind == "bench":
            return "For the bench"
        return f"Report {self.number}" if self.number else "Draft, not issued"

    def pictures(self) -> dict[str, Picture]:
        """Return its pictures by their keys."""
        pictures = {}
        for block in self.blocks:
            picture = block if isinstance(block, Picture) else block.picture if isinstance(block, PictureWithFacts) else None
            if picture is not None:
                pictures[picture.key] = picture
        return pictures

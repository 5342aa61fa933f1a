"""Plan of the report of a study, as the study document has it: parts in their order, and the analyst's own text between."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from tabrel.core.study.strict import Strict

PartKey = Literal[
    "answer", "items", "conditions", "method", "comparison", "maps", "filters", "rules", "claims", "same_part", "rankings",
    "assumptions", "cautions", "readings", "budgets", "text",
]  # fmt: skip
Size = Literal["card", "short", "full"]
SectionKey = Literal["drawings", "working", "valve", "media", "efficiency", "map", "start"]

PARTS: dict[PartKey, str] = {
    "answer": "The answer",
    "items": "Question, items and their condition",
    "conditions": "Oil, engine and circuit",
    "method": "Method",
    "comparison": "Comparison sheet",
    "maps": "Operating maps",
    "filters": "Filter by filter",
    "rules": "Requirements and what was found",
    "claims": "Claims and what readings say of them",
    "same_part": "Same part or not",
    "rankings": "Ranking and opinions",
    "assumptions": "Assumptions and open questions",
    "cautions": "Cautions and limits",
    "readings": "Readings as typed",
    "budgets": "Uncertainty budgets",
    "text": "Own text",
}
"""Parts of a report, in their usual order; own text can stand anywhere, and more than once."""

_ANNEXES: tuple[PartKey, ...] = ("filters", "readings", "budgets")

SIZES: dict[Size, tuple[str, tuple[PartKey, ...]]] = {
    "card": ("Card", ("answer",)),
    "short": ("Short", tuple(key for key in PARTS if key not in (*_ANNEXES, "text"))),
    "full": ("Full", tuple(key for key in PARTS if key != "text")),
}
"""Sizes of a report: what each is called, and its parts in their usual order."""

SECTIONS: dict[SectionKey, str] = {
    "drawings": "Section and tapping plate",
    "working": "Results with their working",
    "valve": "Bypass valve",
    "media": "Pleats and media strip",
    "efficiency": "Micron efficiency",
    "map": "Operating map",
    "start": "Start from cold",
}
"""Sections about each filter, in this order."""


@dataclass(frozen=True)
class ReportPart(Strict):
    """One part; `text` is the analyst's own, in Markdown."""

    part: PartKey
    text: str | None = None


@dataclass(frozen=True)
class ReportPlan(Strict):
    """The plan of a report.

    Attributes
    ----------
    title : str or None
        None: the name of the study.
    prepared_by, prepared_for : str or None
    paper : str or None
        ``a4`` or ``letter``; None for A4.
    units : str or None
        ``metric`` or ``inch``; None for metric.
    size : str or None
        ``card``, ``short`` or ``full``; None for short.
    sections : tuple of str
        Of each filter; empty for all.
    parts : tuple of ReportPart
        In their order; empty for those of its size. A card has none but its own.
    """

    title: str | None = None
    prepared_by: str | None = None
    prepared_for: str | None = None
    paper: Literal["a4", "letter"] | None = None
    units: Literal["metric", "inch"] | None = None
    size: Size | None = None
    sections: tuple[SectionKey, ...] = ()
    parts: tuple[ReportPart, ...] = ()


def chosen_parts(plan: ReportPlan) -> tuple[ReportPart, ...]:
    """Return the parts of a report in their order; those of its size where none is chosen, and always of a card."""
    size = plan.size or "short"
    usual = tuple(ReportPart(key) for key in SIZES[size][1])
    return usual if size == "card" else plan.parts or usual


def resized(plan: ReportPlan, size: Size) -> ReportPlan:
    """Return a plan in another size: chosen parts stay, and the annexes come with a full report and go with a short one.

    Examples
    --------
    >>> plan = ReportPlan(parts=(ReportPart("text", "Why"), ReportPart("answer"), ReportPart("readings")))
    >>> [part.part for part in resized(plan, "short").parts]
    ['text', 'answer']
    >>> [part.part for part in resized(plan, "full").parts]
    ['text', 'answer', 'readings', 'filters', 'budgets']
    """
    parts = plan.parts
    if parts and size == "short":
        parts = tuple(part for part in parts if part.part not in _ANNEXES)
    elif parts and size == "full":
        there = {part.part for part in parts}
        parts = (*parts, *(ReportPart(key) for key in _ANNEXES if key not in there))
    return replace(plan, size=size, parts=parts)


def chosen_sections(plan: ReportPlan) -> tuple[SectionKey, ...]:
    """Return what is told of each filter, in the usual order."""
    return tuple(key for key in SECTIONS if not plan.sections or key in plan.sections)

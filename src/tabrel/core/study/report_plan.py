"""Plan of the report of a study, as the study document has it: parts in their order, and the analyst's own text between."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tabrel.core.study.strict import Strict

PartKey = Literal["answer", "filters", "comparison", "readings", "budgets", "claims", "conditions", "rules", "method", "text"]
SectionKey = Literal["drawings", "working", "valve", "media", "efficiency", "map", "start"]

PARTS: dict[PartKey, str] = {
    "answer": "The answer",
    "filters": "Filter by filter",
    "comparison": "Comparison sheet",
    "readings": "Readings as typed",
    "budgets": "Uncertainty budgets",
    "claims": "Claims and what readings say of them",
    "conditions": "Oil, engine and circuit",
    "rules": "Decision rules",
    "method": "Method, cautions and limits",
    "text": "Own text",
}
"""Parts of a report, in their usual order; own text can stand anywhere, and more than once."""

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
    sections : tuple of str
        Of each filter; empty for all.
    parts : tuple of ReportPart
        In their order; empty for all in the usual order.
    """

    title: str | None = None
    prepared_by: str | None = None
    prepared_for: str | None = None
    paper: Literal["a4", "letter"] | None = None
    units: Literal["metric", "inch"] | None = None
    sections: tuple[SectionKey, ...] = ()
    parts: tuple[ReportPart, ...] = ()


def chosen_parts(plan: ReportPlan) -> tuple[ReportPart, ...]:
    """Return the parts of a report in their order; all in the usual order where none is chosen."""
    return plan.parts or tuple(ReportPart(key) for key in PARTS if key != "text")


def chosen_sections(plan: ReportPlan) -> tuple[SectionKey, ...]:
    """Return what is told of each filter, in the usual order."""
    return tuple(key for key in SECTIONS if not plan.sections or key in plan.sections)

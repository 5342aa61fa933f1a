"""The report over the wire."""

from __future__ import annotations

from pydantic import Field

from tabrel.api.wire import RequestModel
from tabrel.core.field_units import Mm
from tabrel.core.study.report_plan import PartKey, ReportPlan, Size
from tabrel.document.results import WireModel


class OfferedPartOut(WireModel):
    """A part, or a section of each filter, that a report can have."""

    key: str
    title: str


class SizeOut(WireModel):
    """A size of a report, and its parts in their usual order."""

    key: Size
    title: str
    parts: list[PartKey]


class IssuedReportOut(WireModel):
    """A report as it was issued."""

    id: int
    number: str
    issued_at: str
    title: str
    sha256: str
    size_bytes: int
    difference_count: int


class ReportOut(WireModel):
    """The plan of a study's report, what it can hold, and the reports that were issued, the latest first."""

    plan: ReportPlan
    sizes: list[SizeOut]
    parts: list[OfferedPartOut]
    sections: list[OfferedPartOut]
    endings: list[str]
    issued: list[IssuedReportOut]


class ReportPlanIn(RequestModel):
    """The plan as it is to be, and as it was seen."""

    plan: ReportPlan
    seen: ReportPlan
    """As it was when the window began: refused if it is different by now."""


class PageOut(WireModel):
    """Size of a page."""

    width_mm: Mm
    height_mm: Mm


class ReportPreviewOut(WireModel):
    """Pages as they will print."""

    key: str
    title: str
    dated: str
    size_bytes: int
    pages: list[PageOut]


class IssueIn(RequestModel):
    """The pages that were looked at: only they are issued."""

    preview_key: str = Field(max_length=64)


class DifferenceOut(WireModel):
    """A difference to the study at the time a report was issued."""

    where: str
    what: str
    was: str | None
    now: str | None

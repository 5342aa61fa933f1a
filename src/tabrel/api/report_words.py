"""What the properties of the report mean, with an example; see `property_words`."""

from __future__ import annotations

from typing import Any

_PLAN = {"paper": "a4", "parts": [{"part": "answer"}]}

REPORT_PROPERTIES: dict[str, tuple[str, Any]] = {
    "ReportPlan.title": ("Title of the report; null for the name of the study.", "Winter filters"),
    "ReportPlan.prepared_by": ("By whom it is prepared.", "the workshop"),
    "ReportPlan.prepared_for": ("For whom it is prepared.", "the depot"),
    "ReportPlan.paper": ("`a4` or `letter`; null for A4.", "a4"),
    "ReportPlan.units": ("`metric` or `inch`; null for metric.", "metric"),
    "ReportPlan.sections": ("What is told of each filter; empty for all.", ["drawings", "working"]),
    "ReportPlan.parts": ("Its parts in their order; empty for all in the usual order.", [{"part": "answer"}]),
    "ReportPart.part": ("Which part; `text` is the analyst's own.", "answer"),
    "ReportPart.text": ("The analyst's own text, in Markdown without HTML; null of any other part.", "## Why\n\nSee *below*."),
    "ReportOut.plan": ("The plan as it is kept with the study.", _PLAN),
    "ReportOut.parts": ("Parts a report can have, in their usual order.", [{"key": "answer", "title": "The answer"}]),
    "ReportOut.sections": ("What can be told of each filter, in its order.", [{"key": "valve", "title": "Bypass valve"}]),
    "ReportOut.endings": ("Kinds of file a report is written as, by their endings.", ["pdf", "html"]),
    "ReportOut.issued": ("Reports that were issued, the latest first.", []),
    "ReportPlanIn.plan": ("The plan as it is to be.", _PLAN),
    "ReportPlanIn.seen": ("The plan as it was when the change began; one that is another by now is not changed.", {}),
    "OfferedPartOut.key": ("Key of the part or section.", "answer"),
    "OfferedPartOut.title": ("What it is called.", "The answer"),
    "PageOut.width_mm": ("Width of the page.", 210.0),
    "PageOut.height_mm": ("Height of the page.", 297.0),
    "ReportPreviewOut.key": ("Key of these pages, for their addresses and for issuing them.", "0" * 32),
    "ReportPreviewOut.title": ("Title of the report.", "Winter filters"),
    "ReportPreviewOut.dated": ("Date the draft bears, ISO.", "2026-11-27"),
    "ReportPreviewOut.size_bytes": ("Size of the PDF.", 2_000_000),
    "ReportPreviewOut.pages": ("Its pages, the first first.", [{"width_mm": 210.0, "height_mm": 297.0}]),
    "IssueIn.preview_key": ("Key of the pages that were looked at.", "0" * 32),
    "IssuedReportOut.id": ("Number of the issued report, for addresses.", 1),
    "IssuedReportOut.number": ("Number it bears, which no other report has.", "2026-0001"),
    "IssuedReportOut.issued_at": ("When it was issued, ISO time, UTC.", "2026-11-27T14:00:00+00:00"),
    "IssuedReportOut.title": ("Title it bears.", "Winter filters"),
    "IssuedReportOut.sha256": ("Digest of its PDF, hexadecimal.", "0" * 64),
    "IssuedReportOut.size_bytes": ("Size of its PDF.", 2_000_000),
    "IssuedReportOut.difference_count": ("In how many things the study is otherwise now.", 1),
    "DifferenceOut.where": ("Label of the filter, or `study`.", "Korvath"),
    "DifferenceOut.what": ("What is otherwise.", "Can: height"),
    "DifferenceOut.was": ("What it was at issue; null for nothing.", "98.4 mm"),
    "DifferenceOut.now": ("What it is now; null for nothing.", "98.6 mm"),
    "PackageIn.content_base64": ("The zip, in base64.", "UEsFBgAAAAAAAAAAAAAAAAAAAAAAAA=="),
}
"""By name, or model and name."""

"""Measure what leaves: the report of the demo as pages, as one page, as a workbook and as a package."""

from __future__ import annotations

from collections.abc import Callable
from time import perf_counter
from typing import Any

from judging import DEMO

from tabrel.core.judge.knowledge_cache import KnowledgeCache
from tabrel.document.full_study import FullStudy
from tabrel.document.study_document import read_study_file
from tabrel.report.inputs import ReportInputs
from tabrel.report.written import written_as

AIMS = {".pdf": 5.0, ".xlsx": 1.0, ".html": 5.0, ".zip": 5.0}
MOST_BYTES = 3_000_000


def _timed(work: Callable[[], bytes]) -> tuple[float, int]:
    started = perf_counter()
    content = work()
    return perf_counter() - started, len(content)


def reports() -> list[dict[str, Any]]:
    """Measure each kind of file for the demo study of five filters; its yardstick is the study judged from nothing."""
    study = read_study_file(DEMO)
    full, kept = FullStudy(study), KnowledgeCache()
    started = perf_counter()
    whole = ReportInputs(study, kept=kept)
    whole.judged, whole.sheet  # noqa: B018
    from_nothing = perf_counter() - started
    collected = []
    for ending, aim in AIMS.items():
        written_as(ending, ReportInputs(study, kept=kept), full, "2026-11-27")  # what is loaded once is loaded
        seconds, size = _timed(lambda e=ending: written_as(e, ReportInputs(study, kept=kept), full, "2026-11-27"))  # type: ignore[misc]
        collected.append(
            {
                "name": f"report{ending}",
                "filters": len(study.samples),
                "bytes": size,
                "aim_bytes": MOST_BYTES,
                "seconds": seconds,
                "aim_seconds": aim,
                "reference_seconds": from_nothing,
                "ratio": from_nothing / seconds,
            }
        )
    return collected

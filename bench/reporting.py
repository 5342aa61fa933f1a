"""Measure what leaves: the report of the demo as pages of each size, as one page, as a workbook and as a package."""

from __future__ import annotations

from collections.abc import Callable
from time import perf_counter
from typing import Any

from judging import DEMO

from tabrel.core.judge.knowledge_cache import KnowledgeCache
from tabrel.core.study.report_plan import Size
from tabrel.document.full_study import FullStudy
from tabrel.document.study_document import read_study_file
from tabrel.report.inputs import ReportInputs
from tabrel.report.written import written_as

AIMS: dict[tuple[str, Size], float] = {
    (".pdf", "card"): 1.0,
    (".pdf", "short"): 3.0,
    (".pdf", "full"): 5.0,
    (".xlsx", "full"): 1.0,
    (".html", "full"): 5.0,
    (".zip", "full"): 5.0,
}
"""Seconds, once the uses are judged."""
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
    whole.answers, whole.sheet  # noqa: B018
    from_nothing = perf_counter() - started
    collected = []
    for (ending, size), aim in AIMS.items():

        def write(ending: str = ending, size: Size = size) -> bytes:
            return written_as(ending, ReportInputs(study, kept=kept).in_size(size), full, "2026-11-27")

        write()  # what is loaded once is loaded
        seconds, length = _timed(write)
        collected.append(
            {
                "name": f"report_{size}{ending}",
                "filters": len(study.samples),
                "bytes": length,
                "aim_bytes": MOST_BYTES,
                "seconds": seconds,
                "aim_seconds": aim,
                "reference_seconds": from_nothing,
                "ratio": from_nothing / seconds,
            }
        )
    return collected

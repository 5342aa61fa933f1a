"""Refuse a plan of a report that cannot be followed."""

from __future__ import annotations

from tabrel.core.errors import StudyError
from tabrel.core.study.model import Study
from tabrel.core.study.report_plan import PARTS, ReportPlan

MOST_PARTS = 60
MOST_LETTERS_OF_NAME = 300
"""Of title, and of whom it is prepared by and for."""


def check_report_plan(path: str, plan: ReportPlan) -> None:
    """Refuse a plan with too many parts, a part twice, or own text where none belongs.

    Raises
    ------
    StudyError
        With the place and the correction.
    """
    for name in ("title", "prepared_by", "prepared_for"):
        words = getattr(plan, name)
        if words is None:
            continue
        if not words.strip():
            raise StudyError(f"{path}.{name}", "is empty: leave it out")
        if len(words) > MOST_LETTERS_OF_NAME:
            raise StudyError(f"{path}.{name}", f"has {len(words)} letters, more than {MOST_LETTERS_OF_NAME}: shorten it")
        if "\n" in words:
            raise StudyError(f"{path}.{name}", "runs over several lines: write it in one")
    if len(plan.parts) > MOST_PARTS:
        raise StudyError(f"{path}.parts", f"are {len(plan.parts)}, more than {MOST_PARTS}: join own texts that follow each other")
    seen = set()
    for i, part in enumerate(plan.parts):
        if part.part == "text":
            if part.text is None or not part.text.strip():
                raise StudyError(f"{path}.parts[{i}].text", "is empty: write it, or leave the part out")
            continue
        if part.text is not None:
            raise StudyError(
                f"{path}.parts[{i}].text", f"belongs to no part {PARTS[part.part]!r}: make it a part 'text' of its own"
            )
        if part.part in seen:
            raise StudyError(f"{path}.parts[{i}].part", f"{PARTS[part.part]!r} is there twice: leave one out")
        seen.add(part.part)
    if len(set(plan.sections)) < len(plan.sections):
        raise StudyError(f"{path}.sections", "name a section twice: leave one out")


def check_report(study: Study) -> None:
    """Refuse a study whose report cannot be planned so."""
    if study.report is not None:
        check_report_plan("report", study.report)

"""Refuse printed sums that cannot be recomputed."""

from __future__ import annotations

from tabrel.core.audit.arithmetic import check_line
from tabrel.core.audit.written import MOST_LINES
from tabrel.core.errors import StudyError
from tabrel.core.study.model import Study


def check_arithmetic(study: Study) -> None:
    """Raise `StudyError` at the first line that cannot be recomputed; whether it follows is another matter."""
    if len(study.arithmetic) > MOST_LINES:
        raise StudyError("arithmetic", f"has {len(study.arithmetic)} lines, more than {MOST_LINES}: leave out what is settled")
    for i, line in enumerate(study.arithmetic):
        check_line(line, f"arithmetic[{i}]")

"""The audit document: printed sums line by line, and what recomputing says of it."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from tabrel.core.audit.arithmetic import LineCheck, check_line
from tabrel.core.errors import StudyError
from tabrel.core.study.arithmetic import AUDIT_FORMAT, AUDIT_VERSION, Audit
from tabrel.document.plain_json import content_of, decoded, parsed_json, validated

MOST_LINES = 10_000

_ADAPTER: TypeAdapter[Audit] = TypeAdapter(Audit)


def read_audit(content: bytes | str) -> Audit:
    """Return the audit a document holds.

    Raises
    ------
    StudyError
        If it is not acceptable; names the place and the correction.
    """
    parsed = parsed_json(decoded(content))
    if not isinstance(parsed, dict) or parsed.get("format") != AUDIT_FORMAT:
        raise StudyError("format", f'must be "{AUDIT_FORMAT}": this is not an audit document')
    audit = validated(_ADAPTER, parsed, model=Audit)
    if audit.version != AUDIT_VERSION:
        raise StudyError(
            "version", f"{audit.version} is not {AUDIT_VERSION}, which this program reads: open it with a newer Tabrel"
        )
    if not audit.lines:
        raise StudyError("lines", "is empty: give the lines that were printed")
    if len(audit.lines) > MOST_LINES:
        raise StudyError("lines", f"are {len(audit.lines)}, more than {MOST_LINES}: give them in parts")
    return audit


def read_audit_file(path: Path) -> Audit:
    """Return the audit in a file; raises `StudyError` where it cannot be read."""
    return read_audit(content_of(path))


def checked(audit: Audit) -> tuple[LineCheck, ...]:
    """Return what recomputing says of every line; the first malformed one is refused by its number."""
    return tuple(check_line(line, f"lines[{i}]") for i, line in enumerate(audit.lines))


def audit_out(checks: tuple[LineCheck, ...]) -> dict[str, Any]:
    """Return what recomputing says as plain JSON values, ranges in the printed unit."""
    return {
        "lines": [
            {
                "label": check.line.label,
                "verdict": check.verdict,
                "computed": {"low": check.computed[0], "high": check.computed[1], "unit": check.unit},
                "printed": {"low": check.stated[0], "high": check.stated[1]},
                "would_explain": list(check.would_explain),
                "sentence": check.sentence,
            }
            for check in checks
        ]
    }

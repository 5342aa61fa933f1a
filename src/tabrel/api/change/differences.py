"""Difference between a sheet and the one a window has."""

from __future__ import annotations

from typing import Any

from tabrel.api.change.models import SheetChangesOut
from tabrel.api.sample.models import SheetOut

ALWAYS = ("undo", "redo")
"""Members that differ from window to window."""


def changes_between(before: SheetOut, after: SheetOut) -> SheetChangesOut:
    """Return what makes one sheet of a sample of another."""
    changed: dict[str, Any] = {
        name: getattr(after, name)
        for name in SheetOut.model_fields.keys() & SheetChangesOut.model_fields.keys() - {"revision", "parts"}
        if name in ALWAYS or getattr(before, name) != getattr(after, name)
    }
    fields = {field.key: field for part in before.parts for field in part.fields}
    seen = {value.key: value for part in before.parts for value in part.observations}
    if [(part.key, part.hole_group) for part in before.parts] != [(part.key, part.hole_group) for part in after.parts]:
        return SheetChangesOut(revision=after.revision, fields=[], observations=[], parts=after.parts, **changed)
    return SheetChangesOut(
        revision=after.revision,
        fields=[field for part in after.parts for field in part.fields if fields.get(field.key) != field],
        observations=[value for part in after.parts for value in part.observations if seen.get(value.key) != value],
        **changed,
    )

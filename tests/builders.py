"""Small studies for tests, built from one plain filter."""

from __future__ import annotations

import copy
import json
from pathlib import Path
from typing import Any

from tabrel.core.study import Study
from tabrel.document.study_document import read_study

PLAIN = json.loads((Path(__file__).parent / "data" / "cases" / "plain.study.json").read_text())


def plain_document() -> dict[str, Any]:
    """Return a fresh copy of the plain case's document."""
    return copy.deepcopy(PLAIN)


def changed(*changes: tuple[str, Any]) -> dict[str, Any]:
    """Return the plain document with values set at paths; None removes, `/` separates the steps."""
    document = plain_document()
    for path, value in changes:
        *steps, last = (int(step) if step.isdigit() else step for step in path.split("/"))
        here: Any = document
        for step in steps:
            here = here[step] if isinstance(step, int) else here.setdefault(step, {})
        if value is None:
            del here[last]
        else:
            here[last] = value
    return document


def study(*changes: tuple[str, Any]) -> Study:
    """Return the plain study with values set at paths."""
    return read_study(json.dumps(changed(*changes)))


def reading(key: str, *texts: str) -> tuple[str, Any]:
    """Return a change that sets the readings of a key; without texts it removes them."""
    return (f"samples/0/readings/{key}", list(texts) or None)

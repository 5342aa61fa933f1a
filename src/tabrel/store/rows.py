"""From rows to core objects."""

from __future__ import annotations

import sqlite3
from collections.abc import Hashable, Mapping
from typing import Any, TypeVar, cast

from tabrel.core.study.model import field_names

T = TypeVar("T")


def built(model: type[T], row: sqlite3.Row | Mapping[str, Any], **given: Any) -> T:
    """Return a core dataclass from the columns of the same names, and the fields given."""
    columns = set(row.keys())
    names = field_names(cast("Hashable", model))
    read = {name: row[name] for name in names if name in columns and name not in given}
    return model(**read, **given)

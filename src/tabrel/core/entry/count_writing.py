"""The counts of a test written as a table in our own layout."""

from __future__ import annotations

import csv
import io
from typing import Any

from tabrel.core.catalogue.conditions import CONDITIONS
from tabrel.core.entry.count_columns import MEASURED, ROW, SIDES
from tabrel.core.study.evidence import Counts


def count_table_text(counts: Counts) -> str:
    """Return the counts of a test as a table in our own layout, as `count_table.read_count_table` reads it.

    Conditions come first, a line of name and value each; then a row an interval, and the blank.
    """
    lines = [[row.field, _plain(value)] for row in CONDITIONS if (value := getattr(counts, row.field)) is not None]
    recorded = [
        column
        for column in MEASURED
        if any(getattr(count_interval, column.key) is not None for count_interval in counts.intervals)
    ]
    sizes = [f"{size:.12g}" for size in counts.sizes_um]
    unit = "" if counts.scale == "unnamed" else f" {counts.scale}"
    lines.append(
        [ROW.key, *(column.key for column in recorded), *(f"{side.key} {size}{unit}" for side in SIDES for size in sizes)]
    )
    for i, interval in enumerate(counts.intervals, 1):
        cells = [_plain(value) if (value := getattr(interval, column.key)) is not None else "" for column in recorded]
        lines.append([str(i), *cells, *map(str, interval.upstream), *map(str, interval.downstream)])
    if counts.blank:
        lines.append(["blank", *[""] * len(recorded), *map(str, counts.blank.upstream), *map(str, counts.blank.downstream)])
    text = io.StringIO()
    csv.writer(text, lineterminator="\n").writerows(lines)
    return text.getvalue()


def _plain(value: Any) -> str:
    return f"{value:.12g}" if isinstance(value, float) else str(value)

"""A workbook that comes in, as text: each sheet a table with tabs, read no further than a sheet of readings can be."""

from __future__ import annotations

from datetime import date, datetime
from io import BytesIO
from typing import Any

from tabrel.core.errors import StudyError
from tabrel.core.stopping import stop_if_nobody_waits
from tabrel.document.archive import opened_archive

MOST_UNPACKED = 40_000_000
MOST_SHEETS, MOST_ROWS, MOST_COLUMNS = 20, 2000, 200


def sheets_as_text(content: bytes) -> dict[str, str]:
    """Return the sheets of a workbook as text, by their names; what is computed in it is taken as it was computed last.

    Returns
    -------
    dict
        Cells divided by tabs, rows by line ends; a sheet without a cell is left out.

    Raises
    ------
    StudyError
        If it is no workbook, or larger than a sheet of readings can be.
    """
    from openpyxl import load_workbook

    damaged = "is no XLSX workbook, or a damaged one: save it anew as XLSX, or as CSV, then choose it again"
    with opened_archive(content, "workbook", most_bytes=MOST_UNPACKED, damaged=damaged):
        computed, typed = (load_workbook(BytesIO(content), read_only=True, data_only=only) for only in (True, False))
        pairs = zip(computed.worksheets[:MOST_SHEETS], typed.worksheets, strict=False)
        texts = {str(sheet.title): _text(sheet, formulas) for sheet, formulas in pairs}
    return {title: text for title, text in texts.items() if text}


def _text(sheet: Any, formulas: Any) -> str:
    """Return a sheet as text; a formula that was never computed stands as it is typed, and is no number to anybody."""
    rows: list[str] = []
    read = (one.iter_rows(max_row=MOST_ROWS + 1, max_col=MOST_COLUMNS + 1, values_only=True) for one in (sheet, formulas))
    for row, typed in zip(*read, strict=False):
        stop_if_nobody_waits()
        cells = [_cell(text if value is None else value) for value, text in zip(row, typed, strict=False)]
        while cells and not cells[-1]:
            cells.pop()
        if len(cells) > MOST_COLUMNS or (cells and len(rows) == MOST_ROWS):
            words = f"has a sheet, {str(sheet.title)!r}, of more than {MOST_ROWS:,} rows or {MOST_COLUMNS} columns"
            raise StudyError("workbook", f"{words}: save what is needed of it on its own")
        rows.append("\t".join(cells))
    return "\n".join(rows).strip("\n")


def _cell(value: Any) -> str:
    if value is None or isinstance(value, bool):
        return ""
    if isinstance(value, float):
        return f"{value:.12g}"
    if isinstance(value, datetime | date):
        return value.isoformat()
    return " ".join(str(value).split())

"""A workbook that comes in, as text: each sheet a table with tabs, read no further than a sheet of readings can be."""

from __future__ import annotations

import zlib
from datetime import date, datetime
from io import BytesIO
from typing import Any
from zipfile import BadZipFile, ZipFile

from tabrel.core.errors import StudyError

MOST_UNPACKED = 40_000_000
MOST_SHEETS, MOST_ROWS, MOST_COLUMNS = 20, 2000, 200


def sheets_as_text(content: bytes) -> dict[str, str]:
    """Return the sheets of a workbook as text, by their names; what is computed in it is taken as it was computed last.

    Parameters
    ----------
    content : bytes
        Of an XLSX file.

    Returns
    -------
    dict
        Cells divided by tabs, rows by line ends; a sheet without a cell is left out.

    Raises
    ------
    StudyError
        If it is no workbook, or larger than a sheet of readings can be.
    """
    try:
        with ZipFile(BytesIO(content)) as archive:
            unpacked = sum(entry.file_size for entry in archive.infolist())
    except BadZipFile as error:
        raise StudyError("content_base64", "is no XLSX workbook: save it as XLSX or CSV, then choose it again") from error
    if unpacked > MOST_UNPACKED:
        raise StudyError("content_base64", f"is larger than {MOST_UNPACKED / 1e6:g} MB unpacked: no sheet of readings is")
    from openpyxl import load_workbook

    try:
        book = load_workbook(BytesIO(content), read_only=True, data_only=True)
        words = {}
        for sheet in book.worksheets[:MOST_SHEETS]:
            text = _text(sheet)
            if text:
                words[str(sheet.title)] = text
    except (KeyError, ValueError, OSError, EOFError, TypeError, AttributeError, zlib.error, BadZipFile, SyntaxError) as error:
        raise StudyError("content_base64", "cannot be read as a workbook: save it anew, or as CSV, then choose it") from error
    return words


def _text(sheet: Any) -> str:
    rows = []
    for row in sheet.iter_rows(max_row=MOST_ROWS, max_col=MOST_COLUMNS, values_only=True):
        cells = [_cell(value) for value in row]
        while cells and not cells[-1]:
            cells.pop()
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

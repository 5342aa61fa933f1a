"""Tables as one XLSX workbook: a sheet a subject, numbers as numbers, text as text, headings that stay in sight."""

from __future__ import annotations

from datetime import datetime
from io import BytesIO
from typing import Any

from tabrel.report.blocks import Report
from tabrel.report.data_table import DataTable

WIDEST, NARROWEST = 60, 9
LONGEST_CELL = 32_000
"""Of what a spreadsheet takes in a cell."""


def xlsx_of(report: Report, tables: tuple[DataTable, ...]) -> bytes:
    """Return tables as a workbook, a sheet about the report first.

    Parameters
    ----------
    report : Report
        For title, number and date.
    tables : tuple of DataTable
    """
    from xlsxwriter import Workbook

    out = BytesIO()
    options = {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False, "strings_to_numbers": False}
    with Workbook(out, options) as book:
        book.set_properties({"title": report.title, "comments": report.standing, "created": datetime.fromisoformat(report.dated)})
        bold = book.add_format({"bold": True, "text_wrap": True, "valign": "bottom", "bottom": 1})
        text = book.add_format({"valign": "top"})
        wrapped = book.add_format({"text_wrap": True, "valign": "top"})
        about = book.add_worksheet("About")
        about.set_column(0, 0, 24, wrapped)
        about.set_column(1, 1, 80, wrapped)
        facts = [
            ("Title", report.title),
            ("Standing", report.standing),
            ("Date", report.dated),
            ("Prepared by", report.prepared_by or ""),
            ("Prepared for", report.prepared_for or ""),
            ("Numbers", "In the unit of their heading, metric; U is expanded, 95 %. An empty cell is not known, never zero."),
            *((table.title, f"{len(table.rows)} rows") for table in tables),
        ]
        for i, (name, value) in enumerate(facts):
            about.write_string(i, 0, name, bold)
            about.write_string(i, 1, value, wrapped)
        for table in tables:
            _sheet(book.add_worksheet(table.title[:31].replace(":", "")), table, bold, text)
    return out.getvalue()


def _sheet(sheet: Any, table: DataTable, bold: Any, text: Any) -> None:
    for column, field in enumerate(table.fields):
        sheet.write_string(0, column, field.heading, bold)
        longest = max((len(str(row[column])) for row in table.rows[:400] if row[column] is not None), default=0)
        width = min(WIDEST, max(NARROWEST, longest + 1 if field.type == "string" else 0, min(18, len(field.heading) // 2)))
        sheet.set_column(column, column, width)
    for i, row in enumerate(table.rows, start=1):
        for column, value in enumerate(row):
            if value is None:
                continue
            if isinstance(value, bool):
                sheet.write_boolean(i, column, value)
            elif isinstance(value, str):
                sheet.write_string(i, column, value[:LONGEST_CELL], text)
            else:
                sheet.write_number(i, column, value)
    sheet.freeze_panes(1, 1)
    sheet.autofilter(0, 0, max(1, len(table.rows)), len(table.fields) - 1)

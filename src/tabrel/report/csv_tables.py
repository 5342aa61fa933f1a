"""Tables as CSV: UTF-8, comma and point, the unit in the heading, an empty cell for what is not known."""

from __future__ import annotations

import csv
from io import StringIO

from tabrel.report.data_table import DataTable, Value


def csv_of(table: DataTable) -> str:
    """Return a table as CSV, its first line the names of the fields with their units.

    Text that a spreadsheet would take for a formula begins with an apostrophe, so that opening the file computes nothing.

    """
    out = StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow([field.heading for field in table.fields])
    writer.writerows([[plain(value) for value in row] for row in table.rows])
    return out.getvalue()


def plain(value: Value) -> str:
    """Return a value as it stands in CSV.

    Examples
    --------
    >>> plain(0.1), plain(None), plain(True), plain("=1+1"), plain("-5 mm")
    ('0.1', '', 'true', "'=1+1", "'-5 mm")
    """
    if value is None:
        return ""
    if isinstance(value, bool):
        return "true" if value else "false"
    if isinstance(value, str):
        return f"'{value}" if value.startswith(("=", "+", "-", "@", "\t", "\r")) else value
    return repr(value)

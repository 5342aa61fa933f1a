"""A report as PDF, or as pictures of its pages: set by Typst, with the report's own fonts, offline."""

from __future__ import annotations

import json
from dataclasses import asdict
from functools import lru_cache
from pathlib import Path
from typing import Any

from tabrel.core.errors import TabrelError
from tabrel.report.blocks import OwnText, Report, Table
from tabrel.report.columns import FONTS, MARGIN, PAPER_MM, TURNED_MARGIN, column_widths, together

FOLDER = Path(__file__).parent
TEMPLATE = FOLDER / "templates" / "report.typ"
SCREEN_PPI = 96.0


class SettingError(TabrelError):
    """A report that cannot be set as pages."""


@lru_cache
def _fonts() -> Any:
    """Return the fonts, read once; Typst is loaded when the first report is set."""
    import typst

    return typst.Fonts(include_system_fonts=False, font_paths=[str(FONTS)])


def report_data(report: Report) -> dict[str, Any]:
    """Return a report as plain values, each block with its kind."""
    plain = asdict(report)
    blocks = [{"kind": type(block).__name__, **values} for block, values in zip(report.blocks, plain["blocks"], strict=True)]
    width, length = PAPER_MM[report.paper]
    for block, values in zip(report.blocks, blocks, strict=True):
        if isinstance(block, OwnText):
            values["blocks"] = [asdict(item) for item in block.blocks]
        elif isinstance(block, Table):
            room = length - 2 * TURNED_MARGIN if block.is_wide else width - 2 * MARGIN
            values["widths"], values["size"] = column_widths(block, room)
            values["rows"] = [[together(cell) for cell in row] for row in block.rows]
    return {**plain, "report_kind": report.kind, "standing": report.standing, "blocks": blocks}


def _set(report: Report, **how: Any) -> Any:
    import typst

    compiler = typst.Compiler(str(TEMPLATE), root=str(TEMPLATE.parent), font_paths=_fonts(), ignore_system_fonts=True)
    try:
        return compiler.compile(sys_inputs={"report": json.dumps(report_data(report))}, **how)
    except RuntimeError as error:
        raise SettingError(f"the report cannot be set as pages: {error}") from error


def pdf_of(report: Report) -> bytes:
    """Return a report as a tagged PDF; the same report gives the same bytes.

    Raises
    ------
    SettingError
        If it cannot be set.
    """
    result = _set(report, format="pdf", timestamp=0)
    return bytes(result if isinstance(result, bytes | bytearray) else result[0])


def pages_of(report: Report, ppi: float = SCREEN_PPI) -> list[bytes]:
    """Return a report as one PNG a page, as it will print."""
    computed = _set(report, format="png", ppi=ppi)
    return [bytes(computed)] if isinstance(computed, bytes | bytearray) else [bytes(page) for page in computed]

"""A study written as a file, of the kind that the file's ending names."""

from __future__ import annotations

from collections.abc import Callable

from tabrel.core.errors import StudyError, nearest_hint
from tabrel.document.full_study import FullStudy
from tabrel.report.contents import report_of
from tabrel.report.csv_tables import csv_of
from tabrel.report.html import html_of
from tabrel.report.inputs import ReportInputs
from tabrel.report.package import package_of
from tabrel.report.pdf import pdf_of
from tabrel.report.tables import data_tables
from tabrel.report.xlsx import xlsx_of

Writer = Callable[[ReportInputs, FullStudy, str], bytes]


def _pdf(inputs: ReportInputs, _: FullStudy, dated: str) -> bytes:
    return pdf_of(report_of(inputs, dated=dated))


def _html(inputs: ReportInputs, _: FullStudy, dated: str) -> bytes:
    return html_of(report_of(inputs, dated=dated)).encode()


def _xlsx(inputs: ReportInputs, _: FullStudy, dated: str) -> bytes:
    return xlsx_of(report_of(inputs, dated=dated, with_blocks=False), data_tables(inputs))


def _csv(inputs: ReportInputs, _: FullStudy, __: str) -> bytes:
    return csv_of(next(table for table in data_tables(inputs, only=("results",)))).encode()


def _zip(inputs: ReportInputs, full: FullStudy, dated: str) -> bytes:
    return package_of(full, report_of(inputs.in_size("full"), dated=dated), data_tables(inputs))


WRITERS: dict[str, Writer] = {".pdf": _pdf, ".html": _html, ".xlsx": _xlsx, ".csv": _csv, ".zip": _zip}
"""By the file's ending: the report as pages, as one page, the tables as a workbook, the results alone, the whole study."""


def written_as(ending: str, inputs: ReportInputs, full: FullStudy, dated: str) -> bytes:
    """Return a study as the bytes of a file.

    Parameters
    ----------
    ending : str
        With its point; of `WRITERS`.
    inputs : ReportInputs
        Of the study.
    full : FullStudy
        The study with what its document carries besides, for the package.
    dated : str
        ISO date that the draft bears.

    Raises
    ------
    StudyError
        If nothing is written with this ending.
    """
    return require_ending(ending)(inputs, full, dated)


def require_ending(ending: str) -> Writer:
    """Return what writes files of an ending; raises `StudyError` where nothing does."""
    writer = WRITERS.get(ending.lower())
    if writer is None:
        shown = repr(ending) if ending else "a file without an ending"
        hint = nearest_hint(ending, WRITERS)
        raise StudyError("", f"nothing is written as {shown}{hint}: name a file that ends in {', '.join(WRITERS)}")
    return writer

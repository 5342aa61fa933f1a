"""Reports as they were issued, which nothing changes."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from tabrel.store.connection import inserted_id
from tabrel.store.errors import NotStoredError
from tabrel.store.gather import Reader
from tabrel.store.study.report_numbers import give


@dataclass(frozen=True)
class IssuedReport:
    """A report as it was issued.

    Attributes
    ----------
    id : int
    study_id : int
    number, issued_at, title : str
    document : str
        The study document at that moment, JSON.
    sha256 : str
        Of the PDF.
    size : int
        Of the PDF, in bytes.
    """

    id: int
    study_id: int
    number: str
    issued_at: str
    title: str
    document: str
    sha256: str
    size: int


INSERT_ISSUED = """
INSERT INTO issued_report (study_id, number, issued_at, title, document, pdf, sha256)
VALUES (:study_id, :number, :issued_at, :title, :document, :pdf, :sha256)
"""
SELECT_ISSUED_OF_STUDY = """
SELECT id, study_id, number, issued_at, title, document, sha256, length(pdf) AS size
FROM issued_report WHERE study_id = :study_id ORDER BY id DESC
"""
SELECT_ISSUED = """
SELECT id, study_id, number, issued_at, title, document, sha256, length(pdf) AS size FROM issued_report WHERE id = :id
"""
SELECT_ISSUED_PDF = "SELECT pdf FROM issued_report WHERE id = :id"


def insert_issued(
    conn: sqlite3.Connection, study_id: int, *, number: str, issued_at: str, title: str, document: str, pdf: bytes, sha256: str
) -> int:
    """Keep a report as it is issued; return its id. Call it within the transaction that looked for the number.

    Raises
    ------
    NotWritableError
        If the number cannot be remembered beside the database.
    """
    give(conn, number)
    given = {"study_id": study_id, "number": number, "issued_at": issued_at, "title": title, "document": document}
    return inserted_id(conn.execute(INSERT_ISSUED, {**given, "pdf": pdf, "sha256": sha256}))


def issued_of_study(conn: Reader, study_id: int) -> list[IssuedReport]:
    """Return the reports of a study that were issued, the latest first."""
    return [_issued(row) for row in conn.execute(SELECT_ISSUED_OF_STUDY, {"study_id": study_id})]


def load_issued(conn: sqlite3.Connection, report_id: int) -> IssuedReport:
    """Return a report that was issued.

    Raises
    ------
    NotStoredError
        If there is none of this id.
    """
    row = conn.execute(SELECT_ISSUED, {"id": report_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no issued report {report_id}: choose one of the list")
    return _issued(row)


def pdf_of_issued(conn: sqlite3.Connection, report_id: int) -> bytes:
    """Return the bytes of a report as it was issued; raises `NotStoredError` as `load_issued`."""
    load_issued(conn, report_id)
    return bytes(conn.execute(SELECT_ISSUED_PDF, {"id": report_id}).fetchone()["pdf"])


def _issued(row: sqlite3.Row) -> IssuedReport:
    return IssuedReport(**dict(row))

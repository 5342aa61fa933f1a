"""Issued reports stay as they were: numbers are given once, rows are protected, and a changed one is found."""

from __future__ import annotations

import sqlite3
from hashlib import sha256

import pytest

from builders import study
from tabrel.core.study.report_plan import ReportPart, ReportPlan
from tabrel.store.connection import connect, transaction
from tabrel.store.errors import NotStoredError
from tabrel.store.migrate import open_database
from tabrel.store.study.reports import (
    insert_issued,
    issued_of_study,
    load_issued,
    load_report_plan,
    next_number,
    pdf_of_issued,
    set_report_plan,
)
from tabrel.store.study.studies import insert_study
from tabrel.store.upkeep.verify import faults_of


@pytest.fixture
def path(tmp_path):
    open_database(tmp_path / "study.db")
    return tmp_path / "study.db"


@pytest.fixture
def conn(path):
    conn = connect(path)
    yield conn
    conn.close()


def issue(conn, study_id, pdf=b"%PDF one"):
    with transaction(conn):
        number = next_number(conn, 2026)
        given = {
            "issued_at": "2026-11-27T14:00:00+00:00",
            "title": "T",
            "document": "{}",
            "pdf": pdf,
            "sha256": sha256(pdf).hexdigest(),
        }
        return insert_issued(conn, study_id, number=number, **given)


def test_numbers_follow_each_other_over_all_studies_and_begin_anew_each_year(conn):
    with transaction(conn):
        first, second = insert_study(conn, study()), insert_study(conn, study())
    for item in (first, second, first):
        issue(conn, item)
    assert [report.number for report in issued_of_study(conn, first)] == ["2026-0003", "2026-0001"]
    assert next_number(conn, 2026) == "2026-0004"
    assert next_number(conn, 2027) == "2027-0001"


def test_what_is_issued_is_neither_changed_nor_removed(conn):
    with transaction(conn):
        study_id = insert_study(conn, study())
    report = issue(conn, study_id)
    for statement in ("UPDATE issued_report SET title = 'other'", "DELETE FROM issued_report"):
        with pytest.raises(sqlite3.IntegrityError, match="is kept"):
            conn.execute(statement)
    assert pdf_of_issued(conn, report) == b"%PDF one"
    assert load_issued(conn, report).size == 8
    with pytest.raises(NotStoredError, match="choose one of the list"):
        pdf_of_issued(conn, report + 1)


def test_a_report_that_is_no_longer_as_it_was_issued_is_found(conn, path):
    with transaction(conn):
        study_id = insert_study(conn, study())
    issue(conn, study_id)
    assert faults_of(path) == []
    conn.execute("DROP TRIGGER issued_report_stays")
    conn.execute("UPDATE issued_report SET pdf = x'00'")
    assert faults_of(path) == ["report 2026-0001 is no longer as it was issued: put back a copy from before"]


def test_a_plan_that_plans_nothing_is_none(conn):
    with transaction(conn):
        study_id = insert_study(conn, study())
        plan = ReportPlan(title="Winter", parts=(ReportPart("text", "x"),))
        set_report_plan(conn, study_id, plan)
        assert load_report_plan(conn, study_id) == plan
        set_report_plan(conn, study_id, ReportPlan())
        assert load_report_plan(conn, study_id) is None

"""Issued reports stay as they were: numbers are given once, rows are protected, and a changed one is found."""

from __future__ import annotations

import shutil
import sqlite3
from hashlib import sha256

import pytest

from builders import study
from tabrel.core.study.report_plan import ReportPart, ReportPlan
from tabrel.store.connection import connect, transaction
from tabrel.store.errors import NotStoredError, NotWritableError
from tabrel.store.migrate import open_database
from tabrel.store.parts import OF_STUDY
from tabrel.store.study.report_numbers import file_of_numbers, next_number
from tabrel.store.study.reports import (
    insert_issued,
    issued_of_study,
    load_issued,
    pdf_of_issued,
)
from tabrel.store.study.studies import insert_study
from tabrel.store.upkeep.backup import backup, restore
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


def issued_in(path, times=1):
    """Issue reports of a new study in a database; return the number of the last one."""
    conn = connect(path)
    with transaction(conn):
        study_id = insert_study(conn, study())
    for _ in range(times):
        report = issue(conn, study_id)
    number = load_issued(conn, report).number
    conn.close()
    return number


def test_a_number_that_was_given_is_never_given_again(path, tmp_path):
    copy = backup(path, tmp_path / "copy.db")
    later = backup(path, tmp_path / "later.db")
    assert issued_in(path, 2) == "2026-0002"
    put_back = restore(path, copy)
    assert put_back.reports == ("2026-0001", "2026-0002")
    assert sorted(file.name for file in put_back.folder.iterdir()) == [
        f"report 2026-000{n}.{ending}" for n in (1, 2) for ending in ("json", "pdf")
    ]
    assert (put_back.folder / "report 2026-0002.pdf").read_bytes() == b"%PDF one"
    assert issued_in(path) == "2026-0003"
    shutil.copyfile(later, path)  # by hand, without restore: the file beside the database remembers
    assert issued_in(path) == "2026-0004"
    file_of_numbers(path).write_text("no JSON")  # and without it the database does
    assert issued_in(path) == "2026-0005"
    file_of_numbers(path).unlink()
    assert restore(path, copy).reports == ("2026-0004", "2026-0005")
    assert issued_in(path) == "2026-0006"


def test_a_number_that_cannot_be_remembered_is_not_given(path):
    file_of_numbers(path).mkdir()
    with pytest.raises(NotWritableError, match="Nothing was issued"):
        issued_in(path)
    conn = connect(path)
    assert issued_of_study(conn, 1) == []
    conn.close()


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
        OF_STUDY.set(conn, study_id, "report", plan)
        assert OF_STUDY.one(conn, study_id, "report") == plan
        OF_STUDY.set(conn, study_id, "report", ReportPlan())
        assert OF_STUDY.one(conn, study_id, "report") is None

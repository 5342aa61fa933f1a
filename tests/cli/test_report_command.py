"""`tabrel report` and `tabrel import`: by the file's ending, whole or not at all, one line where it is refused."""

from __future__ import annotations

import json
import zipfile

import pytest

from builders import changed, plain_document
from tabrel.cli.main import main
from tabrel.document.study_document import read_study
from tabrel.store.connection import connect
from tabrel.store.study.studies import list_studies, load_study


@pytest.fixture
def study(tmp_path):
    path = tmp_path / "study.json"
    path.write_text(json.dumps(plain_document()))
    return path


def run(capsys, *arguments):
    try:
        status = main([str(argument) for argument in arguments])
    except SystemExit as stop:
        status = int(stop.code or 0)
    printed = capsys.readouterr()
    return status, printed.out, printed.err


@pytest.mark.parametrize(
    ("ending", "begins"), [("pdf", b"%PDF"), ("html", b"<!doctype html>"), ("xlsx", b"PK"), ("csv", b"Filter,"), ("ZIP", b"PK")]
)
def test_the_ending_says_what_is_written_and_it_is_a_draft(capsys, study, tmp_path, ending, begins):
    target = tmp_path / f"report.{ending}"
    status, out, err = run(capsys, "report", study, "-o", target)
    assert (status, err) == (0, "")
    assert "draft, not issued" in out
    assert target.read_bytes().lstrip().startswith(begins)


@pytest.mark.parametrize(("size", "there"), [("card", False), ("short", False), ("full", True), (None, False)])
def test_a_size_says_whether_the_readings_are_there(capsys, study, tmp_path, size, there):
    target = tmp_path / "report.html"
    chosen = ["--size", size] if size else []
    assert run(capsys, "report", study, "-o", target, *chosen)[0] == 0
    page = target.read_text()
    assert ("Readings as typed" in page) == there
    assert ("Cautions and limits" in page) == (size != "card")


@pytest.mark.parametrize(
    ("name", "expected", "says"),
    [
        ("report.docx", 2, "name a file that ends in .pdf"),
        ("report", 2, "a file without an ending"),
        ("nowhere/report.csv", 1, "cannot be written"),
    ],
)
def test_what_cannot_be_written_is_one_line_and_leaves_nothing_behind(capsys, study, tmp_path, name, expected, says):
    status, out, err = run(capsys, "report", study, "-o", tmp_path / name)
    assert (status, out) == (expected, "")
    assert says in err
    assert err.count("\n") == 1
    assert sorted(item.name for item in tmp_path.iterdir()) == ["study.json"]


def test_a_study_that_is_none_leaves_the_report_that_is_there(capsys, tmp_path):
    target = tmp_path / "report.csv"
    target.write_text("yesterday's")
    (tmp_path / "study.json").write_text('{"format": "other"}')
    status, _, err = run(capsys, "report", tmp_path / "study.json", "-o", target)
    assert status == 2
    assert "tabrel-study" in err
    assert target.read_text() == "yesterday's"


def test_a_package_is_read_back_to_an_equal_study_printed_or_into_a_database(capsys, study, tmp_path):
    run(capsys, "report", study, "-o", tmp_path / "study.zip")
    status, out, _ = run(capsys, "import", tmp_path / "study.zip")
    assert status == 0
    assert read_study(out) == read_study(study.read_text())
    database = tmp_path / "workshop.db"
    status, out, _ = run(capsys, "import", tmp_path / "study.zip", "--database", database)
    assert status == 0
    assert "1 filter put into" in out
    conn = connect(database)
    (stored,) = list_studies(conn)
    assert load_study(conn, stored.id) == read_study(study.read_text())
    conn.close()


def test_a_zip_that_leads_out_of_itself_is_one_line_and_makes_no_database(capsys, tmp_path):
    with zipfile.ZipFile(tmp_path / "evil.zip", "w") as archive:
        archive.writestr("../../study.json", json.dumps(plain_document()))
    status, out, err = run(capsys, "import", tmp_path / "evil.zip", "--database", tmp_path / "new.db")
    assert (status, out) == (2, "")
    assert "leads out of it" in err
    assert err.count("\n") == 1
    assert not (tmp_path / "new.db").exists()


def test_names_with_signs_of_formulas_and_letters_no_font_has_are_reported(capsys, tmp_path):
    path = tmp_path / "study.json"
    path.write_text(json.dumps(changed(("samples/0/label", "$x^2$ {} 漢字 \\alpha"), ("name", "$\\frac{1}{2$"))))
    for ending in ("pdf", "html"):
        status, _, err = run(capsys, "report", path, "-o", tmp_path / f"report.{ending}")
        assert (status, err) == (0, "")
    assert "$x^2$ {} 漢字 \\alpha" in (tmp_path / "report.html").read_text()

"""Several statements read as one answer as each of them does alone."""

from __future__ import annotations

import json

import pytest

from builders import everything
from tabrel.api.sample.sheet import sheet_out
from tabrel.document.study_document import read_study
from tabrel.store.connection import connect, transaction
from tabrel.store.gather import gathered
from tabrel.store.migrate import open_database
from tabrel.store.study.studies import insert_study

MOST_STATEMENTS = 12
"""A sheet may ask."""


@pytest.fixture
def conn(tmp_path):
    open_database(tmp_path / "study.db")
    conn = connect(tmp_path / "study.db")
    with transaction(conn):
        insert_study(conn, read_study(json.dumps(everything())))
    yield conn
    conn.close()


ASKED = [
    ("SELECT id, text, NULL AS empty FROM reading WHERE sample_id = :sample_id ORDER BY text DESC", {"sample_id": 1}),
    ("SELECT text FROM reading WHERE sample_id = :sample_id ORDER BY id LIMIT 2", {"sample_id": 1}),
    ("SELECT * FROM study WHERE id = :id", {"id": 1}),
    ("SELECT * FROM study WHERE id = :id", {"id": 99}),
    ("SELECT strftime('%H:%M', made_at) AS at, x'0102' AS raw, 1.5 AS number FROM change WHERE id = :id", {"id": 1}),
]


def test_each_statement_is_answered_as_it_is_alone(conn):
    reader = gathered(conn, ASKED)
    for sql, named in ASKED:
        alone = [dict(row) for row in conn.execute(sql, named)]
        assert reader.execute(sql, named).fetchall() == alone
        assert list(reader.execute(sql, named)) == alone  # again, from the beginning
        assert reader.execute(sql, named).fetchone() == (alone[0] if alone else None)


def test_what_was_not_gathered_is_asked_and_what_was_is_not(conn):
    asked = []
    reader = gathered(conn, ASKED[:2])
    conn.set_trace_callback(asked.append)
    assert gathered(reader, ASKED[:2]).execute(*ASKED[0]).fetchone()
    assert asked == []
    assert gathered(reader, ASKED[:3]).execute(*ASKED[2]).fetchone()["name"]
    assert 1 <= len(asked) <= 2  # its columns, once, and its rows
    assert reader.execute("SELECT COUNT(*) AS n FROM sample").fetchone()["n"] >= 1
    assert asked[-1].startswith("SELECT COUNT")


def test_a_sheet_asks_few_statements(conn):
    sheet_out(conn, 1)
    asked = []
    conn.set_trace_callback(asked.append)
    sheet_out(conn, 1)
    assert 1 < len(asked) <= MOST_STATEMENTS

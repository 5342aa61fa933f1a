"""Copies while others write, copies put back, and what a look through a database finds."""

from __future__ import annotations

import json
import shutil
import sqlite3
import threading
from collections import namedtuple

import pytest

from api_steps import add, detail, done, imported, look, undo
from builders import everything
from tabrel.cli.demo import fill_demo
from tabrel.cli.main import main
from tabrel.store import migrate
from tabrel.store.connection import connect
from tabrel.store.entry.readings import insert_reading
from tabrel.store.journal import recorded
from tabrel.store.served_alone import ServedAlreadyError, served_alone
from tabrel.store.upkeep.backup import BackupError, backup, restore
from tabrel.store.upkeep.verify import damage_of, faults_of


@pytest.fixture(scope="module")
def demo(tmp_path_factory):
    path = tmp_path_factory.mktemp("upkeep") / "demo.db"
    fill_demo(path)
    return path


@pytest.fixture
def database(demo, tmp_path):
    """A database of one's own, all of it in one file."""
    return backup(demo, tmp_path / "own.db")


def count(path):
    conn = sqlite3.connect(path)
    try:
        return conn.execute("SELECT COUNT(*) FROM reading").fetchone()[0]
    finally:
        conn.close()


def by_hand(path, *statements):
    """Change a database behind the program's back."""
    conn = sqlite3.connect(path)
    for statement in statements:
        conn.execute(statement)
    conn.commit()
    conn.close()


def write(path, until):
    """Add readings, each a change that is recorded, until told to stop; return how many were acknowledged."""
    conn, written = connect(path), 0
    while not until.is_set():
        with recorded(conn, 1, 1, "height", "can.height"):
            insert_reading(conn, "can.height", "98 mm", sample_id=1)
        written += 1
    conn.close()
    return written


def test_a_copy_made_while_readings_are_typed_is_whole_and_has_all_that_was_acknowledged(database, tmp_path):
    until, before = threading.Event(), count(database)
    acknowledged = []
    writer = threading.Thread(target=lambda: acknowledged.append(write(database, until)))
    writer.start()
    try:
        copies = [backup(database, tmp_path / f"copy {i}.db") for i in range(3)]
    finally:
        until.set()
        writer.join()
    assert all(faults_of(copy) == [] for copy in copies)
    assert before <= count(copies[0]) <= count(copies[-1]) <= before + acknowledged[0]
    last = backup(database, tmp_path / "last.db")
    assert count(last) == before + acknowledged[0]


def test_a_file_that_seems_damaged_while_it_is_written_is_looked_at_again(database, monkeypatch):
    looked = []
    whole = migrate.connect

    def seems_damaged_at_first(path, **how):
        looked.append(path)
        if len(looked) < 3:
            error = sqlite3.DatabaseError("database disk image is malformed")
            error.sqlite_errorcode = sqlite3.SQLITE_CORRUPT
            raise error
        return whole(path, **how)

    monkeypatch.setattr(migrate, "connect", seems_damaged_at_first)
    migrate.require_own(database)
    assert len(looked) == 3


def test_a_folder_as_target_gets_a_copy_named_by_its_time(database, tmp_path):
    (tmp_path / "copies").mkdir()
    copy = backup(database, tmp_path / "copies")
    assert copy.parent == tmp_path / "copies"
    assert copy.name.startswith("own-20")


@pytest.mark.parametrize(
    ("source", "target", "says"),
    [
        ("own.db", "own.db", "is there already: name another file, nothing is overwritten"),
        ("own.db", "nowhere/copy.db", "there is no folder"),
        ("absent.db", "copy.db", "there is no database"),
        ("other.db", "copy.db", "no Tabrel database"),
    ],
)
def test_a_copy_that_cannot_be_made_is_refused(database, tmp_path, capsys, source, target, says):
    (tmp_path / "other.db").write_text("something else, and long enough to be looked at as a database " * 20)
    assert main(["backup", "--database", str(tmp_path / source), str(tmp_path / target)]) == 2
    assert says in capsys.readouterr().err
    assert not list(tmp_path.glob("*.part"))


def test_a_copy_is_left_out_where_there_is_no_room_for_two(database, tmp_path, monkeypatch):
    usage = namedtuple("usage", "total used free")
    monkeypatch.setattr(shutil, "disk_usage", lambda _: usage(0, 0, 1.9 * database.stat().st_size))
    with pytest.raises(BackupError, match="free some space first"):
        backup(database, tmp_path / "copy.db")
    assert not (tmp_path / "copy.db").exists()


def test_a_copy_put_back_keeps_what_was_there_beside_it(database, tmp_path, capsys):
    copy = backup(database, tmp_path / "copy.db")
    by_hand(database, "DELETE FROM reading")
    assert main(["restore", "--database", str(database), str(copy)]) == 0
    assert "what was there is kept as" in capsys.readouterr().out
    assert count(database) == count(copy) > 0
    [kept] = tmp_path.glob("own-before-*.db")
    assert count(kept) == 0
    assert main(["verify", "--database", str(database)]) == 0


def test_nothing_is_put_back_while_a_server_runs_nor_a_copy_that_is_damaged(database, tmp_path):
    copy = backup(database, tmp_path / "copy.db")
    with served_alone(database, "http://127.0.0.1:1"), pytest.raises(ServedAlreadyError, match="is served already"):
        restore(database, copy)
    by_hand(copy, "UPDATE reading SET text = '98 parsecs' WHERE quantity_key = 'can.height'")
    with pytest.raises(BackupError, match="is not whole: study 1"):
        restore(database, copy)
    with pytest.raises(BackupError, match="is the database itself"):
        restore(database, database)
    assert faults_of(database) == []
    assert not list(tmp_path.glob("*before*"))


@pytest.mark.parametrize(
    ("statements", "says"),
    [
        (
            ["UPDATE reading SET text = '98 parsecs' WHERE id = 1"],
            "study 1, 'Mountain road service, winter filters', is not understood",
        ),
        (["PRAGMA foreign_keys = OFF", "DELETE FROM sample WHERE id = 3"], "belongs to nothing in sample"),
        (["UPDATE claim SET source = 'x', position = position + 900, key = 'gone' WHERE kind = 'reading'"], "is not understood"),
        (["PRAGMA user_version = 22"], "has to be brought up to"),
    ],
)
def test_what_is_wrong_is_said_one_line_a_fault(database, capsys, statements, says):
    by_hand(database, *statements)
    assert main(["verify", "--database", str(database)]) == 1
    lines = capsys.readouterr().out.splitlines()
    assert any(says in line for line in lines), lines


def test_a_column_whose_name_lost_a_bit_is_damage(database):
    """The schema is text: one bit of a name made every look at a sample an error of the program."""
    content = database.read_bytes()
    assert content.count(b"bypass_kind ") == 1
    database.write_bytes(content.replace(b"bypass_kind ", b"bypass_kinl "))
    words = "sample.bypass_kind any more"
    assert words in damage_of(database)
    [fault] = faults_of(database, access="frozen")
    assert words in fault


def test_damaged_pages_are_found(database):
    content = bytearray(database.read_bytes())
    for place in range(4096 * 3 + 8, len(content), 4096):
        content[place : place + 40] = b"\xff" * 40
    database.write_bytes(content)
    assert faults_of(database, access="frozen") != []


@pytest.fixture
def session(serve, tmp_path):
    """A database in which every kind of change was made, undone and redone."""
    path = tmp_path / "session.db"
    with serve(path) as client:
        sample = imported(client, everything())["samples"][0]["id"]
        add(client, sample, "can.height", "98.4, 98.5 mm")
        detail(client, sample, "sample.maker", "Korvath Works")
        detail(client, sample, "engine.stud_bore", "12 mm")
        look(client, sample, "gasket.rubber", "silicone")
        for _ in range(3):
            undo(client, sample)
        client.post(f"/api/samples/{sample}/redo", json={})
        study = client.get(f"/api/samples/{sample}").json()["study_id"]
        copy = done(client.post(f"/api/studies/{study}/duplicates", json={"sample_id": sample}))["id"]
        client.post(f"/api/samples/{copy}/confirmations", json={"things": ["details/sample.maker"]})
        add(client, copy, "thread.pitch", "1.5 mm")
        undo(client, copy)
        client.put(f"/api/samples/{copy}/status", json={"status": "deleted"})
        client.put(f"/api/studies/{study}/status", json={"status": "archived"})
        client.put(f"/api/studies/{study}/status", json={"status": "in_use"})
    return path


def test_a_session_of_every_kind_of_change_leaves_a_database_without_fault(session):
    assert faults_of(session) == []


def test_a_row_changed_behind_the_journal_is_found(session):
    by_hand(session, "UPDATE sample SET maker = 'nobody' WHERE label = 'Pellin'")
    [fault] = faults_of(session)
    assert "of sample is not as the journal left it (maker)" in fault
    by_hand(session, "UPDATE change_row SET after = '{' WHERE table_name = 'sample'")
    assert any("is not readable" in fault for fault in faults_of(session))


def test_the_document_of_a_copy_is_that_of_the_original(serve, session, tmp_path):
    copy = backup(session, tmp_path / "copy.db")
    documents = []
    for path in (session, copy):
        with serve(path) as client:
            documents.append(json.dumps(client.get("/api/studies/1/document").json()))
    assert documents[0] == documents[1]

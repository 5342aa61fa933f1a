"""A database that is locked, full, gone, read-only, foreign, damaged or served already ends in a sentence, and can be read."""

from __future__ import annotations

import contextlib
import os
import shutil
import sqlite3
import tempfile
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from builders import plain_document, study
from tabrel.api.app import create_app
from tabrel.store import service
from tabrel.store.connection import connect, transaction
from tabrel.store.entry.readings import insert_reading
from tabrel.store.errors import BusyError, DiskFullError, MigrationError, NotWritableError, fault_of
from tabrel.store.migrate import APPLICATION_ID, open_database
from tabrel.store.served_alone import ServedAlreadyError, served_alone
from tabrel.store.service import Service, open_for_service
from tabrel.store.study.studies import insert_study, list_studies

NOBODY = 65534


@contextlib.contextmanager
def without_rights():
    """Be somebody whom file permissions bind, as root is not."""
    root = os.geteuid() == 0
    if root:
        os.seteuid(NOBODY)
    try:
        yield
    finally:
        if root:
            os.seteuid(0)


@pytest.fixture
def folder():
    """A folder that anybody may pass through."""
    path = Path(tempfile.mkdtemp(dir="/tmp"))
    path.chmod(0o777)
    yield path
    path.chmod(0o777)
    shutil.rmtree(path)


@pytest.fixture
def filled(folder):
    """A database whose newest rows lie in the write-ahead file, as after a power cut."""
    path = folder / "study.db"
    open_database(path)
    conn = connect(path)
    with transaction(conn):
        insert_study(conn, study())
    copy = folder / "kept"
    copy.mkdir(mode=0o777)
    copy.chmod(0o777)
    for end in ("", "-wal"):
        shutil.copyfile(folder / f"study.db{end}", copy / f"study.db{end}")
        (copy / f"study.db{end}").chmod(0o666)
    conn.close()
    return copy / "study.db"


def made_read_only(path):
    for item in path.parent.iterdir():
        item.chmod(0o444)
    path.parent.chmod(0o555)


def test_a_database_nobody_may_write_is_read_with_its_newest_rows(filled):
    assert not list_studies_immutable(filled)  # they are not in the main file
    made_read_only(filled)
    before = {item.name: item.read_bytes() for item in filled.parent.iterdir()}
    with without_rights():
        opened = open_for_service(filled)
        assert opened.access == "read"
        assert "read-only" in opened.warning or "cannot be opened" in opened.warning
        conn = connect(opened.path, access=opened.access)
        assert [row.name for row in list_studies(conn)] == ["plain dome-end valve"]
        with pytest.raises(sqlite3.OperationalError) as refused, transaction(conn):
            insert_study(conn, study())
        conn.close()
    assert isinstance(fault_of(refused.value), NotWritableError)
    assert {item.name: item.read_bytes() for item in filled.parent.iterdir()} == before


def list_studies_immutable(path):
    conn = connect(path, access="frozen")
    try:
        return list_studies(conn)
    except sqlite3.OperationalError:
        return []  # not even the tables are in it
    finally:
        conn.close()


def test_without_room_for_a_copy_it_is_said_that_rows_may_be_missing(folder, monkeypatch):
    path = folder / "study.db"
    open_database(path)
    conn = connect(path)
    with transaction(conn):
        insert_study(conn, study())
    conn.close()  # all rows are in the main file now

    def no_room(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(service.shutil, "copyfile", no_room)
    made_read_only_file = path
    made_read_only_file.chmod(0o444)
    folder.chmod(0o555)
    with without_rights():
        opened = open_for_service(path)
        assert opened.access == "frozen"
        assert "the latest readings may be missing" in opened.warning
        conn = connect(opened.path, access=opened.access)
        assert len(list_studies(conn)) == 1
        conn.close()


def test_the_application_reads_and_exports_what_it_may_not_write(filled):
    made_read_only(filled)
    static = filled.parent
    with without_rights():
        app = create_app(filled, static=static)
    client = TestClient(app, base_url="http://127.0.0.1")
    assert "nothing can be changed" in client.get("/api/service").json()["warning"]
    [row] = client.get("/api/studies").json()
    document = client.get(f"/api/studies/{row['id']}/document").json()
    assert document["name"] == "plain dome-end valve"
    sample = client.get(f"/api/studies/{row['id']}").json()["samples"][0]["id"]
    assert client.get(f"/api/samples/{sample}").status_code == 200
    assert client.post(f"/api/samples/{sample}/map", json={}).status_code == 200
    answer = client.post(f"/api/samples/{sample}/readings", json={"key": "can.height", "text": "98 mm"})
    assert answer.status_code == 503
    assert answer.json()["detail"] == client.get("/api/service").json()["warning"]


def test_a_full_disk_refuses_the_change_and_goes_on_reading(serve, tmp_path):
    client = serve(tmp_path / "x.db")
    assert client.get("/api/service").json()["warning"] == ""
    client.post("/api/studies", json=plain_document())
    plain_connect = connect

    def in_no_room(path, **options):
        conn = plain_connect(path, **options)
        pages = conn.execute("PRAGMA page_count").fetchone()[0]
        conn.execute(f"PRAGMA max_page_count = {pages}")
        return conn

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("tabrel.store.service.connect", in_no_room)
        client.app.state.service = Service(tmp_path / "x.db")
        answers = [client.post("/api/studies", json=plain_document()) for _ in range(4)]
        assert answers[-1].status_code == 507
        assert "the disk is full: nothing was changed" in answers[-1].json()["detail"]
        assert client.get("/api/studies").status_code == 200
    client.app.state.service = Service(tmp_path / "x.db")
    kept = len(client.get("/api/studies").json())
    assert kept == 1 + sum(answer.status_code == 201 for answer in answers)
    assert client.post("/api/studies", json=plain_document()).status_code == 201


def test_a_disk_that_fills_up_while_it_is_served_is_still_read(serve, tmp_path):
    """The files beside the database are held: what reads it needs no room to make them again."""
    beside = [tmp_path / f"x.db{end}" for end in ("-wal", "-shm")]
    with serve(tmp_path / "x.db") as client:
        assert client.post("/api/studies", json=plain_document()).status_code == 201
        assert all(item.exists() for item in beside)  # after the last connection of a request was closed
        assert client.get("/api/studies").status_code == 200
    assert not any(item.exists() for item in beside)  # merged and gone at the end


def test_a_deleted_file_is_not_made_anew(serve, tmp_path):
    client = serve(tmp_path / "x.db")
    for item in tmp_path.glob("x.db*"):
        item.unlink()
    answer = client.get("/api/studies")
    assert answer.status_code == 503
    assert "see that it is there" in answer.json()["detail"]
    assert list(tmp_path.glob("x.db*")) == []


def test_a_file_that_is_moved_away_takes_no_readings_with_it(serve, tmp_path):
    """A connection that waits for the next request is to the old file, and is not handed out again."""
    client = serve(tmp_path / "x.db")
    sample = client.post("/api/studies", json=plain_document()).json()["samples"][0]["id"]
    reading = {"key": "can.height", "text": "98 mm"}
    assert client.post(f"/api/samples/{sample}/readings", json=reading).status_code == 201
    moved = tmp_path / "moved.db"
    (tmp_path / "x.db").rename(moved)
    assert client.post(f"/api/samples/{sample}/readings", json=reading).status_code == 503
    moved.rename(tmp_path / "x.db")
    assert client.post(f"/api/samples/{sample}/readings", json=reading).status_code == 201


def test_damaged_pages_are_said(serve, tmp_path):
    path = tmp_path / "x.db"
    client = serve(path)
    study_id = client.post("/api/studies", json=plain_document()).json()["id"]
    conn = connect(path)
    conn.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    conn.close()
    content = bytearray(path.read_bytes())
    content[4096:] = b"\x5a" * (len(content) - 4096)  # all but the header and the schema's root
    path.write_bytes(content)
    answer = client.get(f"/api/studies/{study_id}")
    assert answer.status_code == 503, answer.text
    assert "damaged" in answer.json()["detail"]


def foreign(path, *, application_id=0, version=0):
    conn = sqlite3.connect(path)
    conn.execute("CREATE TABLE bookmark (address TEXT)")
    conn.execute(f"PRAGMA application_id = {application_id}")
    conn.execute(f"PRAGMA user_version = {version}")
    conn.commit()
    conn.close()


@pytest.mark.parametrize(
    ("made", "says"),
    [
        ({}, "another program's database"),
        ({"version": 3}, "another program's database"),
        ({"application_id": 12345}, "another program's database"),
        ({"application_id": APPLICATION_ID, "version": -1}, "says it has version -1"),
        ({"application_id": APPLICATION_ID, "version": 99}, "newer than this program"),
    ],
)
def test_a_foreign_or_impossible_database_is_left_as_it_is(tmp_path, made, says):
    path = tmp_path / "other.db"
    foreign(path, **made)
    before = path.read_bytes()
    with pytest.raises(MigrationError, match=says):
        open_for_service(path)
    assert path.read_bytes() == before
    assert [item.name for item in tmp_path.iterdir()] == ["other.db"]


def test_a_folder_is_no_database(tmp_path):
    with pytest.raises(MigrationError, match="is a folder"):
        open_for_service(tmp_path)


def test_opening_again_writes_nothing(tmp_path):
    path = tmp_path / "x.db"
    open_database(path)
    watched = connect(path)  # keeps the write-ahead file
    before = path.read_bytes(), watched.execute("PRAGMA data_version").fetchone()[0]
    open_database(path)
    assert (path.read_bytes(), watched.execute("PRAGMA data_version").fetchone()[0]) == before
    watched.execute("DROP TRIGGER journal_reading_insert")
    open_database(path)  # but what is missing is put back
    assert watched.execute("SELECT 1 FROM sqlite_master WHERE name = 'journal_reading_insert'").fetchone()
    watched.close()


def test_a_second_server_is_told_where_the_first_is(tmp_path):
    path = tmp_path / "x.db"
    with served_alone(path, "http://127.0.0.1:8710"):
        with pytest.raises(ServedAlreadyError, match=r"at http://127\.0\.0\.1:8710"), served_alone(path, "http://127.0.0.1:9"):
            raise AssertionError
        with served_alone(tmp_path / "y.db", "http://127.0.0.1:9"):
            pass
    with served_alone(path, "http://127.0.0.1:9"):
        pass
    assert list(tmp_path.iterdir()) == []  # nothing is left beside it


def test_a_write_that_waits_too_long_is_told_so(tmp_path, monkeypatch):
    monkeypatch.setattr("tabrel.store.connection.BUSY_SECONDS", 0.05)
    path = tmp_path / "x.db"
    open_database(path)
    first, second = connect(path), connect(path)
    with transaction(first), pytest.raises(BusyError), transaction(second):
        insert_reading(second, "can.height", "98 mm", sample_id=1)
    first.close()
    second.close()


def test_a_full_disk_is_told_from_other_faults():
    full, other = sqlite3.OperationalError("full"), sqlite3.OperationalError("near syntax")
    full.sqlite_errorcode = sqlite3.SQLITE_FULL
    other.sqlite_errorcode = sqlite3.SQLITE_ERROR
    assert isinstance(fault_of(full), DiskFullError)
    assert fault_of(other) is None

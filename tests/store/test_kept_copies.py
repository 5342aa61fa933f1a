"""Copies kept by themselves, what each lacks, and a damaged database that leads to the last good one."""

from __future__ import annotations

import os
import shutil
import sqlite3
import time
from datetime import datetime, timedelta

import pytest

from builders import study
from old_databases import VERSION, old_database
from tabrel.cli.demo import fill_demo
from tabrel.cli.main import main
from tabrel.store.connection import connect, transaction
from tabrel.store.entry.readings import insert_reading
from tabrel.store.errors import DatabaseFaultError
from tabrel.store.journal import recorded
from tabrel.store.service import open_for_service
from tabrel.store.study.report_numbers import next_number
from tabrel.store.study.reports import insert_issued
from tabrel.store.study.studies import insert_study, list_studies
from tabrel.store.upkeep.kept import (
    KEPT,
    copies_of,
    folder_looked_through,
    folder_of,
    keep_copy,
    keep_daily,
    last_good,
    missing_from,
    missing_words,
)
from tabrel.store.upkeep.verify import counts_of, damage_of


@pytest.fixture
def database(tmp_path):
    path = tmp_path / "workshop.db"
    fill_demo(path)
    return path


def type_height(path, text="98.4 mm"):
    conn = connect(path)
    with recorded(conn, 1, 1, f"Can, height: {text}", "can.height"):
        insert_reading(conn, "can.height", text, sample_id=1)
    conn.close()


def older(copy, days):
    """Make a copy look as if it was made some days ago."""
    made = copy.made - timedelta(days=days)
    path = copy.path.with_name(copy.path.name.replace(f"{copy.made:%Y-%m-%d}", f"{made:%Y-%m-%d}"))
    copy.path.rename(path)
    os.utime(path, (made.timestamp(), made.timestamp()))
    return path


def damage(path):
    """Overwrite the middle of every page but the first."""
    content = bytearray(path.read_bytes())
    for place in range(4096 + 8, len(content), 4096):
        content[place : place + 40] = b"\xff" * 40
    path.write_bytes(content)


def test_a_day_of_use_has_one_copy_and_a_day_without_none(database):
    first = keep_daily(database)
    assert first.occasion == "daily"
    assert keep_daily(database) is None  # today has one
    older(first, 2)
    assert keep_daily(database) is not None  # the file was written since
    for copy in copies_of(database)[:1]:
        older(copy, 1)
    later = time.time() - 3 * 86400
    for end in ("", "-wal"):
        beside = database.with_name(database.name + end)
        if beside.exists():
            os.utime(beside, (later, later))
    assert keep_daily(database) is None  # nothing was written


def test_a_clock_that_was_ahead_does_not_end_the_copies(database):
    """Copies were sorted by date, so that those of next year were the newest, and nothing was kept any more."""
    for days in range(KEPT):
        older(keep_copy(database, "daily"), -400 - days)
    assert copies_of(database)[0].is_of_future
    for text in ("98.4 mm", "98.5 mm"):
        type_height(database, text)
        today = keep_daily(database)
        assert not today.is_of_future
        assert copies_of(database)[0].path == today.path
        older(today, 1)
    assert sum(copy.is_of_future for copy in copies_of(database)) == KEPT - 2


def test_of_copies_that_hold_the_same_the_one_of_the_future_comes_last(database):
    older(keep_copy(database, "asked"), -400)
    made = keep_copy(database, "asked")
    assert [copy.is_of_future for copy in copies_of(database)] == [False, True]
    assert copies_of(database)[0].path == made.path


def test_what_was_given_up_by_a_restore_is_older_than_what_came_after(database):
    first = keep_copy(database, "asked")
    for text in ("98.4 mm", "98.5 mm"):
        type_height(database, text)
    given_up = keep_copy(database, "asked")
    shutil.copy(first.path, database)
    for end in ("-wal", "-shm"):
        database.with_name(database.name + end).unlink(missing_ok=True)
    type_height(database, "98.6 mm")
    newest = keep_copy(database, "asked")
    assert copies_of(database)[0].path == newest.path
    assert missing_from(given_up, database).changes == 1


def test_what_is_no_copy_is_named(database):
    copy = keep_copy(database, "asked")
    stray = copy.path.with_name("workshop-2026-99-99-999999-daily.db")
    stray.write_bytes(b"")
    copy.path.with_name("workshop-2026-12-01-101010-daily.db").symlink_to(database.parent / "gone.db")
    copy.path.with_name("workshop-2026-12-02-101010-daily.db").mkdir()
    copy.path.with_name("workshop-2-2026-12-02-101010-daily.db").mkdir()  # of another database
    copy.path.with_name("workshop-old.db").write_bytes(b"")
    copies, strays = folder_looked_through(database)
    assert [kept.path for kept in copies] == [copy.path]
    assert strays == [
        "workshop-2026-12-01-101010-daily.db is no file, but a link to what is gone: remove it",
        "workshop-2026-12-02-101010-daily.db is no file: remove it",
        "workshop-2026-99-99-999999-daily.db is not named like a copy: move it elsewhere",
        "workshop-old.db is not named like a copy: move it elsewhere",
    ]


def test_ten_are_kept_and_those_asked_for_stay(database):
    for days in range(KEPT + 2):
        older(keep_copy(database, "daily"), days + 1)
    asked = keep_copy(database, "asked")
    older(asked, 40)
    newest = keep_copy(database, "before_migration")
    kept = copies_of(database)
    assert kept[0].path == newest.path
    assert sum(copy.occasion != "asked" for copy in kept) == KEPT
    assert kept[-1].occasion == "asked"
    other = database.with_name("workshop-2.db")
    fill_demo(other)
    keep_copy(other, "asked")
    assert len(copies_of(database)) == len(kept)  # another database's are not counted
    assert len(copies_of(other)) == 1


def test_what_a_copy_lacks_is_counted_and_named(database):
    copy = keep_copy(database, "asked")
    assert missing_words(copy, database) == "nothing is missing in it"
    for text in ("98.4 mm", "98.5 mm"):
        type_height(database, text)
    conn = connect(database)
    with transaction(conn):
        insert_study(conn, study())
    conn.close()
    missing = missing_from(copy, database)
    assert (missing.changes, missing.last) == (2, ("Can, height: 98.5 mm", "Can, height: 98.4 mm"))
    assert missing.studies == ("plain dome-end valve",)
    assert "2 changes (the last: Can, height: 98.5 mm, " in missing_words(copy, database)
    assert missing.reports == ()
    assert "the study plain dome-end valve" in missing_words(copy, database)
    conn = connect(database)
    with transaction(conn):  # what is in no journal counts too
        conn.execute("INSERT INTO kept_engine (name, document, kept_at) VALUES ('own', '{}', '2026-11-27')")
        number = next_number(conn, 2026)
        report = {"issued_at": "2026-11-27", "title": "T", "document": "{}", "pdf": b"%PDF", "sha256": "0"}
        insert_issued(conn, 1, number=number, **report)
    conn.close()
    missing = missing_from(copy, database)
    assert (missing.changes, missing.reports) == (4, (number,))
    assert missing_words(copy, database).endswith(f" and the issued report {number}")


def test_a_copy_is_kept_before_a_database_is_brought_up_to_date(tmp_path):
    path = tmp_path / "old.db"
    old_database(path)
    assert open_for_service(path).note == ""
    [copy] = copies_of(path)
    assert copy.occasion == "before_migration"
    conn = sqlite3.connect(copy.path)
    assert conn.execute("PRAGMA user_version").fetchone()[0] == VERSION
    conn.close()
    open_for_service(path)  # and not again
    assert len(copies_of(path)) == 1
    assert copies_of(tmp_path / "new.db") == []


CHANGES = "INSERT INTO change (study_id, words, place) VALUES (1, 'x', 'y'), (1, 'x', 'y'), (1, 'x', 'y')"
IMAGES = """
INSERT INTO change_row (id, change_id, table_name, row_id, before)
VALUES (5001, 1, 'hole_group', 1, '{}'), (5002, 2, 'hole_group', 1, '{broken')
"""
ORPHAN = "INSERT INTO claim (id, sample_id, position, kind, source, wording) VALUES (501, 77, 0, 'words', 'shop', 'good')"


@pytest.mark.parametrize(
    ("statements", "row", "copies"),
    [
        (
            (CHANGES, IMAGES),
            "row 5002 of change_row (change_id '2', table_name 'hole_group', row_id '1', before '{broken') does not fit",
            1,
        ),
        (
            (ORPHAN,),
            "row 501 of claim (sample_id '77', position '0', kind 'words', source 'shop'), which names a row of",
            0,
        ),
    ],
)
def test_a_row_that_cannot_be_carried_is_named_and_nothing_is_changed(tmp_path, capsys, statements, row, copies):
    path = tmp_path / "old.db"
    old_database(path)
    conn = connect(path)
    conn.execute("PRAGMA foreign_keys = OFF")
    for statement in statements:
        conn.execute(statement)
    conn.close()
    for _ in range(2):  # however often it is started, it is one copy
        assert main(["serve", "--database", str(path), "--port", "0"]) == 1
        said = capsys.readouterr().err
        assert (said.count("\n"), row in said) == (1, True), said
        assert ("a copy of it is in" in said) == bool(copies)
        assert len(copies_of(path)) == copies
    conn = sqlite3.connect(path)
    assert conn.execute("PRAGMA user_version").fetchone()[0] == VERSION
    conn.close()


def test_a_copy_without_room_is_left_out_with_a_sentence_and_the_migration_goes_on(tmp_path, monkeypatch):
    path = tmp_path / "old.db"
    old_database(path)
    usage = shutil.disk_usage(tmp_path)
    monkeypatch.setattr(shutil, "disk_usage", lambda _: usage._replace(free=path.stat().st_size))
    opened = open_for_service(path)
    assert opened.access == "write"
    assert "no copy was kept before the database was brought up to date" in opened.note
    assert "free some space first" in opened.note
    assert list(folder_of(path).iterdir()) == []


def test_damage_leads_to_the_last_good_copy_and_says_what_it_lacks(database):
    keep_copy(database, "daily")
    type_height(database)
    bad = keep_copy(database, "asked")
    damage(bad.path)  # the newest is no good
    type_height(database, "98.5 mm")
    sqlite3.connect(database).execute("PRAGMA wal_checkpoint(TRUNCATE)")
    damage(database)
    before = database.read_bytes()
    assert damage_of(database)
    assert last_good(database).occasion == "daily"
    opened = open_for_service(database)
    assert opened.access == "read"
    assert "is damaged" in opened.warning
    assert last_good(database).path.name in opened.warning
    assert f"entered after {datetime.now():%Y-%m-%d}" in opened.warning
    conn = connect(opened.path, access=opened.access)
    assert len(list_studies(conn)) == 2
    conn.close()
    assert database.read_bytes() == before  # the damaged file is left as it is


@pytest.mark.parametrize("wrong", [b"\x00" * 100, b"not a database at all, though long enough" * 10])
def test_a_database_whose_beginning_is_lost_leads_to_its_copy_too(database, wrong):
    keep_copy(database, "daily")
    with database.open("r+b") as file:
        file.write(wrong)
    assert "is damaged (its beginning is not readable)" in open_for_service(database).warning


def test_a_damaged_database_without_a_copy_is_refused_with_a_sentence(database):
    damage(database)
    with pytest.raises(DatabaseFaultError, match="no good copy of it beside it"):
        open_for_service(database)


def test_what_is_in_a_database_is_counted_or_nothing(database, tmp_path):
    assert counts_of(database)["studies"] == 2
    (tmp_path / "x.db").write_bytes(b"x" * 9000)
    assert set(counts_of(tmp_path / "x.db").values()) == {0}


def test_what_is_left_of_a_copy_that_was_ended_from_outside_is_removed(database):
    copy = keep_copy(database, "asked")
    parts = [copy.path.with_name(f"workshop-{name}.db.part") for name in ("old", "new")]
    for part in parts:
        part.write_bytes(b"half")
    os.utime(parts[0], (time.time() - 7200,) * 2)
    keep_copy(database, "asked")
    assert [part.exists() for part in parts] == [False, True]

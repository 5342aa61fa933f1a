"""A few trials of each kind; `make torture` does many."""

from __future__ import annotations

import torture


def test_kills_while_writing_lose_nothing_that_was_acknowledged(tmp_path):
    found = torture.kills_while_writing(tmp_path, 6)
    assert found["acknowledged"] > 0
    assert (found["lost"], found["faults"], found["answered 5xx"]) == (0, 0, 0)


def test_kills_while_migrating_leave_a_database_that_opens_with_all_of_it(tmp_path):
    found = torture.kills_while_migrating(tmp_path, 8)
    assert (found["kills"], found["lost"], found["faults"]) == (8, 0, 0)


def test_a_disk_that_is_full_refuses_with_a_sentence_and_loses_nothing(tmp_path):
    found = torture.full_disk_at_every_write(tmp_path, 5)
    assert found["refused"] > 0
    assert (found["server errors"], found["cut short"], found["lost"], found["faults"]) == (0, 0, 0, 0)


def test_many_writers_of_several_processes_lose_nothing(tmp_path):
    found = torture.forty_writers(tmp_path, 8, 3)
    assert found == {"acknowledged": 24, "lost": 0, "faults": 0}


def test_no_operation_is_answered_to_a_page_of_another_origin(tmp_path):
    found = torture.foreign_origin(tmp_path)
    assert found["requests"] > 150
    assert (found["not refused"], found["changed"]) == (0, 0)


def test_flipped_bytes_end_in_a_sentence(tmp_path):
    found = torture.flipped_bytes(tmp_path, 6)
    assert found["requests"] > 0
    assert set(found) <= {"databases", "requests", "found by verify", "shown from the last good copy", "refused at the start"}

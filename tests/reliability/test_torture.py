"""A few trials of each kind; `make torture` does many.

Each runs in a program of its own: it forks, which nothing should that has threads, as a program that runs tests has.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys
from collections import Counter
from pathlib import Path

HERE = Path(__file__).parent
LONGEST = 240.0
"""A trial that hangs is a failure. [s]"""


def tried(name, *numbers):
    environment = {**os.environ, "PYTHONPATH": os.pathsep.join((str(HERE.parent), str(HERE)))}
    command = [sys.executable, "-W", "ignore", HERE / "trial.py", name, *map(str, numbers)]
    ended = subprocess.run(command, capture_output=True, text=True, timeout=LONGEST, env=environment, check=False)
    assert ended.returncode == 0, ended.stderr[-2000:]
    return Counter(json.loads(ended.stdout))


def test_kills_while_writing_lose_nothing_that_was_acknowledged():
    result = tried("kills_while_writing", 4)
    assert result["acknowledged"] > 0
    assert (result["lost"], result["faults"], result["answered 5xx"]) == (0, 0, 0)


def test_kills_while_migrating_leave_a_database_that_opens_with_all_of_it():
    computed = tried("kills_while_migrating", 5)
    assert (computed["kills"], computed["lost"], computed["faults"]) == (5, 0, 0)


def test_a_disk_that_is_full_refuses_with_a_sentence_and_loses_nothing():
    collected = tried("full_disk_at_every_write", 5)
    assert collected["refused"] > 0
    assert (collected["server errors"], collected["cut short"], collected["lost"], collected["faults"]) == (0, 0, 0, 0)


def test_many_writers_of_several_processes_lose_nothing():
    outcome = tried("forty_writers", 8, 3)
    assert outcome == {"acknowledged": 24, "lost": 0, "faults": 0}


def test_no_operation_is_answered_to_a_page_of_another_origin():
    actual = tried("foreign_origin")
    assert actual["requests"] > 150
    assert (actual["not refused"], actual["changed"]) == (0, 0)


def test_flipped_bytes_end_in_a_sentence():
    answer = tried("flipped_bytes", 4)
    assert answer["requests"] > 0
    assert set(answer) <= {
        "databases",
        "requests",
        "found by verify",
        "shown from the last good copy",
        "refused at the start",
    }


def test_damaged_files_end_in_a_sentence():
    outcome = tried("damaged_files", 50)
    assert (outcome["files"], outcome["server errors"], outcome["faults"]) == (50, 0, 0)


def test_numbers_at_their_limits_are_computed_or_refused():
    outcome = tried("numbers_at_their_limits", 2)
    assert (outcome["studies"], outcome["server errors"]) == (2, 0)

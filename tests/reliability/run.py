"""`make torture`: every trial many times over; writes docs/reliability.md and fails where something was lost or went wrong."""

from __future__ import annotations

import datetime
import json
import os
import platform
import re
import sqlite3
import subprocess
import sys
import time
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from coverage_of_intervals import table

LONG: dict[str, tuple[str, tuple[int, ...]]] = {
    "kills_while_writing": ("200 kills of who types, at any moment", (200,)),
    "kills_while_migrating": ("200 kills while an old database is brought up to date", (200,)),
    "full_disk_at_every_write": ("a disk that is full one page later each time, until a session comes to its end", ()),
    "forty_writers": ("40 processes that type into one sample, 25 readings each", (40, 25)),
    "foreign_origin": ("every operation asked by a page of another origin, in three ways", ()),
    "flipped_bytes": ("100 databases with 1 to 50 flipped bits, looked at and typed into", (100,)),
    "numbers_at_their_limits": ("200 studies with one to three numbers at an end of their physical limits, all computed", (200,)),
    "damaged_files": ("2,000 damaged packages, workbooks and documents, imported", (2000,)),
}
WRONG = ("lost", "faults", "server errors", "cut short", "not refused", "changed", "answered 5xx")
TRIAL = Path(__file__).parent / "trial.py"
EXAMPLES = 200
"""Of each operation: 10,000 and more generated requests in all."""
GENERATED = "tests/api/test_contract.py::test_whatever_is_asked_of_a_real_id_is_answered_as_the_schema_says"


def generated_requests() -> Counter[str]:
    """Ask every operation what its schema allows, with real ids; count what is an error of the server or against the schema."""
    environment = {**os.environ, "TABREL_EXAMPLES": str(EXAMPLES)}
    command = [sys.executable, "-m", "pytest", "-q", "-n", "auto", GENERATED]
    done = subprocess.run(command, capture_output=True, text=True, env=environment)
    counted = {words: int(number) for number, words in re.findall(r"(\d+) (passed|failed|error)", done.stdout)}
    requests = Counter({"requests": EXAMPLES * sum(counted.values()), "operations": sum(counted.values())})
    requests["server errors"] = counted.get("failed", 0) + counted.get("error", 0) + (done.returncode != 0 and not counted)
    if requests["server errors"]:
        print(done.stdout[-4000:], file=sys.stderr)
    return requests


def trial(name: str) -> tuple[str, Counter[str], float]:
    """Run a trial in a program of its own; return what it is, what it found, and how long it took. [s]"""
    words, numbers = LONG[name]
    start = time.monotonic()
    command = [sys.executable, "-W", "ignore", TRIAL, name, *map(str, numbers)]
    done = subprocess.run(command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
    result = Counter(json.loads(done.stdout)) if done.returncode == 0 else Counter({"error: the trial did not end": 1})
    print(words, dict(result), file=sys.stderr, flush=True)
    return words, result, time.monotonic() - start


def main() -> int:
    """Run everything, write what was found, and return the exit status."""
    failed = False
    with ThreadPoolExecutor(os.cpu_count()) as at_once:
        rows = list(at_once.map(trial, LONG))
    start = time.monotonic()
    rows.append(("generated requests with real ids, held against their schemas", generated_requests(), time.monotonic() - start))
    Path("build").mkdir(exist_ok=True)
    Path("build/coverage.md").write_text("\n".join(table(1000, os.cpu_count() or 1)) + "\n")
    lines = []
    for words, computed, seconds in rows:
        wrong = {key: number for key, number in computed.items() if number and is_wrong(key)}
        failed |= bool(wrong)
        text = ", ".join(f"{number:,} {key}" for key, number in sorted(computed.items()) if number and key not in wrong)
        sentence = ", ".join(f"**{number} {key}**" for key, number in wrong.items()) or "nothing"
        lines.append(f"| {words} | {text} | {sentence} | {seconds:.0f} s |")
    of = f"Python {platform.python_version()}, SQLite {sqlite3.sqlite_version}, {os.cpu_count()} cores"
    today = datetime.datetime.now(tz=datetime.UTC).date()
    Path("docs/reliability.md").write_text(PAGE.format(today=today, of=of, lines="\n".join(lines)))
    return int(failed)


def is_wrong(key: str) -> bool:
    """Return whether a count is of something that must not be."""
    return key in WRONG or "error" in key or key.startswith("verify")


PAGE = """# Reliability

Written by `make torture` on {today} ({of}). `tests/reliability/torture.py` and `bad_input.py` say what each trial does, and
the tests do a few of each with every change. Aim: no acknowledged reading lost, no server error, no traceback.
How often the 95 % intervals hold the truth of 1,000 invented filters is written to build/coverage.md and stands in the method.

| trial | found | wrong | took |
| --- | --- | --- | --- |
{lines}

*Lost* is a reading, or a study, that was acknowledged and is not in the database afterwards; a *fault* is one that
`tabrel verify` finds. What is *refused* is so with a status and one sentence. *Shown from the last good copy* are databases
whose damage the quick look at the start finds; the rest is found by `tabrel verify`, told in a sentence where it is met, or is
a bit of a text or of a page that is free.

Not tried: a power cut, in which all depends on a disk that keeps what it says it has written, and two machines on one file,
which SQLite does not support over a network.
"""


if __name__ == "__main__":
    sys.exit(main())

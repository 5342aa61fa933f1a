"""Accidents, many times over: kills, a full disk, many hands, flipped bytes.

Each trial works on files of its own and returns what it found as counts. The tests run a few of each; `make torture` runs
many and writes docs/reliability.md. What is killed or limited is a process forked for it, so that a trial costs little.
"""

from __future__ import annotations

import atexit
import os
import random
import re
import resource
import shutil
import signal
import sqlite3
import tempfile
import time
from collections import Counter
from contextlib import suppress
from functools import cache
from pathlib import Path

from fastapi import FastAPI
from fastapi.testclient import TestClient

from api_steps import ADDRESSES
from old_databases import old_database
from tabrel.api.app import create_app, serve_database
from tabrel.cli.demo import fill_demo
from tabrel.core.errors import TabrelError
from tabrel.store.connection import connect
from tabrel.store.upkeep.kept import keep_copy
from tabrel.store.upkeep.verify import faults_of

HOST = "http://127.0.0.1"
TAKEN = range(200, 300)
REFUSED = (404, 409, 412, 422, 428, 503, 507)
"""An answer that says in a sentence why something was not done."""


@cache
def application() -> FastAPI:
    """Return the application with its routes built, on an empty database; a forked process gets it as it is."""
    folder = Path(tempfile.mkdtemp(prefix="tabrel-torture-"))
    atexit.register(shutil.rmtree, folder, ignore_errors=True)
    app = create_app(folder / "empty.db", static=folder)
    TestClient(app, base_url=HOST).get("/api/studies")
    return app


def client_of(path: Path) -> TestClient:
    """Return a client of the application on a file; an error of the program is answered, and not raised here."""
    serve_database(application(), path)
    return TestClient(application(), base_url=HOST, raise_server_exceptions=False)


def forked(work, *, kill_after: float | None = None) -> list[str]:
    """Run something in a process of its own, killed after a while, and return the lines it wrote, which are whole."""
    application()
    read, write = os.pipe()
    child = os.fork()
    if child == 0:
        status = 1
        try:
            os.close(read)
            quiet = os.open(os.devnull, os.O_WRONLY)
            os.dup2(quiet, 1)
            os.dup2(quiet, 2)
            work(lambda line: os.write(write, f"{line}\n".encode()))
            status = 0
        finally:
            os._exit(status)
    os.close(write)
    if kill_after is not None:
        time.sleep(kill_after)
        with suppress(ProcessLookupError):
            os.kill(child, signal.SIGKILL)
    content = b""
    while chunk := os.read(read, 65536):
        content += chunk
    os.close(read)
    os.waitpid(child, 0)
    lines = content.decode().split("\n")
    return lines[:-1]  # what stands behind the last end of a line was cut off


def texts_in(path: Path) -> Counter[str]:
    """Return the readings of a database, as typed."""
    conn = connect(path, access="read")
    try:
        return Counter(row["text"] for row in conn.execute("SELECT text FROM reading"))
    finally:
        conn.close()


def kills_while_writing(folder: Path, times: int, seed: int = 1) -> Counter[str]:
    """Kill who types, at any moment, again and again on one database; count what was acknowledged and is not there."""
    dice, result = random.Random(seed), Counter[str]()
    path = folder / "written.db"
    fill_demo(path)
    acknowledged: list[str] = []
    for trial in range(times):

        def type_on(say, trial=trial):
            with client_of(path) as client:
                for number in range(10_000):
                    text = f"{trial + 1}.{number:04d} mm"
                    body = {"key": "can.height", "text": text, "confirm": True}
                    answer = client.post("/api/samples/1/readings", json=body)
                    say(f"{answer.status_code} {text}")
                    if number % 7 == 6:
                        client.post("/api/samples/1/undo", json={})
                        client.post("/api/samples/1/redo", json={})

        for line in forked(type_on, kill_after=dice.uniform(0.2, 2.0)):
            status, _, text = line.partition(" ")
            result[f"answered {status[0]}xx"] += 1
            if int(status) in TAKEN:
                acknowledged.append(text)
        result["kills"] += 1
        if trial % 10 == 9 or trial == times - 1:  # each is held against all that came before
            result["faults"] += len(faults_of(path))
    there, undone = texts_in(path), undone_texts(path)
    result["acknowledged"] = len(acknowledged)
    # a kill between undo and redo leaves that one undone, as it was asked for
    result["lost"] = sum(there[text] != 1 and text not in undone for text in acknowledged)
    return result


SELECT_UNDONE = """
SELECT json_extract(change_row.after, '$.text') AS text FROM change_row JOIN change ON change.id = change_row.change_id
WHERE change.undone_at IS NOT NULL AND change_row.table_name = 'reading'
"""


def undone_texts(path: Path) -> set[str]:
    """Return the readings that were undone and not redone, as typed."""
    conn = connect(path, access="read")
    try:
        return {row["text"] for row in conn.execute(SELECT_UNDONE)}
    finally:
        conn.close()


def kills_while_migrating(folder: Path, times: int, seed: int = 2) -> Counter[str]:
    """Kill a program while it brings an old database up to date, then open it again; count what is no longer there."""
    dice, computed = random.Random(seed), Counter[str]()
    for trial in range(times):
        path = folder / f"old-{trial}" / "old.db"
        path.parent.mkdir()
        studies = old_database(path)
        before = texts_in(path)
        computed["faults"] += not before  # then nothing could be lost

        def bring_up_to_date(say, path=path):
            client_of(path)
            say("done")

        computed["finished before the kill"] += forked(bring_up_to_date, kill_after=dice.uniform(0.0, 0.5)) == ["done"]
        computed["kills"] += 1
        with client_of(path) as client:
            names = [row["name"] for row in client.get("/api/studies").json()]
        computed["lost"] += sum((before - texts_in(path)).values()) + (names != studies)
        computed["faults"] += len(faults_of(path))
        shutil.rmtree(path.parent)
    return computed


SESSION = (
    ("POST", "/api/samples/1/readings", {"key": "can.height", "text": "97.31, 97.32 mm"}),
    ("PUT", "/api/samples/1/details/sample.maker", {"text": "Korvath Works"}),
    ("PUT", "/api/samples/1/observations/gasket.rubber", {"text": "silicone"}),
    ("POST", "/api/samples/1/holes", {"placement": "inlet", "text": "3 x 5.6 mm"}),
    ("POST", "/api/samples/1/undo", {}),
    ("POST", "/api/samples/1/redo", {}),
    ("POST", "/api/samples/1/claims", {"wording": "95 % at 20 µm(c)", "source": "box"}),
    ("PUT", "/api/samples/1/oil", {"grade": "5W-30"}),
    ("POST", "/api/studies/1/duplicates", {"sample_id": 2}),
    ("POST", "/api/samples/1/readings", {"key": "can.height", "text": "97.33 mm"}),
    ("GET", "/api/studies/1/results", None),
    ("GET", "/api/samples/1", None),
)


def ask(client: TestClient, method: str, path: str, body: object) -> int:
    """Return the status of an answer, or 599 for one that is no sentence."""
    answer = client.request(method, path, json=body, headers={"If-Match": "*"})
    if answer.status_code in REFUSED and not answer.json().get("detail"):
        return 599
    return answer.status_code


def full_disk_at_every_write(folder: Path, most: int | None = None) -> Counter[str]:
    """Let the disk fill up a little later each time, until a session comes to its end; count what was wrong.

    The limit is on the size of the files, which a process sets itself: a write beyond it fails as on a full disk.
    """
    collected: Counter[str] = Counter()
    start = folder / "start.db"
    fill_demo(start)
    size = start.stat().st_size
    steps = range(0, 4_000_000, 4120)  # a page of the write-ahead file with its head
    for trial, room in enumerate(steps if most is None else [round(i * 400_000 / most) for i in range(most)]):
        path = folder / f"full-{trial}" / "study.db"
        path.parent.mkdir()
        shutil.copy(start, path)

        def session(say, path=path, room=room):
            with client_of(path) as client:
                client.get("/api/studies")  # a disk is full after something has run
                signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
                resource.setrlimit(resource.RLIMIT_FSIZE, (max(32_768, room), resource.RLIM_INFINITY))
                for method, address, body in SESSION:
                    say(ask(client, method, address, body))
                resource.setrlimit(resource.RLIMIT_FSIZE, (resource.RLIM_INFINITY, resource.RLIM_INFINITY))
                say(f"after {ask(client, 'POST', '/api/samples/1/readings', {'key': 'can.height', 'text': '99.9 mm'})}")

        lines = forked(session)
        statuses = [int(line) for line in lines if not line.startswith("after")]
        collected["sessions"] += 1
        collected["server errors"] += sum(status >= 500 and status not in REFUSED for status in statuses)
        collected["cut short"] += len(statuses) != len(SESSION) or "after 201" not in lines
        collected["refused"] += sum(status in (503, 507) for status in statuses)
        texts, undone = texts_in(path), undone_texts(path)  # where the holes were refused, undo took a reading back
        typed = {"97.31 mm": statuses[0], "97.32 mm": statuses[0], "97.33 mm": statuses[9]}
        taken = [text for text, status in typed.items() if status in TAKEN]
        collected["lost"] += sum(texts[text] != 1 and text not in undone for text in taken)
        collected["faults"] += len(faults_of(path))
        shutil.rmtree(path.parent)
        if most is None and all(status in TAKEN for status in statuses):
            break
    collected["bytes"] = size
    return collected


def forty_writers(folder: Path, writers: int, each: int) -> Counter[str]:
    """Let many processes type into one sample at once; count what was acknowledged and is not there."""
    path = folder / "many.db"
    fill_demo(path)
    outcome: Counter[str] = Counter()
    lines: list[str] = []
    pipes = []
    for writer in range(writers):
        read, write = os.pipe()
        child = os.fork()
        if child == 0:
            try:
                os.close(read)
                with client_of(path) as client:
                    for number in range(each):
                        text = f"{writer + 1}.{number:03d} mm"
                        for _ in range(200):
                            status = ask(client, "POST", "/api/samples/1/readings", {"key": "can.height", "text": text})
                            if status != 503:
                                break
                        os.write(write, f"{status} {text}\n".encode())
            finally:
                os._exit(0)
        os.close(write)
        pipes.append((child, read))
    for child, read in pipes:
        content = b""
        while chunk := os.read(read, 65536):
            content += chunk
        os.close(read)
        os.waitpid(child, 0)
        lines += content.decode().splitlines()
    there = texts_in(path)
    for line in lines:
        status, _, text = line.partition(" ")
        outcome["acknowledged" if int(status) in TAKEN else f"answered {status}"] += 1
        outcome["lost"] += int(status) in TAKEN and there[text] != 1
    outcome["faults"] = len(faults_of(path))
    return outcome


def foreign_origin(folder: Path) -> Counter[str]:
    """Ask every operation from a page of another origin; count what is not refused, and what is changed."""
    path = folder / "foreign.db"
    fill_demo(path)
    actual: Counter[str] = Counter()
    with client_of(path) as client:
        before = client.get("/api/studies").json()
        for method, address in ADDRESSES.values():
            filled = re.sub(r"{\w+_id}", "1", address)
            for headers in (
                {"Origin": "http://elsewhere.example"},
                {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "cors"},
                {"Host": "elsewhere.example"},
            ):
                answer = client.request(method, filled, json={}, headers=headers)
                actual["requests"] += 1
                actual["not refused"] += answer.status_code not in (400, 403)
        actual["changed"] = before != client.get("/api/studies").json()
    return actual


LOOKED_AT = (
    ("GET", "/api/service", None),
    ("GET", "/api/studies", None),
    ("GET", "/api/backups", None),
    ("GET", "/api/studies/1", None),
    ("GET", "/api/studies/1/results", None),
    ("GET", "/api/studies/1/document?history=true&library=true", None),
    ("GET", "/api/samples/1", None),
    ("GET", "/api/samples/1/figures", None),
    ("GET", "/api/samples/1/engine", None),
    ("POST", "/api/samples/1/map", {}),
    ("POST", "/api/studies/1/comparison", {"temperature_c": -20, "speed_rpm": 2000}),
    ("POST", "/api/samples/1/readings", {"key": "can.height", "text": "98.4 mm"}),
    ("PUT", "/api/samples/1/details/sample.maker", {"text": "Korvath Works"}),
    ("POST", "/api/samples/1/undo", {}),
)


def flipped_bytes(folder: Path, databases: int, seed: int = 3, kept: bool = True) -> Counter[str]:
    """Overwrite bytes of a database anywhere, open it, look at everything and type; count errors that are no sentence."""
    dice, got = random.Random(seed), Counter[str]()
    start = folder / "whole" / "study.db"
    start.parent.mkdir()
    fill_demo(start)
    if kept:
        keep_copy(start, "daily")
    whole = start.read_bytes()
    for trial in range(databases):
        path = folder / f"flipped-{trial}" / "study.db"
        shutil.copytree(start.parent, path.parent)
        content = bytearray(whole)
        for _ in range(dice.choice((1, 1, 3, 10, 50))):
            content[dice.randrange(len(content))] ^= 1 << dice.randrange(8)
        path.write_bytes(content)
        got["databases"] += 1
        try:
            client = client_of(path)
        except TabrelError:
            got["refused at the start"] += 1
        except Exception as error:
            got[f"error at the start: {type(error).__name__} {error}"[:200]] += 1
        else:
            got["shown from the last good copy"] += "is damaged" in client.get("/api/service").json()["warning"]
            with client:
                for method, address, body in LOOKED_AT:
                    status = ask(client, method, address, body)
                    got["requests"] += 1
                    if status >= 500 and status not in REFUSED:
                        got["server errors"] += 1
                        got[f"{method} {address} in {trial}"] += 1
            try:
                got["found by verify"] += bool(faults_of(path))
            except TabrelError:
                got["found by verify"] += 1
            except (sqlite3.Error, ValueError) as error:
                got[f"verify: {type(error).__name__} {error}"[:200]] += 1
        shutil.rmtree(path.parent)
    return got

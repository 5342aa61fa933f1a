"""Forty writers on one server, while another process reads the file: no acknowledged reading is lost, no answer is an error."""

from __future__ import annotations

import json
import sqlite3
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections import Counter
from concurrent.futures import ThreadPoolExecutor

import pytest

from builders import plain_document
from serving import ServerProcess

WRITERS, EACH = 40, 3
READER = """
import sqlite3, sys, time
conn = sqlite3.connect(f"file:{sys.argv[1]}?mode=ro", uri=True)
print("reading", flush=True)
while True:
    conn.execute("BEGIN"); conn.execute("SELECT COUNT(*) FROM reading").fetchone(); time.sleep(0.02); conn.execute("COMMIT")
"""


@pytest.fixture
def address(tmp_path):
    server = ServerProcess(tmp_path / "x.db")
    yield server.address
    server.kill()


def post(address, path, body):
    """Return status and answer; a busy server is asked again when it says."""
    request = urllib.request.Request(address + path, data=json.dumps(body).encode(), headers={"Content-Type": "application/json"})
    try:
        with urllib.request.urlopen(request, timeout=60) as answer:
            return answer.status, json.load(answer)
    except urllib.error.HTTPError as error:
        return error.code, json.load(error)


def test_forty_writers_lose_nothing(address, tmp_path):
    sample = post(address, "/api/studies", plain_document())[1]["samples"][0]["id"]
    reader = subprocess.Popen([sys.executable, "-c", READER, tmp_path / "x.db"], stdout=subprocess.PIPE, text=True)
    assert reader.stdout.readline() == "reading\n"

    def write(writer):
        sentences = []
        for i in range(EACH):
            text = f"{50 + writer}.{i}1 mm"
            status, _ = post(address, f"/api/samples/{sample}/readings", {"key": "can.dome_thickness", "text": text})
            sentences.append((status, text))
        return sentences

    started = time.monotonic()
    with ThreadPoolExecutor(WRITERS) as writers:
        sentences = [item for some in writers.map(write, range(WRITERS)) for item in some]
    assert time.monotonic() - started < 60
    reader.kill()
    reader.communicate()
    assert set(Counter(status for status, _ in sentences)) <= {201, 503}, Counter(status for status, _ in sentences)
    conn = sqlite3.connect(f"file:{tmp_path / 'x.db'}?mode=ro", uri=True)
    rows = conn.execute(
        "SELECT text, position FROM reading WHERE quantity_key = 'can.dome_thickness' ORDER BY position"
    ).fetchall()
    conn.close()
    acknowledged = Counter(text for status, text in sentences if status == 201)
    assert acknowledged <= Counter(text for text, _ in rows)
    assert len({position for _, position in rows}) == len(rows)

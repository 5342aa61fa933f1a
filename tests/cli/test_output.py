"""Output of a command arrives, or the reason is one sentence; an interrupt is quiet."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

TABREL = Path(sys.executable).parent / "tabrel"
CASE = Path(__file__).parents[1] / "data" / "cases" / "plain.study.json"
FULL = Path("/dev/full")


@pytest.mark.skipif(not FULL.exists(), reason="this system has no /dev/full")
@pytest.mark.parametrize("arguments", [["analyse", CASE], ["schema"], ["--help"], ["map", "--help"]])
def test_a_full_disk_is_a_sentence(arguments):
    with FULL.open("w") as nowhere:
        ended = subprocess.run([TABREL, *arguments], stdout=nowhere, stderr=subprocess.PIPE, text=True)
    assert ended.returncode == 1
    assert "cannot be written (No space left on device)" in ended.stderr
    assert ended.stderr.count("\n") == 1


def test_a_terminal_of_few_letters_gets_the_same_values(tmp_path):
    document = json.loads(CASE.read_text())
    document["samples"][0]["label"] = "Größe ½"
    (tmp_path / "study.json").write_text(json.dumps(document))
    plain = {**os.environ, "PYTHONIOENCODING": "ascii"}
    ended = subprocess.run([TABREL, "analyse", tmp_path / "study.json"], capture_output=True, env=plain)
    assert (ended.returncode, ended.stderr) == (0, b"")
    assert ended.stdout.isascii()
    assert json.loads(ended.stdout)["samples"][0]["label"] == "Größe ½"


def test_a_reader_who_has_gone_is_no_error():
    command = f"'{TABREL}' schema | head -c 1"
    ended = subprocess.run(["bash", "-c", command], capture_output=True)
    assert (ended.stdout, ended.stderr) == (b"{", b"")


@pytest.mark.parametrize("after", [0.02, 0.1, 0.3, 0.6])
def test_an_interrupt_while_it_starts_is_quiet(tmp_path, after):
    script = "import sys; from tabrel.cli.entry import main; print('loading', flush=True); sys.exit(main())"
    command = [sys.executable, "-c", script, "serve", "--port", "0", "--database", tmp_path / "x.db"]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True)
    assert process.stdout.readline() == "loading\n"
    time.sleep(after)
    process.send_signal(signal.SIGINT)
    _, complaint = process.communicate(timeout=20)
    assert complaint == ""
    assert process.returncode in (-signal.SIGINT, 130, 0)


def test_a_map_of_too_many_cells_is_refused_before_it_is_computed():
    many = ",".join(str(1 + i / 10) for i in range(6000))
    started = time.monotonic()
    ended = subprocess.run(
        [TABREL, "map", CASE, "--sample", "Pellin", "--temperatures", many, "--speeds", many], capture_output=True, text=True
    )
    assert ended.returncode == 2
    assert "a map of 36000000 cells is more than 250000" in ended.stderr
    assert time.monotonic() - started < 30

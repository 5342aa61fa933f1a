from __future__ import annotations

import asyncio
import json
import os
import re
import signal
import socket
import subprocess
import sys
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest

from builders import changed, plain_document, reading
from tabrel.cli.demo import demo_documents
from tabrel.cli.main import main
from tabrel.cli.serve import listening_socket

CASE = Path(__file__).parents[1] / "data" / "cases" / "plain.study.json"
TABREL = Path(sys.executable).parent / "tabrel"
MAP = ["--sample", "Pellin", "--temperatures", "-25,0,100", "--speeds", "800,3500"]


def run(capsys, *arguments):
    try:
        status = main([str(argument) for argument in arguments])
    except SystemExit as stop:
        status = int(stop.code or 0)
    printed = capsys.readouterr()
    return status, printed.out, printed.err


def written(tmp_path, document):
    path = tmp_path / "study.json"
    path.write_text(document if isinstance(document, str) else json.dumps(document))
    return path


def test_analyse(capsys):
    status, out, err = run(capsys, "analyse", CASE)
    result = json.loads(out)["samples"][0]
    assert (status, err, result["label"]) == (0, "", "Pellin")
    assert set(result["results"]) >= {
        "inlet_hole_area_mm2",
        "plate_flow_area_mm2",
        "plate_series_area_mm2",
        "media_gross_area_cm2",
        "media_effective_area_cm2",
        "pleat_opening_at_inside_percent",
        "bypass_opening_kpa",
        "bypass_full_open_kpa",
        "efficiency_at_20_um_percent",
        "size_at_beta_75_um",
    }
    keys = [
        "value",
        "standard_uncertainty",
        "expanded_uncertainty",
        "low",
        "high",
        "relation",
        "basis",
        "missing",
        "assumed",
        "words",
    ]
    assert list(result["results"]["inlet_hole_area_mm2"]) == keys
    assert result["results"]["plate_flow_area_mm2"]["controlled_by"] == "outlet"
    assert set(result["warnings"][0]) == {"code", "message", "where"}


@pytest.mark.parametrize("separate", [True, False])
def test_map_takes_a_list_that_starts_with_a_minus(capsys, separate):
    arguments = MAP if separate else [*MAP[:2], "--temperatures=-25,0,100", "--speeds=800,3500"]
    status, out, _ = run(capsys, "map", CASE, *arguments)
    loads = json.loads(out)
    assert status == 0
    assert list(loads) == [
        "temperature_c", "speed_rpm", "element_kpa", "filter_kpa", "bypass_fraction", "defect_fraction", "gallery_kpa",
        "filter_inlet_kpa", "pump_kpa", "gauge_kpa", "filter_flow_l_min", "regulator_fraction", "onset",
    ]  # fmt: skip
    assert loads["element_kpa"][0] == pytest.approx([79.96930155756732, 168.24843708647927], rel=5e-3)
    assert loads["onset"]["temperature_c"] == pytest.approx([-39.59538932259211, -24.54009256573373], abs=0.1)


def test_map_condition_loading_and_gaps(capsys, tmp_path):
    path = written(tmp_path, changed(("oil/pumping_limit_c", -10)))
    _, out, _ = run(capsys, "map", path, *MAP, "--condition", "filling", "--loading", "3")
    loaded = json.loads(out)
    assert loaded["element_kpa"][0] == [None, None]
    assert loaded["gallery_kpa"][1] == [0, 0]
    _, out, _ = run(capsys, "map", path, *MAP, "--condition", "filling")
    assert json.loads(out)["element_kpa"][2][0] < loaded["element_kpa"][2][0]


def test_implausible_is_a_warning_and_exit_0(capsys, tmp_path):
    path = written(tmp_path, changed(reading("bypass.spring_installed_length", "7 mm"), reading("element.pleat_count", "80")))
    status, out, err = run(capsys, "analyse", path)
    codes = {warning["code"] for warning in json.loads(out)["samples"][0]["warnings"]}
    assert (status, err) == (0, "")
    assert {"spring_below_solid", "pack_cannot_fit"} <= codes
    assert run(capsys, "map", path, *MAP)[0] == 0


@pytest.mark.parametrize(
    ("document", "says"),
    [
        ("", "empty"),
        ("{]", "not JSON"),
        (changed(("version", 4)), "newer"),
        (changed(("samples/0/readings/can.hight", ["3 mm"])), "samples[0].readings.can.hight"),
        (changed(reading("can.height", "3 mn")), "no unit known"),
        (changed(reading("can.height", "12..3 mm")), "not a number"),
        (changed(reading("can.height", "1e999 mm")), "finite"),
        (changed(reading("can.height", "-1 mm")), "negative"),
        (json.dumps(plain_document()).replace("855", "1e999"), "finite"),
    ],
)
@pytest.mark.parametrize("command", ["analyse", "map"])
def test_malformed_is_one_line_and_exit_2(capsys, tmp_path, command, document, says):
    status, out, err = run(capsys, command, written(tmp_path, document), *(MAP if command == "map" else []))
    assert (status, out) == (2, "")
    assert says in err
    assert err.count("\n") == 1
    assert err.endswith("\n")


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["map", CASE, *MAP[2:]], "--sample"),
        (["map", CASE, "--sample", "Pelin", *MAP[2:]], "did you mean 'Pellin'"),
        (["map", CASE, *MAP[:2], "--temperatures", "-25,x", "--speeds", "800"], "no list of numbers"),
        (["map", CASE, *MAP[:2], "--temperatures", "-25", "--speeds", "0"], "not above zero"),
        (["map", CASE, *MAP[:2], "--temperatures", "nan", "--speeds", "800"], "outside the model"),
        (["map", CASE, *MAP, "--loading", "0"], "--loading"),
        (["map", CASE, *MAP, "--loading", "nan"], "--loading"),
        (["map", CASE, *MAP, "--condition", "boiling"], "boiling"),
        (["analyse", "nowhere.json"], "cannot be read"),
        (["analyse", "."], "cannot be read"),
        (["frobnicate"], "frobnicate"),
        ([], "COMMAND"),
        (["map", CASE, *MAP[:2], "--temperatures"], "expected one argument"),
    ],
)
def test_a_wrong_call_is_one_line_and_exit_2(capsys, arguments, says):
    status, out, err = run(capsys, *arguments)
    assert (status, out) == (2, "")
    assert says in err
    assert err.count("\n") == 1


def test_a_map_that_lacks_inputs_names_them(capsys, tmp_path):
    status, _, err = run(capsys, "map", written(tmp_path, changed(reading("media.thickness"))), *MAP)
    assert status == 2
    assert "media.thickness" in err


def test_every_command_is_documented():
    guide = (Path(__file__).parents[2] / "docs" / "user-guide.md").read_text()
    for command in ("analyse", "map", "schema", "serve", "demo"):
        assert f"tabrel {command}" in guide


def free_port():
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


def started(database, port, program=TABREL, **options):
    command = [program, "demo", "--database", database, "--port", str(port)]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, **options)
    assert f"http://127.0.0.1:{port}" in process.stdout.readline()
    # the address works as soon as it is printed: no second try
    return process, json.load(urllib.request.urlopen(f"http://127.0.0.1:{port}/api/studies"))


def test_a_wheel_in_a_clean_environment_serves_the_demo_without_node(tmp_path):
    root, bare = Path(__file__).parents[2], {name: value for name, value in os.environ.items() if "MAKE" not in name}
    subprocess.run(["make", "--silent", "wheel", f"DIST={tmp_path}"], cwd=root, env=bare, check=True, stdout=subprocess.DEVNULL)
    [wheel] = tmp_path.glob("tabrel-*.whl")
    uv, venv = TABREL.with_name("uv"), tmp_path / "venv"
    subprocess.run([uv, "venv", "--quiet", "--python", sys.executable, venv], check=True)
    for what in (["--require-hashes", "-r", root / "requirements/run.txt"], ["--no-deps", wheel]):
        subprocess.run([uv, "pip", "install", "--quiet", "--python", venv / "bin/python", *what], check=True)
    port, alone = free_port(), {"PATH": str(venv / "bin"), "HOME": str(tmp_path)}
    process, studies = started(tmp_path / "demo.db", port, venv / "bin/tabrel", cwd=tmp_path, env=alone)
    try:
        assert len(studies) == len(demo_documents())

        def asked(path):
            return urllib.request.urlopen(f"http://127.0.0.1:{port}{path}").read().decode()

        for script in re.findall(r'"(/assets/[\w.-]+\.(?:js|css))"', asked("/")):
            assert asked(script)
        notices = json.loads(asked("/notices.json"))
        assert {(n["kind"], n["name"]) for n in notices} >= {("script", "d3-scale"), ("wheel", "numpy"), ("script", "primevue")}
        assert sum(n["kind"] == "font" for n in notices) == 3
        assert [n["name"] for n in notices if not (n["version"] and n["licence"] and n["text"])] == []
        assert json.loads(asked("/api/service"))["version"] in wheel.name
    finally:
        process.send_signal(signal.SIGINT)
        process.communicate(timeout=10)


def test_the_demo_fills_once_keeps_data_and_stops_cleanly(tmp_path):
    database, port = tmp_path / "data" / "demo.db", free_port()
    process, first = started(database, port)
    process.send_signal(signal.SIGINT)
    out, _ = process.communicate(timeout=10)
    assert process.returncode == 0
    assert "stopped" in out
    process, again = started(database, port)
    try:
        assert again == first
        assert len(first) == len(demo_documents())
        busy = subprocess.run(
            [TABREL, "serve", "--database", tmp_path / "b.db", "--port", str(port)], capture_output=True, text=True, check=False
        )
        assert (busy.returncode, busy.stderr.count("\n")) == (2, 1)
        assert "--port" in busy.stderr
    finally:
        os.kill(process.pid, signal.SIGKILL)
        process.communicate(timeout=10)


def test_answers_leave_without_waiting_for_more():
    """In a thread of its own: a worker that has driven a browser has a running event loop."""

    async def no_delay():
        accepted = asyncio.Queue()
        with listening_socket(0) as listener:
            async with await asyncio.start_server(lambda _, writer: accepted.put(writer), sock=listener):
                _, client = await asyncio.open_connection(*listener.getsockname())
                answering = await accepted.get()
                option = answering.get_extra_info("socket").getsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY)
                for writer in (client, answering):
                    writer.close()
                    await writer.wait_closed()
        return option

    with ThreadPoolExecutor() as threads:
        assert threads.submit(lambda: asyncio.run(no_delay())).result()


AUDIT = {
    "format": "tabrel-audit",
    "version": 1,
    "lines": [
        {
            "label": "holes",
            "formula": "round_holes_area",
            "inputs": {"count": "8", "diameter": "0.24 in"},
            "printed": "0.362 in2",
        },
        {
            "label": "one hole",
            "formula": "round_holes_area",
            "inputs": {"count": "8", "diameter": "0.24 in"},
            "printed": "0.0452 in2",
        },
    ],
}


def test_audit_prints_verdicts_and_what_would_explain(capsys, tmp_path):
    path = tmp_path / "audit.json"
    path.write_text(json.dumps(AUDIT))
    status, out, _ = run(capsys, "audit", str(path))
    assert status == 0
    computed = json.loads(out)["lines"]
    assert [line["verdict"] for line in computed] == ["follows", "does_not_follow"]
    assert computed[1]["would_explain"] == ["count_left_out"]
    assert computed[0]["computed"]["unit"] == "in2"


def test_a_malformed_audit_is_one_line_and_exit_2(capsys, tmp_path):
    path = tmp_path / "audit.json"
    path.write_text(json.dumps({**AUDIT, "lines": [{**AUDIT["lines"][0], "formula": "round_hole_area"}]}))
    status, out, error = run(capsys, "audit", str(path))
    assert (status, out) == (2, "")
    assert error.count("\n") == 1
    assert "lines[0].formula" in error
    assert "round_holes_area" in error


@pytest.fixture
def study_with_a_use(tmp_path):
    """The plain filter twice, the second with more pleats, and one use of three criteria."""
    document = plain_document()
    other = json.loads(json.dumps(document["samples"][0])) | {"label": "Other", "price": {"amount": 5, "currency": "EUR"}}
    other["readings"]["element.pleat_count"] = ["70"]
    document["samples"] = [document["samples"][0] | {"price": {"amount": 9, "currency": "EUR"}}, other]
    criteria = [
        {"measure": "media_effective_area_cm2", "weight": 2, "best": 2000, "worst": 500},
        {"measure": "price", "weight": 1, "best": 4, "worst": 14},
        {"measure": "element_cold_kpa", "weight": 1, "best": 0, "worst": 400},
    ]
    use = {"name": "cold start", "temperature_c": -20, "speed_rpm": 2000, "criteria": criteria}
    path = tmp_path / "study.json"
    path.write_text(json.dumps(document | {"version": 2, "uses": [use]}))
    return path


@pytest.mark.parametrize("options", [[], ["--specimens"], ["--any-weights"]])
def test_compare_prints_what_can_be_worked_out_again_from_its_values(capsys, study_with_a_use, options):
    status, out, _ = run(capsys, "compare", str(study_with_a_use), "--use", "cold start", *options)
    assert status == 0
    collected = json.loads(out)
    first, other = collected["labels"]
    assert collected["compares"] == ("specimens" if options == ["--specimens"] else "part numbers")
    for label in collected["labels"]:
        shares = [
            min(max((item["values"][label]["value"] - item["worst"]) / (item["best"] - item["worst"]), 0), 1)
            for item in collected["criteria"]
        ]
        by_hand = 100 * (2 * shares[0] + shares[1] + shares[2]) / 4
        assert collected["schools"]["weighted_score"][label]["score"] == pytest.approx(by_hand, abs=1e-9)
    won = 0
    for item in collected["criteria"]:
        difference = item["values"][other]["value"] - item["values"][first]["value"]
        if abs(difference) > item["joint_expanded_uncertainty"][first][other]:
            won += 1 if (difference > 0) == (item["better"] == "high") else -1
    assert collected["schools"]["pair_wins"]["score"][other] == (won > 0) - (won < 0)
    assert sum(collected["chance_of_place"][first]) == pytest.approx(1)
    assert [line["state"] for line in collected["requirements"][first]] == ["open"] * 3  # no collapse pressure is stated
    assert (collected["verdicts"][first]["proposed"], collected["verdicts"][first]["set"]) == ("none", None)
    assert [reason.split(" is ")[0] for reason in collected["verdicts"][first]["reasons"]] == [
        "The bypass opening pressure",
        "The greatest element differential pressure",
    ]


def test_compare_prints_plain_numbers_where_only_a_least_life_is_known(capsys, tmp_path):
    (tmp_path / "demo.json").write_bytes(demo_documents()[0])
    status, out, _ = run(capsys, "compare", tmp_path / "demo.json", "--use", "long interval")
    assert status == 0
    lives = next(load for load in json.loads(out)["criteria"] if load["measure"] == "life_h")["values"].values()
    assert any(life["value"] is None and life["low"] > 0 for life in lives)


def test_compare_names_the_uses_there_are(capsys, study_with_a_use):
    status, out, error = run(capsys, "compare", str(study_with_a_use), "--use", "towing")
    assert (status, out, error.count("\n")) == (2, "", 1)
    assert "'towing' is no use of this study: it has cold start" in error


def test_a_simulated_test_is_written_the_same_for_the_same_seed(capsys, tmp_path):
    paths = [tmp_path / name for name in ("a.csv", "b.csv")]
    for path in paths:
        status, out, _ = run(
            capsys, "simulate", "counter", "--size-at-beta-2", "9", "--slope", "3", "--seed", "7", "-o", str(path)
        )
        assert (status, out) == (0, "")
    assert paths[0].read_bytes() == paths[1].read_bytes()
    assert "upstream 4 um(c)" in paths[0].read_text()
    assert run(capsys, "simulate", "counter", "--seed", "8")[1] != paths[0].read_text()


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["--slope", "0"], "--slope 0 must lie between"),
        (["--size-at-beta-2", "nan"], "--size-at-beta-2 nan"),
        (["--intervals", "0"], "--intervals 0"),
        (["-o", "/nowhere/x.csv"], "cannot be written"),
    ],
)
def test_a_simulation_that_cannot_be_is_one_line(capsys, arguments, says):
    status, out, error = run(capsys, "simulate", "counter", *arguments)
    assert status in (1, 2)
    assert out == ""
    assert error.count("\n") == 1
    assert says in error

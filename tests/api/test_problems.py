"""Every error is a problem of RFC 9457 with one sentence, whatever goes wrong and wherever."""

from __future__ import annotations

import json
import re

import pytest
from fastapi.testclient import TestClient
from jsonschema_rs import validator_for

from tabrel.api.app import create_app
from tabrel.api.openapi import openapi_document

JSON = {"Content-Type": "application/json"}


def problem(answer, status):
    assert answer.status_code == status, answer.text
    assert answer.headers["content-type"] == "application/problem+json"
    assert "frame-ancestors 'none'" in answer.headers["Content-Security-Policy"]
    words = answer.json()
    assert set(words) == {"type", "title", "status", "detail", "where", "missing"}
    assert words["status"] == status
    assert words["detail"]
    assert "\n" not in words["detail"]
    return words


@pytest.mark.parametrize(
    "path",
    [
        "/api/nothing",
        "/api/samples/x",
        "/api/samples/1.5",
        "/api/samples/-1",
        f"/api/samples/{2**63}",
        f"/api/samples/{10**400}",
        "/api/samples/1%00",
        "/api/samples/%2e%2e/studies",
        "/api/studies/" + "9" * 3000,
    ],
)
def test_an_odd_address_is_not_there(client, path):
    assert "there is no" in problem(client.get(path), 404)["detail"]


@pytest.mark.parametrize(
    ("method", "path", "allowed"),
    [
        ("GET", "/api/samples/{}/undo", "POST"),
        ("DELETE", "/api/studies", "GET, POST"),
        ("PATCH", "/api/holes/{}", "DELETE, PUT"),
        ("HEAD", "/api/studies", "GET, POST"),
        ("POST", "/", "GET"),
    ],
)
def test_a_method_that_is_not_taken_names_those_that_are(client, sample, method, path, allowed):
    answer = client.request(method, path.format(sample), headers=JSON, content=None if method in ("GET", "HEAD") else "{}")
    assert answer.headers["Allow"] == allowed
    if method != "HEAD":
        assert f"this address takes {allowed}" in problem(answer, 405)["detail"]


@pytest.mark.parametrize(
    ("content", "status"), [(b'{"text": "\xff"}', 400), (b'{"text": ', 422), (b"\x00", 422), (b"[1]", 422), (b'{"text": 1}', 422)]
)
def test_a_body_that_is_no_json_is_refused(client, sample, content, status):
    problem(client.post(f"/api/studies/{1}/samples", content=content, headers=JSON), status)


def test_an_error_of_the_program_is_told_without_its_inside(client, monkeypatch, caplog):
    def broken(_):
        raise RuntimeError("secret inside")

    monkeypatch.setattr("tabrel.api.study.studies.list_studies", broken)
    with TestClient(client.app, base_url="http://127.0.0.1", raise_server_exceptions=False) as careful:
        sentence = problem(careful.get("/api/studies"), 500)
    assert "secret" not in str(sentence)
    assert "nothing was changed" in sentence["detail"]
    assert "secret inside" in caplog.text


def test_every_operation_documents_its_errors_as_problems():
    document = openapi_document()
    for path, operations in document["paths"].items():
        for method, operation in operations.items():
            assert operation["responses"]["default"] == {"$ref": "#/components/responses/Problem"}, (method, path)
            assert [status for status in operation["responses"] if status[0] in "45"] == [], (method, path)
    answer = document["components"]["responses"]["Problem"]
    assert list(answer["content"]) == ["application/problem+json"]
    assert answer["content"]["application/problem+json"]["schema"]["$ref"].endswith("/ProblemOut")
    assert all(f"{status}: " in answer["description"] for status in (400, 403, 404, 409, 412, 413, 415, 422, 428, 500, 503, 507))


UNIT_BY_END = {
    "kpa": "kPa", "mpa": "MPa", "mm": "mm", "mm2": "mm²", "cm2": "cm²", "um": "µm", "um2": "µm²", "um_c": "µm(c)", "c": "°C",
    "rpm": "rpm", "l_min": "L/min", "percent": "%", "s": "s", "hours": "h", "minutes": "min", "min": "min", "g": "g",
    "grams": "g", "g_m2": "g/m²", "mpa_s": "mPa·s", "mm2_s": "mm²/s", "kg_m3": "kg/m³", "l": "L",
}  # fmt: skip


def unit_in_name(name):
    """Return the unit that a name ends in: of two ends the longer one."""
    ends = [end for end in UNIT_BY_END if f"_{name}".endswith(f"_{end}")]
    return UNIT_BY_END[max(ends, key=len)] if ends else None


def test_every_float_of_the_interface_carries_the_unit_that_its_name_ends_in():
    for model, schema in openapi_document()["components"]["schemas"].items():
        for name, field in schema.get("properties", {}).items():
            text = json.dumps(field, ensure_ascii=False)
            units = set(re.findall(r'"x-unit": "([^"]*)"', text))
            if '"number"' in text:
                assert units == ({unit_in_name(name)} - {None}), (model, name)
            else:
                assert not units, (model, name)


def test_every_operation_and_parameter_is_described_with_an_example_that_holds():
    document = openapi_document()
    for path, operations in document["paths"].items():
        for operation in operations.values():
            assert operation["description"].endswith(".")
            for given in operation.get("parameters", []):
                parameter = document["components"]["parameters"][given["$ref"].rpartition("/")[2]] if "$ref" in given else given
                assert parameter["description"], (path, parameter["name"])
                [example] = parameter.get("examples") or parameter["schema"]["examples"]
                assert validator_for(parameter["schema"]).is_valid(example), (path, parameter["name"])


def test_what_is_streamed_is_documented_as_lines():
    [answer] = [
        operation["responses"]["200"]
        for operations in openapi_document()["paths"].values()
        for operation in operations.values()
        if operation["operationId"] == "post_slices"
    ]
    assert list(answer["content"]) == ["application/x-ndjson"]


def test_the_application_on_a_folder_without_a_front_end_says_so(tmp_path):
    bare = TestClient(create_app(tmp_path / "x.db", static=tmp_path), base_url="http://127.0.0.1")
    assert "there is no" in problem(bare.get("/"), 404)["detail"]

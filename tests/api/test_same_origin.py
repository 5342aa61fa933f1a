"""Only the application's own pages, and programs that speak JSON, are answered; a browser is told to keep others out."""

from __future__ import annotations

import json

import pytest

from builders import plain_document

OWN = "http://127.0.0.1"
JSON = {"Content-Type": "application/json"}
FORM = {"Content-Type": "application/x-www-form-urlencoded"}


def names(client):
    return [study["name"] for study in client.get("/api/studies").json()]


def answers(client, method, path, headers, content=None):
    answer = client.request(method, path, headers=headers, content=content)
    assert answer.status_code < 300 or answer.json()["detail"], answer.text
    return answer.status_code


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({"Origin": OWN, "Sec-Fetch-Site": "same-origin", **JSON}, 201),
        ({"Origin": OWN, **JSON}, 201),
        (JSON, 201),  # a program, which is no page
        ({"Content-Type": "application/json; charset=utf-8"}, 201),
        ({"Origin": "http://127.0.0.1:3000", **JSON}, 403),  # another port of this machine
        ({"Origin": "http://127.0.0.1.evil.example", **JSON}, 403),
        ({"Origin": "http://127.0.0.1@evil.example", **JSON}, 403),
        ({"Origin": "null", **JSON}, 403),
        ({"Origin": "", **JSON}, 403),
        ({"Origin": OWN, "Sec-Fetch-Site": "cross-site", **JSON}, 403),
        ({"Sec-Fetch-Site": "same-site", **JSON}, 403),
        ({"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "navigate", "Sec-Fetch-Dest": "document", **JSON}, 403),
        ({"Origin": OWN, **FORM}, 415),
        ({"Content-Type": "text/plain"}, 415),
        ({}, 415),
    ],
)
def test_a_study_is_imported_only_for_an_own_page_or_a_program(client, headers, status):
    body = json.dumps(plain_document()).encode()
    assert answers(client, "POST", "/api/studies", headers, body) == status
    assert names(client) == (["plain dome-end valve"] if status == 201 else [])


def test_every_change_carries_a_body(client, sample):
    before = client.get(f"/api/samples/{sample}").json()
    for method, path in (("POST", f"/api/samples/{sample}/undo"), ("DELETE", f"/api/claims/{sample}")):
        answer = client.request(method, path, headers=JSON)
        assert (answer.status_code, answer.json()["detail"].split(":")[0]) == (422, "the request is empty")
        assert client.request(method, path).status_code == 415
    assert client.get(f"/api/samples/{sample}").json() == before


@pytest.mark.parametrize(
    ("path", "headers", "status"),
    [
        ("/api/studies", {"Sec-Fetch-Site": "same-origin"}, 200),
        ("/api/studies", {"Sec-Fetch-Site": "none", "Sec-Fetch-Mode": "navigate"}, 200),  # typed into the address bar
        ("/api/studies", {"Sec-Fetch-Site": "same-site"}, 403),
        ("/api/studies", {"Origin": "http://localhost:3000"}, 403),
        ("/api/studies", {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "navigate", "Sec-Fetch-Dest": "document"}, 403),
        ("/", {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "navigate", "Sec-Fetch-Dest": "document"}, 200),  # a link
        ("/", {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "navigate", "Sec-Fetch-Dest": "iframe"}, 403),
        ("/index.html", {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "no-cors", "Sec-Fetch-Dest": "script"}, 403),
    ],
)
def test_what_another_page_may_read(client, path, headers, status):
    assert client.get(path, headers=headers).status_code == status


@pytest.mark.parametrize(
    ("host", "status"),
    [
        ("127.0.0.1", 200),
        ("localhost:8710", 200),
        ("somewhere.example", 400),
        ("127.0.0.1.somewhere.example:8710", 400),
        ("", 400),
    ],
)
def test_only_this_machine_is_answered(client, host, status):
    answer = client.get("/api/studies", headers={"Host": host})
    assert answer.status_code == status
    assert status == 200 or "is not the name of this machine" in answer.json()["detail"]


@pytest.mark.parametrize("path", ["/", "/api/studies", "/api/nothing", "/api/studies/9"])
def test_every_answer_keeps_others_out(client, path):
    headers = client.get(path).headers
    policy = dict(part.split(" ", 1) for part in headers["Content-Security-Policy"].split("; "))
    assert (policy["default-src"], policy["script-src"], policy["frame-ancestors"]) == ("'none'", "'self'", "'none'")
    assert headers["X-Content-Type-Options"] == "nosniff"
    assert headers["Cross-Origin-Opener-Policy"] == headers["Cross-Origin-Resource-Policy"] == "same-origin"
    assert headers["Referrer-Policy"] == "same-origin"
    assert "Access-Control-Allow-Origin" not in headers

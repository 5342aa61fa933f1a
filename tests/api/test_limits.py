"""Bodies that are too large are refused while they come in; letters that do not show are refused at their field."""

from __future__ import annotations

import json

import pytest

from api_steps import overwrite
from tabrel.api.app import ROUTED
from tabrel.api.body_limit import USUAL_BYTES, body_limit
from tabrel.api.wire import AS_IN_A_DOCUMENT, RequestModel
from tabrel.store.study import plans

JSON = {"Content-Type": "application/json"}


@pytest.mark.parametrize("path", ["/api/samples/1/readings", "/api/studies", "/api/studies/1/duty-cycles", "/api/nothing"])
@pytest.mark.parametrize("announced", [True, False])
def test_a_body_that_is_too_large_is_not_read_to_its_end(client, blank, path, announced):
    limit = body_limit(path)
    sent = 0

    def chunks():
        nonlocal sent
        while sent < 10 * limit:
            sent += 100_000
            yield b'"' + b"x" * 99_999

    content = b"x" * (limit + 1) if announced else chunks()
    answer = client.post(path, content=content, headers=JSON)
    if path == "/api/nothing" and not announced:
        assert answer.status_code == 404  # nobody reads it
        return
    assert answer.status_code == 413
    assert "is larger than" in answer.json()["detail"]


def test_a_body_of_the_usual_size_is_read(client, blank):
    body = b'{"key": "can.height", "text": "98 mm"' + b" " * (USUAL_BYTES - 100) + b"}"
    assert client.post(f"/api/samples/{blank}/readings", content=body, headers=JSON).status_code == 201


REPORT = {"title": "x", "parts": [{"part": "text", "text": "TEXT"}]}


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("a\u202eb", "does not show (RIGHT-TO-LEFT OVERRIDE)"),
        ("a\ud800b", "does not show (half of a letter, D800)"),
        ("x" * 10_001, "shorten it to 10000"),
    ],
)
@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("PUT", "studies/1/report", {"plan": REPORT, "seen": {}}),
        ("PUT", "uses/1", {"use": {"name": "x", "shop": "TEXT"}, "seen": {"name": "x"}}),
        (
            "PUT",
            "uses/1",
            {"use": {"name": "x", "requirements": [{"measure": "x", "one_of": ["TEXT"]}]}, "seen": {}},
        ),
        ("POST", "studies/1/scenarios", {"name": "TEXT", "loading": 2}),
    ],
)
def test_a_text_at_any_depth_is_held_to_the_rule_of_documents(client, study, method, path, body, text, says):
    """They passed in nested fields, and the document that was exported could not be imported."""
    content = json.dumps(body).replace('"TEXT"', json.dumps(text))
    headers = {**JSON, "If-Match": "*"}
    answer = client.request(method, f"/api/{path}", content=content, headers=headers)
    assert answer.status_code == 422, answer.text
    assert says in answer.json()["detail"]


def test_every_body_is_held_to_the_rule_of_documents():
    for module in ROUTED:
        for route in module.router.routes:
            body = getattr(route, "body_field", None)
            if body is not None:
                kinds = (body.field_info.annotation, *body.field_info.metadata)
                assert any(kind is AS_IN_A_DOCUMENT or is_request_model(kind) for kind in kinds), route.path


def is_request_model(kind):
    return isinstance(kind, type) and issubclass(kind, RequestModel)


def test_tests_and_cycles_that_no_document_can_hold_are_refused(client, study, blank, monkeypatch):
    monkeypatch.setattr(plans, "MOST_LETTERS_OF_TESTS", 300)
    table = {"text": "scale,um(c)\nsize,upstream,downstream\n4,9,3\n6,2,1\n10,2,1\n"}
    assert overwrite(client, "PUT", f"/api/samples/{blank}/counts", table).status_code == 200
    cycle = {"name": "long", "csv": "time_s,speed_rpm\n" + "".join(f"{i},900\n" for i in range(60))}
    answer = client.post(f"/api/studies/{study['id']}/duty-cycles", json=cycle)
    assert (answer.status_code, "thin it out" in answer.json()["detail"]) == (422, True)
    assert client.get(f"/api/studies/{study['id']}/document").json().get("duty_cycles") is None


@pytest.mark.parametrize("text", ["a\u202eb", "a\u0000b", "a\u001b[31mb", "a\u2066b"])
def test_letters_that_do_not_show_are_refused(client, study, blank, text):
    for path, body in (
        (f"/api/studies/{study['id']}/samples", {"text": text}),
        (f"/api/samples/{blank}/details/sample.label", {"text": text}),
        (f"/api/samples/{blank}/claims", {"wording": text, "source": "box"}),
        (f"/api/samples/{blank}/readings", {"key": "can.height", "text": "98 mm", "note": text}),
        (f"/api/studies/{study['id']}/scenarios", {"name": text, "loading": 2}),
    ):
        answer = overwrite(client, "PUT" if "details" in path else "POST", path, body)
        assert answer.status_code == 422, (path, answer.text)
        assert "does not show" in answer.json()["detail"]

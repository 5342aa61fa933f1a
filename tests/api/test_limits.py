"""Bodies that are too large are refused while they come in; letters that do not show are refused at their field."""

from __future__ import annotations

import pytest

from api_steps import overwrite
from tabrel.api.body_limit import USUAL_BYTES, body_limit

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

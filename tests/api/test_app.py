"""What the application serves: the front end, plain 404s, this machine alone."""

from __future__ import annotations

JSON = {"Content-Type": "application/json"}


def test_a_garbled_number_in_a_body_is_no_server_error(client, sample):
    answer = client.post(f"/api/samples/{sample}/readings", content='{"key": NaN, "text": 1e999}', headers=JSON)
    assert answer.status_code == 422
    assert answer.json()["detail"]


def test_what_is_not_there_is_a_plain_404(client):
    for path in ("/api/studies/9", "/api/samples/9", "/api/samples/9/engine", "/api/studies/9/document", "/api/nothing"):
        answer = client.get(path)
        assert answer.status_code == 404, path
        assert "there is no" in answer.json()["detail"]


def test_the_front_end_is_served_and_nothing_beside_it(client):
    assert "front" in client.get("/studies/1/samples/1/bench").text
    for path in ("/../secret.txt", "/%2e%2e/secret.txt", "/..%2fsecret.txt"):
        assert "secret" not in client.get(path).text

"""Addresses of the application: the front end, plain 404s, this machine alone."""

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


def test_what_no_file_can_be_called_is_a_plain_404(client):
    for path in ("/%00", "/a%00b", f"/{'x' * 400}", f"/assets/{'x' * 400}.js"):
        answer = client.get(path)
        assert answer.status_code == 404, path
        assert answer.json()["detail"] == "there is nothing here"


def test_files_named_by_their_content_are_kept_and_an_old_name_is_not_the_page(client):
    kept = client.get("/assets/index-1a2b3c.js")
    assert (kept.text, kept.headers["cache-control"]) == ("1", "public, max-age=31536000, immutable")
    assert client.get("/assets/index-0.js").status_code == 404
    assert client.get("/").headers["cache-control"] == "no-cache"

"""Steps of the tests that go through the API."""

from __future__ import annotations


def imported(client, document):
    answer = client.post("/api/studies", json=document)
    assert answer.status_code == 201, answer.text
    return answer.json()


def field(sheet, key):
    return next(f for part in sheet["parts"] for f in part["fields"] if f["key"] == key)


def add(client, sample, key, text, **more):
    answer = client.post(f"/api/samples/{sample}/readings", json={"key": key, "text": text, **more})
    assert answer.status_code == 201, answer.text
    return answer.json()


def refused(answer, status, where, says):
    assert (answer.status_code, answer.json()["where"]) == (status, where), answer.text
    assert says in answer.json()["detail"]


def detail(client, sample, key, text, seen="", family="metric"):
    return client.post(f"/api/samples/{sample}/details", json={"key": key, "text": text, "seen": seen, "family": family})


def details(client, sample):
    return client.get(f"/api/samples/{sample}").json()["details"]


def says(answer, status, words):
    assert answer.status_code == status, answer.text
    assert words in answer.json()["detail"]
    assert "\n" not in answer.json()["detail"]

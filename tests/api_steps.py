"""Steps of the tests that go through the API."""

from __future__ import annotations

from fastapi.routing import APIRoute

from tabrel.api.app import ROUTED

ZIP = {"Content-Type": "application/zip"}
WORKBOOK = {"Content-Type": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"}

ADDRESSES = {
    route.name: (next(iter(route.methods)), route.path)
    for module in ROUTED
    for route in module.router.routes
    if isinstance(route, APIRoute)
}
"""Method and path of every operation."""


def imported(client, document):
    answer = client.post("/api/studies", json=document)
    assert answer.status_code == 201, answer.text
    return answer.json()


def field(sheet, key):
    return next(f for part in sheet["parts"] for f in part["fields"] if f["key"] == key)


def add(client, sample, key, text, **more):
    return done(overwrite(client, "POST", f"/api/samples/{sample}/readings", {"key": key, "text": text, **more}))


def done(answer):
    """Return the sheet after a change that was taken."""
    assert answer.status_code < 300, answer.text
    return answer.json()["sheet"]


def overwrite(client, method, path, body, seen="*"):
    """Change what is there, with the revision that was seen; any by default."""
    return client.request(method, path, json=body, headers={"If-Match": seen if seen == "*" else f'"{seen}"'})


def revision(client, sample, thing):
    """Return the revision of something as the sheet has it."""
    return client.get(f"/api/samples/{sample}").json()["revisions"].get(thing, 0)


def refused(answer, status, where, says):
    assert (answer.status_code, answer.json()["where"]) == (status, where), answer.text
    assert says in answer.json()["detail"]


def detail(client, sample, key, text, seen="*", **more):
    return overwrite(client, "PUT", f"/api/samples/{sample}/details/{key}", {"text": text, **more}, seen)


def look(client, sample, key, text, seen="*"):
    return overwrite(client, "PUT", f"/api/samples/{sample}/observations/{key}", {"text": text}, seen)


def undo(client, sample):
    return client.post(f"/api/samples/{sample}/undo", json={}).json()


def details(client, sample):
    return client.get(f"/api/samples/{sample}").json()["details"]


def says(answer, status, words):
    assert answer.status_code == status, answer.text
    assert words in answer.json()["detail"]
    assert "\n" not in answer.json()["detail"]

"""Copies asked for and put back through the interface, while others type."""

from __future__ import annotations

import re
import threading
import time
from pathlib import Path

import pytest

from api_steps import add
from tabrel.api.deps import DATABASE_HEADER
from tabrel.store import service as served
from tabrel.store.upkeep.verify import faults_of

READING = {"key": "can.height", "text": "98.4 mm"}


def made(client):
    answer = client.post("/api/backups", json={})
    assert answer.status_code == 201, answer.text
    return answer.json()["copies"][0]["name"]


def heights(client, sample):
    parts = client.get(f"/api/samples/{sample}").json()["parts"]
    return [r["text"] for p in parts for f in p["fields"] if f["key"] == "can.height" for r in f["readings"]]


def test_a_copy_says_where_it_is_and_what_it_lacks(client, blank):
    assert client.get("/api/backups").json()["copies"] == []
    name = made(client)
    add(client, blank, "can.height", "98.4 mm")
    words = client.get("/api/backups").json()
    [copy] = words["copies"]
    assert copy["name"] == name
    assert copy["words"] == "asked for"
    assert (copy["changes_missing"], copy["studies_missing"]) == (1, [])
    assert "98.4 mm" in copy["last_missing"][0]
    assert words["folder"].endswith("backups")
    assert words["kept"] == 10
    assert sum(day["changes"] for day in words["days"]) == 1


def test_a_copy_of_the_future_and_what_is_no_copy_are_named(client, blank):
    folder = Path(client.get("/api/backups").json()["folder"])
    name = made(client)
    future = re.sub(r"-20\d\d-", "-2099-", name)
    (folder / name).rename(folder / future)
    (folder / re.sub(r"-20\d\d-", "-2098-", name)).symlink_to(folder / "gone.db")
    answer = client.get("/api/backups").json()
    [copy] = answer["copies"]
    assert copy["name"] == future
    assert copy["words"].startswith("asked for; its date lies in the future")
    assert "a link to what is gone" in answer["notes"]


def test_a_copy_is_put_back_and_windows_that_have_seen_more_are_told(client, blank):
    add(client, blank, "can.height", "98.4 mm")
    name = made(client)
    seen = client.get("/api/studies").headers[DATABASE_HEADER]
    add(client, blank, "can.height", "99.9 mm")
    answer = client.post("/api/backups/restoration", json={"copy_name": name})
    assert answer.status_code == 200, answer.text
    assert "what was there is kept as" in answer.json()["notes"]
    now = answer.headers[DATABASE_HEADER]
    assert now != seen
    assert heights(client, blank) == ["98.4 mm"]
    refused = client.post(f"/api/samples/{blank}/readings", json=READING, headers={DATABASE_HEADER: seen})
    assert refused.status_code == 412
    assert "a copy of the database was put back" in refused.json()["detail"]
    assert refused.headers[DATABASE_HEADER] == now
    assert client.post("/api/backups/restoration", json={"copy_name": name}, headers={DATABASE_HEADER: seen}).status_code == 412
    assert heights(client, blank) == ["98.4 mm"]
    assert client.post(f"/api/samples/{blank}/readings", json=READING, headers={DATABASE_HEADER: now}).status_code == 201


def test_the_same_database_opened_again_is_the_same(client, blank):
    before = client.get("/api/studies").headers[DATABASE_HEADER]
    client.app.state.service = served.Service(client.app.state.service.database)
    assert client.get("/api/studies").headers[DATABASE_HEADER] == before


def test_who_types_while_a_copy_is_put_back_loses_nothing_that_was_acknowledged(client, blank):
    """Each reading is in the database that is there, or in the one that is kept: or it was refused."""
    name = made(client)
    seen = client.get("/api/studies").headers[DATABASE_HEADER]
    answers, stop = [], threading.Event()

    def type_on(number):
        while not stop.is_set():
            text = f"{90 + number}.{len(answers) % 1000:03d} mm"
            asked = {"json": {"key": "can.height", "text": text}, "headers": {DATABASE_HEADER: seen}}
            answers.append((client.post(f"/api/samples/{blank}/readings", **asked).status_code, text))

    hands = [threading.Thread(target=type_on, args=[i]) for i in range(3)]
    for hand in hands:
        hand.start()
    until = time.monotonic() + 20
    while sum(status == 201 for status, _ in answers) < 20 and time.monotonic() < until:
        time.sleep(0.01)
    answer = client.post("/api/backups/restoration", json={"copy_name": name})
    stop.set()
    for hand in hands:
        hand.join()
    assert answer.status_code == 200, answer.text
    assert {status for status, _ in answers} <= {201, 412}
    assert heights(client, blank) == []
    kept = next(client.app.state.service.database.parent.glob("study-before-*.db"))
    assert faults_of(kept) == []
    assert faults_of(client.app.state.service.database) == []
    client.app.state.service = served.Service(kept)
    taken = heights(client, blank)
    assert sorted(taken) == sorted(text for status, text in answers if status == 201)


def test_what_does_not_come_to_an_end_keeps_a_copy_from_being_put_back(client, blank, monkeypatch):
    name = made(client)
    monkeypatch.setattr(served, "PATIENCE", 0.1)
    service = client.app.state.service
    with service.borrowed():
        answer = client.post("/api/backups/restoration", json={"copy_name": name})
    assert answer.status_code == 503
    assert "Nothing was changed" in answer.json()["detail"]
    assert client.get("/api/studies").status_code == 200
    assert client.post("/api/backups/restoration", json={"copy_name": name}).status_code == 200


def test_a_damaged_copy_is_not_put_back_and_the_rest_goes_on(client, blank):
    name = made(client)
    add(client, blank, "can.height", "98.4 mm")
    path = client.app.state.service.database.parent / "backups" / name
    path.write_bytes(path.read_bytes()[:9000])
    answer = client.post("/api/backups/restoration", json={"copy_name": name})
    assert answer.status_code == 422
    assert "is not whole" in answer.json()["detail"]
    assert heights(client, blank) == ["98.4 mm"]
    looked = client.post("/api/backups/verification", json={"copy_name": name}).json()
    assert looked["faults"]
    whole = client.post("/api/backups/verification", json={}).json()
    assert (whole["faults"], whole["readings"]) == ([], 1)


@pytest.mark.parametrize("name", ["absent.db", "../study.db", "study.db", ""])
def test_only_a_copy_of_the_list_can_be_named(client, blank, name):
    for address in ("restoration", "verification"):
        answer = client.post(f"/api/backups/{address}", json={"copy_name": name})
        assert answer.status_code == 404
        assert "look at the list again" in answer.json()["detail"]


def test_a_damaged_database_is_shown_from_its_copy_until_that_is_put_back(client, blank):
    add(client, blank, "can.height", "98.4 mm")
    name = made(client)
    database = client.app.state.service.database
    content = database.read_bytes()
    for end in ("-wal", "-shm"):
        database.with_name(database.name + end).unlink(missing_ok=True)
    database.write_bytes(content[:200] + b"\xff" * (len(content) - 200))
    client.app.state.service = served.Service(database)
    assert "is damaged" in client.get("/api/service").json()["warning"]
    assert heights(client, blank) == ["98.4 mm"]
    assert client.post(f"/api/samples/{blank}/readings", json=READING).status_code == 503
    assert client.get("/api/backups").json()["copies"][0]["changes_missing"] is None
    assert client.post("/api/backups/restoration", json={"copy_name": name}).status_code == 200
    assert client.get("/api/service").json()["warning"] == ""
    assert client.post(f"/api/samples/{blank}/readings", json=READING).status_code == 201
    kept = next(database.parent.glob("study-before-*.db"))
    assert kept.read_bytes()[200:] == b"\xff" * (len(content) - 200)

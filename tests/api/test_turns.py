"""Heavy computation takes turns; readings go on meanwhile, and who waits too long is told."""

from __future__ import annotations

import asyncio
from concurrent.futures import ThreadPoolExecutor
from threading import Event

import pytest

from tabrel.api import turns
from tabrel.api.maps import routes


@pytest.fixture
def held(client, monkeypatch):
    """One turn, taken by a map that goes on until it is let go."""
    client.app.state.turns = asyncio.Semaphore(1)
    begun, let_go, plain = Event(), Event(), routes.operating_map

    def slow(*arguments):
        begun.set()
        assert let_go.wait(20)
        return plain(*arguments)

    monkeypatch.setattr(routes, "operating_map", slow)
    yield begun, let_go
    let_go.set()


def test_readings_go_on_while_maps_wait_for_their_turn(client, sample, held):
    begun, let_go = held
    with ThreadPoolExecutor(60) as windows:
        maps = [windows.submit(client.post, f"/api/samples/{sample}/map", json={}) for _ in range(50)]
        assert begun.wait(20)
        for i in range(5):
            body = {"key": "can.height", "text": f"{90 + i} mm"}
            assert client.post(f"/api/samples/{sample}/readings", json=body).status_code == 201
        assert not any(one.done() for one in maps)
        let_go.set()
        assert {one.result().status_code for one in maps} == {200}


def test_who_waits_too_long_is_told_to_come_again(client, sample, held, monkeypatch):
    monkeypatch.setattr(turns, "PATIENCE", 0.1)
    begun, let_go = held
    with ThreadPoolExecutor(2) as windows:
        first = windows.submit(client.post, f"/api/samples/{sample}/map", json={})
        assert begun.wait(20)
        answer = client.post(f"/api/samples/{sample}/sensitivity", json={"condition": "steady", "quantity": "element_pressure"})
        assert (answer.status_code, answer.headers["Retry-After"]) == (503, "1")
        assert "too much is being computed" in answer.json()["detail"]
        let_go.set()
        assert first.result().status_code == 200


def test_a_turn_is_given_back_after_an_error(client, blank):
    client.app.state.turns = asyncio.Semaphore(1)
    for _ in range(3):
        assert client.post(f"/api/samples/{blank}/map", json={}).status_code == 409
    assert client.app.state.turns._value == 1

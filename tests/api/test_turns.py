"""Heavy computation takes turns; readings go on meanwhile, and who waits too long is told."""

from __future__ import annotations

import asyncio
import socket
from concurrent.futures import ThreadPoolExecutor
from threading import Event, Thread
from time import sleep

import httpx
import pytest
import uvicorn

from tabrel.api import turns
from tabrel.api.maps import routes
from tabrel.api.study import studies


def held_up(monkeypatch, module, name):
    """Have a function wait until it is let go; return what says that it has begun, and what lets it go."""
    begun, let_go, plain = Event(), Event(), getattr(module, name)

    def slow(*arguments):
        begun.set()
        assert let_go.wait(20)
        return plain(*arguments)

    monkeypatch.setattr(module, name, slow)
    return begun, let_go


@pytest.fixture
def held(client, monkeypatch):
    """One turn, taken by a map that goes on until it is let go."""
    client.app.state.turns = asyncio.Semaphore(1)
    begun, let_go = held_up(monkeypatch, routes, "operating_map")
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
        assert not any(item.done() for item in maps)
        let_go.set()
        assert {item.result().status_code for item in maps} == {200}


def test_readings_go_on_while_many_look(client, sample, monkeypatch):
    """Sixty who look took every thread, and one reading waited 14 s."""
    begun, let_go = held_up(monkeypatch, studies, "list_studies")
    with ThreadPoolExecutor(60) as windows:
        looks = [windows.submit(client.get, "/api/studies") for _ in range(60)]
        assert begun.wait(20)
        assert client.post(f"/api/samples/{sample}/readings", json={"key": "can.height", "text": "90 mm"}).status_code == 201
        assert not any(look.done() for look in looks)
        let_go.set()
        assert {look.result().status_code for look in looks} == {200}


def test_a_computation_holds_still_for_a_change_and_goes_on_as_long_as_it_has_held_still(monkeypatch):
    changes, gone, clock, waited = turns.Changes(), Event(), [0.0], []

    def wait(seconds):
        waited.append(clock[0])
        clock[0] += seconds

    changes.there_are_none.wait = wait
    monkeypatch.setattr(turns, "monotonic", lambda: clock[0])
    monkeypatch.setattr(turns, "HOLDS_STILL", 0.25)
    asks = turns._goes_after(changes, gone)
    assert not asks()
    assert waited == []
    with changes.under_way(), changes.under_way():
        for _ in range(10):  # there is always another change
            assert not asks()
            clock[0] += 0.0625
    assert waited == [0.0, 0.5, 1.0]
    asks()
    assert len(waited) == 3
    gone.set()
    assert asks()


LARGE = "size,upstream,downstream\n" + "4,2,1\n" * 10_000


@pytest.mark.parametrize(
    ("path", "body"),
    [
        ("samples/{sample}/counts/preview", {"text": LARGE}),
        ("studies/1/readings-table/preview", {"text": LARGE}),
        ("studies/1/readings-table", {"text": LARGE}),
        ("studies/1/duty-cycles", {"name": "x", "csv": LARGE}),
        ("arithmetic-preview", {"text": LARGE}),
        ("spreadsheet-text", {}),
        ("packages", {}),
        ("studies", {"name": LARGE}),
    ],
)
def test_what_is_read_takes_a_turn_where_it_is_large(client, sample, held, monkeypatch, path, body):
    monkeypatch.setattr(turns, "PATIENCE", 0.1)
    begun, let_go = held
    with ThreadPoolExecutor(2) as windows:
        first = windows.submit(client.post, f"/api/samples/{sample}/map", json={})
        assert begun.wait(20)
        answer = client.post(f"/api/{path.format(sample=sample)}", json=body)
        assert (answer.status_code, "too much is being computed" in answer.json()["detail"]) == (503, True)
        small = client.post(f"/api/samples/{sample}/counts/preview", json={"text": LARGE[:100]})
        assert small.status_code == 200
        let_go.set()
        assert first.result().status_code == 200


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


def test_what_is_computed_for_who_has_gone_is_stopped(client, sample, monkeypatch):
    """On a real server: the one who asks closes the connection, and the solver goes on no more."""
    begun, ended = Event(), Event()
    plain = routes.operating_map

    def endless(*arguments):
        begun.set()
        try:
            while not ended.wait(0):
                plain(*arguments)
        finally:
            ended.set()

    monkeypatch.setattr(routes, "operating_map", endless)
    client.app.state.turns = asyncio.Semaphore(1)
    server = uvicorn.Server(uvicorn.Config(client.app, port=0, log_level="warning", lifespan="off"))
    running = Thread(target=server.run)
    running.start()
    try:
        while not server.started:
            sleep(0.02)
        address = server.servers[0].sockets[0].getsockname()
        lines = ("HTTP/1.1", "Host: 127.0.0.1", "Content-Type: application/json", "Content-Length: 2", "", "{}")
        head = f"POST /api/samples/{sample}/map " + "\r\n".join(lines)
        with socket.create_connection(address) as asking:
            asking.sendall(head.encode())
            assert begun.wait(20)
            assert not ended.wait(0.5)  # somebody waits
        assert ended.wait(5)
        monkeypatch.setattr(routes, "operating_map", plain)
        assert httpx.post(f"http://127.0.0.1:{address[1]}/api/samples/{sample}/map", json={}, timeout=20).status_code == 200
    finally:
        ended.set()
        server.should_exit = True
        running.join()


def test_a_turn_is_given_back_after_an_error(client, blank):
    client.app.state.turns = asyncio.Semaphore(1)
    for _ in range(3):
        assert client.post(f"/api/samples/{blank}/map", json={}).status_code == 409
    assert client.app.state.turns._value == 1

"""One application on an empty database, with what most tests begin with."""

from __future__ import annotations

import shutil
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from builders import changed, plain_document, reading
from tabrel.api.app import create_app
from tabrel.store.migrate import open_database


@pytest.fixture(scope="session")
def empty_database(tmp_path_factory):
    """A database with the newest tables and nothing in it, made once and copied for each test."""
    path = tmp_path_factory.mktemp("empty") / "empty.db"
    open_database(path)
    return path


@pytest.fixture
def client(tmp_path, empty_database):
    static = tmp_path / "static"
    static.mkdir()
    (static / "index.html").write_text("<title>front</title>")
    (tmp_path / "secret.txt").write_text("secret")
    database = Path(shutil.copy(empty_database, tmp_path / "study.db"))
    with TestClient(create_app(database, static=static), base_url="http://127.0.0.1") as client:
        yield client


@pytest.fixture
def sample(client):
    """The plain filter in a study of its own."""
    return client.post("/api/studies", json=plain_document()).json()["samples"][0]["id"]


@pytest.fixture
def blank(client):
    """A sample of which nothing is known."""
    document = {"format": "tabrel-study", "version": 1, "name": "blank", "samples": [{"label": "A"}]}
    return client.post("/api/studies", json=document).json()["samples"][0]["id"]


@pytest.fixture
def study(client):
    """A filter with a weak valve, the plain one, and one of which nothing is known."""
    document = changed(reading("bypass.spring_installed_length", "19 mm"))
    document["samples"].append({**plain_document()["samples"][0], "label": "other"})
    document["samples"].append({"label": "empty"})
    return client.post("/api/studies", json=document).json()


@pytest.fixture
def first(study):
    return study["samples"][0]["id"]

"""One application on an empty database, with what most tests begin with."""

from __future__ import annotations

import shutil
from pathlib import Path

import pytest

from builders import changed, plain_document, reading


@pytest.fixture
def client(serve, empty_database, tmp_path):
    with serve(Path(shutil.copy(empty_database, tmp_path / "study.db"))) as client:
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

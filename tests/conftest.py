from __future__ import annotations

import os
import shutil
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings

from tabrel.api.app import create_app, serve_database
from tabrel.store.migrate import open_database

settings.register_profile("quick", derandomize=True, deadline=None, max_examples=int(os.environ.get("TABREL_EXAMPLES", "15")))
settings.load_profile("quick")

os.environ.pop("PYTHONDONTWRITEBYTECODE", None)  # a server started by a test need not compile everything again


def pytest_make_parametrize_id(val: object, argname: str) -> str | None:
    """Name no case after bytes: those of a zip hold the time, and every worker has to collect the same names."""
    return argname if isinstance(val, bytes) else None


LONGEST_FIRST = (
    "interface/test_whole_filter",
    "interface/test_teardown",
    "reliability",
    "interface/test_access",
    "interface",
    "cli",
)


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Begin with what takes longest, so that no worker is left with it at the end."""

    def rank(item: pytest.Item) -> int:
        return next((i for i, name in enumerate(LONGEST_FIRST) if name in str(item.path)), len(LONGEST_FIRST))

    items.sort(key=rank)


@pytest.fixture(scope="session")
def empty_database(tmp_path_factory):
    """A database with the newest tables and nothing in it, made once and copied for each test."""
    path = tmp_path_factory.mktemp("empty") / "empty.db"
    open_database(path)
    return path


@pytest.fixture(scope="session")
def application(tmp_path_factory, empty_database):
    """The application of this worker, with a front end of one page; each test puts its own database under it."""
    folder = tmp_path_factory.mktemp("application")
    (folder / "static" / "assets").mkdir(parents=True)
    (folder / "static" / "index.html").write_text("<title>front</title>")
    (folder / "static" / "assets" / "index-1a2b3c.js").write_text("1")
    (folder / "secret.txt").write_text("secret")
    return create_app(Path(shutil.copy(empty_database, folder / "unused.db")), static=folder / "static")


@pytest.fixture
def serve(application):
    """Return a function that puts a database under the application and returns a client of it."""

    def on(database, **options):
        serve_database(application, database)
        return TestClient(application, base_url="http://127.0.0.1", **options)

    return on

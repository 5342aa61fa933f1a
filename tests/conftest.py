from __future__ import annotations

import os

from hypothesis import settings

settings.register_profile("repeatable", derandomize=True, deadline=None, max_examples=60)
settings.load_profile("repeatable")

os.environ.pop("PYTHONDONTWRITEBYTECODE", None)  # a server started by a test need not compile everything again


def pytest_make_parametrize_id(val: object, argname: str) -> str | None:
    """Name no case after bytes: those of a zip hold the time, and every worker has to collect the same names."""
    return argname if isinstance(val, bytes) else None

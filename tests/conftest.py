from __future__ import annotations

import os

from hypothesis import settings

settings.register_profile("repeatable", derandomize=True, deadline=None, max_examples=60)
settings.load_profile("repeatable")

os.environ.pop("PYTHONDONTWRITEBYTECODE", None)  # a server started by a test need not compile everything again

from __future__ import annotations

from hypothesis import settings

settings.register_profile("repeatable", derandomize=True, deadline=None, max_examples=60)
settings.load_profile("repeatable")

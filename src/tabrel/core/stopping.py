"""Stop a computation that nobody waits for any more: who starts it says how that is known, and it asks at every step.

Who says so may also hold it up for a moment, so that something shorter goes first.
"""

from __future__ import annotations

from collections.abc import Callable
from contextvars import ContextVar


class StoppedError(Exception):
    """Nobody waits for what is being computed; no result is missing, and nothing is wrong."""


_is_stopped: ContextVar[Callable[[], bool] | None] = ContextVar("is_stopped", default=None)


def stop_when(is_stopped: Callable[[], bool]) -> None:
    """Let whatever is computed in this context from now on stop as soon as `is_stopped` says so."""
    _is_stopped.set(is_stopped)


def stop_if_nobody_waits() -> None:
    """Raise `StoppedError` if nobody waits; called at every step of what takes long."""
    is_stopped = _is_stopped.get()
    if is_stopped is not None and is_stopped():
        raise StoppedError("nobody waits for this any more")

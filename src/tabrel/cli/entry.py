"""Start of the command ``tabrel``: quiet when interrupted while the program is still being loaded."""

from __future__ import annotations

import gc
import signal
from collections.abc import Iterator
from contextlib import contextmanager
from threading import current_thread, main_thread


@contextmanager
def loading() -> Iterator[None]:
    """End at once when interrupted meanwhile: an interrupt raised within an import may be lost in it, or told at length."""
    if current_thread() is not main_thread():
        yield
        return
    before = signal.signal(signal.SIGINT, signal.SIG_DFL)
    try:
        yield
    finally:
        signal.signal(signal.SIGINT, before)


def main() -> int:
    """Load the commands and run one."""
    gc.disable()  # what is loaded stays: to look for garbage among it costs a tenth of the start
    with loading():
        from tabrel.cli.main import main as run

    return run()

"""Start of the command ``tabrel``: quiet when interrupted while the program is still being loaded."""

from __future__ import annotations

import gc
import signal


def main() -> int:
    """Load the commands and run one."""
    signal.signal(signal.SIGINT, signal.SIG_DFL)
    gc.disable()  # what is loaded stays: to look for garbage among it costs a tenth of the start
    from tabrel.cli.main import main as run

    signal.signal(signal.SIGINT, signal.default_int_handler)
    return run()

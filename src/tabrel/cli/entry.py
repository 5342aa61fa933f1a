"""What the command ``tabrel`` starts: quiet when interrupted while the program is still being loaded."""

from __future__ import annotations

import signal


def main() -> int:
    """Load the commands and run one."""
    signal.signal(signal.SIGINT, signal.SIG_DFL)
    from tabrel.cli.main import main as run

    signal.signal(signal.SIGINT, signal.default_int_handler)
    return run()

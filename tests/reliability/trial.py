"""Run one trial by its name in a program of its own, and print what it found."""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path

import bad_input
import torture

if __name__ == "__main__":
    name, *numbers = sys.argv[1:]
    run = getattr(torture, name, None) or getattr(bad_input, name)
    with tempfile.TemporaryDirectory() as folder:
        print(json.dumps(run(Path(folder), *map(int, numbers))))

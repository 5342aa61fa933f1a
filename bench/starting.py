"""How soon the command line starts, and how much script the first page needs."""

from __future__ import annotations

import gzip
import re
import subprocess
import sys
from pathlib import Path

from growth import best_of_each

from tabrel.api.app import STATIC

TABREL = Path(sys.executable).parent / "tabrel"
CASE = Path(__file__).parents[1] / "tests" / "data" / "cases" / "plain.study.json"
LIBRARIES = "import numpy, scipy.special, pydantic, uncertainties"
STARTS = 5


def starting() -> dict[str, object]:
    """Measure help and an analysis from the command line against Python alone and against the libraries they need."""

    def run(*command: str | Path) -> None:
        subprocess.run(command, stdout=subprocess.DEVNULL, check=True)

    bare, libraries, helping, analysing = best_of_each(
        STARTS,
        lambda: run(sys.executable, "-c", "pass"),
        lambda: run(sys.executable, "-c", LIBRARIES),
        lambda: run(TABREL, "--help"),
        lambda: run(TABREL, "analyse", CASE),
    )
    return {
        "name": "starting",
        "help": helping,
        "aim_help": 0.2,
        "help_to_python": helping / bare,
        "analyse": analysing,
        "aim_analyse": 0.7,
        "analyse_to_libraries": analysing / libraries,
        "first_page_kb": first_page_bytes() / 1e3,
        "aim_first_page_kb": 200.0,
    }


def first_page_bytes() -> int:
    """Return the gzipped size of the scripts that the list of studies needs: those of the page, and its own."""
    assets = STATIC / "assets"
    open_ones = re.findall(r'"/assets/([\w.-]+\.js)"', (STATIC / "index.html").read_text())
    open_ones += [path.name for path in assets.glob("StudiesView-*.js")]
    needed: dict[str, int] = {}
    while open_ones:
        name = open_ones.pop()
        if name not in needed:
            content = (assets / name).read_text()
            needed[name] = len(gzip.compress(content.encode()))
            open_ones += re.findall(r'(?:from|import)\s*"\./([\w.-]+\.js)"', content)
    return sum(needed.values())

"""Measure counted tests: the fit with its interval, and a long table on its way in."""

from __future__ import annotations

import csv
import io
import tempfile
import time
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
from fastapi.testclient import TestClient
from growth import best_of
from scipy.optimize import minimize

from tabrel.api.app import create_app
from tabrel.cli.demo import fill_demo
from tabrel.core.counts.counted_test import counted_test
from tabrel.core.counts.totals import count_totals
from tabrel.core.entry.count_table import read_count_table
from tabrel.core.study.model import Counts
from tabrel.stand_ins.counter import SimulatedTest, simulated_counts, write_csv

STAND = SimulatedTest()
FITS = 400
LONG = 10_000
SIZES = range(2, 127)
HEAD = "\t".join(["time (min)", *(f"{side} {size}" for side in ("upstream", "downstream") for size in SIZES)])
HUNDRED_THOUSAND_CELLS = (
    "\n".join("\t".join(["7"] * 1_000) for _ in range(100)),
    f"scale\tum(c)\n{HEAD}\n" + "\n".join("\t".join([str(i), *map(str, SIZES), *map(str, SIZES)]) for i in range(400)),
    f"scale\tum(c)\n{HEAD}\n"
    + "\n".join("\t".join([str(i + 1), *([f"{200 - size}.0" for size in SIZES] * 2)]) for i in range(400)),
)
"""Without headings, at fault from the first row on, and with decimals, which takes longest."""


def table(test: SimulatedTest, seed: int) -> str:
    """Return a simulated test as a table."""
    text = io.StringIO()
    write_csv(test, simulated_counts(test, seed), text)
    return text.getvalue()


def counted(seed: int) -> Counts:
    """Return a simulated test of eight sizes."""
    counts = read_count_table(table(STAND, seed)).counts
    if counts is None:
        raise RuntimeError("the simulated table is not understood")
    return counts


def worked_out(counts: Counts) -> None:
    """Work a test out anew, with the interval at 20 µm(c)."""
    counted_test.__wrapped__(counts).efficiency(20.0)


def simplex(counts: Counts) -> float:
    """Return the slope that SciPy's simplex finds for the same likelihood from a grid of starts: the yardstick."""
    totals = count_totals(counts)
    logs, up, down = np.log(counts.sizes_um), totals.net.upstream, totals.net.downstream

    def cost(parameters: Any) -> float:
        passed = up / (1 + np.exp(np.clip(parameters[1] * (logs - parameters[0]), -60, 60)))
        u, d, through = (-np.diff(array, append=0.0) for array in (up, down, passed))
        share = totals.ratio * np.maximum(through / u, 1e-300)
        s = share / (1 + share)
        return -float((d * np.log(s) + u * np.log1p(-s)).sum())

    result = [minimize(cost, (start, slope), method="Nelder-Mead") for start in logs[::3] for slope in (1.5, 3.0, 5.0)]
    return float(min(result, key=lambda item: item.fun).x[1])


def counted_fit() -> dict[str, Any]:
    """Measure the fit of one test with its interval, and of many different ones."""
    tests = [counted(seed) for seed in range(FITS)]
    seconds, reference = best_of(15, lambda: worked_out(tests[0])), best_of(2, lambda: simplex(tests[0]))
    began = time.perf_counter()
    for counts in tests:
        worked_out(counts)
    return {
        "name": "counted_fit",
        "seconds": seconds,
        "aim_seconds": 0.02,
        "reference_seconds": reference,
        "ratio": reference / seconds,
        "four_hundred_fits": time.perf_counter() - began,
        "aim_four_hundred_fits": 5.0,
    }


def long_table() -> dict[str, Any]:
    """Measure a table of ten thousand intervals: understood, and taken by a running application."""
    text = table(replace(STAND, intervals=LONG), 3)
    seconds = best_of(3, lambda: read_count_table(text))
    reference = best_of(3, lambda: [[cell.strip() for cell in row] for row in csv.reader(io.StringIO(text))])
    taken = []
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "demo.db"
        fill_demo(database)
        with TestClient(create_app(database), base_url="http://127.0.0.1") as client:
            for seed in range(4):
                body = {"text": table(replace(STAND, intervals=LONG), seed)}
                began = time.perf_counter()
                answer = client.put("/api/samples/1/counts", json=body, headers={"If-Match": "*"})
                taken.append(time.perf_counter() - began)
                if answer.status_code != 200:
                    raise RuntimeError(answer.text)
    worst = max(best_of(2, lambda cells=cells: read_count_table(cells)) for cells in HUNDRED_THOUSAND_CELLS)
    return {
        "name": "long_table",
        "seconds": seconds,
        "reference_seconds": reference,
        "ratio": reference / seconds,
        "taken": min(taken),
        "aim_taken": 1.0,
        "hundred_thousand_cells": worst,
        "aim_hundred_thousand_cells": 1.0,
    }

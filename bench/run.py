"""Run the benchmarks and write build/bench.json: seconds, reference seconds and their ratio, in one run."""

from __future__ import annotations

import json
import sys
import tempfile
import time
from collections.abc import Callable
from importlib.resources import files
from pathlib import Path

import numpy as np
from pointwise import PlainPoint

from tabrel.api.maps import DRAWN_SPEEDS, DRAWN_TEMPERATURES, get_map
from tabrel.api.sheet import sheet_out
from tabrel.cli.demo import fill_demo
from tabrel.core.bypass_onset import bypass_onset
from tabrel.core.operating_map import operating_map
from tabrel.core.operating_point import operating_point
from tabrel.document.study_document import read_study
from tabrel.store.connection import connect, transaction
from tabrel.store.readings import insert_reading
from tabrel.store.studies import load_study

TEMPERATURES = np.linspace(-30, 140, 80).tolist()
SPEEDS = np.linspace(600, 7000, 80).tolist()
REPEATS = 25


def best_of(repeats: int, run: Callable[[], object]) -> float:
    """Return the shortest time of several runs. [s]"""
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        run()
        times.append(time.perf_counter() - start)
    return min(times)


def map_80x80() -> dict[str, object]:
    """Measure the vectorised map with its onset curve against brentq point by point on the same residual."""
    document = files("tabrel").joinpath("demo", "mountain_road_service.study.json").read_bytes()
    study = read_study(document)
    point = operating_point(study, study.samples[0])
    evaluations = operating_map(point, TEMPERATURES, SPEEDS).evaluations

    def vectorised() -> None:
        operating_map(point, TEMPERATURES, SPEEDS)
        bypass_onset(point, SPEEDS)

    def pointwise() -> None:
        for temperature in TEMPERATURES:
            for speed in SPEEDS:
                PlainPoint(point, temperature, speed).solve()

    seconds, reference = best_of(REPEATS, vectorised), best_of(2, pointwise)
    return {
        "name": "map_80x80",
        "seconds": seconds,
        "reference_seconds": reference,
        "ratio": reference / seconds,
        "residual_evaluations": evaluations,
    }


def reading_to_view() -> dict[str, object]:
    """Measure what follows a changed reading (stored, sheet, map of the view, as JSON) against the map point by point."""
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "bench.db"
        fill_demo(database)
        conn = connect(database)

        def follow() -> None:
            with transaction(conn):
                insert_reading(conn, "media.strip_length", "1.76 m", sample_id=1)
            sheet_out(conn, 1).model_dump_json()
            get_map(1, conn).model_dump_json()

        seconds = best_of(REPEATS, follow)
        study = load_study(conn, 1)
        conn.close()
    point = operating_point(study, study.samples[0])

    def pointwise() -> None:
        for temperature in DRAWN_TEMPERATURES.tolist():
            if point.oil.pumps(temperature):
                for speed in DRAWN_SPEEDS.tolist():
                    PlainPoint(point, temperature, speed).solve()

    reference = best_of(2, pointwise)
    return {
        "name": "reading_to_view",
        "seconds": seconds,
        "reference_seconds": reference,
        "ratio": reference / seconds,
    }


def main() -> None:
    """Run all benchmarks."""
    results = [map_80x80(), reading_to_view()]
    target = Path("build/bench.json")
    target.parent.mkdir(exist_ok=True)
    target.write_text(json.dumps(results, indent=1) + "\n")
    for result in results:
        print(
            f"{result['name']}: {result['seconds']:.4f} s, reference {result['reference_seconds']:.3f} s, "
            f"ratio {result['ratio']:.0f}",
            file=sys.stderr,
        )


if __name__ == "__main__":
    main()

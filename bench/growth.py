"""How cost grows with what is computed, and yardsticks that other libraries give: each a ratio, or an exponent, of one run."""

from __future__ import annotations

import json
import time
from collections.abc import Callable, Iterable
from importlib.resources import files
from pathlib import Path
from typing import Any

import numpy as np
from fastapi.testclient import TestClient
from numpy.typing import NDArray
from scipy.optimize.elementwise import find_root

from tabrel.api.app import create_app
from tabrel.core.circuit.filter_flow import lowest_unknown
from tabrel.core.circuit.state import OperatingPoint, Problem
from tabrel.core.maps.monte_carlo import quantity_band, sampled_problem
from tabrel.core.maps.operating_map import operating_map
from tabrel.core.study.model import Study
from tabrel.core.uncertainty.model_arrays import flattened, picked
from tabrel.core.uncertainty.sampling import random_quantiles
from tabrel.document.study_document import read_study
from tabrel.store.connection import connect, transaction
from tabrel.store.migrate import open_database
from tabrel.store.study.studies import insert_study

GRIDS = (20, 40, 80, 160)
DRAWS = (250, 500, 1000, 2000, 4000)
GREATEST_EXPONENT = 1.1
SAMPLES_OF_A_STUDY = 10


def best_of(repeats: int, run: Callable[[], object]) -> float:
    """Return the shortest time of several runs. [s]"""
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        run()
        times.append(time.perf_counter() - start)
    return min(times)


def exponent(sizes: Iterable[float], seconds: Iterable[float]) -> float:
    """Return by which power of the size the time grows, fitted over all sizes."""
    return float(np.polyfit(np.log(list(sizes)), np.log(list(seconds)), 1)[0])


def best_of_each(rounds: int, *runs: Callable[[], object]) -> list[float]:
    """Return the shortest time of each of several runs that take turns of three, however the machine's speed varies. [s]"""
    times = [[best_of(3, run) for run in runs] for _ in range(rounds)]
    return [min(of_one) for of_one in zip(*times, strict=True)]


def elementwise(point: OperatingPoint, temperatures: list[float], speeds: list[float]) -> Callable[[], object]:
    """Return SciPy's vectorised bracketing root finder, to be run on the same residual over the same grid."""
    pumps = [celsius for celsius in temperatures if point.oil.pumps(np.array([celsius]))[0]]
    temperature, speed = (grid.ravel() for grid in np.meshgrid(pumps, speeds, indexing="ij"))
    problem = flattened(Problem(point, point.place(temperature, speed)), temperature.shape)
    upper = np.broadcast_to(np.asarray(point.circuit.highest_pump_pressure(speed)), speed.shape)

    def balance(x: NDArray[np.float64], i: NDArray[np.float64]) -> NDArray[np.float64]:
        chosen = picked(problem, i.astype(np.intp))
        return np.asarray(chosen.point.state(x, chosen.place).balance.value)

    lower = np.full(speed.shape, lowest_unknown(point.filter))
    places = np.arange(speed.size, dtype=float)
    return lambda: find_root(balance, (lower, upper), args=(places,), tolerances={"xrtol": 1e-9})


def growth_of_maps(point: OperatingPoint) -> dict[str, Any]:
    """Measure maps of more and more places."""
    seconds = []
    for size in GRIDS:
        axes = np.linspace(-30, 140, size).tolist(), np.linspace(600, 7000, size).tolist()
        seconds.append(best_of(7, lambda axes=axes: operating_map(point, *axes)))  # type: ignore[misc]
    return grown("growth_of_maps", "places", [size**2 for size in GRIDS], seconds)


def growth_of_draws(study: Study) -> dict[str, Any]:
    """Measure a slice with its band from more and more draws."""
    temperatures, speeds = np.linspace(-35, 130, 40), np.full(40, 2000.0)
    seconds = []
    for draws in DRAWS:
        problem = sampled_problem(study, study.samples[1], quantiles=random_quantiles(draws))
        seconds.append(best_of(2, lambda problem=problem: list(quantity_band(problem, temperatures, speeds, "element_pressure"))))  # type: ignore[misc]
    return grown("growth_of_draws", "draws", DRAWS, seconds)


def workshop_study() -> Study:
    """Return a study of ten filters: the first one of the demo, ten times, with nothing that names the others."""
    document = json.loads(files("tabrel").joinpath("demo", "mountain_road_service.study.json").read_bytes())
    first = document["samples"][0]
    document["samples"] = [{**first, "label": f"{first['label']} {i}"} for i in range(SAMPLES_OF_A_STUDY)]
    for named in ("reference", "uses", "arithmetic"):
        document.pop(named)
    return read_study(json.dumps(document))


def fill_workshop(database: Path, studies: int) -> None:
    """Fill a database with studies of ten samples each."""
    study = workshop_study()
    open_database(database)
    conn = connect(database)
    with transaction(conn):
        for _ in range(studies):
            insert_study(conn, study)
    conn.close()


def growth_of_samples(databases: dict[int, Path]) -> dict[str, Any]:
    """Measure a reading taken and answered, and a study's list of results read, with more and more samples in the database."""
    readings, lists = [], []
    for samples, database in databases.items():
        with TestClient(create_app(database), base_url="http://127.0.0.1") as client:
            sample, study = max(1, samples // 2), max(1, samples // 20)
            since = [client.get(f"/api/samples/{sample}").json()["revision"]]

            def follow(client: TestClient = client, sample: int = sample, since: list[int] = since) -> None:
                body = {"key": "holes.inlet[0].diameter", "text": "6.05 mm"}
                answer = client.post(f"/api/samples/{sample}/readings", params={"since": since[-1]}, json=body)
                since.append(answer.json()["changes"]["revision"])

            readings.append(best_of(15, follow))
            client.get(f"/api/studies/{study}/results")
            lists.append(best_of(15, lambda client=client, study=study: client.get(f"/api/studies/{study}/results")))  # type: ignore[misc]
    return grown("growth_of_samples", "samples", databases, readings) | {
        "exponent_of_lists": exponent(databases, lists),
        "seconds_of_lists": lists,
    }


def grown(name: str, of: str, sizes: Iterable[int], seconds: list[float]) -> dict[str, Any]:
    """Return how cost grows as it is written."""
    sizes = list(sizes)
    return {
        "name": name,
        of: sizes,
        "seconds_by_size": seconds,
        "exponent": exponent(sizes, seconds),
        "aim_exponent": GREATEST_EXPONENT,
    }


ASKED = {
    "keys": ["1", "2", "3", "4", "5"],
    "along": "temperature",
    "at": 2000,
    "quantity": "element_pressure",
    "condition": "steady",
}


def side_by_side(database: Path) -> dict[str, Any]:
    """Measure the bands of five filters, one after the other and by processes that wait for them."""
    app = create_app(database)
    with TestClient(app, base_url="http://127.0.0.1") as client:

        def ask() -> tuple[float, float]:
            start, first = time.perf_counter(), 0.0
            with client.stream("POST", "/api/studies/1/slices", json=ASKED) as answer:
                for line in answer.iter_lines():
                    if json.loads(line)["line"]["kind"] == "band" and not first:
                        first = time.perf_counter() - start
            return time.perf_counter() - start, first

        workers, together, one_by_one = app.state.workers, [], []
        workers.warm()
        until = time.perf_counter() + 30
        while not workers.are_warm and time.perf_counter() < until:
            time.sleep(0.05)
        ask()
        for _ in range(5):  # they take turns, since the machine's speed varies
            together.append(ask())
            workers.are_warm = False
            one_by_one.append(ask()[0])
            workers.are_warm = True
    seconds = min(whole for whole, _ in together)
    return {
        "name": "side_by_side",
        "seconds": seconds,
        "reference_seconds": min(one_by_one),
        "ratio": seconds / min(one_by_one),
        "aim_ratio": 0.55,
        "first_seconds": min(first for _, first in together),
        "aim_first_seconds": 0.7,
    }

"""Input at its worst: files damaged on their way, numbers at their limits."""

from __future__ import annotations

import copy
import random
import re
from collections import Counter
from pathlib import Path

from torture import REFUSED, TAKEN, ask, client_of

from api_steps import WORKBOOK, ZIP
from builders import everything
from tabrel.cli.demo import fill_demo
from tabrel.core.catalogue.physical_limits import NEXT_TO_NOTHING, PHYSICAL_LIMITS
from tabrel.store.upkeep.verify import faults_of


def damaged(content: bytes, dice: random.Random) -> bytes:
    """Return a file with one to twenty accidents: bytes overwritten, most of them in the heads of a zip, cut out or cut off."""
    result = bytearray(content)
    heads = [match.start() for match in re.finditer(rb"PK(\x01\x02|\x03\x04|\x05\x06)", content)]
    for _ in range(dice.choice((1, 1, 2, 5, 20))):
        kind = dice.random()
        place = dice.choice(heads) + dice.randrange(46) if kind < 0.6 and heads else dice.randrange(len(result))
        if kind > 0.97:
            del result[place : place + dice.randrange(1, 400)]
        elif kind > 0.94:
            del result[max(place, 1) :]
        elif place < len(result):
            result[place] = dice.choice((0, 1, 8, 12, 14, 99, 255, dice.randrange(256)))
    return bytes(result) or b"P"


def damaged_files(folder: Path, times: int, seed: int = 4) -> Counter[str]:
    """Import packages, workbooks and documents that were damaged on their way; count what is no sentence and no answer."""
    dice, outcome = random.Random(seed), Counter[str]()
    path = folder / "imported.db"
    fill_demo(path)
    with client_of(path) as client:
        files = (
            ("packages", client.get("/api/studies/1/report/files/zip").content, ZIP),
            ("spreadsheet-text", client.get("/api/studies/1/report/files/xlsx").content, WORKBOOK),
            ("studies", client.get("/api/studies/1/document").content, {"Content-Type": "application/json"}),
        )
        for trial in range(times):
            address, content, kind = files[trial % len(files)]
            answer = client.post(f"/api/{address}", content=damaged(content, dice), headers=kind)
            outcome["files"] += 1
            outcome["taken"] += answer.status_code in TAKEN
            refused = answer.status_code in REFUSED and bool(answer.json().get("detail"))
            if answer.status_code not in TAKEN and not refused:
                outcome["server errors"] += 1
                outcome[f"error at {address}, trial {trial}"] += 1
    outcome["faults"] = len(faults_of(path))
    return outcome


COMPUTED = (
    ("GET", "/api/studies/{study}/results", None),
    ("GET", "/api/studies/{study}/behaviour", None),
    ("GET", "/api/studies/{study}/uses/{use}/judged", None),
    ("GET", "/api/studies/{study}/comparison-sheet", None),
    ("POST", "/api/studies/{study}/comparison", {"temperature_c": -20, "speed_rpm": 2000}),
    ("POST", "/api/studies/{study}/warm-up", {}),
    ("GET", "/api/samples/{sample}", None),
    ("GET", "/api/samples/{sample}/figures", None),
    ("GET", "/api/samples/{sample}/engine", None),
    ("POST", "/api/samples/{sample}/map", {}),
    ("POST", "/api/samples/{sample}/filter-alone", {}),
    ("POST", "/api/samples/{sample}/sensitivity", {"condition": "steady", "quantity": "element_pressure"}),
)


def places_of_numbers(value: object, path: tuple[str | int, ...] = ()) -> list[tuple[str | int, ...]]:
    """Return where the numbers of a document are that have physical limits."""
    if isinstance(value, dict):
        return [place for key, item in value.items() for place in places_of_numbers(item, (*path, key))]
    if isinstance(value, list):
        return [place for i, item in enumerate(value) for place in places_of_numbers(item, (*path, i))]
    is_number = isinstance(value, int | float) and not isinstance(value, bool)
    return [path] if is_number and path[-1] in PHYSICAL_LIMITS else []


def numbers_at_their_limits(folder: Path, times: int, seed: int = 5) -> Counter[str]:
    """Set one to three numbers of the demo study to an end of their limits and compute everything; count errors."""
    dice, outcome = random.Random(seed), Counter[str]()
    path = folder / "limits.db"
    fill_demo(path)
    with client_of(path) as client:
        documents = [client.get("/api/studies/1/document").json(), {**everything(), "version": 2}]
        documents[1]["samples"][0].pop("archived", None)
        kinds = {
            (i, *(step for step in place if isinstance(step, str))): (i, place)
            for i, document in enumerate(documents)
            for place in places_of_numbers(document)
        }
        places = dice.sample(list(kinds.values()), len(kinds))
        for trial in range(times):
            which, first = places[trial % len(places)]
            others = dice.sample([place for of, place in places if of == which], dice.choice((0, 0, 1, 2)))
            document, changed = copy.deepcopy(documents[which]), {}
            for place in (first, *others):
                limits = PHYSICAL_LIMITS[str(place[-1])]
                ends = (limits.least or (1.01 * NEXT_TO_NOTHING if limits.is_above else 0.0), limits.greatest)
                changed[place] = ends[trial // len(places) % 2] if place == first else dice.choice(ends)
                here = document
                for step in place[:-1]:
                    here = here[step]
                here[place[-1]] = changed[place]
            answer = client.post("/api/studies", json=document)
            outcome["studies"] += 1
            if answer.status_code not in TAKEN:
                outcome["refused" if answer.status_code in REFUSED else "server errors"] += 1
                continue
            study, sample = answer.json()["id"], answer.json()["samples"][0]["id"]
            use = next(iter(client.get(f"/api/studies/{study}/uses").json()["uses"]))["id"]
            for method, address, body in COMPUTED:
                status = ask(client, method, address.format(study=study, sample=sample, use=use), body)
                outcome["computed"] += 1
                if status not in TAKEN and status not in REFUSED:
                    outcome["server errors"] += 1
                    outcome[f"error {status} at {address} with {changed}"] += 1
    return outcome

"""Files that come in damaged: packages, workbooks and documents."""

from __future__ import annotations

import json
import random
import re
from base64 import b64encode
from collections import Counter
from pathlib import Path

from torture import REFUSED, TAKEN, client_of

from tabrel.cli.demo import fill_demo
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
        package = client.get("/api/studies/1/report/files/zip").content
        workbook = client.get("/api/studies/1/report/files/xlsx").content
        document = client.get("/api/studies/1/document").content
        for trial in range(times):
            address, content = (("packages", package), ("spreadsheet-text", workbook), ("studies", document))[trial % 3]
            content = damaged(content, dice)
            body = content if address == "studies" else json.dumps({"content_base64": b64encode(content).decode()})
            answer = client.post(f"/api/{address}", content=body, headers={"Content-Type": "application/json"})
            outcome["files"] += 1
            outcome["taken"] += answer.status_code in TAKEN
            refused = answer.status_code in REFUSED and bool(answer.json().get("detail"))
            if answer.status_code not in TAKEN and not refused:
                outcome["server errors"] += 1
                outcome[f"error at {address}, trial {trial}"] += 1
    outcome["faults"] = len(faults_of(path))
    return outcome

"""``tabrel map STUDY.json``: the operating map of one sample as one JSON object."""

from __future__ import annotations

import argparse
from pathlib import Path

from tabrel.cli.output import put_json
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.errors import OutOfRangeError
from tabrel.core.maps.onset import bypass_onset
from tabrel.core.maps.operating_map import operating_map
from tabrel.document.results import map_out
from tabrel.document.study_document import read_study_file

MOST_CELLS = 250_000
"""A map of so many cells takes some 5 s and half a GB."""


def number_list(text: str) -> list[float]:
    """Return comma-separated numbers."""
    try:
        return [float(part) for part in text.split(",")]
    except ValueError as error:
        raise argparse.ArgumentTypeError(f"{text!r} is no list of numbers: write it like -30,0,40") from error


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what this command takes."""
    parser.add_argument("study", type=Path, metavar="STUDY.json", help="a study document")
    parser.add_argument("--sample", required=True, metavar="LABEL", help="label of the sample")
    parser.add_argument("--temperatures", required=True, type=number_list, metavar="LIST", help="oil temperatures in °C")
    parser.add_argument("--speeds", required=True, type=number_list, metavar="LIST", help="engine speeds in rpm")
    parser.add_argument("--condition", choices=("steady", "filling"), default="steady", help="default: steady")
    parser.add_argument("--loading", type=float, default=1.0, help="factor on the media's resistance, default 1.0")
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Print the map."""
    study = read_study_file(arguments.study)
    sample = study.sample(arguments.sample)
    if not arguments.loading > 0:
        raise OutOfRangeError(f"--loading must be above zero, not {arguments.loading:g}: 1 is a clean filter")
    cells = len(arguments.temperatures) * len(arguments.speeds)
    if cells > MOST_CELLS:
        raise OutOfRangeError(f"a map of {cells} cells is more than {MOST_CELLS}: ask for fewer temperatures or speeds")
    point = operating_point(study, sample, condition=arguments.condition, loading=arguments.loading)
    solved = operating_map(point, arguments.temperatures, arguments.speeds)
    onset = bypass_onset(point, arguments.speeds, solved)
    put_json(map_out(solved, onset).model_dump(mode="json"))
    return 0

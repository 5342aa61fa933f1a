"""``tabrel analyse STUDY.json``: results and warnings of every sample as one JSON object."""

from __future__ import annotations

import argparse
from pathlib import Path

from tabrel.cli.output import put_json
from tabrel.core.results.analysis import analyse_sample
from tabrel.document.results import analysis_out
from tabrel.document.study_document import read_study_file


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what this command takes."""
    parser.add_argument("study", type=Path, metavar="STUDY.json", help="a study document")
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Print the analysis."""
    study = read_study_file(arguments.study)
    samples = []
    for sample in study.samples:
        plain = analysis_out(sample.label, analyse_sample(sample, study.circuit)).model_dump(mode="json")
        samples.append(plain)
    put_json({"samples": samples})
    return 0

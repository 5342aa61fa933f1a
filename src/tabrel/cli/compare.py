"""``tabrel compare STUDY.json --use NAME``: which filter for this use, and how sure, as one JSON object."""

from __future__ import annotations

import argparse
from pathlib import Path

from tabrel.cli.output import put_json
from tabrel.core.judge.judged_use import judge_use, use_named
from tabrel.document.judged_use import judged_use_out
from tabrel.document.study_document import read_study_file


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what this command takes."""
    parser.add_argument("study", type=Path, metavar="STUDY.json", help="a study document")
    parser.add_argument("--use", required=True, metavar="NAME", help="name of one of its uses")
    parser.add_argument("--specimens", action="store_true", help="judge these specimens, not their part numbers")
    parser.add_argument("--any-weights", action="store_true", help="chances over all weights there can be")
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Print the judged use."""
    study = read_study_file(arguments.study)
    use = use_named(study, arguments.use)
    judged = judge_use(study, use, specimens=arguments.specimens, any_weights=arguments.any_weights)
    put_json(judged_use_out(judged))
    return 0

"""``tabrel schema``: the JSON Schema of the study document."""

from __future__ import annotations

import argparse

from tabrel.cli.output import put_json
from tabrel.document.full_study import full_study_schema


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what this command takes."""
    parser.set_defaults(run=run)


def run(_: argparse.Namespace) -> int:
    """Print the schema."""
    put_json(full_study_schema())
    return 0

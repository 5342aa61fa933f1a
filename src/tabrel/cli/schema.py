"""``tabrel schema``: the JSON Schema of the study document."""

from __future__ import annotations

import argparse
from typing import Any

from tabrel.cli.output import put_json
from tabrel.document.full_study import full_study_schema


def add_to(commands: Any) -> None:
    """Add this command to the parser."""
    parser = commands.add_parser("schema", help="print the JSON Schema of the study document")
    parser.set_defaults(run=run)


def run(_: argparse.Namespace) -> int:
    """Print the schema."""
    put_json(full_study_schema())
    return 0

"""``tabrel schema``: the JSON Schema of the study document."""

from __future__ import annotations

import argparse
import json
from typing import Any

from tabrel.document.study_document import study_schema


def add_to(commands: Any) -> None:
    """Add this command to the parser."""
    parser = commands.add_parser("schema", help="print the JSON Schema of the study document")
    parser.set_defaults(run=run)


def run(_: argparse.Namespace) -> int:
    """Print the schema."""
    print(json.dumps(study_schema(), indent=1, ensure_ascii=False))
    return 0

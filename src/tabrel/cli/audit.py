"""``tabrel audit AUDIT.json``: printed sums recomputed line by line, as one JSON object."""

from __future__ import annotations

import argparse
from pathlib import Path

from tabrel.cli.output import put_json
from tabrel.document.audit import audit_out, checked, read_audit_file


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what this command takes."""
    parser.add_argument("audit", type=Path, metavar="AUDIT.json", help="an audit document")
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Print the audit."""
    put_json(audit_out(checked(read_audit_file(arguments.audit))))
    return 0

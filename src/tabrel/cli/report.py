"""``tabrel report STUDY.json -o FILE``: the report of a study, by the file's ending; always a draft."""

from __future__ import annotations

import argparse
from datetime import UTC, datetime
from pathlib import Path

from tabrel.cli.output import put, write_file
from tabrel.core.study.report_plan import SIZES
from tabrel.document.full_study import read_full_study
from tabrel.document.plain_json import content_of


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what this command takes."""
    parser.add_argument("study", type=Path, metavar="STUDY.json", help="a study document")
    parser.add_argument("-o", "--output", type=Path, required=True, metavar="FILE", help="its ending says what is written")
    parser.add_argument("--size", choices=tuple(SIZES), help="of the pages; without it the study's own, else short")
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Write the report and say where it is."""
    from tabrel.report.inputs import ReportInputs
    from tabrel.report.written import require_ending, written_as

    target: Path = arguments.output
    require_ending(target.suffix)
    full = read_full_study(content_of(arguments.study))
    inputs = ReportInputs(full.study).in_size(arguments.size)
    content = written_as(target.suffix, inputs, full, datetime.now(UTC).date().isoformat())
    write_file(target, content)
    put(f"{target}: draft, not issued, {len(content) / 1e6:.1f} MB.")
    return 0

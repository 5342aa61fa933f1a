"""``tabrel import FILE.zip``: a package, or a study document, read back: printed as a document, or put into a database."""

from __future__ import annotations

import argparse
from pathlib import Path

from tabrel.cli.output import put, put_json
from tabrel.core.errors import StudyError
from tabrel.document.full_study import FullStudy, full_study_to_json, read_full_study
from tabrel.document.plain_json import content_of
from tabrel.store.connection import connect, transaction
from tabrel.store.service import open_for_service
from tabrel.store.study.history import insert_with_history
from tabrel.store.study.studies import insert_study


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what this command takes."""
    parser.add_argument("file", type=Path, metavar="FILE.zip", help="what `tabrel report` wrote, or a study document")
    parser.add_argument("--database", type=Path, metavar="FILE", help="put the study into this database instead of printing it")
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Read a file back, whole or not at all."""
    full = _read(content_of(arguments.file))
    if arguments.database is None:
        put_json(full_study_to_json(full))
        return 0
    opened = open_for_service(arguments.database)
    if opened.warning:
        raise StudyError(str(arguments.database), f"nothing can be put into it: {opened.warning}")
    conn = connect(arguments.database)
    try:
        with transaction(conn):
            if full.history:
                insert_with_history(conn, full.study, full.history)
            else:
                insert_study(conn, full.study)
            if full.library:
                from tabrel.api.study.library import insert_library

                insert_library(conn, full.library)
    finally:
        conn.close()
    count = len(full.study.samples)
    put(f"{full.study.name}: {count} filter{'' if count == 1 else 's'} put into {arguments.database}.")
    return 0


def _read(content: bytes) -> FullStudy:
    from tabrel.report.package import study_in_package

    return study_in_package(content) if content.startswith(b"PK") else read_full_study(content)

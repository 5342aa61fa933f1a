"""``tabrel demo``: the application with demo data, filled in once."""

from __future__ import annotations

import argparse
from importlib.resources import files
from pathlib import Path

from tabrel.cli.serve import add_options, serve
from tabrel.document.study_document import read_study
from tabrel.store.connection import connect, transaction
from tabrel.store.service import open_for_service
from tabrel.store.study.studies import insert_study, list_studies

DEMO_DATABASE = Path("data/demo.db")


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what this command takes."""
    add_options(parser, DEMO_DATABASE)
    parser.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    """Fill the demo database if it is empty, and serve it."""
    fill_demo(arguments.database)
    return serve(arguments.database, arguments.port)


def demo_documents() -> list[bytes]:
    """Return the study documents that ship as demo data."""
    folder = files("tabrel").joinpath("demo")
    return [
        entry.read_bytes() for entry in sorted(folder.iterdir(), key=lambda entry: entry.name) if entry.name.endswith(".json")
    ]


def fill_demo(database: Path) -> None:
    """Store the demo studies in a database that holds no study; one that cannot be written stays as it is."""
    if open_for_service(database).warning:
        return
    conn = connect(database)
    try:
        with transaction(conn):
            if not list_studies(conn):
                for content in demo_documents():
                    insert_study(conn, read_study(content))
    finally:
        conn.close()

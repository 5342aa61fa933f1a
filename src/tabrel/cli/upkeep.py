"""``tabrel backup``, ``restore``, ``verify``: a database is copied while in use, put back, and looked through for faults."""

from __future__ import annotations

import argparse
from pathlib import Path

from tabrel.cli.output import put
from tabrel.cli.serve import DEFAULT_DATABASE
from tabrel.store.upkeep.backup import BackupError, backup, restore
from tabrel.store.upkeep.verify import faults_of


def add_backup_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what ``backup`` takes."""
    _add_database(parser)
    parser.add_argument("file", type=Path, metavar="TARGET", help="a new file, or a folder")
    parser.set_defaults(run=run_backup)


def add_restore_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what ``restore`` takes."""
    _add_database(parser)
    parser.add_argument("file", type=Path, metavar="SOURCE", help="the copy")
    parser.set_defaults(run=run_restore)


def add_verify_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what ``verify`` takes."""
    _add_database(parser)
    parser.set_defaults(run=run_verify)


def _add_database(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--database", type=Path, default=DEFAULT_DATABASE, metavar="FILE", help=f"default: {DEFAULT_DATABASE}")


def run_backup(arguments: argparse.Namespace) -> int:
    """Copy a database and say where the copy is."""
    target = backup(arguments.database, arguments.file)
    put(f"{target} is a whole copy of {arguments.database}, {target.stat().st_size / 1e6:.1f} MB.")
    return 0


def run_restore(arguments: argparse.Namespace) -> int:
    """Put a copy back and say where what was there is kept."""
    restored = restore(arguments.database, arguments.file)
    put(f"{arguments.database} is now as {arguments.file} was{restored.words}.")
    return 0


def run_verify(arguments: argparse.Namespace) -> int:
    """Print every fault of a database; exit status 1 where there is one."""
    if not arguments.database.is_file():
        raise BackupError(f"there is no database {arguments.database}: name it with --database")
    faults = faults_of(arguments.database)
    for fault in faults:
        put(fault)
    return 1 if faults else 0

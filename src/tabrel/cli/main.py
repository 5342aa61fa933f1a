"""Entry point of ``tabrel``: dispatch, and one line on standard error with exit status 2 for bad input."""

from __future__ import annotations

import argparse
import sqlite3
import sys
from collections.abc import Sequence
from typing import NoReturn

import numpy as np

from tabrel.cli import analyse, audit, compare, demo, import_study, map, report, schema, serve, simulate, upkeep
from tabrel.cli.output import OutputError, put
from tabrel.core.errors import MissingInputsError, TabrelError
from tabrel.store.errors import fault_of

COMMANDS = (analyse, audit, compare, map, report, import_study, schema, serve, demo, upkeep, simulate)
LIST_OPTIONS = ("--temperatures", "--speeds")


class OneLineParser(argparse.ArgumentParser):
    """A parser whose complaint is one line."""

    def error(self, message: str) -> NoReturn:
        """Print one line to standard error and exit with status 2."""
        self.exit(2, f"{self.prog}: {message} (see {self.prog} --help)\n")


def build_parser() -> argparse.ArgumentParser:
    """Return the parser with every command."""
    parser = OneLineParser(prog="tabrel", description="Engine oil filters: from measured dimensions to operating maps.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND", parser_class=OneLineParser)
    for command in COMMANDS:
        command.add_to(commands)
    return parser


def joined_lists(arguments: Sequence[str]) -> list[str]:
    """Return the arguments with ``--temperatures -30,0`` as one word, which argparse would take for an option."""
    joined: list[str] = []
    waiting = iter(arguments)
    for argument in waiting:
        value = next(waiting, None) if argument in LIST_OPTIONS else None
        joined.append(argument if value is None else f"{argument}={value}")
    return joined


def main(arguments: Sequence[str] | None = None) -> int:
    """Run a command and return its exit status."""
    command = ""
    try:
        parsed = _parsed(joined_lists(sys.argv[1:] if arguments is None else arguments))
        command = f" {parsed.command}"
        with np.errstate(all="ignore"):  # extreme numbers end as null in the output, not as noise
            status: int = parsed.run(parsed)
        return status
    except OutputError as error:
        if str(error):
            print(f"tabrel{command}: {error}", file=sys.stderr)
        return 1
    except MissingInputsError as error:
        message = f"cannot be computed yet, {error}: add these to the study"
    except TabrelError as error:
        message = str(error)
    except sqlite3.Error as error:
        fault = fault_of(error)
        if fault is None:
            raise
        message = str(fault)
    except ArithmeticError:
        message = "the numbers in the study are too large or too small to compute with: check them"
    except KeyboardInterrupt:
        return 130
    print(f"tabrel{command}: {' '.join(message.split())}", file=sys.stderr)
    return 2


def _parsed(arguments: list[str]) -> argparse.Namespace:
    """Return what a command is called with; help that is printed instead has to arrive as well."""
    try:
        return build_parser().parse_args(arguments)
    except SystemExit:
        put("", end="")
        raise

"""Entry point of ``tabrel``: dispatch, and one line on standard error with exit status 2 for bad input."""

from __future__ import annotations

import argparse
import gc
import sqlite3
import sys
from collections.abc import Sequence
from importlib import import_module
from typing import NoReturn

from tabrel.cli.entry import loading
from tabrel.cli.output import OutputError, put
from tabrel.core.errors import MissingInputsError, TabrelError
from tabrel.store.errors import MisfitError, fault_of

COMMANDS = {
    "analyse": ("analyse", "add_arguments", "print results and warnings of every sample as JSON"),
    "audit": ("audit", "add_arguments", "recompute printed results from their printed inputs"),
    "compare": ("compare", "add_arguments", "rank and judge the filters of a study for one of its uses"),
    "map": ("map", "add_arguments", "print the operating map of one sample as JSON"),
    "report": (
        "report",
        "add_arguments",
        "write the report of a study: .pdf, .html, .xlsx, .csv (results) or .zip (all of it)",
    ),
    "import": (
        "import_study",
        "add_arguments",
        "read a package (.zip) or a study document back: print it, or put it into a database",
    ),
    "schema": ("schema", "add_arguments", "print the JSON Schema of the study document"),
    "serve": ("serve", "add_arguments", "serve the application on this machine"),
    "demo": ("demo", "add_arguments", "serve the application with demo data"),
    "backup": ("upkeep", "add_backup_arguments", "copy a database while it is in use, and verify the copy"),
    "restore": ("upkeep", "add_restore_arguments", "put a copy in a database's place; what was there is kept beside it"),
    "verify": ("upkeep", "add_verify_arguments", "look a database through: one line a fault"),
    "simulate": ("simulate", "add_arguments", "write a test as a simulated device takes it"),
}
"""Module, the function in it that adds what the command takes, and help; a module is imported when its command is called."""
LIST_OPTIONS = ("--temperatures", "--speeds")


class OneLineParser(argparse.ArgumentParser):
    """A parser whose complaint is one line."""

    def error(self, message: str) -> NoReturn:
        """Print one line to standard error and exit with status 2."""
        self.exit(2, f"{self.prog}: {message} (see {self.prog} --help)\n")


def build_parser(called: str) -> argparse.ArgumentParser:
    """Return the parser with every command, and with what the called one takes."""
    parser = OneLineParser(prog="tabrel", description="Engine oil filters: from measured dimensions to operating maps.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND", parser_class=OneLineParser)
    for name, (module, function, words) in COMMANDS.items():
        command = commands.add_parser(name, help=words)
        if name == called:
            getattr(import_module(f"tabrel.cli.{module}"), function)(command)
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
    command, status = "", 2
    try:
        with loading():
            parsed = _parsed(joined_lists(sys.argv[1:] if arguments is None else arguments))
        command = f" {parsed.command}"
        return _run(parsed)
    except OutputError as error:
        if str(error):
            print(f"tabrel{command}: {error}", file=sys.stderr)
        return 1
    except MissingInputsError as error:
        message = f"cannot be computed yet, {error}: add these to the study"
    except MisfitError as error:
        message, status = str(error), 1
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
    return status


def _run(parsed: argparse.Namespace) -> int:
    with loading():
        import numpy as np  # after the command line was understood: help waits for nothing

    gc.enable()
    with np.errstate(all="ignore"):  # extreme numbers end as null in the output, not as noise
        status: int = parsed.run(parsed)
    return status


def _parsed(arguments: list[str]) -> argparse.Namespace:
    """Return what a command is called with; help that is printed instead has to arrive as well."""
    try:
        return build_parser(next((argument for argument in arguments if not argument.startswith("-")), "")).parse_args(arguments)
    except SystemExit:
        put("", end="")
        raise

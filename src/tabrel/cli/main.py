"""Entry point of ``tabrel``: dispatch, and one line on standard error with exit status 2 for bad input."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Sequence
from typing import NoReturn

import numpy as np

from tabrel.cli import analyse, demo, map, schema, serve
from tabrel.core.errors import MissingInputsError, TabrelError

COMMANDS = (analyse, map, schema, serve, demo)
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
    parsed = build_parser().parse_args(joined_lists(sys.argv[1:] if arguments is None else arguments))
    try:
        with np.errstate(all="ignore"):  # extreme numbers end as null in the output, not as noise
            status: int = parsed.run(parsed)
        return status
    except MissingInputsError as error:
        message = f"cannot be computed yet, {error}: add these to the study"
    except TabrelError as error:
        message = str(error)
    except ArithmeticError:
        message = "the numbers in the study are too large or too small to compute with: check them"
    except KeyboardInterrupt:
        return 130
    print(f"tabrel {parsed.command}: {' '.join(message.split())}", file=sys.stderr)
    return 2

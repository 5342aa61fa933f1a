"""Write what a command prints, and say in a sentence where that cannot be done."""

from __future__ import annotations

import json
import os
import sys
from pathlib import Path
from typing import Any

from tabrel.core.errors import TabrelError


class OutputError(TabrelError):
    """Output of a command cannot be written; empty if its reader has closed it."""


def put(text: str, end: str = "\n") -> None:
    """Print a text and see that it has arrived, with whatever was printed before.

    Raises
    ------
    OutputError
        If the terminal cannot show it, the disk is full, or nobody reads any more.
    """
    try:
        sys.stdout.write(text + end)
        sys.stdout.flush()
    except UnicodeEncodeError as error:
        letter = error.object[error.start]
        raise OutputError(f"the terminal shows {sys.stdout.encoding} only, not {letter!a}: set it to UTF-8") from error
    except OSError as error:
        _give_up_output()
        gone = isinstance(error, BrokenPipeError)
        raise OutputError("" if gone else f"the output cannot be written ({error.strerror}): send it elsewhere") from error


def put_json(value: Any) -> None:
    """Print a value as JSON, in letters that every terminal shows where it does not show all."""
    encoding = (sys.stdout.encoding or "ascii").lower()
    put(json.dumps(value, indent=1, ensure_ascii=not encoding.startswith("utf"), allow_nan=False))


def write_file(path: Path, content: bytes) -> None:
    """Write a file whole: until it is, what was there stays.

    Raises
    ------
    OutputError
        If it cannot be written.
    """
    if path.is_dir():
        raise OutputError(f"{path} is a folder: name a file in it")
    unfinished = path.with_name(f".{path.name}.new")
    try:
        unfinished.write_bytes(content)
        unfinished.replace(path)
    except OSError as error:
        unfinished.unlink(missing_ok=True)
        raise OutputError(f"{path} cannot be written ({error.strerror}): name another file") from error


def _give_up_output() -> None:
    """Let what is still buffered go nowhere, or the interpreter complains about it at its end."""
    nowhere = os.open(os.devnull, os.O_WRONLY)
    os.dup2(nowhere, sys.stdout.fileno())
    os.close(nowhere)

"""One server a database: who else would serve it, or put a copy in its place, is told where it is served."""

from __future__ import annotations

import fcntl
import os
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from tabrel.store.errors import MigrationError


class ServedAlreadyError(MigrationError):
    """Another server has the database."""


@contextmanager
def served_alone(path: Path, address: str) -> Iterator[None]:
    """Keep other servers from a database while the block runs; where nothing can be written beside it, nobody is kept.

    Raises
    ------
    ServedAlreadyError
        If another server has it, with its address.
    """
    mark = path.with_name(path.name + "-server")
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        held = os.open(mark, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o644)
    except OSError:
        yield
        return
    try:
        try:
            fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as error:
            there = os.pread(held, 200, 0).decode(errors="replace").strip() or "an address it has not said"
            raise ServedAlreadyError(f"{path} is served already, at {there}: open that, or name another --database") from error
        with suppress(OSError):  # on a full disk the address is missing, and the lock holds all the same
            os.truncate(held, 0)
            os.pwrite(held, address.encode(), 0)
        try:
            yield
        finally:
            with suppress(OSError):
                mark.unlink()
    finally:
        os.close(held)  # the lock goes with it, and with the process

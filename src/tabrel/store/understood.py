"""Stored texts with a form of their own: understood, or else the database is damaged."""

from __future__ import annotations

from typing import TypeVar

from pydantic import TypeAdapter, ValidationError

from tabrel.store.errors import DatabaseFaultError

T = TypeVar("T")


def understood(form: TypeAdapter[T], text: str, of: str, *, strict: bool = True) -> T:
    """Return what a stored text says.

    Parameters
    ----------
    form : TypeAdapter
        What it was written by.
    text : str
        JSON.
    of : str
        What it is of, in words.
    strict : bool
        Whether numbers and texts must be what they were written as.

    Raises
    ------
    DatabaseFaultError
        If it is not of that form, as after a damage that left the file readable.
    """
    try:
        return form.validate_json(text, strict=strict)
    except ValidationError as error:
        raise not_understood(f"what is stored of {of}") from error


def written(form: TypeAdapter[T], held: T) -> str:
    """Return what is stored of something, as `understood` reads it."""
    return form.dump_json(held, exclude_none=True, by_alias=True).decode()


def not_understood(what: str) -> DatabaseFaultError:
    """Return the error of something stored that means nothing."""
    return DatabaseFaultError(
        f"{what} cannot be understood: the database is damaged. Put back a copy of it, and keep the damaged file"
    )

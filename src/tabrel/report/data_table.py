"""A table of plain values: fields with their units, rows of values, empty for what is not known."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

FieldType = Literal["string", "number", "integer", "boolean"]
Value = str | float | int | bool | None


@dataclass(frozen=True)
class Field:
    """A column: its name in files, its type, what it is, and its unit as printed, empty for none."""

    name: str
    type: FieldType
    title: str
    unit: str = ""

    @property
    def heading(self) -> str:
        """Title with the unit."""
        return f"{self.title} [{self.unit}]" if self.unit else self.title


@dataclass(frozen=True)
class DataTable:
    """A table of one subject.

    Attributes
    ----------
    name, title : str
        Of its file, and as it is said.
    fields : tuple of Field
    rows : tuple of tuple
    """

    name: str
    title: str
    fields: tuple[Field, ...]
    rows: tuple[tuple[Value, ...], ...]


SAMPLE = Field("sample", "string", "Filter")
"""The first column of most tables."""

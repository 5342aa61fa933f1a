"""Printed sums as the audit document holds them: formula, inputs and result, all as printed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tabrel.core.study.strict import Strict

AUDIT_FORMAT: Literal["tabrel-audit"] = "tabrel-audit"
AUDIT_VERSION = 1


@dataclass(frozen=True)
class ArithmeticLine(Strict):
    """One line as printed.

    Attributes
    ----------
    label, formula : str
        What it is of, and by which formula of `audit.arithmetic.FORMULAS`.
    inputs : dict
        Texts by key; several for the terms of a sum.
    printed : str
        The result.
    """

    label: str
    formula: str
    inputs: dict[str, str | tuple[str, ...]]
    printed: str


@dataclass(frozen=True)
class Audit(Strict):
    """An audit document."""

    format: Literal["tabrel-audit"]
    version: int
    lines: tuple[ArithmeticLine, ...]

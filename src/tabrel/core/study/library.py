"""Library for every study of a workshop: engines, templates, and rules of date codes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from tabrel.core.study.frame import Circuit
from tabrel.core.study.strict import Strict


@dataclass(frozen=True)
class DateCodeRule(Strict):
    """A rule: its name, its pattern, and whose codes it reads; of every maker where none is named."""

    name: str
    pattern: str
    maker: str | None = None

    def reads(self, maker: str | None) -> bool:
        """Return whether the rule is for the filters of a maker."""
        return not self.maker or self.maker.casefold() == (maker or "").casefold()


@dataclass(frozen=True)
class SavedEngine(Strict):
    """An engine saved for other studies."""

    name: str
    circuit: Circuit


@dataclass(frozen=True)
class SavedTemplate(Strict):
    """Parts of a sample that others are begun with; the sample as the study document has it."""

    name: str
    parts: tuple[str, ...]
    sample: dict[str, Any]


@dataclass(frozen=True)
class Library(Strict):
    """Library for every study: engines, templates, rules of date codes."""

    engines: tuple[SavedEngine, ...] = ()
    templates: tuple[SavedTemplate, ...] = ()
    date_code_rules: tuple[DateCodeRule, ...] = ()

"""Base of every part of a study document."""

from __future__ import annotations

from typing import Any, ClassVar, Literal

BypassLocation = Literal["dome_end", "thread_end", "block", "adapter", "none", "housing"]
RegulatorFault = Literal["stuck_open", "stuck_shut"]


class Strict:
    """Refuse unknown keys and numbers that are not finite wherever the document is read."""

    __pydantic_config__: ClassVar[dict[str, Any]] = {"extra": "forbid", "allow_inf_nan": False}

"""Errors of the store."""

from __future__ import annotations

from tabrel.core.errors import TabrelError


class NotStoredError(TabrelError):
    """There is no such row."""


class MigrationError(TabrelError):
    """A migration cannot be applied."""

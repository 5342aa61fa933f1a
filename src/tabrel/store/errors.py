"""Errors of the store."""

from __future__ import annotations

from tabrel.core.errors import TabrelError


class NotStoredError(TabrelError):
    """There is no such row."""


class MigrationError(TabrelError):
    """A migration cannot be applied."""


class NothingToUndoError(TabrelError):
    """There is no change to undo, or none to redo."""


class ConflictError(TabrelError):
    """What is to be changed is no longer as it was seen."""

"""Errors the core raises.

::

    TabrelError
    ├── OutOfRangeError      a parameter of a formula is not finite or outside its domain
    ├── ReadingTextError     a typed reading is not understood, or is impossible
    ├── StudyError           a study document is refused; names the place and the correction
    └── MissingInputsError   a result cannot be computed yet; names the inputs it lacks
"""

from __future__ import annotations

import difflib
from collections.abc import Iterable
from math import inf
from typing import Any


class TabrelError(Exception):
    """Base of every error this package raises on purpose."""


class OutOfRangeError(TabrelError, ValueError):
    """A parameter of a formula is not finite or lies outside its domain."""


class ReadingTextError(TabrelError, ValueError):
    """A typed reading is not understood, or says something impossible."""


class StudyError(TabrelError, ValueError):
    """A study is refused.

    Parameters
    ----------
    path : str
        Place in the document, such as ``samples[0].readings.can.height[1]``.
    message : str
        What is wrong and how to correct it, one sentence.
    """

    def __init__(self, path: str, message: str) -> None:
        super().__init__(f"{path}: {message}" if path else message)
        self.path = path
        self.message = message


class MissingInputsError(TabrelError):
    """A result cannot be computed yet.

    Parameters
    ----------
    keys : iterable of str
        The inputs that are missing, as reading keys or document paths.
    """

    def __init__(self, keys: Iterable[str]) -> None:
        self.keys = tuple(keys)
        super().__init__("still missing: " + ", ".join(self.keys))


def require_positive(**values: Any) -> None:
    """Raise `OutOfRangeError` unless every value is finite and above zero; of draws, unless one is."""
    for name, value in values.items():
        if isinstance(value, float) and 0 < value < inf:  # by far the most frequent case, and numpy is slow at it
            continue
        import numpy as np  # the command line's help, which knows these errors, does not wait for it

        if not np.any(np.isfinite(value) & (np.asarray(value) > 0)):
            raise OutOfRangeError(f"{name} must be finite and above zero, got {value!r}")


def nearest_hint(wrong: str, known: Iterable[str]) -> str:
    """Return `` (did you mean x?)`` for the known word nearest to `wrong`, or an empty string."""
    matches = difflib.get_close_matches(wrong, list(known), n=1, cutoff=0.5)
    return f" (did you mean {matches[0]!r}?)" if matches else ""

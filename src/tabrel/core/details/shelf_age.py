"""How long a filter lay before it was bought, or lies today."""

from __future__ import annotations

from datetime import date

from tabrel.core.rules.refusals import is_date
from tabrel.core.study.model import Sample


def shelf_age_years(sample: Sample, today: date) -> float | None:
    """Return how long a sample had lain when it was bought, or lies today, or None. [years]

    A month or a year stands for its middle.

    Examples
    --------
    >>> round(shelf_age_years(Sample("A", made="2020", bought="2026-07-02"), date(2026, 11, 25)), 1)
    6.0
    """
    if sample.made is None or not is_date(sample.made):
        return None
    until = _middle(sample.bought) if sample.bought and is_date(sample.bought) else today
    return (until - _middle(sample.made)).days / 365.25


def _middle(text: str) -> date:
    return date.fromisoformat(text + {4: "-07-02", 7: "-15", 10: ""}[len(text)])

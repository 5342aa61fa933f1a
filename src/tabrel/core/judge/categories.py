"""Categories of a comparison with a value for each filter, and who beats whom in one of them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from math import hypot, inf
from typing import Literal

Better = Literal["high", "low"]


@dataclass(frozen=True)
class CategoryValue:
    """Knowledge of one filter in one category.

    Attributes
    ----------
    value : float or None
        None where only bounds are known.
    expanded_uncertainty : float
        95 %, of `value`.
    low, high : float or None
        Bounds; beside a value its interval, which does not count here.
    basis : str or None
        Kind of evidence.
    """

    value: float | None
    expanded_uncertainty: float = 0.0
    low: float | None = None
    high: float | None = None
    basis: str | None = None

    @property
    def is_known(self) -> bool:
        """Whether there is a value or a bound."""
        return self.value is not None or self.low is not None or self.high is not None


@dataclass(frozen=True)
class Category:
    """One category.

    Attributes
    ----------
    measure : str
        What is compared.
    better : str
        ``high`` or ``low``.
    values : mapping
        By label; None where nothing is known, or what is known cannot be compared.
    name : str
        What a person calls it.
    weight : float
    best, worst : float or None
        End points of the score; None for those of the filters themselves.
    struck : str or None
        Why it does not count; None where it does.
    joint : mapping
        Expanded uncertainty of the difference of two filters, by their labels; where it is not given they share nothing.
    """

    measure: str
    better: Better
    values: Mapping[str, CategoryValue | None]
    name: str = ""
    weight: float = 1.0
    best: float | None = None
    worst: float | None = None
    struck: str | None = None
    joint: Mapping[str, Mapping[str, float]] = field(default_factory=dict)

    @property
    def sign(self) -> float:
        """1 where more is better, −1 where less is."""
        return 1.0 if self.better == "high" else -1.0

    def known(self, label: str) -> CategoryValue | None:
        """Return what is known of a filter, None where that is nothing at all."""
        category_value = self.values.get(label)
        return category_value if category_value is not None and category_value.is_known else None

    def joint_uncertainty(self, first: str, second: str) -> float:
        """Return J, the expanded uncertainty of the difference of two filters."""
        given = self.joint.get(first, {}).get(second)
        if given is not None:
            return given
        a, b = self.known(first), self.known(second)
        return hypot(a.expanded_uncertainty if a else 0.0, b.expanded_uncertainty if b else 0.0)

    def end_points(self) -> tuple[float, float] | None:
        """Return best and worst, as stated or of the filters themselves; None where nothing is known. Bounds set none."""
        numbers = [value.value for value in self.values.values() if value is not None and value.value is not None]
        best, worst = self.best, self.worst
        if best is None or worst is None:
            if not numbers:
                return None
            top, bottom = max(numbers), min(numbers)
            best = best if best is not None else (top if self.better == "high" else bottom)
            worst = worst if worst is not None else (bottom if self.better == "high" else top)
        return best, worst

    @property
    def has_stated_ends(self) -> bool:
        """Whether both end points are stated; else they are only a first look."""
        return self.best is not None and self.worst is not None


def sides(category: Category, label: str) -> tuple[float, float] | None:
    """Return worst and best that a filter can be in a category, turned so that more is better; None where nothing is known."""
    result = category.known(label)
    if result is None:
        return None
    if result.value is not None:
        return category.sign * result.value, category.sign * result.value
    low = -inf if result.low is None else result.low
    high = inf if result.high is None else result.high
    return (low, high) if category.better == "high" else (-high, -low)


def outcome(category: Category, first: str, second: str) -> int | None:
    """Return 1 where a filter beats another in a category, −1 where it loses, 0 for a tie, None where it is undecided.

    A difference counts where it is larger than its joint expanded uncertainty; a bound beats, or loses, only by the side
    that is worst for that; what is missing decides nothing.
    """
    a, b = sides(category, first), sides(category, second)
    if a is None or b is None:
        return None
    allowance = category.joint_uncertainty(first, second)
    if a[0] - b[1] > allowance:
        return 1
    if b[0] - a[1] > allowance:
        return -1
    is_certain = a[0] == a[1] and b[0] == b[1]
    return 0 if is_certain else None


def counting(categories: Sequence[Category]) -> list[Category]:
    """Return the categories that are not struck out."""
    return [category for category in categories if category.struck is None]

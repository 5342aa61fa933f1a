"""What passes of a thousand particles of 20 µm(c), and how it is known: a count, a claim, an estimate."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tabrel.core.counts.counted_test import CountedTest
from tabrel.core.numbers import interval, significant
from tabrel.core.parts.efficiency import REFERENCE_SIZE, efficiency_from_claim, usable_claim
from tabrel.core.sample.efficiency import efficiency_at_size
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.propagation import Result

Evidence = Literal["count", "claim", "estimate"]

SURELY_MORE = 3.0
"""Two counts of different kinds of test differ by less than this for reasons of the test; ours."""
SURELY_MORE_ALIKE = 1.5
"""The same in one kind of test; ours."""


@dataclass(frozen=True)
class Passed:
    """Particles of 20 µm(c) that pass of a thousand.

    Attributes
    ----------
    evidence : str
    number : float or None
        None where only a bound or a span is known.
    low, high : float or None
        95 %, or the bound.
    test_kind : str
        Of a count: in words.
    """

    evidence: Evidence
    number: float | None
    low: float | None
    high: float | None
    test_kind: str = ""

    @property
    def words(self) -> str:
        """The number with its range, as a sentence takes it."""
        if self.evidence == "count" and self.number is not None:
            ends = f" ({_counted(self.low)} to {_counted(self.high)})" if self.low is not None and self.high is not None else ""
            return f"{_counted(self.number)}{ends}"
        return interval(self.low, self.high, digits=2)


def _counted(number: float) -> str:
    """Return particles of a thousand: whole ones from two on."""
    return f"{number:.0f}" if number >= 2 else significant(number, 2)


def passed(measured: MeasuredSample) -> Passed | None:
    """Return what passes of a thousand by the best evidence there is, or None."""
    result = efficiency_at_size(measured, REFERENCE_SIZE)
    if not result.is_known:
        return None
    if isinstance(measured.counted, CountedTest):
        kind = measured.counted.counts.test_kind
        return _passed("count", result, kind.replace("_", "-") if kind else "kind of test not stated")
    return _passed("claim" if usable_claim(measured.sample.claims) else "estimate", result)


def claimed(measured: MeasuredSample) -> Passed | None:
    """Return what passes of a thousand by the claim alone, or None."""
    claim = usable_claim(measured.sample.claims)
    result = None if claim is None else efficiency_from_claim(claim, REFERENCE_SIZE)
    return None if result is None or not result.is_known else _passed("claim", result)


def _passed(evidence: Evidence, result: Result, test_kind: str = "") -> Passed:
    """Return shares held back as particles let through: the ends change places."""

    def through(share: float | None) -> float | None:
        return None if share is None else 1e3 * (1.0 - share)

    number = through(result.value)
    low, high = through(result.high), through(result.low)
    if result.value is not None and result.relation in (">=", ">"):
        number, low, high = None, None, through(result.value)
    if number is not None and result.value is not None and low is None and high is None and result.expanded_uncertainty:
        low, high = (through(result.value + step * result.expanded_uncertainty) for step in (1, -1))
    return Passed(evidence, number, None if low is None else max(low, 0.0), high, test_kind)


def passes_more(one: Passed, other: Passed) -> bool:
    """Return whether counts say that one lets surely more through than the other: three times, and intervals apart."""
    if one.evidence != "count" or other.evidence != "count" or one.number is None or other.number is None:
        return False
    apart = one.low is not None and other.high is not None and one.low > other.high
    return apart and one.number >= SURELY_MORE * other.number

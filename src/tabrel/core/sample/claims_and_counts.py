"""An efficiency claim against a counted test: they compare at one size and scale only, by the test's interval."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from tabrel.core.counts.counted_test import CountedTest
from tabrel.core.numbers import plain_number
from tabrel.core.study.model import Claim

Comparison = Literal["agree", "claim_higher", "claim_lower", "cannot_be_compared"]


@dataclass(frozen=True)
class ClaimComparison:
    """Verdict of a counted test on a claim, and the reason."""

    verdict: Comparison
    words: str


def compare_with_counts(claim: Claim, test: CountedTest) -> ClaimComparison:
    """Return what a counted test says of an efficiency claim.

    Returns
    -------
    ClaimComparison
        A bound is agreed with wherever the interval reaches it; half a step of the claim's last digit is allowed for.
    """

    def cannot(words: str) -> ClaimComparison:
        return ClaimComparison("cannot_be_compared", words)

    if claim.stale is not None:
        return cannot(f"the claim is marked stale: {claim.stale}")
    if claim.efficiency_percent is None or claim.size_um is None or claim.scale is None:
        return cannot("the claim states no percentage at one size")
    if "unnamed" in (claim.scale, test.counts.scale):
        whose = "claim" if claim.scale == "unnamed" else "test"
        return cannot(f"the scale of the {whose}'s sizes is not named")
    if claim.scale != test.counts.scale:
        return cannot(
            f"the claim is for {claim.size_um:g} {_printed(claim.scale)}, the test counts in {_printed(test.counts.scale)}"
        )
    pair = _interval_at(test, claim.size_um)
    if isinstance(pair, str):
        return cannot(pair)
    low, high = pair
    step = 0.5 * 10.0 ** -len(f"{claim.efficiency_percent:.10g}".partition(".")[2])
    least, most = claim.efficiency_percent - step, claim.efficiency_percent + step
    if claim.relation in (">=", ">"):
        most = max(most, 100.0)
    elif claim.relation in ("<=", "<"):
        least = 0.0
    ends = [f"{plain_number(end)} %" for end in (low, high) if end is not None]
    counted = f"counted {' to '.join(ends)}" if len(ends) == 2 else f"counted {'over' if high is None else 'under'} {ends[0]}"
    if high is not None and high < least:
        return ClaimComparison("claim_higher", counted)
    if low is not None and low > most:
        return ClaimComparison("claim_lower", counted)
    return ClaimComparison("agree", counted)


def _interval_at(test: CountedTest, size: float) -> tuple[float | None, float | None] | str:
    """Return between what the efficiency lies at a size on the test's own scale [%], or why nothing can be said."""
    sizes, totals, curve = test.counts.sizes_um, test.totals, test.curve
    if size in sizes and (point := test.point(float(test.readings[0].sizes[sizes.index(size)]))) is not None:
        counted = point.result  # where it was counted itself, that point decides
        return 100 * (counted.low or 0.0), 100 * (counted.high or 0.0)
    if curve is not None and curve.has_interval:
        if not sizes[0] <= size <= sizes[-1]:
            return f"{size:g} µm lies outside the counted sizes, {sizes[0]:g} to {sizes[-1]:g} µm"
        on_curve = float(np.exp(np.interp(np.log(size), np.log(sizes), np.log(test.readings[0].sizes))))
        result = curve.efficiency(on_curve)
        return 100 * (result.low or 0.0), 100 * (result.high or 0.0)
    if size not in sizes:
        return f"{size:g} µm was not counted, and there is no curve with an interval between the counted sizes"
    i = sizes.index(size)
    if totals.size_faults[i]:
        return f"{size:g} µm cannot be used: {totals.size_faults[i]}"
    ends = [None if np.isnan(beta) else float(100 * (1 - 1 / beta)) for beta in (totals.betas.low[i], totals.betas.high[i])]
    return f"nothing is known at {size:g} µm" if ends == [None, None] else (ends[0], ends[1])


def _printed(scale: str) -> str:
    return {"um(c)": "µm(c)", "um(b)": "µm(b)", "um": "plain µm"}.get(scale, scale)

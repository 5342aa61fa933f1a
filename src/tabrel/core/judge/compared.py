"""Values of several filters in one measure, prepared for comparison: only like with like, and the inputs two of them share."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from tabrel.core.judge.chances import NORMAL_COVERAGE
from tabrel.core.judge.known import Known
from tabrel.core.judge.known_filter import number_of

FloatArray = NDArray[np.float64]

FEWEST_COMMON_DRAWS = 12
"""Of fewer draws that both filters have, nothing is said of what they share."""


def only_alike(known: Mapping[str, Known]) -> dict[str, Known]:
    """Return only values that were come by in one way, that of most filters; of the others it is said why they are left out."""
    ways = [item.alike for item in known.values() if item.value is not None]
    if len(set(ways)) < 2:
        return dict(known)
    common = max(dict.fromkeys(ways), key=ways.count)  # of equally many, the one met first
    reason = "is {own}, that of others {common}: they are not ranked together"
    if ways.count(common) == 1:
        common, reason = "", "is {own}, and no other one is: they are not ranked together"
    return {
        label: item if item.value is None or item.alike == common
        else replace(item, value=None, draws=None, reason=reason.format(own=item.alike, common=common))
        for label, item in known.items()
    }  # fmt: skip


def joint_uncertainties(known: Mapping[str, Known]) -> dict[str, dict[str, float]]:
    """Return J of every pair of values: 1.96·√(u₁² + u₂² − 2·cov), the covariance from the draws that both have."""
    allowances: dict[str, dict[str, float]] = {label: {} for label, item in known.items() if number_of(item) is not None}
    for allowance in allowances:
        for other in allowances:
            if allowance != other:
                a, b = known[allowance], known[other]
                square = sum(v.expanded_uncertainty**2 for v in (a.value, b.value) if v is not None)
                allowances[allowance][other] = sqrt(max(square - 2 * NORMAL_COVERAGE**2 * _covariance(a.draws, b.draws), 0.0))
    return allowances


def _covariance(first: FloatArray | None, second: FloatArray | None) -> float:
    if first is None or second is None:
        return 0.0
    both = np.isfinite(first) & np.isfinite(second)
    if both.sum() < FEWEST_COMMON_DRAWS:
        return 0.0
    return float(np.cov(first[both], second[both])[0, 1])

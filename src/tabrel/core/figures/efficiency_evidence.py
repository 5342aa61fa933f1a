"""Everything that speaks of the micron efficiency, each labelled for what it is."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from tabrel.core.counts.counted_test import CountedTest
from tabrel.core.numbers import plain_number, significant
from tabrel.core.parts.efficiency import (
    REFERENCE_SIZE,
    ClaimedPoint,
    ScreeningMedium,
    efficiency_from_claim,
    fibre_for_efficiency,
    screening_estimate,
    screening_size,
    usable_claim,
)
from tabrel.core.sample.claims_and_counts import ClaimComparison, compare_with_counts
from tabrel.core.sample.efficiency import screening_medium
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Claim
from tabrel.core.uncertainty.propagation import Result

DRAWN_SIZES = np.unique(np.append(np.geomspace(4.0, 60.0, 56), REFERENCE_SIZE))
"""Particle sizes of the curves, the reference size among them. [µm(c)]"""


@dataclass(frozen=True)
class ClaimedEfficiency:
    """An efficiency claim and what can be made of it.

    Attributes
    ----------
    claim : Claim
        As kept.
    point : ClaimedPoint or None
        In µm(c); None where it cannot be computed with.
    at_20_um : Result or None
        Efficiency at 20 µm(c). [-]
    why_not : str
        Why it cannot be computed with; empty where it can.
    is_used : bool
        Whether the headline result is computed from it.
    compared : ClaimComparison or None
        What counts say of it; None without any.
    fibre : float or None
        Fibre diameter at which the screening estimate would reach it. [µm]
    fibre_words : str
        Whether that is plausible beside the fibres there are; empty where nothing can be said.
    """

    claim: Claim
    point: ClaimedPoint | None
    at_20_um: Result | None
    why_not: str
    is_used: bool
    compared: ClaimComparison | None = None
    fibre: float | None = None
    fibre_words: str = ""


@dataclass(frozen=True)
class EfficiencyEvidence:
    """Claims, and the screening estimate with its band.

    Attributes
    ----------
    claims : tuple of ClaimedEfficiency
        In the order they were kept.
    medium : ScreeningMedium or None
        What the estimate is computed from.
    estimate : tuple of Result
        At every one of `DRAWN_SIZES`; empty without a medium. [-]
    estimated_size : Result or None
        At which β = 75. [µm(c)]
    """

    claims: tuple[ClaimedEfficiency, ...]
    medium: ScreeningMedium | None
    estimate: tuple[Result, ...]
    estimated_size: Result | None


def efficiency_evidence(measured: MeasuredSample) -> EfficiencyEvidence:
    """Return every efficiency claim and the screening estimate side by side."""
    collected: list[ClaimedEfficiency] = []
    medium = screening_medium(measured)
    test = measured.counted if isinstance(measured.counted, CountedTest) else None
    for claim in measured.sample.claims:
        if claim.kind != "efficiency":
            continue
        point = usable_claim((claim,))
        first = point is not None and test is None and not any(claimed.is_used for claimed in collected)
        at_20 = None if point is None else efficiency_from_claim(point)
        compared = None if test is None else compare_with_counts(claim, test)
        fibre, words = _fibre(point, medium)
        collected.append(ClaimedEfficiency(claim, point, at_20, "" if point else _why_not(claim), first, compared, fibre, words))
    if medium is None:
        return EfficiencyEvidence(tuple(collected), None, (), None)
    estimate = tuple(screening_estimate(medium, float(size)) for size in DRAWN_SIZES)
    return EfficiencyEvidence(tuple(collected), medium, estimate, screening_size(medium))


PLAUSIBLE_FACTOR = 2.0
"""The screening estimate is good to a factor of two in size, and so are the fibres that follow from it."""


def _fibre(point: ClaimedPoint | None, medium: ScreeningMedium | None) -> tuple[float | None, str]:
    """Return the fibre diameter that a claim needs [µm], and whether it is plausible."""
    if point is None or medium is None or point.beta <= 1:
        return None, ""
    fibre = fibre_for_efficiency(medium, point.size, 1 - 1 / point.beta)
    if fibre is None:
        return None, "no fibre would reach it at this thickness and solidity, by interception alone"
    here = "typical of the family" if "media.fibre_diameter" in medium.assumed else "measured"
    own = plain_number(medium.fibre_diameter, 3)
    words = f"it would need fibres of {significant(fibre)} µm at this thickness and solidity; {own} µm are {here}"
    factor = medium.fibre_diameter / fibre
    if factor > PLAUSIBLE_FACTOR:
        return fibre, f"{words}, {factor:.1f} times as coarse: not plausible by interception alone"
    return fibre, f"{words}: plausible" if factor >= 1 / PLAUSIBLE_FACTOR else f"{words}, finer than it takes: plausible"


def _why_not(claim: Claim) -> str:
    if claim.stale is not None:
        return f"marked stale: {claim.stale}"
    if claim.efficiency_percent is None:
        return "it states no percentage"
    if claim.size_um is None or claim.scale is None:
        return "it states no size, or a range of sizes"
    return "its size lies outside the old scale, which runs from 1 to 40 µm"

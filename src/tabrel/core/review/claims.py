"""Claims checked by later readings: confirmed, refuted, or undecided."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import combinations
from math import inf
from typing import Literal

from tabrel.core.catalogue.observation import observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.catalogue.results import WIRE_UNITS
from tabrel.core.catalogue.units import UnitFamily, in_family, printed, shown, to_unit
from tabrel.core.counts.counted_test import CountedTest, counted_test
from tabrel.core.entry.claim_text import RESULT_BY_KEY, claim_dimension
from tabrel.core.entry.reading_text import ParsedReading, parse_reading
from tabrel.core.errors import ReadingTextError
from tabrel.core.numbers import number_with_uncertainty
from tabrel.core.sample.claims_and_counts import Comparison, compare_with_counts
from tabrel.core.sample.stated_setting import OPENING_KEY
from tabrel.core.study.model import Claim, Relation, Sample, used_readings
from tabrel.core.uncertainty.estimate import Estimate
from tabrel.core.uncertainty.propagation import Result, expanded_uncertainty

Verdict = Literal["confirmed", "refuted", "cannot_tell", "waits", "no_check", "stale"]


@dataclass(frozen=True)
class ClaimCheck:
    """A verdict on a claim, and the sentence that says why."""

    verdict: Verdict
    words: str


def check_claim(
    claim: Claim,
    sample: Sample,
    estimates: Mapping[str, Estimate],
    family: UnitFamily = "metric",
    results: Mapping[str, Result] | None = None,
) -> ClaimCheck:
    """Return what the readings and results of a sample say of a claim made for it.

    A claimed size is confirmed where the expanded uncertainty of what was measured and half a step of the
    claim's last digit, or the claim's own range, leave room for it, and refuted where they do not.

    Parameters
    ----------
    claim : Claim
        As kept.
    sample : Sample
        For what was seen of it.
    estimates : mapping
        Estimate by reading key.
    family : str
        Whose units the sentence uses.
    results : mapping or None
        Result by its key in answers, in SI; for claims on results.
    """
    if claim.stale is not None:
        return ClaimCheck("stale", f"marked stale: {claim.stale}")
    if claim.kind == "observation" and claim.key and claim.value:
        observation = OBSERVATIONS.get(claim.key)
        seen = observed(sample, observation) if observation else sample.observations.get(claim.key)
        if seen is None:
            return ClaimCheck("waits", f"waits for {claim.key} to be seen")
        same = seen.casefold() == claim.value.casefold()
        return ClaimCheck("confirmed" if same else "refuted", f"seen: {seen}")
    if claim.kind == "reading" and claim.key in QUANTITIES and claim.value:
        return _check_reading(claim, estimates.get(claim.key), family)
    if claim.kind == "result" and claim.key in RESULT_BY_KEY and claim.value:
        return _check_result(claim, (results or {}).get(claim.key), family)
    test = None if claim.kind != "efficiency" or sample.counts is None else counted_test(sample.counts)
    if isinstance(test, CountedTest):
        compared = compare_with_counts(claim, test)
        return ClaimCheck(_BY_COUNTS[compared.verdict], compared.words)
    if claim.kind == "efficiency":
        unnamed = "; the scale of its size is not named, so that plain µm and µm(c) both stand: note the year it was seen"
        words = "no reading at the bench can confirm an efficiency; it is compared only like with like"
        return ClaimCheck("no_check", words + (unnamed if claim.scale == "unnamed" else ""))
    if any(letter.isdecimal() for letter in claim.wording or ""):
        return ClaimCheck("no_check", "no number in it is understood as one to check: if there is one, enter it as a check below")
    return ClaimCheck("no_check", "words without a number to check")


_BY_COUNTS: dict[Comparison, Verdict] = {
    "agree": "confirmed",
    "claim_lower": "confirmed",
    "claim_higher": "refuted",
    "cannot_be_compared": "cannot_tell",
}


def _check_reading(claim: Claim, estimate: Estimate | None, family: UnitFamily) -> ClaimCheck:
    quantity = QUANTITIES[claim.key or ""]
    if estimate is None or estimate.provenance in ("published", "assumed"):
        return ClaimCheck("waits", f"waits for the {quantity.title} to be measured")
    claimed = parse_reading(claim.value or "", quantity.dimension)
    return _compared(claim, claimed, estimate.value, expanded_uncertainty(estimate), quantity.unit(family), "measured")


_OF_CLAIMS = ("claim", "stated", "estimate", "family")
"""Bases of results that are themselves only stated or assumed, and check nothing."""


def _check_result(claim: Claim, result: Result | None, family: UnitFamily) -> ClaimCheck:
    row = RESULT_BY_KEY[claim.key or ""]
    if result is None or result.value is None or result.basis in _OF_CLAIMS:
        return ClaimCheck("waits", f"waits for the {row.title.lower()} to be measured")
    claimed = parse_reading(claim.value or "", claim_dimension("result", row.key))
    unit = in_family(WIRE_UNITS[row.unit], family)
    return _compared(claim, claimed, result.value, result.expanded_uncertainty or 0.0, unit, "worked out")


def _compared(claim: Claim, claimed: ParsedReading, value: float, allowance: float, unit: str, how: str) -> ClaimCheck:
    """Return the verdict of a number on a claim, each with its allowance."""
    step = claimed.last_digit / 2 if claimed.interval is None else (claimed.interval[1] - claimed.interval[0]) / 2
    text = f"{how} {shown(value, unit, 4)}"
    with_allowance = f"{how} {number_with_uncertainty(to_unit(value, unit), to_unit(allowance, unit), printed(unit))}"
    difference = value - claimed.value
    if claim.relation in (">=", ">", "<=", "<"):
        beyond = difference if claim.relation in (">=", ">") else -difference
        if beyond >= allowance:
            return ClaimCheck("confirmed", text)
        return ClaimCheck("refuted" if beyond < -allowance - step else "cannot_tell", with_allowance)
    return ClaimCheck("confirmed" if abs(difference) <= allowance + step else "refuted", with_allowance)


@dataclass(frozen=True)
class Contradiction:
    """Two sources that say different things of one filter, as a sentence."""

    words: str


def contradictions(sample: Sample) -> tuple[Contradiction, ...]:
    """Return where two sources contradict each other: box, page, part, the stated setting.

    Parameters
    ----------
    sample : Sample
        Its claims, its stated setting and what was read off the part as published.

    Returns
    -------
    tuple of Contradiction
        Each pair set beside each other; which of the two holds is the analyst's to say.
    """
    collected = []
    for (about, source, words, span), (other_about, other_source, other_words, other_span) in combinations(_worded(sample), 2):
        apart = span[0] > other_span[1] or other_span[0] > span[1]
        if about == other_about and apart:
            collected.append(Contradiction(f"{source} says {words}, {other_source} says {other_words}: both cannot hold"))
    return tuple(collected)


def _worded(sample: Sample) -> list[tuple[str, str, str, tuple[float, float]]]:
    """Return what each source says: of what, its words, and between what the number lies."""
    pairs = []
    for claim in sample.claims:
        if claim.stale is not None:
            continue
        if claim.kind == "efficiency" and claim.efficiency_percent is not None and claim.size_um is not None:
            about = f"efficiency at {claim.size_um:g} {claim.scale}"
            span = _span(claim.relation, claim.efficiency_percent, _half_of_last_digit(claim.efficiency_percent))
            pairs.append((about, claim.source, f"“{claim.wording or f'{claim.efficiency_percent:g} %'}”", span))
        elif claim.kind in ("reading", "result") and claim.key and claim.value:
            try:
                meaning = parse_reading(claim.value, claim_dimension(claim.kind, claim.key))
            except ReadingTextError:
                continue
            step = meaning.last_digit / 2 if meaning.interval is None else (meaning.interval[1] - meaning.interval[0]) / 2
            words = f"“{claim.wording or claim.value}”"
            pairs.append((claim.key, claim.source, words, _span(claim.relation, meaning.value, step)))
    if (stated := sample.bypass.stated_kpa) is not None:
        low, high = (end * 1e3 for end in (stated if isinstance(stated, tuple) else (stated, stated)))
        typed = sample.as_typed.get("stated_kpa")
        words = typed.text if typed else " - ".join(f"{end / 1e3:g}" for end in dict.fromkeys((low, high))) + " kPa"
        pairs.append((OPENING_KEY, "the stated setting", words, (low * 0.999, high * 1.001)))
    for key, entries in sample.readings.items():
        for reading in used_readings(entries):
            if reading.provenance == "published":
                meaning = parse_reading(reading.text, QUANTITIES[key].dimension)
                ends = meaning.interval or (meaning.value - meaning.last_digit / 2, meaning.value + meaning.last_digit / 2)
                pairs.append((key, "the part as published", reading.text, ends))
    return pairs


def _half_of_last_digit(number: float) -> float:
    """Return half a step of the last digit that a number has as printed: 0.5 for 99, 0.05 for 99.5."""
    return 0.5 * 10.0 ** -len(f"{number:.10g}".partition(".")[2])


def _span(relation: Relation | None, value: float, step: float) -> tuple[float, float]:
    if relation in (">=", ">"):
        return value - step, inf
    return (-inf, value + step) if relation in ("<=", "<") else (value - step, value + step)


def claim_words(claim: Claim) -> str:
    """Return what a claim says: its wording, or the wording made from what it holds."""
    if claim.wording:
        return claim.wording
    relation = "" if claim.relation in (None, "=") else f"{claim.relation} "
    if claim.kind == "efficiency":
        size = f" at {claim.size_um:g} {(claim.scale or '').replace('um', 'µm')}" if claim.size_um is not None else ""
        standard = f", {claim.standard}" if claim.standard else ""
        return f"{relation}{claim.efficiency_percent:g} %{size}{standard}"
    if claim.kind == "observation" and claim.key in OBSERVATIONS:
        observation = OBSERVATIONS[claim.key]
        return f"{PART_TITLES[observation.part]}, {observation.title}: {claim.value}"
    if claim.key in RESULT_BY_KEY:
        return f"{RESULT_BY_KEY[claim.key].title}: {relation}{claim.value}"
    if claim.key in QUANTITIES:
        quantity = QUANTITIES[claim.key]
        return f"{PART_TITLES[quantity.part]}, {quantity.title}: {relation}{claim.value}"
    return f"{claim.key}: {relation}{claim.value}"

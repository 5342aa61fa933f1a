"""What later readings say of a claim: confirmed, refuted, or not to be told from them."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from tabrel.core.catalogue.observation import observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.units import UnitFamily, shown
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.errors import ReadingTextError
from tabrel.core.study.model import Claim, Relation, Sample
from tabrel.core.uncertainty.estimate import Estimate
from tabrel.core.uncertainty.propagation import expanded_uncertainty

Verdict = Literal["confirmed", "refuted", "cannot_tell", "waits", "no_check", "stale"]

_EFFICIENCY = re.compile(
    r"(?P<relation>>=|≥|>|=)?\s*(?P<percent>\d{1,2}(?:[.,]\d+)?)\s*(?P<plus>\+)?\s*%"
    r"(?:.*?(?:at|@|for|of)\s*(?P<size>\d+(?:[.,]\d+)?)\s*(?P<range>(?:-|–|to)\s*\d+)?\s*(?P<scale>µm\(c\)|um\(c\)|µm\(b\)|um\(b\)|"
    r"µm|um|micron\w*))?",
    re.IGNORECASE,
)
_STANDARD = re.compile(r"\b(?:ISO|SAE)\s*\d[\d-]*", re.IGNORECASE)


@dataclass(frozen=True)
class ClaimCheck:
    """A verdict on a claim, and the sentence that says why."""

    verdict: Verdict
    words: str


def check_claim(claim: Claim, sample: Sample, estimates: Mapping[str, Estimate], family: UnitFamily = "metric") -> ClaimCheck:
    """Return what the readings of a sample say of a claim made for it.

    A claimed size is confirmed where the reading's expanded uncertainty and half a step of the claim's
    last digit leave room for it, and refuted where they do not.

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

    Returns
    -------
    ClaimCheck
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
    if claim.kind == "efficiency":
        return ClaimCheck("no_check", "no reading at the bench can confirm an efficiency; it is compared only like with like")
    return ClaimCheck("no_check", "words without a number to check")


def _check_reading(claim: Claim, estimate: Estimate | None, family: UnitFamily) -> ClaimCheck:
    quantity = QUANTITIES[claim.key or ""]
    unit = quantity.unit(family)
    if estimate is None or estimate.provenance in ("published", "assumed"):
        return ClaimCheck("waits", f"waits for the {quantity.title} to be measured")
    claimed = parse_reading(claim.value or "", quantity.dimension)
    room = expanded_uncertainty(estimate)
    step = claimed.last_digit / 2 if claimed.interval is None else (claimed.interval[1] - claimed.interval[0]) / 2
    measured = f"measured {shown(estimate.value, unit, 4)}"
    difference = estimate.value - claimed.value
    if claim.relation in (">=", ">"):
        if difference >= room:
            return ClaimCheck("confirmed", measured)
        verdict: Verdict = "refuted" if difference < -room - step else "cannot_tell"
        return ClaimCheck(verdict, f"{measured} ± {shown(room, unit, 2)}")
    within = abs(difference) <= room + step
    return ClaimCheck("confirmed" if within else "refuted", f"{measured} ± {shown(room, unit, 2)}")


def claim_from_wording(wording: str, source: str) -> Claim:
    """Return the claim that a sentence as printed makes, as far as it can be read; else the words alone.

    Examples
    --------
    >>> claim = claim_from_wording("99+ % at 20 µm(c), ISO 4548-12", "box")
    >>> claim.relation, claim.efficiency_percent, claim.size_um, claim.scale, claim.standard
    ('>=', 99.0, 20.0, 'um(c)', 'ISO 4548-12')
    """
    plain = " ".join(wording.split())
    match = _EFFICIENCY.search(plain)
    if match is None or not 0 < float(match["percent"].replace(",", ".")) < 100:
        return Claim("words", source, wording=plain)
    relation: Relation = "="
    if match["plus"] or match["relation"] in (">=", "≥"):
        relation = ">="
    elif match["relation"] == ">":
        relation = ">"
    sized = match["size"] is not None and match["range"] is None  # a size range stays in the words
    scale = (match["scale"] or "").lower().replace("µ", "u")
    standard = _STANDARD.search(plain)
    return Claim(
        "efficiency",
        source,
        relation=relation,
        efficiency_percent=float(match["percent"].replace(",", ".")),
        size_um=float(match["size"].replace(",", ".")) if sized else None,
        scale=("um(c)" if scale == "um(c)" else "um(b)" if scale == "um(b)" else "um") if sized else None,
        standard=standard[0] if standard else None,
        wording=plain,
    )


def check_from_text(key: str, text: str, source: str) -> Claim:
    """Return a claim on a reading, such as ``>= 1.5 m`` for the strip length.

    Raises
    ------
    ReadingTextError
        If the text is no reading of the quantity.
    """
    quantity = QUANTITIES[key]
    plain = " ".join(text.split())
    relation: Relation = "="
    for sign, known in ((">=", ">="), ("≥", ">="), (">", ">")):
        if plain.startswith(sign):
            relation = known  # type: ignore[assignment]
            plain = plain.removeprefix(sign).strip()
            break
    try:
        parse_reading(plain, quantity.dimension, zero_allowed=quantity.zero_allowed)
    except ReadingTextError as error:
        raise ReadingTextError(f"this cannot be claimed of the {quantity.title}: {error}") from error
    return Claim("reading", source, relation=relation, key=key, value=plain)

"""The stated setting of the bypass valve: of its own field, else of a claim, which need not be entered twice."""

from __future__ import annotations

from dataclasses import dataclass

from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.errors import ReadingTextError
from tabrel.core.study.model import Provenance, Sample

OPENING_KEY = "bypass_opening_kpa"
"""Result that a claim on the setting is about."""


@dataclass(frozen=True)
class StatedSetting:
    """A setting or a band [kPa], the field it was entered in, where it comes from; no value where nothing is stated."""

    value: float | tuple[float, float] | None
    key: str
    provenance: Provenance = "published"


def stated_setting(sample: Sample) -> StatedSetting:
    """Return the setting that is stated of a sample.

    Examples
    --------
    >>> from tabrel.core.study.model import Claim
    >>> claim = Claim("result", "box", key="bypass_opening_kpa", value="8 to 11 psi")
    >>> stated_setting(Sample("A", claims=(claim,))).value
    (55.1581, 75.8423)
    """
    if sample.bypass.stated_kpa is not None:
        key = "sample.stated_bypass"
        return StatedSetting(sample.bypass.stated_kpa, key, "assumed" if f"details/{key}" in sample.copied else "published")
    for claim in sample.claims:
        if claim.kind != "result" or claim.key != OPENING_KEY or claim.stale is not None or claim.relation not in (None, "="):
            continue
        try:
            meaning = parse_reading(claim.value or "", "pressure", zero_allowed=False)
        except ReadingTextError:
            continue
        if meaning.bound:
            continue
        ends = tuple(float(f"{end / 1e3:.6g}") for end in meaning.interval or (meaning.value,))
        return StatedSetting((ends[0], ends[1]) if len(ends) == 2 else ends[0], "claims", claim.counts_as)
    return StatedSetting(None, "sample.stated_bypass")

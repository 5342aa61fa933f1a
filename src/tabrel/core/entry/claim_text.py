"""Understand what a box, a page or a person claims, as far as it is a number that can be checked; else its words stay words.

``99+ % at 20 µm(c), ISO 4548-12`` and ``beta 75 at 20`` are efficiencies, ``Bypass valve 15 psi`` is the opening pressure,
``over 420 grams`` the mass, ``5 to 5.5 threads`` a number of turns.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.results import RESULTS, WIRE_UNITS, ResultRow
from tabrel.core.catalogue.units import UNITS, Dimension
from tabrel.core.entry.reading_text import parse_reading, typed_number
from tabrel.core.errors import ReadingTextError
from tabrel.core.study.model import Claim, ClaimKind, Relation, SizeScale

_NUMBER = r"\d+(?:[.,]\d+)?"
_RELATION = (
    r"(?P<relation>>=|≥|>|<=|≤|<|=|over|above|more\s+than|at\s+least|min(?:imum)?\.?|up\s+to|at\s+most|under|below|less\s+than)"
)
_PERCENT = re.compile(
    rf"(?:{_RELATION}\s*)?(?<![\d.,])(?P<percent>\d{{1,2}}(?:[.,]\d+)?)\s*(?P<plus>\+)?\s*(?:%|per\s?cents?\b)\s*(?P<plus_after>\+)?",
    re.IGNORECASE,
)
_BETA_OF_SIZE = re.compile(
    rf"(?:β|\bbeta)\s*[_(]?\s*(?P<size>{_NUMBER})\s*\)?\s*(?P<scale>\(c\)|\(b\))?\s*(?P<relation>>=|≥|=|>)\s*(?P<beta>{_NUMBER})",
    re.IGNORECASE,
)
_BETA = re.compile(rf"(?:β|\bbeta)\s*(?:ratio\s*)?(?:of\s*)?{_RELATION}?\s*(?P<beta>{_NUMBER})", re.IGNORECASE)
_SCALES = r"[µμu]m\s?\(c\)|[µμu]m\s?\(b\)|microns?\s?\(c\)|microns?\s?\(b\)|[µμu]m\b|microns?\b|micromet(?:er|re)s?\b"
_SIZE = re.compile(
    rf"(?P<size>{_NUMBER})\s*(?:(?:{_SCALES})?\s*(?P<range>-|–|to)\s*{_NUMBER})?\s*(?P<scale>{_SCALES})", re.IGNORECASE
)
_SIZE_AFTER_AT = re.compile(rf"(?:\bat|@)\s*(?P<size>{_NUMBER})(?P<range>\s*(?:-|–|to)\s*{_NUMBER})?(?P<scale>)", re.IGNORECASE)
_STANDARD = re.compile(r"\b(?:ISO|SAE)\s*\d[\d-]*", re.IGNORECASE)
_OLD_SCALE = re.compile(r"ISO\s*4402|ACFTD|ISO\s*4572", re.IGNORECASE)

_RELATIONS: dict[str, Relation] = {
    ">=": ">=", "≥": ">=", "at least": ">=", "min": ">=", "min.": ">=", "minimum": ">=", "minimum.": ">=",
    ">": ">", "over": ">", "above": ">", "more than": ">",
    "<=": "<=", "≤": "<=", "up to": "<=", "at most": "<=",
    "<": "<", "under": "<", "below": "<", "less than": "<",
}  # fmt: skip

_AMOUNT = (
    rf"(?:{_RELATION}\s*)?(?P<value>{_NUMBER}(?:\s*(?P<unit_before>UNITS)?\s*(?:-|–|to)\s*{_NUMBER})?\s*(?P<unit>UNITS))(?![\w²])"
)


def _amount(units: str) -> str:
    return _AMOUNT.replace("UNITS", units)


_PRESSURES = r"psid?|kPa|MPa|bars?|pounds(?:\s+per\s+square\s+inch)?|lbs?"
_MASSES = r"kg|g|grams?|grammes?|oz|ounces?|lbs?|pounds?"
_LENGTHS = r"mm|cm|m|in|inch|inches|ft|feet|thou|mils?"
_AREAS = r"mm2|mm²|cm2|cm²|in2|in²|sq\.?\s?in(?:ches)?|square\s+inch(?:es)?|square\s+centimet(?:er|re)s?"
_NOT_A_CHECK = re.compile(
    r"\b(?:twice|times|double|half|capacity|dirt|dust|holds?|longer|better|more\s+than\s+(?:any|other))\b", re.IGNORECASE
)
_COUNTED = rf"(?:{_RELATION}\s*)?(?P<value>{_NUMBER}(?:\s*(?:-|–|to)\s*{_NUMBER})?)(?P<unit>)"


@dataclass(frozen=True)
class _Check:
    """A claim that can be checked: what it is on, the words that name it, and the amount that stands in the sentence."""

    kind: ClaimKind
    key: str
    named: str
    amount: str

    def match(self, plain: str) -> re.Match[str] | None:
        """Return the amount in a sentence that names it, or None."""
        if not re.search(self.named, plain, re.IGNORECASE):
            return None
        return re.search(rf"(?<![\d.,]){self.amount}", plain, re.IGNORECASE)


_CHECKS = (
    _Check("result", "bypass_opening_kpa", r"\b(?:by-?\s?pass|relief|crack(?:s|ing)?|opens?|opening)\b", _amount(_PRESSURES)),
    _Check("result", "media_gross_area_cm2", r"\b(?:media|paper|filter(?:ing)?\s+area)\b", _amount(_AREAS)),
    _Check("result", "inlet_hole_area_mm2", r"\bhole\s+area\b|\bholes\b(?!.*\beach\b)", _amount(_AREAS)),
    _Check("reading", "media.strip_length", r"\b(?:media|paper|strip)\b", _amount(_LENGTHS)),
    _Check("reading", "can.wall_thickness", r"\b(?:wall|can|steel|housing)\b", _amount(_LENGTHS)),
    _Check("reading", "element.pleat_count", r"\bpleats\b", rf"{_COUNTED}\s*pleats\b"),
    _Check("reading", "thread.turns", r"\b(?:threads?|turns?)\b", rf"{_COUNTED}\s*(?:threads?|turns?)\b"),
    _Check(
        "reading",
        "filter.mass",
        rf"^(?:(?:it\s+)?weigh|mass\b|(?:{_RELATION}\s*)?[\d.,]+\s*(?:{_MASSES})(?:\s+in\s+weight)?\.?$)",
        _amount(_MASSES),
    ),
)
"""Other claims in a sentence that can be checked, the surest first."""


def claim_from_wording(wording: str, source: str) -> Claim:
    """Return the claim that a sentence as printed makes, as far as it can be read; else the words alone.

    Returns
    -------
    Claim
        Of an efficiency, a reading, a result, or of words. A particle size whose scale is not named has the
        scale ``unnamed``.

    Examples
    --------
    >>> claim = claim_from_wording("99+ % at 20 µm(c), ISO 4548-12", "box")
    >>> claim.relation, claim.efficiency_percent, claim.size_um, claim.scale, claim.standard
    ('>=', 99.0, 20.0, 'um(c)', 'ISO 4548-12')
    >>> claim = claim_from_wording("over 420 grams", "page")
    >>> claim.key, claim.relation, claim.value
    ('filter.mass', '>', '420 grams')
    """
    plain = " ".join(wording.split())
    return _efficiency(plain, source) or _checkable(plain, source) or Claim("words", source, wording=plain)


def _efficiency(plain: str, source: str) -> Claim | None:
    """Return the efficiency that a sentence claims in per cent or as a filtration ratio, or None."""
    relation: Relation = "="
    sized: re.Match[str] | None
    if match := _BETA_OF_SIZE.search(plain):
        percent, relation, sized = _of_beta(match["beta"]), _relation(match["relation"]), match
    elif match := _BETA.search(plain):
        percent, relation = _of_beta(match["beta"]), _relation(match["relation"])
        sized = _SIZE.search(plain, match.end()) or _SIZE_AFTER_AT.search(plain, match.end())
    elif match := _PERCENT.search(plain):
        percent = typed_number(match["percent"], plain)
        relation = ">=" if match["plus"] or match["plus_after"] else _relation(match["relation"])
        sized = _SIZE.search(plain, match.end()) or _SIZE_AFTER_AT.search(plain, match.end())
    else:
        return None
    if percent is None or not 0 < percent < 100:
        return None
    size = sized if sized is not None and not sized.groupdict().get("range") else None  # a range of sizes stays in the words
    standard = _STANDARD.search(plain)
    return Claim(
        "efficiency",
        source,
        relation=relation,
        efficiency_percent=percent,
        size_um=typed_number(size["size"], plain) if size else None,
        scale=_scale(size["scale"] or "", plain) if size else None,
        standard=standard[0] if standard else None,
        wording=plain,
    )


def _of_beta(text: str) -> float | None:
    beta = float(text.replace(",", "."))
    return float(f"{100 * (1 - 1 / beta):.10g}") if beta > 1 else None


def _relation(text: str | None) -> Relation:
    return _RELATIONS.get(" ".join((text or "").casefold().split()), "=")


def _scale(text: str, plain: str) -> SizeScale:
    """Return the scale a size names; plain µm names one only where the old scale is named with it."""
    if "(c)" in text.casefold():
        return "um(c)"
    if "(b)" in text.casefold():
        return "um(b)"
    return "um" if _OLD_SCALE.search(plain) else "unnamed"


def _checkable(plain: str, source: str) -> Claim | None:
    """Return the claim on a reading or a result that a sentence makes, or None."""
    if _NOT_A_CHECK.search(plain):
        return None
    for check in _CHECKS:
        match = check.match(plain)
        if match is None:
            continue
        value = re.sub(r"\s*[-–]\s*(?=\d)", " to ", match["value"]).strip()
        for typed, symbol in ((r"\bpsid\b", "psi"), (r"\bsq\.?\s?in(?:ches)?\b", "in2")):
            value = re.sub(typed, symbol, value, flags=re.IGNORECASE)
        try:
            parse_reading(value, claim_dimension(check.kind, check.key))
        except ReadingTextError:
            continue
        return Claim(check.kind, source, relation=_relation(match["relation"]), key=check.key, value=value, wording=plain)
    return None


RESULT_BY_KEY: dict[str, ResultRow] = {row.key: row for row in RESULTS.values()}
CLAIMABLE_RESULTS = (
    "inlet_hole_area_mm2",
    "plate_flow_area_mm2",
    "media_gross_area_cm2",
    "media_effective_area_cm2",
    "bypass_opening_kpa",
    "bypass_full_open_kpa",
    "efficiency_at_20_um_percent",
)
"""Results, by key, that a claim can be about."""


def claim_dimension(kind: ClaimKind, key: str) -> Dimension:
    """Return what the value of a claim on a reading or a result measures."""
    if kind == "reading":
        return QUANTITIES[key].dimension
    return UNITS[WIRE_UNITS[RESULT_BY_KEY[key].unit]].dimension


def check_from_text(key: str, text: str, source: str) -> Claim:
    """Return a claim on a reading or a result, such as ``>= 1.5 m`` for the strip length.

    Raises
    ------
    ReadingTextError
        If the text is nothing that can be claimed of it.

    Examples
    --------
    >>> claim = check_from_text("media_effective_area_cm2", "at least 1200 cm2", "page")
    >>> claim.kind, claim.relation, claim.value
    ('result', '>=', '1200 cm2')
    """
    kind: ClaimKind = "reading" if key in QUANTITIES else "result"
    title = QUANTITIES[key].title if kind == "reading" else RESULT_BY_KEY[key].title
    plain = " ".join(text.split())
    relation: Relation = "="
    for sign in sorted(_RELATIONS, key=len, reverse=True):
        if plain.casefold().startswith(sign):
            relation, plain = _RELATIONS[sign], plain[len(sign) :].strip()
            break
    try:
        parse_reading(plain, claim_dimension(kind, key), zero_allowed=kind == "reading" and QUANTITIES[key].zero_allowed)
    except ReadingTextError as error:
        raise ReadingTextError(f"this cannot be claimed of the {title}: {error}") from error
    return Claim(kind, source, relation=relation, key=key, value=plain)

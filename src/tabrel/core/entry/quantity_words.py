"""Which quantity somebody means by the words of an old spreadsheet: ``Can OD``, ``gasket thickness [mm]``."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from tabrel.core.catalogue.quantities import PART_SYNONYMS, PART_TITLES, QUANTITIES, Quantity
from tabrel.core.catalogue.units import Dimension, unit_of

_SHORT: dict[str, str] = {
    "od": "outside diameter",
    "id": "inside diameter",
    "dia": "diameter",
    "diam": "diameter",
    "ø": "diameter",
    "⌀": "diameter",
    "outer": "outside",
    "inner": "inside",
    "thk": "thickness",
    "thick": "thickness",
    "wt": "mass",
    "weight": "mass",
    "len": "length",
    "no": "count",
    "number": "count",
    "qty": "count",
    "pleats": "pleat count",
    "antidrain": "anti drainback valve",
    "adbv": "anti drainback valve",
}
LONGEST_NAME = 200
_EMPTY_WORDS = frozenset({"of", "the", "a", "an", "in", "at", "and", "to", "mean", "avg", "measured"})
_UNIT = re.compile(
    r"[\[(]\s*([^\])]+?)\s*[\])]|,\s*([^\s,]+)\s*$|\s(mm|cm|in|inch|inches|g|kg|lb|oz|kPa|bar|psi|N|lbf|thou|mil)\s*$"
)


@dataclass(frozen=True)
class NamedQuantity:
    """Quantity that a heading names.

    Attributes
    ----------
    quantities : tuple of Quantity
        One where it is understood, none where it is not, several where it could be each of them.
    unit : str
        Symbol that it names; empty for none.
    is_exact : bool
        Whether the words are its name; else its name is among them, and the rest means something else.
    """

    quantities: tuple[Quantity, ...]
    unit: str = ""
    is_exact: bool = True


@lru_cache(maxsize=2_000)
def named_quantity(words: str) -> NamedQuantity:
    """Return which quantity words name, and in which unit.

    Parameters
    ----------
    words : str
        Of a heading, or of the first cell of a row.

    Examples
    --------
    >>> named_quantity("Can OD [in]").quantities[0].key, named_quantity("Can OD [in]").unit
    ('can.outside_diameter', 'in')
    >>> [one.key for one in named_quantity("strip length").quantities]
    ['media.strip_length']
    >>> named_quantity("colour").quantities
    ()
    """
    plain = words.strip()
    if len(plain) > LONGEST_NAME:
        return NamedQuantity(())
    if plain in QUANTITIES:
        return NamedQuantity((QUANTITIES[plain],))
    marked = _UNIT.search(plain)
    mark = next((group for group in marked.groups() if group), "") if marked else ""
    without = plain[: marked.start()] + " " + plain[marked.end() :] if marked else plain
    candidates, is_exact = _matching(_tokens(without if mark else plain))
    for quantity in candidates:
        if mark and quantity.metric_unit and (result := unit_of(mark, quantity.dimension)):
            return NamedQuantity(candidates, result.symbol, is_exact)
    if mark and not _is_unit(mark):
        candidates, is_exact = _matching(_tokens(plain))
    return NamedQuantity(candidates, is_exact=is_exact)


def _is_unit(mark: str) -> bool:
    dimensions: tuple[Dimension, ...] = ("length", "mass", "force", "pressure", "area", "air_permeability", "count")
    return any(unit_of(mark, dimension) for dimension in dimensions)


def _tokens(words: str) -> frozenset[str]:
    plain = re.sub(r"[^\w°⌀ø]+|_", " ", words.casefold())
    spelled = " ".join(_SHORT.get(word, word) for word in plain.split())
    return frozenset(word for word in spelled.split() if word not in _EMPTY_WORDS)


def _matching(wanted: frozenset[str]) -> tuple[tuple[Quantity, ...], bool]:
    """Return the quantities whose name these words are; else those whose name is in them, the longest; and which it is."""
    if not wanted:
        return (), True
    exact = dict.fromkeys(key for tokens, key in _names() if tokens == wanted)
    if exact:
        return tuple(QUANTITIES[key] for key in exact), True
    held = [(len(tokens), key) for tokens, key in _names() if len(tokens) > 1 and tokens < wanted]
    longest = max((length for length, _ in held), default=0)
    return tuple(QUANTITIES[key] for key in dict.fromkeys(key for length, key in held if length == longest)), False


@lru_cache
def _names() -> tuple[tuple[frozenset[str], str], ...]:
    """Return every name of every quantity as the set of its words: with its part first, then alone."""
    return tuple(_each_name())


def _each_name() -> Iterator[tuple[frozenset[str], str]]:
    for quantity in QUANTITIES.values():
        titles = (quantity.title, quantity.key.partition(".")[2], *quantity.synonyms)
        parts = (quantity.part, PART_TITLES[quantity.part], *PART_SYNONYMS.get(quantity.part, ()))
        for title in titles:
            for part in parts:
                yield _tokens(f"{part} {title}"), quantity.key
            yield _tokens(title), quantity.key

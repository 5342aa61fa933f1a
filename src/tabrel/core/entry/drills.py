"""Twist-drill sizes: the fractional, number and letter series of inch drills.

Sizes as standardised in ASME B94.11M (Twist Drills), in inches. A hole sized by "the drill that
goes" is bounded above by the next larger drill of the same series; numbers run on into letters, and
letters into the fractions, because the gauge a person holds does.
"""

from __future__ import annotations

import re
from bisect import bisect_right
from fractions import Fraction

from tabrel.core.catalogue.units import UNITS
from tabrel.core.errors import ReadingTextError

_NUMBERED = [
    ".2280",
    ".2210",
    ".2130",
    ".2090",
    ".2055",
    ".2040",
    ".2010",
    ".1990",
    ".1960",
    ".1935",
    ".1910",
    ".1890",
    ".1850",
    ".1820",
    ".1800",
    ".1770",
    ".1730",
    ".1695",
    ".1660",
    ".1610",
    ".1590",
    ".1570",
    ".1540",
    ".1520",
    ".1495",
    ".1470",
    ".1440",
    ".1405",
    ".1360",
    ".1285",
    ".1200",
    ".1160",
    ".1130",
    ".1110",
    ".1100",
    ".1065",
    ".1040",
    ".1015",
    ".0995",
    ".0980",
    ".0960",
    ".0935",
    ".0890",
    ".0860",
    ".0820",
    ".0810",
    ".0785",
    ".0760",
    ".0730",
    ".0700",
    ".0670",
    ".0635",
    ".0595",
    ".0550",
    ".0520",
    ".0465",
    ".0430",
    ".0420",
    ".0410",
    ".0400",
    ".0390",
    ".0380",
    ".0370",
    ".0360",
    ".0350",
    ".0330",
    ".0320",
    ".0310",
    ".0292",
    ".0280",
    ".0260",
    ".0250",
    ".0240",
    ".0225",
    ".0210",
    ".0200",
    ".0180",
    ".0160",
    ".0145",
    ".0135",
]
_LETTERED = [
    ".234",
    ".238",
    ".242",
    ".246",
    ".250",
    ".257",
    ".261",
    ".266",
    ".272",
    ".277",
    ".281",
    ".290",
    ".295",
    ".302",
    ".316",
    ".323",
    ".332",
    ".339",
    ".348",
    ".358",
    ".368",
    ".377",
    ".386",
    ".397",
    ".404",
    ".413",
]

NUMBER_DRILLS: dict[str, float] = {str(i + 1): float(size) for i, size in enumerate(_NUMBERED)}
LETTER_DRILLS: dict[str, float] = {chr(ord("A") + i): float(size) for i, size in enumerate(_LETTERED)}
_GAUGE = sorted({*NUMBER_DRILLS.values(), *LETTER_DRILLS.values()})


def _fractional_series() -> list[float]:
    """Return the jobbers' and larger fractional sizes up to 3 1/2 in."""
    series = [Fraction(i, 64) for i in range(1, 113)]  # to 1 3/4 by 64ths
    series += [Fraction(7, 4) + Fraction(i, 32) for i in range(1, 17)]  # to 2 1/4 by 32nds
    series += [Fraction(9, 4) + Fraction(i, 16) for i in range(1, 21)]  # to 3 1/2 by 16ths
    return [float(size) for size in series]


_FRACTIONAL = _fractional_series()


def drill_interval(name: str) -> tuple[float, float]:
    """Return the diameter of a named drill and of the next larger one of its series.

    Parameters
    ----------
    name : str
        ``13/64``, ``1 1/8``, ``#16``, ``number 16``, ``F`` or ``letter F``.

    Returns
    -------
    goes, next_size : float
        Both diameters. [m]

    Raises
    ------
    ReadingTextError
        If there is no such drill.

    Examples
    --------
    >>> [round(d * 1e3, 4) for d in drill_interval("13/64")]
    [5.1594, 5.5562]
    """
    inch = UNITS["in"].factor
    plain = re.sub(r'\s*(in|")$', "", name.strip())
    plain = re.sub(r"^letter\s+", "", re.sub(r"^number\s*", "#", plain, flags=re.IGNORECASE), flags=re.IGNORECASE)
    if plain.startswith("#") and plain[1:].strip() in NUMBER_DRILLS:
        size = NUMBER_DRILLS[plain[1:].strip()]
        return size * inch, _GAUGE[bisect_right(_GAUGE, size)] * inch
    if plain.upper() in LETTER_DRILLS:
        size = LETTER_DRILLS[plain.upper()]
        larger = bisect_right(_GAUGE, size)
        series = _GAUGE if larger < len(_GAUGE) else _FRACTIONAL
        return size * inch, series[bisect_right(series, size)] * inch
    fraction = _fractional_size(plain)
    if fraction is None or fraction not in _FRACTIONAL[:-1]:
        raise ReadingTextError(
            f"there is no drill {name!r}: write a fraction in 64ths such as 13/64, a number such as #16, or a letter A to Z; "
            "of a metric drill type the size itself, such as 4.5 mm"
        )
    return fraction * inch, _FRACTIONAL[_FRACTIONAL.index(fraction) + 1] * inch


def _fractional_size(name: str) -> float | None:
    try:
        return float(sum(Fraction(part) for part in name.split()))
    except (ValueError, ZeroDivisionError):
        return None

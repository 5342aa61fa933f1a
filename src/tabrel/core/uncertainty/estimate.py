"""From the readings of one quantity to one estimate with its uncertainty.

Evaluation after the GUM (JCGM 100:2008, 4.2 and 4.3): repeatability from the readings (type A),
permissible error and resolution of the instrument as rectangular distributions (type B).
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import inf, sqrt
from statistics import fmean, median, median_low, stdev

from tabrel.core.catalogue.quantities import Quantity
from tabrel.core.catalogue.terms import PROVENANCE_ORDER
from tabrel.core.entry.reading_text import ParsedReading, parse_reading
from tabrel.core.study.model import Instrument, Provenance, Reading, ReadingEntry, as_reading

POOLED_DEGREES_OF_FREEDOM = 30
OUTLIER_SCORES = {4: 16.0, 5: 18.5, 6: 10.1, 7: 10.7, 8: 7.9, 9: 8.2, 10: 6.9, 12: 6.4, 14: 6.0, 20: 5.3, 30: 4.8, 60: 4.4}
"""The modified z-score that 1 % of honest sets of so many readings exceed, and up to the next number: by simulation, since the
usual 3.5 marks 10 to 16 % of them at 4 to 15 readings."""

SPREAD_OF_UNEQUAL_HOLES = 1.5
"""Times the pooled repeatability; holes whose readings spread wider differ among themselves."""

VARYING = ("media.strip_width",)
"""Sizes that vary along the part: places that differ count by their own spread, as holes do."""

VARYING_PLACES = 10**6
"""Places along a part, as many as there would be holes: those that were not read count by the spread of those that were."""

QUESTIONED_SPREAD = 3.0
"""Times the pooled repeatability; readings that spread wider are asked about."""

PROVENANCE_RELATIVE_ERROR: dict[Provenance, float] = {"by_eye": 0.10, "assumed": 0.20}
"""Half-width, as a fraction of the value, of a size judged by eye and of one assumed from like parts."""

THREAD_TOLERANCE = 0.15e-3
"""Of the major diameter of a thread that is named rather than measured, either way: about the tolerance of its class. [m]"""
STRIP_PULL_RELATIVE = 0.01  # how hard the strip was pulled changes its length by up to 1 %


@dataclass(frozen=True)
class InstrumentError:
    """Uncertainty that an instrument adds to a reading.

    Attributes
    ----------
    permissible_error, resolution, repeatability : float
        Half-width of the permissible error, one step of the display, pooled standard deviation of a
        single reading. [SI of the quantity, or a fraction of the reading where `relative`]
    relative : bool
        Whether the three are fractions of the reading.
    """

    permissible_error: float
    resolution: float
    repeatability: float
    relative: bool = False

    def scaled(self, value: float) -> InstrumentError:
        """Return the same error in SI at a reading of `value`."""
        if not self.relative:
            return self
        return InstrumentError(self.permissible_error * value, self.resolution * value, self.repeatability * value)

    @property
    def type_b(self) -> TypeB:
        """Type B variance of permissible error and resolution."""
        error = self.permissible_error**2 / 3
        return TypeB(error + self.resolution**2 / 12, error)


@dataclass(frozen=True)
class TypeB:
    """Type B variance of a reading, and the part of it that is one rectangular distribution."""

    variance: float
    rectangular: float


_RELATIVE = InstrumentError(0.05, 0.0, 0.02, relative=True)
INSTRUMENT_ERRORS: dict[Instrument, InstrumentError] = {
    "caliper": InstrumentError(0.03e-3, 0.01e-3, 0.03e-3),
    "micrometer": InstrumentError(0.004e-3, 0.001e-3, 0.01e-3),
    "tape": InstrumentError(0.5e-3, 1e-3, 1.5e-3),
    "scale": InstrumentError(1e-3, 1e-3, 0.5e-3),
    "force_gauge": _RELATIVE,
    "pressure_gauge": _RELATIVE,
    "permeability_tester": _RELATIVE,
    "microscope": _RELATIVE,
    "none": InstrumentError(0.0, 0.0, 0.0),
}


@dataclass(frozen=True)
class Estimate:
    """The best value of one quantity.

    Attributes
    ----------
    value : float
        Mean of the readings used. [SI]
    uncertainty_a, uncertainty_b : float
        Standard uncertainties from repeating and from the instrument. [SI]
    degrees_of_freedom : float
        Of `uncertainty_a`.
    outliers : tuple of int
        Indices, among all readings in use, of those that do not fit the others (`outlying`).
    unit : str
        Unit the first reading was typed in.
    provenance : str
        Of the readings used; of those that were only copied, assumed.
    used : tuple of int
        Indices of the readings used: those of the best provenance.
    instrument : str
        What the first of them was taken with.
    is_interval : bool
        Whether all of them are ranges or gauges that go.
    rectangular : float
        Part of `uncertainty_b` that is the widest single rectangular distribution. [SI]
    """

    value: float
    uncertainty_a: float
    uncertainty_b: float
    degrees_of_freedom: float
    outliers: tuple[int, ...]
    unit: str
    provenance: Provenance = "measured"
    used: tuple[int, ...] = ()
    instrument: Instrument = "none"
    is_interval: bool = False
    rectangular: float = 0.0

    @property
    def standard_uncertainty(self) -> float:
        """Combined standard uncertainty. [SI]"""
        return sqrt(self.uncertainty_a**2 + self.uncertainty_b**2)


@dataclass(frozen=True)
class Limits:
    """Between what a quantity lies of which only bounds were read; None where a side is open. [SI]"""

    low: float | None
    high: float | None


def quantity_limits(quantity: Quantity, entries: Sequence[ReadingEntry]) -> Limits | None:
    """Return the limits that bounds among the readings in use set, or None where there is none.

    Examples
    --------
    >>> from tabrel.core.catalogue.quantities import QUANTITIES
    >>> quantity_limits(QUANTITIES["filter.mass"], ["over 420 g", "over 400 g"])
    Limits(low=0.42, high=None)
    """
    parsed = [parse_reading(as_reading(entry).text, quantity.dimension) for entry in entries]
    lows = [meaning.value for meaning in parsed if meaning.bound == "at_least"]
    highs = [meaning.value for meaning in parsed if meaning.bound == "at_most"]
    return Limits(max(lows, default=None), min(highs, default=None)) if lows or highs else None


def estimate_quantity(quantity: Quantity, entries: Sequence[ReadingEntry], holes: int | None = None) -> Estimate | None:
    """Return the estimate of a quantity from the readings in use, or None where they are bounds alone.

    Readings of unlike provenance are not averaged: a size judged by eye stays visible, and gives way
    once there is a measured one. A drill or a go / no-go pair gives the middle of its interval with the
    standard deviation of a rectangular distribution over it, and no repeatability of its own: the
    gauge is the same each time; a range as typed counts in the same way. A bound (``over 420 g``) is no
    value and gives way to any reading that is one. Among readings of several sorts the type B parts are combined as a
    root mean square, and the least repeatable instrument counts for all.

    Of a group of holes, readings of one hole count as one: repeating says nothing of the others. Holes that differ
    among themselves (`SPREAD_OF_UNEQUAL_HOLES`) count by their own spread, as far as some were not read.

    Parameters
    ----------
    quantity : Quantity
        From the catalogue.
    entries : sequence of str or Reading, at least one
        The readings in use.
    holes : int or None
        Of how many holes they are; None where it is no size of a hole.

    Raises
    ------
    ReadingTextError
        If a text is not a reading of this quantity.
    """
    return _estimated(quantity, tuple(entries), holes)


@lru_cache(maxsize=8192)
def _estimated(quantity: Quantity, entries: tuple[ReadingEntry, ...], holes: int | None) -> Estimate | None:
    """Return the estimate; remembered, since of a sample's readings one changes at a time."""
    readings = [as_reading(entry) for entry in entries]
    meanings = [parse_reading(reading.text, quantity.dimension, zero_allowed=quantity.zero_allowed) for reading in readings]
    valued = [i for i, meaning in enumerate(meanings) if not meaning.bound]
    if not valued:
        return _between(quantity_limits(quantity, readings), meanings[0].unit)
    best = min((readings[i].counts_as for i in valued), key=PROVENANCE_ORDER.index)
    used = tuple(i for i in valued if readings[i].counts_as == best)
    parsed = [(readings[i], meanings[i]) for i in used]
    values = hole_means([reading for reading, _ in parsed], [meaning.value for _, meaning in parsed])
    mean = fmean(values)
    errors = [_reading_error(reading, meaning, quantity, mean, best) for reading, meaning in parsed]
    if quantity.key in VARYING:
        holes = VARYING_PLACES
    uncertainty_a, freedom = _repeatability(values, max(pooled for pooled, _ in errors), holes)
    square_b, rectangular = (fmean(parts) for parts in zip(*((b.variance, b.rectangular) for _, b in errors), strict=True))
    if quantity.key == "media.strip_length" and best == "measured":
        pull = (STRIP_PULL_RELATIVE * mean) ** 2 / 3
        square_b, rectangular = square_b + pull, max(rectangular, pull)
    if quantity.instrument == "none" and best in ("measured", "derived"):
        uncertainty_a = square_b = rectangular = 0.0
    outliers = tuple(used[i] for i in outlying([meanings[i] for i in used]))
    first, meaning = parsed[0]
    return Estimate(
        mean,
        uncertainty_a,
        sqrt(square_b),
        freedom,
        outliers,
        meaning.unit,
        best,
        used,
        usual_instrument(first, quantity),
        all(parsed_reading.interval is not None for _, parsed_reading in parsed),
        sqrt(rectangular),
    )


def _between(limits: Limits | None, unit: str) -> Estimate | None:
    """Return the middle of limits that are closed on both sides, evenly between them; None for any others."""
    if limits is None or limits.low is None or limits.high is None or not limits.low < limits.high:
        return None
    low, high = limits.low, limits.high
    u = (high - low) / sqrt(12)
    return Estimate((low + high) / 2, 0.0, u, inf, (), unit, "measured", (), rectangular=u)


def _reading_error(
    reading: Reading, meaning: ParsedReading, quantity: Quantity, mean: float, provenance: Provenance
) -> tuple[float, TypeB]:
    """Return the pooled repeatability [SI] and the type B variance [SI²] of one reading."""
    half = None
    if reading.uncertainty is not None:
        return 0.0, TypeB(parse_reading(reading.uncertainty, quantity.dimension, zero_allowed=True).value ** 2, 0.0)
    if meaning.interval is not None:
        half = (meaning.interval[1] - meaning.interval[0]) / 2
    elif provenance in PROVENANCE_RELATIVE_ERROR:
        half = PROVENANCE_RELATIVE_ERROR[provenance] * meaning.value
    elif provenance == "published" and quantity.key == "thread.major_diameter":  # 3/4 in is no figure rounded to a quarter
        half = THREAD_TOLERANCE
    elif provenance == "published" and quantity.key == "thread.pitch":
        half = 0.0
    elif provenance == "published":
        half = meaning.last_digit / 2
    if half is not None:
        return 0.0, TypeB(half**2 / 3, half**2 / 3)
    error = instrument_error(reading, quantity).scaled(mean)
    return error.repeatability, error.type_b


def instrument_error(reading: Reading, quantity: Quantity) -> InstrumentError:
    """Return the error of what a reading was taken with; an own instrument counts as the quantity's usual one."""
    return INSTRUMENT_ERRORS[usual_instrument(reading, quantity)]


def usual_instrument(reading: Reading, quantity: Quantity) -> Instrument:
    """Return the usual instrument that a reading was taken with."""
    return next((known for known in INSTRUMENT_ERRORS if known == reading.instrument), quantity.instrument)


def hole_means(readings: Sequence[Reading], values: Sequence[float]) -> list[float]:
    """Return one value a hole: the number of a hole joins its readings, those without a number stand alone."""
    keys = [reading.hole or f"unnumbered {i}" for i, reading in enumerate(readings)]
    return [fmean(value for value, own in zip(values, keys, strict=True) if own == key) for key in dict.fromkeys(keys)]


def _repeatability(values: Sequence[float], pooled: float, holes: int | None) -> tuple[float, float]:
    """Return the type A standard uncertainty of the mean and its degrees of freedom."""
    n = len(values)
    spread = stdev(values) if n > 1 else 0.0
    if holes is not None and n >= 3 and 0 < SPREAD_OF_UNEQUAL_HOLES * pooled < spread:
        # what the holes not read may be, and the repeating of those that were
        between = spread**2 * max(1 / n - 1 / holes, 0.0)
        return sqrt(between + pooled**2 / max(n, holes)), n - 1 if between > 0 else POOLED_DEGREES_OF_FREEDOM
    if n >= 4:
        return spread / sqrt(n), n - 1
    uncertainty = max(spread, pooled) / sqrt(n)
    return uncertainty, POOLED_DEGREES_OF_FREEDOM if uncertainty > 0 else inf


def differ_among_themselves(quantity: Quantity, readings: Sequence[Reading]) -> bool:
    """Return whether holes differ by more than their readings do, by the readings in use of one size."""
    meanings = [parse_reading(reading.text, quantity.dimension) for reading in readings]
    return spread_over_pooled(quantity, readings, meanings) > SPREAD_OF_UNEQUAL_HOLES


def spread_over_pooled(quantity: Quantity, readings: Sequence[Reading], meanings: Sequence[ParsedReading]) -> float:
    """Return how many times the pooled repeatability readings by an instrument spread; 0 where nothing can be said. [-]"""
    pairs = [
        (meaning.value, instrument_error(reading, quantity).scaled(meaning.value).repeatability)
        for reading, meaning in zip(readings, meanings, strict=True)
        if reading.counts_as == "measured" and meaning.interval is None and not meaning.bound
    ]
    pooled = max((repeatability for _, repeatability in pairs), default=0.0)
    return stdev(value for value, _ in pairs) / pooled if len(pairs) > 1 and pooled > 0 else 0.0


def outlying(meanings: Sequence[ParsedReading]) -> tuple[int, ...]:
    """Return the indices of readings whose modified z-score exceeds the limit for their number, among four or more.

    The score is 0.6745·|x − median|/MAD (Iglewicz and Hoaglin, How to Detect and Handle Outliers,
    ASQC, 1993), after taking off what rounding explains: half a step of the last digit typed from the distance,
    and no less than that for the scale, since equal readings have a MAD of zero.

    Examples
    --------
    >>> from tabrel.core.entry.reading_text import parse_reading
    >>> outlying([parse_reading(text, "length") for text in ("0.47 mm", "0.48 mm", "0.46 mm", "4.5 mm")])
    (3,)
    """
    if len(meanings) < min(OUTLIER_SCORES):
        return ()
    values = [meaning.value for meaning in meanings]
    centre, step = median(values), median_low(meaning.last_digit for meaning in meanings)
    deviations = [abs(value - centre) for value in values]
    scale = max(median(deviations) / 0.6745, step / 2)
    counts = sorted(OUTLIER_SCORES)
    limit = OUTLIER_SCORES[counts[bisect_right(counts, len(values)) - 1]]
    return tuple(i for i, deviation in enumerate(deviations) if deviation - step / 2 > limit * scale > 0)

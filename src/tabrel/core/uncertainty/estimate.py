"""From the readings of one quantity to one estimate with its uncertainty.

Evaluation after the GUM (JCGM 100:2008, 4.2 and 4.3): repeatability from the readings (type A),
permissible error and resolution of the instrument as rectangular distributions (type B).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import dist, inf, sqrt
from statistics import fmean, median

from tabrel.core.catalogue.quantities import Quantity
from tabrel.core.catalogue.terms import PROVENANCE_ORDER
from tabrel.core.entry.reading_text import ParsedReading, parse_reading
from tabrel.core.study.model import Instrument, Provenance, Reading, ReadingEntry, as_reading

POOLED_DEGREES_OF_FREEDOM = 30
OUTLIER_SCORE = 3.5
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

    def standard_uncertainty_b(self) -> float:
        """Return the type B standard uncertainty of permissible error and resolution."""
        return sqrt(self.permissible_error**2 / 3 + self.resolution**2 / 12)


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
        Indices, among all readings in use, of those that do not fit the others (modified z-score
        above 3.5).
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


def estimate_quantity(quantity: Quantity, entries: Sequence[ReadingEntry]) -> Estimate | None:
    """Return the estimate of a quantity from the readings in use, or None where they are bounds alone.

    Readings of unlike provenance are not averaged: a size judged by eye stays visible, and gives way
    once there is a measured one. A drill or a go / no-go pair gives the middle of its interval with the
    standard deviation of a rectangular distribution over it, and no repeatability of its own: the
    gauge is the same each time; a range as typed counts in the same way. A bound (``over 420 g``) is no
    value and gives way to any reading that is one. Among readings of several sorts the type B parts are combined as a
    root mean square, and the least repeatable instrument counts for all.

    Parameters
    ----------
    quantity : Quantity
        From the catalogue.
    entries : sequence of str or Reading, at least one
        The readings in use.

    Returns
    -------
    Estimate or None

    Raises
    ------
    ReadingTextError
        If a text is not a reading of this quantity.
    """
    return _estimated(quantity, tuple(entries))


@lru_cache(maxsize=8192)
def _estimated(quantity: Quantity, entries: tuple[ReadingEntry, ...]) -> Estimate | None:
    """Return the estimate; remembered, since of a sample's readings one changes at a time."""
    readings = [as_reading(entry) for entry in entries]
    meanings = [parse_reading(reading.text, quantity.dimension, zero_allowed=quantity.zero_allowed) for reading in readings]
    valued = [i for i, meaning in enumerate(meanings) if not meaning.bound]
    if not valued:
        return _between(quantity_limits(quantity, readings), meanings[0].unit)
    best = min((readings[i].counts_as for i in valued), key=PROVENANCE_ORDER.index)
    used = tuple(i for i in valued if readings[i].counts_as == best)
    parsed = [(readings[i], meanings[i]) for i in used]
    values = [meaning.value for _, meaning in parsed]
    mean = fmean(values)
    errors = [_reading_error(reading, meaning, quantity, mean, best) for reading, meaning in parsed]
    uncertainty_a, freedom = _repeatability(values, max(pooled for pooled, _ in errors))
    square_b = fmean(variance for _, variance in errors)
    if quantity.key == "media.strip_length" and best == "measured":
        square_b += (STRIP_PULL_RELATIVE * mean) ** 2 / 3
    if quantity.instrument == "none" and best in ("measured", "derived"):
        uncertainty_a = square_b = 0.0
    outliers = tuple(used[i] for i in outlying(values))
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
        first.instrument or quantity.instrument,
        all(parsed_reading.interval is not None for _, parsed_reading in parsed),
    )


def _between(limits: Limits | None, unit: str) -> Estimate | None:
    """Return the middle of limits that are closed on both sides, evenly between them; None for any others."""
    if limits is None or limits.low is None or limits.high is None or not limits.low < limits.high:
        return None
    low, high = limits.low, limits.high
    return Estimate((low + high) / 2, 0.0, (high - low) / sqrt(12), inf, (), unit, "measured", ())


def _reading_error(
    reading: Reading, meaning: ParsedReading, quantity: Quantity, mean: float, provenance: Provenance
) -> tuple[float, float]:
    """Return the pooled repeatability [SI] and the type B variance [SI²] of one reading."""
    if meaning.interval is not None:
        return 0.0, (meaning.interval[1] - meaning.interval[0]) ** 2 / 12
    if provenance in PROVENANCE_RELATIVE_ERROR:
        return 0.0, (PROVENANCE_RELATIVE_ERROR[provenance] * meaning.value) ** 2 / 3
    if provenance == "published" and quantity.key == "thread.major_diameter":  # 3/4 in is no figure rounded to a quarter
        return 0.0, THREAD_TOLERANCE**2 / 3
    if provenance == "published" and quantity.key == "thread.pitch":
        return 0.0, 0.0
    if provenance == "published":
        return 0.0, meaning.last_digit**2 / 12
    error = INSTRUMENT_ERRORS[reading.instrument or quantity.instrument].scaled(mean)
    return error.repeatability, error.standard_uncertainty_b() ** 2


def _repeatability(values: Sequence[float], pooled: float) -> tuple[float, float]:
    """Return the type A standard uncertainty of the mean and its degrees of freedom."""
    n = len(values)
    spread = dist(values, [fmean(values)] * n) / sqrt(n - 1) if n > 1 else 0.0
    if n >= 4:
        return spread / sqrt(n), n - 1
    uncertainty = max(spread, pooled) / sqrt(n)
    return uncertainty, POOLED_DEGREES_OF_FREEDOM if uncertainty > 0 else inf


def outlying(values: Sequence[float]) -> tuple[int, ...]:
    """Return the indices of values whose modified z-score exceeds 3.5, among four or more.

    The score is 0.6745·|x − median|/MAD (Iglewicz and Hoaglin, How to Detect and Handle Outliers,
    ASQC, 1993). Where more than half of the readings are equal the MAD is zero, and the mean
    absolute deviation times 1.2533 takes its place, as the same authors advise.

    Examples
    --------
    >>> outlying([0.47, 0.48, 0.46, 4.5])
    (3,)
    """
    if len(values) < 4:
        return ()
    centre = median(values)
    deviations = [abs(value - centre) for value in values]
    scale = median(deviations) / 0.6745 or 1.253314 * fmean(deviations)
    if scale == 0:
        return ()
    return tuple(i for i, deviation in enumerate(deviations) if deviation / scale > OUTLIER_SCORE)

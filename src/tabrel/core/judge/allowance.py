"""How far two specimens of one part number may lie apart, by what is measured."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt
from statistics import stdev

from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES, PRICES
from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, QUANTITIES, Quantity
from tabrel.core.catalogue.results import RESULTS
from tabrel.core.study.uses import BY_HAND


@dataclass(frozen=True)
class Allowance:
    """Between two of one kind: a share of the value, and an amount in the measure's own unit; both zero where none is given."""

    relative: float = 0.0
    absolute: float = 0.0

    def at(self, value: float) -> float:
        """Return the allowance at a value."""
        return self.relative * abs(value) + self.absolute


NONE = Allowance()
EFFICIENCY = ("efficiency_at_20_um_percent", "size_at_beta_75_um", "size_at_beta_2_um", "efficiency_slope")
"""Measures of efficiency: compared only between values come by in the same way, and without a spread between specimens."""

WITHOUT_SPREAD = frozenset({*PRICES, BY_HAND, *EFFICIENCY})
"""That two specimens cost other sums says nothing of how far filters of one number differ."""

BEHAVIOUR = Allowance(0.10)
"""Of what a filter does in its engine."""

ONSET = Allowance(absolute=1.5)
"""Temperature worth 10 % of a pressure in cold oil, whose viscosity changes by 7 to 10 % a kelvin; of a temperature in °C no
share could be taken. [K]"""

_BY_DIMENSION: dict[str, Allowance] = {
    "length": Allowance(0.01),
    "area": Allowance(0.03),
    "mass": Allowance(0.02),
    "force": Allowance(0.10),
    "pressure": Allowance(0.10),
    "air_permeability": Allowance(0.15),
}
_THICKNESS = Allowance(0.05)
_STRIP = Allowance(0.02)
_BY_KEY: dict[str, Allowance] = {
    "media.strip_length": _STRIP,
    "media.pulled_length": _STRIP,
    "element.pleat_count": Allowance(absolute=2.0),
    "thread.turns": Allowance(absolute=0.5),
    "bypass.spring_total_coils": Allowance(absolute=0.5),
    "bypass.spring_dead_coils": Allowance(absolute=0.5),
}
_BY_RESULT_UNIT: dict[str, Allowance] = {
    "mm2": _BY_DIMENSION["area"],
    "cm2": _BY_DIMENSION["area"],
    "m2": _BY_DIMENSION["air_permeability"],
    "kpa": _BY_DIMENSION["pressure"],
}
_RESULT_UNITS: dict[str, str] = {row.key: row.unit for row in RESULTS.values()}


def allowance(measure: str) -> Allowance:
    """Return the allowance of a reading key, a size of a hole, a result or a measure of behaviour.

    Examples
    --------
    >>> allowance("tube.wall_thickness"), allowance("holes.inlet[0].diameter"), allowance("price")
    (Allowance(relative=0.05, absolute=0.0), Allowance(relative=0.01, absolute=0.0), Allowance(relative=0.0, absolute=0.0))
    """
    if measure in _BY_KEY:
        return _BY_KEY[measure]
    if measure in BEHAVIOUR_MEASURES:
        return ONSET if measure.endswith("onset_c") else BEHAVIOUR
    if measure in _RESULT_UNITS:
        return _BY_RESULT_UNIT.get(_RESULT_UNITS[measure], NONE)
    quantity = _quantity(measure)
    if quantity is None:
        return NONE
    if quantity.dimension == "length" and quantity.key.endswith("thickness"):
        return _THICKNESS
    return _BY_DIMENSION.get(quantity.dimension, NONE)


def _quantity(measure: str) -> Quantity | None:
    if measure in QUANTITIES:
        return QUANTITIES[measure]
    return HOLE_QUANTITIES.get(measure.rpartition(".")[2]) if measure.startswith("holes.") else None


@dataclass(frozen=True)
class Spread:
    """Standard deviation between the specimens of a part number, of how many, and whether it is assumed for want of a second."""

    standard_deviation: float
    specimens: int
    is_assumed: bool

    def with_measured(self, standard_uncertainty: float) -> float:
        """Return u of the part number, u² = u_measured² + s_p²·(1 + 1/n)."""
        return sqrt(standard_uncertainty**2 + self.standard_deviation**2 * (1 + 1 / self.specimens))


def spread_between_specimens(measure: str, values: Sequence[float]) -> Spread:
    """Return the spread of a measure over the specimens of one part number.

    Parameters
    ----------
    measure : str
        What they are values of.
    values : sequence of float, length n > 0
        Of the specimens in which it is known. [in its own unit]

    Returns
    -------
    Spread
        Of one specimen τ·|v|/√3, assumed: the allowance as the half-width of a rectangular distribution.
    """
    if measure in WITHOUT_SPREAD:
        return Spread(0.0, len(values), is_assumed=False)
    if len(values) > 1:
        return Spread(stdev(values), len(values), is_assumed=False)
    assumed = allowance(measure).at(values[0]) / sqrt(3)
    return Spread(assumed, 1, is_assumed=assumed > 0)

"""The uncertainty budget of a result: what its standard uncertainty is made of, and what would make it smaller.

After the GUM (JCGM 100:2008, 5.1 and annex G): a result's variance is the sum of the squares of what its independent
inputs contribute. Told by the numbers of the last line instead, which may share inputs, covariances come in; both sums
are the same variance.
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import combinations
from math import sqrt
from typing import Literal

from uncertainties import covariance_matrix, std_dev, ufloat
from uncertainties.core import AffineScalarFunc, Variable

from tabrel.core.catalogue.quantities import HOLE_PLACEMENTS, HOLE_QUANTITIES, PART_TITLES, QUANTITIES
from tabrel.core.catalogue.terms import ASSUMPTIONS, INPUTS, INSTRUMENTS
from tabrel.core.field_units import Share
from tabrel.core.results.working import Step, evaluate
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Instrument
from tabrel.core.uncertainty.estimate import POOLED_DEGREES_OF_FREEDOM, Estimate
from tabrel.core.uncertainty.propagation import Uncertain
from tabrel.core.uncertainty.sampled_number import nominal_value

Source = Literal["repeating", "instrument", "model"]

SMALLEST_SHARE = 1e-6
"""Of the variance; what is below it is rounding."""

FINER: dict[Instrument, Instrument] = {"caliper": "micrometer", "tape": "caliper"}
"""The next finer instrument for a length."""


WITHOUT_BUDGET = {
    "claim": "A claim states no uncertainty: what is known is the bound or the range above.",
    "estimate": "A screening estimate has no standard uncertainty: its band is a factor of two in size either way.",
    "family": "The usual figure of a family is good to a factor of 1.5 either way; no reading of this filter is in it.",
    "stated": "A single stated setting states no uncertainty; maps and bands take a factor of 1.2 either way.",
}
"""Why a result has no uncertainty budget, by its basis."""


def why_no_budget(basis: str | None) -> str:
    """Return why a result of some basis has no uncertainty budget."""
    return WITHOUT_BUDGET.get(basis or "", "Of what it rests on no standard uncertainty is known.")


@dataclass(frozen=True)
class Contribution:
    """Contribution of one input.

    Attributes
    ----------
    key : str
        Of the input: a reading, a size of a hole, or an assumption.
    title : str
        What it is.
    source : str
        ``repeating``: the spread of readings; ``instrument``: what it was taken with, or how it is known; ``model``.
    amount : float
        Standard uncertainty of the result from it alone. [SI of the result]
    share : float
        Of the variance.
    smaller : str
        What would make it smaller.
    """

    key: str
    title: str
    source: Source
    amount: float
    share: float
    smaller: str


@dataclass(frozen=True)
class Covariance:
    """Joint contribution of two numbers of the last line that share inputs.

    Attributes
    ----------
    first, second : str
        Their symbols.
    correlation : float
        From −1 to 1.
    share : float
        Of the variance; below zero where they offset each other.
    """

    first: str
    second: str
    correlation: float
    share: Share


@dataclass(frozen=True)
class Budget:
    """The uncertainty budget of a result.

    Attributes
    ----------
    standard_uncertainty : float
        [SI of the result]
    contributions : tuple of Contribution
        The largest first; the squares of their amounts sum to its square.
    covariances : tuple of Covariance
        Between the numbers of the last line; empty where they are independent.
    """

    standard_uncertainty: float
    contributions: tuple[Contribution, ...]
    covariances: tuple[Covariance, ...]


def uncertainty_budget(last: Step, measured: MeasuredSample) -> Budget:
    """Return the budget of the result that the last line of a working gives.

    Parameters
    ----------
    last : Step
        Its operands and its value.
    measured : MeasuredSample
        The filter whose inputs they are.

    Returns
    -------
    Budget
        Without contributions where no standard uncertainty is known.
    """
    number = last.value
    u = float(std_dev(number)) if isinstance(number, AffineScalarFunc) else 0.0
    if u == 0 or not isinstance(number, AffineScalarFunc):
        return Budget(0.0, (), ())
    amounts: dict[tuple[str, Source], float] = {}
    for variable, component in number.error_components().items():
        name = (variable.tag or "", _source(variable, measured))
        amounts[name] = sqrt(amounts.get(name, 0.0) ** 2 + component**2)
    contributions = [
        Contribution(key, input_title(key), source, amount, amount**2 / u**2, _smaller(key, source, measured))
        for (key, source), amount in amounts.items()
        if amount**2 / u**2 > SMALLEST_SHARE
    ]
    return Budget(u, tuple(sorted(contributions, key=lambda contribution: -contribution.amount)), _covariances(last, u))


def _source(variable: Variable, measured: MeasuredSample) -> Source:
    tag = variable.tag or ""
    if tag.startswith("model.") or tag == "counts.misfit":
        return "model"
    if tag == "counts.counting":
        return "repeating"
    return "repeating" if measured.variables.is_repeatability(variable) else "instrument"


def _covariances(last: Step, u: float) -> tuple[Covariance, ...]:
    """Return what each two numbers of the last line contribute together."""
    numbers = [operand for operand in last.operands if isinstance(operand.value, AffineScalarFunc) and std_dev(operand.value) > 0]
    if len(numbers) < 2:
        return ()
    fresh = {operand.symbol: ufloat(nominal_value(operand.value), std_dev(operand.value)) for operand in numbers}
    fixed: dict[str, Uncertain] = {operand.symbol: operand.value for operand in last.operands}
    alone = evaluate(last.template, fixed | fresh)
    slopes = alone.derivatives if isinstance(alone, AffineScalarFunc) else {}
    matrix = covariance_matrix([operand.value for operand in numbers])
    collected = []
    for (i, item), (j, other) in combinations(enumerate(numbers), 2):
        together = 2 * slopes.get(fresh[item.symbol], 0.0) * slopes.get(fresh[other.symbol], 0.0) * matrix[i][j] / u**2
        if abs(together) > SMALLEST_SHARE:
            correlation = matrix[i][j] / (std_dev(item.value) * std_dev(other.value))
            collected.append(Covariance(item.symbol, other.symbol, float(correlation), float(together)))
    return tuple(sorted(collected, key=lambda covariance: -abs(covariance.share)))


def input_title(key: str) -> str:
    """Return what an input is: a reading with its part, a size of a hole, or an assumption.

    Examples
    --------
    >>> input_title("media.strip_width"), input_title("holes.inlet[0].diameter"), input_title("model.dead_coils")
    ('Media: strip width', 'Inlet holes: diameter', 'dead coils of the bypass spring')
    """
    if key in QUANTITIES:
        return f"{PART_TITLES[QUANTITIES[key].part]}: {QUANTITIES[key].title}"
    place, _, dimension = key.rpartition(".")
    if dimension in HOLE_QUANTITIES or dimension == "points_mm":
        name = place.removeprefix("holes.").partition("[")[0]
        where = HOLE_PLACEMENTS[name].title if name in HOLE_PLACEMENTS else "Adapter holes"
        return f"{where}: {'outline' if dimension == 'points_mm' else HOLE_QUANTITIES[dimension].title}"
    if key in ASSUMPTIONS:
        return ASSUMPTIONS[key].title
    if key in _OTHER_TITLES or key in INPUTS:
        return _OTHER_TITLES.get(key) or INPUTS[key].title
    return key.replace(".", ": ").replace("_", " ")


_OTHER_TITLES = {
    "bypass.coil_counting": "counting the spring's coils",
    "bypass.seat_diameter": "edge of the seat on which the seal bears",
    "media.folded_area": "area of the folds over the gross area",
}

_OTHER_SMALLER = {
    "bypass.seat_diameter": "find on which edge the seal bears, or read the opening pressure on a bench",
    "bypass.stated_kpa": "measure: a stated band of unstated meaning is no measurement",
    "circuit.stud": "measure the bore of the stud on the engine",
    "model.dead_coils": "count the dead coils, or say how the spring ends",
    "bypass.coil_counting": "count the coils from the side, to the quarter",
    "model.potting_depth": "measure the potting at both ends of the element",
    "model.seam_overlap": "measure the overlap of the seam",
    "media.folded_area": "cut the element, and measure the strip",
    "model.forecast_area": "cut the element, and measure strip, potting and seam",
    "counts.counting": "count a larger volume, or more intervals",
    "counts.misfit": "two parameters do not describe it: hold to the counted sizes, or count more of them",
    "counts.volumes": "ask the laboratory how well volumes and dilutions are known",
    "counts.size_scale": "ask for the counter's calibration, and its uncertainty",
}


def _smaller(key: str, source: Source, measured: MeasuredSample) -> str:
    if key in _OTHER_SMALLER:
        return _OTHER_SMALLER[key]
    if key.endswith("points_mm"):
        return "mark more points, or measure the hole by its diameters"
    estimate = measured.estimates.get(key) or measured.hole_estimates.get(key)
    return "" if estimate is None else _smaller_reading(key, source, estimate, measured)


def _smaller_reading(key: str, source: Source, estimate: Estimate, measured: MeasuredSample) -> str:
    """Return what would make the uncertainty of a reading smaller."""
    count = len(estimate.used)
    if source == "repeating":
        times = {1: "once", 2: "twice"}.get(count, f"{count} times")
        pooled = estimate.degrees_of_freedom == POOLED_DEGREES_OF_FREEDOM
        return f"read it more often: it was read {times}{', and its spread is taken from the instrument' if pooled else ''}"
    if estimate.provenance in ("by_eye", "assumed"):
        return "measure it"
    if estimate.provenance == "published":
        return "measure it: what is published is as fine as its last digit"
    if key == "media.strip_length":
        return "lay the strip out without pulling: how hard it is pulled counts 1 %"
    instrument = estimate.instrument
    finer = FINER.get(instrument)
    if instrument == "none":
        return "measure it: a range or a gauge that goes is as wide as its two sizes"
    if estimate.is_interval:
        return "measure it: a gauge that goes is as wide as the step to the next"
    better = f"take it with a {INSTRUMENTS[finer]}" if finer else f"use a {INSTRUMENTS[instrument]} with a smaller error"
    return f"{better}, or one with a certificate: reading it again does not help"

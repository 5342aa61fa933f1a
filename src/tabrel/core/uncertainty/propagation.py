"""First-order propagation of uncertainty, and the `Result` every computation returns.

Propagation with correlations is done by the `uncertainties` package. Each measured quantity enters
as its value plus two independent zero-mean variables, one for repeatability and one for the
instrument, so that effective degrees of freedom can be formed over the repeatability parts alone
(GUM, JCGM 100:2008, annex G.4).
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from functools import lru_cache
from math import inf, sqrt
from typing import Any

from scipy.optimize import brentq
from scipy.special import ndtr, stdtrit
from scipy.stats import norm
from uncertainties import std_dev, ufloat
from uncertainties.core import AffineScalarFunc, Variable

from tabrel.core.uncertainty.estimate import Estimate
from tabrel.core.uncertainty.sampled_number import nominal_value

Uncertain = Any
"""A float, or a number of the `uncertainties` package."""

COVERAGE = 0.95
RULING_SHARE = 0.8
"""Of u²; where one rectangular part is more, the coverage factor is that of its convolution with the rest."""


@dataclass(frozen=True)
class Result:
    """One computed result with its inputs.

    Attributes
    ----------
    value : float or None
        None while an input is missing, or where only a bound or an envelope is known. [SI]
    standard_uncertainty, expanded_uncertainty : float or None
        Of `value`; expanded to 95 % with the effective degrees of freedom. [SI]
    low, high : float or None
        Bound or envelope. [SI]
    relation : str
        ``=``; ``<=``, ``<``, ``>=`` or ``>`` for a bound.
    basis : str or None
        The kind of evidence.
    missing, assumed : tuple of str
        Keys of inputs that are missing, and of those that were assumed.
    controlled_by : str or None
        For a flow area: the section that controls.
    words : str or None
        Printed in place of a number that nobody stated: the claim as it was made.
    least_stud, greatest_stud : float or None
        For a flow area: what it is with the least and the greatest stud of the engine. [SI]
    """

    value: float | None
    standard_uncertainty: float | None = None
    expanded_uncertainty: float | None = None
    low: float | None = None
    high: float | None = None
    relation: str = "="
    basis: str | None = None
    missing: tuple[str, ...] = ()
    assumed: tuple[str, ...] = ()
    controlled_by: str | None = None
    words: str | None = None
    least_stud: float | None = None
    greatest_stud: float | None = None

    @property
    def is_known(self) -> bool:
        """Whether there is a value, a bound or an envelope."""
        return self.value is not None or self.low is not None or self.high is not None

    def scaled(self, factor: float) -> Result:
        """Return the same result in a unit of which one SI unit holds `factor`."""

        def times(number: float | None) -> float | None:
            return None if number is None else number * factor

        return replace(
            self,
            value=times(self.value),
            standard_uncertainty=times(self.standard_uncertainty),
            expanded_uncertainty=times(self.expanded_uncertainty),
            low=times(self.low),
            high=times(self.high),
            least_stud=times(self.least_stud),
            greatest_stud=times(self.greatest_stud),
        )


def missing_result(*keys: str, basis: str | None = None, assumed: tuple[str, ...] = ()) -> Result:
    """Return a result without a value that names the keys it lacks."""
    return Result(value=None, basis=basis, missing=tuple(dict.fromkeys(keys)), assumed=assumed)


@dataclass
class Variables:
    """The uncertain inputs of one sample, each made once so that correlations are kept."""

    _freedom: dict[Variable, float] = field(default_factory=dict)
    _rectangular: set[Variable] = field(default_factory=set)
    _assumed: set[str] = field(default_factory=set)

    def add(self, name: str, estimate: Estimate) -> Uncertain:
        """Return an estimate as an uncertain number."""
        number: Uncertain = estimate.value
        if estimate.provenance == "assumed":
            self._assumed.add(name)
        if estimate.uncertainty_a > 0:
            repeat = ufloat(0.0, estimate.uncertainty_a, tag=name)
            self._freedom[repeat] = estimate.degrees_of_freedom
            number = number + repeat
        rest = sqrt(max(estimate.uncertainty_b**2 - estimate.rectangular**2, 0.0))
        return self.with_rectangular(name, self.with_type_b(name, number, rest), estimate.rectangular)

    def is_repeatability(self, variable: Variable) -> bool:
        """Return whether a variable is the repeatability of readings."""
        return variable in self._freedom

    def with_type_b(self, name: str, number: Uncertain, uncertainty: float) -> Uncertain:
        """Return `number` with an independent type B uncertainty added."""
        return number + ufloat(0.0, uncertainty, tag=name) if uncertainty > 0 else number

    def with_rectangular(self, name: str, number: Uncertain, uncertainty: float) -> Uncertain:
        """Return `number` with an independent rectangular distribution of a standard uncertainty added."""
        if uncertainty <= 0:
            return number
        error = ufloat(0.0, uncertainty, tag=name)
        self._rectangular.add(error)
        return number + error

    def with_range(self, name: str, number: Uncertain, low: float, high: float) -> Uncertain:
        """Return `number`, not measured but known to lie between two values, evenly: u = width/√12."""
        return self.with_rectangular(name, number, rectangular(high - low))

    def with_usual(self, name: str, value: float, uncertainty: float) -> Uncertain:
        """Return the usual value of what was not measured, with a normal standard uncertainty, drawn where numbers are drawn."""
        return self.with_type_b(name, value, uncertainty)

    def with_model_factor(self, name: str, number: Uncertain, factor: float) -> Uncertain:
        """Return `number`, of which a model says that it is good to a factor either way.

        First order has no place for so wide a factor, which stays with the basis of the result; drawn
        variables spread it.
        """
        del name, factor
        return number

    def with_model_range(self, name: str, number: Uncertain, low: float, high: float) -> Uncertain:
        """Return `number`, of which a model says only that it lies between two values; see `with_model_factor`."""
        del name, low, high
        return number

    def expanded_uncertainty(self, number: Uncertain) -> float:
        """Return t₉₅(ν_eff)·u with Welch–Satterthwaite degrees of freedom.

        Source: JCGM 100:2008, equations G.2b and G.1d; ν_eff is used unrounded. Where one rectangular part rules
        (`RULING_SHARE`), the factor is that of the convolution: 1.96 would be more than all it can be.
        """
        u = float(std_dev(number))
        if u == 0 or not isinstance(number, AffineScalarFunc):
            return 0.0
        components = number.error_components()
        ruling = max((part**2 for variable, part in components.items() if variable in self._rectangular), default=0.0)
        if ruling > RULING_SHARE * u**2:
            return convolution_factor(min(round(ruling / u**2, 4), 1.0)) * u
        below = sum(part**4 / self._freedom[variable] for variable, part in components.items() if variable in self._freedom)
        return coverage_factor(u**4 / below if below > 0 else inf) * u

    def result(
        self,
        number: Uncertain,
        *,
        basis: str | None = None,
        assumed: tuple[str, ...] = (),
        relation: str = "=",
        controlled_by: str | None = None,
    ) -> Result:
        """Return an uncertain number as a `Result`; what of it was assumed is named, whether said or found among its inputs."""
        result = () if not self._assumed else self._assumed_in(number)
        return Result(
            value=float(nominal_value(number)),
            standard_uncertainty=float(std_dev(number)),
            expanded_uncertainty=self.expanded_uncertainty(number),
            relation=relation,
            basis=basis,
            assumed=tuple(dict.fromkeys((*assumed, *result))),
            controlled_by=controlled_by,
        )

    def _assumed_in(self, number: Uncertain) -> tuple[str, ...]:
        """Return the names of the inputs of a number whose readings were assumed."""
        if not isinstance(number, AffineScalarFunc):
            return ()
        tags = [str(variable.tag) for variable in number.derivatives]
        return tuple(tag for tag in tags if tag in self._assumed)


def rectangular(width: float) -> float:
    """Return the standard deviation of a rectangular distribution of full width `width`."""
    return width / sqrt(12)


def coverage_factor(degrees_of_freedom: float) -> float:
    """Return t₉₅ for the effective degrees of freedom."""
    return float(stdtrit(degrees_of_freedom, 0.5 + COVERAGE / 2))


@lru_cache(maxsize=1024)
def convolution_factor(share: float) -> float:
    """Return the 95 % coverage factor of a rectangular part with a share of u², the rest being normal.

    Source: convolution of both in closed form, ∫Φ(z) dz = z·Φ(z) + φ(z).

    Examples
    --------
    >>> round(convolution_factor(0.89), 2), round(convolution_factor(1.0), 3)
    (1.75, 1.645)
    """
    half, sigma = sqrt(3 * share), sqrt(1 - share)
    tail = 0.5 + COVERAGE / 2
    if sigma < 1e-3:
        return half * COVERAGE

    def above(z: float) -> float:
        return float(z * ndtr(z) + norm.pdf(z))

    def below(k: float) -> float:
        return sigma / (2 * half) * (above((k + half) / sigma) - above((k - half) / sigma)) - tail

    return float(brentq(below, 0.5, 3.0))


def expanded_uncertainty(estimate: Estimate) -> float:
    """Return U of one estimate, as `Variables.expanded_uncertainty` does for a result. [SI]"""
    variables = Variables()
    return variables.expanded_uncertainty(variables.add("", estimate))

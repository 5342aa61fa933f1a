"""Uncertain inputs as draws: at random for Monte Carlo (JCGM 101), or one at a time for sensitivities."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from math import log
from zlib import crc32

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri, stdtrit

from tabrel.core.uncertainty.estimate import Estimate
from tabrel.core.uncertainty.propagation import Result, Uncertain, Variables
from tabrel.core.uncertainty.sampled_number import SampledNumber, nominal_value

FloatArray = NDArray[np.float64]

SEED = 20261125
"""Of all draws, so that the same study gives the same band again."""

LEAST_SHARE = 0.02
"""No reading is drawn below this share of itself: lengths, masses and pressures are above zero."""

OF_THE_SAMPLE = ("model.permeability", "model.potting_depth", "model.seam_overlap", "model.forecast_area")
"""Model factors of one filter; the rest of `model.…` is the same for all, and so are the engine's sizes."""

NORMAL_95 = 1.96

Quantiles = Callable[[str], FloatArray]
"""Takes the name of an input and returns, for each draw, its share of the distribution that lies below; NaN is nominal."""


@dataclass(frozen=True)
class ModelAssumption:
    """A number of a model, and its range."""

    name: str
    value: float
    low: float
    high: float
    is_factor: bool


def sampled_name(name: str, owner: str) -> str:
    """Return the name under which an input is drawn: a filter's own readings apart from those of others."""
    is_shared = name.startswith(("model.", "circuit.")) and name not in OF_THE_SAMPLE
    return name if is_shared else f"{owner}/{name}"


class SampledVariables(Variables):
    """Uncertain inputs as `SampledNumber` numbers.

    Parameters
    ----------
    quantiles : callable
        Shares of each input's distribution.
    owner : str
        Label of the sample: its readings are drawn apart from those of others.
    """

    def __init__(self, quantiles: Quantiles, owner: str) -> None:
        super().__init__()
        self._quantiles = quantiles
        self._owner = owner
        self.assumptions: dict[str, ModelAssumption] = {}

    def _shares(self, name: str) -> FloatArray:
        return self._quantiles(sampled_name(name, self._owner))

    def add(self, name: str, estimate: Estimate) -> Uncertain:
        """Return an estimate as draws: repeatability by Student's t, the rest normal."""
        shares = self._shares(name)
        draws = np.full(shares.shape, estimate.value)
        if estimate.uncertainty_a > 0:
            draws = draws + estimate.uncertainty_a * stdtrit(estimate.degrees_of_freedom, self._shares(f"{name} (repeatability)"))
        draws = np.where(np.isnan(draws), estimate.value, draws)
        rest = np.sqrt(max(estimate.uncertainty_b**2 - estimate.rectangular**2, 0.0))
        draws = draws + np.nan_to_num(rest * ndtri(shares))
        if estimate.rectangular > 0:
            draws = draws + _evenly(self._shares(f"{name} (range)"), estimate.rectangular)
        return SampledNumber(estimate.value, np.maximum(draws, LEAST_SHARE * estimate.value))

    def with_type_b(self, name: str, number: Uncertain, uncertainty: float) -> Uncertain:
        """Return `number` with an independent type B uncertainty added."""
        shares = self._shares(name)
        return number + SampledNumber(0.0, np.nan_to_num(uncertainty * ndtri(shares)))

    def with_rectangular(self, name: str, number: Uncertain, uncertainty: float) -> Uncertain:
        """Return `number` with an independent rectangular distribution of a standard uncertainty added."""
        return number + SampledNumber(0.0, _evenly(self._shares(name), uncertainty)) if uncertainty > 0 else number

    def with_usual(self, name: str, value: float, uncertainty: float) -> Uncertain:
        """Return normal draws of what was not measured, noted as an assumption with its 95 % range."""
        span = NORMAL_95 * uncertainty
        self.assumptions[name] = ModelAssumption(name, value, max(value - span, 0.0), value + span, False)
        draws = value + np.nan_to_num(uncertainty * ndtri(self._shares(name)))
        return SampledNumber(value, np.maximum(draws, LEAST_SHARE * value))

    def with_range(self, name: str, number: Uncertain, low: float, high: float) -> Uncertain:
        """Return draws evenly between two values, about `number`; see `with_model_range`."""
        return self.with_model_range(name, number, low, high)

    def with_model_factor(self, name: str, number: Uncertain, factor: float) -> Uncertain:
        """Return `number` times draws between 1/factor and factor, even in the logarithm."""
        self.assumptions[name] = ModelAssumption(name, float(nominal_value(number)), 1 / factor, factor, True)
        return number * SampledNumber(1.0, np.exp(np.nan_to_num((2 * self._shares(name) - 1) * log(factor))))

    def with_model_range(self, name: str, number: Uncertain, low: float, high: float) -> Uncertain:
        """Return draws evenly between two values, about `number`."""
        self.assumptions[name] = ModelAssumption(name, float(nominal_value(number)), low, high, False)
        shares = self._shares(name)
        return SampledNumber(
            float(nominal_value(number)), np.where(np.isnan(shares), nominal_value(number), low + (high - low) * shares)
        )

    def expanded_uncertainty(self, number: Uncertain) -> float:
        """Return 0: draws carry their own spread."""
        del number
        return 0.0

    def result(
        self,
        number: Uncertain,
        *,
        basis: str | None = None,
        assumed: tuple[str, ...] = (),
        relation: str = "=",
        controlled_by: str | None = None,
    ) -> Result:
        """Return the best estimate of a number as a `Result`."""
        return Result(float(nominal_value(number)), basis=basis, assumed=assumed, relation=relation, controlled_by=controlled_by)


def _evenly(shares: FloatArray, uncertainty: float) -> FloatArray:
    """Return draws of a rectangular distribution about 0 of a standard uncertainty; 0 where a share is NaN."""
    return np.asarray(np.nan_to_num((2 * shares - 1) * np.sqrt(3) * uncertainty))


def random_quantiles(draws: int, seed: int = SEED) -> Quantiles:
    """Return quantiles drawn at random; the same name gives the same draws whatever else is drawn."""
    return lambda name: np.random.default_rng([seed, crc32(name.encode())]).random((draws, 1))


def part_of(quantiles: Quantiles, part: int, parts: int) -> Quantiles:
    """Return every so many of the draws, beginning with one: all parts together are all draws."""
    return lambda name: quantiles(name)[part::parts]


def one_at_a_time(names: list[str], shares: tuple[float, float]) -> Quantiles:
    """Return quantiles of which draws 2i and 2i + 1 move the i-th input alone to two shares of its distribution."""

    def quantiles(name: str) -> FloatArray:
        values = np.full((2 * len(names), 1), np.nan)
        if name in names:
            values[2 * names.index(name) : 2 * names.index(name) + 2, 0] = shares
        return values

    return quantiles

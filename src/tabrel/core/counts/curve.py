"""The efficiency curve of a counted test, with what counting, misfit, volumes and sizes leave open."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log

import numpy as np
from numpy.typing import NDArray
from scipy.special import stdtrit
from uncertainties import correlated_values, std_dev, ufloat
from uncertainties.core import AffineScalarFunc

from tabrel.core.counts.channels import Channels, pooled_counts
from tabrel.core.counts.curve_form import INTERCEPTION, SLOPE_STEP, STRAIGHT, CurveForm
from tabrel.core.uncertainty.propagation import COVERAGE, Result, Uncertain
from tabrel.core.uncertainty.sampled_number import nominal_value

FloatArray = NDArray[np.float64]

LEAST_CHANNELS = 3
NORMAL_COVERAGE = 1.96


@dataclass(frozen=True)
class CountedCurve:
    """The fitted curve.

    Attributes
    ----------
    log_size : float
        ln x₅₀, of the size at which β = 2. [x in µm]
    second : float
        m of a straight curve, ln f of one by interception.
    covariance : ndarray, shape (2, 2)
        Of both by counting alone.
    misfit : float
        φ: how much the channels scatter over what counting explains.
    coverage : float
        T, by which a standard uncertainty is expanded to 95 %.
    has_interval : bool
        With exactly three channels the points have intervals, the curve has none.
    ratio_uncertainty, size_uncertainty : float
        Relative standard uncertainties u_r of the volume ratio and u_x of the size scale.
    lowest, highest : float
        Sizes between which was counted; beyond them the curve is an extrapolation. [µm]
    form : CurveForm
        Whichever the counts follow better.
    """

    log_size: float
    second: float
    covariance: FloatArray
    misfit: float
    coverage: float
    has_interval: bool
    ratio_uncertainty: float
    size_uncertainty: float
    lowest: float
    highest: float
    form: CurveForm = STRAIGHT

    @property
    def slope(self) -> float:
        """Slope of ln(β − 1) over ln x where β = 2; m of a straight curve."""
        return self.form.slope(self.log_size, self.log_size, self.second)

    @property
    def fits(self) -> bool:
        """Whether counting alone explains how far the points lie from the curve."""
        return self.misfit <= 1

    def extrapolates(self, size: float) -> bool:
        """Return whether a size lies outside the counted ones."""
        return not self.lowest <= size <= self.highest

    def parameters(self) -> tuple[Uncertain, Uncertain]:
        """Return ln x₅₀ and the second parameter as uncertain numbers, of which counting and misfit are told apart."""
        best = (self.log_size, self.second)
        if not self.has_interval:
            return best
        a, m = correlated_values(best, self.covariance, tags=("counts.counting", "counts.counting"))
        if self.misfit > 1:
            extra = correlated_values((0.0, 0.0), (self.misfit - 1) * self.covariance, tags=("counts.misfit",) * 2)
            a, m = a + extra[0], m + extra[1]
        return a, m

    def log_beta(self, size: float) -> Uncertain:
        """Return z = ln(β − 1) at a size [µm] as an uncertain number."""
        z = self.form.uncertain_log_beta(log(size), *self.parameters())
        if not self.has_interval:
            return z
        return z + self.log_beta_error(size)

    def log_beta_error(self, size: float) -> Uncertain:
        """Return what volumes and size scale leave unknown of z at a size [µm]: zero, with its uncertainty."""
        z = float(self.form.log_beta(np.array(log(size)), self.log_size, self.second))
        return self._not_counting(1 + exp(-z), self.form.slope(log(size), self.log_size, self.second))  # β/(β − 1) and m

    def _not_counting(self, of_volumes: float, of_sizes: float) -> Uncertain:
        """Return what volumes and size scale add, each with its weight: zero, with their uncertainty."""
        number: Uncertain = 0.0
        for name, weight, u in (
            ("counts.volumes", of_volumes, self.ratio_uncertainty),
            ("counts.size_scale", of_sizes, self.size_uncertainty),
        ):
            if u > 0:
                number = number + weight * ufloat(0, u, name)
        return number

    def efficiency(self, size: float) -> Result:
        """Return the efficiency at a size [µm] with its 95 % interval. [-]"""
        z = self.log_beta(size)
        best, u = float(nominal_value(z)), float(std_dev(z)) if isinstance(z, AffineScalarFunc) else 0.0
        value = _efficiency(best)
        if not self.has_interval:
            return Result(value, basis="counts")
        low, high = _efficiency(best - self.coverage * u), _efficiency(best + self.coverage * u)
        u_e = value * (1 - value) * u
        return Result(value, u_e, self.coverage * u_e, low=low, high=high, basis="counts")

    def log_size_at(self, beta: float) -> Uncertain:
        """Return ln x at which a β is reached, as an uncertain number."""
        best = self.form.log_size_at(log(beta - 1), self.log_size, self.second)
        slope = self.form.slope(best, self.log_size, self.second)
        z = self.form.uncertain_log_beta(best, *self.parameters())
        result = best - (z - float(nominal_value(z))) / slope
        if not self.has_interval:
            return float(nominal_value(result))
        return result + self._not_counting(beta / (beta - 1) / slope, 1.0)

    def size_at(self, beta: float) -> Result:
        """Return the size at which a β is reached, with its 95 % interval. [µm]"""
        computed = self.log_size_at(beta)
        value = exp(float(nominal_value(computed)))
        if not self.has_interval:
            return Result(value, basis="counts")
        u = float(std_dev(computed))
        spread = exp(self.coverage * u)
        return Result(value, value * u, value * self.coverage * u, low=value / spread, high=value * spread, basis="counts")

    def slope_result(self) -> Result:
        """Return m with its uncertainty, by counting and misfit. [-]"""
        if not self.has_interval:
            return Result(self.slope, basis="counts")
        ends = self.form.uncertain_log_beta(self.log_size + SLOPE_STEP, *self.parameters())
        u = float(std_dev(ends - self.form.uncertain_log_beta(self.log_size - SLOPE_STEP, *self.parameters())) / (2 * SLOPE_STEP))
        if self.form is STRAIGHT:
            u = float(std_dev(self.parameters()[1]))
        spread = self.coverage * u
        return Result(self.slope, u, spread, low=self.slope - spread, high=self.slope + spread, basis="counts")

    def drawn(self, sizes: FloatArray) -> tuple[FloatArray, FloatArray, FloatArray]:
        """Return efficiency, low and high at many sizes [µm]; low and high are NaN where there is no interval."""
        logs = np.log(sizes)

        def z_at(moved: float = 0.0, size_step: float = 0.0, second_step: float = 0.0) -> FloatArray:
            return self.form.log_beta(logs + moved, self.log_size + size_step, self.second + second_step)

        z = z_at()
        if not self.has_interval:
            nothing = np.full(len(sizes), np.nan)
            return _efficiencies(z), nothing, nothing
        h = SLOPE_STEP
        g = np.stack([z_at(size_step=h) - z_at(size_step=-h), z_at(second_step=h) - z_at(second_step=-h)]) / (2 * h)
        slopes = (z_at(h) - z_at(-h)) / (2 * h)
        counting = np.einsum("in,ij,jn->n", g, max(self.misfit, 1.0) * self.covariance, g)
        u = np.sqrt(counting + ((1 + np.exp(-z)) * self.ratio_uncertainty) ** 2 + (slopes * self.size_uncertainty) ** 2)
        return _efficiencies(z), _efficiencies(z - self.coverage * u), _efficiencies(z + self.coverage * u)


def _efficiency(log_beta: float) -> float:
    return 1 / (1 + exp(-log_beta))


def _efficiencies(log_beta: FloatArray) -> FloatArray:
    return np.asarray(1 / (1 + np.exp(-log_beta)))


@dataclass(frozen=True)
class NoCurve:
    """Why no curve can be laid through the points."""

    why: str


def fit_curve(
    sizes: Sequence[float],
    upstream: FloatArray,
    downstream: FloatArray,
    ratio: float,
    *,
    ratio_uncertainty: float,
    size_uncertainty: float,
) -> CountedCurve | NoCurve:
    """Return the curve of greatest likelihood through net cumulative counts, of the form that they follow better.

    Of the particles of a channel, upstream and downstream together, those downstream are binomial with
    s = r·P/(1 + r·P), where P is what the curve lets through of that channel.

    Parameters
    ----------
    sizes : sequence of float, shape (n,)
        Rising. [µm]
    upstream, downstream : ndarray, shape (n,)
        Net counts at and above each size.
    ratio : float
        r.
    ratio_uncertainty, size_uncertainty : float
        Relative standard uncertainties.
    """
    logs, up, down = pooled_counts(np.log(np.asarray(sizes, dtype=float)), upstream, downstream)
    if len(logs) < LEAST_CHANNELS:
        return NoCurve(f"{len(logs)} sizes are left to fit, and a curve needs {LEAST_CHANNELS}")
    straight = Channels(logs, up, down, ratio)
    channels, pair = straight, straight.most_likely()
    if pair is not None and len(logs) > LEAST_CHANNELS and straight.misfit(*pair[:2])[0] > 1:  # it does not explain the counts
        bent = Channels(logs, up, down, ratio, INTERCEPTION)
        other = bent.most_likely_bent(pair[0])
        if other is not None and bent.cost(*other[:2]) < straight.cost(*pair[:2]):
            channels, pair = bent, other
    if pair is None:
        return NoCurve(
            "hardly any particle was counted downstream, or all sizes pass alike: only bounds at the counted sizes are left"
        )
    log_size, second, covariance = pair
    misfit, left = channels.misfit(log_size, second)
    has_interval = len(logs) > LEAST_CHANNELS
    coverage = float(stdtrit(left - 2, 0.5 + COVERAGE / 2)) if misfit > 1 else NORMAL_COVERAGE
    return CountedCurve(
        log_size=log_size,
        second=second,
        covariance=covariance,
        misfit=misfit,
        coverage=coverage,
        has_interval=has_interval,
        ratio_uncertainty=ratio_uncertainty,
        size_uncertainty=size_uncertainty,
        lowest=float(sizes[0]),
        highest=float(sizes[-1]),
        form=channels.form,
    )

"""The efficiency curve of a counted test, ln(β − 1) = m·ln(x/x₅₀), with what counting, misfit, volumes and sizes leave open."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from math import exp, log

import numpy as np
import scipy
from numpy.typing import NDArray
from scipy.special import stdtrit
from uncertainties import correlated_values, std_dev, ufloat
from uncertainties.core import AffineScalarFunc

from tabrel.core.uncertainty.propagation import COVERAGE, Result, Uncertain
from tabrel.core.uncertainty.sampled_number import nominal_value

FloatArray = NDArray[np.float64]

LEAST_CHANNELS = 3
FEWEST_EXPECTED = 5.0
"""Particles downstream below which a channel is pooled before the misfit is judged."""

SLOPES_TRIED = (1.0, 1.5, 2.0, 2.7, 3.5, 5.0)
STARTS_POLISHED = 2
LARGEST_LOG_SLOPE = 5.0
GRADIENT_LEFT = 1e-9
HESSIAN_STEP = 1e-4
NORMAL_COVERAGE = 1.96
FARTHEST_LOG_SIZE = 4.0
LEAST_KNOWN_LOG_SIZE = 1.5
"""How far x₅₀ may lie outside the counted sizes, and how uncertain it may be by counting, to be identified; as logarithms."""

STEEPEST = 25.0


@dataclass(frozen=True)
class CountedCurve:
    """The fitted curve.

    Attributes
    ----------
    log_size : float
        ln x₅₀, of the size at which β = 2. [x in µm]
    slope : float
        m.
    covariance : ndarray, shape (2, 2)
        Of (ln x₅₀, m) by counting alone.
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
    """

    log_size: float
    slope: float
    covariance: FloatArray
    misfit: float
    coverage: float
    has_interval: bool
    ratio_uncertainty: float
    size_uncertainty: float
    lowest: float
    highest: float

    @property
    def fits(self) -> bool:
        """Whether counting alone explains how far the points lie from the curve."""
        return self.misfit <= 1

    def extrapolates(self, size: float) -> bool:
        """Return whether a size lies outside the counted ones."""
        return not self.lowest <= size <= self.highest

    def parameters(self) -> tuple[Uncertain, Uncertain]:
        """Return ln x₅₀ and m as uncertain numbers, of which counting and misfit are told apart."""
        best = (self.log_size, self.slope)
        if not self.has_interval:
            return best
        a, m = correlated_values(best, self.covariance, tags=("counts.counting", "counts.counting"))
        if self.misfit > 1:
            extra = correlated_values((0.0, 0.0), (self.misfit - 1) * self.covariance, tags=("counts.misfit",) * 2)
            a, m = a + extra[0], m + extra[1]
        return a, m

    def log_beta(self, size: float) -> Uncertain:
        """Return z = ln(β − 1) at a size [µm] as an uncertain number."""
        a, m = self.parameters()
        z = m * (log(size) - a)
        if not self.has_interval:
            return z
        return z + self.log_beta_error(size)

    def log_beta_error(self, size: float) -> Uncertain:
        """Return what volumes and size scale leave unknown of z at a size [µm]: zero, with its uncertainty."""
        z = self.slope * (log(size) - self.log_size)
        return self._not_counting(1 + exp(-z), self.slope)  # β/(β − 1) and m

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
        a, m = self.parameters()
        result = a + log(beta - 1) / m
        if not self.has_interval:
            return result
        return result + self._not_counting(beta / (beta - 1) / self.slope, 1.0)

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
        u = float(std_dev(self.parameters()[1]))
        spread = self.coverage * u
        return Result(self.slope, u, spread, low=self.slope - spread, high=self.slope + spread, basis="counts")

    def drawn(self, sizes: FloatArray) -> tuple[FloatArray, FloatArray, FloatArray]:
        """Return efficiency, low and high at many sizes [µm]; low and high are NaN where there is no interval."""
        logs = np.log(sizes) - self.log_size
        z = self.slope * logs
        if not self.has_interval:
            nothing = np.full(len(sizes), np.nan)
            return _efficiencies(z), nothing, nothing
        g = np.stack([np.full(len(sizes), -self.slope), logs])
        counting = np.einsum("in,ij,jn->n", g, max(self.misfit, 1.0) * self.covariance, g)
        u = np.sqrt(counting + ((1 + np.exp(-z)) * self.ratio_uncertainty) ** 2 + (self.slope * self.size_uncertainty) ** 2)
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
    """Return the curve of greatest likelihood through net cumulative counts.

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

    Returns
    -------
    CountedCurve or NoCurve
    """
    logs, up, down = _pooled(np.log(np.asarray(sizes, dtype=float)), upstream, downstream)
    if len(logs) < LEAST_CHANNELS:
        return NoCurve(f"{len(logs)} sizes are left to fit, and a curve needs {LEAST_CHANNELS}")
    channels = _Channels(logs, up, down, ratio)
    pair = channels.most_likely()
    if pair is None:
        return NoCurve(
            "hardly any particle was counted downstream, or all sizes pass alike: only bounds at the counted sizes are left"
        )
    log_size, slope, covariance = pair
    misfit, left = channels.misfit(log_size, slope)
    has_interval = len(logs) > LEAST_CHANNELS
    coverage = float(stdtrit(left - 2, 0.5 + COVERAGE / 2)) if misfit > 1 else NORMAL_COVERAGE
    return CountedCurve(
        log_size=log_size,
        slope=slope,
        covariance=covariance,
        misfit=misfit,
        coverage=coverage,
        has_interval=has_interval,
        ratio_uncertainty=ratio_uncertainty,
        size_uncertainty=size_uncertainty,
        lowest=float(sizes[0]),
        highest=float(sizes[-1]),
    )


def _pooled(logs: FloatArray, upstream: FloatArray, downstream: FloatArray) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Return sizes and counts without those between whose channels nothing, or less than nothing, was counted.

    A channel with u ≤ 0 or d < 0 is pooled with the next lower one, the lowest with the next higher one.
    """
    up, down = upstream, downstream
    while len(logs) > 1:
        bad = np.flatnonzero((_between(up) <= 0) | (_between(down) < 0))
        if not bad.size:
            break
        drop = max(int(bad[-1]), 1)
        logs, up, down = (np.delete(array, drop) for array in (logs, up, down))
    return logs, up, down


def _between(above: FloatArray) -> FloatArray:
    """Return what lies between neighbouring sizes, from what lies at and above each; the last channel is open."""
    channels = above.copy()
    channels[..., :-1] -= above[..., 1:]
    return channels


@dataclass(frozen=True)
class _Channels:
    """Net counts between sizes, and what the curve expects of them."""

    logs: FloatArray
    upstream: FloatArray
    downstream: FloatArray
    ratio: float

    @cached_property
    def u(self) -> FloatArray:
        """Particles of each channel upstream."""
        return _between(self.upstream)

    @cached_property
    def d(self) -> FloatArray:
        """Particles of each channel downstream."""
        return _between(self.downstream)

    def shares(self, log_size: FloatArray | float, slope: FloatArray | float) -> FloatArray:
        """Return s of every channel along the last axis, for parameters of any shape."""
        z = np.asarray(slope)[..., None] * (self.logs - np.asarray(log_size)[..., None])
        passed = self.upstream / (1 + np.exp(np.clip(z, -60, 60)))
        through = _between(passed) / self.u
        flow = self.ratio * np.maximum(through, 1e-300)
        return np.asarray(flow / (1 + flow))

    def cost(self, log_size: FloatArray | float, slope: FloatArray | float) -> FloatArray:
        """Return the negative log likelihood."""
        s = self.shares(log_size, slope)
        return np.asarray(-(self.d * np.log(s) + self.u * np.log1p(-s)).sum(axis=-1))

    def most_likely(self) -> tuple[float, float, FloatArray] | None:
        """Return ln x₅₀, m and their covariance, or None where the counts do not say."""
        sizes, slopes = np.meshgrid(self.logs, SLOPES_TRIED, indexing="ij")
        first = self.cost(sizes, slopes)
        scale = max(float(self.d.sum()), 1.0)
        best = None
        for index in np.argsort(first, axis=None)[:STARTS_POLISHED]:
            start = np.array([sizes.flat[index], log(slopes.flat[index])])
            collected = scipy.optimize.minimize(
                lambda p: self._scaled(p, scale), start, method="BFGS", jac=True, options={"gtol": GRADIENT_LEFT}
            )
            if best is None or collected.fun < best.fun:
                best = collected
        if best is None:
            return None
        log_size, slope = float(best.x[0]), exp(min(float(best.x[1]), LARGEST_LOG_SLOPE))
        inside = self.logs[0] - FARTHEST_LOG_SIZE <= log_size <= self.logs[-1] + FARTHEST_LOG_SIZE
        hessian = self._hessian(log_size, slope)
        if not inside or not 0.05 < slope < STEEPEST or not np.all(np.linalg.eigvalsh(hessian) > 0):
            return None
        covariance = np.asarray(np.linalg.inv(hessian), dtype=float)
        return (log_size, slope, covariance) if covariance[0, 0] < LEAST_KNOWN_LOG_SIZE**2 else None

    def _scaled(self, parameters: FloatArray, scale: float) -> tuple[float, FloatArray]:
        """Return the negative log likelihood over a scale, and its gradient, in (ln x₅₀, ln m)."""
        log_size, slope = float(parameters[0]), exp(min(float(parameters[1]), LARGEST_LOG_SLOPE))
        grown = np.exp(np.clip(slope * (self.logs - log_size), -60, 60))
        passed = self.upstream / (1 + grown)
        falls = -passed * grown / (1 + grown)  # over z
        through = np.maximum(_between(passed) / self.u, 1e-300)
        s = self.ratio * through / (1 + self.ratio * through)
        over_log = (self.u * s - self.d * (1 - s)) / through / self.u  # of the cost, over what passes of each channel
        along = [_between(falls * step) for step in (-slope, slope * (self.logs - log_size))]
        gradient = [float(over_log @ values) / scale for values in along]
        cost = -float((self.d * np.log(s) + self.u * np.log1p(-s)).sum())
        return cost / scale, np.array(gradient)

    def _hessian(self, log_size: float, slope: float) -> FloatArray:
        steps: FloatArray = HESSIAN_STEP * np.arange(-1.0, 2.0, dtype=np.float64)
        f = self.cost(log_size + steps[:, None], slope + steps[None, :])
        mixed = (f[2, 2] - f[2, 0] - f[0, 2] + f[0, 0]) / 4
        second = [f[2, 1] - 2 * f[1, 1] + f[0, 1], f[1, 2] - 2 * f[1, 1] + f[1, 0]]
        return np.array([[second[0], mixed], [mixed, second[1]]]) / HESSIAN_STEP**2

    def misfit(self, log_size: float, slope: float) -> tuple[float, int]:
        """Return φ and how many channels are left of those that expect enough downstream."""
        pooled = self
        for i in range(len(self.logs) - 1, 0, -1):
            if pooled.expected(log_size, slope)[i] < FEWEST_EXPECTED:
                pooled = pooled.without(i)
        if len(pooled.logs) > 1 and pooled.expected(log_size, slope)[0] < FEWEST_EXPECTED:
            pooled = pooled.without(1)
        left = len(pooled.logs)
        if left <= 2:
            return 1.0, left
        s, expected = pooled.shares(log_size, slope), pooled.expected(log_size, slope)
        return float(((pooled.d - expected) ** 2 / (expected * (1 - s))).sum() / (left - 2)), left

    def expected(self, log_size: float, slope: float) -> FloatArray:
        """Return how many particles of each channel are expected downstream."""
        return np.asarray((self.u + self.d) * self.shares(log_size, slope))

    def without(self, edge: int) -> _Channels:
        """Return the channels with the one above an edge pooled with the next lower one."""
        logs, upstream, downstream = (np.delete(array, edge) for array in (self.logs, self.upstream, self.downstream))
        return _Channels(logs, upstream, downstream, self.ratio)

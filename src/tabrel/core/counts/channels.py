"""Counts between sizes, and the parameters under which a curve explains them best."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from math import exp, log

import numpy as np
import scipy
from numpy.typing import NDArray

from tabrel.core.counts.curve_form import STRAIGHT, CurveForm

FloatArray = NDArray[np.float64]

FEWEST_EXPECTED = 5.0
"""Particles downstream below which a channel is pooled before the misfit is judged."""

SLOPES_TRIED = (1.0, 1.5, 2.0, 2.7, 3.5, 5.0)
STARTS_POLISHED = 2
LARGEST_LOG_SLOPE = 5.0
GRADIENT_LEFT = 1e-9
HESSIAN_STEP = 1e-4
FARTHEST_LOG_SIZE = 4.0
LEAST_KNOWN_LOG_SIZE = 1.5
"""How far x₅₀ may lie outside the counted sizes, and how uncertain it may be by counting, to be identified; as logarithms."""

STEEPEST = 25.0
FIBRES_TRIED = (1.0, 2.0, 4.0, 8.0, 12.0, 18.0, 25.0, 40.0, 80.0, 200.0)
SIZES_TRIED = np.linspace(-0.5, 0.5, 41)
FIRST_STEPS = np.array([[0.0, 0.0], [0.01, 0.0], [0.0, 0.1]])
FINEST_OF_CURVE, COARSEST_OF_CURVE = 0.5, 500.0
"""Fibre diameters between which a curve of interception is sought; beyond, its form no longer changes. [µm]"""


def pooled_counts(logs: FloatArray, upstream: FloatArray, downstream: FloatArray) -> tuple[FloatArray, FloatArray, FloatArray]:
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
class Channels:
    """Net counts between sizes, and what the curve expects of them."""

    logs: FloatArray
    upstream: FloatArray
    downstream: FloatArray
    ratio: float
    form: CurveForm = STRAIGHT

    @cached_property
    def u(self) -> FloatArray:
        """Particles of each channel upstream."""
        return _between(self.upstream)

    @cached_property
    def d(self) -> FloatArray:
        """Particles of each channel downstream."""
        return _between(self.downstream)

    def shares(self, log_size: FloatArray | float, second: FloatArray | float) -> FloatArray:
        """Return s of every channel along the last axis, for parameters of any shape."""
        z = self.form.log_beta(self.logs, np.asarray(log_size)[..., None], np.asarray(second)[..., None])
        passed = self.upstream / (1 + np.exp(np.clip(z, -60, 60)))
        through = _between(passed) / self.u
        flow = self.ratio * np.maximum(through, 1e-300)
        return np.asarray(flow / (1 + flow))

    def cost(self, log_size: FloatArray | float, second: FloatArray | float) -> FloatArray:
        """Return the negative log likelihood."""
        s = self.shares(log_size, second)
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

    def most_likely_bent(self, near: float) -> tuple[float, float, FloatArray] | None:
        """Return ln x₅₀, ln f and their covariance of a curve by interception near ln x₅₀ of a straight one, or None."""
        sizes, fibres = np.meshgrid(near + SIZES_TRIED, np.log(FIBRES_TRIED), indexing="ij")
        first, scale = self.cost(sizes, fibres), max(float(self.d.sum()), 1.0)
        best = int(np.argmin(first))
        start = np.array([sizes.flat[best], fibres.flat[best]])
        ends = (log(FINEST_OF_CURVE), log(COARSEST_OF_CURVE))
        inside = (self.logs[0] - FARTHEST_LOG_SIZE, self.logs[-1] + FARTHEST_LOG_SIZE)
        found = scipy.optimize.minimize(
            lambda p: float(self.cost(p[0], p[1])) / scale, start, method="Nelder-Mead", bounds=(inside, ends),
            options={"initial_simplex": start + FIRST_STEPS, "xatol": 1e-6, "fatol": 1e-12, "maxiter": 300},
        )  # fmt: skip
        log_size, log_fibre = float(found.x[0]), float(found.x[1])
        hessian = self._hessian(log_size, log_fibre)
        if not ends[0] + 1e-3 < log_fibre < ends[1] - 1e-3 or not np.all(np.linalg.eigvalsh(hessian) > 1e-9 * hessian[0, 0]):
            if not hessian[0, 0] > 0:
                return None
            covariance = np.array([[1 / hessian[0, 0], 0.0], [0.0, 0.0]])  # the form no longer changes with the fibre
        else:
            covariance = np.asarray(np.linalg.inv(hessian), dtype=float)
        return (log_size, log_fibre, covariance) if covariance[0, 0] < LEAST_KNOWN_LOG_SIZE**2 else None

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

    def _hessian(self, log_size: float, second: float) -> FloatArray:
        steps: FloatArray = HESSIAN_STEP * np.arange(-1.0, 2.0, dtype=np.float64)
        f = self.cost(log_size + steps[:, None], second + steps[None, :])
        mixed = (f[2, 2] - f[2, 0] - f[0, 2] + f[0, 0]) / 4
        bends = [f[2, 1] - 2 * f[1, 1] + f[0, 1], f[1, 2] - 2 * f[1, 1] + f[1, 0]]
        return np.array([[bends[0], mixed], [mixed, bends[1]]]) / HESSIAN_STEP**2

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

    def without(self, edge: int) -> Channels:
        """Return the channels with the one above an edge pooled with the next lower one."""
        logs, upstream, downstream = (np.delete(array, edge) for array in (self.logs, self.upstream, self.downstream))
        return Channels(logs, upstream, downstream, self.ratio, self.form)

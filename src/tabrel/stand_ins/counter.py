"""A particle counter on a filter test stand, simulated: it writes a counted test from an invented true curve.

It stands in for a laboratory and knows nothing of how a test is worked out. What it draws: the dust that circulates, what
the filter lets through, the volumes and dilutions really taken, the counter's own scale of sizes, particles of the
blank, and Poisson noise on every count.
"""

from __future__ import annotations

import csv
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TextIO

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]

MOST_TERMINALS = 2.0
"""Powers of the terminal ratio beyond which the stand would have stopped by itself."""


@dataclass(frozen=True)
class SimulatedTest:
    """Settings of the test stand.

    Attributes
    ----------
    size_at_beta_2, slope : float
        The filter's true curve, ln(β − 1) = slope·ln(x/x₅₀). [µm(c)]
    sizes : tuple of float
        Thresholds of the counter. [µm(c)]
    intervals, minutes : int, float
        How many, and how long each.
    particles_per_ml, dust_slope : float
        Upstream at 4 µm(c) and larger, and how fast they become fewer: N ∝ x^(−slope).
    upstream_ml, downstream_ml, upstream_dilution, downstream_dilution : float
        As set.
    volume_error, size_error : float
        Relative standard deviations of what volumes and dilutions, and the scale of sizes, are really.
    blank_per_ml : float
        Particles at 4 µm(c) and larger in the clean fluid, as the counter sees it.
    clean_hardware_kpa, clean_element_kpa : float
        Differential pressures at the beginning.
    capacity_g, terminal_ratio : float
        Dust at which the element's differential pressure has grown so much.
    injected_g_min, circulating_mg_l, system_volume_l, flow_l_min : float
        Of the stand.
    """

    size_at_beta_2: float = 9.0
    slope: float = 3.0
    sizes: tuple[float, ...] = (4.0, 6.0, 8.0, 10.0, 14.0, 20.0, 25.0, 30.0)
    intervals: int = 6
    minutes: float = 5.0
    particles_per_ml: float = 90_000.0
    dust_slope: float = 2.6
    upstream_ml: float = 10.0
    downstream_ml: float = 10.0
    upstream_dilution: float = 20.0
    downstream_dilution: float = 20.0
    volume_error: float = 0.03
    size_error: float = 0.02
    blank_per_ml: float = 1.0
    clean_hardware_kpa: float = 4.0
    clean_element_kpa: float = 6.0
    capacity_g: float = 14.0
    terminal_ratio: float = 8.0
    injected_g_min: float = 0.5
    circulating_mg_l: float = 5.0
    system_volume_l: float = 6.0
    flow_l_min: float = 30.0

    def beta(self, size: FloatArray) -> FloatArray:
        """Return the true filtration ratio of the particles of one size. [µm(c)]"""
        return np.asarray(1 + (size / self.size_at_beta_2) ** self.slope)


@dataclass(frozen=True)
class SimulatedCounts:
    """Records of the counter.

    Attributes
    ----------
    upstream, downstream : ndarray of int, shape (intervals, sizes)
        Particles at and above each size.
    blank_upstream, blank_downstream : ndarray of int, shape (sizes,)
        Of the clean fluid, for all intervals together.
    differential_pressure_kpa, injected_g : ndarray, shape (intervals,)
        At the end of each interval.
    """

    upstream: NDArray[np.int64]
    downstream: NDArray[np.int64]
    blank_upstream: NDArray[np.int64]
    blank_downstream: NDArray[np.int64]
    differential_pressure_kpa: FloatArray
    injected_g: FloatArray


def simulated_counts(test: SimulatedTest, seed: int) -> SimulatedCounts:
    """Return one test, the same for the same seed.

    β of the curve is that of all particles at and above a size, as it is counted and told.

    Parameters
    ----------
    test : SimulatedTest
        What is set.
    seed : int
        Of everything that is drawn.
    """
    draw = np.random.default_rng(seed)
    ratio_error = float(np.exp(draw.normal(0.0, test.volume_error)))
    really = np.array(test.sizes) * float(np.exp(draw.normal(0.0, test.size_error)))
    upstream = test.particles_per_ml * (really / 4.0) ** -test.dust_slope
    downstream = upstream / test.beta(really)
    counted_up = upstream * test.upstream_ml / test.upstream_dilution
    counted_down = downstream * test.downstream_ml / test.downstream_dilution * ratio_error
    blank = test.blank_per_ml * (np.array(test.sizes) / 4.0) ** -test.dust_slope
    blank_up, blank_down = blank * test.upstream_ml, blank * test.downstream_ml
    n = test.intervals
    injected = test.injected_g_min * test.minutes * np.arange(1, n + 1)
    retained = injected - test.circulating_mg_l * test.system_volume_l * 1e-3
    grown = test.terminal_ratio ** np.minimum((retained / test.capacity_g) ** 2, MOST_TERMINALS)
    return SimulatedCounts(
        upstream=_counts_above(draw, counted_up + blank_up, n),
        downstream=_counts_above(draw, counted_down + blank_down, n),
        blank_upstream=_counts_above(draw, n * blank_up, 1)[0],
        blank_downstream=_counts_above(draw, n * blank_down, 1)[0],
        differential_pressure_kpa=np.round(test.clean_hardware_kpa + test.clean_element_kpa * grown, 1),
        injected_g=np.round(injected, 2),
    )


def _counts_above(draw: np.random.Generator, expected: Sequence[float] | FloatArray, times: int) -> NDArray[np.int64]:
    """Return Poisson counts at and above each size, whose channels are independent."""
    channels = -np.diff(np.asarray(expected), append=0.0)
    values = draw.poisson(np.maximum(channels, 0.0), (times, len(channels)))
    return np.asarray(values[:, ::-1].cumsum(axis=1)[:, ::-1])


def write_csv(test: SimulatedTest, counts: SimulatedCounts, file: TextIO) -> None:
    """Write a test as a table: what was set as lines of name and value, then one row an interval, then the blank."""
    settings = {
        "scale": "um(c)",
        "test_kind": "multi_pass",
        "upstream_ml": test.upstream_ml,
        "upstream_dilution": test.upstream_dilution,
        "downstream_ml": test.downstream_ml,
        "downstream_dilution": test.downstream_dilution,
        "coincidence_per_ml": 10_000,
        "ratio_uncertainty_percent": 100 * test.volume_error,
        "size_uncertainty_percent": 100 * test.size_error,
        "dust": "ISO 12103-1 A3",
        "source": "simulated counter",
        "system_volume_l": test.system_volume_l,
        "flow_l_min": test.flow_l_min,
        "clean_hardware_kpa": test.clean_hardware_kpa,
        "clean_element_kpa": test.clean_element_kpa,
        "terminal_ratio": test.terminal_ratio,
    }
    rows = csv.writer(file, lineterminator="\n")
    rows.writerows([name, f"{value:g}" if isinstance(value, float) else value] for name, value in settings.items())
    sizes = [f"{size:g}" for size in test.sizes]
    rows.writerow(
        ["time_min", "differential_pressure_kpa", "injected_g", "circulating_mg_l"]
        + [f"{side} {size} um(c)" for side in ("upstream", "downstream") for size in sizes],
    )
    for i in range(test.intervals):
        pressure, injected = counts.differential_pressure_kpa[i], counts.injected_g[i]
        recorded = [f"{number:g}" for number in (test.minutes * (i + 1), pressure, injected, test.circulating_mg_l)]
        rows.writerow([*recorded, *counts.upstream[i].tolist(), *counts.downstream[i].tolist()])
    rows.writerow(["blank", "", "", "", *counts.blank_upstream.tolist(), *counts.blank_downstream.tolist()])

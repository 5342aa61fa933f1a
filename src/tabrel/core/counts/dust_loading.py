"""Loading along a test: dust retained along it, the media's own differential pressure, capacity by interpolation.

Nothing is extrapolated: beyond the last recorded mass there are only bounds. Capacity is in grams of test dust.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, log

import numpy as np
from numpy.typing import NDArray

from tabrel.core.study.model import CountInterval, Counts
from tabrel.core.uncertainty.propagation import Result, missing_result

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class DustLoading:
    """The measured loading curve: the logarithm of the media's differential pressure over its clean value, against dust.

    Attributes
    ----------
    mass : ndarray, shape (n,)
        Retained, rising from zero. [kg]
    ratio : ndarray, shape (n,)
        The media's differential pressure over its clean value, 1 at the first point. [-]
    assumed : tuple of str
        What was not recorded and had to be assumed.
    """

    mass: FloatArray
    ratio: FloatArray
    assumed: tuple[str, ...] = ()

    def mass_at(self, ratio: float) -> tuple[float, bool]:
        """Return the dust at which a ratio is first reached [kg], and whether it is: else the last mass is a least one.

        Examples
        --------
        >>> loading = DustLoading(np.array([0.0, 4e-3]), np.array([1.0, 4.0]))
        >>> loading.mass_at(2.0), loading.mass_at(8.0)
        ((0.002, True), (0.004, False))
        """
        logs = np.log(self.ratio)
        reached = np.flatnonzero(logs >= log(ratio))
        if not reached.size:
            return float(self.mass[-1]), False
        i = int(reached[0])
        if i == 0:
            return 0.0, True
        share = (log(ratio) - logs[i - 1]) / (logs[i] - logs[i - 1])
        return float(self.mass[i - 1] + share * (self.mass[i] - self.mass[i - 1])), True

    def ratio_at(self, mass: float) -> tuple[float, bool]:
        """Return the ratio at a mass of dust [kg], and whether the test went so far: else the last ratio is a least one."""
        return exp(float(np.interp(mass, self.mass, np.log(self.ratio)))), mass <= self.mass[-1]

    def capacity(self, terminal_ratio: float) -> Result:
        """Return the dust at the terminal ratio, or the last mass as a least one. [kg]"""
        mass, is_reached = self.mass_at(terminal_ratio)
        if is_reached:
            return Result(mass, basis="counts", assumed=self.assumed)
        return Result(None, low=mass, relation=">=", basis="counts", assumed=self.assumed)


def retained_mass(counts: Counts, interval: CountInterval) -> tuple[float | None, bool]:
    """Return the dust retained at the end of an interval [kg], and whether what still circulates could be taken off."""
    if interval.injected_g is None:
        return None, False
    if interval.circulating_mg_l is None or counts.system_volume_l is None:
        return interval.injected_g * 1e-3, False
    return max(interval.injected_g * 1e-3 - interval.circulating_mg_l * counts.system_volume_l * 1e-6, 0.0), True


def dust_loading(
    counts: Counts, *, hardware_pressure: float | None = None, element_pressure: float | None = None
) -> DustLoading | Result:
    """Return the measured loading curve of a test.

    Parameters
    ----------
    counts : Counts
        With intervals.
    hardware_pressure, element_pressure : float or None
        Differential pressure of the clean hardware and of the clean element at the test's flow and viscosity, from the
        model; used where the test has none of its own. [Pa]

    Returns
    -------
    DustLoading, or Result
        A result that names what is missing.
    """
    assumed: list[str] = []
    missing: list[str] = []
    hardware = _own(counts.clean_hardware_kpa, hardware_pressure, "counts.clean_hardware", assumed, missing)
    element = _own(counts.clean_element_kpa, element_pressure, "counts.clean_element", assumed, missing)
    rows = [
        (interval, mass, less)
        for interval in counts.intervals
        for mass, less in (retained_mass(counts, interval),)
        if mass is not None and interval.differential_pressure_kpa is not None
    ]
    if not any(interval.injected_g is not None for interval in counts.intervals):
        missing.append("counts.injected")
    if not any(interval.differential_pressure_kpa is not None for interval in counts.intervals):
        missing.append("counts.differential_pressure")
    if missing or not rows or hardware is None or element is None:
        return missing_result(*(missing or ["counts.injected"]), basis="counts")
    if not all(less for _, _, less in rows):
        assumed.append("counts.circulating")
    mass, ratio = [0.0], [1.0]
    for interval, retained, _ in rows:
        own = ((interval.differential_pressure_kpa or 0.0) * 1e3 - hardware) / element
        if retained > mass[-1] and own > 0:
            mass.append(retained)
            ratio.append(own)
    return DustLoading(np.array(mass), np.array(ratio), tuple(assumed))


def _own(stated: float | None, modelled: float | None, name: str, assumed: list[str], missing: list[str]) -> float | None:
    """Return what the test states [kPa] in Pa, else the model's [Pa], which is then named."""
    if stated is not None:
        return stated * 1e3
    if modelled is None:
        missing.append(name)
        return None
    assumed.append(name)
    return modelled

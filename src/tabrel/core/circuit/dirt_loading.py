"""How dirt loads a filter: as its counted test recorded it, else by the usual law up to what it holds."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from math import exp, log
from typing import Annotated, Protocol

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.filter_model import filter_model, missing_inputs
from tabrel.core.counts.dust_loading import DustLoading, dust_loading
from tabrel.core.counts.totals import with_intervals
from tabrel.core.errors import MissingInputsError, StudyError, TabrelError
from tabrel.core.field_units import INSIDE, Mass
from tabrel.core.numbers import plain_number
from tabrel.core.parts.media import media_area_number
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Counts, Study
from tabrel.core.uncertainty.propagation import Result, missing_result
from tabrel.core.uncertainty.sampled_number import nominal_value

FloatArray = NDArray[np.float64]

TERMINAL_RATIO = 8.0
"""Of the media's own differential pressure to its clean value, where nobody states one."""

TEST_FLUID_DENSITY = 860.0
"""Of a test fluid of which only the viscosity is stated. [kg/m³]"""

CAPACITY_PER_AREA = {"cellulose": 0.15, "blend": 0.19, "synthetic": 0.25}
"""Dirt that a family's media holds at its terminal loading, an order of magnitude and our own figure. [kg/m²]"""

FAMILY_CAPACITY_LOG_U, CORRECTED_CAPACITY_LOG_U = 0.35, 0.25
"""Standard uncertainty of the logarithm of a family's capacity (a factor of two at 95 %), and of one that a counted filter of the
same family corrects."""

INGRESS_LOG_U = 0.46
"""Standard uncertainty of the logarithm of an ingress that is not stated: a factor of 2.5 at 95 %."""


def terminal_ratio(study: Study) -> float:
    """Return the ratio at which the filters of a study count as full."""
    return (study.warm_up.terminal_ratio if study.warm_up else None) or TERMINAL_RATIO


class LoadingLaw(Protocol):
    """How dirt loads the media: a mass for each ratio, and whether it is only a least one."""

    def mass_at(self, ratio: float) -> tuple[float, bool]:
        """Return the dirt at which the media's resistance has grown so many times [kg], and whether it is known."""
        ...

    def ratio_at(self, mass: float) -> tuple[float, bool]:
        """Return how many times the media's resistance has grown with so much dirt [kg], and whether it is known."""
        ...


@dataclass(frozen=True)
class UsualLaw:
    """The usual law: loading = exp(ln(terminal ratio)·dirt/capacity).

    Attributes
    ----------
    capacity : float
        Dirt at the terminal ratio. [kg]
    terminal_ratio : float
    """

    capacity: float
    terminal_ratio: float

    def mass_at(self, ratio: float) -> tuple[float, bool]:
        """Return the dirt at a ratio [kg]; the law is known everywhere."""
        return self.capacity * log(ratio) / log(self.terminal_ratio), True

    def ratio_at(self, mass: float) -> tuple[float, bool]:
        """Return the ratio at a mass [kg]; the law is known everywhere."""
        return exp(log(self.terminal_ratio) * mass / self.capacity), True


@dataclass(frozen=True)
class Capacity:
    """Dirt a filter holds at its terminal loading, and how it is loaded on the way there.

    Attributes
    ----------
    basis : str
        ``counts``: by its counted test, in test dust; ``stated``; ``family``: usual for its media.
    is_least : bool
        Whether the test ended before, so that it is only a least mass.
    law : LoadingLaw
    log_uncertainty : float
        Standard, of its logarithm; 0 where it was counted or stated.
    corrected_by : str
        Label of the counted filter of the family that corrects a family's usual mass; empty for none.
    """

    mass: Mass
    basis: str
    is_least: bool
    law: Annotated[LoadingLaw, INSIDE]
    log_uncertainty: Annotated[float, INSIDE] = 0.0
    corrected_by: str = ""


def with_capacity_corrections(measured: Mapping[str, MeasuredSample], full_at: float) -> dict[str, MeasuredSample]:
    """Return filters whose assumed capacity is corrected by one of the same family that was counted, as far as there is one.

    Parameters
    ----------
    measured : mapping
        The filters of a study, by anything.
    full_at : float
        Ratio of the media's pressure to its clean value at which they count as full.
    """
    ratios: dict[str, tuple[float, str]] = {}
    for item in measured.values():
        family, usual = item.sample.media_family, _family_mass(item)
        counted = dirt_capacity(item, full_at) if item.sample.counts else None
        if family and usual and counted is not None and counted.basis == "counts" and not counted.is_least:
            ratios.setdefault(family, (counted.mass / usual, item.sample.label))
    return {key: replace(item, capacity_ratio=ratios.get(item.sample.media_family or "")) for key, item in measured.items()}


def measured_loading(measured: MeasuredSample) -> DustLoading | Result | None:
    """Return the measured loading curve of a filter, a result that names what its test lacks, or None without a test."""
    counts = measured.sample.counts
    if counts is None or not (counts.intervals or counts.rows):
        return None
    counts = with_intervals(counts)
    hardware, element = _modelled(measured, counts)
    return dust_loading(counts, hardware_pressure=hardware, element_pressure=element)


def retention_capacity(measured: MeasuredSample) -> Result:
    """Return the dust a filter holds at the terminal ratio of its test, by interpolation, never beyond it. [kg]"""
    loading, counts = measured_loading(measured), measured.sample.counts
    if not isinstance(loading, DustLoading) or counts is None:
        return loading if isinstance(loading, Result) else missing_result("counts")
    if counts.terminal_ratio is not None:
        return loading.capacity(counts.terminal_ratio)
    result = loading.capacity(TERMINAL_RATIO)
    return replace(result, assumed=(*result.assumed, "counts.terminal_ratio"))


def dirt_capacity(measured: MeasuredSample, terminal_ratio: float) -> Capacity | None:
    """Return what a filter holds and how it is loaded, from the best evidence there is, or None.

    Parameters
    ----------
    measured : MeasuredSample
        The filter.
    terminal_ratio : float
        At which it counts as full.

    Returns
    -------
    Capacity or None
        By its counted test; else as stated; else its family's usual mass for its media area.
    """
    loading = measured_loading(measured)
    if isinstance(loading, DustLoading) and len(loading.mass) > 1:
        mass, is_reached = loading.mass_at(terminal_ratio)
        return Capacity(mass, "counts", not is_reached, loading)
    if measured.sample.capacity_g is not None:
        mass = measured.sample.capacity_g * 1e-3
        return Capacity(mass, "stated", False, UsualLaw(mass, terminal_ratio))
    usual = _family_mass(measured)
    if usual is None:
        return None
    ratio, label = measured.capacity_ratio or (1.0, "")
    log_u = CORRECTED_CAPACITY_LOG_U if label else FAMILY_CAPACITY_LOG_U
    return Capacity(usual * ratio, "family", False, UsualLaw(usual * ratio, terminal_ratio), log_u, label)


def _family_mass(measured: MeasuredSample) -> float | None:
    """Return what a family's media usually holds at the filter's area, or None while one of them is not known. [kg]"""
    area, family = media_area_number(measured.strip), measured.sample.media_family
    return None if area is None or family is None else CAPACITY_PER_AREA[family] * float(nominal_value(area))


def loading_by_dirt(measured: MeasuredSample, grams: float, terminal_ratio: float | None) -> float:
    """Return how many times the media's resistance has grown with so much dirt.

    Raises
    ------
    MissingInputsError
        If nothing says what the filter holds.
    StudyError
        If its test ended before: no law is extrapolated.
    """
    capacity = dirt_capacity(measured, terminal_ratio or TERMINAL_RATIO)
    if capacity is None:
        raise MissingInputsError(["media_family", *measured.strip.needed("media.strip_length", "media.strip_width")])
    ratio, is_known = capacity.law.ratio_at(grams * 1e-3)
    if not is_known:
        last = capacity.law.mass_at(ratio)[0] * 1e3
        label = measured.sample.label
        message = f"the test of {label} ended at {plain_number(last, 3)} g of dust: take no more, or a ratio"
        raise StudyError("scenario.loading_g", message)
    return ratio


def _modelled(measured: MeasuredSample, counts: Counts) -> tuple[float | None, float | None]:
    """Return the clean hardware's and the clean element's pressure by the model, at the test's flow and viscosity. [Pa]"""
    needed = counts.clean_hardware_kpa is None or counts.clean_element_kpa is None
    if not needed or counts.flow_l_min is None or counts.kinematic_mm2_s is None or missing_inputs(measured):
        return None, None
    try:
        model = filter_model(measured)
    except TabrelError:
        return None, None
    flow, viscosity = counts.flow_l_min / 60e3, counts.kinematic_mm2_s * 1e-6 * TEST_FLUID_DENSITY
    hardware, element = model.hardware, model.media + model.pleats + model.tube.a
    viscous, inertial = (float(nominal_value(number)) for number in (hardware.a, hardware.b))
    passive = viscous * viscosity * flow + inertial * TEST_FLUID_DENSITY * flow**2
    return passive, float(nominal_value(element)) * viscosity * flow

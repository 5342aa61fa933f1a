"""Which part of the filter takes how much of its differential pressure: viscous, inertial, and what a spring holds back."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.circuit.filter_flow import FilterState
from tabrel.core.circuit.filter_model import FilterModel
from tabrel.core.hydraulics.flow_curve import Fluid
from tabrel.core.hydraulics.restrictions import Restriction
from tabrel.core.uncertainty.sampled_number import FloatOrArray

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class LossPart:
    """One part's differential pressure over the map, by its origin. [Pa]

    Attributes
    ----------
    name : str
        Of the part.
    viscous, inertial : ndarray
        Rising with flow and with its square.
    spring : ndarray or None
        What the part holds back whatever the flow, such as the anti-drainback valve; None for no such thing.
    """

    name: str
    viscous: FloatArray
    inertial: FloatArray
    spring: FloatArray | None

    @property
    def total(self) -> FloatArray:
        """All of it. [Pa]"""
        return np.asarray(self.viscous + self.inertial + (0.0 if self.spring is None else self.spring))


def passive_loss(name: str, part: Restriction, through: FloatArray, oil: Fluid, spring: FloatArray | None = None) -> LossPart:
    """Return the loss of a restriction at a flow through it. [m³/s]"""
    inertial = part.b * oil.density * through**2 + np.zeros_like(through)
    return LossPart(name, part.a * oil.dynamic_viscosity * through, inertial, spring)


def filter_losses(model: FilterModel, inside: FilterState, can: Fluid, loading: FloatOrArray) -> Iterator[LossPart]:
    """Yield the loss of every part of the filter, in the order in which the oil passes them.

    Parameters
    ----------
    model : FilterModel
        The network.
    inside : FilterState
        Its solution.
    can : Fluid
        The oil in the can.
    loading : float, or an array
        Multiplies the media's resistance.
    """
    media_flow, hardware_flow = inside.media_flow, inside.hardware_flow
    none = np.zeros_like(inside.flow_rate.value)
    yield passive_loss("inlet_holes", model.inlet, hardware_flow, can)
    if np.any(model.anti_drain_pressure):  # shut, it holds back no more than there is
        held = np.minimum(model.anti_drain_pressure, inside.filter_pressure.value)
        yield passive_loss("anti_drain", model.anti_drain, hardware_flow, can, spring=held)
    elif np.any(model.anti_drain.a):
        yield passive_loss("anti_drain", model.anti_drain, hardware_flow, can)
    through = can.dynamic_viscosity * media_flow
    media, pleats, tube = loading * model.media * through, model.pleats * through, model.tube.a * through
    yield LossPart("media", media, none, None)
    yield LossPart("pleat_channels", pleats, none, None)
    if model.can_annulus is not None:
        yield LossPart("can_annulus", inside.element_pressure.value - media - pleats - tube, none, None)
    if np.any(model.tube.a):
        yield LossPart("centre_tube", tube, model.tube.b * can.density * hardware_flow**2, None)
    yield passive_loss("outlet", model.outlet, hardware_flow, can)
    if np.any(model.adapter.a):
        yield passive_loss("adapter", model.adapter, hardware_flow, can)

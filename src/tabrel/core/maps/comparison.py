"""The two questions of a study, answered for one filter: which part restricts here, and when is oil unfiltered."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from tabrel.core.catalogue.terms import ENGINE_SIDE
from tabrel.core.circuit.filter_losses import LossPart
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.field_units import Pressure, Share, Temperature
from tabrel.core.maps.onset import bypass_onset
from tabrel.core.maps.operating_map import loss_breakdown


@dataclass(frozen=True)
class PartShare:
    """A part, its differential pressure, and its share of the filter's own loss."""

    name: str
    differential_pressure: Pressure
    share: Share


@dataclass(frozen=True)
class FilterAtPoint:
    """One filter at one place of the map.

    Attributes
    ----------
    parts : tuple of PartShare
        Of the filter's own loss, the largest first; empty where the oil does not pump.
    unfiltered : float or None
        Share of the flow that passes no media.
    onset, filling_onset : float or None
        Bypass onset temperature at this speed, steady and filling; None where the valve stays shut.
    has_valve : bool
        Whether there is a bypass valve.
    """

    parts: tuple[PartShare, ...]
    filter_pressure: Pressure | None
    gallery_pressure: Pressure | None
    unfiltered: Share | None
    onset: Temperature | None
    filling_onset: Temperature | None
    has_valve: bool


def filter_at_point(point: OperatingPoint, temperature: float, speed: float) -> FilterAtPoint:
    """Return what a filter does at one temperature and speed.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil, condition and loading.
    temperature : float
        [°C]
    speed : float
        [rpm]
    """
    both = replace(point, condition="steady"), replace(point, condition="filling")
    onsets = [bypass_onset(operating_point, [speed]).temperature[0] for operating_point in both]
    onset, filling = (None if np.isnan(celsius) else float(celsius) for celsius in onsets)
    has_valve = point.filter.valve is not None
    if not point.oil.pumps(np.array([temperature]))[0]:
        return FilterAtPoint((), None, None, None, onset, filling, has_valve)
    solved = solve_circuit(point, point.place(np.array([temperature]), np.array([speed])))
    if not solved.converged[0]:
        return FilterAtPoint((), None, None, None, onset, filling, has_valve)
    return FilterAtPoint(
        parts=part_shares(tuple(loss_breakdown(solved))),
        filter_pressure=float(solved.quantity("filter_pressure")[0]),
        gallery_pressure=float(solved.quantity("gallery_pressure")[0]),
        unfiltered=float(solved.quantity("unfiltered_fraction")[0]),
        onset=onset,
        filling_onset=filling,
        has_valve=has_valve,
    )


def part_shares(parts: tuple[LossPart, ...]) -> tuple[PartShare, ...]:
    """Return each part's share of the filter's own loss at the first place of a pressure-loss breakdown, the largest first."""
    own = {part.name: float(np.ravel(part.total)[0]) for part in parts if part.name not in ENGINE_SIDE}
    whole = sum(own.values())
    shares = [PartShare(name, total, total / whole if whole > 0 else 0.0) for name, total in own.items()]
    return tuple(sorted(shares, key=lambda part: -part.share))

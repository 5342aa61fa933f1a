"""The operating map: the whole circuit solved over oil temperature and engine speed at once."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.circuit.engine_circuit import NO_LOSS
from tabrel.core.circuit.filter_losses import LossPart, filter_losses, passive_loss
from tabrel.core.circuit.solution import SolvedCircuit, solve_circuit
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.errors import OutOfRangeError, require_positive
from tabrel.core.oil.model import HOTTEST_OIL

FloatArray = NDArray[np.float64]

COLDEST_OIL = -100.0
"""No map goes below it. [°C]"""


@dataclass(frozen=True)
class OperatingMap:
    """The solved map; arrays have shape (temperatures, speeds).

    They are NaN where the oil does not pump, or where the pump cannot open the anti-drainback valve.

    Attributes
    ----------
    temperature, speed : ndarray
        Axes. [°C], [rpm]
    pumps : ndarray of bool, shape (temperatures,)
        Where the oil pumps.
    solved : SolvedCircuit
        The circuit at the temperatures at which it does.
    """

    temperature: FloatArray
    speed: FloatArray
    pumps: NDArray[np.bool_]
    solved: SolvedCircuit

    def quantity(self, name: str) -> FloatArray:
        """Return one of `solution.SOLVED_QUANTITIES` over the whole grid, in SI units."""
        return self._placed(self.solved.quantity(name))

    @property
    def evaluations(self) -> int:
        """How often the residual was evaluated for the whole grid."""
        return self.solved.evaluations

    @cached_property
    def loss_breakdown(self) -> tuple[LossPart, ...]:
        """Every part's differential pressure, from pump to gallery."""
        return tuple(
            LossPart(
                part.name,
                self._placed(part.viscous),
                self._placed(part.inertial),
                None if part.spring is None else self._placed(part.spring),
            )
            for part in loss_breakdown(self.solved)
        )

    def _placed(self, array: FloatArray) -> FloatArray:
        solved = array if self.solved.converged.all() else np.where(self.solved.converged, array, np.nan)
        if self.pumps.all():
            return solved
        whole = np.full((len(self.temperature), len(self.speed)), np.nan)
        whole[self.pumps] = solved
        return whole


def check_axes(temperatures: Sequence[float], speeds: Sequence[float]) -> None:
    """Raise `OutOfRangeError` unless the axes are finite temperatures [°C] and speeds above zero [rpm]."""
    celsius, rpm = np.asarray(temperatures, dtype=float), np.asarray(speeds, dtype=float)
    for wrong in celsius[~((celsius >= COLDEST_OIL) & (celsius <= HOTTEST_OIL))]:
        span = f"{shown_in_both(COLDEST_OIL, '°C')} to {shown_in_both(HOTTEST_OIL, '°C')}"
        raise OutOfRangeError(f"{shown_in_both(wrong, '°C', 6)} is outside the model, which runs from {span}")
    for wrong in rpm[~(np.isfinite(rpm) & (rpm > 0))]:
        raise OutOfRangeError(f"a speed of {wrong:g} rpm is not above zero: give engine speeds in rpm")
    if not len(temperatures) or not len(speeds):
        raise OutOfRangeError("a map needs one temperature and one speed at least")


def operating_map(point: OperatingPoint, temperatures: Sequence[float], speeds: Sequence[float]) -> OperatingMap:
    """Return the circuit solved over a grid in one pass.

    Parameters
    ----------
    point : OperatingPoint
        Filter, circuit, oil, condition and loading.
    temperatures : sequence of float, shape (m,)
        Oil temperatures. [°C]
    speeds : sequence of float, shape (n,)
        Engine speeds, above zero. [rpm]

    Raises
    ------
    OutOfRangeError
        If an axis or the loading is outside the model.
    """
    check_axes(temperatures, speeds)
    require_positive(loading=point.loading)
    temperature, speed = np.asarray(temperatures, dtype=float), np.asarray(speeds, dtype=float)
    pumps = point.oil.pumps(temperature)
    place = point.place(temperature[pumps][:, None], speed[None, :])
    return OperatingMap(temperature, speed, pumps, solve_circuit(point, place))


def loss_breakdown(solved: SolvedCircuit) -> Iterator[LossPart]:
    """Yield viscous, inertial and spring loss of every part from pump to gallery. [Pa]"""
    point, inside = solved.point, solved.state.filter
    circuit, flow, fluid = point.circuit, inside.flow_rate.value, solved.place.fluid
    if circuit.cooler is not NO_LOSS:
        yield passive_loss("cooler", circuit.cooler.restriction, circuit.cooler.inner_flow(flow, fluid), fluid)
    if circuit.head is not NO_LOSS:
        yield passive_loss("head", circuit.head.restriction, circuit.head.inner_flow(flow, fluid), fluid)
    yield from filter_losses(point.filter, inside, solved.place.can_fluid, point.loading)

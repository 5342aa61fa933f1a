"""Everything that says at what pressure the bypass valve opens, side by side, and whether it agrees."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import combinations
from typing import Annotated

from tabrel.core.field_units import IN_KPA, Pressure
from tabrel.core.parts.seat_and_spring import spring_travel
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.propagation import Result, Uncertain
from tabrel.core.uncertainty.sampled_number import nominal_value


@dataclass(frozen=True)
class OpeningEvidence:
    """One way to the opening pressure.

    Attributes
    ----------
    basis : str
        ``pressure``, ``force``, ``spring`` or ``stated``, the best first.
    opening : Result
        Opening pressure at 20 °C.
    is_used : bool
        Whether the headline result is computed from it.
    """

    basis: str
    opening: Annotated[Result, IN_KPA]
    is_used: bool


@dataclass(frozen=True)
class Agreement:
    """Whether two numbers agree: |difference| over its expanded uncertainty, as Eₙ.

    Attributes
    ----------
    first, second : str
        What is compared.
    normalised_error : float or None
        Eₙ; None where neither number has an uncertainty.
    agrees : bool
        Whether Eₙ is at most 1.
    reservation : str
        Which uncertainty is not in Eₙ; empty where both are.
    """

    first: str
    second: str
    normalised_error: float | None
    agrees: bool
    reservation: str = ""


@dataclass(frozen=True)
class StatedBand:
    """A stated band, read both ways.

    Attributes
    ----------
    opens_at_low, full_open_at_high : Agreement
        The band read as start of opening to full open.
    within_tolerance : bool
        The band read as the tolerance of one opening pressure: whether it lies inside, within its U.
    """

    low: Pressure
    high: Pressure
    opens_at_low: Agreement
    full_open_at_high: Agreement | None
    within_tolerance: bool


@dataclass(frozen=True)
class OpeningComparison:
    """All the evidence for the opening pressure.

    Attributes
    ----------
    evidence : tuple of OpeningEvidence
        Every way there is, the best first.
    agreements : tuple of Agreement
        Of every two ways.
    closing : Result or None
        Closing pressure on a bench, pressure falling.
    stated_band : StatedBand or None
        Where a band is stated and something was measured to hold against it.
    coil_bound : bool or None
        Whether the spring goes solid before the lift limit; None while that is not known.
    """

    evidence: tuple[OpeningEvidence, ...]
    agreements: tuple[Agreement, ...]
    closing: Annotated[Result, IN_KPA] | None
    stated_band: StatedBand | None
    coil_bound: bool | None


def opening_comparison(measured: MeasuredSample) -> OpeningComparison:
    """Return every way to the opening pressure that the readings allow, and how they agree.

    Two ways may share the seat or the spring; the uncertainty of their difference is therefore
    propagated with the correlation. For independent ways this is Eₙ = |x₁ − x₂|/√(U₁² + U₂²). Of a
    single stated figure no uncertainty is known, and only that of the other way counts.

    References
    ----------
    .. [1] ISO 13528:2022, 9.7, for Eₙ; JCGM 100:2008, 5.2, for correlated inputs.
    """
    if measured.sample.bypass.location == "none":
        return OpeningComparison((), (), None, None, None)
    variables = measured.variables
    ways = {way.basis: way.pressure for way in measured.bypass.ways}
    evidences = tuple(
        OpeningEvidence(way.basis, way.result, way.basis == measured.bypass.opening.basis) for way in measured.bypass.ways
    )
    agreements = tuple(_agreement(measured, a, ways[a], b, ways[b]) for a, b in combinations(ways, 2))
    closing = measured.known.get("bypass.closing_pressure")
    return OpeningComparison(
        evidences,
        agreements,
        None if closing is None else variables.result(closing, basis="pressure"),
        _stated_band(measured, ways),
        coil_bound(measured),
    )


def coil_bound(measured: MeasuredSample) -> bool | None:
    """Return whether the spring goes solid before the lift limit, or None while that is not known."""
    travel, valve = spring_travel(measured.known), measured.bypass.valve
    if travel is None or valve is None:
        return None
    return bool(float(nominal_value(travel)) < valve.lift_limit)


def _agreement(measured: MeasuredSample, first: str, x: Uncertain, second: str, y: Uncertain) -> Agreement:
    difference = x - y
    expanded = measured.variables.expanded_uncertainty(difference)
    off = abs(float(nominal_value(difference)))
    is_single = "stated" in (first, second) and not isinstance(measured.stated.value, tuple)
    reservation = "the tolerance of the stated figure is not known" if is_single else ""
    if expanded == 0:
        return Agreement(first, second, None, off == 0, reservation)
    return Agreement(first, second, off / expanded, off <= expanded, reservation)


def _stated_band(measured: MeasuredSample, ways: dict[str, Uncertain]) -> StatedBand | None:
    stated, best = measured.stated.value, next(iter(ways.items()), None)
    if not isinstance(stated, tuple) or best is None or best[0] == "stated":
        return None
    low, high = (pressure * 1e3 for pressure in stated)
    basis, opening = best
    allowance = measured.variables.expanded_uncertainty(opening)
    full = measured.bypass.full_open
    full_open = None
    if full.value is not None and full.expanded_uncertainty:
        error = abs(full.value - high) / full.expanded_uncertainty
        full_open = Agreement("full_open", "stated", error, error <= 1)
    return StatedBand(
        low,
        high,
        _agreement(measured, basis, opening, "stated", low),
        full_open,
        low - allowance <= float(nominal_value(opening)) <= high + allowance,
    )

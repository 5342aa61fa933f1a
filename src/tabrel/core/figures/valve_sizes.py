"""Sizes with which the bypass valve is drawn in section: as measured, typical ones where they were not."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tabrel.core.field_units import Length, Pressure
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.sampled_number import nominal_value

ValveForm = Literal["coil", "leaf", "flap"]

TYPICAL_SEAT_INSIDE, TYPICAL_LAND = 13e-3, 0.8e-3
TYPICAL_SPRING_LENGTH, TYPICAL_WIRE, TYPICAL_COILS = 15e-3, 1.2e-3, 6.0
"""Of bypass valves in filters of cars and vans; our own figures. [m]"""

SMALLEST_SEAT, SMALLEST_SPRING = 1e-3, 2e-3
"""Least sizes that can be drawn. [m]"""


@dataclass(frozen=True)
class ValveSizes:
    """Sizes of the drawing.

    Attributes
    ----------
    form : str
        ``coil``, ``leaf`` or ``flap``: how the moving part is held.
    seat_inside, seat_outside : float
        The seat; the larger is outside, however they were typed.
    disc : float
        Diameter of the disc.
    lift : float
        At the lift limit.
    spring_width, spring_length, wire : float
        Middle to middle of the wire; as installed; of the wire.
    coils : float
        In all.
    half_open_pressure : float or None
        At which the valve is half way to full open.
    is_typical : bool
        Whether a typical size stands in for one that was not measured.
    """

    form: ValveForm
    seat_inside: Length
    seat_outside: Length
    disc: Length
    lift: Length
    spring_width: Length
    spring_length: Length
    wire: Length
    coils: float
    half_open_pressure: Pressure | None
    is_typical: bool


def valve_form(kind: str | None) -> ValveForm:
    """Return how a valve of a kind in words is drawn.

    Examples
    --------
    >>> valve_form("leaf_spring"), valve_form("a flap"), valve_form(None)
    ('leaf', 'flap', 'coil')
    """
    if kind and "leaf" in kind:
        return "leaf"
    return "flap" if kind and ("flap" in kind or "combined" in kind) else "coil"


def valve_sizes(measured: MeasuredSample) -> ValveSizes:
    """Return the sizes with which the bypass valve of a sample is drawn."""

    def known(name: str) -> float | None:
        number = measured.known.get(f"bypass.{name}")
        return None if number is None else float(nominal_value(number))

    value, other, installed = known("seat_inside_diameter"), known("seat_outside_diameter"), known("spring_installed_length")
    inside = (TYPICAL_SEAT_INSIDE if other is None else other - 2 * TYPICAL_LAND) if value is None else value
    outside = inside + 2 * TYPICAL_LAND if other is None else other
    inside, outside = max(SMALLEST_SEAT, min(inside, outside)), max(1.5 * SMALLEST_SEAT, inside, outside)
    form = valve_form(measured.sample.bypass.kind)
    valve = measured.bypass.valve
    lift = (valve.lift_limit if valve else known("lift_limit")) or (inside + outside) / 8
    disc, wire = outside + 1e-3, known("spring_wire_diameter") or TYPICAL_WIRE
    length = TYPICAL_SPRING_LENGTH if form == "coil" else lift + 4e-3
    opening, full_open = measured.bypass.opening.value, measured.bypass.full_open.value
    return ValveSizes(
        form=form,
        seat_inside=inside,
        seat_outside=outside,
        disc=disc,
        lift=float(lift),
        spring_width=max(SMALLEST_SPRING, (known("spring_outside_diameter") or disc - 1e-3) - wire),
        spring_length=max(length if installed is None else installed, lift + 1e-3),
        wire=wire,
        coils=known("spring_total_coils") or TYPICAL_COILS,
        half_open_pressure=None if opening is None or full_open is None else (opening + full_open) / 2,
        is_typical=value is None or other is None or installed is None,
    )

"""Passive restrictions: differential pressure = a·μ·Q + b·ρ·Q².

`a` [1/m³] is the viscous, `b` [1/m⁴] the inertial coefficient. In series both add. Sizes and coefficients
are floats, or arrays of draws.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import pi
from typing import Any

import numpy as np

from tabrel.core.errors import require_positive
from tabrel.core.uncertainty.sampled_number import FloatOrArray

DISCHARGE_COEFFICIENT = 0.62
"""Of the bypass valve's curtain, sharp-edged and turbulent."""

ANTI_DRAIN_LAND = 0.001
"""Length of the gap under the anti-drainback valve's lip. [m]"""


@dataclass(frozen=True)
class Restriction:
    """Viscous coefficient `a` [1/m³] and inertial coefficient `b` [1/m⁴] of a passive part."""

    a: FloatOrArray = 0.0
    b: FloatOrArray = 0.0

    def __add__(self, other: Restriction) -> Restriction:
        """Return the two in series."""
        return Restriction(self.a + other.a, self.b + other.b)

    def with_inertia_times(self, factor: FloatOrArray) -> Restriction:
        """Return the part with its inertial coefficient multiplied by a factor."""
        return Restriction(self.a, self.b * factor)


NO_RESTRICTION = Restriction()


def parallel(branches: Iterable[Restriction]) -> Restriction:
    """Return restrictions side by side: 1/a = Σ 1/aᵢ and b = (Σ bᵢ^−½)^−2.

    Exact in the viscous and in the inertial limit; between them it is the usual approximation.
    """
    listed = list(branches)
    return Restriction(
        1 / sum(1 / branch.a for branch in listed),
        sum(branch.b**-0.5 for branch in listed) ** -2,
    )


def thick_edged_loss_coefficient(length_ratio: FloatOrArray) -> Any:
    """Return the loss coefficient K of a thick-edged orifice over its length-to-diameter ratio.

    Source: I. E. Idelchik, Handbook of Hydraulic Resistance, 3rd ed., diagram 4-12, in the limit of
    a small hole in a large plate.

    Examples
    --------
    >>> round(float(thick_edged_loss_coefficient(0.0)), 3), float(thick_edged_loss_coefficient(3.0))
    (2.85, 1.5)
    """
    short = np.minimum(length_ratio, 2.4)
    exponent = 0.25 + 0.535 * short**8 / (0.05 + short**7)
    return 1.5 + (2.4 - short) * 10**-exponent


def hole_restriction(*, count: int, area: FloatOrArray, perimeter: FloatOrArray, thickness: FloatOrArray) -> Restriction:
    """Return the restriction of equal holes in a plate.

    Viscous: Sampson's orifice in series with Poiseuille's tube, over the hydraulic radius [1]_.
    Inertial: thick-edged orifice.

    Parameters
    ----------
    count : int
        Number of holes.
    area, perimeter : float
        Open area and perimeter of one hole. [m²], [m]
    thickness : float
        Of the plate. [m]

    Raises
    ------
    OutOfRangeError
        If a parameter is not finite and positive.

    References
    ----------
    .. [1] Z. Dagan, S. Weinbaum, R. Pfeffer, An infinite-series solution for the creeping motion
       through an orifice of finite length, J. Fluid Mech. 115 (1982) 505–523.
    """
    require_positive(count=count, area=area, perimeter=perimeter, thickness=thickness)
    radius = 2 * area / perimeter
    equivalent_count = count * area / (pi * radius**2)
    a = (3 + 8 * thickness / (pi * radius)) / (equivalent_count * radius**3)
    b = thick_edged_loss_coefficient(thickness / (2 * radius)) / (2 * (count * area) ** 2)
    return Restriction(a, b)


def round_hole_restriction(*, count: int, diameter: FloatOrArray, thickness: FloatOrArray) -> Restriction:
    """Return the restriction of equal round holes of a diameter [m] in a plate of a thickness [m]."""
    return hole_restriction(count=count, area=pi * diameter**2 / 4, perimeter=pi * diameter, thickness=thickness)


def bore_restriction(*, diameter: FloatOrArray, length: FloatOrArray) -> Restriction:
    """Return the restriction of a bore such as the hollow stud: Poiseuille, and 1.5 velocity heads.

    Parameters
    ----------
    diameter, length : float
        Of the bore. [m]
    """
    require_positive(diameter=diameter, length=length)
    radius = diameter / 2
    return Restriction(8 * length / (pi * radius**4), 1.5 / (2 * (pi * radius**2) ** 2))


def anti_drain_restriction(*, lip_diameter: FloatOrArray, lift: FloatOrArray) -> Restriction:
    """Return the restriction of the curtain under the lifted anti-drainback valve.

    Viscous: a plane gap of 1 mm length; inertial: a thick-edged orifice of the curtain's area.

    Parameters
    ----------
    lip_diameter, lift : float
        Of the valve. [m]
    """
    require_positive(lip_diameter=lip_diameter, lift=lift)
    circumference = pi * lip_diameter
    a = 12 * ANTI_DRAIN_LAND / (circumference * lift**3)
    b = thick_edged_loss_coefficient(ANTI_DRAIN_LAND / (2 * lift)) / (2 * (circumference * lift) ** 2)
    return Restriction(a, b)


def turn_restriction(*, angle: float, area: FloatOrArray) -> Restriction:
    """Return the inertial loss of a turn by `angle` [degrees] referred to a flow area [m²].

    K = 1.1·(angle/90°)², a sharp mitre bend.
    """
    require_positive(area=area)
    return Restriction(0.0, 1.1 * (angle / 90) ** 2 / (2 * area**2))


def stated_loss_restriction(
    *,
    differential_pressure: float,
    flow_rate: float,
    viscous_share: FloatOrArray,
    dynamic_viscosity: FloatOrArray,
    density: float,
) -> Restriction:
    """Return the restriction of a part of which one loss at one flow is stated.

    Parameters
    ----------
    differential_pressure : float
        Stated loss. [Pa]
    flow_rate : float
        At which it is stated. [m³/s]
    viscous_share : float
        Share of the loss that is viscous, 0 to 1.
    dynamic_viscosity, density : float
        Of the oil there. [Pa s], [kg/m³]
    """
    require_positive(
        differential_pressure=differential_pressure,
        flow_rate=flow_rate,
        dynamic_viscosity=dynamic_viscosity,
        density=density,
    )
    return Restriction(
        viscous_share * differential_pressure / (dynamic_viscosity * flow_rate),
        (1 - viscous_share) * differential_pressure / (density * flow_rate**2),
    )


def flow_through(restriction: Restriction, pressure: float, dynamic_viscosity: float, density: float) -> Any:
    """Return the flow rate [m³/s] that a pressure [Pa] drives through a restriction."""
    viscous = restriction.a * dynamic_viscosity
    return 2 * pressure / (viscous + np.sqrt(viscous**2 + 4 * restriction.b * density * pressure))

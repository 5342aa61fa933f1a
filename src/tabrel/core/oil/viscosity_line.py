"""The viscosity line of an oil as it is drawn and read off."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from tabrel.core.oil.model import OilModel, is_high_shear, lubricant_density, oil_model
from tabrel.core.study.model import Oil, ViscosityPoint

FloatArray = NDArray[np.float64]

LINE_TEMPERATURES = np.arange(-50.0, 160.25, 0.5)
"""At which the line is drawn and read. [°C]"""


@dataclass(frozen=True)
class LinePoint:
    """A point in both kinds of viscosity: [°C], [m²/s], [Pa s]; and as it was stated."""

    stated: ViscosityPoint
    temperature: float
    kinematic: float
    dynamic: float
    is_dynamic: bool
    high_shear: bool


@dataclass(frozen=True)
class OilLine:
    """An oil over temperature.

    Attributes
    ----------
    temperature : ndarray, shape (n,)
        [°C]
    kinematic, dynamic, density : ndarray, shape (n,)
        [m²/s], [Pa s], [kg/m³]
    points : tuple of LinePoint
        As stated, by rising temperature; beyond the first and the last the line is only extended.
    coldest_pumping : float
        Lowest temperature at which the oil pumps. [°C]
    viscosity : tuple of ViscosityPoint
        The points as they were given, in their own order.
    """

    temperature: FloatArray
    kinematic: FloatArray
    dynamic: FloatArray
    density: FloatArray
    points: tuple[LinePoint, ...]
    coldest_pumping: float
    viscosity: tuple[ViscosityPoint, ...]


def oil_line(oil: Oil) -> OilLine:
    """Return an oil as its line is drawn.

    Raises
    ------
    OutOfRangeError
        As `oil.oil_model`.
    """
    model: OilModel = oil_model(oil)
    points = []
    for point in sorted(oil.viscosity, key=lambda point: point.temperature_c):
        dynamic = float(model.dynamic_viscosity(point.temperature_c))
        kinematic = float(model.kinematic_viscosity(point.temperature_c))
        is_dynamic = point.dynamic_mpa_s is not None
        points.append(LinePoint(point, point.temperature_c, kinematic, dynamic, is_dynamic, is_high_shear(point)))
    return OilLine(
        temperature=LINE_TEMPERATURES,
        kinematic=model.kinematic_viscosity(LINE_TEMPERATURES),
        dynamic=model.dynamic_viscosity(LINE_TEMPERATURES),
        density=model.density(LINE_TEMPERATURES),
        points=tuple(points),
        coldest_pumping=model.coldest_pumping(-100.0),
        viscosity=oil.viscosity,
    )


def with_moved_point(oil: Oil, index: int, temperature: float, kinematic: float) -> Oil:
    """Return an oil one of whose points was moved on the line's axes; it stays in the kind of viscosity it was stated in.

    Parameters
    ----------
    oil : Oil
        As stated.
    index : int
        Of the point.
    temperature : float
        Where it now is. [°C]
    kinematic : float
        Where it now is. [m²/s]

    Examples
    --------
    >>> cold = Oil(850.0, (ViscosityPoint(100.0, 10.0), ViscosityPoint(-30.0, dynamic_mpa_s=6000.0)))
    >>> with_moved_point(cold, 1, 15.0, 200e-6).viscosity[1].dynamic_mpa_s
    170.0
    """
    stated = oil.viscosity[index]
    if stated.dynamic_mpa_s is None:
        moved = replace(stated, temperature_c=temperature, kinematic_mm2_s=float(f"{kinematic * 1e6:.3g}"))
    else:
        dynamic = kinematic * float(lubricant_density(oil.density_15c_kg_m3, temperature))
        moved = replace(stated, temperature_c=temperature, dynamic_mpa_s=float(f"{dynamic * 1e3:.3g}"))
    return replace(oil, viscosity=(*oil.viscosity[:index], moved, *oil.viscosity[index + 1 :]))

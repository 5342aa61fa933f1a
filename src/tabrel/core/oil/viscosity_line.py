"""The viscosity line of an oil as it is drawn and read off."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.oil.model import OilModel, is_high_shear, oil_model
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
    """

    temperature: FloatArray
    kinematic: FloatArray
    dynamic: FloatArray
    density: FloatArray
    points: tuple[LinePoint, ...]
    coldest_pumping: float


def oil_line(oil: Oil) -> OilLine:
    """Return an oil as its line is drawn.

    Parameters
    ----------
    oil : Oil
        As stated.

    Returns
    -------
    OilLine

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
    )

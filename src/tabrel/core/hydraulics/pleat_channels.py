"""Loss in the channels between the pleats, and along the can beside the element."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.integrate import simpson

from tabrel.core.errors import require_positive
from tabrel.core.uncertainty.sampled_number import FloatOrArray

LARGEST_PACK_SHARE = 0.95
"""A crowded pack counts as pressed until 5 % of the inside circumference is open."""

SMALLEST_GAP = 0.2e-3
"""What the fibres of two touching faces leave open between them. [m]"""

_POINTS = 4001
_POINTS_OF_DRAWS = 401
"""The step in the gap's floor then costs less than a thousandth, which no draw notices."""


@dataclass(frozen=True)
class PleatPack:
    """The pleat pack seen end-on.

    Attributes
    ----------
    outside_diameter, inside_diameter : float, or draws of it
        Of the element. [m]
    count : float, or a column of several
        Number of pleats.
    depth : float, or draws of it
        Of a pleat, radially. [m]
    pack : float, or draws of it
        Thickness of media with its backing. [m]
    """

    outside_diameter: FloatOrArray
    inside_diameter: FloatOrArray
    count: FloatOrArray
    depth: FloatOrArray
    pack: FloatOrArray

    def __post_init__(self) -> None:
        """Refuse dimensions that are not positive."""
        require_positive(
            outside_diameter=self.outside_diameter,
            inside_diameter=self.inside_diameter,
            count=self.count,
            depth=self.depth,
            pack=self.pack,
        )

    def stations(self) -> NDArray[np.float64]:
        """Return the integration points s [m], inward from the outside."""
        sizes = (self.outside_diameter, self.inside_diameter, self.depth, self.pack)
        points = _POINTS_OF_DRAWS if any(np.ndim(size) for size in sizes) else _POINTS
        return np.asarray(self.depth * np.linspace(0.0, 1.0, points))

    def gaps(self) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Return the upstream and downstream gap heights [m] at the stations."""
        s = self.stations()
        pack = np.minimum(self.pack, LARGEST_PACK_SHARE * pi * self.inside_diameter / (2 * self.count))
        innermost = pi * self.inside_diameter / self.count - 2 * pack
        g = np.maximum(2 * pi * (self.outside_diameter / 2 - s) / self.count - 2 * pack, innermost)
        floor = np.minimum(SMALLEST_GAP, g / 2)
        return np.maximum(g * (1 - s / self.depth), floor), np.maximum(g * s / self.depth, floor)


def pleat_channel_coefficient(pack: PleatPack, *, effective_media_area: FloatOrArray) -> Any:
    """Return the viscous coefficient of the flow in V-shaped pleat channels. [1/m³]

    Plane flow between the faces of a fold with uniform face velocity: half the media area feeds a
    channel whose flow falls off along its depth while its gap closes.

    Parameters
    ----------
    pack : PleatPack
        Geometry.
    effective_media_area : float, or draws of it
        One face. [m²]

    Returns
    -------
    float, or draws of it
        `a` of Δp = a·μ·Q.
    """
    require_positive(effective_media_area=effective_media_area)
    s = pack.stations()
    upstream, downstream = pack.gaps()
    integral = _integral((pack.depth - s) ** 2 / upstream**3 + s**2 / downstream**3, s)
    return 24 / (pack.depth * effective_media_area) * integral


def can_annulus_coefficient(pack: PleatPack, *, clearance: FloatOrArray, height: FloatOrArray) -> Any:
    """Return the viscous coefficient of the way along the element, between it and the can. [1/m³]

    Parameters
    ----------
    pack : PleatPack
        Geometry; the upstream gaps carry flow along the element too.
    clearance : float, or draws of it
        Between element and can, at least zero. [m]
    height : float, or draws of it
        Of the media between the end caps. [m]

    Returns
    -------
    float, or draws of it
        `a` of Δp = a·μ·Q for flow along the whole height.
    """
    require_positive(height=height)
    s = pack.stations()
    folds = pack.count * _integral(pack.gaps()[0] ** 3, s)
    return 12 * height / (pi * pack.outside_diameter * np.maximum(clearance, 0.0) ** 3 + folds)


def _integral(values: NDArray[np.float64], stations: NDArray[np.float64]) -> Any:
    """Return the integral along the last axis: a float, or for draws a column."""
    found = simpson(values, x=np.broadcast_to(stations, values.shape), axis=-1)
    return float(found) if values.ndim == 1 else found[:, None]

"""Loss in the channels between the pleats, and along the can beside the element."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache
from math import pi
from typing import Any

import numpy as np
from numpy.typing import NDArray

from tabrel.core.errors import require_positive
from tabrel.core.uncertainty.sampled_number import FloatOrArray

LARGEST_PACK_SHARE = 0.95
"""A crowded pack counts as pressed until 5 % of the inside circumference is open."""

SMALLEST_GAP = 0.2e-3
"""Gap that the fibres of two touching faces leave between them. [m]"""

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

    @cached_property
    def along(self) -> NDArray[np.float64]:
        """The integration points, from 0 at the outside to 1 at the inside of a pleat."""
        sizes = (self.outside_diameter, self.inside_diameter, self.depth, self.pack)
        return np.linspace(0.0, 1.0, _POINTS_OF_DRAWS if any(np.ndim(size) for size in sizes) else _POINTS)

    @cached_property
    def gaps(self) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """The upstream and downstream gap heights along a pleat. [m]"""
        pack = np.minimum(self.pack, LARGEST_PACK_SHARE * pi * self.inside_diameter / (2 * self.count))
        innermost = pi * self.inside_diameter / self.count - 2 * pack
        outermost = pi * self.outside_diameter / self.count - 2 * pack
        g = np.maximum(outermost - 2 * pi * self.depth / self.count * self.along, innermost)
        floor = np.minimum(SMALLEST_GAP, g / 2)
        downstream = g * self.along
        return np.maximum(g - downstream, floor), np.maximum(downstream, floor)

    def integral(self, values: NDArray[np.float64]) -> Any:
        """Return the integral of what is given along a pleat over its depth: a float, or for draws a column."""
        array = values @ _simpson(values.shape[-1])
        return self.depth * (float(array) if values.ndim == 1 else array[:, None])


@lru_cache(maxsize=2)
def _simpson(points: int) -> NDArray[np.float64]:
    """Return the weights of Simpson's rule from 0 to 1, for an odd number of points."""
    weights = np.full(points, 2.0)
    weights[1::2], weights[[0, -1]] = 4.0, 1.0
    return np.asarray(weights / weights.sum())


def _cube(values: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return the third power, which NumPy's own takes many times as long for."""
    return values * values * values


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
    upstream, downstream = pack.gaps
    integral = pack.integral((1 - pack.along) ** 2 / _cube(upstream) + pack.along**2 / _cube(downstream))
    return 24 * pack.depth / effective_media_area * integral


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
    folds = pack.count * pack.integral(_cube(pack.gaps[0]))
    return 12 * height / (pi * pack.outside_diameter * np.maximum(clearance, 0.0) ** 3 + folds)

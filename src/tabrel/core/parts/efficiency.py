"""Micron efficiency: from a published claim, or as a screening estimate from dimensions.

Sizes are µm(c) after ISO 11171 inside this module, in micrometres; efficiency is a fraction,
E = 1 − 1/β.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import exp, hypot, log, pi, sqrt

import numpy as np
import scipy
from numpy.typing import NDArray

from tabrel.core.errors import OutOfRangeError, require_positive
from tabrel.core.numbers import bound
from tabrel.core.study.model import Claim
from tabrel.core.uncertainty.propagation import Result

FloatArray = NDArray[np.float64]

REFERENCE_SIZE = 20.0
REFERENCE_BETA = 75.0
LEAST_SLOPE, STEEPEST_SLOPE = 2.0, 6.0
"""Range of the slope of ln(β − 1) over ln x among engine oil filters."""

SCALE_B_TO_C = 0.898
"""µm(c) in one µm(b)."""

# ISO 4402 (ACFTD) to ISO 11171 sizes
_OLD_SIZES = (1, 2, 3, 5, 7, 10, 12, 15, 20, 25, 30, 40)
_NEW_SIZES = (4.2, 4.6, 5.1, 6.4, 7.7, 9.8, 11.3, 13.6, 17.5, 21.2, 24.9, 31.7)


def size_in_um_c(size: float, scale: str) -> float:
    """Return a particle size on the ISO 11171 scale. [µm(c)]

    Parameters
    ----------
    size : float
        In micrometres on `scale`.
    scale : str
        ``um(c)``, ``um(b)`` or ``um`` (ISO 4402; linear between the tabulated sizes).

    Raises
    ------
    OutOfRangeError
        If a size on the old scale lies outside its table.

    Examples
    --------
    >>> size_in_um_c(25, "um"), round(size_in_um_c(10, "um(b)"), 2)
    (21.2, 8.98)
    """
    require_positive(size=size)
    if scale == "um(c)":
        return size
    if scale == "um(b)":
        return SCALE_B_TO_C * size
    if not _OLD_SIZES[0] <= size <= _OLD_SIZES[-1]:
        raise OutOfRangeError(f"{size:g} µm lies outside the ISO 4402 scale, which runs from 1 to 40 µm")
    return float(np.interp(size, _OLD_SIZES, _NEW_SIZES))


def old_scale_neighbours(size: float) -> tuple[float, float, float, float]:
    """Return the tabulated sizes around one on the ISO 4402 scale: two on it, and the same two in µm(c).

    Examples
    --------
    >>> old_scale_neighbours(22)
    (20.0, 25.0, 17.5, 21.2)
    """
    k = int(np.clip(np.searchsorted(_OLD_SIZES, size, side="right") - 1, 0, len(_OLD_SIZES) - 2))
    return float(_OLD_SIZES[k]), float(_OLD_SIZES[k + 1]), _NEW_SIZES[k], _NEW_SIZES[k + 1]


def possible_sizes(size: float, scale: str) -> tuple[float, ...]:
    """Return what a stated particle size may be on the ISO 11171 scale. [µm(c)]

    A size of which the scale is not named is never converted in silence: it may be plain µm (ISO 4402) or
    µm(c), and both stand.

    Parameters
    ----------
    size : float
        In micrometres on `scale`.
    scale : str
        As `size_in_um_c`, or ``unnamed``.

    Returns
    -------
    tuple of float
        The smaller first; one where the scale is named.

    Raises
    ------
    OutOfRangeError
        If a size on the old scale lies outside its table; of an unnamed one µm(c) is then left.

    Examples
    --------
    >>> possible_sizes(20, "unnamed"), possible_sizes(20, "um(c)"), possible_sizes(60, "unnamed")
    ((17.5, 20), (20,), (60,))
    """
    if scale != "unnamed":
        return (size_in_um_c(size, scale),)
    require_positive(size=size)
    if not _OLD_SIZES[0] <= size <= _OLD_SIZES[-1]:
        return (size,)
    return tuple(sorted({size_in_um_c(size, "um"), size}))


@dataclass(frozen=True)
class ClaimedPoint:
    """A claim that can be computed with: relation, filtration ratio, what its size may be in µm(c), and the claim itself."""

    relation: str
    beta: float
    sizes: tuple[float, ...]
    claim: Claim

    @property
    def size(self) -> float:
        """The size, or the middle of what it may be where its scale is not named. [µm(c)]"""
        return sum(self.sizes) / len(self.sizes)

    @property
    def assumed(self) -> tuple[str, ...]:
        """Assumptions about the claim: the scale of its size, if none is named; that it is made for this filter too."""
        scale = ("claims.scale",) if self.claim.scale == "unnamed" else ()
        return (*scale, "claims") if self.claim.copied_from else scale

    def beta_range(self, size: float) -> tuple[float, float]:
        """Return the least and the greatest β at a size over the slopes an engine filter may have."""
        ends = [1 + (self.beta - 1) * (size / own) ** slope for own in self.sizes for slope in (LEAST_SLOPE, STEEPEST_SLOPE)]
        return min(ends), max(ends)

    def size_range(self, beta: float) -> tuple[float, float]:
        """Return the least and the greatest size at which a β is reached, over the same slopes."""
        ratio = (beta - 1) / (self.beta - 1)
        ends = [own * ratio ** (1 / slope) for own in self.sizes for slope in (LEAST_SLOPE, STEEPEST_SLOPE)]
        return min(ends), max(ends)


def usable_claim(claims: Sequence[Claim]) -> ClaimedPoint | None:
    """Return the first efficiency claim that states a size and is not stale, or None.

    A claim with a size range or without a size stays in the record and is not computed with.
    """
    for claim in claims:
        if claim.efficiency_percent is None or claim.size_um is None or claim.scale is None or claim.stale is not None:
            continue
        try:
            sizes = possible_sizes(claim.size_um, claim.scale)
        except OutOfRangeError:
            continue
        return ClaimedPoint(claim.relation or "=", 1 / (1 - claim.efficiency_percent / 100), sizes, claim)
    return None


def efficiency_from_claim(claim: ClaimedPoint, size: float = REFERENCE_SIZE) -> Result:
    """Return the efficiency at a size [µm(c)] that a claim allows. [-]

    At the claim's own size a point gives a value; elsewhere only an envelope. A bound gives a limit on
    its own side and never on the other.
    """
    low, high = (1 - 1 / beta for beta in claim.beta_range(size))
    words = None if claim.sizes == (size,) else _as_claimed(claim, size, low, high)
    known = Result(None, relation=claim.relation, basis="claim", assumed=claim.assumed, words=words)
    if claim.relation in (">=", ">"):
        return replace(known, low=low)
    if claim.relation in ("<=", "<"):
        return replace(known, high=high)
    value = 1 - 1 / claim.beta if claim.sizes == (size,) else None
    return replace(known, value=value, low=low, high=high)


def _as_claimed(claim: ClaimedPoint, size: float, low: float, high: float) -> str:
    """Return a claim as it was made, and what it would come to at another size [µm(c)] over the usual slopes.

    Examples
    --------
    >>> made = Claim("efficiency", "box", ">=", 97, 25, "um(c)")
    >>> efficiency_from_claim(usable_claim([made])).words
    '≥ 97 % at 25 µm(c) claimed; at 20 µm(c) not stated (≥ 89.4 % if the curve is no steeper than usual)'
    """
    sign = {">=": "≥ ", "<=": "≤ ", "=": ""}.get(claim.relation, f"{claim.relation} ")
    percent, stated = claim.claim.efficiency_percent or 0.0, claim.claim.size_um or 0.0
    unit = {"um(c)": "µm(c)", "um(b)": "µm(b)", "um": "µm (ISO 4402)"}.get(claim.claim.scale or "", "µm, scale not named,")
    made = f"{sign}{percent:.10g} % at {stated:.10g} {unit} claimed; at {size:.10g} µm(c) not stated"
    if claim.relation == "=":
        return f"{made} ({bound(100 * low, 3, 'lower')} to {bound(100 * high, 3, 'upper')} % over the usual slopes)"
    end = f"≥ {bound(100 * low, 3, 'lower')}" if claim.relation in (">=", ">") else f"≤ {bound(100 * high, 3, 'upper')}"
    steep = (size < claim.size) == (claim.relation in (">=", ">"))
    return f"{made} ({end} % if the curve is no {'steeper' if steep else 'flatter'} than usual)"


_TURNED = {">=": "<=", ">": "<", "<=": ">=", "<": ">"}


def size_from_claim(claim: ClaimedPoint, beta: float = REFERENCE_BETA) -> Result:
    """Return the size at which a β is reached that a claim allows. [µm(c)]"""
    low, high = claim.size_range(beta)
    relation = _TURNED.get(claim.relation, "=")
    known = Result(None, relation=relation, basis="claim", assumed=claim.assumed)
    if relation in ("<=", "<"):
        return replace(known, high=high)
    if relation in (">=", ">"):
        return replace(known, low=low)
    value = claim.sizes[0] if beta == claim.beta and len(claim.sizes) == 1 else None
    return replace(known, value=value, low=low, high=high)


@dataclass(frozen=True)
class ScreeningMedium:
    """Media dimensions for the screening estimate.

    Attributes
    ----------
    fibre_diameter : float
        [µm]
    solidity : float
        0 to 1.
    thickness : float
        [µm]
    inhomogeneity : float
        γ.
    assumed : tuple of str
        What came from the family's defaults.
    depth_uncertainty : float
        Expanded, relative, of what thickness and solidity make of ln(1/(1 − E)). [-]
    """

    fibre_diameter: float
    solidity: float
    thickness: float
    inhomogeneity: float
    assumed: tuple[str, ...] = ()
    depth_uncertainty: float = 0.0

    def largest_valid_size(self) -> float:
        """Return the particle size beyond which the pores themselves are smaller. [µm(c)]"""
        return float((self.solidity**-0.5 - 1) * self.fibre_diameter)


def screening_efficiency(medium: ScreeningMedium, size: float) -> float:
    """Return the efficiency of a fibrous medium by interception alone. [-]

    Single-fibre interception with Kuwabara's flow field, E = 1 − exp(−4αηγt/(π·d_f·(1−α))) [1]_.

    Parameters
    ----------
    medium : ScreeningMedium
        Dimensions.
    size : float
        Particle size. [µm(c)]

    References
    ----------
    .. [1] R. C. Brown, Air Filtration, Pergamon, 1993, chapters 3 and 4.
    """
    require_positive(size=size)
    alpha = medium.solidity
    if not 0 < alpha < 1:
        raise OutOfRangeError(f"solidity must lie between 0 and 1, got {alpha!r}")
    return 1 - exp(-float(interception(size / medium.fibre_diameter)) * _depth(medium))


def _depth(medium: ScreeningMedium) -> float:
    """Return −ln of what passes, for a flow of interception of one."""
    alpha = medium.solidity
    kuwabara = -0.5 * log(alpha) - 0.75 + alpha - alpha**2 / 4
    fibres = 4 * alpha * medium.inhomogeneity * medium.thickness / (pi * medium.fibre_diameter * (1 - alpha))
    return fibres / (2 * kuwabara)


def slope_of_solidity(medium: ScreeningMedium) -> float:
    """Return d ln(depth)/d ln(solidity), by a central difference. [-]"""
    step = 1e-5
    ends = [log(_depth(replace(medium, solidity=medium.solidity * exp(way * step)))) for way in (-1, 1)]
    return (ends[1] - ends[0]) / (2 * step)


def _size_factor(medium: ScreeningMedium, size: float) -> float:
    """Return the band of the estimate as a factor in size: two, and what the uncertainty of the depth is worth in size."""
    ratio = size / medium.fibre_diameter
    slope = ratio * (2 * log(1 + ratio) + 1 - (1 + ratio) ** -2) / float(interception(ratio))
    return exp(hypot(log(2), medium.depth_uncertainty / slope))


def interception(ratio: FloatArray | float) -> FloatArray:
    """Return the flow that passes within a particle's radius of a fibre, by the ratio of their diameters; times 2·Ku.

    By its series 2·R² − … where rounding would eat it.
    """
    exact = 2 * (1 + ratio) * np.log1p(ratio) - (1 + ratio) + 1 / (1 + ratio)
    return np.where(np.asarray(ratio) < 1e-3, 2 * ratio**2 - 4 / 3 * ratio**3, exact)


def _ratio_of_interception(flow: float) -> float:
    """Return the ratio of diameters of a flow of interception, which rises ever more steeply: Newton's method, from 2·R²."""
    ratio = sqrt(flow / 2)
    for _ in range(60):
        step = (float(interception(ratio)) - flow) / (2 * log(1 + ratio) + 1 - (1 + ratio) ** -2)
        ratio -= step
        if abs(step) <= 1e-13 * ratio:
            break
    return ratio


FINEST_FIBRE, COARSEST_FIBRE = 0.01, 1000.0  # µm


def fibre_for_efficiency(medium: ScreeningMedium, size: float, efficiency: float) -> float | None:
    """Return the fibre diameter at which the screening estimate reaches an efficiency, thickness and solidity kept. [µm]

    Parameters
    ----------
    medium : ScreeningMedium
        Its own fibre diameter does not matter.
    size : float
        [µm(c)]
    efficiency : float
        Between 0 and 1.

    Returns
    -------
    float or None
        None where no fibre from 0.01 µm to 1 mm does.
    """

    def short(log_fibre: float) -> float:
        return screening_efficiency(replace(medium, fibre_diameter=exp(log_fibre)), size) - efficiency

    ends = log(FINEST_FIBRE), log(COARSEST_FIBRE)
    if not 0 < efficiency < 1 or short(ends[0]) < 0 or short(ends[1]) > 0:
        return None
    return exp(scipy.optimize.brentq(short, *ends, xtol=1e-12))


def screening_estimate(medium: ScreeningMedium, size: float = REFERENCE_SIZE) -> Result:
    """Return the screening estimate at a size with its band: the curve a factor of two in size either way, and a little more. [-]

    The uncertainty of thickness and solidity adds to the factor in quadrature.
    """
    factor = _size_factor(medium, size)
    return Result(
        value=screening_efficiency(medium, size),
        low=screening_efficiency(medium, size / factor),
        high=screening_efficiency(medium, factor * size),
        basis="estimate",
        assumed=medium.assumed,
    )


def screening_size(medium: ScreeningMedium, beta: float = REFERENCE_BETA) -> Result:
    """Return the size at which the screening estimate reaches a β, with its band. [µm(c)]"""
    size = medium.fibre_diameter * _ratio_of_interception(log(beta) / _depth(medium))
    factor = _size_factor(medium, size)
    return Result(value=size, low=size / factor, high=factor * size, basis="estimate", assumed=medium.assumed)

"""How the loss of the element would change with its number of pleats, in the same can."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import ceil, floor, pi

import numpy as np
from numpy.typing import NDArray

from tabrel.core.hydraulics.pleat_channels import LARGEST_PACK_SHARE, PleatPack, pleat_channel_coefficient
from tabrel.core.parts.media import media_area_number
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.sampled_number import nominal_value

_LEAST_SHARE = 0.2
"""Fewest pleats of the curve, as a share of this filter's."""

_MOST_POINTS = 200
_MOST_PLEATS = 5000  # more than any can holds: a count or a thickness slipped


@dataclass(frozen=True)
class PleatCountCurve:
    """Viscous loss against the number of pleats, in multiples of this filter's.

    Attributes
    ----------
    counts : tuple of int
        Numbers of pleats.
    media, channels : tuple of float
        Parts of the loss that media and pleat channels take.
    count : float
        This filter's.
    optimum : int
        Number of pleats with the least loss.
    least_loss : float
        There, in multiples of this filter's.
    largest_count : int
        Number at which 5 % of the inside is still open: no more can be put in.
    """

    counts: tuple[int, ...]
    media: tuple[float, ...]
    channels: tuple[float, ...]
    count: float
    optimum: int
    least_loss: float
    largest_count: int


@lru_cache(maxsize=32)  # the same pack again and again while other readings are typed
def _channels_of_a_square_metre(
    outside: float, inside: float, depth: float, pack: float, numbers: tuple[float, ...]
) -> NDArray[np.float64]:
    """Return the coefficient of the channels at several numbers of pleats, for a square metre of media. [1/m]"""
    packs = PleatPack(outside, inside, np.array(numbers)[:, None], depth, pack)
    return np.asarray(pleat_channel_coefficient(packs, effective_media_area=1.0))[:, 0]


def pleat_count_curve(measured: MeasuredSample) -> PleatCountCurve | None:
    """Return the curve, or None while the element, its media or the permeability are not known or cannot be.

    Every pleat brings the same media area as this filter's do on average; the channels between
    them grow narrower, and their loss with the third power of the gap.

    """
    known = {key: float(nominal_value(number)) for key, number in measured.known.items()}
    area_number, depth_number = media_area_number(measured.strip), measured.strip.pleat_depth()
    permeability = measured.permeability.result.value
    needed = ("element.outside_diameter", "element.inside_diameter", "element.pleat_count", "media.thickness")
    if area_number is None or depth_number is None or not permeability or any(key not in known for key in needed):
        return None
    outside, inside, count, thickness = (known[key] for key in needed)
    area, depth = float(nominal_value(area_number)), float(nominal_value(depth_number))
    pack = thickness + known.get("media.backing_thickness", 0.0)
    largest = max(floor(LARGEST_PACK_SHARE * pi * inside / (2 * pack)), 1)
    if not (area > 0 and depth > 0 and inside < outside and max(largest, count) <= _MOST_PLEATS):
        return None
    area_of_one = area / count

    def losses(numbers: Sequence[float]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        of_numbers = np.array(numbers) * area_of_one
        channels = _channels_of_a_square_metre(outside, inside, depth, pack, tuple(numbers)) / of_numbers
        return thickness / (permeability * of_numbers), channels

    def total(numbers: Sequence[float]) -> NDArray[np.float64]:
        media, channels = losses(numbers)
        return media + channels

    def least_of(numbers: Sequence[int]) -> tuple[int, float]:
        values = total(numbers)
        return numbers[int(np.argmin(values))], float(np.min(values))

    whole = float(total([count])[0])
    least = max(1, min(ceil(_LEAST_SHARE * count), largest))
    step = max(1, (max(largest, ceil(count)) - least) // _MOST_POINTS)
    counts = tuple(range(least, max(largest, ceil(count)) + 1, step))
    media, channels = losses(counts)
    rough, _ = least_of([number for number in counts if number <= largest])
    optimum, least_loss = least_of(range(max(1, rough - step), min(largest, rough + step) + 1))
    return PleatCountCurve(
        counts=counts,
        media=tuple((media / whole).tolist()),
        channels=tuple((channels / whole).tolist()),
        count=count,
        optimum=optimum,
        least_loss=least_loss / whole,
        largest_count=largest,
    )

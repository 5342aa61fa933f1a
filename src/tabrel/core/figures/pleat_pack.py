"""The pleat pack as it is drawn end-on: measured sizes, typical ones where nothing was measured."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi
from typing import Literal

from tabrel.core.field_units import Length, Share, SmallArea
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.sampled_number import nominal_value

TYPICAL: dict[str, float] = {
    "element.outside_diameter": 68e-3,
    "element.inside_diameter": 37e-3,
    "element.pleat_count": 50.0,
    "media.thickness": 0.75e-3,
}
"""Drawn dashed while they are not measured. [m]"""

OPENING_KEYS = ("element.inside_diameter", "element.pleat_count", "media.thickness")
LEAST_PLEAT_OPENING = 0.10
"""Below it the loss between the pleats is unreliable."""

MOST_DRAWN_PLEATS = 300
Crowding = Literal["enough", "crowded", "cannot_fit", "unknown"]


@dataclass(frozen=True)
class DrawnPack:
    """The pleat pack seen end-on.

    Attributes
    ----------
    outside_diameter, inside_diameter : float
        Of the element; the larger first, whichever way they were read.
    count : int
        Number of pleats.
    thickness : float
        Of media with backing.
    depth : float
        Of a pleat.
    can_inside_diameter : float or None
        As far as it was measured.
    measured : tuple of str
        Keys of what was measured of these.
    opening : float
        Share of the inside circumference that the pack leaves open.
    crowding : str
        ``enough``, ``crowded``, ``cannot_fit``; ``unknown`` while it depends on a typical size.
    tube_open_area : float or None
        Of all holes of the centre tube; None while one lacks its sizes.
    """

    outside_diameter: Length
    inside_diameter: Length
    count: int
    thickness: Length
    depth: Length
    can_inside_diameter: Length | None
    measured: tuple[str, ...]
    opening: Share
    crowding: Crowding
    tube_open_area: SmallArea | None


def pack_figure(measured: MeasuredSample) -> DrawnPack:
    """Return the pack as it is drawn; impossible readings still make a drawing."""
    known = {key: float(nominal_value(number)) for key, number in measured.known.items()}
    sizes = {key: known.get(key, typical) for key, typical in TYPICAL.items()}
    outside, inside = sizes["element.outside_diameter"], sizes["element.inside_diameter"]
    if "element.outside_diameter" not in known and outside <= inside:
        outside = inside / TYPICAL["element.inside_diameter"] * TYPICAL["element.outside_diameter"]
    if "element.inside_diameter" not in known and inside >= outside:
        inside = outside / TYPICAL["element.outside_diameter"] * TYPICAL["element.inside_diameter"]
    outside, inside = max(outside, inside), min(outside, inside)
    count = min(MOST_DRAWN_PLEATS, max(1, round(sizes["element.pleat_count"])))
    thickness = sizes["media.thickness"] + known.get("media.backing_thickness", 0.0)
    depth = min(known.get("element.pleat_depth", (outside - inside) / 2), outside / 2)
    tube, can = measured.centre_tube, measured.estimates.get("can.inside_diameter")
    opening = 1 - 2 * count * thickness / (pi * inside)
    return DrawnPack(
        outside_diameter=outside,
        inside_diameter=inside,
        count=count,
        thickness=thickness,
        depth=depth,
        can_inside_diameter=can.value if can else None,
        measured=tuple(key for key in TYPICAL if key in known),
        opening=opening,
        crowding=_crowding(opening) if all(key in known for key in OPENING_KEYS) else "unknown",
        tube_open_area=float(nominal_value(tube.area)) if tube.groups and not tube.missing else None,
    )


def _crowding(opening: float) -> Crowding:
    if opening <= 0:
        return "cannot_fit"
    return "crowded" if opening < LEAST_PLEAT_OPENING else "enough"

"""Sizes for the section through the whole filter: measured ones, typical ones where nothing was measured."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi

from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.sampled_number import nominal_value

TYPICAL: dict[str, float] = {
    "can.outside_diameter": 76e-3,
    "can.height": 98e-3,
    "can.wall_thickness": 0.45e-3,
    "gasket.outside_diameter": 71e-3,
    "gasket.inside_diameter": 62e-3,
    "gasket.thickness": 6e-3,
    "gasket.protrusion": 2.4e-3,
    "thread.major_diameter": 20e-3,
    "plate.thickness": 3e-3,
    "anti_drain.lip_diameter": 57e-3,
    "anti_drain.thickness": 1.3e-3,
    "anti_drain.lift": 2e-3,
    "element.outside_diameter": 68e-3,
    "element.inside_diameter": 37e-3,
    "element.height": 76e-3,
    "element.potting_depth": 2.5e-3,
    "element.spacer_height": 0.0,
    "tube.wall_thickness": 0.5e-3,
    "bypass.seat_inside_diameter": 13e-3,
    "bypass.seat_outside_diameter": 15e-3,
    "bypass.spring_installed_length": 15e-3,
    "bypass.spring_outside_diameter": 12e-3,
    "hole.diameter": 6e-3,
    "hole.circle_diameter": 42e-3,
}
"""Drawn dashed while they are not measured. [m]"""


@dataclass(frozen=True)
class SectionSizes:
    """Every size of the section.

    Attributes
    ----------
    size : dict
        By reading key; the can's inside follows from its wall where it was not measured; ``hole.diameter`` and
        ``hole.circle_diameter`` are those of the first inlet holes. [m]
    measured : frozenset of str
        Keys that were measured.
    has_can : bool
        Whether there is a can; a cartridge has none.
    """

    size: dict[str, float]
    measured: frozenset[str]
    has_can: bool

    def __getitem__(self, key: str) -> float:
        """Return a size. [m]"""
        return self.size[key]

    def guessed(self, *keys: str) -> bool:
        """Return whether one of the keys was not measured."""
        return not self.measured.issuperset(keys)


def section_sizes(measured: MeasuredSample) -> SectionSizes:
    """Return the sizes the section is drawn with.

    Typical sizes follow the measured ones where one gives the scale: an element is a little lower
    and narrower than its can, whichever of the two was measured.

    """
    known = {key: float(nominal_value(number)) for key, number in measured.known.items()}
    if "can.outside_diameter" not in known and "can.circumference" in known:
        known["can.outside_diameter"] = known["can.circumference"] / pi
    for groups in measured.inlet.sizes[:1]:
        across = groups.get("diameter", groups.get("width", groups.get("height")))
        if across is not None:
            known["hole.diameter"] = float(nominal_value(across))
    for _, diameter, was_measured in measured.plate.hole_circles[:1]:
        if was_measured:
            known["hole.circle_diameter"] = diameter
    size = dict(TYPICAL)
    width = _ratio(known, "can.outside_diameter", "element.outside_diameter")
    height = _ratio(known, "can.height", "element.height")
    for key in TYPICAL:
        if key in ("can.height", "element.height"):
            size[key] *= height
        elif key.endswith("diameter") and not key.startswith(("bypass.", "thread.", "hole.diameter")):
            size[key] *= width
    size |= {key: value for key, value in known.items() if key in TYPICAL}
    size["can.inside_diameter"] = known.get("can.inside_diameter", size["can.outside_diameter"] - 2 * size["can.wall_thickness"])
    states = measured.sample.states
    no_can = any(states.get(f"can.{name}") == "not_applicable" for name in ("height", "outside_diameter"))
    return SectionSizes(size, frozenset(known) & frozenset(size), not no_can)


def _ratio(known: dict[str, float], *keys: str) -> float:
    """Return measured over typical of the first key that was measured, else 1."""
    return next((known[key] / TYPICAL[key] for key in keys if key in known), 1.0)

"""The catalogue of everything that can be measured on a filter.

One row a quantity; it drives the fields, the checks, the instrument a reading is taken with and the
import of documents. Usual ranges are what engine oil filters of cars and vans show; a reading
outside is questioned, never refused.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tabrel.core.units import UNITS, Dimension

Instrument = Literal[
    "caliper", "micrometer", "tape", "scale", "force_gauge", "pressure_gauge", "permeability_tester", "microscope", "none"
]

PART_TITLES: dict[str, str] = {
    "filter": "Whole filter",
    "can": "Can",
    "gasket": "Gasket",
    "thread": "Thread",
    "plate": "Tapping plate",
    "anti_drain": "Anti-drain valve",
    "bypass": "Bypass valve",
    "seating": "Seating spring",
    "element": "Element",
    "tube": "Centre tube",
    "media": "Media",
    "hole": "Hole",
}


@dataclass(frozen=True)
class Quantity:
    """One measurable quantity.

    Attributes
    ----------
    key : str
        Reading key, ``part.name``.
    title : str
        What a person calls it.
    dimension : str
        What it measures.
    instrument : str
        What it is measured with unless stated otherwise; ``none`` means exact.
    metric_unit, inch_unit : str
        The unit a bare number takes in each family; both empty for a count.
    usual_low, usual_high : float
        Usual range, SI.
    zero_allowed : bool
        Whether zero is a value.
    """

    key: str
    title: str
    dimension: Dimension
    instrument: Instrument
    metric_unit: str
    inch_unit: str
    usual_low: float
    usual_high: float
    zero_allowed: bool

    @property
    def part(self) -> str:
        """Part of the filter the quantity belongs to."""
        return self.key.partition(".")[0]


_Kind = tuple[Dimension, Instrument, str, str]
_CALIPER: _Kind = ("length", "caliper", "mm", "in")
_MICROMETER: _Kind = ("length", "micrometer", "mm", "in")
_SCALE: _Kind = ("mass", "scale", "g", "oz")
_TAPE: _Kind = ("length", "tape", "mm", "in")
_COUNT: _Kind = ("count", "none", "", "")
_FORCE: _Kind = ("force", "force_gauge", "N", "lbf")
_PRESSURE: _Kind = ("pressure", "pressure_gauge", "kPa", "psi")

# key, title, (dimension, instrument, metric unit, inch unit), usual range in the metric unit, zero allowed
_Row = tuple[str, str, _Kind, tuple[float, float], bool]
_ROWS: tuple[_Row, ...] = (
    ("filter.mass", "mass, whole", _SCALE, (80, 2500), False),
    ("can.height", "height", _CALIPER, (40, 320), False),
    ("can.outside_diameter", "outside diameter", _CALIPER, (45, 150), False),
    ("can.circumference", "circumference", _TAPE, (140, 470), False),
    ("can.inside_diameter", "inside diameter", _CALIPER, (44, 149), False),
    ("can.wall_thickness", "wall thickness", _MICROMETER, (0.2, 1.2), False),
    ("can.mass", "mass", _SCALE, (20, 1000), False),
    ("gasket.outside_diameter", "outside diameter", _CALIPER, (40, 140), False),
    ("gasket.inside_diameter", "inside diameter", _CALIPER, (35, 130), False),
    ("gasket.thickness", "thickness", _CALIPER, (2, 12), False),
    ("gasket.protrusion", "height above the plate", _CALIPER, (0.5, 6), True),
    ("gasket.mass", "mass", _SCALE, (1, 60), False),
    ("thread.major_diameter", "major diameter", _CALIPER, (14, 40), False),
    ("thread.pitch", "pitch", _CALIPER, (0.8, 2.6), False),
    ("thread.turns", "turns", _COUNT, (2, 12), False),
    ("plate.thickness", "thickness", _CALIPER, (1, 6), False),
    ("plate.mass", "mass", _SCALE, (20, 500), False),
    ("plate.centre_hole_diameter", "centre hole diameter", _CALIPER, (13, 40), False),
    ("anti_drain.opening_pressure", "opening pressure", _PRESSURE, (0.2, 20), True),
    ("anti_drain.lift", "lift", _CALIPER, (0.3, 8), False),
    ("anti_drain.lip_diameter", "lip diameter", _CALIPER, (25, 100), False),
    ("anti_drain.thickness", "thickness", _MICROMETER, (0.5, 4), False),
    ("anti_drain.mass", "mass", _SCALE, (1, 40), False),
    ("bypass.seat_inside_diameter", "seat inside diameter", _CALIPER, (5, 35), False),
    ("bypass.seat_outside_diameter", "seat outside diameter", _CALIPER, (6, 40), False),
    ("bypass.spring_wire_diameter", "spring wire diameter", _MICROMETER, (0.4, 3), False),
    ("bypass.spring_outside_diameter", "spring outside diameter", _CALIPER, (5, 40), False),
    ("bypass.spring_total_coils", "spring coils, total", _COUNT, (2, 20), False),
    ("bypass.spring_dead_coils", "spring coils, dead", _COUNT, (0, 4), True),
    ("bypass.spring_free_length", "spring free length", _CALIPER, (6, 80), False),
    ("bypass.spring_installed_length", "spring installed length", _CALIPER, (4, 70), False),
    ("bypass.lift_limit", "lift limit", _CALIPER, (0.5, 12), False),
    ("bypass.opening_force", "push-off force", _FORCE, (2, 80), False),
    ("bypass.opening_pressure", "opening pressure on a bench", _PRESSURE, (30, 450), False),
    ("bypass.mass", "mass", _SCALE, (2, 100), False),
    ("seating.spring_wire_diameter", "wire diameter", _MICROMETER, (0.5, 4), False),
    ("seating.spring_free_length", "free length", _CALIPER, (5, 80), False),
    ("seating.force", "force", _FORCE, (5, 400), False),
    ("seating.mass", "mass", _SCALE, (2, 100), False),
    ("element.outside_diameter", "outside diameter", _CALIPER, (35, 130), False),
    ("element.inside_diameter", "inside diameter", _CALIPER, (15, 70), False),
    ("element.height", "height", _CALIPER, (25, 280), False),
    ("element.mass", "mass", _SCALE, (15, 900), False),
    ("element.pleat_count", "pleat count", _COUNT, (15, 140), False),
    ("element.pleat_depth", "pleat depth", _CALIPER, (5, 40), False),
    ("element.potting_depth", "potting depth, one end", _CALIPER, (0.5, 8), True),
    ("element.spacer_height", "spacer height", _CALIPER, (1, 60), True),
    ("tube.inside_diameter", "inside diameter", _CALIPER, (14, 70), False),
    ("tube.wall_thickness", "wall thickness", _MICROMETER, (0.2, 3), False),
    ("media.strip_length", "strip length", _TAPE, (400, 6000), False),
    ("media.strip_width", "strip width", _CALIPER, (25, 260), False),
    ("media.thickness", "thickness", _MICROMETER, (0.25, 2), False),
    ("media.backing_thickness", "backing thickness", _MICROMETER, (0.05, 1), True),
    ("media.dry_mass", "dry mass", _SCALE, (4, 200), False),
    ("media.seam_overlap", "seam overlap", _CALIPER, (2, 30), True),
    ("media.blocked_pleats", "blocked pleats", _COUNT, (0, 30), True),
    ("media.blocked_area", "other blocked area", ("area", "none", "cm2", "in2"), (0.1, 300), True),
    ("media.fibre_diameter", "fibre diameter", ("length", "microscope", "um", "thou"), (1, 60), False),
    (
        "media.air_permeability",
        "air permeability",
        ("air_permeability", "permeability_tester", "L/m2/s", "cfm/ft2"),
        (20, 2000),
        False,
    ),
)

_HOLE_ROWS: tuple[_Row, ...] = (
    ("hole.diameter", "diameter", _CALIPER, (1, 20), False),
    ("hole.length", "overall length", _CALIPER, (1, 40), False),
    ("hole.width", "width", _CALIPER, (0.2, 25), False),
    ("hole.height", "height from the flat", _CALIPER, (1, 20), False),
    ("hole.corner_radius", "corner radius", _CALIPER, (0.1, 10), True),
)


def _catalogue(rows: tuple[_Row, ...]) -> dict[str, Quantity]:
    catalogue = {}
    for key, title, (dimension, instrument, metric, inch), (low, high), zero in rows:
        factor = UNITS[metric].factor if metric else 1.0
        catalogue[key] = Quantity(
            key,
            title,
            dimension,
            instrument,
            metric,
            inch,
            low * factor,
            high * factor,
            zero,
        )
    return catalogue


QUANTITIES: dict[str, Quantity] = _catalogue(_ROWS)
HOLE_QUANTITIES: dict[str, Quantity] = {key.removeprefix("hole."): quantity for key, quantity in _catalogue(_HOLE_ROWS).items()}

"""The catalogue of everything that can be measured on a filter.

One row a quantity; it drives the fields and their order, the checks, the instrument a reading is
taken with, the search, the dimension lit up in a drawing, the list before the cut, and the import of
documents. Usual ranges are what engine oil filters of cars and vans show; a reading outside is
questioned, never refused.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tabrel.core.catalogue.units import UNITS, Dimension, UnitFamily
from tabrel.core.study.model import Instrument

Stage = Literal["outside", "opened", "element", "media"]
Placement = Literal["inlet", "centre_tube"]
Drawing = Literal["plate", "section", "pack", "strip", "valve", "none"]

STAGE_TITLES: dict[Stage, str] = {"outside": "Outside", "opened": "Opened", "element": "Element", "media": "Media"}

INSTRUMENT_DIMENSIONS: dict[Instrument, tuple[Dimension, ...]] = {
    "caliper": ("length",),
    "micrometer": ("length",),
    "tape": ("length",),
    "microscope": ("length",),
    "scale": ("mass",),
    "force_gauge": ("force",),
    "pressure_gauge": ("pressure",),
    "permeability_tester": ("air_permeability",),
    "none": ("area", "count"),
}
"""Dimensions that each instrument can measure."""

PART_TITLES: dict[str, str] = {
    "filter": "Whole filter",
    "can": "Can",
    "gasket": "Gasket",
    "thread": "Thread",
    "plate": "Tapping plate",
    "anti_drain": "Anti-drainback valve",
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
    stage : str
        When in the work it is measured.
    drawing : str
        The picture its dimension is drawn in; the key itself names the dimension.
    whole_only : bool
        Whether it can be measured only on the uncut filter.
    synonyms : tuple of str
        Other words people use for it.
    views : tuple of str
        What practitioners make of it, the default first; empty where they agree.
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
    stage: Stage
    drawing: Drawing = "none"
    whole_only: bool = False
    synonyms: tuple[str, ...] = ()
    views: tuple[str, ...] = ()

    @property
    def part(self) -> str:
        """Part of the filter the quantity belongs to."""
        return self.key.partition(".")[0]

    def unit(self, family: UnitFamily) -> str:
        """Return the unit a bare number takes in a family; empty for a count."""
        return self.metric_unit if family == "metric" else self.inch_unit


_Kind = tuple[Dimension, Instrument, str, str]
_CALIPER: _Kind = ("length", "caliper", "mm", "in")
_MICROMETER: _Kind = ("length", "micrometer", "mm", "in")
_SCALE: _Kind = ("mass", "scale", "g", "oz")
_TAPE: _Kind = ("length", "tape", "mm", "in")
_COUNT: _Kind = ("count", "none", "", "")
_FORCE: _Kind = ("force", "force_gauge", "N", "lbf")
_PRESSURE: _Kind = ("pressure", "pressure_gauge", "kPa", "psi")
_AREA: _Kind = ("area", "none", "cm2", "in2")
_MICROSCOPE: _Kind = ("length", "microscope", "um", "thou")
_AIR: _Kind = ("air_permeability", "permeability_tester", "L/m2/s", "cfm/ft2")

ZERO = "zero"
WHOLE_ONLY = "whole only"

# title, key, kind (dimension, instrument, metric unit, inch unit), usual range in the metric unit,
# drawing, marks (zero is a value; only on the whole filter), other words
_Row = tuple[str, str, _Kind, tuple[float, float], Drawing, tuple[str, ...], str]
_STAGES: dict[Stage, tuple[_Row, ...]] = {
    "outside": (
        ("mass, whole", "filter.mass", _SCALE, (80, 2500), "none", (WHOLE_ONLY,), "weight, total weight, heft"),
        ("height", "can.height", _CALIPER, (40, 320), "section", (WHOLE_ONLY,), "length, can length, canister height"),
        (
            "outside diameter",
            "can.outside_diameter",
            _CALIPER,
            (45, 150),
            "plate",
            (WHOLE_ONLY,),
            "OD, canister diameter, housing diameter, width",
        ),
        ("circumference", "can.circumference", _TAPE, (140, 470), "plate", (WHOLE_ONLY,), "girth, distance around"),
        ("dome height", "can.dome_height", _CALIPER, (0.5, 80), "none", (ZERO,), "crown height, rise of the closed end"),
        ("outside diameter", "gasket.outside_diameter", _CALIPER, (40, 140), "plate", (), "seal OD, o-ring diameter"),
        ("inside diameter", "gasket.inside_diameter", _CALIPER, (35, 130), "plate", (), "seal ID"),
        (
            "height above the plate",
            "gasket.protrusion",
            _CALIPER,
            (0.5, 6),
            "section",
            (ZERO, WHOLE_ONLY),
            "gasket stand-out, seal proud",
        ),
        ("thickness", "gasket.thickness", _CALIPER, (2, 12), "section", (), "seal thickness, gasket cord"),
        (
            "pull-out force",
            "gasket.pull_out_force",
            _FORCE,
            (0.5, 80),
            "none",
            (WHOLE_ONLY,),
            "gasket retention, pull-out effort",
        ),
        ("major diameter", "thread.major_diameter", _CALIPER, (14, 40), "plate", (), "thread size, thread diameter"),
        ("pitch", "thread.pitch", _CALIPER, (0.8, 2.6), "none", (), "threads per inch, tpi"),
        ("turns", "thread.turns", _COUNT, (2, 12), "none", (), "thread count, number of threads, engagement"),
        ("centre hole diameter", "plate.centre_hole_diameter", _CALIPER, (13, 40), "plate", (), "outlet hole, hub bore"),
        (
            "thickness",
            "plate.thickness",
            _CALIPER,
            (1, 6),
            "section",
            (),
            "base plate thickness, baseplate gauge, steel thickness",
        ),
        ("lip diameter", "anti_drain.lip_diameter", _CALIPER, (25, 100), "plate", (), "flapper diameter, drainback valve lip"),
        ("lift", "anti_drain.lift", _CALIPER, (0.3, 8), "section", (), "flapper lift, drainback gap"),
        (
            "opening pressure",
            "anti_drain.opening_pressure",
            _PRESSURE,
            (0.2, 20),
            "none",
            (ZERO, WHOLE_ONLY),
            "flapper pressure, drainback opening",
        ),
    ),
    "opened": (
        ("inside diameter", "can.inside_diameter", _CALIPER, (44, 149), "section", (), "canister ID, housing bore"),
        (
            "wall thickness",
            "can.wall_thickness",
            _MICROMETER,
            (0.2, 1.2),
            "section",
            (),
            "shell thickness, canister wall, steel gauge",
        ),
        ("wall at a fold", "can.fold_thickness", _MICROMETER, (0.2, 2.5), "section", (), "folded wall, crease"),
        ("wall at the seam", "can.seam_thickness", _MICROMETER, (0.4, 4), "section", (), "rolled seam, crimp thickness"),
        ("dome thickness", "can.dome_thickness", _MICROMETER, (0.2, 1.5), "section", (), "end thickness, top wall"),
        ("mass", "can.mass", _SCALE, (20, 1000), "none", (), "canister weight, shell weight"),
        ("mass", "gasket.mass", _SCALE, (1, 60), "none", (), ""),
        ("mass", "plate.mass", _SCALE, (20, 500), "none", (), ""),
        ("thickness", "anti_drain.thickness", _MICROMETER, (0.5, 4), "section", (), ""),
        ("mass", "anti_drain.mass", _SCALE, (1, 40), "none", (), ""),
        ("seat inside diameter", "bypass.seat_inside_diameter", _CALIPER, (5, 35), "valve", (), "valve port, relief valve bore"),
        ("seat outside diameter", "bypass.seat_outside_diameter", _CALIPER, (6, 40), "valve", (), ""),
        ("spring wire diameter", "bypass.spring_wire_diameter", _MICROMETER, (0.4, 3), "valve", (), ""),
        ("spring outside diameter", "bypass.spring_outside_diameter", _CALIPER, (5, 40), "valve", (), ""),
        ("spring coils, total", "bypass.spring_total_coils", _COUNT, (2, 20), "valve", (), "turns, windings"),
        ("spring coils, dead", "bypass.spring_dead_coils", _COUNT, (0, 4), "valve", (ZERO,), ""),
        ("spring free length", "bypass.spring_free_length", _CALIPER, (6, 80), "valve", (), "uncompressed length"),
        ("spring installed length", "bypass.spring_installed_length", _CALIPER, (4, 70), "valve", (), ""),
        ("lift limit", "bypass.lift_limit", _CALIPER, (0.5, 12), "valve", (), ""),
        ("push-off force", "bypass.opening_force", _FORCE, (2, 80), "valve", (), "relief valve force, push force"),
        (
            "opening pressure on a bench",
            "bypass.opening_pressure",
            _PRESSURE,
            (30, 450),
            "valve",
            (),
            "relief valve pressure, cracking pressure, pop-off",
        ),
        (
            "closing pressure on a bench",
            "bypass.closing_pressure",
            _PRESSURE,
            (20, 450),
            "valve",
            (),
            "reseat pressure, falling pressure",
        ),
        ("mass", "bypass.mass", _SCALE, (2, 100), "none", (), ""),
        ("wire diameter", "seating.spring_wire_diameter", _MICROMETER, (0.5, 4), "section", (), ""),
        ("free length", "seating.spring_free_length", _CALIPER, (5, 80), "section", (), "hold-down spring"),
        ("force", "seating.force", _FORCE, (5, 400), "none", (), "hold-down spring force, leaf spring"),
        ("mass", "seating.mass", _SCALE, (2, 100), "none", (), ""),
    ),
    "element": (
        ("outside diameter", "element.outside_diameter", _CALIPER, (35, 130), "pack", (), ""),
        ("inside diameter", "element.inside_diameter", _CALIPER, (15, 70), "pack", (), ""),
        ("height", "element.height", _CALIPER, (25, 280), "section", (), "cartridge height, core height"),
        ("mass", "element.mass", _SCALE, (15, 900), "none", (), ""),
        ("pleat count", "element.pleat_count", _COUNT, (15, 140), "pack", (), "folds, number of pleats, fins"),
        ("pleat depth", "element.pleat_depth", _CALIPER, (5, 40), "pack", (), "fold depth"),
        ("potting depth, one end", "element.potting_depth", _CALIPER, (0.5, 8), "section", (ZERO,), "glue depth, end cap depth"),
        ("spacer height", "element.spacer_height", _CALIPER, (1, 60), "section", (ZERO,), ""),
        ("inside diameter", "tube.inside_diameter", _CALIPER, (14, 70), "section", (), "core bore, centre core"),
        ("wall thickness", "tube.wall_thickness", _MICROMETER, (0.2, 3), "section", (), ""),
    ),
    "media": (
        ("strip length", "media.strip_length", _TAPE, (400, 6000), "strip", (), "paper length, unfolded length"),
        ("strip length, pulled flat", "media.pulled_length", _TAPE, (400, 6200), "strip", (), "stretched length"),
        ("strip width", "media.strip_width", _CALIPER, (25, 260), "strip", (), "paper width, upper"),
        ("thickness", "media.thickness", _MICROMETER, (0.25, 2), "pack", (), "paper thickness"),
        ("backing thickness", "media.backing_thickness", _MICROMETER, (0.05, 1), "pack", (ZERO,), ""),
        ("dry mass", "media.dry_mass", _SCALE, (4, 200), "none", (), "paper weight, grammage"),
        ("seam overlap", "media.seam_overlap", _CALIPER, (2, 30), "strip", (ZERO,), "crimp, glued seam"),
        ("blocked pleats", "media.blocked_pleats", _COUNT, (0, 30), "strip", (ZERO,), ""),
        ("other blocked area", "media.blocked_area", _AREA, (0.1, 300), "strip", (ZERO,), ""),
        ("fibre diameter", "media.fibre_diameter", _MICROSCOPE, (1, 60), "none", (), "fiber diameter"),
        ("air permeability", "media.air_permeability", _AIR, (20, 2000), "none", (), "air flow, frazier, porosity"),
    ),
}

_HOLE_ROWS: tuple[_Row, ...] = (
    ("diameter", "hole.diameter", _CALIPER, (1, 20), "plate", (), "bore, drill size"),
    ("overall length", "hole.length", _CALIPER, (1, 40), "plate", (), ""),
    ("width", "hole.width", _CALIPER, (0.2, 25), "plate", (), ""),
    ("height from the flat", "hole.height", _CALIPER, (1, 20), "plate", (), ""),
    ("corner radius", "hole.corner_radius", _CALIPER, (0.1, 10), "plate", (ZERO,), ""),
    ("circle of the hole centres", "hole.circle_diameter", _CALIPER, (20, 110), "plate", (), "pitch circle, bolt circle"),
)


_VIEWS: dict[str, tuple[str, ...]] = {
    "can.wall_thickness": (
        "A thick wall: it takes the wrench, and the pressure peaks of a cold start.",
        "The wall says little: the seam around the plate fails first.",
    ),
    "filter.mass": (
        "Mass says nothing by itself: weigh the parts, and see where it lies.",
        "A heavy can: more steel and more media, so a better filter.",
    ),
    "element.spacer_height": (
        "A spacer costs media: the same can would hold a longer element.",
        "A spacer is no fault: one can serves several elements, and the area decides.",
    ),
    "media.strip_length": (
        "Effective area: what seam, glue and backing leave of length and width.",
        "The longest strip: it is measured in a minute, and widths are alike.",
        "Gross area: length times width, as most people report it.",
    ),
}
"""Where practitioners differ on what a size is worth, the view this program leans to first."""


def _catalogue(stage: Stage, rows: tuple[_Row, ...]) -> dict[str, Quantity]:
    catalogue = {}
    for title, key, (dimension, instrument, metric, inch), (low, high), drawing, marks, words in rows:
        factor = UNITS[metric].factor if metric else 1.0
        catalogue[key] = Quantity(
            key=key,
            title=title,
            dimension=dimension,
            instrument=instrument,
            metric_unit=metric,
            inch_unit=inch,
            usual_low=low * factor,
            usual_high=high * factor,
            zero_allowed=ZERO in marks,
            stage=stage,
            drawing=drawing,
            whole_only=WHOLE_ONLY in marks,
            synonyms=tuple(word.strip() for word in words.split(",") if word.strip()),
            views=_VIEWS.get(key, ()),
        )
    return catalogue


QUANTITIES: dict[str, Quantity] = {
    key: quantity for stage, rows in _STAGES.items() for key, quantity in _catalogue(stage, rows).items()
}
HOLE_QUANTITIES: dict[str, Quantity] = {
    key.removeprefix("hole."): quantity for key, quantity in _catalogue("outside", _HOLE_ROWS).items()
}

PART_SYNONYMS: dict[str, tuple[str, ...]] = {
    "filter": ("whole", "spin-on", "cartridge"),
    "can": ("canister", "shell", "housing", "case", "body", "steel can"),
    "gasket": ("seal", "o-ring", "sealing ring", "rubber ring"),
    "thread": ("threads", "tapped hole", "mount"),
    "plate": ("base plate", "baseplate", "end plate", "tapped plate", "backplate"),
    "anti_drain": ("flapper", "drainback valve", "anti-drainback", "ADBV", "check valve", "membrane"),
    "bypass": ("relief valve", "bypass", "bypass spring", "pop-off valve"),
    "seating": ("hold-down spring", "leaf spring", "dome spring", "support spring"),
    "element": ("cartridge", "pleat pack", "filter core", "insert"),
    "tube": ("core", "centre core", "center tube", "perforated tube"),
    "media": ("paper", "strip", "filter paper", "fibre", "medium"),
    "holes.inlet": ("inlet holes", "feed holes", "ring of holes", "ports"),
    "holes.centre_tube": ("louvres", "core holes", "perforations"),
}
"""Other words people use for a part."""


@dataclass(frozen=True)
class HolePlacement:
    """Where a group of holes is: its title, when it is measured, and other words people use for it."""

    title: str
    stage: Stage
    synonyms: tuple[str, ...]


HOLE_PLACEMENTS: dict[Placement, HolePlacement] = {
    "inlet": HolePlacement("Inlet holes", "outside", PART_SYNONYMS["holes.inlet"]),
    "centre_tube": HolePlacement("Centre tube holes", "element", PART_SYNONYMS["holes.centre_tube"]),
}

"""Inputs still needed, as choices: for each the ways to get it, the fewest readings first; and the short sheet.

The short sheet is the first way of every need of the filter alone, in the order of the hands: the fewest readings from which the
five results and the map of the filter alone follow.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable
from dataclasses import dataclass
from typing import Annotated, Literal

from tabrel.core.catalogue.observation import observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.circuit.calibration import CIRCUIT_KEYS
from tabrel.core.circuit.filter_model import missing_inputs
from tabrel.core.details.circuit_details import MAP_NEEDS
from tabrel.core.details.details import DETAILS, detail_values
from tabrel.core.field_units import INSIDE, OUTSIDE
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Circuit, Sample, Study, used_readings

NeedGroup = Literal["outside", "opened", "element", "media", "engine"]


@dataclass(frozen=True)
class Way:
    """One way to something that is needed.

    Attributes
    ----------
    title : str
        What a person does.
    keys : tuple of str
        Fields it takes: readings, details, observations, ``holes.inlet``, ``oil`` or ``engine`` (one of the library).
    in_one_line : bool
        Whether one line fills them all.
    """

    title: str
    keys: tuple[str, ...]
    in_one_line: Annotated[bool, INSIDE] = False


@dataclass(frozen=True)
class Need:
    """Something a result or a map needs, and the ways to it.

    Attributes
    ----------
    title : str
        What is needed.
    group : str
        Station at which it is usually taken.
    ways : tuple of Way
        The usual one first.
    missing : frozenset of str
        It is needed if an error names one of these as missing.
    without : str
        What is left out without it, where it is not needed at all; else empty.
    """

    title: str
    group: NeedGroup
    ways: tuple[Way, ...]
    missing: Annotated[frozenset[str], INSIDE]
    without: str = ""


def _reading(key: str, group: NeedGroup, *, without: str = "") -> Need:
    quantity = QUANTITIES[key]
    title = f"{PART_TITLES[quantity.part].lower()}, {quantity.title}"
    return Need(title, group, (Way(title, (key,)),), frozenset({key}), without)


_SPRING = (
    "bypass.spring_wire_diameter",
    "bypass.spring_outside_diameter",
    "bypass.spring_total_coils",
    "bypass.spring_free_length",
    "bypass.spring_installed_length",
)
_GAP = "without it the gap under the anti-drainback valve is left out"
_ENGINE_TYPED = tuple(key for key in MAP_NEEDS if key.startswith("engine.") and key != "engine.stud_bore")

NEEDS: tuple[Need, ...] = (
    Need(
        "the inlet holes",
        "outside",
        (Way("count and size of the inlet holes in one line, such as 8 x 5.6 mm", ("holes.inlet",)),),
        frozenset({"holes.inlet"}),
    ),
    _reading("plate.thickness", "outside"),
    _reading("anti_drain.lip_diameter", "outside", without=_GAP),
    _reading("anti_drain.lift", "outside", without=_GAP),
    Need(
        "the outlet bore",
        "outside",
        (
            Way("the thread by its name, such as 3/4-16 UNF", ("thread.major_diameter", "thread.pitch"), in_one_line=True),
            Way("the bore of the engine's stud", ("engine.stud_bore",)),
        ),
        frozenset({"circuit.stud", "thread.major_diameter", "thread.pitch"}),
    ),
    Need(
        "the place of the bypass valve", "opened", (Way("where the bypass valve lies", ("bypass.location",)),),
        frozenset({"bypass.location"}),
    ),
    Need(
        "the opening pressure",
        "opened",
        (
            Way("a bench reading of it", ("bypass.opening_pressure",)),
            Way("the stated setting", ("sample.stated_bypass",)),
            Way("the push-off force, with the seat", ("bypass.opening_force", "bypass.seat_inside_diameter")),
            Way("six dimensions of spring and seat", ("bypass.seat_inside_diameter", *_SPRING)),
        ),
        frozenset(_SPRING),
    ),
    _reading("bypass.seat_inside_diameter", "opened"),
    _reading("element.outside_diameter", "element"),
    _reading("element.inside_diameter", "element"),
    _reading("element.pleat_count", "element"),
    _reading("media.strip_length", "media"),
    _reading("media.strip_width", "media"),
    _reading("media.thickness", "media"),
    Need(
        "how easily the media lets oil through",
        "media",
        (
            Way("the media family, with its usual permeability", ("media.family",)),
            Way("the media's air permeability", ("media.air_permeability",)),
        ),
        frozenset({"media_family", "media.air_permeability"}),
    ),
    Need("the oil", "engine", (Way("the typical oil of a grade", ("oil",)),), frozenset({"oil"})),
    Need(
        "the engine's oil circuit",
        "engine",
        (Way("an engine of the library", ("engine",)), Way("its numbers, typed", _ENGINE_TYPED)),
        frozenset({"circuit.pump_displacement_cm3_rev", "circuit.pump_efficiency", "circuit.regulator", "circuit.engine"}),
    ),
)  # fmt: skip
"""In the order of the hands."""

SHORT_SHEET: tuple[Need, ...] = tuple(need for need in NEEDS if need.ways[0].keys != ("engine",))
"""Rows of the short sheet, each by its first way."""


@dataclass(frozen=True)
class OpenWay(Way):
    """A way that is still to be gone, and which of its fields are empty."""

    left: tuple[str, ...] = ()

    @property
    def entries(self) -> Annotated[int, OUTSIDE]:
        """How many times something is to be typed or chosen."""
        return min(len(self.left), 1) if self.in_one_line else len(self.left)


@dataclass(frozen=True)
class OpenNeed:
    """A need that is not met, and the ways to it: the fewest empty fields first."""

    title: str
    group: NeedGroup
    ways: tuple[OpenWay, ...]


def needs_of_maps(study: Study, measured: MeasuredSample) -> tuple[tuple[OpenNeed, ...], tuple[OpenNeed, ...]]:
    """Return what the map of the filter alone needs, and what that in the engine needs, without computing either."""
    stated = study.circuit or Circuit()
    of_filter = ([] if study.oil else ["oil"], [*missing_inputs(measured)])
    of_engine = [f"circuit.{key}" for key in CIRCUIT_KEYS if getattr(stated, key) is None]
    oil, readings = of_filter
    sample = measured.sample
    return open_needs(study, sample, [*oil, *readings]), open_needs(study, sample, [*oil, *of_engine, *readings])


def open_needs(study: Study, sample: Sample, missing: Iterable[str]) -> tuple[OpenNeed, ...]:
    """Return what is needed because of missing inputs, as choices.

    Parameters
    ----------
    study : Study
        With the oil and the engine.
    sample : Sample
    missing : iterable of str
        Inputs that an error names.

    Returns
    -------
    tuple of OpenNeed
        In the order of the hands; what no row of `NEEDS` knows comes last, each by itself.
    """
    lacking = dict.fromkeys(missing)
    stated = detail_values(study, sample).keys() if lacking else set()
    needs = []
    for need in NEEDS:
        if need.missing & lacking.keys():
            ways = [OpenWay(**vars(way), left=_left(way, study, sample, stated)) for way in need.ways]
            needs.append(OpenNeed(need.title, need.group, tuple(sorted(ways, key=lambda way: way.entries))))
    known = frozenset().union(*(need.missing for need in NEEDS))
    for key in lacking:
        if key not in known:
            needs.append(OpenNeed(key, _group_of(key), (OpenWay(key, (key,), left=(key,)),)))
    return tuple(needs)


def _left(way: Way, study: Study, sample: Sample, stated: Collection[str]) -> tuple[str, ...]:
    return tuple(key for key in way.keys if not _is_answered(key, study, sample, stated))


def _is_answered(key: str, study: Study, sample: Sample, stated: Collection[str]) -> bool:
    if key in QUANTITIES:
        return bool(used_readings(sample.readings.get(key, ())))
    if key in OBSERVATIONS:
        return observed(sample, OBSERVATIONS[key]) is not None
    if key in DETAILS:
        return key in stated
    if key == "holes.inlet":
        return bool(sample.holes.inlet)
    return key == "oil" and study.oil is not None


def _group_of(key: str) -> NeedGroup:
    if key.startswith(("circuit.", "oil")):
        return "engine"
    if key.startswith("holes."):
        return "element" if key.startswith("holes.centre_tube") else "outside"
    return QUANTITIES[key].stage if key in QUANTITIES else "media"

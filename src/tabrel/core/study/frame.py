"""Readings as typed, holes, the oil and the engine's oil circuit: what a study and its samples are made of.

Readings stay text with the unit a person typed; everything unknown is None or empty, never zero.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any, ClassVar, Literal

from tabrel.core.field_units import Celsius, Mm2PerS, MpaS
from tabrel.core.study.strict import Strict

Instrument = Literal[
    "caliper", "micrometer", "tape", "scale", "force_gauge", "pressure_gauge", "permeability_tester", "microscope", "none"
]
HoleShape = Literal["round", "slot", "ellipse", "d", "rectangle", "outline"]
PressureSense = Literal["pump", "gallery"]
GaugeTap = Literal["pump", "filter_inlet", "gallery"]
Provenance = Literal["measured", "derived", "published", "by_eye", "assumed"]


_DOCUMENT_KEYS = {"set_aside": "struck_out", "confirmed": "insisted"}
"""Keys of the document by fields that have another name here."""


@dataclass(frozen=True)
class Reading(Strict):
    """One reading: its text as typed, and what was recorded about it.

    Attributes
    ----------
    text : str
        As typed, with its unit.
    set_aside : str or None
        Why it does not count; it stays visible. The document calls it ``struck_out``.
    taken_at : str or None
        ISO time, UTC.
    instrument : str or None
        What it was taken with: a usual instrument or the name of an own one; None is the quantity's usual instrument.
    provenance : str or None
        Where the value comes from; None is measured.
    note : str or None
        Words of the analyst.
    confirmed : bool or None
        True where the reading was questioned and the analyst confirmed it. The document calls it ``insisted``.
    copied_from : str or None
        Label of the sample, or name of the template, it was copied from and not yet confirmed on this one.
    hole : int or None
        Number of the hole it was read at, from 1; None counts as a hole of its own.
    uncertainty : str or None
        Its standard uncertainty as typed, with its unit, in place of its instrument's.
    photograph : str or None
        File of the photograph it was read in.
    """

    __pydantic_config__: ClassVar[dict[str, Any]] = {
        **Strict.__pydantic_config__,
        "alias_generator": lambda name: _DOCUMENT_KEYS.get(name, name),
    }

    text: str
    set_aside: str | None = None
    taken_at: str | None = None
    instrument: str | None = None
    provenance: Provenance | None = None
    note: str | None = None
    confirmed: bool | None = None
    copied_from: str | None = None
    hole: int | None = None
    uncertainty: str | None = None
    photograph: str | None = None

    @property
    def counts_as(self) -> Provenance:
        """Where the value comes from as far as this sample goes: one that was only copied is assumed."""
        return "assumed" if self.copied_from else self.provenance or "measured"


ReadingEntry = str | Reading
"""A bare text is a reading of which nothing else was recorded."""


def as_reading(entry: ReadingEntry) -> Reading:
    """Return an entry as a `Reading`."""
    return Reading(entry) if isinstance(entry, str) else entry


def as_entry(reading: Reading) -> ReadingEntry:
    """Return a reading as the document holds it: a bare text where nothing else was recorded."""
    return reading.text if reading == Reading(reading.text) else reading


def used_readings(entries: Iterable[ReadingEntry]) -> tuple[Reading, ...]:
    """Return the readings that are in use: those not set aside."""
    return tuple(reading for reading in map(as_reading, entries) if reading.set_aside is None)


@dataclass(frozen=True)
class ViscosityPoint(Strict):
    """One point of the oil's viscosity line; exactly one of the two viscosities is given.

    A dynamic viscosity counts as taken at high shear (cold cranking) unless marked otherwise.
    """

    temperature_c: Celsius
    kinematic_mm2_s: Mm2PerS | None = None
    dynamic_mpa_s: MpaS | None = None
    high_shear: bool | None = None


@dataclass(frozen=True)
class Oil(Strict):
    """An oil: density at 15 °C, viscosity points, the lowest temperature at which it pumps, and where they come from."""

    density_15c_kg_m3: float
    viscosity: tuple[ViscosityPoint, ...]
    name: str | None = None
    pumping_limit_c: float | None = None
    provenance: Provenance | None = None


@dataclass(frozen=True)
class PumpEfficiency(Strict):
    """Volumetric efficiency of the pump at one stated point."""

    fraction: float
    speed_rpm: float
    pressure_kpa: float
    temperature_c: float


@dataclass(frozen=True)
class Regulator(Strict):
    """Pressure regulator: it opens, and passes the whole pump flow of a speed one rise higher."""

    opening_kpa: float
    full_flow_rise_kpa: float
    full_flow_speed_rpm: float
    sense: PressureSense | None = None
    safety_kpa: float | None = None


@dataclass(frozen=True)
class StatedLoss(Strict):
    """A part known by one stated pressure loss: cooler or filter head."""

    loss_kpa: float
    flow_l_min: float
    temperature_c: float
    viscous_share: float | None = None
    bypass_kpa: float | None = None


@dataclass(frozen=True)
class EngineHotPoint(Strict):
    """The engine by one hot point: gallery pressure at a speed and an oil temperature."""

    gallery_kpa: float
    speed_rpm: float
    temperature_c: float
    jet_share: float | None = None
    jet_opening_kpa: float | None = None
    jet_count: int | None = None
    jet_length_ratio: float | None = None
    bearing_rise_k: float | None = None
    bearing_heating: float | None = None


@dataclass(frozen=True)
class Stud(Strict):
    """The engine's hollow stud, through which the filtered oil leaves; the range is over engines."""

    bore_mm: float
    length_mm: float | None = None
    least_bore_mm: float | None = None
    greatest_bore_mm: float | None = None


@dataclass(frozen=True)
class HoleReadings(Strict):
    """Readings of one group of holes, by dimension; an outline is points in mm instead."""

    diameter: tuple[ReadingEntry, ...] = ()
    length: tuple[ReadingEntry, ...] = ()
    width: tuple[ReadingEntry, ...] = ()
    height: tuple[ReadingEntry, ...] = ()
    corner_radius: tuple[ReadingEntry, ...] = ()
    circle_diameter: tuple[ReadingEntry, ...] = ()
    points_mm: tuple[tuple[float, float], ...] = ()

    def by_dimension(self) -> Iterator[tuple[str, tuple[ReadingEntry, ...]]]:
        """Yield the dimensions that hold readings."""
        for dimension in ("diameter", "length", "width", "height", "corner_radius", "circle_diameter"):
            if entries := getattr(self, dimension):
                yield dimension, entries


@dataclass(frozen=True)
class HoleGroup(Strict):
    """A number of equal holes; `open_fraction` 1 is clear, `copied_from` as of a reading."""

    shape: HoleShape
    count: int
    readings: HoleReadings = HoleReadings()
    open_fraction: float | None = None
    copied_from: str | None = None

    @property
    def counts_as(self) -> Provenance:
        """Where count and open part come from as far as this sample goes."""
        return "assumed" if self.copied_from else "measured"


@dataclass(frozen=True)
class Mount(Strict):
    """Mount of the filter: the engine's thread, and the face that the gasket seals on; nothing computes with it."""

    thread_diameter_mm: float | None = None
    thread_pitch_mm: float | None = None
    seat_diameter_mm: float | None = None


@dataclass(frozen=True)
class Adapter(Strict):
    """A remote or sandwich adapter with cross-holes."""

    holes: tuple[HoleGroup, ...]
    wall_mm: float | None = None
    turn_deg: float | None = None
    reference_bore_mm: float | None = None


@dataclass(frozen=True)
class Circuit(Strict):
    """The engine's oil circuit; it belongs to the engine, not to a filter."""

    name: str | None = None
    pump_displacement_cm3_rev: float | None = None
    pump_efficiency: PumpEfficiency | None = None
    regulator: Regulator | None = None
    cooler: StatedLoss | None = None
    head: StatedLoss | None = None
    engine: EngineHotPoint | None = None
    stud: Stud | None = None
    mount: Mount | None = None
    adapter: Adapter | None = None
    gauge: GaugeTap | None = None
    provenance: Provenance | None = None

"""The study: one engine, one oil, and the filters measured for it, as typed.

These dataclasses are the study document field by field, so their names carry the document's units.
Readings stay text with the unit a person typed; everything unknown is None or empty, never zero.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field, fields
from functools import lru_cache
from typing import Any, Literal

from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.study.plans import DutyCycle, Scenario, WarmUpPlan
from tabrel.core.study.strict import BypassLocation, Strict

FORMAT: Literal["tabrel-study"] = "tabrel-study"
VERSION = 1

Instrument = Literal[
    "caliper", "micrometer", "tape", "scale", "force_gauge", "pressure_gauge", "permeability_tester", "microscope", "none"
]
HoleShape = Literal["round", "slot", "ellipse", "d", "rectangle", "outline"]
MediaFamily = Literal["cellulose", "blend", "synthetic"]
SpringMaterial = Literal["music_wire", "stainless_302", "chrome_silicon"]
SizeScale = Literal["um(c)", "um(b)", "um"]
Relation = Literal["=", ">=", ">"]
PressureSense = Literal["pump", "gallery"]
GaugeTap = Literal["pump", "filter_inlet", "gallery"]
Provenance = Literal["measured", "derived", "published", "by_eye", "assumed"]
QuantityState = Literal["not_measured", "could_not_be_found", "out_of_date", "not_applicable", "withheld", "lost"]
Speaker = Literal["maker", "seller", "independent", "vehicle_maker"]
ClaimKind = Literal["efficiency", "reading", "observation", "words"]


@dataclass(frozen=True)
class Reading(Strict):
    """One reading: its text as typed, and what was recorded about it.

    Attributes
    ----------
    text : str
        As typed, with its unit.
    struck_out : str or None
        Why it does not count; it stays visible.
    taken_at : str or None
        ISO time, UTC.
    instrument : str or None
        What it was taken with; None is the quantity's usual instrument.
    provenance : str or None
        Where the value comes from; None is measured.
    note : str or None
        Words of the analyst.
    insisted : bool or None
        True where the reading was questioned and the analyst confirmed it.
    """

    text: str
    struck_out: str | None = None
    taken_at: str | None = None
    instrument: Instrument | None = None
    provenance: Provenance | None = None
    note: str | None = None
    insisted: bool | None = None


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
    return tuple(reading for reading in map(as_reading, entries) if reading.struck_out is None)


@dataclass(frozen=True)
class ViscosityPoint(Strict):
    """One point of the oil's viscosity line; exactly one of the two viscosities is given.

    A dynamic viscosity counts as taken at high shear (cold cranking) unless marked otherwise.
    """

    temperature_c: float
    kinematic_mm2_s: float | None = None
    dynamic_mpa_s: float | None = None
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
    length_mm: float
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
    """A number of equal holes; `open_fraction` 1 is clear."""

    shape: HoleShape
    count: int
    readings: HoleReadings = HoleReadings()
    open_fraction: float | None = None


@dataclass(frozen=True)
class Adapter(Strict):
    """A remote or sandwich adapter with cross-holes."""

    holes: tuple[HoleGroup, ...]
    wall_mm: float
    turn_deg: float
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
    adapter: Adapter | None = None
    gauge: GaugeTap | None = None
    provenance: Provenance | None = None


@dataclass(frozen=True)
class Price(Strict):
    """What a sample cost."""

    amount: float
    currency: str


@dataclass(frozen=True)
class SampleHoles(Strict):
    """The hole groups of a filter, by where they are."""

    inlet: tuple[HoleGroup, ...] = ()
    centre_tube: tuple[HoleGroup, ...] = ()


@dataclass(frozen=True)
class Bypass(Strict):
    """The bypass valve: where it sits, how it is made (in words), and the stated setting or band."""

    location: BypassLocation | None = None
    kind: str | None = None
    spring_material: SpringMaterial | None = None
    stated_kpa: float | tuple[float, float] | None = None


@dataclass(frozen=True)
class Leak(Strict):
    """Defect holes beside the element, always open."""

    count: int
    diameter_mm: float


@dataclass(frozen=True)
class Claim(Strict):
    """What a box, a page or a person says of the filter, kept with its source.

    An efficiency claim holds the triple of percent, size and relation; a size that was not stated stays
    out. A claim on a reading or an observation names its `key` and the `value` claimed, and is a check
    that a later reading confirms or refutes. Words alone are kept as words.

    Attributes
    ----------
    kind : str
        ``efficiency``, ``reading``, ``observation`` or ``words``.
    source : str
        Box, page, letter.
    relation : str or None
        ``=`` unless stated.
    efficiency_percent, size_um, scale, standard : optional
        Of an efficiency claim.
    key, value : str or None
        What is claimed of which reading (with its unit) or observation.
    wording : str or None
        As printed or said.
    speaker : str or None
        Who says it.
    seen : str or None
        ISO date.
    stale : str or None
        Why the claim no longer holds for this design; it stays visible.
    """

    kind: ClaimKind
    source: str
    relation: Relation | None = None
    efficiency_percent: float | None = None
    size_um: float | None = None
    scale: SizeScale | None = None
    standard: str | None = None
    key: str | None = None
    value: str | None = None
    wording: str | None = None
    speaker: Speaker | None = None
    seen: str | None = None
    stale: str | None = None


@dataclass(frozen=True)
class Cut(Strict):
    """That and how the filter was cut open."""

    method: str
    at: str | None = None
    note: str | None = None


@dataclass(frozen=True)
class CountRow(Strict):
    """Particles counted at and above one size, before and after the filter."""

    size_um: float
    upstream: int
    downstream: int


@dataclass(frozen=True)
class Counts(Strict):
    """Particle counts of a multi-pass test."""

    scale: SizeScale
    volume_ml: float
    dilution: float
    rows: tuple[CountRow, ...]


@dataclass(frozen=True)
class Sample(Strict):
    """One filter as bought and measured."""

    label: str
    maker: str | None = None
    part_number: str | None = None
    price: Price | None = None
    seller: str | None = None
    bought: str | None = None
    pack: str | None = None
    date_code: str | None = None
    made: str | None = None
    origin: str | None = None
    condition: str | None = None
    used_km: float | None = None
    used_hours: float | None = None
    expectation: str | None = None
    cut: Cut | None = None
    media_family: MediaFamily | None = None
    media_air_drop_pa: float | None = None
    readings: dict[str, tuple[ReadingEntry, ...]] = field(default_factory=dict)
    states: dict[str, QuantityState] = field(default_factory=dict)
    holes: SampleHoles = SampleHoles()
    bypass: Bypass = Bypass()
    leak: Leak | None = None
    observations: dict[str, str] = field(default_factory=dict)
    claims: tuple[Claim, ...] = ()
    counts: Counts | None = None
    capacity_g: float | None = None


@dataclass(frozen=True)
class Study(Strict):
    """A whole study."""

    format: Literal["tabrel-study"]
    version: int
    name: str
    question: str | None = None
    reference: str | None = None
    uses: str | None = None
    price_class: str | None = None
    oil: Oil | None = None
    circuit: Circuit | None = None
    samples: tuple[Sample, ...] = ()
    scenarios: tuple[Scenario, ...] = ()
    duty_cycles: tuple[DutyCycle, ...] = ()
    warm_up: WarmUpPlan | None = None

    def sample(self, label: str) -> Sample:
        """Return the sample with this label.

        Raises
        ------
        StudyError
            If there is none.
        """
        for sample in self.samples:
            if sample.label == label:
                return sample
        labels = [sample.label for sample in self.samples]
        known = "the study holds " + (", ".join(repr(known) for known in labels) or "no samples")
        raise StudyError("samples", f"there is no sample {label!r}{nearest_hint(label, labels)}: {known}")


@lru_cache
def field_names(model: Any) -> tuple[str, ...]:
    """Return the field names of one of the dataclasses above."""
    return tuple(entry.name for entry in fields(model))

"""The study: one engine, one oil, and the filters measured for it, as typed.

These dataclasses are the study document field by field, so their names carry the document's units; oil, engine and
readings are in `frame`, tests and benches in `evidence`, uses in `uses`. Everything unknown is None or empty, never zero.
"""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from functools import lru_cache
from typing import Any, Literal

from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.study.arithmetic import ArithmeticLine
from tabrel.core.study.evidence import (
    BlankCounts,
    BypassBench,
    BypassBenchRow,
    CountInterval,
    CountRow,
    Counts,
    FlowBench,
    FlowBenchRow,
    Photograph,
    PhotographScale,
    SizeScale,
)
from tabrel.core.study.frame import (
    Adapter,
    Circuit,
    EngineHotPoint,
    GaugeTap,
    HoleGroup,
    HoleReadings,
    HoleShape,
    Instrument,
    Mount,
    Oil,
    PressureSense,
    Provenance,
    PumpEfficiency,
    Reading,
    ReadingEntry,
    Regulator,
    StatedLoss,
    Stud,
    ViscosityPoint,
    as_entry,
    as_reading,
    used_readings,
)
from tabrel.core.study.in_use import (
    BypassState,
    Captured,
    ChangeInterval,
    FilterChange,
    Finding,
    GaugeLog,
    OdometerReading,
    OwnInstrument,
    Remark,
    SampleKind,
    Service,
    StatedInterval,
    TypicalTables,
    UnfilteredOpening,
    UsedStrip,
    Weighing,
)
from tabrel.core.study.plans import DutyCycle, Scenario, WarmUpPlan
from tabrel.core.study.report_plan import ReportPlan
from tabrel.core.study.strict import BypassLocation, Strict
from tabrel.core.study.uses import Use

__all__ = [
    "FORMAT",
    "VERSION",
    "Adapter",
    "BlankCounts",
    "Bypass",
    "BypassBench",
    "BypassBenchRow",
    "Circuit",
    "Claim",
    "ClaimKind",
    "CountInterval",
    "CountRow",
    "Counts",
    "Cut",
    "DutyCycle",
    "EngineHotPoint",
    "FirstDrip",
    "FlowBench",
    "FlowBenchRow",
    "GaugeTap",
    "HoleGroup",
    "HoleReadings",
    "HoleShape",
    "Instrument",
    "Leak",
    "MediaFamily",
    "Mount",
    "Offer",
    "Oil",
    "Photograph",
    "PhotographScale",
    "PressureSense",
    "Price",
    "Provenance",
    "PumpEfficiency",
    "QuantityState",
    "Reading",
    "ReadingEntry",
    "Regulator",
    "Relation",
    "Sample",
    "SampleHoles",
    "Scenario",
    "SeatMark",
    "SizeScale",
    "Speaker",
    "SpringEnds",
    "SpringMaterial",
    "StatedLoss",
    "Stud",
    "Study",
    "TypedNumber",
    "Use",
    "ViscosityPoint",
    "WarmUpPlan",
    "as_entry",
    "as_reading",
    "field_names",
    "used_readings",
]

FORMAT: Literal["tabrel-study"] = "tabrel-study"
VERSION = 3
"""Of the documents written; every version from 1 on is read."""

MediaFamily = Literal["cellulose", "blend", "synthetic"]
SpringMaterial = Literal["music_wire", "stainless_302", "chrome_silicon"]
SpringEnds = Literal["open", "closed", "closed_ground", "unknown"]
SeatMark = Literal["inner", "outer", "unknown"]
FirstDrip = Literal["first_drip"]
Relation = Literal["=", ">=", ">", "<=", "<"]
QuantityState = Literal["not_measured", "could_not_be_found", "out_of_date", "not_applicable", "withheld", "lost"]
Speaker = Literal["maker", "seller", "independent", "vehicle_maker"]
ClaimKind = Literal["efficiency", "reading", "observation", "result", "words"]


@dataclass(frozen=True)
class TypedNumber(Strict):
    """A number of the document as it was typed, where it comes from, and what it was taken from.

    Attributes
    ----------
    text : str
        As typed, with its unit.
    provenance : str or None
        None is not said.
    origin : str or None
        Such as ``library``.
    """

    text: str
    provenance: Provenance | None = None
    origin: str | None = None


@dataclass(frozen=True)
class Price(Strict):
    """Price of a sample."""

    amount: float
    currency: str


@dataclass(frozen=True)
class Offer(Strict):
    """One shop's offer of a part: price of a pack, how many are in it, delivery of one pack, when it was seen."""

    shop: str
    amount: float
    currency: str
    pack_of: int | None = None
    delivery: float | None = None
    seen: str | None = None

    @property
    def each(self) -> float:
        """Cost of one piece where one pack is ordered, delivery shared by its pieces."""
        return (self.amount + (self.delivery or 0.0)) / (self.pack_of or 1)


@dataclass(frozen=True)
class SampleHoles(Strict):
    """The hole groups of a filter, by where they are."""

    inlet: tuple[HoleGroup, ...] = ()
    centre_tube: tuple[HoleGroup, ...] = ()


@dataclass(frozen=True)
class Bypass(Strict):
    """The bypass valve: where it sits, how it is made, the stated setting or band, and how a typed opening pressure was read.

    `seat_mark` is the edge of the seat on which the seal left its mark; `opening_at` the flow at which a typed opening
    pressure was read [L/min], or that it was the first drip.
    """

    location: BypassLocation | None = None
    kind: str | None = None
    spring_material: SpringMaterial | None = None
    stated_kpa: float | tuple[float, float] | None = None
    spring_ends: SpringEnds | None = None
    seat_mark: SeatMark | None = None
    opening_at: FirstDrip | float | None = None


@dataclass(frozen=True)
class Leak(Strict):
    """Defect holes beside the element, always open."""

    count: int
    diameter_mm: float


@dataclass(frozen=True)
class Claim(Strict):
    """Statement of a box, a page or a person about the filter, with its source.

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
    copied_from : str or None
        As of a reading.
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
    copied_from: str | None = None

    @property
    def counts_as(self) -> Provenance:
        """Where what is claimed comes from as far as this sample goes."""
        return "assumed" if self.copied_from else "published"


@dataclass(frozen=True)
class Cut(Strict):
    """That and how the filter was cut open."""

    method: str
    at: str | None = None
    note: str | None = None


@dataclass(frozen=True)
class Sample(Strict):
    """One filter as bought and measured.

    `copied` names what of it was copied from another sample or a template and not yet confirmed, as far as it is no
    reading, group of holes or claim: by ``details/KEY``, ``observations/KEY`` or ``states/KEY``, from what. `archived` is
    True where it is put away: kept, and left out of comparisons.
    """

    label: str
    maker: str | None = None
    part_number: str | None = None
    price: Price | None = None
    offers: tuple[Offer, ...] = ()
    seller: str | None = None
    bought: str | None = None
    pack: str | None = None
    date_code: str | None = None
    made: str | None = None
    origin: str | None = None
    tier: str | None = None
    restriction: str | None = None
    warranty: str | None = None
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
    stated_collapse_kpa: float | None = None
    flow_bench: tuple[FlowBench, ...] = ()
    bypass_bench: BypassBench | None = None
    photographs: tuple[Photograph, ...] = ()
    as_typed: dict[str, TypedNumber] = field(default_factory=dict)
    copied: dict[str, str] = field(default_factory=dict)
    archived: bool | None = None
    kind: SampleKind | None = None
    change_interval: ChangeInterval | None = None
    remarks: tuple[Remark, ...] = ()
    service: Service | None = None
    weighings: tuple[Weighing, ...] = ()
    captured: Captured | None = None
    strip: UsedStrip | None = None
    findings: tuple[Finding, ...] = ()
    openings: tuple[UnfilteredOpening, ...] = ()
    bypass_state: BypassState | None = None


@dataclass(frozen=True)
class Study(Strict):
    """A whole study."""

    format: Literal["tabrel-study"]
    version: int
    name: str
    question: str | None = None
    reference: str | None = None
    intended_uses: str | None = None
    price_class: str | None = None
    interval_school: str | None = None
    oil: Oil | None = None
    circuit: Circuit | None = None
    samples: tuple[Sample, ...] = ()
    scenarios: tuple[Scenario, ...] = ()
    duty_cycles: tuple[DutyCycle, ...] = ()
    warm_up: WarmUpPlan | None = None
    uses: tuple[Use, ...] = ()
    arithmetic: tuple[ArithmeticLine, ...] = ()
    report: ReportPlan | None = None
    as_typed: dict[str, TypedNumber] = field(default_factory=dict)
    intervals: tuple[StatedInterval, ...] = ()
    severe_conditions: tuple[str, ...] = ()
    odometer: tuple[OdometerReading, ...] = ()
    changes: tuple[FilterChange, ...] = ()
    gauge_logs: tuple[GaugeLog, ...] = ()
    instruments: tuple[OwnInstrument, ...] = ()
    typical: TypicalTables | None = None

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

"""What was found on a filter that was in use, and when it is changed: as the study document holds it.

Sizes and masses are as typed, with their unit; everything unknown is None or empty.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from tabrel.core.study.frame import GaugeTap, HoleReadings, HoleShape
from tabrel.core.study.strict import Strict

SampleKind = Literal["spin_on", "cartridge"]
Severity = Literal["note", "fault", "hazard"]
IntervalOwner = Literal["vehicle_maker", "oil_maker", "filter_maker", "own"]
WeighingState = Literal["drying", "draining"]
FindingKind = Literal[
    "debris", "sludge", "worn", "torn", "blocked", "discoloured", "water", "deposit", "bulged", "dented", "lifted", "bunched"
]
WearStage = Literal["polished", "fluffy", "holed"]
OpeningKind = Literal["hole", "tear", "lifted_cap", "lifted_gasket", "pleat_edge"]
CutIn = Literal["service", "opening", "unknown"]
ValveState = Literal["works", "jammed_open", "stuck_shut", "leaks"]


@dataclass(frozen=True)
class ChangeInterval(Strict):
    """How long a filter may stay: by distance, months or hours, whichever comes first, and who says so."""

    distance_km: float | None = None
    months: float | None = None
    hours: float | None = None
    who: IntervalOwner | None = None
    source: str | None = None


@dataclass(frozen=True)
class StatedInterval(ChangeInterval):
    """An interval of the vehicle, the oil or the filter, under which conditions it holds, and when it was stated."""

    conditions: Literal["normal", "severe"] | None = None
    stated_on: str | None = None


@dataclass(frozen=True)
class Remark(Strict):
    """Words about a part of the filter, and how grave they are."""

    part: str
    text: str
    severity: Severity | None = None


@dataclass(frozen=True)
class Service(Strict):
    """The time in use and how the filter came off; distance and hours are of the sample itself."""

    distance_uncertainty_km: float | None = None
    fitted_on: str | None = None
    removed_on: str | None = None
    oil: str | None = None
    drained_hot: bool | None = None
    drained_oil: str | None = None
    leaks: str | None = None
    uses: tuple[str, ...] = ()
    mounting_angle_deg: float | None = None
    removed_by: str | None = None
    old_gasket_came_off: bool | None = None
    new_specimens: tuple[str, ...] = ()


@dataclass(frozen=True)
class WeighingRow(Strict):
    """One mass of a part that dries or drains, so long after it began."""

    after_min: float
    mass: str


@dataclass(frozen=True)
class Weighing(Strict):
    """The repeated weighing of a part."""

    what: str
    rows: tuple[WeighingRow, ...]
    state: WeighingState | None = None


@dataclass(frozen=True)
class Captured(Strict):
    """The masses from which what a filter caught is told: used, new, or what came out of the media."""

    used: str | None = None
    new: tuple[str, ...] = ()
    caught: str | None = None
    caught_uncertainty: str | None = None
    media: str | None = None
    conditioned: bool | None = None
    instrument: str | None = None


@dataclass(frozen=True)
class UsedStrip(Strict):
    """Where lines lie along the strip of a used filter, and how much of it was inspected."""

    burr_at: str | None = None
    inlet_holes_at: tuple[str, ...] = ()
    half_band: str | None = None
    reach: str | None = None
    inspected_area: str | None = None
    inspected_all_round: bool | None = None
    turn_marked: bool | None = None


@dataclass(frozen=True)
class Finding(Strict):
    """One thing found on a part: where along and across the strip, or on which pleat, its size and stage of wear."""

    part: str
    kind: FindingKind
    along: str | None = None
    across: str | None = None
    pleat: int | None = None
    count: int | None = None
    length: str | None = None
    width: str | None = None
    stage: WearStage | None = None
    magnetic: bool | None = None
    note: str | None = None
    photograph: str | None = None


@dataclass(frozen=True)
class UnfilteredOpening(Strict):
    """A way past the media: a hole or tear by its sizes, a cap that lifted by its edge, an edge of pleats by its gap."""

    kind: OpeningKind
    name: str | None = None
    shape: HoleShape | None = None
    count: int | None = None
    readings: HoleReadings = field(default_factory=HoleReadings)
    diameter: str | None = None
    arc_deg: float | None = None
    lift: str | None = None
    land: str | None = None
    pleats: int | None = None
    gap: str | None = None
    cut_in: CutIn | None = None


@dataclass(frozen=True)
class BypassState(Strict):
    """In what state the bypass valve was found: how far it is jammed open, or the gap through which it leaks."""

    state: ValveState
    lift: str | None = None
    gap: str | None = None


@dataclass(frozen=True)
class OdometerReading(Strict):
    """Distance, or hours, on a date."""

    on: str
    km: float | None = None
    hours: float | None = None


@dataclass(frozen=True)
class FilterChange(Strict):
    """A change of the filter: when, at what distance, and which sample came off or went on."""

    on: str
    km: float | None = None
    sample: str | None = None


@dataclass(frozen=True)
class GaugeLogRow(Strict):
    """One row of a log of the oil pressure gauge."""

    time_s: float
    speed_rpm: float
    oil_temperature_c: float
    pressure_kpa: float


@dataclass(frozen=True)
class GaugeLog(Strict):
    """A log of the oil pressure gauge, and where it taps."""

    name: str
    rows: tuple[GaugeLogRow, ...]
    sample: str | None = None
    tap: GaugeTap | None = None


@dataclass(frozen=True)
class OwnInstrument(Strict):
    """An instrument of the workshop with its errors as typed, its calibration, and corrections by reading."""

    name: str
    kind: str
    resolution: str | None = None
    permissible_error: str | None = None
    repeatability: str | None = None
    range: str | None = None
    calibrated_on: str | None = None
    due_on: str | None = None
    certificate: str | None = None
    corrections: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True)
class TypicalTables(Strict):
    """Which table of typical values the study rests on, and how wide its spreads were taken."""

    table_version: int
    spread_factor: float | None = None

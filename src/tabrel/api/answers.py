"""What goes out over the wire besides the results that the command line shares."""

from __future__ import annotations

from typing import Literal

from tabrel.document.results import AnalysisOut, Grid, MapOut, OnsetOut, WireModel


class StudyRowOut(WireModel):
    """One study in the list."""

    id: int
    name: str
    question: str | None
    created_at: str
    sample_count: int
    cut_count: int
    reading_count: int


class SampleTagOut(WireModel):
    """A sample in the rack: identity, and the size of its can where it was measured."""

    id: int
    label: str
    maker: str | None
    part_number: str | None
    can_height_mm: float | None
    can_diameter_mm: float | None
    is_reference: bool


class StudyOut(WireModel):
    """A study opened: what it asks, and the samples in its rack."""

    id: int
    name: str
    question: str | None
    oil_name: str | None
    circuit_name: str | None
    samples: list[SampleTagOut]


class ReadingOut(WireModel):
    """One reading as typed, what was recorded of it, and its value in both families."""

    id: int
    text: str
    taken_at: str | None
    instrument: str | None
    provenance: str
    note: str | None
    insisted: bool
    struck_out_reason: str | None
    metric: str
    inch: str
    doubtful: bool
    used: bool


class EstimateOut(WireModel):
    """Mean, standard and expanded uncertainty in both families."""

    metric_value: float
    metric_uncertainty: float
    metric_expanded: float
    inch_value: float
    inch_uncertainty: float
    inch_expanded: float
    provenance: str
    used: int


class FieldWarningOut(WireModel):
    """What is implausible about a field, with the reading it is about and what was likely meant."""

    message: str
    reading_id: int | None
    correction: str | None
    insisted: bool


class FieldOut(WireModel):
    """One field of the bench."""

    key: str
    title: str
    metric_unit: str
    inch_unit: str
    instrument: str
    instruments: list[str]
    drawing: str
    counted: bool
    whole_only: bool
    readings: list[ReadingOut]
    estimate: EstimateOut | None
    state: str | None
    warnings: list[FieldWarningOut]


class HoleGroupOut(WireModel):
    """A group of holes: what is not a reading of it."""

    placement: Literal["inlet", "centre_tube"]
    position: int
    shape: str
    count: int
    open_percent: float
    points: str
    words: str


class AttributeValueOut(WireModel):
    """What was seen, by the key of its attribute in the catalogue."""

    key: str
    value: str | None


class PartOut(WireModel):
    """The fields of one part at one stage, or of one group of holes."""

    key: str
    title: str
    stage: str
    fields: list[FieldOut]
    attributes: list[AttributeValueOut]
    hole_group: HoleGroupOut | None


class ClaimOut(WireModel):
    """A claim with what the readings say of it."""

    id: int
    kind: str
    words: str
    source: str
    speaker: str | None
    seen: str | None
    stale: str | None
    verdict: str
    reason: str


class PlateCircleOut(WireModel):
    """A circle of the plate from below."""

    key: str
    diameter_mm: float
    measured: bool


class PlacedHoleOut(WireModel):
    """One hole where it lies, y upward."""

    group: int
    points_mm: list[list[float]]
    wrong: bool


class HoleProductOut(WireModel):
    """The product of one group: count × area of one, open part."""

    count: int
    one_mm2: float
    open_fraction: float


class SectionOut(WireModel):
    """One section the oil passes at the plate."""

    name: str
    area_mm2: float


class OutletOut(WireModel):
    """The flow area with one bore an engine may have."""

    name: str
    bore_mm: float
    area_mm2: float
    flow_area_mm2: float | None
    controlled_by: str | None
    adapter_ratio: float | None


class PlateOut(WireModel):
    """The plate from below, and the figures beside its two areas."""

    circles: list[PlateCircleOut]
    holes: list[PlacedHoleOut]
    hole_circles_measured: bool
    problems: list[str]
    products: list[HoleProductOut]
    perimeter_mm: float
    equivalent_diameter_mm: float | None
    penalty_viscous: float | None
    penalty_hot: float | None
    sections: list[SectionOut]
    outlets: list[OutletOut]


class CutOut(WireModel):
    """That and how the filter was cut."""

    method: str
    at: str | None
    note: str | None


class GateItemOut(WireModel):
    """Something that can be learned only before the cut and is still missing."""

    key: str
    kind: str
    title: str


class GateOut(WireModel):
    """The gate before cutting."""

    missing: list[GateItemOut]
    cut: CutOut | None


class RestsOnOut(WireModel):
    """How many inputs of each provenance a result rests on."""

    measured: int = 0
    derived: int = 0
    published: int = 0
    by_eye: int = 0
    assumed: int = 0


class SheetOut(WireModel):
    """Everything the bench shows of a sample: fields by part, facts, claims, plate, gate, results, warnings."""

    id: int
    study_id: int
    label: str
    parts: list[PartOut]
    facts: dict[str, str]
    claims: list[ClaimOut]
    shelf: str | None
    plate: PlateOut
    gate: GateOut
    analysis: AnalysisOut
    rests_on: dict[str, RestsOnOut]
    undo: str | None
    redo: str | None


class UndoneOut(WireModel):
    """What was taken back or put again, where, and the sheet as it then stands; no sheet if the sample is gone."""

    words: str
    place: str
    sheet: SheetOut | None


class EchoOut(WireModel):
    """What was understood of a text."""

    text: str
    metric: str
    inch: str
    problem: str | None
    question: str | None
    correction: str | None
    estimate: EstimateOut | None


class HistoryOut(WireModel):
    """One thing that was done to a reading."""

    words: str
    at: str
    undone: bool


class WorkingPieceOut(WireModel):
    """A piece of a line: plain text, or a number with what it is and where it comes from."""

    text: str
    metric: str | None = None
    inch: str | None = None
    words: str | None = None
    key: str | None = None
    provenance: str | None = None


class WorkingStepOut(WireModel):
    """One line of a working."""

    symbol: str
    words: str
    formula: str
    pieces: list[WorkingPieceOut]
    metric: str
    inch: str


class WorkingOut(WireModel):
    """The working of one result, line by line."""

    title: str
    steps: list[WorkingStepOut]
    metric_uncertainty: str | None
    inch_uncertainty: str | None


class LedgerPartOut(WireModel):
    """One part's loss over the map: viscous, inertial, and what it holds back whatever the flow."""

    name: str
    viscous_kpa: Grid
    inertial_kpa: Grid
    spring_kpa: float


class EfficiencyAtOut(WireModel):
    """The media's efficiency at a size, from the best evidence; null where there is none."""

    size_um: float
    value_percent: float | None
    low_percent: float | None
    high_percent: float | None
    basis: str | None
    missing: list[str]


class InputSourceOut(WireModel):
    """An input of a map, and where it comes from."""

    key: str
    provenance: str


class OperatingMapOut(MapOut):
    """The operating map with its ledger and curves, as the map view draws it.

    The system efficiency is the share through the media times the media's efficiency; where only a
    bound is known it is that bound.
    """

    condition: Literal["steady", "filling"]
    lift_mm: Grid
    unfiltered_percent: Grid
    gauge_minus_gallery_kpa: Grid
    regulator_dump_percent: Grid
    system_efficiency_percent: Grid | None
    efficiency: EfficiencyAtOut
    regulator: OnsetOut
    evaluations: int
    inputs: list[InputSourceOut]
    ledger: list[LedgerPartOut]
    left_out: list[str]
    bypass_location: str
    coldest_pumping_c: float
    gauge: Literal["pump", "filter_inlet", "gallery"]


class ProblemOut(WireModel):
    """An error: one sentence, the place where there is one, and what is missing where that is the matter."""

    message: str
    where: str
    missing: list[str]

"""What goes over the wire besides the results that the command line shares."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict

from tabrel.document.results import AnalysisOut, Grid, MapOut, WireModel

UnitFamilyIn = Literal["metric", "inch"]


class RequestModel(BaseModel):
    """A model that comes in: unknown keys and numbers that are not finite are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, str_max_length=400)


class StudyRowOut(WireModel):
    """One study in the list."""

    id: int
    name: str
    question: str | None
    created_at: str
    sample_count: int
    reading_count: int


class SampleTagOut(WireModel):
    """A sample in the rack: identity, and the size of its can where it was measured."""

    id: int
    label: str
    maker: str | None
    part_number: str | None
    can_height_mm: float | None
    can_diameter_mm: float | None


class StudyOut(WireModel):
    """A study opened: what it asks, and the samples in its rack."""

    id: int
    name: str
    question: str | None
    oil_name: str | None
    circuit_name: str | None
    samples: list[SampleTagOut]


class ReadingOut(WireModel):
    """One reading as typed, and its value in both families."""

    id: int
    text: str
    taken_at: str
    struck_out_reason: str | None
    metric: str
    inch: str
    doubtful: bool


class EstimateOut(WireModel):
    """Mean and standard uncertainty in both families."""

    metric_value: float
    metric_uncertainty: float
    inch_value: float
    inch_uncertainty: float


class FieldOut(WireModel):
    """One field of the bench."""

    key: str
    title: str
    metric_unit: str
    inch_unit: str
    instrument: str
    readings: list[ReadingOut]
    estimate: EstimateOut | None
    warnings: list[str]


class PartOut(WireModel):
    """The fields of one part, or of one group of holes."""

    key: str
    title: str
    note: str | None
    fields: list[FieldOut]


class SheetOut(WireModel):
    """Everything the bench shows of a sample: fields by part, results, warnings."""

    id: int
    study_id: int
    label: str
    parts: list[PartOut]
    analysis: AnalysisOut


class ReadingIn(RequestModel):
    """A reading to add: key, text as typed, and the family a bare number is meant in."""

    key: str
    text: str
    family: UnitFamilyIn = "metric"


class StrikeOutIn(RequestModel):
    """Why a reading is struck out."""

    reason: str


class EchoOut(WireModel):
    """What was understood of a text."""

    text: str
    metric: str
    inch: str
    problem: str | None
    question: str | None


class LedgerPartOut(WireModel):
    """One part's loss over the map: viscous, inertial, and what it holds back whatever the flow."""

    name: str
    viscous_kpa: Grid
    inertial_kpa: Grid
    spring_kpa: float


class OperatingMapOut(MapOut):
    """The operating map with its ledger, as the map view draws it."""

    condition: Literal["steady", "filling"]
    lift_mm: Grid
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

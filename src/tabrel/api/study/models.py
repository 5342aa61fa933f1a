"""What goes over the wire about studies."""

from __future__ import annotations

from tabrel.api.wire import RequestModel
from tabrel.document.results import ResultsOut, WireModel
from tabrel.store.sample.samples import Status


class SampleNameOut(WireModel):
    """What a sample is called, and whether it is in use."""

    id: int
    label: str
    maker: str | None
    part_number: str | None
    status: Status


class SampleTagOut(SampleNameOut):
    """A sample in the rack: identity, and the size of its can where it was measured."""

    can_height_mm: float | None
    can_diameter_mm: float | None
    is_reference: bool


class StudyRowOut(WireModel):
    """One study in the list, with what its samples are called; counts are of those in use."""

    id: int
    name: str
    question: str | None
    status: Status
    created_at: str
    changed_at: str
    sample_count: int
    cut_count: int
    reading_count: int
    samples: list[SampleNameOut]


class StudyOut(WireModel):
    """A study opened: what it asks, and the samples in its rack."""

    id: int
    name: str
    question: str | None
    oil_name: str | None
    circuit_name: str | None
    samples: list[SampleTagOut]
    said: str


class StatusIn(RequestModel):
    """Whether a sample or a study is in use, put away, or deleted; it can always be put back."""

    status: Status


class BehaviourOut(WireModel):
    """What a sample does in the engine whatever it is used for, over the whole map, or why that is not known."""

    sample_id: int
    coldest_pumping_c: float | None
    element_greatest_kpa: float | None
    element_greatest_stuck_kpa: float | None
    speed_rpm: list[float]
    onset_c: list[float | None]
    filling_onset_c: list[float | None]
    problem: str | None
    missing: list[str]


class SampleSummaryOut(WireModel):
    """What is known of a sample in short: its can, its results, what the map of the filter alone still needs, what is copied."""

    sample_id: int
    can_height_mm: float | None
    can_diameter_mm: float | None
    results: ResultsOut
    needs: list[str]
    copied_count: int
    warning_count: int

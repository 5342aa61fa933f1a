"""Wire models of studies."""

from __future__ import annotations

from tabrel.api.wire import RequestModel
from tabrel.core.field_units import Celsius, Kpa, Mm, Rpm
from tabrel.document.results import ResultsOut, WireModel
from tabrel.store.sample.samples import Status


class SampleNameOut(WireModel):
    """Label and status of a sample."""

    id: int
    label: str
    maker: str | None
    part_number: str | None
    status: Status


class SampleTagOut(SampleNameOut):
    """A sample in the rack: identity, and the size of its can where it was measured."""

    can_height_mm: Mm | None
    can_diameter_mm: Mm | None
    is_reference: bool


class StudyRowOut(WireModel):
    """One study in the list, with what its samples are called; counts are of those in use."""

    id: int
    name: str
    question: str | None
    status: Status
    created_at: str
    changed_at: str
    """ISO time in UTC."""
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
    notes: str


class StatusIn(RequestModel):
    """Whether a sample or a study is in use, put away, or deleted; it can always be put back."""

    status: Status


class BehaviourOut(WireModel):
    """Behaviour of a sample over the whole map, independent of its use, or the reason why it is unknown."""

    sample_id: int
    coldest_pumping_c: Celsius | None
    element_greatest_kpa: Kpa | None
    element_greatest_stuck_kpa: Kpa | None
    speed_rpm: list[Rpm]
    onset_c: list[Celsius | None]
    filling_onset_c: list[Celsius | None]
    problem: str | None
    """Reason why there is no result, one sentence."""
    missing: list[str]


class SampleSummaryOut(WireModel):
    """Summary of a sample: its can, its results, what the map of the filter alone still needs, what is copied."""

    sample_id: int
    can_height_mm: Mm | None
    can_diameter_mm: Mm | None
    results: ResultsOut
    needs: list[str]
    copied_count: int
    warning_count: int

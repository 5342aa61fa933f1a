"""What goes over the wire about studies."""

from __future__ import annotations

from tabrel.document.results import WireModel


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

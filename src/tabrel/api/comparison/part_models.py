"""Wire models of filters compared as parts."""

from __future__ import annotations

from tabrel.core.field_units import Percent
from tabrel.core.judge.same_part import FindingState, PartVerdict
from tabrel.document.results import WireModel


class InBothOut(WireModel):
    """A size in metric and in inch units, or the words of what was seen."""

    metric: str
    inch: str


class FindingOut(WireModel):
    """One dimension or attribute of two filters; null where one was not looked at."""

    key: str
    part: str
    title: str
    finding: FindingState
    of_first: InBothOut | None
    """Null if not examined."""
    of_second: InBothOut | None
    """Null if not examined."""
    difference_percent: Percent | None
    """Positive if the second is larger; null for words."""
    difference_in_allowances: float | None
    """Difference over what two specimens of one part may differ by: they differ beyond ±1."""


class PairOut(WireModel):
    """Two filters compared as parts, what tells them apart first."""

    first_label: str
    second_label: str
    part_verdict: PartVerdict
    is_one_part_number: bool
    """Both carry one part number: a difference is one between lots."""
    not_looked_at: list[str]
    findings: list[FindingOut]


class SpecimenOut(WireModel):
    """One specimen of a part number: its study, and when it was made; null where that is not known."""

    sample_id: int
    label: str
    study_name: str
    made: str | None
    """ISO date, month or year; null if unknown."""


class LotsOut(WireModel):
    """The specimens of one part number in the order they were made, each against the one before."""

    maker: str
    part_number: str
    specimens: list[SpecimenOut]
    pairs: list[PairOut]


class SamePartOut(WireModel):
    """Every pair of a study's filters."""

    labels: list[str]
    enough_same: int
    pairs: list[PairOut]

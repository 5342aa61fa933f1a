"""Wire models of filters side by side, against all that were measured, as parts; of the audit of printed sums."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from tabrel.api.catalogue.models import ShownUnitOut
from tabrel.api.maps.models import ConditionIn
from tabrel.api.starts.models import WarmUpTotalsOut
from tabrel.api.wire import RequestModel
from tabrel.core.audit.arithmetic import Verdict
from tabrel.core.field_units import Celsius, Percent, Rpm
from tabrel.core.judge.same_part import FindingState, PartVerdict
from tabrel.core.maps.comparison import FilterAtPoint
from tabrel.core.study.plans import Scenario
from tabrel.document.results import WireModel
from tabrel.document.wire import WIRED


class ComparedFilterOut(WireModel):
    """One series at the crosshair: what restricts, when it bypasses, what a start comes to; or why that cannot be said.

    A series is a sample, or the selected sample in one scenario; the same `key` names it in a slice.
    """

    key: str
    sample_id: int
    label: str
    at_point: Annotated[FilterAtPoint | None, WIRED]
    start: WarmUpTotalsOut | None
    problem: str | None
    """Reason why there is no result, one sentence."""
    missing: list[str]


class ComparisonOut(WireModel):
    """All samples of a study at one place, or one sample in all its scenarios."""

    temperature_c: Celsius
    speed_rpm: Rpm
    start_c: Celsius
    duty_cycle: str
    filters: list[ComparedFilterOut]


class PlaceIn(RequestModel):
    """A place of the map, and how the circuit is thought there; with a sample, that one in all saved scenarios."""

    temperature_c: Celsius = Field(ge=-100, le=300)
    speed_rpm: Rpm = Field(gt=0, le=20000)
    condition: ConditionIn = "steady"
    scenario: Scenario | None = None
    sample_id: int | None = None


# One filter against all that were measured.


class BestSoFarOut(WireModel):
    """The filter that has the best of one measure so far."""

    label: str
    study_name: str
    value: float


class PercentileOut(WireModel):
    """One number of a filter among those of others of its size, in the measure's metric unit."""

    measure: str
    title: str
    value: float
    count: int
    percentile: float | None
    """Share of the others below it, ties half; null without others."""
    quantiles: list[float]
    is_outside: bool
    better: Literal["high", "low"] | None
    best: BestSoFarOut | None
    """Null if neither more nor less of it is better."""
    metric: ShownUnitOut
    inch: ShownUnitOut


class PercentilesOut(WireModel):
    """Percentiles of a filter over every other of its size in the database; while some are still to be computed, their number."""

    label: str
    other_count: int
    remaining: int
    """Samples still to be computed: ask again."""
    is_size_known: bool
    """If not, filters of every size are compared."""
    quantile_percents: list[int]
    places: list[PercentileOut]


# Filters compared as parts.


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


# The audit of printed sums.


class CheckedLineOut(WireModel):
    """One line recomputed: the range its inputs allow and the printed one, in the unit as printed."""

    id: int | None
    """Null for a line that is not stored."""
    label: str
    text: str
    follows: Verdict | None
    """Null if the line could not be read."""
    computed_low: float | None
    computed_high: float | None
    printed_low: float | None
    printed_high: float | None
    unit: str
    """As printed; empty for a bare number."""
    would_explain: list[str]
    sentence: str
    problem: str
    """Reason why the line could not be read, with the correction; empty if it could."""


class FormulaOut(WireModel):
    """A formula that a line can have."""

    name: str
    words: str
    written: str


class ClaimedSumOut(WireModel):
    """A claim that holds a sum: of which filter, and the line in it."""

    label: str
    source: str
    text: str


class ArithmeticOut(WireModel):
    """The lines that are kept with a study, what can be written, and the sums its claims hold."""

    lines: list[CheckedLineOut]
    formulas: list[FormulaOut]
    claimed: list[ClaimedSumOut]


class LinesIn(RequestModel):
    """Lines as they were written or pasted."""

    text: str = Field(max_length=100_000)

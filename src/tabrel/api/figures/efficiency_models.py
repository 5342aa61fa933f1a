"""The efficiency station: counts, curve, claims and estimate in one answer."""

from __future__ import annotations

from tabrel.core.field_units import Grams, Kpa, Minutes, Percent, Um, UmC
from tabrel.document.results import ResultOut, WireModel


class EfficiencyPointOut(WireModel):
    """One counted size: what was counted, gross and net, β and efficiency with their exact interval."""

    size_um: Um
    """On the scale of the test."""
    sizes_um_c: list[UmC]
    """Two if the table names no scale."""
    gross_upstream: float
    gross_downstream: float
    blank_upstream: float
    blank_downstream: float
    beta: float | None
    """Null if nothing was counted downstream."""
    beta_low: float | None
    """Exact 95 % interval."""
    beta_high: float | None
    """Null if the interval is open."""
    percent: Percent | None
    low_percent: Percent | None
    high_percent: Percent | None
    sheds: bool
    """More particles came out than went in."""
    why_not: str
    """Reason why the curve leaves the size out; empty if it does not."""
    lowest_percent: Percent | None
    average_percent: Percent | None
    last_percent: Percent | None


class EfficiencyCurveOut(WireModel):
    """The efficiency curve with its band, in percent over size; beyond the counted sizes it is an extrapolation."""

    read_as: str
    sizes_um_c: list[UmC]
    percent: list[Percent]
    low_percent: list[Percent | None]
    high_percent: list[Percent | None]
    counted_from_um_c: UmC
    """The curve is an extrapolation below this size."""
    counted_to_um_c: UmC
    """The curve is an extrapolation above this size."""


class SizeAtBetaOut(WireModel):
    """The size at which a filtration ratio is reached."""

    beta: float
    """Exact 95 % interval."""
    size_um: ResultOut
    extrapolated: bool


class CountCheckOut(WireModel):
    """One sentence on a test."""

    code: str
    message: str
    is_grave: bool


class BudgetShareOut(WireModel):
    """Contribution of one input to the variance at 20 µm(c)."""

    key: str
    title: str
    share_percent: Percent


class AlongTestOut(WireModel):
    """The test along time: efficiency at each counted size, differential pressure, retained dust."""

    time_min: list[Minutes]
    """Ends of the intervals; their numbers if the table states no times."""
    is_used: list[bool]
    why_not: list[str]
    """Reason by interval; empty if it is used."""
    percent: list[list[Percent | None]]
    low_percent: list[list[Percent | None]]
    high_percent: list[list[Percent | None]]
    differential_kpa: list[Kpa | None]
    retained_g: list[Grams]
    ratio: list[float]
    missing: list[str]


class CountedTestOut(WireModel):
    """A counted test, worked out."""

    scale: str
    intervals: int
    intervals_used: int
    volume_ratio: float
    """r: volume over dilution, downstream over upstream."""
    points: list[EfficiencyPointOut]
    curves: list[EfficiencyCurveOut]
    """Two if the table names no scale, none if no curve fits."""
    why_no_curve: str
    misfit: float | None
    """φ: scatter of the channels over what counting explains; null without a curve."""
    slope: ResultOut
    sizes_at_beta: list[SizeAtBetaOut]
    budget: list[BudgetShareOut]
    checks: list[CountCheckOut]
    along: AlongTestOut
    capacity_g: ResultOut
    terminal_ratio: float


class ComparedClaimOut(WireModel):
    """An efficiency claim beside the counts, and the fibres it would need."""

    words: str
    source: str
    relation: str
    """= unless the claim says otherwise."""
    sizes_um_c: list[UmC]
    percent: Percent | None
    verdict: str | None
    """agree, claim_higher, claim_lower or cannot_be_compared; null without counts."""
    why: str
    fibre_um: Um | None
    fibre_words: str


class EstimateCurveOut(WireModel):
    """The screening estimate with its band, in percent over size."""

    sizes_um_c: list[UmC]
    percent: list[Percent]
    low_percent: list[Percent]
    high_percent: list[Percent]
    valid_to_um_c: UmC


class EfficiencyStationOut(WireModel):
    """Everything that speaks of the micron efficiency of one filter."""

    result: ResultOut
    size_at_beta_75_um: ResultOut
    test: CountedTestOut | None
    problem: str
    """Reason why the counts cannot be used; empty if they can."""
    claims: list[ComparedClaimOut]
    estimate: EstimateCurveOut | None

"""What the efficiency station shows: counts, curve, claims and estimate in one answer."""

from __future__ import annotations

from tabrel.document.results import ResultOut, WireModel


class EfficiencyPointOut(WireModel):
    """One counted size: what was counted, gross and net, β and efficiency with their exact interval."""

    size_um: float
    sizes_um_c: list[float]
    gross_upstream: float
    gross_downstream: float
    blank_upstream: float
    blank_downstream: float
    beta: float | None
    beta_low: float | None
    beta_high: float | None
    percent: float | None
    low_percent: float | None
    high_percent: float | None
    sheds: bool
    why_not: str
    lowest_percent: float | None
    average_percent: float | None
    last_percent: float | None


class EfficiencyCurveOut(WireModel):
    """The efficiency curve with its band, in percent over size; beyond the counted sizes it is an extrapolation."""

    read_as: str
    sizes_um_c: list[float]
    percent: list[float]
    low_percent: list[float | None]
    high_percent: list[float | None]
    counted_from_um_c: float
    counted_to_um_c: float


class SizeAtBetaOut(WireModel):
    """The size at which a filtration ratio is reached."""

    beta: float
    size_um: ResultOut
    extrapolated: bool


class CountCheckOut(WireModel):
    """One sentence on a test."""

    code: str
    message: str
    is_grave: bool


class BudgetShareOut(WireModel):
    """What one input contributes to the variance at 20 µm(c)."""

    key: str
    title: str
    share_percent: float


class AlongTestOut(WireModel):
    """The test along time: efficiency at each counted size, differential pressure, retained dust."""

    time_min: list[float]
    is_used: list[bool]
    why_not: list[str]
    percent: list[list[float | None]]
    low_percent: list[list[float | None]]
    high_percent: list[list[float | None]]
    differential_kpa: list[float | None]
    retained_g: list[float]
    ratio: list[float]
    missing: list[str]


class CountedTestOut(WireModel):
    """A counted test, worked out."""

    scale: str
    intervals: int
    intervals_used: int
    volume_ratio: float
    points: list[EfficiencyPointOut]
    curves: list[EfficiencyCurveOut]
    why_no_curve: str
    misfit: float | None
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
    sizes_um_c: list[float]
    percent: float | None
    verdict: str | None
    why: str
    fibre_um: float | None
    fibre_words: str


class EstimateCurveOut(WireModel):
    """The screening estimate with its band, in percent over size."""

    sizes_um_c: list[float]
    percent: list[float]
    low_percent: list[float]
    high_percent: list[float]
    valid_to_um_c: float


class EfficiencyStationOut(WireModel):
    """Everything that speaks of the micron efficiency of one filter."""

    result: ResultOut
    size_at_beta_75_um: ResultOut
    test: CountedTestOut | None
    problem: str
    claims: list[ComparedClaimOut]
    estimate: EstimateCurveOut | None

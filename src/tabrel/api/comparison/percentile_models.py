"""Wire models of one filter against all that were measured."""

from __future__ import annotations

from typing import Literal

from tabrel.api.catalogue.models import ShownUnitOut
from tabrel.document.results import WireModel


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

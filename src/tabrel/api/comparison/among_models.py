"""What goes over the wire about a filter among all that was measured."""

from __future__ import annotations

from typing import Literal

from tabrel.api.catalogue.models import ShownUnitOut
from tabrel.document.results import WireModel


class BestSoFarOut(WireModel):
    """The filter that has the best of one measure so far."""

    label: str
    study_name: str
    value: float


class PlaceAmongOut(WireModel):
    """One number of a filter among those of others of its size, in the measure's metric unit."""

    measure: str
    title: str
    value: float
    count: int
    percentile: float | None
    quantiles: list[float]
    is_outside: bool
    better: Literal["high", "low"] | None
    best: BestSoFarOut | None
    metric: ShownUnitOut
    inch: ShownUnitOut


class AmongOut(WireModel):
    """A filter among every other of its size in the database; while some are still to be computed, their number."""

    label: str
    other_count: int
    remaining: int
    is_size_known: bool
    quantile_percents: list[int]
    places: list[PlaceAmongOut]

"""The working of a result, as it goes out."""

from __future__ import annotations

from typing import Annotated

from tabrel.core.field_units import Percent
from tabrel.core.results.budget import Covariance
from tabrel.document.results import WireModel
from tabrel.document.wire import WIRED


class WorkingPieceOut(WireModel):
    """A piece of a line: plain text, or a number with what it is and where it comes from."""

    text: str
    metric: str | None = None
    inch: str | None = None
    words: str | None = None
    key: str | None = None
    provenance: str | None = None
    """Null for measured."""


class WorkingStepOut(WireModel):
    """One line of a working."""

    symbol: str
    words: str
    formula: str
    pieces: list[WorkingPieceOut]
    metric: str
    inch: str


class ContributionOut(WireModel):
    """Contribution of one input to the uncertainty of a result, and a way to reduce it."""

    key: str
    title: str
    source: str
    metric: str
    inch: str
    share_percent: Percent
    smaller: str


class BudgetOut(WireModel):
    """The uncertainty budget: contributions whose squares sum to that of the standard uncertainty, the largest first."""

    metric_uncertainty: str
    inch_uncertainty: str
    contributions: list[ContributionOut]
    covariances: Annotated[list[Covariance], WIRED]


class WorkingOut(WireModel):
    """The working of one result, line by line."""

    title: str
    steps: list[WorkingStepOut]
    budget: BudgetOut | None
    without_budget: str
    """Reason why there is no budget."""

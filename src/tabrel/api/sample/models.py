"""The bench sheet of a sample, and what comes in about its state."""

from __future__ import annotations

from typing import Annotated, Literal

from tabrel.core.details.details import DetailValue
from tabrel.core.field_units import Percent
from tabrel.core.figures.plate_summary import PlateSummary
from tabrel.core.review.before_cut import GateItem
from tabrel.core.review.needs import OpenNeed
from tabrel.core.study.model import Offer
from tabrel.document.results import AnalysisOut, WireModel
from tabrel.document.wire import WIRED
from tabrel.report.figures.drawings import DrawnFilter

DetailNumbers = Annotated[dict[str, DetailValue], WIRED]
"""Details that are numbers, by key; their texts are among the others."""


class ReadingOut(WireModel):
    """One reading as typed, what was recorded of it, and its value in both families."""

    id: int
    text: str
    taken_at: str | None
    """ISO time in UTC; null if unknown."""
    instrument: str | None
    """Null for the usual one."""
    provenance: str
    """Null for measured."""
    note: str | None
    confirmed: bool
    set_aside_reason: str | None
    """Null while the reading is used."""
    metric: str
    inch: str
    outlier: bool
    used: bool
    copied_from: str | None
    hole: int | None
    """Its number in the group; null if not said."""
    nominal_metric: str | None
    """Nominal size of a drill that goes; null for any other reading."""
    nominal_inch: str | None


class EstimateOut(WireModel):
    """Mean, standard and expanded uncertainty in both families."""

    metric_value: float
    metric_uncertainty: float
    metric_expanded: float
    inch_value: float
    inch_uncertainty: float
    inch_expanded: float
    provenance: str
    """Null for measured."""
    used: int


class KeptRowOut(WireModel):
    """One value of a part of the document, with the keys that lead to it."""

    key: str
    value: str


class KeptPartOut(WireModel):
    """A part of the document that is kept and shown by no station yet."""

    title: str
    rows: list[KeptRowOut]


class BoundOut(WireModel):
    """The bounds read of a quantity that has no value, in words, in both families."""

    metric: str
    inch: str


class FieldWarningOut(WireModel):
    """A warning at a field, with the reading it concerns and the likely intention."""

    message: str
    reading_id: int | None
    correction: str | None
    """Likely intention, as the analyst would type it."""
    confirmed: bool


class FieldOut(WireModel):
    """One field of the bench."""

    key: str
    title: str
    metric_unit: str
    inch_unit: str
    instrument: str
    """Null for the usual one."""
    instruments: list[str]
    drawing: str
    counted: bool
    whole_only: bool
    """Readable only before the filter is cut open."""
    readings: list[ReadingOut]
    estimate: EstimateOut | None
    bound: BoundOut | None
    state: str | None
    """Reason for the missing value."""
    warnings: list[FieldWarningOut]


class HoleGroupOut(WireModel):
    """A group of holes: what is not a reading of it."""

    id: int
    placement: Literal["inlet", "centre_tube"]
    position: int
    """From 0."""
    shape: str
    count: int
    open_percent: Percent
    points: str
    words: str


class ObservedValueOut(WireModel):
    """An observation of a sample, by its key in the catalogue."""

    key: str
    value: str | None
    """Null if not examined."""


class PartOut(WireModel):
    """The fields of one part at one stage, or of one group of holes."""

    key: str
    title: str
    stage: str
    fields: list[FieldOut]
    observations: list[ObservedValueOut]
    hole_group: HoleGroupOut | None


class ClaimOut(WireModel):
    """A claim with what the readings say of it."""

    id: int
    kind: str
    words: str
    source: str
    speaker: str | None
    seen: str | None
    """ISO date."""
    stale: str | None
    """Reason why the claim no longer holds."""
    verdict: str
    reason: str


class PlateOut(WireModel):
    """The plate from below, and the figures beside its two areas."""

    drawing: Annotated[DrawnFilter, WIRED]
    summary: Annotated[PlateSummary, WIRED]


class CutOut(WireModel):
    """That and how the filter was cut."""

    method: str
    at: str | None
    """ISO time in UTC; null if unknown."""
    note: str | None


class BeforeCutOut(WireModel):
    """Readings still missing before the cut, and the record of the cut."""

    missing: Annotated[list[GateItem], WIRED]
    cut: CutOut | None


class MovableOut(WireModel):
    """The change that undo or redo would move, and whether it was made in the window that asks."""

    change_id: int
    """The change as the window saw it; null if there was none."""
    words: str
    is_own: bool


class NeedsOut(WireModel):
    """Inputs that the two maps still need, each once, in the order of the work."""

    filter_alone: Annotated[list[OpenNeed], WIRED]
    map: Annotated[list[OpenNeed], WIRED]


class OfferOut(WireModel):
    """An offer of a part, and what one piece costs where one pack is ordered."""

    id: int
    shop: str
    price: str
    pack_of: int
    delivery: str | None
    """Per pack, in the currency of the price."""
    seen: str | None
    """ISO date."""
    each: str
    each_amount: float
    currency: str


class SheetOut(WireModel):
    """Everything the bench shows of a sample: fields by part, details, claims, plate, the cut, results, warnings."""

    id: int
    study_id: int
    revision: int
    revisions: dict[str, int]
    """Revision by details/KEY, observations/KEY, states/KEY, oil, cut, readings/ID, holes/ID and claims/ID; 0 if absent."""
    label: str
    parts: list[PartOut]
    details: dict[str, str]
    detail_numbers: DetailNumbers
    detail_questions: dict[str, str]
    claims: list[ClaimOut]
    contradictions: list[str]
    offers: list[OfferOut]
    copied: dict[str, str]
    """Source by unconfirmed fact, group of holes or claim."""
    shelf: str | None
    """Time on the shelf, in words; null if unknown."""
    plate: PlateOut
    before_cut: BeforeCutOut
    needs: NeedsOut
    analysis: AnalysisOut
    input_counts: dict[str, dict[str, int]]
    undo: MovableOut | None
    redo: MovableOut | None


def offer_out(offer_id: int, offer: Offer) -> OfferOut:
    """Return an offer with what one piece costs."""
    return OfferOut(
        id=offer_id,
        shop=offer.shop,
        price=f"{offer.amount:.2f} {offer.currency}",
        pack_of=offer.pack_of or 1,
        delivery=None if offer.delivery is None else f"{offer.delivery:.2f} {offer.currency}",
        seen=offer.seen,
        each=f"{offer.each:.2f} {offer.currency}",
        each_amount=offer.each,
        currency=offer.currency,
    )

"""Wire models of a field: its text and the answers."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from tabrel.api.sample.models import EstimateOut
from tabrel.api.wire import RequestModel, UnitFamilyIn
from tabrel.core.catalogue.terms import CorrectionReason
from tabrel.core.field_units import Percent
from tabrel.core.review.copies import USUAL_PARTS, CopiedPart
from tabrel.core.study.model import HoleShape, Instrument, Provenance, QuantityState, Speaker
from tabrel.document.results import WireModel


class EchoOut(WireModel):
    """A text as understood."""

    text: str
    metric: str
    inch: str
    problem: str | None
    """Reason why there is no result, one sentence."""
    question: str | None
    """Question to the analyst before the value is stored."""
    correction: str | None
    """Likely intention, as the analyst would type it."""
    estimate: EstimateOut | None


class HistoryOut(WireModel):
    """One thing that was done to a reading."""

    words: str
    at: str
    """ISO time in UTC."""
    undone: bool


class ReadingIn(RequestModel):
    """Text of a field: key, text, the family of a bare number, and whether a questioned value is confirmed."""

    key: str
    text: str
    family: UnitFamilyIn = "metric"
    provenance: Provenance | None = None
    """Null for measured."""
    instrument: Instrument | None = None
    """Null for the usual one."""
    note: str | None = None
    confirm: bool = False
    """The analyst means a questioned value as typed."""
    hole_group_id: int | None = Field(default=None, ge=0, lt=2**63)
    """Group of holes that the window showed under the key: another one there is refused. Null for other keys."""


class StateIn(RequestModel):
    """Why a quantity has no value; null removes the state."""

    state: QuantityState | None


class DuplicateIn(RequestModel):
    """Source of a new sample: parts of another one or of a template; without a label it gets a free one."""

    sample_id: int | None = Field(default=None, ge=0, lt=2**63)
    template_id: int | None = Field(default=None, ge=0, lt=2**63)
    label: str = ""
    parts: list[CopiedPart] = Field(default=list(USUAL_PARTS), max_length=30)
    without_gone: bool = False


class TemplateIn(RequestModel):
    """A name for parts of a sample, to begin others with; one of the same name is replaced only where that is said."""

    name: str
    sample_id: int = Field(ge=0, lt=2**63)
    parts: list[CopiedPart] = Field(default=list(USUAL_PARTS), max_length=30)
    replace: bool = False


class TemplateOut(WireModel):
    """A template: what it was made of, and the keys in it that this program no longer knows."""

    id: int
    name: str
    parts: list[str]
    saved_at: str
    """ISO time in UTC."""
    gone: list[str]


class ConfirmationIn(RequestModel):
    """Copied facts to be confirmed: keys as in `revisions`, or ``readings/ID``, ``holes/ID``, ``claims/ID``."""

    things: list[str] = Field(min_length=1, max_length=2000)
    """Keys as in `revisions`."""


class CutIn(RequestModel):
    """How the filter was cut open."""

    method: str
    note: str = ""


class CorrectionIn(RequestModel):
    """Correction of a reading, as typed, and the reason."""

    text: str
    family: UnitFamilyIn = "metric"
    reason: CorrectionReason = "slip"


class SetAsideIn(RequestModel):
    """Why a reading is set aside."""

    reason: str


class DetailIn(RequestModel):
    """A detail as typed; an empty text removes it."""

    text: str = Field(max_length=4000)
    family: UnitFamilyIn = "metric"


class ObservationIn(RequestModel):
    """An observation; null removes it."""

    text: str | None


class HolesIn(RequestModel):
    """A group of holes in one line, such as ``8 x 5.6 mm``."""

    text: str
    family: UnitFamilyIn = "metric"
    placement: Literal["inlet", "centre_tube"] = "inlet"


class HoleGroupIn(RequestModel):
    """A group of holes apart from its readings."""

    shape: HoleShape
    count: int
    open_percent: Percent = 100.0
    points: str = ""


class DateCodeRuleIn(RequestModel):
    """How date codes are read: a name, a pattern such as ``{Y}{DDD}``, and whose codes; everybody's where nobody is named."""

    name: str
    pattern: str
    maker: str | None = None


class DateCodeRuleOut(WireModel):
    """A rule with its pattern in words."""

    id: int
    name: str
    pattern: str
    maker: str | None
    words: str


class DateCodeReadingOut(WireModel):
    """Date that one rule reads from a date code, and the decade before if the code has only the last figure of the year."""

    rule: str
    iso: str
    """As far as the code determines it."""
    words: str
    decade_before: str | None
    """The same date ten years earlier, if the code allows both."""


class DateCodeOut(WireModel):
    """A sample's date code with what the rules make of it, what is to be looked at, and all rules."""

    code: str | None
    readings: list[DateCodeReadingOut]
    says: str | None
    rules: list[DateCodeRuleOut]


class OfferIn(RequestModel):
    """An offer as typed: shop, price of the pack with its currency, how many are in it, delivery, when it was seen."""

    shop: str
    price: str
    pack_of: str = ""
    delivery: str = ""
    seen: str = ""
    """ISO date."""


class ClaimIn(RequestModel):
    """A claim: words as printed, or what is claimed of a reading or an observation."""

    source: str
    wording: str = ""
    key: str | None = None
    value: str = ""
    """With its unit; empty for words."""
    speaker: Speaker | None = None
    seen: str | None = None
    """ISO date."""

"""What comes in from a field, and what it is answered with."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from tabrel.api.sample.models import EstimateOut
from tabrel.api.wire import RequestModel, UnitFamilyIn
from tabrel.core.study.model import HoleShape, Instrument, Provenance, Speaker
from tabrel.document.results import WireModel


class EchoOut(WireModel):
    """What was understood of a text."""

    text: str
    metric: str
    inch: str
    problem: str | None
    question: str | None
    correction: str | None
    estimate: EstimateOut | None


class HistoryOut(WireModel):
    """One thing that was done to a reading."""

    words: str
    at: str
    undone: bool


class ReadingIn(RequestModel):
    """What was typed into a field: key, text, the family of a bare number, and whether a questioned value is confirmed."""

    key: str
    text: str
    family: UnitFamilyIn = "metric"
    provenance: Provenance | None = None
    instrument: Instrument | None = None
    note: str | None = None
    confirm: bool = False


class SetAsideIn(RequestModel):
    """Why a reading is set aside."""

    reason: str


class DetailIn(RequestModel):
    """A detail as typed, and as it was seen before; an empty text removes it."""

    key: str
    text: str = Field(max_length=4000)
    family: UnitFamilyIn = "metric"
    seen: str | None = Field(default=None, max_length=4000)


class ObservationIn(RequestModel):
    """What is seen, and what the field showed before; null removes it."""

    key: str
    text: str | None
    seen: str | None = None


class HolesIn(RequestModel):
    """A group of holes in one line, such as ``8 x 5.6 mm``."""

    text: str
    family: UnitFamilyIn = "metric"
    placement: Literal["inlet", "centre_tube"] = "inlet"


class HoleGroupIn(RequestModel):
    """What of a group of holes is no reading, and the words of the group as it was seen before."""

    shape: HoleShape
    count: int
    seen: str
    open_percent: float = 100.0
    points: str = ""


class SeenIn(RequestModel):
    """The words of a group of holes as it was seen before it is removed."""

    seen: str


class ClaimIn(RequestModel):
    """A claim: words as printed, or what is claimed of a reading or an observation."""

    source: str
    wording: str = ""
    key: str | None = None
    value: str = ""
    speaker: Speaker | None = None
    seen: str | None = None

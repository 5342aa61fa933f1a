"""What comes in over the wire."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from tabrel.core.study.model import HoleShape, Instrument, Provenance, QuantityState, Speaker

UnitFamilyIn = Literal["metric", "inch"]


class RequestModel(BaseModel):
    """A model that comes in: unknown keys and numbers that are not finite are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, str_max_length=400)


class ReadingIn(RequestModel):
    """What was typed into a field: key, text, the family a bare number is meant in, and whether the analyst insists."""

    key: str
    text: str
    family: UnitFamilyIn = "metric"
    provenance: Provenance | None = None
    instrument: Instrument | None = None
    note: str | None = None
    insist: bool = False


class TextIn(RequestModel):
    """A few words."""

    text: str


class StrikeOutIn(RequestModel):
    """Why a reading is struck out."""

    reason: str


class StateIn(RequestModel):
    """Why a quantity has no value; null takes the state away."""

    key: str
    state: QuantityState | None


class FactIn(RequestModel):
    """A fact as typed, and as it was seen before; an empty text takes it away."""

    key: str
    text: str = Field(max_length=4000)
    family: UnitFamilyIn = "metric"
    seen: str | None = Field(default=None, max_length=4000)


class ObservationIn(RequestModel):
    """What is seen, and what the field showed before; null takes it away."""

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


class CutIn(RequestModel):
    """How the filter was cut open."""

    method: str
    note: str = ""


class ClaimIn(RequestModel):
    """A claim: words as printed, or what is claimed of a reading or an attribute."""

    source: str
    wording: str = ""
    key: str | None = None
    value: str = ""
    speaker: Speaker | None = None
    seen: str | None = None

"""Answers to a change."""

from __future__ import annotations

from typing import Any

from pydantic import Field, GetJsonSchemaHandler, SerializerFunctionWrapHandler, model_serializer
from pydantic.json_schema import JsonSchemaValue

from tabrel.api.figures.models import FiguresOut
from tabrel.api.sample.models import (
    BeforeCutOut,
    ClaimOut,
    DetailNumbers,
    FieldOut,
    MovableOut,
    NeedsOut,
    ObservedValueOut,
    OfferOut,
    PartOut,
    PlateOut,
    SheetOut,
)
from tabrel.api.study.models import StudyOut
from tabrel.api.wire import RequestModel
from tabrel.document.results import AnalysisOut, WireModel


class SheetChangesOut(WireModel):
    """Difference to the sheet that the window has; an absent member is unchanged."""

    revision: int
    fields: list[FieldOut]
    observations: list[ObservedValueOut]
    parts: list[PartOut] = Field(default_factory=list)
    label: str = Field(default_factory=str)
    revisions: dict[str, int] = Field(default_factory=dict)
    """Revision by details/KEY, observations/KEY, states/KEY, oil, cut, readings/ID, holes/ID and claims/ID; 0 if absent."""
    details: dict[str, str] = Field(default_factory=dict)
    detail_numbers: DetailNumbers = Field(default_factory=dict)
    detail_questions: dict[str, str] = Field(default_factory=dict)
    claims: list[ClaimOut] = Field(default_factory=list)
    contradictions: list[str] = Field(default_factory=list)
    offers: list[OfferOut] = Field(default_factory=list)
    copied: dict[str, str] = Field(default_factory=dict)
    """Source by unconfirmed fact, group of holes or claim."""
    shelf: str | None = None
    """Time on the shelf, in words; null if unknown."""
    plate: PlateOut | None = None
    before_cut: BeforeCutOut | None = None
    needs: NeedsOut | None = None
    analysis: AnalysisOut | None = None
    input_counts: dict[str, dict[str, int]] = Field(default_factory=dict)
    undo: MovableOut | None = None
    redo: MovableOut | None = None

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: Any, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        """Describe the members as they are, of which only some are sent."""
        return handler({name: part for name, part in schema.items() if name != "serialization"})

    @model_serializer(mode="wrap")
    def _only_changed(self, handler: SerializerFunctionWrapHandler) -> dict[str, Any]:
        return {name: value for name, value in handler(self).items() if name in self.model_fields_set}


class ChangedOut(WireModel):
    """A sample after a change: what is different from the sheet that the window has, or the whole sheet; and what was asked for.

    Neither sheet nor changes: the sample is no longer there.
    """

    sample_id: int
    study_id: int
    sheet: SheetOut | None
    """The whole sheet, if the window named no revision that the service remembers."""
    changes: SheetChangesOut | None
    """Difference to the sheet the window has; null if the whole sheet comes, or the sample was deleted."""
    figures: FiguresOut | None
    """Null if the window did not ask for them."""
    study: StudyOut | None
    """The study as the rack shows it, if the change touched it."""


class UndoneOut(ChangedOut):
    """Answer to undo and redo: the change and its place."""

    words: str
    place: str


class MoveIn(RequestModel):
    """Which change is to be undone or redone, as it was seen, and whether it may be another window's."""

    change_id: int | None = Field(default=None, ge=0, lt=2**63)
    """The change as the window saw it; null if there was none."""
    of_another_window: bool = False

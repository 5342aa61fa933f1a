"""Wire models of the uses of a study, and of their measures."""

from __future__ import annotations

from typing import Literal

from tabrel.api.catalogue.models import ShownUnitOut
from tabrel.api.wire import RequestModel, UnitFamilyIn
from tabrel.core.study.uses import Use
from tabrel.document.results import WireModel


class StoredUseOut(WireModel):
    """A use as it is kept."""

    id: int
    use: Use


class PresetOut(WireModel):
    """A use to begin with."""

    name: str
    about: str


class MeasureOut(WireModel):
    """A measure of a criterion or a requirement: a number with its unit in each family, or what was seen with its choices."""

    key: str
    title: str
    group: str
    is_number: bool
    """False for what is seen rather than measured."""
    better: Literal["high", "low"] | None
    metric: ShownUnitOut
    inch: ShownUnitOut
    choices: list[str]


class ComparedNameOut(WireModel):
    """A filter that is compared, and its place in the rack, from 0."""

    sample_id: int
    label: str
    rack_place: int
    """From 0; the colour follows it."""


class UsesOut(WireModel):
    """The uses of a study, and what is there to make one."""

    uses: list[StoredUseOut]
    presets: list[PresetOut]
    measures: list[MeasureOut]
    filters: list[ComparedNameOut]
    tiers: list[str]
    shops: list[str]


class NewUseIn(RequestModel):
    """Which preset a use begins with."""

    preset: str


class UseChangeIn(RequestModel):
    """A use as it is to be, and as it was seen."""

    use: Use
    seen: Use
    """As it was when the window began: refused if it is different by now."""


class PreferenceOut(WireModel):
    """An observation, its choices, and the order in which the analyst prefers them; empty where none is preferred."""

    key: str
    title: str
    part: str
    choices: list[str]
    order: list[list[str]]


class PreferenceIn(RequestModel):
    """Choices of an observation, the best first, ties together; and the order as it was seen."""

    order: list[list[str]]
    seen: list[list[str]]
    """As it was when the window began: refused if it is different by now."""


class MeasureNumberIn(RequestModel):
    """A number of a measure as typed."""

    measure: str
    text: str
    family: UnitFamilyIn = "metric"


class MeasureNumberOut(WireModel):
    """A number as understood, in the unit of the measure and as shown in each family."""

    value: float
    metric: str
    inch: str

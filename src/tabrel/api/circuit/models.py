"""Wire models of oil and engine."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from tabrel.api.wire import RequestModel, UnitFamilyIn
from tabrel.core.circuit.hot_point import HotPoint
from tabrel.core.details.library_engine import EngineLine
from tabrel.core.field_units import Celsius, KgPerM3, Mm2PerS, MpaS
from tabrel.core.study.model import ViscosityPoint
from tabrel.document.results import WireModel
from tabrel.document.wire import WIRED


class OilPointOut(WireModel):
    """A point of the viscosity line, in both kinds of viscosity, and as it was stated in one of them."""

    temperature_c: Celsius
    stated: float
    kinematic_mm2_s: Mm2PerS
    dynamic_mpa_s: MpaS
    is_dynamic: bool
    """In mPa·s; else kinematic, in mm²/s."""
    high_shear: bool
    typed_temperature: str | None
    typed_viscosity: str | None


class OilLineOut(WireModel):
    """The viscosity line in steps of half a kelvin, its points, and where it is only extended."""

    temperature_c: list[Celsius]
    kinematic_mm2_s: list[Mm2PerS]
    dynamic_mpa_s: list[MpaS]
    density_kg_m3: list[KgPerM3]
    points: list[OilPointOut]
    coldest_point_c: Celsius
    warmest_point_c: Celsius
    coldest_pumping_c: Celsius
    viscosity: list[ViscosityPoint]


class LibraryEngineOut(WireModel):
    """An engine of the library, in a few words of either family; `id` is null for one that is shipped."""

    id: int | None
    name: str
    metric: str
    inch: str


class EngineOut(WireModel):
    """Oil and engine of a study, with a sample fitted for the check."""

    oil: OilLineOut | None
    oil_revision: int
    grades: list[str]
    hot_point: Annotated[HotPoint | None, WIRED]
    missing: list[str]
    problem: str | None
    """Reason why there is no result, one sentence."""
    library: list[LibraryEngineOut]


class MovedPointIn(RequestModel):
    """A point of the line being moved: which of those given, and where it now is."""

    index: int = Field(ge=0)
    """From 0."""
    temperature_c: Celsius
    kinematic_mm2_s: Mm2PerS


class OilLineIn(RequestModel):
    """Viscosity points and density, to draw the line of an oil that is not saved; one of them may be moved."""

    density_15c_kg_m3: KgPerM3
    viscosity: list[ViscosityPoint] = Field(max_length=40)
    pumping_limit_c: Celsius | None = None
    moved: MovedPointIn | None = None


class OilRowIn(RequestModel):
    """A point of the viscosity line as typed."""

    temperature: str = Field(max_length=60)
    viscosity: str = Field(max_length=60)
    is_dynamic: bool = False
    """In mPa·s; else kinematic, in mm²/s."""
    high_shear: bool | None = None


class OilIn(RequestModel):
    """The points of the study's oil as typed or as drawn, or the grade whose typical oil it is to become."""

    grade: str | None = None
    """Null to set points."""
    rows: list[OilRowIn] | None = Field(default=None, max_length=40)
    family: UnitFamilyIn | None = None
    """In which a bare temperature of a row is meant; null for metric."""
    viscosity: list[ViscosityPoint] | None = Field(default=None, max_length=40)


class EngineIn(RequestModel):
    """Which engine of the library the study is to have, and which lines stay as they are."""

    name: str
    keep: list[str] = Field(default=[], max_length=200)


class EngineNameIn(RequestModel):
    """An engine of the library."""

    name: str


class EngineLinesOut(WireModel):
    """Everything that an engine of the library would change, and how the lines stand now."""

    name: str
    lines: Annotated[list[EngineLine], WIRED]
    revision: int

"""What goes over the wire about oil and engine."""

from __future__ import annotations

from pydantic import Field

from tabrel.api.wire import RequestModel
from tabrel.core.study.model import ViscosityPoint
from tabrel.document.results import WireModel


class OilPointOut(WireModel):
    """A point of the viscosity line, in both kinds of viscosity, and as it was stated in one of them."""

    temperature_c: float
    stated: float
    kinematic_mm2_s: float
    dynamic_mpa_s: float
    is_dynamic: bool
    high_shear: bool
    typed_temperature: str | None
    typed_viscosity: str | None


class OilLineOut(WireModel):
    """The viscosity line in steps of half a kelvin, its points, and where it is only extended."""

    temperature_c: list[float]
    kinematic_mm2_s: list[float]
    dynamic_mpa_s: list[float]
    density_kg_m3: list[float]
    points: list[OilPointOut]
    coldest_point_c: float
    warmest_point_c: float
    coldest_pumping_c: float
    viscosity: list[ViscosityPoint]


class StudLossOut(WireModel):
    """A bore of the stud, and what it costs at the hot point."""

    bore_mm: float
    loss_kpa: float


class HotPointOut(WireModel):
    """The circuit at its hot point."""

    displaced_l_min: float
    slip_l_min: float
    flow_l_min: float
    bearings_l_min: float
    jets_l_min: float
    jet_diameter_mm: float | None
    bearing_viscosity_mpa_s: float
    stated_kpa: float
    computed_kpa: float | None
    leftover_percent: float | None
    studs: list[StudLossOut]


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
    hot_point: HotPointOut | None
    missing: list[str]
    problem: str | None
    library: list[LibraryEngineOut]


class MovedPointIn(RequestModel):
    """A point of the line being moved: which of those given, and where it now is."""

    index: int = Field(ge=0)
    temperature_c: float
    kinematic_mm2_s: float


class OilLineIn(RequestModel):
    """Viscosity points and density, to draw the line of an oil that is not saved; one of them may be moved."""

    density_15c_kg_m3: float
    viscosity: list[ViscosityPoint] = Field(max_length=40)
    pumping_limit_c: float | None = None
    moved: MovedPointIn | None = None


class OilRowIn(RequestModel):
    """A point of the viscosity line as typed."""

    temperature: str = Field(max_length=60)
    viscosity: str = Field(max_length=60)
    is_dynamic: bool = False
    high_shear: bool | None = None


class OilIn(RequestModel):
    """The points of the study's oil as typed or as drawn, or the grade whose typical oil it is to become."""

    grade: str | None = None
    rows: list[OilRowIn] | None = Field(default=None, max_length=40)
    viscosity: list[ViscosityPoint] | None = Field(default=None, max_length=40)


class EngineIn(RequestModel):
    """Which engine of the library the study is to have, and which lines stay as they are."""

    name: str
    keep: list[str] = Field(default=[], max_length=200)


class EngineNameIn(RequestModel):
    """An engine of the library."""

    name: str


class EngineLineOut(WireModel):
    """One line that an engine of the library would change; null where nothing stands or would stand."""

    key: str
    title: str
    part: str
    now_metric: str | None
    now_inch: str | None
    now_typed: str | None
    then_metric: str | None
    then_inch: str | None
    is_own: bool


class EngineLinesOut(WireModel):
    """Everything that an engine of the library would change, and how the lines stand now."""

    name: str
    lines: list[EngineLineOut]
    revision: int

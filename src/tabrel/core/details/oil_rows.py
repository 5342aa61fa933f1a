"""Points of an oil's viscosity line as a person types them, row by row."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.entry.field_line import taken_provenance
from tabrel.core.entry.stated_number import number_text, understood_number, with_stated_unit
from tabrel.core.errors import ReadingTextError
from tabrel.core.study.model import Oil, Study, TypedNumber, ViscosityPoint
from tabrel.core.study.number_keys import number_key, with_typed_at

KINEMATIC, DYNAMIC = "mm2/s", "mPa.s"


@dataclass(frozen=True)
class OilRow:
    """One row: temperature and viscosity as typed, of which kind a bare viscosity is, and whether it was taken at high shear."""

    temperature: str
    viscosity: str
    is_dynamic: bool
    high_shear: bool | None = None


def with_oil_rows(study: Study, oil: Oil, rows: Sequence[OilRow], family: UnitFamily = "metric") -> Study:
    """Return a study whose oil has the points that rows say; what was typed with a unit is kept as typed.

    Parameters
    ----------
    study : Study
        Never changed itself.
    oil : Oil
        Whose points they are.
    rows : sequence of OilRow
        A viscosity with a unit says its kind itself.
    family : str
        In which a bare temperature is meant.

    Raises
    ------
    ReadingTextError
        If a row is no point, with its number and the correction.
    """
    points: list[ViscosityPoint] = []
    typed: dict[tuple[str, ...], TypedNumber] = {}
    for i, row in enumerate(rows):
        try:
            celsius, temperature = _number(row.temperature, "°C", "temperature", family)
            is_dynamic = _is_dynamic(row)
            unit, field = (DYNAMIC, "dynamic_mpa_s") if is_dynamic else (KINEMATIC, "kinematic_mm2_s")
            value, viscosity = _number(row.viscosity, unit, "viscosity", family)
        except ReadingTextError as error:
            raise ReadingTextError(f"point {i + 1}: {error}") from error
        if value <= 0:
            raise ReadingTextError(f"point {i + 1}: a viscosity of {row.viscosity!r} must be above zero: check the number")
        points.append(ViscosityPoint(celsius, None if is_dynamic else value, value if is_dynamic else None, row.high_shear))
        for name, typed_number in (("temperature_c", temperature), (field, viscosity)):
            if typed_number:
                typed[("oil", f"viscosity[{i}]", name)] = typed_number
    return _with_points(study, replace(oil, viscosity=tuple(points)), typed)


def with_oil_points(study: Study, oil: Oil) -> Study:
    """Return a study with an oil whose points were drawn, not typed: of those that moved nothing as typed is kept."""
    before = study.oil.viscosity if study.oil else ()
    places = [
        ("oil", f"viscosity[{i}]", name)
        for i in range(len(before))
        for name in ("temperature_c", "kinematic_mm2_s", "dynamic_mpa_s")
    ]
    kept: dict[tuple[str, ...], TypedNumber] = {
        place: study.as_typed[key]
        for place in places
        if (key := number_key("study", place)) in study.as_typed
        and (i := int(place[1][10:-1])) < len(oil.viscosity)
        and oil.viscosity[i] == before[i]
    }
    return _with_points(study, oil, kept)


def _with_points(study: Study, oil: Oil, typed: dict[tuple[str, ...], TypedNumber]) -> Study:
    as_typed = {
        key: typed_number for key, typed_number in study.as_typed.items() if not key.removeprefix("oil.").startswith("viscosity[")
    }
    for place, typed_number in typed.items():
        as_typed = with_typed_at("study", as_typed, place, typed_number)
    return replace(study, oil=oil, as_typed=as_typed)


def _is_dynamic(row: OilRow) -> bool:
    """Return whether a viscosity is dynamic: by its unit, else by the kind chosen beside it."""
    for unit in (DYNAMIC, KINEMATIC) if row.is_dynamic else (KINEMATIC, DYNAMIC):
        try:
            understood_number(taken_provenance(row.viscosity)[0], unit, "viscosity", "metric")
        except ReadingTextError:
            continue
        return unit == DYNAMIC
    return row.is_dynamic


def _number(text: str, unit: str, title: str, family: UnitFamily) -> tuple[float, TypedNumber | None]:
    """Return a typed number, and what is kept of it as typed; nothing of one that shows so in the document's unit."""
    plain, provenance = taken_provenance(" ".join(text.split()))
    if not plain:
        raise ReadingTextError(f"the {title} is missing: type it")
    value = understood_number(plain, unit, title, family)
    whole = with_stated_unit(plain, unit, title, family)
    is_plain = provenance is None and whole in (f"{plain} {unit}", number_text(value, unit))
    return value, None if is_plain else TypedNumber(whole, provenance)

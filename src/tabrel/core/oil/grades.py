"""Typical oils of the SAE J300 viscosity grades, to begin with if there is no data sheet."""

from __future__ import annotations

from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.study.model import Oil, ViscosityPoint


def _typical(name: str, density: float, at_40: float, at_100: float, cranking: tuple[float, float] | None, limit: float) -> Oil:
    points = [ViscosityPoint(40.0, kinematic_mm2_s=at_40), ViscosityPoint(100.0, kinematic_mm2_s=at_100)]
    if cranking:
        celsius, viscosity = cranking
        points.insert(0, ViscosityPoint(celsius, dynamic_mpa_s=viscosity, high_shear=True))
    return Oil(density, tuple(points), f"{name}, typical", limit, "assumed")


GRADES: dict[str, Oil] = {
    "0W-20": _typical("0W-20", 843.0, 44.0, 8.4, (-35.0, 5400.0), -40.0),
    "0W-30": _typical("0W-30", 846.0, 56.0, 10.4, (-35.0, 5800.0), -40.0),
    "0W-40": _typical("0W-40", 847.0, 76.0, 13.6, (-35.0, 6000.0), -40.0),
    "5W-20": _typical("5W-20", 850.0, 48.0, 8.5, (-30.0, 5000.0), -35.0),
    "5W-30": _typical("5W-30", 853.0, 64.0, 10.8, (-30.0, 5700.0), -35.0),
    "5W-40": _typical("5W-40", 855.0, 82.0, 13.8, (-30.0, 6100.0), -35.0),
    "10W-30": _typical("10W-30", 866.0, 70.0, 10.7, (-25.0, 5600.0), -30.0),
    "10W-40": _typical("10W-40", 868.0, 96.0, 14.2, (-25.0, 6200.0), -30.0),
    "15W-40": _typical("15W-40", 878.0, 108.0, 14.4, (-20.0, 6100.0), -25.0),
    "20W-50": _typical("20W-50", 886.0, 160.0, 18.2, (-15.0, 7800.0), -20.0),
    "30": _typical("30", 886.0, 95.0, 10.9, None, -10.0),
}
"""By grade. The two kinematic points lie inside the grade's limits at 100 °C; the cold point is cold cranking
at the grade's own temperature and high shear, below its limit; the pumping limit is the temperature at which
the grade must still pump. All of it is typical, and no oil's own data."""


def grade_oil(grade: str, path: str = "scenario.oil_grade") -> Oil:
    """Return the typical oil of a grade.

    Raises
    ------
    StudyError
        If there is no such grade, with the nearest one.
    """
    if grade not in GRADES:
        hint = nearest_hint(grade, GRADES)
        raise StudyError(path, f"{grade!r} is no grade{hint}: use one of {', '.join(GRADES)}")
    return GRADES[grade]

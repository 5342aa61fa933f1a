from __future__ import annotations

import numpy as np
import pytest

from tabrel.core.errors import OutOfRangeError
from tabrel.core.oil.model import oil_model
from tabrel.core.study.model import Oil, ViscosityPoint


def oil(*points, density=855.0, limit=None):
    listed = tuple(ViscosityPoint(t, kinematic_mm2_s=v) for t, v in points)
    return Oil(density_15c_kg_m3=density, viscosity=listed, pumping_limit_c=limit)


def test_points_are_met_and_the_line_between_them_is_straight_in_d341():
    """ASTM D341: log log (ν + 0.7) = A − B·log T, worked by hand at 70 °C between 40 and 100 °C."""
    model = oil_model(oil((40, 62.0), (100, 10.5)))
    assert model.kinematic_viscosity([40.0, 100.0]) * 1e6 == pytest.approx([62.0, 10.5])
    z = np.log10(np.log10(np.array([62.7, 11.2])))
    x = np.log10(np.array([313.15, 373.15, 343.15]))
    middle = z[0] + (z[1] - z[0]) * (x[2] - x[0]) / (x[1] - x[0])
    assert float(model.kinematic_viscosity(70.0)) * 1e6 == pytest.approx(10 ** (10**middle) - 0.7)


def test_density_falls_by_the_lubricant_table():
    """ASTM D1250 for lubricants by hand at 100 °C: α = 0.6278/855, Δt = 85."""
    model = oil_model(oil((40, 62.0), (100, 10.5)))
    alpha = 0.6278 / 855
    assert float(model.density(15.0)) == 855
    assert float(model.density(100.0)) == pytest.approx(855 * np.exp(-alpha * 85 * (1 + 0.8 * alpha * 85)))


def test_a_dynamic_point_becomes_kinematic_through_the_density():
    stated = Oil(855, (ViscosityPoint(40, kinematic_mm2_s=62), ViscosityPoint(-30, dynamic_mpa_s=5600)))
    assert float(oil_model(stated).dynamic_viscosity(-30.0)) == pytest.approx(5.6)


def test_slope_is_the_derivative():
    model = oil_model(oil((40, 62.0), (100, 10.5), (-30, 6000.0)))
    t = np.array([-25.0, 0.0, 39.0, 70.0, 120.0])
    numeric = (np.log(model.dynamic_viscosity(t + 1e-3)) - np.log(model.dynamic_viscosity(t - 1e-3))) / 2e-3
    assert model.log_viscosity_and_slope(t)[1] == pytest.approx(numeric, rel=1e-6)


def test_where_the_oil_does_not_pump():
    thick = oil_model(oil((40, 62.0), (100, 10.5)))
    edge = thick.coldest_pumping(-90.0)
    assert float(thick.dynamic_viscosity(edge)) == pytest.approx(60.0)
    assert thick.pumps(np.array([edge - 0.1, edge])).tolist() == [False, True]
    limited = oil_model(oil((40, 62.0), (100, 10.5), limit=-20.0))
    assert limited.coldest_pumping(-45.0) == -20
    assert limited.pumps(np.array([-20.1, -20.0])).tolist() == [False, True]


def test_an_oil_that_pumps_nowhere_is_no_crash():
    grease = oil_model(oil((40, 1e12), (100, 9e11)))
    assert grease.coldest_pumping(-45.0) == 300
    assert not grease.pumps(np.array([-40.0, 150.0])).any()


@pytest.mark.parametrize(
    ("points", "says"),
    [
        ([(40, 62.0)], "two viscosity points"),
        ([(40, 62.0), (40, 50.0)], "there are two viscosity points at 40"),
        ([(40, 10.0), (100, 62.0)], r"thicker at 100 °C \(212 °F\) than at 40 °C \(104 °F\)"),
        ([(40, 62.0), (100, 0.2)], "too thin"),
    ],
)
def test_impossible_oils_are_refused(points, says):
    with pytest.raises(OutOfRangeError, match=says):
        oil_model(oil(*points))

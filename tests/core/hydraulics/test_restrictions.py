from __future__ import annotations

from math import log, pi

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.errors import OutOfRangeError
from tabrel.core.hydraulics.pleat_channels import PleatPack, can_annulus_coefficient, pleat_channel_coefficient
from tabrel.core.hydraulics.restrictions import (
    Restriction,
    anti_drain_restriction,
    bore_restriction,
    flow_through,
    hole_restriction,
    parallel,
    round_hole_restriction,
    stated_loss_restriction,
    thick_edged_loss_coefficient,
    turn_restriction,
)

positive = st.floats(1e-4, 1e2)


def test_a_thin_hole_is_sampsons_orifice():
    """R. A. Sampson, Phil. Trans. R. Soc. A 182 (1891): Δp = 3·μ·Q/r³."""
    assert round_hole_restriction(count=1, diameter=2e-3, thickness=1e-12).a == pytest.approx(3 / 1e-9, rel=1e-6)


def test_a_long_hole_is_poiseuilles_tube():
    """Hagen–Poiseuille: Δp = 8·μ·L·Q/(π·r⁴)."""
    a = round_hole_restriction(count=1, diameter=2e-3, thickness=10.0).a
    assert a == pytest.approx(8 * 10 / (pi * 1e-12), rel=1e-3)


def test_equal_holes_share_the_flow():
    item = round_hole_restriction(count=1, diameter=3e-3, thickness=2e-3)
    seven = round_hole_restriction(count=7, diameter=3e-3, thickness=2e-3)
    assert seven.a == pytest.approx(item.a / 7)
    assert seven.b == pytest.approx(item.b / 49)
    assert vars(parallel([item] * 7)) == pytest.approx(vars(seven))


@pytest.mark.parametrize(
    ("length_ratio", "loss"),
    list(
        zip(
            (0.0, 0.2, 0.4, 0.6, 0.8, 1.0, 1.2, 1.6, 2.0, 2.4, 9.0),
            (2.85, 2.72, 2.60, 2.34, 1.92, 1.74, 1.66, 1.57, 1.52, 1.5, 1.5),
            strict=True,
        )
    ),
)
def test_thick_edged_orifice_against_the_handbook(length_ratio, loss):
    """ζ over l/d in the limit of a small opening, Idelchik, diagram 4-12 (τ plus 1.5)."""
    assert thick_edged_loss_coefficient(length_ratio) == pytest.approx(loss, rel=0.05)


def test_bore_and_turn():
    bore = bore_restriction(diameter=13e-3, length=22e-3)
    area = pi * 13e-3**2 / 4
    assert bore.a == pytest.approx(128 * 22e-3 / (pi * 13e-3**4))
    assert bore.b == pytest.approx(0.75 / area**2)
    assert turn_restriction(angle=90, area=area) == Restriction(0.0, pytest.approx(0.55 / area**2))
    assert turn_restriction(angle=45, area=area).b == pytest.approx(0.55 / area**2 / 4)


def test_anti_drain_gap():
    """Plane Poiseuille flow through a 1 mm long gap: a = 12·l/(w·h³)."""
    part = anti_drain_restriction(lip_diameter=50e-3, lift=2e-3)
    assert part.a == pytest.approx(12e-3 / (pi * 50e-3 * 8e-9))
    assert part.b == pytest.approx(thick_edged_loss_coefficient(0.25) / (2 * (pi * 50e-3 * 2e-3) ** 2))


@given(st.floats(0, 1), st.floats(1e3, 1e6), st.floats(1e-5, 1e-2))
def test_a_stated_loss_is_reproduced(share, pressure, flow):
    part = stated_loss_restriction(
        differential_pressure=pressure, flow_rate=flow, viscous_share=share, dynamic_viscosity=0.01, density=800
    )
    assert part.a * 0.01 * flow + part.b * 800 * flow**2 == pytest.approx(pressure)


@given(positive, positive, st.floats(1, 1e6))
def test_flow_and_pressure_are_inverse(a, b, pressure):
    flow = flow_through(Restriction(a, b), pressure, 0.5, 800)
    assert a * 0.5 * flow + b * 800 * flow**2 == pytest.approx(pressure)


@pytest.mark.parametrize("bad", [0.0, -1.0, float("nan"), float("inf")])
def test_impossible_parameters_are_refused(bad):
    with pytest.raises(OutOfRangeError, match="thickness"):
        hole_restriction(count=1, area=1e-6, perimeter=1e-3, thickness=bad)


def pack(**changes):
    usual = {"outside_diameter": 66e-3, "inside_diameter": 36e-3, "count": 50, "depth": 15e-3, "pack": 0.8e-3}
    return PleatPack(**{**usual, **changes})


def test_pleat_loss_in_a_nearly_parallel_wide_pack():
    """By hand: without taper and far from the 0.2 mm floor, upstream and downstream integrals tend to
    ∫s²/(g·s/D)³ ds = D³/g³·ln(D/s₀), cut off where the gap meets its floor."""
    wide = pack(outside_diameter=10.0, inside_diameter=9.97, count=1000)
    g = pi * 9.985 / 1000 - 1.6e-3
    floor_at = 0.2e-3 / g  # share of the depth over which the gap is its floor
    logarithm = -2 * log(floor_at) + 2 / 3
    expected = 24 / (15e-3 * 1.0) * 15e-3**3 / g**3 * logarithm
    assert pleat_channel_coefficient(wide, effective_media_area=1.0) == pytest.approx(expected, rel=5e-3)


def test_more_pleats_stop_helping():
    """Media resistance falls as 1/N, the channels close: the sum has an optimum inside the range."""
    counts = list(range(20, 70, 2))
    loss = []
    for count in counts:
        area = 2 * count * 15e-3 * 60e-3
        channels = pleat_channel_coefficient(pack(count=count), effective_media_area=area)
        loss.append(0.8e-3 / (1.2e-11 * area) + channels)
    best = loss.index(min(loss))
    assert 0 < best < len(counts) - 1


def test_a_crowded_pack_stays_finite():
    crowded = pleat_channel_coefficient(pack(count=200), effective_media_area=0.1)
    assert 0 < crowded < float("inf")


def test_can_annulus_is_a_plane_gap_where_it_is_wide():
    wide = can_annulus_coefficient(pack(), clearance=20e-3, height=60e-3)
    assert wide == pytest.approx(12 * 60e-3 / (pi * 66e-3 * 20e-3**3), rel=5e-3)
    closed = can_annulus_coefficient(pack(), clearance=-1e-3, height=60e-3)
    assert wide < closed < float("inf")

"""The vectorised circuit against one written point by point, and the laws that must hold."""

from __future__ import annotations

import dataclasses

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pointwise import PlainPoint, onset_temperature

from builders import point, reading, study
from tabrel.core.circuit.calibration import circuit_model
from tabrel.core.circuit.filter_alone import FilterAlone, filter_alone_map
from tabrel.core.circuit.filter_flow import filter_state
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.errors import MissingInputsError, OutOfRangeError, StudyError
from tabrel.core.hydraulics.flow_curve import FlowCurve, fluid_at
from tabrel.core.maps.onset import bypass_onset
from tabrel.core.maps.operating_map import operating_map
from tabrel.core.oil.model import oil_model
from tabrel.core.parts.bypass_flow import bypass_flow, times_opening_pressure

TEMPERATURES = [-30.0, -12.0, 5.0, 40.0, 100.0, 135.0]
SPEEDS = [700.0, 1900.0, 3600.0, 6800.0]

WEAK = reading("bypass.spring_installed_length", "19 mm")
COOLER_OFF = ("circuit/cooler", None)
ANTI_DRAIN = [
    reading("anti_drain.lift", "1.2 mm"),
    reading("anti_drain.lip_diameter", "50 mm"),
    reading("anti_drain.opening_pressure", "8 kPa"),
]
LEAK = ("samples/0/leak", {"count": 5, "diameter_mm": 0.7})
ADAPTER = (
    "circuit/adapter",
    {"holes": [{"shape": "round", "count": 4, "readings": {"diameter": ["5 mm"]}}], "wall_mm": 4, "turn_deg": 60},
)
HEAD = ("circuit/head", {"loss_kpa": 9, "flow_l_min": 35, "temperature_c": 90, "viscous_share": 0.2, "bypass_kpa": 30})
GALLERY_SENSE = ("circuit/regulator/sense", "gallery")
LOW_SAFETY = ("circuit/regulator/safety_kpa", 560)


def at(location):
    return ("samples/0/bypass/location", location)


BRANCHES = {
    "dome end": [WEAK],
    "dome end, no clearance known": [WEAK, reading("can.inside_diameter")],
    "thread end": [WEAK, at("thread_end"), LEAK],
    "thread end, no clearance known": [WEAK, at("thread_end"), reading("can.inside_diameter")],
    "block": [WEAK, at("block"), *ANTI_DRAIN, LEAK],
    "adapter": [WEAK, at("adapter"), ADAPTER],
    "block, anti-drainback valve that hot oil never opens": [
        at("block"),
        LEAK,
        reading("bypass.opening_pressure", "60 kPa"),
        reading("anti_drain.opening_pressure", "59.5 kPa"),
    ],
    "no bearing heating": [WEAK, ("circuit/engine/bearing_rise_k", 0)],
    "no valve": [at("none"), LEAK],
    "gallery senses, low safety": [WEAK, GALLERY_SENSE, LOW_SAFETY],
    "head with its own bypass": [WEAK, HEAD, ADAPTER, *ANTI_DRAIN],
    "no cooler, no jets": [COOLER_OFF, ("circuit/engine/jet_share", 0)],
    "constant bearing rise": [WEAK, ("circuit/engine/bearing_heating", 0)],
    "no heat lost to the walls": [WEAK, ("circuit/engine/bearing_heating", 1)],
    "crowded pack, tight can": [reading("element.pleat_count", "80"), reading("can.inside_diameter", "66.4 mm")],
    "seat known inside only": [reading("bypass.seat_outside_diameter"), reading("bypass.lift_limit")],
    "stated setting, no spring": [
        *[reading(f"bypass.spring_{n}") for n in ("wire_diameter", "free_length")],
        ("samples/0/bypass/stated_kpa", 70),
    ],
    "no centre tube": [("samples/0/holes/centre_tube", None)],
    "thread in place of the stud": [
        ("circuit/stud", None),
        reading("thread.major_diameter", "20 mm"),
        reading("thread.pitch", "1.5 mm"),
    ],
}


@pytest.mark.parametrize("condition", ["steady", "filling"])
@pytest.mark.parametrize("branch", BRANCHES)
def test_agrees_with_the_point_by_point_solution(branch, condition):
    problem = point(*BRANCHES[branch], condition=condition, loading=1.7)
    solved = operating_map(problem, TEMPERATURES, SPEEDS)
    assert np.abs(solved.quantity("balance")).max() < 1e-6
    for i, t in enumerate(TEMPERATURES):
        for j, n in enumerate(SPEEDS):
            plain = PlainPoint(problem, t, n).solve()
            here = {
                "element_pressure": plain.element,
                "filter_pressure": plain.filter,
                "gallery_pressure": plain.gallery,
                "filter_inlet_pressure": plain.filter_inlet,
                "pump_pressure": plain.pump,
                "filter_flow": plain.flow,
                "bypass_fraction": plain.bypass / plain.flow,
                "defect_fraction": plain.leak / plain.flow,
                "regulator_fraction": plain.relief_flow / (plain.relief_flow + plain.flow),
            }
            for name, value in here.items():
                assert solved.quantity(name)[i, j] == pytest.approx(value, rel=2e-6, abs=1e-9), (name, t, n)


@pytest.mark.parametrize("size", [12, 40])  # 40 is begun on a coarser grid
@pytest.mark.parametrize("condition", ["steady", "filling"])
@pytest.mark.parametrize("branch", BRANCHES)
def test_what_is_known_of_a_shut_valve_is_the_solution(branch, condition, size):
    problem = point(*BRANCHES[branch], condition=condition)
    place = problem.place(np.linspace(-25, 140, size)[:, None], np.linspace(700, 6800, size)[None, :])
    x, settled = problem._first_guess(place)
    solution = problem.solve(place).values
    lift = problem.state(solution, place).filter.lift
    shut = lift == 0
    if problem.filter.leak is None:
        assert (settled[shut]).mean() > 0.95
    if problem.filter.location in ("dome_end", "thread_end"):  # and about it where the valve can open farther still
        lifted = (lift > 0) & (lift < problem.filter.valve.lift_limit)
        assert x[lifted] == pytest.approx(solution[lifted], rel=0.2)
    assert not (settled & ~shut).any()
    left = np.abs(problem.state(x, place).balance.value) / problem.circuit.pump_delivery(place.speed)
    assert (left[settled] < 1e-9).all()


@settings(max_examples=40)
@given(
    st.sampled_from(["pump", "gallery"]), st.floats(345, 600), st.floats(20, 400), st.floats(30, 400), st.floats(-25, 140),
    st.floats(700, 6800),
)  # fmt: skip
def test_whichever_valves_of_the_engine_are_open_the_flows_balance(sense, opening, above, cooler_bypass, t, n):
    problem = point(
        WEAK,
        ("circuit/regulator/sense", sense),
        ("circuit/regulator/opening_kpa", opening),
        ("circuit/regulator/safety_kpa", opening + above),
        ("circuit/cooler/bypass_kpa", cooler_bypass),
    )
    solved, plain = operating_map(problem, [t], [n]), PlainPoint(problem, t, n).solve()
    assert solved.quantity("filter_flow")[0, 0] == pytest.approx(plain.flow, rel=2e-6)
    assert solved.quantity("pump_pressure")[0, 0] == pytest.approx(plain.pump, rel=2e-6)


def test_a_guess_that_is_wrongly_taken_for_the_solution_is_found_out(monkeypatch):
    problem = point(WEAK)
    right = operating_map(problem, TEMPERATURES, SPEEDS).quantity("filter_flow")
    guess = OperatingPoint._first_guess

    def wrong(self, place):
        x, settled = guess(self, place)
        return x * 1.01, np.ones_like(settled)

    monkeypatch.setattr(OperatingPoint, "_first_guess", wrong)
    assert operating_map(problem, TEMPERATURES, SPEEDS).quantity("filter_flow") == pytest.approx(right, rel=1e-8)


@pytest.mark.parametrize("branch", BRANCHES)
def test_parts_of_the_pressure_loss_breakdown_add_up(branch):
    problem = point(*BRANCHES[branch])
    solved = operating_map(problem, TEMPERATURES, SPEEDS)
    total = sum(part.total for part in solved.loss_breakdown)
    np.testing.assert_allclose(total, solved.quantity("pump_pressure") - solved.quantity("gallery_pressure"), rtol=1e-7)
    within = sum(part.total for part in solved.loss_breakdown if part.name not in ("cooler", "head"))
    np.testing.assert_allclose(within, solved.quantity("filter_pressure"), rtol=1e-7)
    springs = {part.name: np.unique(part.spring) for part in solved.loss_breakdown if part.spring is not None}
    assert set(springs) == ({"anti_drain"} if problem.filter.anti_drain_pressure else set())
    # an open anti-drainback valve holds back its constant; one that stays shut no more than there is
    whole = solved.quantity("filter_pressure")
    held = np.minimum(problem.filter.anti_drain_pressure, whole)
    assert all(spring == pytest.approx(np.unique(held)) for spring in springs.values())
    assert all((part.viscous >= 0).all() and (part.inertial >= 0).all() for part in solved.loss_breakdown)


@pytest.mark.parametrize("branch", BRANCHES)
def test_the_filter_alone_loses_the_same_in_the_same_parts_as_in_the_engine(branch):
    """At the flow that the engine sends through it: the parts of both add up to the filter's pressure, each to its own."""
    problem = point(*BRANCHES[branch])
    solved = operating_map(problem, [60.0], [2500.0])
    flow = solved.quantity("filter_flow")[0, 0]
    alone = filter_alone_map(FilterAlone(problem.filter, problem.oil, problem.loading), [60.0], [flow])
    total = sum(part.total for part in alone.loss_breakdown)
    np.testing.assert_allclose(total, alone.quantity("filter_pressure"), rtol=1e-7)
    within = {part.name: part.total for part in solved.loss_breakdown if part.name not in ("cooler", "head")}
    assert [part.name for part in alone.loss_breakdown] == list(within)
    for part in alone.loss_breakdown:
        np.testing.assert_allclose(part.total, within[part.name], rtol=1e-5, atol=1e-6)


@pytest.mark.parametrize("condition", ["steady", "filling"])
@pytest.mark.parametrize("branch", ["dome end", "thread end", "block", "adapter", "head with its own bypass"])
def test_onset_is_where_the_solved_valve_just_opens(branch, condition):
    problem = point(*BRANCHES[branch], condition=condition)
    onset = bypass_onset(problem, SPEEDS)
    for n, temperature, reopens in zip(SPEEDS, onset.temperature, onset.reopens, strict=True):
        for edge in (temperature, reopens):
            if np.isfinite(edge) and edge < 150:
                assert onset_temperature(problem, n, edge - 0.4, edge + 0.4) == pytest.approx(edge, abs=1e-3)


def test_onset_ends():
    shut = bypass_onset(point(reading("bypass.opening_pressure", "9 bar")), SPEEDS)
    assert np.isnan(shut.temperature).all()
    assert np.isnan(shut.reopens).all()
    wide_open = bypass_onset(point(reading("bypass.spring_installed_length", "22 mm"), condition="filling"), SPEEDS)
    assert (wide_open.temperature == 150).all()
    assert np.isnan(bypass_onset(point(at("none")), SPEEDS).temperature).all()


def test_a_valve_in_the_block_opens_again_hot_and_fast():
    """Small inlet holes: hot and fast their loss alone reaches the valve's setting.

    Slow, the valve closes as the oil warms and stays closed; fast, it closes and opens again.
    """
    small = ("samples/0/holes/inlet/0/readings/diameter", ["2.4 mm"])
    problem = point(at("block"), reading("bypass.opening_pressure", "2.2 bar"), small)
    onset = bypass_onset(problem, [1000.0, 3000.0, 6800.0])
    assert np.isnan(onset.reopens[0])
    for n, closes, reopens in zip(onset.speed[1:], onset.temperature[1:], onset.reopens[1:], strict=True):
        assert closes < reopens < 150
        assert onset_temperature(problem, n, closes - 0.4, closes + 0.4) == pytest.approx(closes, abs=1e-3)
        assert onset_temperature(problem, n, reopens - 0.4, reopens + 0.4) == pytest.approx(reopens, abs=1e-3)
        around = operating_map(problem, [closes - 1, closes + 1, reopens - 1, reopens + 1], [n])
        assert (around.quantity("bypass_fraction")[:, 0] > 0).tolist() == [True, False, False, True]


def test_a_valve_closed_at_the_cold_end_has_no_onset_and_may_open_hot():
    """With oil that pumps only from 0 °C the valve has closed before; fast and hot the small holes open it."""
    problem = point(at("block"), reading("bypass.opening_pressure", "2.2 bar"), ("oil/pumping_limit_c", 0),
                    ("samples/0/holes/inlet/0/readings/diameter", ["2.4 mm"]))  # fmt: skip
    onset = bypass_onset(problem, [6800.0])
    assert np.isnan(onset.temperature[0])
    assert onset_temperature(problem, 6800.0, onset.reopens[0] - 0.4, onset.reopens[0] + 0.4) == pytest.approx(
        onset.reopens[0], abs=1e-3
    )


def test_jets_that_take_next_to_nothing_are_no_crash():
    solved = operating_map(point(("circuit/engine/jet_share", 1e-13)), [100.0], [3000.0])
    without = operating_map(point(("circuit/engine/jet_share", 0)), [100.0], [3000.0])
    assert solved.quantity("gallery_pressure") == pytest.approx(without.quantity("gallery_pressure"))


def test_valve_never_passes_below_its_opening_pressure_and_filling_opens_it_first():
    steady, filling = point(WEAK), point(WEAK, condition="filling")
    maps = [operating_map(p, TEMPERATURES, SPEEDS) for p in (steady, filling)]
    assert (maps[1].quantity("bypass_fraction") >= maps[0].quantity("bypass_fraction") - 1e-12).all()
    for solved in maps:
        assert ((solved.quantity("bypass_fraction") > 0) == (solved.quantity("lift") > 0)).all()
    assert (bypass_onset(filling, SPEEDS).temperature > bypass_onset(steady, SPEEDS).temperature).all()


def test_cold_the_media_rules_and_hot_the_holes():
    solved = operating_map(point(), [-20.0, 130.0], [1000.0, 6500.0])
    loss_breakdown = {part.name: part.total for part in solved.loss_breakdown if part.name != "cooler"}
    assert max(loss_breakdown, key=lambda name: loss_breakdown[name][0, 0]) == "media"
    assert max(loss_breakdown, key=lambda name: loss_breakdown[name][1, 1]) in ("inlet_holes", "outlet")


def test_a_filter_without_resistance_leaves_gallery_and_cooler():
    problem = point()
    free = dataclasses.replace(problem.filter, media=1e-6, pleats=0.0, can_annulus=None, valve=None, location="none")
    nothing = type(free.inlet)(0.0, 0.0)
    free = dataclasses.replace(free, tube=nothing, inlet=nothing, outlet=nothing, anti_drain=nothing, adapter=nothing)
    problem = dataclasses.replace(problem, filter=free)
    solved = operating_map(problem, TEMPERATURES, SPEEDS)
    cooler = next(part.total for part in solved.loss_breakdown if part.name == "cooler")
    np.testing.assert_allclose(solved.quantity("pump_pressure"), solved.quantity("gallery_pressure") + cooler, rtol=1e-9)


def test_the_hot_point_comes_out_within_a_few_per_cent():
    """The slip at the hot point leaves the filter's loss out, so the gallery is one to four per cent low."""
    solved = operating_map(point(), [100.0], [3000.0])
    assert 0.95 * 340e3 < solved.quantity("gallery_pressure")[0, 0] < 340e3


@pytest.mark.parametrize("share", [0, 0.3])
def test_the_engine_takes_its_flow_at_the_hot_gallery_pressure(share):
    made = study(("circuit/engine/jet_share", share))
    oil = oil_model(made.oil)
    circuit = circuit_model(made.circuit, oil)
    fluid = fluid_at(oil, np.array([100.0]))
    flow = circuit.displacement * 3000 / 60 - circuit.slip * 340e3 / fluid.dynamic_viscosity
    bearing = oil.dynamic_viscosity(np.array([110.0]))
    assert circuit.gallery_pressure(flow, fluid, bearing)[0] == pytest.approx(340e3)
    assert circuit.slip * 400e3 / fluid.dynamic_viscosity == pytest.approx(0.12 * 14e-6 * 50)


@given(st.floats(-40, 140), st.floats(500, 7000), st.sampled_from([0.25, 0.5, 1.0]))
def test_bearing_rise_solves_its_equation(t, n, heating):
    made = study(("circuit/engine/bearing_heating", heating))
    oil = oil_model(made.oil)
    circuit = circuit_model(made.circuit, oil)
    rise = circuit.bearing_temperature_rise(oil, np.array([t]), np.array([n]))
    ratio = oil.dynamic_viscosity(t + rise) / oil.dynamic_viscosity(110.0) * n / 3000
    assert rise == pytest.approx(10 * ratio ** (2 * heating), rel=1e-8)


@given(st.floats(1.01, 8), st.floats(-30, 140))
def test_a_valve_is_guessed_to_see_about_what_passes_the_flow(times, t):
    problem = point(WEAK)
    valve, fluid = problem.filter.valve, fluid_at(problem.oil, np.array([t]))
    pressure = times * valve.opening_pressure * fluid.valve_scale
    flow, _ = bypass_flow(valve, FlowCurve(pressure, np.ones(1)), fluid)
    assert times_opening_pressure(valve, flow.value, fluid) == pytest.approx(times, rel=0.3)


@given(st.floats(1e3, 4e5), st.floats(-40, 140))
def test_slopes_are_derivatives(pressure, t):
    problem = point(WEAK)
    fluid = fluid_at(problem.oil, np.array([t]))

    def through(p):
        return bypass_flow(problem.filter.valve, FlowCurve(np.array([p]), np.ones(1)), fluid)[0]

    def state(x):
        return filter_state(problem.filter, np.array([x]), fluid)

    step = pressure * 1e-6
    for curve in (through, lambda x: state(x).filter_pressure, lambda x: state(x).flow_rate):
        numeric = (curve(pressure + step).value - curve(pressure - step).value) / (2 * step)
        assert curve(pressure).slope == pytest.approx(numeric, rel=1e-3, abs=1e-18)


def test_more_loading_and_colder_oil_raise_the_element_pressure():
    clean, loaded = (operating_map(point(loading=f), TEMPERATURES, SPEEDS) for f in (1.0, 3.0))
    assert (loaded.quantity("element_pressure") > clean.quantity("element_pressure")).all()
    assert (np.diff(clean.quantity("element_pressure"), axis=0) < 0).all()


def test_rows_in_which_the_oil_does_not_pump_are_gaps():
    problem = point(("oil/pumping_limit_c", -20))
    solved = operating_map(problem, [-21.0, -20.0], SPEEDS)
    assert np.isnan(solved.quantity("element_pressure")[0]).all()
    assert np.isfinite(solved.quantity("element_pressure")[1]).all()
    none = operating_map(problem, [-30.0], SPEEDS)
    assert np.isnan(none.quantity("pump_pressure")).all()
    assert (bypass_onset(point(WEAK, ("oil/pumping_limit_c", -20), condition="filling"), SPEEDS).temperature >= -20).all()


def test_missing_inputs_are_all_named():
    made = study(
        ("oil", None),
        ("circuit/regulator", None),
        ("samples/0/bypass/location", None),
        reading("media.thickness"),
        ("samples/0/holes/inlet", None),
    )
    with pytest.raises(MissingInputsError) as captured:
        operating_point(made, made.samples[0])
    assert {"oil", "circuit.regulator", "bypass.location", "media.thickness", "holes.inlet"} <= set(captured.value.keys)


def test_what_cannot_work_together_is_refused():
    with pytest.raises(StudyError, match="never closes"):
        point(at("block"), reading("anti_drain.opening_pressure", "2 bar"))
    with pytest.raises(StudyError, match="cannot reach"):
        point(("circuit/engine/speed_rpm", 100))
    with pytest.raises(StudyError, match="no effective media area"):
        point(reading("element.potting_depth", "40 mm"), reading("can.inside_diameter"))
    with pytest.raises(StudyError, match="not below the outside diameter"):
        point(reading("element.inside_diameter", "70 mm"))
    with pytest.raises(StudyError, match="too coarse"):
        point(("circuit/stud", None), reading("thread.major_diameter", "2 mm"), reading("thread.pitch", "3 mm"))


@pytest.mark.parametrize(
    ("temperatures", "speeds"), [([float("nan")], [1000]), ([20], [0]), ([20], [float("inf")]), ([], [1000]), ([500], [1000])]
)
def test_axes_outside_the_model_are_refused(temperatures, speeds):
    with pytest.raises(OutOfRangeError):
        operating_map(point(), temperatures, speeds)

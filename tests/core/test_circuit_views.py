"""Regulator curve, filter alone, scenarios, starts, life, duty cycles, engines and grades."""

from __future__ import annotations

from math import exp, log

import fluids
import numpy as np
import pytest
from fluids.core import Reynolds
from hypothesis import given
from hypothesis import strategies as st

from builders import changed, reading, study
from tabrel.core.bypass_onset import bypass_onset, regulator_opening
from tabrel.core.circuit_facts import CIRCUIT_FACTS
from tabrel.core.duty_cycle import SHIPPED_CYCLES, CycleTrace, read_duty_cycle
from tabrel.core.engine_summary import circuit_problem, hot_point
from tabrel.core.engines import ENGINES
from tabrel.core.errors import MissingInputsError, OutOfRangeError, ReadingTextError, StudyError
from tabrel.core.facts import fact_texts, with_study_fact
from tabrel.core.filter_alone import filter_alone_map, filter_at_flow, onset_over_flow
from tabrel.core.grades import GRADES
from tabrel.core.life import captured_mass, filter_life, loading_at_onset
from tabrel.core.measured import measure_sample
from tabrel.core.oil import oil_model
from tabrel.core.oil_line import oil_line
from tabrel.core.operating_map import operating_map
from tabrel.core.operating_point import operating_point
from tabrel.core.plain_units import number_text, understood_number
from tabrel.core.restrictions import bore_restriction, thick_edged_loss_coefficient
from tabrel.core.side_by_side import standing_at
from tabrel.core.solved_circuit import solve_circuit
from tabrel.core.study import Study
from tabrel.core.study_plans import RoundHoles, Scenario, WarmUpPlan
from tabrel.core.threshold_curve import threshold_curve
from tabrel.core.warm_up import USUAL_PLAN, completed_plan, warm_up
from tabrel.document.study_document import read_study

WEAK = reading("bypass.spring_installed_length", "19 mm")
SPEEDS = [800.0, 1500.0, 3000.0, 5000.0]
BLOCK = ("samples/0/bypass/location", "block")
NO_VALVE = ("samples/0/bypass/location", "none")
ADAPTER = {"holes": [{"shape": "round", "count": 4, "readings": {"diameter": ["5.1 mm"]}}], "wall_mm": 4}


def point(*changes, **more):
    made = study(*changes)
    return operating_point(made, made.samples[0], **more)


def solved_at(problem, temperature, speed):
    return solve_circuit(problem, problem.place(np.array([temperature]), np.array([speed])))


# ---- curves


@pytest.mark.parametrize("sense", ["pump", "gallery"])
@pytest.mark.parametrize("condition", ["steady", "filling"])
def test_on_the_regulator_curve_the_sensed_pressure_is_its_opening_pressure(sense, condition):
    problem = point(("circuit/regulator/sense", sense), ("circuit/regulator/opening_kpa", 350), condition=condition)
    curve = regulator_opening(problem, SPEEDS)
    if condition == "filling" and sense == "gallery":
        assert np.isnan(curve.temperature).all()  # empty galleries have no pressure to sense
        return
    found = 0
    for speed, closes in zip(SPEEDS, curve.temperature, strict=True):
        if np.isnan(closes) or closes >= 150:
            continue
        found += 1
        at = solved_at(problem, closes, speed)
        pressure = at.quantity("pump_pressure" if sense == "pump" else "gallery_pressure")[0]
        assert pressure == pytest.approx(problem.circuit.regulator_opening, rel=1e-6)
        assert solved_at(problem, closes - 0.5, speed).quantity("regulator_fraction")[0] > 0
        assert solved_at(problem, closes + 0.5, speed).quantity("regulator_fraction")[0] == 0
    assert found


def test_a_threshold_is_found_column_by_column():
    """A surplus of known zeros: closes at 10·(i + 1) °C, opens again 50 K above in the last column."""

    def surplus(temperature, i):
        closes = 10.0 * (i + 1)
        opens = np.where(i == 2, closes + 50, np.inf)
        return np.where(temperature < closes + 25, closes - temperature, temperature - opens)

    curve = threshold_curve(surplus, columns=3, cold_end=-40.0, tolerance=np.full(3, 1e-9))
    assert curve.closes == pytest.approx([10, 20, 30])
    assert curve.reopens[2] == pytest.approx(80)
    assert np.isnan(curve.reopens[:2]).all()


# ---- the filter alone


@pytest.mark.parametrize("location", ["dome_end", "thread_end", "block", "none"])
def test_the_filter_alone_passes_exactly_the_flow_asked_for(location):
    problem = point(WEAK, ("samples/0/bypass/location", location), ("samples/0/leak", {"count": 3, "diameter_mm": 0.5}))
    temperature, flow = np.array([-25.0, 10.0, 100.0])[:, None], np.array([1.0, 15.0, 60.0])[None, :] / 60e3
    state = filter_at_flow(problem, temperature, flow)
    assert state.flow_rate.value == pytest.approx(np.broadcast_to(flow, (3, 3)), rel=1e-8)
    parts = state.media_flow + state.bypass_flow + state.defect_flow
    assert parts == pytest.approx(state.flow_rate.value, rel=1e-9)
    if problem.filter.valve:
        opening = problem.filter.valve.opening_pressure * (1 - 0.0003 * (temperature - 20))
        assert (state.bypass_flow[state.valve_pressure <= opening] == 0).all()


def test_the_filter_alone_agrees_with_the_filter_in_the_engine_at_the_same_flow():
    problem = point(WEAK)
    at = solved_at(problem, 5.0, 2500.0)
    alone = filter_at_flow(problem, np.array([5.0]), at.quantity("filter_flow"))
    assert alone.filter_pressure.value == pytest.approx(at.quantity("filter_pressure"), rel=1e-8)
    assert alone.bypass_flow / alone.flow_rate.value == pytest.approx(at.quantity("bypass_fraction"), abs=1e-8)


def test_onset_over_flow_is_where_the_valve_just_opens():
    problem = point(WEAK)
    flows = np.array([4.0, 20.0, 50.0]) / 60e3
    curve = onset_over_flow(problem, flows, -40.0)
    assert (np.diff(curve.closes) > 0).all()
    for flow, closes in zip(flows, curve.closes, strict=True):
        colder, warmer = (filter_at_flow(problem, np.array([closes + off]), np.array([flow])) for off in (-0.01, 0.01))
        assert colder.bypass_flow[0] > 0
        assert warmer.bypass_flow[0] == 0
    assert np.isnan(onset_over_flow(point(("samples/0/bypass/location", "none")), flows, -40.0).closes).all()


def test_the_filter_alone_refuses_a_flow_that_is_none():
    with pytest.raises(OutOfRangeError, match="above zero"):
        filter_alone_map(point(), [20.0], [0.0])
    solved = filter_alone_map(point(("oil/pumping_limit_c", -20)), [-30.0, 20.0], [3e-4])
    assert np.isnan(solved.quantity("element_pressure")[0]).all()
    assert np.isfinite(solved.quantity("unfiltered_fraction")[1]).all()


# ---- an independent library


def test_a_bore_is_poiseuilles_tube_with_entrance_and_exit_of_an_independent_library():
    """Against `fluids`: laminar friction factor 64/Re; sharp entrance 0.57 and exit 1, where 0.5 and 1 are used here."""
    diameter, length, density, viscosity, flow = 0.013, 0.022, 850.0, 0.05, 2e-5
    part = bore_restriction(diameter=diameter, length=length)
    velocity = flow / (np.pi * diameter**2 / 4)
    factor = fluids.friction_laminar(Reynolds(V=velocity, D=diameter, rho=density, mu=viscosity))
    friction = fluids.dP_from_K(fluids.K_from_f(fd=factor, L=length, D=diameter), rho=density, V=velocity)
    assert part.a * viscosity * flow == pytest.approx(friction, rel=1e-9)
    ends = fluids.fittings.entrance_sharp() + fluids.fittings.exit_normal()
    assert part.b * density * flow**2 == pytest.approx(fluids.dP_from_K(ends, rho=density, V=velocity), rel=0.06)


def test_a_thin_orifice_in_a_large_plate_is_that_of_an_independent_library():
    """Against `fluids`: discharge coefficient of ISO 5167 at a small diameter ratio, turned into a loss coefficient."""
    pipe, hole, density = 0.5, 0.05, 850.0
    discharge = fluids.flow_meter.C_Reader_Harris_Gallagher(D=pipe, Do=hole, rho=density, mu=1e-4, m=2.0, taps="corner")
    loss = fluids.flow_meter.discharge_coefficient_to_K(D=pipe, Do=hole, C=discharge) * (hole / pipe) ** 4
    assert thick_edged_loss_coefficient(0.0) == pytest.approx(loss, rel=0.06)


# ---- scenarios


def test_each_change_of_a_scenario_acts_as_it_would_when_typed():
    plain = point(condition="filling")
    for scenario, typed in (
        (Scenario("x", loading=3.0), point(loading=3.0, condition="filling")),
        (Scenario("x", stud_bore_mm=9.0), point(("circuit/stud/bore_mm", 9.0), condition="filling")),
        (
            Scenario("x", leak=RoundHoles(6, 0.4)),
            point(("samples/0/leak", {"count": 6, "diameter_mm": 0.4}), condition="filling"),
        ),
        (Scenario("x", bypass_location="block"), point(BLOCK, condition="filling")),
        (Scenario("x", bypass_location="none"), point(NO_VALVE, condition="filling")),
        (
            Scenario("x", adapter_holes=RoundHoles(4, 5.1)),
            point(("circuit/adapter", {**ADAPTER, "turn_deg": 90}), condition="filling"),
        ),
    ):
        thought, differs = point(scenario=scenario, condition="filling"), False
        for temperature, speed in ((-25.0, 1500.0), (100.0, 5000.0)):
            one, two, as_is = (solved_at(p, temperature, speed).quantity("filter_pressure") for p in (thought, typed, plain))
            assert one == pytest.approx(two, rel=1e-12)
            differs |= bool(one != as_is)
        assert differs, scenario


def test_another_oil_runs_in_the_engine_that_its_own_oil_calibrated():
    thick = point(scenario=Scenario("x", oil_grade="20W-50"))
    assert thick.circuit == point().circuit
    assert thick.oil.dynamic_viscosity(100.0) > point().oil.dynamic_viscosity(100.0)


def test_a_stuck_regulator_dumps_from_nothing_on_or_not_at_all():
    shut = point(scenario=Scenario("x", regulator="stuck_shut"))
    cold = solved_at(shut, -20.0, 4000.0)
    assert cold.quantity("pump_pressure")[0] > shut.circuit.safety  # only the safety valve is left
    assert solved_at(shut, 100.0, 1000.0).quantity("regulator_fraction")[0] == 0
    assert np.isnan(regulator_opening(shut, [3000.0]).temperature).all()
    open_one = point(scenario=Scenario("x", regulator="stuck_open"))
    assert solved_at(open_one, 100.0, 1000.0).quantity("regulator_fraction")[0] > 0
    assert (
        solved_at(open_one, 100.0, 3000.0).quantity("gallery_pressure")[0]
        < solved_at(point(), 100.0, 3000.0).quantity("gallery_pressure")[0]
    )


def test_a_missing_anti_drain_lift_can_be_tried():
    lip = reading("anti_drain.lip_diameter", "50 mm")
    tried = point(lip, scenario=Scenario("x", anti_drain_lift_mm=0.3))
    assert "anti_drain.lift" not in tried.filter.left_out
    assert tried.filter.anti_drain == point(lip, reading("anti_drain.lift", "0.3 mm")).filter.anti_drain
    with pytest.raises(MissingInputsError) as error:
        point(scenario=Scenario("x", anti_drain_lift_mm=0.3))
    assert error.value.keys == ("anti_drain.lip_diameter",)


def test_a_valve_that_is_not_there_cannot_be_set():
    none = ("samples/0/bypass/location", "none")
    for scenario in (Scenario("x", bypass_opening_kpa=100), Scenario("x", bypass_location="block")):
        with pytest.raises(StudyError, match="no bypass valve"):
            point(none, scenario=scenario)


def test_a_higher_setting_moves_the_onset_to_the_cold():
    onsets = [
        bypass_onset(point(WEAK, scenario=Scenario("x", bypass_opening_kpa=p)), [2000.0]).temperature[0] for p in (30, 60, 90)
    ]
    assert onsets == sorted(onsets, reverse=True)


# ---- starts


def flat_cycle(minutes=10.0, speed=1500.0):
    return CycleTrace(np.array([0.0, minutes * 60]), np.array([speed, speed]), None)


def test_a_start_fills_the_galleries_first_and_then_follows_the_steady_circuit():
    problem = point(WEAK)
    plan, assumed = completed_plan(WarmUpPlan(start_c=-20.0, can_time_constant_min=0.0))
    assert "time_constant_min" in assumed
    assert "start_c" not in assumed
    start = warm_up(problem, flat_cycle(), plan)
    filled = int(start.filled_after)
    assert start.is_filling[:filled].all()
    assert not start.is_filling[filled:].any()
    assert (start.gallery_pressure[:filled] == 0).all()
    assert np.sum(start.filter_flow[:filled]) >= plan.gallery_volume_l * 1e-3 > np.sum(start.filter_flow[: filled - 1])
    for second in (0, 200, 600):
        # σ: the exponential approach, by hand
        celsius = plan.end_c - (plan.end_c - plan.start_c) * exp(-second / (60 * plan.time_constant_min))
        assert start.temperature[second] == pytest.approx(celsius)
        if second:
            at = solved_at(problem, celsius, 1500.0)
            assert start.gallery_pressure[second] == pytest.approx(at.quantity("gallery_pressure")[0], rel=1e-6)
    assert start.volume == pytest.approx(float(np.sum(start.filter_flow)))
    open_seconds = np.count_nonzero(start.bypass_fraction > 0)
    assert start.bypass_time == open_seconds
    assert start.unfiltered_volume == pytest.approx(float(np.sum(start.filter_flow * start.unfiltered_fraction)))


def test_the_bypass_stays_open_until_the_onset_temperature():
    problem = point(WEAK)
    plan, _ = completed_plan(WarmUpPlan(start_c=-20.0, can_time_constant_min=0.0))
    onset = bypass_onset(problem, [1500.0]).temperature[0]
    reaches = -60 * plan.time_constant_min * log((plan.end_c - onset) / (plan.end_c - plan.start_c))
    start = warm_up(problem, flat_cycle(), plan)
    assert start.bypass_time == pytest.approx(reaches, abs=2)


def test_a_lagging_can_keeps_the_bypass_open_for_longer_and_follows_its_own_law():
    problem = point(WEAK)
    quick, slow = (
        warm_up(problem, flat_cycle(), completed_plan(WarmUpPlan(start_c=-20.0, can_time_constant_min=lag))[0])
        for lag in (0.0, 3.0)
    )
    assert slow.bypass_time > quick.bypass_time
    assert (slow.can_temperature <= slow.temperature + 1e-9).all()
    # σ dT_can/dt = T − T_can, by central differences
    rate = (slow.can_temperature[2:] - slow.can_temperature[:-2]) / 2
    assert rate * 180 == pytest.approx((slow.temperature - slow.can_temperature)[1:-1], abs=0.05)


def test_a_recorded_trace_replaces_the_exponential_and_a_standing_engine_moves_no_oil():
    trace = CycleTrace(np.array([0.0, 10.0, 11.0, 60.0]), np.array([0.0, 0.0, 1200.0, 1200.0]), np.array([5.0, 5.0, 5.0, 30.0]))
    start = warm_up(point(), trace, completed_plan(None)[0])
    assert start.temperature[-1] == pytest.approx(30)
    assert (start.filter_flow[:10] == 0).all()
    assert (start.filter_flow[12:] > 0).all()
    assert start.filled_after > 10


def test_a_start_too_cold_for_the_oil_is_told_and_not_counted_as_filtered():
    start = warm_up(point(("oil/pumping_limit_c", -10)), flat_cycle(), completed_plan(WarmUpPlan(start_c=-20.0))[0])
    assert start.dry_time > 0
    assert np.isnan(start.unfiltered_fraction[0])
    never = warm_up(point(("oil/pumping_limit_c", 99)), flat_cycle(1.0), completed_plan(None)[0])
    assert (never.filled_after, never.pressure_after, never.lowest_gallery_pressure) == (None, None, None)


def test_a_plan_that_cools_is_refused():
    with pytest.raises(StudyError, match="end colder"):
        completed_plan(WarmUpPlan(start_c=100.0, end_c=20.0))
    assert completed_plan(None)[0] == USUAL_PLAN


# ---- life


def test_at_the_loading_found_the_valve_just_opens():
    problem = point()
    temperatures = np.array([-10.0, 20.0, 95.0])
    loadings = loading_at_onset(problem, temperatures, 2000.0)
    assert (np.diff(loadings) > 0).all()
    for celsius, loading in zip(temperatures, loadings, strict=True):
        around = [point(loading=loading * off) for off in (0.999, 1.001)]
        below, above = (solved_at(one, celsius, 2000.0).quantity("bypass_fraction")[0] for one in around)
        assert below == 0
        assert above > 0


def test_a_valve_open_from_new_has_no_life_and_one_that_never_opens_has_no_end():
    assert loading_at_onset(point(reading("bypass.opening_pressure", "5 kPa")), np.array([-20.0]), 2000.0)[0] == 1
    assert loading_at_onset(point(reading("bypass.opening_pressure", "20 bar")), np.array([100.0]), 2000.0)[0] == np.inf
    assert np.isnan(loading_at_onset(point(("samples/0/bypass/location", "none")), np.array([20.0]), 2000.0)[0])
    assert captured_mass(np.array([8.0, 1.0]), 0.02, 8.0) == pytest.approx([0.02, 0.0])


def test_life_is_captured_dirt_over_ingress_and_the_half_life_its_own_formula():
    made = study(("samples/0/capacity_g", 20))
    problem, measured = operating_point(made, made.samples[0]), measure_sample(made.samples[0], made.circuit)
    plan, _ = completed_plan(WarmUpPlan(ingress_g_h=0.1, terminal_ratio=8.0, sump_volume_l=5.0, end_c=95.0))
    life = filter_life(problem, measured, plan, 2000.0, [0.5, None, None, None, None])
    warm = life.rows[-1]
    hours = 20 * log(loading_at_onset(problem, np.array([95.0]), 2000.0)[0]) / log(8) / 0.1
    assert warm.steady_time / 3600 == pytest.approx(hours)
    assert all(row.filling_time <= row.steady_time or np.isnan(row.steady_time) for row in life.rows)
    flow = solved_at(problem, 95.0, 2000.0).quantity("filter_flow")[0]
    assert [one.half_life for one in life.clean_up] == pytest.approx([5e-3 * log(2) / (flow * 0.5)])
    assert not life.capacity.assumed
    assert (
        filter_life(problem, measure_sample(study(("samples/0/media_family", None)).samples[0], None), plan, 2000.0, [None] * 5)
        is None
    )


# ---- duty cycles


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "empty"),
        ("time_s,rpm\n0,1\n1,1", "no column speed_rpm"),
        ("time_s,speed_rpm,gear\n0,900,1\n1,900,1", "'gear'"),
        ("time_s,speed_rpm\n0,900", "two rows"),
        ("time_s,speed_rpm\n0,900\n1,", "line 3 holds no speed_rpm"),
        ("time_s,speed_rpm\n0,900\n1,fast", "'fast'"),
        ("time_s,speed_rpm\n0,900\n1,nan", "no number"),
        ("time_s,speed_rpm\n0,900\n5,900\n4,900", "line 4 goes back in time"),
        ("time_s,speed_rpm\n0,900\n0,900", "goes back in time"),
        ("time_s,speed_rpm\n0,900\n1,-5", "between 0 and"),
        ("time_s,speed_rpm,oil_temperature_c\n0,900,20\n1,900,999", "oil_temperature_c of 999"),
        ("time_s,speed_rpm\n0,900,3\n1,900", "3 cells"),
        ("time_s,speed_rpm\n" + "\n".join(f"{t},900" for t in [0, 1, 2, 3, 4, 5, 300]), "gap of 295 s"),
        ("time_s,speed_rpm\n0,900\n200000,900", "24 h"),
    ],
)
def test_a_bad_duty_cycle_gets_one_sentence_with_its_line(text, says):
    with pytest.raises(StudyError, match=says) as error:
        read_duty_cycle(text)
    assert "\n" not in str(error.value)


def test_a_decimal_comma_is_one_where_something_else_separates():
    trace = read_duty_cycle("\ufefftime_s;speed_rpm\n0;900,5\n1,5;901\n")
    assert (trace.time.tolist(), trace.speed.tolist()) == ([0, 1.5], [900.5, 901])


def test_a_duty_cycle_is_read_with_any_usual_separator_and_notes():
    trace = read_duty_cycle("# logged\nTime_s;Speed_rpm;oil_temperature_c\n10;900;-5\n\n20;1500.5;1\n")
    assert trace.time.tolist() == [0, 10]
    assert trace.speed.tolist() == [900, 1500.5]
    assert trace.temperature.tolist() == [-5, 1]
    for cycle in SHIPPED_CYCLES.values():
        assert cycle.time[-1] == 1800
        assert (np.diff(cycle.time) > 0).all()


# ---- engine and oil


def test_the_hot_point_shares_the_pump_and_tells_its_leftover():
    made = study()
    found = hot_point(made, made.samples[0])
    assert found.displaced == pytest.approx(found.slip + found.bearings + found.jets)
    assert found.jets == pytest.approx(0.3 * found.flow)
    assert -0.05 < found.leftover < 0
    assert hot_point(made, study(reading("media.thickness")).samples[0]).computed is None
    with pytest.raises(MissingInputsError):
        hot_point(study(("oil", None)), made.samples[0])


def test_a_regulator_below_the_hot_gallery_pressure_is_refused_in_one_sentence():
    made = study(("circuit/regulator/opening_kpa", 300))
    assert "hot gallery pressure of 340 kPa" in circuit_problem(made).message
    with pytest.raises(StudyError) as error:
        operating_point(made, made.samples[0])
    assert error.value.path == "circuit.regulator.opening_kpa"
    weak = study(("circuit/pump_efficiency/fraction", 0.01), ("circuit/engine/speed_rpm", 500))
    assert "cannot reach" in circuit_problem(weak).message
    assert circuit_problem(study()) is None
    assert circuit_problem(study(("circuit/engine", None))) is None  # missing is not wrong


@pytest.mark.parametrize("name", ENGINES)
def test_each_shipped_engine_runs_and_comes_near_its_hot_point(name):
    document = changed()
    made = read_study(__import__("json").dumps(document))
    made = Study(**{**vars(made), "circuit": ENGINES[name]})
    found = hot_point(made, made.samples[0])
    assert -0.25 < found.leftover < 0
    assert len(found.studs) == 3
    solved = operating_map(operating_point(made, made.samples[0]), [-20.0, 100.0], [800.0, 4000.0])
    assert np.isfinite(solved.quantity("gallery_pressure")).all()


@pytest.mark.parametrize("grade", GRADES)
def test_each_grade_lies_inside_sae_j300(grade):
    """SAE J300: limits at 100 °C, and of cold cranking at the grade's own temperature."""
    at_100 = {"20": (6.9, 9.3), "30": (9.3, 12.5), "40": (12.5, 16.3), "50": (16.3, 21.9)}[grade.split("-")[-1]]
    winter = {"0": (-35, 6200), "5": (-30, 6600), "10": (-25, 7000), "15": (-20, 7000), "20": (-15, 9500)}
    oil = GRADES[grade]
    model = oil_model(oil)
    low, high = at_100
    assert low <= float(model.kinematic_viscosity(100.0)) * 1e6 < high
    assert oil.provenance == "assumed"
    if "W" in grade:
        celsius, most = winter[grade.split("W")[0]]
        assert float(model.dynamic_viscosity(celsius)) * 1e3 <= most
        assert oil.pumping_limit_c == celsius - 5
        assert model.pumps(np.array([celsius - 5.0]))[0]  # the grade must pump there: below 60 Pa·s


def test_the_line_of_an_oil_meets_its_points_and_names_its_ends():
    line = oil_line(study().oil)
    assert [point.temperature for point in line.points] == sorted(point.temperature for point in line.points)
    for point in line.points:
        i = int(np.argmin(np.abs(line.temperature - point.temperature)))
        if line.temperature[i] == point.temperature:
            assert line.kinematic[i] == pytest.approx(point.kinematic)
            assert line.dynamic[i] == pytest.approx(point.kinematic * line.density[i])
    assert (np.diff(line.kinematic) < 0).all()


def test_cold_oil_at_rest_is_thicker_only_below_the_low_shear_points():
    from dataclasses import replace

    model = oil_model(study().oil)
    rest = replace(model, cold_factor=2.0)
    assert rest.dynamic_viscosity(100.0) == pytest.approx(model.dynamic_viscosity(100.0))
    assert rest.dynamic_viscosity(-30.0) == pytest.approx(2 * model.dynamic_viscosity(-30.0))
    middle = float(rest.dynamic_viscosity(0.0) / model.dynamic_viscosity(0.0))
    assert 1 < middle < 2
    for celsius in (-35.0, -10.0, 60.0):
        here, slope = rest.log_viscosity_and_slope(celsius)
        beside = rest.log_viscosity_and_slope(celsius + 1e-4)[0]
        assert slope == pytest.approx((beside - here) / 1e-4, rel=1e-3)


@pytest.mark.parametrize("fact", CIRCUIT_FACTS, ids=lambda fact: fact.key)
def test_every_number_of_engine_oil_and_plan_can_be_typed_taken_away_and_is_shown(fact):
    made = study()
    typed = {"quantity": "3", "one_of": fact.choices[-1] if fact.choices else "", "words": "mountain road"}[fact.kind]
    changed_study = with_study_fact(made, fact.key, typed, "metric")
    shown = fact_texts(changed_study, made.samples[0])[fact.key]
    assert shown.startswith(("3", typed))
    again = with_study_fact(changed_study, fact.key, shown, "metric")
    assert fact_texts(again, made.samples[0])[fact.key] == shown
    needed = fact.key.endswith(("_speed", "_pressure", "_temperature", "_flow", "_rise", "oil.density"))
    if needed and fact.key not in ("engine.jet_opening", "engine.bearing_rise"):
        with pytest.raises(ReadingTextError, match="type it"):
            with_study_fact(changed_study, fact.key, "", "metric")
    else:
        without = with_study_fact(changed_study, fact.key, "", "metric")
        assert fact.key not in fact_texts(without, made.samples[0])


def test_an_engine_begins_with_its_first_number():
    blank = Study("tabrel-study", 1, "blank")
    started = with_study_fact(blank, "engine.regulator_opening", "65 psi", "metric")
    assert started.circuit.regulator.opening_kpa == pytest.approx(448.16, abs=0.01)
    assert started.circuit.regulator.full_flow_rise_kpa == 150  # a usual one, to be looked at
    jets = with_study_fact(with_study_fact(started, "engine.gallery", "300", "metric"), "engine.jet_share", "20 %", "metric")
    assert (jets.circuit.engine.jet_share, jets.circuit.engine.jet_opening_kpa) == (0.2, 150)
    with pytest.raises(ReadingTextError, match="choose a grade"):
        with_study_fact(blank, "oil.density", "850", "metric")


@pytest.mark.parametrize(
    ("text", "unit", "family", "value"),
    [
        ("340", "kPa", "metric", 340),
        ("50", "kPa", "inch", 344.7378647),
        ("3.4 bar", "kPa", "inch", 340),
        ("−25", "°C", "metric", -25),
        ("14 °F", "°C", "inch", -10),
        ("0,88", "share", "metric", 0.88),
        ("88", "share", "metric", 0.88),
        ("10 gal/min", "L/min", "metric", 37.85411784),
        ("0.85 g/ml", "kg/m³", "metric", 850),
        ("90 s", "min", "metric", 1.5),
    ],
)
def test_numbers_are_taken_in_the_units_people_use(text, unit, family, value):
    assert understood_number(text, unit, "thing", family) == pytest.approx(value, rel=1e-8)


@pytest.mark.parametrize(("text", "unit"), [("warm", "°C"), ("3 mm", "kPa"), ("", "rpm"), ("1.2.3", "L"), ("5 K", "°C")])
def test_what_is_no_such_number_is_refused_with_an_example(text, unit):
    with pytest.raises(ReadingTextError, match="like"):
        understood_number(text, unit, "thing", "metric")


@given(st.floats(-40, 400), st.sampled_from(["kPa", "rpm", "°C", "L/min", "K", "g"]))
def test_a_shown_number_can_be_typed_again(value, unit):
    assert understood_number(number_text(value, unit), unit, "thing", "metric") == pytest.approx(value, rel=1e-5, abs=1e-5)


def test_a_standing_names_what_restricts_and_when_oil_goes_unfiltered():
    cold, hot = (standing_at(point(WEAK), *place) for place in ((-20.0, 1500.0), (120.0, 6000.0)))
    assert cold.parts[0].name == "media"
    assert cold.parts[0].share > hot.parts[[part.name for part in hot.parts].index("media")].share
    assert sum(part.share for part in cold.parts) == pytest.approx(1)
    assert cold.filling_onset > cold.onset
    assert cold.onset == pytest.approx(bypass_onset(point(WEAK), [1500.0]).temperature[0])
    still = standing_at(point(("oil/pumping_limit_c", 0)), -20.0, 1500.0)
    assert (still.parts, still.filter_pressure) == ((), None)

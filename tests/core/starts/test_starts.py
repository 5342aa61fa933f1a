"""A start followed in time, life, and duty cycles."""

from __future__ import annotations

from dataclasses import fields, replace
from math import exp, log

import numpy as np
import pytest

from builders import point, reading, solved_at, study
from tabrel.core.circuit.dirt_loading import UsualLaw, dirt_capacity
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.errors import StudyError
from tabrel.core.maps.monte_carlo import sampled_problem
from tabrel.core.maps.onset import bypass_onset
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.starts.duty_cycle import SHIPPED_CYCLES, CycleTrace, evened, read_duty_cycle, running_speed
from tabrel.core.starts.life import captured_mass, end_of_service, filter_life, loading_at_onset, service_hours
from tabrel.core.starts.together import Wanted, followed
from tabrel.core.starts.warm_up import WarmUp, completed_plan, warm_up, warm_ups
from tabrel.core.study.defaults import USUAL_PLAN
from tabrel.core.study.plans import WarmUpPlan
from tabrel.core.uncertainty.model_arrays import flattened, one_draw, picked
from tabrel.core.uncertainty.propagation import Result
from tabrel.core.uncertainty.sampling import random_quantiles

UNKNOWN = Result(None)
WEAK = reading("bypass.spring_installed_length", "19 mm")


def flat_cycle(minutes=10.0, speed=1500.0):
    return CycleTrace(np.array([0.0, minutes * 60]), np.array([speed, speed]), None)


def test_a_start_fills_the_galleries_first_and_then_follows_the_steady_circuit():
    problem = point(WEAK)
    plan, assumed = completed_plan(WarmUpPlan(start_c=-20.0, can_time_constant_min=0.0))
    assert "time_constant_min" in assumed
    assert "start_c" not in assumed
    start = warm_up(problem, flat_cycle(), plan)
    filling, steady = start.time[start.is_filling], start.time[~start.is_filling]
    assert filling[-1] == steady[0] == start.filled_after
    assert (start.gallery_pressure[start.is_filling] == 0).all()
    for second in (0, 200, 600):
        # σ: the exponential approach, by hand
        celsius = plan.end_c - (plan.end_c - plan.start_c) * exp(-second / (60 * plan.time_constant_min))
        k = np.flatnonzero(start.time == second)[0]
        assert start.temperature[k] == pytest.approx(celsius)
        if second:
            at = solved_at(problem, celsius, 1500.0)
            assert start.gallery_pressure[k] == pytest.approx(at.quantity("gallery_pressure")[0], rel=1e-6)


@pytest.mark.parametrize("places", [20_000, 500])
@pytest.mark.parametrize(
    "cycle", [flat_cycle(), CycleTrace(np.array([0.0, 20, 21, 60, 300]), np.array([900.0, 900, 0, 3000, 2500]), None)]
)
def test_starts_of_draws_that_are_followed_at_once_are_those_of_each_alone(monkeypatch, places, cycle):
    made = study(WEAK)
    problem = sampled_problem(made, made.samples[0], quantiles=random_quantiles(40))
    plan, _ = completed_plan(WarmUpPlan(start_c=-25.0, gallery_volume_l=0.5, can_time_constant_min=2.0))
    drawn = picked(problem.sampled, slice(0, 5))
    monkeypatch.setattr("tabrel.core.starts.together.PLACES_AT_ONCE", places)
    together = warm_ups(drawn, 5, cycle, plan)
    alone = [warm_up(one_draw(problem.sampled, i), cycle, plan) for i in range(5)]
    assert len({start.filled_after for start in alone}) == 5  # each in its own time
    for result, expected in zip(together, alone, strict=True):
        for field in fields(WarmUp):
            np.testing.assert_allclose(getattr(result, field.name), getattr(expected, field.name), rtol=1e-6, atol=1e-9)


def test_courses_that_want_different_things_are_sent_each_its_own():
    """Courses of one, two and three questions, which want one thing or another in one condition or another."""
    asked = []

    def course(i):
        sentences = []
        for k in range(i + 1):
            place = np.full(k + 1, float(i))
            result = yield Wanted("filling" if k % 2 else "steady", place, place, place, ("lift",) if i else ("balance",))
            sentences.append({name: values.tolist() for name, values in result.items()})
        return sentences

    def solve(which, wanted):
        assert len({item.condition for item in wanted}) == 1
        asked.append(list(which))
        return [{name: item.speed * 10 for name in item.names} for item in wanted]

    assert followed([course(i) for i in range(3)], solve) == [
        [{"balance": [0]}],
        [{"lift": [10]}, {"lift": [10, 10]}],
        [{"lift": [20]}, {"lift": [20, 20]}, {"lift": [20, 20, 20]}],
    ]
    assert asked == [[0, 1, 2], [1, 2], [2]]


def followed_finely(problem, cycle, plan, step=0.02):
    """Return filling time, litres, litres unfiltered and open time by rectangles of 0.02 s, each at its middle."""
    middle = np.arange(step / 2, cycle.time[-1], step)
    celsius = plan.end_c - (plan.end_c - plan.start_c) * np.exp(-middle / (60 * plan.time_constant_min))
    speed = np.interp(middle, cycle.time, cycle.speed)
    filling, steady = (
        solve_circuit(replace(problem, condition=condition), problem.place(celsius, speed)) for condition in ("filling", "steady")
    )
    full = int(np.searchsorted(np.cumsum(filling.quantity("filter_flow")) * step, plan.gallery_volume_l * 1e-3)) + 1
    parts = [
        np.concatenate([filling.quantity(name)[:full], steady.quantity(name)[full:]])
        for name in ("filter_flow", "unfiltered_fraction", "bypass_fraction")
    ]
    return full * step, np.sum(parts[0]) * step, np.sum(parts[0] * parts[1]) * step, np.count_nonzero(parts[2] > 0) * step


def test_times_and_amounts_agree_with_a_start_followed_in_steps_of_a_fiftieth_of_a_second():
    """On a cycle of ramps and pulses whose corners fall between the seconds; counting whole seconds was up to 9 % off."""
    problem = point(WEAK)
    plan, _ = completed_plan(WarmUpPlan(start_c=-5.0, can_time_constant_min=0.0, gallery_volume_l=1.3))
    corners = [
        (0, 900),
        (2.3, 1100),
        (3.1, 2900),
        (9.77, 1500),
        (30.4, 1500),
        (31.2, 3600),
        (31.9, 3600),
        (33.3, 900),
        (60, 2500),
    ]
    cycle = CycleTrace(*np.array(corners, dtype=float).T, None)
    filled, volume, unfiltered, open_time = followed_finely(problem, cycle, plan)
    start = warm_up(problem, cycle, plan)
    assert start.filled_after == pytest.approx(filled, abs=0.02)
    assert start.volume == pytest.approx(volume, rel=1e-3)
    assert start.unfiltered_volume == pytest.approx(unfiltered, rel=5e-3)
    assert start.bypass_time == pytest.approx(open_time, abs=0.1)
    assert start.pressure_after == start.filled_after


def test_a_filling_of_a_fraction_of_a_second_is_told_as_such():
    plan, _ = completed_plan(WarmUpPlan(start_c=80.0, gallery_volume_l=0.1))
    problem = point()
    flow = solve_circuit(replace(problem, condition="filling"), problem.place(np.array([80.0]), np.array([1500.0])))
    start = warm_up(problem, flat_cycle(1.0), plan)
    assert start.filled_after == pytest.approx(1e-4 / flow.quantity("filter_flow")[0], abs=0.002)
    assert 0.2 < start.filled_after < 0.4


def test_what_changes_faster_than_a_second_is_averaged_and_not_sampled():
    """Speed jumps between 1000 and 3000 rpm every tenth of a second; at the full seconds it is always 1000."""
    time = np.arange(0, 60.05, 0.1)
    fast = CycleTrace(time, np.where(np.arange(len(time)) % 2, 3000.0, 1000.0), None)
    plan, _ = completed_plan(None)
    computed, mean = (warm_up(point(), cycle, plan) for cycle in (fast, flat_cycle(1.0, 2000.0)))
    assert computed.volume == pytest.approx(mean.volume, rel=0.01)
    assert computed.filled_after == pytest.approx(mean.filled_after, rel=0.02)


def test_a_step_between_two_seconds_stays_where_it_is():
    cycle = CycleTrace(np.array([0.0, 10.4, 10.41, 20.0]), np.array([0.0, 0.0, 2000.0, 2000.0]), None)
    assert evened(cycle) is cycle
    warm, _ = completed_plan(WarmUpPlan(start_c=90.0, end_c=90.0))
    start, flat = (warm_up(point(), item, warm) for item in (cycle, flat_cycle(1.0, 2000.0)))
    assert start.filled_after - 10.405 == pytest.approx(flat.filled_after, abs=0.02)


def test_the_speed_of_a_life_is_that_of_the_time_spent_and_not_of_the_corners():
    """0 to 2000 rpm in a ramp of 100 s, then 300 s at 3000 rpm: 400 s of running, by hand."""
    cycle = CycleTrace(
        np.array([0.0, 100.0, 100.001, 400.001, 400.002, 900.0]), np.array([0.0, 2000.0, 3000.0, 3000.0, 0.0, 0.0]), None
    )
    assert running_speed(cycle, 0.125) == pytest.approx(1000, abs=1)
    assert running_speed(cycle, 0.5) == pytest.approx(3000, abs=1)
    assert running_speed(cycle, 0.9) == pytest.approx(3000, abs=1)
    finely = np.interp(np.arange(0, 1800, 0.01), SHIPPED_CYCLES["mountain road"].time, SHIPPED_CYCLES["mountain road"].speed)
    for share in (0.1, 0.5, 0.9):
        assert running_speed(SHIPPED_CYCLES["mountain road"], share) == pytest.approx(np.quantile(finely, share), abs=1)
    assert running_speed(CycleTrace(np.array([0.0, 9.0]), np.zeros(2), None), 0.5) == 0


def test_the_bypass_stays_open_until_the_onset_temperature():
    problem = point(WEAK)
    plan, _ = completed_plan(WarmUpPlan(start_c=-20.0, can_time_constant_min=0.0))
    onset = bypass_onset(problem, [1500.0]).temperature[0]
    reaches = -60 * plan.time_constant_min * log((plan.end_c - onset) / (plan.end_c - plan.start_c))
    start = warm_up(problem, flat_cycle(), plan)
    assert start.bypass_time == pytest.approx(reaches, abs=0.02)


def test_a_lagging_can_keeps_the_bypass_open_for_longer_and_follows_its_own_law():
    problem = point(WEAK)
    quick, slow = (
        warm_up(problem, flat_cycle(), completed_plan(WarmUpPlan(start_c=-20.0, can_time_constant_min=lag))[0])
        for lag in (0.0, 3.0)
    )
    assert slow.bypass_time > quick.bypass_time
    assert (slow.can_temperature <= slow.temperature + 1e-9).all()
    # σ dT_can/dt = T − T_can, by central differences at the full seconds
    seconds = np.arange(10.0, 600.0)
    can, sump = (np.interp(seconds, slow.time, values) for values in (slow.can_temperature, slow.temperature))
    assert (can[2:] - can[:-2]) / 2 * 180 == pytest.approx((sump - can)[1:-1], abs=0.05)


def test_a_recorded_trace_replaces_the_exponential_and_a_standing_engine_moves_no_oil():
    trace = CycleTrace(np.array([0.0, 10.0, 11.0, 60.0]), np.array([0.0, 0.0, 1200.0, 1200.0]), np.array([5.0, 5.0, 5.0, 30.0]))
    start = warm_up(point(), trace, completed_plan(None)[0])
    assert start.temperature[-1] == pytest.approx(30)
    assert (start.filter_flow[start.time <= 10] == 0).all()
    assert (start.filter_flow[start.time > 11] > 0).all()
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


def test_at_the_loading_found_the_valve_just_opens():
    problem = point()
    temperatures = np.array([-10.0, 20.0, 95.0])
    loadings = loading_at_onset(problem, temperatures, 2000.0)
    assert (np.diff(loadings) > 0).all()
    for celsius, loading in zip(temperatures, loadings, strict=True):
        around = [point(loading=loading * off) for off in (0.999, 1.001)]
        below, above = (solved_at(item, celsius, 2000.0).quantity("bypass_fraction")[0] for item in around)
        assert below == 0
        assert above > 0


def test_a_valve_open_from_new_has_no_life_and_one_that_never_opens_has_no_end():
    assert loading_at_onset(point(reading("bypass.opening_pressure", "5 kPa")), np.array([-20.0]), 2000.0)[0] == 1
    assert loading_at_onset(point(reading("bypass.opening_pressure", "20 bar")), np.array([100.0]), 2000.0)[0] == np.inf
    assert np.isnan(loading_at_onset(point(("samples/0/bypass/location", "none")), np.array([20.0]), 2000.0)[0])
    mass, is_least = captured_mass(UsualLaw(0.02, 8.0), 1.0, np.array([8.0, 1.0]))
    assert mass == pytest.approx([0.02, 0.0])
    assert not is_least.any()


def test_lives_of_draws_are_those_of_each_draw_by_itself():
    problem = sampled_problem(study(), study().samples[0], quantiles=random_quantiles(6)).sampled
    temperatures = np.array([-20.0, 10.0, 40.0, 70.0, 95.0, 110.0])
    together = loading_at_onset(flattened(problem, (6, 1)), temperatures, 2000.0)
    alone = [loading_at_onset(one_draw(problem, i), temperatures[i : i + 1], 2000.0)[0] for i in range(6)]
    assert together == pytest.approx(alone, rel=1e-9)
    assert np.isfinite(together).any()


def test_life_is_captured_dirt_over_ingress_and_the_half_life_its_own_formula():
    made = study(("samples/0/capacity_g", 20))
    problem, measured = operating_point(made, made.samples[0]), measure_sample(made.samples[0], made.circuit)
    plan, _ = completed_plan(WarmUpPlan(ingress_g_h=0.1, terminal_ratio=8.0, sump_volume_l=5.0, end_c=95.0))
    life = filter_life(
        problem, measured, plan, 2000.0, [Result(0.5), Result(None, low=0.25, relation=">="), UNKNOWN, UNKNOWN, UNKNOWN]
    )
    warm = life.rows[-1]
    hours = 20 * log(loading_at_onset(problem, np.array([95.0]), 2000.0)[0]) / log(8) / 0.1
    assert warm.steady_time / 3600 == pytest.approx(hours)
    assert all(row.filling_time <= row.steady_time or np.isnan(row.steady_time) for row in life.rows)
    flow = solved_at(problem, 95.0, 2000.0).quantity("filter_flow")[0]
    exact, bound = life.clean_up
    assert exact.half_life == pytest.approx(5e-3 * log(2) / (flow * 0.5))
    # twice as long where a quarter is held back, and no longer than that where at least a quarter is
    assert (bound.half_life, bound.low, bound.high) == (None, None, pytest.approx(2 * exact.half_life))
    assert life.capacity.basis == "stated"
    assert (
        filter_life(
            problem, measure_sample(study(("samples/0/media_family", None)).samples[0], None), plan, 2000.0, [UNKNOWN] * 5
        )
        is None
    )


def test_the_end_of_service_is_the_stated_hours_times_the_ingress_on_the_loading_law():
    """100 h at 0.1 g/h are 10 g, half of a capacity of 20 g at 8 times the clean pressure: 8^(1/2) by the usual law."""
    made = study(("samples/0/capacity_g", 20), ("uses", [{"name": "daily", "interval_h": 100}]))
    plan, _ = completed_plan(WarmUpPlan(ingress_g_h=0.1, terminal_ratio=8.0))
    capacity = dirt_capacity(measure_sample(made.samples[0], made.circuit), 8.0)
    hours = service_hours(made, made.samples[0])
    ended = end_of_service(capacity, 1.0, plan, hours)
    assert (hours, ended.captured, ended.is_least) == (100, pytest.approx(0.01), False)
    assert ended.loading == pytest.approx(8**0.5)
    assert service_hours(study(), study().samples[0]) is None


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


def test_a_cell_that_an_export_has_marked_is_the_number_it_was():
    cycle = read_duty_cycle("time_s,speed_rpm,oil_temperature_c\n0,900,'-25\n10,1500,'-24.5\n", "csv")
    assert cycle.temperature.tolist() == [-25, -24.5]

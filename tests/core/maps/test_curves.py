"""Regulator curve, filter alone, an independent library, scenarios: the circuit seen from other sides."""

from __future__ import annotations

import dataclasses

import fluids
import numpy as np
import pytest
from fluids.core import Reynolds

from builders import point, reading, solved_at, study
from tabrel.core.circuit.calibration import CIRCUIT_KEYS
from tabrel.core.circuit.filter_alone import FilterAlone, filter_alone_map, filter_at_flow, onset_over_flow
from tabrel.core.circuit.operating_point import filter_alone, operating_point
from tabrel.core.errors import MissingInputsError, OutOfRangeError, StudyError
from tabrel.core.hydraulics.restrictions import bore_restriction, thick_edged_loss_coefficient
from tabrel.core.hydraulics.threshold_curve import Seen, threshold_curve
from tabrel.core.maps.onset import bypass_onset, regulator_opening
from tabrel.core.maps.operating_map import operating_map
from tabrel.core.maps.sensitivity import alone_effects, model_assumptions
from tabrel.core.study.plans import RoundHoles, Scenario

WEAK = reading("bypass.spring_installed_length", "19 mm")
SPEEDS = [800.0, 1500.0, 3000.0, 5000.0]
BLOCK = ("samples/0/bypass/location", "block")
NO_VALVE = ("samples/0/bypass/location", "none")
ADAPTER = {"holes": [{"shape": "round", "count": 3, "readings": {"diameter": ["5.3 mm"]}}], "wall_mm": 4}


def alone_of(problem):
    return FilterAlone(problem.filter, problem.oil, problem.loading)


@pytest.mark.parametrize("sense", ["pump", "gallery"])
@pytest.mark.parametrize("condition", ["steady", "filling"])
def test_on_the_regulator_curve_the_sensed_pressure_is_its_opening_pressure(sense, condition):
    problem = point(("circuit/regulator/sense", sense), ("circuit/regulator/opening_kpa", 350), condition=condition)
    curve = regulator_opening(problem, SPEEDS)
    if condition == "filling" and sense == "gallery":
        assert np.isnan(curve.temperature).all()  # empty galleries have no pressure to sense
        return
    result = 0
    for speed, closes in zip(SPEEDS, curve.temperature, strict=True):
        if np.isnan(closes) or closes >= 150:
            continue
        result += 1
        at = solved_at(problem, closes, speed)
        pressure = at.quantity("pump_pressure" if sense == "pump" else "gallery_pressure")[0]
        assert pressure == pytest.approx(problem.circuit.regulator_opening, rel=1e-6)
        assert solved_at(problem, closes - 0.5, speed).quantity("regulator_fraction")[0] > 0
        assert solved_at(problem, closes + 0.5, speed).quantity("regulator_fraction")[0] == 0
    assert result


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


def test_a_bent_threshold_is_found_to_its_tolerance_though_the_last_step_is_only_foreseen():
    zeros, bend = np.array([11.3, 47.9, 88.88]), np.array([0.8, 3.0, 20.0])

    def surplus(temperature, i):
        """Falls through zero on a steep bend; its slope at zero is −1 per bend."""
        return np.expm1(-(temperature - zeros[i]) / bend[i])

    curve = threshold_curve(surplus, columns=3, cold_end=-40.0, tolerance=np.full(3, 1e-8))
    assert (np.abs(curve.closes - zeros) <= 2e-8 * bend).all()
    assert np.isnan(curve.reopens).all()


def test_a_threshold_on_a_row_of_the_scan_is_found_however_its_zero_is_rounded():
    def surplus(temperature, i):
        rounding = 1e-18 if len(temperature) == 3 else 0.0
        return 20.0 - temperature + rounding + 0.0 * i

    curve = threshold_curve(surplus, columns=2, cold_end=-40.0, tolerance=np.full(2, 1e-9))
    assert curve.closes == pytest.approx([20, 20])
    assert np.isnan(curve.reopens).all()


@pytest.mark.parametrize("beyond", [0.0003, 0.002, 0.01, 0.03, 0.2])
def test_a_threshold_just_beyond_a_corner_is_found(beyond):
    """As where a valve of the engine opens: the surplus falls 0.04 per kelvin up to there, and 0.11 from there on."""
    corners = np.linspace(-20, 60, 61)

    def surplus(temperature, i):
        past = temperature - corners[i]
        return 0.11 * beyond - np.where(past < 0, 0.04 * past, 0.11 * past)

    curve = threshold_curve(surplus, columns=61, cold_end=-40.0, tolerance=np.full(61, 1e-7))
    assert curve.closes == pytest.approx(corners + beyond, abs=2e-6)


VIEW = np.arange(-40.0, 140.1, 2.5), np.arange(600.0, 7000.1, 200.0)
FINER = np.arange(600.0, 7000.1, 50.0).tolist()


@pytest.mark.parametrize("changes", [
    (), (WEAK,), (WEAK, BLOCK), (WEAK, ("oil/pumping_limit_c", -25)), (WEAK, ("circuit/regulator/sense", "gallery")),
    (("circuit/regulator/opening_kpa", 600), ("circuit/regulator/safety_kpa", 650)), (WEAK, ("circuit/engine/jet_share", 0)),
    (reading("anti_drain.opening_pressure", "20 kPa"), WEAK),
])  # fmt: skip
@pytest.mark.parametrize("condition", ["steady", "filling"])
def test_a_map_tells_about_where_to_look_and_nothing_else(changes, condition):
    problem = point(*changes, condition=condition)
    axes = [axis.tolist() for axis in VIEW]
    # the map of a filter of hardly any resistance, whose valve stays shut, would say that there is nothing to look for
    solved, other = (operating_map(item, *axes) for item in (problem, dataclasses.replace(problem, loading=0.001)))
    assert (WEAK not in changes) or np.isfinite(bypass_onset(problem, FINER).temperature).any()
    for curve in (bypass_onset, regulator_opening):
        alone = curve(problem, FINER)
        for known in (solved, other):
            seen = curve(problem, FINER, known)
            np.testing.assert_allclose(seen.temperature, alone.temperature, atol=1e-4, rtol=0)
            np.testing.assert_allclose(seen.reopens, alone.reopens, atol=1e-4, rtol=0)


def test_what_was_seen_spares_the_look_at_every_temperature():
    problem, places = point(WEAK), []
    solved = operating_map(problem, *(axis.tolist() for axis in VIEW))
    with pytest.MonkeyPatch.context() as patch:
        original = type(problem).place

        def place(self, temperature, speed):
            places.append(np.size(temperature))
            return original(self, temperature, speed)

        patch.setattr(type(problem), "place", place)
        bypass_onset(problem, FINER, solved)
    assert sum(places) < 10 * len(FINER)  # of nearly a hundred temperatures


class Bent:
    """Surpluses of known zeros, which fall and rise on a bend; and what a map of rows 2.5 K apart would tell of them."""

    ROWS = np.arange(-39.0, 140.1, 2.5)

    def __init__(self, closes, reopens):
        self.closes, self.reopens = np.asarray(closes, dtype=float), np.asarray(reopens, dtype=float)
        self.asked = 0

    def surplus(self, temperature, i):
        self.asked += np.broadcast_to(temperature, np.broadcast_shapes(np.shape(temperature), np.shape(i))).size
        falls = np.expm1((self.closes[i] - temperature) / 30)
        rises = np.expm1((temperature - self.reopens[i]) / 30)
        return np.where(temperature < (self.closes[i] + self.reopens[i]) / 2, falls, rises)

    def curve(self, seen):
        return threshold_curve(
            self.surplus, columns=len(self.closes), cold_end=-40.0, tolerance=np.full(len(self.closes), 1e-9), seen=seen
        )

    @property
    def seen(self):
        """A pressure that rises a tenth as fast once the valve is open."""
        looked = self.surplus(self.ROWS[:, None], np.arange(len(self.closes)))
        self.asked = 0
        return Seen(self.ROWS, np.where(looked > 0, 0.1 * looked, looked))


def test_what_was_seen_says_where_a_threshold_is_though_it_bends_there():
    never, far = 1e3, 2e3
    bent = Bent([-39.6, -20, 33.33, 139.9, 143, 149.9, 151, never, -40.02], [far, 60.2, *[far] * 7])
    curve = bent.curve(bent.seen)
    closes = [-39.6, -20, 33.33, 139.9, 143, 149.9, 150, 150, np.nan]  # the last one is shut at the cold end
    assert curve.closes == pytest.approx(closes, abs=1e-6, nan_ok=True)
    assert curve.reopens[1] == pytest.approx(60.2, abs=1e-6)
    assert np.isnan(np.delete(curve.reopens, 1)).all()
    assert bent.asked < 3 * 80  # of 96 temperatures in nine columns


def test_what_opens_beyond_the_hottest_temperature_seen_is_found():
    bent = Bent([-60.0, -60, -60], [146.0, 151, 139])
    curve = bent.curve(bent.seen)
    assert np.isnan(curve.closes).all()
    assert curve.reopens[[0, 2]] == pytest.approx([146, 139], abs=1e-6)
    assert np.isnan(curve.reopens[1])


def test_what_was_seen_wrongly_is_looked_at_again():
    bent = Bent([-20.0, 40, 80], [1e3, 1e3, 1e3])
    right = bent.seen
    curve = bent.curve(Seen(right.temperature + 9.7, right.excess))  # nothing to see above 140 °C, nor near −40
    assert curve.closes == pytest.approx([-20, 40, 80], abs=1e-6)
    shifted = Seen(right.temperature, np.roll(right.excess, 8, axis=0))
    assert bent.curve(shifted).closes == pytest.approx([-20, 40, 80], abs=1e-6)


@pytest.mark.parametrize("location", ["dome_end", "thread_end", "block", "none"])
def test_the_filter_alone_passes_exactly_the_flow_asked_for(location):
    problem = point(WEAK, ("samples/0/bypass/location", location), ("samples/0/leak", {"count": 3, "diameter_mm": 0.5}))
    temperature, flow = np.array([-25.0, 10.0, 100.0])[:, None], np.array([1.0, 15.0, 60.0])[None, :] / 60e3
    state = filter_at_flow(alone_of(problem), temperature, flow)
    assert state.flow_rate.value == pytest.approx(np.broadcast_to(flow, (3, 3)), rel=1e-8)
    parts = state.media_flow + state.bypass_flow + state.defect_flow
    assert parts == pytest.approx(state.flow_rate.value, rel=1e-9)
    if problem.filter.valve:
        opening = problem.filter.valve.opening_pressure * (1 - 0.0003 * (temperature - 20))
        assert (state.bypass_flow[state.valve_pressure <= opening] == 0).all()


def test_the_filter_alone_agrees_with_the_filter_in_the_engine_at_the_same_flow():
    problem = point(WEAK)
    at = solved_at(problem, 5.0, 2500.0)
    alone = filter_at_flow(alone_of(problem), np.array([5.0]), at.quantity("filter_flow"))
    assert alone.filter_pressure.value == pytest.approx(at.quantity("filter_pressure"), rel=1e-8)
    assert alone.bypass_flow / alone.flow_rate.value == pytest.approx(at.quantity("bypass_fraction"), abs=1e-8)


def test_onset_over_flow_is_where_the_valve_just_opens():
    problem = point(WEAK)
    flows = np.array([4.0, 20.0, 50.0]) / 60e3
    curve = onset_over_flow(alone_of(problem), flows, -40.0)
    assert (np.diff(curve.closes) > 0).all()
    for flow, closes in zip(flows, curve.closes, strict=True):
        colder, warmer = (filter_at_flow(alone_of(problem), np.array([closes + off]), np.array([flow])) for off in (-0.01, 0.01))
        assert colder.bypass_flow[0] > 0
        assert warmer.bypass_flow[0] == 0
    assert np.isnan(onset_over_flow(alone_of(point(("samples/0/bypass/location", "none"))), flows, -40.0).closes).all()


def test_the_filter_alone_refuses_a_flow_that_is_none():
    with pytest.raises(OutOfRangeError, match="above zero"):
        filter_alone_map(alone_of(point()), [20.0], [0.0])
    solved = filter_alone_map(alone_of(point(("oil/pumping_limit_c", -20))), [-30.0, 20.0], [3e-4])
    assert np.isnan(solved.quantity("element_pressure")[0]).all()
    assert np.isfinite(solved.quantity("unfiltered_fraction")[1]).all()


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
            Scenario("x", adapter_holes=RoundHoles(3, 5.3)),
            point(("circuit/adapter", {**ADAPTER, "turn_deg": 90}), condition="filling"),
        ),
    ):
        thought, differs = point(scenario=scenario, condition="filling"), False
        for temperature, speed in ((-25.0, 1500.0), (100.0, 5000.0)):
            member, two, as_is = (solved_at(p, temperature, speed).quantity("filter_pressure") for p in (thought, typed, plain))
            assert member == pytest.approx(two, rel=1e-12)
            differs |= bool(member != as_is)
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


def test_the_filter_alone_needs_no_engine():
    made = study(("circuit", None), reading("thread.major_diameter", "20 mm"), reading("thread.pitch", "1.5 mm"))
    alone = filter_alone(made, made.samples[0])
    with pytest.raises(MissingInputsError) as error:
        operating_point(made, made.samples[0])
    assert set(error.value.keys) == {f"circuit.{key}" for key in CIRCUIT_KEYS}
    assert np.isfinite(filter_alone_map(alone, [-20.0, 100.0], [3e-4]).quantity("element_pressure")).all()
    names = {assumption.name for assumption in model_assumptions(made, made.samples[0], alone=True)}
    assert "model.permeability" in names
    assert "model.pump" not in names
    effects = alone_effects(made, made.samples[0], quantity="element_pressure", flow_rate=20 / 60e3)
    assert {effect.assumption.name for effect in effects} == names

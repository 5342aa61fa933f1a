"""Sampled numbers through the same formulas: their laws, and Monte Carlo against first order."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.special import ndtr

from builders import reading, study
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.circuit.operating_point import AS_IT_IS, operating_point
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.maps import monte_carlo
from tabrel.core.maps.monte_carlo import (
    Band,
    Progress,
    interval_of,
    onset_interval,
    quantiles_of,
    quantity_band,
    sampled_along,
    sampled_onset,
    sampled_problem,
)
from tabrel.core.maps.onset import bypass_onset, onset_of_columns
from tabrel.core.maps.sensitivity import MODEL_KEYS, alone_effects, assumption_effects, input_sources, model_assumptions
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.model import Reading
from tabrel.core.study.plans import Scenario
from tabrel.core.uncertainty.estimate import estimate_quantity
from tabrel.core.uncertainty.model_arrays import finite_places, flattened, picked
from tabrel.core.uncertainty.sampled_number import SampledNumber, arc_cosine, at_least_zero, nominal_value, square_root, values_of
from tabrel.core.uncertainty.sampling import SampledVariables, one_at_a_time, part_of, random_quantiles

WEAK = reading("bypass.spring_installed_length", "19 mm")
HOT = np.array([95.0, 100.0, 110.0])
FAST = np.array([3000.0, 3000.0, 3000.0])


def band_of(problem, quantity="element_pressure", temperature=HOT, speed=FAST):
    *progress, band = quantity_band(problem, temperature, speed, quantity)
    assert all(isinstance(step, Progress) for step in progress)
    assert isinstance(band, Band)
    return band, progress


def test_a_sampled_number_computes_draw_by_draw_and_chooses_by_its_nominal():
    draws = np.array([[1.0], [2.0], [4.0]])
    x = SampledNumber(2.0, draws)
    for formula in (
        lambda x: 3 - x,
        lambda x: 1 / x + x / 2,
        lambda x: (x**2 - 1) * x,
        lambda x: -x + 5,
        lambda x: square_root(x) if isinstance(x, SampledNumber) else x**0.5,
        lambda x: x * x - x,
    ):
        result = formula(x)
        assert result.nominal == pytest.approx(formula(2.0))
        assert result.draws.ravel() == pytest.approx([formula(item) for item in (1.0, 2.0, 4.0)])
    assert nominal_value(x) == 2
    assert values_of(x) is draws
    assert values_of(3) == 3.0
    assert (at_least_zero(x - 2).draws >= 0).all()
    assert at_least_zero(x - 2).nominal == 0
    assert arc_cosine(SampledNumber(0.5, np.array([[0.5], [1.5]]))).draws.ravel() == pytest.approx([np.pi / 3, 0])


def test_draws_follow_the_estimate_and_do_not_depend_on_what_else_is_sampled():
    estimate = estimate_quantity(QUANTITIES["media.thickness"], [Reading("0.60 mm"), Reading("0.64 mm"), Reading("0.62 mm")])
    variables = SampledVariables(random_quantiles(20000), "A")
    first = variables.add("media.thickness", estimate).draws
    assert first.mean() == pytest.approx(estimate.value, rel=1e-3)
    # Student's t of 30 degrees of freedom is a little wider than the normal
    wide = np.hypot(estimate.uncertainty_a * np.sqrt(30 / 28), estimate.uncertainty_b)
    assert first.std() == pytest.approx(wide, rel=0.03)
    other = SampledVariables(random_quantiles(20000), "A")
    other.with_model_factor("model.pump", 1.0, 1.02)
    assert (other.add("media.thickness", estimate).draws == first).all()
    assert (SampledVariables(random_quantiles(20000), "B").add("media.thickness", estimate).draws != first).any()
    engine = [SampledVariables(random_quantiles(50), owner).with_model_range("model.pump", 1.0, 0.5, 2.0).draws for owner in "AB"]
    assert (engine[0] == engine[1]).all()


def test_parts_of_a_model_are_picked_place_by_place():
    made = study(WEAK)
    problem = sampled_problem(made, made.samples[0], quantiles=random_quantiles(6))
    assert problem.count + problem.impossible == 6
    some = picked(problem.sampled, slice(2, 4))
    assert some.filter.media.shape == (2, 1)
    assert some.oil.log_temperature is problem.sampled.oil.log_temperature
    flat = flattened(problem.sampled.filter, (6, 3))
    assert flat.media[3:6] == pytest.approx([float(problem.sampled.filter.media[1, 0])] * 3)
    assert finite_places(problem.sampled, 6).all()


def test_without_spread_every_draw_is_the_nominal_circuit():
    made = study(WEAK)
    problem = sampled_problem(made, made.samples[0], quantiles=one_at_a_time(["nothing"], (0.1, 0.9)))
    band, _ = band_of(problem)
    assert band.low == pytest.approx(band.value, rel=1e-5)  # fewer stations across a pleat
    assert band.high == pytest.approx(band.low, rel=1e-9)
    onset = onset_interval(problem, 2000.0)
    assert onset.low == pytest.approx(onset.value, abs=1e-3)
    assert onset.value == pytest.approx(bypass_onset(problem.nominal, [2000.0]).temperature[0], abs=1e-6)


def test_monte_carlo_agrees_with_first_order_where_the_model_is_nearly_linear():
    """JCGM 101, 8: hot, the logarithm of the element's pressure is nearly linear in every input."""
    made = study(WEAK)
    sample = made.samples[0]
    names: list[str] = []

    def listening(name):
        names.append(name)
        return np.full((1, 1), np.nan)

    sampled_problem(made, sample, quantiles=listening)
    names = sorted(set(names) - {"size"})
    assert len(names) > 25
    variance = np.zeros(len(HOT))
    for name in names:
        # one standard deviation either way: of a rectangular distribution in `model.…`, of a normal one else
        half = 1 / np.sqrt(12) if "model." in name else float(ndtr(1.0)) - 0.5
        problem = sampled_problem(made, sample, quantiles=one_at_a_time([name], (0.5 - half, 0.5 + half)))
        solved = solve_circuit(problem.sampled, problem.sampled.place(HOT, FAST))
        low, high = np.log(solved.quantity("element_pressure"))
        variance += ((high - low) / 2) ** 2
    problem = sampled_problem(made, sample, quantiles=random_quantiles(4000))
    solved = solve_circuit(problem.sampled, problem.sampled.place(HOT, FAST))
    assert np.log(solved.quantity("element_pressure")).std(axis=0) == pytest.approx(np.sqrt(variance), rel=0.06)


def test_a_band_holds_the_share_of_fresh_draws_that_it_claims():
    made = study(WEAK)
    band, progress = band_of(sampled_problem(made, made.samples[0], quantiles=random_quantiles(1000)))
    fresh = sampled_problem(made, made.samples[0], quantiles=random_quantiles(2000, seed=7))
    computed = solve_circuit(fresh.sampled, fresh.sampled.place(HOT, FAST)).quantity("element_pressure")
    inside = ((computed >= band.low) & (computed <= band.high)).mean(axis=0)
    assert inside == pytest.approx([0.95] * 3, abs=0.02)
    assert (band.low < band.middle).all()
    assert [progress[0].total, progress[-1].done] == [band.draws, band.draws]
    again, _ = band_of(sampled_problem(made, made.samples[0], quantiles=random_quantiles(1000)))
    assert (again.high == band.high).all()  # a fixed seed


@pytest.mark.parametrize("location", ["dome_end", "thread_end", "block", "none"])
def test_the_flow_balance_closes_in_every_draw(location):
    made = study(WEAK, ("samples/0/bypass/location", location), ("samples/0/leak", {"count": 4, "diameter_mm": 0.5}))
    problem = sampled_problem(made, made.samples[0], quantiles=random_quantiles(200))
    temperature, speed = np.array([-25.0, 20.0, 110.0]), np.array([900.0, 2500.0, 6000.0])
    solved = solve_circuit(problem.sampled, problem.sampled.place(temperature, speed))
    assert solved.converged.all()
    assert np.abs(solved.quantity("balance")).max() < 1e-6
    shares = sum(solved.quantity(name) for name in ("media_fraction", "bypass_fraction", "defect_fraction"))
    assert np.abs(shares - 1).max() < 1e-9


def test_the_onset_interval_tells_a_valve_that_stays_shut_from_one_that_never_closes():
    made = study(reading("bypass.opening_pressure", "9 bar"))
    shut = onset_interval(sampled_problem(made, made.samples[0], quantiles=random_quantiles(100)), 2000.0)
    assert (shut.value, shut.low, shut.high, shut.shut_share) == (None, None, None, 1.0)
    made = study(reading("bypass.opening_pressure", "0.5 kPa"))
    wide = onset_interval(sampled_problem(made, made.samples[0], quantiles=random_quantiles(100), condition="filling"), 6000.0)
    assert (wide.value, wide.high, wide.shut_share) == (150.0, 150.0, 0.0)


def test_quantiles_leave_out_what_has_no_value():
    drawn = np.array([[1.0, np.nan], [3.0, np.nan], [2.0, 5.0], [np.nan, np.nan]])
    assert quantiles_of(drawn, (0.0, 0.5, 1.0)).tolist() == [[1.0, 5.0], [2.0, 5.0], [3.0, 5.0]]
    assert np.isnan(quantiles_of(np.array([[np.nan]]), (0.5,))).all()
    # a valve that stays shut in three draws of five lies below every temperature
    shut = np.array([[-np.inf], [-np.inf], [-20.0], [-np.inf], [-10.0]])
    assert quantiles_of(shut, (0.0, 0.75, 1.0)).ravel().tolist() == [-np.inf, -20.0, -10.0]


def test_an_interval_with_shut_draws_ends_where_the_open_ones_do():
    made = study(reading("bypass.opening_pressure", "1.6 bar"), ("oil/pumping_limit_c", -35))
    problem = sampled_problem(made, made.samples[0], quantiles=random_quantiles(400))
    collected = onset_interval(problem, 2000.0)
    assert 0 < collected.shut_share < 0.975
    columns = flattened(problem.sampled, (problem.count, 1))
    closes = onset_of_columns(columns, np.full(problem.count, 2000.0), -35.0).closes
    by_hand = np.sort(np.where(np.isnan(closes), -np.inf, closes))[int(0.975 * (problem.count - 1))]
    assert collected.high == pytest.approx(by_hand, abs=1.0)
    assert collected.low is None


def test_the_strongest_assumption_is_found_by_moving_it():
    made = study(WEAK)
    effects = assumption_effects(made, made.samples[0], quantity="element_pressure", speed=2000.0)
    assert [effect.mean_change for effect in effects] == sorted((effect.mean_change for effect in effects), reverse=True)
    by_name = {effect.assumption.name: effect for effect in effects}
    assert {effects[0].assumption.name, effects[1].assumption.name} <= {
        "model.permeability",
        "model.bearing_heating",
        "model.cold_viscosity",
    }
    # by hand: half or once and a half the media's resistance alone
    drawn = by_name["model.permeability"]
    for factor, onset in ((1.5**0.95, drawn.onset_low), (1.5**-0.95, drawn.onset_high)):
        point = operating_point(made, made.samples[0])
        moved = type(point)(
            type(point.filter)(**{**vars(point.filter), "media": point.filter.media / factor}), point.circuit, point.oil
        )
        assert bypass_onset(moved, [2000.0]).temperature[0] == pytest.approx(onset, abs=1e-4)
    assert by_name["model.discharge"].onset_shift < 1e-6  # it moves nothing while the valve is shut


def test_the_filter_alone_rests_on_no_assumption_of_the_engine():
    made = study(WEAK)
    effects = alone_effects(made, made.samples[0], quantity="element_pressure", flow_rate=20 / 60e3)
    names = {effect.assumption.name for effect in effects}
    assert "model.permeability" in names
    assert not names & {"model.pump", "model.regulator", "model.gallery", "model.bearing_heating", "model.cooler_share"}
    assert effects[0].onset_shift > 0


@pytest.mark.parametrize("key", sorted(set(MODEL_KEYS)))
def test_every_reading_listed_as_an_input_moves_the_circuit(key):
    """The inputs named by a map are those that it uses."""
    extra = {
        "plate.thickness": "2.2 mm",
        "anti_drain.opening_pressure": "3 kPa",
        "anti_drain.lift": "1.2 mm",
        "anti_drain.lip_diameter": "50 mm",
        "bypass.lift_limit": "0.4 mm",
        "bypass.opening_force": "11 N",
        "bypass.opening_pressure": "1.1 bar",
        "bypass.spring_dead_coils": "1.5",
        "element.height": "71 mm",
        "element.pleat_depth": "12 mm",
        "element.potting_depth": "1.5 mm",
        "tube.wall_thickness": "0.9 mm",
        "media.backing_thickness": "0.1 mm",
        "media.seam_overlap": "9 mm",
        "media.blocked_pleats": "2",
        "media.blocked_area": "3 cm2",
        "media.air_permeability": "90 L/m2/s",
        "thread.major_diameter": "20 mm",
        "thread.pitch": "1.5 mm",
    }
    changes = []
    if key.startswith("anti_drain"):
        changes += [reading("anti_drain.lift", "1.5 mm"), reading("anti_drain.lip_diameter", "44 mm")]
    if key.startswith("thread"):
        changes += [("circuit/stud", None), reading("thread.major_diameter", "19 mm"), reading("thread.pitch", "1 mm")]
    if key == "element.height":  # of use before the strip is cut free
        changes += [reading("media.strip_width"), reading("media.strip_length"), reading("element.height", "66 mm")]
    before, after = changes, changes
    if key in extra:
        after = [*changes, reading(key, extra[key])]
    else:
        typed = study().samples[0].readings[key][0]
        number, unit = str(typed).split(" ") if " " in str(typed) else (str(typed), "")
        after = [*changes, reading(key, f"{float(number) * (1.02 if unit else 1) + (0 if unit else 1):g} {unit}".strip())]

    def pressures(changes):
        made = study(*changes)
        point = operating_point(made, made.samples[0], condition="filling")  # in which the valve opens
        temperature, speed = np.array([-25.0, 100.0]), np.array([1500.0, 5000.0])
        return solve_circuit(point, point.place(temperature, speed)).quantity("filter_pressure")

    assert (pressures(before) != pressures(after)).any()


def test_inputs_are_listed_with_where_they_come_from():
    made = study(
        ("oil/provenance", "assumed"),
        ("samples/0/readings/media.thickness", [{"text": "0.6 mm", "provenance": "by_eye"}]),
        reading("bypass.opening_pressure", "1.1 bar"),
    )
    sources = {source.key: source.provenance for source in input_sources(made, measure_sample(made.samples[0], made.circuit), ())}
    assert sources["oil.viscosity"] == "assumed"
    assert sources["media.thickness"] == "by_eye"
    assert sources["bypass.opening_pressure"] == "measured"
    assert "bypass.spring_free_length" not in sources  # better evidence stands in its place
    assert sources["circuit.engine"] == "published"
    assert sources["holes.inlet[0].diameter"] == "measured"


def test_every_hole_gap_and_bore_is_spread_and_so_is_the_heads_share():
    """Centre-tube holes and the anti-drainback gap are holes too; the head's loss is known by one figure, as the cooler's is."""
    made = study(
        reading("anti_drain.lift", "1.1 mm"),
        reading("anti_drain.lip_diameter", "58 mm"),
        ("circuit/head", {"loss_kpa": 12, "flow_l_min": 40, "temperature_c": 100}),
    )
    variables = SampledVariables(random_quantiles(200), "Pellin")
    drawn = operating_point(made, made.samples[0], variables=variables)
    plain = operating_point(made, made.samples[0])
    for part in ("inlet", "anti_drain", "outlet", "tube"):
        ratio = getattr(drawn.filter, part).b / getattr(plain.filter, part).b
        geometry = getattr(drawn.filter, part).a / getattr(plain.filter, part).a
        assert np.std(ratio) > 0.05, part
        assert np.std(ratio) > np.std(geometry) or part == "anti_drain", part
    assert drawn.filter.hole_loss.min() >= 1 / 1.15
    assert drawn.filter.hole_loss.max() <= 1.15
    shares = drawn.circuit.head.restriction.a / plain.circuit.head.restriction.a * 0.5
    assert (shares.min(), shares.max()) == pytest.approx((0.1, 0.9), abs=0.02)


def test_what_a_scenario_puts_aside_is_no_input():
    made = study(
        ("samples/0/bypass/stated_kpa", 110),
        reading("bypass.spring_wire_diameter"),
        ("circuit/stud/bore_mm", 14),
    )
    sample = made.samples[0]
    scenario = Scenario("other setting", bypass_opening_kpa=90, stud_bore_mm=12)

    def keys(thought):
        assumed = model_assumptions(made, sample, thought)
        return {source.key for source in input_sources(made, measure_sample(sample, made.circuit), assumed, scenario=thought)}

    assert {"bypass.stated_kpa", "model.stated_setting", "circuit.stud"} <= keys(AS_IT_IS)
    assert not {"bypass.stated_kpa", "model.stated_setting", "circuit.stud"} & keys(scenario)


def test_a_part_is_known_no_better_than_the_weakest_of_its_numbers():
    made = study(("as_typed", {"gallery_kpa": {"text": "340 kPa", "provenance": "by_eye"}}), ("circuit/provenance", "measured"))
    sources = input_sources(made, measure_sample(made.samples[0], made.circuit), ())
    outcome = {source.key: source.provenance for source in sources}
    assert (outcome["circuit.engine"], outcome["circuit.regulator"]) == ("by_eye", "measured")


@pytest.mark.parametrize("parts", [2, 3, 8])
def test_draws_divided_among_processes_make_the_same_band_and_interval(parts):
    whole = study()
    temperature, speed = np.linspace(-60.0, 140.0, 9), np.full(9, 2000.0)
    every = sampled_problem(whole, whole.samples[0], quantiles=random_quantiles(100))
    *_, band = quantity_band(every, temperature, speed, "element_pressure")
    bands, onsets = [], []
    for part in range(parts):
        problem = sampled_problem(whole, whole.samples[0], quantiles=part_of(random_quantiles(100), part, parts))
        *_, actual = sampled_along(problem, temperature, speed, "element_pressure")
        bands.append(actual)
        onsets.append(sampled_onset(problem, 2000.0))
    divided = monte_carlo.band_of(bands)
    for name in ("value", "low", "middle", "high"):
        np.testing.assert_allclose(getattr(divided, name), getattr(band, name), rtol=1e-9)
    assert (divided.draws, divided.impossible) == (band.draws, band.impossible)
    interval, words = onset_interval(every, 2000.0), interval_of(onsets)
    assert (words.draws, words.shut_share) == (interval.draws, interval.shut_share)
    for name in ("value", "low", "high"):
        assert getattr(words, name) == pytest.approx(getattr(interval, name), abs=1e-6)

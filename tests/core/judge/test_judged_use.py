"""A use judged whole: values as analysed, what two filters share cancels, and what is not alike is not ranked together."""

from __future__ import annotations

from dataclasses import replace
from math import hypot, sqrt

import numpy as np
import pytest

from builders import COLD_USE as USE
from builders import FEW, made
from tabrel.core.catalogue.measures import MEASURE_ROWS
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.errors import StudyError
from tabrel.core.judge import at_points
from tabrel.core.judge.judged_use import judge_use, use_named
from tabrel.core.judge.known import unit_price
from tabrel.core.judge.presets import PRESETS
from tabrel.core.maps.behaviour import behaviour
from tabrel.core.results.analysis import analyse_sample
from tabrel.core.rules.uses import check_use
from tabrel.document.judged_use import judged_use_out


def judged(*criteria, specimens=True, **more):
    study, use = made(*criteria, **more)
    return judge_use(study, use, specimens=specimens, **FEW)


def values(value, i=0):
    return value.criteria[i].category.values


def test_results_and_readings_are_those_of_the_analysis():
    study, use = made({"measure": "plate_flow_area_mm2"}, {"measure": "element.outside_diameter"})
    computed = judge_use(study, use, specimens=True, **FEW)
    result = analyse_sample(study.samples[0], study.circuit).results.plate_flow_area
    assert values(computed)["A"].value == pytest.approx(result.value * 1e6)
    assert values(computed)["A"].expanded_uncertainty == pytest.approx(result.expanded_uncertainty * 1e6)
    assert 40 < values(computed, 1)["A"].value < 100  # mm


def test_behaviour_at_the_points_is_that_of_the_circuit():
    study, use = made({"measure": "element_cold_kpa"}, {"measure": "gallery_hot_kpa"}, {"measure": "element_greatest_kpa"})
    collected = judge_use(study, use, specimens=True, **FEW)
    point = operating_point(study, study.samples[0])
    for i, (quantity, celsius, rpm) in enumerate([("element_pressure", -20.0, 2000.0), ("gallery_pressure", 110.0, 5000.0)]):
        solved = solve_circuit(point, point.place(np.array([celsius]), np.array([rpm])))
        assert values(collected, i)["A"].value == pytest.approx(float(solved.quantity(quantity)[0]) / 1e3, rel=1e-9)
    assert values(collected, 2)["A"].value == pytest.approx(behaviour(study, study.samples[0]).element_greatest / 1e3, rel=1e-9)


def test_what_two_filters_share_cancels_in_their_difference():
    """Engine and oil are the same for both: the difference of the gallery pressures is far better known than either."""
    outcome = judged({"measure": "gallery_hot_kpa"})
    a, b = values(outcome)["A"], values(outcome)["B"]
    joint = outcome.criteria[0].category.joint["A"]["B"]
    assert joint < 0.3 * hypot(a.expanded_uncertainty, b.expanded_uncertainty)
    apart = judged({"measure": "element.outside_diameter"})
    a, b = values(apart)["A"], values(apart)["B"]
    assert apart.criteria[0].category.joint["A"]["B"] == pytest.approx(hypot(a.expanded_uncertainty, b.expanded_uncertainty))


def test_a_part_number_is_known_less_well_than_its_specimen():
    """One specimen of each: u² = u_m² + τ²v²/3·2 with τ 1 % of a diameter, marked as assumed."""
    own = values(judged({"measure": "element.outside_diameter"}))["A"]
    actual = judged({"measure": "element.outside_diameter"}, specimens=False)
    expected = sqrt(own.expanded_uncertainty**2 + 1.96**2 * (0.01 * own.value) ** 2 / 3 * 2)
    assert values(actual)["A"].expanded_uncertainty == pytest.approx(expected)
    assert judged_use_out(actual)["criteria"][0]["spread_assumed"] == ["A", "B"]


def test_two_specimens_of_a_part_number_say_themselves_how_far_they_lie_apart():
    same = {"maker": "M", "part_number": "1"}
    two = tuple(same | {"readings/can.height": [text]} for text in ("98.00 mm", "99.00 mm"))
    answer = judged({"measure": "can.height"}, specimens=False, samples=two)
    own = values(judged({"measure": "can.height"}, samples=({"readings/can.height": ["98.00 mm"]},)))["A"]
    spread = 1 / sqrt(2)  # mm, of 98 and 99
    expected = sqrt(own.expanded_uncertainty**2 + (1.96 * spread) ** 2 * 1.5)
    assert values(answer)["A"].expanded_uncertainty == pytest.approx(expected)
    assert judged_use_out(answer)["criteria"][0]["spread_assumed"] == []


def claimed(percent, standard):
    return {"claims": [{"kind": "efficiency", "source": "box", "efficiency_percent": percent, "size_um": 20, "scale": "um(c)",
                        "standard": standard, "relation": "="}]}  # fmt: skip


def test_efficiencies_come_by_in_different_ways_are_not_ranked_together():
    shown = judged(
        {"measure": "efficiency_at_20_um_percent"}, samples=(claimed(90, "ISO 4548-12"), claimed(95, "ISO 4548-12"), {})
    )
    known = shown.criteria[0].known
    assert known["A"].value is not None
    assert known["B"].value is not None
    assert (known["C"].value, known["C"].reason) == (
        None,
        "is by estimate, that of others by claim: they are not ranked together",
    )


def test_efficiencies_of_which_no_two_are_come_by_in_one_way_are_all_left_out():
    result_5 = judged({"measure": "efficiency_at_20_um_percent"}, samples=(claimed(90, "ISO 4548-12"), {}))
    assert [known.reason for known in result_5.criteria[0].known.values()] == [
        f"is by {way}, and no other one is: they are not ranked together" for way in ("claim", "estimate")
    ]
    assert result_5.pair_wins.compared["A"]["B"] == 0


def test_prices_are_of_one_filter_and_of_one_currency():
    result_6 = judged({"measure": "price"}, samples=(
        {"offers": [{"shop": "x", "amount": 30, "currency": "EUR", "pack_of": 4, "delivery": 6}], "price": None},
        {"offers": [], "price": {"amount": 8.0, "currency": "EUR"}},
        {"offers": [], "price": {"amount": 7.0, "currency": "USD"}},
    ))  # fmt: skip
    assert [value and value.value for value in values(result_6).values()] == [9.0, 8.0, None]
    assert result_6.pair_wins.score == {"A": -1, "B": 1}  # less is better, though nobody said so; of C nothing counts
    assert result_6.ranked == ("A", "B")
    assert set(result_6.verdicts) == {"A", "B", "C"}
    assert unit_price(made(samples=({"offers": [], "price": None},))[0].samples[0]) is None


def test_an_order_made_by_hand_has_places_with_ties():
    criterion = {"measure": "by_hand", "name": "making", "order": [["B"], ["A", "C"], ["D"]]}
    result_7 = judged(criterion, samples=({}, {}, {}, {}))
    assert [value.value for value in values(result_7).values()] == [2.0, 1.0, 2.0, 4.0]
    assert result_7.pair_wins.rank == {"A": 2, "B": 1, "C": 2, "D": 4}


STIFF = {"readings/bypass.opening_pressure": ["4000 kPa"]}


def test_a_valve_shut_at_every_temperature_has_only_an_upper_bound_of_its_onset():
    result_8 = judged({"measure": "onset_c"}, samples=(STIFF, {}))
    shut = values(result_8)["A"]
    assert shut.value is None
    assert shut.high == pytest.approx(behaviour(*_first(made(samples=(STIFF,)))).coldest_pumping)


def _first(pair):
    return pair[0], pair[0].samples[0]


def test_what_a_use_does_not_say_is_a_reason_and_no_number():
    result_9 = judged({"measure": "element_cold_kpa"}, {"measure": "filter_hot_kpa"}, use={"name": "cold"})
    reasons = [criterion.known["A"].reason for criterion in result_9.criteria]
    assert ["no cold point" in reasons[0], "no hot point" in reasons[1]] == [True, True]
    cold = judged({"measure": "element_cold_kpa"}, use=USE | {"temperature_c": -60})
    assert "does not pump" in cold.criteria[0].known["A"].reason


def test_starts_and_lives_have_the_room_of_their_draws():
    result_10 = judged({"measure": "minutes_in_bypass"}, {"measure": "unfiltered_litres"}, {"measure": "life_h"}, samples=({},))
    for i, count in enumerate((at_points.START_DRAWS, at_points.START_DRAWS, 60)):
        known = result_10.criteria[i].known["A"]
        assert known.value is not None, known.reason
        assert known.value.value is not None
        sampled = known.draws[np.isfinite(known.draws)]
        assert len(sampled) == count
        assert known.value.expanded_uncertainty == pytest.approx(1.96 * np.std(sampled, ddof=1))
        low, high = np.quantile(sampled, (0.025, 0.975))
        assert (known.value.low, known.value.high) == (min(low, known.value.value), max(high, known.value.value))
        assert known.value.low >= 0  # whatever U is, no litre and no minute below none
    assert result_10.followed_draws == at_points.START_DRAWS


def test_what_nobody_has_and_who_has_nothing_is_left_out_and_named():
    nothing = {"price": None, "offers": []}
    high = {"readings/can.height": ["98 mm"]}
    result = judged(
        {"measure": "price"}, {"measure": "can.height"}, {"measure": "can.mass"},
        samples=({"price": {"amount": 8.0, "currency": "EUR"}, **high}, {"price": {"amount": 9.0, "currency": "EUR"}}, nothing),
    )  # fmt: skip
    assert result.ranked == ("A", "B")
    assert result.without_values == (MEASURE_ROWS["can.mass"].title,)
    assert len(result.asked_end_points) == 2  # of two filters nothing sets a scale
    stated = judged(
        {"measure": "price", "best": 5, "worst": 20},
        samples=({"price": {"amount": 8.0, "currency": "EUR"}}, {"price": {"amount": 9.0, "currency": "EUR"}}),
    )
    assert stated.asked_end_points == ()


def test_a_requirement_on_a_life_that_rests_on_assumptions_is_not_judged():
    asked = [{"measure": "life_h", "at_least": 0.001}]
    line = judged({"measure": "life_h"}, requirements=asked, samples=({},)).requirements["A"][0]
    assert line.state == "open"
    assert "by an assumed capacity and ingress" in line.reason
    known = judged({"measure": "life_h"}, requirements=asked, samples=({"capacity_g": 12},))
    assert "by an assumed ingress" in known.requirements["A"][0].reason


def test_a_life_is_as_wide_as_capacity_and_ingress_leave_it():
    """u(ln) 0.35 of a family's capacity and 0.46 of an ingress nobody stated: a factor of 3.1 either way at 95 %."""
    study, use = made({"measure": "life_h"}, samples=({},))
    value = judge_use(study, use, specimens=True, draws=100, model_draws=1000).criteria[0].known["A"].value
    assert value.high / value.value == pytest.approx(np.exp(1.96 * np.hypot(0.35, 0.46)), rel=0.15)
    assert value.value / value.low == pytest.approx(np.exp(1.96 * np.hypot(0.35, 0.46)), rel=0.25)


def test_requirements_and_verdicts():
    result_11 = judged(
        {"measure": "can.height"},
        requirements=[{"measure": "plate_flow_area_mm2", "at_least": 1}, {"measure": "tube.burr", "one_of": ["none", "away"]}],
        samples=(
            {"stated_collapse_kpa": 9000.0, "bypass/location": "dome_end", "observations/tube.burr_side": "none"},
            {"observations/tube.burr_side": "towards the media"},
        ),
        use=USE | {"verdicts": [{"sample": "A", "verdict": "fails", "reason": "leaks"}]},
    )
    assert result_11.verdicts["A"].proposed == "meets"
    assert (result_11.verdicts["A"].stated.verdict, result_11.verdicts["A"].stated.reason) == ("fails", "leaks")
    assert result_11.verdicts["B"].proposed == "fails"
    assert result_11.verdicts["B"].reasons == ("Burr side: towards the media; what will do is: none or away from the media.",)


def test_an_open_line_says_what_is_lacking():
    asked = [{"measure": "element_cold_kpa", "at_most": 5}, {"measure": "can.height", "at_least": 90}]
    result_12 = judged({"measure": "price"}, requirements=asked, use={"name": "cold"}, oil=None)
    reasons = [line.reason for line in result_12.requirements["A"]]
    assert reasons[0] == (
        "Element differential pressure, cold is not known (the use has no cold point: give its oil temperature and engine "
        "speed); asked for is at most 5 kPa."
    )
    assert reasons[1] == "Height is not known (has not been measured); asked for is at least 90 mm."
    assert "The greatest element differential pressure is not known (needs oil" in reasons[3]


def test_the_twin_is_found_and_the_chances_add_up():
    result_13 = judged(
        {"measure": "can.height"}, {"measure": "price"}, samples=({}, {}, {"readings/element.outside_diameter": ["60.00 mm"]})
    )
    assert [pair.verdict for pair in result_13.pairs if (pair.one, pair.other) == ("A", "B")] == ["nothing_tells_them_apart"]
    assert {pair.verdict for pair in result_13.pairs if pair.other == "C"} == {"different"}
    for place in range(3):
        assert sum(result_13.chances.of_place[label][place] for label in "ABC") == pytest.approx(1.0)


def test_an_archived_filter_is_not_compared():
    assert judged({"measure": "can.height"}, samples=({}, {"archived": True})).labels == ("A",)
    with pytest.raises(StudyError, match="no filter to compare"):
        judged({"measure": "can.height"}, samples=({"archived": True},))


def test_weights_that_are_all_zero_are_refused():
    with pytest.raises(StudyError, match="give one of them a weight"):
        judged({"measure": "can.height", "weight": 0}, {"measure": "price", "struck": "too dear to ask"})


def test_a_use_that_there_is_not_names_those_there_are():
    study, use = made({"measure": "price"})
    assert use_named(study, "cold") is use
    with pytest.raises(StudyError, match="it has cold"):
        use_named(study, "colt")


def test_a_criterion_nobody_has_compares_nothing():
    result_14 = judged({"measure": "media.fibre_diameter"}, {"measure": "plate.thickness"})
    assert result_14.criteria[0].known["A"].reason == "has not been measured"
    assert result_14.pair_wins.compared["A"]["B"] == 1
    bench = judged({"measure": "bypass_closing_kpa"})
    assert "bench" in bench.criteria[0].known["A"].reason


def test_only_filters_of_the_tier_are_compared():
    study, use = made({"measure": "can.height"}, samples=({"tier": "premium"}, {"tier": "economy"}, {"tier": "premium"}))
    assert judge_use(study, replace(use, tier="premium"), **FEW).labels == ("A", "C")
    with pytest.raises(StudyError, match="no filter is of the tier 'none such': name the tier of one, or compare all"):
        judge_use(study, replace(use, tier="none such"))


def test_every_preset_is_a_use_that_can_be_judged():
    for preset in PRESETS:
        check_use("use", preset.use, ())
        assert not preset.use.requirements
        assert all(criterion.best is criterion.worst is None for criterion in preset.use.criteria)


OFFERS = (
    {"shop": "Depot", "amount": 30.0, "currency": "EUR", "pack_of": 4},
    {"shop": "Stall", "amount": 9.0, "currency": "EUR", "delivery": 3.0},
)


def test_prices_over_the_interval_and_of_one_shop():
    """One piece delivered is 9 + 3 = 12 EUR, whatever it costs by four; per 1000 of 15,000 km 0.80 EUR, per 100 of 250 h 4.80."""
    criteria = [{"measure": item} for item in ("price", "price_per_1000_km", "price_per_100_h")]
    filters = ({"offers": list(OFFERS)}, {"offers": [OFFERS[1]]})
    result_15 = judged(*criteria, samples=filters, use=USE | {"interval_km": 15000, "interval_h": 250})
    assert [values(result_15, i)["A"].value for i in range(3)] == pytest.approx([12, 0.8, 4.8])
    assert result_15.criteria[1].category.better == "low"
    stall = judged(*criteria[:1], samples=filters, use=USE | {"shop": "Stall"})
    assert [values(stall)[label].value for label in "AB"] == pytest.approx([12, 12])
    depot = judged(*criteria[:1], samples=filters, use=USE | {"shop": "Depot"})
    assert depot.criteria[0].known["B"].reason == "has no offer of Depot"
    without = judged(criteria[1], samples=filters)
    assert without.criteria[0].known["A"].reason == "the use has no change interval: give it in km"


def test_what_was_seen_is_ranked_by_the_order_of_its_choices():
    caps = "observations/element.end_caps"
    criterion = {"measure": "element.end_caps", "order": [["metal"], ["plastic", "fibre"], ["paper"]]}
    result_16 = judged(criterion, samples=({caps: "fibre"}, {caps: "metal"}, {caps: "cork"}, {}))
    assert [value and value.value for value in values(result_16).values()] == [2, 1, None, None]
    known = result_16.criteria[0].known
    assert known["C"].reason == "is cork, which has no place in the order"
    assert known["D"].reason == "has not been looked at"
    assert result_16.pair_wins.won["B"]["A"] == 1
    assert result_16.criteria[0].category.name == "element: end caps"


def test_a_flow_that_is_not_found_is_no_number():
    """Not a number was once taken for one, and the ranking ended in an error."""
    study, use = made({"measure": "unfiltered_cold_percent", "better": "low", "weight": 1})
    regulator = replace(study.circuit.regulator, full_flow_rise_kpa=1e-6)
    result = judge_use(replace(study, circuit=replace(study.circuit, regulator=regulator)), use, specimens=False, **FEW)
    assert values(result)["A"] is None


def test_a_verdict_says_what_its_first_telling_line_is_about():
    burr = {"measure": "tube.burr_side", "one_of": ["none"]}
    samples = (
        {"observations/tube.burr_side": "towards the media"},
        {"observations/tube.burr_side": "none"},
        {},
        {"observations/tube.burr_side": "none", "stated_collapse_kpa": 5000},
    )
    verdicts = judged({"measure": "media_effective_area_cm2"}, requirements=[burr], samples=samples).verdicts
    assert [(verdict.proposed, verdict.about) for verdict in verdicts.values()] == [
        ("fails", "centre tube: burr side"),
        ("open", "collapse pressure not stated"),
        ("open", "centre tube: burr side"),
        ("meets", ""),
    ]

"""Two names, one part? Said only where enough was looked at; differences by hand, false alarms by a property."""

from __future__ import annotations

import copy
import json
from dataclasses import replace

import pytest

from builders import plain_document
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.judge.same_part import NOT_OF_MAKING, compare_all_parts, compare_parts, part_facts
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.document.study_document import read_study

READINGS = {
    "can.height": ["98.40"], "can.outside_diameter": ["76.20"], "can.wall_thickness": ["0.300"],
    "can.mass": ["110"], "element.outside_diameter": ["70.00"], "element.height": ["80.00"],
    "element.pleat_count": ["54"], "element.pleat_depth": ["12.50"], "tube.inside_diameter": ["32.00"],
    "media.strip_length": ["1350"], "media.strip_width": ["78.00"], "media.thickness": ["0.700"],
    "bypass.spring_free_length": ["31.00"], "bypass.seat_inside_diameter": ["14.00"],
}  # fmt: skip
SEEN = {"tube.material": "steel", "tube.form": "helical", "bypass.seal": "rubber", "element.end_caps": "metal"}


def in_its_unit(key, entry):
    """Return a reading with the metric unit of its quantity."""
    text = entry["text"] if isinstance(entry, dict) else entry
    unit = QUANTITIES[key].metric_unit if key in QUANTITIES else "mm"
    return {**(entry if isinstance(entry, dict) else {}), "text": f"{text} {unit}".strip()}


def facts(label="A", readings=(), seen=(), **fields):
    document = plain_document()
    held = document["samples"][0]
    for name in ("holes", "bypass", "media_family", "observations"):
        held.pop(name, None)
    held |= {"label": label, "readings": READINGS | dict(readings), "observations": SEEN | dict(seen), **copy.deepcopy(fields)}
    held["readings"] = {
        key: [in_its_unit(key, item) for item in held["readings"][key]] for key in held["readings"] if held["readings"][key]
    }
    held["observations"] = {key: words for key, words in held["observations"].items() if words}
    document["samples"] = [held]
    return part_facts(measure_sample(read_study(json.dumps(document)).samples[0], None))


def test_a_filter_is_the_same_part_as_its_twin():
    parts = compare_parts(facts(), facts("B", {"can.height": ["98.45"], "element.pleat_count": ["55"], "can.mass": ["111"]}))
    assert parts.verdict == "nothing_tells_them_apart"
    assert parts.telling == ()
    assert len(parts.keys("same")) == len(READINGS) + len(SEEN) - len(parts.keys("cannot_tell"))


def test_one_dimension_that_differs_makes_them_different_and_is_named():
    result = compare_parts(facts(), facts("B", {"element.height": ["84.00"], "can.height": ["101.00"]}))
    assert result.verdict == "different"
    assert [finding.key for finding in result.telling] == ["element.height", "can.height"]  # 5 % before 2.6 %
    assert result.telling[0].difference_percent == pytest.approx(5.0)


def test_the_room_is_as_worked_by_hand():
    """One dimension on both: J_n = J. A caliper: u² = 0.03²(repeat) + 0.03²/3 + 0.01²/12; τ = 1 % of the mean."""
    only = {key: None for key in READINGS} | {"can.height": ["100.00"]}
    computed = compare_parts(facts(readings=only), facts("B", only | {"can.height": ["101.00"]}))
    u = (0.03**2 + 0.03**2 / 3 + 0.01**2 / 12) ** 0.5
    finding = next(finding for finding in computed.findings if finding.key == "can.height")
    assert finding.allowance * 1e3 == pytest.approx(1.96 * 2**0.5 * u + 1.005, rel=1e-4)
    assert finding.state == "same"
    two = only | {"can.outside_diameter": ["76.20"]}
    wider = compare_parts(facts(readings=two), facts("B", two | {"can.height": ["101.00"]})).findings
    # z(1 − 0.0125) = 2.2414 in place of 1.96 (tables of the normal distribution)
    allowance = next(finding for finding in wider if finding.key == "can.height").allowance
    assert allowance * 1e3 == pytest.approx(2.2414 * 2**0.5 * u + 1.005, rel=1e-4)


def test_pleats_may_differ_by_two_and_other_counts_by_none():
    assert "element.pleat_count" in compare_parts(facts(), facts("B", {"element.pleat_count": ["56"]})).keys("same")
    assert "element.pleat_count" in compare_parts(facts(), facts("B", {"element.pleat_count": ["57"]})).keys("different")


def test_a_reading_too_rough_to_tell_says_nothing():
    """By eye to 10 %: J is far above twice the allowance, so that being close is no evidence."""
    rough = {"can.height": [{"text": "98.4", "provenance": "by_eye"}]}
    assert "can.height" in compare_parts(facts(readings=rough), facts("B", rough)).keys("cannot_tell")


def test_without_the_valve_looked_at_it_cannot_tell_and_says_so():
    nothing = {key: None for key in READINGS if key.startswith("bypass.")}
    collected = compare_parts(facts(), facts("B", nothing, {"bypass.seal": None}))
    assert (collected.verdict, collected.not_looked_at) == ("cannot_tell", ("valve",))


def test_damage_and_age_are_not_counted():
    outcome = compare_parts(facts(seen={"element.damage": "in service", "gasket.feel": "hardened"}),
                          facts("B", seen={"element.damage": "none", "gasket.feel": "soft"}))  # fmt: skip
    assert outcome.verdict == "nothing_tells_them_apart"
    assert set(NOT_OF_MAKING) <= {*OBSERVATIONS, *QUANTITIES}


def test_another_making_tells_but_own_words_do_not():
    assert compare_parts(facts(), facts("B", seen={"element.end_caps": "fibre"})).verdict == "different"
    own = compare_parts(facts(), facts("B", seen={"element.end_caps": "tinned sheet"}))
    assert "element.end_caps" in own.keys("cannot_tell")


@pytest.mark.parametrize("provenance", ["assumed", "published"])
def test_what_nobody_measured_says_nothing(provenance):
    sentence = {"element.height": [{"text": "95", "provenance": provenance}]}
    answer = compare_parts(facts(), facts("B", sentence))
    assert answer.verdict == "nothing_tells_them_apart"
    assert "element.height" in answer.keys("cannot_tell")


def test_what_was_copied_from_the_other_one_is_no_evidence_for_it():
    copied = {key: [{"text": texts[0], "copied_from": "A"}] for key, texts in READINGS.items()}
    shown = compare_parts(facts(), facts("B", copied))
    assert shown.verdict == "cannot_tell"
    assert set(shown.keys("same")) == set(SEEN)


def test_masses_of_a_used_filter_say_nothing():
    got = compare_parts(facts(), facts("B", {"can.mass": ["140"]}, condition="used"))
    assert "can.mass" in got.keys("cannot_tell")
    assert compare_parts(facts(), facts("B", {"can.mass": ["140"]})).verdict == "different"


def holes(*groups):
    return {"inlet": [{"shape": "round", "count": count, "readings": {"diameter": [f"{size} mm"]}} for count, size in groups]}


def test_holes_are_compared_whatever_their_order():
    member, other = facts(holes=holes((8, "5.50"), (4, "8.00"))), facts("B", holes=holes((4, "8.00"), (8, "5.50")))
    result_5 = compare_parts(member, other)
    assert {"holes.inlet.pattern", "holes.inlet[0].diameter", "holes.inlet[1].diameter"} <= set(result_5.keys("same"))
    fewer = compare_parts(member, facts("B", holes=holes((6, "5.50"))))
    assert fewer.keys("different") == ("holes.inlet.pattern",)
    assert not any(finding.key.startswith("holes.inlet[") for finding in fewer.findings)
    wider = compare_parts(member, facts("B", holes=holes((8, "6.00"), (4, "8.00"))))
    assert wider.keys("different") == ("holes.inlet[1].diameter",)


def test_two_lots_of_one_part_number_are_told_as_such():
    candidate = facts(maker="Brennig", part_number="B 12")
    other = replace(facts("B"), part_number=candidate.part_number)
    assert compare_parts(candidate, other).is_one_part_number
    assert not compare_parts(candidate, facts("B")).is_one_part_number
    assert not compare_parts(facts(), facts("B")).is_one_part_number  # neither has a number


def test_the_order_of_two_filters_changes_nothing_but_the_sign():
    actual, other = (
        facts(),
        facts("B", {"element.height": ["84.00"], "media.thickness": ["0.80"]}, {"element.end_caps": "fibre"}),
    )
    there, back = compare_parts(actual, other), compare_parts(other, actual)
    for state in ("same", "different", "cannot_tell"):
        assert set(there.keys(state)) == set(back.keys(state))
    assert len(compare_all_parts([actual, other, facts("C")])) == 3


def test_a_hole_pattern_that_one_lacks_cannot_tell():
    result_6 = compare_parts(facts(holes=holes((8, "5.50"))), facts("B"))
    assert "holes.inlet.pattern" in result_6.keys("cannot_tell")
    assert result_6.verdict == "nothing_tells_them_apart"

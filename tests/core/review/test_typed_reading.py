"""Changes that a typed line makes, and every refusal at its field."""

from __future__ import annotations

import pytest

from tabrel.core.errors import StudyError
from tabrel.core.review.typed_reading import Typed, correction, field_change, reading_field
from tabrel.core.study.model import HoleGroup, HoleReadings, Reading

HEIGHT = reading_field("can.height")
INLET = HoleGroup("round", 8, HoleReadings(diameter=("5.6 mm",)))
DIAMETER = reading_field("holes.inlet[0].diameter", [INLET])


def refusal(action):
    with pytest.raises(StudyError) as refused:
        action()
    return refused.value.path, str(refused.value)


def test_a_line_becomes_readings_with_what_was_chosen_beside_the_field():
    change = field_change(HEIGHT, Typed("98.4, 98.5 mm", "metric", "by_eye", "caliper", "  beside   the seam "), [])
    assert change.words == "Can, height: 98.4 mm, 98.5 mm"
    recorded = {"provenance": "by_eye", "instrument": "caliper", "note": "beside the seam"}
    assert change.readings == tuple(("can.height", Reading(text, **recorded)) for text in ("98.4 mm", "98.5 mm"))
    [(_, plain)] = field_change(HEIGHT, Typed("98.4", "metric", "measured"), []).readings
    assert plain == Reading("98.4 mm")


def test_only_a_questioned_reading_is_confirmed():
    confirmed = [
        reading.confirmed for _, reading in field_change(HEIGHT, Typed("98.4, 984", "metric", confirms=True), []).readings
    ]
    assert confirmed == [None, True]
    assert field_change(HEIGHT, Typed("984", "metric"), []).readings[0][1].confirmed is None


def test_a_named_thread_gives_both_its_sizes():
    thread = reading_field("thread.major_diameter")
    keys = [key for key, _ in field_change(thread, Typed("3/4-16 UNF", "inch"), []).readings]
    assert sorted(keys) == ["thread.major_diameter", "thread.pitch"]


def test_a_state_stands_only_where_nothing_is_in_use_and_never_for_a_hole():
    assert field_change(HEIGHT, Typed("lost", "metric"), []).state == "lost"
    assert refusal(lambda: field_change(HEIGHT, Typed("lost", "metric"), [Reading("98 mm")]))[0] == "can.height"
    where, says = refusal(lambda: field_change(DIAMETER, Typed("lost", "metric"), []))
    assert (where, "remove the group of holes instead" in says) == ("holes.inlet[0].diameter", True)


def test_a_count_before_the_size_changes_the_group_only_if_it_says_something_new():
    assert field_change(DIAMETER, Typed("8 x 5.7", "metric"), []).group is None
    changed = field_change(DIAMETER, Typed("9 x 5.7", "metric"), [])
    assert (changed.group.count, changed.readings) == (9, (("holes.inlet[0].diameter", Reading("5.7 mm")),))
    copied = reading_field("holes.inlet[0].diameter", [HoleGroup("round", 8, copied_from="Korvath")])
    assert field_change(copied, Typed("8 x 5.7", "metric"), []).group == copied.group
    assert refusal(lambda: field_change(DIAMETER, Typed("0 x 5.7", "metric"), []))[0] == "holes.inlet[0].diameter"


@pytest.mark.parametrize(
    ("key", "groups", "words"),
    [
        ("can.hight", [], "did you mean 'can.height'"),
        ("holes.inlet[1].diameter", [INLET], "no hole group 'holes.inlet[1]'"),
        ("holes.inlet[0].length", [INLET], "a round hole has no length"),
    ],
)
def test_a_key_without_a_field_is_refused(key, groups, words):
    where, says = refusal(lambda: reading_field(key, groups))
    assert where == "key"
    assert words in says


def test_an_instrument_that_does_not_measure_the_quantity_is_refused():
    where, says = refusal(lambda: field_change(HEIGHT, Typed("98 mm", "metric", instrument="scale"), []))
    assert where == "can.height"
    assert "does not measure a length" in says


def test_a_correction_keeps_what_was_recorded_and_names_what_it_corrects():
    wrong = Reading("984 mm", provenance="by_eye", instrument="caliper", note="wet")
    right, why = correction(HEIGHT, wrong, Typed("98.4", "metric"), "slip")
    assert right == Reading("98.4 mm", provenance="by_eye", instrument="caliper", note="wet, corrected from 984 mm")
    assert why.endswith(", 98.4 mm was meant")
    assert correction(HEIGHT, wrong, Typed("98.4", "metric"), "instrument")[0].instrument is None
    for text in ("98.4, 98.5", "lost"):
        assert (
            "one reading takes the place of one"
            in refusal(lambda t=text: correction(HEIGHT, wrong, Typed(t, "metric"), "slip"))[1]
        )

"""The short sheet is the fewest readings; what is needed is told as choices, the fewest empty fields first."""

from __future__ import annotations

import pytest

from tabrel.core.catalogue.observation import with_field_observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.results import HEADLINES
from tabrel.core.circuit.operating_point import filter_alone, operating_point
from tabrel.core.details.details import DETAILS
from tabrel.core.entry.hole_line import understand_hole_group
from tabrel.core.errors import MissingInputsError
from tabrel.core.oil.grades import grade_oil
from tabrel.core.results.analysis import analyse_sample
from tabrel.core.review.needs import NEEDS, SHORT_SHEET, needs_of_maps, open_needs
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.model import FORMAT, VERSION, Circuit, Sample, SampleHoles, Stud, Study

TYPED = {
    "plate.thickness": "3 mm",
    "anti_drain.lip_diameter": "57 mm",
    "anti_drain.lift": "2.4 mm",
    "thread.major_diameter": "19.05 mm",
    "thread.pitch": "1.5875 mm",
    "bypass.opening_pressure": "140 kPa",
    "bypass.seat_inside_diameter": "15 mm",
    "element.outside_diameter": "66 mm",
    "element.inside_diameter": "38 mm",
    "element.pleat_count": "54",
    "media.strip_length": "1.6 m",
    "media.strip_width": "64 mm",
    "media.thickness": "0.8 mm",
}
"""Titles as a person reads them; a named thread gives both its sizes in one line."""
SEEN = {"bypass.location": "at the dome end", "media.family": "cellulose"}


def filled(without=()):
    """Return a study and a sample with everything the short sheet asks for, but for some of its rows."""
    left = [need for need in SHORT_SHEET if need.ways[0].keys[0] not in without]
    keys = [key for need in left for key in need.ways[0].keys]
    sample = Sample(
        "A",
        readings={key: (TYPED[key],) for key in keys if key in TYPED},
        holes=SampleHoles(inlet=(understand_hole_group("8 x 5.6 mm", "metric"),) if "holes.inlet" in keys else ()),
    )
    for key, text in SEEN.items():
        if key in keys:
            choice = next(item for item in OBSERVATIONS[key].choices if item.value.startswith(text))
            sample = with_field_observed(sample, OBSERVATIONS[key], choice.value)
    return Study(FORMAT, VERSION, "short", oil=grade_oil("5W-30") if "oil" in keys else None), sample


def lacking(study, sample):
    """Return which of the five results and the map of the filter alone cannot be computed."""
    results = analyse_sample(sample, study.circuit).results
    result = {name for name in HEADLINES if getattr(results, name).value is None and getattr(results, name).low is None}
    try:
        filter_alone(study, sample)
    except MissingInputsError:
        result.add("filter alone")
    return result


def test_the_short_sheet_is_enough_for_the_five_results_and_the_filter_alone():
    assert lacking(*filled()) == set()
    assert len(SHORT_SHEET) <= 16


@pytest.mark.parametrize("row", [need.ways[0].keys[0] for need in SHORT_SHEET if not need.without])
def test_nothing_on_the_short_sheet_can_be_left_out(row):
    assert lacking(*filled(without={row})) != set()


def test_what_is_marked_as_left_out_without_it_is_not_needed():
    optional = {need.ways[0].keys[0] for need in SHORT_SHEET if need.without}
    assert optional == {"anti_drain.lip_diameter", "anti_drain.lift"}
    study, sample = filled(without=optional)
    assert lacking(study, sample) == set()
    assert "anti_drain.lift" in filter_alone(study, sample).filter.left_out


def test_a_blank_sample_is_told_choices_in_the_order_of_the_hands():
    study, sample = Study(FORMAT, VERSION, "blank"), Sample("A")
    with pytest.raises(MissingInputsError) as error:
        operating_point(study, sample)
    needs = open_needs(study, sample, error.value.keys)
    assert [need.title for need in needs if need.group in ("outside", "opened")] == [
        "the inlet holes", "tapping plate, thickness", "the outlet bore", "the place of the bypass valve",
        "the opening pressure", "bypass valve, seat inside diameter",
    ]  # fmt: skip
    opening = next(need for need in needs if need.title == "the opening pressure")
    assert [way.entries for way in opening.ways] == [1, 1, 2, 6]
    outlet = next(need for need in needs if need.title == "the outlet bore")
    assert [(way.entries, len(way.left)) for way in outlet.ways] == [(1, 2), (1, 1)]  # a named thread is one line
    assert len(needs) < len(error.value.keys)  # a choice takes the place of many lines
    words = {key for need in needs for way in need.ways for key in way.keys}
    assert {"bypass.spring_wire_diameter", "sample.stated_bypass", "engine"} <= words


def test_a_way_that_is_almost_gone_comes_first():
    six = {key: "1 mm" for key in next(need for need in NEEDS if need.title == "the opening pressure").ways[-1].keys}
    six.pop("bypass.spring_free_length")
    study, sample = Study(FORMAT, VERSION, "x"), Sample("A", readings={key: (text,) for key, text in six.items()})
    opening = open_needs(study, sample, ["bypass.spring_free_length"])[0]
    assert opening.ways[0].left == ("bypass.opening_pressure",)
    assert {way.left for way in opening.ways} == {
        ("bypass.opening_pressure",), ("sample.stated_bypass",), ("bypass.opening_force",), ("bypass.spring_free_length",),
    }  # fmt: skip


def test_what_no_row_knows_is_told_by_itself():
    study = Study(FORMAT, VERSION, "x", circuit=Circuit(stud=Stud(bore_mm=12)))
    needs = open_needs(study, Sample("A"), ["circuit.adapter.holes[0].diameter", "holes.centre_tube", "oil"])
    assert [(need.group, need.title) for need in needs] == [
        ("engine", "the oil"), ("engine", "circuit.adapter.holes[0].diameter"), ("element", "holes.centre_tube"),
    ]  # fmt: skip


def test_every_field_of_a_way_is_one_that_there_is():
    known = QUANTITIES.keys() | OBSERVATIONS.keys() | DETAILS.keys() | {"holes.inlet", "oil", "engine"}
    assert {key for need in NEEDS for way in need.ways for key in way.keys} <= known


@pytest.mark.parametrize(
    "without", [(), {"plate.thickness", "oil"}, {"bypass.opening_pressure", "media.family"}, {"thread.major_diameter"}]
)
def test_the_needs_on_the_sheet_are_those_the_maps_refuse_with(without):
    study, sample = filled(without)
    alone, engine = needs_of_maps(study, measure_sample(sample, study.circuit))
    for needs, computed in ((alone, filter_alone), (engine, operating_point)):
        try:
            computed(study, sample)
            missing = ()
        except MissingInputsError as error:
            missing = error.keys
        assert needs == open_needs(study, sample, missing)
    assert [need.title for need in engine if need not in alone] == ["the engine's oil circuit"]

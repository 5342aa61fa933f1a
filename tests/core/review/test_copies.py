"""A sample begun as a copy: what goes with which part, what is marked, and what counts as assumed."""

from __future__ import annotations

from dataclasses import replace

import pytest

from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.errors import StudyError
from tabrel.core.results.analysis import analyse_sample
from tabrel.core.results.working_chains import working_of
from tabrel.core.review.before_cut import missing_before_cut
from tabrel.core.review.copies import PARTS_TO_COPY, USUAL_PARTS, check_copied, copied_sample, parts_of_reading
from tabrel.core.rules.study import check_sample
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.model import (
    Bypass,
    Claim,
    Counts,
    Cut,
    HoleGroup,
    HoleReadings,
    Price,
    Reading,
    Sample,
    SampleHoles,
    TypedNumber,
    as_reading,
)
from tabrel.core.uncertainty.estimate import estimate_quantity

SOURCE = Sample(
    "Korvath",
    maker="Korvath Works",
    part_number="K 12",
    price=Price(9.5, "EUR"),
    date_code="7 226",
    made="2026-08",
    expectation="much media",
    cut=Cut("roller cutter"),
    media_family="blend",
    bypass=Bypass(location="dome_end", stated_kpa=100.0),
    readings={
        "gasket.thickness": (Reading("5.2 mm", instrument="caliper", taken_at="2026-10-02T08:00:00Z", confirmed=True),),
        "gasket.mass": ("7 g",),
        "thread.major_diameter": (Reading("3/4 in", provenance="published"),),
        "plate.thickness": ("1.2 mm", Reading("12 mm", set_aside="a slip")),
        "bypass.opening_force": ("9 N",),
        "element.pleat_count": ("52",),
    },
    states={"plate.mass": "not_measured", "anti_drain.thickness": "not_applicable"},
    holes=SampleHoles(inlet=(HoleGroup("round", 8, HoleReadings(diameter=("5.6 mm",))),)),
    observations={"gasket.rubber": "nitrile", "plate.fixing": "welded", "can.grip": "fluted"},
    claims=(Claim("efficiency", "box", "=", 99.0, 20.0, "um(c)"),),
    counts=Counts("um(c)"),
    as_typed={"stated_kpa": TypedNumber("1 bar", "published")},
)


def test_the_usual_parts_leave_masses_counts_and_valve_readings_and_all_of_the_specimen():
    copy = copied_sample(SOURCE, "Korvath 2", USUAL_PARTS, "Korvath")
    check_sample("sample", copy)
    assert set(copy.readings) == {"gasket.thickness", "thread.major_diameter", "plate.thickness"}
    assert copy.observations == {"gasket.rubber": "nitrile", "plate.fixing": "welded"}
    assert (copy.maker, copy.part_number, copy.price) == ("Korvath Works", "K 12", Price(9.5, "EUR"))
    assert (copy.date_code, copy.made, copy.expectation, copy.cut, copy.counts, copy.media_family) == (None,) * 6
    assert copy.bypass == Bypass(stated_kpa=100.0)
    assert copy.as_typed == SOURCE.as_typed
    assert copy.states == {"anti_drain.thickness": "not_applicable"}
    assert [group.count for group in copy.holes.inlet] == [8]


def test_everything_copied_is_marked_and_what_was_set_aside_stays_behind():
    copy = copied_sample(SOURCE, "Korvath 2", USUAL_PARTS, "Korvath")
    entries = [as_reading(entry) for held in copy.readings.values() for entry in held]
    entries += [as_reading(entry) for group in copy.holes.inlet for entry in group.readings.diameter]
    assert {entry.copied_from for entry in entries} == {"Korvath"}
    assert {entry.taken_at for entry in entries} == {entry.confirmed for entry in entries} == {None}
    assert [as_reading(entry).text for entry in copy.readings["plate.thickness"]] == ["1.2 mm"]
    assert {item.copied_from for item in (*copy.holes.inlet, *copy.claims)} == {"Korvath"}
    assert set(copy.copied) == {
        *(f"details/sample.{key}" for key in ("maker", "part_number", "price", "stated_bypass")),
        "observations/gasket.rubber",
        "observations/plate.fixing",
        "states/anti_drain.thickness",
    }
    check_copied("sample", copy)


@pytest.mark.parametrize(
    ("parts", "there"),
    [
        (["engine_side", "masses"], {"gasket.thickness", "gasket.mass", "thread.major_diameter"}),
        (["masses"], set()),
        (["valve_readings"], {"bypass.opening_force"}),
        (["bypass"], set()),
        (["element"], set()),
        (["element", "counts"], {"element.pleat_count"}),
    ],
)
def test_masses_counts_and_valve_readings_go_only_when_chosen(parts, there):
    assert set(copied_sample(SOURCE, "x", parts, "Korvath").readings) == there


def test_every_quantity_is_copied_with_some_part_and_all_parts_copy_every_reading():
    for quantity in QUANTITIES.values():
        assert parts_of_reading(quantity) <= set(PARTS_TO_COPY)
        if quantity.dimension == "mass":
            assert "masses" in parts_of_reading(quantity)
    whole = copied_sample(SOURCE, "x", list(PARTS_TO_COPY), "Korvath")
    assert set(whole.readings) == set(SOURCE.readings)
    assert whole.observations == SOURCE.observations
    assert (whole.media_family, whole.bypass) == (SOURCE.media_family, SOURCE.bypass)


def test_a_copied_reading_counts_as_assumed_until_one_of_its_own_is_there_or_it_is_confirmed():
    quantity, copied = QUANTITIES["plate.thickness"], Reading("1.2 mm", copied_from="Korvath")
    assumed = estimate_quantity(quantity, [copied])
    assert assumed.provenance == "assumed"
    assert assumed.standard_uncertainty == pytest.approx(0.20 * 1.2e-3 / 3**0.5)  # a fifth either way, rectangular
    own = estimate_quantity(quantity, [copied, "1.4 mm"])
    assert (own.value, own.provenance, own.used) == (pytest.approx(1.4e-3), "measured", (1,))
    assert estimate_quantity(quantity, [replace(copied, copied_from=None)]).provenance == "measured"


def test_results_name_what_was_only_copied():
    copy = copied_sample(SOURCE, "Korvath 2", list(PARTS_TO_COPY), "Korvath")
    results = analyse_sample(copy, None).results
    assert set(results.inlet_hole_area.assumed) == {"holes.inlet", "holes.inlet[0].diameter"}
    assert "sample.stated_bypass" in results.bypass_opening.assumed
    assert "claims" in results.efficiency_at_20_um.assumed
    for name in ("inlet_hole_area", "bypass_opening", "efficiency_at_20_um"):
        assert set(working_of(name, measure_sample(copy, None)).inputs().values()) == {"assumed"}
    own = analyse_sample(SOURCE, None).results
    assert own.inlet_hole_area.assumed == own.efficiency_at_20_um.assumed == ()
    assert results.inlet_hole_area.value == own.inlet_hole_area.value
    assert results.inlet_hole_area.standard_uncertainty > own.inlet_hole_area.standard_uncertainty


def test_what_was_only_copied_is_still_missing_before_the_cut():
    whole = replace(SOURCE, readings={"can.height": ("98 mm",)}, cut=None)
    copy = copied_sample(whole, "Korvath 2", list(PARTS_TO_COPY), "Korvath")
    asked = {item.key for item in missing_before_cut(copy)}
    assert {"can.height", "holes.inlet"} <= asked
    assert not {"can.height", "holes.inlet"} & {item.key for item in missing_before_cut(whole)}


def test_a_copied_reading_is_no_reading_taken_after_the_cut():
    copied = Reading("98 mm", copied_from="Korvath", taken_at="2026-11-02T10:00:00Z")
    late = Sample("x", readings={"can.height": (copied,)}, cut=Cut("roller cutter", "2026-11-01T10:00:00Z"))
    assert "measured_after_cut" not in {warning.code for warning in analyse_sample(late, None).warnings}
    own = replace(late, readings={"can.height": (replace(copied, copied_from=None),)})
    assert "measured_after_cut" in {warning.code for warning in analyse_sample(own, None).warnings}


@pytest.mark.parametrize("thing", ["details/sample.maker", "observations/can.grip", "states/can.height", "readings/1"])
def test_a_mark_of_what_is_not_there_is_refused(thing):
    with pytest.raises(StudyError, match="is not there: leave the mark out"):
        check_copied("samples[0]", Sample("A", copied={thing: "B"}))

"""Details as typed, claims against readings, the list before cutting."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import pytest

from builders import study
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.details.details import (
    DETAILS,
    assumed_details,
    detail_texts,
    detail_values,
    with_sample_detail,
    with_study_detail,
)
from tabrel.core.details.kinds import is_number, understood_detail
from tabrel.core.details.places import value_at
from tabrel.core.details.shelf_age import shelf_age_years
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.review.before_cut import missing_before_cut
from tabrel.core.rules.study import check_circuit
from tabrel.core.study.defaults import adapter_turn_deg, adapter_wall_mm, jet_opening_kpa, stud_length_mm
from tabrel.core.study.model import (
    HoleGroup,
    HoleReadings,
    Leak,
    Price,
    PumpEfficiency,
    Sample,
    SampleHoles,
    Study,
    TypedNumber,
)
from tabrel.core.study.number_keys import number_key, number_places, place_of_key


def understood(key, text, family="metric"):
    return understood_detail(DETAILS[key], text, family)


@pytest.mark.parametrize(
    ("key", "text", "value"),
    [
        ("sample.maker", "  Korvath   Filterbau ", "Korvath Filterbau"),
        ("sample.price", "9.50 EUR", Price(9.5, "EUR")),
        ("sample.price", "9,50 eur", Price(9.5, "EUR")),
        ("sample.price", "$12", Price(12.0, "$")),
        ("sample.bought", "2026-10-02", "2026-10-02"),
        ("sample.made", "2024-03", "2024-03"),
        ("sample.made", "2024", "2024"),
        ("sample.condition", "NEW", "new"),
        ("sample.used_km", "12 500 km", 12500.0),
        ("sample.used_km", "5000 mi", 8046.72),
        ("sample.used_hours", "120 h", 120.0),
        ("engine.stud_bore", "13.5", 13.5),
        ("engine.stud_bore", "1/2 in", 12.7),
        ("sample.stated_bypass", "110-180 kPa", (110.0, 180.0)),
        ("sample.stated_bypass", "8 to 11 psi", (55.1581, 75.8423)),
        ("sample.stated_bypass", "1.2 bar", 120.0),
        ("sample.stated_bypass", "110 - 180", (110.0, 180.0)),
        ("sample.stated_bypass", "15 pounds", 103.421),
        ("engine.adapter_turn", "60", 60.0),
        ("engine.gallery", "50 pounds per square inch", 344.737865),
        ("engine.pump_efficiency", "88 percent", 0.88),
        ("sample.maker", "", None),
    ],
)
def test_a_fact_is_understood(key, text, value):
    assert understood(key, text) == value


def test_a_bare_length_takes_the_familys_unit():
    assert understood("engine.stud_bore", "1/2", "inch") == pytest.approx(12.7)


@pytest.mark.parametrize(
    ("key", "text", "says"),
    [
        ("sample.price", "9.50", "with its currency: type it like 9.50 EUR"),
        ("sample.price", "cheap", "no price"),
        ("sample.bought", "2026-13-02", "no date"),
        ("sample.bought", "10/02/2026", "no date: type it like 2026-10-02"),
        ("sample.bought", "1026-10-02", "check the year"),
        ("sample.used_km", "far", "no number"),
        ("sample.used_km", "-3", "cannot be"),
        ("sample.used_km", "120 h", "'h' is no unit of the distance in use"),
        ("sample.used_hours", "5000 mi", "'mi' is no unit of the hours in use"),
        ("engine.stud_bore", "13 g", "measures mass"),
        ("sample.stated_bypass", "180-110 kPa", "must be the smaller one"),
        ("sample.stated_bypass", "over 15 psi", "only a bound"),
        ("sample.used_km", "5,500 km", "can be read two ways: write 5500 or 5.500"),
        ("sample.price", "9,500 EUR", "can be read two ways"),
        ("engine.gallery", "5,500", "can be read two ways"),
        ("engine.gallery", "1e400", "not a finite number"),
        ("engine.gallery", "over 300", "only a bound"),
        ("media.capacity", "over 25 g", "only a bound"),
        ("engine.gallery", "320 to 300 kPa", "first number must be the smaller"),
        ("engine.gallery", "300 to far", "no unit|no number"),
        ("engine.jet_share", "1", "1 % and as all of it: write 1 % or 100 %"),
        ("sample.used_hours", "1e400", "not a finite number"),
        ("sample.used_hours", "-3", "cannot be"),
        ("engine.stud_bore", "over 13 mm", "only a bound"),
        ("engine.adapter_turn", "90 mm", "no unit of the adapter turn"),
        ("engine.adapter_holes", "5.1 mm", "how many holes"),
    ],
)
def test_a_fact_that_is_not_understood_says_how_to_type_it(key, text, says):
    with pytest.raises(ReadingTextError, match=says):
        understood(key, text)


def test_every_fact_comes_back_as_text_that_means_the_same():
    whole = study()
    for key, text in (
        ("study.question", "which one?"), ("study.intended_uses", "daily"),
        ("study.price_class", "middle"), ("study.reference", "Pellin"),
        ("engine.name", "groomer"), ("engine.stud_bore", "12.7 mm"), ("engine.stud_length", "20 mm"),
        ("engine.least_stud_bore", "12 mm"), ("engine.greatest_stud_bore", "14 mm"), ("engine.adapter_holes", "3 x 5.3 mm"),
        ("engine.adapter_reference_bore", "12 mm"),
    ):  # fmt: skip
        whole = with_study_detail(whole, key, text, "metric")
        assert detail_texts(whole, whole.samples[0])[key] == text, key
    sample = whole.samples[0]
    for key, text in (
        ("sample.label", "P 2"), ("sample.price", "9.50 EUR"), ("sample.used_km", "12500 km"),
        ("sample.stated_bypass", "110-180 kPa"),
        ("sample.made", "2024-03"), ("sample.expectation", "many pleats"), ("sample.condition", "used"),
    ):  # fmt: skip
        sample = with_sample_detail(sample, key, text)
        assert detail_texts(whole, sample)[key] == text, key
        if key != "sample.label":
            assert key not in detail_texts(whole, with_sample_detail(sample, key, ""))


@pytest.mark.parametrize(
    ("key", "text", "says"),
    [
        ("study.reference", "Nobody", "no sample of this study"),
        ("study.name", "", "needs a name"),
        ("engine.adapter_reference_bore", "12 mm", "no adapter yet"),
    ],
)
def test_a_fact_that_lacks_its_ground_says_so(key, text, says):
    with pytest.raises(ReadingTextError, match=says):
        with_study_detail(study(), key, text, "metric")
    with pytest.raises(ReadingTextError, match="bore is not known yet"):
        with_study_detail(replace(study(), circuit=None), "engine.stud_length", "20 mm", "metric")
    with pytest.raises(ReadingTextError, match="needs a label"):
        with_sample_detail(Sample("A"), "sample.label", " ")


@pytest.mark.parametrize(
    ("made", "bought", "years"),
    [
        ("2020-07-02", "2026-07-02", 6.0),
        ("2024", None, 2.4),
        ("2026-11", "2026-10-15", -0.085),
        (None, "2026", None),
        ("?", None, None),
    ],
)
def test_shelf_age(made, bought, years):
    result = shelf_age_years(Sample("A", made=made, bought=bought), date(2026, 11, 25))
    assert result == (None if years is None else pytest.approx(years, abs=0.03))


def whole_sample(**more):
    keys = [key for key, quantity in QUANTITIES.items() if quantity.whole_only and key != "can.circumference"]
    texts = {"N": "12 N", "g": "400 g", "kPa": "2 kPa", "mm": "50 mm"}
    return Sample(
        "A",
        expectation="plain",
        readings={key: (texts[QUANTITIES[key].metric_unit],) for key in keys},
        observations={key: "as seen" for key, observation in OBSERVATIONS.items() if observation.whole_only},
        holes=SampleHoles(inlet=(HoleGroup("round", 8, HoleReadings(("6 mm",))),)),
        **more,
    )


def test_the_gate_is_empty_only_when_everything_is_there():
    assert missing_before_cut(whole_sample()) == ()
    everything = {item.key for item in missing_before_cut(Sample("A"))}
    assert {"sample.expectation", "filter.mass", "can.height", "anti_drain.opening_pressure", "holes.inlet"} <= everything
    assert "media.strip_length" not in everything


def test_the_gate_takes_a_state_and_either_way_round_the_can_for_an_answer():
    sample = whole_sample()
    without = {key: entries for key, entries in sample.readings.items() if key != "filter.mass"}
    assert [item.key for item in missing_before_cut(replace(sample, readings=without))] == ["filter.mass"]
    assert missing_before_cut(replace(sample, readings=without, states={"filter.mass": "not_applicable"})) == ()
    around = {key: entries for key, entries in sample.readings.items() if key != "can.outside_diameter"}
    assert [item.key for item in missing_before_cut(replace(sample, readings=around))] == ["can.outside_diameter"]
    assert missing_before_cut(replace(sample, readings=around | {"can.circumference": ("239 mm",)})) == ()


def test_every_attribute_belongs_to_a_part_and_offers_a_choice():
    for observation in OBSERVATIONS.values():
        assert observation.part in PART_TITLES, observation.key
        assert len({choice.value for choice in observation.choices}) == len(observation.choices) >= 3, observation.key
        assert all(choice.meaning for choice in observation.choices), observation.key


def test_defects_are_round_holes_of_one_size():
    sample = with_sample_detail(Sample("A"), "element.leak", "6 x 0.4 mm")
    assert (sample.leak.count, sample.leak.diameter_mm) == (6, 0.4)
    assert detail_texts(Study("tabrel-study", 1, "S"), sample)["element.leak"] == "6 x 0.4 mm"
    assert with_sample_detail(sample, "element.leak", "").leak is None
    for text in ("2 x slot 9 x 4 mm", "6 x 0.4 mm, 0.5 mm", "6 x 0.4 mm 50 % open"):
        with pytest.raises(ReadingTextError, match="round holes of one size"):
            with_sample_detail(sample, "element.leak", text)


def test_the_air_drop_is_a_pressure():
    assert with_sample_detail(Sample("A"), "media.air_drop", "125").media_air_drop_pa == 125
    assert with_sample_detail(Sample("A"), "media.air_drop", "12.7 mmH2O").media_air_drop_pa == pytest.approx(124.54, abs=0.01)
    with pytest.raises(ReadingTextError, match="measures length"):
        with_sample_detail(Sample("A"), "media.air_drop", "12 mm")


def inch_study(*typed):
    whole = study()
    for key, text in typed:
        whole = with_study_detail(whole, key, text, "inch")
    return whole


def test_what_was_typed_of_a_number_is_kept_and_shown_as_typed():
    whole = inch_study(("engine.gallery", "about 50"), ("engine.stud_bore", "17/32"))
    assert whole.as_typed == {
        "gallery_kpa": TypedNumber("50 psi", "by_eye"),
        "bore_mm": TypedNumber("17/32 in"),
    }
    assert whole.circuit.engine.gallery_kpa == pytest.approx(50 * 6.894757)
    shown = detail_values(whole, whole.samples[0])
    assert (shown["engine.gallery"].text, shown["engine.gallery"].metric) == ("50 psi", "344.738 kPa")
    assert shown["engine.stud_bore"].text == "17/32 in"
    emptied = with_study_detail(whole, "engine.stud_bore", "", "inch")
    assert emptied.as_typed == {"gallery_kpa": TypedNumber("50 psi", "by_eye")}


@pytest.mark.parametrize(
    ("key", "text", "value", "kept"),
    [
        ("engine.gallery", "48 to 52", 50 * 6.894757, "48 to 52 psi"),
        ("engine.gallery", "300 kPa to 3.2 bar", 310, "300 kPa to 3.2 bar"),
        ("plan.start_c", "−30 to -20", (-25 - 32) / 1.8, "−30 to -20 °F"),
        ("engine.jet_share", "20 to 30 %", 0.25, "20 to 30 %"),
        ("engine.stud_bore", "0.5 to 0.6", 13.97, "0.5 to 0.6 in"),
    ],
)
def test_a_range_is_kept_as_typed_and_stands_for_its_middle(key, text, value, kept):
    whole = inch_study(("engine.gallery", "50"), (key, text))
    assert value_at(whole, DETAILS[key].place) == pytest.approx(value)
    assert kept in {number.text for number in whole.as_typed.values()}


@pytest.mark.parametrize(
    ("key", "text", "value", "kept", "metric"),
    [
        ("plan.start_c", "-13", -25.0, "-13 °F", "−25 °C"),
        ("plan.start_c", "-25 °C", -25.0, "-25 °C", "−25 °C"),
        ("plan.end_c", "212 degrees Fahrenheit", 100.0, "212 degrees Fahrenheit", "100 °C"),
        ("engine.bearing_rise", "18", 10.0, "18 °F", "10 K"),
        ("engine.bearing_rise", "10 °C", 10.0, "10 °C", "10 K"),
    ],
)
def test_a_bare_temperature_takes_the_familys_unit_and_a_rise_has_no_zero(key, text, value, kept, metric):
    """−13 °F are −25 °C; 18 °F of rise are 10 K."""
    whole = inch_study(("engine.gallery", "50"), (key, text))
    assert value_at(whole, DETAILS[key].place) == pytest.approx(value)
    assert kept in {number.text for number in whole.as_typed.values()}
    assert detail_values(whole, whole.samples[0])[key].metric == metric.replace("−", "-")


def test_a_bare_distance_in_use_is_in_miles_in_the_inch_family():
    used = with_sample_detail(Sample("A"), "sample.used_km", "12 500", "inch")
    assert (used.used_km, used.as_typed["used_km"].text) == (pytest.approx(20116.8), "12 500 mi")
    assert with_sample_detail(Sample("A"), "sample.used_km", "1 012 500 km", "metric").used_km == 1012500
    with pytest.raises(ReadingTextError):
        with_sample_detail(Sample("A"), "sample.used_km", "1250 500", "metric")
    with pytest.raises(ReadingTextError):  # two pressures, not one of 300,320
        inch_study(("engine.gallery", "300 320"))


def test_a_bare_number_of_a_sample_takes_the_familys_unit():
    """Six holes of 16 thou, which were once taken as six of 0.016 mm."""
    sample = with_sample_detail(Sample("A"), "element.leak", "6 x 0.016", "inch")
    assert sample.leak == Leak(6, pytest.approx(0.4064))
    assert sample.as_typed["leak"] == TypedNumber("6 x 0.016 in")
    setting = with_sample_detail(sample, "sample.stated_bypass", "15", "inch")
    assert setting.bypass.stated_kpa == pytest.approx(103.421, abs=1e-3)
    assert setting.as_typed["stated_kpa"].text == "15 psi"


def test_numbers_that_come_with_another_are_marked_assumed():
    """Typing an efficiency of 88 % says nothing of the speed at which it holds."""
    bare = replace(study(), circuit=None)
    whole = with_study_detail(bare, "engine.pump_efficiency", "88 %", "metric")
    assert whole.circuit.pump_efficiency == PumpEfficiency(0.88, 3000, 400, 100)
    assert whole.as_typed["fraction"] == TypedNumber("88 %")
    assumed = {"engine.pump_efficiency_speed", "engine.pump_efficiency_pressure", "engine.pump_efficiency_temperature"}
    assert assumed <= set(assumed_details(whole))
    stated = with_study_detail(whole, "engine.pump_efficiency_speed", "3000 rpm", "metric")
    assert "engine.pump_efficiency_speed" not in assumed_details(stated)
    gone = with_study_detail(stated, "engine.pump_efficiency", "", "metric")
    assert gone.as_typed == {}


def test_a_stud_length_and_an_adapter_stay_unstated_until_they_are_typed():
    bare = replace(study(), circuit=None)
    whole = with_study_detail(bare, "engine.stud_bore", "14.5 mm", "metric")
    assert (whole.circuit.stud.length_mm, stud_length_mm(whole.circuit.stud)) == (None, 20.0)
    whole = with_study_detail(whole, "engine.adapter_holes", "3 x 5.3 mm", "metric")
    adapter = whole.circuit.adapter
    assert (adapter.wall_mm, adapter.turn_deg) == (None, None)
    assert (adapter_wall_mm(adapter), adapter_turn_deg(adapter)) == (4.0, 90.0)
    assert {"engine.stud_length", "engine.adapter_wall", "engine.adapter_turn"} <= set(assumed_details(whole))
    turned = with_study_detail(whole, "engine.adapter_turn", "0", "metric")
    assert adapter_turn_deg(turned.circuit.adapter) == 0
    assert "engine.adapter_turn" not in assumed_details(turned)


def test_no_heating_and_no_jets_are_statements():
    whole = with_study_detail(with_study_detail(study(), "engine.bearing_rise", "0", "metric"), "engine.jet_share", "0", "metric")
    check_circuit(whole.circuit)
    assert (whole.circuit.engine.bearing_rise_k, whole.circuit.engine.jet_share) == (0, 0)
    shared = with_study_detail(replace(study(), circuit=None), "engine.gallery", "340 kPa", "metric")
    shared = with_study_detail(shared, "engine.jet_share", "30 %", "metric")
    assert shared.circuit.engine.jet_opening_kpa is None
    assert jet_opening_kpa(shared.circuit.engine) == 170
    assert "engine.jet_opening" in assumed_details(shared)


@pytest.mark.parametrize(
    ("as_typed", "says"),
    [
        ({"gallery_kp": {"text": "50 psi"}}, "did you mean 'gallery_kpa'"),
        ({"temperature_c": {"text": "100 °C"}}, "key of no number"),
        ({"gallery_kpa": {"text": " "}}, "is empty"),
        ({"gallery_kpa": {"text": "15 psi"}}, "is not the number beside it, which is 340 kPa"),
        ({"start_c": {"text": "-20 °C"}}, "a number that is not there"),
    ],
)
def test_what_is_kept_as_typed_must_be_of_a_number_and_say_it(as_typed, says):
    with pytest.raises(StudyError, match=says):
        study(("as_typed", as_typed))


@pytest.mark.parametrize("key", ["engine.gallery_kpa", "circuit.engine.gallery_kpa", "gallery_kpa"])
def test_longer_keys_name_the_same_number(key):
    whole = study(("as_typed", {key: {"text": "340 kPa", "origin": "library"}}))
    assert list(whole.as_typed) == [key]
    assert detail_values(whole, whole.samples[0])["engine.gallery"].origin == "library"
    assert with_study_detail(whole, "engine.gallery", "50 psi", "metric").as_typed == {"gallery_kpa": TypedNumber("50 psi")}


@pytest.mark.parametrize("owner", ["study", "sample"])
def test_the_key_of_every_number_leads_back_to_its_place(owner):
    places = number_places(owner)
    keys = [number_key(owner, place) for place in places]
    assert len(set(keys)) == len(places)
    assert [place_of_key(owner, key) for key in keys] == list(places)
    for detail in DETAILS.values():
        if detail.owner == owner and is_number(detail):
            assert detail.place in places, detail.key

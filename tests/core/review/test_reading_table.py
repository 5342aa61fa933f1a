"""A table of readings is understood in three layouts; what is not certain is asked, questioned or refused, never guessed."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.entry.quantity_words import named_quantity
from tabrel.core.review.reading_table import read_reading_table


def told(table):
    return [
        (reading.label, reading.quantity.key if reading.quantity else None, [r.text for r in reading.readings], reading.state)
        for reading in table.readings
    ]


DOWN = [
    ("A", "can.outside_diameter", ["76.2 mm"], "understood"),
    ("A", "media.strip_length", ["1.62 m"], "understood"),
    ("B", "can.outside_diameter", ["76.1 mm"], "understood"),
    ("B", "media.strip_length", ["1.70 m"], "understood"),
]


@pytest.mark.parametrize(
    ("text", "layout"),
    [
        ("filter\tcan OD [mm]\tstrip length (m)\nA\t76.2\t1.62\nB\t76.1\t1.70\n", "filters_down"),
        ("filter;can OD [mm];strip length (m)\nA;76,2;1,62\nB;76,1;1,70\n", "filters_down"),
        ("what\tunit\tA\tB\ncan OD\tmm\t76.2\t76.1\nstrip length\tm\t1.62\t1.70\n", "filters_across"),
        (
            "label,key,value,unit\nA,can.outside_diameter,76.2,mm\nA,media.strip_length,1.62,m\nB,can.outside_diameter,76.1,mm\n"
            "B,media.strip_length,1.70,m\n",
            "readings_down",
        ),
    ],
)
def test_three_layouts_say_the_same(text, layout):
    table = read_reading_table(text)
    assert table.layout == layout
    assert sorted(map(str, told(table))) == sorted(map(str, DOWN))
    assert table.is_complete
    assert table.labels == ("A", "B")


@pytest.mark.parametrize(
    ("words", "key", "unit"),
    [
        ("Can OD [in]", "can.outside_diameter", "in"),
        ("canister outside dia, mm", "can.outside_diameter", "mm"),
        ("gasket thickness (mm)", "gasket.thickness", "mm"),
        ("media.strip_length", "media.strip_length", ""),
        ("element height mm", "element.height", "mm"),
        ("Element: pleat count", "element.pleat_count", ""),
        ("number of pleats", "element.pleat_count", ""),
        ("can mass [g]", "can.mass", "g"),
        ("weight of the can (oz)", "can.mass", "oz"),
    ],
)
def test_a_quantity_is_known_by_the_words_of_the_trade(words, key, unit):
    named = named_quantity(words)
    assert [quantity.key for quantity in named.quantities] == [key]
    assert named.unit == unit


@pytest.mark.parametrize("quantity", QUANTITIES.values(), ids=lambda item: item.key)
def test_every_quantity_is_known_by_its_part_and_title_and_by_its_key(quantity):
    for words in (quantity.key, f"{PART_TITLES[quantity.part]}: {quantity.title}"):
        assert quantity.key in [item.key for item in named_quantity(words).quantities]


def test_words_that_could_be_several_are_refused_with_their_names():
    (cell,) = read_reading_table("filter\twall thickness [mm]\nA\t0.47\n").readings
    assert cell.state == "refused"
    assert cell.why == "could be each of can: wall thickness, centre tube: wall thickness: name the part too"


def test_a_name_among_other_words_is_questioned():
    (cell,) = read_reading_table("filter\tgasket groove outside diameter [mm]\nA\t71.6\n").readings
    assert cell.state == "questioned"
    assert "gasket: outside diameter" in cell.why


def test_bare_numbers_without_a_unit_are_asked_for_and_taken_in_the_unit_that_is_said():
    text = "filter\tcan OD\tpleat count\nA\t3.0\t54\n"
    table = read_reading_table(text)
    assert table.asks_units
    assert not table.is_complete
    assert told(table)[1] == ("A", "element.pleat_count", ["54"], "understood")
    for family, expected, state in (("metric", "3.0 mm", "questioned"), ("inch", "3.0 in", "understood")):
        answered = read_reading_table(text, family=family)
        assert not answered.asks_units
        assert told(answered)[0] == ("A", "can.outside_diameter", [expected], state)


def test_a_number_that_cannot_be_is_refused_and_one_that_is_unlikely_is_questioned_and_the_rest_stays():
    table = read_reading_table("filter\tcan OD [mm]\tcan wall thickness [mm]\tcan mass [g]\nA\t76e9\t4.7\t120\n")
    assert [reading.state for reading in table.readings] == ["refused", "questioned", "understood"]
    assert "cannot be the outside diameter" in table.readings[0].why


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "the table is empty"),
        ("colour\tsmell\nred\tnone\n", "no heading and no first cell names anything that is measured"),
    ],
)
def test_what_is_no_table_of_readings_is_said_in_a_sentence(text, says):
    table = read_reading_table(text)
    assert says in table.problem
    assert not table.is_complete


def test_a_decimal_mark_that_could_be_either_is_asked():
    table = read_reading_table("filter\tcan mass [g]\nA\t1,250\n")
    assert table.asks_decimal
    assert not table.is_complete
    assert read_reading_table("filter\tcan mass [g]\nA\t1,250\n", decimal=",").readings[0].readings[0].text == "1.250 g"


def test_readings_without_a_label_are_of_the_filter_in_hand_or_of_none():
    text = "can mass [g]\tcan height [mm]\n120\t98\n"
    assert {reading.state for reading in read_reading_table(text).readings} == {"refused"}
    assert read_reading_table(text, own_label="X").labels == ("X",)


def test_several_readings_and_words_in_a_cell_are_understood_as_in_a_field():
    table = read_reading_table("filter\tcan wall thickness\nA\t0.47, 0.52, 0.48 mm\nB\t0.5 mm published\nC\tlost\n")
    assert [r.text for r in table.readings[0].readings] == ["0.47 mm", "0.52 mm", "0.48 mm"]
    assert table.readings[1].readings[0].provenance == "published"
    assert table.readings[2].state == "left_out"


@pytest.mark.parametrize(("label", "says"), [("A\u202eB", "RIGHT-TO-LEFT OVERRIDE"), ("W" * 101, "more than 100 letters")])
def test_a_label_that_hides_something_or_is_too_long_is_refused(label, says):
    (cell,) = read_reading_table(f"filter\tcan mass [g]\n{label}\t120\n").readings
    assert cell.state == "refused"
    assert says in cell.why


def test_a_column_of_notes_beside_filters_is_no_filter():
    table = read_reading_table("what\tunit\tA\tnote\ncan mass\tg\t120\t3 times\ncan height\tmm\t98\t2\n")
    assert table.labels == ("A",)
    assert len(table.readings) == 2


@given(st.text(max_size=200))
def test_whatever_is_pasted_is_answered(text):
    table = read_reading_table(text, family="metric", own_label="X")
    assert table.problem or table.layout

from __future__ import annotations

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.units import UNITS, in_family, printed
from tabrel.core.entry.drills import LETTER_DRILLS, NUMBER_DRILLS, drill_interval
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.entry.stated_number import understood_number
from tabrel.core.errors import ReadingTextError

INCH = 0.0254


@pytest.mark.parametrize(
    ("text", "dimension", "value"),
    [
        ("0.47 mm", "length", 0.47e-3),
        ("0,47 mm", "length", 0.47e-3),
        ("2 15/16 in", "length", 2.9375 * INCH),
        ('2 15/16"', "length", 2.9375 * INCH),
        ("18 thou", "length", 0.018 * INCH),
        ("18 mil", "length", 0.018 * INCH),
        ("5 ft 3 in", "length", 63 * INCH),
        ("5 ft 3 1/4 in", "length", 63.25 * INCH),
        ("2-15/16 in", "length", 2.9375 * INCH),
        ("5' 3\"", "length", 63 * INCH),
        ("5'3\"", "length", 63 * INCH),
        ("5′ 3-1/4″", "length", 63.25 * INCH),
        ("1 lb 4 oz", "mass", 0.45359237 * 1.25),
        ("14.5 psi", "pressure", 99973.98),
        ("1.2e-3 m", "length", 1.2e-3),
        ("54", "count", 54),
        ("6 1/2", "count", 6.5),
        (".5 in", "length", 0.5 * INCH),
        ("25 cfm/ft2", "air_permeability", 0.127),
    ],
)
def test_understands_what_people_type(text, dimension, value):
    assert parse_reading(text, dimension).value == pytest.approx(value, rel=1e-6)


@pytest.mark.parametrize(
    ("text", "dimension", "says"),
    [
        ("", "length", "empty"),
        ("12..3 mm", "length", "not a number"),
        ("1e999 mm", "length", "finite"),
        ("-3 mm", "length", "negative"),
        ("3 mn", "length", "no unit known here .did you mean"),
        ("3 kPa", "length", "measures pressure"),
        ("3", "length", "has no unit"),
        ("54 mm", "count", "bare number"),
        ("1,620 mm", "length", "1620 mm or 1.620 mm|write 1620 or 1.620"),
        ("3/0 in", "length", "divides by zero"),
        ("drill 11/63", "length", "there is no drill"),
        ("drill #99", "length", "there is no drill"),
        ("drill 4.5 mm", "length", "type the size itself"),
        ("drill F", "mass", "measures a length"),
        ("go 7/32 nogo 13/64", "length", "smaller"),
        ("nan mm", "length", "not a number"),
        ("3 mm 4 mm x", "length", "more than one reading"),
        ("0.48 mm 0.46 mm", "length", "more than one reading: part them with commas"),
        ("2 in 4 ft", "length", "more than one reading"),
        ("1 bar 2 bar", "pressure", "more than one"),
    ],
)
def test_refuses_with_one_sentence(text, dimension, says):
    with pytest.raises(ReadingTextError, match=says) as captured:
        parse_reading(text, dimension)
    assert "\n" not in str(captured.value)


def test_zero_is_a_value_only_where_allowed():
    assert parse_reading("0 mm", "length").value == 0
    with pytest.raises(ReadingTextError, match="leave the reading out"):
        parse_reading("0 mm", "length", zero_allowed=False)


@pytest.mark.parametrize(
    ("name", "goes", "stops"),
    [
        ("13/64", 13 / 64, 14 / 64),
        ("#16", 0.1770, 0.1800),  # next of the numbers is #15
        ("#1", 0.2280, 0.2340),  # the numbers run on into the letters: A
        ("F", 0.257, 0.261),
        ("Z", 0.413, 27 / 64),  # the letters run on into the fractions
        ("1 3/4", 1.75, 1.75 + 1 / 32),
        ("13/64 in", 13 / 64, 14 / 64),
        ("letter F", 0.257, 0.261),
        ("number 16", 0.1770, 0.1800),
        ('f"', 0.257, 0.261),
    ],
)
def test_a_drill_is_bounded_by_the_next_of_its_series(name, goes, stops):
    """Sizes from the published twist-drill table, ASME B94.11M."""
    assert drill_interval(name) == pytest.approx((goes * INCH, stops * INCH))


@pytest.mark.parametrize("text", ["drill #16", "#16", "number 16", "drill number 16"])
def test_a_drill_is_known_by_its_series_alone(text):
    assert parse_reading(text, "length").interval == pytest.approx((0.1770 * INCH, 0.1800 * INCH))


def test_drill_tables_are_whole_and_in_order():
    assert (len(NUMBER_DRILLS), len(LETTER_DRILLS)) == (80, 26)
    assert list(NUMBER_DRILLS.values()) == sorted(NUMBER_DRILLS.values(), reverse=True)
    assert list(LETTER_DRILLS.values()) == sorted(LETTER_DRILLS.values())


def test_go_no_go_is_the_middle_of_its_interval():
    parsed = parse_reading("go 13/64 nogo 7/32", "length")
    assert parsed.value == pytest.approx(INCH * (13 / 64 + 14 / 64) / 2)
    assert parsed.interval == pytest.approx((INCH * 13 / 64, INCH * 14 / 64))
    assert parse_reading("go 4.4 mm no-go 4.5 mm", "length").value == pytest.approx(4.45e-3)


PINT_NAMES = {
    "'": "foot", '"': "inch", "in": "inch", "thou": "thou", "mil": "thou", "um": "micrometer", "µm": "micrometer",
    "μm": "micrometer", "gf": "gram_force", "kgf": "kilogram_force", "lbf": "pound_force",
    "mm2": "mm**2", "cm2": "cm**2", "in2": "inch**2", "L/m2/s": "liter/m**2/s", "cfm/ft2": "ft/min",
    "cm3": "cm**3", "cc": "cm**3", "in3": "inch**3", "qt": "quart", "gal": "gallon", "rpm": "1/min", "/min": "1/min",
    "gpm": "gallon/min",
    "gal/min": "gallon/min", "cm3/rev": "cm**3", "cc/rev": "cm**3", "in3/rev": "inch**3", "kg/m3": "kg/m**3", "g/cm3": "g/cm**3",
    "mm2/s": "mm**2/s", "mPa.s": "millipascal*second", "mPa·s": "millipascal*second", "Pa.s": "pascal*second",
    "um2": "micrometer**2", "uPa.s": "micropascal*second", "%": "percent", "Mpsi": "megapsi",
}  # fmt: skip


@pytest.fixture(scope="module")
def registry():
    return pint.UnitRegistry()


NOT_SI = ("temperature", "temperature_difference", "distance")


@pytest.mark.parametrize("symbol", [name for name, unit in UNITS.items() if "H2O" not in name and unit.dimension not in NOT_SI])
def test_factors_agree_with_an_independent_library(symbol, registry):
    expected = registry.Quantity(1, PINT_NAMES.get(symbol, symbol)).to_base_units().magnitude
    if UNITS[symbol].dimension == "mass":
        expected = registry.Quantity(1, symbol).to("kg").magnitude
    assert UNITS[symbol].factor == pytest.approx(expected, rel=1e-9)


@pytest.mark.parametrize(
    ("symbol", "name", "own"),
    [("°F", "degF", "degC"), ("°C", "degC", "degC"), ("mi", "mile", "km"), ("Δ°F", "delta_degF", "kelvin")],
)
@pytest.mark.parametrize("number", [-40.0, 0.0, 212.0])
def test_temperatures_and_distances_agree_with_an_independent_library(symbol, name, own, number, registry):
    value = registry.Quantity(number, name).to(own).magnitude
    assert UNITS[symbol].to_si(number) == pytest.approx(value, abs=1e-9)
    assert UNITS[symbol].from_si(value) == pytest.approx(number, abs=1e-9)


READ_AT_THE_BENCH = {quantity.dimension for quantity in QUANTITIES.values()}


@pytest.mark.parametrize(
    "symbol", [name for name in UNITS if UNITS[name].dimension in READ_AT_THE_BENCH and printed(name) != name]
)
def test_a_unit_as_printed_may_be_typed(symbol):
    assert "2" not in printed(symbol)
    dimension = UNITS[symbol].dimension
    assert parse_reading(f"3 {printed(symbol)}", dimension).value == parse_reading(f"3 {symbol}", dimension).value


@pytest.mark.parametrize("unit", ["cm³/rev", "kg/m³", "L/min", "g/h", "L", "kPa", "min", "rpm"])
@pytest.mark.parametrize("family", ["metric", "inch"])
def test_a_stated_number_as_printed_may_be_typed(unit, family):
    shown = printed(in_family(unit.replace("³", "3"), family))
    assert understood_number(f"3 {shown}", unit, "size", "metric") == understood_number(f"3 {shown}", unit, "size", "inch")
    bare, with_unit = (understood_number(text, unit, "size", family) for text in ("3", f"3 {shown}"))
    assert bare == with_unit


def test_water_columns():
    """Conventional water column at 4 °C: 9.80665 Pa a millimetre, 249.089 Pa an inch (NIST SP 811, B.8)."""
    assert UNITS["mmH2O"].factor == pytest.approx(9.80665)
    assert UNITS["inH2O"].factor == pytest.approx(249.089, rel=1e-5)


@given(st.floats(1e-3, 1e4), st.sampled_from(["mm", "in", "thou", "cm"]))
def test_a_decimal_comma_and_a_point_mean_the_same(number, unit):
    text = f"{number:.4f}"
    assert parse_reading(f"{text} {unit}", "length") == parse_reading(f"{text.replace('.', ',')} {unit}", "length")


@given(st.text(max_size=20))
def test_any_text_is_understood_or_refused(text):
    try:
        parsed = parse_reading(text, "length")
    except ReadingTextError:
        return
    assert 0 <= parsed.value < float("inf")

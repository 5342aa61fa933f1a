"""The working of every result: its last line is the result, and every line is arithmetic that holds."""

from __future__ import annotations

import json
import re
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from uncertainties import nominal_value, std_dev, ufloat

from builders import SAMPLE, everything, reading, study
from tabrel.cli.demo import demo_documents
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.results.bounded import measured_at_limits
from tabrel.core.results.budget import uncertainty_budget
from tabrel.core.results.working import Operand, Working, evaluate, shown_number
from tabrel.core.results.working_chains import CHAINS, working_of
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.document.study_document import read_study

CASES = sorted((Path(__file__).parents[2] / "data" / "cases").glob("*.study.json"))


def assert_budget_holds(last, measured, result):
    """The contributions sum to u², told by inputs; and told by the numbers of the last line with their covariances."""
    budget = uncertainty_budget(last, measured)
    if not result.standard_uncertainty:
        assert budget.contributions == ()
        return
    assert budget.standard_uncertainty == pytest.approx(result.standard_uncertainty, rel=1e-6)
    squares = [contribution.amount**2 for contribution in budget.contributions]
    assert sum(squares) == pytest.approx(budget.standard_uncertainty**2, rel=1e-3)
    assert sum(contribution.share for contribution in budget.contributions) == pytest.approx(1, rel=1e-3)
    assert squares == sorted(squares, reverse=True)
    assert all(
        contribution.title and contribution.title != contribution.key and contribution.smaller
        for contribution in budget.contributions
    )
    fresh = {
        operand.symbol: ufloat(nominal_value(operand.value), std_dev(operand.value)) if std_dev(operand.value) else operand.value
        for operand in last.operands
    }
    direct = std_dev(evaluate(last.template, fresh)) ** 2 / budget.standard_uncertainty**2
    assert direct + sum(covariance.share for covariance in budget.covariances) == pytest.approx(1, rel=1e-3)


def assert_workings_hold(sample, circuit):
    measured = measure_sample(sample, circuit)
    results = analyse_measured(measured).results
    seen = 0
    for name in CHAINS:
        result = getattr(results, name)
        if result.value is None and result.low is None and result.high is None:
            continue
        seen += 1
        steps = working_of(name, measured).steps
        for step in steps:
            again = evaluate(step.template, {operand.symbol: operand.value for operand in step.operands})
            assert nominal_value(again) == nominal_value(step.value)
            assert step.formula()
        last = steps[-1].value
        if result.basis == "claim":
            ends = sorted(nominal_value(step.value) for step in steps if step.symbol == "E")
            assert result.low is None or result.low == pytest.approx(ends[0], rel=1e-12)
            assert result.high is None or result.high == pytest.approx(ends[-1], rel=1e-12)
            continue
        if result.basis == "counts":
            ends = [[nominal_value(step.value) for step in steps if step.symbol == end] for end in ("E₁", "E₂")]
            assert result.low is None or result.low == pytest.approx(min(ends[0]), rel=1e-9)
            assert result.high is None or result.high == pytest.approx(max(ends[1]), rel=1e-9)
            if result.value is None:
                continue
        assert nominal_value(last) == pytest.approx(result.value, rel=1e-10, abs=1e-15), name
        assert_budget_holds(steps[-1], measured, result)
        if result.standard_uncertainty:
            assert std_dev(last) == pytest.approx(result.standard_uncertainty, rel=1e-6), name
    return seen


@pytest.mark.parametrize("path", CASES, ids=lambda path: path.name.split(".")[0])
def test_the_last_line_is_the_result_in_every_case(path):
    whole = read_study(path.read_bytes())
    assert sum(assert_workings_hold(sample, whole.circuit) for sample in whole.samples) >= 8


def test_the_last_line_is_the_result_in_the_demo():
    whole = read_study(demo_documents()[0])
    for sample in whole.samples:
        assert assert_workings_hold(sample, whole.circuit) >= 2


HOLES = {
    "slot": ("slot", {"length": ["9 mm"], "width": ["4 mm"]}),
    "turned slot": ("slot", {"length": ["4 mm"], "width": ["9 mm"]}),
    "ellipse": ("ellipse", {"length": ["9 mm"], "width": ["5 mm"]}),
    "d": ("d", {"diameter": ["9 mm"], "height": ["6 mm"]}),
    "d that is round": ("d", {"diameter": ["9 mm"], "height": ["10 mm"]}),
    "rectangle": ("rectangle", {"length": ["9 mm"], "width": ["4 mm"]}),
    "rectangle with corners": ("rectangle", {"length": ["9 mm"], "width": ["4 mm"], "corner_radius": ["1 mm"]}),
    "rectangle with too much corner": ("rectangle", {"length": ["9 mm"], "width": ["4 mm"], "corner_radius": ["3 mm"]}),
    "outline": ("outline", {"points_mm": [[0, 0], [6, 0], [6, 5], [0, 5]]}),
}
CHANGES = {
    **{
        name: [(f"{SAMPLE}/holes/inlet", [{"shape": shape, "count": 3, "readings": sizes}])]
        for name, (shape, sizes) in HOLES.items()
    },
    "unequal groups, one covered": [
        (
            f"{SAMPLE}/holes/inlet",
            [
                {"shape": "round", "count": 4, "readings": {"diameter": [["0", "5.6 mm"][1]]}, "open_fraction": 0},
                {"shape": "round", "count": 5, "readings": {"diameter": ["5.6 mm"]}},
                {"shape": "slot", "count": 2, "readings": {"length": ["9 mm"], "width": ["4 mm"]}, "open_fraction": 0.5},
            ],
        )
    ],
    "anti-drainback curtain": [reading("anti_drain.lift", "1.1 mm"), reading("anti_drain.lip_diameter", "58 mm")],
    "thread for the stud": [("circuit/stud", None), reading("thread.major_diameter", "20 mm"), reading("thread.pitch", "1.5 mm")],
    "blocked pleats and area": [
        reading("media.blocked_pleats", "3"),
        reading("media.blocked_area", "40 cm2"),
        reading("element.pleat_depth", "14.8 mm"),
    ],
    "nothing left of the media": [reading("media.seam_overlap", "1.7 m"), reading("element.potting_depth", "40 mm")],
    "forecast": [reading("media.strip_length"), reading("element.height", "72 mm")],
    "push-off force": [reading("bypass.opening_force", "20 N")],
    "bench pressure": [reading("bypass.opening_pressure", "140 kPa", "142 kPa")],
    "stated band": [
        (f"{SAMPLE}/bypass/stated_kpa", [110, 180]),
        reading("bypass.spring_wire_diameter"),
        reading("bypass.seat_outside_diameter"),
    ],
    "stated figure": [(f"{SAMPLE}/bypass/stated_kpa", 120), reading("bypass.spring_wire_diameter")],
    "inside seat only, lift limit left out": [reading("bypass.seat_outside_diameter"), reading("bypass.lift_limit")],
    "uncompressed spring": [reading("bypass.spring_installed_length", "24 mm")],
    "bench pressure with a spring": [reading("bypass.opening_pressure", "140 kPa"), reading("bypass.lift_limit")],
    "air permeability": [reading("media.air_permeability", "200 L/m2/s")],
    "air permeability in feet": [reading("media.air_permeability", "40 cfm/ft2")],
    "fibre and dry mass": [reading("media.fibre_diameter", "18 um"), reading("media.dry_mass", "20 g")],
    "by eye and assumed": [
        (f"{SAMPLE}/readings/media.strip_width", [{"text": "68 mm", "provenance": "by_eye"}]),
        (f"{SAMPLE}/readings/element.potting_depth", [{"text": "2.5 mm", "provenance": "assumed"}]),
    ],
}


@pytest.mark.parametrize("name", CHANGES)
def test_the_last_line_is_the_result_whatever_was_measured(name):
    changed = study(*CHANGES[name])
    assert_workings_hold(changed.samples[0], changed.circuit)


@pytest.mark.parametrize(("relation", "size"), [("=", 20), ("=", 30), (">=", 15), (">", 20), ("<=", 25)])
@pytest.mark.parametrize("scale", ["um(c)", "um(b)", "um", "unnamed"])
def test_a_claim_is_worked_to_its_ends(relation, size, scale):
    claim = {
        "kind": "efficiency",
        "relation": relation,
        "efficiency_percent": 98,
        "size_um": size,
        "scale": scale,
        "source": "box",
    }
    changed = study((f"{SAMPLE}/claims", [claim]))
    assert_workings_hold(changed.samples[0], changed.circuit)


def test_an_adapter_and_every_key_there_is_have_their_lines():
    whole = read_study(json.dumps(everything()))
    assert assert_workings_hold(whole.samples[0], whole.circuit) >= 9


@settings(max_examples=40)
@given(st.floats(3, 12), st.integers(1, 20), st.floats(500, 3000), st.floats(30, 120), st.integers(0, 10))
def test_the_last_line_is_the_result_over_a_range(diameter, count, length, width, blocked):
    changed = study(
        (f"{SAMPLE}/holes/inlet", [{"shape": "round", "count": count, "readings": {"diameter": [f"{diameter:.3f} mm"]}}]),
        reading("media.strip_length", f"{length:.1f} mm"),
        reading("media.strip_width", f"{width:.2f} mm"),
        reading("media.blocked_pleats", str(blocked)),
    )
    assert_workings_hold(changed.samples[0], changed.circuit)


def test_what_a_result_rests_on_is_counted_once_each():
    changed = study(reading("media.seam_overlap"))
    inputs = working_of("media_effective_area", measure_sample(changed.samples[0], changed.circuit)).inputs()
    assert inputs == {
        "media.strip_length": "measured",
        "media.seam_overlap": "assumed",
        "media.strip_width": "measured",
        "element.potting_depth": "measured",
    }


def test_a_line_shows_its_formula_and_its_numbers():
    working = Working("Area")
    diameter = Operand("d", "diameter", ufloat(6.07e-3, 0.02e-3), "length", "holes.inlet[0].diameter", "measured")
    working.line("A", "area", "π·{d}²/4", [diameter], "area")
    step = working.steps[0]
    assert step.formula() == "π·d²/4"
    assert [
        piece if isinstance(piece, str) else shown_number(piece.value, piece.measure, "metric") for piece in step.pieces()
    ] == [
        "π·",
        "6.070 mm",
        "²/4",
    ]
    assert shown_number(step.value, "area", "metric") == "28.94 mm²"


@pytest.mark.parametrize(
    ("value", "measure", "family", "text"),
    [
        (0.0254, "length", "inch", "1 in"),
        (ufloat(231.2e-6, 2.9e-6), "area", "metric", "231.2 mm²"),
        (ufloat(142.2e3, 9e3), "pressure", "inch", "20.6 psi"),
        (54.0, "count", "metric", "54"),
        (0.125, "fraction", "metric", "12.5 %"),
        (81.5e9, "modulus", "metric", "81.5 GPa"),
        (1.2e-11, "permeability", "metric", "12 µm²"),
        (123456.0, "number", "metric", "123456"),
    ],
)
def test_numbers_are_shown_with_the_digits_they_deserve(value, measure, family, text):
    assert shown_number(value, measure, family) == text


@pytest.mark.parametrize(
    ("template", "value"),
    [
        ("{a} − {b}·2", 1.0),
        ("√({a} + {b} − 1)", 2.449489742783178),
        ("min({a}, {b})", 2.0),
        ("max(0, {b} − {a})", 0.0),
        ("{a}^{b}", 25.0),
        ("−{a}⁴/{b}³", -78.125),
        ("ln(exp({a}))", 5.0),
    ],
)
def test_a_template_is_arithmetic(template, value):
    assert evaluate(template, {"a": 5.0, "b": 2.0}) == pytest.approx(value)


@pytest.mark.parametrize("template", ["__import__('os')", "{a}.real", "[{a}]", "'x'", "open({a})", "({a} if 1 else 2)"])
def test_a_template_is_nothing_but_arithmetic(template):
    with pytest.raises((ValueError, KeyError)):
        evaluate(template, {"a": 1.0})


def test_the_budget_of_an_area_by_hand():
    """L·W with L = 1.62 m read once: tape 0.5 and 1 mm, spread 1.5 mm, pull 1 %; W = 68 mm: caliper."""
    whole = study(reading("media.strip_length", "1.62 m"))
    measured = measure_sample(whole.samples[0], whole.circuit)
    budget = uncertainty_budget(working_of("media_gross_area", measured).steps[-1], measured)
    length_b = (0.5e-3**2 / 3 + 1e-3**2 / 12 + (0.01 * 1.62) ** 2 / 3) ** 0.5
    width_b = (0.03e-3**2 / 3 + 0.01e-3**2 / 12) ** 0.5
    expected = {
        ("media.strip_length", "instrument"): 68e-3 * length_b,
        ("media.strip_length", "repeating"): 68e-3 * 1.5e-3,
        ("media.strip_width", "repeating"): 1.62 * 0.03e-3,
        ("media.strip_width", "instrument"): 1.62 * width_b,
    }
    assert {
        (contribution.key, contribution.source): contribution.amount for contribution in budget.contributions
    } == pytest.approx(expected)
    assert budget.contributions[0].title == "Media: strip length"
    assert "without pulling" in budget.contributions[0].smaller


def test_dead_coils_nobody_counted_stand_in_the_budget_and_shared_inputs_show_as_covariances():
    whole = study()
    measured = measure_sample(whole.samples[0], whole.circuit)
    opening = uncertainty_budget(working_of("bypass_opening", measured).steps[-1], measured)
    assert {contribution.key: contribution.smaller for contribution in opening.contributions}[
        "model.dead_coils"
    ] == "count the dead coils, or say how the spring ends"
    full = uncertainty_budget(working_of("bypass_full_open", measured).steps[-1], measured)
    pairs = {frozenset((covariance.first, covariance.second)): covariance for covariance in full.covariances}
    assert pairs[frozenset(("p₀", "k"))].correlation > 0.5  # the same spring
    assert pairs[frozenset(("p₀", "S"))].correlation < -0.3  # the same seat


def test_a_bound_is_worked_from_the_size_at_its_limit():
    whole = study(reading("media.strip_length", "over 1.6 m"))
    measured = measure_sample(whole.samples[0], whole.circuit)
    result = analyse_measured(measured).results.media_gross_area
    assert (result.value, result.high, result.relation, result.missing) == (None, None, ">=", ())
    assert result.low == pytest.approx(1.6 * 68e-3)
    last = working_of("media_gross_area", measured_at_limits(measured)).steps[-1]
    assert nominal_value(last.value) == pytest.approx(result.low)


def test_a_number_with_its_unit_is_in_brackets_where_a_power_follows_on_screen_as_on_paper():
    inlet = working_of("inlet_hole_area", measure_sample(study().samples[0], study().circuit)).steps[0]
    for family, unit in (("metric", "mm"), ("inch", "in")):
        shown = "".join(inlet.shown_pieces(family))
        assert re.search(rf"\([\d.]+ {unit}\)²", shown), shown
        assert f" {unit}²" not in shown

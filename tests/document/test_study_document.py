from __future__ import annotations

import json
import re
from pathlib import Path

import pytest
from jsonschema_rs import validator_for

from builders import EVIDENCE, changed, everything, plain_document
from tabrel.cli.demo import demo_documents
from tabrel.core.catalogue.physical_limits import PHYSICAL_LIMITS
from tabrel.core.errors import StudyError
from tabrel.core.study.model import Reading
from tabrel.document.full_study import full_study_schema
from tabrel.document.study_document import read_study, study_to_json, write_study

SAMPLE = "samples/0"


def refused(document):
    with pytest.raises(StudyError) as captured:
        read_study(document if isinstance(document, str | bytes) else json.dumps(document))
    assert "\n" not in str(captured.value)
    return captured.value


def put(document, path, value):
    """Return a document with another value at a path."""
    *steps, last = (int(step) if step.isdigit() else step for step in path.split("/"))
    here = document
    for step in steps:
        here = here[step]
    here[last] = value
    return document


def test_a_document_round_trips_to_an_equal_one():
    document = everything()
    assert study_to_json(read_study(json.dumps(document))) == document
    assert read_study(write_study(read_study(json.dumps(document)))) == read_study(json.dumps(document))


def test_struck_readings_are_kept_apart():
    sample = read_study(json.dumps(everything())).samples[0]
    assert sample.readings["can.mass"] == (Reading("12 g", set_aside="wet"), Reading("90 g", instrument="fine balance"))


@pytest.mark.parametrize(
    ("content", "says"),
    [
        ("", "empty"),
        ("  \n", "empty"),
        ("{", "not JSON .*line 1"),
        ("[]", "not an object"),
        (b"\xff\xfe", "not UTF-8"),
        ('{"format": "tabrel-study", "format": "x"}', "is there twice"),
        ('{"a": NaN}', "no finite number"),
        ('{"a": 1' + "0" * 5000 + "}", "cannot be read"),
        ("[" * 100_000, "nested too deeply"),
    ],
)
def test_what_is_no_study_is_refused(content, says):
    assert re.search(says, str(refused(content)))


@pytest.mark.parametrize(
    ("change", "path", "says"),
    [
        (("format", "other"), "format", "not a study document"),
        (("version", 4), "version", "newer"),
        (("version", "1"), "version", "whole number"),
        (("name", None), "name", "missing"),
        (("name", " "), "name", "empty"),
        (("qestion", "x"), "qestion", "did you mean 'question'"),
        (("circuit/regulator/opening", 1), "circuit.regulator.opening", "did you mean 'opening_kpa'"),
        ((f"{SAMPLE}/lable", "x"), "samples[0].lable", "did you mean 'label'"),
        ((f"{SAMPLE}/holes/outlet", []), "samples[0].holes.outlet", "did you mean 'inlet'"),
        ((f"{SAMPLE}/holes/inlet/0/readings/diametre", []), "samples[0].holes.inlet[0].readings.diametre", "'diameter'"),
        ((f"{SAMPLE}/readings/can.hight", ["3 mm"]), "samples[0].readings.can.hight", "did you mean 'can.height'"),
        ((f"{SAMPLE}/readings/can.height", ["12..3 mm"]), "samples[0].readings.can.height[0]", "not a number"),
        ((f"{SAMPLE}/readings/can.height", ["9 mm", "1e999 mm"]), "samples[0].readings.can.height[1]", "finite"),
        ((f"{SAMPLE}/readings/can.height", ["1e200 mm"]), "samples[0].readings.can.height[0]", "cannot be"),
        ((f"{SAMPLE}/readings/can.height", ["3 furlong"]), "samples[0].readings.can.height[0]", "no unit known"),
        ((f"{SAMPLE}/readings/can.height", ["-3 mm"]), "samples[0].readings.can.height[0]", "negative"),
        ((f"{SAMPLE}/readings/can.height", [3]), "samples[0].readings.can.height[0]", "text with its unit"),
        ((f"{SAMPLE}/readings/can.height", "3 mm"), "samples[0].readings.can.height", "list in [ ]"),
        ((f"{SAMPLE}/holes/inlet/0/count", 0), "samples[0].holes.inlet[0].count", "whole number from 1"),
        ((f"{SAMPLE}/holes/inlet/0/count", 2.5), "samples[0].holes.inlet[0].count", "whole number"),
        ((f"{SAMPLE}/holes/inlet/0/open_fraction", 1.5), "samples[0].holes.inlet[0].open_fraction", "at most 1"),
        ((f"{SAMPLE}/holes/inlet/0/shape", "oval"), "samples[0].holes.inlet[0].shape", "'round'"),
        ((f"{SAMPLE}/holes/inlet/0/readings/width", ["3 mm"]), "samples[0].holes.inlet[0].readings.width", "no width"),
        ((f"{SAMPLE}/holes/inlet/0/readings/points_mm", [[0, 0]]), "samples[0].holes.inlet[0].readings.points_mm", "points"),
        ((f"{SAMPLE}/bypass/stated_kpa", [180, 110]), "samples[0].bypass.stated_kpa", "lower pressure first"),
        ((f"{SAMPLE}/leak", {"count": 0, "diameter_mm": 1}), "samples[0].leak.count", "whole number"),
        ((f"{SAMPLE}/price", {"amount": -1, "currency": "EUR"}), "samples[0].price.amount", "at least zero"),
        (("oil/viscosity/0/temperature_c", -400), "oil.viscosity[0].temperature_c", "no oil temperature"),
        (("oil/viscosity/0/dynamic_mpa_s", 5), "oil.viscosity[0]", "not both"),
        (("oil/viscosity/0/kinematic_mm2_s", 5), "oil.viscosity", "thicker"),
        (("oil/density_15c_kg_m3", 0), "oil.density_15c_kg_m3", "at least 500 kg/m³"),
        (("circuit/pump_efficiency/fraction", 1.2), "circuit.pump_efficiency.fraction", "at most 1"),
        (("circuit/engine/jet_share", 1), "circuit.engine.jet_share", "below 1"),
        (("circuit/engine/jet_opening_kpa", 340), "circuit.engine.jet_opening_kpa", "below the hot gallery pressure"),
        (("circuit/gauge", "dashboard"), "circuit.gauge", "'pump'"),
    ],
)
def test_refusals_name_the_place_and_the_mend(change, path, says):
    error = refused(changed(change))
    assert error.path == path
    assert says in error.message


def test_infinity_written_as_a_number_is_refused():
    text = json.dumps(plain_document()).replace('"density_15c_kg_m3": 855', '"density_15c_kg_m3": 1e999')
    assert "finite" in str(refused(text))


def test_two_samples_may_not_share_a_label():
    document = plain_document()
    document["samples"] *= 2
    assert refused(document).path == "samples[1].label"


@pytest.mark.parametrize(
    ("claim", "says"),
    [
        ({"efficiency_percent": 100}, "no filtration ratio"),
        ({"seen": "last week"}, "no date"),
        ({"size_um": -1}, "above zero"),
        ({"relation": "about"}, "'='"),
        ({"source": None}, "missing"),
    ],
)
def test_impossible_claims(claim, says):
    whole = {"kind": "efficiency", "relation": "=", "efficiency_percent": 99, "source": "box", **claim}
    whole = {key: value for key, value in whole.items() if value is not None}
    assert says in refused(changed((f"{SAMPLE}/claims", [whole]))).message


@pytest.mark.parametrize(
    ("change", "place", "says"),
    [
        (("intervals/0", {"who": "own"}), "intervals[0]", "distance_km, months or hours"),
        (("odometer/0/on", "last week"), "odometer[0].on", "no date"),
        (("gauge_logs/0/rows/0/time_s", "0"), "gauge_logs[0].rows[0].time_s", "number"),
        (("instruments/0/kind", "scales"), "instruments[0].kind", "did you mean 'scale'"),
        (("instruments/0/resolution", "0.1 mm"), "instruments[0].resolution", "measures length"),
        (("instruments/0/name", "scale"), "instruments[0].name", "usual instrument"),
        (("typical/spread_factor", 0), "typical.spread_factor", "above zero"),
    ],
)
def test_impossible_plans_of_service_name_the_place_and_the_mend(change, place, says):
    error = refused(put(everything(), *change))
    assert error.path == place
    assert says in error.message


def test_the_schema_accepts_what_is_read():
    validator = validator_for(full_study_schema())
    for content in [json.dumps(everything()), *demo_documents()]:
        validator.validate(json.loads(content))
    assert not validator.is_valid(changed(("qestion", "x")))


def test_the_published_schema_is_current():
    published = json.loads((Path(__file__).parents[2] / "docs" / "tabrel-study.schema.json").read_text())
    assert published == full_study_schema()


def test_older_versions_are_read_for_ever_and_written_as_the_newest():
    first = changed(("version", 1), ("uses", "daily, towing"))
    study = read_study(json.dumps(first))
    assert (study.version, study.intended_uses, study.uses) == (3, "daily, towing", ())
    written = study_to_json(study)
    assert (written["version"], written["intended_uses"]) == (3, "daily, towing")
    second = changed(("version", 2), (f"{SAMPLE}/capacity_g", 18), *EVIDENCE)
    assert study_to_json(read_study(json.dumps(second))) == second | {"version": 3}
    assert "uses" not in written
    assert "leave one" in refused(changed(("uses", "daily"), ("intended_uses", "towing"))).message


def test_counts_of_the_older_form_are_read_and_written_back():
    rows = {"scale": "um", "volume_ml": 10, "dilution": 1, "rows": [{"size_um": 10, "upstream": 41230, "downstream": 9120}]}
    document = changed(("version", 3), (f"{SAMPLE}/counts", rows))
    assert study_to_json(read_study(json.dumps(document))) == document


@pytest.mark.parametrize(
    ("path", "value", "place", "says"),
    [
        ("counts/intervals/0/upstream", [1], "counts.intervals[0].upstream", "1 counts for 2 sizes"),
        ("counts/intervals/0/downstream", [-1, 2], "counts.intervals[0].downstream", "no count"),
        ("counts/sizes_um", [20, 10], "counts.sizes_um[1]", "in order"),
        ("counts/blank/upstream", [1, 2, 3], "counts.blank.upstream", "3 counts for 2 sizes"),
        ("counts/intervals", [], "counts", "counts no particles"),
        ("counts/terminal_ratio", 0, "counts.terminal_ratio", "above 1"),
        ("counts/dusst", "A3", "counts.dusst", "did you mean 'dust'"),
        ("counts/scale", "micron", "counts.scale", "'unnamed'"),
        ("flow_bench/0/rows/0/flow_l_min", 0, "flow_bench[0].rows[0].flow_l_min", "above zero"),
        ("flow_bench/0/rows", [], "flow_bench[0].rows", "row by row"),
        ("flow_bench/0/rows/0/temprature_c", 5, "flow_bench[0].rows[0].temprature_c", "did you mean 'temperature_c'"),
        ("bypass_bench/rows/0/pressure_kpa", -1, "bypass_bench.rows[0].pressure_kpa", "at least zero"),
        ("photographs/0/file", "/etc/passwd", "photographs[0].file", "inside the study"),
        ("photographs/0/file", "../3.jpg", "photographs[0].file", "inside the study"),
        ("photographs/0/sha256", "xyz", "photographs[0].sha256", "64 hexadecimal"),
        ("photographs/0/scale/length", "50", "photographs[0].scale.length", "no unit"),
        ("stated_collapse_kpa", -1, "stated_collapse_kpa", "above zero"),
        ("service/removed_on", "2026-01-05", "service.removed_on", "before 2026-03-02"),
        ("service/drained_hott", True, "service.drained_hott", "did you mean 'drained_hot'"),
        ("weighings/0/rows/1/after_min", 20, "weighings[0].rows[1].after_min", "in order"),
        ("weighings/0/rows/1/mass", "4 mm", "weighings[0].rows[1].mass", "measures length"),
        ("captured/new", ["95.7"], "captured.new[0]", "no unit"),
        ("strip/inspected_area", "98 mm", "strip.inspected_area", "measures length"),
        ("findings/0/along", "far", "findings[0].along", "not a number"),
        ("findings/1/photograph", "photographs/4.jpg", "findings[1].photograph", "did you mean 'photographs/3.jpg'"),
        ("findings/1/kind", "wornn", "findings[1].kind", "'worn'"),
        ("openings/0/readings/length", ["8 g"], "openings[0].readings.length[0]", "measures mass"),
        ("bypass_state/state", "open", "bypass_state.state", "'jammed_open'"),
        ("bypass/opening_at", 0, "bypass.opening_at", "above zero"),
        (
            "holes/centre_tube/0/readings/diameter/0/hole",
            0,
            "holes.centre_tube[0].readings.diameter[0].hole",
            "whole number from 1",
        ),
        ("readings/can.mass/1/instrument", "fine balanc", "readings.can.mass[1].instrument", "did you mean 'fine balance'"),
    ],
)
def test_impossible_evidence_names_the_place_and_the_mend(path, value, place, says):
    error = refused(put(everything(), f"{SAMPLE}/{path}", value))
    assert error.path == f"samples[0].{place}"
    assert says in error.message


@pytest.mark.parametrize(
    ("change", "place", "says"),
    [
        (("uses/0/criteria/0/measure", "media_efective_area_cm2"), "uses[0].criteria[0].measure", "did you mean"),
        (("uses/0/criteria/0/weight", -1), "uses[0].criteria[0].weight", "at least zero"),
        (("uses/0/criteria/0/order", [["Pellin"]]), "uses[0].criteria[0].order", "made by hand"),
        (("uses/0/criteria/3/order", [["Pelin"]]), "uses[0].criteria[3].order", "did you mean 'Pellin'"),
        (("uses/0/criteria/3/order", [["Pellin"], ["Pellin"]]), "uses[0].criteria[3].order", "two places"),
        (("uses/0/requirements/0/at_least", None), "uses[0].requirements[0]", "asks for nothing"),
        (("uses/0/requirements/2/measure", "tube.bur_side"), "uses[0].requirements[2].measure", "did you mean"),
        (("uses/0/verdicts/0/sample", "nobody"), "uses[0].verdicts[0].sample", "no label"),
        (("uses/0/verdicts/0/verdict", "fits"), "uses[0].verdicts[0].verdict", "'meets'"),
        (("uses/0/speed_rpm", 0), "uses[0].speed_rpm", "above zero"),
    ],
)
def test_impossible_uses_name_the_place_and_the_mend(change, place, says):
    whole = everything()
    error = refused(changed(("uses", whole["uses"]), change))
    assert error.path == place
    assert says in error.message


def numbers_in(value, path=""):
    """Return the path of every number of a document, but those that count what is listed."""
    if isinstance(value, dict):
        return [found for key, item in value.items() for found in numbers_in(item, f"{path}/{key}" if path else key)]
    if isinstance(value, list):
        return [found for i, item in enumerate(value) for found in numbers_in(item, f"{path}/{i}")]
    return [path] if isinstance(value, int | float) and not isinstance(value, bool) else []


NUMBERS = [path for path in numbers_in(everything()) if not re.search(r"(^|/)version$|^history|^library|/marks/", path)]


def test_every_number_of_a_study_has_limits():
    """A speed of 1e308 rpm was once taken, and then nothing of the study could be computed."""
    named = {path.rsplit("/", 1)[1] for path in NUMBERS if not path.rsplit("/", 1)[1].isdigit()}
    assert {key.rpartition(".")[2] for key in PHYSICAL_LIMITS} - named == set()
    for path in NUMBERS:
        for value in (10**300, -(10**300)):
            words = str(refused(put(everything(), path, value)))
            assert re.search(r"1e\+300|whole number|no count|below 100", words), (path, words)

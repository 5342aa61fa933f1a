"""Results that stay: read where nothing changed, computed anew after every kind of change."""

from __future__ import annotations

import json
import sqlite3

import numpy as np
import pytest

from api_steps import imported
from builders import plain_document
from tabrel.api.study import studies
from tabrel.core.circuit.operating_point import operating_point
from tabrel.core.maps import behaviour as behaviours
from tabrel.core.maps.operating_map import operating_map
from tabrel.document.study_document import read_study
from tabrel.store.sample import stored_results as stored

ANY = {"If-Match": "*"}
LISTS = ("results", "behaviour")


@pytest.fixture
def counted(monkeypatch):
    """Count what is computed."""
    done = []
    for name in ("_summary", "_behaviour"):
        plain = getattr(studies, name)
        monkeypatch.setattr(studies, name, lambda *args, plain=plain, name=name: (done.append(name), plain(*args))[1])
    return done


@pytest.fixture
def two(client):
    document = plain_document()
    document["samples"].append({**document["samples"][0], "label": "other"})
    return imported(client, document)


def lists(client, study):
    answers = [client.get(f"/api/studies/{study['id']}/{name}") for name in LISTS]
    assert [answer.status_code for answer in answers] == [200, 200]
    return [answer.json() for answer in answers]


def computed_afresh(client, study):
    conn = sqlite3.connect(client.app.state.service.database)
    conn.execute("DELETE FROM stored_result")
    conn.commit()
    conn.close()
    return lists(client, study)


def test_what_is_known_is_computed_once(client, two, counted):
    first = lists(client, two)
    assert sorted(counted) == ["_behaviour"] * 2 + ["_summary"] * 2
    assert lists(client, two) == first
    assert len(counted) == 4


CHANGES = {
    "a reading": ("POST", "/api/samples/{sample}/readings", {"key": "media.strip_length", "text": "1.9 m"}),
    "an observation": ("PUT", "/api/samples/{sample}/observations/media.family", {"text": "synthetic"}),
    "holes": ("POST", "/api/samples/{sample}/holes", {"placement": "inlet", "text": "3 x 5.6 mm"}),
    "a claim": ("POST", "/api/samples/{sample}/claims", {"wording": "95 % at 20 µm(c)", "source": "box"}),
    "the place of the valve": ("PUT", "/api/samples/{sample}/observations/bypass.location", {"text": "at the thread end"}),
    "counts": ("PUT", "/api/samples/{sample}/counts", {"text": "size um(c),up,down\n4,9000,8000\n10,4000,900\n20,900,12\n"}),
    "the label": ("PUT", "/api/samples/{sample}/details/sample.label", {"text": "renamed"}),
    "the engine": ("PUT", "/api/samples/{sample}/details/engine.gallery", {"text": "300 kPa"}),
    "the stud": ("PUT", "/api/samples/{sample}/details/engine.stud_bore", {"text": "11 mm"}),
    "the oil": ("PUT", "/api/samples/{sample}/oil", {"grade": "0W-20"}),
    "the pumping limit": ("PUT", "/api/samples/{sample}/details/oil.pumping_limit", {"text": "-20 °C"}),
}
OF_STUDY = {"the engine", "the stud", "the oil", "the pumping limit"}


@pytest.mark.parametrize("change", CHANGES)
def test_nothing_is_read_after_what_it_rests_on_has_changed(client, two, counted, change):
    """Of the sample: its results. Of engine and oil: those of all samples."""
    sample = two["samples"][0]["id"]
    before = lists(client, two)
    method, path, body = CHANGES[change]
    for act in (
        lambda: client.request(method, path.format(sample=sample), json=body, headers=ANY),
        lambda: client.post(f"/api/samples/{sample}/undo", json={}),
        lambda: client.post(f"/api/samples/{sample}/redo", json={}),
    ):
        counted.clear()
        answer = act()
        assert answer.status_code < 300, answer.text
        now = lists(client, two)
        assert len(counted) == (4 if change in OF_STUDY else 2)
        assert now == computed_afresh(client, two)
        if change not in OF_STUDY:
            assert [item[1] for item in now] == [item[1] for item in before]
    if change not in ("a claim", "the label"):
        assert now != before


def test_another_method_computes_everything_anew(client, two, counted, monkeypatch):
    lists(client, two)
    monkeypatch.setattr(stored, "method_version", lambda: "another")
    lists(client, two)
    assert len(counted) == 8


def test_the_version_of_the_method_is_that_of_what_computes(monkeypatch):
    now = stored.method_version()
    assert len(now) == 16
    stored.method_version.cache_clear()
    plain = stored._sources
    monkeypatch.setattr(stored, "_sources", lambda folder, name: [(n, c + b"#") for n, c in plain(folder, name)])
    assert stored.method_version() != now
    stored.method_version.cache_clear()


def test_what_changes_while_it_is_computed_is_not_kept(client, two, counted, monkeypatch):
    sample = two["samples"][0]["id"]
    plain, words = studies._summary, []

    def slowly(study, value):
        if not words:
            words.append(client.post(f"/api/samples/{sample}/readings", json={"key": "media.strip_length", "text": "1.9 m"}))
        return plain(study, value)

    monkeypatch.setattr(studies, "_summary", slowly)
    old = client.get(f"/api/studies/{two['id']}/results").json()
    now = client.get(f"/api/studies/{two['id']}/results").json()
    assert now[0] != old[0]
    assert now == computed_afresh(client, two)[0]


def test_a_filter_of_which_nothing_is_known_says_so_and_is_kept_too(client, blank, counted):
    study = client.get(f"/api/samples/{blank}").json()["study_id"]
    for _ in range(2):
        [known] = client.get(f"/api/studies/{study}/behaviour").json()
        assert known["element_greatest_kpa"] is None
        assert "media.thickness" in known["missing"]
    assert counted == ["_behaviour"]


def test_the_greatest_pressure_is_that_of_the_map_and_a_stuck_valve_makes_it_no_less():
    study = read_study(json.dumps(plain_document()))
    result = behaviours.behaviour(study, study.samples[0])
    point = operating_point(study, study.samples[0])
    speeds = behaviours.SPEEDS.tolist()
    temperatures = np.linspace(result.coldest_pumping, 140.0, 60).tolist()
    steady = operating_map(point, temperatures, speeds).quantity("element_pressure")
    assert result.element_greatest >= 0.999 * np.nanmax(steady)
    assert result.element_greatest_stuck >= result.element_greatest
    corner = operating_map(point, [result.coldest_pumping], [speeds[-1]]).quantity("element_pressure")
    assert result.element_greatest_stuck >= corner[0, 0]

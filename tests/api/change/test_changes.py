"""A change answers with what is different, and names every other address whose answer is: nothing else is fetched again."""

from __future__ import annotations

import json
import random
import re

import pytest

from api_steps import ADDRESSES, detail, done, field, imported, overwrite
from builders import everything
from tabrel.api.change.models import SheetChangesOut
from tabrel.api.sample.models import SheetOut
from tabrel.api.stale import COMPUTED_OF_SAMPLE, COMPUTED_OF_STUDY, STALE_HEADER

STEPS = {
    "a reading": ("POST", "samples/{0}/readings", {"key": "media.strip_length", "text": "1.7 m"}),
    "an odd reading": ("POST", "samples/{0}/readings", {"key": "can.wall_thickness", "text": "4.7 mm"}),
    "the can": ("POST", "samples/{0}/readings", {"key": "can.height", "text": "98 mm"}),
    "a state": ("PUT", "samples/{0}/states/gasket.mass", {"state": "lost"}),
    "holes": ("POST", "samples/{0}/holes", {"text": "3 x 5 mm"}),
    "an observation": ("PUT", "samples/{0}/observations/bypass.location", {"text": "there is none"}),
    "a claim": ("POST", "samples/{0}/claims", {"source": "box", "wording": "99 % at 20 µm(c)"}),
    "a label": ("PUT", "samples/{0}/details/sample.label", {"text": "renamed"}),
    "an expectation": ("PUT", "samples/{0}/details/sample.expectation", {"text": "thin steel"}),
    "counts": ("PUT", "samples/{0}/counts", {"text": "size um(c),upstream,downstream\n4,9000,8000\n10,4000,900\n20,900,12\n"}),
    "a condition of the test": ("PUT", "samples/{0}/details/test.flow_l_min", {"text": "28 L/min"}),
    "the stud": ("PUT", "samples/{0}/details/engine.stud_bore", {"text": "11 mm"}),
    "the plan": ("PUT", "samples/{0}/details/plan.start_c", {"text": "-10 °C"}),
    "the study's name": ("PUT", "samples/{0}/details/study.name", {"text": "another name"}),
    "the oil": ("PUT", "samples/{0}/oil", {"grade": "0W-20"}),
    "an engine": ("PUT", "samples/{0}/engine", {"name": "work diesel, 5.7 L"}),
    "undo": ("POST", "samples/{0}/undo", {}),
    "a saved engine": ("POST", "samples/{0}/engine/save", {}),
    "a scenario": ("POST", "studies/{1}/scenarios", {"name": "thin", "oil_grade": "0W-20"}),
    "a duty cycle": ("POST", "studies/{1}/duty-cycles", {"name": "round", "csv": "time_s,speed_rpm\n0,900\n60,1500\n"}),
    "a sample": ("POST", "studies/{1}/samples", {"text": "another"}),
    "arithmetic": ("POST", "studies/{1}/arithmetic", {"text": "inlet: 8 holes 0.24 in = 0.362 in2"}),
    "the report": ("PUT", "studies/{1}/report", {"plan": {"title": "another"}, "seen": everything()["report"]}),
    "readings from a table": ("POST", "studies/{1}/readings-table", {"text": "filter\tcan mass [g]\nsecond\t120\nthird\t90\n"}),
    "a use": ("POST", "studies/{1}/uses", {"preset": "towing"}),
}
"""Every kind of change: method, address, body; sample and study go in."""

ASKED = {
    "filter-alone": {},
    "sensitivity": {"condition": "steady", "quantity": "element_pressure", "speed_rpm": 2000},
    "comparison": {"temperature_c": -20, "speed_rpm": 1500},
    "warm-up": {},
}
"""Requests to addresses that compute; map and slices take long, and rest on the same inputs as sensitivity."""

PATHS = sorted({path for _, path in ADDRESSES.values()})


def answers(client, study, samples):
    """Return every answer about a study and its samples, by address."""
    looked = {}
    use = client.get(f"/api/studies/{study}/uses").json()["uses"][0]["id"]
    for path in PATHS:
        name = path.rpartition("/")[2]
        if (path.startswith("/api/samples/{sample_id}") and not name.startswith("{")) or path.endswith("/working/{name}"):
            looked |= {path.format(sample_id=sample, name="media_effective_area"): name for sample in samples}
        elif path.startswith("/api/studies") and not name.startswith(("{sample", "{ending")):
            looked[path.format(study_id=study, use_id=use)] = name
    collected = {}
    for address, name in looked.items():
        if name in ("map", "slices", "bench-sheets", "part-labels"):
            continue
        answer = client.post(address, json=ASKED[name]) if name in ASKED else client.get(address)
        if answer.status_code != 405:
            collected[address] = _without_turn(answer.json())
    return collected


def _without_turn(answer):
    """Leave out what says only how often the study was changed, and how long something took."""
    apart = {"revision", "revisions", "oil_revision", "seconds"}
    if isinstance(answer, dict):
        return {key: _without_turn(value) for key, value in answer.items() if key not in apart}
    return [_without_turn(item) for item in answer] if isinstance(answer, list) else answer


def covers(name, address):
    steps, path = name.split("/"), address.split("/")
    if steps[-1] == "*":
        return len(path) >= len(steps) and all(step in ("*", two) for step, two in zip(steps[:-1], path, strict=False))
    return len(steps) == len(path) and all(step in ("*", two) for step, two in zip(steps, path, strict=True))


@pytest.fixture
def two(client):
    """A study of two samples: its id and theirs."""
    document = everything()
    document["samples"].append({**document["samples"][0], "label": "second"})
    opened = imported(client, document)
    samples = [item["id"] for item in opened["samples"]]
    done(detail(client, samples[0], "engine.name", "yard engine"))  # for an engine to be saved, and something to undo
    return opened["id"], samples


@pytest.mark.parametrize("group", range(4))
def test_whatever_a_change_makes_stale_is_named_or_comes_with_the_answer(client, two, group):
    """One change after the other; what every address answers is compared before and after."""
    study, samples = two
    own = f"/api/samples/{samples[0]}"
    before = answers(client, study, samples)
    for step in list(STEPS)[group::4]:
        since = client.get(own).json()["revision"]
        method, path, body = STEPS[step]
        address = f"/api/{path.format(samples[0], study)}?since={since}&figures=true"
        answer = client.request(method, address, json=body, headers={"If-Match": "*"})
        assert answer.status_code < 300, answer.text
        came = {own, f"{own}/figures"} if path.startswith("samples/{0}") else set()
        if step == "a scenario":
            came.add(f"/api/studies/{study}/scenarios")  # it is the answer
        elif came and answer.json().get("study"):
            came.add(f"/api/studies/{study}")
        named = answer.headers[STALE_HEADER].split(", ")
        after = answers(client, study, samples)
        stale = {item for item in before if before[item] != after[item]}
        assert {item for item in stale if not any(covers(name, item) for name in named)} <= came, step
        assert own not in named or own not in came, step  # the bench needs no second request
        if step in ("a reading", "an observation", "an expectation"):
            assert not any(covers(name, f"/api/samples/{samples[1]}/map") for name in named)  # the other one stays as it is
        before = after


def applied(sheet, changes):
    """Return what a window makes of a sheet and its changes."""
    fields = {item["key"]: item for item in changes.pop("fields")}
    seen = {item["key"]: item for item in changes.pop("observations")}
    parts = [
        part
        | {"fields": [fields.get(item["key"], item) for item in part["fields"]]}
        | {"observations": [seen.get(item["key"], item) for item in part["observations"]]}
        for part in sheet["parts"]
    ]
    return sheet | {"parts": parts} | changes


@pytest.mark.parametrize("seed", range(3))
def test_the_differences_make_the_sheet_that_is_there(client, two, seed):
    """Any sequence of changes, each answered with the difference from the sheet before it."""
    study, samples = two
    sheet = client.get(f"/api/samples/{samples[0]}").json()
    chosen = random.Random(seed)
    for name in chosen.choices(
        [item for item, (_, path, _) in STEPS.items() if path.startswith("samples/{0}") and "save" not in path], k=12
    ):
        method, path, body = STEPS[name]
        address = f"/api/{path.format(samples[0], study)}?since={sheet['revision']}"
        answer = client.request(method, address, json=body, headers={"If-Match": "*"})
        if answer.status_code == 409:
            continue  # nothing to undo
        assert answer.status_code < 300, answer.text
        assert answer.json()["sheet"] is None
        if name in ("a reading", "an expectation"):
            assert len(answer.content) < len(json.dumps(sheet)) / 4
        sheet = applied(sheet, answer.json()["changes"])
        assert sheet == client.get(f"/api/samples/{samples[0]}").json()


def test_who_has_a_sheet_that_is_not_remembered_gets_it_whole(client, sample):
    body = {"key": "can.height", "text": "98 mm"}
    answer = client.post(f"/api/samples/{sample}/readings?since=77", json=body).json()
    assert answer["changes"] is None
    assert field(answer["sheet"], "can.height")["readings"][-1]["text"] == "98 mm"


def test_what_others_changed_meanwhile_comes_along_and_makes_everything_stale(client, two):
    study, (first, second) = two
    since = client.get(f"/api/samples/{first}").json()["revision"]
    done(detail(client, second, "engine.stud_bore", "11 mm"))  # elsewhere
    answer = overwrite(client, "PUT", f"/api/samples/{first}/details/sample.seller?since={since}", {"text": "a shop"})
    assert answer.json()["changes"]["details"]["engine.stud_bore"] == "11 mm"
    named = answer.headers[STALE_HEADER].split(", ")
    assert {f"/api/samples/{second}", f"/api/samples/{second}/*", f"/api/studies/{study}"} <= set(named)


def test_undoing_what_concerns_the_study_makes_every_sheet_stale(client, two):
    """A duty cycle is on no sheet, but what the other sample would undo is."""
    study, (first, second) = two
    client.post(f"/api/studies/{study}/duty-cycles", json={"name": "round", "csv": "time_s,speed_rpm\n0,900\n60,1500\n"})
    sheet = client.get(f"/api/samples/{first}").json()
    other = client.get(f"/api/samples/{second}").json()["undo"]
    answer = client.post(f"/api/samples/{first}/undo?since={sheet['revision']}", json={})
    assert answer.json()["words"] == "duty cycle round"
    assert client.get(f"/api/samples/{second}").json()["undo"] != other
    assert f"/api/samples/{second}" in answer.headers[STALE_HEADER].split(", ")


def test_every_address_that_computes_is_known_to_go_stale():
    """A new resource beneath a sample or a study must be named, or be known to stay as it is."""
    stays = {
        "kept",
        "status",
        "duplicates",
        "confirmations",
        "offers",
        "rules",
        "readings",
        "holes",
        "echo",
        "claims",
        "cut",
        "oil",
        "undo",
        "redo",
        "preview",
        "issue",
        "save",
    }
    stays |= {"samples", "scenarios", "duty-cycles", "others", "readings-table"}
    for path in PATHS:
        owner, _, rest = path.removeprefix("/api/").partition("_id}/")
        known = {"samples/{sample": COMPUTED_OF_SAMPLE, "studies/{study": COMPUTED_OF_STUDY}.get(owner)
        if known and rest and "{key}" not in rest:
            assert re.sub(r"{(name|use_id|sample_id|ending)}", "*", rest) in known or rest.rpartition("/")[2] in stays, path


def test_every_member_of_a_sheet_can_be_told_as_a_change():
    """One that could not would stay as it was in the window that made the change."""
    assert SheetOut.model_fields.keys() - {"id", "study_id"} <= SheetChangesOut.model_fields.keys()

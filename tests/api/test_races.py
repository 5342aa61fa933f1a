"""Twenty windows at once: what is decided holds when it is written; one wins, the others are told, nothing is lost."""

from __future__ import annotations

import sqlite3
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from threading import Barrier

import pytest

from api_steps import add, detail, done, field, overwrite, revision
from tabrel.store import connection

WINDOWS = 20


def at_once(client, requests):
    """Send all requests in one moment and return the answers in their order; all have seen revision 0, if nothing is said."""
    barrier = Barrier(len(requests))

    def send(value):
        path, body, method, seen = (*value, "POST", 0)[:4] if len(value) < 4 else value
        barrier.wait()
        return overwrite(client, method, path, body, seen)

    with ThreadPoolExecutor(len(requests)) as windows:
        return list(windows.map(send, requests))


def one_wins(answers, won, value, words):
    assert Counter(answer.status_code for answer in answers) == {won: 1, value: WINDOWS - 1}
    for answer in answers:
        assert answer.status_code == won or words in answer.json()["detail"]


def test_every_group_of_holes_gets_a_place_of_its_own(client, blank):
    path = f"/api/samples/{blank}/holes"
    answers = at_once(client, [(path, {"placement": "inlet", "text": f"{count} x 5 mm"}) for count in range(1, WINDOWS + 1)])
    assert {answer.status_code for answer in answers} == {201}
    groups = [part["hole_group"] for part in client.get(f"/api/samples/{blank}").json()["parts"] if part["hole_group"]]
    assert sorted(group["position"] for group in groups) == list(range(WINDOWS))
    assert sorted(group["count"] for group in groups) == list(range(1, WINDOWS + 1))


@pytest.mark.parametrize("key", ["sample.seller", "engine.gallery", "study.question"])
def test_of_conflicting_details_one_is_taken(client, blank, key):
    bodies = [{"text": f"{300 + i} kPa"} for i in range(WINDOWS)]
    answers = at_once(client, [(f"/api/samples/{blank}/details/{key}", body, "PUT", 0) for body in bodies])
    one_wins(answers, 200, 412, "another window has set")
    [taken] = [body["text"] for body, answer in zip(bodies, answers, strict=True) if answer.status_code == 200]
    assert client.get(f"/api/samples/{blank}").json()["details"][key] == taken


def test_details_of_different_fields_do_not_lose_each_other(client, blank):
    texts = {
        "engine.stud_bore": "13 mm", "engine.pump_displacement": "15 cm³/rev", "engine.regulator_opening": "450 kPa",
        "engine.cooler_loss": "20 kPa", "engine.head_loss": "9 kPa", "engine.gallery": "330 kPa", "engine.safety": "1100 kPa",
        "study.question": "which?", "study.intended_uses": "daily", "study.price_class": "middle", "sample.seller": "a shop",
        "sample.maker": "Aldan", "sample.part_number": "A 1", "sample.origin": "not printed", "plan.start_c": "-20 °C",
        "plan.sump_volume_l": "5 L", "engine.adapter_wall": "4 mm", "engine.stud_length": "20 mm", "media.air_drop": "90 Pa",
        "media.capacity": "12 g",
    }  # fmt: skip
    done(detail(client, blank, "engine.stud_bore", "12 mm"))
    seen = done(detail(client, blank, "engine.adapter_holes", "6 x 6 mm"))["revisions"]
    path = f"/api/samples/{blank}/details"
    asked = [(f"{path}/{key}", {"text": text}, "PUT", seen.get(f"details/{key}", 0)) for key, text in texts.items()]
    answers = at_once(client, asked)
    assert [answer.json().get("detail") for answer in answers if answer.status_code != 200] == []
    stored = client.get(f"/api/samples/{blank}").json()["details"]
    assert {key: stored.get(key) for key in texts} == texts


def test_a_reading_is_set_aside_once(client, blank):
    row = field(add(client, blank, "can.height", "98 mm"), "can.height")["readings"][0]["id"]
    path, seen = f"/api/readings/{row}/set-aside", revision(client, blank, f"readings/{row}")
    answers = at_once(client, [(path, {"reason": f"reason {i}"}, "POST", seen) for i in range(WINDOWS)])
    one_wins(answers, 200, 412, "another window has set 98 mm aside")


def test_a_reading_is_corrected_once(client, blank):
    row = field(add(client, blank, "can.height", "980 mm"), "can.height")["readings"][0]["id"]
    asked = (f"/api/readings/{row}/correct", {"text": "98 mm"}, "POST", revision(client, blank, f"readings/{row}"))
    answers = at_once(client, [asked] * WINDOWS)
    one_wins(answers, 200, 412, "another window has set 980 mm aside")
    assert len(field(client.get(f"/api/samples/{blank}").json(), "can.height")["readings"]) == 2


def test_a_filter_is_cut_once(client, blank):
    answers = at_once(client, [(f"/api/samples/{blank}/cut", {"method": f"saw {i}"}) for i in range(WINDOWS)])
    one_wins(answers, 200, 422, "was cut already (saw")


def test_a_label_names_one_sample(client, study):
    path = f"/api/studies/{study['id']}/samples"
    one_wins(
        at_once(client, [(path, {"text": "twin"}) for _ in range(WINDOWS)]), 201, 422, "names a sample of this study already"
    )


def test_of_conflicting_tables_of_counts_one_is_taken_whole(client, blank):
    head = "scale,um(c)\nvolume,10 mL\ndilution,1\nsize,upstream,downstream\n"
    tables = [{"text": head + f"4,{900 + i},{800 + i}\n10,{400 + i},{90 + i}\n20,{90 + i},{i}\n"} for i in range(WINDOWS)]
    answers = at_once(client, [(f"/api/samples/{blank}/counts", table, "PUT", 0) for table in tables])
    one_wins(answers, 200, 412, "another window has changed the counts")
    [won] = [i for i, answer in enumerate(answers) if answer.status_code == 200]
    [interval] = client.get("/api/studies/1/document").json()["samples"][0]["counts"]["intervals"]
    assert interval == {"upstream": [900 + won, 400 + won, 90 + won], "downstream": [800 + won, 90 + won, won]}


def test_a_rule_of_date_codes_is_stated_once_and_removed_once(client, blank):
    assert detail(client, blank, "sample.date_code", "2118").status_code == 200
    rules = [(f"/api/samples/{blank}/date-code/rules", {"name": "year and week", "pattern": "{YY}{WW}"})] * WINDOWS
    one_wins(at_once(client, rules), 201, 409, "year and week")
    (rule,) = client.get(f"/api/samples/{blank}/date-code").json()["rules"]
    gone = at_once(client, [(f"/api/date-code-rules/{rule['id']}", {}, "DELETE")] * WINDOWS)
    assert Counter(answer.status_code for answer in gone) == {200: 1, 404: WINDOWS - 1}


def test_a_group_of_holes_is_changed_by_one(client, sample):
    sheet = client.get(f"/api/samples/{sample}").json()
    group = next(part["hole_group"]["id"] for part in sheet["parts"] if part["key"] == "holes.inlet[0]")
    bodies = [{"shape": "round", "count": 20 + i} for i in range(WINDOWS)]
    answers = at_once(client, [(f"/api/holes/{group}", body, "PUT", 0) for body in bodies])
    one_wins(answers, 200, 412, "another window")


def test_every_undo_takes_back_one_change(client, blank):
    for i in range(WINDOWS):
        add(client, blank, "can.height", f"{90 + i} mm")
    answers = at_once(client, [(f"/api/samples/{blank}/undo", {})] * WINDOWS)
    assert {answer.status_code for answer in answers} == {200}
    assert len({answer.json()["words"] for answer in answers}) == WINDOWS
    assert field(client.get(f"/api/samples/{blank}").json(), "can.height")["readings"] == []


def test_what_waits_too_long_is_told_to_come_again(client, blank, monkeypatch):
    monkeypatch.setattr(connection, "BUSY_SECONDS", 0.05)
    other = sqlite3.connect(client.app.state.service.database, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    body = {"key": "can.height", "text": "98 mm"}
    answer = client.post(f"/api/samples/{blank}/readings", json=body)
    assert (answer.status_code, answer.headers["Retry-After"]) == (503, "1")
    assert "busy" in answer.json()["detail"]
    assert client.get(f"/api/samples/{blank}").status_code == 200  # reading goes on
    other.execute("ROLLBACK")
    other.close()
    assert client.post(f"/api/samples/{blank}/readings", json=body).status_code == 201

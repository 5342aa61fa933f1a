"""Undo and redo over the whole bench."""

from __future__ import annotations

from api_steps import detail, done, overwrite, refused


def test_undo_and_redo_run_over_the_whole_bench(client, blank):
    steps = [
        ("POST", "readings", {"key": "can.height", "text": "98 mm"}),
        ("POST", "holes", {"text": "8 x 6 mm"}),
        ("PUT", "details/sample.maker", {"text": "somebody"}),
        ("PUT", "observations/can.grip", {"text": "fluted"}),
        ("POST", "claims", {"source": "box", "wording": "99 % at 20 µm(c)"}),
        ("PUT", "details/engine.stud_bore", {"text": "13 mm"}),
        ("POST", "cut", {"method": "lathe"}),
    ]
    sheets = [client.get(f"/api/samples/{blank}").json()]
    sheets += [done(overwrite(client, method, f"/api/samples/{blank}/{path}", body)) for method, path, body in steps]

    def same(first, second):
        apart = ("undo", "redo", "revision", "revisions")
        return {k: v for k, v in first.items() if k not in apart} == {k: v for k, v in second.items() if k not in apart}

    for expected in reversed(sheets[:-1]):
        assert same(client.post(f"/api/samples/{blank}/undo", json={}).json()["sheet"], expected)
    refused(client.post(f"/api/samples/{blank}/undo", json={}), 409, "", "nothing to undo")
    for expected in sheets[1:]:
        assert same(client.post(f"/api/samples/{blank}/redo", json={}).json()["sheet"], expected)
    refused(client.post(f"/api/samples/{blank}/redo", json={}), 409, "", "nothing to redo")


def test_a_new_sample_can_be_undone_and_the_others_stay(client, sample):
    study_id = client.get(f"/api/samples/{sample}").json()["study_id"]
    added = done(client.post(f"/api/studies/{study_id}/samples", json={"text": " second "}))
    assert added["label"] == "second"
    refused(client.post(f"/api/studies/{study_id}/samples", json={"text": "second"}), 422, "label", "already")
    refused(client.post(f"/api/studies/{study_id}/samples", json={"text": " "}), 422, "label", "empty")
    assert client.post("/api/studies/99/samples", json={"text": "x"}).status_code == 404
    back = client.post(f"/api/samples/{added['id']}/undo", json={}).json()
    assert back["sheet"] is None
    assert [item["id"] for item in client.get(f"/api/studies/{study_id}").json()["samples"]] == [sample]


def test_an_undo_that_something_else_depends_on_is_refused_with_words(client, sample):
    study_id = client.get(f"/api/samples/{sample}").json()["study_id"]
    done(detail(client, sample, "sample.label", "renamed"))
    client.post(f"/api/studies/{study_id}/samples", json={"text": "Pellin"})
    refused(client.post(f"/api/samples/{sample}/undo", json={}), 409, "", "depends on it")
    assert client.get(f"/api/samples/{sample}").json()["label"] == "renamed"


def test_undo_takes_back_only_what_its_own_window_did_unless_it_is_said(client, blank):
    def window(name, path, **body):
        return client.post(f"/api/samples/{blank}/{path}", json=body, headers={"Tabrel-Window": name})

    window("left", "readings", key="can.height", text="98 mm")
    sheet = done(window("right", "readings", key="can.height", text="99 mm"))
    assert (sheet["undo"]["words"], sheet["undo"]["is_own"]) == ("Can, height: 99 mm", True)
    refused(window("left", "undo"), 409, "", "“Can, height: 99 mm” was done in another window")
    seen = client.get(f"/api/samples/{blank}", headers={"Tabrel-Window": "left"}).json()["undo"]
    assert seen["is_own"] is False
    assert window("left", "undo", change_id=seen["change_id"], of_another_window=True).json()["words"] == "Can, height: 99 mm"
    refused(window("left", "undo", change_id=seen["change_id"]), 409, "", "something else was done meanwhile")
    refused(window("left", "redo"), 409, "", "was done in another window")
    assert window("left", "undo").json()["words"] == "Can, height: 98 mm"  # its own
    assert window("left", "redo").json()["words"] == "Can, height: 98 mm"
    assert window("right", "redo").json()["words"] == "Can, height: 99 mm"
    assert window("not an id!", "undo").status_code == 422

"""Oil, engine and engine library through the API."""

from __future__ import annotations

from api_steps import detail, details, done, overwrite, revision, says, undo
from builders import changed


def put_oil(client, sample, body, seen="*"):
    return overwrite(client, "PUT", f"/api/samples/{sample}/oil", body, seen)


def take_engine(client, sample, body, seen="*"):
    return overwrite(client, "PUT", f"/api/samples/{sample}/engine", body, seen)


def test_engine_numbers_are_typed_undone_and_refused_in_one_sentence(client, first):
    assert details(client, first)["engine.gallery"] == "340 kPa"
    changed_sheet = done(detail(client, first, "engine.gallery", "51 psi", seen=0))
    assert changed_sheet["details"]["engine.gallery"] == "51 psi"
    shown = changed_sheet["detail_numbers"]["engine.gallery"]
    assert (shown["metric"], shown["inch"], shown["is_typed"]) == ("351.633 kPa", "51 psi", True)
    assert changed_sheet["undo"]["words"].startswith("hot gallery pressure")
    undo(client, first)
    assert details(client, first)["engine.gallery"] == "340 kPa"
    says(detail(client, first, "engine.gallery", "500 kPa"), 422, "regulator opens at 480 kPa")
    says(detail(client, first, "engine.gallery_speed", "100"), 422, "cannot reach 340 kPa")
    says(detail(client, first, "engine.regulator_sense", "sump"), 422, "one of pump, gallery")
    says(detail(client, first, "engine.gallery", "high"), 422, "type the hot gallery pressure like")
    says(detail(client, first, "engine.gallery", "345", seen=0), 412, "another window")
    assert details(client, first)["engine.gallery"] == "340 kPa"


def test_an_old_fault_does_not_bar_a_new_number(client):
    document = changed(("circuit/regulator/opening_kpa", 300))
    sample = client.post("/api/studies", json=document).json()["samples"][0]["id"]
    assert "hot gallery pressure" in client.get(f"/api/samples/{sample}/engine").json()["problem"]
    assert client.post(f"/api/samples/{sample}/map", json={}).json()["where"] == "circuit.regulator.opening_kpa"
    assert detail(client, sample, "engine.pump_displacement", "15 cm³/rev").status_code == 200
    assert detail(client, sample, "engine.regulator_opening", "480").status_code == 200
    assert client.post(f"/api/samples/{sample}/map", json={}).status_code == 200


def test_the_oil_is_a_grade_to_begin_with_and_points_after(client):
    blank = {"format": "tabrel-study", "version": 1, "name": "blank", "samples": [{"label": "A"}]}
    sample = client.post("/api/studies", json=blank).json()["samples"][0]["id"]
    engine = client.get(f"/api/samples/{sample}/engine").json()
    assert (engine["oil"], engine["hot_point"], engine["missing"]) == (None, None, ["oil"])
    assert len([item for item in engine["library"] if item["id"] is None]) == 3
    says(put_oil(client, sample, {"viscosity": []}), 422, "choose a grade")
    says(put_oil(client, sample, {"grade": "5W30"}), 422, "'5W-30'")
    sheet = done(put_oil(client, sample, {"grade": "5W-30"}, seen=0))
    assert (sheet["details"]["oil.provenance"], sheet["details"]["oil.name"]) == ("assumed", "5W-30, typical")
    line = client.get(f"/api/samples/{sample}/engine").json()["oil"]
    assert [point["high_shear"] for point in line["points"]] == [True, False, False]
    points = [{"temperature_c": 40, "kinematic_mm2_s": 60}, {"temperature_c": 100, "kinematic_mm2_s": 10}]
    put_oil(client, sample, {"viscosity": points})
    crossed = [{"temperature_c": 40, "kinematic_mm2_s": 60}, {"temperature_c": 100, "kinematic_mm2_s": 70}]
    says(put_oil(client, sample, {"viscosity": crossed}), 422, "thicker at 100 °C")
    says(client.post("/api/oil/line", json={"density_15c_kg_m3": 850, "viscosity": crossed}), 422, "thicker at 100 °C")
    assert put_oil(client, sample, {"viscosity": points}, seen=0).status_code == 200  # they are so already
    other = [points[0], {"temperature_c": 90, "kinematic_mm2_s": 12}]
    says(put_oil(client, sample, {"viscosity": other}, seen=0), 412, "another window")
    assert revision(client, sample, "oil") == 2
    rows = [{"temperature": "104 °F", "viscosity": "60 cSt"}, {"temperature": "-30", "viscosity": "5600 cP", "high_shear": True}]
    typed = put_oil(client, sample, {"rows": rows})
    assert typed.status_code == 200
    cold, warm = client.get(f"/api/samples/{sample}/engine").json()["oil"]["points"]
    assert (warm["temperature_c"], warm["stated"], warm["typed_temperature"], warm["typed_viscosity"]) == (
        40,
        60,
        "104 °F",
        "60 cSt",
    )
    assert (cold["is_dynamic"], cold["stated"], cold["typed_temperature"]) == (True, 5600, None)
    for bad, words in (
        ("5,500", "point 2: '5,500' can be read two ways"),
        ("1e400", "finite"),
        ("0", "above zero"),
        ("", "missing"),
    ):
        given = {"rows": [rows[0], {"temperature": "100", "viscosity": bad}]}
        says(put_oil(client, sample, given), 422, words)
    undo(client, sample)
    assert len(client.get(f"/api/samples/{sample}/engine").json()["oil"]["points"]) == 2
    undo(client, sample)
    assert len(client.get(f"/api/samples/{sample}/engine").json()["oil"]["points"]) == 3


def test_engines_are_saved_in_a_library_and_belong_to_no_study(client, first):
    says(client.post(f"/api/samples/{first}/engine/save", json={}), 422, "no name yet")
    detail(client, first, "engine.name", "yard engine")
    kept = client.post(f"/api/samples/{first}/engine/save", json={}).json()["library"]
    mine = next(item for item in kept if item["id"] is not None)
    assert mine["name"] == "yard engine"
    assert "hot gallery 340 kPa" in mine["metric"]
    assert "hot gallery 49.31 psi" in mine["inch"]  # 340 / 6.894757
    assert "kPa" not in mine["inch"]
    assert "mm" not in mine["inch"]
    other = {"format": "tabrel-study", "version": 1, "name": "other", "samples": [{"label": "B"}]}
    elsewhere = client.post("/api/studies", json=other).json()["samples"][0]["id"]
    assert take_engine(client, elsewhere, {"name": "yard engine"}).status_code == 200
    assert details(client, elsewhere)["engine.gallery"] == "340 kPa"
    detail(client, elsewhere, "engine.gallery", "320")
    assert details(client, first)["engine.gallery"] == "340 kPa"  # a copy of its own
    says(take_engine(client, elsewhere, {"name": "yard engin"}), 422, "'yard engine'")
    assert client.request("DELETE", f"/api/engines/{mine['id']}", json={}).status_code == 204
    assert client.request("DELETE", f"/api/engines/{mine['id']}", json={}).status_code == 404
    assert details(client, elsewhere)["engine.gallery"] == "320 kPa"
    detail(client, first, "engine.name", "service diesel, 2.2 L")
    says(client.post(f"/api/samples/{first}/engine/save", json={}), 422, "name of its own")


def test_an_engine_of_the_library_replaces_the_circuit_and_undo_restores_it(client, first):
    before = client.get(f"/api/samples/{first}").json()["details"]
    take_engine(client, first, {"name": "work diesel, 5.7 L"})
    assert details(client, first)["engine.regulator_sense"] == "gallery"
    undo(client, first)
    assert details(client, first) == before


def test_an_engine_of_the_library_shows_what_it_would_change_and_keeps_the_lines_it_is_told_to(client):
    """The stud that the analyst measured stays, and a limit that came along asks and does not refuse."""
    blank = {"format": "tabrel-study", "version": 2, "name": "blank", "samples": [{"label": "A"}]}
    sample = client.post("/api/studies", json=blank).json()["samples"][0]["id"]
    detail(client, sample, "engine.name", "yard truck")
    detail(client, sample, "engine.stud_bore", "14.5 mm")
    asked = client.post(f"/api/samples/{sample}/engine/preview", json={"name": "service diesel, 2.2 L"}).json()
    lines = {line["key"]: line for line in asked["lines"]}
    stud = lines["engine.stud_bore"]
    assert (stud["now_typed"], stud["then_metric"], stud["is_own"]) == ("14.5 mm", "13 mm", True)
    assert (lines["engine.gallery"]["now_metric"], lines["engine.gallery"]["is_own"]) == (None, False)
    assert lines["engine.gauge"]["then_metric"] == "filter inlet"  # words, not the key
    assert "engine.gallery" not in details(client, sample)
    take = {"name": "service diesel, 2.2 L", "keep": ["engine.name", "engine.stud_bore"]}
    sheet = done(take_engine(client, sample, take, seen=asked["revision"]))
    assert (sheet["details"]["engine.name"], sheet["details"]["engine.stud_bore"]) == ("yard truck", "14.5 mm")
    numbers = sheet["detail_numbers"]
    assert (numbers["engine.gallery"]["origin"], numbers["engine.stud_bore"]["origin"]) == ("library", None)
    assert (
        "outside the limits of this engine, at least 12.6 mm (0.4961 in) and at most"
        in sheet["detail_questions"]["engine.stud_bore"]
    )
    says(take_engine(client, sample, take, seen=asked["revision"]), 412, "look what would change now")
    # typed after the library: taken, asked, never refused
    assert detail(client, sample, "engine.stud_bore", "14.6 mm").status_code == 200
    assert done(detail(client, sample, "engine.greatest_stud_bore", "15 mm"))["detail_questions"] == {}
    undone = undo(client, sample)["sheet"]
    assert undone["detail_numbers"]["engine.greatest_stud_bore"]["origin"] == "library"

"""Every operation of the API answers with real ids as its schema says, and refuses anything else in one sentence."""

from __future__ import annotations

import os
import shutil

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, given, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import response_schema_conformance

from api_steps import ADDRESSES, WORKBOOK, ZIP
from builders import everything, plain_document
from tabrel.api.app import serve_database

HOST = {"Host": "127.0.0.1"}
OIL = [{"temperature_c": 40, "kinematic_mm2_s": 60}, {"temperature_c": 100, "kinematic_mm2_s": 10}]

COUNT_TABLE = "size um(c);upstream;downstream\n4;9000;8000\n10;4000;900\n20;900;12\n"

READING_TABLE = "filter\tcan mass [g]\tcan height\nA new one\t120\t98 mm\n"

VALID: dict[str, dict] = {
    "get_catalogue": {},
    "get_service": {},
    "get_backups": {},
    "get_behaviour": {},
    "post_backup": {"json": {}},
    "post_restoration": {"json": {"copy_name": "COPY"}},
    "post_verification": {"json": {"copy_name": "COPY"}},
    "delete_claim": {"json": {}},
    "post_stale": {"json": {"text": "the design changed"}},
    "delete_engine": {"json": {}},
    "post_oil_line": {
        "json": {
            "density_15c_kg_m3": 855,
            "viscosity": OIL,
            "moved": {"index": 1, "temperature_c": 95, "kinematic_mm2_s": 12},
        }
    },
    "post_confirm": {"json": {}},
    "post_correction": {"json": {"text": "98.2 mm"}},
    "get_history": {},
    "post_set_aside": {"json": {"reason": "wet"}},
    "post_use_again": {"json": {}},
    "get_sheet": {},
    "get_kept": {},
    "post_claim": {"json": {"wording": "99 % at 20 µm(c)", "source": "box", "speaker": "maker"}},
    "post_cut": {"json": {"method": "saw"}},
    "put_detail": {"json": {"text": "a shop"}, "key": "sample.seller"},
    "post_echo": {"json": {"key": "can.height", "text": "98.4"}},
    "get_engine": {},
    "post_engine_preview": {"json": {"name": "small petrol, 1.2 L"}},
    "put_engine": {"json": {"name": "small petrol, 1.2 L"}},
    "post_save_engine": {"json": {}},
    "get_figures": {},
    "get_efficiency": {},
    "get_counts": {},
    "post_preview": {"json": {"text": COUNT_TABLE}},
    "put_counts": {"json": {"text": COUNT_TABLE}},
    "delete_counts": {"json": {}},
    "post_filter_alone": {"json": {}},
    "post_holes": {"json": {"placement": "inlet", "text": "3 x 5.3 mm"}},
    "post_holes_echo": {"json": {"placement": "inlet", "text": "3 x 5.3 mm"}},
    "delete_hole_group": {"json": {}},
    "put_hole_group": {"json": {"shape": "slot", "count": 9, "open_percent": 100}},
    "post_map": {"json": {"condition": "filling"}},
    "put_observation": {"json": {"text": "fluted"}, "key": "can.grip"},
    "put_oil": {"json": {"grade": "5W-30"}},
    "post_reading": {"json": {"key": "can.height", "text": "98.4"}},
    "post_redo": {"json": {}},
    "post_sensitivity": {"json": {"condition": "steady", "quantity": "element_pressure", "speed_rpm": 2000}},
    "put_state": {"json": {"state": "lost"}, "key": "gasket.mass"},
    "post_undo": {"json": {}},
    "get_working": {"name": "inlet_hole_area"},
    "post_scenario_value": {"json": {"scenario": {"name": "x"}, "key": "stud_bore", "text": "12 mm"}},
    "delete_scenario": {"json": {}},
    "get_studies": {},
    "post_study": {"json": plain_document()},
    "get_study": {},
    "post_comparison": {"json": {"temperature_c": -20, "speed_rpm": 1500}},
    "get_same_part": {},
    "get_document": {},
    "post_duty_cycle": {"json": {"name": "round", "csv": "time_s,speed_rpm\n0,900\n60,1500\n"}},
    "post_sample": {"json": {"text": "another"}},
    "put_sample_status": {"json": {"status": "archived"}},
    "put_study_status": {"json": {"status": "archived"}},
    "get_study_results": {},
    "post_offer": {"json": {"shop": "Corner Parts", "price": "9.50 EUR", "pack_of": "10", "delivery": "4.90"}},
    "delete_offer": {"json": {}},
    "get_date_code": {},
    "post_rule": {"json": {"name": "another", "pattern": "{YY}{WW}"}},
    "delete_rule": {"json": {}},
    "post_duplicate": {"json": {"sample_id": "SAMPLE_ID"}},
    "post_confirmations": {"json": {"things": ["details/sample.maker"]}},
    "get_templates": {},
    "post_template": {"json": {"name": "thread", "sample_id": "SAMPLE_ID", "parts": ["plate"]}},
    "delete_template": {"json": {}},
    "post_put_back": {"json": {}},
    "get_scenarios": {},
    "post_scenario": {"json": {"name": "thin", "oil_grade": "0W-20"}},
    "post_slices": {"json": {"keys": ["SAMPLE"], "along": "temperature", "at": 2000, "quantity": "element_pressure"}},
    "post_warm_up": {"json": {}},
    "get_uses": {},
    "post_use": {"json": {"preset": "towing"}},
    "put_use": {"json": {"use": "USE", "seen": "USE"}},
    "delete_use": {"json": {}},
    "post_measure_number": {"json": {"measure": "filter_hot_kpa", "text": "5 psi", "family": "inch"}},
    "get_judged_use": {},
    "get_answer": {},
    "get_adapter": {},
    "get_filter_at_use": {},
    "get_comparison_sheet": {},
    "get_arithmetic": {},
    "get_percentiles": {},
    "get_preferences": {},
    "put_preference": {"json": {"order": [["metal"], ["fibre"]], "seen": []}, "key": "element.end_caps"},
    "get_lots": {},
    "post_arithmetic": {"json": {"text": "inlet: 8 holes 0.24 in = 0.362 in2"}},
    "post_arithmetic_preview": {"json": {"text": "inlet: 8 holes 0.24 in = 0.362 in2"}},
    "delete_arithmetic_line": {"json": {}},
    "get_others": {"params": {"words": "a"}},
    "get_report": {},
    "put_report": {"json": {"plan": {"title": "another"}, "seen": "PLAN"}},
    "post_report_preview": {"json": {}},
    "get_report_page": {},
    "post_issue": {"json": {"preview_key": "PREVIEW"}},
    "get_issued_pdf": {},
    "get_issued_document": {},
    "get_differences": {},
    "get_report_file": {},
    "get_bench_sheets": {},
    "get_part_labels": {},
    "post_spreadsheet_text": {"content": "WORKBOOK", "headers": WORKBOOK},
    "post_readings_table_preview": {"json": {"text": READING_TABLE}},
    "post_readings_table": {"json": {"text": READING_TABLE}},
    "post_package": {"content": "PACKAGE", "headers": ZIP},
}
"""Query of each operation besides its ids."""


@pytest.fixture(scope="module")
def filled(application, tmp_path_factory):
    """A database in which every kind of thing is there, and the ids of one of each."""
    database = tmp_path_factory.mktemp("contract") / "study.db"
    serve_database(application, database)
    client = TestClient(application, base_url="http://127.0.0.1")
    document = everything()
    document["samples"][0].pop("archived")
    study = client.post("/api/studies", json=document).json()
    sample = study["samples"][0]["id"]
    stated = {"wording": "95 % at 20 µm(c)", "source": "box"}
    claim = client.post(f"/api/samples/{sample}/claims", json=stated).json()["sheet"]["claims"][-1]["id"]
    engine = client.post(f"/api/samples/{sample}/engine/save", json={}).json()["library"][0]["id"]
    offered = client.post(f"/api/samples/{sample}/offers", json={"shop": "x", "price": "9 EUR"}).json()["sheet"]["offers"]
    client.put(f"/api/samples/{sample}/details/sample.date_code", json={"text": "2118"}, headers={"If-Match": "*"})
    rule = {"name": "year and week", "pattern": "{YY}{WW}"}
    rules = client.post(f"/api/samples/{sample}/date-code/rules", json=rule).json()["rules"]
    template = client.post("/api/templates", json={"name": "all of it", "sample_id": sample}).json()["id"]
    scenario = client.get(f"/api/studies/{study['id']}/scenarios").json()[0]["id"]
    lines = client.get(f"/api/studies/{study['id']}/arithmetic").json()["lines"]
    uses = client.get(f"/api/studies/{study['id']}/uses").json()["uses"]
    client.post(f"/api/samples/{sample}/readings", json={"key": "can.height", "text": "980 mm"})
    sheet = client.post(f"/api/samples/{sample}/readings", json={"key": "can.height", "text": "98 mm"}).json()["sheet"]
    client.post(f"/api/samples/{sample}/undo", json={})
    reading = next(f for p in sheet["parts"] for f in p["fields"] if f["key"] == "can.height")["readings"][0]["id"]
    group = next(p["hole_group"]["id"] for p in sheet["parts"] if p["key"] == "holes.inlet[0]")
    preview = client.post(f"/api/studies/{study['id']}/report/preview", json={}).json()["key"]
    issued = client.post(f"/api/studies/{study['id']}/report/issue", json={"preview_key": preview}).json()["id"]
    workbook = client.get(f"/api/studies/{study['id']}/report/files/xlsx").content
    package = client.get(f"/api/studies/{study['id']}/report/files/zip").content
    copy = client.post("/api/backups", json={}).json()["copies"][0]["name"]
    ids = {
        "study_id": study["id"],
        "sample_id": sample,
        "claim_id": claim,
        "engine_id": engine,
        "template_id": template,
        "rule_id": rules[0]["id"],
        "offer_id": offered[-1]["id"],
        "scenario_id": scenario,
        "use_id": uses[0]["id"],
        "use": uses[0]["use"],
        "line_id": lines[0]["id"],
        "reading_id": reading,
        "hole_group_id": group,
        "key": "sample.maker",
        "name": "inlet_hole_area",
        "report_id": issued,
        "preview_key": preview,
        "page": 1,
        "ending": "csv",
        "plan": everything()["report"],
        "package": package,
        "workbook": workbook,
        "copy_name": copy,
    }
    return database, ids, application.state.previews


@pytest.fixture
def client(serve, filled, tmp_path):
    """The application on a copy of the filled database."""
    shutil.copytree(filled[0].parent, tmp_path / "copy")
    client = serve(tmp_path / "copy" / "study.db")
    client.app.state.previews = filled[2]  # pages set once are there for every operation
    return client


EXAMPLES = int(os.environ.get("TABREL_EXAMPLES", "5"))
"""Generated for each operation; `make torture` asks many."""


@pytest.fixture(scope="module")
def operations(application):
    """The operations of the application, as its schema has them."""
    return schemathesis.openapi.from_asgi("/openapi.json", application, headers=HOST)


def test_every_operation_has_its_example():
    assert ADDRESSES.keys() == VALID.keys()


def with_real(value, ids):
    """Return an example with its placeholders filled in."""
    if isinstance(value, dict):
        return {key: with_real(item, ids) for key, item in value.items()}
    if isinstance(value, list):
        return [with_real(item, ids) for item in value]
    named = {"SAMPLE": str(ids["sample_id"]), "SAMPLE_ID": ids["sample_id"], "COPY": ids["copy_name"], "USE": ids["use"]} | {
        "PLAN": ids["plan"],
        "PREVIEW": ids["preview_key"],
        "PACKAGE": ids["package"],
        "WORKBOOK": ids["workbook"],
    }
    return named.get(value, value) if isinstance(value, str) else value


def asked_of(operation, ids):
    """Return what an operation is asked besides its address, and the ids and keys of its address."""
    in_path = {"name", "key"}
    asked = with_real({key: value for key, value in VALID[operation].items() if key not in in_path}, ids)
    return asked, {**ids, **{key: value for key, value in VALID[operation].items() if key in in_path}}


@pytest.mark.parametrize("operation", VALID)
def test_every_operation_answers_with_real_ids_as_its_schema_says(client, filled, operations, operation):
    method, path = ADDRESSES[operation]
    asked, ids = asked_of(operation, filled[1])
    answer = client.request(method, path.format(**ids), headers={**HOST, "If-Match": "*", **asked.pop("headers", {})}, **asked)
    assert 200 <= answer.status_code < 300, answer.text
    sent = answer.headers.get("content-type", "").partition(";")[0]
    documented = operations[path][method].definition.raw["responses"][str(answer.status_code)]
    assert not answer.content or sent in documented["content"], f"{sent} is not documented"
    if sent == "application/json":
        operations[path][method].validate_response(answer)


@pytest.mark.parametrize("operation", [name for name, example in VALID.items() if {"json", "params"} & example.keys()])
def test_whatever_is_asked_of_a_real_id_is_answered_as_the_schema_says(client, filled, operations, operation):
    """And whatever is taken can be exported and imported again."""
    ids = filled[1]
    method, path = ADDRESSES[operation]

    @settings(max_examples=EXAMPLES, phases=[Phase.generate], suppress_health_check=list(HealthCheck))
    @given(case=operations[path][method].as_strategy())
    def run(case):
        case.path_parameters = {name: ids[name] for name in case.path_parameters or {}}
        answer = case.call_and_validate(headers=HOST, checks=[not_a_server_error, response_schema_conformance])
        assert answer.status_code in (200, 201, 204, 404, 409, 412, 422, 428)

    run()
    if method != "GET":
        address = f"/api/studies/{ids['study_id']}/document"
        exported = client.get(address, params={"history": True, "library": True}).content
        back = client.post("/api/studies", content=exported, headers={"Content-Type": "application/json"})
        assert back.status_code == 201, back.text


@pytest.mark.parametrize("operation", [name for name, (_, path) in ADDRESSES.items() if "_id}" in path])
def test_what_is_not_there_is_a_plain_404_by_every_method(client, filled, operation):
    method, path = ADDRESSES[operation]
    asked, ids = asked_of(operation, filled[1])
    nowhere = {**ids, **{key: 10**9 for key in ids if key.endswith("_id")}}
    answer = client.request(method, path.format(**nowhere), headers={**HOST, "If-Match": "*"}, **asked)
    assert answer.status_code == 404, answer.text
    assert "there is no" in answer.json()["detail"]


@pytest.mark.parametrize("method", ["GET", "POST", "PUT", "PATCH", "DELETE"])
def test_an_unknown_address_is_a_plain_404_by_every_method(client, method):
    answer = client.request(method, "/api/nothing", headers=HOST, json={})
    assert answer.status_code == 404
    assert answer.json()["detail"] == "there is nothing here"

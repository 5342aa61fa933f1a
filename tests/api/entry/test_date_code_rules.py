"""Rules of date codes, stated at a filter, read for all; a date is offered and taken only when asked for."""

from __future__ import annotations

import pytest

from api_steps import detail, details, overwrite, refused, says

FIRST = {"name": "year and week", "pattern": "{YY}{WW}"}
SECOND = {"name": "year and month", "pattern": "{YY}{MM}"}
OF_KORVATH = {"name": "day of the year", "pattern": "{Y}{DDD}{*}", "maker": "Korvath Works"}


def state(client, sample, rule):
    return client.post(f"/api/samples/{sample}/date-code/rules", json=rule)


def code(client, sample):
    return client.get(f"/api/samples/{sample}/date-code").json()


@pytest.fixture
def coded(client, blank):
    detail(client, blank, "sample.date_code", "2105")
    detail(client, blank, "sample.bought", "2026-10-02")
    return blank


def test_a_rule_reads_the_code_and_leaves_the_date_to_the_analyst(client, coded):
    stated = state(client, coded, FIRST)
    assert stated.status_code == 201
    assert stated.headers["Tabrel-Stale"] == "/api/samples/*/date-code"
    [reading] = code(client, coded)["readings"]
    assert (reading["iso"], reading["decade_before"]) == ("2021-02-01", None)
    assert "sample.made" not in details(client, coded)
    detail(client, coded, "sample.made", reading["iso"])
    sheet = client.get(f"/api/samples/{coded}").json()
    assert sheet["shelf"].startswith("5.7 years on the shelf: look for hard or cracked rubber")


def test_a_code_that_two_rules_read_differently_is_asked_back(client, coded):
    for rule in (FIRST, SECOND):
        state(client, coded, rule)
    result = code(client, coded)
    assert {item["iso"] for item in result["readings"]} == {"2021-02-01", "2021-05"}
    assert result["says"] == "the rules read '2105' in 2 ways: take the one that is right"


def test_the_decade_before_is_named_and_a_date_that_says_otherwise_is_questioned(client, coded):
    detail(client, coded, "sample.maker", "Korvath Works")
    detail(client, coded, "sample.date_code", "7226 B")
    state(client, coded, OF_KORVATH)
    [reading] = code(client, coded)["readings"]
    assert (reading["iso"], reading["decade_before"]) == ("2017-08-14", "2007-08-14")
    for taken in ("2017-08-14", "2007-08-14"):  # either was offered: neither is questioned afterwards
        detail(client, coded, "sample.made", taken)
        assert code(client, coded)["says"] is None
    detail(client, coded, "sample.made", "2026")
    assert code(client, coded)["says"] == "made on says 2026, and the code 2017-08-14: check both"


@pytest.mark.parametrize(
    ("rule", "where", "words"),
    [
        ({"name": "x", "pattern": "{Y}{DDD}X"}, "pattern", "fits '2105' in no way; it wants: the last figure of the year"),
        ({"name": "x", "pattern": "{DDD}"}, "pattern", "says no year"),
        ({"name": " ", "pattern": "{YY}{WW}"}, "name", "is empty"),
        (OF_KORVATH, "maker", "leave the maker empty"),
    ],
)
def test_a_rule_that_fits_nothing_is_refused_with_what_it_wants(client, coded, rule, where, words):
    refused(state(client, coded, rule), 422, where, words)
    assert code(client, coded)["rules"] == []


def test_a_code_that_no_rule_fits_and_one_that_is_not_there_yet(client, coded):
    state(client, coded, FIRST)
    detail(client, coded, "sample.date_code", "B 7")
    assert code(client, coded)["says"] == "no rule fits 'B 7': correct the code, or state how its maker writes it"
    detail(client, coded, "sample.date_code", "")
    refused(state(client, coded, SECOND), 422, "date_code", "there is no date code yet")


def test_a_name_is_taken_once_and_a_removed_rule_reads_nothing(client, coded):
    state(client, coded, FIRST)
    says(state(client, coded, FIRST), 409, "there is a rule 'year and week' already")
    [rule] = code(client, coded)["rules"]
    assert overwrite(client, "DELETE", f"/api/date-code-rules/{rule['id']}", {}).json() == []
    assert code(client, coded)["readings"] == []
    says(overwrite(client, "DELETE", f"/api/date-code-rules/{rule['id']}", {}), 404, "there is no such rule")

"""Differences between two study documents are listed exactly, in the words of the bench."""

from __future__ import annotations

import copy
import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from builders import everything, plain_document
from tabrel.document.differences import Difference, study_differences
from tabrel.document.study_document import read_study, study_to_json


def normal(document):
    return study_to_json(read_study(json.dumps(document)))


def differences(change, document=None):
    before = document or plain_document()
    now = copy.deepcopy(before)
    change(now)
    return list(study_differences(normal(before), normal(now)))


def first(document):
    return document["samples"][0]


LABEL = plain_document()["samples"][0]["label"]
MASS = "Can: mass"
MAKER, QUESTION = first(plain_document()).get("maker"), plain_document().get("question")


def test_nothing_differs_from_itself():
    assert study_differences(normal(everything()), normal(everything())) == ()


@pytest.mark.parametrize(
    ("change", "expected"),
    [
        (lambda d: first(d)["readings"].update({"can.mass": ["120 g"]}), [Difference(LABEL, MASS, None, "120 g")]),
        (
            lambda d: first(d)["readings"].update({"can.mass": [{"text": "12 g", "struck_out": "wet"}]}),
            [Difference(LABEL, MASS, None, "12 g (set aside: wet)")],
        ),
        (lambda d: first(d).update({"maker": "another"}), [Difference(LABEL, "maker", MAKER, "another")]),
        (lambda d: d.update({"question": "which?"}), [Difference("study", "question", QUESTION, "which?")]),
        (lambda d: d["samples"].append({"label": "B"}), [Difference("B", "filter", None, "there")]),
    ],
)  # fmt: skip
def test_a_single_change_is_a_single_difference(change, expected):
    assert differences(change) == expected


def test_a_reading_that_is_corrected_is_told_with_what_it_was():
    document = plain_document()
    first(document)["readings"]["can.mass"] = ["120 g", "121 g"]

    def correct(changed):
        first(changed)["readings"]["can.mass"] = ["120 g", {"text": "121 g", "struck_out": "misread"}, "112 g"]

    assert differences(correct, document) == [
        Difference(LABEL, MASS, "121 g", "121 g (set aside: misread)"),
        Difference(LABEL, MASS, None, "112 g"),
    ]


def test_a_number_typed_anew_is_one_difference_not_two():
    def type_it(changed):
        changed["circuit"]["stud"]["bore_mm"] = 14.0
        changed["as_typed"] = {"bore_mm": {"text": "14 mm"}}

    result = differences(type_it)
    assert len(result) == 1
    assert result[0].now == "14.0"


def test_a_filter_that_is_gone_is_one_difference():
    document = plain_document()
    document["samples"].append({"label": "B", "readings": {"can.mass": ["1 g"]}})
    assert differences(lambda d: d["samples"].pop(), document) == [Difference("B", "filter", "there", None)]


@given(st.sampled_from(["can.height", "can.mass", "media.strip_length", "element.pleat_count"]), st.integers(1, 4))
def test_as_many_differences_as_readings_were_added(key, count):
    def add(changed):
        unit = {"can.mass": " g", "element.pleat_count": ""}.get(key, " mm")
        held = first(changed)["readings"].setdefault(key, [])
        held += [f"{50 + i}{unit}" for i in range(count)]

    assert len(differences(add)) == count

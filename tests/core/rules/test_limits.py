"""A document larger than any study is refused with its place, before anything is made of it."""

from __future__ import annotations

import json

import pytest

from builders import changed, plain_document
from tabrel.core.errors import StudyError
from tabrel.core.rules import limits
from tabrel.core.rules.limits import MOST_LETTERS, MOST_SAMPLES, check_size
from tabrel.document import plain_json
from tabrel.document.study_document import read_study, read_study_file


def nested(depth):
    return {"a": nested(depth - 1)} if depth else 1


@pytest.mark.parametrize(
    ("document", "where", "says"),
    [
        (changed(("samples", [{"label": str(i)} for i in range(MOST_SAMPLES + 1)])), "samples", "make several studies"),
        (changed(("question", "x" * (MOST_LETTERS + 1))), "question", "shorten it to 10000"),
        (changed(("question", nested(40))), "question.a.a", "nested more than 20 deep"),
        (changed(("question", [nested(40)])), "question[0].a", "nested more than 20 deep"),
        (changed(("samples/0/label", "Halvene\u202e")), "samples[0].label", "RIGHT-TO-LEFT OVERRIDE"),
        (changed(("samples/0/label", "Hal\u0000vene")), "samples[0].label", "control character 0"),
        (changed(("samples/0/maker", "Hal\u001bvene")), "samples[0].maker", "control character 27"),
        (changed(("name\u200b", "x")), "the document", "ZERO WIDTH SPACE"),
    ],
)
def test_a_document_beyond_the_limits_is_refused_at_its_place(document, where, says):
    with pytest.raises(StudyError, match=says) as refused:
        read_study(json.dumps(document))
    assert refused.value.path == where


def test_readings_are_counted_over_all_samples(monkeypatch):
    monkeypatch.setattr(limits, "MOST_ENTRIES", 100)
    samples = [{"label": str(i), "readings": {"can.height": ["98 mm"] * 30}} for i in range(4)]
    with pytest.raises(StudyError, match="more than 100 entries in all"):
        check_size({"samples": samples})
    check_size({"samples": samples[:3]})


def test_a_file_is_not_read_beyond_its_limit(tmp_path, monkeypatch):
    monkeypatch.setattr(plain_json, "MOST_BYTES", 1000)
    path = tmp_path / "large.json"
    path.write_text(json.dumps(plain_document()))
    with pytest.raises(StudyError, match=r"larger than 0\.001 MB"):
        read_study_file(path)


def test_texts_of_any_language_stay_as_they_are():
    document = changed(("samples/0/maker", "Фильтр 滤清器 ÅÄÖ 🛢️ می‌خواهم"), ("question", "one line\nand another\ttab"))
    study = read_study(json.dumps(document))
    assert study.samples[0].maker == "Фильтр 滤清器 ÅÄÖ 🛢️ می‌خواهم"
    assert study.question == "one line\nand another\ttab"

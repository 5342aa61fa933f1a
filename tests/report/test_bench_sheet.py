"""Sheets printed before the work: every quantity of every stage has its line, and the drawing its number."""

from __future__ import annotations

import json

import pypdfium2
import pytest

from builders import everything, plain_document
from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES, STAGE_TITLES
from tabrel.core.errors import StudyError
from tabrel.core.review.before_cut import CAUTIONS
from tabrel.document.study_document import read_study
from tabrel.report.bench_sheet import LABELLED_PARTS, READINGS, bench_sheets, part_labels
from tabrel.report.blocks import Labels, Picture, Points, Table
from tabrel.report.pdf import pdf_of

HOW = {"paper": "a4", "dated": "2026-11-27"}


def sheets(document=None, labels=(), family="metric"):
    return bench_sheets(read_study(json.dumps(document or plain_document())), labels, family=family, **HOW)


def test_every_quantity_has_a_line_with_its_tool_its_unit_and_room_for_three_readings():
    rows = {
        row[1]: row for block in sheets().blocks if isinstance(block, Table) for row in block.rows if len(row) == 5 + READINGS
    }
    for quantity in QUANTITIES.values():
        row = rows[f"{PART_TITLES[quantity.part]}: {quantity.title}"]
        assert row[2]
        assert row[4 : 4 + READINGS] == ("",) * READINGS
    assert rows["Can: height"][2:4] == ("caliper", "mm")
    inch = {row[1]: row for block in sheets(family="inch").blocks if isinstance(block, Table) for row in block.rows}
    assert inch["Can: height"][3] == "in"


def test_a_number_in_the_table_is_a_number_in_the_drawing_of_that_stage():
    blocks = sheets().blocks
    for i, block in enumerate(blocks):
        if isinstance(block, Picture) and block.key.endswith("section"):
            table = next(item for item in blocks[i:] if isinstance(item, Table))
            numbers = {row[0] for row in table.rows if row[0]}
            assert numbers
            assert all(f">{number}</text>" in block.svg for number in numbers)


def test_no_size_that_is_known_leads_the_hand():
    document = everything()
    pictures = [block.svg for block in sheets(document, [document["samples"][0]["label"]]).blocks if isinstance(block, Picture)]
    blank = {
        "format": "tabrel-study",
        "version": 1,
        "name": "b",
        "samples": [{"label": "B", "bypass": document["samples"][0].get("bypass", {})}],
    }
    assert pictures == [block.svg for block in sheets(blank).blocks if isinstance(block, Picture)]


def test_the_cautions_stand_before_the_can_is_opened_and_each_stage_says_its_tools_and_minutes():
    blocks = sheets().blocks
    assert Points(CAUTIONS, "caution") in blocks
    text = " ".join(page.get_textpage().get_text_range() for page in pypdfium2.PdfDocument(pdf_of(sheets())))
    for title in STAGE_TITLES.values():
        assert f"{title}, about " in text
    assert "Tools: " in text
    assert "Draft" not in text


def test_every_piece_of_every_sample_has_a_label():
    document = plain_document()
    document["samples"].append({"label": "<b>#B</b>"})
    report = part_labels(read_study(json.dumps(document)), [], **HOW)
    (labels,) = [block for block in report.blocks if isinstance(block, Labels)]
    assert len(labels.items) == 2 * len(LABELLED_PARTS)
    text = " ".join(page.get_textpage().get_text_range() for page in pypdfium2.PdfDocument(pdf_of(report)))
    assert "<b>#B</b>" in text
    assert text.count(PART_TITLES["element"]) == 2


def test_a_label_that_is_none_and_a_study_without_a_filter_are_refused():
    with pytest.raises(StudyError, match="there is no sample 'nobody'"):
        sheets(labels=["nobody"])
    with pytest.raises(StudyError, match="add one first"):
        sheets({"format": "tabrel-study", "version": 1, "name": "empty", "samples": []})

"""The report as pages: what a laboratory's reader looks for is there, whatever is in the study."""

from __future__ import annotations

import json
import re
from dataclasses import replace
from functools import lru_cache

import pypdfium2
import pytest

from builders import changed, plain_document
from tabrel.cli.demo import demo_documents
from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.study.report_plan import ReportPart, ReportPlan
from tabrel.document.study_document import read_study
from tabrel.report.contents import report_of
from tabrel.report.inputs import ReportInputs
from tabrel.report.pdf import FONTS, pages_of, pdf_of
from tabrel.report.words import result_words

DATED = "2026-11-27"
HOSTILE = '<b>#import "x"$ *not bold* _x_ =1+1 \\'


def inputs(study, **plan):
    return ReportInputs(replace(study, report=ReportPlan(**plan)) if plan else study, draws=1)


def of_document(document, **plan):
    return inputs(read_study(json.dumps(document)), **plan)


@lru_cache
def demo():
    return ReportInputs(
        read_study(next(document for document in demo_documents() if b"Mountain road service, winter" in document)), draws=1
    )


@lru_cache
def demo_pdf():
    return pdf_of(report_of(demo(), dated=DATED))


def pages(pdf):
    return [page.get_textpage().get_text_range().replace("\r\n", "\n") for page in pypdfium2.PdfDocument(pdf)]


def flat(text):
    return re.sub(r"\s+", " ", text)


def test_the_five_results_of_each_filter_stand_in_the_demo_with_unit_and_uncertainty():
    text = flat(" ".join(pages(demo_pdf())))
    for label, analysis in demo().analyses.items():
        assert label in text
        for name in HEADLINES:
            words = result_words(name, getattr(analysis.results, name), "metric")
            assert words in text, f"{label}, {name}: {words}"
    assert "231.2 ± 7.2 mm²" in text  # of eight holes of 6.067 mm, by hand: 8·π·6.067²/4 = 231.3


def test_a_reader_can_recompute_the_hole_area_from_the_pages_alone():
    text = flat(" ".join(pages(demo_pdf())))
    count, diameter = re.search(r"(\d+) round inlet holes diameter ([\d.]+) ±", text).groups()
    assert int(count) == 8
    assert int(count) * 3.14159265 * float(diameter) ** 2 / 4 == pytest.approx(231.2, abs=0.15)


def test_the_first_page_answers_and_every_page_has_its_number_and_says_that_it_is_a_draft():
    computed = pages(demo_pdf())
    first, second = flat(computed[0]), flat(computed[1])
    for wanted in (
        "Which filter keeps",
        "Buy Korvath (11.40 EUR plus delivery)",
        "Do not buy Ysmere",
        "if it counts, buy Halvene",
    ):
        assert wanted in first
    wanted_soon = ("Verdict by use", "Decision rule", "Five headline results", "Assumed, not measured", "criterion by criterion")
    for wanted in wanted_soon:
        assert wanted in first + second
    for i, text in enumerate(computed, start=1):
        assert f"page {i} of {len(computed)}" in text
        assert "Draft, not issued" in text


def test_it_is_tagged_has_bookmarks_a_title_and_is_small():
    pdf = pypdfium2.PdfDocument(demo_pdf())
    titles = [item.get_title() for item in pdf.get_toc()]
    assert set(demo().measured) <= set(titles)
    assert "Readings as typed" in titles
    assert pdf.get_metadata_value("Title") == "Mountain road service, winter filters"
    assert b"/MarkInfo" in demo_pdf() or pdf.is_tagged()
    assert len(demo_pdf()) < 3_000_000


def test_no_page_of_the_demo_is_nearly_empty_but_where_a_part_ends():
    ends = [text for text in pages(demo_pdf()) if len(text) < 250]
    assert len(ends) <= 5


def test_the_same_study_gives_the_same_bytes():
    study = read_study(json.dumps(plain_document()))
    assert pdf_of(report_of(inputs(study), dated=DATED)) == pdf_of(report_of(inputs(study), dated=DATED))


@pytest.mark.parametrize(("paper", "size"), [("a4", (595, 842)), ("letter", (612, 792))])
def test_paper_and_units_are_as_planned(paper, size):
    plan = {"paper": paper, "units": "inch", "parts": (ReportPart("answer"),)}
    pdf = pypdfium2.PdfDocument(pdf_of(report_of(of_document(plain_document(), **plan), dated=DATED)))
    assert pdf[0].get_size() == pytest.approx(size, abs=1)
    assert "in²" in pdf[0].get_textpage().get_text_range()


def test_only_the_chosen_parts_are_there_in_their_order_with_own_text_between():
    text = "# Why\n\nSee **this**, <script>alert(1)</script>, [a link](http://example.invalid).\n\n1. one\n2. two"
    parts = (ReportPart("claims"), ReportPart("text", text), ReportPart("answer"))
    collected = flat(" ".join(pages(pdf_of(report_of(of_document(plain_document(), parts=parts), dated=DATED)))))
    assert collected.index("Claims and what readings say") < collected.index("Why") < collected.index("The answer")
    assert "See this, <script>alert(1)</script>, [a link](http://example.invalid)." in collected
    assert "1. one" in collected
    assert "Readings as typed" not in collected


def test_an_issued_report_bears_its_number_and_no_word_of_a_draft():
    report = report_of(of_document(plain_document()), dated=DATED, number="2026-0007")
    for text in pages(pdf_of(report)):
        assert "Report 2026-0007" in text
        assert "Draft" not in text


def test_a_study_with_nothing_measured_or_without_a_filter_is_a_report_of_that():
    blank = {"format": "tabrel-study", "version": 1, "name": "blank", "samples": [{"label": "A"}]}
    text = flat(" ".join(pages(pdf_of(report_of(of_document(blank), dated=DATED)))))
    assert "Nothing has been measured of this filter." in text
    assert "not known" in text
    empty = {"format": "tabrel-study", "version": 1, "name": "empty", "samples": []}
    text = flat(" ".join(pages(pdf_of(report_of(of_document(empty), dated=DATED)))))
    assert "none yet" in text


def test_names_with_markup_stay_names_and_long_words_stay_on_the_page():
    long = "W" * 200
    document = changed(("name", HOSTILE), ("samples/0/label", HOSTILE), ("samples/0/maker", long), ("samples/0/seller", HOSTILE))
    outcome = pages(pdf_of(report_of(of_document(document), dated=DATED)))
    assert HOSTILE in flat(outcome[0])
    assert "".join(outcome[0].split()).count("W") + "".join(outcome[1].split()).count("W") >= 200


def test_pages_as_pictures_are_the_pages_of_the_pdf():
    report = report_of(of_document(plain_document(), parts=(ReportPart("answer"), ReportPart("method"))), dated=DATED)
    pictures = pages_of(report)
    assert len(pictures) == len(pypdfium2.PdfDocument(pdf_of(report)))
    assert all(picture.startswith(b"\x89PNG") for picture in pictures)


def test_the_fonts_have_every_letter_the_program_writes():
    from fontTools.ttLib import TTFont

    wanted = set("βΔμµ²³·−–…“”±×°½→πηρν•′″ØäéñçřšŁАж ⌀≤≥√∞▲▽⁴₀₁₂")
    known = set()
    for name in ("Regular", "Italic", "SemiBold"):
        letters = set(map(chr, TTFont(FONTS / f"IBMPlexSans-{name}.ttf").getBestCmap()))
        known = letters if not known else known & letters
    lacking = wanted - known
    assert lacking <= set("½→⌀≤≥√∞▲▽⁴₀₁₂∆⅛")  # these come from the fallback that pages are set with
    import typst

    probe = f'#set text(font: ("IBM Plex Sans", "DejaVu Sans Mono"), fallback: false)\n{"".join(sorted(lacking))}'
    _, warnings = typst.compile_with_warnings(probe.encode(), font_paths=[str(FONTS)], ignore_system_fonts=True, format="pdf")
    assert not warnings


def test_results_are_told_for_every_kind_of_knowing():
    from tabrel.core.uncertainty.propagation import Result

    def told(result):
        return result_words("inlet_hole_area", result, "metric")

    assert told(Result(2e-4, 1e-6, 2e-6)) == "200.0 ± 2.0 mm²"
    assert told(Result(None, low=1e-4, relation=">=")) == "at least 100 mm²"
    assert told(Result(None, low=1e-4, high=2e-4)) == "100 to 200 mm²"
    assert told(Result(2e-4)) == "200 mm², no uncertainty stated"
    assert told(Result(None, missing=("holes.inlet",))) == "not known"
    assert RESULTS["inlet_hole_area"].unit == "mm2"


def test_the_distance_and_hours_of_a_used_filter_are_told():
    document = changed(("samples/0/condition", "used"), ("samples/0/used_km", 12000), ("samples/0/used_hours", 240))
    text = flat(" ".join(pages(pdf_of(report_of(of_document(document), dated=DATED)))))
    assert "12000 km" in text
    assert "240 h" in text

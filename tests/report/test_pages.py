"""The report as pages: what a laboratory's reader looks for is there, whatever is in the study."""

from __future__ import annotations

import json
import re
from dataclasses import replace
from functools import lru_cache

import numpy as np
import pypdfium2
import pytest

from builders import changed, plain_document
from tabrel.cli.demo import demo_documents
from tabrel.core.answer.compared import ComparedFilter
from tabrel.core.answer.dirt import Passed
from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.judge.categories import CategoryValue
from tabrel.core.study.report_plan import ReportPart, ReportPlan
from tabrel.document.study_document import read_study
from tabrel.report.blocks import Column, Table
from tabrel.report.columns import column_widths, text_width, without_empty_columns
from tabrel.report.contents import report_of
from tabrel.report.figures.trade_bars import trade_bars, trade_panels
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
def demo_pdf(size="short"):
    return pdf_of(report_of(demo().in_size(size), dated=DATED))


def pages(pdf):
    return [page.get_textpage().get_text_range().replace("\r\n", "\n") for page in pypdfium2.PdfDocument(pdf)]


def flat(text):
    return re.sub(r"\s+", " ", text)


def test_the_five_results_of_each_filter_stand_in_the_demo_with_unit_and_uncertainty():
    text = flat(" ".join(pages(demo_pdf("full"))))
    for label, analysis in demo().analyses.items():
        assert label in text
        for name in HEADLINES:
            words = result_words(name, getattr(analysis.results, name), "metric")
            assert words in text, f"{label}, {name}: {words}"
    assert "231.2 ± 7.2 mm²" in text  # of eight holes of 6.067 mm, by hand: 8·π·6.067²/4 = 231.3


def test_a_reader_can_recompute_the_hole_area_from_the_pages_alone():
    text = flat(" ".join(pages(demo_pdf("full"))))
    count, diameter = re.search(r"(\d+) round inlet holes diameter ([\d.]+) ±", text).groups()
    assert int(count) == 8
    assert int(count) * 3.14159265 * float(diameter) ** 2 / 4 == pytest.approx(231.2, abs=0.15)


def test_the_first_page_answers_and_every_page_has_its_number_and_says_that_it_is_a_draft():
    computed = pages(demo_pdf())
    first, rest = flat(computed[0]), flat(" ".join(computed[1:]))
    for wanted in (
        "Buy Korvath (11.40 EUR plus delivery)",
        "Do not buy Ysmere",
        "if it counts, buy Halvene",
        "Asked: Cold at −25 °C and 2000 rpm",
        "Five results of each filter",
    ):
        assert wanted in first
    for wanted in (
        "Verdict by use",
        "Decision rule",
        "Assumed, not measured",
        "criterion by criterion",
        "Which filter keeps",
    ):
        assert wanted in rest
    for i, text in enumerate(computed, start=1):
        assert f"page {i} of {len(computed)}" in text
        assert "Draft, not issued" in text


def test_it_is_tagged_has_bookmarks_a_title_and_is_small():
    pdf = pypdfium2.PdfDocument(demo_pdf())
    titles = [item.get_title() for item in pdf.get_toc()]
    assert titles[0] == "Groomers, cold start: which filter?"
    assert {"Operating maps", "Requirements and what was found", "Cautions and limits"} <= set(titles)
    full = {item.get_title() for item in pypdfium2.PdfDocument(demo_pdf("full")).get_toc()}
    assert {*demo().measured, "Readings as typed", "Uncertainty budgets", *titles} - {"Questioned, and not confirmed"} <= full
    assert pdf.get_metadata_value("Title") == "Mountain road service, winter filters"
    assert b"/MarkInfo" in demo_pdf() or pdf.is_tagged()
    assert len(demo_pdf()) < 3_000_000


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
    text = flat(" ".join(pages(pdf_of(report_of(of_document(blank, size="full"), dated=DATED)))))
    assert "Nothing has been measured of this filter." in text
    assert "not known" in text
    assert raw_keys(text) == []
    assert "No operating map of A: it needs " in text
    empty = {"format": "tabrel-study", "version": 1, "name": "empty", "samples": []}
    text = flat(" ".join(pages(pdf_of(report_of(of_document(empty), dated=DATED)))))
    assert "There is no filter yet." in text


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


SIZES = ("card", "short", "full")


def test_a_card_is_one_page_and_a_short_report_of_five_filters_six_to_eight():
    assert len(pages(demo_pdf("card"))) == 1
    assert 6 <= len(pages(demo_pdf("short"))) <= 8
    assert len(pages(demo_pdf("full"))) > 30


def test_a_card_of_another_use_stands_on_its_own_page():
    text = flat(pages(pdf_of(report_of(demo().in_size("card", "vans, daily"), dated=DATED)))[0])
    assert "Vans, daily: which filter?" in text
    assert "groomers, cold start Buy Korvath" in text  # the other uses in a line each


@lru_cache
def set_pages(size):
    """Return of each page its height, where its ink ends as a share of it, its lines, and its words with their boxes."""
    computed = []
    with pypdfium2.PdfDocument(demo_pdf(size)) as document:
        for page in document:
            picture = np.asarray(page.render(scale=0.5).to_pil().convert("L"))
            body = picture[: int(picture.shape[0] * 0.945)]  # above the foot
            inked = np.flatnonzero((body < 200).any(axis=1))
            computed.append((page.get_size(), inked[-1] / picture.shape[0], words_on(page)))
    return computed


def words_on(page):
    """Return the words of a page with their boxes: left, bottom, right, top."""
    text = page.get_textpage()
    words, word, box = [], "", None
    for i in range(text.count_chars()):
        letter = text.get_text_range(i, 1)
        if not letter.strip():
            if word:
                words.append((word, box))
            word, box = "", None
            continue
        left, bottom, right, top = text.get_charbox(i)
        word += letter
        box = box or (left, bottom, right, top)
        box = (min(box[0], left), min(box[1], bottom), max(box[2], right), max(box[3], top))
    return [*words, (word, box)] if word else words


@pytest.mark.parametrize("size", SIZES)
def test_no_page_is_under_a_third_full_but_the_last_of_a_part(size):
    sheets = set_pages(size)
    heads = [item.get_dest() for item in pypdfium2.PdfDocument(demo_pdf(size)).get_toc() if item.level == 0]
    begins = {at.get_index() for at in heads if at.get_view()[1][1] > sheets[at.get_index()][0][1] - 90}  # a heading at the top
    for i, (_, end, _) in enumerate(sheets):
        assert end > 1 / 3 or i + 1 == len(sheets) or i + 1 in begins, f"page {i + 1} ends at {end:.2f}"


@pytest.mark.parametrize("size", SIZES)
def test_nothing_is_clipped_and_no_word_lies_on_another(size):
    """A column narrower than its longest word would let it run into the next one, or off the page."""
    for i, ((width, height), _, words) in enumerate(set_pages(size)):
        for word, (left, bottom, right, top) in words:
            assert 20 < left < right < width - 20, f"page {i + 1}: {word}"
            assert 15 < bottom <= top < height - 15, f"page {i + 1}: {word}"
        for word, other in overlapping(words):
            raise AssertionError(f"page {i + 1}: {word!r} lies on {other!r}")


def overlapping(words):
    boxes = np.array([box for _, box in words])
    middle = (boxes[:, 1] + boxes[:, 3]) / 2
    for i, (left, bottom, right, top) in enumerate(boxes):
        on_line = (middle > bottom) & (middle < top) & (boxes[:, 0] < right - 1.5) & (boxes[:, 2] > left + 1.5)
        on_line[: i + 1] = False
        for k in np.flatnonzero(on_line):
            yield words[i][0], words[k][0]


@pytest.mark.parametrize("size", SIZES)
def test_every_heading_has_something_below_it_on_its_page(size):
    document = pypdfium2.PdfDocument(demo_pdf(size))
    for item in document.get_toc():
        at = item.get_dest()
        _, y = at.get_view()[1][:2] if len(at.get_view()[1]) > 1 else (0, 800)
        lines = {round(box[1]) for _, box in set_pages(size)[at.get_index()][2] if 45 < box[1] < y - 22}
        assert len(lines) >= 2, item.get_title()


def raw_keys(text):
    return [word for word in re.findall(r"\b[a-z]+(?:[._][a-z0-9]+)+\b", text) if word not in ("e.g", "i.e")]


@pytest.mark.parametrize("size", SIZES)
def test_pages_hold_no_raw_keys_and_no_words_run_together(size):
    text = flat(" ".join(pages(demo_pdf(size))))
    assert raw_keys(text) == []
    for wrong in ("unnamed", "areaand", " nan", "None"):
        assert wrong not in text


def test_columns_have_their_longest_word_and_share_the_rest():
    """Hand-worked: at most a word a line, the page is full, and an empty column is gone."""
    table = Table("", (Column("Long"), Column("x"), Column("empty")), (("Donaudampfschiff " * 12, "1231.2 ± 7.2", ""),))
    kept = without_empty_columns(table)
    assert [column.title for column in kept.columns] == ["Long", "x"]
    widths, size = column_widths(kept, 80.0)
    assert sum(widths) == pytest.approx(80.0)
    longest = text_width("1231.2\u00a0±\u00a07.2") * size * 25.4 / 72
    assert widths[1] >= longest + 3.0
    assert column_widths(kept, 30.0)[1] < 8.0  # smaller letters before a word is broken


def test_words_are_as_wide_as_another_reader_of_the_font_measures_them():
    from PIL import ImageFont

    for weight, strong in (("Regular", False), ("SemiBold", True)):
        font = ImageFont.truetype(FONTS / f"IBMPlexSans-{weight}.ttf", 1000, layout_engine=ImageFont.Layout.BASIC)
        for words in ("Tapping plate flow area", "1258 ± 63", "mm²"):
            assert text_width(words, strong=strong) == pytest.approx(font.getlength(words) / 1000, rel=0.01)


def many(count):
    """Return a study of so many filters in one use, offered and named at length."""
    document = json.loads(next(text for text in demo_documents() if b"Mountain road service, winter" in text))
    samples = document["samples"]
    more = [{**samples[i % 5], "label": f"{samples[i % 5]['label']} of the depot {i}"} for i in range(5, count)]
    return read_study(json.dumps({**document, "samples": [*samples, *more]}))


def test_a_card_of_many_filters_is_one_page_and_names_those_it_has_no_room_for():
    study = many(9)
    set_once = ReportInputs(study, draws=1).in_size("card")
    texts = pages(pdf_of(report_of(set_once, dated=DATED)))
    assert len(texts) == 1
    out = set_once.answers[0].order[7:]
    assert len(out) == 2
    assert f"Not on this card, for want of room: {', '.join(out)}." in flat(texts[0])


def test_evidence_that_is_no_measurement_is_named_beside_its_number():
    text = flat(" ".join(pages(demo_pdf("short"))))
    sheet = text[text.index("Of the filters themselves") :]
    assert "≥ 89.4, claim" in sheet
    assert re.search(r"82 \(40 to 100\), estimate", sheet)
    assert "0.00000" not in flat(" ".join(pages(demo_pdf("full"))))  # a permeability is told in µm²


def compared(label, number=None, price=None, litres=None):
    counted = None if number is None else Passed("count", number, 0.5 * number, 9 * number)
    return ComparedFilter(label, label == "A", "meets", counted, litres, price)


def test_bars_are_as_long_as_their_numbers_and_what_is_not_known_has_none():
    """Hand-worked: half the price is half the bar; another currency has words alone."""
    filters = (compared("A", 100.0, (10.0, "EUR")), compared("B", None, (20.0, "EUR")), compared("C", None, (5.0, "USD")))
    panels = trade_panels(filters, -25.0, "inch")
    assert [title for title, _ in panels] == ["Passed of 1,000 of 20 µm", "Price of one, EUR"]
    chart = trade_bars(filters, panels)
    widths = [float(width) for width in re.findall(r'<rect[^>]* width="([\d.]+)"', chart.svg)]
    assert len(widths) == 3  # one count, two prices
    assert widths[2] == pytest.approx(2 * widths[1], rel=1e-3)
    assert "C 5.00 USD" in chart.alt
    assert "B not tested" in chart.alt
    titled = trade_panels((compared("A", litres=CategoryValue(2.0, 0.5)),), -25.0, "inch")
    assert titled[0][0].startswith("Unfiltered, start at −13 °F")

"""Tables of counts as people have them: what is understood, what is asked, and what is refused at its cell."""

from __future__ import annotations

import csv
import io
from contextvars import copy_context

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tabrel.core.entry.count_columns import TableChoices
from tabrel.core.entry.count_table import read_count_table, with_conditions_of
from tabrel.core.entry.count_writing import count_table_text
from tabrel.core.entry.table_text import read_table
from tabrel.core.errors import ReadingTextError
from tabrel.core.stopping import StoppedError, stop_when
from tabrel.core.study.model import BlankCounts, CountInterval, Counts

DOWN = "size um(c)\tupstream\tdownstream\n4\t9000\t8000\n10\t4000\t900\n20\t900\t12\n"


def faults(text, **choices):
    return [(fault.line, fault.column, fault.words) for fault in read_count_table(text, TableChoices(**choices)).faults]


def test_sizes_down_make_one_interval_sorted_by_size():
    result = read_count_table("size um(c);up;down\n20;900;12\n4;9000;8000\n10;4000;900\n")
    assert result.counts == Counts("um(c)", sizes_um=(4, 10, 20), intervals=(CountInterval((9000, 4000, 900), (8000, 900, 12)),))
    assert [heading.words for heading in result.headings] == ["size", "upstream", "downstream"]


@pytest.mark.parametrize(
    "text",
    [
        DOWN,
        DOWN.replace("\t", ";"),
        DOWN.replace("\t", ","),
        DOWN.replace("\t", "   "),
        "| size um(c) | upstream | downstream |\n| 4 | 9000 | 8000 |\n| 10 | 4000 | 900 |\n| 20 | 900 | 12 |",
        "# a note\n\nReport 12\n" + DOWN,
        DOWN.replace("size um(c)", "Particle size ≥ µm(c)")
        .replace("upstream", "Before filter")
        .replace("downstream", "After filter"),
        DOWN.replace("\n4\t", "\n≥ 4 µm(c)\t"),
        "row,upstream 4 um(c),upstream 10,upstream 20,downstream 4,downstream 10,downstream 20\n1,9000,4000,900,8000,900,12\n",
        "up > 4 µm(c)\tup > 10 µm(c)\tup > 20 µm(c)\tdown > 4\tdown > 10\tdown > 20\n9000\t4000\t900\t8000\t900\t12\n",
        DOWN.replace("9000", "9 000").replace("4000", "4.0E3"),
    ],
)
def test_one_test_in_many_forms_is_the_same(text):
    computed = read_count_table(text)
    assert (computed.faults, computed.questions) == ((), ())
    assert computed.counts == read_count_table(DOWN).counts


def test_intervals_by_time_conditions_and_a_blank():
    text = (
        "Test flow;30 L/min\nlaboratory;own\nupstream_ml;10\ncoincidence limit;8000\nremark;none\n"
        "time (s);Δp (bar);dust injected (mg);size um(c);upstream;downstream\n"
        "300;0,12;2100;4;900;800\n300;0,12;2100;10;400;90\n300;0,12;2100;20;90;1\n"
        "600;0,15;4200;4;910;790\n600;0,15;4200;10;410;91\n600;0,15;4200;20;91;2\n"
        "blank;;;4;3;4\nblank;;;10;1;1\nblank;;;20;0;0\n"
    )
    collected = read_count_table(text)
    assert collected.faults == ()
    assert any("'remark'" in sentence for sentence in collected.notes)
    counts = collected.counts
    assert (counts.flow_l_min, counts.source, counts.upstream_ml, counts.coincidence_per_ml) == (30, "own", 10, 8000)
    assert counts.intervals[1] == CountInterval((910, 410, 91), (790, 91, 2), 10.0, 15.0, 4.2)
    assert counts.blank == BlankCounts((3, 1, 0), (4, 1, 0))


def test_a_number_that_can_be_read_two_ways_is_asked_and_nothing_is_taken_before():
    text = "size um(c)\tup\tdown\n4\t41.230\t9.120\n10\t20.110\t3.000\n20\t1.900\t10\n"
    asked = read_count_table(text)
    assert asked.counts is None
    (question,) = asked.questions
    assert question.key == "decimal"
    assert [value for value, _ in question.answers] == [",", "."]
    assert read_count_table(text, TableChoices(decimal=",")).counts.intervals[0].upstream == (41230, 20110, 1900)
    assert "no whole number" in faults(text, decimal=".")[0][2]


def test_one_cell_that_decides_is_enough():
    # 4,5 has a decimal comma, so that 41.230 is forty-one thousand
    outcome = read_count_table("size um(c)\tup\tdown\n4,5\t41.230\t9.120\n10\t20.110\t3.000\n20\t1.900\t10\n")
    assert outcome.counts.sizes_um == (4.5, 10, 20)
    assert outcome.counts.intervals[0].downstream == (9120, 3000, 10)


def test_a_scale_that_nobody_names_is_asked():
    text = DOWN.replace(" um(c)", " (µm)")
    assert [question.key for question in read_count_table(text).questions] == ["scale"]
    assert read_count_table(text, TableChoices(scale="unnamed")).counts.scale == "unnamed"
    assert read_count_table("scale\tum(b)\n" + text).counts.scale == "um(b)"
    assert "choose one of um(c)" in faults("scale\tinches\n" + DOWN)[0][2]


@pytest.mark.parametrize(
    ("text", "line", "column", "words"),
    [
        (DOWN.replace("4000", "9500"), 3, 1, "counts cannot rise with size"),
        (DOWN.replace("4000", "-4000"), 3, 1, "below zero"),
        (DOWN.replace("4000", "4l00"), 3, 1, "'4l00' is no number"),
        (DOWN.replace("4000", "4000.5"), 3, 1, "no whole number"),
        (DOWN.replace("4000", ""), 3, 1, "nothing is given upstream at 10 µm"),
        (DOWN.replace("\n900\t", "\n").replace("20\t900\t12", "20\t900"), 4, None, "holds 2 cells, the headings 3"),
        (DOWN.replace("20\t900", "20\t0").replace("\t12", "\t0"), 4, 1, "zero particles were counted upstream at 20 µm"),
        (DOWN.replace("10\t4000\t900\n", ""), 1, None, "2 sizes are given, and a curve needs 3"),
        (DOWN.replace("10\t", "ten\t"), 3, 0, "'ten' is no size"),
        (DOWN.replace("10\t4", "-10\t4"), 3, 0, "not above zero"),
        ("time\t" + DOWN.replace("\n", "\n5\t").removesuffix("5\t"), 1, 0, "names no unit"),
        (DOWN.replace("upstream", "upstream /mL"), 1, 1, "is a concentration"),
        ("size um(c)\tup\tdown\tafter\n4\t9\t8\t8\n10\t5\t4\t4\n20\t3\t1\t1\n", 1, 3, "means the same as"),
        ("test flow\t30\n" + DOWN, 1, 1, "names no unit: write test flow like 30 L/min"),
        (
            "time (min)\tsize um(c)\tup\tdown\n5\t4\t9\t8\n5\t10\t5\t4\n5\t20\t3\t1\n4\t4\t9\t8\n4\t10\t5\t4\n4\t20\t3\t1\n",
            5, 0, "is not after 5 min before it",
        ),
        (
            "time (min)\tsize um(c)\tup\tdown\n5\t4\t9\t8\n5\t10\t5\t4\n5\t20\t3\t1\n6\t4\t9\t8\n6\t15\t5\t4\n6\t20\t3\t1\n",
            5, 1, "the sizes are 4, 15, 20, before 4, 10, 20",
        ),
        (
            "upstream 4 um(c),upstream 10,upstream 20,downstream 4,downstream 10\n9,5,3,8,4\n",
            1, 2, "20 µm is counted upstream and not",
        ),
    ],
)  # fmt: skip
def test_what_cannot_be_is_said_at_its_cell(text, line, column, words):
    actual = read_count_table(text)
    assert actual.counts is None
    assert any((fault.line, fault.column) == (line, column) and words in fault.words for fault in actual.faults), actual.faults


def test_what_is_right_in_a_table_at_fault_is_still_there():
    answer = read_count_table(DOWN.replace("4000", "4l00"))
    assert [row.cells for row in answer.table.rows][1] == ("4", "9000", "8000")
    assert len(answer.faults) == 1


@pytest.mark.parametrize("text", ["", "\n \n", "no table at all", "size,upstream\n4,9\n"])
def test_what_is_no_table_of_counts_is_one_sentence(text):
    ((line, column, words),) = faults(text)
    assert (line, column) == (None, None)
    assert ":" in words


def test_numbers_that_contradict_each_other_are_refused():
    with pytest.raises(ReadingTextError, match="write all numbers one way"):
        read_table("a\tb\n1,5\t2.5\n")
    with pytest.raises(ReadingTextError, match="thin it out"):
        read_table("\n".join(["1\t2"] * 100_001))


def test_a_caution_of_spreadsheets_is_taken_off():
    assert read_table("a;b\n'-25;'=x\n").rows[1].cells == ("-25", "=x")


SIZES = st.lists(st.integers(1, 60), min_size=3, max_size=9, unique=True).map(sorted)


@st.composite
def counted(draw):
    sizes = draw(SIZES)

    def falling():
        return tuple(sorted(draw(st.lists(st.integers(1, 10**6), min_size=len(sizes), max_size=len(sizes))), reverse=True))

    n = draw(st.integers(1, 4))
    intervals = tuple(CountInterval(falling(), falling(), 2.5 * (i + 1), 10.1 + i, 1.5 * (i + 1), 5.0) for i in range(n))
    blank = draw(st.none() | st.just(BlankCounts((1,) * len(sizes), (0,) * len(sizes))))
    return Counts(
        scale=draw(st.sampled_from(["um(c)", "um(b)", "um", "unnamed"])), sizes_um=tuple(map(float, sizes)), intervals=intervals,
        blank=blank, upstream_ml=10.0, downstream_ml=draw(st.floats(0.1, 100)), dust="ISO 12103-1 A3", tested="2026-03-18",
    )  # fmt: skip


@settings(max_examples=60, deadline=None)
@given(counted())
def test_our_own_layout_is_read_back_as_it_was(counts):
    shown = read_count_table(count_table_text(counts))
    assert (shown.faults, shown.questions) == ((), ())
    back = shown.counts
    assert back.downstream_ml == pytest.approx(counts.downstream_ml, rel=1e-11)
    assert (back.scale, back.sizes_um, back.intervals, back.blank, back.dust, back.tested) == (
        counts.scale, counts.sizes_um, counts.intervals, counts.blank, counts.dust, counts.tested,
    )  # fmt: skip


@settings(max_examples=60, deadline=None)
@given(counted(), st.sampled_from(["\t", ";"]))
def test_a_decimal_comma_says_the_same_as_a_point(counts, divider):
    rows = list(csv.reader(io.StringIO(count_table_text(counts))))
    text = "\n".join(
        divider.join(cell.replace(".", ",") if cell.replace(".", "", 1).isdigit() else cell for cell in row) for row in rows
    )
    result_5 = read_count_table(text)
    if not result_5.questions:  # where every fraction has three digits it is asked
        assert result_5.counts.intervals == counts.intervals


def test_conditions_that_a_table_does_not_name_stay():
    before = Counts("um(c)", flow_l_min=30.0, dust="A3", sizes_um=(1.0, 2.0, 3.0))
    fresh = Counts("um", dust="A2", sizes_um=(4.0, 5.0, 6.0))
    kept = with_conditions_of(fresh, before)
    assert (kept.flow_l_min, kept.dust, kept.scale, kept.sizes_um) == (30.0, "A2", "um", (4.0, 5.0, 6.0))
    assert with_conditions_of(fresh, None) is fresh


def test_a_table_that_is_too_large_is_refused_before_it_is_read():
    wide = "\n".join("\t".join(["7"] * 1_001) for _ in range(3))
    assert faults(wide) == [(None, None, "line 1 has 1,001 cells, more than 1,000: leave columns out")]
    long = "\n".join("\t".join(["7"] * 1_000) for _ in range(801))
    assert faults(long) == [(None, None, "the table has more than 800,000 cells: thin it out, or leave columns out")]


def test_headings_are_looked_for_at_the_beginning_only():
    ((line, column, words),) = faults("1;2;3\n" * 30_000)
    assert (line, column) == (None, None)
    assert words.startswith("no headings were found in the first 60 lines")


@pytest.mark.parametrize(
    "body",
    [
        "".join(f"{k},x,y\n" for k in range(1, 5_000)),
        "".join(f"{k},7\n" for k in range(1, 5_000)),
        "".join(f"{k},{k},{k}\n" for k in range(1, 5_000)),
    ],
)
def test_of_many_faults_the_first_are_named(body):
    result = read_count_table("# scale um(c)\nscale,um(c)\nsize,upstream,downstream\n" + body)
    assert 1 <= len(result.faults) <= 51
    assert result.counts is None


def test_faults_end_with_a_word_that_there_are_more():
    result = read_count_table("scale,um(c)\nsize,upstream,downstream\n" + "".join(f"{k},x,7\n" for k in range(1, 500)))
    assert result.faults[-1].words == "no further faults were looked for: correct these first"


@pytest.mark.parametrize(
    ("text", "words"),
    [
        (f"size,upstream,downstream\n4,{'9' * 5_000},1\n6,2,1\n10,2,1", "no number"),
        ("size,upstream,downstream\n4,9999999999999999,1\n6,2,1\n10,2,1", "more than any counter counts"),
        (f'size,upstream,downstream\n4,"{"9" * 200_000}",1', "check its quotes"),
        (f"fluid,{'x' * 500}\nsize,upstream,downstream\n4,3,1\n6,2,1\n10,2,1", "500 letters long"),
    ],
    ids=["digits", "too many", "quoted", "condition"],
)
def test_a_cell_that_is_far_too_long_is_one_sentence(text, words):
    ((_, _, said),) = faults(text, scale="um(c)")
    assert words in said
    assert len(said) < 300


def test_reading_stops_where_nobody_waits():
    def read():
        stop_when(lambda: True)
        return read_count_table("size,upstream,downstream\n4,3,1\n6,2,1\n10,2,1")

    with pytest.raises(StoppedError):
        copy_context().run(read)

"""The journal: every change can be undone and redone, and nothing is lost on the way."""

from __future__ import annotations

import json
import random
from dataclasses import replace

import pytest

from builders import everything, study
from tabrel.core.details.details import with_sample_detail, with_study_detail
from tabrel.core.study.model import Claim, Counts, Cut, HoleGroup, HoleReadings, Reading, Sample
from tabrel.document.study_document import read_study, study_to_json
from tabrel.store.connection import connect, transaction
from tabrel.store.entry.holes import hole_group_ids, insert_hole_group, load_hole_groups, remove_hole_group, update_hole_group
from tabrel.store.entry.readings import confirm, insert_reading, set_aside, set_state, use_again
from tabrel.store.journal import (
    JOURNALED,
    belongs_to_sample,
    history,
    last_change,
    next_undone,
    recorded,
    redo,
    undo,
)
from tabrel.store.migrate import open_database
from tabrel.store.parts import OF_SAMPLE
from tabrel.store.sample.claims import insert_claim, remove_claim, set_stale
from tabrel.store.sample.samples import (
    insert_sample,
    load_sample,
    load_samples,
    next_position,
    set_cut,
    set_observation,
    update_sample_details,
)
from tabrel.store.study.studies import insert_study, load_study, update_study_details


def undo_last(conn, study_id, sample_id):
    change = last_change(conn, study_id, sample_id)
    undo(conn, change)
    return change


def redo_next(conn, study_id, sample_id):
    change = next_undone(conn, study_id, sample_id)
    redo(conn, change)
    return change


@pytest.fixture
def conn(tmp_path):
    open_database(tmp_path / "study.db")
    connection = connect(tmp_path / "study.db")
    yield connection
    connection.close()


@pytest.fixture
def stored(conn):
    with transaction(conn):
        study_id = insert_study(conn, read_study(json.dumps(everything())))
    return study_id, load_samples(conn, study_id)[0].id


def document(conn, study_id):
    return study_to_json(load_study(conn, study_id))


def add_reading(conn, study_id, sample_id):
    insert_reading(conn, "can.height", Reading("97 mm", note="again", taken_at="2026-11-25T08:00:00.000Z"), sample_id=sample_id)


def reading_id(conn, sample_id, key="can.height"):
    return conn.execute(
        "SELECT id FROM reading WHERE sample_id = ? AND quantity_key = ? ORDER BY position", (sample_id, key)
    ).fetchone()["id"]


def strike(conn, study_id, sample_id):
    set_aside(conn, reading_id(conn, sample_id), "slipped")


def set_aside_and_use_again(conn, study_id, sample_id):
    strike(conn, study_id, sample_id)
    use_again(conn, reading_id(conn, sample_id))


def confirm_reading(conn, study_id, sample_id):
    confirm(conn, reading_id(conn, sample_id))


def state(conn, study_id, sample_id):
    set_state(conn, sample_id, "gasket.mass", "lost")
    set_state(conn, sample_id, "gasket.mass", "not_applicable")


def see(conn, study_id, sample_id):
    set_observation(conn, sample_id, "anti_drain.material", "nitrile")
    set_observation(conn, sample_id, "can.grip", "fluted")


def detail(conn, study_id, sample_id):
    sample = load_sample(conn, sample_id).sample
    for key, text in (("sample.label", "P"), ("sample.price", "4 USD"), ("sample.stated_bypass", "12 psi"), ("sample.maker", "")):
        sample = with_sample_detail(sample, key, text)
    update_sample_details(conn, sample_id, sample)


def study_detail(conn, study_id, sample_id):
    whole = load_study(conn, study_id)
    for key, text in (
        ("study.intended_uses", "towing"),
        ("engine.stud_bore", "12 mm"),
        ("engine.adapter_holes", "2 x slot 9 x 4 mm"),
    ):
        whole = with_study_detail(whole, key, text, "metric")
    update_study_details(conn, study_id, whole)


def no_adapter(conn, study_id, sample_id):
    update_study_details(conn, study_id, with_study_detail(load_study(conn, study_id), "engine.adapter_holes", "", "metric"))


def add_holes(conn, study_id, sample_id):
    position = len(load_hole_groups(conn, "inlet", sample_id))
    insert_hole_group(conn, "inlet", position, HoleGroup("round", 3, HoleReadings(("5 mm",))), sample_id=sample_id)


def change_holes(conn, study_id, sample_id):
    group = load_hole_groups(conn, "inlet", sample_id)[1]
    points = ((0.0, 0.0), (5.0, 0.0), (5.0, 5.0))
    changed = replace(group, count=2, open_fraction=0.25, readings=replace(group.readings, points_mm=points))
    update_hole_group(conn, hole_group_ids(conn, sample_id)["inlet"][1], changed)


def remove_holes(conn, study_id, sample_id):
    remove_hole_group(conn, sample_id, "inlet", 0, hole_group_ids(conn, sample_id)["inlet"][0])


def claims(conn, study_id, sample_id):
    made = insert_claim(conn, sample_id, Claim("words", "page", wording="lasts longer"))
    set_stale(conn, made, "redrawn")
    remove_claim(conn, made - 1)


def cut(conn, study_id, sample_id):
    set_cut(conn, sample_id, Cut("roller cutter", "2026-11-25T08:00:00.000Z", "near the plate"))


def count(conn, study_id, sample_id):
    counts = load_sample(conn, sample_id).sample.counts
    OF_SAMPLE.set(conn, sample_id, "counts", replace(counts, sizes_um=(5.0, 10.0)))


def remove_counts(conn, study_id, sample_id):
    OF_SAMPLE.set(conn, sample_id, "counts", None)
    OF_SAMPLE.set(conn, sample_id, "counts", Counts("um(c)", dust="A2"))


OPERATIONS = [
    add_reading, strike, set_aside_and_use_again, confirm_reading, state, see, detail, study_detail, no_adapter,
    add_holes, change_holes,
    remove_holes, claims, cut, count, remove_counts,
]  # fmt: skip


@pytest.mark.parametrize("operation", OPERATIONS, ids=lambda operation: operation.__name__)
def test_a_change_is_taken_back_and_put_again(conn, stored, operation):
    before = document(conn, stored[0])
    with recorded(conn, *stored, "something", "place"):
        operation(conn, *stored)
    after = document(conn, stored[0])
    assert last_change(conn, *stored).words == "something"
    with transaction(conn):
        assert undo_last(conn, *stored).place == "place"
    assert document(conn, stored[0]) == before
    with transaction(conn):
        redo_next(conn, *stored)
    assert document(conn, stored[0]) == after


@pytest.mark.parametrize("seed", range(6))
def test_any_sequence_of_changes_is_taken_back_step_by_step(conn, stored, seed):
    dice = random.Random(seed)
    states = [document(conn, stored[0])]
    for _ in range(12):
        scope = dice.choice([stored[1], None])
        with recorded(conn, stored[0], scope, "step", "place"):
            dice.choice([add_reading, strike, see, state, detail, study_detail, add_holes, claims])(conn, *stored)
        states.append(document(conn, stored[0]))
    for expected in reversed(states[:-1]):
        with transaction(conn):
            undo_last(conn, *stored)
        assert document(conn, stored[0]) == expected
    assert last_change(conn, *stored) is None
    for expected in states[1:]:
        with transaction(conn):
            redo_next(conn, *stored)
        assert document(conn, stored[0]) == expected
    assert next_undone(conn, *stored) is None


def test_something_new_after_an_undo_ends_the_way_back(conn, stored):
    for text in ("a", "b"):
        with recorded(conn, *stored, text, "place"):
            add_reading(conn, *stored)
    with transaction(conn):
        undo_last(conn, *stored)
    assert next_undone(conn, *stored).words == "b"
    with recorded(conn, *stored, "c", "place"):
        see(conn, *stored)
    assert next_undone(conn, *stored) is None
    with transaction(conn):
        assert undo_last(conn, *stored).words == "c"
        assert undo_last(conn, *stored).words == "a"
    for words in ("a", "c"):  # the ways back of both; the one left behind before "c" is none
        with transaction(conn):
            assert next_undone(conn, *stored).words == words
            redo_next(conn, *stored)
    assert next_undone(conn, *stored) is None


def test_another_samples_changes_stay_where_they_are(conn, stored):
    study_id, first = stored
    with recorded(conn, study_id, None, "second sample", "sample.label") as change_id:
        second = insert_sample(conn, study_id, next_position(conn, study_id), Sample("second"))
        belongs_to_sample(conn, change_id, second)
    with recorded(conn, study_id, second, "on the second", "can.height"):
        add_reading(conn, study_id, second)
    with recorded(conn, study_id, first, "on the first", "can.height"):
        add_reading(conn, study_id, first)
    assert last_change(conn, study_id, first).words == "on the first"
    assert last_change(conn, study_id, second).words == "on the second"
    with transaction(conn):
        undo_last(conn, study_id, second)
        undo_last(conn, study_id, second)
    assert [sample.id for sample in load_samples(conn, study_id)] == [first]
    with transaction(conn):
        redo_next(conn, study_id, second)
        redo_next(conn, study_id, second)
    assert load_sample(conn, second).sample.readings["can.height"][0].text == "97 mm"


def test_what_is_not_recorded_leaves_no_trace_and_a_failed_change_none_either(conn, stored):
    rows = conn.execute("SELECT COUNT(*) FROM change_row").fetchone()[0]
    assert rows == 0  # the import was no change at the bench

    def fails():
        with recorded(conn, *stored, "fails", "place"):
            add_reading(conn, *stored)
            raise RuntimeError

    before = document(conn, stored[0])
    with pytest.raises(RuntimeError):
        fails()
    assert document(conn, stored[0]) == before
    assert last_change(conn, *stored) is None
    with transaction(conn):
        add_reading(conn, *stored)
    assert conn.execute("SELECT COUNT(*) FROM change_row").fetchone()[0] == 0


def test_the_history_of_a_reading_stays_after_it_was_restored_and_taken_back(conn, stored):
    row = reading_id(conn, stored[1])
    for words, work in (("set aside: wet", strike), ("used again", lambda c, s, x: use_again(c, row))):
        with recorded(conn, *stored, words, "can.height"):
            work(conn, *stored)
    with transaction(conn):
        undo_last(conn, *stored)
    assert [(words, undone) for words, _, undone in history(conn, "reading", row)] == [
        ("set aside: wet", False),
        ("used again", True),
    ]


def test_every_table_of_a_study_is_journaled_with_every_column(conn, stored):
    tables = {row["name"] for row in conn.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    assert tables - {
        "change",
        "change_row",
        "recording",
        "revision",
        "identity",
        "stored_result",
        "sqlite_sequence",
        "kept_engine",
        "template",
        "date_code_rule",
        "preference",
        "issued_report",
        "report_number",
    } == set(JOURNALED)
    for table in JOURNALED:
        columns = {row["name"] for row in conn.execute("SELECT name FROM pragma_table_info(?)", (table,))}
        for event in ("insert", "update", "delete"):
            sql = conn.execute("SELECT sql FROM sqlite_master WHERE name = ?", (f"journal_{table}_{event}",)).fetchone()["sql"]
            assert all(f"'{column}'" in sql for column in columns), (table, event)


def test_a_plain_study_comes_back_equal_after_a_change_and_its_undo(conn):
    whole = study()
    with transaction(conn):
        study_id = insert_study(conn, whole)
    sample_id = load_samples(conn, study_id)[0].id
    with recorded(conn, study_id, sample_id, "x", "y"):
        add_reading(conn, study_id, sample_id)
    with transaction(conn):
        undo_last(conn, study_id, sample_id)
    assert load_study(conn, study_id) == whole

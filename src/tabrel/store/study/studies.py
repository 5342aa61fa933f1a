"""Whole studies: list, import, load."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass, replace

from tabrel.core.study.model import FORMAT, VERSION, Study
from tabrel.core.study.uses import with_labels_of
from tabrel.store.circuit.circuits import circuit_statements, load_circuit, set_circuit
from tabrel.store.connection import inserted_id
from tabrel.store.entry.typed_numbers import set_typed_numbers, typed_numbers, typed_statement
from tabrel.store.errors import NotStoredError
from tabrel.store.gather import Asked, Reader, gathered
from tabrel.store.parts import OF_STUDY
from tabrel.store.rows import built
from tabrel.store.sample.samples import SampleName, Status, insert_sample, load_samples
from tabrel.store.study.arithmetic import SELECT_LINES, add_lines, load_lines
from tabrel.store.study.plans import (
    SELECT_DUTY_CYCLES,
    SELECT_SCENARIOS,
    load_duty_cycles,
    load_scenarios,
    save_duty_cycle,
    save_scenario,
)
from tabrel.store.study.uses import SELECT_USES, insert_uses, load_uses


@dataclass(frozen=True)
class StudyRow:
    """A study in the list of studies; counts are of the samples in use."""

    id: int
    name: str
    question: str | None
    status: Status
    created_at: str
    changed_at: str
    sample_count: int
    cut_count: int
    reading_count: int


SELECT_STUDIES = """
SELECT study.id, study.name, study.question, study.status, study.created_at,
       COALESCE((SELECT MAX(MAX(made_at), COALESCE(MAX(undone_at), '')) FROM change WHERE change.study_id = study.id),
                study.created_at) AS changed_at,
       (SELECT COUNT(*) FROM sample WHERE sample.study_id = study.id AND sample.status = 'in_use') AS sample_count,
       (SELECT COUNT(*) FROM sample
        WHERE sample.study_id = study.id AND sample.status = 'in_use' AND sample.cut_method IS NOT NULL) AS cut_count,
       (SELECT COUNT(*) FROM sample JOIN reading ON reading.sample_id = sample.id
        WHERE sample.study_id = study.id AND sample.status = 'in_use' AND reading.set_aside_at IS NULL)
       + (SELECT COUNT(*) FROM sample JOIN hole_group ON hole_group.sample_id = sample.id
          JOIN reading ON reading.hole_group_id = hole_group.id
          WHERE sample.study_id = study.id AND sample.status = 'in_use' AND reading.set_aside_at IS NULL) AS reading_count
FROM study ORDER BY study.id
"""


def list_studies(conn: sqlite3.Connection) -> list[StudyRow]:
    """Return every study, archived and deleted ones too, oldest first."""
    return [StudyRow(**dict(row)) for row in conn.execute(SELECT_STUDIES)]


INSERT_STUDY = """
INSERT INTO study (name, question, intended_uses, price_class, interval_school)
VALUES (:name, :question, :intended_uses, :price_class, :interval_school)
"""


def insert_study(conn: sqlite3.Connection, study: Study) -> int:
    """Store a whole study and return its id; the caller opens the transaction."""
    study_id = inserted_id(conn.execute(INSERT_STUDY, _study_row(study)))
    OF_STUDY.insert(conn, study_id, replace(study, circuit=None))
    set_circuit(conn, study_id, study.circuit)
    for position, sample in enumerate(study.samples):
        insert_sample(conn, study_id, position, sample)
    for scenario in study.scenarios:
        save_scenario(conn, study_id, scenario)
    for cycle in study.duty_cycles:
        save_duty_cycle(conn, study_id, cycle)
    conn.execute(SET_REFERENCE, {"id": study_id, "reference": study.reference})
    insert_uses(conn, study_id, study.uses)
    add_lines(conn, study_id, study.arithmetic)
    set_typed_numbers(conn, study.as_typed, study_id=study_id)
    return study_id


def _study_row(study: Study) -> dict[str, str | None]:
    return {name: getattr(study, name) for name in ("name", "question", "intended_uses", "price_class", "interval_school")}


UPDATE_STUDY = """
UPDATE study SET name = :name, question = :question, intended_uses = :intended_uses, price_class = :price_class,
                 interval_school = :interval_school WHERE id = :id
"""
SET_REFERENCE = """
UPDATE study SET reference_sample_id = (SELECT id FROM sample WHERE study_id = :id AND label = :reference) WHERE id = :id
"""


def update_study_details(conn: sqlite3.Connection, study_id: int, study: Study) -> None:
    """Change what of a study, its engine, its oil and its plan has one value at a time."""
    conn.execute(UPDATE_STUDY, {"id": study_id, **_study_row(study)})
    conn.execute(SET_REFERENCE, {"id": study_id, "reference": study.reference})
    set_circuit(conn, study_id, study.circuit)
    OF_STUDY.set(conn, study_id, "oil", study.oil)
    OF_STUDY.set(conn, study_id, "warm_up", study.warm_up)
    set_typed_numbers(conn, study.as_typed, study_id=study_id)


SET_STUDY_STATUS = "UPDATE study SET status = :status WHERE id = :id"


def set_study_status(conn: sqlite3.Connection, study_id: int, status: Status) -> None:
    """Put a study away, delete it, or put it back; everything of it stays.

    Raises
    ------
    NotStoredError
        If there never was such a study.
    """
    if not conn.execute(SET_STUDY_STATUS, {"id": study_id, "status": status}).rowcount:
        raise NotStoredError(f"there is no study {study_id}: go back to the list of studies")


SELECT_EVERY_SAMPLE = "SELECT id, study_id, label, maker, part_number, status FROM sample ORDER BY study_id, position"


def samples_by_study(conn: sqlite3.Connection) -> dict[int, list[SampleName]]:
    """Return what all samples are called, archived and deleted ones too, by study."""
    collected: dict[int, list[SampleName]] = {}
    for row in conn.execute(SELECT_EVERY_SAMPLE):
        collected.setdefault(row["study_id"], []).append(built(SampleName, row))
    return collected


SELECT_WHOLE_DATABASE = """
SELECT sample.id AS id, sample.study_id AS study_id, sample.label AS label, sample.maker AS maker,
       sample.part_number AS part_number, study.name AS study_name
FROM sample JOIN study ON study.id = sample.study_id
WHERE sample.status <> 'deleted' AND study.status <> 'deleted' ORDER BY sample.id
"""


@dataclass(frozen=True)
class EverySample:
    """A sample of any study, archived ones too."""

    id: int
    study_id: int
    label: str
    maker: str | None
    part_number: str | None
    study_name: str


def every_sample(conn: sqlite3.Connection) -> list[EverySample]:
    """Return every sample of the database that was not deleted."""
    return [built(EverySample, row) for row in conn.execute(SELECT_WHOLE_DATABASE)]


SELECT_OTHER_SAMPLES = """
SELECT sample.id AS sample_id, sample.label AS label, sample.maker AS maker, sample.part_number AS part_number,
       study.name AS study
FROM sample JOIN study ON study.id = sample.study_id
WHERE sample.study_id <> :study_id AND sample.status = 'in_use' AND study.status <> 'deleted'
  AND instr(lower(sample.label || ' ' || COALESCE(sample.maker, '') || ' ' || COALESCE(sample.part_number, '') || ' '
                  || study.name), lower(:words)) > 0
ORDER BY sample.study_id DESC, sample.position LIMIT :most
"""


@dataclass(frozen=True)
class OtherSample:
    """A sample of another study."""

    sample_id: int
    label: str
    maker: str | None
    part_number: str | None
    study: str


def samples_of_other_studies(conn: sqlite3.Connection, study_id: int, words: str, most: int) -> list[OtherSample]:
    """Return samples of other studies in whose label, maker, part number or study the words stand, the latest studies first."""
    rows = conn.execute(SELECT_OTHER_SAMPLES, {"study_id": study_id, "words": words, "most": most})
    return [built(OtherSample, row) for row in rows]


SELECT_STUDY = """
SELECT name, question, intended_uses, price_class, interval_school, status,
       (SELECT label FROM sample WHERE sample.id = study.reference_sample_id) AS reference
FROM study WHERE id = :id
"""


def load_study(conn: Reader, study_id: int) -> Study:
    """Return a whole study.

    Raises
    ------
    NotStoredError
        If there is no such study.
    """
    samples = tuple(stored.sample for stored in load_samples(conn, study_id))
    frame = load_study_frame(conn, study_id)
    # a sample that was deleted and can be put back is still spoken of in the rows
    uses = with_labels_of(frame.uses, [sample.label for sample in samples])
    return replace(frame, samples=samples, uses=uses)


def frame_statements(study_id: int) -> list[Asked]:
    """Return what loading a study without its samples asks."""
    asked = (SELECT_SCENARIOS, SELECT_DUTY_CYCLES, SELECT_USES, SELECT_LINES)
    return [
        (SELECT_STUDY, {"id": study_id}),
        *circuit_statements(study_id),
        *((sql, {"study_id": study_id}) for sql in asked),
        typed_statement(study_id=study_id),
    ]


def load_study_frame(conn: Reader, study_id: int) -> Study:
    """Return a study without its samples.

    Raises
    ------
    NotStoredError
        If there is no such study, or it was deleted.
    """
    conn = gathered(conn, frame_statements(study_id))
    row = conn.execute(SELECT_STUDY, {"id": study_id}).fetchone()
    if row is None:
        raise NotStoredError(f"there is no study {study_id}: go back to the list of studies")
    if row["status"] == "deleted":
        raise NotStoredError(f"there is no study {row['name']!r} any more, it was deleted: put it back in the list of studies")
    return Study(
        format=FORMAT,
        version=VERSION,
        name=row["name"],
        question=row["question"],
        reference=row["reference"],
        intended_uses=row["intended_uses"],
        price_class=row["price_class"],
        interval_school=row["interval_school"],
        scenarios=tuple(stored.scenario for stored in load_scenarios(conn, study_id)),
        duty_cycles=load_duty_cycles(conn, study_id),
        uses=load_uses(conn, study_id),
        arithmetic=tuple(stored.line for stored in load_lines(conn, study_id)),
        as_typed=typed_numbers(conn, study_id=study_id),
        **{**OF_STUDY.of(conn, study_id), "circuit": load_circuit(conn, study_id)},
    )

"""Oil and engine of a study, the engine library, and the check at the hot point."""

from __future__ import annotations

import sqlite3
from dataclasses import replace

from fastapi import APIRouter, Response

from tabrel.api.change.bench import Bench
from tabrel.api.change.models import ChangedOut
from tabrel.api.circuit.models import (
    EngineIn,
    EngineLinesOut,
    EngineNameIn,
    EngineOut,
    LibraryEngineOut,
    OilIn,
    OilLineIn,
    OilLineOut,
    OilPointOut,
)
from tabrel.api.deps import Connection, EngineId, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.stale import EVERY_ENGINE, name_stale, naming
from tabrel.api.wire import NothingIn
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.circuit.engine_library import ENGINES
from tabrel.core.circuit.hot_point import HotPoint, circuit_problem, hot_point
from tabrel.core.details.details import DETAILS
from tabrel.core.details.kinds import detail_text
from tabrel.core.details.library_engine import engine_lines, with_library_engine
from tabrel.core.details.oil_rows import OilRow, with_oil_points, with_oil_rows
from tabrel.core.errors import MissingInputsError, OutOfRangeError, ReadingTextError, StudyError, nearest_hint
from tabrel.core.oil.grades import GRADES, grade_oil
from tabrel.core.oil.viscosity_line import OilLine, oil_line, with_moved_point
from tabrel.core.rules.study import check_circuit, check_oil
from tabrel.core.study.model import Circuit, Oil, Study, ViscosityPoint
from tabrel.core.study.number_keys import typed_at
from tabrel.document.study_document import circuit_from_json, circuit_to_json
from tabrel.store.circuit.circuits import load_circuit, set_circuit
from tabrel.store.circuit.engines import remove_engine, save_engine, saved_engines
from tabrel.store.connection import snapshot, transaction
from tabrel.store.entry.typed_numbers import set_typed_numbers
from tabrel.store.parts import OF_STUDY
from tabrel.store.revisions import revision_of
from tabrel.store.sample.samples import load_sample, study_of_sample
from tabrel.store.study.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["engine"], responses=PROBLEM_RESPONSES)


@router.get("/samples/{sample_id}/engine")
def get_engine(sample_id: SampleId, conn: Connection) -> EngineOut:
    """Return oil and engine of a sample's study, with the sample fitted for the check at the hot point."""
    with snapshot(conn):
        stored = load_sample(conn, sample_id)
        study = load_study_frame(conn, stored.study_id)
        oil_revision = revision_of(conn, stored.study_id, sample_id, "oil")
    problem = circuit_problem(study)
    point: HotPoint | None = None
    missing: tuple[str, ...] = ()
    if problem is None:
        try:
            point = hot_point(study, stored.sample)
        except MissingInputsError as error:
            missing = error.keys
    return EngineOut(
        oil=_line_out(oil_line(study.oil), study) if study.oil else None,
        oil_revision=oil_revision,
        grades=list(GRADES),
        hot_point=point,
        missing=list(missing),
        problem=problem.message if problem else None,
        library=_library(conn),
    )


def _line_out(line: OilLine, study: Study | None = None) -> OilLineOut:
    """Return a line; of a study's own, with its points as they were typed."""

    def typed(point: ViscosityPoint, *names: str) -> str | None:
        if study is None or study.oil is None or point not in study.oil.viscosity:
            return None
        item = f"viscosity[{study.oil.viscosity.index(point)}]"
        generator = (typed_at("study", study.as_typed, ("oil", item, name)) for name in names)
        return next((typed_number.text for typed_number in generator if typed_number), None)

    return OilLineOut(
        temperature_c=line.temperature.tolist(),
        kinematic_mm2_s=(line.kinematic * 1e6).tolist(),
        dynamic_mpa_s=(line.dynamic * 1e3).tolist(),
        density_kg_m3=line.density.tolist(),
        points=[
            OilPointOut(
                temperature_c=point.temperature,
                stated=point.stated.dynamic_mpa_s or point.stated.kinematic_mm2_s or 0.0,
                kinematic_mm2_s=point.kinematic * 1e6,
                dynamic_mpa_s=point.dynamic * 1e3,
                is_dynamic=point.is_dynamic,
                high_shear=point.high_shear,
                typed_temperature=typed(point.stated, "temperature_c"),
                typed_viscosity=typed(point.stated, "kinematic_mm2_s", "dynamic_mpa_s"),
            )
            for point in line.points
        ],
        coldest_point_c=line.points[0].temperature,
        warmest_point_c=line.points[-1].temperature,
        coldest_pumping_c=line.coldest_pumping,
        viscosity=list(line.viscosity),
    )


@router.post("/oil/line")
def post_oil_line(given: OilLineIn) -> OilLineOut:
    """Return the line of an oil that is only looked at, such as one whose point is being dragged."""
    oil = Oil(given.density_15c_kg_m3, tuple(given.viscosity), None, given.pumping_limit_c)
    if given.moved:
        if given.moved.index >= len(oil.viscosity):
            raise StudyError("moved.index", f"there is no point {given.moved.index}: count from 0")
        oil = with_moved_point(oil, given.moved.index, given.moved.temperature_c, given.moved.kinematic_mm2_s * 1e-6)
    check_oil(oil)
    return _line_out(oil_line(oil))


@router.put("/samples/{sample_id}/oil")
def put_oil(sample_id: SampleId, given: OilIn, bench: Bench) -> ChangedOut:
    """Set the viscosity points of the study's oil, or make it the typical oil of a grade."""
    conn = bench.conn
    with transaction(conn):
        stored = load_sample(conn, sample_id)
        study = load_study_frame(conn, stored.study_id)
        try:
            changed, words = _with_oil(study, given)
            check_oil(changed.oil or grade_oil(given.grade or ""))
        except OutOfRangeError as error:
            raise StudyError("viscosity", str(error)) from error
        except ReadingTextError as error:
            raise StudyError("rows", str(error)) from error
        if (changed.oil, changed.as_typed) == (study.oil, study.as_typed):
            return bench.answer(sample_id, "oil")
        says = "another window has changed the viscosity points meanwhile: look, then change them again"
        bench.require_seen(sample_id, "oil", says)
        with bench.recorded(sample_id, words, "oil.viscosity", of_study=True):
            OF_STUDY.set(conn, stored.study_id, "oil", changed.oil)
            set_typed_numbers(conn, changed.as_typed, study_id=stored.study_id)
    return bench.answer(sample_id, "oil")


def _with_oil(study: Study, given: OilIn) -> tuple[Study, str]:
    """Return the study with the oil that is asked for, and what was done."""
    if given.grade is not None:
        return with_oil_points(study, grade_oil(given.grade, "grade")), f"oil: typical {given.grade}"
    if study.oil is None:
        raise StudyError("viscosity", "there is no oil yet: choose a grade to begin with")
    if given.rows is not None:
        rows = [OilRow(row.temperature, row.viscosity, row.is_dynamic, row.high_shear) for row in given.rows]
        return with_oil_rows(study, study.oil, rows, given.family or "metric"), "viscosity points"
    return with_oil_points(study, replace(study.oil, viscosity=tuple(given.viscosity or ()))), "viscosity points"


def _library(conn: sqlite3.Connection) -> list[LibraryEngineOut]:
    kept = [(engine.id, engine.name, circuit_from_json(engine.document)) for engine in saved_engines(conn)]
    shipped = [(None, name, circuit) for name, circuit in ENGINES.items()]
    return [
        LibraryEngineOut(id=key, name=name, metric=_words(circuit, "metric"), inch=_words(circuit, "inch"))
        for key, name, circuit in (*kept, *shipped)
    ]


def _words(circuit: Circuit, family: UnitFamily) -> str:
    """Return an engine in a few words, its numbers in one family."""

    def told(key: str, value: float | None) -> str | None:
        return detail_text(DETAILS[key], value, family)

    words = []
    if displacement := told("engine.pump_displacement", circuit.pump_displacement_cm3_rev):
        words.append(f"pump {displacement}")
    if circuit.regulator:
        opening = told("engine.regulator_opening", circuit.regulator.opening_kpa)
        words.append(f"regulator {opening}, senses at {circuit.regulator.sense or 'pump'}")
    if circuit.engine:
        words.append(f"hot gallery {told('engine.gallery', circuit.engine.gallery_kpa)} at {circuit.engine.speed_rpm:g} rpm")
    if circuit.stud:
        words.append(f"stud {told('engine.stud_bore', circuit.stud.bore_mm)}")
    return ", ".join(words) or "nothing stated yet"


def _library_engine(conn: sqlite3.Connection, name: str) -> Circuit:
    kept = {engine.name: circuit_from_json(engine.document) for engine in saved_engines(conn)}
    known = {**ENGINES, **kept}
    if name not in known:
        raise StudyError("name", f"{name!r} is no engine of the library{nearest_hint(name, known)}: choose one of it")
    return known[name]


@router.post("/samples/{sample_id}/engine/preview")
def post_engine_preview(sample_id: SampleId, given: EngineNameIn, conn: Connection) -> EngineLinesOut:
    """Return every line that an engine of the library would change; nothing is changed yet."""
    stored = load_sample(conn, sample_id)
    study = load_study_frame(conn, stored.study_id)
    lines = engine_lines(study, _library_engine(conn, given.name))
    return EngineLinesOut(
        name=given.name,
        lines=list(lines),
        revision=revision_of(conn, stored.study_id, sample_id, ENGINE_FACTS),
    )


ENGINE_FACTS = "details/engine.*"
"""Things that an engine of the library may change."""


@router.put("/samples/{sample_id}/engine")
def put_engine(sample_id: SampleId, given: EngineIn, bench: Bench) -> ChangedOut:
    """Give the study an engine of the library, but for the lines that are kept; the study has its own copy from then on."""
    conn = bench.conn
    with transaction(conn):
        stored = load_sample(conn, sample_id)
        study = load_study_frame(conn, stored.study_id)
        engine = _library_engine(conn, given.name)
        says = "another window has changed the engine meanwhile: look what would change now, then take it"
        bench.require_seen(sample_id, ENGINE_FACTS, says)
        try:
            changed = with_library_engine(study, engine, given.keep)
        except ReadingTextError as error:
            raise StudyError("keep", str(error)) from error
        if changed.circuit:
            check_circuit(changed.circuit)
        with bench.recorded(sample_id, f"engine: {given.name}", "engine.name", of_study=True):
            set_circuit(conn, stored.study_id, changed.circuit)
            set_typed_numbers(conn, changed.as_typed, study_id=stored.study_id)
    return bench.answer(sample_id, ENGINE_FACTS)


@router.post("/samples/{sample_id}/engine/save", responses=naming(200))
def post_save_engine(sample_id: SampleId, _: NothingIn, conn: Connection, response: Response) -> EngineOut:
    """Save the study's engine in the library under its name, for other studies."""
    with transaction(conn):
        circuit = load_circuit(conn, study_of_sample(conn, sample_id))
        if circuit is None or not (circuit.name or "").strip():
            raise StudyError("engine.name", "the engine has no name yet: type one, then save it")
        if circuit.name in ENGINES:
            raise StudyError("engine.name", f"{circuit.name!r} is an engine that is shipped: give yours a name of its own")
        check_circuit(circuit)
        save_engine(conn, circuit.name or "", circuit_to_json(circuit))
    name_stale(response, [EVERY_ENGINE])
    return get_engine(sample_id, conn)


@router.delete("/engines/{engine_id}", status_code=204, responses=naming(204))
def delete_engine(engine_id: EngineId, _: NothingIn, conn: Connection, response: Response) -> None:
    """Remove an engine from the library; studies keep their own copy."""
    with transaction(conn):
        remove_engine(conn, engine_id)
    name_stale(response, [EVERY_ENGINE])

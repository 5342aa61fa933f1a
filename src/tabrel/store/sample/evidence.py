"""Counts, benches, photographs and what was found in use of a sample, and the like of a study: parts of the study document."""

from __future__ import annotations

import sqlite3
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter

from tabrel.core.study.evidence import BypassBench, Counts, FlowBench, Photograph
from tabrel.core.study.in_use import (
    BypassState,
    Captured,
    ChangeInterval,
    FilterChange,
    Finding,
    GaugeLog,
    OdometerReading,
    OwnInstrument,
    Remark,
    Service,
    StatedInterval,
    TypicalTables,
    UnfilteredOpening,
    UsedStrip,
    Weighing,
)
from tabrel.core.study.model import Sample, Study
from tabrel.store.gather import Reader
from tabrel.store.understood import understood

_ADAPTERS: dict[str, TypeAdapter[Any]] = {
    "counts": TypeAdapter(Counts),
    "flow_bench": TypeAdapter(tuple[FlowBench, ...]),
    "bypass_bench": TypeAdapter(BypassBench),
    "photographs": TypeAdapter(tuple[Photograph, ...]),
    "change_interval": TypeAdapter(ChangeInterval),
    "remarks": TypeAdapter(tuple[Remark, ...]),
    "service": TypeAdapter(Service),
    "weighings": TypeAdapter(tuple[Weighing, ...]),
    "captured": TypeAdapter(Captured),
    "strip": TypeAdapter(UsedStrip),
    "findings": TypeAdapter(tuple[Finding, ...]),
    "openings": TypeAdapter(tuple[UnfilteredOpening, ...]),
    "bypass_state": TypeAdapter(BypassState),
}
"""By the field of the sample."""

_STUDY_ADAPTERS: dict[str, TypeAdapter[Any]] = {
    "intervals": TypeAdapter(tuple[StatedInterval, ...]),
    "severe_conditions": TypeAdapter(tuple[str, ...]),
    "odometer": TypeAdapter(tuple[OdometerReading, ...]),
    "changes": TypeAdapter(tuple[FilterChange, ...]),
    "gauge_logs": TypeAdapter(tuple[GaugeLog, ...]),
    "instruments": TypeAdapter(tuple[OwnInstrument, ...]),
    "typical": TypeAdapter(TypicalTables),
}
"""By the field of the study."""

INSERT_EVIDENCE = "INSERT INTO evidence (sample_id, kind, document) VALUES (:sample_id, :kind, :document)"
SELECT_EVIDENCE = "SELECT kind, document FROM evidence WHERE sample_id = :sample_id"


def insert_evidence(conn: sqlite3.Connection, sample_id: int, sample: Sample) -> None:
    """Store what tests, benches and photographs say of a sample."""
    for kind, adapter in _ADAPTERS.items():
        if held := getattr(sample, kind):
            document = adapter.dump_json(held, exclude_none=True, by_alias=True).decode()
            conn.execute(INSERT_EVIDENCE, {"sample_id": sample_id, "kind": kind, "document": document})


INSERT_STUDY_PART = "INSERT INTO study_part (study_id, kind, document) VALUES (:study_id, :kind, :document)"
SELECT_STUDY_PARTS = "SELECT kind, document FROM study_part WHERE study_id = :study_id"


def insert_study_parts(conn: sqlite3.Connection, study_id: int, study: Study) -> None:
    """Store intervals, odometer, changes, gauge logs and instruments of a study."""
    for kind, adapter in _STUDY_ADAPTERS.items():
        if held := getattr(study, kind):
            document = adapter.dump_json(held, exclude_none=True, by_alias=True).decode()
            conn.execute(INSERT_STUDY_PART, {"study_id": study_id, "kind": kind, "document": document})


def study_parts(conn: Reader, study_id: int) -> dict[str, Any]:
    """Return what is stored of a study in parts, by the field of the study."""
    rows = conn.execute(SELECT_STUDY_PARTS, {"study_id": study_id})
    return {row["kind"]: _parsed(row["kind"], row["document"]) for row in rows}


DELETE_EVIDENCE = "DELETE FROM evidence WHERE sample_id = :sample_id AND kind = :kind"
UPDATE_EVIDENCE = "UPDATE evidence SET document = :document WHERE sample_id = :sample_id AND kind = :kind"


def set_counts(conn: sqlite3.Connection, sample_id: int, counts: Counts | None) -> None:
    """Keep the counts of a sample's test in place of those there were; None removes them."""
    named = {"sample_id": sample_id, "kind": "counts"}
    if counts is None:
        conn.execute(DELETE_EVIDENCE, named)
        return
    document = _ADAPTERS["counts"].dump_json(counts, exclude_none=True).decode()
    if conn.execute(UPDATE_EVIDENCE, {**named, "document": document}).rowcount == 0:
        conn.execute(INSERT_EVIDENCE, {**named, "document": document})


def evidence_of(conn: Reader, sample_id: int) -> dict[str, Any]:
    """Return what tests, benches and photographs say of a sample, by the field of the sample."""
    rows = conn.execute(SELECT_EVIDENCE, {"sample_id": sample_id})
    return {row["kind"]: _parsed(row["kind"], row["document"]) for row in rows}


@lru_cache(maxsize=64)
def _parsed(kind: str, document: str) -> Any:
    """Return a part of a document; it is frozen, and a long test is read several times in one change."""
    return understood((_ADAPTERS | _STUDY_ADAPTERS)[kind], document, "a part of a study or a sample")

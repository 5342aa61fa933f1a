"""What a study or a sample has one of, or one list of: each a part of the study document, in a row with one JSON column."""

from __future__ import annotations

import sqlite3
from collections.abc import Mapping
from functools import cached_property, lru_cache
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
from tabrel.core.study.model import Circuit, Oil, Sample, Study
from tabrel.core.study.plans import WarmUpPlan
from tabrel.core.study.report_plan import ReportPlan
from tabrel.store.gather import Reader
from tabrel.store.understood import understood, written


class Parts:
    """The parts of a study, or of a sample, by the field that they are.

    Parameters
    ----------
    table : str
        Of the rows.
    owner : str
        Column of what has them.
    types : mapping
        Of the parts, by field.
    """

    def __init__(self, table: str, owner: str, types: Mapping[str, Any]) -> None:
        where = f"WHERE {owner} = :{owner}"
        self.owner = owner
        self.select = f"SELECT kind, document FROM {table} {where}"
        self._insert = f"INSERT INTO {table} ({owner}, kind, document) VALUES (:{owner}, :kind, :document)"
        self._update = f"UPDATE {table} SET document = :document {where} AND kind = :kind"
        self._delete = f"DELETE FROM {table} {where} AND kind = :kind"
        self._types = types

    @cached_property
    def _forms(self) -> dict[str, TypeAdapter[Any]]:
        return {kind: TypeAdapter(held) for kind, held in self._types.items()}

    def document(self, kind: str, held: Any) -> str | None:
        """Return a part as it is stored; None where it holds nothing."""
        return written(self._forms[kind], held) if held and held != ReportPlan() else None

    def set(self, conn: sqlite3.Connection, owner_id: int, kind: str, held: Any) -> None:
        """Store a part in place of what it was; one that holds nothing is removed, the same again changes nothing."""
        there = {row["kind"]: row["document"] for row in conn.execute(self.select, {self.owner: owner_id})}
        document, named = self.document(kind, held), {self.owner: owner_id, "kind": kind}
        if document == there.get(kind):
            return
        if document is None:
            conn.execute(self._delete, named)
        else:
            conn.execute(self._update if kind in there else self._insert, {**named, "document": document})

    def insert(self, conn: sqlite3.Connection, owner_id: int, owner: Study | Sample) -> None:
        """Store every part of a study or sample that is new."""
        for kind in self._types:
            if document := self.document(kind, getattr(owner, kind)):
                conn.execute(self._insert, {self.owner: owner_id, "kind": kind, "document": document})

    def of(self, conn: Reader, owner_id: int) -> dict[str, Any]:
        """Return the parts that are stored, by field."""
        rows = conn.execute(self.select, {self.owner: owner_id})
        return {row["kind"]: self._parsed(row["kind"], row["document"]) for row in rows}

    def one(self, conn: Reader, owner_id: int, kind: str) -> Any:
        """Return one part, or None."""
        rows = conn.execute(self.select, {self.owner: owner_id})
        return next((self._parsed(kind, row["document"]) for row in rows if row["kind"] == kind), None)

    @lru_cache(maxsize=64)  # noqa: B019  of two that stay
    def _parsed(self, kind: str, document: str) -> Any:
        """Return a part as it was; it is frozen, and a long test is read several times in one change."""
        return understood(self._forms[kind], document, "a part of a study or a sample")


OF_SAMPLE = Parts(
    "evidence",
    "sample_id",
    {
        "counts": Counts,
        "flow_bench": tuple[FlowBench, ...],
        "bypass_bench": BypassBench,
        "photographs": tuple[Photograph, ...],
        "change_interval": ChangeInterval,
        "remarks": tuple[Remark, ...],
        "service": Service,
        "weighings": tuple[Weighing, ...],
        "captured": Captured,
        "strip": UsedStrip,
        "findings": tuple[Finding, ...],
        "openings": tuple[UnfilteredOpening, ...],
        "bypass_state": BypassState,
    },
)
OF_STUDY = Parts(
    "study_part",
    "study_id",
    {
        "oil": Oil,
        "circuit": Circuit,
        "warm_up": WarmUpPlan,
        "report": ReportPlan,
        "intervals": tuple[StatedInterval, ...],
        "severe_conditions": tuple[str, ...],
        "odometer": tuple[OdometerReading, ...],
        "changes": tuple[FilterChange, ...],
        "gauge_logs": tuple[GaugeLog, ...],
        "instruments": tuple[OwnInstrument, ...],
        "typical": TypicalTables,
    },
)
"""A circuit is stored without the holes of its adapter, which are rows of their own with readings; see `circuit.circuits`."""

"""Counts, benches and photographs of a sample, each a part of the study document."""

from __future__ import annotations

import sqlite3
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter

from tabrel.core.study.evidence import BypassBench, Counts, FlowBench, Photograph
from tabrel.core.study.model import Sample
from tabrel.store.gather import Reader
from tabrel.store.understood import understood

_ADAPTERS: dict[str, TypeAdapter[Any]] = {
    "counts": TypeAdapter(Counts),
    "flow_bench": TypeAdapter(tuple[FlowBench, ...]),
    "bypass_bench": TypeAdapter(BypassBench),
    "photographs": TypeAdapter(tuple[Photograph, ...]),
}
"""By the field of the sample."""

INSERT_EVIDENCE = "INSERT INTO evidence (sample_id, kind, document) VALUES (:sample_id, :kind, :document)"
SELECT_EVIDENCE = "SELECT kind, document FROM evidence WHERE sample_id = :sample_id"


def insert_evidence(conn: sqlite3.Connection, sample_id: int, sample: Sample) -> None:
    """Store what tests, benches and photographs say of a sample."""
    for kind, adapter in _ADAPTERS.items():
        if held := getattr(sample, kind):
            document = adapter.dump_json(held, exclude_none=True).decode()
            conn.execute(INSERT_EVIDENCE, {"sample_id": sample_id, "kind": kind, "document": document})


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
    return understood(_ADAPTERS[kind], document, "the tests of a sample")

"""Results that stay, so that lists and comparisons read rows instead of computing.

A result rests on its sample, on oil and engine of its study, and on the method. The first two have revisions, which every change,
undo and redo raises; the version of the method is made of the sources that compute. A result is read only where all of them are
what they were when it was computed.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterable
from functools import lru_cache
from hashlib import sha256
from importlib.metadata import version
from importlib.resources import files
from importlib.resources.abc import Traversable
from typing import Literal

from tabrel.store.connection import transaction
from tabrel.store.errors import DatabaseFaultError, fault_of
from tabrel.store.revisions import CONTENT, OF_STUDY

Kind = Literal["summary", "behaviour", "numbers"]

SELECT_BASES = """
SELECT sample.id AS sample_id, COALESCE(own.revision, 0) AS of_sample, COALESCE(study.revision, 0) AS of_study
FROM sample
LEFT JOIN revision AS own ON own.study_id = sample.study_id AND own.sample_id = sample.id AND own.thing = :content
LEFT JOIN revision AS study ON study.study_id = sample.study_id AND study.sample_id = :of_study AND study.thing = :content
WHERE sample.id IN (SELECT value FROM json_each(:sample_ids))
"""
SELECT_RESULTS = """
SELECT sample_id, basis, document FROM stored_result
WHERE kind = :kind AND sample_id IN (SELECT value FROM json_each(:sample_ids))
"""
KEEP_RESULT = """
INSERT INTO stored_result (sample_id, kind, basis, document) VALUES (:sample_id, :kind, :basis, :document)
ON CONFLICT (sample_id, kind) DO UPDATE SET basis = excluded.basis, document = excluded.document
"""


@lru_cache
def method_version() -> str:
    """Return a digest of everything that computes: the core, how its results are told, and the libraries it stands on."""
    digest = sha256()
    for package in ("core", "document"):
        for name, content in _sources(files("tabrel").joinpath(package), package):
            digest.update(f"{name}\n".encode() + content)
    for library in ("numpy", "scipy", "uncertainties", "pydantic"):
        digest.update(f"{library} {version(library)}\n".encode())
    return digest.hexdigest()[:16]


def _sources(folder: Traversable, name: str) -> Iterable[tuple[str, bytes]]:
    for entry in sorted(folder.iterdir(), key=lambda traversable: traversable.name):
        if entry.is_dir():
            yield from _sources(entry, f"{name}/{entry.name}")
        elif entry.name.endswith(".py"):
            yield f"{name}/{entry.name}", entry.read_bytes()


def bases_of(conn: sqlite3.Connection, sample_ids: Iterable[int]) -> dict[int, str]:
    """Return what a result of each sample rests on now."""
    named = {"content": CONTENT, "of_study": OF_STUDY, "sample_ids": json.dumps(list(sample_ids))}
    return {
        row["sample_id"]: f"{row['of_sample']}/{row['of_study']}/{method_version()}" for row in conn.execute(SELECT_BASES, named)
    }


def stored_results(conn: sqlite3.Connection, kind: Kind, bases: dict[int, str]) -> dict[int, str]:
    """Return the results that are kept and rest on what is there now, by sample."""
    rows = conn.execute(SELECT_RESULTS, {"kind": kind, "sample_ids": json.dumps(list(bases))})
    return {row["sample_id"]: row["document"] for row in rows if row["basis"] == bases[row["sample_id"]]}


def keep_results(conn: sqlite3.Connection, kind: Kind, bases: dict[int, str], documents: dict[int, str]) -> None:
    """Keep results, but for those whose basis has changed since they were computed; where nothing can be written, none.

    Parameters
    ----------
    conn : sqlite3.Connection
    kind : str
    bases : dict
        What was there when they were computed, by sample, read at the same moment.
    documents : dict
        By sample.
    """
    if not documents:
        return
    try:
        with transaction(conn):
            now = bases_of(conn, documents)
            for sample_id, document in documents.items():
                if now.get(sample_id) == bases[sample_id]:
                    named = {"sample_id": sample_id, "kind": kind, "basis": bases[sample_id], "document": document}
                    conn.execute(KEEP_RESULT, named)
    except DatabaseFaultError:
        return  # they are computed again next time
    except sqlite3.Error as error:
        if fault_of(error) is None:
            raise

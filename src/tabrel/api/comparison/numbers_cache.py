"""The numbers of every sample of the database as rows, read again only where a sample has changed."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from threading import Lock

import numpy as np
from numpy.typing import NDArray

from tabrel.core.judge.percentiles import MEASURES, numbers_of, row_of
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.store.circuit.circuits import load_circuit
from tabrel.store.identity import identity_of
from tabrel.store.sample.samples import load_sample
from tabrel.store.sample.stored_results import bases_of, keep_results, stored_results

FloatArray = NDArray[np.float64]

MOST_AT_ONCE = 60
"""So many samples that nobody has looked at yet are computed at a time."""


class NumbersCache:
    """Rows of numbers by sample, each with what it rests on; shared by the threads of one server."""

    def __init__(self) -> None:
        self._rows: dict[int, tuple[str, FloatArray]] = {}
        self._database = ""
        self._lock = Lock()

    def table(self, conn: sqlite3.Connection, sample_ids: Sequence[int], first: int) -> tuple[list[int], FloatArray, int]:
        """Return the numbers of samples, those of `first` among them.

        Parameters
        ----------
        conn : sqlite3.Connection
        sample_ids : sequence of int
        first : int
            Is computed before all others.

        Returns
        -------
        ids : list of int
        table : ndarray, shape (len(ids), len(MEASURES))
            NaN where a number is not known.
        remaining : int
            How many samples are still to be computed: ask again.
        """
        bases, database = bases_of(conn, sample_ids), identity_of(conn)
        with self._lock:
            if database != self._database:  # a copy was put back: its samples may carry the same numbers
                self._rows, self._database = {}, database
            rows = {number: row for number, (basis, row) in self._rows.items() if bases.get(number) == basis}
        unread = {number: basis for number, basis in bases.items() if number not in rows}
        if unread:
            fresh = {number: row_of(json.loads(text)) for number, text in stored_results(conn, "numbers", unread).items()}
            lacking = sorted((number for number in unread if number not in fresh), key=lambda number: number != first)
            fresh |= _computed(conn, lacking[:MOST_AT_ONCE], bases)
            rows |= fresh
            with self._lock:
                self._rows |= {number: (bases[number], row) for number, row in fresh.items()}
        ids = [number for number in sample_ids if number in rows]
        table = np.stack([rows[number] for number in ids]) if ids else np.empty((0, len(MEASURES)))
        return ids, table, len(sample_ids) - len(ids)


def _computed(conn: sqlite3.Connection, ids: Sequence[int], bases: dict[int, str]) -> dict[int, FloatArray]:
    """Compute the numbers of some samples, and keep them in the database."""
    collected = {}
    for sample_id in ids:
        stored = load_sample(conn, sample_id)
        collected[sample_id] = numbers_of(measure_sample(stored.sample, load_circuit(conn, stored.study_id)))
    keep_results(
        conn,
        "numbers",
        {number: bases[number] for number in collected},
        {number: json.dumps(row) for number, row in collected.items()},
    )
    return {number: row_of(numbers) for number, numbers in collected.items()}

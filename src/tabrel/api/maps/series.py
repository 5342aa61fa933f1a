"""Series to compare: the samples of a study, or one sample as it is and in each scenario."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from tabrel.core.circuit.operating_point import AS_IT_IS
from tabrel.core.errors import StudyError
from tabrel.core.study.plans import Scenario
from tabrel.store.sample.samples import StoredSample, load_sample, load_samples
from tabrel.store.study.plans import load_scenarios


@dataclass(frozen=True)
class Series:
    """A sample in one scenario; its key is the sample's id, or the ids of sample and scenario."""

    key: str
    label: str
    stored: StoredSample
    scenario: Scenario


def samples_side_by_side(conn: sqlite3.Connection, study_id: int, scenario: Scenario) -> list[Series]:
    """Return every sample of a study that is in use, all in the same scenario."""
    return [
        Series(str(stored.id), stored.sample.label, stored, scenario) for stored in load_samples(conn, study_id, archived=False)
    ]


def scenarios_side_by_side(conn: sqlite3.Connection, study_id: int, sample_id: int) -> list[Series]:
    """Return one sample as it is and in each saved scenario."""
    stored = load_sample(conn, sample_id)
    kept = [(stored_scenario.id, stored_scenario.scenario) for stored_scenario in load_scenarios(conn, study_id)]
    every = [(0, AS_IT_IS), *kept]
    return [Series(f"{sample_id}-{key}", scenario.name, stored, scenario) for key, scenario in every]


def series_of_keys(conn: sqlite3.Connection, study_id: int, keys: list[str], scenario: Scenario) -> list[Series]:
    """Return the series that keys name.

    Raises
    ------
    StudyError
        If a key names none of this study.
    """
    known = {series.key: series for series in samples_side_by_side(conn, study_id, scenario)}
    for sample in list(known):
        if any(key.startswith(f"{sample}-") for key in keys):
            known |= {series.key: series for series in scenarios_side_by_side(conn, study_id, int(sample))}
    for key in keys:
        if key not in known:
            raise StudyError("keys", f"{key!r} names no sample of this study and no scenario of it: load the view again")
    return [known[key] for key in keys]

"""Samples of other studies that are put beside those of one."""

from __future__ import annotations

import sqlite3
from typing import Annotated

from fastapi import Query

from tabrel.core.errors import StudyError
from tabrel.store.sample.samples import study_of_sample

MOST_OTHERS = 20

OtherSamples = Annotated[
    list[int], Query(description="Samples of other studies to be put beside these.", max_length=MOST_OTHERS, examples=[[7]])
]


def other_study(conn: sqlite3.Connection, study_id: int, sample_id: int) -> int:
    """Return the study of a sample that is put beside those of one.

    Raises
    ------
    StudyError
        If it is a sample of that study itself.
    NotStoredError
        If it was deleted.
    """
    other = study_of_sample(conn, sample_id)
    if other == study_id:
        raise StudyError("others", f"sample {sample_id} is one of this study: it has its column")
    return other

from __future__ import annotations

from growth import SAMPLES_OF_A_STUDY, fill_workshop

from tabrel.store.connection import connect
from tabrel.store.study.studies import load_study


def test_the_workshop_that_is_measured_can_be_made_of_the_demo(tmp_path):
    fill_workshop(tmp_path / "workshop.db", 2)
    conn = connect(tmp_path / "workshop.db")
    try:
        assert [len(load_study(conn, study).samples) for study in (1, 2)] == [SAMPLES_OF_A_STUDY] * 2
    finally:
        conn.close()

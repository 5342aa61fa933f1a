"""Slices through the maps of several samples with their bands, sent line by line so that they can be stopped."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import numpy as np
from fastapi import APIRouter
from fastapi.responses import StreamingResponse
from numpy.typing import NDArray

from tabrel.api.circuit_answers import SliceBandOut, SliceLineOut, SliceProblemOut, SliceProgressOut
from tabrel.api.circuit_requests import SliceIn
from tabrel.api.deps import Connection
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.core.draws import random_quantiles
from tabrel.core.errors import MissingInputsError, StudyError, TabrelError
from tabrel.core.monte_carlo import DRAWS, Band, OnsetInterval, Progress, drawn_problem, onset_interval, quantity_band
from tabrel.core.operating_map import check_axes
from tabrel.core.operating_point import AS_IT_IS
from tabrel.core.plan_checks import check_scenario
from tabrel.core.study import Sample, Study
from tabrel.document.results import row_out
from tabrel.store.samples import load_sample
from tabrel.store.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["slices"], responses=PROBLEM_RESPONSES)

FloatArray = NDArray[np.float64]

SLICE_TEMPERATURES = np.linspace(-40.0, 140.0, 40)
SLICE_SPEEDS = np.linspace(600.0, 7000.0, 40)

SLICE_UNITS: dict[str, tuple[str, float]] = {
    "element_pressure": ("kpa", 1e-3),
    "filter_pressure": ("kpa", 1e-3),
    "gallery_pressure": ("kpa", 1e-3),
    "gauge_excess": ("kpa", 1e-3),
    "filter_flow": ("l_min", 60e3),
    "unfiltered_fraction": ("percent", 100.0),
    "regulator_fraction": ("percent", 100.0),
    "media_fraction": ("percent", 100.0),
    "lift": ("mm", 1e3),
}
"""Unit on the wire and factor from SI, by quantity."""

STREAM: dict[int | str, dict[str, Any]] = {200: {"model": SliceLineOut, "description": "Lines of JSON, each a SliceLineOut"}}


@router.post("/studies/{study_id}/slices", responses=STREAM, response_class=StreamingResponse)
def post_slices(study_id: int, asked: SliceIn, conn: Connection) -> StreamingResponse:
    """Return slices with 95 % bands as lines of JSON: progress, then the band, sample by sample."""
    study = load_study_frame(conn, study_id)
    stored = [load_sample(conn, sample_id) for sample_id in asked.sample_ids]
    if any(one.study_id != study_id for one in stored):
        raise StudyError("sample_ids", "one of the samples belongs to another study: choose samples of this one")
    check_axes(*(([20.0], [asked.at]) if asked.along == "temperature" else ([asked.at], [1000.0])))
    check_scenario("scenario", asked.scenario or AS_IT_IS)

    def lines() -> Iterator[bytes]:
        for one in stored:
            for line in _slice_of(study, one.sample, one.id, asked):
                yield SliceLineOut(line=line).model_dump_json().encode() + b"\n"

    return StreamingResponse(lines(), media_type="application/x-ndjson")


def _slice_of(
    study: Study, sample: Sample, sample_id: int, asked: SliceIn
) -> Iterator[SliceProgressOut | SliceBandOut | SliceProblemOut]:
    along = SLICE_TEMPERATURES if asked.along == "temperature" else SLICE_SPEEDS
    other = np.full(len(along), asked.at)
    temperature, speed = (along, other) if asked.along == "temperature" else (other, along)
    try:
        problem = drawn_problem(
            study,
            sample,
            quantiles=random_quantiles(DRAWS),
            condition=asked.condition,
            scenario=asked.scenario or AS_IT_IS,
        )
        for step in quantity_band(problem, temperature, speed, asked.quantity):
            if isinstance(step, Progress):
                yield SliceProgressOut(kind="progress", sample_id=sample_id, done=step.done, total=step.total)
            else:
                onset_speed = asked.at if asked.along == "temperature" else float(np.median(along))
                yield _band_out(sample_id, along, step, asked.quantity, onset_interval(problem, onset_speed))
    except TabrelError as error:
        missing = list(error.keys) if isinstance(error, MissingInputsError) else []
        yield SliceProblemOut(kind="problem", sample_id=sample_id, message=str(error), missing=missing)


def _band_out(sample_id: int, along: FloatArray, band: Band, quantity: str, onset: OnsetInterval) -> SliceBandOut:
    unit, factor = SLICE_UNITS[quantity]
    return SliceBandOut(
        kind="band",
        sample_id=sample_id,
        along=along.tolist(),
        value=row_out(band.value * factor),
        low=row_out(band.low * factor),
        middle=row_out(band.middle * factor),
        high=row_out(band.high * factor),
        unit=unit,
        draws=band.draws,
        impossible=band.impossible,
        onset_c=onset.value,
        onset_low_c=onset.low,
        onset_high_c=onset.high,
        shut_percent=100 * onset.shut_share,
    )

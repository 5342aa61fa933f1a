"""Slices through the maps of several samples with their bands, sent line by line so that they can be stopped."""

from __future__ import annotations

from collections.abc import Iterator
from concurrent.futures import as_completed
from concurrent.futures.process import BrokenProcessPool
from typing import Any

import numpy as np
from fastapi import APIRouter, Request
from fastapi.responses import StreamingResponse
from numpy.typing import NDArray

from tabrel.api.deps import Connection, StudyId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.maps.series import Series, series_of_keys
from tabrel.api.maps.slice_models import SliceBandOut, SliceIn, SliceLineOut, SliceProblemOut, SliceProgressOut
from tabrel.api.turns import HEAVY
from tabrel.api.workers import Workers
from tabrel.core.circuit.operating_point import AS_IT_IS
from tabrel.core.errors import MissingInputsError, TabrelError
from tabrel.core.maps.monte_carlo import DRAWS, Band, OnsetInterval, Progress, onset_interval, quantity_band, sampled_problem
from tabrel.core.maps.operating_map import check_axes
from tabrel.core.maps.quantities import MAP_QUANTITIES, MapQuantityName
from tabrel.core.rules.plans import check_scenario
from tabrel.core.study.model import Study
from tabrel.core.uncertainty.sampling import random_quantiles
from tabrel.document.results import row_out
from tabrel.store.study.studies import load_study_frame

router = APIRouter(prefix="/api", tags=["slices"], responses=PROBLEM_RESPONSES)

FloatArray = NDArray[np.float64]

SLICE_TEMPERATURES = np.linspace(-40.0, 140.0, 40)
SLICE_SPEEDS = np.linspace(600.0, 7000.0, 40)


class Lines(StreamingResponse):
    """Lines of JSON, one after the other as they come."""

    media_type = "application/x-ndjson"


STREAM: dict[int | str, dict[str, Any]] = {200: {"model": SliceLineOut, "description": "Lines of JSON, each a SliceLineOut"}}


@router.post("/studies/{study_id}/slices", dependencies=HEAVY, responses=STREAM, response_class=Lines)
def post_slices(study_id: StudyId, asked: SliceIn, conn: Connection, request: Request) -> StreamingResponse:
    """Return slices with 95 % bands as lines of JSON: progress, then the band, sample by sample, in the order they are done."""
    workers: Workers = request.app.state.workers
    study = load_study_frame(conn, study_id)
    check_axes(*(([20.0], [asked.at]) if asked.along == "temperature" else ([asked.at], [1000.0])))
    check_scenario("scenario", asked.scenario or AS_IT_IS)
    series = series_of_keys(conn, study_id, asked.keys, asked.scenario or AS_IT_IS)

    def lines() -> Iterator[bytes]:
        for one in series:
            for line in _slice_of(study, one, asked):
                yield _told(line)

    return Lines(_side_by_side(workers, study, series, asked) if workers.are_warm and len(series) > 1 else lines())


def _side_by_side(workers: Workers, study: Study, series: list[Series], asked: SliceIn) -> Iterator[bytes]:
    """Yield the lines of each slice as soon as a process has computed it; what is not begun is left when nobody reads on."""
    slices = {workers.submit(_whole_slice, study, one, asked): one.key for one in series}
    try:
        for done in as_completed(slices):
            try:
                yield done.result()
            except BrokenProcessPool:
                workers.forget()
                ended = "the computation was ended from outside: try again"
                yield _told(SliceProblemOut(kind="problem", key=slices[done], message=ended, missing=[]))
    finally:
        for waiting in slices:
            waiting.cancel()


def _whole_slice(study: Study, series: Series, asked: SliceIn) -> bytes:
    """Return the last lines of a slice; called in a process of its own."""
    with np.errstate(all="ignore"):
        told = [line for line in _slice_of(study, series, asked) if not isinstance(line, SliceProgressOut)]
    return b"".join(map(_told, told))


def _told(line: SliceProgressOut | SliceBandOut | SliceProblemOut) -> bytes:
    return SliceLineOut(line=line).model_dump_json().encode() + b"\n"


def _slice_of(study: Study, series: Series, asked: SliceIn) -> Iterator[SliceProgressOut | SliceBandOut | SliceProblemOut]:
    along = SLICE_TEMPERATURES if asked.along == "temperature" else SLICE_SPEEDS
    other = np.full(len(along), asked.at)
    temperature, speed = (along, other) if asked.along == "temperature" else (other, along)
    try:
        problem = sampled_problem(
            study,
            series.stored.sample,
            quantiles=random_quantiles(DRAWS),
            condition=asked.condition,
            scenario=series.scenario,
        )
        for step in quantity_band(problem, temperature, speed, asked.quantity):
            if isinstance(step, Progress):
                yield SliceProgressOut(kind="progress", key=series.key, done=step.done, total=step.total)
            else:
                onset_speed = asked.at if asked.along == "temperature" else float(np.median(along))
                yield _band_out(series.key, along, step, asked.quantity, onset_interval(problem, onset_speed))
    except TabrelError as error:
        missing = list(error.keys) if isinstance(error, MissingInputsError) else []
        yield SliceProblemOut(kind="problem", key=series.key, message=str(error), missing=missing)


def _band_out(key: str, along: FloatArray, band: Band, quantity: MapQuantityName, onset: OnsetInterval) -> SliceBandOut:
    told = MAP_QUANTITIES[quantity]
    factor = told.factor
    return SliceBandOut(
        kind="band",
        key=key,
        along=along.tolist(),
        value=row_out(band.value * factor),
        low=row_out(band.low * factor),
        middle=row_out(band.middle * factor),
        high=row_out(band.high * factor),
        unit=told.unit,
        draws=band.draws,
        impossible=band.impossible,
        onset_c=onset.value,
        onset_low_c=onset.low,
        onset_high_c=onset.high,
        shut_percent=100 * onset.shut_share,
    )

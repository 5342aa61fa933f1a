"""Slices through the maps of several samples with their bands, sent line by line so that they can be stopped."""

from __future__ import annotations

from collections.abc import Iterator
from concurrent.futures import as_completed
from concurrent.futures.process import BrokenProcessPool
from dataclasses import dataclass
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
from tabrel.api.workers import PROCESSES, Workers
from tabrel.core.circuit.operating_point import AS_IT_IS
from tabrel.core.errors import MissingInputsError, TabrelError
from tabrel.core.maps.monte_carlo import (
    DRAWS,
    Band,
    OnsetInterval,
    Progress,
    SampledBand,
    SampledOnset,
    SampledProblem,
    band_of,
    interval_of,
    onset_interval,
    quantity_band,
    sampled_along,
    sampled_onset,
    sampled_problem,
)
from tabrel.core.maps.operating_map import check_axes
from tabrel.core.maps.quantities import MAP_QUANTITIES, MapQuantityName
from tabrel.core.rules.plans import check_scenario
from tabrel.core.study.model import Study
from tabrel.core.uncertainty.sampling import Quantiles, part_of, random_quantiles
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
        for item in series:
            for line in _slice_of(study, item, asked):
                yield _words_of(line)

    return Lines(_side_by_side(workers, study, series, asked) if workers.are_warm else lines())


FEWEST_DRAWS = 250
"""Of a part that a process computes."""


@dataclass(frozen=True)
class _Part:
    """Result of a process for a slice: its line, or its part of the draws."""

    line: SliceBandOut | SliceProblemOut | None = None
    band: SampledBand | None = None
    onset: SampledOnset | None = None


def _side_by_side(workers: Workers, study: Study, series: list[Series], asked: SliceIn) -> Iterator[bytes]:
    """Yield the line of each slice as soon as processes have computed it; what is not begun is left when nobody reads on."""
    series = list({item.key: item for item in series}.values())  # one that is asked for twice is computed once
    parts = _divided(series)
    wanted = {
        workers.submit(_part_of_slice, study, item, asked, part, parts[item.key]): item
        for item in series
        for part in range(parts[item.key])
    }
    collected: dict[str, list[_Part]] = {}
    try:
        for done in as_completed(wanted):
            member = wanted[done]
            try:
                part = done.result()
            except BrokenProcessPool:
                workers.forget()
                ended = "the computation was ended from outside: try again"
                part = _Part(SliceProblemOut(kind="problem", key=member.key, message=ended, missing=[]))
            held = collected.setdefault(member.key, [])
            held.append(part)
            if len(held) < parts[member.key]:
                yield _words_of(SliceProgressOut(kind="progress", key=member.key, done=len(held), total=parts[member.key]))
            else:
                yield _words_of(_merged(member, asked, held))
    finally:
        for waiting in wanted:
            waiting.cancel()


def _divided(series: list[Series]) -> dict[str, int]:
    """Return into how many parts the draws of each slice are divided, so that all processes have as much to do.

    As many slices as go round are computed whole, one in each process, since every part begins with the same work.
    """
    whole = len(series) - len(series) % PROCESSES
    parts = max(1, min(PROCESSES, DRAWS // FEWEST_DRAWS))
    return {item.key: 1 if i < whole else parts for i, item in enumerate(series)}


def _part_of_slice(study: Study, series: Series, asked: SliceIn, part: int, parts: int) -> _Part:
    """Return what a part of the draws makes of a slice; called in a process of its own."""
    temperature, speed, onset_speed = _places(asked)
    try:
        with np.errstate(all="ignore"):
            problem = _problem(study, series, asked, part_of(random_quantiles(DRAWS), part, parts))
            *_, sampled = sampled_along(problem, temperature, speed, asked.quantity)
            assert isinstance(sampled, SampledBand)
            onset = sampled_onset(problem, onset_speed)
            if parts == 1:  # then the draws need not be sent
                return _Part(_line_of(series, asked, [sampled], [onset]))
            return _Part(None, sampled, onset)
    except TabrelError as error:
        return _Part(_refused(series, error))


def _merged(series: Series, asked: SliceIn, parts: list[_Part]) -> SliceBandOut | SliceProblemOut:
    line = next((part.line for part in parts if part.line), None)
    bands, onsets = [part.band for part in parts if part.band], [part.onset for part in parts if part.onset]
    return line or _line_of(series, asked, bands, onsets)


def _line_of(series: Series, asked: SliceIn, bands: list[SampledBand], onsets: list[SampledOnset]) -> SliceBandOut:
    along = SLICE_TEMPERATURES if asked.along == "temperature" else SLICE_SPEEDS
    return _band_out(series.key, along, band_of(bands), asked.quantity, interval_of(onsets))


def _words_of(line: SliceProgressOut | SliceBandOut | SliceProblemOut) -> bytes:
    return SliceLineOut(line=line).model_dump_json().encode() + b"\n"


def _places(asked: SliceIn) -> tuple[FloatArray, FloatArray, float]:
    """Return temperatures [°C] and speeds [rpm] along a slice, and the speed at which its onset is told."""
    along = SLICE_TEMPERATURES if asked.along == "temperature" else SLICE_SPEEDS
    other = np.full(len(along), asked.at)
    temperature, speed = (along, other) if asked.along == "temperature" else (other, along)
    return temperature, speed, asked.at if asked.along == "temperature" else float(np.median(along))


def _problem(study: Study, series: Series, asked: SliceIn, quantiles: Quantiles) -> SampledProblem:
    return sampled_problem(study, series.stored.sample, quantiles=quantiles, condition=asked.condition, scenario=series.scenario)


def _slice_of(study: Study, series: Series, asked: SliceIn) -> Iterator[SliceProgressOut | SliceBandOut | SliceProblemOut]:
    temperature, speed, onset_speed = _places(asked)
    along = temperature if asked.along == "temperature" else speed
    try:
        problem = _problem(study, series, asked, random_quantiles(DRAWS))
        for step in quantity_band(problem, temperature, speed, asked.quantity):
            if isinstance(step, Progress):
                yield SliceProgressOut(kind="progress", key=series.key, done=step.done, total=step.total)
            else:
                yield _band_out(series.key, along, step, asked.quantity, onset_interval(problem, onset_speed))
    except TabrelError as error:
        yield _refused(series, error)


def _refused(series: Series, error: TabrelError) -> SliceProblemOut:
    missing = list(error.keys) if isinstance(error, MissingInputsError) else []
    return SliceProblemOut(kind="problem", key=series.key, message=str(error), missing=missing)


def _band_out(key: str, along: FloatArray, band: Band, quantity: MapQuantityName, onset: OnsetInterval) -> SliceBandOut:
    map_quantity = MAP_QUANTITIES[quantity]
    factor = map_quantity.factor
    return SliceBandOut(
        kind="band",
        key=key,
        along=along.tolist(),
        value=row_out(band.value * factor),
        low=row_out(band.low * factor),
        middle=row_out(band.middle * factor),
        high=row_out(band.high * factor),
        unit=map_quantity.unit,
        draws=band.draws,
        impossible=band.impossible,
        onset_c=onset.value,
        onset_low_c=onset.low,
        onset_high_c=onset.high,
        shut_percent=100 * onset.shut_share,
    )

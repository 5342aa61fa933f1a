"""The operating map of a sample, as the map view draws it."""

from __future__ import annotations

from typing import Annotated, Any, Literal

import numpy as np
from fastapi import APIRouter, Query
from numpy.typing import NDArray

from tabrel.api.answers import LedgerPartOut, OperatingMapOut
from tabrel.api.deps import Connection
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.core.bypass_onset import bypass_onset
from tabrel.core.operating_map import operating_map
from tabrel.core.operating_point import operating_point
from tabrel.document.results import MAP_SCALES, grid_out, onset_out
from tabrel.store.samples import load_sample
from tabrel.store.studies import load_study

router = APIRouter(prefix="/api", tags=["maps"], responses=PROBLEM_RESPONSES)

DRAWN_TEMPERATURES = np.arange(-40.0, 140.1, 2.5)
"""Of the view's grid, so that typed values fall on it. [°C]"""

DRAWN_SPEEDS = np.arange(600.0, 7000.1, 200.0)
"""Of the view's grid. [rpm]"""

CURVE_SPEEDS = np.arange(600.0, 7000.1, 50.0)
"""Of the onset curve, finer than the grid so that its ends are drawn where they are. [rpm]"""

SENT_DIGITS = 5


@router.get("/samples/{sample_id}/map")
def get_map(
    sample_id: int,
    conn: Connection,
    condition: Literal["steady", "filling"] = "steady",
    loading: Annotated[float, Query(gt=0, le=1000, allow_inf_nan=False)] = 1.0,
) -> OperatingMapOut:
    """Return the operating map over the view's grid, with onset curve and ledger."""
    stored = load_sample(conn, sample_id)
    study = load_study(conn, stored.study_id)
    point = operating_point(study, stored.sample, condition=condition, loading=loading)
    with np.errstate(all="ignore"):
        solved = operating_map(point, DRAWN_TEMPERATURES.tolist(), DRAWN_SPEEDS.tolist())
        onset = bypass_onset(point, CURVE_SPEEDS.tolist())
    grids: dict[str, Any] = {
        key: grid_out(_rounded(getattr(solved, name) * factor)) for key, (name, factor) in MAP_SCALES.items()
    }
    return OperatingMapOut.model_construct(
        temperature_c=solved.temperature.tolist(),
        speed_rpm=solved.speed.tolist(),
        **grids,
        onset=onset_out(onset),
        condition=condition,
        lift_mm=grid_out(_rounded(solved.lift * 1e3)),
        ledger=[
            LedgerPartOut.model_construct(
                name=part.name,
                viscous_kpa=grid_out(_rounded(part.viscous / 1e3)),
                inertial_kpa=grid_out(_rounded(part.inertial / 1e3)),
                spring_kpa=part.spring / 1e3,
            )
            for part in solved.ledger
        ],
        left_out=list(point.filter.left_out),
        bypass_location=point.filter.location,
        coldest_pumping_c=point.oil.coldest_pumping(float(DRAWN_TEMPERATURES[0])),
        gauge=point.circuit.gauge,
    )


def _rounded(array: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return the array to five significant digits, which is more than a picture shows and halves the answer."""
    size = np.abs(array)
    with np.errstate(all="ignore"):
        step = 10.0 ** (np.floor(np.log10(size)) - (SENT_DIGITS - 1))
        rounded = np.round(array / step) * step
    return np.where((size > 0) & np.isfinite(size), rounded, array)

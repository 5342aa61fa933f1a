"""What filters do at the points of uses, computed once: another weight, or another way to look, computes nothing again."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Mapping
from dataclasses import replace
from hashlib import sha256
from threading import Lock

from tabrel.core.judge.known import Known
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Study
from tabrel.core.study.uses import Use

MOST_KEPT = 300
"""So many filters at the points of a use are remembered."""


class KnownKept:
    """What is known of filters, by everything it rests on; shared by the threads of one server."""

    def __init__(self) -> None:
        self._known: OrderedDict[str, Mapping[str, Known]] = OrderedDict()
        self._lock = Lock()

    def of(
        self,
        study: Study,
        measured: MeasuredSample,
        points: Use,
        measures: tuple[str, ...],
        draws: int,
        compute: Callable[[], Mapping[str, Known]],
    ) -> Mapping[str, Known]:
        """Return what is known of a filter, computed where nothing of that is remembered."""
        key = _key(study, measured, points, measures, draws)
        with self._lock:
            found = self._known.get(key)
            if found is not None:
                self._known.move_to_end(key)
                return found
        found = compute()
        with self._lock:
            self._known[key] = found
            while len(self._known) > MOST_KEPT:
                self._known.popitem(last=False)
        return found


def _key(study: Study, measured: MeasuredSample, points: Use, measures: tuple[str, ...], draws: int) -> str:
    """Return a digest of what behaviour rests on: the frame of the study, the filter, the points, and what is asked."""
    frame = replace(study, name="", question=None, intended_uses=None, uses=(), samples=(), scenarios=())
    at = (points.temperature_c, points.speed_rpm, points.hot_temperature_c, points.hot_speed_rpm)
    whole = repr((frame, measured.sample, at, sorted(measures), draws))
    return sha256(whole.encode()).hexdigest()

"""Behaviour of filters at the points of uses, computed once: another weight, or another view, computes nothing again."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterable, Mapping
from dataclasses import replace
from functools import partial
from hashlib import sha256
from threading import Lock

from tabrel.core.judge.at_points import sampled_filter
from tabrel.core.judge.known import Known
from tabrel.core.judge.known_filter import known_measures
from tabrel.core.maps.monte_carlo import SampledProblem
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Study
from tabrel.core.study.uses import Use

AT_NO_POINT = Use("")

POINT_FREE: frozenset[str] = frozenset(
    {"minutes_in_bypass", "unfiltered_litres", "element_greatest_kpa", "element_greatest_stuck_kpa"}
)
"""Behaviour over a whole start, or the whole map: the same for every use, and computed once for all of them."""

OF_ONE_START: frozenset[str] = frozenset({"minutes_in_bypass", "unfiltered_litres"})
"""Of one and the same start."""

MOST_KEPT = 300
"""So many filters at the points of a use are remembered."""

MOST_SAMPLED = 12
"""So many filters are kept with their draws, a third of a megabyte each."""


class KnowledgeCache:
    """Knowledge of filters, by everything it rests on; shared by the threads of one server."""

    def __init__(self) -> None:
        self._known: OrderedDict[str, Mapping[str, Known]] = OrderedDict()
        self._turns: dict[str, Lock] = {}
        self._filters: OrderedDict[str, SampledProblem] = OrderedDict()
        self._lock = Lock()

    def of(
        self,
        study: Study,
        measured: MeasuredSample,
        points: Use,
        measures: Iterable[str],
        draws: int,
    ) -> Mapping[str, Known]:
        """Return what is known of a filter in some measures; what of that is not remembered is computed."""
        wanted = set(measures)
        if wanted & OF_ONE_START:  # whoever asks for one has the others for nothing
            wanted |= OF_ONE_START
        anywhere = self._of(study, measured, AT_NO_POINT, wanted & POINT_FREE, draws)
        return {**anywhere, **self._of(study, measured, points, wanted - POINT_FREE, draws)}

    def _of(
        self, study: Study, measured: MeasuredSample, points: Use, measures: Iterable[str], draws: int
    ) -> Mapping[str, Known]:
        measures = tuple(measures)
        key = _key(study, measured, points, draws)
        with self._lock:
            turn = self._turns.setdefault(key, Lock())
        with turn:  # who asks for the same meanwhile waits for it, and computes nothing
            with self._lock:
                known_values = dict(self._known.get(key, {}))
            missing = [measure for measure in measures if measure not in known_values]
            if missing:
                sampled = partial(self._sampled, study, measured, draws)
                known_values |= known_measures(study, measured, points, missing, draws=draws, sampled=sampled)
            with self._lock:
                self._known[key] = known_values
                self._known.move_to_end(key)
                while len(self._known) > MOST_KEPT:
                    gone, _ = self._known.popitem(last=False)
                    self._turns.pop(gone, None)
        # what others asked for is left out: filters of one part number are compared measure by measure
        return {measure: known_values[measure] for measure in measures if measure in known_values}

    def _sampled(self, study: Study, measured: MeasuredSample, draws: int) -> SampledProblem:
        """Return a filter with its draws, which is the same at every point."""
        key = _key(study, measured, AT_NO_POINT, draws)
        with self._lock:
            known = self._filters.get(key)
        problem = known or sampled_filter(study, measured, draws)
        with self._lock:
            self._filters[key] = problem
            self._filters.move_to_end(key)
            while len(self._filters) > MOST_SAMPLED:
                self._filters.popitem(last=False)
        return problem


def _key(study: Study, measured: MeasuredSample, points: Use, draws: int) -> str:
    """Return a digest of what is known rests on: the frame of the study, the filter, and the points."""
    frame = replace(
        study, name="", question=None, intended_uses=None, uses=(), samples=(), scenarios=(), arithmetic=(), report=None
    )
    at = replace(points, name="", criteria=(), requirements=(), verdicts=(), tier=None, bypass_not_asked=None, ranked_by=None)
    whole = repr((frame, measured.sample, measured.capacity_ratio, at, draws))
    return sha256(whole.encode()).hexdigest()

"""Inputs that the maps of a sample still need, as the sheet lists them."""

from __future__ import annotations

from collections.abc import Iterable

from tabrel.api.sample.models import NeedsOut, OpenNeedOut, OpenWayOut
from tabrel.core.review.needs import OpenNeed, needs_of_maps
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Study


def needs_out(study: Study, measured: MeasuredSample) -> NeedsOut:
    """Return what the map of the filter alone and that in the engine need."""
    alone, engine = needs_of_maps(study, measured)
    return NeedsOut(filter_alone=_words_of(alone), map=_words_of(engine))


def _words_of(needs: Iterable[OpenNeed]) -> list[OpenNeedOut]:
    return [
        OpenNeedOut(
            title=need.title,
            group=need.group,
            ways=[
                OpenWayOut(title=way.way.title, keys=list(way.way.keys), left=list(way.left), entries=way.entries)
                for way in need.ways
            ],
        )
        for need in needs
    ]

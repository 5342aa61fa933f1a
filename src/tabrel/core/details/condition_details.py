"""The conditions of a counted test as details of a sample."""

from __future__ import annotations

from dataclasses import replace

from tabrel.core.catalogue.conditions import CONDITIONS
from tabrel.core.circuit.dirt_loading import TERMINAL_RATIO
from tabrel.core.counts.counted_test import RATIO_UNCERTAINTY, SIZE_UNCERTAINTY
from tabrel.core.details.detail import Detail
from tabrel.core.details.places import number_at
from tabrel.core.study.model import Counts, Sample
from tabrel.core.study.number_keys import number_places, with_typed_at


def with_counts(sample: Sample, counts: Counts | None) -> Sample:
    """Return a sample with the counts of its test set; what was typed of conditions that are now others is dropped."""
    changed, as_typed = replace(sample, counts=counts), sample.as_typed
    for place in number_places("sample"):
        if place[0] == "counts" and number_at(sample, place) != number_at(changed, place):
            as_typed = with_typed_at("sample", as_typed, place, None)
    return replace(changed, as_typed=as_typed)


USUAL = {
    "ratio_uncertainty_percent": 100 * RATIO_UNCERTAINTY,
    "size_uncertainty_percent": 100 * SIZE_UNCERTAINTY,
    "terminal_ratio": TERMINAL_RATIO,
}

CONDITION_DETAILS: tuple[Detail, ...] = tuple(
    Detail(
        f"test.{row.field}",
        row.title,
        row.kind,
        ("counts", row.field),
        row.help,
        choices=row.choices,
        synonyms=row.synonyms,
        stage="efficiency",
        unit=row.unit,
        usual=USUAL.get(row.field),
        needed="say unnamed if nobody knows it" if row.field == "scale" else "",
    )
    for row in CONDITIONS
)

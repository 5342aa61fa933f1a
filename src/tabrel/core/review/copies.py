"""A sample begun as a copy: chosen parts of another one, each marked as copied and assumed until it is confirmed.

Tests, benches, photographs, dates, use and what was expected belong to the one specimen and are never copied.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable
from dataclasses import dataclass, replace
from typing import Any, Literal

from tabrel.core.catalogue.observation import observed, with_field_observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import INSTRUMENT_DIMENSIONS, QUANTITIES, Quantity
from tabrel.core.details.details import DETAILS
from tabrel.core.details.places import value_at, with_value
from tabrel.core.errors import StudyError
from tabrel.core.study.model import Claim, HoleGroup, ReadingEntry, Sample, SampleHoles, used_readings
from tabrel.core.study.number_keys import typed_at, with_typed_at

CopiedPart = Literal[
    "intake", "engine_side", "plate", "claims", "can", "element", "media", "bypass", "valve_readings", "masses", "counts"
]


@dataclass(frozen=True)
class PartToCopy:
    """A part of a sample that can be copied: its title, what is in it, and whether it is chosen unless said otherwise."""

    title: str
    holds: str
    is_usual: bool = False


PARTS_TO_COPY: dict[CopiedPart, PartToCopy] = {
    "intake": PartToCopy(
        "intake", "maker, part number, price, seller, pack, origin, tier, restriction, warranty, stated bypass setting", True
    ),
    "engine_side": PartToCopy("engine side", "gasket and thread", True),
    "plate": PartToCopy("tapping plate", "plate, inlet holes, anti-drainback valve", True),
    "claims": PartToCopy("claims", "what box and page say", True),
    "can": PartToCopy("can", "its sizes, and what is seen of it"),
    "element": PartToCopy("element", "element, end caps, centre tube, seating spring"),
    "media": PartToCopy("media", "strip, thickness, family"),
    "bypass": PartToCopy("bypass valve, its make", "place, construction, spring material"),
    "valve_readings": PartToCopy("valve readings", "seat, spring, forces, pressures, lifts"),
    "masses": PartToCopy("masses", "of all parts chosen"),
    "counts": PartToCopy("counts", "pleats, coils, turns of the parts chosen"),
}
"""In the order they are offered; masses, counts and valve readings tell specimens apart, so they go only when chosen."""

USUAL_PARTS = tuple(key for key, part in PARTS_TO_COPY.items() if part.is_usual)

_PART_OF: dict[str, CopiedPart] = {
    "gasket": "engine_side",
    "thread": "engine_side",
    "plate": "plate",
    "anti_drain": "plate",
    "filter": "can",
    "can": "can",
    "seating": "element",
    "element": "element",
    "tube": "element",
    "media": "media",
    "bypass": "bypass",
}
"""Facts that are copied with each part of the filter."""

_INTAKE = tuple(
    f"sample.{name}"
    for name in (
        "maker",
        "part_number",
        "price",
        "seller",
        "bought",
        "pack",
        "origin",
        "tier",
        "restriction",
        "warranty",
        "stated_bypass",
    )
)
_OF_MEDIA = ("media.air_drop",)
_VALVE_DIMENSIONS = ("pressure", "force")


def parts_of_reading(quantity: Quantity) -> frozenset[CopiedPart]:
    """Return the parts that must all be chosen for the readings of a quantity to be copied.

    Examples
    --------
    >>> sorted(parts_of_reading(QUANTITIES["plate.mass"])), sorted(parts_of_reading(QUANTITIES["bypass.lift_limit"]))
    (['masses', 'plate'], ['valve_readings'])
    """
    if quantity.part == "bypass" and quantity.dimension != "mass":
        extra: set[CopiedPart] = {"valve_readings"}
        return frozenset(extra | ({"counts"} if quantity.dimension == "count" else set()))
    collected: set[CopiedPart] = {_PART_OF[quantity.part]}
    if quantity.dimension == "mass":
        collected.add("masses")
    elif quantity.dimension == "count":
        collected.add("counts")
    elif quantity.dimension in _VALVE_DIMENSIONS or quantity.key == "anti_drain.lift":
        collected.add("valve_readings")
    return frozenset(collected)


def copied_sample(source: Sample, label: str, parts: Collection[CopiedPart], origin: str) -> Sample:
    """Return a new sample with parts of another one, everything in it marked as copied.

    Parameters
    ----------
    source : Sample
    label : str
        Of the new one.
    parts : collection of str
        Of `PARTS_TO_COPY`.
    origin : str
        What the marks say: label of the source, or name of a template.

    Returns
    -------
    Sample
        Readings set aside are left out; of what is in use text, instrument, provenance and note are kept.
    """
    chosen = frozenset(parts)
    readings = {
        key: entries
        for key, held in source.readings.items()
        if parts_of_reading(QUANTITIES[key]) <= chosen and (entries := _copied_entries(held, origin))
    }
    copy = Sample(
        label,
        readings=readings,
        holes=SampleHoles(
            inlet=_copied_groups(source.holes.inlet, origin) if "plate" in chosen else (),
            centre_tube=_copied_groups(source.holes.centre_tube, origin) if "element" in chosen else (),
        ),
        claims=tuple(_copied_claim(claim, origin) for claim in source.claims) if "claims" in chosen else (),
    )
    things = [*_details(source, chosen), *_observations(source, chosen), *_states(source, chosen)]
    for kind, key, value in things:
        if kind == "details":
            copy = _with_detail(copy, source, key, value)
        elif kind == "observations":
            copy = _with_observation(copy, key, value)
        else:
            copy = replace(copy, states=copy.states | {key: value})
    return replace(copy, copied={f"{kind}/{key}": origin for kind, key, _ in things})


def _details(source: Sample, chosen: frozenset[CopiedPart]) -> list[tuple[str, str, Any]]:
    keys = [*(_INTAKE if "intake" in chosen else ()), *(_OF_MEDIA if "media" in chosen else ())]
    values = [(key, value_at(source, DETAILS[key].place)) for key in keys]
    return [("details", key, value) for key, value in values if value is not None]


def _observations(source: Sample, chosen: frozenset[CopiedPart]) -> list[tuple[str, str, Any]]:
    values = [
        (key, observed(source, observation)) for key, observation in OBSERVATIONS.items() if _PART_OF[observation.part] in chosen
    ]
    return [("observations", key, value) for key, value in values if value is not None]


def _states(source: Sample, chosen: frozenset[CopiedPart]) -> list[tuple[str, str, Any]]:
    """Return what is not there in such a part at all; why another specimen was not measured says nothing of this one."""
    return [
        ("states", key, state)
        for key, state in source.states.items()
        if state == "not_applicable" and parts_of_reading(QUANTITIES[key]) <= chosen
    ]


def _with_detail(copy: Sample, source: Sample, key: str, value: Any) -> Sample:
    detail = DETAILS[key]
    changed: Sample = with_value(copy, detail, value)
    typed = typed_at("sample", source.as_typed, detail.place)
    if typed is None:
        return changed
    return replace(changed, as_typed=with_typed_at("sample", changed.as_typed, detail.place, typed))


def _with_observation(copy: Sample, key: str, words: str) -> Sample:
    observation = OBSERVATIONS[key]
    if observation.field:
        return with_field_observed(copy, observation, words)
    return replace(copy, observations=copy.observations | {key: words})


def _copied_entries(entries: Iterable[ReadingEntry], origin: str) -> tuple[ReadingEntry, ...]:
    return tuple(
        replace(
            reading,
            copied_from=origin,
            confirmed=None,
            taken_at=None,
            hole=None,
            photograph=None,
            instrument=reading.instrument if reading.instrument in INSTRUMENT_DIMENSIONS else None,  # an own one stays behind
        )
        for reading in used_readings(entries)
    )


def _copied_groups(groups: Iterable[HoleGroup], origin: str) -> tuple[HoleGroup, ...]:
    result = []
    for group in groups:
        sizes = {dimension: _copied_entries(entries, origin) for dimension, entries in group.readings.by_dimension()}
        result.append(replace(group, copied_from=origin, readings=replace(group.readings, **sizes)))  # type: ignore[arg-type]
    return tuple(result)


def _copied_claim(claim: Claim, origin: str) -> Claim:
    return replace(claim, copied_from=origin)


def count_copied(sample: Sample) -> int:
    """Return how many things of a sample are copied and not confirmed."""
    groups = (*sample.holes.inlet, *sample.holes.centre_tube)
    entries = [entry for held in sample.readings.values() for entry in used_readings(held)]
    entries += [entry for group in groups for _, held in group.readings.by_dimension() for entry in used_readings(held)]
    marked = [*(entry.copied_from for entry in entries), *(hole_group.copied_from for hole_group in groups)]
    marked += [claim.copied_from for claim in sample.claims]
    return len(sample.copied) + sum(origin is not None for origin in marked)


def is_empty(sample: Sample) -> bool:
    """Return whether a sample has a label and nothing else."""
    return sample == Sample(sample.label)


def check_copied(path: str, sample: Sample) -> None:
    """Raise `StudyError` where `Sample.copied` marks what is not there, or what has no name."""
    there = {
        f"details/{key}"
        for key, detail in DETAILS.items()
        if detail.owner == "sample" and value_at(sample, detail.place) is not None
    }
    there |= {f"observations/{key}" for key, observation in OBSERVATIONS.items() if observed(sample, observation) is not None}
    there |= {f"states/{key}" for key in sample.states}
    for thing, origin in sample.copied.items():
        if thing not in there:
            raise StudyError(f"{path}.copied.{thing}", "is marked as copied and is not there: leave the mark out")
        if not origin.strip():
            raise StudyError(f"{path}.copied.{thing}", "is empty: name what it was copied from, or leave the mark out")

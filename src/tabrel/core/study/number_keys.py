"""Keys under which a document keeps its numbers as they were typed.

The key of a number is its place in the study or in the sample, as short as it can be: ``stated_kpa`` where no other
number ends so, else with the steps before it, as in ``cooler.temperature_c``. Longer forms are read as well.
"""

from __future__ import annotations

import re
import types
from collections.abc import Iterator, Mapping
from dataclasses import fields
from functools import lru_cache
from typing import Any, Literal, Union, get_args, get_origin, get_type_hints

from tabrel.core.study.frame import Circuit, Oil, ViscosityPoint
from tabrel.core.study.model import TypedNumber
from tabrel.core.study.plans import WarmUpPlan

Place = tuple[str, ...]
TEST_NUMBERS = (
    "kinematic_mm2_s", "temperature_c", "flow_l_min", "base_level_mg_l", "system_volume_l", "clean_hardware_kpa",
    "clean_element_kpa", "terminal_kpa", "terminal_ratio", "upstream_ml", "upstream_dilution", "downstream_ml",
    "downstream_dilution", "coincidence_per_ml", "ratio_uncertainty_percent", "size_uncertainty_percent",
)  # fmt: skip
"""Conditions of a counted test that are numbers."""
Owner = Literal["study", "sample"]

SAMPLE_NUMBERS: tuple[Place, ...] = (
    ("price",),
    ("used_km",),
    ("used_hours",),
    ("media_air_drop_pa",),
    ("capacity_g",),
    ("stated_collapse_kpa",),
    ("bypass", "stated_kpa"),
    ("bypass", "opening_at"),
    ("leak",),
    *(("counts", name) for name in TEST_NUMBERS),
)
_ITEM = re.compile(r"\[\d+\]")


def _numbers_of(start: Place, model: type) -> Iterator[Place]:
    """Yield the places of the numbers in a dataclass, those in its parts included."""
    hints = get_type_hints(model)
    for field in fields(model):
        inner = _inner(hints[field.name])
        if inner in (float, int):
            yield (*start, field.name)
        elif isinstance(inner, type) and inner.__module__.startswith("tabrel.core.study"):
            yield from _numbers_of((*start, field.name), inner)


def _inner(hint: Any) -> Any:
    """Return the type inside ``X | None``; a list stays one."""
    if get_origin(hint) in (Union, types.UnionType):
        return next(argument for argument in get_args(hint) if argument is not type(None))
    return hint


@lru_cache
def number_places(owner: Owner) -> tuple[Place, ...]:
    """Return the places of the numbers of a study or a sample; an item of a list is ``[]``."""
    if owner == "sample":
        return SAMPLE_NUMBERS
    points = tuple(("oil", "viscosity[]", *place) for place in _numbers_of((), ViscosityPoint))
    parts: tuple[tuple[str, type], ...] = (("oil", Oil), ("circuit", Circuit), ("warm_up", WarmUpPlan))
    return (*points, *(place for name, model in parts for place in _numbers_of((name,), model)))


def number_key(owner: Owner, place: Place) -> str:
    """Return the shortest key that names a number's place and no other.

    Examples
    --------
    >>> number_key("sample", ("bypass", "stated_kpa")), number_key("study", ("circuit", "cooler", "temperature_c"))
    ('stated_kpa', 'cooler.temperature_c')
    """
    item = next((i for i, step in enumerate(place) if step.endswith("]")), len(place) - 1)
    for steps in range(len(place) - item, len(place) + 1):
        key = ".".join(place[-steps:])
        if len(_places_of(owner, _ITEM.sub("[]", key))) == 1:
            return key
    return ".".join(place)


def _places_of(owner: Owner, key: str) -> list[Place]:
    return [place for place in number_places(owner) if ".".join(place) == key or ".".join(place).endswith(f".{key}")]


def place_of_key(owner: Owner, key: str) -> Place | None:
    """Return the place a key names, or None where it names none or more than one."""
    items = _ITEM.findall(key)
    pairs = _places_of(owner, _ITEM.sub("[]", key))
    if len(pairs) != 1 or len(items) > 1:
        return None
    return tuple(step.replace("[]", items[0]) if items else step for step in pairs[0])


def typed_at(owner: Owner, as_typed: Mapping[str, TypedNumber], place: Place) -> TypedNumber | None:
    """Return what was typed of the number at a place, whatever the length of its key."""
    return next((number for key, number in as_typed.items() if place_of_key(owner, key) == place), None)


def with_typed_at(
    owner: Owner, as_typed: Mapping[str, TypedNumber], place: Place, number: TypedNumber | None
) -> dict[str, TypedNumber]:
    """Return the numbers as typed with that at a place set; None removes it."""
    kept = {key: typed for key, typed in as_typed.items() if place_of_key(owner, key) != place}
    return kept if number is None else kept | {number_key(owner, place): number}

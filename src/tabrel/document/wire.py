"""Models that go out, made from classes of the core: the core's names, each number in the unit its annotation names."""

from __future__ import annotations

import inspect
from collections.abc import Callable, Hashable, Iterator, Mapping
from dataclasses import fields, is_dataclass
from functools import cache, cached_property
from types import GenericAlias, NoneType, UnionType
from typing import Annotated, Any, Union, get_args, get_origin, get_type_hints

import numpy as np
from pydantic import BeforeValidator, GetCoreSchemaHandler, create_model

from tabrel.core.field_units import INSIDE, OUTSIDE, Out, Unit
from tabrel.core.numbers import known_or_none
from tabrel.core.uncertainty.propagation import Result
from tabrel.document.results import ResultOut, WireModel, result_out

Convert = Callable[[Any], Any]


class Wired:
    """Annotation of a class of the core that goes out as it is."""

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> Any:
        kind, convert = _outgoing(source, OUTSIDE)
        return BeforeValidator(convert).__get_pydantic_core_schema__(kind, handler)


WIRED = Wired()


@cache
def _model_of(of: Hashable) -> tuple[type[WireModel], Convert]:
    """Return the model of a dataclass of the core, and what fills it.

    Every field goes out but those marked `INSIDE`, and every property whose value is annotated with a unit
    or `OUTSIDE`; a key ends in its unit.
    """
    assert isinstance(of, type)
    hints = get_type_hints(of, include_extras=True)
    members = {field.name: hints[field.name] for field in fields(of) if INSIDE not in _marks(hints[field.name])}
    members |= {name: hint for name, hint in _properties(of) if any(isinstance(mark, Out) for mark in _marks(hint))}
    parts = []
    for name, hint in members.items():
        kind, convert = _outgoing(hint, OUTSIDE)
        suffix = next((mark.suffix for mark in _marks(hint) if isinstance(mark, Out)), "")
        parts.append((f"{name}_{suffix}" if suffix else name, name, kind, convert))
    named: dict[str, Any] = {key: (kind, ...) for key, _, kind, _ in parts}
    first_sentence = (of.__doc__ or "").partition("\n\n")[0]
    model = create_model(f"{of.__name__.strip('_')}Out", __base__=WireModel, __doc__=first_sentence, **named)
    return model, lambda value: model(**{key: convert(getattr(value, name)) for key, name, _, convert in parts})


def _properties(of: type) -> Iterator[tuple[str, Any]]:
    for name, member in inspect.getmembers(of, lambda member: isinstance(member, property | cached_property)):
        getter = member.func if isinstance(member, cached_property) else member.fget
        yield name, get_type_hints(getter, include_extras=True)["return"]


def _marks(hint: Any) -> list[Any]:
    """Return what a hint is annotated with, at any depth."""
    return [*getattr(hint, "__metadata__", ()), *(mark for part in get_args(hint) for mark in _marks(part))]


def _outgoing(hint: Any, unit: Out) -> tuple[Any, Convert]:
    """Return the type that goes out for one of the core, and what makes it of a value."""
    origin, args = get_origin(hint), get_args(hint)
    if origin is Annotated:
        return _outgoing(args[0], next((mark for mark in args[1:] if isinstance(mark, Out)), unit))
    if origin in (Union, UnionType):
        kinds = [_outgoing(part, unit) for part in args if part is not NoneType]
        if len(kinds) != 1:
            return hint, lambda value: value
        kind, convert = kinds[0]
        return kind | None, lambda value: None if value is None else convert(value)
    if origin is np.ndarray:
        return GenericAlias(list, (_number(unit),)), lambda values: unit.of(values).tolist()
    if origin in (tuple, list):
        if len({part for part in args if part is not Ellipsis}) > 1:
            raise TypeError(f"{hint} goes out as a list, which holds one kind: give its parts names in a class")
        kind, convert = _outgoing(args[0], unit)
        return GenericAlias(list, (kind,)), lambda values: [convert(value) for value in values]
    if isinstance(origin, type) and issubclass(origin, Mapping):
        kind, convert = _outgoing(args[1], unit)
        return GenericAlias(dict, (args[0], kind)), lambda held: {key: convert(value) for key, value in held.items()}
    if hint is float:
        return _number(unit), (lambda value: known_or_none(unit.of(value))) if unit.has_gaps else unit.of
    if isinstance(hint, type) and issubclass(hint, Result):
        return ResultOut, lambda result: result_out(result.scaled(1 / unit.size))
    if isinstance(hint, type) and is_dataclass(hint):
        return _model_of(hint)
    return hint, lambda value: value


def _number(unit: Out) -> Any:
    number: Any = Annotated[float, Unit(unit.symbol)] if unit.symbol else float
    return number | None if unit.has_gaps else number

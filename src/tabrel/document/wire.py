"""Models that go out, made from classes of the core: the core's names, each number in the unit its annotation names."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Mapping
from dataclasses import dataclass, fields, is_dataclass
from functools import cache, cached_property
from types import GenericAlias, NoneType, UnionType
from typing import Annotated, Any, Union, get_args, get_origin, get_type_hints

import numpy as np
from pydantic import BaseModel, BeforeValidator, GetCoreSchemaHandler, create_model

from tabrel.core.field_units import Out, Unit
from tabrel.core.uncertainty.propagation import Result
from tabrel.document.results import ResultOut, WireModel, result_out

Convert = Callable[[Any], Any]
_SAME = Out("", "")


@dataclass(frozen=True)
class Wired:
    """Annotation of a class of the core that goes out as it is.

    Attributes
    ----------
    also : tuple of str
        Its properties that go out as well.
    without : tuple of str
        Its fields that stay inside.
    """

    also: tuple[str, ...] = ()
    without: tuple[str, ...] = ()

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> Any:
        kind, convert = _outgoing(source, _SAME, self)
        return BeforeValidator(convert).__get_pydantic_core_schema__(kind, handler)


WIRED = Wired()


@cache
def _model_of(of: Hashable, wired: Wired) -> tuple[type[WireModel], Convert]:
    """Return the model of a dataclass of the core, a field for each of its own whose key ends in its unit, and what fills it."""
    assert isinstance(of, type)
    hints = get_type_hints(of, include_extras=True)
    members = {field.name: hints[field.name] for field in fields(of) if field.name not in wired.without}
    members |= {name: _of_property(of, name) for name in wired.also}
    parts = []
    for name, hint in members.items():
        kind, convert = _outgoing(hint, _SAME, WIRED)
        parts.append((f"{name}{_suffix(hint)}", name, kind, convert))
    named: dict[str, Any] = {key: (kind, ...) for key, _, kind, _ in parts}
    first_sentence = (of.__doc__ or "").partition("\n\n")[0]
    model = create_model(f"{of.__name__.strip('_')}Out", __base__=WireModel, __doc__=first_sentence, **named)
    return model, lambda value: model(**{key: convert(getattr(value, name)) for key, name, _, convert in parts})


def _of_property(of: type, name: str) -> Any:
    member = getattr(of, name)
    return get_type_hints(member.func if isinstance(member, cached_property) else member.fget, include_extras=True)["return"]


def _suffix(hint: Any) -> str:
    """Return how a key ends: the unit that is annotated, at any depth."""
    for mark in getattr(hint, "__metadata__", ()):
        if isinstance(mark, Out) and mark.suffix:
            return f"_{mark.suffix}"
    return next((found for part in get_args(hint) if (found := _suffix(part))), "")


def _outgoing(hint: Any, unit: Out, wired: Wired) -> tuple[Any, Convert]:
    """Return the type that goes out for one of the core, and what makes it of a value."""
    origin, args = get_origin(hint), get_args(hint)
    if origin is Annotated:
        return _outgoing(args[0], next((mark for mark in args[1:] if isinstance(mark, Out)), unit), wired)
    if origin in (Union, UnionType):
        kinds = [_outgoing(part, unit, wired) for part in args if part is not NoneType]
        if len(kinds) != 1:
            return hint, lambda value: value
        kind, convert = kinds[0]
        return kind | None, lambda value: None if value is None else convert(value)
    if origin is np.ndarray:
        return GenericAlias(list, (_number(unit),)), lambda values: unit.of(values).tolist()
    if origin in (tuple, list) or (isinstance(origin, type) and issubclass(origin, (tuple, list))):
        if len({part for part in args if part is not Ellipsis}) > 1:
            raise TypeError(f"{hint} goes out as a list, which holds one kind: give its parts names in a class")
        kind, convert = _outgoing(args[0], unit, wired)
        return GenericAlias(list, (kind,)), lambda values: [convert(value) for value in values]
    if isinstance(origin, type) and issubclass(origin, Mapping):
        kind, convert = _outgoing(args[1], unit, wired)
        return GenericAlias(dict, (args[0], kind)), lambda held: {key: convert(value) for key, value in held.items()}
    if hint is float:
        return _number(unit), unit.of
    if isinstance(hint, type) and issubclass(hint, Result):
        return ResultOut, lambda result: result_out(result.scaled(1 / unit.size))
    if isinstance(hint, type) and is_dataclass(hint) and not issubclass(hint, BaseModel):
        model, convert = _model_of(hint, wired)
        return model, convert
    return hint, lambda value: value


def _number(unit: Out) -> Any:
    return Annotated[float, Unit(unit.symbol)] if unit.symbol else float

"""A model whose numbers differ from place to place: pick the numbers of some of the places."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import fields, is_dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

Places = NDArray[Any] | slice
"""Indices, a mask or a slice of places laid out flat, or of draws."""


def flattened(part: Any, shape: tuple[int, ...]) -> Any:
    """Return a part of a model with every array in it broadcast to a shape and laid out flat."""
    return _mapped(part, lambda array: np.broadcast_to(array, shape).ravel(), {})


def picked(part: Any, places: Places) -> Any:
    """Return a part of a model whose arrays are laid out flat, at some of its places."""
    return _mapped(part, lambda array: array[places], {})


def chosen(part: Any, shape: tuple[int, ...], where: tuple[NDArray[np.intp], ...]) -> Any:
    """Return a part of a model with every array in it broadcast to a shape, at what `nonzero` gives of a mask of it, flat."""
    return _mapped(part, lambda array: np.broadcast_to(array, shape)[where], {})


def on_grid(part: Any, rows: NDArray[np.intp], columns: NDArray[np.intp]) -> Any:
    """Return a part of a model at some rows and columns of a grid along which its arrays run: one of them, or both."""

    def kept(array: NDArray[np.float64]) -> NDArray[np.float64]:
        along = array[..., columns] if array.shape[-1] > 1 else array
        return along[rows] if array.ndim > 1 and array.shape[0] > 1 else along

    return _mapped(part, kept, {})


def holds_arrays(part: Any) -> bool:
    """Return whether there is an array in a part of a model."""
    found = False

    def look(array: NDArray[np.float64]) -> NDArray[np.float64]:
        nonlocal found
        found = True
        return array

    _mapped(part, look, {})
    return found


def one_draw(part: Any, draw: int) -> Any:
    """Return a part of a model with one draw of every array in it, whose shape is (count, 1), as a number."""
    return _mapped(part, lambda array: array[draw].item(), {})


def finite_places(part: Any, count: int) -> NDArray[np.bool_]:
    """Return where along their first axis of `count` all arrays of a part are finite and not negative."""
    good = np.ones(count, dtype=bool)

    def look(array: NDArray[np.float64]) -> NDArray[np.float64]:
        with np.errstate(invalid="ignore"):
            good[:] &= (np.isfinite(array) & (array >= 0)).reshape(count, -1).all(axis=1)
        return array

    _mapped(part, look, {})
    return good


def _mapped(part: Any, change: Callable[[Any], Any], done: dict[int, Any]) -> Any:
    """Return a float as it is, an array changed, a dataclass with its parts mapped but for its `FIXED_ARRAYS`.

    What occurs twice is changed once. A dataclass without arrays is marked so that it is not searched
    again: the parts are frozen, and a model of floats is picked at some of its places again and again.
    """
    if isinstance(part, np.ndarray):
        if not part.ndim:
            return part
    elif not is_dataclass(part) or _ARRAYLESS in part.__dict__:
        return part
    if id(part) in done:
        return done[id(part)]
    if isinstance(part, np.ndarray):
        changed = change(part)
    else:
        names = [field.name for field in fields(part) if field.init and field.name not in getattr(part, "FIXED_ARRAYS", ())]
        new = {name: _mapped(getattr(part, name), change, done) for name in names}
        differs = {name: value for name, value in new.items() if value is not getattr(part, name)}
        changed = replace(part, **differs) if differs else part
        if not any(_holds_arrays(getattr(part, name)) for name in new):
            part.__dict__[_ARRAYLESS] = True
    done[id(part)] = changed
    return changed


_ARRAYLESS = "_arrayless"


def _holds_arrays(part: Any) -> bool:
    if isinstance(part, np.ndarray):
        return part.ndim > 0
    return is_dataclass(part) and _ARRAYLESS not in part.__dict__

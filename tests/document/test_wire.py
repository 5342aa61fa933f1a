"""Models made from classes of the core: names, units, what stays inside."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np
import pytest
from numpy.typing import NDArray

from tabrel.core.field_units import IN_KPA, IN_MM, INSIDE, OUTSIDE, Length, Pressure, Share
from tabrel.core.uncertainty.propagation import Result
from tabrel.document.results import WireModel
from tabrel.document.wire import WIRED


@dataclass(frozen=True)
class Hole:
    """A hole.

    Attributes
    ----------
    bore : float
        Its own.
    """

    bore: Length
    name: str


@dataclass(frozen=True)
class Plate:
    """A plate."""

    holes: tuple[Hole, ...]
    controlling: Hole | None
    open: Share | None
    corners: Annotated[tuple[tuple[float, float], ...], IN_MM]
    curve: Annotated[NDArray[np.float64], IN_KPA]
    loss: Annotated[Result, IN_KPA] | None
    draws: Annotated[NDArray[np.float64], INSIDE]

    @property
    def count(self) -> int:
        """Stays inside: nothing says that it goes out."""
        return len(self.holes)

    @property
    def is_round(self) -> Annotated[bool, OUTSIDE]:
        return True

    @property
    def radius(self) -> Length:
        return self.holes[0].bore / 2


class Shown(WireModel):
    """A plate as it goes out."""

    plate: Annotated[Plate | None, WIRED]
    named: Annotated[dict[str, Hole], WIRED]


PLATE = Plate((Hole(6e-3, "a"),), None, 0.25, ((0.01, 0.02),), np.array([1e3, 2e3]), Result(5e3), np.zeros(1000))


def test_every_number_goes_out_in_the_unit_its_key_ends_in():
    shown = Shown(plate=PLATE, named={"a": PLATE.holes[0]}).model_dump()
    assert shown["plate"]["holes"] == [{"bore_mm": pytest.approx(6), "name": "a"}]
    assert (shown["plate"]["controlling"], shown["plate"]["open_percent"]) == (None, 25)
    assert shown["plate"]["corners_mm"] == [[pytest.approx(10), pytest.approx(20)]]
    assert shown["plate"]["curve_kpa"] == [1, 2]
    assert shown["plate"]["loss_kpa"]["value"] == 5
    assert shown["plate"]["is_round"]
    assert not {"draws", "count"} & shown["plate"].keys()
    assert shown["plate"]["radius_mm"] == pytest.approx(3)
    assert shown["named"]["a"]["bore_mm"] == pytest.approx(6)
    assert Shown(plate=None, named={}).model_dump() == {"plate": None, "named": {}}


def test_the_description_names_class_and_unit():
    described = Shown.model_json_schema(mode="serialization")["$defs"]
    assert described["HoleOut"]["description"] == "A hole."
    assert described["PlateOut"]["properties"]["open_percent"]["anyOf"][0] == {"type": "number", "x-unit": "%"}
    assert described["PlateOut"]["properties"]["curve_kpa"]["items"] == {"type": "number", "x-unit": "kPa"}


def test_a_pair_of_different_kinds_is_refused():
    @dataclass(frozen=True)
    class Odd:
        pair: tuple[str, Pressure]

    with pytest.raises(TypeError, match="give its parts names"):

        class OddShown(WireModel):
            odd: Annotated[Odd, WIRED]

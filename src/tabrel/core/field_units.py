"""Floats annotated with the unit of their field, which the interface description carries as ``x-unit``."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any


@dataclass(frozen=True)
class Unit:
    """Unit of a field, by its symbol."""

    symbol: str

    def __get_pydantic_json_schema__(self, schema: Any, describe: Callable[[Any], dict[str, Any]]) -> dict[str, Any]:
        return {**describe(schema), "x-unit": self.symbol}


Kpa = Annotated[float, Unit("kPa")]
Mpa = Annotated[float, Unit("MPa")]
Mm = Annotated[float, Unit("mm")]
Mm2 = Annotated[float, Unit("mm²")]
Cm2 = Annotated[float, Unit("cm²")]
Um = Annotated[float, Unit("µm")]
Um2 = Annotated[float, Unit("µm²")]
UmC = Annotated[float, Unit("µm(c)")]
Celsius = Annotated[float, Unit("°C")]
Rpm = Annotated[float, Unit("rpm")]
LPerMin = Annotated[float, Unit("L/min")]
Percent = Annotated[float, Unit("%")]
Seconds = Annotated[float, Unit("s")]
Minutes = Annotated[float, Unit("min")]
Hours = Annotated[float, Unit("h")]
Grams = Annotated[float, Unit("g")]
GPerM2 = Annotated[float, Unit("g/m²")]
MpaS = Annotated[float, Unit("mPa·s")]
Mm2PerS = Annotated[float, Unit("mm²/s")]
KgPerM3 = Annotated[float, Unit("kg/m³")]
Litres = Annotated[float, Unit("L")]

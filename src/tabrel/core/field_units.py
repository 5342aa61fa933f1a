"""Floats annotated with their unit: of a field that goes out, and of an SI number of the core with the unit it goes out in."""

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


@dataclass(frozen=True)
class Out:
    """Unit in which an SI number of the core goes out.

    Attributes
    ----------
    suffix : str
        Ends the key.
    symbol : str
        As printed.
    size : float
        Of one of it in SI.
    decimals : int or None
        To which it is rounded, of a drawing.
    has_gaps : bool
        Whether what is not finite goes out as null.
    """

    suffix: str
    symbol: str
    size: float = 1.0
    decimals: int | None = None
    has_gaps: bool = False

    def of(self, value: Any) -> Any:
        """Return a number or an array in this unit."""
        shown = value / self.size if self.size != 1.0 else value
        return shown if self.decimals is None else round(shown, self.decimals)


class Inside:
    """Mark of a field that does not go out."""


INSIDE = Inside()
OUTSIDE = Out("", "")
"""Mark of a property without a unit that goes out with the fields."""

IN_MM = Out("mm", "mm", 1e-3)
IN_DRAWN_MM = Out("mm", "mm", 1e-3, decimals=3)
IN_KPA = Out("kpa", "kPa", 1e3)
IN_L_MIN = Out("l_min", "L/min", 1e-3 / 60)
IN_GRAMS = Out("g", "g", 1e-3)
IN_PERCENT = Out("percent", "%", 1e-2)

Length = Annotated[float, IN_MM]
SmallArea = Annotated[float, Out("mm2", "mm²", 1e-6)]
MediaArea = Annotated[float, Out("cm2", "cm²", 1e-4)]
Pressure = Annotated[float, IN_KPA]
Stress = Annotated[float, Out("mpa", "MPa", 1e6)]
FlowRate = Annotated[float, IN_L_MIN]
Volume = Annotated[float, Out("l", "L", 1e-3)]
Mass = Annotated[float, IN_GRAMS]
Grammage = Annotated[float, Out("g_m2", "g/m²", 1e-3)]
Share = Annotated[float, IN_PERCENT]
Permeability = Annotated[float, Out("um2", "µm²", 1e-12)]
Temperature = Annotated[float, Out("c", "°C")]
Speed = Annotated[float, Out("rpm", "rpm")]
ParticleSize = Annotated[float, Out("um", "µm")]
Duration = Annotated[float, Out("min", "min", 60.0)]
LifeTime = Annotated[float, Out("hours", "h", 3600.0, has_gaps=True)]
Viscosity = Annotated[float, Out("mpa_s", "mPa·s", 1e-3)]

"""The results of a sample, each once: name, title, the unit it is told in, whether it is a headline."""

from __future__ import annotations

from dataclasses import dataclass

from tabrel.core.catalogue.units import UNITS

WIRE_UNITS: dict[str, str] = {
    "mm": "mm",
    "mm2": "mm2",
    "cm2": "cm2",
    "m2": "",
    "um": "",
    "kpa": "kPa",
    "mpa": "MPa",
    "l": "L",
    "l_min": "L/min",
    "percent": "%",
    "g": "g",
    "c": "°C",
    "k": "K",
    "km": "km",
    "": "",
}
"""Metric unit by the suffix of a key in answers and documents; empty for SI, and for sizes in µm."""


def wire_factor(suffix: str) -> float:
    """Return the number by which an SI value is multiplied for a key with this suffix."""
    symbol = WIRE_UNITS[suffix]
    return 1 / UNITS[symbol].factor if symbol else 1.0


@dataclass(frozen=True)
class ResultRow:
    """One result.

    Attributes
    ----------
    name : str
        In the core.
    unit : str
        Suffix of its key; empty for a bare number.
    title : str
        What a person calls it.
    is_headline : bool
        Whether it is on the results tape.
    """

    name: str
    unit: str
    title: str
    is_headline: bool = False

    @property
    def key(self) -> str:
        """Key in answers and documents; it ends in the unit, if there is one."""
        return f"{self.name}_{self.unit}" if self.unit else self.name


RESULTS: dict[str, ResultRow] = {
    row.name: row
    for row in (
        ResultRow("inlet_hole_area", "mm2", "Inlet hole area", True),
        ResultRow("plate_flow_area", "mm2", "Tapping plate flow area", True),
        ResultRow("plate_series_area", "mm2", "Series equivalent of the plate's sections"),
        ResultRow("media_gross_area", "cm2", "Gross media area"),
        ResultRow("media_effective_area", "cm2", "Effective media area", True),
        ResultRow("pleat_opening_at_inside", "percent", "Pleat opening at the inside"),
        ResultRow("media_permeability", "m2", "Media permeability"),
        ResultRow("bypass_opening", "kpa", "Bypass opening pressure", True),
        ResultRow("bypass_full_open", "kpa", "Bypass full-open pressure"),
        ResultRow("efficiency_at_20_um", "percent", "Efficiency at 20 µm(c)", True),
        ResultRow("size_at_beta_75", "um", "Size at β = 75"),
        ResultRow("size_at_beta_2", "um", "Size at β = 2, by counts"),
        ResultRow("efficiency_slope", "", "Slope of the efficiency curve"),
        ResultRow("retention_capacity", "g", "Retention capacity, in test dust"),
    )
}
"""By name, headlines in the order of the tape."""

HEADLINES: tuple[str, ...] = tuple(name for name, row in RESULTS.items() if row.is_headline)

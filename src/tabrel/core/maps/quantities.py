"""Quantities of an operating map, each once: name, title, unit, scale, and its key in an answer."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from tabrel.core.catalogue.results import wire_factor

MapQuantityName = Literal[
    "element_pressure",
    "filter_pressure",
    "unfiltered_fraction",
    "lift",
    "gallery_pressure",
    "gauge_excess",
    "filter_flow",
    "regulator_fraction",
    "media_fraction",
]


@dataclass(frozen=True)
class MapQuantity:
    """One quantity of a map.

    Attributes
    ----------
    name : str
        In the core.
    title : str
        What a person calls it.
    grid : str
        Key of its grid in the map of the engine; it ends in the unit.
    unit : str
        Suffix of its unit.
    of_filter_alone : bool
        Whether the map of the filter alone has it too, under the same key.
    is_logarithmic : bool
        Whether its values span so many decades that only a logarithmic scale shows them.
    title_in_slice : str
        Where a slice shows it without what the map multiplies it by; empty: the same.
    """

    name: MapQuantityName
    title: str
    grid: str
    unit: str
    of_filter_alone: bool = False
    is_logarithmic: bool = False
    title_in_slice: str = ""

    @property
    def factor(self) -> float:
        """Multiply an SI value by it for the answer."""
        return wire_factor(self.unit)


MAP_QUANTITIES: dict[MapQuantityName, MapQuantity] = {
    row.name: row
    for row in (
        MapQuantity("element_pressure", "Element differential pressure", "element_kpa", "kpa", True, True),
        MapQuantity("filter_pressure", "Filter differential pressure", "filter_kpa", "kpa", True, True),
        MapQuantity("unfiltered_fraction", "Unfiltered share", "unfiltered_percent", "percent", True),
        MapQuantity("lift", "Bypass valve lift", "lift_mm", "mm", True),
        MapQuantity("gallery_pressure", "Gallery pressure", "gallery_kpa", "kpa"),
        MapQuantity("gauge_excess", "Gauge minus gallery", "gauge_minus_gallery_kpa", "kpa"),
        MapQuantity("filter_flow", "Filter flow", "filter_flow_l_min", "l_min"),
        MapQuantity("regulator_fraction", "Relief flow", "relief_flow_percent", "percent"),
        MapQuantity(
            "media_fraction",
            "System efficiency",
            "system_efficiency_percent",
            "percent",
            title_in_slice="Share through the media",
        ),
    )
}
"""By name, in the order they are offered."""

"""Tables of what filters do in their engine: operating map, bypass onset, start from cold; best estimates."""

from __future__ import annotations

import numpy as np

from tabrel.core.maps.behaviour import WARMEST
from tabrel.core.maps.onset import bypass_onset
from tabrel.core.maps.operating_map import operating_map
from tabrel.core.numbers import known_or_none
from tabrel.report.data_table import SAMPLE, DataTable, Field, Value
from tabrel.report.inputs import ReportInputs, filling

MAP_TEMPERATURES, MAP_SPEEDS = 23, (800.0, 1500.0, 2000.0, 3000.0, 4000.0, 5000.0, 6000.0)

_MAP_FIELDS: tuple[tuple[str, str, str, str, float], ...] = (
    ("element_pressure", "element_kpa", "Element differential pressure", "kPa", 1e-3),
    ("filter_pressure", "filter_kpa", "Filter differential pressure", "kPa", 1e-3),
    ("gallery_pressure", "gallery_kpa", "Gallery pressure", "kPa", 1e-3),
    ("filter_flow", "filter_flow_l_min", "Flow through the filter", "L/min", 60e3),
    ("unfiltered_fraction", "unfiltered_percent", "Unfiltered", "% of flow", 100.0),
    ("regulator_fraction", "regulator_percent", "Through the regulator", "% of delivery", 100.0),
)


def maps_table(inputs: ReportInputs) -> DataTable:
    """Return the table of maps."""
    fields = (
        SAMPLE,
        Field("condition", "string", "Condition"),
        Field("temperature_c", "number", "Oil temperature", "°C"),
        Field("speed_rpm", "number", "Engine speed", "rpm"),
        *(Field(name, "number", title, unit) for _, name, title, unit, _ in _MAP_FIELDS),
    )
    rows: list[tuple[Value, ...]] = []
    for label, point in inputs.points.items():
        if isinstance(point, str):
            continue
        coldest = point.oil.coldest_pumping(-40.0)
        temperatures = np.linspace(float(np.ceil(coldest)), WARMEST, MAP_TEMPERATURES)
        for condition, operating_point in (("steady", point), ("filling", filling(point))):
            solved = operating_map(operating_point, temperatures.tolist(), list(MAP_SPEEDS))
            grids = [factor * solved.quantity(quantity) for quantity, _, _, _, factor in _MAP_FIELDS]
            for i, celsius in enumerate(temperatures.tolist()):
                for j, rpm in enumerate(MAP_SPEEDS):
                    rows.append((label, condition, round(celsius, 6), rpm, *(known_or_none(grid[i, j]) for grid in grids)))
    return DataTable("operating_map", "Operating map, best estimates", fields, tuple(rows))


def onsets_table(inputs: ReportInputs) -> DataTable:
    """Return the table of onsets."""
    fields = (
        SAMPLE,
        Field("speed_rpm", "number", "Engine speed", "rpm"),
        Field("onset_c", "number", "Bypass onset, steady", "°C"),
        Field("filling_onset_c", "number", "Bypass onset while filling", "°C"),
    )
    rows: list[tuple[Value, ...]] = []
    for label, point in inputs.points.items():
        if isinstance(point, str):
            continue
        steady, filled = (
            bypass_onset(operating_point, list(MAP_SPEEDS)).temperature for operating_point in (point, filling(point))
        )
        rows += [(label, rpm, known_or_none(steady[j]), known_or_none(filled[j])) for j, rpm in enumerate(MAP_SPEEDS)]
    return DataTable("bypass_onset", "Bypass onset, best estimates", fields, tuple(rows))


def starts_table(inputs: ReportInputs) -> DataTable:
    """Return the table of starts."""
    fields = (
        SAMPLE,
        Field("filled_after_s", "number", "Galleries full after", "s"),
        Field("pressure_after_s", "number", "Pressure in the gallery after", "s"),
        Field("bypass_minutes", "number", "Bypass valve open for", "min"),
        Field("unfiltered_l", "number", "Unfiltered", "L"),
        Field("volume_l", "number", "Through the filter", "L"),
        Field("lowest_gallery_kpa", "number", "Lowest gallery pressure", "kPa"),
    )
    rows: list[tuple[Value, ...]] = []
    for label, start in inputs.starts.items():
        if isinstance(start, str):
            continue
        lowest = None if start.lowest_gallery_pressure is None else start.lowest_gallery_pressure / 1e3
        times = (known_or_none(start.filled_after), known_or_none(start.pressure_after), start.bypass_time / 60)
        rows.append((label, *times, start.unfiltered_volume * 1e3, start.volume * 1e3, known_or_none(lowest)))
    return DataTable("starts", "Start from cold, best estimates", fields, tuple(rows))

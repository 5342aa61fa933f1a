"""Operating maps for print: colours, scale and contours as on screen."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from math import ceil, floor, log10
from typing import TYPE_CHECKING, Any

import numpy as np

from tabrel.core.catalogue.units import ShownUnit, UnitFamily, unit_in
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.maps.behaviour import SPEEDS, WARMEST
from tabrel.core.maps.onset import BypassOnset, bypass_onset, regulator_opening
from tabrel.core.maps.operating_map import OperatingMap, operating_map
from tabrel.core.numbers import plain_number, significant
from tabrel.report.figures.charts import Chart, FloatArray, Margins, drawn_chart, on_axis
from tabrel.report.figures.palette import FIELD, INK, RUST
from tabrel.report.words import unit_of

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

DARK = 0.55
"""Share of a map's scale from which its lines are white."""
GRID = 61
"""Temperatures and speeds of a printed map."""
MOST_ROWS = 5
"""Filters in one picture of maps."""


@dataclass(frozen=True)
class _Drawn:
    """One filter, solved steady and while the galleries fill: temperatures and speeds, fields of pressure, curves."""

    temperatures: FloatArray
    speeds: FloatArray
    maps: tuple[OperatingMap, ...]
    onsets: tuple[BypassOnset, ...]
    regulators: tuple[BypassOnset, ...]

    @property
    def fields(self) -> tuple[FloatArray, ...]:
        """Element differential pressure of both. [Pa]"""
        return tuple(item.quantity("element_pressure") for item in self.maps)


def _solved(point: OperatingPoint) -> _Drawn:
    temperatures = np.linspace(point.oil.coldest_pumping(-40.0), WARMEST, GRID)
    speeds = np.linspace(float(SPEEDS[0]), float(SPEEDS[-1]), GRID)
    states = (point, replace(point, condition="filling"))
    maps = tuple(operating_map(state, temperatures.tolist(), speeds.tolist()) for state in states)
    onsets = tuple(bypass_onset(solved.solved.point, speeds.tolist(), solved) for solved in maps)
    regulators = tuple(regulator_opening(solved.solved.point, speeds.tolist(), solved) for solved in maps)
    return _Drawn(temperatures, speeds, maps, onsets, regulators)


def map_charts(points: Mapping[str, OperatingPoint], family: UnitFamily) -> Iterator[tuple[Chart, list[str]]]:
    """Yield the operating maps of filters at one scale, steady and while filling, so many rows a picture, with their labels."""
    drawn = {label: _solved(point) for label, point in points.items()}
    factor = unit_of("kPa", family)[1]
    known = [field[np.isfinite(field) & (field > 0)] / factor for one in drawn.values() for field in one.fields]
    whole = np.concatenate(known) if known else np.array([])
    scale = (float(whole.min()), float(whole.max())) if whole.size else (0.1, 1.0)
    labels = list(drawn)
    for start in range(0, len(labels), MOST_ROWS):
        rows = labels[start : start + MOST_ROWS]
        yield _chart({label: drawn[label] for label in rows}, scale, family), rows


def map_chart(point: OperatingPoint, label: str, family: UnitFamily) -> Chart:
    """Return the operating map of one filter: element differential pressure with the onset curves; units of the pressure."""
    return next(map_charts({label: point}, family))[0]


def _chart(rows: Mapping[str, _Drawn], scale: tuple[float, float], family: UnitFamily) -> Chart:
    degrees, (unit, factor) = unit_in("°C", family), unit_of("kPa", family)
    least, greatest = scale
    levels = [level for level in one_two_five(least, greatest) if least < level < greatest]
    height = 1.0 + (2.0 if len(rows) == 1 else 1.62 * len(rows))

    def paint(figure: Figure) -> None:
        from matplotlib.colors import LinearSegmentedColormap, LogNorm

        ramp, norm = LinearSegmentedColormap.from_list("oil", FIELD), LogNorm(least, max(greatest, 1.01 * least))
        grid = figure.subplots(len(rows), 2, sharey="row", sharex=True, squeeze=False)
        for i, (label, one) in enumerate(rows.items()):
            shown = on_axis(degrees, one.temperatures)
            for k, axes in enumerate(grid[i]):
                field = one.fields[k] / factor
                mesh = axes.pcolormesh(one.speeds, shown, field, cmap=ramp, norm=norm, shading="gouraud", rasterized=True)
                inks = [INK if norm(level) < DARK else "#ffffff" for level in levels]
                lines = axes.contour(one.speeds, shown, field, levels=levels, colors=inks, linewidths=0.5)
                axes.clabel(lines, fmt="%g", fontsize=6)
                _open_region(axes, one.maps[k], degrees)
                _curve(axes, one.onsets[k], one.temperatures[0], degrees, RUST, "bypass onset", "-")
                _curve(axes, one.regulators[k], one.temperatures[0], degrees, INK, "regulator opens", (0, (1.2, 1.2)))
                state = ("steady", "while the galleries fill")[k]
                axes.set_title(state if len(rows) == 1 else f"{label}, {state}" if k == 0 else state)
                axes.set_ylim(shown[0], shown[-1])
                axes.set_xlim(one.speeds[0], one.speeds[-1])
            grid[i][0].set_ylabel(f"oil temperature [{degrees.symbol}]" if len(rows) == 1 else f"oil [{degrees.symbol}]")
        for axes in grid[-1]:
            axes.set_xlabel("engine speed [rpm]")
        beside = figure.add_axes((0.895, 0.8 / height, 0.022, (height - 1.05) / height))
        figure.colorbar(mesh, cax=beside, label=f"element Δp [{unit}]", ticks=levels, format="%g").minorticks_off()
        figure.legend(*grid[0][0].get_legend_handles_labels(), loc="lower center", ncols=3)

    first = next(iter(rows.values()))
    ends = on_axis(degrees, first.temperatures[[0, -1]])
    span = f"{plain_number(round(ends[0]))} to {plain_number(round(ends[1]))} {degrees.symbol}"
    alt = (
        f"Operating map of {', '.join(rows)}: element differential pressure up to {significant(greatest)} {unit}, {span}, "
        "steady and while filling; hatched where the bypass valve is open."
    )
    return drawn_chart(paint, alt, (6.4, height), Margins(0.55, 0.82, 0.8, 0.25, 0.16 if len(rows) == 1 else 0.3))


def one_two_five(low: float, high: float) -> list[float]:
    """Return the numbers 1, 2 and 5 times a power of ten between two bounds, as the maps on screen have them.

    Examples
    --------
    >>> one_two_five(0.4, 25)
    [0.5, 1.0, 2.0, 5.0, 10.0, 20.0]
    """
    powers = range(floor(log10(low)), ceil(log10(high)) + 1)
    return [level for power in powers for digit in (1, 2, 5) if low <= (level := float(f"{digit}e{power}")) <= high]


def _open_region(axes: Axes, solved: OperatingMap, degrees: ShownUnit) -> None:
    """Hatch where oil passes the bypass valve."""
    share = np.nan_to_num(solved.quantity("bypass_fraction"))
    if share.max() > 1e-6:
        shown = on_axis(degrees, solved.temperature)
        region = axes.contourf(solved.speed, shown, share, levels=[1e-6, 1.1], colors="none", hatches=["///"])
        region.set_edgecolor("#ffffff")
        region.set_linewidth(0)


def _curve(axes: Axes, onset: BypassOnset, coldest: float, degrees: ShownUnit, ink: str, label: str, dashes: Any) -> None:
    shown = on_axis(degrees, np.where(onset.temperature > coldest + 1e-6, onset.temperature, np.nan))
    axes.plot(onset.speed, shown, color="#ffffff", linewidth=2.6)
    axes.plot(onset.speed, shown, color=ink, linewidth=1.3, linestyle=dashes, label=label)

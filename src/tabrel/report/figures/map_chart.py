"""Operating maps for print: colours, scale and contours as on screen."""

from __future__ import annotations

from math import ceil, floor, log10
from typing import TYPE_CHECKING, Any

import numpy as np

from tabrel.core.catalogue.units import ShownUnit, UnitFamily, unit_in
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.maps.behaviour import SPEEDS, WARMEST
from tabrel.core.maps.onset import BypassOnset, bypass_onset, regulator_opening
from tabrel.core.maps.operating_map import OperatingMap, operating_map
from tabrel.core.numbers import plain_number, significant
from tabrel.report.figures.charts import Chart, Margins, drawn_chart, on_axis
from tabrel.report.figures.palette import FIELD, INK, RUST
from tabrel.report.words import unit_of

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

DARK = 0.55
"""Share of a map's scale from which its lines are white."""
GRID = 61
"""Temperatures and speeds of a printed map."""


def map_chart(point: OperatingPoint, filling: OperatingPoint, label: str, family: UnitFamily) -> Chart:
    """Return the operating map of a filter, steady and while filling: element differential pressure with the onset curves.

    Parameters
    ----------
    point, filling : OperatingPoint
        The same filter, steady and while the galleries fill.
    label : str
    family : str
        Units of the pressure.
    """
    temperatures = np.linspace(point.oil.coldest_pumping(-40.0), WARMEST, GRID)
    degrees = unit_in("°C", family)
    shown = on_axis(degrees, temperatures)
    speeds = np.linspace(float(SPEEDS[0]), float(SPEEDS[-1]), GRID)
    unit, factor = unit_of("kPa", family)
    maps = [operating_map(operating_point, temperatures.tolist(), speeds.tolist()) for operating_point in (point, filling)]
    onsets = [bypass_onset(solved.solved.point, speeds.tolist(), solved) for solved in maps]
    regulators = [regulator_opening(solved.solved.point, speeds.tolist(), solved) for solved in maps]
    fields = [item.quantity("element_pressure") / factor for item in maps]
    known = np.concatenate([field[np.isfinite(field) & (field > 0)] for field in fields])
    least, greatest = (float(known.min()), float(known.max())) if known.size else (0.1, 1.0)

    def paint(figure: Figure) -> None:
        from matplotlib.colors import LinearSegmentedColormap, LogNorm

        ramp, scale = LinearSegmentedColormap.from_list("oil", FIELD), LogNorm(least, max(greatest, 1.01 * least))
        levels = [level for level in one_two_five(least, greatest) if least < level < greatest]
        left, right = figure.subplots(1, 2, sharey=True)
        for axes, field, solved, onset, regulator, words in zip(
            (left, right), fields, maps, onsets, regulators, ("steady", "while the galleries fill"), strict=True
        ):
            mesh = axes.pcolormesh(speeds, shown, field, cmap=ramp, norm=scale, shading="gouraud", rasterized=True)
            inks = [INK if scale(level) < DARK else "#ffffff" for level in levels]
            lines = axes.contour(speeds, shown, field, levels=levels, colors=inks, linewidths=0.5)
            axes.clabel(lines, fmt="%g", fontsize=6)
            _open_region(axes, solved, degrees)
            _curve(axes, onset, temperatures[0], degrees, RUST, "bypass onset", "-")
            _curve(axes, regulator, temperatures[0], degrees, INK, "regulator opens", (0, (1.2, 1.2)))
            axes.set_title(words)
            axes.set_xlabel("engine speed [rpm]")
            axes.set_ylim(shown[0], shown[-1])
            axes.set_xlim(speeds[0], speeds[-1])
        left.set_ylabel(f"oil temperature [{degrees.symbol}]")
        beside = figure.add_axes((0.895, 0.27, 0.022, 0.645))
        figure.colorbar(mesh, cax=beside, label=f"element Δp [{unit}]", ticks=levels, format="%g").minorticks_off()
        figure.legend(*left.get_legend_handles_labels(), loc="lower center", ncols=3)

    span = f"{plain_number(round(shown[0]))} to {plain_number(round(shown[-1]))} {degrees.symbol}"
    alt = (
        f"Operating map of {label}: element differential pressure up to {significant(greatest)} {unit}, {span}, "
        "steady and while filling; hatched where the bypass valve is open."
    )
    return drawn_chart(paint, alt, (6.4, 3.0), Margins(0.55, 0.82, 0.8, 0.25, 0.16))


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

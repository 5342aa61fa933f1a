"""Charts for print, from the core's own arrays. Matplotlib is loaded when the first of them is drawn."""

from __future__ import annotations

import warnings
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from io import StringIO
from pathlib import Path
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from tabrel.core.catalogue.terms import OPENING_WAYS
from tabrel.core.catalogue.units import ShownUnit, UnitFamily, unit_in
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.counts.counted_test import CountedTest
from tabrel.core.figures.counted_figure import counted_figure
from tabrel.core.figures.efficiency_evidence import DRAWN_SIZES, efficiency_evidence
from tabrel.core.figures.opening_evidence import opening_comparison
from tabrel.core.maps.behaviour import WARMEST
from tabrel.core.maps.operating_map import operating_map
from tabrel.core.oil.model import OilModel
from tabrel.core.parts.valve_curve import valve_curve
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.starts.warm_up import WarmUp
from tabrel.report.figures.palette import AMBER, AMBER_WASH, HAND, INK, INK_SOFT, LINE, RUST, RUST_WASH, SLATE
from tabrel.report.words import degrees_words, unit_of

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

FloatArray = NDArray[np.float64]

FONTS = Path(__file__).parent.parent / "fonts"

BENCH_TEMPERATURE = 20.0


@dataclass(frozen=True)
class Chart:
    """A chart as SVG, and its text alternative."""

    svg: str
    alt: str


@lru_cache
def _style() -> Mapping[str, Any]:
    """Load matplotlib with the report's own fonts, once, and return how charts look."""
    from matplotlib import font_manager

    # a letter that no font here has is drawn as a box, and that is seen; a warning for each would be noise
    warnings.filterwarnings("ignore", message="Glyph .* missing from font")
    for font in FONTS.glob("*.ttf"):
        font_manager.fontManager.addfont(font)
    return {
        "font.family": ["IBM Plex Sans", "DejaVu Sans"],
        "font.size": 8,
        "axes.edgecolor": INK_SOFT,
        "axes.labelcolor": INK,
        "axes.linewidth": 0.6,
        "axes.titlesize": 8.5,
        "axes.titlelocation": "left",
        "xtick.color": INK_SOFT,
        "ytick.color": INK_SOFT,
        "xtick.labelcolor": INK,
        "ytick.labelcolor": INK,
        "grid.color": LINE,
        "grid.linewidth": 0.4,
        "legend.frameon": False,
        "legend.fontsize": 7.5,
        "hatch.linewidth": 0.5,
        "svg.fonttype": "none",
        "text.parse_math": False,
        "svg.hashsalt": "tabrel",
    }


@dataclass(frozen=True)
class Margins:
    """Room around the axes of a chart, and between them. [inch]"""

    left: float = 0.62
    right: float = 0.1
    bottom: float = 0.42
    top: float = 0.08
    between: float = 0.25


def drawn_chart(paint: Any, alt: str, size: tuple[float, float], margins: Margins = Margins()) -> Chart:
    """Return what a function paints on an empty figure; room is stated, since finding it would draw everything twice more."""
    style = _style()
    from matplotlib import rc_context
    from matplotlib.backends.backend_svg import FigureCanvasSVG
    from matplotlib.figure import Figure

    (width, height), out = size, StringIO()
    with rc_context(dict(style)):  # type: ignore[arg-type]
        figure = Figure(figsize=size, dpi=72)
        canvas = FigureCanvasSVG(figure)
        figure.subplots_adjust(
            left=margins.left / width,
            right=1 - margins.right / width,
            bottom=margins.bottom / height,
            top=1 - margins.top / height,
            wspace=margins.between / 2,
            hspace=margins.between,
        )
        paint(figure)
        canvas.print_svg(out, metadata={"Date": None, "Creator": None, "Title": alt})  # type: ignore[no-untyped-call]
    text = out.getvalue()
    return Chart(text[text.index("<svg") :], alt)


def on_axis(unit: ShownUnit, values: FloatArray) -> FloatArray:
    """Return numbers of a metric unit in the one that is shown."""
    return values * unit.factor + unit.zero


def start_chart(start: WarmUp, label: str, family: UnitFamily) -> Chart:
    """Return the course of a start: oil temperature and engine speed, element differential pressure, unfiltered share."""
    unit, factor = unit_of("kPa", family)
    degrees = unit_in("°C", family)
    minutes = start.time / 60
    every = np.unique(np.searchsorted(start.time, np.linspace(0.0, start.time[-1], 500)))

    def paint(figure: Figure) -> None:
        warm, pressed, past = figure.subplots(3, 1, sharex=True)
        warm.plot(minutes[every], on_axis(degrees, start.temperature[every]), color=AMBER, linewidth=1.2, label="oil")
        in_the_can = on_axis(degrees, start.can_temperature[every])
        warm.plot(minutes[every], in_the_can, color=SLATE, linewidth=1.0, linestyle="--", label="in the can")
        warm.set_ylabel(f"oil [{degrees.symbol}]")
        warm.legend(loc="lower right", ncols=2)
        pressed.plot(minutes[every], start.element_pressure[every] / factor, color=INK, linewidth=0.9)
        pressed.set_ylabel(f"element Δp\n[{unit}]")
        past.fill_between(minutes[every], 0, 100 * np.nan_to_num(start.unfiltered_fraction[every]), color=RUST_WASH, linewidth=0)
        past.plot(minutes[every], 100 * start.unfiltered_fraction[every], color=RUST, linewidth=0.8)
        past.set_ylabel("unfiltered\n[% of flow]")
        past.set_ylim(bottom=0)
        past.set_xlabel("time [min]")
        past.set_xlim(0, minutes[-1])
        for axes in (warm, pressed, past):
            axes.grid(True)
            axes.yaxis.set_label_coords(-0.065, 0.5)

    alt = (
        f"Start of {label}: {start.bypass_time / 60:.1f} min with the bypass valve open, "
        f"{start.unfiltered_volume * 1e3:.1f} L unfiltered."
    )
    return drawn_chart(paint, alt, (6.4, 3.3), Margins(0.72, bottom=0.5))


def valve_chart(measured: MeasuredSample, oil: OilModel | None, hot: float, family: UnitFamily) -> Chart | None:
    """Return the bypass valve's flow against the pressure across it, with every way to its opening pressure below."""
    compared = opening_comparison(measured)
    valve = measured.bypass.valve
    if not compared.evidence:
        return None
    (unit, factor), (flow_unit, per_flow) = unit_of("kPa", family), unit_of("L/min", family)
    curves = [valve_curve(valve, oil, at) for at in (BENCH_TEMPERATURE, hot)] if valve and oil else []

    def paint(figure: Figure) -> None:
        heights = [2.2, 1.0] if curves else [1.0]
        axes = figure.subplots(len(heights), 1, sharex=True, height_ratios=heights, squeeze=False)[:, 0]
        if curves:
            for curve, ink, dashes in zip(curves, (SLATE, AMBER), ("--", "-"), strict=True):
                oil_at = f"oil at {degrees_words(round(curve.temperature), family)}"
                axes[0].plot(curve.pressure / factor, curve.flow_rate / per_flow, color=ink, linestyle=dashes, label=oil_at)
            axes[0].set_ylabel(f"flow [{flow_unit}]")
            axes[0].legend(loc="upper left")
            axes[0].grid(True)
        ways = axes[-1]
        names = []
        for i, evidence in enumerate(compared.evidence):
            value, margins = evidence.opening.value, evidence.opening.expanded_uncertainty
            if value is None:
                continue
            names.append((i, OPENING_WAYS.get(evidence.basis, evidence.basis) + (" (used)" if evidence.is_used else "")))
            ends = None if margins is None else margins / factor
            ink = HAND if evidence.is_used else SLATE
            ways.errorbar(value / factor, i, xerr=ends, fmt="o", color=ink, markersize=4, capsize=3, linewidth=1)
        if compared.stated_band:
            ways.axvspan(compared.stated_band.low / factor, compared.stated_band.high / factor, color=AMBER_WASH, zorder=0)
        ways.set_yticks([i for i, _ in names], [words for _, words in names])
        ways.set_ylim(len(compared.evidence) - 0.4, -0.6)
        ways.set_xlabel(f"differential pressure across the valve [{unit}]; whiskers: U, 95 %; shaded: stated band")
        ways.set_xlim(left=0)
        ways.grid(True, axis="x")

    return drawn_chart(
        paint,
        "Bypass valve: flow against differential pressure, and the ways to its opening pressure.",
        (6.4, 2.6),
        Margins(1.35),
    )


def efficiency_chart(measured: MeasuredSample) -> Chart | None:
    """Return efficiency over particle size: counts with intervals, curve with band, claims, the screening estimate."""
    evidence, figure_of_counts = efficiency_evidence(measured), counted_figure(measured)
    if evidence.medium is None and figure_of_counts is None and not any(claimed.point for claimed in evidence.claims):
        return None

    def paint(figure: Figure) -> None:
        axes = figure.subplots()
        axes.set_xscale("log")
        if evidence.medium is not None:
            low, high = ([100 * (getattr(result, end) or 0.0) for result in evidence.estimate] for end in ("low", "high"))
            axes.fill_between(
                DRAWN_SIZES, low, high, color=LINE, alpha=0.5, linewidth=0, label="screening estimate, a factor of 2 in size"
            )
        if figure_of_counts is not None:
            for curve in figure_of_counts.curves:
                axes.fill_between(curve.size, 100 * curve.low, 100 * curve.high, color=AMBER_WASH, linewidth=0)
                inside = (curve.size >= curve.lowest) & (curve.size <= curve.highest)
                axes.plot(curve.size, 100 * curve.value, color=AMBER, linewidth=0.8, linestyle="--")
                axes.plot(
                    curve.size[inside], 100 * curve.value[inside], color=AMBER, linewidth=1.4, label="curve through counts, 95 %"
                )
            _counted(axes, figure_of_counts.test)
        for i, claimed in enumerate(claim for claim in evidence.claims if claim.point):
            marks = {"=": "D", ">=": "^", ">": "^"}
            percent = claimed.claim.efficiency_percent
            sizes = list(claimed.point.sizes) if claimed.point else []
            mark = marks.get(claimed.claim.relation or "=", "D")
            label = "claim (▲: at least)" if i == 0 else None
            axes.plot(sizes, [percent or 0.0] * len(sizes), mark, color=RUST, markersize=5, linestyle="-", label=label)
        axes.set_xlabel("particle size [µm(c)]")
        axes.set_ylabel("efficiency [%]")
        axes.set_ylim(0, 103)
        axes.set_xlim(3.5, 62)
        axes.set_xticks([4, 6, 10, 20, 30, 40, 60], ["4", "6", "10", "20", "30", "40", "60"])
        axes.xaxis.set_minor_locator(_no_ticks())
        axes.grid(True)
        axes.legend(loc="lower right")

    return drawn_chart(
        paint, "Micron efficiency over particle size: counts, claims and the screening estimate.", (6.4, 2.7), Margins()
    )


def _no_ticks() -> Any:
    from matplotlib.ticker import NullLocator

    return NullLocator()


def _counted(axes: Axes, test: CountedTest) -> None:
    betas = test.totals.betas
    value, low, high = (100 * (1 - 1 / array) for array in (betas.value, betas.low, betas.high))
    for i, read in enumerate(test.readings):
        ends = np.stack([np.clip(value - low, 0, None), np.clip(high - value, 0, None)])
        there = np.isfinite(value) & np.isfinite(ends).all(axis=0) & np.isfinite(read.sizes)
        look: dict[str, Any] = {"color": INK, "markersize": 3.5, "capsize": 2.5, "linewidth": 0.9}
        mark, label = ("o", "counts, 95 %") if i == 0 else ("s", None)
        axes.errorbar(read.sizes[there], value[there], yerr=ends[:, there], fmt=mark, label=label, **look)


def chances_chart(chances: Mapping[str, Sequence[float]], colours: Mapping[str, str]) -> Chart:
    """Return the chance of each place as one stacked bar a filter."""
    labels = list(chances)
    shades = np.linspace(1.0, 0.25, max(len(labels), 2))

    def paint(figure: Figure) -> None:
        axes = figure.subplots()
        for row, label in enumerate(labels):
            start = 0.0
            for place, share in enumerate(chances[label]):
                axes.barh(
                    row, 100 * share, left=100 * start, color=colours[label], alpha=float(shades[place]), edgecolor="#ffffff"
                )
                if share > 0.04:
                    ink = "#ffffff" if shades[place] > 0.7 else INK
                    words = f"{place + 1}: {100 * share:.0f} %" if share > 0.1 else f"{place + 1}:"
                    axes.text(100 * (start + share / 2), row, words, ha="center", va="center", fontsize=7, color=ink)
                start += share
        axes.set_yticks(range(len(labels)), labels)
        axes.invert_yaxis()
        axes.set_xlim(0, 100)
        axes.set_xlabel("chance of each place, by the weighted score [%]")

    words = "; ".join(f"{label} is first with {100 * share[0]:.0f} %" for label, share in chances.items())
    return drawn_chart(paint, f"Chance of each place: {words}.", (6.4, 0.6 + 0.32 * len(labels)), Margins(1.1))


SAME_LINE = 0.02
"""Of the height of a chart: curves as near as this everywhere are drawn as one."""


def _told_together(curves: Mapping[str, tuple[FloatArray, FloatArray]]) -> dict[str, str]:
    """Return the curves that are drawn, with the words of each: those that coincide are one, with all their names.

    Examples
    --------
    >>> line, other = np.array([1.0, 2.0]), np.array([5.0, 9.0])
    >>> _told_together({"A": (line, line), "B": (other, line), "C": (line, line)})
    {'A': 'A, C (on one line)', 'B': 'B'}
    """
    known = [np.nan_to_num(np.stack([both[k] for both in curves.values()])) for k in (0, 1)]
    heights = [max(float(values.max()), 1e-9) for values in known] if curves else []
    homes: dict[str, list[str]] = {}
    labels = list(curves)
    for i, label in enumerate(labels):
        home = next(
            (first for first in homes if all(
                np.abs(values[i] - values[labels.index(first)]).max() <= SAME_LINE * height
                for values, height in zip(known, heights, strict=True)
            )),
            None,
        )  # fmt: skip
        homes.setdefault(home or label, []).append(label)
    return {first: first if len(of) == 1 else f"{', '.join(of)} (on one line)" for first, of in homes.items()}


def slices_chart(points: Mapping[str, OperatingPoint], speed: float, colours: Mapping[str, str], family: UnitFamily) -> Chart:
    """Return element differential pressure and unfiltered share of several filters over oil temperature at one speed."""
    unit, factor = unit_of("kPa", family)
    coldest = max((point.oil.coldest_pumping(-40.0) for point in points.values()), default=-40.0)
    temperatures = np.linspace(coldest, WARMEST, 91)
    degrees = unit_in("°C", family)
    shown = on_axis(degrees, temperatures)
    solved = {label: operating_map(point, temperatures.tolist(), [speed]) for label, point in points.items()}
    curves = {
        label: (item.quantity("element_pressure")[:, 0] / factor, 100 * item.quantity("unfiltered_fraction")[:, 0])
        for label, item in solved.items()
    }
    names = _told_together(curves)
    dashes = ("-", "--", "-.", ":", (0, (5, 1, 1, 1, 1, 1)))

    def paint(figure: Figure) -> None:
        left, right = figure.subplots(1, 2)
        for i, (label, words) in enumerate(names.items()):
            look: dict[str, Any] = {"color": colours[label], "linestyle": dashes[i % len(dashes)], "linewidth": 1.2}
            left.plot(shown, curves[label][0], label=words, **look)
            right.plot(shown, curves[label][1], **look)
        left.set_ylabel(f"element Δp [{unit}]")
        right.set_ylabel("unfiltered [% of flow]")
        for axes in (left, right):
            axes.set_xlabel(f"oil temperature [{degrees.symbol}]")
            axes.set_ylim(bottom=0)
            axes.grid(True)
        figure.legend(*left.get_legend_handles_labels(), loc="lower center", ncols=5)

    return drawn_chart(
        paint,
        f"Element differential pressure and unfiltered share of {', '.join(names.values())} over oil temperature "
        f"at {speed:.0f} rpm.",
        (6.4, 2.8),
        Margins(0.55, 0.1, 0.72, 0.1, 0.34),
    )

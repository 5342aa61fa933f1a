"""Evidence about a sample from tests, benches and photographs, as the study document holds it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

from tabrel.core.study.frame import Oil
from tabrel.core.study.strict import Strict

SizeScale = Literal["um(c)", "um(b)", "um", "unnamed"]


@dataclass(frozen=True)
class CountRow(Strict):
    """Particles counted at and above one size, before and after the filter."""

    size_um: float
    upstream: int
    downstream: int


@dataclass(frozen=True)
class BlankCounts(Strict):
    """Particles counted at and above each size in a blank, for all intervals together."""

    upstream: tuple[int, ...]
    downstream: tuple[int, ...]


@dataclass(frozen=True)
class CountInterval(Strict):
    """One interval of a counted test: when it ended, and the particles counted at and above each size.

    Attributes
    ----------
    upstream, downstream : tuple of int
        One count a size.
    time_min : float or None
        End of the interval.
    differential_pressure_kpa, injected_g, circulating_mg_l : float or None
        What was recorded at its end: differential pressure, dust injected so far, what circulates upstream.
    """

    upstream: tuple[int, ...]
    downstream: tuple[int, ...]
    time_min: float | None = None
    differential_pressure_kpa: float | None = None
    injected_g: float | None = None
    circulating_mg_l: float | None = None


@dataclass(frozen=True)
class Counts(Strict):
    """Particle counts of a test: intervals at common sizes, or in the older form rows of one interval.

    Attributes
    ----------
    scale : str
        Of the sizes.
    volume_ml, dilution, rows : optional
        The older form: one interval, the same volume and dilution on both sides.
    test_kind, standard, source, dust, fluid : str or None
        In words.
    sizes_um : tuple of float
        Rising.
    upstream_ml, upstream_dilution, downstream_ml, downstream_dilution, coincidence_per_ml : float or None
        How it was counted.
    ratio_uncertainty_percent, size_uncertainty_percent : float or None
        Standard uncertainties, as stated.
    blank : BlankCounts or None
    system_volume_l, flow_l_min, temperature_c, clean_hardware_kpa, clean_element_kpa, terminal_ratio : float or None
        Test conditions.
    dust_lot, tested : str or None
        Lot of the dust; ISO date of the test.
    kinematic_mm2_s, base_level_mg_l, terminal_kpa : float or None
        Viscosity of the fluid at the test's temperature; dust upstream that is kept up; where the test was ended.
    intervals : tuple of CountInterval
        In order of time.
    """

    scale: SizeScale
    volume_ml: float | None = None
    dilution: float | None = None
    rows: tuple[CountRow, ...] = ()
    test_kind: str | None = None
    standard: str | None = None
    source: str | None = None
    sizes_um: tuple[float, ...] = ()
    upstream_ml: float | None = None
    upstream_dilution: float | None = None
    downstream_ml: float | None = None
    downstream_dilution: float | None = None
    coincidence_per_ml: float | None = None
    ratio_uncertainty_percent: float | None = None
    size_uncertainty_percent: float | None = None
    dust: str | None = None
    fluid: str | None = None
    blank: BlankCounts | None = None
    system_volume_l: float | None = None
    flow_l_min: float | None = None
    temperature_c: float | None = None
    clean_hardware_kpa: float | None = None
    clean_element_kpa: float | None = None
    terminal_ratio: float | None = None
    intervals: tuple[CountInterval, ...] = ()
    dust_lot: str | None = None
    tested: str | None = None
    kinematic_mm2_s: float | None = None
    base_level_mg_l: float | None = None
    terminal_kpa: float | None = None


@dataclass(frozen=True)
class FlowBenchRow(Strict):
    """One point of a flow bench; the uncertainty is a standard uncertainty, as stated."""

    flow_l_min: float
    temperature_c: float
    differential_pressure_kpa: float
    uncertainty_kpa: float | None = None


@dataclass(frozen=True)
class FlowBench(Strict):
    """A series of a flow bench: the whole filter, or bare hardware with the element out; the study's oil unless named."""

    rows: tuple[FlowBenchRow, ...]
    oil: Oil | None = None
    hardware_only: bool | None = None


@dataclass(frozen=True)
class BypassBenchRow(Strict):
    """One point of a bypass bench; falling where the pressure was being lowered."""

    pressure_kpa: float
    flow_l_min: float
    falling: bool | None = None


@dataclass(frozen=True)
class BypassBench(Strict):
    """A series of a bypass bench, in the order in which it was taken."""

    rows: tuple[BypassBenchRow, ...]
    temperature_c: float | None = None
    stated_flow_l_min: float | None = None
    gauge_error_percent: float | None = None


@dataclass(frozen=True)
class PhotographScale(Strict):
    """A known length in a photograph, with its unit, its two ends in pixels, and the plane of the part it is good for.

    `corners_px` are those of a known rectangle, which take the perspective out.
    """

    length: str
    from_px: tuple[float, float]
    to_px: tuple[float, float]
    corners_px: tuple[tuple[float, float], ...] | None = None
    plane: str | None = None


@dataclass(frozen=True)
class Photograph(Strict):
    """A photograph of a sample: its file, and what was marked in it.

    Attributes
    ----------
    file : str
        Path inside the study's folder.
    sha256 : str or None
        Of the file, in hexadecimal.
    caption : str or None
    part, stage : str or None
        What it shows, and at which station it was taken.
    taken : str or None
        ISO date.
    scale : PhotographScale or None
    marks : tuple of dict
        As they were set.
    """

    file: str
    sha256: str | None = None
    caption: str | None = None
    part: str | None = None
    stage: str | None = None
    taken: str | None = None
    scale: PhotographScale | None = None
    marks: tuple[dict[str, Any], ...] = ()

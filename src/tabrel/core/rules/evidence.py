"""Refuse what is impossible in counts, benches and photographs."""

from __future__ import annotations

from collections.abc import Sequence

from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.rules.refusals import require_above_zero, require_date, require_temperature, require_text
from tabrel.core.study.evidence import BypassBench, Counts, FlowBench, Photograph

MOST_PARTICLES = 10**15
ABOVE_ZERO_IN_COUNTS = (
    "volume_ml", "dilution", "upstream_ml", "upstream_dilution", "downstream_ml", "downstream_dilution", "coincidence_per_ml",
    "system_volume_l", "flow_l_min", "terminal_ratio", "clean_element_kpa", "kinematic_mm2_s", "terminal_kpa",
)  # fmt: skip


def check_counts(path: str, counts: Counts) -> None:
    """Raise `StudyError` at the first impossible thing in the counts of a test."""
    require_above_zero(path, **{name: getattr(counts, name) for name in ABOVE_ZERO_IN_COUNTS})
    for name in ("clean_hardware_kpa", "ratio_uncertainty_percent", "size_uncertainty_percent", "base_level_mg_l"):
        _require_not_negative(f"{path}.{name}", getattr(counts, name))
    if counts.temperature_c is not None:
        require_temperature(path, counts.temperature_c)
    if counts.rows and counts.intervals:
        raise StudyError(f"{path}.rows", "cannot be beside intervals: give the rows as one interval")
    if counts.terminal_ratio is not None and counts.terminal_ratio <= 1:
        raise StudyError(f"{path}.terminal_ratio", f"must be above 1, which is clean, not {counts.terminal_ratio:g}: check it")
    require_date(f"{path}.tested", counts.tested)
    if counts.sizes_um and not counts.intervals and not counts.rows:
        raise StudyError(path, "counts no particles: add intervals with upstream and downstream counts")
    if counts.rows and (counts.volume_ml is None or counts.dilution is None):
        raise StudyError(path, "rows need volume_ml and dilution: add both")
    for i, row in enumerate(counts.rows):
        require_above_zero(f"{path}.rows[{i}]", size_um=row.size_um)
        _check_numbers(f"{path}.rows[{i}]", (row.upstream, row.downstream))
    _check_intervals(path, counts)


def _check_intervals(path: str, counts: Counts) -> None:
    sizes = counts.sizes_um
    if counts.intervals and not sizes:
        raise StudyError(f"{path}.sizes_um", "is missing: say at which sizes the intervals count")
    for i, size in enumerate(sizes):
        if size <= 0 or (i and size <= sizes[i - 1]):
            raise StudyError(f"{path}.sizes_um[{i}]", f"{size:g} must be above the one before it: put them in order")
    series = [(f"{path}.intervals[{i}]", interval) for i, interval in enumerate(counts.intervals)]
    for place, counted in [*series, *([(f"{path}.blank", counts.blank)] if counts.blank else [])]:
        for side in ("upstream", "downstream"):
            numbers = getattr(counted, side)
            if len(numbers) != len(sizes):
                raise StudyError(f"{place}.{side}", f"holds {len(numbers)} counts for {len(sizes)} sizes: give one a size")
            _check_numbers(f"{place}.{side}", numbers)
    last = 0.0
    for place, interval in series:
        for name in ("differential_pressure_kpa", "injected_g", "circulating_mg_l"):
            _require_not_negative(f"{place}.{name}", getattr(interval, name))
        if interval.time_min is not None:
            if interval.time_min <= last:
                raise StudyError(f"{place}.time_min", f"{interval.time_min:g} is not after the one before: put them in order")
            last = interval.time_min


def check_flow_bench(path: str, series: FlowBench) -> None:
    """Raise `StudyError` at the first impossible thing in a series of a flow bench; its oil is checked elsewhere."""
    if not series.rows:
        raise StudyError(f"{path}.rows", "is empty: give flow, temperature and differential pressure row by row")
    for i, row in enumerate(series.rows):
        place = f"{path}.rows[{i}]"
        require_above_zero(place, flow_l_min=row.flow_l_min, uncertainty_kpa=row.uncertainty_kpa)
        require_temperature(place, row.temperature_c)
        _require_not_negative(f"{place}.differential_pressure_kpa", row.differential_pressure_kpa)


def check_bypass_bench(path: str, bench: BypassBench) -> None:
    """Raise `StudyError` at the first impossible thing in a series of a bypass bench."""
    if not bench.rows:
        raise StudyError(f"{path}.rows", "is empty: give pressure and flow row by row")
    if bench.temperature_c is not None:
        require_temperature(path, bench.temperature_c)
    require_above_zero(path, stated_flow_l_min=bench.stated_flow_l_min, gauge_error_percent=bench.gauge_error_percent)
    for i, row in enumerate(bench.rows):
        _require_not_negative(f"{path}.rows[{i}].pressure_kpa", row.pressure_kpa)
        _require_not_negative(f"{path}.rows[{i}].flow_l_min", row.flow_l_min)


def check_photograph(path: str, photograph: Photograph) -> None:
    """Raise `StudyError` at the first impossible thing in what is noted of a photograph."""
    require_text(f"{path}.file", photograph.file)
    if photograph.file.startswith("/") or ".." in photograph.file.split("/") or "\\" in photograph.file:
        raise StudyError(f"{path}.file", f"{photograph.file!r} must lie inside the study: write it like photographs/3.jpg")
    digest = photograph.sha256
    if digest is not None and (len(digest) != 64 or set(digest.lower()) - set("0123456789abcdef")):
        raise StudyError(f"{path}.sha256", "must be 64 hexadecimal digits: take it from the file")
    require_date(f"{path}.taken", photograph.taken)
    if photograph.scale:
        try:
            parse_reading(photograph.scale.length, "length", zero_allowed=False)
        except ReadingTextError as error:
            raise StudyError(f"{path}.scale.length", str(error)) from error
        if photograph.scale.from_px == photograph.scale.to_px:
            raise StudyError(f"{path}.scale.to_px", "is the same point as from_px: give the two ends of the length")


def _require_not_negative(path: str, value: float | None) -> None:
    if value is not None and value < 0:
        raise StudyError(path, f"must not be below zero, not {value:g}: leave it out if it is not known")


def _check_numbers(path: str, numbers: Sequence[int]) -> None:
    if not all(0 <= number <= MOST_PARTICLES for number in numbers):
        raise StudyError(path, "is no count of particles: type the number counted")

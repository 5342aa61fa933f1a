"""Refuse what is impossible in counts, benches and photographs."""

from __future__ import annotations

from collections.abc import Sequence

from tabrel.core.catalogue.physical_limits import MOST_PARTICLES, PHYSICAL_LIMITS
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.errors import ReadingTextError, StudyError
from tabrel.core.rules.refusals import require_date, require_limits, require_text
from tabrel.core.study.evidence import BypassBench, Counts, FlowBench, Photograph

MOST_PIXELS = 1e6
"""Of one side of a photograph."""


def check_counts(path: str, counts: Counts) -> None:
    """Raise `StudyError` at the first impossible thing in the counts of a test."""
    require_limits(path, counts)
    if counts.rows and counts.intervals:
        raise StudyError(f"{path}.rows", "cannot be beside intervals: give the rows as one interval")
    require_date(f"{path}.tested", counts.tested)
    if counts.sizes_um and not counts.intervals and not counts.rows:
        raise StudyError(path, "counts no particles: add intervals with upstream and downstream counts")
    if counts.rows and (counts.volume_ml is None or counts.dilution is None):
        raise StudyError(path, "rows need volume_ml and dilution: add both")
    for i, row in enumerate(counts.rows):
        require_limits(f"{path}.rows[{i}]", row)
        _check_numbers(f"{path}.rows[{i}]", (row.upstream, row.downstream))
    _check_intervals(path, counts)


def _check_intervals(path: str, counts: Counts) -> None:
    sizes = counts.sizes_um
    if counts.intervals and not sizes:
        raise StudyError(f"{path}.sizes_um", "is missing: say at which sizes the intervals count")
    for i, size in enumerate(sizes):
        if not PHYSICAL_LIMITS["size_um"].allow(size):
            raise StudyError(f"{path}.sizes_um[{i}]", PHYSICAL_LIMITS["size_um"].why_not(size))
        if i and size <= sizes[i - 1]:
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
        require_limits(place, interval)
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
        require_limits(place, row)


def check_bypass_bench(path: str, bench: BypassBench) -> None:
    """Raise `StudyError` at the first impossible thing in a series of a bypass bench."""
    if not bench.rows:
        raise StudyError(f"{path}.rows", "is empty: give pressure and flow row by row")
    require_limits(path, bench)
    for i, row in enumerate(bench.rows):
        require_limits(f"{path}.rows[{i}]", row)


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
        for name in ("from_px", "to_px"):
            x, y = getattr(photograph.scale, name)
            if max(abs(x), abs(y)) > MOST_PIXELS:
                raise StudyError(f"{path}.scale.{name}", f"{x:g}, {y:g} lies in no photograph: mark it again")
        if photograph.scale.from_px == photograph.scale.to_px:
            raise StudyError(f"{path}.scale.to_px", "is the same point as from_px: give the two ends of the length")


def _check_numbers(path: str, numbers: Sequence[int]) -> None:
    if not all(0 <= number <= MOST_PARTICLES for number in numbers):
        raise StudyError(path, "is no count of particles: type the number counted")

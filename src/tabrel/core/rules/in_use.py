"""Refuse what is impossible in what was found on a used filter, in intervals, logs and own instruments."""

from __future__ import annotations

from typing import get_args

from tabrel.core.catalogue.quantities import INSTRUMENT_DIMENSIONS
from tabrel.core.catalogue.units import Dimension
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.errors import ReadingTextError, StudyError, nearest_hint
from tabrel.core.rules.refusals import require_date, require_limits, require_text
from tabrel.core.study.frame import Instrument, as_reading
from tabrel.core.study.in_use import Captured, Finding, OwnInstrument, UnfilteredOpening, UsedStrip
from tabrel.core.study.model import Sample, Study
from tabrel.core.study.strict import Strict

_LENGTHS: dict[type, tuple[str, ...]] = {
    UsedStrip: ("burr_at", "inlet_holes_at", "half_band", "reach"),
    Finding: ("along", "across", "length", "width"),
    UnfilteredOpening: ("diameter", "lift", "land", "gap"),
}
_MASSES: dict[type, tuple[str, ...]] = {Captured: ("used", "new", "caught", "caught_uncertainty", "media")}


def check_in_use(path: str, sample: Sample) -> None:
    """Raise `StudyError` at the first impossible thing in what is noted of the use of a sample."""
    if sample.change_interval:
        require_limits(f"{path}.change_interval", sample.change_interval)
    for i, remark in enumerate(sample.remarks):
        require_text(f"{path}.remarks[{i}].part", remark.part)
        require_text(f"{path}.remarks[{i}].text", remark.text)
    if service := sample.service:
        require_limits(f"{path}.service", service)
        for name in ("fitted_on", "removed_on"):
            require_date(f"{path}.service.{name}", getattr(service, name))
        if service.fitted_on and service.removed_on and service.removed_on < service.fitted_on:
            raise StudyError(
                f"{path}.service.removed_on", f"{service.removed_on} is before {service.fitted_on}: check both dates"
            )
    for i, weighing in enumerate(sample.weighings):
        _check_weighing(f"{path}.weighings[{i}]", weighing.what, [(row.after_min, row.mass) for row in weighing.rows])
    if sample.captured:
        _check_texts(f"{path}.captured", sample.captured)
    if sample.strip:
        _check_texts(f"{path}.strip", sample.strip)
        _check_one(f"{path}.strip.inspected_area", sample.strip.inspected_area, "area")
    photographs = {photograph.file for photograph in sample.photographs}
    for i, finding in enumerate(sample.findings):
        place = f"{path}.findings[{i}]"
        require_text(f"{place}.part", finding.part)
        require_limits(place, finding)
        _check_texts(place, finding)
        _check_photograph(f"{place}.photograph", finding.photograph, photographs)
    for key, entries in sample.readings.items():
        for i, entry in enumerate(entries):
            _check_photograph(f"{path}.readings.{key}[{i}].photograph", as_reading(entry).photograph, photographs)
    for i, opening in enumerate(sample.openings):
        require_limits(f"{path}.openings[{i}]", opening)
        _check_texts(f"{path}.openings[{i}]", opening)
        for dimension, texts in opening.readings.by_dimension():
            for k, entry in enumerate(texts):
                _check_one(f"{path}.openings[{i}].readings.{dimension}[{k}]", as_reading(entry).text, "length")
    if state := sample.bypass_state:
        for name in ("lift", "gap"):
            _check_one(f"{path}.bypass_state.{name}", getattr(state, name), "length")


def check_service_plan(study: Study) -> None:
    """Raise `StudyError` at the first impossible thing in intervals, odometer, changes, gauge logs and own instruments."""
    for i, interval in enumerate(study.intervals):
        require_limits(f"intervals[{i}]", interval)
        require_date(f"intervals[{i}].stated_on", interval.stated_on)
        if interval.distance_km is None and interval.months is None and interval.hours is None:
            raise StudyError(f"intervals[{i}]", "has no end: give distance_km, months or hours")
    for name in ("odometer", "changes"):
        for i, row in enumerate(getattr(study, name)):
            require_limits(f"{name}[{i}]", row)
            require_text(f"{name}[{i}].on", row.on)
            require_date(f"{name}[{i}].on", row.on)
    for i, log in enumerate(study.gauge_logs):
        require_text(f"gauge_logs[{i}].name", log.name)
        last = None
        for k, point in enumerate(log.rows):
            place = f"gauge_logs[{i}].rows[{k}]"
            require_limits(place, point)
            if last is not None and point.time_s <= last:
                raise StudyError(f"{place}.time_s", f"{point.time_s:g} is not after the one before: put the rows in order")
            last = point.time_s
    names: set[str] = set()
    for i, instrument in enumerate(study.instruments):
        _check_instrument(f"instruments[{i}]", instrument)
        if instrument.name in names:
            raise StudyError(f"instruments[{i}].name", f"{instrument.name!r} names two instruments: give each its own name")
        names.add(instrument.name)
    if study.typical:
        require_limits("typical", study.typical)
    for i, sample in enumerate(study.samples):
        for key, entries in sample.readings.items():
            for k, entry in enumerate(entries):
                _check_named(f"samples[{i}].readings.{key}[{k}].instrument", as_reading(entry).instrument, names)


def _check_named(path: str, name: str | None, own: set[str]) -> None:
    if name is not None and name not in get_args(Instrument) and name not in own:
        hint = nearest_hint(name, [*get_args(Instrument), *own])
        raise StudyError(path, f"{name!r} is no instrument{hint}: use a usual one, or describe it under instruments")


def _check_instrument(path: str, instrument: OwnInstrument) -> None:
    require_text(f"{path}.name", instrument.name)
    if instrument.kind not in get_args(Instrument):
        hint = nearest_hint(instrument.kind, get_args(Instrument))
        raise StudyError(f"{path}.kind", f"{instrument.kind!r} is no kind of instrument{hint}: use a usual one")
    if instrument.name in get_args(Instrument):
        raise StudyError(f"{path}.name", f"{instrument.name!r} is the name of a usual instrument: call it otherwise")
    for name in ("calibrated_on", "due_on"):
        require_date(f"{path}.{name}", getattr(instrument, name))
    kind: Instrument = instrument.kind  # type: ignore[assignment]
    dimension = INSTRUMENT_DIMENSIONS[kind][0]
    for name in ("resolution", "permissible_error", "repeatability"):
        _check_one(f"{path}.{name}", getattr(instrument, name), dimension)
    for i, pair in enumerate(instrument.corrections):
        _check_one(f"{path}.corrections[{i}][0]", pair[0], dimension)
        _check_one(f"{path}.corrections[{i}][1]", pair[1].lstrip("-−+ "), dimension)


def _check_weighing(path: str, what: str, rows: list[tuple[float, str]]) -> None:
    require_text(f"{path}.what", what)
    last = -1.0
    for i, (after, mass) in enumerate(rows):
        if not last < after < 1e7:
            raise StudyError(f"{path}.rows[{i}].after_min", f"{after:g} is not after the one before: put the rows in order")
        last = after
        _check_one(f"{path}.rows[{i}].mass", mass, "mass")


def _check_texts(path: str, thing: Strict) -> None:
    """Refuse the first text of a part that is no length, or no mass, with its unit."""
    dimensions: tuple[tuple[dict[type, tuple[str, ...]], Dimension], ...] = ((_LENGTHS, "length"), (_MASSES, "mass"))
    for table, dimension in dimensions:
        for name in table.get(type(thing), ()):
            held = getattr(thing, name)
            if isinstance(held, tuple):
                for i, text in enumerate(held):
                    _check_one(f"{path}.{name}[{i}]", text, dimension)
            else:
                _check_one(f"{path}.{name}", held, dimension)


def _check_one(path: str, text: str | None, dimension: Dimension) -> None:
    if text is None:
        return
    try:
        parse_reading(text, dimension, zero_allowed=True)
    except ReadingTextError as error:
        raise StudyError(path, str(error)) from error


def _check_photograph(path: str, file: str | None, known: set[str]) -> None:
    if file is not None and file not in known:
        raise StudyError(
            path, f"{file!r} is none of the sample's photographs{nearest_hint(file, known)}: name one, or leave it out"
        )

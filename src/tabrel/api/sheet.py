"""Put a sample's bench sheet together: fields by part, readings, estimates, results."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Iterable, Iterator

from tabrel.api.wire import EstimateOut, FieldOut, PartOut, ReadingOut, SheetOut
from tabrel.core.analysis import analyse_sample
from tabrel.core.checks import SampleWarning
from tabrel.core.hole_shapes import SHAPE_DIMENSIONS
from tabrel.core.quantities import HOLE_QUANTITIES, PART_TITLES, QUANTITIES, Quantity
from tabrel.core.reading_text import parse_reading
from tabrel.core.readings import Estimate, estimate_quantity
from tabrel.core.study import HoleGroup
from tabrel.core.units import UNITS, shown
from tabrel.document.results import analysis_out
from tabrel.store.circuits import load_circuit
from tabrel.store.readings import StoredReading, readings_of_sample
from tabrel.store.samples import load_sample

PLACEMENT_TITLES = {"inlet": "Inlet holes", "centre_tube": "Centre tube holes"}


def sheet_out(conn: sqlite3.Connection, sample_id: int) -> SheetOut:
    """Return the bench sheet of a sample."""
    stored = load_sample(conn, sample_id)
    analysis = analyse_sample(stored.sample, load_circuit(conn, stored.study_id))
    readings: dict[str, list[StoredReading]] = {}
    for reading in readings_of_sample(conn, sample_id):
        readings.setdefault(reading.quantity_key, []).append(reading)

    def field(key: str, quantity: Quantity) -> FieldOut:
        return _field(key, quantity, readings.get(key, []), analysis.warnings)

    parts = []
    for part, title in PART_TITLES.items():
        fields = [field(key, quantity) for key, quantity in QUANTITIES.items() if quantity.part == part]
        if fields:
            parts.append(PartOut(key=part, title=title, note=None, fields=fields))
        if part == "plate":
            parts += _hole_parts("inlet", stored.sample.holes.inlet, field)
        if part == "tube":
            parts += _hole_parts("centre_tube", stored.sample.holes.centre_tube, field)
    return SheetOut(
        id=sample_id,
        study_id=stored.study_id,
        label=stored.sample.label,
        parts=parts,
        analysis=analysis_out(stored.sample.label, analysis),
    )


def _hole_parts(placement: str, groups: Iterable[HoleGroup], field: Callable[[str, Quantity], FieldOut]) -> Iterator[PartOut]:
    for i, group in enumerate(groups):
        key = f"holes.{placement}[{i}]"
        takes = SHAPE_DIMENSIONS[group.shape]
        open_part = "" if group.open_fraction in (None, 1) else f", {group.open_fraction:.0%} open"
        outline = f", outline of {len(group.readings.points_mm)} points" if group.shape == "outline" else ""
        yield PartOut(
            key=key,
            title=PLACEMENT_TITLES[placement],
            note=f"{group.count} {group.shape}{open_part}{outline}",
            fields=[field(f"{key}.{name}", HOLE_QUANTITIES[name]) for name in takes.required + takes.optional],
        )


def _field(key: str, quantity: Quantity, readings: list[StoredReading], warnings: Iterable[SampleWarning]) -> FieldOut:
    standing = [reading for reading in readings if reading.struck_out_reason is None]
    estimate = estimate_quantity(quantity, [reading.text for reading in standing]) if standing else None
    doubtful = {standing[i].id for i in estimate.outliers} if estimate else set()
    return FieldOut(
        key=key,
        title=quantity.title,
        metric_unit=quantity.metric_unit,
        inch_unit=quantity.inch_unit,
        instrument=quantity.instrument,
        readings=[_reading(reading, quantity, reading.id in doubtful) for reading in readings],
        estimate=_estimate_out(quantity, estimate) if estimate else None,
        warnings=[w.message for w in warnings if w.where == key or w.where.startswith(f"{key}[")],
    )


def _reading(reading: StoredReading, quantity: Quantity, doubtful: bool) -> ReadingOut:
    value = parse_reading(reading.text, quantity.dimension).value
    return ReadingOut(
        id=reading.id,
        text=reading.text,
        taken_at=reading.taken_at,
        struck_out_reason=reading.struck_out_reason,
        metric=shown(value, quantity.metric_unit),
        inch=shown(value, quantity.inch_unit),
        doubtful=doubtful,
    )


def _estimate_out(quantity: Quantity, estimate: Estimate) -> EstimateOut:
    metric, inch = (UNITS[unit].factor if unit else 1.0 for unit in (quantity.metric_unit, quantity.inch_unit))
    return EstimateOut(
        metric_value=estimate.value / metric,
        metric_uncertainty=estimate.standard_uncertainty / metric,
        inch_value=estimate.value / inch,
        inch_uncertainty=estimate.standard_uncertainty / inch,
    )

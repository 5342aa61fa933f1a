"""Warnings about single readings, and about quantities that must agree with each other."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import pi
from statistics import median

from uncertainties import std_dev

from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, QUANTITIES, Quantity
from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.entry.likely_errors import count_question, outlier_question, question
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import HoleGroup, Reading, used_readings
from tabrel.core.uncertainty.estimate import estimate_quantity, outlying
from tabrel.core.uncertainty.sampled_number import nominal_value

CIRCUMFERENCE_AGREEMENT = 0.015
"""How far the diameter from the tape may differ from the caliper's beyond both uncertainties: beads, seams, paint."""


@dataclass(frozen=True)
class SampleWarning:
    """Something implausible: a code for programs, a sentence for people, the place it concerns.

    Attributes
    ----------
    code, message, where : str
        `where` ends in ``[i]`` for the i-th of the readings in use.
    correction : str or None
        What was likely meant, as it would be typed.
    confirmed : bool
        Whether the analyst was asked and confirmed it.
    """

    code: str
    message: str
    where: str
    correction: str | None = None
    confirmed: bool = False


def reading_warnings(measured: MeasuredSample) -> Iterator[SampleWarning]:
    """Yield every warning about readings of a sample, its holes and its engine's adapter included."""
    for key, entries in measured.sample.readings.items():
        yield from quantity_warnings(key, QUANTITIES[key], used_readings(entries))
    adapter = measured.circuit.adapter
    places: list[tuple[str, tuple[HoleGroup, ...]]] = [
        ("holes.inlet", measured.sample.holes.inlet),
        ("holes.centre_tube", measured.sample.holes.centre_tube),
        ("circuit.adapter.holes", adapter.holes if adapter else ()),
    ]
    for path, groups in places:
        for i, group in enumerate(groups):
            for dimension, entries in group.readings.by_dimension():
                where = f"{path}[{i}].{dimension}"
                yield from quantity_warnings(where, HOLE_QUANTITIES[dimension], used_readings(entries))
            yield from _shape_warnings(f"{path}[{i}]", group)
    yield from _circumference_warning(measured)
    yield from _late_warnings(measured)


def quantity_warnings(where: str, quantity: Quantity, readings: Sequence[Reading]) -> Iterator[SampleWarning]:
    """Yield a warning for each reading outside the usual range, and for each outlier among the rest."""
    parsed = [parse_reading(reading.text, quantity.dimension, zero_allowed=quantity.zero_allowed) for reading in readings]
    valued = [i for i, meaning in enumerate(parsed) if not meaning.bound]
    values = [parsed[i].value for i in valued]
    outliers = {valued[k] for k in outlying(values)}
    for i, (reading, meaning) in enumerate(zip(readings, parsed, strict=True)):
        confirmed = bool(reading.confirmed)
        if asked := question(quantity, reading.text, meaning):
            yield SampleWarning("unusual_reading", asked[0], f"{where}[{i}]", asked[1], confirmed)
        elif asked := count_question(quantity, reading.text, meaning, [*parsed[:i], *parsed[i + 1 :]]):
            yield SampleWarning("count_again", asked[0], f"{where}[{i}]", None, confirmed)
        elif i in outliers:
            sentence, correction = outlier_question(quantity, reading.text, meaning, median(values))
            yield SampleWarning("outlier", sentence, f"{where}[{i}]", correction, confirmed)


def _shape_warnings(path: str, group: HoleGroup) -> Iterator[SampleWarning]:
    """Yield a warning where two dimensions of a hole contradict their names."""
    means = {
        dimension: estimate.value
        for dimension, entries in group.readings.by_dimension()
        if (readings := used_readings(entries)) and (estimate := estimate_quantity(HOLE_QUANTITIES[dimension], readings))
    }
    length, width = means.get("length"), means.get("width")
    if length is not None and width is not None:
        if group.shape == "slot" and length < width:
            message = "the slot is wider than it is long: the larger of the two is taken as its overall length"
            yield SampleWarning("slot_turned", message, f"{path}.length")
        if group.shape == "rectangle" and 2 * means.get("corner_radius", 0.0) > min(length, width):
            message = "the corner radius is more than half the shorter side: half the side is taken"
            yield SampleWarning("corner_radius_too_large", message, f"{path}.corner_radius")
    if group.shape == "d" and means.get("height", 0.0) > means.get("diameter", float("inf")):
        message = "the height left is more than the diameter: the hole is taken as round"
        yield SampleWarning("flat_outside_hole", message, f"{path}.height")


def _circumference_warning(measured: MeasuredSample) -> Iterator[SampleWarning]:
    known = measured.known
    if "can.circumference" not in known or "can.outside_diameter" not in known:
        return
    round_trip, across = known["can.circumference"] / pi, known["can.outside_diameter"]
    off = float(nominal_value(round_trip - across))
    if abs(off) > 2 * float(std_dev(round_trip - across)) + CIRCUMFERENCE_AGREEMENT * float(nominal_value(across)):
        message = (
            f"the circumference makes a diameter of {shown_in_both(float(nominal_value(round_trip)), 'mm', 4)}, "
            f"and the caliper says {shown_in_both(float(nominal_value(across)), 'mm', 4)}: measure both again"
        )
        yield SampleWarning("circumference_against_diameter", message, "can.circumference")


def _late_warnings(measured: MeasuredSample) -> Iterator[SampleWarning]:
    """Yield a warning for each reading of the whole filter that was taken after it was cut."""
    cut = measured.sample.cut
    if cut is None or cut.at is None:
        return
    for key, entries in measured.sample.readings.items():
        if not QUANTITIES[key].whole_only:
            continue
        for i, reading in enumerate(used_readings(entries)):
            if reading.taken_at is not None and reading.taken_at > cut.at and reading.counts_as == "measured":
                message = f"{reading.text} was typed after the filter was cut: say in a note how it was measured"
                if reading.note is None:
                    yield SampleWarning("measured_after_cut", message, f"{key}[{i}]")

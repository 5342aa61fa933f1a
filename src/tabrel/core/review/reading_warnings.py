"""Warnings about single readings, and about quantities that must agree with each other."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import pi

from uncertainties import std_dev

from tabrel.core.catalogue.hole_dimensions import LAYOUT_DIMENSIONS
from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, INSTRUMENT_DIMENSIONS, QUANTITIES, Quantity
from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.review.asked import asked_of_readings
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import HoleGroup, Reading, used_readings
from tabrel.core.uncertainty.estimate import differ_among_themselves, estimate_quantity, hole_means
from tabrel.core.uncertainty.sampled_number import nominal_value

CIRCUMFERENCE_AGREEMENT = 0.015
"""How far the diameter from the tape may differ from the caliper's beyond both uncertainties: beads, seams, paint."""

SAME_THREAD = 0.3e-3
"""Within this two diameters are of one thread: more than a caliper and a worn crest differ. [m]"""


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
    own_instruments: dict[str, str] = {}
    for key, entries in measured.sample.readings.items():
        readings = used_readings(entries)
        yield from quantity_warnings(key, QUANTITIES[key], readings)
        for reading in readings:
            if reading.instrument and reading.instrument not in INSTRUMENT_DIMENSIONS:
                own_instruments.setdefault(reading.instrument, key)
    for name, key in own_instruments.items():
        usual = QUANTITIES[key].instrument.replace("_", " ")
        yield SampleWarning("own_instrument", f"“{name}” counts with the errors of the usual {usual}, not with its own", key)
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
                if dimension not in LAYOUT_DIMENSIONS:
                    yield from _hole_warnings(where, HOLE_QUANTITIES[dimension], used_readings(entries), group.count)
            yield from _shape_warnings(f"{path}[{i}]", group)
    yield from _circumference_warning(measured)
    yield from _copied_pitch_warning(measured)
    yield from _late_warnings(measured)


def quantity_warnings(where: str, quantity: Quantity, readings: Sequence[Reading]) -> Iterator[SampleWarning]:
    """Yield a warning for each reading in use of a quantity that raises a question."""
    for i, (reading, asked) in enumerate(zip(readings, asked_of_readings(quantity, readings), strict=True)):
        if asked is not None:
            yield SampleWarning(asked[0], asked[1], f"{where}[{i}]", asked[2], bool(reading.confirmed))


def _hole_warnings(where: str, quantity: Quantity, readings: Sequence[Reading], count: int) -> Iterator[SampleWarning]:
    """Yield a warning where readings of one hole stand for all, or holes that differ were not all read."""
    numbers = {reading.hole for reading in readings}
    if count > 1 and len(readings) > 1 and len(numbers) == 1 and None not in numbers:
        message = f"all readings are of hole {readings[0].hole}, and say nothing of the other {count - 1}: read others too"
        yield SampleWarning("one_hole_for_all", message, where)
        return
    read = len(hole_means(readings, [0.0] * len(readings)))
    if 3 <= read < count and differ_among_themselves(quantity, readings):
        others = "the last one" if count - read == 1 else f"the other {count - read}"
        message = f"the holes differ by more than a reading does: read {others} too, by number as in h{read + 1} 5.6"
        yield SampleWarning("holes_differ", message, where)


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


def _copied_pitch_warning(measured: MeasuredSample) -> Iterator[SampleWarning]:
    """Yield a warning where a pitch was only copied and the thread's own diameter is another one."""
    pitches, diameters = (
        used_readings(measured.sample.readings.get(key, ())) for key in ("thread.pitch", "thread.major_diameter")
    )
    own = [reading for reading in diameters if not reading.copied_from]
    if not own or not pitches or not all(reading.copied_from for reading in pitches):
        return
    size, *others = (
        estimate.value
        for group in (own, [reading for reading in diameters if reading.copied_from])
        if group and (estimate := estimate_quantity(QUANTITIES["thread.major_diameter"], group))
    )
    if not others or abs(size - others[0]) > SAME_THREAD:
        message = (
            f"the pitch of {pitches[0].text} was copied from {pitches[0].copied_from}, and the thread measured here is "
            f"{shown_in_both(size, 'mm', 4)}: type the pitch of this thread, or confirm the copied one"
        )
        yield SampleWarning("copied_pitch", message, "thread.pitch")


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

"""A reading typed into a field: the field it goes to, the readings and states that come of it, and every refusal."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from tabrel.core.catalogue.hole_dimensions import dimensions_of
from tabrel.core.catalogue.quantities import INSTRUMENT_DIMENSIONS, PART_TITLES, QUANTITIES, Quantity
from tabrel.core.catalogue.terms import CORRECTION_REASONS, STATE_WORDS, CorrectionReason
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.entry.field_line import understand_entry
from tabrel.core.errors import ReadingTextError, StudyError, nearest_hint
from tabrel.core.review.echo import HoleKey, parse_hole_key, quantity_of, questions
from tabrel.core.rules.study import check_hole_group, check_reading_text
from tabrel.core.study.model import HoleGroup, Instrument, Provenance, QuantityState, Reading


@dataclass(frozen=True)
class ReadingField:
    """Field that readings are typed into.

    Attributes
    ----------
    key : str
        As the bench names it, such as ``can.height`` or ``holes.inlet[0].diameter``.
    quantity : Quantity
    hole : HoleKey or None
        Group of holes and dimension; None for a quantity of the sample.
    group : HoleGroup or None
        That group.
    """

    key: str
    quantity: Quantity
    hole: HoleKey | None = None
    group: HoleGroup | None = None

    @property
    def title(self) -> str:
        """Part and quantity, as the history names them."""
        part = "Holes" if self.hole else PART_TITLES[self.quantity.part]
        return f"{part}, {self.quantity.title}"


def reading_field(key: str, groups: Sequence[HoleGroup] = ()) -> ReadingField:
    """Return the field of a key.

    Parameters
    ----------
    key : str
        As the bench names it.
    groups : sequence of HoleGroup
        Where the key is of holes, those of the sample at its placement.

    Raises
    ------
    StudyError
        If there is no such field.
    """
    quantity, hole = quantity_of(key), parse_hole_key(key)
    if quantity is None:
        raise StudyError("key", f"{key!r} is no reading key{nearest_hint(key, QUANTITIES)}: use a key of the catalogue")
    if hole is None:
        return ReadingField(key, quantity)
    if hole.position >= len(groups):
        raise StudyError("key", f"this sample has no hole group {key.rpartition('.')[0]!r}: add it first")
    group = groups[hole.position]
    if hole.dimension not in dimensions_of(group.shape):
        raise StudyError("key", f"a {group.shape} hole has no {hole.dimension}")
    return ReadingField(key, quantity, hole, group)


@dataclass(frozen=True)
class Typed:
    """Text of a field with the choices beside it; a bare number takes the unit of the family."""

    text: str
    family: UnitFamily
    provenance: Provenance | None = None
    instrument: Instrument | None = None
    note: str | None = None
    confirms: bool = False


@dataclass(frozen=True)
class FieldChange:
    """Everything to be stored of what was typed into a field.

    Attributes
    ----------
    words : str
        For the history.
    readings : tuple of (str, Reading)
        By key; a named thread gives both its sizes.
    state : str or None
        Reason for the missing value. With readings None: they remove the states of their keys.
    group : HoleGroup or None
        The field's group, if the line changes or confirms its count.
    """

    words: str
    readings: tuple[tuple[str, Reading], ...] = ()
    state: QuantityState | None = None
    group: HoleGroup | None = None


def field_change(place: ReadingField, typed: Typed, used: Sequence[Reading]) -> FieldChange:
    """Return what a typed line changes.

    Parameters
    ----------
    place : ReadingField
    typed : Typed
    used : sequence of Reading
        Readings of the field in use.

    Raises
    ------
    StudyError
        If the line cannot be taken, at the field.
    """
    key, quantity, group = place.key, place.quantity, place.group
    try:
        entry = understand_entry(typed.text, quantity, typed.family, counted=place.hole is not None)
        for reading in entry.readings:
            check_reading_text(quantity, reading.text)
    except ReadingTextError as error:
        raise StudyError(key, str(error)) from error
    if typed.instrument and quantity.dimension not in INSTRUMENT_DIMENSIONS[typed.instrument]:
        name = typed.instrument.replace("_", " ")
        raise StudyError(key, f"a {name} does not measure a {quantity.dimension.replace('_', ' ')}: choose another")
    if entry.state is not None:
        if used:
            raise StudyError(key, "there are readings in use: set them aside first, then say why there is none")
        if place.hole:
            raise StudyError(key, "a size of a hole has no state: remove the group of holes instead")
        return FieldChange(f"{place.title}: {STATE_WORDS[entry.state][0]}", state=entry.state)
    counted = None
    if group is not None and entry.count is not None:
        counted = replace(group, count=entry.count)
        check_hole_group(key, counted)
        if counted == group and group.copied_from is None:
            counted = None
    asked = questions(entry.readings, quantity, used)
    readings = [
        (key, replace(_with_choices(reading, typed), confirmed=True if question and typed.confirms else None))
        for reading, question in zip(entry.readings, asked, strict=True)
    ]
    readings += [(other, reading) for other, reading in entry.thread.items() if other != key]
    if group is not None and any((reading.hole or 0) > (counted or group).count for reading in entry.readings):
        raise StudyError(key, f"the group has {(counted or group).count} holes: give a number up to that, or correct the count")
    texts = ", ".join(reading.text for reading in entry.thread.values() or entry.readings) or f"{entry.count} holes"
    return FieldChange(f"{place.title}: {texts}", tuple(readings), group=counted)


def _with_choices(reading: Reading, typed: Typed) -> Reading:
    """Return a reading with what was chosen beside the field; what the line itself says comes first."""
    return replace(
        reading,
        provenance=reading.provenance or (None if typed.provenance == "measured" else typed.provenance),
        instrument=reading.instrument or typed.instrument,
        note=reading.note or " ".join((typed.note or "").split()) or None,
    )


def correction(place: ReadingField, wrong: Reading, typed: Typed, reason: CorrectionReason) -> tuple[Reading, str]:
    """Return the reading that was meant, and the reason why the wrong one is set aside.

    The correction keeps what was recorded of the wrong reading unless the line says it again.

    Raises
    ------
    StudyError
        If the line is not one reading of the field.
    """
    try:
        entry = understand_entry(typed.text, place.quantity, typed.family, counted=place.hole is not None)
        if entry.count is not None:
            raise ReadingTextError("one reading takes the place of one: type one value, and correct the count at its group")
        if entry.state is not None or len(entry.readings) != 1:
            raise ReadingTextError("one reading takes the place of one: type one value")
        [right] = entry.readings
        check_reading_text(place.quantity, right.text)
    except ReadingTextError as error:
        raise StudyError(place.key, str(error)) from error
    meant = replace(
        right,
        provenance=right.provenance or wrong.provenance,
        instrument=right.instrument or (None if reason == "instrument" else wrong.instrument),
        hole=right.hole or wrong.hole,
        note=", ".join(note for note in (right.note or wrong.note, f"corrected from {wrong.text}") if note),
    )
    return meant, f"{CORRECTION_REASONS[reason]}, {right.text} was meant"

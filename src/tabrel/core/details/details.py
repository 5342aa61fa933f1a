"""All details of a study and of a sample: one value at a time each; changing one is recorded in the journal.

Details of the engine (stud, adapter) belong to the study, not to a filter.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any

from tabrel.core.catalogue.units import UnitFamily, shown_in_both
from tabrel.core.details.circuit_details import CIRCUIT_DETAILS
from tabrel.core.details.condition_details import CONDITION_DETAILS
from tabrel.core.details.detail import Detail
from tabrel.core.details.kinds import detail_text, is_number, typed_detail, understood_detail
from tabrel.core.details.places import number_at, value_at, with_typed_value
from tabrel.core.details.sample_details import SAMPLE_DETAILS
from tabrel.core.errors import ReadingTextError, StudyError, nearest_hint
from tabrel.core.field_units import INSIDE
from tabrel.core.study.model import Provenance, Sample, Study, TypedNumber
from tabrel.core.study.number_keys import Owner, number_key, number_places, place_of_key, typed_at

DETAILS: dict[str, Detail] = {detail.key: detail for detail in (*SAMPLE_DETAILS, *CONDITION_DETAILS, *CIRCUIT_DETAILS)}

DETAIL_AT: dict[tuple[Owner, tuple[str, ...]], Detail] = {(item.owner, item.place): item for item in DETAILS.values()}
"""By owner and place."""

TEXT_TOLERANCE = 0.01
"""A number and what is kept as typed of it may differ by so much of it, as rounding makes them."""


@dataclass(frozen=True)
class DetailValue:
    """One detail and its value.

    Attributes
    ----------
    text : str
        As it stands in its field: as typed where that is kept, else in the document's unit.
    metric, inch : str
        In each family.
    is_typed : bool
        Whether `text` is what a person typed.
    provenance : str or None
        Where it comes from, as far as that is said of this number alone.
    origin : str or None
        What it was taken from.
    """

    text: Annotated[str, INSIDE]
    metric: str
    inch: str
    is_typed: bool = False
    provenance: Provenance | None = None
    origin: str | None = None


def detail_values(study: Study, sample: Sample) -> dict[str, DetailValue]:
    """Return the details known of a study and one of its samples, by key."""
    owners: dict[str, Study | Sample] = {"study": study, "sample": sample}
    values = {}
    for key, item in DETAILS.items():
        owner = owners[item.owner]
        value = value_at(owner, item.place)
        metric, inch = detail_text(item, value), detail_text(item, value, "inch")
        if metric is None or inch is None:
            continue
        typed = typed_at(item.owner, owner.as_typed, item.place) if is_number(item) else None
        if typed is None:
            values[key] = DetailValue(metric, metric, inch)
        elif typed.provenance == "assumed" and typed.origin is None:  # nobody typed it
            values[key] = DetailValue(metric, metric, inch, provenance="assumed")
        else:
            values[key] = DetailValue(typed.text, metric, inch, True, typed.provenance, typed.origin)
    return values


def detail_texts(study: Study, sample: Sample) -> dict[str, str]:
    """Return the details known of a study and one of its samples, as text, by key."""
    return {key: value.text for key, value in detail_values(study, sample).items()}


def with_sample_detail(sample: Sample, key: str, text: str, family: UnitFamily = "metric") -> Sample:
    """Return a sample with one detail set from its text; an empty text removes it.

    Raises
    ------
    ReadingTextError
        If the text is not what the detail takes, with the correction.
    """
    detail = DETAILS[key]
    changed: Sample = with_typed_value(
        sample, detail, understood_detail(detail, text, family), typed_detail(detail, text, family)
    )
    return changed


def with_study_detail(study: Study, key: str, text: str, family: UnitFamily) -> Study:
    """Return a study with one detail of it or of its engine set from its text; an empty text removes it.

    Raises
    ------
    ReadingTextError
        If the text is not what the detail takes, with the correction.
    """
    detail = DETAILS[key]
    value = understood_detail(detail, text, family)
    labels = [sample.label for sample in study.samples]
    if key == "study.reference" and value and value not in labels:
        raise ReadingTextError(f"{value!r} is no sample of this study: type one of {', '.join(labels)}")
    changed: Study = with_typed_value(study, detail, value, typed_detail(detail, text, family))
    return changed


def assumed_details(study: Study) -> tuple[str, ...]:
    """Return the details of oil and engine that nobody stated and that count: left to a default, or begun with their part."""
    texts = []
    for key, item in DETAILS.items():
        if item.owner != "study" or item.place[0] not in ("oil", "circuit"):
            continue
        part = value_at(study, item.place[:-1])
        if value_at(study, item.place) is None:
            is_assumed = item.usual is not None and part is not None
        else:
            typed = typed_at("study", study.as_typed, item.place)
            is_assumed = typed is not None and typed.provenance == "assumed"
        if is_assumed:
            texts.append(key)
    engine = study.circuit.engine if study.circuit else None
    if engine and engine.jet_share and engine.jet_opening_kpa is None:
        texts.append("engine.jet_opening")
    return tuple(texts)


def detail_questions(study: Study) -> dict[str, str]:
    """Return what is asked beside a detail that is unlikely but possible, by key: a limit never refuses a measurement."""
    stud = study.circuit.stud if study.circuit else None
    if stud is None:
        return {}
    least, greatest = stud.least_bore_mm, stud.greatest_bore_mm
    if (least or stud.bore_mm) <= stud.bore_mm <= (greatest or stud.bore_mm):
        return {}
    ends = {"at least": least, "at most": greatest}
    limits = " and ".join(f"{word} {shown_in_both(end * 1e-3, 'mm', 4)}" for word, end in ends.items() if end is not None)
    return {
        "engine.stud_bore": f"{shown_in_both(stud.bore_mm * 1e-3, 'mm', 4)} lies outside the limits of this engine, {limits}. "
        "Measured like this? Then correct the limits, or empty them."
    }


def check_typed_numbers(study: Study) -> None:
    """Raise `StudyError` where what is kept as typed names no number, or says another one than the document does."""
    _check_typed("as_typed", "study", study)
    for i, sample in enumerate(study.samples):
        _check_typed(f"samples[{i}].as_typed", "sample", sample)


def _check_typed(path: str, owner: Owner, held: Study | Sample) -> None:
    for key, typed in held.as_typed.items():
        place = place_of_key(owner, key)
        if place is None:
            hint = nearest_hint(key, [number_key(owner, item) for item in number_places(owner)])
            raise StudyError(f"{path}.{key}", f"{key!r} is the key of no number here{hint}: name the number it was typed for")
        if not typed.text.strip():
            raise StudyError(f"{path}.{key}.text", "is empty: leave the entry out")
        value = number_at(held, place)
        if value is None:
            raise StudyError(f"{path}.{key}", "is typed for a number that is not there: add the number, or leave this out")
        detail = DETAIL_AT.get((owner, place))
        if detail is not None and not _agree(detail, typed, value):
            name = detail_text(detail, value)
            raise StudyError(f"{path}.{key}.text", f"{typed.text!r} is not the number beside it, which is {name}: correct one")


def _agree(detail: Detail, typed: TypedNumber, value: Any) -> bool:
    """Return whether a text says the number beside it; one that is not understood is not judged."""
    try:
        words = understood_detail(detail, typed.text, "metric")
    except (ReadingTextError, StudyError):
        return True
    return _close(words, value)


def _close(answer: Any, value: Any) -> bool:
    if isinstance(answer, tuple) and isinstance(value, tuple):
        return all(_close(item, other) for item, other in zip(answer, value, strict=True))
    if isinstance(answer, float | int) and isinstance(value, float | int):
        return abs(answer - value) <= TEXT_TOLERANCE * max(abs(value), 1e-9)
    return bool(answer == value)

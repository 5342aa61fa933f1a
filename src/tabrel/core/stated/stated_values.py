"""The catalogue of facts of a study and of a sample that are typed once and kept as words, dates or plain numbers.

A fact has one value at a time; changing it is recorded in the journal, so nothing is lost. Facts of the
engine (stud, adapter) belong to the study, not to a filter.
"""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from typing import Any

from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.circuit.operating_point import DEFAULT_ADAPTER_WALL_MM, DEFAULT_STUD_LENGTH_MM
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.entry.stated_number import number_text
from tabrel.core.errors import ReadingTextError
from tabrel.core.rules.study import is_date
from tabrel.core.stated.circuit_values import CIRCUIT_FACTS, circuit_fact_texts, with_circuit_fact
from tabrel.core.stated.stated_value import Fact, understood_fact
from tabrel.core.study.model import Adapter, Bypass, Circuit, HoleGroup, Leak, Sample, Stud, Study, standing

_TABLE: tuple[Fact, ...] = (
    Fact("study.name", "study", "words", "what you call this study"),
    Fact("study.question", "question", "long_words", "what the study is to answer"),
    Fact("study.uses", "intended uses", "words", "such as daily, long interval, cold start, towing"),
    Fact("study.price_class", "price class", "words", "what you are ready to pay"),
    Fact(
        "study.reference",
        "reference part",
        "words",
        "label of the sample all others are compared with, often the vehicle maker's own",
        synonyms=("reference filter", "original part"),
    ),
    Fact("engine.name", "engine", "words", "whose stud and oil circuit these are", synonyms=("motor",)),
    Fact(
        "engine.stud_bore",
        "stud bore",
        "length",
        "inside diameter of the hollow stud on the engine, not the filter's thread",
        synonyms=("stud hole", "nipple bore", "outlet bore"),
    ),
    Fact("engine.stud_length", "stud length", "length", "through which the oil leaves; 20 mm while unknown"),
    Fact("engine.least_stud_bore", "least stud bore", "length", "where engines vary"),
    Fact("engine.greatest_stud_bore", "greatest stud bore", "length", "where engines vary"),
    Fact("engine.adapter_holes", "adapter cross-holes", "holes", "such as 4 x 5.1 mm; leave empty without an adapter"),
    Fact("engine.adapter_reference_bore", "bore the adapter replaces", "length", "of the stud it is screwed on"),
    Fact("sample.label", "label", "words", "your own short name of this sample", synonyms=("sample name",)),
    Fact("sample.maker", "maker", "words", "as printed on it", synonyms=("brand", "manufacturer")),
    Fact("sample.part_number", "part number", "words", "as printed on it"),
    Fact("sample.price", "price", "price", "with its currency, such as 9.50 EUR", synonyms=("cost",)),
    Fact("sample.seller", "seller", "words", "", synonyms=("shop", "dealer")),
    Fact("sample.bought", "bought on", "date", "such as 2026-10-02", synonyms=("purchase date",)),
    Fact("sample.pack", "pack", "words", "box, bag, shrink film, cap over the plate", synonyms=("box", "packaging")),
    Fact("sample.date_code", "date code", "words", "as stamped", synonyms=("batch", "lot")),
    Fact("sample.made", "made on", "date", "what the date code means: a day, a month or a year", synonyms=("production date",)),
    Fact("sample.origin", "origin", "words", "country printed on box or can", synonyms=("made in", "country")),
    Fact("sample.condition", "condition", "choice", "", choices=("new", "used", "opened by others")),
    Fact("sample.used_km", "distance in use", "number", "km or mi, for a used one", synonyms=("mileage",)),
    Fact("sample.used_hours", "hours in use", "number", "h, for a used one"),
    Fact(
        "sample.stated_bypass",
        "stated bypass setting",
        "pressure_band",
        "one figure or a band, such as 8-11 psi or 110-180 kPa",
        synonyms=("relief setting", "bypass rating"),
    ),
    Fact(
        "sample.expectation",
        "what you expect",
        "long_words",
        "written down before opening",
        whole_only=True,
        synonyms=("expectation", "guess", "prediction"),
    ),
    Fact(
        "element.leak",
        "defects, always open",
        "holes",
        "round holes of the same open area, such as 6 x 0.4 mm: worn media, an end without glue",
        synonyms=("leak", "defect holes", "hole in the media", "unglued end"),
        stage="element",
    ),
    Fact(
        "media.air_drop",
        "air permeability taken at",
        "pressure",
        "200 Pa unless said; 125 Pa where it was read in cfm/ft²",
        synonyms=("air drop", "test pressure"),
        stage="media",
    ),
    Fact(
        "media.capacity",
        "dirt capacity",
        "quantity",
        "at the terminal loading, as stated by whoever measured it; a usual figure of its family while empty",
        synonyms=("dust capacity", "retention capacity", "life"),
        stage="media",
        unit="g",
    ),
)

CIRCUIT_KEYS_OF_FACTS = frozenset(fact.key for fact in CIRCUIT_FACTS)

FACTS: dict[str, Fact] = {fact.key: fact for fact in (*_TABLE, *CIRCUIT_FACTS)}


def fact_texts(study: Study, sample: Sample) -> dict[str, str]:
    """Return the facts known of a study and one of its samples, as text, by key."""
    circuit = study.circuit or Circuit()
    stud, adapter, stated = circuit.stud, circuit.adapter, sample.bypass.stated_kpa
    known: dict[str, str | None] = {
        "study.name": study.name,
        "study.question": study.question,
        "study.uses": study.uses,
        "study.price_class": study.price_class,
        "study.reference": study.reference,
        "engine.name": circuit.name,
        "engine.stud_bore": _mm(stud.bore_mm if stud else None),
        "engine.stud_length": _mm(stud.length_mm if stud else None),
        "engine.least_stud_bore": _mm(stud.least_bore_mm if stud else None),
        "engine.greatest_stud_bore": _mm(stud.greatest_bore_mm if stud else None),
        "engine.adapter_holes": _holes_text(adapter) if adapter else None,
        "engine.adapter_reference_bore": _mm(adapter.reference_bore_mm if adapter else None),
        "sample.price": f"{sample.price.amount:.2f} {sample.price.currency}" if sample.price else None,
        "element.leak": f"{sample.leak.count} x {sample.leak.diameter_mm:g} mm" if sample.leak else None,
        "media.air_drop": _number(sample.media_air_drop_pa, "Pa"),
        "sample.used_km": _number(sample.used_km, "km"),
        "sample.used_hours": _number(sample.used_hours, "h"),
        "sample.stated_bypass": " - ".join(f"{p:g}" for p in (stated if isinstance(stated, tuple) else (stated,))) + " kPa"
        if stated is not None
        else None,
    }
    plain = (
        "label",
        "maker",
        "part_number",
        "seller",
        "bought",
        "pack",
        "date_code",
        "made",
        "origin",
        "condition",
        "expectation",
    )
    known |= {f"sample.{name}": getattr(sample, name) for name in plain}
    known["media.capacity"] = number_text(sample.capacity_g, "g")
    known |= circuit_fact_texts(study)
    return {key: text for key in FACTS if (text := known.get(key)) is not None}


def _mm(value: float | None) -> str | None:
    return None if value is None else f"{value:g} mm"


def _number(value: float | None, unit: str) -> str | None:
    return None if value is None else f"{value:g} {unit}"


def _holes_text(adapter: Adapter) -> str:
    """Return an adapter's holes in words; more than one group cannot be typed in one line."""
    texts = []
    for group in adapter.holes:
        sizes = [
            " x ".join(entry if isinstance(entry, str) else entry.text for entry in entries)
            for _, entries in group.readings.by_dimension()
        ]
        shape = "" if group.shape == "round" else f"{group.shape} "
        texts.append(f"{group.count} x {shape}{' x '.join(sizes)}")
    return " and ".join(texts)


def with_sample_fact(sample: Sample, key: str, text: str) -> Sample:
    """Return a sample with one fact set from its text; an empty text takes it away.

    Raises
    ------
    ReadingTextError
        If the text is not what the fact takes, with the mend.
    """
    name = key.partition(".")[2]
    value = understood_fact(FACTS[key], text, "metric")
    if name == "label" and not value:
        raise ReadingTextError("a sample needs a label: type a short name")
    if name == "stated_bypass":
        return replace(sample, bypass=Bypass(**{**vars(sample.bypass), "stated_kpa": value}))
    if name == "leak":
        return replace(sample, leak=_leak(value) if value else None)
    if name == "capacity":
        return replace(sample, capacity_g=value)
    if name == "air_drop":
        return replace(sample, media_air_drop_pa=value)
    return replace(sample, **{name: value})


def _leak(group: HoleGroup) -> Leak:
    """Return round defect holes from a group of holes."""
    sizes = standing(group.readings.diameter)
    if group.shape != "round" or len(sizes) != 1 or group.open_fraction is not None:
        raise ReadingTextError("defects are taken as round holes of one size: type them like 6 x 0.4 mm")
    return Leak(group.count, round(parse_reading(sizes[0].text, "length").value * 1e3, 6))


def with_study_fact(study: Study, key: str, text: str, family: UnitFamily) -> Study:
    """Return a study with one fact of it or of its engine set from its text; an empty text takes it away.

    Raises
    ------
    ReadingTextError
        If the text is not what the fact takes, with the mend.
    """
    owner, _, name = key.partition(".")
    value = understood_fact(FACTS[key], text, family)
    if key in CIRCUIT_KEYS_OF_FACTS:
        return with_circuit_fact(study, key, value)
    if owner == "study":
        if name == "name" and not value:
            raise ReadingTextError("a study needs a name: type a few words")
        if name == "reference" and value and value not in {sample.label for sample in study.samples}:
            known = ", ".join(sample.label for sample in study.samples)
            raise ReadingTextError(f"{value!r} is no sample of this study: type one of {known}")
        return replace(study, **{name: value})
    return replace(study, circuit=_with_engine_fact(study.circuit or Circuit(), name, value))


def _with_engine_fact(circuit: Circuit, name: str, value: Any) -> Circuit:
    if name == "name":
        return replace(circuit, name=value)
    if name == "adapter_holes":
        if value is None:
            return replace(circuit, adapter=None)
        adapter = circuit.adapter or Adapter((), DEFAULT_ADAPTER_WALL_MM, 0.0)
        return replace(circuit, adapter=replace(adapter, holes=(value,)))
    if name == "adapter_reference_bore":
        if circuit.adapter is None:
            raise ReadingTextError("there is no adapter yet: type its cross-holes first")
        return replace(circuit, adapter=replace(circuit.adapter, reference_bore_mm=value))
    if name == "stud_bore" and value is None:
        return replace(circuit, stud=None)
    if circuit.stud is None and name != "stud_bore":
        raise ReadingTextError("the stud's bore is not known yet: type it first")
    stud = circuit.stud or Stud(value, DEFAULT_STUD_LENGTH_MM)
    field = {
        "stud_bore": "bore_mm",
        "stud_length": "length_mm",
        "least_stud_bore": "least_bore_mm",
        "greatest_stud_bore": "greatest_bore_mm",
    }[name]
    if value is None and name == "stud_length":
        value = DEFAULT_STUD_LENGTH_MM
    return replace(circuit, stud=replace(stud, **{field: value}))


def shelf_age_years(sample: Sample, today: date) -> float | None:
    """Return how long a sample had lain when it was bought, or lies today, or None. [years]

    A month or a year stands for its middle.

    Examples
    --------
    >>> round(shelf_age_years(Sample("A", made="2020", bought="2026-07-02"), date(2026, 11, 25)), 1)
    6.0
    """
    if sample.made is None or not is_date(sample.made):
        return None
    until = _middle(sample.bought) if sample.bought and is_date(sample.bought) else today
    return (until - _middle(sample.made)).days / 365.25


def _middle(text: str) -> date:
    return date.fromisoformat(text + {4: "-07-02", 7: "-15", 10: ""}[len(text)])

"""Hazards and cautions that were seen on a filter: with a hazard it is never named to buy, a caution is told beside it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from tabrel.core.catalogue.observation import APART
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_TITLES
from tabrel.core.judge.requirements import GREATEST, OPENING, JudgedRequirement
from tabrel.core.results.analysis import analyse_measured
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Sample

HAZARDS: dict[tuple[str, str], str] = {
    ("tube.burr_side", "towards the media"): "burrs of its tube face the media",
    ("media.condition", "worn at the tube"): "its media is worn",
    ("media.condition", "torn"): "its media is torn",
    ("media.condition", "holed"): "its media is holed",
    ("element.damage", "in service"): "its element was damaged in service",
    ("element.glue", "missing"): "glue is missing at an end of its element",
}
"""By observation and choice."""

_NOT_OF_THE_MOUNT = {"fit_thread": "thread", "fit_pitch": "thread", "fit_seat": "gasket"}
"""By code of the warning."""

_CAUTIONS_BY_CODE = {
    "pack_crowded": "its pleats are crowded, so the model is unreliable for it",
    "pack_cannot_fit": "its pleats are crushed, so the model is unreliable for it",
    "spring_solid_before_lift": "its bypass spring goes solid before the valve is open",
}

CAUTIONS: dict[tuple[str, str], str] = {
    ("gasket.fit", "loose"): "its gasket is loose",
    ("gasket.feel", "hardened"): "its gasket is hard",
    ("gasket.feel", "brittle"): "its gasket is brittle",
    ("plate.play", "rattles"): "its plate is loose",
    ("anti_drain.memory", "stays open"): "its anti-drainback valve stays open",
}

LOOKED_FOR = ("tube.burr_side", "media.condition", "element.damage")
"""Observations without which a hazard may be there unseen."""


@dataclass(frozen=True)
class Seen:
    """What speaks against a filter whatever its numbers say.

    Attributes
    ----------
    hazards, cautions : tuple of str
        Clauses such as ``its media is worn``.
    not_looked_at : tuple of str
        Titles of the observations that would show a hazard.
    """

    hazards: tuple[str, ...]
    cautions: tuple[str, ...]
    not_looked_at: tuple[str, ...]


def seen_on(measured: MeasuredSample, lines: Sequence[JudgedRequirement]) -> Seen:
    """Return what was seen on a filter, with the lines that every use asks of it."""
    codes = [warning.code for warning in analyse_measured(measured).warnings]
    return Seen(
        hazards=tuple(dict.fromkeys(_hazards(measured.sample, lines, codes))),
        cautions=tuple(dict.fromkeys(_cautions(measured.sample, codes))),
        not_looked_at=tuple(
            f"{PART_TITLES[OBSERVATIONS[key].part].lower()}: {OBSERVATIONS[key].title}"
            for key in LOOKED_FOR
            if key not in measured.sample.observations
        ),
    )


def _of_choices(sample: Sample, words: dict[tuple[str, str], str]) -> Iterator[str]:
    for (key, choice), clause in words.items():
        if choice in sample.observations.get(key, "").split(APART):
            yield clause


def _hazards(sample: Sample, lines: Sequence[JudgedRequirement], codes: Sequence[str]) -> Iterator[str]:
    if sample.restriction and sample.restriction != "none printed":
        yield f"“{sample.restriction}” is printed on it"
    yield from _of_choices(sample, HAZARDS)
    for line in lines:
        if line.state == "failed" and line.counts and line.is_asked_of_every_use:
            if line.measure == OPENING and sample.bypass.location == "none":
                yield "it has no bypass valve"
            elif line.measure in (OPENING, GREATEST):
                yield "its element may be pressed beyond its collapse pressure"
    yield from (f"its {part} is not that of the engine" for code, part in _NOT_OF_THE_MOUNT.items() if code in codes)
    yield from (f"{remark.part}: {remark.text}" for remark in sample.remarks if remark.severity == "hazard")


def _cautions(sample: Sample, codes: Sequence[str]) -> Iterator[str]:
    yield from _of_choices(sample, CAUTIONS)
    yield from (clause for code, clause in _CAUTIONS_BY_CODE.items() if code in codes)
    if sample.used_hours or sample.used_km or sample.condition == "used":
        amount = [f"{sample.used_hours:g} h"] if sample.used_hours else []
        amount += [f"{sample.used_km:g} km"] if sample.used_km else []
        yield " ".join(("it was used", *amount[:1]))

"""Before cutting: what can be learned only from the whole filter and is still missing, and the cautions."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.details.details import DETAILS
from tabrel.core.study.model import Sample, used_readings

CUT_METHODS: dict[str, str] = {
    "roller cutter": "a wheel is pressed in and run round the can: no chips, the cleanest evidence",
    "lathe": "a parting tool near the plate: few chips, keep them out of the media",
    "tin snips": "started at a drilled hole: no chips in the can if the drill stops short, very sharp edges",
    "hydraulic splitter": "the can is pressed apart at the seam: no chips, but plate and seam are bent, measure them before",
    "saw": "chips fall into the can: rinse nothing, note where they lie",
    "abrasive wheel": "sparks and grit: only a can drained, wiped and free of vapour, outdoors; grit inside is no finding",
}
"""How a can is opened; other words are taken as well."""

CAUTIONS: tuple[str, ...] = (
    "Drain the filter and let it cool before cutting; hot oil burns, and old oil is kept off the skin.",
    "Use a cutter that sheds no chips, or keep chips out of the evidence.",
    "Cut edges are sharp: wear cut-proof gloves and eye protection.",
    "No grinder or abrasive wheel on oily steel: sparks set oil and vapour on fire.",
    "A hydraulic splitter stores energy: keep hands clear, and stand behind its guard.",
    "A bulged can means stop: it saw too much pressure, so have the engine's pressure regulator checked.",
    "Local rules for waste oil and oily parts apply; results support a choice and approve nothing.",
)

Kind = Literal["reading", "observation", "detail", "holes"]


@dataclass(frozen=True)
class GateItem:
    """Something that can be learned only before the cut and is still missing.

    Attributes
    ----------
    key : str
        Of the reading, observation or detail.
    kind : str
        Which of them.
    title : str
        With its part.
    """

    key: str
    kind: Kind
    title: str


def missing_before_cut(sample: Sample) -> tuple[GateItem, ...]:
    """Return what is still missing and cannot be learned once the filter is cut.

    A quantity that has a state ("could not be found", "not applicable" …) is answered, one that was only
    copied is not. Circumference and outside diameter answer for each other.

    Returns
    -------
    tuple of GateItem
        In the order of work.
    """
    return tuple(_missing(sample))


def _missing(sample: Sample) -> Iterator[GateItem]:
    for detail in DETAILS.values():
        if detail.whole_only and detail.owner == "sample" and not getattr(sample, detail.key.removeprefix("sample.")):
            yield GateItem(detail.key, "detail", detail.title)

    def answered(key: str) -> bool:
        own = [reading for reading in used_readings(sample.readings.get(key, ())) if not reading.copied_from]
        return bool(own) or (key in sample.states and f"states/{key}" not in sample.copied)

    around = ("can.outside_diameter", "can.circumference")
    for key, quantity in QUANTITIES.items():
        if not quantity.whole_only or answered(key):
            continue
        if key in around and any(answered(other) for other in around):
            continue
        if key == "can.circumference":
            continue  # asked for once, as the outside diameter
        yield GateItem(key, "reading", f"{PART_TITLES[quantity.part]}: {quantity.title}")
    for observation in OBSERVATIONS.values():
        is_seen = observation.key in sample.observations and f"observations/{observation.key}" not in sample.copied
        if observation.whole_only and not is_seen:
            yield GateItem(observation.key, "observation", f"{PART_TITLES[observation.part]}: {observation.title}")
    if not sample.holes.inlet or any(group.copied_from for group in sample.holes.inlet):
        yield GateItem("holes.inlet", "holes", "Inlet holes: count and sizes")

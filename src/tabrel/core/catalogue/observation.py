"""Observations: seen rather than measured, with pictured choices.

An observation is kept as an observation: one of its choices, or the analyst's own words where none fits.
One that the computation depends on (where the bypass valve sits, what the media is) is a field of the
sample instead and takes its choices only. Where practitioners differ on what a choice is worth, the
views of practitioners stand beside it; the view named first is the one this program leans to.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Any

from tabrel.core.catalogue.quantities import Stage
from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.field_units import INSIDE, OUTSIDE
from tabrel.core.study.model import Sample

APART = "; "
"""Between several choices of one observation."""


@dataclass(frozen=True)
class Choice:
    """One choice: the words that are shown, what they mean, and what is stored where that is not the words."""

    value: str
    meaning: str
    stored: Annotated[str | None, INSIDE] = None


@dataclass(frozen=True)
class Observation:
    """Something seen on a filter.

    Attributes
    ----------
    key : str
        ``part.name``; the first step is the part it belongs to.
    title : str
        What a person calls it.
    stage : str
        When in the work it is seen.
    choices : tuple of Choice
        The pictured ones; other words are allowed.
    views : tuple of str
        What practitioners make of it, the default first; empty where they agree.
    whole_only : bool
        Whether it can be seen only on the uncut filter.
    synonyms : tuple of str
        Other words people use for it.
    field : tuple of str
        Field of the sample that holds it, step by step; empty for an observation.
    closed : bool
        Whether only the choices are taken.
    several : bool
        Whether more than one choice may hold; they are kept separated by `APART`. The first says that no other does.
    """

    key: str
    title: str
    stage: Stage
    choices: tuple[Choice, ...]
    views: tuple[str, ...] = ()
    whole_only: bool = False
    synonyms: tuple[str, ...] = ()
    field: Annotated[tuple[str, ...], INSIDE] = ()
    closed: bool = False
    several: bool = False

    @property
    def part(self) -> Annotated[str, OUTSIDE]:
        """Part of the filter the observation belongs to."""
        return self.key.partition(".")[0]


def seen_words(observation: Observation, words: str) -> str:
    """Return what was seen as it is kept: of several choices each once, in the order of the catalogue, own words behind.

    Examples
    --------
    >>> dents = Observation("a.b", "x", "outside", (Choice("sound", ""), Choice("dents", "")), several=True)
    >>> seen_words(dents, "a scratch;dents; dents")
    'dents; a scratch'
    """
    if not observation.several:
        return words
    if not words.strip():
        return ""
    order = [choice.value for choice in observation.choices]
    parts = dict.fromkeys(part.strip() for part in words.split(APART.strip()) if part.strip())
    if order[0] in parts and any(part in order[1:] for part in parts):
        against = next(part for part in parts if part in order[1:])
        raise StudyError(observation.key, f"{order[0]!r} and {against!r} exclude each other: take one of them away")
    return APART.join(sorted(parts, key=lambda part: order.index(part) if part in order else len(order)))


def observed(sample: Sample, observation: Observation) -> str | None:
    """Return what was seen of an observation on a sample, in words, or None."""
    if not observation.field:
        return sample.observations.get(observation.key)
    held: Any = sample
    for name in observation.field:
        held = getattr(held, name)
    stored: str | None = held
    return next((choice.value for choice in observation.choices if choice.stored == stored), stored)


def with_field_observed(sample: Sample, observation: Observation, words: str | None) -> Sample:
    """Return the sample with a field set to what was seen; None removes it.

    Raises
    ------
    StudyError
        If the words are none of the choices and only these are taken.
    """
    stored = next((choice.stored for choice in observation.choices if choice.value == words), words)
    if observation.closed and words is not None and all(choice.value != words for choice in observation.choices):
        choices = [choice.value for choice in observation.choices]
        hint = nearest_hint(words, choices)
        raise StudyError(observation.key, f"{words!r} is none of the choices{hint}: take one of {', '.join(choices)}")
    *owner, name = observation.field
    change: dict[str, Any] = {name: stored}
    if owner:
        change = {owner[0]: replace(getattr(sample, owner[0]), **change)}
    return replace(sample, **change)

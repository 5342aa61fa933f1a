"""Requirements of a use: met, failed or open, each with its reason, and the verdict that follows.

Decision rule: a guard band of one expanded uncertainty (JCGM 106:2012, 8.3). A number meets what is asked where it does so
with its whole 95 % interval, fails where no part of the interval does, and is open in between.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from math import inf
from typing import Literal

from tabrel.core.catalogue.measures import MEASURE_ROWS, MeasureRow, measure_unit
from tabrel.core.catalogue.observation import APART, Observation
from tabrel.core.catalogue.units import ShownUnit
from tabrel.core.judge.categories import CategoryValue
from tabrel.core.numbers import interval, number_with_interval, number_with_uncertainty, plain_number
from tabrel.core.study.strict import BypassLocation
from tabrel.core.study.uses import Requirement, UseVerdict

RequirementState = Literal["met", "failed", "open"]

OPENING, GREATEST, GREATEST_STUCK = "bypass_opening_kpa", "element_greatest_kpa", "element_greatest_stuck_kpa"
COLLAPSE, COLLAPSE_KEY = "collapse pressure", "stated_collapse_kpa"


@dataclass(frozen=True)
class JudgedRequirement:
    """One line of a use for one filter.

    Attributes
    ----------
    measure : str
        What it is on.
    state : str
        ``met``, ``failed`` or ``open``.
    reason : str
        A sentence.
    is_asked_of_every_use : bool
        Whether the program asks it, not the analyst.
    counts : bool
        Whether it decides; a fault of a what-if does not.
    decided_by : str or None
        Of an open one: key of what would decide it.
    """

    measure: str
    state: RequirementState
    reason: str
    is_asked_of_every_use: bool = False
    counts: bool = True
    decided_by: str | None = None


def interval_of(value: CategoryValue) -> tuple[float, float]:
    """Return between what a number lies: its interval, its value ∓ U, or its bounds, endless where a side is open."""
    if value.value is not None and (value.low is None or value.high is None):
        return value.value - value.expanded_uncertainty, value.value + value.expanded_uncertainty
    return (-inf if value.low is None else value.low), (inf if value.high is None else value.high)


def number_in_words(value: CategoryValue, row: MeasureRow) -> str:
    """Return a number with its U, or its bounds, in words.

    Examples
    --------
    >>> number_in_words(CategoryValue(98.0, 4.04), MEASURE_ROWS["plate_flow_area_mm2"])
    '98.0 ± 4.0 mm²'
    """
    if value.value is not None and value.low is not None and value.high is not None:
        return number_with_interval(value.value, value.low, value.high, row.unit)
    if value.value is not None:
        return number_with_uncertainty(value.value, value.expanded_uncertainty, row.unit)
    return interval(value.low, value.high, row.unit)


def _not_known(title: str, why: str) -> str:
    return f"{title} is not known{f' ({why})' if why else ''}"


def judge_number(asked: Requirement, value: CategoryValue | None, why: str = "", rests_on_assumed: str = "") -> JudgedRequirement:
    """Return whether a number meets what is asked of it.

    Parameters
    ----------
    asked : Requirement
        With at_least, at_most or both. [in the measure's own unit]
    value : CategoryValue or None
        What is known of the filter, in the same unit.
    why : str
        Why nothing is known, where that is so.
    rests_on_assumed : str
        What of it is assumed, where that forbids to judge by it.
    """
    row = MEASURE_ROWS.get(asked.measure, MeasureRow(asked.measure, asked.measure, ""))
    limits = limits_in_words(asked, measure_unit(asked.measure, "metric"))
    if value is None or not value.is_known:
        reason = f"{_not_known(_sentence(row.title), why)}; asked for is {limits}."
        return JudgedRequirement(asked.measure, "open", reason, decided_by=asked.measure)
    low, high = interval_of(value)
    least = -inf if asked.at_least is None else asked.at_least
    most = inf if asked.at_most is None else asked.at_most
    name = f"{_sentence(row.title)} is {number_in_words(value, row)}"
    if rests_on_assumed:
        reason = f"{name}, by an assumed {rests_on_assumed}, and is not judged: {limits} is asked for."
        return JudgedRequirement(asked.measure, "open", reason, decided_by=asked.measure)
    if least <= low and high <= most:
        return JudgedRequirement(asked.measure, "met", f"{name}; asked for is {limits}.")
    if high < least or low > most:
        return JudgedRequirement(asked.measure, "failed", f"{name}; asked for is {limits}.")
    reason = f"{name}, which may lie on either side of what is asked for: {limits}."
    return JudgedRequirement(asked.measure, "open", reason, decided_by=asked.measure)


def judge_seen(asked: Requirement, observation: Observation, words: str | None) -> JudgedRequirement:
    """Return whether what was seen is one of what will do; what was not looked at is open.

    Parameters
    ----------
    asked : Requirement
        With one_of; a word may be the beginning of a choice.
    observation : Observation
        What it is on.
    words : str or None
        What was seen.
    """
    title = _sentence(observation.title)
    wanted = [_choice(observation, word) for word in asked.one_of]
    will_do = " or ".join(wanted)
    if words is None:
        reason = f"{title} has not been looked at; what will do is: {will_do}."
        return JudgedRequirement(asked.measure, "open", reason, decided_by=observation.key)
    seen = words.split(APART) if observation.several else [words]
    state: RequirementState = "met" if all(text in wanted for text in seen) else "failed"
    return JudgedRequirement(asked.measure, state, f"{title}: {words}; what will do is: {will_do}.")


def by_pass_lines(
    location: BypassLocation | None,
    opening: CategoryValue | None,
    greatest: CategoryValue | None,
    greatest_stuck: CategoryValue | None,
    collapse: float | None,
    why: Mapping[str, str] | None = None,
    *,
    not_asked: str | None = None,
) -> tuple[JudgedRequirement, ...]:
    """Return what every use asks: a bypass that works, and an element that stands what presses on it.

    Parameters
    ----------
    location : str or None
        Where the bypass valve sits.
    opening : CategoryValue or None
        Its opening pressure. [kPa]
    greatest, greatest_stuck : CategoryValue or None
        Greatest differential pressure of the element over the whole map, also with the valve stuck shut. [kPa]
    collapse : float or None
        Stated collapse pressure of the element: the ceiling of all three. [kPa]
    why : mapping or None
        By measure: why one is not known.
    not_asked : str or None
        Why the analyst does not ask the first of them.

    Returns
    -------
    tuple of JudgedRequirement
        The last one is of a what-if fault, and decides nothing.
    """
    reasons = why or {}
    stuck = "The greatest element differential pressure, with the bypass valve stuck shut,"
    opens = _opening_line(location, opening, collapse, reasons.get(OPENING, ""))
    if not_asked is not None:
        opens = replace(opens, counts=False, reason=f"{opens.reason} It decides nothing here: {not_asked.rstrip('.')}.")
    return (
        opens,
        _under_the_ceiling(GREATEST, "The greatest element differential pressure", greatest, collapse, reasons.get(GREATEST, "")),
        replace(
            _under_the_ceiling(GREATEST_STUCK, stuck, greatest_stuck, collapse, reasons.get(GREATEST_STUCK, "")), counts=False
        ),
    )


def _opening_line(
    location: BypassLocation | None, opening: CategoryValue | None, collapse: float | None, why: str
) -> JudgedRequirement:
    if location == "none":
        reason = "There is no bypass valve anywhere: cold, the whole pressure presses on the element."
        return JudgedRequirement(OPENING, "failed", reason, is_asked_of_every_use=True)
    if location is None:
        reason = "Where the bypass valve sits has not been looked at."
        return JudgedRequirement(OPENING, "open", reason, is_asked_of_every_use=True, decided_by="bypass.location")
    return _under_the_ceiling(OPENING, "The bypass opening pressure", opening, collapse, why)


def _under_the_ceiling(
    measure: str, what: str, value: CategoryValue | None, collapse: float | None, why: str
) -> JudgedRequirement:
    """Return whether a pressure is surely below the stated collapse pressure of the element. [kPa]"""

    def line(state: RequirementState, reason: str, decided_by: str | None = None) -> JudgedRequirement:
        return JudgedRequirement(measure, state, reason, is_asked_of_every_use=True, decided_by=decided_by)

    if value is None or not value.is_known:
        return line("open", f"{_not_known(what, why)}.", measure)
    measure_words = f"{what} is {number_in_words(value, MEASURE_ROWS[measure])}"
    if collapse is None:
        return line("open", f"{measure_words}; the {COLLAPSE} of the element is not stated.", COLLAPSE_KEY)
    low, high = interval_of(value)
    ceiling = f"the stated {COLLAPSE} of {plain_number(collapse)} kPa"
    if high < collapse:
        return line("met", f"{measure_words}, below {ceiling}.")
    if low >= collapse:
        return line("failed", f"{measure_words}, not below {ceiling}.")
    return line("open", f"{measure_words}, which may lie on either side of {ceiling}.", measure)


def proposed_verdict(lines: Sequence[JudgedRequirement]) -> UseVerdict:
    """Return what follows from the lines of a use: one failed overrides all else; without a stated one, none is proposed."""
    deciding = [line for line in lines if line.counts]
    if any(line.state == "failed" for line in deciding):
        return "fails"
    if all(line.is_asked_of_every_use for line in deciding):
        return "none"
    return "open" if any(line.state == "open" for line in deciding) else "meets"


def limits_in_words(asked: Requirement, unit: ShownUnit) -> str:
    """Return the limits of a requirement on a number, in a unit its measure is shown in."""
    ends = (("at least", asked.at_least), ("at most", asked.at_most))
    return " and ".join(
        f"{words} {plain_number(unit.number(end), 6)} {unit.symbol}".rstrip() for words, end in ends if end is not None
    )


def _choice(observation: Observation, word: str) -> str:
    """Return the choice that a word means: its own words, or the only choice that begins with it."""
    values = [choice.value for choice in observation.choices]
    begun = [value for value in values if value.startswith(word)]
    return word if word in values or len(begun) != 1 else begun[0]


def _sentence(title: str) -> str:
    return title[:1].upper() + title[1:]

"""Whether two filters are the same part under two names, dimension by dimension."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import combinations, pairwise
from math import hypot
from statistics import NormalDist
from typing import Literal, cast

from tabrel.core.catalogue.observation import Observation, observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import HOLE_PLACEMENTS, HOLE_QUANTITIES, PART_TITLES, QUANTITIES, Placement
from tabrel.core.judge.allowance import allowance
from tabrel.core.judge.chances import NORMAL_COVERAGE
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import HoleGroup, Provenance, Sample
from tabrel.core.uncertainty.estimate import Estimate

FindingState = Literal["same", "different", "cannot_tell"]
PartVerdict = Literal["different", "nothing_tells_them_apart", "cannot_tell"]

ENOUGH_SAME = 8
"""So many findings must be the same before nothing is said to tell two parts apart."""

TELLING_PARTS: dict[str, str] = {"media": "media.", "pleats": "element.pleat_", "tube": "tube.", "valve": "bypass."}
"""Parts of which something must be the same, with the beginning of their keys."""

EVIDENCE: frozenset[Provenance] = frozenset({"measured", "derived", "by_eye"})
"""Provenances that say nothing about the two parts themselves."""

NOT_OF_MAKING: frozenset[str] = frozenset(
    {
        "can.delivered",
        "can.squeeze",
        "can.picture_on_box",
        "can.damage",
        "gasket.feel",
        "gasket.fit",
        "gasket.pull_out",
        "gasket.pull_out_force",
        "thread.cut_quality",
        "plate.play",
        "anti_drain.feel",
        "anti_drain.fit",
        "anti_drain.memory",
        "anti_drain.hole_cover",
        "bypass.seen",
        "element.squeeze",
        "element.glue",
        "element.spacing",
        "element.damage",
        "tube.squeeze",
        "media.condition",
        "media.blocked_pleats",
        "media.blocked_area",
    }
)
"""Of one specimen (damage, age, workmanship, what a hand feels), not of how the part is made."""

FALSE_ALARM = 0.025
"""Chance, on either side, that any of all quantities compared is called different though it is not."""


@dataclass(frozen=True)
class PartFacts:
    """Traits of one filter as a part.

    Attributes
    ----------
    label : str
    part_number : tuple of str
        Maker and number; empty where either is unknown.
    quantities : mapping
        Estimates by reading key, and of holes by theirs. [SI]
    seen : mapping
        By observation key, and the shapes of the holes.
    has_service : bool
        Whether it was used, so that masses say nothing.
    """

    label: str
    part_number: tuple[str, ...]
    quantities: Mapping[str, Estimate]
    seen: Mapping[str, str]
    has_service: bool


@dataclass(frozen=True)
class Finding:
    """One dimension or attribute of two filters.

    Attributes
    ----------
    key : str
        Reading key, size of a hole, or observation.
    state : str
        ``same``, ``different`` or ``cannot_tell``.
    one, other : float, str or None
        Value [SI] or words of each; None where it was not looked at.
    allowance : float or None
        J + τ: how far apart two of one kind may be found. [SI]
    """

    key: str
    state: FindingState
    one: float | str | None
    other: float | str | None
    allowance: float | None = None

    @property
    def difference_percent(self) -> float | None:
        """By how many per cent the other one is larger; None for words and from zero."""
        if not isinstance(self.one, float) or not isinstance(self.other, float) or self.one == 0:
            return None
        return 100 * (self.other - self.one) / self.one

    @property
    def difference_in_allowances(self) -> float | None:
        """Difference in allowances, positive if the second is larger; beyond ±1 the two differ. None for words."""
        if not isinstance(self.one, float) or not isinstance(self.other, float) or not self.allowance:
            return None
        return (self.other - self.one) / self.allowance

    @property
    def strength(self) -> float:
        """How telling a difference is: as a multiple of the allowance; of words, and without one, endless."""
        allowances = self.difference_in_allowances
        return float("inf") if allowances is None else abs(allowances)


@dataclass(frozen=True)
class PartComparison:
    """Two filters compared as parts.

    Attributes
    ----------
    one, other : str
        Labels.
    verdict : str
        ``different``, ``nothing_tells_them_apart`` or ``cannot_tell``.
    findings : tuple of Finding
        The different ones first, the most telling at the head.
    not_looked_at : tuple of str
        Those of `TELLING_PARTS` of which nothing was found the same.
    is_one_part_number : bool
        Whether both carry one maker's one part number, so that a difference is one between lots.
    """

    one: str
    other: str
    verdict: PartVerdict
    findings: tuple[Finding, ...]
    not_looked_at: tuple[str, ...] = ()
    is_one_part_number: bool = False

    def keys(self, state: FindingState) -> tuple[str, ...]:
        """Return the keys of the findings of one state."""
        return tuple(finding.key for finding in self.findings if finding.state == state)

    @property
    def telling(self) -> tuple[Finding, ...]:
        """Differences, the largest first."""
        return tuple(finding for finding in self.findings if finding.state == "different")


@dataclass
class _Facts:
    quantities: dict[str, Estimate] = field(default_factory=dict)
    seen: dict[str, str] = field(default_factory=dict)


def part_facts(measured: MeasuredSample) -> PartFacts:
    """Return what tells a measured filter as a part; what was copied, published or assumed is left out."""
    sample = measured.sample
    facts = _Facts()
    for key, estimate in measured.estimates.items():
        if key not in NOT_OF_MAKING and estimate.provenance in EVIDENCE:
            facts.quantities[key] = estimate
    for placement, groups, estimates in (
        ("inlet", sample.holes.inlet, measured.inlet.estimates),
        ("centre_tube", sample.holes.centre_tube, measured.centre_tube.estimates),
    ):
        _add_holes(facts, f"holes.{placement}", groups, estimates)
    for key, observation in OBSERVATIONS.items():
        words = observed(sample, observation)
        if words is not None and key not in NOT_OF_MAKING and f"observations/{key}" not in sample.copied:
            facts.seen[key] = words
    return PartFacts(sample.label, part_number_of(sample), facts.quantities, facts.seen, sample.condition == "used")


def part_number_of(sample: Sample) -> tuple[str, ...]:
    """Return maker and part number of a filter, to be compared with those of others; empty where one is not known."""
    return (sample.maker.casefold(), sample.part_number.casefold()) if sample.maker and sample.part_number else ()


def _add_holes(facts: _Facts, path: str, groups: Sequence[HoleGroup], estimates: Mapping[str, Estimate]) -> None:
    """Add shapes, numbers and sizes of the holes, in an order that does not hang on who typed them first."""
    if not groups or any(group.copied_from for group in groups):
        return
    order = sorted(range(len(groups)), key=lambda i: (groups[i].shape, groups[i].count))
    facts.seen[f"{path}.pattern"] = ", ".join(f"{groups[i].count} × {groups[i].shape}" for i in order)
    for place, i in enumerate(order):
        for key, estimate in estimates.items():
            if key.startswith(f"{path}[{i}].") and estimate.provenance in EVIDENCE:
                facts.quantities[f"{path}[{place}].{key.rpartition('.')[2]}"] = estimate


def finding_name(key: str) -> tuple[str, str]:
    """Return the part a finding belongs to and its title, as a person calls them.

    Examples
    --------
    >>> finding_name("holes.inlet[1].diameter"), finding_name("can.height")
    (('Inlet holes', 'diameter, group 2'), ('Can', 'height'))
    """
    if key.startswith("holes."):
        placement, _, rest = key.removeprefix("holes.").partition("[")
        if not rest:
            return HOLE_PLACEMENTS[cast("Placement", placement.removesuffix(".pattern"))].title, "number and shape"
        group, _, size = rest.partition("].")
        return HOLE_PLACEMENTS[cast("Placement", placement)].title, f"{HOLE_QUANTITIES[size].title}, group {int(group) + 1}"
    named = QUANTITIES.get(key) or OBSERVATIONS[key]
    return PART_TITLES[named.part], named.title


def finding_unit(key: str) -> str:
    """Return the metric unit of a dimension; empty for a count."""
    return HOLE_QUANTITIES[key.rpartition(".")[2]].metric_unit if key.startswith("holes.") else QUANTITIES[key].metric_unit


def compare_parts(first: PartFacts, second: PartFacts) -> PartComparison:
    """Return whether two filters are the same part.

    Parameters
    ----------
    first, second : PartFacts
        From `part_facts`.

    Returns
    -------
    PartComparison
        A dimension is different where |Δ| > J_n + τ, the same where |Δ| ≤ J_n + τ and J ≤ 2τ, else it cannot tell; with n
        dimensions measured on both, J_n = J·z(1 − 0.025/n)/1.96 (Bonferroni's inequality).
    """
    patterns_differ = {
        path for path in ("holes.inlet", "holes.centre_tube")
        if first.seen.get(f"{path}.pattern") != second.seen.get(f"{path}.pattern")
    }  # fmt: skip
    keys = [
        key for key in dict.fromkeys((*first.quantities, *second.quantities))
        if not any(key.startswith(f"{path}[") for path in patterns_differ)
    ]  # fmt: skip
    both = [key for key in keys if key in first.quantities and key in second.quantities]
    widening = _widening(len(both))
    findings = [
        *(_dimension(key, first, second, widening) for key in keys),
        *(_attribute(key, first, second) for key in dict.fromkeys((*first.seen, *second.seen))),
    ]
    order: dict[FindingState, int] = {"different": 0, "same": 1, "cannot_tell": 2}
    findings.sort(key=lambda finding: (order[finding.state], -finding.strength if finding.state == "different" else 0.0))
    same = [finding.key for finding in findings if finding.state == "same"]
    lacking = tuple(part for part, start in TELLING_PARTS.items() if not any(key.startswith(start) for key in same))
    verdict: PartVerdict = "cannot_tell"
    if any(finding.state == "different" for finding in findings):
        verdict = "different"
    elif len(same) >= ENOUGH_SAME and not lacking:
        verdict = "nothing_tells_them_apart"
    is_one = bool(first.part_number) and first.part_number == second.part_number
    return PartComparison(first.label, second.label, verdict, tuple(findings), lacking, is_one)


@dataclass(frozen=True)
class Lot:
    """A specimen of a part number, and when it was made: an ISO date, month or year, empty where that is not known."""

    facts: PartFacts
    made: str


def lot_changes(lots: Sequence[Lot]) -> tuple[PartComparison, ...]:
    """Return each specimen of one part number against the one made before it, those of unknown date last."""
    ordered = sorted(lots, key=lambda lot: (not lot.made, lot.made))
    return tuple(compare_parts(item.facts, other.facts) for item, other in pairwise(ordered))


def compare_all_parts(facts: Sequence[PartFacts]) -> tuple[PartComparison, ...]:
    """Return every pair of filters compared as parts."""
    return tuple(compare_parts(part, other) for part, other in combinations(facts, 2))


def _widening(quantities: int) -> float:
    """Return by what J grows so that so many comparisons together raise no more false alarms than one."""
    return NormalDist().inv_cdf(1 - FALSE_ALARM / max(quantities, 1)) / NORMAL_COVERAGE


def _dimension(key: str, first: PartFacts, second: PartFacts, widening: float) -> Finding:
    a, b = first.quantities.get(key), second.quantities.get(key)
    if a is None or b is None:
        return Finding(key, "cannot_tell", None if a is None else a.value, None if b is None else b.value)
    joint = NORMAL_COVERAGE * hypot(a.standard_uncertainty, b.standard_uncertainty)
    tolerance = allowance(key).at((abs(a.value) + abs(b.value)) / 2)
    limit = widening * joint + tolerance
    state: FindingState = "cannot_tell"
    if (first.has_service or second.has_service) and key in QUANTITIES and QUANTITIES[key].dimension == "mass":
        state = "cannot_tell"  # oil and dirt weigh too
    elif abs(a.value - b.value) > limit:
        state = "different"
    elif joint <= 2 * tolerance:
        state = "same"
    return Finding(key, state, float(a.value), float(b.value), limit)


def _attribute(key: str, first: PartFacts, second: PartFacts) -> Finding:
    a, b = first.seen.get(key), second.seen.get(key)
    if a is None or b is None:
        return Finding(key, "cannot_tell", a, b)
    if a.casefold() == b.casefold():
        return Finding(key, "same", a, b)
    observation = OBSERVATIONS.get(key)
    is_known = observation is None or (_is_choice(observation, a) and _is_choice(observation, b))
    return Finding(key, "different" if is_known else "cannot_tell", a, b)


def _is_choice(observation: Observation, words: str) -> bool:
    """Return whether words are one of the choices: two people's own words may mean one thing."""
    return any(choice.value == words for choice in observation.choices)

"""What the analyst left out and a buyer would want to know: the dirt that passes, and litres that are not told apart."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from tabrel.core.answer.dirt import SURELY_MORE_ALIKE, claimed, passes_more
from tabrel.core.answer.known_use import DIRT, LITRES, MORE_UNFILTERED, KnownUse, is_dirt_weighed
from tabrel.core.answer.standing import Candidate

BlockName = Literal["decision", "left_out", "why", "service", "price", "not", "how_sure", "would_change", "mind"]


@dataclass(frozen=True)
class Said:
    """A sentence, and when it goes if there are too many words: the highest first, 0 never."""

    block: BlockName
    text: str
    goes: int = 0


def left_out(use: KnownUse, subject: Candidate) -> Iterator[Said]:
    """Yield what passes the filter that is named, where that is not weighed, and which buyable one passes surely less."""
    if is_dirt_weighed(use):
        return
    own = use.passed[subject.label]
    counted = next(
        ((label, item) for label in (subject.label, *subject.twins) if (item := use.passed[label]) and item.evidence == "count"),
        None,
    )
    asked = [item.category for item in use.judged.criteria if item.category.measure == DIRT]
    why = "you struck it out" if any(category.struck for category in asked) else "you do not weigh it"
    if any(category.struck is None and category.weight > 0 for category in asked):
        why = "you weigh it, but of no two filters is it known in the same way"
    cleaner = [
        (item.number, one)
        for one in use.buyable
        if one.label != subject.label
        and (item := use.passed[one.label]) is not None
        and item.number is not None
        and counted is not None
        and passes_more(counted[1], item)
    ]
    of = "of 1,000 particles of 20 µm"
    if cleaner:
        _, best = min(cleaner, key=lambda pair: pair[0])
        if (item := use.passed[best.label]) is not None:
            buy = f"Dirt ({why}): if it counts, buy {use.priced(best.label)}"
            yield Said("left_out", f"{buy}: {of} it lets {item.words} through ({item.test_kind}).")
    if counted is not None:
        label, item = counted
        who = label if label == subject.label else f"{label}, which looks the same part,"
        lead = f"{who} let" if cleaner else f"Dirt ({why}): {of} {who} let"
        yield Said("left_out", f"{lead} {item.words} through ({item.test_kind}).")
        if label != subject.label:
            yield Said("left_out", f"{subject.label} itself was not counted.")
            claim = claimed(use.measured[subject.label])
            if (
                claim is not None
                and claim.high is not None
                and item.low is not None
                and item.low >= SURELY_MORE_ALIKE * claim.high
            ):
                yield Said("left_out", f"The claim on {subject.label} ({claim.words}) and the count on {label} do not agree.", 4)
    elif own is not None:
        known_by = "a claim" if own.evidence == "claim" else "a screening estimate, never a rating"
        yield Said(
            "left_out", f"Dirt ({why}): {subject.label} lets {own.words} of 1,000 particles of 20 µm through, by {known_by}.", 1
        )
    else:
        yield Said("left_out", f"Dirt ({why}): what passes {subject.label} is not known.", 1)
    yield from _more_unfiltered(use, subject)


def _more_unfiltered(use: KnownUse, subject: Candidate) -> Iterator[Said]:
    own = use.value(subject.label, LITRES)
    others = [one for one in use.buyable if one.label != subject.label]
    for one in others:
        value = use.value(one.label, LITRES)
        if own is None or value is None or own.value is None or value.value is None:
            continue
        if own.value - value.value >= MORE_UNFILTERED and own.value >= 3 * value.value:
            mine, other = use.words(subject.label, LITRES), use.words(one.label, LITRES)
            yield Said("left_out", f"In a start {subject.label} leaves {mine} unfiltered, {one.label} {other}.")
            return

"""The sentences that carry the decision: what to buy and how sure, or why nothing is named."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from tabrel.core.answer.known_use import KnownUse, asks_of
from tabrel.core.answer.standing import FAIRLY_SURE, Candidate
from tabrel.core.answer.words import chance_words, listed
from tabrel.core.catalogue.units import in_family, shown
from tabrel.core.errors import TabrelError
from tabrel.core.judge.known import unit_price
from tabrel.core.judge.requirements import COLLAPSE_KEY, GREATEST
from tabrel.core.oil.model import oil_model
from tabrel.core.study.uses import RankingMethod

MAY = "if the vehicle maker allows it"
FIRST_BY: dict[RankingMethod, str] = {
    "weighted_score": "first by your weights",
    "pair_wins": "first by pair wins",
    "rank_sum": "first by the sum of places",
}
MOST_LEVEL = 3
"""So many filters at most are named together; of more it is not decided."""


def decision(known: KnownUse) -> tuple[list[str], tuple[str, ...]]:
    """Return the decision in sentences, the first of them which filter, and the filters it names to buy."""
    cold = _oil_that_does_not_pump(known)
    if cold:
        return [cold], ()
    candidates, labels = known.standing.candidates, known.judged.labels
    if not candidates:
        many = f"None of these {len(labels)} filters does" if len(labels) > 1 else f"{labels[0]} does not do"
        return [f"{many} what this use asks.", "Look for another part, or look again at what is asked."], ()
    if not known.standing.weighs:
        return _nothing_weighed(known)
    first = known.first
    if first.figure is None:
        return _nothing_known(known)
    if not known.standing.is_buyable(first.label):
        return _first_not_buyable(known)
    if len(candidates) == 1:
        return _only_one(known)
    if known.standing.sure == "not sure":
        return _not_told_apart(known)
    return _buy(known, first), (first.label,)


def _oil_that_does_not_pump(known: KnownUse) -> str:
    oil, cold = known.study.oil, known.use.temperature_c
    if oil is None or cold is None:
        return ""
    try:
        model = oil_model(oil)
    except TabrelError:
        return ""
    if model.pumps(np.array([cold]))[0]:
        return ""
    unit = in_family("°C", known.family)
    limit = shown(model.coldest_pumping(-60.0), unit, 3)
    return (
        f"At {shown(cold, unit, 3)} this oil does not pump (limit {limit}): change the oil or warm the engine; no filter helps."
    )


def _with_twins(known: KnownUse, one: Candidate) -> str:
    twins = [label for label in one.twins if label in known.judged.labels]
    return f", counted with {listed(twins)}, which nothing tells from it" if twins else ""


def _how_sure(known: KnownUse, one: Candidate) -> str:
    return f"{known.standing.sure} (chance {_chance(known, one)})"


def _chance(known: KnownUse, one: Candidate) -> str:
    return chance_words(one.chance, in_tenths=known.judged.followed_draws is not None)


def _which_and_why(which: str, why: str) -> list[str]:
    """Return which filter in a sentence of its own, under the vehicle maker's word, and why in the next."""
    return [f"{which}, {MAY}.", f"{why[0].upper()}{why[1:]}."]


def _buy(known: KnownUse, one: Candidate) -> list[str]:
    why = f"{FIRST_BY[known.standing.method]}, {_how_sure(known, one)}{_with_twins(known, one)}"
    return _which_and_why(f"Buy {known.priced(one.label)}", why)


def _only_one(known: KnownUse) -> tuple[list[str], tuple[str, ...]]:
    one, labels = known.first, known.judged.labels
    buy = f"Buy {known.priced(one.label)}"
    asks = "it meets what you ask" if known.use.requirements else "you ask nothing of it"
    if one.twins:
        whole = [*one.twins, one.label]
        apart = f"nothing tells {listed(sorted(whole))} apart"
        why = f"{apart if set(whole) == set(labels) else 'it alone is left'}, and {asks}"
        return _which_and_why(buy, why), (one.label,)
    if len(labels) == 1:
        return [*_which_and_why(buy, f"the only one opened, and {asks}"), "Nothing is compared with it."], (one.label,)
    return _which_and_why(buy, f"the only one of {len(labels)} that does what you ask"), (one.label,)


def _nothing_weighed(known: KnownUse) -> tuple[list[str], tuple[str, ...]]:
    buyable = known.buyable
    if not buyable:
        label = known.first.label
        return [f"You weigh nothing, so nothing is ranked, and none is judged in full: of {label}, {asks_of(label, known)}."], ()
    cheapest = min(buyable, key=lambda one: _amount(known, one.label))
    meet = "do what you ask" if known.use.requirements else "are left"
    many = f"{len(buyable)} {meet}; the cheapest of them is" if len(buyable) > 1 else "the only one judged in full is"
    return [f"You weigh nothing, so nothing is ranked: {many} {known.priced(cheapest.label)}, {MAY}."], (cheapest.label,)


def _nothing_known(known: KnownUse) -> tuple[list[str], tuple[str, ...]]:
    """Return that no filter is first, since nothing that weighs is known of any."""
    names = [item.category.name for item in known.counting[:MOST_LEVEL]]
    return [
        "Nothing that you weigh is known of these filters yet: none is first, and none is named to buy.",
        f"First wanted: {listed(names)}.",
    ], ()


def _not_told_apart(known: KnownUse) -> tuple[list[str], tuple[str, ...]]:
    by_chance = sorted(known.standing.candidates, key=lambda one: -one.chance)
    level: list[Candidate] = []
    for one in by_chance:
        level.append(one)
        if sum(item.chance for item in level) >= FAIRLY_SURE:
            break
    is_passed_over = known.first not in level
    if is_passed_over:  # by the draws alone: both are named
        level.append(known.first)
    named = [one for one in level if known.standing.is_buyable(one.label)]
    if len(level) == 1:
        return _buy(known, known.first), (known.first.label,)
    cheapest = min(named or known.buyable, key=lambda one: _amount(known, one.label))
    if len(level) <= MOST_LEVEL and len(named) == len(level):
        chances = listed([_chance(known, one) for one in level])
        names = listed([known.priced(one.label) for one in level], "or")
        low_price = f"The cheapest is {cheapest.label}." if np.isfinite(_amount(known, cheapest.label)) else ""
        why = "what you weigh does not tell them apart"
        if is_passed_over:
            by = FIRST_BY[known.standing.method]
            why = f"by the best estimates {known.first.label} is {by}, {level[0].label} in more of the draws"
        level_words = _which_and_why(names, f"{why} (chances to be first: {chances})")
        return [*level_words, *filter(None, [low_price])], tuple(one.label for one in level)
    first = known.counting[0].category.name if known.counting else "what you weigh"
    return [
        f"Not decided: {len(level)} filters may be first.",
        f"Measure more closely first: {first}.",
        f"If you must buy today: {known.priced(cheapest.label)}, {MAY}, the cheapest that does what you ask.",
    ], (cheapest.label,)


def _amount(known: KnownUse, label: str) -> float:
    price = unit_price(known.sample(label), known.use.shop)
    return price[0] if price else float("inf")


def _first_not_buyable(known: KnownUse) -> tuple[list[str], tuple[str, ...]]:
    first, by = known.first, FIRST_BY[known.standing.method]
    hazards, lines = known.standing.seen[first.label].hazards, known.standing.open_lines[first.label]
    others = known.buyable
    today = _buy_today(known, others)
    if hazards:
        say = f"{first.label} is {by}, but {listed(hazards)}: decide on that first."
        return [*today, say] if others else [say, "Nothing is named to buy yet."], _named(others)
    if lines and all(line.decided_by == COLLAPSE_KEY for line in lines) and _is_sure(known):
        states = f"the filter's maker states a collapse pressure above {_ceiling(known, first)}"
        which, why = _buy(known, first)
        return [f"{which[:-1]} and {states}.", f"{why[:-1]}; ask before buying.", *_until_then(known, others)], (first.label,)
    asks = asks_of(first.label, known) or f"you set it to “{known.standing.verdicts[first.label]}”"
    say = f"{known.priced(first.label)} is {by} as far as is known, but not judged in full: {asks}."
    if others:
        return [*today, say], _named(others)
    return [say, "Nothing is named to buy yet.", f"Nothing judged so far speaks against {first.label}."], ()


def _is_sure(known: KnownUse) -> bool:
    return known.standing.sure != "not sure"


def _named(others: Sequence[Candidate]) -> tuple[str, ...]:
    return tuple(one.label for one in others[:1])


def _buy_today(known: KnownUse, others: Sequence[Candidate]) -> list[str]:
    if not others:
        return []
    by = FIRST_BY[known.standing.method]
    why = (
        f"{by} of the {len(others)} that do what you ask"
        if len(others) > 1
        else "the only one that is judged in full and does what you ask"
    )
    return _which_and_why(f"Buy today {known.priced(others[0].label)}", why)


def _until_then(known: KnownUse, others: Sequence[Candidate]) -> list[str]:
    return [f"Until then {known.priced(others[0].label)}."] if others else []


def _ceiling(known: KnownUse, one: Candidate) -> str:
    """Return the pressure an element has to stand: the greatest of the map with its U, up to the next ten kilopascals."""
    value = known.value(one.label, GREATEST)
    if value is None or value.value is None:
        return "the greatest differential pressure of its element"
    high = value.high if value.high is not None else value.value + value.expanded_uncertainty
    return shown(1e4 * np.ceil(high / 10.0), in_family("kPa", known.family), 3)

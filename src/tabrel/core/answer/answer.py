"""The answer of a use: the decision first, then what was left out, why, price, service, what not to buy, how sure it is."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import date
from typing import Annotated

from tabrel.core.answer.compared import ComparedFilter, compared_filters
from tabrel.core.answer.decision import FIRST_BY, decision
from tabrel.core.answer.known_use import (
    DUST_TEST,
    LIFE,
    KnownUse,
    asks_of,
    is_number,
    what_decides,
)
from tabrel.core.answer.left_out import BlockName, Said, left_out
from tabrel.core.answer.standing import Candidate
from tabrel.core.answer.words import listed, value_words
from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.details.shelf_age import shelf_age_years
from tabrel.core.field_units import INSIDE
from tabrel.core.judge.judged_use import JudgedUse
from tabrel.core.judge.known import Known, single_offers, unit_price
from tabrel.core.judge.known_filter import of_part_numbers
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.model import Study

MOST_WORDS = 250
CHEAPER = 0.8
"""A filter at this share of the price or less is told beside the one that is named; ours."""
OLD_PRICE_DAYS = 180
"""A price seen so long ago is told to be; ours."""
OLD_YEARS = 5.0
"""So old a filter is told to be; ours."""
_MOST_NUMBERS = 3


TITLES: dict[BlockName, str] = {
    "decision": "",
    "left_out": "Left out",
    "why": "Why",
    "service": "In service",
    "price": "Price",
    "not": "Not",
    "how_sure": "How sure",
    "would_change": "Would change this",
    "mind": "Mind",
}
"""Parts of an answer in their order; the decision needs no title."""


@dataclass(frozen=True)
class Block:
    """One part of an answer: its name, its title, its sentences."""

    name: BlockName
    title: str
    sentences: tuple[str, ...]


@dataclass(frozen=True)
class Answer:
    """The answer of a use.

    Attributes
    ----------
    use : str
    named : tuple of str
        Filters it names to buy.
    blocks : tuple of Block
        The decision first; those without a sentence are left out.
    order : tuple of str
        Every filter of the use: the named, their twins, the other candidates, the failed.
    compared : tuple of ComparedFilter
        In that order.
    """

    use: str
    named: tuple[str, ...]
    blocks: tuple[Block, ...]
    order: tuple[str, ...]
    compared: Annotated[tuple[ComparedFilter, ...], INSIDE]

    @property
    def words(self) -> int:
        """How many words it has."""
        return sum(len(text.split()) for block in self.blocks for text in block.sentences)


def answer_use(
    study: Study,
    judged: JudgedUse,
    known: Mapping[str, Mapping[str, Known]],
    *,
    family: UnitFamily = "metric",
    today: date | None = None,
) -> Answer:
    """Return the answer of a use in sentences, at most 250 words.

    Parameters
    ----------
    study : Study
        Gives oil, engine, and what service is intended.
    judged : JudgedUse
        The use, judged for every filter.
    known : mapping
        By label: what is known in `measures_of_answer`; where part numbers are judged, what their specimens differ by is added.
    family : str
        Of the units; what was typed stays as it was typed.
    today : date or None
        For the age of a filter that nobody says when it was bought; without it no such age is told, and the answer never changes.
    """
    samples = [study.sample(label) for label in judged.labels]
    measured = {sample.label: measure_sample(sample, study.circuit) for sample in samples}
    of_kind = known if judged.is_of_specimens else of_part_numbers(samples, known)
    use = KnownUse(study, judged, measured, of_kind, family)
    sentences, named = decision(use)
    said = [Said("decision", text) for text in sentences]
    is_first = bool(use.standing.candidates) and use.first.figure is not None
    if named or (is_first and len(sentences) > 1):
        subject = next((one for one in use.standing.candidates if one.label in named), use.first)
        said += [*left_out(use, subject), *_why(use, subject), *_service(use, subject, named), *_price(use, subject, today)]
        said += [*_would_change(use, subject), *_how_sure(use, subject)]
    said += [*_not(use), *_mind(use, named, today)]
    order = _order(use, named)
    return Answer(judged.use.name, named, _within(said), order, compared_filters(use, order, named))


def _within(said: list[Said]) -> tuple[Block, ...]:
    kept = list(said)
    while sum(len(item.text.split()) for item in kept) > MOST_WORDS:
        last = max(range(len(kept)), key=lambda i: (kept[i].goes, i))
        if kept[last].goes == 0:
            break
        del kept[last]
    blocks = (Block(name, title, tuple(item.text for item in kept if item.block == name)) for name, title in TITLES.items())
    return tuple(block for block in blocks if block.sentences)


def _order(use: KnownUse, named: tuple[str, ...]) -> tuple[str, ...]:
    candidates = sorted(use.standing.candidates, key=lambda one: one.label not in named)
    labels = [label for one in candidates for label in (one.label, *one.twins)]
    return tuple(dict.fromkeys((*(label for label in labels if label not in use.standing.failed), *use.judged.labels)))


def _why(use: KnownUse, subject: Candidate) -> Iterator[Said]:
    numbers = []
    for item in use.counting:
        measure = item.category.measure
        if is_number(measure) and (value := use.value(subject.label, measure)) is not None:
            numbers.append(f"{item.category.name} {value_words(value, measure, use.family)}")
    if numbers:
        yield Said("why", f"{subject.label}: {', '.join(numbers[:_MOST_NUMBERS])}.")
    rival = next((one for one in use.standing.candidates if one.label != subject.label), None)
    if rival is None:
        return
    ahead, behind = use.ahead_and_behind(subject.label, rival.label)
    if ahead and behind:
        yield Said("why", f"Ahead of {rival.label} in {listed(ahead)}; behind in {listed(behind)}.")
    elif ahead:
        yield Said("why", f"Ahead of {rival.label}{' only' if len(ahead) == 1 else ''} in {listed(ahead)}.")
    elif behind:
        yield Said("why", f"Nothing that you weigh is told to be better than {rival.label}'s; behind in {listed(behind)}.")
    else:
        yield Said("why", f"Nothing that you weigh is told apart from {rival.label}.")
    others = {
        method: label
        for method, label in use.standing.firsts.items()
        if label is not None and label != use.first.label and method != use.standing.method
    }
    if others and use.standing.weighs:
        by_label: dict[str, list[str]] = {}
        for method, label in others.items():
            by_label.setdefault(label, []).append(FIRST_BY[method].removeprefix("first by "))
        words = "; ".join(
            f"{listed(methods)} put{'s' if methods == ['the sum of places'] else ''} {label} first"
            for label, methods in by_label.items()
        )
        yield Said("why", f"{words[0].upper()}{words[1:]}.", 6)


def _service(use: KnownUse, subject: Candidate, named: tuple[str, ...]) -> Iterator[Said]:
    hours, life = use.required_hours, use.words(subject.label, LIFE)
    value = use.value(subject.label, LIFE)
    is_known = value is not None and value.is_known
    if hours is None:
        if is_known:
            yield Said(
                "service", f"You state no hours of service; by the model {subject.label} first bypasses hot oil after {life}.", 3
            )
        return
    wanted, whose = hours
    lasts = use.lasts(subject.label)
    who = subject.label
    if not is_known:
        reason = use.known[subject.label][LIFE].reason if LIFE in use.known[subject.label] else ""
        yield Said("service", f"Whether {who} lasts the {wanted:g} h {whose} is not known{f' ({reason})' if reason else ''}.", 1)
        return
    if lasts:
        yield Said("service", f"By the model {who} lasts the {wanted:g} h {whose}: it first bypasses hot oil after {life}.", 2)
        return
    others = [one.label for one in use.buyable if one.label not in (who, *named) and use.lasts(one.label)]
    longer = f" {listed([use.priced(label) for label in others])} would." if others else ""
    begin = "Perhaps not to the end of" if lasts is None else "Not to the end of"
    yield Said(
        "decision",
        f"{begin} the {wanted:g} h {whose}: by the model hot oil first bypasses {who} unfiltered after {life}.{longer}",
    )


def _price(use: KnownUse, subject: Candidate, today: date | None) -> Iterator[Said]:
    label, shop = subject.label, use.use.shop
    sample = use.sample(label)
    if not sample.offers and sample.price is None:
        yield Said("price", f"No price of {label} is known.", 1)
    own = unit_price(sample, shop)
    asked = single_offers(sample, shop)
    dates = [offer.seen for offer in asked if offer.seen and len(offer.seen) == len("2026-10-02")]
    if today and dates and (today - date.fromisoformat(max(dates))).days > OLD_PRICE_DAYS:
        yield Said("price", f"The price of {label} is of {max(dates)}: ask anew.", 2)
    packs = [offer for offer in sample.offers if (offer.pack_of or 1) > 1 and (shop is None or offer.shop == shop)]
    if packs and own is not None:
        pack = min(packs, key=lambda offer: offer.each)
        if pack.currency == own[1] and pack.each < own[0]:
            how = "" if pack.delivery is None else ", delivered"
            yield Said("price", f"By {pack.pack_of}, {label} costs {pack.each:.2f} {pack.currency} each{how}.", 5)
    cheaper = []
    for other in (*subject.twins, *(one.label for one in use.standing.candidates if one.label != label)):
        price = unit_price(use.sample(other), shop)
        if price and own and price[1] == own[1] and price[0] < own[0] and other not in use.standing.failed:
            cheaper.append((other in subject.twins, price[0], other))
    for is_twin, amount, other in sorted(cheaper, key=lambda item: not item[0])[:2]:
        if is_twin:
            asks = asks_of(other, use)
            end = f" but is not judged in full: {asks}" if asks else " and does what you ask"
            yield Said("price", f"{use.priced(other)} is cheaper and looks the same part{end}.", 1)
        elif own and amount <= CHEAPER * own[0] and _is_alike(use, other, label):
            _, behind = use.ahead_and_behind(other, label)
            gives = f"gives up {listed(behind)}" if behind else "nothing that you weigh is told to be worse"
            yield Said(
                "price",
                f"{use.priced(other)} is cheaper: it {gives}." if behind else f"{use.priced(other)} is cheaper: {gives}.",
                1,
            )
    ranked = [one.label for one in use.buyable if one.label != label]
    for other in ranked[:1]:
        price = unit_price(use.sample(other), shop)
        if price and own and price[1] == own[1] and price[0] > own[0] and _is_alike(use, other, label):
            better, _ = use.ahead_and_behind(other, label)
            if better:
                yield Said("price", f"For {price[0] - own[0]:.2f} {price[1]} more {other} buys {listed(better)}.", 3)


def _is_alike(use: KnownUse, first: str, second: str) -> bool:
    """Return whether two prices are for one piece with delivery in both, or in neither."""
    with_delivery = []
    for label in (first, second):
        offers = single_offers(use.sample(label), use.use.shop)
        with_delivery.append(min(offers, key=lambda offer: offer.each).delivery is not None if offers else None)
    return with_delivery[0] == with_delivery[1]


def _not(use: KnownUse) -> Iterator[Said]:
    for label in use.standing.failed:
        hazards = use.standing.seen[label].hazards
        verdict = use.judged.verdicts[label]
        if verdict.stated is not None and verdict.stated.verdict == "fails" and verdict.stated.reason:
            why = verdict.stated.reason.rstrip(".")
        elif hazards:
            why = listed(hazards)
        else:
            why = next((line.reason for line in use.judged.requirements[label] if line.state == "failed"), "").rstrip(".")
            why = why[:1].lower() + why[1:]
        twin = next((one.label for one in use.standing.candidates if label in one.twins), None)
        yield Said("not", f"Do not buy {label}{f', though nothing tells {twin} from it' if twin else ''}: {why}.")


def _how_sure(use: KnownUse, subject: Candidate) -> Iterator[Said]:
    rival = next((one for one in use.standing.candidates if one.label != subject.label), None)
    if rival is None:
        return
    names: dict[str, list[str]] = {"sure": [], "by the model": [], "not told apart": []}
    for category, result in use.told_apart(subject.label, rival.label):
        told = "by the model" if category.measure in BEHAVIOUR_MEASURES else "sure"
        if result is not None:
            names[told if result else "not told apart"].append(category.name)
    parts = [f"{how} {listed(of)}" for how, of in names.items() if of]
    if parts:
        yield Said("how_sure", f"Against {rival.label}: {'; '.join(parts)}.", 5)


def _would_change(use: KnownUse, subject: Candidate) -> Iterator[Said]:
    wishes: list[str] = []
    for label in dict.fromkeys((use.first.label, subject.label)):
        wishes += [f"{what_decides(line)} (of {label})" for line in use.standing.open_lines[label]]
    own = use.passed[subject.label]
    if own is None or own.evidence != "count":
        wishes.append(f"have {subject.label} counted at 20 µm")
    if use.required_hours is not None and not use.lasts(subject.label):
        wishes.append(f"{DUST_TEST} (of {subject.label})")
    wishes = list(dict.fromkeys(wishes))[:_MOST_NUMBERS]
    if wishes:
        yield Said("would_change", f"This would change with: {'; '.join(wishes)}.", 4)


def _mind(use: KnownUse, named: tuple[str, ...], today: date | None) -> Iterator[Said]:
    seen = use.standing.seen
    for label in named:
        if seen[label].cautions:
            yield Said("decision", f"Mind {label}: {listed(seen[label].cautions)}.")
        if seen[label].not_looked_at:
            yield Said("decision", f"Not looked at on {label}: {listed(seen[label].not_looked_at)}.", 1)
        for twin in next((one.twins for one in use.standing.candidates if one.label == label), ()):
            faults = seen[twin].hazards
            if faults:
                yield Said("mind", f"Mind {twin}, which nothing tells from {label}: {listed(faults)}.")
        verdict = use.judged.verdicts[label]
        if verdict.stated is not None and verdict.proposed != verdict.stated.verdict:
            reason = f" ({verdict.stated.reason.rstrip('.')})" if verdict.stated.reason else ""
            against = f"; against it: {verdict.reasons[0].rstrip('.')}" if verdict.proposed != "meets" and verdict.reasons else ""
            yield Said("mind", f"{label} stands at “{verdict.stated.verdict}” because you set it so{reason}{against}.")
        sample = use.sample(label)
        age = shelf_age_years(sample, today or date.max) if today or sample.bought else None
        if age is not None and age > OLD_YEARS:
            yield Said("mind", f"{label} was made {age:.0f} years before: rubber ages.", 1)
    one = "from one opened filter of each" if not use.judged.is_of_specimens else "of these specimens only"
    yield Said("mind", f"This is a model, not a test to a standard, {one}.")

"""The first page: the question, the verdict by use, the ranking with its uncertainty, the headline results, what is assumed."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.catalogue.terms import BASES
from tabrel.core.judge.judged_use import JudgedUse
from tabrel.core.judge.ranking_methods import Places, Score
from tabrel.core.numbers import number_with_interval, number_with_uncertainty
from tabrel.core.results.budget import input_title
from tabrel.core.study.uses import UseVerdict
from tabrel.report.blocks import Block, Column, Facts, Heading, Paragraph, Picture, Points, Table
from tabrel.report.figures.charts import chances_chart
from tabrel.report.inputs import ReportInputs
from tabrel.report.words import result_words, sentence

VERDICTS: dict[UseVerdict, str] = {
    "meets": "meets the stated requirements",
    "open": "open",
    "fails": "fails",
    "none": "no requirement stated",
}

SHORT: dict[UseVerdict, str] = {"meets": "meets", "open": "open", "fails": "fails", "none": "none stated"}
"""In a grid."""

DECISION_RULE = (
    "Decision rule: a guard band of one expanded uncertainty, 95 % (JCGM 106:2012, 8.3). A requirement is met where value ± U "
    "lies wholly within its limit, failed where none of it does, open in between. A fatal finding outweighs every score. Nothing "
    "here says that a filter fits or is safe: the vehicle maker's instruction is."
)


def answer(inputs: ReportInputs) -> Iterator[Block]:
    """Yield the page of the answer."""
    study = inputs.study
    yield Heading(1, "The answer")
    facts = [("Question", study.question or "none stated")]
    if study.intended_uses:
        facts.append(("Intended for", study.intended_uses))
    facts.append(("Filters", ", ".join(_named(inputs, label) for label in inputs.measured) or "none yet"))
    yield Facts(tuple(facts))
    text = sentences_that_matter(inputs)
    if text:
        yield Points(tuple(text), "lead")
    yield from headline_table(inputs)
    yield from _verdicts(inputs)
    yield from _assumed(inputs)
    yield from _rankings(inputs)


def _named(inputs: ReportInputs, label: str) -> str:
    sample = inputs.measured[label].sample
    name = " ".join(word for word in (sample.maker, sample.part_number) if word)
    return f"{label} ({name})" if name and name != label else label


def _judged(inputs: ReportInputs) -> list[JudgedUse]:
    return [judged for judged in inputs.judged if isinstance(judged, JudgedUse)]


def verdict_on(judged: JudgedUse, label: str) -> tuple[UseVerdict, bool]:
    """Return the verdict that stands on a filter, and whether it is the analyst's own."""
    verdict = judged.verdicts[label]
    return (verdict.stated.verdict, True) if verdict.stated else (verdict.proposed, False)


def sentences_that_matter(inputs: ReportInputs, most: int = 3) -> list[str]:
    """Return the sentences that matter most: who is first and how sure, who fails and why, what is open for want of what."""
    texts: list[str] = []
    for judged in _judged(inputs)[:1]:
        texts.append(_first_place(judged))
    failed, opened = _telling(inputs, "fails"), _telling(inputs, "open")
    texts += failed[:1] + opened[:1] + failed[1:] + opened[1:]
    grave = [
        f"{label}: {sentence(warning.message)}"
        for label, analysis in inputs.analyses.items()
        for warning in analysis.warnings
        if not warning.confirmed
    ]
    return [*texts, *grave][:most]


def _first_place(judged: JudgedUse) -> str:
    labels = judged.ranked
    name = f"For “{judged.use.name}”"
    firsts = {
        "pair wins": _firsts(judged.pair_wins.rank, labels),
        "rank sum": _firsts(judged.rank_sum.places.rank, labels),
        "weighted score": _firsts(judged.weighted_score.places.rank, labels),
    }
    if len(labels) == 1:
        return f"{name} only {labels[0]} is compared: there is no ranking."
    first = {labels: sum(judged.chances.of_place[label][0] for label in labels) for labels in _as_one(judged)}
    together = max(first, key=lambda labels: first[labels])
    likely, chance = together[0], chance_words(first[together], judged)
    if len(together) > 1:
        name = f"{name}, {' and '.join(together)} taken as one part, which nothing tells apart"
    known = {method: who for method, who in firsts.items() if who}
    if known and all(who == [likely] for who in known.values()) and len(known) == len(firsts):
        return f"{name}, all three ranking methods put {likely} first; its chance of first place is {chance}."
    by_who: dict[tuple[str, ...], list[str]] = {}
    for method, who in firsts.items():
        by_who.setdefault(tuple(who), []).append(method)
    line = "; ".join(
        f"{' and '.join(methods)} {'put' if len(methods) > 1 or methods == ['pair wins'] else 'puts'} {_level(who)}"
        for who, methods in by_who.items()
    )
    return f"{name}, {line}. The likeliest first by the weighted score is {likely}, with a chance of {chance}."


def _as_one(judged: JudgedUse) -> list[tuple[str, ...]]:
    """Return the filters that are ranked, those that nothing tells apart together."""
    groups = {label: labels for labels in judged.same_parts for label in labels}
    return list(
        dict.fromkeys(tuple(one for one in groups.get(label, (label,)) if one in judged.ranked) for label in judged.ranked)
    )


def score_words(score: Score, judged: JudgedUse) -> str:
    """Return a weighted score with its interval, which never leaves 0 to 100; of few filters it asks for the end points."""
    if score.score is None or score.interval is None:
        return "–"
    if judged.asked_end_points:
        return "needs end points"
    low, high = score.interval
    if low > 0 and high < 100:
        return number_with_uncertainty(score.score, score.expanded_uncertainty)
    return number_with_interval(score.score, low, high)


def chance_words(chance: float, judged: JudgedUse) -> str:
    """Return a chance in per cent, or in tenths where only few draws of a start stand behind it."""
    if judged.followed_draws is None:
        return f"{100 * chance:.0f} %"
    tenths = round(10 * chance)
    return "under 1 in 10" if tenths == 0 else "over 9 in 10" if tenths == 10 else f"about {tenths} in 10"


def _level(who: tuple[str, ...]) -> str:
    if not who:
        return "no filter first for certain"
    return f"{who[0]} first" if len(who) == 1 else f"{', '.join(who[:-1])} and {who[-1]} level in first place"


def _firsts(rank: Mapping[str, int | None], labels: tuple[str, ...]) -> list[str]:
    return [label for label in labels if rank[label] == 1]


def _telling(inputs: ReportInputs, wanted: UseVerdict) -> list[str]:
    """Return a sentence for each filter that fails, or is open, naming the uses and the first reason."""
    by_label: dict[str, tuple[list[str], str]] = {}
    for judged in _judged(inputs):
        for label in judged.labels:
            stands, is_own = verdict_on(judged, label)
            if stands != wanted:
                continue
            verdict = judged.verdicts[label]
            reason = (
                verdict.stated.reason or "the analyst says so" if is_own and verdict.stated else next(iter(verdict.reasons), "")
            )
            names, _ = by_label.setdefault(label, ([], reason))
            names.append(judged.use.name)
    words = {"fails": "fails", "open": "is open"}[wanted]
    return [
        f"{label} {words} for {', '.join(f'“{name}”' for name in names)}: {sentence(reason)}"
        for label, (names, reason) in by_label.items()
    ]


def _verdicts(inputs: ReportInputs) -> Iterator[Block]:
    judged = _judged(inputs)
    labels = list(inputs.measured)
    if not inputs.study.uses:
        yield Paragraph("No use is stated: filters are described, not judged.", "assumed")
        return
    columns = (Column("Use", share=1.4), *(Column(label, share=1) for label in labels))
    rows = []
    for judged_use in judged:
        cells = [judged_use.use.name]
        for label in labels:
            if label not in judged_use.labels:
                cells.append("not compared")
                continue
            stands, is_own = verdict_on(judged_use, label)
            cells.append(f"{SHORT[stands]}{' (own verdict)' if is_own else ''}")
        rows.append(tuple(cells))
    if rows:
        yield Table("Verdict by use: whether the stated requirements are met", columns, tuple(rows))
    for name, why in (pair for pair in inputs.judged if isinstance(pair, tuple)):
        yield Paragraph(f"“{name}” cannot be judged: {why}", "assumed")
    yield Paragraph(DECISION_RULE, "small")
    own = [
        f"{label} for “{each.use.name}”: {VERDICTS[stated.verdict]}{f', because {stated.reason}' if stated.reason else ''}; "
        f"proposed was: {VERDICTS[each.verdicts[label].proposed]}."
        for each in judged
        for label in each.labels
        if (stated := each.verdicts[label].stated) is not None
    ]
    if own:
        yield Paragraph(f"Of the analyst: {' '.join(own)}", "opinion")


def _rankings(inputs: ReportInputs) -> Iterator[Block]:
    for i, judged in enumerate(_judged(inputs)):
        if len(judged.ranked) < 2:
            continue
        rows = []
        order = sorted(
            judged.ranked,
            key=lambda label: (-judged.chances.of_place[label][0], -(judged.weighted_score.scores[label].score or 0.0)),
        )
        for label in order:
            score = judged.weighted_score.scores[label]
            shown = score_words(score, judged)
            ties = f"; tied with {', '.join(score.ties)}" if score.ties else ""
            rows.append(
                (
                    label,
                    str(judged.pair_wins.rank[label]),
                    _place(judged.rank_sum.places, label),
                    _place(judged.weighted_score.places, label),
                    f"{shown}{ties}",
                    chance_words(judged.chances.of_place[label][0], judged),
                )
            )
        columns = (
            Column("Filter", share=1),
            Column("Pair wins", True),
            Column("Rank sum", True),
            Column("Weighted score", True),
            Column("Score of 100 ± U", True, 1.6),
            Column("Chance of first place", True),
        )
        yield Table(f"Ranking for “{judged.use.name}”: place by each method", columns, tuple(rows))
        out = [label for label in judged.labels if label not in judged.ranked]
        if out or judged.without_values:
            named = [f"of {', '.join(out)} nothing is known"] if out else []
            named += [f"nobody has {', '.join(judged.without_values)}"] if judged.without_values else []
            yield Paragraph(f"Left out: {'; '.join(named)}.", "assumed")
        if judged.asked_end_points:
            asked = f"State best and worst of {', '.join(judged.asked_end_points)}: so few filters set no scale of a score."
            yield Paragraph(asked, "assumed")
        if i == 0:
            ordered = {label: judged.chances.of_place[label] for label in order}
            chart = chances_chart(ordered, inputs.colours)
            yield Picture(
                "chances",
                chart.svg,
                chart.alt,
                f"Chance of each place for “{judged.use.name}”, {judged.chances.draws} draws.",
                45,
            )


def _place(places: Places, label: str) -> str:
    rank = places.rank[label]
    if rank is not None:
        return str(rank)
    low, high = places.rank_range[label]
    return f"{low} to {high}"


def headline_table(inputs: ReportInputs) -> Iterator[Block]:
    """Yield the headline results of every filter, with U and what each rests on."""
    if not inputs.measured:
        return
    columns = (Column("Filter", share=0.8), *(Column(RESULTS[name].title, True, 1.2) for name in HEADLINES))
    rows = []
    for label, analysis in inputs.analyses.items():
        cells = [label]
        for name in HEADLINES:
            result = getattr(analysis.results, name)
            basis = f"\n{BASES.get(result.basis, result.basis)}" if result.basis and result.basis != "measured" else ""
            cells.append(f"{result_words(name, result, inputs.family)}{basis}")
        rows.append(tuple(cells))
    yield Table("Five headline results of each filter, with expanded uncertainty (95 %)", columns, tuple(rows))


def _assumed(inputs: ReportInputs) -> Iterator[Block]:
    by_what: dict[str, list[str]] = {}
    for label, analysis in inputs.analyses.items():
        for name in HEADLINES:
            for key in getattr(analysis.results, name).assumed:
                labels = by_what.setdefault(input_title(key), [])
                if label not in labels:
                    labels.append(label)
    if by_what:
        assumptions = "; ".join(f"{what} ({', '.join(labels)})" for what, labels in by_what.items())
        yield Paragraph(f"Assumed, not measured: {assumptions}.", "assumed")
    else:
        yield Paragraph("No headline result rests on an assumed input.", "small")

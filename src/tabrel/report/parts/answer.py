"""The first page: the question, the verdict by use, the ranking with its uncertainty, the headline results, what is assumed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from tabrel.core.answer.adapter import adapter_sentences
from tabrel.core.answer.answer import Answer
from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.catalogue.terms import BASES
from tabrel.core.judge.categories import counting
from tabrel.core.judge.judged_use import JudgedUse
from tabrel.core.judge.ranking_methods import PlaceIn, Places, Score, places_in
from tabrel.core.numbers import number_with_interval, number_with_uncertainty
from tabrel.core.results.budget import input_title
from tabrel.core.study.uses import UseVerdict
from tabrel.report.blocks import Block, Column, Facts, Heading, Paragraph, Picture, Table
from tabrel.report.figures.charts import chances_chart
from tabrel.report.inputs import ReportInputs
from tabrel.report.words import result_words

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
    for i, given in enumerate(inputs.answers):
        yield Heading(2, given.use)
        decision, *rest = given.blocks
        yield Paragraph(" ".join(decision.sentences), "lead")
        if i == 0 and rest:  # the others stand before their rankings
            yield _reasons(given)
    if not inputs.study.uses and (run := adapter_sentences(inputs.study, draws=inputs.draws, family=inputs.family)):
        yield Paragraph(" ".join(run), "lead")
    yield from headline_table(inputs)
    yield from _verdicts(inputs)
    yield from _assumed(inputs)
    yield from _rankings(inputs)


def _reasons(given: Answer) -> Facts:
    return Facts(tuple((block.title, " ".join(block.sentences)) for block in given.blocks[1:]))


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
            about = judged_use.verdicts[label].about
            cells.append(f"{SHORT[stands]} (own verdict)" if is_own else f"{SHORT[stands]}\n{about}" if about else SHORT[stands])
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
    answers = {given.use: given for given in inputs.answers}
    for i, judged in enumerate(_judged(inputs)):
        if i and len((given := answers[judged.use.name]).blocks) > 1:
            yield Heading(2, f"Why, for “{judged.use.name}”")
            yield _reasons(given)
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
        yield _places_by_criterion(judged, order)
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


def _places_by_criterion(judged: JudgedUse, order: Sequence[str]) -> Table:
    """Return the place of every filter in every criterion that counts, as people keep it on paper."""
    rows = []
    for category in counting([criterion.category for criterion in judged.criteria]):
        in_it = places_in(category, order)
        rows.append((f"{category.name} ({category.weight:g})", *(_in_one(in_it[label]) for label in order)))
    columns = (Column("Criterion (weight)", share=2), *(Column(label, True, 1) for label in order))
    return Table(f"Places for “{judged.use.name}”, criterion by criterion; =: not told apart from another", columns, tuple(rows))


def _in_one(place: PlaceIn | None) -> str:
    if place is None:
        return "–"
    return f"{place.first} to {place.last}" if place.first != place.last else f"{place.first}{'=' if place.is_level else ''}"


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

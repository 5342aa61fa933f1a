"""Requirements and what was found of every filter, the ranking of each use, and the analyst's own verdicts."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from tabrel.core.answer.asked import asked_sentence, required_words, title_in_words
from tabrel.core.judge.categories import counting
from tabrel.core.judge.judged_use import JudgedUse
from tabrel.core.judge.ranking_methods import PlaceIn, Places, Score, places_in
from tabrel.core.judge.requirements import JudgedRequirement
from tabrel.core.numbers import number_with_interval, number_with_uncertainty
from tabrel.core.study.uses import UseVerdict
from tabrel.report.blocks import Block, Column, Facts, Heading, Paragraph, Picture, Table
from tabrel.report.figures.charts import chances_chart
from tabrel.report.inputs import ReportInputs
from tabrel.report.parts.answer import SHORT

VERDICTS: dict[UseVerdict, str] = {
    "meets": "meets the stated requirements",
    "open": "not judged in full",
    "fails": "fails",
    "none": "no requirement stated",
}

DECISION_RULE = (
    "Decision rule: a guard band of one expanded uncertainty, 95 % (JCGM 106:2012, 8.3). A requirement is met where value ± U "
    "lies wholly within its limit, failed where none of it does, open in between. A fatal finding outweighs every score. Nothing "
    "here says that a filter fits or is safe: the vehicle maker's instruction is."
)


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


def rules(inputs: ReportInputs) -> Iterator[Block]:
    """Yield whether each filter does what each use asks, by which rule, and line by line: in a full report with the reasons."""
    judged = inputs.judged_uses
    if not inputs.study.uses:  # which the answer says
        return
    yield Heading(1, "Requirements and what was found")
    yield Paragraph(DECISION_RULE, "small")
    yield from _matrix(inputs, judged)
    for name, why in (pair for pair in inputs.judged if isinstance(pair, tuple)):
        yield Paragraph(f"“{name}” cannot be judged: {why}", "assumed")
    if inputs.plan.size != "full":
        yield from _lines(judged, inputs)
        return
    for each in judged:
        yield from _reasons_line_by_line(each, inputs)


def _matrix(inputs: ReportInputs, judged: Sequence[JudgedUse]) -> Iterator[Block]:
    labels = list(inputs.measured)
    rows = []
    for each in judged:
        cells = [each.use.name]
        for label in labels:
            if label not in each.labels:
                cells.append("not compared")
                continue
            stands, is_own = verdict_on(each, label)
            about = each.verdicts[label].about
            cells.append(f"{SHORT[stands]} (own verdict)" if is_own else f"{SHORT[stands]}: {about}" if about else SHORT[stands])
        rows.append(tuple(cells))
    if rows and labels:
        columns = (Column("Use"), *(Column(label) for label in labels))
        yield Table("Verdict by use: whether the stated requirements are met, and what decides", columns, tuple(rows))


def _lines(judged: Sequence[JudgedUse], inputs: ReportInputs) -> Iterator[Block]:
    """Yield one table: a row for each thing asked, use by use, then what every use asks; a column for each filter."""
    labels = list(inputs.measured)
    rows: list[tuple[str, ...]] = []
    of_every_use: dict[str, dict[str, str]] = {}
    for each in judged:
        not_asked = (
            f": that the bypass valve opens in time is not asked, {each.use.bypass_not_asked}"
            if each.use.bypass_not_asked
            else ""
        )
        own: list[tuple[str, ...]] = [(f"“{each.use.name}”{not_asked}",)] if each.use.requirements or not_asked else []
        for i, asked in enumerate(each.use.requirements):  # a line each, in this order, before those asked of every use
            states = (_state(each.requirements[label][i]) if label in each.labels else "–" for label in labels)
            own.append((required_words(asked, inputs.family), *states))
        rows += own if each.labels else []
        for label in each.labels:
            for line in each.requirements[label][len(each.use.requirements) :]:
                if line.counts:
                    words = f"{title_in_words(line.measure)}, below the stated collapse pressure"
                    of_every_use.setdefault(words, {})[label] = _state(line)
    if of_every_use:
        rows.append(("Of every use",))
        rows += [(words, *(of.get(label, "–") for label in labels)) for words, of in of_every_use.items()]
    if rows:
        columns = (Column("Asked"), *(Column(label) for label in labels))
        yield Table("Each requirement, filter by filter", columns, tuple(rows))


def _state(line: JudgedRequirement) -> str:
    return {"met": "met", "failed": "failed", "open": "not judged"}[line.state]


def _reasons_line_by_line(judged: JudgedUse, inputs: ReportInputs) -> Iterator[Block]:
    yield Heading(2, judged.use.name)
    yield Paragraph(f"Asked: {asked_sentence(judged.use, inputs.family)}")
    if judged.use.tier:
        yield Paragraph(f"Only of tier {judged.use.tier}.")
    struck = [f"{item.category.name} ({item.category.struck})" for item in judged.criteria if item.category.struck]
    if struck:
        yield Paragraph(f"Struck out: {'; '.join(struck)}.")
    rows: list[tuple[str, ...]] = []
    for label in judged.labels:
        rows.append((label,))
        for line in judged.requirements[label]:
            state = _state(line) if line.counts else f"{_state(line)}; does not decide"
            rows.append((state, line.reason, "every use" if line.is_asked_of_every_use else "stated"))
    if rows:
        columns = (Column("State"), Column("Reason"), Column("Asked"))
        yield Table(f"“{judged.use.name}”: requirements, line by line", columns, tuple(rows))


def _own_verdicts(judged: Sequence[JudgedUse]) -> Iterator[Block]:
    own = [
        f"{label} for “{each.use.name}”: {VERDICTS[stated.verdict]}{f', because {stated.reason}' if stated.reason else ''}; "
        f"proposed was: {VERDICTS[each.verdicts[label].proposed]}."
        for each in judged
        for label in each.labels
        if (stated := each.verdicts[label].stated) is not None
    ]
    if own:
        yield Paragraph(f"Of the analyst: {' '.join(own)}", "opinion")


def rankings(inputs: ReportInputs) -> Iterator[Block]:
    """Yield the ranking of each use by every method, and the analyst's own verdicts; why, for all uses but the first."""
    judged_uses = inputs.judged_uses
    own = tuple(_own_verdicts(judged_uses))
    ranked = any(len(judged.ranked) > 1 for judged in judged_uses)
    if not own and not ranked:
        return
    yield Heading(1, "Ranking and opinions")
    yield from own
    yield from _rankings(inputs)


def _rankings(inputs: ReportInputs) -> Iterator[Block]:
    answers = {given.use: given for given in inputs.answers}
    for i, judged in enumerate(inputs.judged_uses):
        if i and len((given := answers[judged.use.name]).blocks) > 1:
            yield Heading(2, f"Why, for “{judged.use.name}”")
            yield Facts(tuple((block.title, " ".join(block.sentences)) for block in given.blocks[1:]))
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
            Column("Filter"),
            Column("Pair wins", True),
            Column("Rank sum", True),
            Column("Weighted score", True),
            Column("Score of 100 ± U", True),
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
    columns = (Column("Criterion (weight)"), *(Column(label, True) for label in order))
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

"""The first page: the card of a study. The answer of its first use, bars and one table, why; of other uses the decision."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from tabrel.core.answer.adapter import adapter_sentences
from tabrel.core.answer.answer import Answer
from tabrel.core.answer.asked import asked_sentence
from tabrel.core.answer.compared import start_temperature
from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.study.uses import UseVerdict
from tabrel.report.blocks import Block, Boxed, Column, Facts, Heading, Paragraph, Picture, Table
from tabrel.report.figures.trade_bars import HEAD, NOTE, ROW, trade_bars, trade_panels
from tabrel.report.inputs import ReportInputs
from tabrel.report.words import result_unit, result_words, with_basis

SHORT: dict[UseVerdict, str] = {"meets": "meets", "open": "not judged", "fails": "fails", "none": "nothing asked"}
"""In a grid."""

MOST_ROWS = 7
"""Filters in the bars, and in the table of a card; of more, those that are named and their rivals come first."""

FOOT = "It supports a choice and decides nothing: the vehicle maker's instructions and a qualified mechanic do."


def answer(inputs: ReportInputs) -> Iterator[Block]:
    """Yield the card: it fills one page."""
    study = inputs.study
    if not inputs.answers:
        yield from _without_a_use(inputs)
        return
    given = inputs.answers[0]
    use = next(use for use in study.uses if use.name == given.use)
    yield Heading(1, f"{given.use[:1].upper()}{given.use[1:]}: which filter?")
    yield Paragraph(f"Asked: {asked_sentence(use, inputs.family)}", "small")
    decision, *rest = given.blocks
    beside = [("", text) for text in decision.sentences[1:]]
    beside += [(block.title, " ".join(block.sentences)) for block in rest if block.name == "left_out"]
    yield Boxed(decision.sentences[0], tuple(beside))
    yield from _bars(given, inputs)
    yield from _headline_table(inputs, given.order, given)
    reasons = [(block.title, " ".join(block.sentences)) for block in rest if block.name != "left_out"]
    yield Facts((*reasons, *((other.use, other.blocks[0].sentences[0]) for other in inputs.answers[1:])))
    yield Paragraph(FOOT, "small")


def _without_a_use(inputs: ReportInputs) -> Iterator[Block]:
    study = inputs.study
    yield Heading(1, "The answer")
    yield Paragraph(study.question or "No question is stated.", "plain")
    run = () if study.uses else adapter_sentences(study, draws=inputs.draws, family=inputs.family)
    if run:
        yield Boxed(run[0], tuple(("", text) for text in run[1:]))
    elif not study.uses:
        yield Paragraph("No use is stated: filters are described, not judged.", "assumed")
    for name, why in (pair for pair in inputs.judged if isinstance(pair, tuple)):
        yield Paragraph(f"“{name}” cannot be judged: {why}", "assumed")
    yield from _headline_table(inputs, tuple(inputs.measured), None)


def _bars(given: Answer, inputs: ReportInputs) -> Iterator[Block]:
    compared = given.compared[:MOST_ROWS]
    panels = trade_panels(compared, start_temperature(inputs.study), inputs.family)
    if panels:
        chart = trade_bars(compared, panels)
        yield Picture("trade", chart.svg, chart.alt, NOTE, HEAD + ROW * len(compared))


def _headline_table(inputs: ReportInputs, labels: Sequence[str], given: Answer | None) -> Iterator[Block]:
    """Yield the five headline results of filters with U, what stands on each, its price and condition."""
    if inputs.plan.size == "card":
        labels, more = labels[:MOST_ROWS], labels[MOST_ROWS:]
    else:
        more = ()
    if not labels:
        yield Paragraph("There is no filter yet.", "assumed")
        return
    heads = [Column(f"{RESULTS[name].title}, {result_unit(name, inputs.family)[0]}", True) for name in HEADLINES]
    columns = (Column("Filter"), Column("For this use"), *heads, Column("Price of one", True), Column("Condition, made"))
    compared = {one.label: one for one in given.compared} if given else {}
    rows = []
    for label in labels:
        results = inputs.analyses[label].results
        one = compared.get(label)
        cells = [label, SHORT[one.stands] if one else ""]
        for name in HEADLINES:
            result = getattr(results, name)
            known = replace(result, controlled_by=None)  # whose area it is stands in the comparison
            words = result_words(name, known, inputs.family, with_unit=False)
            cells.append(with_basis(words, result.basis) if result.is_known else words)
        cells.append(f"{one.price[0]:.2f} {one.price[1]}" if one and one.price else "")
        cells.append(condition_words(inputs, label))
        rows.append(tuple(cells))
    yield Table("Five results of each filter, with expanded uncertainty (95 %)", columns, tuple(rows))
    if more:
        yield Paragraph(f"Not on this card, for want of room: {', '.join(more)}.", "small")


def condition_words(inputs: ReportInputs, label: str) -> str:
    """Return in which condition a filter is, how far it has run, and when it was made."""
    sample = inputs.measured[label].sample
    ran = [f"{sample.used_km:g} km" if sample.used_km else "", f"{sample.used_hours:g} h" if sample.used_hours else ""]
    return ", ".join(filter(None, (sample.condition, *ran, sample.made)))

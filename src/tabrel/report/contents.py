"""A report put together: the head, then the chosen parts in their order, the analyst's own text between."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

from tabrel.core.study.report_plan import PartKey, chosen_parts
from tabrel.report.at_hand import StudyAtHand
from tabrel.report.blocks import Block, Report
from tabrel.report.own_text import own_text
from tabrel.report.parts.answer import answer
from tabrel.report.parts.comparison import comparison
from tabrel.report.parts.one_filter import filters
from tabrel.report.parts.trail import budgets, claims, conditions, method, readings, rules

PART_BLOCKS: dict[PartKey, Callable[[StudyAtHand], Iterable[Block]]] = {
    "answer": answer,
    "filters": filters,
    "comparison": comparison,
    "readings": readings,
    "budgets": budgets,
    "claims": claims,
    "conditions": conditions,
    "rules": rules,
    "method": method,
}


def report_of(at_hand: StudyAtHand, *, dated: str, number: str | None = None, with_blocks: bool = True) -> Report:
    """Return the report of a study as its plan has it.

    Parameters
    ----------
    at_hand : StudyAtHand
        The study.
    dated : str
        ISO date.
    number : str or None
        Under which it is issued; None for a draft.
    with_blocks : bool
        Whether its contents are wanted, not only its head.

    Returns
    -------
    Report
    """
    plan = at_hand.plan
    return Report(
        title=plan.title or at_hand.study.name,
        number=number,
        dated=dated,
        paper=plan.paper or "a4",
        prepared_by=plan.prepared_by,
        prepared_for=plan.prepared_for,
        blocks=tuple(_blocks(at_hand)) if with_blocks else (),
    )


def _blocks(at_hand: StudyAtHand) -> Iterator[Block]:
    for part in chosen_parts(at_hand.plan):
        if part.part == "text":
            yield own_text(part.text or "")
        else:
            yield from PART_BLOCKS[part.part](at_hand)

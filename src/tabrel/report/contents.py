"""A report put together: the head, then the chosen parts in their order, the analyst's own text between."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

from tabrel.core.study.report_plan import PartKey, chosen_parts
from tabrel.report.blocks import Block, Report, Table
from tabrel.report.columns import without_empty_columns
from tabrel.report.inputs import ReportInputs
from tabrel.report.own_text import own_text
from tabrel.report.parts.answer import answer
from tabrel.report.parts.comparison import comparison, maps, same_part
from tabrel.report.parts.one_filter import filters
from tabrel.report.parts.trail import assumptions, budgets, cautions, claims, conditions, items, method, readings
from tabrel.report.parts.verdicts import rankings, rules

PartMaker = Callable[[ReportInputs], Iterable[Block]]

PART_BLOCKS: dict[PartKey, PartMaker] = {
    "answer": answer,
    "items": items,
    "conditions": conditions,
    "method": method,
    "comparison": comparison,
    "maps": maps,
    "filters": filters,
    "rules": rules,
    "claims": claims,
    "same_part": same_part,
    "rankings": rankings,
    "assumptions": assumptions,
    "cautions": cautions,
    "readings": readings,
    "budgets": budgets,
}


KeptPart = Callable[[ReportInputs, str, PartMaker], Iterable[Block]]
"""Gives the blocks of a part by its key, made or kept."""


def report_of(
    inputs: ReportInputs, *, dated: str, number: str | None = None, with_blocks: bool = True, part: KeptPart | None = None
) -> Report:
    """Return the report of a study as its plan has it.

    Parameters
    ----------
    inputs : ReportInputs
        The study.
    dated : str
        ISO date.
    number : str or None
        Under which it is issued; None for a draft.
    with_blocks : bool
        Whether its contents are wanted, not only its head.
    part : callable or None
        Gives the blocks of a part, made or kept; None: they are made.
    """
    plan = inputs.plan
    return Report(
        title=plan.title or inputs.study.name,
        number=number,
        dated=dated,
        paper=plan.paper or "a4",
        prepared_by=plan.prepared_by,
        prepared_for=plan.prepared_for,
        blocks=tuple(_blocks(inputs, part or _made)) if with_blocks else (),
    )


def _made(inputs: ReportInputs, _: str, make: PartMaker) -> Iterable[Block]:
    return make(inputs)


def _blocks(inputs: ReportInputs, blocks_of: KeptPart) -> Iterator[Block]:
    for part in chosen_parts(inputs.plan):
        if part.part == "text":
            yield own_text(part.text or "")
        else:
            for block in blocks_of(inputs, part.part, PART_BLOCKS[part.part]):
                yield without_empty_columns(block) if isinstance(block, Table) else block

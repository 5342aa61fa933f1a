"""The filters side by side: the sheet, each against the reference part, over oil temperature, as maps, as parts."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES, MEASURE_ROWS, PRICES, measure_unit
from tabrel.core.catalogue.terms import PART_VERDICTS
from tabrel.core.catalogue.units import ShownUnit, UnitFamily, unit_in
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.judge.comparison_sheet import SheetCell, SheetRow
from tabrel.core.judge.same_part import compare_all_parts, finding_name, part_facts
from tabrel.core.numbers import bound, number_with_interval, number_with_uncertainty, plain_number, signed_number
from tabrel.core.study.uses import Use
from tabrel.report.blocks import Block, Column, Heading, Paragraph, Picture, Table
from tabrel.report.columns import UNBROKEN
from tabrel.report.figures.charts import slices_chart
from tabrel.report.figures.map_chart import map_charts
from tabrel.report.inputs import ReportInputs
from tabrel.report.words import with_basis

USUAL_SPEED = 2000.0
_MOST_TELLING = 3
MARKS = {"best": "▲", "worst": "▽", "tied": "=", "": ""}


def comparison(inputs: ReportInputs) -> Iterator[Block]:
    """Yield what the uses ask about, filter by filter: in a full report the whole sheet; and the filters over oil temperature."""
    if len(inputs.measured) < 2:
        return
    yield Heading(1, "Comparison sheet")
    use = inputs.study.uses[0] if inputs.study.uses else None
    yield Paragraph(
        "Value ± U (95 %, with what specimens of one part number differ by). ▲ best, ▽ worst, = tied with the best inside the "
        "uncertainty; in brackets the difference to the reference part, in kelvin of a temperature.",
        "small",
    )
    against = f", against {inputs.study.reference}" if inputs.study.reference else ""
    if inputs.plan.size == "full":  # its sheet is turned and runs over pages of its own
        at = f" at the points of “{use.name}”" if use else ""
        yield from _over_temperature(inputs, use)
        yield _table(f"Comparison of part numbers{at}{against}", _grouped(inputs.sheet, inputs), inputs, is_wide=True)
    else:
        yield _table(f"Comparison of part numbers in what the uses ask about{against}", list(_of_every_use(inputs)), inputs)
        yield from _over_temperature(inputs, use)


def _over_temperature(inputs: ReportInputs, use: Use | None) -> Iterator[Block]:
    points = {label: point for label, point in inputs.points.items() if isinstance(point, OperatingPoint)}
    if points:
        speed = (use.speed_rpm if use else None) or USUAL_SPEED
        chart = slices_chart(points, speed, inputs.colours, inputs.family)
        words = f"Filters over oil temperature at {plain_number(speed)} rpm, best estimates. A model, not a test."
        yield Picture("slices", chart.svg, chart.alt, words, 66)


def _grouped(sheet: Iterable[SheetRow], inputs: ReportInputs) -> list[tuple[str, ...]]:
    rows: list[tuple[str, ...]] = []
    group = ""
    for row in sheet:
        if row.group != group:
            group = row.group
            rows.append((group,))
        rows.append(_line(row, inputs))
    return rows


def _of_every_use(inputs: ReportInputs) -> Iterator[tuple[str, ...]]:
    """Yield what matters to the uses: what a filter does at the points of each, use by use, and what it is, once."""
    told: set[str] = set()
    for use, sheet in inputs.short_sheets:
        behaviour = [row for row in sheet if row.key in BEHAVIOUR_MEASURES and row.matters]
        if use is not None and behaviour:
            yield (f"At the points of “{use.name}”",)
            yield from (_line(row, inputs) for row in behaviour)
    for _, sheet in inputs.short_sheets:
        for row in sheet:
            if row.key in BEHAVIOUR_MEASURES or row.key in told:
                continue
            if not told:
                yield ("Of the filters themselves",)
            told.add(row.key)
            yield _line(row, inputs)


def _line(row: SheetRow, inputs: ReportInputs) -> tuple[str, ...]:
    unit = unit_of_row(row, inputs.family)
    title = f"{row.title} [{unit}]" if unit else row.title
    return (
        title,
        *(_cell(row, row.cells[label], inputs.family, is_full=inputs.plan.size == "full") for label in inputs.measured),
    )


def _table(caption: str, rows: Sequence[tuple[str, ...]], inputs: ReportInputs, *, is_wide: bool = False) -> Table:
    columns = (Column(""), *(Column(label, True) for label in inputs.measured))
    return Table(caption, columns, tuple(rows), is_wide)


def maps(inputs: ReportInputs) -> Iterator[Block]:
    """Yield the operating maps of all filters at one scale."""
    points = {label: point for label, point in inputs.points.items() if isinstance(point, OperatingPoint)}
    lacking = [f"{label}: {why}" for label, why in inputs.points.items() if isinstance(why, str)]
    if not inputs.measured:
        return
    yield Heading(1, "Operating maps", len(points) > 2)
    for chart, rows in map_charts(points, inputs.family):
        caption = "Element differential pressure at one scale; hatched, the bypass valve is open. A model, not a test."
        yield Picture(f"maps {', '.join(rows)}", chart.svg, chart.alt, caption, 10 + 44 * len(rows))
    if lacking:
        yield Paragraph(f"No operating map of {' '.join(lacking)}", "assumed")


def same_part(inputs: ReportInputs) -> Iterator[Block]:
    """Yield of every pair of filters whether anything tells them apart, and what does so most."""
    if len(inputs.measured) < 2:
        return
    yield Heading(1, "Same part or not")
    rows = []
    for pair in compare_all_parts([part_facts(measured) for measured in inputs.measured.values()]):
        apart = [" ".join(finding_name(finding.key)) for finding in pair.telling]
        count = f"{len(apart)} of {len(pair.findings)} findings differ"
        few = f"{len(pair.keys('same'))} findings are the same"
        lacking = f", nothing of {', '.join(pair.not_looked_at)}" if pair.not_looked_at else ""
        words = f"{count}, most of all {', '.join(apart[:_MOST_TELLING]).lower()}" if apart else f"{few}{lacking}"
        rows.append((f"{pair.one}, {pair.other}", PART_VERDICTS[pair.verdict], words))
    columns = (Column("Filters"), Column("Verdict"), Column("Why"))
    yield Table("Whether two filters are one part under two names", columns, tuple(rows))


def unit_of_row(row: SheetRow, family: UnitFamily) -> str:
    """Return the unit of a row, or the currency where all its prices share one."""
    if row.key in PRICES:
        currencies = {cell.known.alike.removeprefix("in ") for cell in row.cells.values() if cell.known and cell.known.value}
        return currencies.pop() if len(currencies) == 1 else ""
    return measure_unit(row.key, family).symbol if row.is_number else ""


def _cell(row: SheetRow, cell: SheetCell, family: UnitFamily, *, is_full: bool) -> str:
    if not row.is_number:
        return "–" if cell.words is None else cell.words[0 if family == "metric" else 1]
    known = cell.known
    if known is None or known.value is None:
        return "–"
    unit, value = measure_unit(row.key, family), known.value
    low, high = (None if end is None else unit.number(end) for end in (value.low, value.high))
    if known.words and is_full:
        words = known.words
    elif value.value is not None and low is not None and high is not None:
        words = number_with_interval(unit.number(value.value), low, high, "")
    elif value.value is not None:
        words = number_with_uncertainty(unit.number(value.value), value.expanded_uncertainty * unit.factor, "")
    else:
        ends = [
            *(() if low is None else (f"≥ {bound(low, 3, 'lower')}",)),
            *(() if high is None else (f"≤ {bound(high, 3, 'upper')}",)),
        ]
        words = ", ".join(ends)
    mark = MARKS[cell.mark]
    difference = ""
    if cell.difference is not None and cell.differs:
        is_kelvin = row.key in BEHAVIOUR_MEASURES and MEASURE_ROWS[row.key].unit == "°C"
        by = unit_in("K", family) if is_kelvin else ShownUnit("%")
        difference = f"{UNBROKEN}({signed_number(round(by.number(cell.difference)))} {by.symbol})"
    told = words if known.words and is_full else with_basis(words, value.basis)
    return f"{told}{UNBROKEN + mark if mark else ''}{difference}"

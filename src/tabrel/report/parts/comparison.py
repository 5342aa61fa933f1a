"""The comparison: every row of the sheet, each filter against the reference part, and the filters over oil temperature."""

from __future__ import annotations

from collections.abc import Iterator

from tabrel.core.answer.words import measure_unit
from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES, MEASURE_ROWS, PRICES
from tabrel.core.catalogue.units import ShownUnit, UnitFamily, unit_in
from tabrel.core.circuit.state import OperatingPoint
from tabrel.core.judge.comparison_sheet import SheetCell, SheetRow
from tabrel.core.numbers import bound, number_with_interval, number_with_uncertainty, plain_number, signed_number
from tabrel.report.blocks import Block, Column, Heading, Paragraph, Picture, Table
from tabrel.report.figures.charts import slices_chart
from tabrel.report.inputs import ReportInputs

USUAL_SPEED = 2000.0
MARKS = {"best": "▲", "worst": "▽", "tied": "=", "": ""}


def comparison(inputs: ReportInputs) -> Iterator[Block]:
    """Yield the comparison sheet, and the filters over oil temperature."""
    if len(inputs.measured) < 2:
        return
    yield Heading(1, "Comparison sheet")
    use = inputs.study.uses[0] if inputs.study.uses else None
    points = {label: point for label, point in inputs.points.items() if isinstance(point, OperatingPoint)}
    if points:
        speed = (use.speed_rpm if use else None) or USUAL_SPEED
        chart = slices_chart(points, speed, inputs.colours, inputs.family)
        yield Picture(
            "slices",
            chart.svg,
            chart.alt,
            f"Filters over oil temperature at {plain_number(speed)} rpm, best estimates. A model, not a test.",
            74,
        )
    yield from _sheet(inputs)


def _sheet(inputs: ReportInputs) -> Iterator[Block]:
    study = inputs.study
    labels = list(inputs.measured)
    columns = (Column("", share=1.9), *(Column(label, True, 1.5) for label in labels))
    rows: list[tuple[str, ...]] = []
    group = ""
    for row in inputs.sheet:
        if row.group != group:
            group = row.group
            rows.append((group,))
        unit = unit_of_row(row, inputs.family)
        title = f"{row.title} [{unit}]" if unit else row.title
        rows.append((title, *(_cell(row, row.cells[label], inputs.family) for label in labels)))
    use = f" at the points of “{study.uses[0].name}”" if study.uses else ""
    against = f", against {study.reference}" if study.reference else ""
    yield Paragraph(
        "Value ± U (95 %, with what specimens of one part number differ by). ▲ best, ▽ worst, = tied with the best inside the "
        "uncertainty; in brackets the difference to the reference part, in kelvin of a temperature.",
        "small",
    )
    yield Table(f"Comparison of part numbers{use}{against}", columns, tuple(rows), is_wide=True)


def unit_of_row(row: SheetRow, family: UnitFamily) -> str:
    """Return the unit of a row, or the currency where all its prices share one."""
    if row.key in PRICES:
        currencies = {cell.known.alike.removeprefix("in ") for cell in row.cells.values() if cell.known and cell.known.value}
        return currencies.pop() if len(currencies) == 1 else ""
    return measure_unit(row.key, family).symbol if row.is_number else ""


def _cell(row: SheetRow, cell: SheetCell, family: UnitFamily) -> str:
    if not row.is_number:
        return "–" if cell.words is None else cell.words[0 if family == "metric" else 1]
    known = cell.known
    if known is None or known.value is None:
        return "–"
    unit, value = measure_unit(row.key, family), known.value
    low, high = (None if end is None else unit.number(end) for end in (value.low, value.high))
    if known.words:
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
        difference = f" ({signed_number(round(by.number(cell.difference)))} {by.symbol})"
    return f"{words}{f' {mark}' if mark else ''}{difference}"

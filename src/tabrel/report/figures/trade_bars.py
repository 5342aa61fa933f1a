"""Bars of what a buyer trades: particles passed of a thousand, litres unfiltered in a start, price; from zero, with bands."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from tabrel.core.answer.compared import ComparedFilter
from tabrel.core.answer.known_use import LITRES
from tabrel.core.answer.words import value_words
from tabrel.core.catalogue.measures import measure_unit
from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.numbers import significant
from tabrel.report.figures.charts import Chart
from tabrel.report.figures.svg import Drawing
from tabrel.report.words import degrees_words

ROW, HEAD, NAMES, PANEL, GAP, FOR_WORDS, LETTER = 6.4, 6.6, 24.0, 47.0, 4.5, 27.0, 2.75
"""Of a row, the heading, the names, a panel, between panels, right of the longest bar, of a letter. [mm]"""
MOST_PANELS = 3
MOST_OF_A_BAND = 1.8
"""Times the greatest number, up to which a band is drawn; beyond it goes on."""
NOTE = "Shorter is better. Line: 95 % band; dashed: claim or estimate, no count."


@dataclass(frozen=True)
class Bar:
    """One number of a panel, with its band; without a number a dashed line from low to high, or words alone."""

    words: str
    number: float | None = None
    low: float | None = None
    high: float | None = None


Panel = tuple[str, Sequence[Bar]]


def trade_panels(compared: Sequence[ComparedFilter], start: float, family: UnitFamily) -> tuple[Panel, ...]:
    """Return the panels of which anything is known, each a title and one bar for every filter.

    Parameters
    ----------
    compared : sequence of ComparedFilter
    start : float
        Oil temperature at which the start begins. [°C]
    family : str
    """
    prices = [one.price for one in compared if one.price is not None]
    currency = prices[0][1] if prices else ""
    unfiltered = f"Unfiltered, start at {degrees_words(start, family)}, {measure_unit(LITRES, family).symbol}"
    bars: dict[str, tuple[Callable[[ComparedFilter], object], list[Bar]]] = {
        "Passed of 1,000 of 20 µm": (lambda one: one.passed, [_passed(one) for one in compared]),
        unfiltered: (lambda one: one.litres, [_litres(one, family) for one in compared]),
        f"Price of one, {currency}": (lambda one: one.price, [_price(one, currency) for one in compared]),
    }
    return tuple((title, row) for title, (known, row) in bars.items() if any(known(one) is not None for one in compared))


def _passed(one: ComparedFilter) -> Bar:
    known = one.passed
    if known is None:
        return Bar("not tested")
    if known.evidence == "count" and known.number is not None:
        words = f"{known.number:.0f}" if known.number >= 2 else significant(known.number, 2)
        return Bar(words, known.number, known.low, known.high)
    return Bar(f"{known.words}, {known.evidence}", None, known.low, known.high)


def _litres(one: ComparedFilter, family: UnitFamily) -> Bar:
    value = one.litres
    if value is None or not value.is_known:
        return Bar("not known")
    unit = measure_unit(LITRES, family)
    low, high = (None if end is None else unit.number(end) for end in (value.low, value.high))
    if value.value is None:
        return Bar(value_words(value, LITRES, family), None, low, high)
    number, margin = unit.number(value.value), value.expanded_uncertainty * unit.factor
    ends = (number - margin if low is None else low, number + margin if high is None else high)
    return Bar(significant(number, 2), number, max(ends[0], 0.0), ends[1])


def _price(one: ComparedFilter, currency: str) -> Bar:
    if one.price is None:
        return Bar("not known")
    amount, own = one.price
    return Bar(f"{amount:.2f}", amount) if own == currency else Bar(f"{amount:.2f} {own}")


def trade_bars(compared: Sequence[ComparedFilter], panels: Sequence[Panel]) -> Chart:
    """Return panels beside each other over one order of rows."""
    width = NAMES + MOST_PANELS * (PANEL + GAP) - GAP
    height = HEAD + ROW * len(compared)
    drawing = Drawing(0, 0, width, height, _alt(compared, panels))
    inks = drawing.inks
    letter = LETTER / drawing.line
    for row, one in enumerate(compared):
        weight, ink = (600, inks.ink) if one.is_named else (400, inks.ink_soft if one.stands == "fails" else inks.ink)
        drawing.text((0, _middle(row, height) - 0.9), _short(one), size=letter, ink=ink, anchor="start", weight=weight)
    for i, (title, bars) in enumerate(panels):
        left = NAMES + i * (PANEL + GAP)
        drawing.text((left, height - 3.2), title, size=letter, ink=inks.ink, anchor="start", weight=600)
        axis = drawing.d([(left, 0), (left, height - HEAD + 1)], closed=False)
        drawing.path(axis, stroke=inks.line_strong, stroke_width=0.25)
        scale = (PANEL - FOR_WORDS) / _greatest(bars)
        for row, bar in enumerate(bars):
            is_out = compared[row].stands == "fails"
            _paint(drawing, bar, (left, _middle(row, height)), scale, letter, inks.slate_wash if is_out else inks.slate)
    return Chart(drawing.svg(), drawing.title)


def _short(one: ComparedFilter) -> str:
    name = one.label if len(one.label) <= 16 else f"{one.label[:15]}…"
    return f"{name} (fails)" if one.stands == "fails" else name


def _middle(row: int, height: float) -> float:
    return height - HEAD - ROW * (row + 0.5)


def _greatest(bars: Sequence[Bar]) -> float:
    numbers = [bar.number for bar in bars if bar.number is not None]
    bands = [bar.high for bar in bars if bar.high is not None]
    if not numbers:
        return max([*bands, 1e-9])
    return max(*numbers, min(max([*bands, 0.0]), MOST_OF_A_BAND * max(numbers)), 1e-9)


def _paint(drawing: Drawing, bar: Bar, start: tuple[float, float], scale: float, letter: float, ink: str) -> None:
    left, middle = start
    reach = PANEL - FOR_WORDS
    end = 0.0 if bar.number is None else bar.number * scale
    if bar.number is not None:
        drawing.add("rect", x=left, y=-middle - 1.5, width=max(end, 0.2), height=3.0, fill=ink)
    if bar.high is not None:
        from_ = max((bar.low or 0.0) * scale, 0.0) if bar.number is not None else 0.0
        to = min(bar.high * scale, reach)
        dashes = None if bar.number is not None else "1.2 0.8"
        drawing.path(
            drawing.d([(left + min(from_, reach), middle), (left + to, middle)], closed=False),
            stroke=drawing.inks.ink, stroke_width=0.4, stroke_dasharray=dashes,
        )  # fmt: skip
        if bar.number is not None and bar.high * scale > reach:  # the band goes on
            tip = left + reach
            drawing.path(drawing.d([(tip + 1.2, middle), (tip, middle + 0.8), (tip, middle - 0.8)]), fill=drawing.inks.ink)
        end = max(end, to)
    drawing.text((left + end + 1.6, middle - 0.9), bar.words, size=letter, ink=drawing.inks.ink, anchor="start")


def _alt(compared: Sequence[ComparedFilter], panels: Sequence[Panel]) -> str:
    def told() -> Iterator[str]:
        for title, bars in panels:
            yield f"{title}: {', '.join(f'{one.label} {bar.words}' for one, bar in zip(compared, bars, strict=True))}"

    return f"{'; '.join(told())}."

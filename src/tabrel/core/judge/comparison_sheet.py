"""One sheet of everything known of several filters: rows in the order of the bench, each filter against the reference part."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES, MEASURE_ROWS, PRICES, better_of, observation_named
from tabrel.core.catalogue.observation import observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import PART_TITLES, QUANTITIES
from tabrel.core.details.details import DETAILS
from tabrel.core.details.kinds import detail_text
from tabrel.core.details.places import value_at
from tabrel.core.judge.categories import Better, Category, outcome
from tabrel.core.judge.compared import joint_uncertainties, only_alike
from tabrel.core.judge.known import Known
from tabrel.core.judge.known_filter import number_of
from tabrel.core.study.model import Claim, Sample
from tabrel.core.study.uses import BY_HAND, Use

Mark = Literal["best", "worst", "tied", ""]

_PLATE, _VALVES, _MEDIA, _EFFICIENCY = "Tapping plate", "Valves and springs", "Media", "Efficiency"
_OFFER, _OUTSIDE, _ELEMENT = "Offer and mass", "Outside", "Element and tube"
_BEHAVIOUR, _CLAIMS, _SEEN = "Behaviour at the points of the use", "Claims", "What was seen"

GROUPS: tuple[str, ...] = (
    _OFFER, _OUTSIDE, _PLATE, _VALVES, _ELEMENT, _MEDIA, _EFFICIENCY, _BEHAVIOUR, _CLAIMS, _SEEN,
)  # fmt: skip
"""In the order of the sheet."""

_GROUP_OF_PART = {
    "filter": _OFFER, "can": _OUTSIDE, "gasket": _OUTSIDE, "thread": _OUTSIDE, "plate": _PLATE, "anti_drain": _VALVES,
    "bypass": _VALVES, "seating": _VALVES, "element": _ELEMENT, "tube": _ELEMENT, "media": _MEDIA,
}  # fmt: skip
_GROUP_OF_RESULT = {"inlet": _PLATE, "plate": _PLATE, "media": _MEDIA, "pleat": _MEDIA, "bypass": _VALVES}

DIRECTED: frozenset[str] = frozenset(
    {
        *PRICES,
        "inlet_hole_area_mm2",
        "plate_flow_area_mm2",
        "media_gross_area_cm2",
        "media_effective_area_cm2",
        "efficiency_at_20_um_percent",
        "size_at_beta_75_um",
        "retention_capacity_g",
        *BEHAVIOUR_MEASURES,
    }
)
"""Of which more, or less, is better whatever the use; of anything else a criterion says so, or nothing does."""

STARTS = ("minutes_in_bypass", "unfiltered_litres")

_WORDS_OF_OFFER = ("sample.maker", "sample.part_number", "sample.tier", "sample.origin", "sample.made", "sample.condition")
_STATED = ("sample.stated_bypass", "sample.stated_collapse")


@dataclass(frozen=True)
class SheetCell:
    """One filter in one row.

    Attributes
    ----------
    known : Known or None
        Of a number.
    words : tuple of str or None
        What was seen or is stated, in metric and in inch units; None where nothing is.
    mark : str
        ``best``, ``worst``, or ``tied`` with the best.
    difference : float or None
        To the reference part: in per cent of it, or in kelvin of a temperature.
    differs : bool
        Whether it is told apart from the reference part, by more than the uncertainty of both.
    """

    known: Known | None = None
    words: tuple[str, str] | None = None
    mark: Mark = ""
    difference: float | None = None
    differs: bool = False


@dataclass(frozen=True)
class SheetRow:
    """One row of the sheet.

    Attributes
    ----------
    key : str
        Of a measure, an observation, a detail, or ``claims``.
    title, group : str
    is_number : bool
    better : str or None
        ``high`` or ``low``; None where it is neither.
    matters : bool
        Whether the use asks for it.
    cells : mapping
        By column.
    """

    key: str
    title: str
    group: str
    is_number: bool
    better: Better | None
    matters: bool
    cells: Mapping[str, SheetCell]

    @property
    def differs(self) -> bool:
        """Whether any filter is told apart from the reference part in it."""
        return any(cell.differs for cell in self.cells.values())


def sheet_measures(use: Use | None, *, is_rough: bool = False) -> tuple[str, ...]:
    """Return the measures that are numbers, in the order of the sheet.

    Behaviour is among them only where there is a use to give its points, and starts, which are followed minute by minute,
    only where it need not be rough.
    """
    left_out = {BY_HAND} | (set(BEHAVIOUR_MEASURES) if use is None else {*STARTS} if is_rough else set())
    numbers = [key for key in MEASURE_ROWS if key not in left_out]
    return tuple(sorted(numbers, key=lambda key: GROUPS.index(group_of(key))))


def group_of(measure: str) -> str:
    """Return the group of the sheet a measure belongs to."""
    if measure in QUANTITIES:
        return _GROUP_OF_PART[QUANTITIES[measure].part]
    if measure in BEHAVIOUR_MEASURES:
        return _BEHAVIOUR
    if measure in PRICES:
        return _OFFER
    return _GROUP_OF_RESULT.get(measure.partition("_")[0], _EFFICIENCY)


def comparison_sheet(
    samples: Mapping[str, Sample],
    known: Mapping[str, Mapping[str, Known]],
    use: Use | None,
    reference: str | None,
    *,
    is_rough: bool = False,
    measures: Collection[str] | None = None,
) -> tuple[SheetRow, ...]:
    """Return the rows of which anything is known, in the order of the bench.

    Parameters
    ----------
    samples : mapping
        By column.
    known : mapping
        By column, then by measure: `sheet_measures`.
    use : Use or None
        Whose criteria say what is better; None for none.
    reference : str or None
        Column of the reference part.
    is_rough : bool
        Whether behaviour carries no uncertainty yet: nothing is told apart by it then.
    measures : collection of str or None
        Of `sheet_measures`, those that are wanted; of what was seen, then, only what the use asks about. None for all.
    """
    asked = {item.measure: item for item in use.criteria if item.struck is None} if use else {}
    wanted = set(asked) | {requirement.measure for requirement in use.requirements} if use else set()
    rows = []
    for measure in sheet_measures(use, is_rough=is_rough):
        if measures is not None and measure not in measures:
            continue
        known_values = {column: known[column][measure] for column in samples}
        if all(item.value is None for item in known_values.values()):
            continue
        criterion = asked.get(measure)
        better = (criterion.better if criterion else None) or (better_of(measure) if criterion or measure in DIRECTED else None)
        cells = _numbers(measure, known_values, better, reference, is_rough=is_rough and measure in BEHAVIOUR_MEASURES)
        title = title_of(measure)
        rows.append(SheetRow(measure, title, group_of(measure), True, better, measure in wanted, cells))
    seen = {observation.key for text in wanted if (observation := observation_named(text)) is not None}
    rows += [_words(key, samples, reference, _OFFER, False) for key in _WORDS_OF_OFFER]
    rows += [_words(key, samples, reference, _CLAIMS, False) for key in _STATED]
    rows.append(_row_of_claims(samples, reference))
    rows += [_words(key, samples, reference, _SEEN, key in seen) for key in OBSERVATIONS]
    there = [
        row
        for row in rows
        if any(cell.known or cell.words for cell in row.cells.values()) and (measures is None or row.is_number or row.matters)
    ]
    return tuple(sorted(there, key=lambda row: GROUPS.index(row.group)))


def title_of(measure: str) -> str:
    """Return what a measure is called where its part is not said otherwise."""
    if measure not in QUANTITIES:
        return MEASURE_ROWS[measure].title
    part = PART_TITLES[QUANTITIES[measure].part].lower()
    return MEASURE_ROWS[measure].title if QUANTITIES[measure].part == "filter" else f"{part}: {MEASURE_ROWS[measure].title}"


def _numbers(
    measure: str, value: Mapping[str, Known], better: Better | None, reference: str | None, *, is_rough: bool
) -> dict[str, SheetCell]:
    """Return the cells of a number; only values that are come by in one way are held against each other."""
    alike = only_alike(value)
    values = {column: known.value for column, known in alike.items()}
    category = Category(measure, better or "high", values, joint=joint_uncertainties(alike))
    marks = _marks(category, list(value)) if better and not is_rough else {}
    cells = {}
    for column, item in value.items():
        apart = outcome(category, column, reference) if reference is not None and reference in value else None
        cells[column] = SheetCell(
            # what is left out of the comparison stays on the sheet, with the reason
            known=item if alike[column].value is item.value else replace(item, reason=alike[column].reason),
            mark=marks.get(column, ""),
            difference=None if reference is None else _difference(measure, alike.get(reference), alike[column]),
            differs=column != reference and apart in (1, -1) and not is_rough,
        )
    return cells


def _marks(category: Category, columns: Sequence[str]) -> dict[str, Mark]:
    """Return which value is best, which are tied with it, and which is worst; none where nothing is told apart."""
    numbers = {c: category.sign * v.value for c in columns if (v := category.known(c)) is not None and v.value is not None}
    if len(numbers) < 2:
        return {}
    best, worst = max(numbers, key=lambda c: numbers[c]), min(numbers, key=lambda c: numbers[c])
    if outcome(category, best, worst) != 1:
        return {}
    marks: dict[str, Mark] = {c: "tied" for c in numbers if outcome(category, best, c) == 0}
    return marks | {best: "best", worst: "worst"}


def _difference(measure: str, reference: Known | None, item: Known) -> float | None:
    base, value = (None if known is None else number_of(known) for known in (reference, item))
    if base is None or value is None:
        return None
    if MEASURE_ROWS[measure].unit == "°C":  # a percentage of a temperature in °C says nothing
        return value - base
    return 100 * (value - base) / abs(base) if base else None


def _words(key: str, samples: Mapping[str, Sample], reference: str | None, group: str, matters: bool) -> SheetRow:
    """Return a row of what was seen, or of a detail as it is stated."""
    observation = OBSERVATIONS.get(key)
    if observation is not None:
        title = f"{PART_TITLES[observation.part].lower()}: {observation.title}"
        texts = {column: _twice(observed(sample, observation)) for column, sample in samples.items()}
    else:
        detail = DETAILS[key]
        title = detail.title
        texts = {}
        for column, sample in samples.items():
            value = value_at(sample, detail.place)
            metric, inch = detail_text(detail, value), detail_text(detail, value, "inch")
            texts[column] = None if metric is None or inch is None else (metric, inch)
    return SheetRow(key, title, group, False, None, matters, _cells_of(texts, reference))


def _cells_of(value: Mapping[str, tuple[str, str] | None], reference: str | None) -> dict[str, SheetCell]:
    base = value.get(reference) if reference is not None else None
    return {
        column: SheetCell(words=words, differs=bool(base and words and words[0].casefold() != base[0].casefold()))
        for column, words in value.items()
    }


def _twice(words: str | None) -> tuple[str, str] | None:
    return None if words is None else (words, words)


def _row_of_claims(samples: Mapping[str, Sample], reference: str | None) -> SheetRow:
    sentence = {column: _twice("; ".join(_claim(claim) for claim in sample.claims) or None) for column, sample in samples.items()}
    cells = _cells_of(sentence, reference)
    return SheetRow("claims", "what is claimed", _CLAIMS, False, None, False, cells)


def _claim(claim: Claim) -> str:
    """Return a claim in a few words, marked where it no longer holds."""
    if claim.kind == "efficiency":
        size = "" if claim.size_um is None else f" at {claim.size_um:g} {(claim.scale or 'µm').replace('um', 'µm')}"
        words = f"{claim.relation or '='} {claim.efficiency_percent:g} %{size}".removeprefix("= ")
    else:
        words = claim.wording or claim.value or claim.source
    return f"{words} (no longer holds)" if claim.stale else words

"""The study as tables of plain values: one list that spreadsheet, CSV and data package are all written from.

Numbers are numbers in the unit of their heading, in metric units; what is not known is empty, never zero.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from tabrel.core.catalogue.measures import MEASURE_ROWS
from tabrel.core.catalogue.observation import observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, PART_TITLES, QUANTITIES, Quantity
from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.catalogue.terms import UNCERTAINTY_SOURCES, VERDICTS
from tabrel.core.catalogue.units import UNITS, printed
from tabrel.core.entry.reading_text import parse_reading
from tabrel.core.errors import TabrelError
from tabrel.core.numbers import known_or_none
from tabrel.core.results.bounded import measured_at_limits
from tabrel.core.results.budget import uncertainty_budget
from tabrel.core.results.working_chains import CHAINS, working_of
from tabrel.core.review.claims import check_claim, claim_words
from tabrel.core.study.model import ReadingEntry, as_reading
from tabrel.core.uncertainty.estimate import Estimate
from tabrel.core.uncertainty.propagation import expanded_uncertainty
from tabrel.report.behaviour_tables import maps_table, onsets_table, starts_table
from tabrel.report.data_table import SAMPLE, DataTable, Field, Value
from tabrel.report.inputs import ReportInputs
from tabrel.report.words import result_unit


def data_tables(inputs: ReportInputs, only: tuple[str, ...] = ()) -> tuple[DataTable, ...]:
    """Return the tables of a study, each subject once, those without a row left out.

    Parameters
    ----------
    inputs : ReportInputs
    only : tuple of str
        Names of tables; empty for all.
    """
    return tuple(table for name, make in _TABLES.items() if (not only or name in only) and ((table := make(inputs)).rows or only))


def _results(inputs: ReportInputs) -> DataTable:
    fields: list[Field] = [SAMPLE]
    for name, row in RESULTS.items():
        unit = result_unit(name, "metric")[0]
        fields += [
            Field(name, "number", row.title, unit),
            Field(f"{name}_expanded_uncertainty", "number", f"{row.title}: U, 95 %", unit),
            Field(f"{name}_low", "number", f"{row.title}: lowest", unit),
            Field(f"{name}_high", "number", f"{row.title}: highest", unit),
            Field(f"{name}_basis", "string", f"{row.title}: rests on"),
            Field(f"{name}_lacks", "string", f"{row.title}: needs, assumes"),
        ]
    rows = []
    for label, analysis in inputs.analyses.items():
        cells: list[Value] = [label]
        for name in RESULTS:
            result = getattr(analysis.results, name)
            factor = result_unit(name, "metric")[1]
            numbers = (result.value, result.expanded_uncertainty, result.low, result.high)
            cells += [None if number is None else known_or_none(number / factor) for number in numbers]
            lacks = [f"needs {key}" for key in result.missing] + [f"assumes {key}" for key in result.assumed]
            cells += [result.basis, "; ".join(lacks) or None]
        rows.append(tuple(cells))
    return DataTable("results", "Results", tuple(fields), tuple(rows))


def _readings(inputs: ReportInputs) -> DataTable:
    fields = (
        SAMPLE,
        Field("key", "string", "Key"),
        Field("quantity", "string", "Quantity"),
        Field("as_typed", "string", "As typed"),
        Field("value", "number", "Value in the unit beside"),
        Field("unit", "string", "Unit"),
        Field("taken_at", "string", "Taken (UTC)"),
        Field("instrument", "string", "Instrument"),
        Field("provenance", "string", "Source"),
        Field("set_aside", "string", "Set aside because"),
        Field("copied_from", "string", "Copied from"),
        Field("note", "string", "Note"),
    )
    rows: list[tuple[Value, ...]] = []
    for label, key, quantity, title, entries, _ in _all_readings(inputs):
        for entry in entries:
            reading = as_reading(entry)
            rows.append(
                (
                    label,
                    key,
                    title,
                    reading.text,
                    _meant(reading.text, quantity),
                    printed(quantity.metric_unit),
                    reading.taken_at,
                    reading.instrument or quantity.instrument,
                    reading.counts_as,
                    reading.set_aside,
                    reading.copied_from,
                    reading.note,
                )
            )
    return DataTable("readings", "Readings as typed", fields, tuple(rows))


def _meant(text: str, quantity: Quantity) -> float | None:
    try:
        meaning = parse_reading(text, quantity.dimension)
    except TabrelError:
        return None
    if meaning.bound:  # a bound is no value: it stands as typed
        return None
    return known_or_none(meaning.value / (UNITS[quantity.metric_unit].factor if quantity.metric_unit else 1.0))


def _all_readings(inputs: ReportInputs) -> Iterator[tuple[str, str, Quantity, str, tuple[ReadingEntry, ...], Estimate | None]]:
    for label, measured in inputs.measured.items():
        sample = measured.sample
        for key, quantity in QUANTITIES.items():
            if key in sample.readings:
                title = f"{PART_TITLES[quantity.part]}: {quantity.title}"
                yield label, key, quantity, title, sample.readings[key], measured.estimates.get(key)
        for path, groups in (("holes.inlet", sample.holes.inlet), ("holes.centre_tube", sample.holes.centre_tube)):
            for i, group in enumerate(groups):
                for dimension, entries in group.readings.by_dimension():
                    key, quantity = f"{path}[{i}].{dimension}", HOLE_QUANTITIES[dimension]
                    title = f"{'Inlet' if path.endswith('inlet') else 'Centre tube'} holes {i + 1}: {quantity.title}"
                    yield label, key, quantity, title, entries, measured.hole_estimates.get(key)


def _means(inputs: ReportInputs) -> DataTable:
    fields = (
        SAMPLE,
        Field("key", "string", "Key"),
        Field("quantity", "string", "Quantity"),
        Field("value", "number", "Value in the unit beside"),
        Field("expanded_uncertainty", "number", "U, 95 %, in the same unit"),
        Field("unit", "string", "Unit"),
        Field("readings_used", "integer", "Readings used"),
        Field("provenance", "string", "Source"),
    )
    rows: list[tuple[Value, ...]] = []
    for label, key, quantity, title, _, estimate in _all_readings(inputs):
        if estimate is not None:
            factor = UNITS[quantity.metric_unit].factor if quantity.metric_unit else 1.0
            value, uncertainty = known_or_none(estimate.value / factor), known_or_none(expanded_uncertainty(estimate) / factor)
            rows.append(
                (label, key, title, value, uncertainty, printed(quantity.metric_unit), len(estimate.used), estimate.provenance)
            )
    return DataTable("quantities", "Quantities: best values", fields, tuple(rows))


def _holes(inputs: ReportInputs) -> DataTable:
    fields = (
        SAMPLE,
        Field("placement", "string", "Where"),
        Field("group", "integer", "Group"),
        Field("shape", "string", "Shape"),
        Field("count", "integer", "Count"),
        Field("open_fraction", "number", "Open part"),
    )
    rows: list[tuple[Value, ...]] = []
    for label, measured in inputs.measured.items():
        holes = measured.sample.holes
        for placement, groups in (("inlet", holes.inlet), ("centre_tube", holes.centre_tube)):
            rows += [(label, placement, i + 1, group.shape, group.count, group.open_fraction) for i, group in enumerate(groups)]
    return DataTable("holes", "Holes", fields, tuple(rows))


def _seen(inputs: ReportInputs) -> DataTable:
    fields = (SAMPLE, Field("key", "string", "Key"), Field("observation", "string", "What"), Field("seen", "string", "Seen"))
    rows: list[tuple[Value, ...]] = []
    for label, measured in inputs.measured.items():
        for key, observation in OBSERVATIONS.items():
            words = observed(measured.sample, observation)
            if words is not None:
                rows.append((label, key, f"{PART_TITLES[observation.part]}: {observation.title}", words))
    return DataTable("observations", "What was seen", fields, tuple(rows))


def _claims(inputs: ReportInputs) -> DataTable:
    fields = (
        SAMPLE,
        Field("claim", "string", "Claim"),
        Field("source", "string", "Source"),
        Field("speaker", "string", "Said by"),
        Field("seen", "string", "Seen on"),
        Field("verdict", "string", "Verdict"),
        Field("why", "string", "Why"),
    )
    rows: list[tuple[Value, ...]] = []
    for label, measured in inputs.measured.items():
        results = {row.key: getattr(inputs.analyses[label].results, name) for name, row in RESULTS.items()}
        for claim in measured.sample.claims:
            check = check_claim(claim, measured.sample, measured.estimates, results=results)
            rows.append(
                (label, claim_words(claim), claim.source, claim.speaker, claim.seen, VERDICTS[check.verdict], check.words)
            )
    return DataTable("claims", "Claims", fields, tuple(rows))


def _warnings(inputs: ReportInputs) -> DataTable:
    fields = (
        SAMPLE,
        Field("code", "string", "Code"),
        Field("where", "string", "Where"),
        Field("message", "string", "What is questioned"),
        Field("confirmed", "boolean", "Confirmed"),
    )
    rows = [
        (label, warning.code, warning.where, warning.message, warning.confirmed)
        for label, analysis in inputs.analyses.items()
        for warning in analysis.warnings
    ]
    return DataTable("questions", "What is questioned", fields, tuple(rows))


def _budgets(inputs: ReportInputs) -> DataTable:
    fields = (
        SAMPLE,
        Field("result", "string", "Result"),
        Field("input", "string", "Input"),
        Field("source", "string", "Source"),
        Field("contribution", "number", "Contributes, standard, in the unit beside"),
        Field("unit", "string", "Unit"),
        Field("share", "number", "Share of the variance", "%"),
    )
    rows: list[tuple[Value, ...]] = []
    for label, measured in inputs.measured.items():
        at_limits = measured_at_limits(measured)
        for name in HEADLINES:
            result = getattr(inputs.analyses[label].results, name)
            if name not in CHAINS or not result.is_known:
                continue
            unit, factor = result_unit(name, "metric")
            for contribution in uncertainty_budget(working_of(name, at_limits).steps[-1], at_limits).contributions:
                source = UNCERTAINTY_SOURCES[contribution.source]
                rows.append(
                    (
                        label,
                        name,
                        contribution.title,
                        source,
                        known_or_none(contribution.amount / factor),
                        unit,
                        known_or_none(100 * contribution.share),
                    )
                )
    return DataTable("budgets", "Uncertainty budgets", fields, tuple(rows))


def _comparison(inputs: ReportInputs) -> DataTable:
    fields = [
        Field("group", "string", "Group"),
        Field("key", "string", "Key"),
        Field("measure", "string", "Row"),
        Field("unit", "string", "Unit"),
        SAMPLE,
        Field("value", "number", "Value in the unit beside"),
        Field("expanded_uncertainty", "number", "U, 95 %, in the same unit"),
        Field("low", "number", "Lowest"),
        Field("high", "number", "Highest"),
        Field("basis", "string", "Rests on"),
        Field("words", "string", "In words"),
        Field("mark", "string", "Mark"),
        Field("difference_to_reference", "number", "Difference to the reference, % or K"),
    ]
    rows: list[tuple[Value, ...]] = []
    for row in inputs.sheet:
        unit = MEASURE_ROWS[row.key].unit if row.is_number else ""
        for label, cell in row.cells.items():
            value = cell.known.value if cell.known is not None else None
            if value is None and cell.words is None:
                continue
            numbers: tuple[Value, ...] = (None, None, None, None, None)
            if value is not None:
                uncertainty = known_or_none(value.expanded_uncertainty) if value.value is not None else None
                numbers = (
                    known_or_none(value.value),
                    uncertainty,
                    known_or_none(value.low),
                    known_or_none(value.high),
                    value.basis,
                )
            currency = cell.known.alike.removeprefix("in ") if cell.known is not None and row.key.startswith("price") else ""
            rows.append(
                (
                    row.group,
                    row.key,
                    row.title,
                    currency or unit,
                    label,
                    *numbers,
                    cell.words[0] if cell.words else None,
                    cell.mark or None,
                    known_or_none(cell.difference),
                )
            )
    return DataTable("comparison", "Comparison sheet", tuple(fields), tuple(rows))


def _requirements(inputs: ReportInputs) -> DataTable:
    fields = (
        Field("use", "string", "Use"),
        SAMPLE,
        Field("measure", "string", "Requirement on"),
        Field("state", "string", "State"),
        Field("decides", "boolean", "Decides"),
        Field("reason", "string", "Reason"),
    )
    rows = [
        (judged.use.name, label, line.measure, line.state, line.counts, line.reason)
        for judged in inputs.judged_uses
        for label in judged.labels
        for line in judged.requirements[label]
    ]
    return DataTable("requirements", "Requirements, line by line", fields, tuple(rows))


def _rankings(inputs: ReportInputs) -> DataTable:
    fields = (
        Field("use", "string", "Use"),
        SAMPLE,
        Field("proposed_verdict", "string", "Proposed verdict"),
        Field("own_verdict", "string", "Own verdict"),
        Field("own_reason", "string", "Its reason"),
        Field("pair_wins_place", "integer", "Place by pair wins"),
        Field("rank_sum_place", "integer", "Place by rank sum"),
        Field("weighted_score_place", "integer", "Place by weighted score"),
        Field("score", "number", "Weighted score of 100"),
        Field("score_expanded_uncertainty", "number", "U of the score, 95 %"),
        Field("chance_of_first_place", "number", "Chance of first place", "%"),
    )
    rows: list[tuple[Value, ...]] = []
    for judged in inputs.judged_uses:
        for label in judged.labels:
            verdict = judged.verdicts[label]
            own = (verdict.stated.verdict, verdict.stated.reason) if verdict.stated else (None, None)
            if label not in judged.ranked:
                rows.append((judged.use.name, label, verdict.proposed, *own, *[None] * 6))
                continue
            score = judged.weighted_score.scores[label]
            places = (judged.pair_wins.rank[label], judged.rank_sum.places.rank[label], judged.weighted_score.places.rank[label])
            numbers = (
                known_or_none(score.score),
                known_or_none(score.expanded_uncertainty),
                100 * judged.chances.of_place[label][0],
            )
            rows.append((judged.use.name, label, verdict.proposed, *own, *places, *numbers))
    return DataTable("ranking", "Verdict and ranking by use", fields, tuple(rows))


_TABLES: dict[str, Callable[[ReportInputs], DataTable]] = {
    "results": _results,
    "quantities": _means,
    "readings": _readings,
    "holes": _holes,
    "observations": _seen,
    "claims": _claims,
    "questions": _warnings,
    "budgets": _budgets,
    "comparison": _comparison,
    "requirements": _requirements,
    "ranking": _rankings,
    "operating_map": maps_table,
    "bypass_onset": onsets_table,
    "starts": starts_table,
}
"""By name, in the order of the workbook."""

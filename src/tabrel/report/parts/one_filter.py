"""Sections of each filter: drawings, results with their working, valve, pleats, efficiency, map, start."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from tabrel.core.catalogue.measures import BEHAVIOUR_MEASURES, MEASURE_ROWS
from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.catalogue.terms import BASES, MEDIA_DEDUCTIONS, OPENING_WAYS
from tabrel.core.details.details import DETAILS
from tabrel.core.details.kinds import detail_text
from tabrel.core.details.places import value_at
from tabrel.core.figures.counted_figure import counted_figure
from tabrel.core.figures.media_deductions import strip_areas
from tabrel.core.figures.opening_evidence import opening_comparison
from tabrel.core.numbers import number_with_interval, plain_number, significant
from tabrel.core.oil.model import oil_model
from tabrel.core.results.bounded import measured_at_limits
from tabrel.core.results.budget import input_title
from tabrel.core.results.working import Operand, Step, shown_result
from tabrel.core.results.working_chains import CHAINS, working_of
from tabrel.core.study.report_plan import SECTIONS, SectionKey, chosen_sections
from tabrel.report.blocks import Block, Column, Facts, Heading, Paragraph, Picture, PictureWithFacts, Points, Table
from tabrel.report.figures.charts import Chart, efficiency_chart, start_chart, valve_chart
from tabrel.report.figures.drawings import DrawnFilter, section_drawing
from tabrel.report.figures.map_chart import map_chart
from tabrel.report.figures.media_drawings import pack_drawing, strip_drawing
from tabrel.report.figures.plate_drawing import plate_drawing
from tabrel.report.inputs import ReportInputs
from tabrel.report.words import known_words, place_words, result_words, sentence, unit_of

HOT_TEMPERATURE = 100.0

IDENTITY = (
    "sample.maker", "sample.part_number", "sample.date_code", "sample.made", "sample.origin", "sample.condition",
    "sample.used_km", "sample.used_hours", "sample.seller", "sample.bought", "sample.price",
)  # fmt: skip
"""Details by which an item is known again."""


def filters(inputs: ReportInputs) -> Iterator[Block]:
    """Yield what is told of each filter, one after the other."""
    for label in inputs.measured:
        yield Heading(1, label, True)
        yield from _identity(inputs, label)
        for section in chosen_sections(inputs.plan):
            blocks = tuple(SECTION_BLOCKS[section](inputs, label))
            if blocks:
                yield Heading(2, SECTIONS[section])
                yield from blocks


def _identity(inputs: ReportInputs, label: str) -> Iterator[Block]:
    sample = inputs.measured[label].sample
    rows = []
    for key in IDENTITY:
        detail = DETAILS[key]
        words = detail_text(detail, value_at(sample, detail.place), inputs.family)
        if words:
            rows.append((detail.title[0].upper() + detail.title[1:], words))
    cut = sample.cut
    if cut is not None:
        rows.append(("Cut open", " ".join(word for word in (cut.method, cut.at, cut.note) if word)))
    if sample.photographs:
        rows.append(("Photographs", str(len(sample.photographs))))
    yield Facts(tuple(rows)) if rows else Paragraph("Nothing is recorded of where this filter comes from.", "assumed")
    questioned = [warning for warning in inputs.analyses[label].warnings if not warning.confirmed]
    if questioned:
        yield Points(tuple(sentence(sample_warning.message) for sample_warning in questioned), "caution")


def _with_facts(key: str, drawn: DrawnFilter, caption: str, height: float) -> PictureWithFacts:
    facts = tuple((size.number, size.title, size.words) for size in drawn.sizes)
    return PictureWithFacts(Picture(key, drawn.svg, drawn.alt, caption, height), facts, drawn.words)


def _drawings(inputs: ReportInputs, label: str) -> Iterator[Block]:
    measured = inputs.measured[label]
    yield _with_facts(f"{label} section", section_drawing(measured, inputs.family), f"{label}: section, to scale.", 80)
    yield _with_facts(
        f"{label} plate", plate_drawing(measured, inputs.family), f"{label}: tapping plate from below, to scale.", 60
    )


def _workings(inputs: ReportInputs, label: str) -> Iterator[Block]:
    measured, results = inputs.measured[label], inputs.analyses[label].results
    rows = []
    for name, row in RESULTS.items():
        result = getattr(results, name)
        lacks = f"needs {', '.join(map(input_title, result.missing))}" if result.missing and result.value is None else ""
        basis = BASES.get(result.basis or "", result.basis or "")
        rows.append((row.title, result_words(name, result, inputs.family), lacks or basis))
    columns = (Column("Result"), Column("Value", True), Column("Rests on"))
    yield Table("Results of this specimen, with expanded uncertainty (95 %)", columns, tuple(rows))
    at_limits = measured_at_limits(measured)
    for name in HEADLINES:
        result = getattr(results, name)
        if name not in CHAINS or not result.is_known:
            continue
        working = working_of(name, at_limits)
        yield Heading(3, RESULTS[name].title)
        lines = []
        for i, step in enumerate(working.steps):
            uncertainty = result.expanded_uncertainty if i == len(working.steps) - 1 else None
            value = shown_result(step.value, uncertainty, step.measure, inputs.family)
            lines.append((step.words, f"{step.symbol} = {step.formula()}", _put_in(step, inputs), value))
        heads = (
            Column("What"),
            Column("Formula"),
            Column("Numbers put in"),
            Column("Gives", True),
        )
        yield Table(f"{label}: working of the {RESULTS[name].title.lower()}", heads, tuple(lines))


def _put_in(step: Step, inputs: ReportInputs) -> str:
    return "".join(step.shown_pieces(inputs.family)) if any(isinstance(piece, Operand) for piece in step.pieces()) else ""


def _valve(inputs: ReportInputs, label: str) -> Iterator[Block]:
    measured, study = inputs.measured[label], inputs.study
    compared = opening_comparison(measured)
    if not compared.evidence:
        yield Paragraph("Nothing says at what pressure the bypass valve opens.", "assumed")
        return
    rows = [
        (
            OPENING_WAYS.get(evidence.basis, evidence.basis),
            result_words("bypass_opening", evidence.opening, inputs.family),
            "the result" if evidence.is_used else "",
        )
        for evidence in compared.evidence
    ]
    yield Table(
        "Every way to the opening pressure",
        (Column("Way"), Column("Opening pressure", True), Column("")),
        tuple(rows),
    )
    agreed = [
        f"{OPENING_WAYS.get(agreement.first, agreement.first)} and {OPENING_WAYS.get(agreement.second, agreement.second)} "
        f"{'agree' if agreement.agrees else 'contradict each other'}"
        + ("" if agreement.normalised_error is None else f" (Eₙ = {plain_number(agreement.normalised_error, 2)})")
        + (f", but {agreement.reservation}" if agreement.reservation else "")
        for agreement in compared.agreements
    ]
    if agreed:
        yield Paragraph(f"{'; '.join(agreed)}.".capitalize(), "small")
    circuit = study.circuit
    hot = circuit.engine.temperature_c if circuit and circuit.engine else HOT_TEMPERATURE
    oil = oil_model(study.oil) if study.oil else None
    yield from _chart(f"{label} valve", valve_chart(measured, oil, hot, inputs.family), f"{label}: bypass valve.", 62)


def _chart(key: str, chart: Chart | None, caption: str, height: float) -> Iterator[Block]:
    if chart is not None:
        yield Picture(key, chart.svg, chart.alt, caption, height)


def _media(inputs: ReportInputs, label: str) -> Iterator[Block]:
    measured = inputs.measured[label]
    yield _with_facts(f"{label} pleats", pack_drawing(measured, inputs.family), f"{label}: pleat pack end-on, to scale.", 58)
    strip, drawn = strip_areas(measured), strip_drawing(measured, inputs.family)
    if strip is None or drawn is None:
        yield Paragraph("The media strip has not been measured.", "assumed")
        return
    yield _with_facts(f"{label} strip", drawn, f"{label}: media strip laid flat, to scale; hatched is lost.", 44)
    unit, factor = unit_of("cm2", inputs.family)
    rows = [("gross area of one face", plain_number(strip.gross / factor), "")]
    rows += [
        (
            f"less {MEDIA_DEDUCTIONS[deduction.key]}",
            plain_number(-deduction.area / factor),
            "" if deduction.measured else "not measured, taken as usual" if deduction.area else "not measured, taken as none",
        )
        for deduction in strip.deductions
    ]
    results = inputs.analyses[label].results
    rows.append(("effective media area", result_words("media_effective_area", results.media_effective_area, inputs.family), ""))
    yield Table(
        f"{label}: from gross to effective media area [{unit}]",
        (Column("Step"), Column("Area", True), Column("")),
        tuple(rows),
    )


def _efficiency(inputs: ReportInputs, label: str) -> Iterator[Block]:
    measured = inputs.measured[label]
    chart = efficiency_chart(measured)
    if chart is None:
        yield Paragraph(
            "Nothing is known of the micron efficiency: no counts, no claim, and no medium to estimate from.", "assumed"
        )
        return
    yield from _chart(f"{label} efficiency", chart, f"{label}: micron efficiency.", 66)
    figure = counted_figure(measured)
    if figure is None:
        yield Paragraph("No counted test: a screening estimate is good to a factor of two in size either way.", "assumed")
        return
    test, betas = figure.test, figure.test.totals.betas
    rows = []
    for i, size in enumerate(test.counts.sizes_um):
        value, low, high = (100 * (1 - 1 / array[i]) for array in (betas.value, betas.low, betas.high))
        counted = f"{test.totals.gross.upstream[i]:.0f} / {test.totals.gross.downstream[i]:.0f}"
        fault = test.totals.size_faults[i]
        text = fault or number_with_interval(value, low, high)
        rows.append((f"{size:g}", counted, text))
    scale = (test.counts.scale or "µm").replace("um", "µm")
    columns = (
        Column(f"Size [{scale}]", True),
        Column("Counted upstream / downstream", True),
        Column("Efficiency, 95 % interval [%]", True),
    )
    yield Table(f"{label}: counted test", columns, tuple(rows))
    if figure.checks:
        yield Points(tuple(sentence(check.words) for check in figure.checks), "small")


def _map(inputs: ReportInputs, label: str) -> Iterator[Block]:
    point = inputs.points[label]
    if isinstance(point, str):
        yield Paragraph(f"No operating map: {point}", "assumed")
        return
    chart = map_chart(point, label, inputs.family)
    yield Picture(
        f"{label} map",
        chart.svg,
        chart.alt,
        f"{label}: operating map; hatched, the bypass valve is open. A model, not a test.",
        80,
    )
    use = inputs.study.uses[0] if inputs.study.uses else None
    if use is None:
        return
    known = {row.key: row.cells[label].known for row in inputs.sheet if row.key in BEHAVIOUR_MEASURES}
    rows = [
        (
            MEASURE_ROWS[key].title,
            known_words(item, key, inputs.family),
            item.reason if item is not None and item.value is None else "",
        )
        for key, item in known.items()
    ]
    places = (
        [f"cold {place_words(use.temperature_c, use.speed_rpm, inputs.family)}"]
        if use.temperature_c is not None and use.speed_rpm is not None
        else []
    )
    if use.hot_temperature_c is not None and use.hot_speed_rpm is not None:
        places.append(f"hot {place_words(use.hot_temperature_c, use.hot_speed_rpm, inputs.family)}")
    caption = f"{label} at the points of “{use.name}” ({'; '.join(places)}), with expanded uncertainty"
    yield Table(caption, (Column("Quantity"), Column("Value", True), Column("")), tuple(rows))


def _start(inputs: ReportInputs, label: str) -> Iterator[Block]:
    start = inputs.starts[label]
    if isinstance(start, str):
        yield Paragraph(f"No start: {start}", "assumed")
        return
    chart = start_chart(start, label, inputs.family)
    yield Picture(f"{label} start", chart.svg, chart.alt, f"{label}: a start from cold, best estimates. A model, not a test.", 74)
    unit, factor = unit_of("kPa", inputs.family)
    lowest = start.lowest_gallery_pressure
    facts = [
        ("Galleries full after", "not in this start" if start.filled_after is None else f"{start.filled_after:.1f} s"),
        (
            "Pressure in the gallery after",
            "not in this start" if start.pressure_after is None else f"{start.pressure_after:.1f} s",
        ),
        ("Bypass valve open for", f"{start.bypass_time / 60:.2f} min"),
        ("Unfiltered", f"{significant(start.unfiltered_volume * 1e3)} L of {start.volume * 1e3:.0f} L"),
        ("Lowest gallery pressure", "not known" if lowest is None else f"{plain_number(lowest / factor, 3)} {unit}"),
    ]
    if start.dry_time > 0:
        facts.append(("Oil does not pump for", f"{start.dry_time:.0f} s"))
    yield Facts(tuple(facts))


SECTION_BLOCKS: dict[SectionKey, Callable[[ReportInputs, str], Iterator[Block]]] = {
    "drawings": _drawings,
    "working": _workings,
    "valve": _valve,
    "media": _media,
    "efficiency": _efficiency,
    "map": _map,
    "start": _start,
}

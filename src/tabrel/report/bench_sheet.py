"""Sheets printed before the work: a blank measuring sheet for the samples of a study, and labels to lay beside the pieces."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, PART_TITLES, QUANTITIES, STAGE_TITLES, Quantity, Stage
from tabrel.core.catalogue.terms import INSTRUMENTS
from tabrel.core.catalogue.units import UnitFamily, printed
from tabrel.core.errors import StudyError
from tabrel.core.figures.section_layout import section_layout
from tabrel.core.review.before_cut import CAUTIONS
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.study.model import Circuit, Instrument, Sample, Study
from tabrel.report.blocks import Block, Column, Facts, Heading, Labels, Paper, Paragraph, Picture, Points, Report, Table
from tabrel.report.figures.drawings import DrawnFilter, section_drawing
from tabrel.report.figures.media_drawings import pack_drawing, strip_drawing
from tabrel.report.figures.plate_drawing import plate_drawing

USUAL_MINUTES: dict[Stage, int] = {"outside": 20, "opened": 15, "element": 10, "media": 15}
"""Time that a stage takes an experienced analyst; our own figures."""

READINGS = 3
"""Places for readings of each quantity."""

CUT_TOOLS = (
    "cutter that sheds no chips",
    "drip tray",
    "cut-proof gloves",
    "eye protection",
    "rags, bag for waste oil and oily parts",
)
"""Needed to open a can, besides instruments."""

LABELLED_PARTS = ("can", "gasket", "plate", "anti_drain", "bypass", "seating", "element", "tube", "media")
"""Pieces that lie on the bench once a filter is opened."""


def bench_sheets(study: Study, labels: Sequence[str], *, family: UnitFamily, paper: Paper, dated: str) -> Report:
    """Return blank measuring sheets, one a sample, stage by stage.

    Parameters
    ----------
    study : Study
    labels : sequence of str
        Of the samples; empty for all that are in use.
    family : str
        Units the readings are asked for in.
    paper, dated : str

    Returns
    -------
    Report
        To be written on, not issued.

    Raises
    ------
    StudyError
        If there is no such sample, or none at all.
    """
    blocks = tuple(block for sample in _chosen(study, labels) for block in _sheet(sample, study.circuit, family))
    return Report("Measuring sheet", None, dated, paper, kind="bench", blocks=blocks)


def part_labels(study: Study, labels: Sequence[str], *, paper: Paper, dated: str) -> Report:
    """Return labels with sample, part and date, for every piece of each sample; see `bench_sheets`."""
    items = tuple(
        (sample.label, PART_TITLES[part], " ".join(word for word in (sample.maker, sample.part_number) if word) or "–", dated)
        for sample in _chosen(study, labels)
        for part in LABELLED_PARTS
    )
    return Report("Part labels", None, dated, paper, kind="bench", blocks=(Labels(items),))


def _chosen(study: Study, labels: Sequence[str]) -> list[Sample]:
    chosen = [study.sample(label) for label in labels] or [sample for sample in study.samples if not sample.archived]
    if not chosen:
        raise StudyError("samples", "there is no filter to print for: add one first")
    return chosen


def _sheet(sample: Sample, circuit: Circuit | None, family: UnitFamily) -> Iterator[Block]:
    # sizes that are known already would lead the hand: the drawings are of a typical filter
    blank = measure_sample(Sample(label=sample.label, bypass=sample.bypass), None)
    yield Heading(1, f"{sample.label}: measuring sheet")
    name = " ".join(word for word in (sample.maker, sample.part_number) if word)
    rows = [("Filter", name or "not stated"), ("Measured by", ""), ("Date, temperature of the room", "")]
    yield Facts(tuple(rows))
    for stage, title in STAGE_TITLES.items():
        yield Heading(2, f"{title}, about {USUAL_MINUTES[stage]} min")
        yield from _stage(stage, blank, family)


def _stage(stage: Stage, blank: MeasuredSample, family: UnitFamily) -> Iterator[Block]:
    quantities = [quantity for quantity in QUANTITIES.values() if quantity.stage == stage]
    tools = list(dict.fromkeys(INSTRUMENTS[quantity.instrument] for quantity in quantities if quantity.instrument != "none"))
    if stage == "opened":
        yield Points(CAUTIONS, "caution")
        tools += CUT_TOOLS
    yield Paragraph(f"Tools: {', '.join(tools)}.", "small")
    numbers: dict[str, str] = {}
    for picture in _pictures(stage, blank, family):
        numbers |= {size.key: size.number for size in picture[1].sizes if size.key}
        key, drawn, caption, height = picture
        yield Picture(f"{stage} {key}", drawn.svg, drawn.alt, caption, height)
    rows = [_row(quantity, numbers.get(quantity.key, ""), family) for quantity in quantities]
    if stage == "outside":
        rows += [_hole_row("inlet holes, group A"), _hole_row("inlet holes, group B")]
    if stage == "element":
        rows.append(_hole_row("centre tube holes"))
    readings = tuple(Column("") for _ in range(READINGS))
    columns = (
        Column("No."),
        Column("What"),
        Column("With"),
        Column("Unit"),
        *readings,
        Column("Note"),
    )
    caption = "Three readings each, turned by a third between them; skip what cannot be reached and say why."
    yield Table(caption, columns, tuple(rows), is_form=True)
    seen = [observation for observation in OBSERVATIONS.values() if observation.stage == stage]
    if seen:
        choices = (Column("What"), Column("Choices"), Column("Other"))
        asked = (
            (
                f"{PART_TITLES[observation.part]}: {observation.title}",
                " / ".join(choice.value for choice in observation.choices),
                "",
            )
            for observation in seen
        )
        yield Table("What is seen: ring it, or write it", choices, tuple(asked), is_form=True)


def _row(quantity: Quantity, number: str, family: UnitFamily) -> tuple[str, ...]:
    unit = quantity.metric_unit if family == "metric" else quantity.inch_unit
    title = f"{PART_TITLES[quantity.part]}: {quantity.title}"
    return (number, title, _instrument(quantity.instrument), printed(unit), *("" for _ in range(READINGS)), "")


def _hole_row(title: str) -> tuple[str, ...]:
    sizes = ", ".join(quantity.title for key, quantity in HOLE_QUANTITIES.items() if key in ("diameter", "length", "width"))
    return ("", f"{title}: count, shape, {sizes}", "caliper, drills", "", *("" for _ in range(READINGS)), "")


def _instrument(instrument: Instrument) -> str:
    return INSTRUMENTS[instrument]


def _pictures(stage: Stage, blank: MeasuredSample, family: UnitFamily) -> Iterator[tuple[str, DrawnFilter, str, float]]:
    asked = {quantity.key for quantity in QUANTITIES.values() if quantity.stage == stage}
    if stage != "media" and asked & {dimension.key for dimension in section_layout(blank).dimensions}:
        yield (
            "section",
            section_drawing(blank, family, keys=asked),
            "Which size is meant: the numbers are those of the table.",
            78,
        )
    if stage == "outside":
        yield "plate", plate_drawing(blank, family), "The tapping plate from below: draw the holes in, letter each size.", 58
    if stage == "element":
        yield "pleats", pack_drawing(blank, family), "The pleat pack end-on.", 45
    if stage == "media" and (strip := strip_drawing(blank, family)) is not None:
        yield "strip", strip, "The media strip laid flat.", 40

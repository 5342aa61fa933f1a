"""The audit trail: items, conditions, method, claims, assumptions and cautions; readings as typed and budgets as annexes."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from itertools import zip_longest

from tabrel import __version__
from tabrel.core.catalogue.observation import observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import HOLE_PLACEMENTS, HOLE_QUANTITIES, PART_TITLES, QUANTITIES
from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.catalogue.terms import PROVENANCE_WORDS, SPEAKERS, STATE_WORDS, UNCERTAINTY_SOURCES, VERDICTS, instrument_words
from tabrel.core.details.details import DETAILS, assumed_details, detail_values
from tabrel.core.numbers import percentage, plain_number
from tabrel.core.results.bounded import measured_at_limits
from tabrel.core.results.budget import input_title, uncertainty_budget, why_no_budget
from tabrel.core.results.working import shown_uncertainty
from tabrel.core.results.working_chains import CHAINS, working_of
from tabrel.core.review.before_cut import CAUTIONS
from tabrel.core.review.claims import check_claim, claim_words
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import HoleGroup, Reading, ReadingEntry, as_reading
from tabrel.core.study.report_plan import chosen_parts
from tabrel.report.blocks import Block, Column, Facts, Heading, Paragraph, Points, Table
from tabrel.report.inputs import ReportInputs
from tabrel.report.parts.answer import condition_words
from tabrel.report.words import degrees_words, estimate_words, limits_words, sentence


def readings(inputs: ReportInputs) -> Iterator[Block]:
    """Yield every reading as typed, with what was recorded of it, filter by filter; then what was seen."""
    yield Heading(1, "Readings as typed", True)
    yield Paragraph(
        "Every reading as it was typed, with its own unit; nothing is converted before the computation. What was set aside "
        "stays here with its reason. The value is the mean of the readings used, with expanded uncertainty (95 %).",
        "small",
    )
    for label, measured in inputs.measured.items():
        yield Heading(2, label)
        rows = list(_reading_rows(measured, inputs))
        if rows:
            columns = (
                Column("Quantity"),
                Column("As typed"),
                Column("Taken"),
                Column("With"),
                Column("Source"),
                Column("Set aside, note"),
                Column("Value", True),
            )
            yield Table(f"{label}: readings", columns, tuple(rows))
        else:
            yield Paragraph("Nothing has been measured of this filter.", "assumed")
        seen = list(_seen(measured))
        if seen:
            yield Table(
                f"{label}: what was seen, and what could not be measured",
                (Column("What"), Column("Seen")),
                tuple(seen),
            )


def _reading_rows(measured: MeasuredSample, inputs: ReportInputs) -> Iterator[tuple[str, ...]]:
    sample = measured.sample
    for key in QUANTITIES:
        entries = sample.readings.get(key)
        if not entries:
            continue
        estimate, limits = measured.estimates.get(key), measured.limits.get(key)
        value = ""
        if estimate is not None:
            value = estimate_words(key, estimate, inputs.family)
        elif limits is not None:
            value = limits_words(key, limits, inputs.family)
        title = f"{PART_TITLES[QUANTITIES[key].part]}: {QUANTITIES[key].title}"
        yield from _rows_of(title, entries, value, QUANTITIES[key].instrument)
    places: list[tuple[str, str, tuple[HoleGroup, ...]]] = [
        (HOLE_PLACEMENTS["inlet"].title, "holes.inlet", sample.holes.inlet),
        (HOLE_PLACEMENTS["centre_tube"].title, "holes.centre_tube", sample.holes.centre_tube),
    ]
    for where, path, groups in places:
        for i, group in enumerate(groups):
            copied = f"copied from {group.copied_from}" if group.copied_from else ""
            part_open = "" if group.open_fraction in (None, 1.0) else f", {100 * (group.open_fraction or 0):.0f} % open"
            yield f"{where} {i + 1}: count", f"{group.count} {group.shape}{part_open}", "", "counted", "", copied, ""
            for dimension, entries in group.readings.by_dimension():
                key = f"{path}[{i}].{dimension}"
                estimate = measured.hole_estimates.get(key)
                value = "" if estimate is None else estimate_words(key, estimate, inputs.family)
                title = f"{where} {i + 1}: {HOLE_QUANTITIES[dimension].title}"
                yield from _rows_of(title, entries, value, HOLE_QUANTITIES[dimension].instrument)
            if group.readings.points_mm:
                corners = "; ".join(f"{x:g}, {y:g}" for x, y in group.readings.points_mm)
                yield f"{where} {i + 1}: outline [mm]", corners, "", "", "", "", ""


def _rows_of(title: str, entries: Iterable[ReadingEntry], value: str, usual: str) -> Iterator[tuple[str, ...]]:
    given = [as_reading(entry) for entry in entries]
    used = [reading for reading in given if reading.set_aside is None]
    last = used[-1] if used else None
    for i, reading in enumerate(given):
        yield (
            title if i == 0 else "",
            reading.text,
            _moment(reading.taken_at),
            instrument_words(reading.instrument) if reading.instrument else f"{instrument_words(usual)} (usual)",
            PROVENANCE_WORDS[reading.counts_as][0],
            _noted(reading),
            value if reading is last else "",
        )


def _moment(taken_at: str | None) -> str:
    return "" if taken_at is None else taken_at.replace("T", " ").split(".")[0].removesuffix("Z").removesuffix("+00:00")


def _noted(reading: Reading) -> str:
    sentences = []
    if reading.set_aside is not None:
        sentences.append(f"set aside: {reading.set_aside}")
    if reading.copied_from:
        sentences.append(f"copied from {reading.copied_from}, not confirmed")
    if reading.confirmed:
        sentences.append("questioned and confirmed")
    if reading.note:
        sentences.append(reading.note)
    return "; ".join(sentences)


def _seen(measured: MeasuredSample) -> Iterator[tuple[str, ...]]:
    sample = measured.sample
    for observation in OBSERVATIONS.values():
        words = observed(sample, observation)
        if words is not None:
            yield f"{PART_TITLES[observation.part]}: {observation.title}", words
    for key, state in sample.states.items():
        title = f"{PART_TITLES[QUANTITIES[key].part]}: {QUANTITIES[key].title}" if key in QUANTITIES else key
        yield title, STATE_WORDS[state][0]


def budgets(inputs: ReportInputs) -> Iterator[Block]:
    """Yield the uncertainty budget of every headline result of every filter."""
    yield Heading(1, "Uncertainty budgets", True)
    yield Paragraph(
        "What the standard uncertainty of each result is made of (GUM, JCGM 100:2008, 5.1): each input alone, its share of "
        "the variance, and what would make it smaller. Expanded uncertainties elsewhere are at 95 % with the effective degrees "
        "of freedom.",
        "small",
    )
    for label, measured in inputs.measured.items():
        yield Heading(2, label)
        at_limits = measured_at_limits(measured)
        for name in HEADLINES:
            result = getattr(inputs.analyses[label].results, name)
            if name not in CHAINS or not result.is_known:
                needs = ", ".join(map(input_title, result.missing)) or "more than was measured"
                yield Paragraph(f"{RESULTS[name].title}: not known, needs {needs}.", "small")
                continue
            last = working_of(name, at_limits).steps[-1]
            budget = uncertainty_budget(last, at_limits)
            if not budget.contributions:
                yield Paragraph(f"{RESULTS[name].title}: {why_no_budget(result.basis)}", "small")
                continue
            rows = [
                (
                    contribution.title,
                    UNCERTAINTY_SOURCES[contribution.source],
                    shown_uncertainty(contribution.amount, last.measure, inputs.family),
                    percentage(contribution.share),
                    contribution.smaller,
                )
                for contribution in budget.contributions
            ]
            rows += [
                (
                    f"{covariance.first} and {covariance.second} share inputs (r = {plain_number(covariance.correlation, 2)})",
                    "covariance",
                    "",
                    percentage(covariance.share),
                    "",
                )
                for covariance in budget.covariances
            ]
            u = shown_uncertainty(budget.standard_uncertainty, last.measure, inputs.family)
            columns = (
                Column("Input"),
                Column("Source"),
                Column("Contributes", True),
                Column("Share", True),
                Column("Smaller by"),
            )
            yield Table(f"{label}, {RESULTS[name].title.lower()}: standard uncertainty {u}", columns, tuple(rows))


def claims(inputs: ReportInputs) -> Iterator[Block]:
    """Yield every claim with its source, and what the readings say of it."""
    yield Heading(1, "Claims and what readings say of them")
    rows: list[tuple[str, ...]] = []
    for label, measured in inputs.measured.items():
        results = {row.key: getattr(inputs.analyses[label].results, name) for name, row in RESULTS.items()}
        if measured.sample.claims:
            rows.append((label,))
        for claim in measured.sample.claims:
            check = check_claim(claim, measured.sample, measured.estimates, inputs.family, results)
            speaker = SPEAKERS[claim.speaker] if claim.speaker else ""
            source = ", ".join(word for word in (claim.source, speaker, claim.seen) if word)
            rows.append((claim_words(claim), source, VERDICTS[check.verdict], check.words))
    if not rows:
        yield Paragraph("No claim is kept with this study.", "plain")
        return
    columns = (Column("Claim"), Column("Source"), Column("Verdict"), Column("Why"))
    yield Table("Claims", columns, tuple(rows))


def conditions(inputs: ReportInputs) -> Iterator[Block]:
    """Yield oil, engine and circuit as stated, and what is taken where nothing is stated."""
    study = inputs.study
    yield Heading(1, "Oil, engine and circuit")
    if not study.samples:
        yield Paragraph("There is no filter yet.", "assumed")
        return
    rows = []
    for key, value in detail_values(study, study.samples[0]).items():
        detail = DETAILS[key]
        if detail.owner != "study" or key.startswith("study."):
            continue
        shown = value.metric if inputs.family == "metric" else value.inch
        typed = f"typed {value.text}" if value.is_typed and value.text != shown else ""
        source = "; ".join(word for word in (typed, value.provenance or "", value.origin or "") if word)
        rows.append((detail.title, shown, source))
    if study.oil is not None:
        for point in study.oil.viscosity:
            name = f"viscosity at {degrees_words(point.temperature_c, inputs.family)}"
            if point.kinematic_mm2_s is not None:
                rows.append((name, f"{point.kinematic_mm2_s:g} mm²/s", "kinematic"))
            else:
                kind = "high shear" if point.high_shear is not False else "low shear"
                rows.append((name, f"{point.dynamic_mpa_s:g} mPa·s", f"dynamic, {kind}"))
    if rows:
        yield _stated(rows, inputs)
    else:
        yield Paragraph("Neither oil nor engine is stated: filters are described by themselves.", "assumed")


def _stated(rows: list[tuple[str, str, str]], inputs: ReportInputs) -> Table:
    """Return what is stated: in a full report with what was typed and its source, else in two columns."""
    what, value = Column("What"), Column("Value", True)
    if inputs.plan.size == "full":
        return Table("Oil, engine and plan of the start", (what, value, Column("Typed as, source")), tuple(rows))
    half = (len(rows) + 1) // 2
    pairs = zip_longest(rows[:half], rows[half:], fillvalue=("", "", ""))
    beside = tuple((one[0], one[1], other[0], other[1]) for one, other in pairs)
    return Table("Oil, engine and plan of the start", (what, value, what, value), beside)


METHOD = (
    "Areas: holes by their shapes with corner and open parts; the tapping plate's flow area is the least of its sections in "
    "series; media area is the strip laid flat less potting, seam, and blocked pleats.",
    "Bypass: opening pressure from a bench, a push-off force over the seat, or the spring's dimensions, the best evidence first.",
    "Efficiency: from particle counts with exact intervals and a curve through them, else from a claim, else a screening "
    "estimate from the fibres that is good to a factor of two in size.",
    "Operating maps: the whole oil circuit solved at each oil temperature and engine speed, steady and while the galleries "
    "fill; onset of the bypass is solved as a curve. It is a model calibrated at one hot point, not a test.",
    "Uncertainty: first order with correlations (JCGM 100:2008) for results, draws of the whole model (JCGM 101:2008) for "
    "behaviour.",
    "What each formula is, its source and its limits are in the document “method” that comes with the program.",
)


def method(inputs: ReportInputs) -> Iterator[Block]:
    """Yield the method with its version."""
    yield Heading(1, "Method")
    yield Facts((("Method", f"Tabrel {__version__}, as its document “method” describes it"),))
    yield Points(METHOD)


def items(inputs: ReportInputs) -> Iterator[Block]:
    """Yield what was asked, and every item with the condition it came in."""
    study = inputs.study
    yield Heading(1, "Question, items and their condition", True)
    facts = [("Question", study.question or "none stated")]
    if study.intended_uses:
        facts.append(("Intended for", study.intended_uses))
    yield Facts(tuple(facts))
    rows = []
    for label, measured in inputs.measured.items():
        sample = measured.sample
        cut = sample.cut
        bought = ", ".join(word for word in (sample.seller, sample.bought) if word)
        name = " ".join(word for word in (sample.maker, sample.part_number) if word)
        opened = "" if cut is None else " ".join(word for word in (cut.method, cut.at and cut.at[:10]) if word)
        rows.append((label, name, sample.origin or "", condition_words(inputs, label), bought, opened))
    if rows:
        heads = ("", "Maker, part number", "Made in", "Condition, made", "Bought", "Cut open")
        yield Table("Items as they came", tuple(Column(head) for head in heads), tuple(rows))
    else:
        yield Paragraph("There is no filter yet.", "assumed")


def assumptions(inputs: ReportInputs) -> Iterator[Block]:
    """Yield what results rest on that nobody measured, and what was questioned and not confirmed."""
    yield Heading(1, "Assumptions and open questions")
    by_what: dict[str, list[str]] = {}
    for label, analysis in inputs.analyses.items():
        for name in HEADLINES:
            for key in getattr(analysis.results, name).assumed:
                labels = by_what.setdefault(input_title(key), [])
                if label not in labels:
                    labels.append(label)
    if by_what:
        taken = "; ".join(f"{what} ({', '.join(labels)})" for what, labels in by_what.items())
        yield Paragraph(f"Assumed, not measured: {taken}.", "assumed")
    else:
        yield Paragraph("No headline result rests on an assumed input.", "small")
    stated = [DETAILS[key].title for key in assumed_details(inputs.study)] if inputs.study.samples else []
    if stated:
        yield Paragraph(f"Nobody stated, and usual values are taken: {', '.join(stated)}.", "assumed")
    if not any(part.part == "filters" for part in chosen_parts(inputs.plan)):  # which tells them filter by filter
        rows = [
            (label, " ".join(sentence(warning.message) for warning in analysis.warnings if not warning.confirmed))
            for label, analysis in inputs.analyses.items()
        ]
        asked = tuple((label, words) for label, words in rows if words)
        if asked:
            yield Heading(2, "Questioned, and not confirmed")
            yield Facts(asked)


def cautions(_: ReportInputs) -> Iterator[Block]:
    """Yield the cautions, and what the report does not say."""
    yield Heading(1, "Cautions and limits")
    yield Points(CAUTIONS, "caution")
    yield Heading(2, "Limits of this report")
    yield Points(
        (
            "The results concern the items described, in the condition described; of other specimens they say as much as their "
            "spread lets them.",
            "No accreditation is claimed. Contents follow ISO/IEC 17025:2017, 7.8, as far as they apply.",
            "It approves no part for any vehicle: the vehicle maker's instruction decides.",
            "It may be copied only whole.",
        ),
        "small",
    )

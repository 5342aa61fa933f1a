"""The audit trail: readings as typed, budgets, claims, conditions, decision rules, method and cautions."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from tabrel import __version__
from tabrel.core.catalogue.observation import observed
from tabrel.core.catalogue.observations import OBSERVATIONS
from tabrel.core.catalogue.quantities import HOLE_PLACEMENTS, HOLE_QUANTITIES, PART_TITLES, QUANTITIES
from tabrel.core.catalogue.results import HEADLINES, RESULTS
from tabrel.core.catalogue.terms import PROVENANCE_WORDS, SPEAKERS, STATE_WORDS, UNCERTAINTY_SOURCES, VERDICTS, instrument_words
from tabrel.core.details.details import DETAILS, assumed_details, detail_values
from tabrel.core.numbers import percentage, plain_number
from tabrel.core.results.bounded import measured_at_limits
from tabrel.core.results.budget import uncertainty_budget, why_no_budget
from tabrel.core.results.working import shown_uncertainty
from tabrel.core.results.working_chains import CHAINS, working_of
from tabrel.core.review.before_cut import CAUTIONS
from tabrel.core.review.claims import check_claim, claim_words
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import HoleGroup, Reading, ReadingEntry, as_reading
from tabrel.report.blocks import Block, Column, Facts, Heading, Paragraph, Points, Table
from tabrel.report.inputs import ReportInputs
from tabrel.report.parts.answer import DECISION_RULE
from tabrel.report.words import degrees_words, estimate_words, limits_words, place_words


def readings(inputs: ReportInputs) -> Iterator[Block]:
    """Yield every reading as typed, with what was recorded of it, filter by filter; then what was seen."""
    yield Heading(1, "Readings as typed")
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
                Column("Quantity", share=1.7),
                Column("As typed", share=1),
                Column("Taken", share=1.1),
                Column("With", share=0.9),
                Column("Source", share=0.8),
                Column("Set aside, note", share=1.5),
                Column("Value", True, 1.3),
            )
            yield Table(f"{label}: readings", columns, tuple(rows))
        else:
            yield Paragraph("Nothing has been measured of this filter.", "assumed")
        seen = list(_seen(measured))
        if seen:
            yield Table(
                f"{label}: what was seen, and what could not be measured",
                (Column("What", share=1.4), Column("Seen", share=2)),
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
    yield Heading(1, "Uncertainty budgets")
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
                yield Paragraph(
                    f"{RESULTS[name].title}: not known, needs {', '.join(result.missing) or 'more than was measured'}.", "small"
                )
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
                Column("Input", share=1.8),
                Column("Source", share=1),
                Column("Contributes", True, 1),
                Column("Share", True, 0.7),
                Column("Smaller by", share=2),
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
    columns = (Column("Claim", share=1.6), Column("Source", share=1.2), Column("Verdict", share=0.8), Column("Why", share=2))
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
        columns = (Column("What", share=1.6), Column("Value", True, 1.2), Column("Typed as, source", share=1.4))
        yield Table("Oil, engine and plan of the start", columns, tuple(rows))
    else:
        yield Paragraph("Neither oil nor engine is stated: filters are described by themselves.", "assumed")
    assumed = [DETAILS[key].title for key in assumed_details(study)]
    if assumed:
        yield Paragraph(f"Nobody stated, and usual values are taken: {', '.join(assumed)}.", "assumed")


def rules(inputs: ReportInputs) -> Iterator[Block]:
    """Yield what each use asks, and what was found of every filter, line by line."""
    yield Heading(1, "Decision rules")
    yield Paragraph(DECISION_RULE)
    for judged in inputs.judged:
        if isinstance(judged, tuple):
            continue
        use = judged.use
        yield Heading(2, use.name)
        points = [
            ("Cold point", use.temperature_c, use.speed_rpm),
            ("Hot point", use.hot_temperature_c, use.hot_speed_rpm),
        ]
        known = [(name, celsius, rpm) for name, celsius, rpm in points if celsius is not None and rpm is not None]
        facts = [(name, place_words(celsius, rpm, inputs.family)) for name, celsius, rpm in known]
        if use.tier:
            facts.append(("Only of tier", use.tier))
        if facts:
            yield Facts(tuple(facts))
        criteria = tuple(
            (
                criterion.category.name,
                {"high": "more", "low": "less"}[criterion.category.better],
                f"{criterion.category.weight:g}",
                criterion.category.struck or "counts",
            )
            for criterion in judged.criteria
        )
        if criteria:
            columns = (
                Column("Criterion", share=2),
                Column("Better"),
                Column("Weight", True),
                Column("Counts, or why not", share=2),
            )
            yield Table(f"“{use.name}”: criteria", columns, criteria)
        rows: list[tuple[str, ...]] = []
        for label in judged.labels:
            rows.append((label,))
            for line in judged.requirements[label]:
                state = line.state if line.counts else f"{line.state} (does not decide)"
                rows.append((state, line.reason, "every use" if line.is_asked_of_every_use else "stated"))
        yield Table(
            f"“{use.name}”: requirements",
            (Column("State", share=0.7), Column("Reason", share=3), Column("Asked", share=0.7)),
            tuple(rows),
        )


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
    """Yield the method with its version, the cautions, and what the report does not say."""
    yield Heading(1, "Method, cautions and limits")
    yield Facts((("Method", f"Tabrel {__version__}, as its document “method” describes it"),))
    yield Points(METHOD)
    yield Heading(2, "Cautions")
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

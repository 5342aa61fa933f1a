"""Refuse what is impossible in a study, naming the place and the correction.

What is merely implausible is a warning of `analysis`, not a refusal.
"""

from __future__ import annotations

from collections.abc import Iterable

from tabrel.core.audit.arithmetic import check_line
from tabrel.core.audit.written import MOST_LINES
from tabrel.core.catalogue.hole_dimensions import SHAPE_DIMENSIONS, dimensions_of
from tabrel.core.catalogue.physical_limits import MOST_HOLES, PHYSICAL_LIMITS
from tabrel.core.catalogue.quantities import HOLE_QUANTITIES, INSTRUMENT_DIMENSIONS, QUANTITIES, Quantity
from tabrel.core.entry.claim_text import CLAIMABLE_RESULTS, claim_dimension
from tabrel.core.entry.reading_text import ParsedReading, parse_reading
from tabrel.core.errors import OutOfRangeError, ReadingTextError, StudyError, nearest_hint
from tabrel.core.oil.model import oil_model
from tabrel.core.parts.hole_shapes import outline_area
from tabrel.core.rules.evidence import check_bypass_bench, check_counts, check_flow_bench, check_photograph
from tabrel.core.rules.in_use import check_in_use, check_service_plan
from tabrel.core.rules.plans import check_plans
from tabrel.core.rules.refusals import require_count, require_date, require_limits, require_text
from tabrel.core.rules.report import check_report
from tabrel.core.rules.uses import check_uses
from tabrel.core.study.defaults import jet_opening_kpa
from tabrel.core.study.model import (
    Adapter,
    Circuit,
    Claim,
    EngineHotPoint,
    HoleGroup,
    Offer,
    Oil,
    ReadingEntry,
    Sample,
    Stud,
    Study,
    as_reading,
    used_readings,
)

BEYOND_ANY_FILTER = 1e6
"""A reading this many times outside the usual range is no slip of a decimal point but no reading."""


def check_study(study: Study) -> None:
    """Raise `StudyError` at the first impossible thing in a study.

    Raises
    ------
    StudyError
        With the document path and how to correct it.
    """
    require_text("name", study.name)
    labels_known = [sample.label for sample in study.samples]
    if study.reference is not None and study.reference not in labels_known:
        hint = nearest_hint(study.reference, labels_known)
        raise StudyError("reference", f"{study.reference!r} is no label of a sample{hint}: name one of the samples")
    if study.oil:
        check_oil(study.oil)
    if study.circuit:
        check_circuit(study.circuit)
    check_plans(study)
    check_uses(study)
    check_arithmetic(study)
    check_report(study)
    check_service_plan(study)
    labels: set[str] = set()
    for i, sample in enumerate(study.samples):
        path = f"samples[{i}]"
        require_text(f"{path}.label", sample.label)
        if sample.label in labels:
            raise StudyError(f"{path}.label", f"{sample.label!r} names two samples: give each its own label")
        labels.add(sample.label)
        check_sample(path, sample)


def check_sample(path: str, sample: Sample) -> None:
    """Raise `StudyError` at the first impossible thing in a sample at `path`."""
    for key, entries in sample.readings.items():
        place = f"{path}.readings.{key}"
        quantity = known_quantity(place, key)
        check_readings(place, quantity, entries)
    for key in sample.states:
        known_quantity(f"{path}.states.{key}", key)
        if used_readings(sample.readings.get(key, ())):
            raise StudyError(f"{path}.states.{key}", "there are readings in use: set them aside, or leave the state out")
    for placement in ("inlet", "centre_tube"):
        for i, group in enumerate(getattr(sample.holes, placement)):
            check_hole_group(f"{path}.holes.{placement}[{i}]", group)
    require_limits(path, sample)
    for name in ("bought", "made"):
        require_date(f"{path}.{name}", getattr(sample, name))
    if sample.cut:
        require_text(f"{path}.cut.method", sample.cut.method)
        require_date(f"{path}.cut.at", sample.cut.at)
    if sample.price:
        require_limits(f"{path}.price", sample.price)
    for i, offer in enumerate(sample.offers):
        _check_offer(f"{path}.offers[{i}]", offer)
    stated = sample.bypass.stated_kpa
    if stated is not None:
        band = stated if isinstance(stated, tuple) else (stated, stated)
        if not 0 < band[0] <= band[1]:
            low, high = band
            words = f"must be above zero, the lower pressure first, not {low:g} and {high:g}"
            raise StudyError(f"{path}.bypass.stated_kpa", words)
        if not PHYSICAL_LIMITS["opening_kpa"].allow(band[1]):
            raise StudyError(f"{path}.bypass.stated_kpa", PHYSICAL_LIMITS["opening_kpa"].why_not(band[1]))
    if sample.leak:
        require_count(f"{path}.leak", sample.leak.count)
        require_limits(f"{path}.leak", sample.leak)
    for i, claim in enumerate(sample.claims):
        _check_claim(f"{path}.claims[{i}]", claim)
    if sample.counts:
        check_counts(f"{path}.counts", sample.counts)
    for i, series in enumerate(sample.flow_bench):
        check_flow_bench(f"{path}.flow_bench[{i}]", series)
        if series.oil:
            check_oil(series.oil, f"{path}.flow_bench[{i}].oil")
    if sample.bypass_bench:
        check_bypass_bench(f"{path}.bypass_bench", sample.bypass_bench)
    for i, photograph in enumerate(sample.photographs):
        check_photograph(f"{path}.photographs[{i}]", photograph)
    if isinstance(sample.bypass.opening_at, float) and not PHYSICAL_LIMITS["flow_l_min"].allow(sample.bypass.opening_at):
        raise StudyError(f"{path}.bypass.opening_at", PHYSICAL_LIMITS["flow_l_min"].why_not(sample.bypass.opening_at))
    check_in_use(path, sample)


def _check_offer(path: str, offer: Offer) -> None:
    require_text(f"{path}.shop", offer.shop)
    require_text(f"{path}.currency", offer.currency)
    require_limits(path, offer)
    if offer.pack_of is not None:
        require_count(f"{path}.pack_of", offer.pack_of)
    require_date(f"{path}.seen", offer.seen)


def known_quantity(path: str, key: str) -> Quantity:
    """Return the catalogue's quantity for a reading key, or raise `StudyError` at `path`."""
    if key not in QUANTITIES:
        raise StudyError(path, f"{key!r} is no reading key{nearest_hint(key, QUANTITIES)}: use a key of the catalogue")
    return QUANTITIES[key]


def check_readings(path: str, quantity: Quantity, entries: Iterable[ReadingEntry]) -> None:
    """Raise `StudyError` at the first entry, set aside or not, that is not a reading of the quantity."""
    for i, reading in enumerate(map(as_reading, entries)):
        if reading.set_aside is not None:
            require_text(f"{path}[{i}].struck_out", reading.set_aside)
        require_date(f"{path}[{i}].taken_at", reading.taken_at)
        if reading.hole is not None and not 1 <= reading.hole <= MOST_HOLES:
            raise StudyError(f"{path}[{i}].hole", f"must be a whole number from 1, not {reading.hole}: number the holes")
        measures = INSTRUMENT_DIMENSIONS.get(reading.instrument or "")  # type: ignore[call-overload]
        if reading.instrument and measures and quantity.dimension not in measures:
            name = reading.instrument.replace("_", " ")
            raise StudyError(f"{path}[{i}].instrument", f"a {name} does not measure a {quantity.dimension.replace('_', ' ')}")
        try:
            check_reading_text(quantity, reading.text)
            if reading.uncertainty is not None:
                parse_reading(reading.uncertainty, quantity.dimension, zero_allowed=True)
        except ReadingTextError as error:
            raise StudyError(f"{path}[{i}]", str(error)) from error


def check_reading_text(quantity: Quantity, text: str) -> ParsedReading:
    """Return what a typed reading of a quantity means, or raise `ReadingTextError`."""
    parsed = parse_reading(text, quantity.dimension, zero_allowed=quantity.zero_allowed)
    beyond = parsed.value > quantity.usual_high * BEYOND_ANY_FILTER
    if beyond or 0 < parsed.value < quantity.usual_low / BEYOND_ANY_FILTER:
        raise ReadingTextError(f"{text!r} cannot be the {quantity.title} of a filter: check the number and its unit")
    return parsed


def check_hole_group(path: str, group: HoleGroup) -> None:
    """Raise `StudyError` at the first impossible thing in a hole group at `path`."""
    require_count(path, group.count)
    require_limits(path, group)
    takes = SHAPE_DIMENSIONS[group.shape]
    for dimension, entries in group.readings.by_dimension():
        place = f"{path}.readings.{dimension}"
        if dimension not in dimensions_of(group.shape):
            known = ", ".join(takes.required + takes.optional)
            raise StudyError(place, f"a {group.shape} hole has no {dimension}: give {known}")
        check_readings(place, HOLE_QUANTITIES[dimension], entries)
    if group.readings.points_mm:
        place = f"{path}.readings.points_mm"
        if group.shape != "outline":
            raise StudyError(place, f"a {group.shape} hole has no points: make its shape 'outline'")
        if len(group.readings.points_mm) < 3:
            raise StudyError(place, "an outline needs at least three points")
        for coordinate in (coordinate for point in group.readings.points_mm for coordinate in point):
            if not PHYSICAL_LIMITS["diameter_mm"].allow(abs(coordinate) or 1.0):
                raise StudyError(place, f"a coordinate of {coordinate:g} mm is beyond any hole: check the number and its unit")
        if outline_area(group.readings.points_mm) == 0:
            raise StudyError(place, "the points enclose no area: type them in order around the hole")


def check_oil(oil: Oil, place: str = "oil") -> None:
    """Raise `StudyError` at the first impossible thing in the oil at a place of the document."""
    require_limits(place, oil)
    for i, point in enumerate(oil.viscosity):
        path = f"{place}.viscosity[{i}]"
        require_limits(path, point)
        if (point.kinematic_mm2_s is None) == (point.dynamic_mpa_s is None):
            raise StudyError(path, "give either kinematic_mm2_s or dynamic_mpa_s, and not both")
    try:
        oil_model(oil)
    except OutOfRangeError as error:
        raise StudyError(f"{place}.viscosity", str(error)) from error


def check_circuit(circuit: Circuit) -> None:
    """Raise `StudyError` at the first impossible thing in the circuit."""
    require_limits("circuit", circuit)
    for name in ("pump_efficiency", "regulator", "cooler", "head", "mount"):
        if part := getattr(circuit, name):
            require_limits(f"circuit.{name}", part)
    if circuit.engine:
        _check_engine("circuit.engine", circuit.engine)
    if circuit.stud:
        _check_stud("circuit.stud", circuit.stud)
    if circuit.adapter:
        _check_adapter("circuit.adapter", circuit.adapter)


def _check_stud(path: str, stud: Stud) -> None:
    require_limits(path, stud)
    least, greatest = stud.least_bore_mm, stud.greatest_bore_mm
    if least is not None and greatest is not None and least > greatest:
        raise StudyError(path, f"the least bore of {least:g} mm is above the greatest of {greatest:g} mm: check both")


def _check_engine(path: str, engine: EngineHotPoint) -> None:
    require_limits(path, engine)
    share = engine.jet_share
    if share is None or share == 0:
        return
    if share == 1:
        raise StudyError(f"{path}.jet_share", "must be below 1, all of the oil: the bearings take some of it")
    if not 0 <= jet_opening_kpa(engine) < engine.gallery_kpa:
        raise StudyError(
            f"{path}.jet_opening_kpa",
            f"must lie below the hot gallery pressure of {engine.gallery_kpa:g} kPa, or the jets could not take their share",
        )


def _check_adapter(path: str, adapter: Adapter) -> None:
    require_limits(path, adapter)
    for i, group in enumerate(adapter.holes):
        check_hole_group(f"{path}.holes[{i}]", group)


def _check_claim(path: str, claim: Claim) -> None:
    require_text(f"{path}.source", claim.source)
    if claim.kind == "efficiency":
        if claim.efficiency_percent is None or claim.relation is None:
            raise StudyError(
                path, "an efficiency claim needs efficiency_percent and relation: add them, or make its kind 'words'"
            )
        if not 0 < claim.efficiency_percent < 100:
            raise StudyError(
                f"{path}.efficiency_percent", "must lie above 0 and below 100: a claim of 100 % names no filtration ratio"
            )
    elif claim.kind == "words":
        require_text(f"{path}.wording", claim.wording or "")
    else:
        require_text(f"{path}.key", claim.key or "")
        require_text(f"{path}.value", claim.value or "")
        if claim.kind == "result" and claim.key not in CLAIMABLE_RESULTS:
            hint = nearest_hint(claim.key or "", CLAIMABLE_RESULTS)
            raise StudyError(f"{path}.key", f"{claim.key!r} is no result that can be claimed{hint}: use one of its keys")
        if claim.kind in ("reading", "result"):
            try:
                if claim.kind == "reading":
                    check_reading_text(known_quantity(f"{path}.key", claim.key or ""), claim.value or "")
                else:
                    parse_reading(claim.value or "", claim_dimension("result", claim.key or ""))
            except ReadingTextError as error:
                raise StudyError(f"{path}.value", str(error)) from error
    foreign = ("key", "value") if claim.kind == "efficiency" else ("efficiency_percent",)
    for name in (*foreign, "key", "value") if claim.kind == "words" else foreign:
        if getattr(claim, name) is not None:
            raise StudyError(
                f"{path}.{name}", f"does not belong to a claim of kind {claim.kind!r}: remove it, or change the kind"
            )
    require_limits(path, claim)
    require_date(f"{path}.seen", claim.seen)


def check_arithmetic(study: Study) -> None:
    """Raise `StudyError` at the first line that cannot be recomputed; whether it follows is another matter."""
    if len(study.arithmetic) > MOST_LINES:
        raise StudyError("arithmetic", f"has {len(study.arithmetic)} lines, more than {MOST_LINES}: leave out what is settled")
    for i, line in enumerate(study.arithmetic):
        check_line(line, f"arithmetic[{i}]")

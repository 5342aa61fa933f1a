"""Warnings about what is possible but implausible, at their place; never refusals."""

from __future__ import annotations

from collections.abc import Iterator

from tabrel.core.catalogue.terms import INPUTS
from tabrel.core.catalogue.units import shown_in_both
from tabrel.core.counts.checks import count_checks, extrapolation
from tabrel.core.counts.counted_test import CountedTest
from tabrel.core.figures.parts_tray import USUAL_SHELL_RATIO, can_strength
from tabrel.core.figures.pleat_pack import LEAST_PLEAT_OPENING
from tabrel.core.figures.section_layout import section_problems
from tabrel.core.numbers import significant
from tabrel.core.parts.efficiency import REFERENCE_SIZE, ScreeningMedium
from tabrel.core.parts.media import FAMILY_DEFAULTS, pleat_opening_at_inside, solidity
from tabrel.core.parts.seat_and_spring import DEAD_COILS, spring_travel
from tabrel.core.review.fit import fit_warnings
from tabrel.core.review.reading_warnings import SampleWarning, reading_warnings
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.propagation import Result
from tabrel.core.uncertainty.sampled_number import nominal_value

LENGTH_AGREEMENT = 0.05
USUAL_SOLIDITY = (0.04, 0.35)


def sample_warnings(
    measured: MeasuredSample, medium: ScreeningMedium | None, size_at_beta_75: Result
) -> tuple[SampleWarning, ...]:
    """Return every warning of a sample, readings first."""
    return (
        *reading_warnings(measured),
        *_layout_warnings(measured),
        *_media_warnings(measured),
        *_bypass_warnings(measured),
        *_clearance_warnings(measured),
        *_width_warning(measured),
        *_opening_warnings(measured),
        *_opened_warnings(measured),
        *_seen_warnings(measured),
        *fit_warnings(measured),
        *_efficiency_warnings(measured, medium, size_at_beta_75),
    )


def _layout_warnings(measured: MeasuredSample) -> Iterator[SampleWarning]:
    for problem in measured.plate.problems:
        yield SampleWarning(problem.code, problem.message, problem.where)


def _media_warnings(measured: MeasuredSample) -> Iterator[SampleWarning]:
    strip = measured.strip
    known = {key: float(nominal_value(number)) for key, number in measured.known.items()}
    off, folded = strip.length_off(), strip.pleats_length()
    if off is not None and abs(off) > LENGTH_AGREEMENT:
        is_derived = "element.pleat_depth" not in known
        settles = (
            "the depth is only derived from the element's diameters, measure it (element, pleat depth) to settle this"
            if is_derived
            else "check length, pleat count and depth"
        )
        message = (
            f"the strip is {abs(off):.0%} {'longer' if off > 0 else 'shorter'} than its pleats explain "
            f"({shown_in_both(float(nominal_value(folded)), 'mm', 4)} = 2·pleats·depth): {settles}"
        )
        yield SampleWarning("length_against_pleats", message, "media.strip_length")
    yield from _pack_warnings(pleat_opening_at_inside(strip, measured.variables).value)
    family = measured.sample.media_family
    share = solidity(strip, FAMILY_DEFAULTS[family].fibre_density) if family else None
    if share is not None and not USUAL_SOLIDITY[0] <= float(nominal_value(share)) <= USUAL_SOLIDITY[1]:
        message = (
            f"the media would be {float(nominal_value(share)):.0%} fibre, where 4 to 35 % is usual: "
            "check dry mass (oil left in it?), thickness and area"
        )
        yield SampleWarning("solidity", message, "media.dry_mass")
    if known.get("media.blocked_pleats", 0.0) > known.get("element.pleat_count", float("inf")):
        message = "more pleats are blocked than there are: check both counts"
        yield SampleWarning("blocked_pleats", message, "media.blocked_pleats")
    width = strip.face_width()
    if width is not None and float(nominal_value(width)) <= 0:
        message = "the potting is deeper than the strip is wide: check both readings"
        yield SampleWarning("potting_too_deep", message, "element.potting_depth")


def _pack_warnings(opening: float | None) -> Iterator[SampleWarning]:
    """Yield a warning where the open share of the inside circumference is too small."""
    if opening is not None and opening <= 0:
        message = (
            f"the pleats cannot fit: folded media would stand around {1 - opening:.0%} of the inside circumference; "
            "the pack is crushed or a reading slipped"
        )
        yield SampleWarning("pack_cannot_fit", message, "element.pleat_count")
    elif opening is not None and opening < LEAST_PLEAT_OPENING:
        message = f"only {opening:.0%} of the inside is open between the pleats: the pleat loss is unreliable"
        yield SampleWarning("pack_crowded", message, "element.pleat_count")


def _bypass_warnings(measured: MeasuredSample) -> Iterator[SampleWarning]:
    known = {
        key.removeprefix("bypass."): float(nominal_value(number))
        for key, number in measured.known.items()
        if key.startswith("bypass.")
    }
    wire, coils = known.get("spring_wire_diameter"), known.get("spring_total_coils")
    free, installed = known.get("spring_free_length"), known.get("spring_installed_length")
    if free is not None and installed is not None and installed >= free:
        message = "the spring is installed no shorter than its free length: as measured it holds nothing shut"
        yield SampleWarning("spring_not_compressed", message, "bypass.spring_installed_length")
    if (travel := spring_travel(measured.known)) is not None and installed is not None:
        free_travel = float(nominal_value(travel))
        valve = measured.bypass.valve
        lift = valve.lift_limit if valve else known.get("lift_limit", 0.0)
        if free_travel < 0:
            solid = shown_in_both(installed - free_travel, "mm")
            message = f"the spring is installed below its solid length of {solid}: a reading slipped"
            yield SampleWarning("spring_below_solid", message, "bypass.spring_installed_length")
        elif free_travel < lift:
            message = (
                f"the spring goes solid after {shown_in_both(free_travel, 'mm')}, "
                f"before the lift limit of {shown_in_both(lift, 'mm')}"
            )
            yield SampleWarning("spring_solid_before_lift", message, "bypass.lift_limit")
    dead = known.get("spring_dead_coils", DEAD_COILS[measured.sample.bypass.spring_ends or "unknown"][0])
    if coils is not None and coils <= dead:
        message = f"of {coils:g} coils {dead:g} are dead: no coil is left to work, count again"
        yield SampleWarning("spring_without_coils", message, "bypass.spring_total_coils")
    outside = known.get("spring_outside_diameter")
    if wire is not None and outside is not None and outside <= wire:
        message = "the spring is no wider than its wire: check both diameters"
        yield SampleWarning("spring_too_narrow", message, "bypass.spring_outside_diameter")
    if known.get("seat_outside_diameter", float("inf")) < known.get("seat_inside_diameter", 0.0):
        message = "the seat is smaller outside than inside: the two readings may be swapped"
        yield SampleWarning("seat_swapped", message, "bypass.seat_outside_diameter")


def _width_warning(measured: MeasuredSample) -> Iterator[SampleWarning]:
    """Yield a warning where the strip's width was read at fewer than three places: it varies along the strip."""
    width = measured.estimates.get("media.strip_width")
    if width is not None and width.provenance == "measured" and len(width.used) < PLACES_OF_WIDTH:
        message = "read the strip's width at three places: it varies along the strip, and the area with it"
        yield SampleWarning("width_at_three_places", message, "media.strip_width")


PLACES_OF_WIDTH = 3


def _opening_warnings(measured: MeasuredSample) -> Iterator[SampleWarning]:
    """Yield a warning where nobody said how an opening pressure was read, how its spring ends, or where its seal bears."""
    valve, basis = measured.sample.bypass, measured.bypass.opening.basis
    if basis == "spring" and valve.spring_ends is None and "bypass.spring_dead_coils" not in measured.estimates:
        message = (
            "say how the spring ends: of open ends half a coil does not work, of closed ones two, and one to three are assumed"
        )
        yield SampleWarning("spring_ends_not_told", message, "bypass.spring_ends")
    if basis in ("spring", "force") and valve.seat_mark is None and measured.bypass.has_edges:
        message = "look on which edge of the seat the seal left its mark: the opening pressure lies between those of both edges"
        yield SampleWarning("seat_mark_not_told", message, "bypass.seat_mark")
    if basis == "pressure" and valve.opening_at is None:
        message = "say at which flow the opening pressure was read: the first drip of a creeping seal comes up to 20 % early"
        yield SampleWarning("opening_flow_not_stated", message, "bypass.opening_at")


def _opened_warnings(measured: MeasuredSample) -> Iterator[SampleWarning]:
    """Yield a warning where two readings of the opened parts contradict each other."""
    known = {key: float(nominal_value(number)) for key, number in measured.known.items()}
    opening, closing = known.get("bypass.opening_pressure"), known.get("bypass.closing_pressure")
    if opening is not None and closing is not None and closing > opening:
        message = "the valve would close above the pressure at which it opens: rising and falling may be swapped"
        yield SampleWarning("closes_above_opening", message, "bypass.closing_pressure")
    relaxed, pulled = known.get("media.strip_length"), known.get("media.pulled_length")
    if relaxed is not None and pulled is not None and pulled < relaxed:
        message = "pulled flat the strip is shorter than relaxed: the two may be swapped"
        yield SampleWarning("pulled_below_relaxed", message, "media.pulled_length")
    ratio = can_strength(measured).shell_ratio
    if ratio is not None and not USUAL_SHELL_RATIO[0] <= ratio <= USUAL_SHELL_RATIO[1]:
        message = (
            f"the can weighs {significant(ratio, 2)} times what a steel shell of this wall would: "
            "was the wall measured on a fold, or the can weighed with another part?"
        )
        yield SampleWarning("wall_against_can_mass", message, "can.wall_thickness")


def _clearance_warnings(measured: MeasuredSample) -> Iterator[SampleWarning]:
    known = {key: float(nominal_value(number)) for key, number in measured.known.items()}
    can, element, inside = (
        known.get(key) for key in ("can.inside_diameter", "element.outside_diameter", "element.inside_diameter")
    )
    if can is not None and element is not None and can <= element:
        message = "the element is no smaller than the can's inside: no clearance is left between them"
        yield SampleWarning("no_clearance", message, "can.inside_diameter")
    if element is not None and inside is not None and inside >= element:
        message = "the element is no wider outside than inside: the two readings may be swapped"
        yield SampleWarning("element_swapped", message, "element.inside_diameter")
    for problem in section_problems(measured):
        yield SampleWarning(problem.code, problem.message, problem.where)


BURR_WARNING = "the burrs of the centre tube point to the media and file through it in service: look for worn pleats"
_OPEN_WAYS: dict[tuple[str, str], tuple[str, str]] = {
    ("element.glue", "missing"): (
        "glue_missing",
        "pleats that stand free at an end are an open way past the media: say how wide under defects",
    ),
    ("media.condition", "holed"): (
        "media_holed",
        "the media is holed: say how wide under defects, or it counts as whole",
    ),
}
"""Ways past the media that are seen, by observation and choice; said until their width is known."""


def _seen_warnings(measured: MeasuredSample) -> Iterator[SampleWarning]:
    """Yield a warning for what is seen and no number says."""
    seen = measured.sample.observations
    if seen.get("tube.burr_side") == "towards the media":
        yield SampleWarning("burr_at_media", BURR_WARNING, "tube.burr_side")
    printed = measured.sample.restriction
    if printed and printed != "none printed":
        message = f"“{printed}” is printed on it: a racing-only part is not for the road, whatever its sizes say"
        yield SampleWarning("restricted_use", message, "sample.restriction")
    if measured.sample.leak is None:
        for (key, choice), (code, message) in _OPEN_WAYS.items():
            if seen.get(key) == choice:
                yield SampleWarning(code, message, key)


def _efficiency_warnings(measured: MeasuredSample, medium: ScreeningMedium | None, size: Result) -> Iterator[SampleWarning]:
    test = measured.counted
    if isinstance(test, CountedTest):
        for check in count_checks(test):
            if check.is_grave:
                yield SampleWarning(check.code, check.words, "counts")
        if beyond := extrapolation(test, REFERENCE_SIZE):
            yield SampleWarning("counts_extrapolated", beyond, "counts")
    elif isinstance(test, Result):
        lacking = " and ".join(INPUTS[key].title for key in test.missing)
        yield SampleWarning("counts_not_used", f"the counts cannot be computed with yet: {lacking} is not stated", "counts")
    if medium is None or size.basis != "estimate" or size.value is None:
        return
    limit = medium.largest_valid_size()
    for where, what, particle in (
        ("efficiency_at_20_um", "20 µm(c)", REFERENCE_SIZE),
        ("size_at_beta_75", f"the size at β = 75, {significant(size.value)} µm(c),", size.value),
    ):
        if particle > limit:
            message = (
                f"{what} is beyond the screening estimate's domain, which ends at {significant(limit)} µm(c), "
                "where particles no longer fit between the fibres"
            )
            yield SampleWarning("estimate_beyond_domain", message, where)

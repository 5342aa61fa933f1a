"""The chain of lines behind each result, from readings to the number on the tape."""

from __future__ import annotations

from collections.abc import Callable
from math import exp, isfinite, log

from uncertainties import std_dev

from tabrel.core.counts.counted_test import CountedPoint, CountedTest, ReadAs
from tabrel.core.counts.curve import CountedCurve
from tabrel.core.counts.curve_form import INTERCEPTION
from tabrel.core.parts.bypass_opening import FULL_LIFT_PRESSURE_RATIO
from tabrel.core.parts.efficiency import (
    LEAST_SLOPE,
    REFERENCE_SIZE,
    STEEPEST_SLOPE,
    usable_claim,
)
from tabrel.core.parts.media import (
    AIR_DROP_INCH,
    AIR_DROP_METRIC,
    AIR_VISCOSITY,
    FAMILY_DEFAULTS,
    FORECAST,
    GROSS_FORECAST,
)
from tabrel.core.results.working import Operand, Working
from tabrel.core.results.working_builder import Chain
from tabrel.core.sample.efficiency import efficiency_results, screening_medium
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Provenance
from tabrel.core.uncertainty.propagation import rectangular
from tabrel.core.uncertainty.sampled_number import nominal_value


def _inlet_hole_area(measured: MeasuredSample) -> Working:
    chain = Chain("inlet_hole_area", measured)
    chain.hole_area("holes.inlet", measured.sample.holes.inlet, measured.inlet, "A")
    return chain.working


def _plate_flow_area(measured: MeasuredSample) -> Working:
    chain = Chain("plate_flow_area", measured)
    sections = chain.sections()
    template = "min(" + ", ".join(f"{{{section.symbol}}}" for section in sections) + ")"
    chain.line("Aₚ", "the smallest section controls", template, sections, "area")
    return chain.working


def _plate_series_area(measured: MeasuredSample) -> Working:
    chain = Chain("plate_series_area", measured)
    computed = chain.sections()
    template = "1/√(" + " + ".join(f"1/{{{section.symbol}}}²" for section in computed) + ")"
    chain.line("Aₛ", "one area with the inertial loss of all in series", template, computed, "area")
    return chain.working


def _media_gross_area(measured: MeasuredSample) -> Working:
    chain = Chain("media_gross_area", measured)
    if measured.media_is_forecast:
        chain.forecast(GROSS_FORECAST)
        return chain.working
    length, width = chain.reading("media.strip_length", "L"), chain.reading("media.strip_width", "W")
    chain.line("A", "length × width, one face", "{L}·{W}", [length, width], "media_area")
    return chain.working


def _media_effective_area(measured: MeasuredSample) -> Working:
    chain = Chain("media_effective_area", measured)
    if measured.media_is_forecast:
        chain.forecast(FORECAST)
        return chain.working
    length, overlap = chain.reading("media.strip_length", "L"), chain.reading_or_usual("media.seam_overlap", "o")
    width, potting = chain.reading("media.strip_width", "W"), chain.reading_or_usual("element.potting_depth", "p")
    open_width = chain.line("w", "width open between the potting", "max(0, {W} − 2·{p})", [width, potting], "length")
    if "media.blocked_pleats" in measured.known:
        depth, blocked = chain.pleat_depth(), chain.reading("media.blocked_pleats", "b", "count")
        template = "max(0, {L} − {o} − {b}·2·{h})"
        open_length = chain.line(
            "l", "length less seam and blocked pleats", template, [length, overlap, blocked, depth], "length"
        )
    else:
        open_length = chain.line("l", "length less the seam", "max(0, {L} − {o})", [length, overlap], "length")
    template, operands = "{l}·{w}", [open_length, open_width]
    if "media.blocked_area" in measured.known:
        template = "max(0, {l}·{w} − {B})"
        operands.append(chain.reading("media.blocked_area", "B", "media_area"))
    chain.line("A", "effective area, one face", template, operands, "media_area")
    return chain.working


def _pleat_opening(measured: MeasuredSample) -> Working:
    chain = Chain("pleat_opening_at_inside", measured)
    media, backing = chain.reading("media.thickness", "t"), chain.reading_or_usual("media.backing_thickness", "b")
    pack = chain.line("p", "media and backing", "{t} + {b}", [media, backing], "length")
    pleats, inside = chain.reading("element.pleat_count", "N", "count"), chain.reading("element.inside_diameter", "d")
    template = "1 − 2·{N}·{p}/(π·{d})"
    chain.line("o", "open share of the inside circumference", template, [pleats, pack, inside], "fraction")
    return chain.working


def _media_permeability(measured: MeasuredSample) -> Working:
    chain = Chain("media_permeability", measured)
    if measured.permeability.result.basis == "family":
        family = measured.sample.media_family or ""
        default = FAMILY_DEFAULTS[family].permeability
        usual = chain.given("κ₀", f"usual for {family}", default, "permeability", "media_family", "assumed")
        chain.line("κ", "permeability", "{κ₀}", [usual], "permeability")
        return chain.working
    estimate = measured.estimates["media.air_permeability"]
    stated = measured.sample.media_air_drop_pa
    usual_drop = AIR_DROP_INCH if estimate.unit == "cfm/ft2" else AIR_DROP_METRIC
    drop_from: Provenance = "measured" if stated else "assumed"
    drop = chain.given("Δp", "pressure of the air test", stated or usual_drop, "pressure", "media_air_drop_pa", drop_from)
    air = Operand("μ", "viscosity of air", AIR_VISCOSITY, "viscosity")
    flow = chain.reading("media.air_permeability", "q", "air_permeability")
    thickness = chain.reading("media.thickness", "t")
    chain.line("κ", "permeability", "{μ}·{q}·{t}/{Δp}", [air, flow, thickness, drop], "permeability")
    return chain.working


def _opening(chain: Chain) -> Operand:
    """Add the lines of the opening pressure and return it."""
    measured, basis = chain.measured, chain.measured.bypass.opening.basis
    if basis == "pressure":
        bench = chain.reading("bypass.opening_pressure", "p", "pressure")
        return chain.line("p₀", "opening pressure as read on the bench", "{p}", [bench], "pressure")
    if basis == "force":
        force, seat = chain.reading("bypass.opening_force", "F", "force"), chain.seat_area()
        return chain.line("p₀", "opening pressure", "{F}/{S}", [force, seat], "pressure")
    if basis == "spring":
        rate = chain.spring_rate()
        free, installed = chain.reading("bypass.spring_free_length", "L₀"), chain.reading("bypass.spring_installed_length", "L₁")
        template = "max(0, {k}·({L₀} − {L₁}))"
        force = chain.line("F", "force when installed", template, [rate, free, installed], "force")
        seat = chain.seat_area()
        return chain.line("p₀", "opening pressure", "{F}/{S}", [force, seat], "pressure")
    stated, source = measured.stated.value, measured.stated.key
    if isinstance(stated, tuple):
        low = chain.given("p₁", "lower end of the stated band", stated[0] * 1e3, "pressure", source, measured.stated.provenance)
        high = chain.given("p₂", "upper end of the stated band", stated[1] * 1e3, "pressure", source, measured.stated.provenance)
        width = (stated[1] - stated[0]) * 1e3
        spread = measured.variables.with_rectangular("bypass.stated_kpa", 0.0, rectangular(width))
        within = chain.given("ε", "where in the band it opens", spread, "pressure", "bypass.stated_kpa", "assumed")
        template = "({p₁} + {p₂})/2 + {ε}"
        return chain.line("p₀", "middle of the stated band", template, [low, high, within], "pressure")
    figure = chain.given("p", "stated setting", (stated or 0.0) * 1e3, "pressure", source, measured.stated.provenance)
    return chain.line("p₀", "as stated", "{p}", [figure], "pressure")


def _bypass_opening(measured: MeasuredSample) -> Working:
    chain = Chain("bypass_opening", measured)
    _opening(chain)
    return chain.working


def _bypass_full_open(measured: MeasuredSample) -> Working:
    chain = Chain("bypass_full_open", measured)
    opening = _opening(chain)
    if measured.bypass.spring is None:
        ratio = Operand(
            "r", "full lift over opening pressure", FULL_LIFT_PRESSURE_RATIO, "number", "bypass.spring_rate", "assumed"
        )
        chain.line("p₁", "pressure at full lift", "{r}·{p₀}", [ratio, opening], "pressure")
        return chain.working
    steps = {step.symbol: step for step in chain.working.steps}
    rate = Operand("k", "spring rate", steps["k"].value, "spring_rate") if "k" in steps else chain.spring_rate()
    seat = Operand("S", "seat area", steps["S"].value, "area") if "S" in steps else chain.seat_area()
    if "bypass.lift_limit" in measured.known:
        lift = chain.reading("bypass.lift_limit", "x")
    else:
        diameter = next(step for step in chain.working.steps if step.symbol == "D")
        seat_diameter = Operand("D", diameter.words, diameter.value, "length")
        lift = chain.line("x", "lift limit, a quarter of the seat", "{D}/4", [seat_diameter], "length")
    chain.line("p₁", "pressure at full lift", "{p₀} + {k}·{x}/{S}", [opening, rate, lift, seat], "pressure")
    return chain.working


def _counted_efficiency(chain: Chain, test: CountedTest) -> None:
    """Add the lines from counts to the efficiency at 20 µm(c): the nearest counted size, the curve, and its interval."""
    for read in test.readings:
        how = f", read as {read.scale}" if len(test.readings) > 1 else ""
        _nearest_beta(chain, test, read, how)
        if read.scale != "um(c)":
            _converted_sizes(chain, test, read)
        if (point := test.deciding_point(REFERENCE_SIZE)) is not None:
            _at_point(chain, point)
            continue
        if isinstance(read.curve, CountedCurve):
            _on_curve(chain, test, read.curve, how)
            continue
        for symbol, index, beta in test.bounding_betas(read, REFERENCE_SIZE):
            words = f"{'lower' if symbol == 'E₁' else 'upper'} end of β at {test.counts.sizes_um[index]:g} µm, by counting{how}"
            end = chain.given("β", words, beta, "number", "counts", "published")
            side = "at least" if symbol == "E₁" else "at most"
            chain.line(
                symbol, f"efficiency at 20 µm(c) is {side}, as it rises with size{how}", "max(0, 1 − 1/{β})", [end], "fraction"
            )


def _nearest_beta(chain: Chain, test: CountedTest, read: ReadAs, how: str) -> None:
    totals, sizes = test.totals, test.counts.sizes_um
    used = [
        i for i, fault in enumerate(totals.size_faults) if not fault and totals.net.downstream[i] > 0 and isfinite(read.sizes[i])
    ]
    if not used:
        return
    i = min(used, key=lambda k: abs(log(read.sizes[k] / REFERENCE_SIZE)))
    net, known = totals.net, _provenance(totals.assumed, "counts.volumes")
    up = chain.given("U", f"counted upstream, net, at {sizes[i]:g} µm", float(net.upstream[i]), "number", "counts", "published")
    down = chain.given("D", "counted downstream, net", float(net.downstream[i]), "number", "counts", "published")
    ratio = chain.given(
        "r", "counted volume over dilution, downstream over upstream", totals.ratio, "number", "counts.volumes", known
    )
    chain.line("β", f"filtration ratio at {sizes[i]:g} µm{how}", "{r}·{U}/{D}", [ratio, up, down], "number")


def _converted_sizes(chain: Chain, test: CountedTest, read: ReadAs) -> None:
    known: Provenance = "assumed" if len(test.readings) > 1 else "published"
    for size, converted in zip(test.counts.sizes_um, read.sizes, strict=True):
        if isfinite(converted):
            chain.size_on_new_scale(size, read.scale, "counted at", "counts.scale" if known == "assumed" else "counts", known)


def _at_point(chain: Chain, point: CountedPoint) -> None:
    """Add the lines of the efficiency counted at 20 µm(c) itself, which speaks where the curve fits badly."""
    beta = Operand("β", "as counted", 1 + exp(point.log_beta), "number")
    off = chain.given("ε", "counting, volumes and size scale", point.error, "number", "counts.counting", "published")
    z = chain.line("z", "ln(β − 1) at 20 µm(c), as counted: the curve fits badly", "ln({β} − 1) + {ε}", [beta, off], "number")
    plain = Operand("z", "as above", point.log_beta, "number")
    for symbol, sign, words, far in (("E₁", "−", "lower", point.below), ("E₂", "+", "upper", point.above)):
        step = Operand("δ", f"to its {words} end, 95 %", far, "number")
        chain.line(symbol, f"{words} end of the efficiency", f"1/(1 + exp(−({{z}} {sign} {{δ}})))", [plain, step], "fraction")
    chain.line("E", "efficiency", "1/(1 + exp(−{z}))", [z], "fraction")


def _on_curve(chain: Chain, test: CountedTest, curve: CountedCurve, how: str) -> None:
    size = Operand("x", "particle size", REFERENCE_SIZE, "micrometre")
    log_size, second = curve.parameters()
    middle = chain.given("ln x₅₀", f"of the size at β = 2, by the counts{how}", log_size, "number", "counts", "published")
    if curve.form is INTERCEPTION:
        fibre = chain.given("ln f", "of the fibre of the curve, by the counts", second, "number", "counts", "published")
        of_flow = "2·(1 + {R})·ln(1 + {R}) − (1 + {R}) + 1/(1 + {R})"
        flows = []
        for symbol, at, template in (("I", size, "ln({x})"), ("I₅₀", middle, "{ln x₅₀}")):
            words = f"size over fibre, {'20 µm(c)' if at is size else 'at β = 2'}{how}"
            ratio = chain.line("R", words, f"exp({template} − {{ln f}})", [at, fibre], "number")
            flows.append(chain.line(symbol, "interception", of_flow, [ratio], "number"))
        operands, template = flows, "ln(exp(ln(2)·{I}/{I₅₀}) − 1)"
    else:
        m = chain.given("m", "slope of the curve, by the counts", second, "number", "counts", "published")
        operands, template = [size, middle, m], "{m}·(ln({x}) − {ln x₅₀})"
    if curve.has_interval:
        known = _provenance(test.assumed, "counts.ratio_uncertainty", "counts.size_uncertainty")
        error = curve.log_beta_error(REFERENCE_SIZE)
        off = chain.given("ε", "volumes and size scale", error, "number", "counts.volumes", known)
        operands, template = [*operands, off], f"{template} + {{ε}}"
    z = chain.line("z", f"ln(β − 1) at 20 µm(c), on the curve{how}", template, operands, "number")
    if curve.has_interval:
        plain = Operand("z", "as above", float(nominal_value(z.value)), "number")
        u = Operand("u", "standard uncertainty of z", float(std_dev(z.value)), "number")
        times = Operand("T", "to 95 %", curve.coverage, "number")
        for symbol, sign, words in (("E₁", "−", "lower"), ("E₂", "+", "upper")):
            template = f"1/(1 + exp(−({{z}} {sign} {{T}}·{{u}})))"
            chain.line(symbol, f"{words} end of the efficiency{how}", template, [plain, times, u], "fraction")
    chain.line("E", f"efficiency{how}", "1/(1 + exp(−{z}))", [z], "fraction")


def _provenance(assumed: tuple[str, ...], *keys: str) -> Provenance:
    return "assumed" if any(key in assumed for key in keys) else "published"


def _efficiency(measured: MeasuredSample) -> Working:
    chain = Chain("efficiency_at_20_um", measured)
    if isinstance(measured.counted, CountedTest):
        _counted_efficiency(chain, measured.counted)
        return chain.working
    claim = usable_claim(measured.sample.claims)
    size = Operand("x", "particle size", REFERENCE_SIZE, "micrometre")
    if claim is not None:
        beta = chain.given(
            "β₀", f"claimed filtration ratio ({claim.relation})", claim.beta, "number", "claims", claim.claim.counts_as
        )
        result, _ = efficiency_results(measured)
        for at in chain.claimed_sizes(claim.claim):
            for slope in (LEAST_SLOPE, STEEPEST_SLOPE) if result.value is None else (LEAST_SLOPE,):
                steep = Operand("m", "slope an engine filter's curve may have", slope, "number")
                template = f"1 + ({{β₀}} − 1)·({{x}}/{{{at.symbol}}})^{{m}}"
                words = f"filtration ratio at 20 µm(c), slope {steep.value:g}{chain.read_as(at)}"
                ratio = chain.line("β", words, template, [beta, size, at, steep], "number")
                chain.line("E", f"efficiency, slope {steep.value:g}{chain.read_as(at)}", "1 − 1/{β}", [ratio], "fraction")
        return chain.working
    medium = screening_medium(measured)
    if medium is None:
        return chain.working
    fibre_from: Provenance = "assumed" if "media.fibre_diameter" in medium.assumed else "measured"
    solid_from: Provenance = "assumed" if "media.dry_mass" in medium.assumed else "measured"
    fibre = chain.given("f", "fibre diameter", medium.fibre_diameter, "micrometre", "media.fibre_diameter", fibre_from)
    alpha = chain.given("α", "solidity", medium.solidity, "number", "media.dry_mass", solid_from)
    gamma = chain.given("γ", "inhomogeneity of the family", medium.inhomogeneity, "number", "media_family", "assumed")
    thickness = chain.given("t", "thickness", medium.thickness, "micrometre", "media.thickness", "measured")
    ku = chain.line("Ku", "Kuwabara's factor", "−0.5·ln({α}) − 0.75 + {α} − {α}²/4", [alpha], "number")
    ratio = chain.line("R", "particle over fibre", "{x}/{f}", [size, fibre], "number")
    template = "(2·(1 + {R})·ln(1 + {R}) − (1 + {R}) + 1/(1 + {R}))/(2·{Ku})"
    single = chain.line("η", "single fibre, interception", template, [ratio, ku], "number")
    template = "1 − exp(−4·{α}·{η}·{γ}·{t}/(π·{f}·(1 − {α})))"
    chain.line("E", "screening estimate, never a rating", template, [alpha, single, gamma, thickness, fibre], "fraction")
    return chain.working


CHAINS: dict[str, Callable[[MeasuredSample], Working]] = {
    "inlet_hole_area": _inlet_hole_area,
    "plate_flow_area": _plate_flow_area,
    "plate_series_area": _plate_series_area,
    "media_gross_area": _media_gross_area,
    "media_effective_area": _media_effective_area,
    "pleat_opening_at_inside": _pleat_opening,
    "media_permeability": _media_permeability,
    "bypass_opening": _bypass_opening,
    "bypass_full_open": _bypass_full_open,
    "efficiency_at_20_um": _efficiency,
}
"""The chain of every result that is worked out in lines, by the result's name."""


def working_of(name: str, measured: MeasuredSample) -> Working:
    """Return the working of a result that is complete.

    Parameters
    ----------
    name : str
        Of the result, as in `SampleResults`.
    measured : MeasuredSample
        The filter.
    """
    return CHAINS[name](measured)

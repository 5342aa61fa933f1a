"""The chain of lines behind each result, from readings to the number on the tape."""

from __future__ import annotations

from collections.abc import Callable

from tabrel.core.catalogue.hole_dimensions import SHAPE_DIMENSIONS
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.results import RESULTS
from tabrel.core.parts.bypass_valve import FULL_LIFT_PRESSURE_RATIO, SHEAR_MODULUS
from tabrel.core.parts.efficiency import (
    LEAST_SLOPE,
    REFERENCE_SIZE,
    SCALE_B_TO_C,
    STEEPEST_SLOPE,
    old_scale_neighbours,
    possible_sizes,
    usable_claim,
)
from tabrel.core.parts.holes import MeasuredHoles
from tabrel.core.parts.media import AIR_DROP_INCH, AIR_DROP_METRIC, AIR_VISCOSITY, FAMILY_DEFAULTS
from tabrel.core.results.working import Measure, Operand, Working
from tabrel.core.sample.efficiency import efficiency_results, screening_medium
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Claim, HoleGroup, Provenance
from tabrel.core.uncertainty.propagation import Uncertain, rectangular
from tabrel.core.uncertainty.sampled_number import nominal_value


class _Chain:
    """Builds the lines of one working from the inputs of one sample."""

    def __init__(self, name: str, measured: MeasuredSample) -> None:
        self.working = Working(RESULTS[name].title)
        self.measured = measured

    def reading(self, key: str, symbol: str, measure: Measure = "length") -> Operand:
        """Return a measured quantity as an operand."""
        estimate = self.measured.estimates[key]
        return Operand(symbol, QUANTITIES[key].title, self.measured.known[key], measure, key, estimate.provenance)

    def reading_or(self, key: str, symbol: str, default: float, measure: Measure = "length") -> Operand:
        """Return a measured quantity, or a default marked assumed."""
        if key in self.measured.known:
            return self.reading(key, symbol, measure)
        return Operand(symbol, QUANTITIES[key].title, default, measure, key, "assumed")

    def line(self, symbol: str, words: str, template: str, operands: list[Operand], measure: Measure) -> Operand:
        """Add a line."""
        return self.working.line(symbol, words, template, operands, measure)

    def given(self, symbol: str, words: str, value: Uncertain, measure: Measure, key: str, provenance: Provenance) -> Operand:
        """Return a number that is no reading: of the engine, of a table, of a claim."""
        return Operand(symbol, words, value, measure, key, provenance)

    # areas of the plate

    def hole_area(self, path: str, groups: tuple[HoleGroup, ...], holes: MeasuredHoles, symbol: str) -> Operand:
        """Add the lines from the sizes of holes to their area."""
        terms: list[str] = []
        operands: list[Operand] = []
        position = 0
        for i, group in enumerate(groups):
            share = 1.0 if group.open_fraction is None else group.open_fraction
            if share == 0:
                continue
            mark = f"{symbol}{i + 1}" if len(groups) > 1 else f"{symbol}₁"
            one = self._one_hole(f"{path}[{i}]", group, holes, position, mark)
            position += 1
            count = Operand(
                f"n{i + 1}" if len(groups) > 1 else "n", "count", float(group.count), "count", f"{path}[{i}]", "measured"
            )
            term = f"{{{count.symbol}}}·{{{one.symbol}}}"
            operands += [count, one]
            if share != 1:
                open_share = Operand(f"f{i + 1}", "open share", share, "number", f"{path}[{i}]", "measured")
                term += f"·{{{open_share.symbol}}}"
                operands.append(open_share)
            terms.append(term)
        return self.line(symbol, "count × area of one hole, open part", " + ".join(terms), operands, "area")

    def _one_hole(self, path: str, group: HoleGroup, holes: MeasuredHoles, position: int, symbol: str) -> Operand:
        geometry = holes.groups[position][2]
        words = f"area of one {group.shape} hole"
        if group.shape == "outline":
            outline = self.given("S", "area inside the outline", geometry.area, "area", f"{path}.points_mm", "measured")
            return self.line(symbol, words, "{S}", [outline], "area")
        letters = {"diameter": "d", "length": "l", "width": "w", "height": "h", "corner_radius": "c"}
        takes = SHAPE_DIMENSIONS[group.shape]
        sizes: dict[str, Operand] = {}
        for dimension in takes.required + takes.optional:
            number = holes.sizes[position].get(dimension)
            if number is not None:
                provenance = holes.provenances[position][dimension]
                key = f"{path}.{dimension}"
                sizes[dimension] = Operand(letters[dimension], dimension.replace("_", " "), number, "length", key, provenance)
        if group.shape == "round" or (group.shape == "d" and _nominal(sizes["height"]) >= _nominal(sizes["diameter"])):
            return self.line(symbol, words, "π·{d}²/4", [sizes["diameter"]], "area")
        if group.shape == "d":
            return self._d_hole(symbol, words, sizes)
        return self._long_hole(symbol, words, group.shape, sizes)

    def _d_hole(self, symbol: str, words: str, sizes: dict[str, Operand]) -> Operand:
        radius = self.line("R", "radius", "{d}/2", [sizes["diameter"]], "length")
        turn = self.line("θ", "half the angle left", "acos(({R} − {h})/{R})", [radius, sizes["height"]], "angle")
        template = "{θ}·{R}² − ({R} − {h})·√(2·{R}·{h} − {h}²)"
        return self.line(symbol, words, template, [radius, turn, sizes["height"]], "area")

    def _long_hole(self, symbol: str, words: str, shape: str, sizes: dict[str, Operand]) -> Operand:
        length, width = sizes["length"], sizes["width"]
        if shape == "ellipse":
            return self.line(symbol, words, "π·{l}·{w}/4", [length, width], "area")
        if shape == "slot":
            template = "{w}·({l} − {w}) + π·{w}²/4"
            if _nominal(length) < _nominal(width):
                template = "{l}·({w} − {l}) + π·{l}²/4"
            return self.line(symbol, words, template, [length, width], "area")
        if "corner_radius" not in sizes:
            return self.line(symbol, words, "{w}·{l}", [length, width], "area")
        template = "{w}·{l} − (4 − π)·min({c}, {w}/2, {l}/2)²"
        return self.line(symbol, words, template, [length, width, sizes["corner_radius"]], "area")

    def sections(self) -> list[Operand]:
        """Add the lines of every section at the plate and return their areas."""
        measured, known = self.measured, self.measured.known
        found = [self.hole_area("holes.inlet", measured.sample.holes.inlet, measured.inlet, "A")]
        if "anti_drain.lift" in known:
            lip, lift = self.reading("anti_drain.lip_diameter", "D"), self.reading("anti_drain.lift", "x")
            found.append(self.line("Aₐ", "curtain under the anti-drainback valve", "π·{D}·{x}", [lip, lift], "area"))
        if stud := measured.circuit.stud:
            bore = self.given("s", "bore of the engine's stud", stud.bore_mm * 1e-3, "length", "engine.stud_bore", "measured")
        else:
            thread, pitch = self.reading("thread.major_diameter", "D"), self.reading("thread.pitch", "P")
            bore = self.line(
                "s", "thread's minor diameter, an upper bound of the bore", "{D} − 1.0825·{P}", [thread, pitch], "length"
            )
        found.append(self.line("Aₒ", "outlet", "π·{s}²/4", [bore], "area"))
        if measured.adapter is not None and measured.circuit.adapter is not None:
            found.append(self.hole_area("engine.adapter_holes", measured.circuit.adapter.holes, measured.adapter, "Aₓ"))
        return found

    # media

    def pleat_depth(self) -> Operand:
        """Return the pleat depth, with its line where it follows from the diameters."""
        if "element.pleat_depth" in self.measured.known:
            return self.reading("element.pleat_depth", "h")
        outside, inside = self.reading("element.outside_diameter", "D"), self.reading("element.inside_diameter", "d")
        return self.line("h", "pleat depth from the diameters", "({D} − {d})/2", [outside, inside], "length")

    def forecast(self) -> None:
        """Add the lines of the area expected before the element is cut."""
        pleats, height = self.reading("element.pleat_count", "N", "count"), self.reading("element.height", "H")
        depth = self.pleat_depth()
        self.line("A", "forecast before the cut", "2·{N}·{h}·{H}", [pleats, depth, height], "media_area")

    # bypass valve

    def seat_area(self) -> Operand:
        """Add the lines of the seat."""
        known = self.measured.known
        inside = self.reading("bypass.seat_inside_diameter", "dᵢ")
        if "bypass.seat_outside_diameter" in known:
            outside = self.reading("bypass.seat_outside_diameter", "dₒ")
            width = abs(_nominal(outside) - _nominal(inside))
            spread = self.measured.variables.with_type_b("bypass.seat_diameter", 0.0, rectangular(width))
            edge = Operand("ε", "which edge the seal bears on", spread, "length", "", None)
            operands = [inside, outside, edge]
            seat = self.line("D", "effective seat diameter", "({dᵢ} + {dₒ})/2 + {ε}", operands, "length")
        else:
            seat = self.line("D", "effective seat diameter, the inside one", "{dᵢ}", [inside], "length")
        return self.line("S", "seat area", "π·{D}²/4", [seat], "area")

    def spring_rate(self) -> Operand:
        """Add the line of the coil spring's rate."""
        material = self.measured.sample.bypass.spring_material
        provenance: Provenance = "published" if material else "assumed"
        words = f"shear modulus of {(material or 'music_wire').replace('_', ' ')}"
        modulus = self.given("G", words, SHEAR_MODULUS[material or "music_wire"], "modulus", "bypass.spring_material", provenance)
        wire, outside = self.reading("bypass.spring_wire_diameter", "d"), self.reading("bypass.spring_outside_diameter", "Dₛ")
        total = self.reading("bypass.spring_total_coils", "nₜ", "count")
        dead = self._dead_coils()
        template = "{G}·{d}⁴/(8·({Dₛ} − {d})³·({nₜ} − {nₑ}))"
        return self.line("k", "spring rate", template, [modulus, wire, outside, total, dead], "spring_rate")

    def claimed_sizes(self, claim: Claim) -> list[Operand]:
        """Add the lines from a claimed size to µm(c), and return what it may be: two where its scale is not named."""
        stated, scale = claim.size_um or 0.0, claim.scale
        if scale == "um(c)":
            return [self.given("x₀", "claimed for, µm(c)", stated, "micrometre", "claims", "published")]
        if scale == "um(b)":
            read = self.given("x_b", "claimed for, µm(b)", stated, "micrometre", "claims", "published")
            factor = Operand("f", "µm(c) in one µm(b)", SCALE_B_TO_C, "number")
            return [self.line("x₀", "claimed size on the ISO 11171 scale", "{f}·{x_b}", [factor, read], "micrometre")]
        found = []
        provenance: Provenance = "published" if scale == "um" else "assumed"
        key = "claims" if scale == "um" else "claims.scale"
        if len(possible_sizes(stated, scale or "um")) > 1 or scale == "um":
            read = self.given("x_a", "claimed for, read as plain µm (ISO 4402)", stated, "micrometre", key, provenance)
            below, above, new_below, new_above = (
                Operand(symbol, words, size, "micrometre")
                for symbol, words, size in zip(
                    ("a₁", "a₂", "c₁", "c₂"),
                    ("tabulated below, ISO 4402", "tabulated above, ISO 4402", "the same in µm(c)", "the same in µm(c)"),
                    old_scale_neighbours(stated),
                    strict=True,
                )
            )
            template = "{c₁} + ({x_a} − {a₁})·({c₂} − {c₁})/({a₂} − {a₁})"
            operands = [read, below, above, new_below, new_above]
            found.append(
                self.line("x₀", "plain µm on the ISO 11171 scale, linear in its table", template, operands, "micrometre")
            )
        if scale == "unnamed":
            found.append(self.given("x₁", "claimed for, read as µm(c)", stated, "micrometre", key, "assumed"))
        return found

    def read_as(self, size: Operand) -> str:
        """Return the words that tell two readings of one claimed size apart; none where its scale is named."""
        claim = usable_claim(self.measured.sample.claims)
        if claim is None or len(claim.sizes) < 2:
            return ""
        return ", read as plain µm" if size.symbol == "x₀" else ", read as µm(c)"

    def _dead_coils(self) -> Operand:
        """Return the dead coils as counted, else those assumed with how far they may be off."""
        spring, key = self.measured.bypass.spring, "bypass.spring_dead_coils"
        if spring is None or key in self.measured.known:
            return self.reading(key, "nₑ", "count")
        return Operand("nₑ", QUANTITIES[key].title, spring.dead_coils, "count", key, "assumed")


def _nominal(operand: Operand) -> float:
    return float(nominal_value(operand.value))


def _inlet_hole_area(measured: MeasuredSample) -> Working:
    chain = _Chain("inlet_hole_area", measured)
    chain.hole_area("holes.inlet", measured.sample.holes.inlet, measured.inlet, "A")
    return chain.working


def _plate_flow_area(measured: MeasuredSample) -> Working:
    chain = _Chain("plate_flow_area", measured)
    found = chain.sections()
    template = "min(" + ", ".join(f"{{{section.symbol}}}" for section in found) + ")"
    chain.line("Aₚ", "the smallest section controls", template, found, "area")
    return chain.working


def _plate_series_area(measured: MeasuredSample) -> Working:
    chain = _Chain("plate_series_area", measured)
    found = chain.sections()
    template = "1/√(" + " + ".join(f"1/{{{section.symbol}}}²" for section in found) + ")"
    chain.line("Aₛ", "one area with the inertial loss of all in series", template, found, "area")
    return chain.working


def _media_gross_area(measured: MeasuredSample) -> Working:
    chain = _Chain("media_gross_area", measured)
    if measured.media_is_forecast:
        chain.forecast()
        return chain.working
    length, width = chain.reading("media.strip_length", "L"), chain.reading("media.strip_width", "W")
    chain.line("A", "length × width, one face", "{L}·{W}", [length, width], "media_area")
    return chain.working


def _media_effective_area(measured: MeasuredSample) -> Working:
    chain = _Chain("media_effective_area", measured)
    if measured.media_is_forecast:
        chain.forecast()
        return chain.working
    length, overlap = chain.reading("media.strip_length", "L"), chain.reading_or("media.seam_overlap", "o", 0.0)
    width, potting = chain.reading("media.strip_width", "W"), chain.reading_or("element.potting_depth", "p", 0.0)
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
    chain = _Chain("pleat_opening_at_inside", measured)
    media, backing = chain.reading("media.thickness", "t"), chain.reading_or("media.backing_thickness", "b", 0.0)
    pack = chain.line("p", "media and backing", "{t} + {b}", [media, backing], "length")
    pleats, inside = chain.reading("element.pleat_count", "N", "count"), chain.reading("element.inside_diameter", "d")
    template = "1 − 2·{N}·{p}/(π·{d})"
    chain.line("o", "open share of the inside circumference", template, [pleats, pack, inside], "fraction")
    return chain.working


def _media_permeability(measured: MeasuredSample) -> Working:
    chain = _Chain("media_permeability", measured)
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


def _opening(chain: _Chain) -> Operand:
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
        low = chain.given("p₁", "lower end of the stated band", stated[0] * 1e3, "pressure", source, "published")
        high = chain.given("p₂", "upper end of the stated band", stated[1] * 1e3, "pressure", source, "published")
        width = (stated[1] - stated[0]) * 1e3
        spread = measured.variables.with_type_b("bypass.stated_kpa", 0.0, rectangular(width))
        within = chain.given("ε", "where in the band it opens", spread, "pressure", "bypass.stated_kpa", "assumed")
        template = "({p₁} + {p₂})/2 + {ε}"
        return chain.line("p₀", "middle of the stated band", template, [low, high, within], "pressure")
    figure = chain.given("p", "stated setting", (stated or 0.0) * 1e3, "pressure", source, "published")
    return chain.line("p₀", "as stated", "{p}", [figure], "pressure")


def _bypass_opening(measured: MeasuredSample) -> Working:
    chain = _Chain("bypass_opening", measured)
    _opening(chain)
    return chain.working


def _bypass_full_open(measured: MeasuredSample) -> Working:
    chain = _Chain("bypass_full_open", measured)
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


def _efficiency(measured: MeasuredSample) -> Working:
    chain = _Chain("efficiency_at_20_um", measured)
    claim = usable_claim(measured.sample.claims)
    size = Operand("x", "particle size", REFERENCE_SIZE, "micrometre")
    if claim is not None:
        beta = chain.given("β₀", f"claimed filtration ratio ({claim.relation})", claim.beta, "number", "claims", "published")
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

    Returns
    -------
    Working
    """
    return CHAINS[name](measured)

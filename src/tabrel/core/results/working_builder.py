"""Builds the lines of a working from what was measured of one sample: areas of holes, media, pressures of the bypass valve."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from tabrel.core.catalogue.hole_dimensions import SHAPE_DIMENSIONS
from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.catalogue.results import RESULTS
from tabrel.core.parts.efficiency import (
    SCALE_B_TO_C,
    old_scale_neighbours,
    possible_sizes,
    usable_claim,
)
from tabrel.core.parts.hole_shapes import LETTERS, SHAPES
from tabrel.core.parts.holes import MeasuredHoles
from tabrel.core.parts.seat_and_spring import SHEAR_MODULUS
from tabrel.core.results.budget import input_title
from tabrel.core.results.working import Measure, Operand, Working
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Claim, HoleGroup, Provenance
from tabrel.core.uncertainty.propagation import Uncertain, rectangular
from tabrel.core.uncertainty.sampled_number import nominal_value


class Chain:
    """Builds the lines of one working from the inputs of one sample."""

    def __init__(self, name: str, measured: MeasuredSample) -> None:
        self.working = Working(RESULTS[name].title)
        self.measured = measured

    def reading(self, key: str, symbol: str, measure: Measure = "length") -> Operand:
        """Return a measured quantity as an operand."""
        estimate = self.measured.estimates[key]
        return Operand(symbol, QUANTITIES[key].title, self.measured.known[key], measure, key, estimate.provenance)

    def reading_or_usual(self, key: str, symbol: str) -> Operand:
        """Return a measured length of the strip, or the usual one marked assumed."""
        if key in self.measured.known:
            return self.reading(key, symbol)
        return Operand(symbol, QUANTITIES[key].title, self.measured.strip.or_usual(key), "length", key, "assumed")

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
            item = self._one_hole(f"{path}[{i}]", group, holes, position, mark)
            position += 1
            count = Operand(
                f"n{i + 1}" if len(groups) > 1 else "n", "count", float(group.count), "count", f"{path}[{i}]", group.counts_as
            )
            term = f"{{{count.symbol}}}·{{{item.symbol}}}"
            operands += [count, item]
            if share != 1:
                open_share = Operand(f"f{i + 1}", "open share", share, "number", f"{path}[{i}]", group.counts_as)
                term += f"·{{{open_share.symbol}}}"
                operands.append(open_share)
            terms.append(term)
        return self.line(symbol, "count × area of one hole, open part", " + ".join(terms), operands, "area")

    def _one_hole(self, path: str, group: HoleGroup, holes: MeasuredHoles, position: int, symbol: str) -> Operand:
        geometry = holes.groups[position][2]
        words = f"area of one {group.shape} hole"
        if group.shape == "outline":
            outline = self.given("S", "area inside the outline", geometry.area, "area", f"{path}.points_mm", group.counts_as)
            return self.line(symbol, words, "{S}", [outline], "area")
        takes = SHAPE_DIMENSIONS[group.shape]
        terms: dict[str, Operand] = {}
        plain: dict[str, float] = {}
        for dimension in takes.required + takes.optional:
            number = holes.sizes[position].get(dimension)
            if number is not None:
                provenance = holes.provenances[position][dimension]
                letter, title = LETTERS[dimension], dimension.replace("_", " ")
                terms[letter] = Operand(letter, title, number, "length", f"{path}.{dimension}", provenance)
                plain[dimension] = _nominal(terms[letter])
        *steps, last = SHAPES[group.shape].lines(plain)
        for step in steps:
            terms[str(step.symbol)] = self.line(
                str(step.symbol), step.words, step.template, _named(step.template, terms), step.measure
            )
        return self.line(symbol, words, last.template, _named(last.template, terms), last.measure)

    def sections(self) -> list[Operand]:
        """Add the lines of every section at the plate and return their areas."""
        measured, known = self.measured, self.measured.known
        sections = [self.hole_area("holes.inlet", measured.sample.holes.inlet, measured.inlet, "A")]
        if "anti_drain.lift" in known:
            lip, lift = self.reading("anti_drain.lip_diameter", "D"), self.reading("anti_drain.lift", "x")
            sections.append(self.line("Aₐ", "curtain under the anti-drainback valve", "π·{D}·{x}", [lip, lift], "area"))
        if stud := measured.circuit.stud:
            known_bore = measured.outlet.diameter if measured.outlet else stud.bore_mm * 1e-3
            told = measured.circuit.provenance or "published"
            bore = self.given("s", "bore of the engine's stud", known_bore, "length", "engine.stud_bore", told)
        else:
            thread, pitch = self.reading("thread.major_diameter", "D"), self.reading("thread.pitch", "P")
            bore = self.line(
                "s", "thread's minor diameter, an upper bound of the bore", "{D} − 1.0825·{P}", [thread, pitch], "length"
            )
        sections.append(self.line("Aₒ", "outlet", "π·{s}²/4", [bore], "area"))
        if measured.adapter is not None and measured.circuit.adapter is not None:
            sections.append(self.hole_area("engine.adapter_holes", measured.circuit.adapter.holes, measured.adapter, "Aₓ"))
        return sections

    # media

    def pleat_depth(self) -> Operand:
        """Return the pleat depth, with its line where it follows from the diameters."""
        if "element.pleat_depth" in self.measured.known:
            return self.reading("element.pleat_depth", "h")
        outside, inside = self.reading("element.outside_diameter", "D"), self.reading("element.inside_diameter", "d")
        return self.line("h", "pleat depth from the diameters", "({D} − {d})/2", [outside, inside], "length")

    def forecast(self, over: str) -> None:
        """Add the lines of the area expected before the element is cut: of the folds, over what it usually is of the other."""
        pleats, height = self.reading("element.pleat_count", "N", "count"), self.reading("element.height", "H")
        area = self.line("A₀", "of the folds", "2·{N}·{h}·{H}", [pleats, self.pleat_depth(), height], "media_area")
        usual = self.given("f", f"{input_title(over)}, usual", self.measured.strip.usual[over], "number", over, "assumed")
        self.line("A", "forecast", "{A₀}/{f}", [area, usual], "media_area")

    # bypass valve

    def seat_area(self) -> Operand:
        """Add the lines of the seat."""
        known = self.measured.known
        inside = self.reading("bypass.seat_inside_diameter", "dᵢ")
        mark = self.measured.sample.bypass.seat_mark
        if "bypass.seat_outside_diameter" in known and mark == "outer":
            outside = self.reading("bypass.seat_outside_diameter", "dₒ")
            seat = self.line("D", "effective seat diameter, the edge that is marked", "{dₒ}", [outside], "length")
        elif "bypass.seat_outside_diameter" in known and mark != "inner":
            outside = self.reading("bypass.seat_outside_diameter", "dₒ")
            width = abs(_nominal(outside) - _nominal(inside))
            spread = self.measured.variables.with_rectangular("bypass.seat_diameter", 0.0, rectangular(width))
            edge = Operand("ε", "which edge the seal bears on", spread, "length", "", None)
            operands = [inside, outside, edge]
            seat = self.line("D", "effective seat diameter", "({dᵢ} + {dₒ})/2 + {ε}", operands, "length")
        else:
            seat = self.line("D", "effective seat diameter, the inside one", "{dᵢ}", [inside], "length")
        return self.line("S", "seat area", "π·{D}²/4", [seat], "area")

    def spring_rate(self) -> Operand:
        """Add the line of the coil spring's rate."""
        material = self.measured.sample.bypass.spring_material
        is_stated = material is not None and "observations/bypass.spring_material" not in self.measured.sample.copied
        provenance: Provenance = "published" if is_stated else "assumed"
        words = f"shear modulus of {(material or 'music_wire').replace('_', ' ')}"
        modulus = self.given("G", words, SHEAR_MODULUS[material or "music_wire"], "modulus", "bypass.spring_material", provenance)
        wire, outside = self.reading("bypass.spring_wire_diameter", "d"), self.reading("bypass.spring_outside_diameter", "Dₛ")
        total, spring = self.reading("bypass.spring_total_coils", "nₜ", "count"), self.measured.bypass.spring
        if spring is not None:
            total = replace(total, value=spring.total_coils)
        dead = self._dead_coils()
        template = "{G}·{d}⁴/(8·({Dₛ} − {d})³·({nₜ} − {nₑ}))"
        return self.line("k", "spring rate", template, [modulus, wire, outside, total, dead], "spring_rate")

    def claimed_sizes(self, claim: Claim) -> list[Operand]:
        """Add the lines from a claimed size to µm(c), and return what it may be: two where its scale is not named."""
        stated, scale = claim.size_um or 0.0, claim.scale
        if scale == "um(c)":
            return [self.given("x₀", "claimed for, µm(c)", stated, "micrometre", "claims", claim.counts_as)]
        if scale == "um(b)":
            return [self.size_on_new_scale(stated, "um(b)", "claimed for", "claims", claim.counts_as)]
        sizes = []
        provenance: Provenance = claim.counts_as if scale == "um" else "assumed"
        key = "claims" if scale == "um" else "claims.scale"
        if len(possible_sizes(stated, scale or "um")) > 1 or scale == "um":
            sizes.append(self.size_on_new_scale(stated, "um", "claimed for", key, provenance))
        if scale == "unnamed":
            sizes.append(self.given("x₁", "claimed for, read as µm(c)", stated, "micrometre", key, "assumed"))
        return sizes

    def size_on_new_scale(self, stated: float, scale: str, words: str, key: str, provenance: Provenance) -> Operand:
        """Add the line from a size in µm(b) or plain µm to µm(c), and return it."""
        if scale == "um(b)":
            read = self.given("x_b", f"{words}, µm(b)", stated, "micrometre", key, provenance)
            factor = Operand("f", "µm(c) in one µm(b)", SCALE_B_TO_C, "number")
            return self.line("x₀", "µm(b) on the ISO 11171 scale", "{f}·{x_b}", [factor, read], "micrometre")
        read = self.given("x_a", f"{words}, read as plain µm (ISO 4402)", stated, "micrometre", key, provenance)
        below, above, new_below, new_above = (
            Operand(symbol, what, size, "micrometre")
            for symbol, what, size in zip(
                ("a₁", "a₂", "c₁", "c₂"),
                ("tabulated below, ISO 4402", "tabulated above, ISO 4402", "the same in µm(c)", "the same in µm(c)"),
                old_scale_neighbours(stated),
                strict=True,
            )
        )
        template = "{c₁} + ({x_a} − {a₁})·({c₂} − {c₁})/({a₂} − {a₁})"
        operands = [read, below, above, new_below, new_above]
        return self.line("x₀", "plain µm on the ISO 11171 scale, linear in its table", template, operands, "micrometre")

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


def _named(template: str, terms: Mapping[str, Operand]) -> list[Operand]:
    """Return the terms that a template names."""
    return [term for symbol, term in terms.items() if f"{{{symbol}}}" in template]


def _nominal(operand: Operand) -> float:
    return float(nominal_value(operand.value))

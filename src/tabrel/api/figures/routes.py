"""Figures beside the readings of the opened filter: valve, parts tray, pleat pack, strip."""

from __future__ import annotations

from collections.abc import Iterable

from fastapi import APIRouter

from tabrel.api.deps import Connection, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.figures.models import (
    AgreementOut,
    ClaimedEfficiencyOut,
    DeductionOut,
    EfficiencyOut,
    EvidenceOut,
    FiguresOut,
    OilWayOut,
    PackOut,
    PleatCurveOut,
    SectionDimensionOut,
    SectionPartOut,
    StatedBandOut,
    StripOut,
    TrayOut,
    TrayPartOut,
    ValveCurveOut,
    ValveOut,
    ValveSizesOut,
    WholeSectionOut,
)
from tabrel.api.sample.sheet import OpenedSample, opened_sample
from tabrel.core.figures.efficiency_evidence import DRAWN_SIZES, efficiency_evidence
from tabrel.core.figures.media_deductions import StripAreas, strip_areas
from tabrel.core.figures.opening_evidence import Agreement, OpeningComparison, StatedBand, opening_comparison
from tabrel.core.figures.parts_tray import can_strength, mass_balance
from tabrel.core.figures.pleat_count import pleat_count_curve
from tabrel.core.figures.pleat_pack import pack_figure
from tabrel.core.figures.section_layout import Point, section_layout
from tabrel.core.figures.valve_sizes import valve_sizes
from tabrel.core.oil.model import OilModel, oil_model
from tabrel.core.parts.efficiency import REFERENCE_SIZE
from tabrel.core.parts.media import FAMILY_PERMEABILITY_FACTOR
from tabrel.core.parts.valve_curve import valve_curve
from tabrel.core.review.claims import claim_words
from tabrel.core.sample.efficiency import efficiency_at_size
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Circuit
from tabrel.document.results import result_out

router = APIRouter(prefix="/api", tags=["figures"], responses=PROBLEM_RESPONSES)

BENCH_TEMPERATURE = 20.0
HOT_TEMPERATURE = 100.0


_SENSES = {
    "dome_end": "the pressure across the media at the far end, beyond the can annulus",
    "thread_end": "the differential pressure of the element",
    "block": "the differential pressure of the whole filter",
    "adapter": "the differential pressure of the whole filter",
    "none": None,
}


@router.get("/samples/{sample_id}/figures")
def get_figures(sample_id: SampleId, conn: Connection) -> FiguresOut:
    """Return what is drawn beside the readings of the opened filter."""
    return figures_of(opened_sample(conn, sample_id))


def figures_of(opened: OpenedSample) -> FiguresOut:
    """Return what is drawn of a sample."""
    study, measured = opened.study, opened.measured
    strip = strip_areas(measured)
    return FiguresOut(
        valve=_valve(measured, oil_model(study.oil) if study.oil else None, study.circuit or Circuit()),
        tray=_tray(measured),
        pack=_pack(measured),
        pleat_curve=_pleat_curve(measured),
        strip=_strip(strip) if strip else None,
        efficiency=_efficiency(measured),
        section=_section(measured),
    )


def _valve(measured: MeasuredSample, oil: OilModel | None, circuit: Circuit) -> ValveOut:
    compared: OpeningComparison = opening_comparison(measured)
    sizes = valve_sizes(measured)
    valve, bypass = measured.bypass.valve, measured.bypass
    hot = circuit.engine.temperature_c if circuit.engine else HOT_TEMPERATURE
    curves = [valve_curve(valve, oil, temperature) for temperature in (BENCH_TEMPERATURE, hot)] if valve and oil else []
    return ValveOut(
        evidence=[
            EvidenceOut(
                basis=evidence.basis,
                kpa=(evidence.opening.value or 0.0) / 1e3,
                expanded_kpa=evidence.opening.expanded_uncertainty / 1e3 if evidence.opening.expanded_uncertainty else None,
                low_kpa=None if evidence.opening.low is None else evidence.opening.low / 1e3,
                high_kpa=None if evidence.opening.high is None else evidence.opening.high / 1e3,
                is_used=evidence.is_used,
            )
            for evidence in compared.evidence
        ],
        agreements=[_agreement(agreement) for agreement in compared.agreements],
        closing_kpa=compared.closing.value / 1e3 if compared.closing and compared.closing.value is not None else None,
        stated_band=_stated(compared.stated_band),
        kind=measured.sample.bypass.kind,
        senses=_SENSES.get(measured.sample.bypass.location or ""),
        opening_kpa=None if bypass.opening.value is None else bypass.opening.value / 1e3,
        full_open_kpa=None if bypass.full_open.value is None else bypass.full_open.value / 1e3,
        half_open_kpa=None if sizes.half_open_pressure is None else sizes.half_open_pressure / 1e3,
        lift_limit_mm=valve.lift_limit * 1e3 if valve else _mm(measured, "bypass.lift_limit"),
        lift_is_assumed="bypass.lift_limit" not in measured.known,
        sizes=ValveSizesOut(
            form=sizes.form,
            seat_inside_mm=sizes.seat_inside * 1e3,
            seat_outside_mm=sizes.seat_outside * 1e3,
            disc_mm=sizes.disc * 1e3,
            lift_mm=sizes.lift * 1e3,
            spring_width_mm=sizes.spring_width * 1e3,
            spring_length_mm=sizes.spring_length * 1e3,
            wire_mm=sizes.wire * 1e3,
            coils=sizes.coils,
            is_typical=sizes.is_typical,
        ),
        coil_bound=compared.coil_bound,
        curves=[
            ValveCurveOut(
                temperature_c=curve.temperature,
                kpa=(curve.pressure / 1e3).tolist(),
                lift_mm=(curve.lift * 1e3).tolist(),
                l_min=(curve.flow_rate * 60e3).tolist(),
            )
            for curve in curves
        ],
    )


def _agreement(agreement: Agreement) -> AgreementOut:
    return AgreementOut(
        first=agreement.first,
        second=agreement.second,
        normalised_error=agreement.normalised_error,
        agrees=agreement.agrees,
        reservation=agreement.reservation,
    )


def _stated(band: StatedBand | None) -> StatedBandOut | None:
    if band is None:
        return None
    return StatedBandOut(
        low_kpa=band.low / 1e3,
        high_kpa=band.high / 1e3,
        opens_at_low=_agreement(band.opens_at_low),
        full_open_at_high=_agreement(band.full_open_at_high) if band.full_open_at_high else None,
        within_tolerance=band.within_tolerance,
    )


def _tray(measured: MeasuredSample) -> TrayOut:
    balance, strength = mass_balance(measured), can_strength(measured)
    difference = balance.difference

    def grams(mass: float | None) -> float | None:
        return None if mass is None else mass * 1e3

    return TrayOut(
        parts=[TrayPartOut(part=part.part, grams=grams(part.mass), state=part.state) for part in balance.parts],
        whole_grams=grams(balance.whole),
        difference_grams=grams(difference.value) if difference else None,
        difference_expanded_grams=grams(difference.expanded_uncertainty) if difference else None,
        closes=balance.closes,
        words=balance.words,
        shell_grams=grams(strength.shell_mass),
        shell_ratio=strength.shell_ratio,
        hoop_stress_mpa=None if strength.hoop_stress is None else strength.hoop_stress / 1e6,
        yield_mpa=[pressure / 1e6 for pressure in strength.yield_pressure] if strength.yield_pressure else None,
        thread_engagement_mm=None if strength.thread_engagement is None else strength.thread_engagement * 1e3,
    )


def _pack(measured: MeasuredSample) -> PackOut:
    pack = pack_figure(measured)
    return PackOut(
        outside_mm=pack.outside_diameter * 1e3,
        inside_mm=pack.inside_diameter * 1e3,
        count=pack.count,
        thickness_mm=pack.thickness * 1e3,
        depth_mm=pack.depth * 1e3,
        can_inside_mm=_mm(measured, "can.inside_diameter"),
        measured=list(pack.measured),
        opening_percent=100 * pack.opening,
        crowding=pack.crowding,
        tube_open_mm2=None if pack.tube_open_area is None else pack.tube_open_area * 1e6,
    )


def _pleat_curve(measured: MeasuredSample) -> PleatCurveOut | None:
    curve = pleat_count_curve(measured)
    if curve is None:
        return None
    return PleatCurveOut(
        counts=list(curve.counts),
        media=list(curve.media),
        channels=list(curve.channels),
        count=curve.count,
        optimum=curve.optimum,
        least_loss=curve.least_loss,
        largest_count=curve.largest_count,
    )


def _strip(strip: StripAreas) -> StripOut:
    return StripOut(
        length_mm=strip.length * 1e3,
        width_mm=strip.width * 1e3,
        potting_mm=strip.potting * 1e3,
        overlap_mm=strip.overlap * 1e3,
        blocked_length_mm=strip.blocked_length * 1e3,
        gross_cm2=strip.gross * 1e4,
        effective_cm2=strip.effective * 1e4,
        deductions=[
            DeductionOut(key=deduction.key, cm2=deduction.area * 1e4, measured=deduction.measured)
            for deduction in strip.deductions
        ],
        is_forecast=strip.is_forecast,
        pulled_length_mm=None if strip.pulled_length is None else strip.pulled_length * 1e3,
        pleats_length_mm=None if strip.pleats_length is None else strip.pleats_length * 1e3,
        length_off_percent=_percent(strip.length_off),
        grammage_g_m2=None if strip.grammage is None else strip.grammage * 1e3,
    )


def _section(measured: MeasuredSample) -> WholeSectionOut:
    layout = section_layout(measured)

    def millimetres(points: Iterable[Point]) -> list[list[float]]:
        return [[round(x * 1e3, 3), round(y * 1e3, 3)] for x, y in points]

    return WholeSectionOut(
        parts=[
            SectionPartOut(key=part.key, material=part.material, points_mm=millimetres(part.outline), guessed=part.guessed)
            for part in layout.parts
        ],
        dimensions=[
            SectionDimensionOut(key=dimension.key, points_mm=millimetres((dimension.start, dimension.end)))
            for dimension in layout.dimensions
        ],
        ways=[OilWayOut(kind=way.kind, points_mm=millimetres(way.points)) for way in layout.ways],
        radius_mm=layout.radius * 1e3,
        bottom_mm=layout.bottom * 1e3,
        top_mm=layout.top * 1e3,
        problems=[problem.message for problem in layout.problems],
        has_can=layout.has_can,
    )


def _efficiency(measured: MeasuredSample) -> EfficiencyOut:
    evidence, permeability = efficiency_evidence(measured), measured.permeability.result
    at_20 = efficiency_at_size(measured, REFERENCE_SIZE)
    medium = evidence.medium
    return EfficiencyOut(
        claims=[
            ClaimedEfficiencyOut(
                words=claim_words(claimed.claim),
                source=claimed.claim.source,
                relation=claimed.claim.relation or "=",
                sizes_um_c=list(claimed.point.sizes) if claimed.point else [],
                percent=claimed.claim.efficiency_percent,
                low_at_20_percent=_percent(claimed.at_20_um.low) if claimed.at_20_um else None,
                high_at_20_percent=_percent(claimed.at_20_um.high) if claimed.at_20_um else None,
                why_not=claimed.why_not,
                is_used=claimed.is_used,
            )
            for claimed in evidence.claims
        ],
        sizes_um_c=DRAWN_SIZES.tolist() if medium else [],
        estimate=[_percent(result.value) or 0.0 for result in evidence.estimate],
        low=[_percent(result.low) or 0.0 for result in evidence.estimate],
        high=[_percent(result.high) or 0.0 for result in evidence.estimate],
        valid_to_um_c=medium.largest_valid_size() if medium else None,
        estimate_is_used=medium is not None and at_20.basis == "estimate",
        counted_at_20=result_out(at_20.scaled(100)) if at_20.basis == "counts" else None,
        fibre_diameter_um=medium.fibre_diameter if medium else None,
        solidity_percent=100 * medium.solidity if medium else None,
        assumed=list(medium.assumed) if medium else [],
        permeability_um2=None if permeability.value is None else permeability.value * 1e12,
        permeability_basis=permeability.basis,
        permeability_factor=FAMILY_PERMEABILITY_FACTOR if permeability.basis == "family" else 1.0,
    )


def _percent(share: float | None) -> float | None:
    return None if share is None else 100 * share


def _number(measured: MeasuredSample, key: str) -> float | None:
    return measured.estimates[key].value if key in measured.estimates else None


def _mm(measured: MeasuredSample, key: str) -> float | None:
    value = _number(measured, key)
    return None if value is None else value * 1e3

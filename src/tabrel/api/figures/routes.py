"""Figures beside the readings of the opened filter: valve, parts tray, pleat pack, strip."""

from __future__ import annotations

from fastapi import APIRouter

from tabrel.api.deps import Connection, SampleId
from tabrel.api.errors import PROBLEM_RESPONSES
from tabrel.api.figures.models import ClaimedEfficiencyOut, EfficiencyOut, FiguresOut, ValveOut
from tabrel.api.sample.sheet import OpenedSample, opened_sample
from tabrel.core.figures.efficiency_evidence import DRAWN_SIZES, efficiency_evidence
from tabrel.core.figures.media_deductions import strip_areas
from tabrel.core.figures.opening_evidence import opening_comparison
from tabrel.core.figures.parts_tray import can_strength, mass_balance
from tabrel.core.figures.pleat_count import pleat_count_curve
from tabrel.core.figures.pleat_pack import pack_figure
from tabrel.core.oil.model import OilModel, oil_model
from tabrel.core.parts.efficiency import REFERENCE_SIZE
from tabrel.core.parts.media import FAMILY_PERMEABILITY_FACTOR
from tabrel.core.parts.valve_curve import valve_curve
from tabrel.core.review.claims import claim_words
from tabrel.core.sample.efficiency import efficiency_at_size
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Circuit
from tabrel.document.results import result_out
from tabrel.report.figures.drawings import section_drawing
from tabrel.report.figures.media_drawings import pack_drawing, strip_drawing
from tabrel.report.figures.valve_drawing import valve_drawing

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
    return FiguresOut(
        valve=_valve(measured, oil_model(study.oil) if study.oil else None, study.circuit or Circuit()),
        tray=mass_balance(measured),
        strength=can_strength(measured),
        pack=pack_figure(measured),
        pleat_curve=pleat_count_curve(measured),
        pack_drawing=pack_drawing(measured),
        strip=strip_areas(measured),
        strip_drawing=strip_drawing(measured),
        efficiency=_efficiency(measured),
        section=section_drawing(measured),
    )


def _valve(measured: MeasuredSample, oil: OilModel | None, circuit: Circuit) -> ValveOut:
    valve, bypass = measured.bypass.valve, measured.bypass
    hot = circuit.engine.temperature_c if circuit.engine else HOT_TEMPERATURE
    return ValveOut(
        comparison=opening_comparison(measured),
        kind=measured.sample.bypass.kind,
        senses=_SENSES.get(measured.sample.bypass.location or ""),
        opening_kpa=None if bypass.opening.value is None else bypass.opening.value / 1e3,
        full_open_kpa=None if bypass.full_open.value is None else bypass.full_open.value / 1e3,
        lift_limit_mm=valve.lift_limit * 1e3 if valve else _mm(measured, "bypass.lift_limit"),
        lift_is_assumed="bypass.lift_limit" not in measured.known,
        drawing=valve_drawing(measured),
        curves=[valve_curve(valve, oil, temperature) for temperature in (BENCH_TEMPERATURE, hot)] if valve and oil else [],
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

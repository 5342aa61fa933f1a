"""The field's words for what is named by keys: each once, for every screen and every sentence."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from tabrel.core.study.model import GaugeTap, Instrument, Provenance, QuantityState, Speaker
from tabrel.core.study.strict import BypassLocation, RegulatorFault

STATE_WORDS: dict[QuantityState, tuple[str, ...]] = {
    "not_measured": ("not measured", "skipped"),
    "could_not_be_found": ("could not be found", "not found", "cannot find"),
    "out_of_date": ("refused as out of date", "out of date", "outdated"),
    "not_applicable": ("not applicable", "n/a", "na", "none"),
    "withheld": ("withheld by the maker", "withheld", "not disclosed"),
    "lost": ("lost",),
}
"""States that are not values and never zero; the first wording is the one shown."""

CorrectionReason = Literal["misread", "slip", "other_part", "instrument"]
CORRECTION_REASONS: dict[CorrectionReason, str] = {
    "misread": "misread",
    "slip": "typing error",
    "other_part": "read off another part",
    "instrument": "instrument was off",
}
"""Why a reading is corrected; the first one unless another is chosen."""

PROVENANCE_WORDS: dict[Provenance, tuple[str, ...]] = {
    "measured": ("measured",),
    "derived": ("derived", "computed"),
    "published": ("published", "stated"),
    "by_eye": ("by eye", "estimated", "roughly"),
    "assumed": ("assumed", "guessed"),
}
"""Where a value comes from, best evidence first; the first wording is the one shown."""

PROVENANCE_ORDER: tuple[Provenance, ...] = tuple(PROVENANCE_WORDS)
"""The estimate of a quantity uses the readings of the first of these that there is."""

INSTRUMENTS: dict[Instrument, str] = {
    "caliper": "caliper",
    "micrometer": "micrometer",
    "tape": "tape",
    "scale": "scale",
    "force_gauge": "force gauge",
    "pressure_gauge": "pressure gauge",
    "permeability_tester": "permeability tester",
    "microscope": "microscope",
    "none": "counted",
}


def instrument_words(name: str) -> str:
    """Return what a usual instrument is called; the name of an own one as it is."""
    return next((words for known, words in INSTRUMENTS.items() if known == name), name)


SPEAKERS: dict[Speaker, str] = {
    "maker": "the maker",
    "seller": "a seller",
    "independent": "an independent",
    "vehicle_maker": "the vehicle maker",
}

BYPASS_LOCATIONS: dict[BypassLocation, str] = {
    "dome_end": "dome end",
    "thread_end": "thread end",
    "block": "engine block",
    "adapter": "adapter",
    "none": "none",
    "housing": "filter housing",
}

REGULATOR_FAULTS: dict[RegulatorFault, str] = {"stuck_open": "stuck open", "stuck_shut": "stuck shut"}

GAUGE_TAPS: dict[GaugeTap, str] = {"pump": "at pump", "filter_inlet": "before filter", "gallery": "at gallery"}

SECTIONS: dict[str, str] = {
    "inlet": "inlet holes",
    "anti_drain": "anti-drainback gap",
    "outlet": "outlet bore",
    "adapter": "adapter holes",
}
"""The sections of the tapping plate that the oil passes in series."""

OUTLETS: dict[str, str] = {
    "stud": "stud",
    "least": "least stud",
    "greatest": "greatest stud",
    "adapter_reference": "original passage bore",
    "thread": "thread's minor diameter (upper bound)",
}
"""Bores the filtered oil may leave through."""

PLATE_CIRCLES: dict[str, str] = {
    "can.outside_diameter": "rim, outside diameter of the can",
    "gasket.outside_diameter": "gasket, outside",
    "gasket.inside_diameter": "gasket, inside",
    "thread.major_diameter": "thread, major diameter",
    "thread.minor_diameter": "thread, minor diameter",
    "anti_drain.lip_diameter": "lip of the anti-drainback valve",
    "plate.centre_hole_diameter": "centre hole",
    "circuit.stud": "bore of the stud",
    "circuit.stud.least": "least stud bore",
    "circuit.stud.greatest": "greatest stud bore",
}
"""Circles of the plate drawn from below."""

LOSS_PARTS: dict[str, str] = {
    "cooler": "Oil cooler",
    "head": "Filter head",
    "inlet_holes": "Inlet holes",
    "anti_drain": "Anti-drainback valve",
    "media": "Media",
    "pleat_channels": "Pleat channels",
    "can_annulus": "Can annulus",
    "centre_tube": "Centre tube",
    "outlet": "Outlet bore",
    "adapter": "Adapter",
}
"""Parts of the pressure-loss breakdown, from pump to gallery."""

ENGINE_SIDE = ("cooler", "head")
"""Those of them that belong to the engine, whatever filter is fitted."""

BASES: dict[str, str] = {
    "measured": "measured",
    "forecast": "forecast from the pleats",
    "air_permeability": "from its air permeability",
    "family": "usual figure of its kind",
    "pressure": "measured on a bench",
    "force": "from push-off force",
    "spring": "from spring dimensions",
    "stated": "stated by the maker",
    "counts": "counted in a test",
    "claim": "published claim",
    "estimate": "screening estimate",
}
"""Kinds of evidence a result is computed from."""

OPENING_WAYS: dict[str, str] = {
    "pressure": "bench pressure",
    "force": "push-off force",
    "spring": "spring dimensions",
    "stated": "stated setting",
    "full_open": "full-open pressure",
}
"""Ways to the bypass opening pressure, side by side."""


UNCERTAINTY_SOURCES: dict[str, str] = {
    "repeating": "repeating it",
    "instrument": "how it is known",
    "model": "assumed",
}
"""Where a contribution to the uncertainty of a result comes from."""

LEFT_OUT: dict[str, str] = {
    "holes.centre_tube": "centre tube holes",
    "can.inside_diameter": "the can annulus (the can's inside diameter)",
    "anti_drain.lift": "anti-drainback valve (its lift)",
}
"""Parts whose loss is left out of a map while the reading named was not taken."""

PART_VERDICTS: dict[str, str] = {
    "different": "different parts",
    "nothing_tells_them_apart": "nothing tells them apart",
    "cannot_tell": "cannot tell",
}
"""Verdicts on two filters compared as parts."""

VERDICTS: dict[str, str] = {
    "confirmed": "confirmed",
    "refuted": "refuted",
    "cannot_tell": "cannot tell",
    "waits": "waits",
    "no_check": "not checkable here",
    "stale": "stale",
}
"""Verdicts of readings on a claim."""

CLAIM_COMPARISONS: dict[str, str] = {
    "agree": "agree",
    "claim_higher": "claim higher",
    "claim_lower": "claim lower",
    "cannot_be_compared": "cannot be compared",
}
"""Verdicts of a counted test on an efficiency claim."""

MEDIA_DEDUCTIONS: dict[str, str] = {
    "element.potting_depth": "potting, both edges",
    "media.seam_overlap": "seam overlap",
    "media.blocked_pleats": "blocked pleats",
    "media.blocked_area": "other blocked area",
    "model.forecast_area": "usual potting, seam and blocked pleats",
}
"""From the gross to the effective area of the strip."""

SCREENING_INPUTS: dict[str, str] = {"media.fibre_diameter": "fibre diameter", "media.dry_mass": "solidity"}
"""Inputs that the screening estimate takes from the media family if they were not measured."""


@dataclass(frozen=True)
class Assumption:
    """An assumption of the model.

    Attributes
    ----------
    title : str
        In a sentence.
    unit : str
        In which its range is said; ``×`` for a range of a factor, empty for a bare number.
    scale : float
        Its size in SI.
    """

    title: str
    unit: str = ""
    scale: float = 1.0


ASSUMPTIONS: dict[str, Assumption] = {
    "model.permeability": Assumption("permeability of the media"),
    "model.hole_loss": Assumption("loss coefficient of holes, gaps and bores"),
    "model.discharge": Assumption("discharge coefficient of the bypass valve"),
    "model.cold_viscosity": Assumption("low-shear cold viscosity", "×"),
    "model.bearing_heating": Assumption("bearing heating"),
    "model.cooler_share": Assumption("viscous share of the cooler loss"),
    "model.head_share": Assumption("viscous share of the filter head's loss"),
    "model.pump": Assumption("pump displacement"),
    "model.regulator": Assumption("regulator opening"),
    "model.gallery": Assumption("hot gallery pressure"),
    "model.dead_coils": Assumption("dead coils of the bypass spring"),
    "model.shear_modulus": Assumption("shear modulus of the bypass spring", "GPa", 1e9),
    "model.stated_setting": Assumption("stated bypass setting"),
    "model.potting_depth": Assumption("potting depth, not measured", "mm", 1e-3),
    "model.seam_overlap": Assumption("seam overlap, not measured", "mm", 1e-3),
    "model.forecast_area": Assumption("area of the folds over the effective area"),
}
"""Inputs of the model that no reading gives; a test holds the list complete."""


@dataclass(frozen=True)
class Input:
    """An input of a result that is no field of the bench: its words, and the field it is entered in."""

    title: str
    field: str | None = None


INPUTS: dict[str, Input] = {
    "oil": Input("the oil", "oil.name"),
    "oil.viscosity": Input("the oil's viscosity points", "oil.name"),
    "oil.density": Input("the oil's density", "oil.density"),
    "circuit.cooler": Input("the cooler", "engine.cooler_loss"),
    "circuit.head": Input("the filter head", "engine.head_loss"),
    "circuit.adapter": Input("the adapter", "engine.adapter_holes"),
    "circuit.adapter.holes": Input("the adapter's holes", "engine.adapter_holes"),
    "circuit.pump_displacement_cm3_rev": Input("the pump's displacement", "engine.pump_displacement"),
    "circuit.pump_efficiency": Input("the pump's efficiency", "engine.pump_efficiency"),
    "circuit.regulator": Input("the pressure regulator", "engine.regulator_opening"),
    "circuit.regulator.opening_kpa": Input("the regulator's opening pressure", "engine.regulator_opening"),
    "circuit.engine": Input("the engine's hot point (gallery pressure at a speed and temperature)", "engine.gallery"),
    "circuit.engine.gallery_kpa": Input("the hot gallery pressure", "engine.gallery"),
    "circuit.stud": Input("the engine's stud", "engine.stud_bore"),
    "holes.inlet": Input("the inlet holes", "holes.inlet"),
    "holes.centre_tube": Input("the centre tube's holes", "holes.centre_tube"),
    "media_family": Input("the media family", "media.family"),
    "media_air_drop_pa": Input("the differential pressure of the air test", "media.air_drop"),
    "bypass.spring_material": Input("the spring material", "bypass.spring_material"),
    "bypass.spring_rate": Input("the spring rate"),
    "bypass.stated_kpa": Input("what the stated band means", "sample.stated_bypass"),
    "claims": Input("the claim", "claims"),
    "counts": Input("particle counts of a test", "counts"),
    "counts.curve": Input("counts that a curve can be laid through", "counts"),
    "counts.sizes": Input("a counted size there", "counts"),
    "counts.counting": Input("counting", "counts"),
    "counts.misfit": Input("the misfit of the curve", "counts"),
    "counts.volumes": Input("volumes and dilutions of the counts", "test.upstream_ml"),
    "counts.size_scale": Input("the counter's size scale", "test.size_uncertainty_percent"),
    "counts.upstream_ml": Input("the volume counted upstream", "test.upstream_ml"),
    "counts.downstream_ml": Input("the volume counted downstream", "test.downstream_ml"),
    "counts.upstream_dilution": Input("the dilution upstream", "test.upstream_dilution"),
    "counts.downstream_dilution": Input("the dilution downstream", "test.downstream_dilution"),
    "counts.ratio_uncertainty": Input("the uncertainty of volumes (3 %)", "test.ratio_uncertainty_percent"),
    "counts.size_uncertainty": Input("the uncertainty of sizes (5 %)", "test.size_uncertainty_percent"),
    "counts.times": Input("equally long intervals", "counts"),
    "counts.scale": Input("the scale of the counted sizes (plain µm or µm(c))", "test.scale"),
    "counts.clean_hardware": Input("the clean hardware's differential pressure", "test.clean_hardware_kpa"),
    "counts.clean_element": Input("the clean element's differential pressure", "test.clean_element_kpa"),
    "counts.injected": Input("the dust injected", "counts"),
    "counts.differential_pressure": Input("the differential pressure along the test", "counts"),
    "counts.circulating": Input("what still circulates, as nothing", "test.system_volume_l"),
    "counts.terminal_ratio": Input("the terminal ratio (8)", "test.terminal_ratio"),
    "claims.scale": Input("the scale of the claimed size (plain µm or µm(c))", "claims"),
    "bypass.location": Input("the place of the bypass valve", "bypass.location"),
}

TermKind = Literal[
    "provenance",
    "state",
    "correction",
    "instrument",
    "speaker",
    "bypass_location",
    "regulator_fault",
    "gauge_tap",
    "section",
    "outlet",
    "plate_circle",
    "loss_part",
    "basis",
    "opening_way",
    "uncertainty_source",
    "left_out",
    "verdict",
    "part_verdict",
    "claim_comparison",
    "media_deduction",
    "screening_input",
    "assumption",
    "input",
]


def _by_text(words: Mapping[Any, str]) -> dict[str, str]:
    return {str(key): word for key, word in words.items()}


TERMS: dict[TermKind, dict[str, str]] = {
    "provenance": {key: words[0] for key, words in PROVENANCE_WORDS.items()},
    "state": {key: words[0] for key, words in STATE_WORDS.items()},
    "correction": _by_text(CORRECTION_REASONS),
    "instrument": _by_text(INSTRUMENTS),
    "speaker": _by_text(SPEAKERS),
    "bypass_location": _by_text(BYPASS_LOCATIONS),
    "regulator_fault": _by_text(REGULATOR_FAULTS),
    "gauge_tap": _by_text(GAUGE_TAPS),
    "section": SECTIONS,
    "outlet": OUTLETS,
    "plate_circle": PLATE_CIRCLES,
    "loss_part": LOSS_PARTS,
    "basis": BASES,
    "opening_way": OPENING_WAYS,
    "uncertainty_source": UNCERTAINTY_SOURCES,
    "left_out": LEFT_OUT,
    "verdict": VERDICTS,
    "part_verdict": PART_VERDICTS,
    "claim_comparison": CLAIM_COMPARISONS,
    "media_deduction": MEDIA_DEDUCTIONS,
    "screening_input": SCREENING_INPUTS,
    "assumption": {key: assumption.title for key, assumption in ASSUMPTIONS.items()},
    "input": {key: item.title for key, item in INPUTS.items()},
}
"""Word by key, by what the key is of; in the order they are listed on screen."""

"""All results and warnings of one sample."""

from __future__ import annotations

from dataclasses import dataclass

from tabrel.core.checks import sample_warnings
from tabrel.core.drawn import nominal_value
from tabrel.core.efficiency import (
    REFERENCE_SIZE,
    ScreeningMedium,
    efficiency_from_claim,
    screening_estimate,
    screening_size,
    size_from_claim,
    usable_claim,
)
from tabrel.core.measured import MeasuredSample, measure_sample
from tabrel.core.media import (
    FAMILY_DEFAULTS,
    effective_media_area,
    gross_media_area,
    pleat_opening_at_inside,
    solidity,
)
from tabrel.core.plate import inlet_hole_area, plate_flow_area, plate_sections, plate_series_area
from tabrel.core.reading_checks import SampleWarning
from tabrel.core.study import Circuit, Sample
from tabrel.core.uncertain import Result, missing_result


@dataclass(frozen=True)
class SampleResults:
    """The headline results of one sample and what stands beside them. SI; sizes in µm(c).

    Attributes
    ----------
    inlet_hole_area, plate_flow_area, plate_series_area : Result
        [m²]
    media_gross_area, media_effective_area : Result
        One face. [m²]
    pleat_opening_at_inside : Result
        [-]
    media_permeability : Result
        [m²]
    bypass_opening, bypass_full_open : Result
        [Pa]
    efficiency_at_20_um : Result
        [-]
    size_at_beta_75 : Result
        [µm(c)]
    """

    inlet_hole_area: Result
    plate_flow_area: Result
    plate_series_area: Result
    media_gross_area: Result
    media_effective_area: Result
    pleat_opening_at_inside: Result
    media_permeability: Result
    bypass_opening: Result
    bypass_full_open: Result
    efficiency_at_20_um: Result
    size_at_beta_75: Result


@dataclass(frozen=True)
class SampleAnalysis:
    """Results and warnings of one sample."""

    results: SampleResults
    warnings: tuple[SampleWarning, ...]


def analyse_sample(sample: Sample, circuit: Circuit | None) -> SampleAnalysis:
    """Return all results and warnings of one sample, measured first; see `analyse_measured`.

    Parameters
    ----------
    sample : Sample
        As typed; must have passed `study_checks.check_sample`.
    circuit : Circuit or None
        Of the engine, for its stud and adapter.

    Returns
    -------
    SampleAnalysis
    """
    return analyse_measured(measure_sample(sample, circuit))


def analyse_measured(measured: MeasuredSample) -> SampleAnalysis:
    """Return all results and warnings of a measured sample.

    Parameters
    ----------
    measured : MeasuredSample
        From `measure_sample`.

    Returns
    -------
    SampleAnalysis
    """
    variables, strip = measured.variables, measured.strip
    sections, missing = plate_sections(measured.inlet, measured.outlet, measured.adapter, measured.known)
    outlet_is_bound = measured.outlet is not None and measured.outlet.is_upper_bound
    efficiency, size = efficiency_results(measured)
    results = SampleResults(
        inlet_hole_area=inlet_hole_area(measured.inlet, variables),
        plate_flow_area=plate_flow_area(sections, missing, variables, outlet_is_bound=outlet_is_bound),
        plate_series_area=plate_series_area(sections, missing, variables, outlet_is_bound=outlet_is_bound),
        media_gross_area=gross_media_area(strip, variables),
        media_effective_area=effective_media_area(strip, variables),
        pleat_opening_at_inside=pleat_opening_at_inside(strip, variables),
        media_permeability=measured.permeability.result,
        bypass_opening=measured.bypass.opening,
        bypass_full_open=measured.bypass.full_open,
        efficiency_at_20_um=efficiency,
        size_at_beta_75=size,
    )
    return SampleAnalysis(results, sample_warnings(measured, screening_medium(measured), size))


def efficiency_results(measured: MeasuredSample) -> tuple[Result, Result]:
    """Return the efficiency at 20 µm(c) and the size at β = 75 from the best evidence there is."""
    at_size = efficiency_at_size(measured, REFERENCE_SIZE)
    claim = usable_claim(measured.sample.claims)
    if claim is not None:
        return at_size, size_from_claim(claim)
    medium = screening_medium(measured)
    return at_size, missing_result(*at_size.missing) if medium is None else screening_size(medium)


def efficiency_at_size(measured: MeasuredSample, size: float) -> Result:
    """Return the efficiency at a size [µm(c)] from the best evidence there is. [-]"""
    claim = usable_claim(measured.sample.claims)
    if claim is not None:
        return efficiency_from_claim(claim, size)
    medium = screening_medium(measured)
    if medium is not None:
        return screening_estimate(medium, size)
    lacking = measured.strip.needed("media.thickness")
    return missing_result(*lacking) if measured.sample.media_family else missing_result("media_family", *lacking)


def screening_medium(measured: MeasuredSample) -> ScreeningMedium | None:
    """Return the medium's dimensions for the screening estimate, or None while they are missing.

    The family decides γ, which no reading gives; fibre diameter and solidity replace its defaults
    where they were measured, solidity only while it is one (0 to 1).
    """
    family = measured.sample.media_family
    if family is None or "media.thickness" not in measured.known:
        return None
    defaults, assumed = FAMILY_DEFAULTS[family], []
    fibre = measured.known.get("media.fibre_diameter")
    if fibre is None:
        assumed.append("media.fibre_diameter")
    measured_solidity = solidity(measured.strip, defaults.fibre_density)
    alpha = defaults.solidity if measured_solidity is None else float(nominal_value(measured_solidity))
    if measured_solidity is None or not 0 < alpha < 1:
        alpha = defaults.solidity
        assumed.append("media.dry_mass")
    return ScreeningMedium(
        fibre_diameter=(defaults.fibre_diameter if fibre is None else float(nominal_value(fibre))) * 1e6,
        solidity=alpha,
        thickness=float(nominal_value(measured.known["media.thickness"])) * 1e6,
        inhomogeneity=defaults.inhomogeneity,
        assumed=tuple(assumed),
    )

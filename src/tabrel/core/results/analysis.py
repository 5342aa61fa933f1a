"""All results and warnings of one sample."""

from __future__ import annotations

from dataclasses import dataclass, replace

from tabrel.core.circuit.dirt_loading import retention_capacity
from tabrel.core.counts.counted_test import CountedTest
from tabrel.core.parts.flow_area import inlet_hole_area, plate_flow_area, plate_sections, plate_series_area
from tabrel.core.parts.media import effective_media_area, gross_media_area, pleat_opening_at_inside
from tabrel.core.results.bounded import bounded_results, sample_at_limits
from tabrel.core.review.reading_warnings import SampleWarning
from tabrel.core.review.sample_warnings import sample_warnings
from tabrel.core.sample.efficiency import efficiency_results, screening_medium
from tabrel.core.sample.measured_sample import MeasuredSample, measure_sample
from tabrel.core.study.model import Circuit, Sample
from tabrel.core.uncertainty.propagation import Result, missing_result


@dataclass(frozen=True)
class SampleResults:
    """The headline results of one sample and what is shown beside them. SI; sizes in µm(c).

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
    size_at_beta_75, size_at_beta_2 : Result
        [µm(c)]
    efficiency_slope : Result
        m of the curve through counts. [-]
    retention_capacity : Result
        In test dust, by interpolation. [kg]
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
    size_at_beta_2: Result
    efficiency_slope: Result
    retention_capacity: Result


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
        As typed; must have passed `rules.study.check_sample`.
    circuit : Circuit or None
        Of the engine, for its stud and adapter.
    """
    return analyse_measured(measure_sample(sample, circuit))


def analyse_measured(measured: MeasuredSample) -> SampleAnalysis:
    """Return all results and warnings of a measured sample."""
    variables, strip = measured.variables, measured.strip
    sections, missing = plate_sections(measured.inlet, measured.outlet, measured.adapter, measured.known)
    efficiency, size = efficiency_results(measured)
    results = SampleResults(
        inlet_hole_area=inlet_hole_area(measured.inlet, variables),
        plate_flow_area=plate_flow_area(sections, missing, variables, measured.outlet),
        plate_series_area=plate_series_area(sections, missing, variables, measured.outlet),
        media_gross_area=gross_media_area(strip, variables),
        media_effective_area=effective_media_area(strip, variables),
        pleat_opening_at_inside=pleat_opening_at_inside(strip, variables),
        media_permeability=measured.permeability.result,
        bypass_opening=measured.bypass.opening,
        bypass_full_open=measured.bypass.full_open,
        efficiency_at_20_um=efficiency,
        size_at_beta_75=size,
        **_counted_results(measured),
    )
    results = _with_copied(measured.sample, results)
    if measured.limits:
        results = _bounded(measured, results)
    return SampleAnalysis(results, sample_warnings(measured, screening_medium(measured), size))


def _counted_results(measured: MeasuredSample) -> dict[str, Result]:
    """Return what only a counted test gives."""
    test, capacity = measured.counted, retention_capacity(measured)
    if isinstance(test, CountedTest):
        return {"size_at_beta_2": test.size_at(2.0), "efficiency_slope": test.slope(), "retention_capacity": capacity}
    lacking = missing_result("counts") if test is None else test
    return {"size_at_beta_2": lacking, "efficiency_slope": lacking, "retention_capacity": capacity}


def _with_copied(sample: Sample, results: SampleResults) -> SampleResults:
    """Return results that name, as assumed, what they rest on and was only copied: readings say it themselves."""
    copied = []  # what it is called, and by which results of which basis it is used
    if any(group.copied_from for group in sample.holes.inlet):
        copied.append(("holes.inlet", {"inlet_hole_area", "plate_flow_area", "plate_series_area"}, {"measured"}))
    if "observations/media.family" in sample.copied:
        copied.append(("media_family", {"media_permeability", "efficiency_at_20_um", "size_at_beta_75"}, {"family", "estimate"}))
    if "details/media.air_drop" in sample.copied:
        copied.append(("media_air_drop_pa", {"media_permeability"}, {"air_permeability"}))
    if "details/sample.stated_bypass" in sample.copied:
        copied.append(("sample.stated_bypass", {"bypass_opening", "bypass_full_open"}, {"stated"}))
    if "observations/bypass.spring_material" in sample.copied:
        copied.append(("bypass.spring_material", {"bypass_opening"}, {"spring"}))
        copied.append(("bypass.spring_material", {"bypass_full_open"}, {"spring", "force", "pressure"}))
    fields = dict(vars(results))
    for name, used_by, bases in copied:
        for key in used_by:
            if fields[key].basis in bases and name not in fields[key].assumed:
                fields[key] = replace(fields[key], assumed=(*fields[key].assumed, name))
    return SampleResults(**fields)


def _bounded(measured: MeasuredSample, results: SampleResults) -> SampleResults:
    """Return results with bounds where they rest on a size of which only a bound is known."""

    def at(moved: str | None = None) -> dict[str, Result]:
        return vars(analyse_measured(measure_sample(sample_at_limits(measured, moved), measured.circuit)).results)

    return SampleResults(**bounded_results(vars(results), at(), {key: at(key) for key in measured.limits}))

"""A sample as measured: every estimate made once, for the results and for the model alike."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

from tabrel.core.catalogue.quantities import QUANTITIES
from tabrel.core.counts.counted_test import CountedTest, counted_test
from tabrel.core.parts.bypass_valve import BypassEvidence, bypass_evidence
from tabrel.core.parts.flow_area import Outlet, outlet_bore
from tabrel.core.parts.holes import MeasuredHoles, measure_holes
from tabrel.core.parts.media import MediaStrip, Permeability, media_permeability, media_strip
from tabrel.core.parts.plate_layout import PlateLayout, plate_layout
from tabrel.core.sample.stated_setting import StatedSetting, stated_setting
from tabrel.core.study.model import Circuit, Sample, used_readings
from tabrel.core.uncertainty.estimate import Estimate, Limits, estimate_quantity, quantity_limits
from tabrel.core.uncertainty.propagation import Result, Uncertain, Variables


@dataclass(frozen=True)
class MeasuredSample:
    """A sample with its readings turned into uncertain numbers.

    Attributes
    ----------
    sample, circuit : Sample, Circuit
        As typed.
    variables : Variables
        All uncertain inputs.
    estimates : dict
        Estimate by reading key.
    known : dict
        The same as uncertain numbers.
    limits : dict
        Limits by reading key, of quantities of which only bounds were read.
    inlet, centre_tube : MeasuredHoles
        Holes of the filter.
    adapter : MeasuredHoles or None
        Holes of the engine's adapter.
    strip : MediaStrip
        Media and pleats.
    outlet : Outlet or None
        Stud or thread.
    stated : StatedSetting
        What is stated of the bypass valve's setting.
    bypass : BypassEvidence
        Bypass valve.
    permeability : Permeability
        Of the medium.
    capacity_ratio : tuple of (float, str) or None
        By how much a counted filter of the same family holds more than the family is assumed to, and its label.
    """

    sample: Sample
    circuit: Circuit
    variables: Variables
    estimates: dict[str, Estimate]
    known: dict[str, Uncertain]
    limits: dict[str, Limits]
    inlet: MeasuredHoles
    centre_tube: MeasuredHoles
    adapter: MeasuredHoles | None
    strip: MediaStrip
    outlet: Outlet | None
    stated: StatedSetting
    bypass: BypassEvidence
    permeability: Permeability
    capacity_ratio: tuple[float, str] | None = None

    @cached_property
    def plate(self) -> PlateLayout:
        """The plate seen from below."""
        return plate_layout(self.known, self.sample.holes, self.circuit)

    @cached_property
    def counted(self) -> CountedTest | Result | None:
        """The counted test of the sample worked out, a result that names what it lacks, or None where there is none."""
        counts = self.sample.counts
        return None if counts is None or not (counts.intervals or counts.rows) else counted_test(counts)

    @property
    def hole_estimates(self) -> dict[str, Estimate]:
        """Estimates of all sizes of holes, by the key of their readings."""
        adapter = self.adapter.estimates if self.adapter else {}
        return self.inlet.estimates | self.centre_tube.estimates | adapter

    @property
    def media_is_forecast(self) -> bool:
        """Whether the media area is the forecast before the cut."""
        return bool(self.strip.lacking())


def measure_sample(sample: Sample, circuit: Circuit | None, variables: Variables | None = None) -> MeasuredSample:
    """Return a sample with its readings turned into uncertain numbers.

    Parameters
    ----------
    sample : Sample
        As typed.
    circuit : Circuit or None
        Of the engine, for its stud and adapter.
    variables : Variables or None
        Makes the uncertain numbers; None for first order.
    """
    engine_side = circuit or Circuit()
    variables = Variables() if variables is None else variables
    in_use = {key: readings for key, entries in sample.readings.items() if (readings := used_readings(entries))}
    estimates = {
        key: estimate
        for key, readings in in_use.items()
        if (estimate := estimate_quantity(QUANTITIES[key], readings)) is not None
    }
    limits = {
        key: result
        for key, readings in in_use.items()
        if key not in estimates and (result := quantity_limits(QUANTITIES[key], readings)) is not None
    }
    known = {key: variables.add(key, estimate) for key, estimate in estimates.items()}
    absent = {key for key, state in sample.states.items() if state == "not_applicable"}
    strip, stated = media_strip(known, absent, variables), stated_setting(sample)
    adapter = engine_side.adapter
    return MeasuredSample(
        sample=sample,
        circuit=engine_side,
        variables=variables,
        estimates=estimates,
        known=known,
        limits=limits,
        inlet=measure_holes("holes.inlet", sample.holes.inlet, variables),
        centre_tube=measure_holes("holes.centre_tube", sample.holes.centre_tube, variables),
        adapter=measure_holes("circuit.adapter.holes", adapter.holes, variables) if adapter else None,
        strip=strip,
        outlet=outlet_bore(engine_side.stud, known, variables, engine_side.provenance),
        stated=stated,
        bypass=bypass_evidence(known, replace(sample.bypass, stated_kpa=stated.value), variables),
        permeability=media_permeability(
            strip,
            variables,
            family=sample.media_family,
            air_permeability=estimates.get("media.air_permeability"),
            air_drop=sample.media_air_drop_pa,
        ),
    )

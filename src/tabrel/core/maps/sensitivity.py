"""Inputs and sensitivity of a map: where its inputs come from, and which assumption moves it most, found by moving each."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tabrel.core.catalogue.terms import PROVENANCE_ORDER
from tabrel.core.circuit.engine_circuit import Condition
from tabrel.core.circuit.filter_alone import FILTER_ALONE_QUANTITIES, filter_at_flow, onset_over_flow
from tabrel.core.circuit.operating_point import AS_IT_IS, filter_alone, operating_point
from tabrel.core.circuit.solution import solve_circuit
from tabrel.core.hydraulics.threshold_curve import COLDEST, HOTTEST
from tabrel.core.maps.onset import onset_of_columns
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.model import Provenance, Sample, Study
from tabrel.core.study.number_keys import place_of_key
from tabrel.core.study.plans import Scenario
from tabrel.core.uncertainty.model_arrays import flattened
from tabrel.core.uncertainty.sampling import ModelAssumption, SampledVariables, one_at_a_time, sampled_name

FloatArray = NDArray[np.float64]

ENDS = (0.025, 0.975)
"""Shares of its distribution to which each assumption is moved."""

LOOKED_AT_TEMPERATURES = np.linspace(-40.0, 140.0, 10)
LOOKED_AT_SPEEDS = np.array([800.0, 1500.0, 2500.0, 4000.0, 6000.0])
LOOKED_AT_FLOWS = np.array([4.0, 10.0, 20.0, 40.0, 70.0]) / 60e3  # m³/s

ENGINE_INPUTS = tuple(
    f"circuit.{key}" for key in ("pump_displacement_cm3_rev", "pump_efficiency", "regulator", "cooler", "head", "engine")
)
"""Inputs that the filter alone does without."""

MODEL_KEYS = (
    "plate.thickness",
    "anti_drain.opening_pressure",
    "anti_drain.lift",
    "anti_drain.lip_diameter",
    "bypass.seat_inside_diameter",
    "bypass.seat_outside_diameter",
    "bypass.spring_wire_diameter",
    "bypass.spring_outside_diameter",
    "bypass.spring_total_coils",
    "bypass.spring_dead_coils",
    "bypass.spring_free_length",
    "bypass.spring_installed_length",
    "bypass.lift_limit",
    "bypass.opening_force",
    "bypass.opening_pressure",
    "can.inside_diameter",
    "element.outside_diameter",
    "element.inside_diameter",
    "element.height",
    "element.pleat_count",
    "element.pleat_depth",
    "element.potting_depth",
    "tube.wall_thickness",
    "media.strip_length",
    "media.strip_width",
    "media.thickness",
    "media.backing_thickness",
    "media.seam_overlap",
    "media.blocked_pleats",
    "media.blocked_area",
    "media.air_permeability",
    "thread.major_diameter",
    "thread.pitch",
)
"""Readings that the circuit problem looks at where they are there."""

_BETTER_EVIDENCE = (
    ("bypass.opening_pressure", ("bypass.opening_force", "bypass.spring_free_length", "bypass.spring_installed_length")),
    ("bypass.opening_force", ("bypass.spring_free_length", "bypass.spring_installed_length")),
)


@dataclass(frozen=True)
class InputSource:
    """One input of the map: its key, and where it comes from."""

    key: str
    provenance: Provenance


@dataclass(frozen=True)
class Effect:
    """Effect of one assumption on a map.

    Attributes
    ----------
    assumption : ModelAssumption
        What was moved, between which values.
    mean_change : float
        Mean change of the quantity over the map, over its mean; the larger of the two ends.
    onset_low, onset_high : float or None
        Bypass onset temperature with the assumption at either end, the lower first; None where the
        valve stays shut. [°C]
    """

    assumption: ModelAssumption
    mean_change: float
    onset_low: float | None
    onset_high: float | None

    @property
    def onset_shift(self) -> float:
        """How far the onset moves between the two ends; 0 where it stays shut at either. [K]"""
        if self.onset_low is None or self.onset_high is None:
            return 0.0
        return self.onset_high - self.onset_low


def input_sources(
    study: Study,
    measured: MeasuredSample,
    assumptions: Iterable[ModelAssumption],
    *,
    alone: bool = False,
    scenario: Scenario = AS_IT_IS,
) -> tuple[InputSource, ...]:
    """Return every input of a sample's map with where it comes from.

    Parameters
    ----------
    study : Study
        Gives oil and engine.
    measured : MeasuredSample
        The filter.
    assumptions : iterable of ModelAssumption
        What the model assumed.
    alone : bool
        Whether the map is that of the filter alone, which does without most of the engine.
    scenario : Scenario
        What is thought to be different; what it puts aside is no input.
    """
    unused = {key for best, others in _BETTER_EVIDENCE if best in measured.estimates for key in others}
    if scenario.bypass_opening_kpa is not None:
        unused |= {"bypass.opening_pressure", "bypass.opening_force"}
    if (study.circuit and study.circuit.stud) or scenario.stud_bore_mm is not None:
        unused |= {"thread.major_diameter", "thread.pitch"}
    sources = [
        InputSource(key, measured.estimates[key].provenance)
        for key in MODEL_KEYS
        if key in measured.estimates and key not in unused
    ]
    for place, holes in (("holes.inlet", measured.inlet), ("holes.centre_tube", measured.centre_tube)):
        for i, sizes in enumerate(holes.provenances):
            sources += [InputSource(f"{place}[{i}].{name}", where) for name, where in sizes.items() if name != "circle_diameter"]
    if measured.bypass.opening.basis == "stated" and scenario.bypass_opening_kpa is None:
        sources.append(InputSource("bypass.stated_kpa", measured.stated.provenance))
    circuit, oil = study.circuit, study.oil
    if circuit:
        keys = ("pump_displacement_cm3_rev", "pump_efficiency", "regulator", "cooler", "head", "engine", "stud", "adapter")
        replaced = {"stud"} if scenario.stud_bore_mm is not None else set()
        if scenario.without_adapter or scenario.adapter_holes:
            replaced.add("adapter")
        sources += [
            InputSource(f"circuit.{key}", _part_provenance(study, key, circuit.provenance or "published"))
            for key in keys
            if getattr(circuit, key) is not None and key not in replaced
        ]
    if oil:
        sources += [InputSource(f"oil.{key}", oil.provenance or "published") for key in ("viscosity", "density")]
    sources += [InputSource(assumption.name, "assumed") for assumption in assumptions]
    without = ENGINE_INPUTS if alone else ()
    return tuple(source for source in sources if source.key not in without)


def _part_provenance(study: Study, part: str, usual: Provenance) -> Provenance:
    """Return where the numbers of a part of the circuit come from: the weakest that is said of one of them, else `usual`.

    What came with a number as an assumption is told of each number apart (`details.assumed_details`).
    """
    sentences = [
        typed.provenance
        for key, typed in study.as_typed.items()
        if typed.provenance not in (None, "assumed") and (place_of_key("study", key) or ("", ""))[1] == part
    ]
    return max((name for name in sentences if name), key=PROVENANCE_ORDER.index, default=usual)


def model_assumptions(
    study: Study, sample: Sample, scenario: Scenario = AS_IT_IS, *, alone: bool = False
) -> tuple[ModelAssumption, ...]:
    """Return what the model of a sample, in its engine or alone, assumes and no reading says."""
    draws = SampledVariables(one_at_a_time(["nothing"], ENDS), sample.label)
    build = filter_alone if alone else operating_point
    with np.errstate(all="ignore"):
        build(study, sample, scenario=scenario, variables=draws)
    replaced = ("model.stated_setting",) if scenario.bypass_opening_kpa is not None else ()
    return tuple(assumption for name, assumption in draws.assumptions.items() if name not in replaced)


def assumption_effects(
    study: Study,
    sample: Sample,
    *,
    quantity: str,
    speed: float,
    condition: Condition = "steady",
    scenario: Scenario = AS_IT_IS,
) -> tuple[Effect, ...]:
    """Return what each assumption does to a quantity's map and to the onset at a speed, the strongest first.

    Each is moved alone to 2.5 % and 97.5 % of its distribution and the circuit solved again.

    Parameters
    ----------
    study, sample : Study, Sample
        As typed.
    quantity : str
        One of `solution.SOLVED_QUANTITIES`.
    speed : float
        At which the onset is looked at. [rpm]
    condition : str
        ``steady`` or ``filling``.
    scenario : Scenario
        What is thought to be different.

    Raises
    ------
    MissingInputsError, StudyError
        As `operating_point.operating_point`.
    """
    asked = model_assumptions(study, sample, scenario)
    rows = 2 * len(asked)
    nominal = operating_point(study, sample, condition=condition, scenario=scenario)
    draws = _one_by_one(asked, sample)
    with np.errstate(all="ignore"):
        sampled = operating_point(study, sample, condition=condition, scenario=scenario, variables=draws)
    temperature, rpm = (grid.ravel() for grid in np.meshgrid(LOOKED_AT_TEMPERATURES, LOOKED_AT_SPEEDS, indexing="ij"))
    pumps = nominal.oil.pumps(temperature)
    temperature, rpm = temperature[pumps], rpm[pumps]
    with np.errstate(all="ignore"):
        best = solve_circuit(nominal, nominal.place(temperature, rpm))
        moved = solve_circuit(sampled, sampled.place(temperature, rpm))
        columns = flattened(sampled, (rows, 1))
        cold_end = nominal.oil.coldest_pumping(COLDEST)
        onset = onset_of_columns(columns, np.full(rows, speed), cold_end).closes
        return _ranked(asked, best.quantity(quantity), moved.quantity(quantity), onset)


def alone_effects(
    study: Study, sample: Sample, *, quantity: str, flow_rate: float, scenario: Scenario = AS_IT_IS
) -> tuple[Effect, ...]:
    """Return what each assumption does to the map of the filter alone, the strongest first.

    Parameters
    ----------
    study, sample : Study, Sample
        As typed.
    quantity : str
        One of `filter_alone.FILTER_ALONE_QUANTITIES`.
    flow_rate : float
        At which the onset is looked at. [m³/s]
    scenario : Scenario
        What is thought to be different.

    Returns
    -------
    tuple of Effect
        Without the assumptions on the engine, which the filter alone does without.
    """
    asked = model_assumptions(study, sample, scenario, alone=True)
    rows = 2 * len(asked)
    nominal = filter_alone(study, sample, scenario=scenario)
    with np.errstate(all="ignore"):
        sampled = filter_alone(study, sample, scenario=scenario, variables=_one_by_one(asked, sample))
    temperature, flow = (grid.ravel() for grid in np.meshgrid(LOOKED_AT_TEMPERATURES, LOOKED_AT_FLOWS, indexing="ij"))
    pumps = nominal.oil.pumps(temperature)
    temperature, flow = temperature[pumps], flow[pumps]
    words = FILTER_ALONE_QUANTITIES[quantity if quantity in FILTER_ALONE_QUANTITIES else "element_pressure"]
    with np.errstate(all="ignore"):
        best, moved = (words(filter_at_flow(alone, temperature, flow)) for alone in (nominal, sampled))
        columns = flattened(sampled, (rows, 1))
        onset = onset_over_flow(columns, np.full(rows, flow_rate), nominal.oil.coldest_pumping(COLDEST)).closes
        return _ranked(asked, best, moved, onset)


def _one_by_one(asked: tuple[ModelAssumption, ...], sample: Sample) -> SampledVariables:
    """Return draws of which each two move one of the assumptions to its ends."""
    return SampledVariables(
        one_at_a_time([sampled_name(assumption.name, sample.label) for assumption in asked], ENDS), sample.label
    )


def _ranked(asked: tuple[ModelAssumption, ...], best: FloatArray, moved: FloatArray, onset: FloatArray) -> tuple[Effect, ...]:
    """Return the effects from the nominal map, the moved maps (two rows an assumption) and the moved onsets."""
    size = float(np.nanmean(np.abs(best))) if best.size else 0.0
    mean = np.nanmean(np.abs(moved - best), axis=1) / size if size > 0 else np.zeros(len(onset))
    effects = [_effect(assumption, mean[2 * i : 2 * i + 2], onset[2 * i : 2 * i + 2]) for i, assumption in enumerate(asked)]
    return tuple(sorted(effects, key=lambda effect: (-effect.mean_change, -effect.onset_shift)))


def _effect(assumption: ModelAssumption, change: FloatArray, onset: FloatArray) -> Effect:
    ends = sorted(onset, key=lambda celsius: -np.inf if np.isnan(celsius) else celsius)
    low, high = (None if np.isnan(celsius) else float(min(celsius, HOTTEST)) for celsius in ends)
    return Effect(assumption, float(np.max(change)), low, high)

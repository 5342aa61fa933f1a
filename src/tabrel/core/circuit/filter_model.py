"""One filter on one engine as a hydraulic network."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from tabrel.core.errors import MissingInputsError, StudyError
from tabrel.core.hydraulics.pleat_channels import PleatPack, can_annulus_coefficient, pleat_channel_coefficient
from tabrel.core.hydraulics.restrictions import (
    DISCHARGE_COEFFICIENT,
    NO_RESTRICTION,
    Restriction,
    anti_drain_restriction,
    bore_restriction,
    round_hole_restriction,
    turn_restriction,
)
from tabrel.core.parts.bypass_valve import BypassValve
from tabrel.core.parts.flow_area import OUTLET_KEYS
from tabrel.core.parts.media import media_area_number
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.study.defaults import adapter_turn_deg, adapter_wall_mm
from tabrel.core.study.strict import BypassLocation
from tabrel.core.uncertainty.sampled_number import FloatOrArray, nominal_value, values_of

DEFAULT_TUBE_WALL = 0.5e-3  # m
HOLE_LOSS_FACTOR = 1.15
"""Loss coefficients of holes, gaps and bores are good to this factor either way; our own figure."""

DISCHARGE_FACTOR = 1.1
"""So is the discharge coefficient of the bypass valve's curtain."""

FILTER_SENSED = ("block", "adapter", "housing")
"""Places of a bypass valve that see the differential pressure of the whole filter."""


@dataclass(frozen=True)
class FilterModel:
    """A filter as a hydraulic network; coefficients as in `Restriction`.

    Attributes
    ----------
    media, pleats : float, or draws of it
        Viscous coefficients of the clean media and of the pleat channels. [1/m³]
    tube : Restriction
        Holes of the centre tube: `a` belongs to the element, `b` to the hardware.
    can_annulus : float or None, or draws of it
        Viscous coefficient along the can; None where the clearance is unknown. [1/m³]
    inlet, anti_drain, outlet, adapter : Restriction
        Hardware.
    anti_drain_pressure : float, or draws of it
        Pressure the anti-drainback valve holds back whatever the flow. [Pa]
    leak : Restriction or None
        Defect holes beside the element.
    location : str
        Where the bypass valve sits.
    valve : BypassValve or None
        None where there is none.
    left_out : tuple of str
        Keys of parts that were not measured and whose loss the model leaves out.
    hole_loss : float, or draws of it
        By which the inertial loss of holes, gaps and bores is off.
    """

    media: FloatOrArray
    pleats: FloatOrArray
    tube: Restriction
    can_annulus: FloatOrArray | None
    inlet: Restriction
    anti_drain: Restriction
    anti_drain_pressure: FloatOrArray
    outlet: Restriction
    adapter: Restriction
    leak: Restriction | None
    location: BypassLocation
    valve: BypassValve | None
    left_out: tuple[str, ...]
    hole_loss: FloatOrArray = 1.0

    @property
    def is_solved_at_plate_end(self) -> bool:
        """Whether its unknown is the pressure across the element at the plate end, rather than at the dome end."""
        return self.location == "thread_end" or self.location in FILTER_SENSED

    @cached_property
    def hardware(self) -> Restriction:
        """Everything in series with the element: holes, anti-drainback gap, outlet, adapter, the tube's `b`."""
        return self.inlet + self.anti_drain + self.outlet + self.adapter + Restriction(0.0, self.tube.b)


def filter_model(measured: MeasuredSample) -> FilterModel:
    """Return the hydraulic network of a measured sample.

    Raises
    ------
    MissingInputsError
        Names every reading the model lacks.
    StudyError
        If media area, pleat depth or outlet come out at or below zero, or the anti-drainback valve would
        hold back more than opens a bypass valve that sees the whole filter.
    """
    if missing := missing_inputs(measured):
        raise MissingInputsError(missing)
    permeability = values_of(measured.permeability.number)
    known = {key: values_of(number) for key, number in measured.known.items()}
    area_number, depth_number = media_area_number(measured.strip), measured.strip.pleat_depth()
    area, depth = values_of(area_number), values_of(depth_number)
    width = measured.strip.face_width()
    if nominal_value(depth_number) <= 0:
        raise StudyError("element.inside_diameter", "is not below the outside diameter: one of the two slipped")
    if nominal_value(area_number) <= 0 or (width is not None and nominal_value(width) <= 0):
        raise StudyError("media.strip_width", "the deductions leave no effective media area: check overlap and potting")
    if measured.outlet is not None and nominal_value(measured.outlet.diameter) <= 0:
        raise StudyError("thread.pitch", "is too coarse for the thread's diameter: check both readings")
    pack = PleatPack(
        outside_diameter=known["element.outside_diameter"],
        inside_diameter=known["element.inside_diameter"],
        count=known["element.pleat_count"],
        depth=depth,
        pack=known["media.thickness"] + known.get("media.backing_thickness", 0.0),
    )
    location, variables = measured.sample.bypass.location or "none", measured.variables
    loss = values_of(variables.with_model_factor("model.hole_loss", 1.0, HOLE_LOSS_FACTOR))
    discharge = values_of(variables.with_model_factor("model.discharge", DISCHARGE_COEFFICIENT, DISCHARGE_FACTOR))
    model = FilterModel(
        media=known["media.thickness"] / (permeability * area),
        pleats=pleat_channel_coefficient(pack, effective_media_area=area),
        tube=_tube(measured, known).with_inertia_times(loss),
        can_annulus=_can_annulus(measured, known, pack),
        inlet=measured.inlet.restriction(known["plate.thickness"]).with_inertia_times(loss),
        anti_drain=_anti_drain(known).with_inertia_times(loss),
        anti_drain_pressure=known.get("anti_drain.opening_pressure", 0.0),
        outlet=_outlet(measured).with_inertia_times(loss),
        adapter=_adapter(measured).with_inertia_times(loss),
        leak=_leak(measured, known["media.thickness"]),
        location=location,
        valve=replace(measured.bypass.valve, discharge=discharge) if measured.bypass.valve else None,
        left_out=_left_out(measured),
        hole_loss=loss,
    )
    check_anti_drain(model)
    return model


def check_anti_drain(model: FilterModel) -> None:
    """Refuse an anti-drainback valve that alone would hold a valve open which sees the whole filter."""
    valve = model.valve
    if valve and model.location in FILTER_SENSED and np.all(model.anti_drain_pressure >= valve.opening_pressure):
        raise StudyError(
            "anti_drain.opening_pressure",
            "is at or above the bypass opening pressure, so that a valve which sees the whole filter never closes: "
            "check both readings",
        )


def missing_inputs(measured: MeasuredSample) -> tuple[str, ...]:
    """Return every reading the model of a filter lacks, in the order of the work."""
    strip, missing = measured.strip, list(measured.inlet.missing)
    missing += strip.needed(
        "plate.thickness",
        "media.thickness",
        "element.pleat_count",
        "element.outside_diameter",
        "element.inside_diameter",
    )
    if media_area_number(strip) is None:
        missing += strip.needed("media.strip_length", "media.strip_width")
    missing += measured.permeability.result.missing
    if measured.sample.holes.centre_tube:
        missing += measured.centre_tube.missing
    if "anti_drain.lift" in measured.known:
        missing += strip.needed("anti_drain.lip_diameter")
    if measured.outlet is None:
        missing += OUTLET_KEYS
    if measured.adapter is not None:
        missing += measured.adapter.missing
    if measured.sample.bypass.location is None:
        missing.append("bypass.location")
    missing += measured.bypass.missing
    return tuple(dict.fromkeys(missing))


def _left_out(measured: MeasuredSample) -> tuple[str, ...]:
    left_out = []
    if not measured.sample.holes.centre_tube:
        left_out.append("holes.centre_tube")
    if "can.inside_diameter" not in measured.known:
        left_out.append("can.inside_diameter")
    if "anti_drain.lift" not in measured.known:
        left_out.append("anti_drain.lift")
    return tuple(left_out)


def _tube(measured: MeasuredSample, known: dict[str, FloatOrArray]) -> Restriction:
    if not measured.sample.holes.centre_tube:
        return NO_RESTRICTION
    return measured.centre_tube.restriction(known.get("tube.wall_thickness", DEFAULT_TUBE_WALL))


def _can_annulus(measured: MeasuredSample, known: dict[str, FloatOrArray], pack: PleatPack) -> FloatOrArray | None:
    width = measured.strip.face_width()
    if "can.inside_diameter" not in known or width is None:
        return None
    clearance = (known["can.inside_diameter"] - pack.outside_diameter) / 2
    return can_annulus_coefficient(pack, clearance=clearance, height=values_of(width))


def _anti_drain(known: dict[str, FloatOrArray]) -> Restriction:
    if "anti_drain.lift" not in known:
        return NO_RESTRICTION
    return anti_drain_restriction(lip_diameter=known["anti_drain.lip_diameter"], lift=known["anti_drain.lift"])


def _outlet(measured: MeasuredSample) -> Restriction:
    outlet = measured.outlet
    if outlet is None or outlet.length is None:
        raise MissingInputsError(("plate.thickness",) if outlet else OUTLET_KEYS)
    return bore_restriction(diameter=values_of(outlet.diameter), length=outlet.length)


def _adapter(measured: MeasuredSample) -> Restriction:
    adapter, holes = measured.circuit.adapter, measured.adapter
    if adapter is None or holes is None:
        return NO_RESTRICTION
    area = values_of(holes.area)
    return holes.restriction(adapter_wall_mm(adapter) * 1e-3) + turn_restriction(angle=adapter_turn_deg(adapter), area=area)


def _leak(measured: MeasuredSample, thickness: FloatOrArray) -> Restriction | None:
    leak = measured.sample.leak
    if leak is None:
        return None
    return round_hole_restriction(count=leak.count, diameter=leak.diameter_mm * 1e-3, thickness=thickness)

"""Details beside the two areas of the plate: the product of every group, the cost of many small holes, each outlet."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import pi, sqrt

from tabrel.core.circuit.calibration import hot_point_flow
from tabrel.core.field_units import Length, SmallArea
from tabrel.core.hydraulics.restrictions import Restriction, round_hole_restriction
from tabrel.core.oil.model import OilModel
from tabrel.core.parts.flow_area import MINOR_DIAMETER_FACTOR, plate_sections
from tabrel.core.parts.holes import MeasuredHoles
from tabrel.core.sample.measured_sample import MeasuredSample
from tabrel.core.uncertainty.sampled_number import nominal_value


@dataclass(frozen=True)
class MultiHoleLossRatio:
    """Loss of the real holes over that of one round hole of the same area in the same plate.

    Attributes
    ----------
    viscous : float
        In the viscous limit: cold oil.
    hot : float or None
        At the engine's hot point; None while engine or oil are not known.
    """

    viscous: float
    hot: float | None


@dataclass(frozen=True)
class OutletChoice:
    """The flow area with one bore an engine may have.

    Attributes
    ----------
    name : str
        ``stud``, ``least``, ``greatest``, ``adapter_reference`` or ``thread``.
    area : float
        Of the bore.
    flow_area : float or None
        Smallest section with this bore; None while another section is missing.
    controlled_by : str or None
        Which section that is.
    adapter_ratio : float or None
        Area of the adapter's holes over the bore's, where there is an adapter.
    """

    name: str
    bore: Length
    area: SmallArea
    flow_area: SmallArea | None
    controlled_by: str | None
    adapter_ratio: float | None


@dataclass(frozen=True)
class HoleProduct:
    """The product of a group of holes: how many, the area of one, and the open part of it."""

    count: int
    area: SmallArea
    open_fraction: float


@dataclass(frozen=True)
class PlateSummary:
    """Figures of the plate beside its two areas.

    Attributes
    ----------
    hole_count : int
        Of all open groups.
    perimeter : float
        Of all open holes.
    equivalent_diameter : float or None
        Of one round hole of the same area.
    products : tuple of HoleProduct
        Of every open group that has its sizes.
    multi_hole_loss_ratio : MultiHoleLossRatio or None
        None while holes or the plate's thickness are missing.
    sections : dict
        Area of every section that is known.
    outlets : tuple of OutletChoice
        Every bore that is known.
    """

    hole_count: int
    perimeter: Length
    equivalent_diameter: Length | None
    products: tuple[HoleProduct, ...]
    multi_hole_loss_ratio: MultiHoleLossRatio | None
    sections: dict[str, SmallArea]
    outlets: tuple[OutletChoice, ...]


def plate_summary(measured: MeasuredSample, oil: OilModel | None) -> PlateSummary:
    """Return the figures of the plate.

    Parameters
    ----------
    measured : MeasuredSample
        The filter, with its engine's stud and adapter.
    oil : OilModel or None
        In the engine.
    """
    inlet = measured.inlet
    area = float(nominal_value(inlet.area))
    sections, _ = plate_sections(inlet, measured.outlet, measured.adapter, measured.known)
    plain = {name: float(nominal_value(section)) for name, section in sections.items()}
    return PlateSummary(
        hole_count=sum(count for count, _, _ in inlet.groups),
        perimeter=sum(count * float(nominal_value(hole.perimeter)) for count, _, hole in inlet.groups),
        equivalent_diameter=sqrt(4 * area / pi) if area > 0 else None,
        products=tuple(HoleProduct(count, float(nominal_value(hole.area)), share) for count, share, hole in inlet.groups),
        multi_hole_loss_ratio=None if inlet.missing else _multi_hole_loss_ratio(measured, oil),
        sections=plain,
        outlets=_outlets(measured, plain),
    )


def multi_hole_loss_ratio(
    holes: MeasuredHoles,
    thickness: float,
    *,
    flow_rate: float | None = None,
    dynamic_viscosity: float = 0.0,
    density: float = 0.0,
) -> MultiHoleLossRatio:
    """Return what it costs that an area is divided into several holes.

    Parameters
    ----------
    holes : MeasuredHoles
        At least one, none missing.
    thickness : float
        Of the plate. [m]
    flow_rate, dynamic_viscosity, density : float
        At the hot point; without a flow rate only the viscous limit is given. [m³/s], [Pa s], [kg/m³]
    """
    real = holes.restriction(thickness)
    item = round_hole_restriction(count=1, diameter=sqrt(4 * float(nominal_value(holes.area)) / pi), thickness=thickness)

    def loss(restriction: Restriction, flow: float) -> float:
        return float(restriction.a * dynamic_viscosity * flow + restriction.b * density * flow**2)

    hot = None if flow_rate is None else loss(real, flow_rate) / loss(item, flow_rate)
    return MultiHoleLossRatio(real.a / item.a, hot)


def _multi_hole_loss_ratio(measured: MeasuredSample, oil: OilModel | None) -> MultiHoleLossRatio | None:
    thickness = measured.known.get("plate.thickness")
    if thickness is None:
        return None
    engine = measured.circuit.engine
    flow = hot_point_flow(measured.circuit, oil) if oil else None
    if oil is None or engine is None or flow is None:
        return multi_hole_loss_ratio(measured.inlet, float(nominal_value(thickness)))
    return multi_hole_loss_ratio(
        measured.inlet,
        float(nominal_value(thickness)),
        flow_rate=flow,
        dynamic_viscosity=float(oil.dynamic_viscosity(engine.temperature_c)),
        density=float(oil.density(engine.temperature_c)),
    )


def _outlets(measured: MeasuredSample, sections: Mapping[str, float]) -> tuple[OutletChoice, ...]:
    stud, adapter = measured.circuit.stud, measured.circuit.adapter
    bores: list[tuple[str, float | None]] = []
    if stud:
        bores += [("least", stud.least_bore_mm), ("stud", stud.bore_mm), ("greatest", stud.greatest_bore_mm)]
    if adapter:
        bores.append(("adapter_reference", adapter.reference_bore_mm))
    pairs = [(name, bore * 1e-3) for name, bore in bores if bore is not None]
    known = measured.known
    if "thread.major_diameter" in known and "thread.pitch" in known:
        minor = nominal_value(known["thread.major_diameter"] - MINOR_DIAMETER_FACTOR * known["thread.pitch"])
        if minor > 0:
            pairs.append(("thread", float(minor)))
    return tuple(_outlet(name, bore, sections, complete=not measured.inlet.missing) for name, bore in pairs)


def _outlet(name: str, bore: float, sections: Mapping[str, float], *, complete: bool) -> OutletChoice:
    area = pi * bore**2 / 4
    others = {key: value for key, value in sections.items() if key != "outlet"}
    chain = {**others, "outlet": area}
    controls = min(chain, key=lambda key: chain[key]) if complete else None
    adapter = others.get("adapter")
    return OutletChoice(
        name=name,
        bore=bore,
        area=area,
        flow_area=chain[controls] if controls else None,
        controlled_by=controls,
        adapter_ratio=None if adapter is None else adapter / area,
    )

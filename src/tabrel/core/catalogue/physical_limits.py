"""Between which limits every number of a study lies: what is beyond them is no engine, oil, filter or plan, but a slip."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from tabrel.core.catalogue.units import shown_in_both

NEXT_TO_NOTHING = 1e-7
"""No number that must be above zero is as small, in the unit of its field."""


@dataclass(frozen=True)
class PhysicalLimits:
    """Limits of a number.

    Attributes
    ----------
    least, greatest : float
    unit : str
        Of both; empty for none.
    is_above : bool
        Whether the least itself is beyond them; where that is zero, so is what is next to nothing.
    """

    least: float
    greatest: float
    unit: str = ""
    is_above: bool = False

    def allow(self, value: float) -> bool:
        """Return whether a number lies between them."""
        if self.is_above and value <= (self.least or NEXT_TO_NOTHING):
            return False
        return self.least <= value <= self.greatest

    def why_not(self, value: float) -> str:
        """Return the sentence for a number that does not lie between them.

        Examples
        --------
        >>> PHYSICAL_LIMITS["speed_rpm"].why_not(1e308)
        'must be at most 20,000 rpm, not 1e+308: check the number and its unit, or leave it out'
        >>> PHYSICAL_LIMITS["speed_rpm"].why_not(-3)
        'must be above zero, not -3: check the number and its unit, or leave it out'
        """
        if self.unit == "°C":
            stated = shown_in_both(value, "°C", 6) if abs(value) < 1e6 else f"{value:g} °C"
            return f"{stated} is no oil temperature: check the number and its unit"
        side, limit = ("above", self.least) if self.is_above else ("at least", self.least)
        if 0 < value < NEXT_TO_NOTHING:
            side, limit = "above", NEXT_TO_NOTHING
        if value > self.greatest:
            side, limit = "at most", self.greatest
        text = f"{limit:,.12g} {self.unit}".strip() if limit else "zero"
        return f"must be {side} {text}, not {value:g}: check the number and its unit, or leave it out"


def _above_zero(greatest: float, unit: str = "") -> PhysicalLimits:
    return PhysicalLimits(0.0, greatest, unit, is_above=True)


_ZERO_TO_ONE = PhysicalLimits(0.0, 1.0)
_ANY_PRESSURE, _PRESSURE = PhysicalLimits(0.0, 20_000.0, "kPa"), _above_zero(20_000.0, "kPa")
_SPEED, _LENGTH, _FLOW = _above_zero(20_000.0, "rpm"), _above_zero(1_000.0, "mm"), _above_zero(10_000.0, "L/min")
_OIL = PhysicalLimits(-100.0, 300.0, "°C")
_END_POINT = PhysicalLimits(-1e12, 1e12)
_PRICE = PhysicalLimits(0.0, 1e9)

PHYSICAL_LIMITS: Mapping[str, PhysicalLimits] = {
    # oil
    "density_15c_kg_m3": PhysicalLimits(500.0, 2_000.0, "kg/m³"),
    "pumping_limit_c": PhysicalLimits(-100.0, 100.0, "°C"),
    "temperature_c": _OIL,
    "kinematic_mm2_s": _above_zero(1e8, "mm²/s"),
    "dynamic_mpa_s": _above_zero(1e8, "mPa·s"),
    # engine
    "pump_displacement_cm3_rev": _above_zero(10_000.0, "cm³/rev"),
    "fraction": _above_zero(1.0),
    "speed_rpm": _SPEED,
    "full_flow_speed_rpm": _SPEED,
    "PumpEfficiency.pressure_kpa": _PRESSURE,
    "opening_kpa": _PRESSURE,
    "full_flow_rise_kpa": _PRESSURE,
    "safety_kpa": _PRESSURE,
    "gallery_kpa": _PRESSURE,
    "loss_kpa": _PRESSURE,
    "bypass_kpa": _PRESSURE,
    "jet_opening_kpa": _ANY_PRESSURE,
    "flow_l_min": _FLOW,
    "viscous_share": _ZERO_TO_ONE,
    "jet_share": _ZERO_TO_ONE,
    "jet_count": _above_zero(1_000.0),
    "jet_length_ratio": _above_zero(1_000.0),
    "bearing_rise_k": PhysicalLimits(0.0, 300.0, "K"),
    "bearing_heating": _ZERO_TO_ONE,
    "bore_mm": _LENGTH,
    "length_mm": _LENGTH,
    "least_bore_mm": _LENGTH,
    "greatest_bore_mm": _LENGTH,
    "thread_diameter_mm": _LENGTH,
    "thread_pitch_mm": _LENGTH,
    "seat_diameter_mm": _LENGTH,
    "wall_mm": _LENGTH,
    "reference_bore_mm": _LENGTH,
    "turn_deg": PhysicalLimits(0.0, 180.0, "°"),
    # filter
    "diameter_mm": _LENGTH,
    "open_fraction": _ZERO_TO_ONE,
    "media_air_drop_pa": _above_zero(1e6, "Pa"),
    "capacity_g": _above_zero(10_000.0, "g"),
    "stated_collapse_kpa": _PRESSURE,
    "used_km": PhysicalLimits(0.0, 1e7, "km"),
    "used_hours": PhysicalLimits(0.0, 1e6, "h"),
    "amount": _PRICE,
    "delivery": _PRICE,
    # counted tests
    "size_um": _above_zero(10_000.0, "µm"),
    "volume_ml": _above_zero(1e6, "mL"),
    "upstream_ml": _above_zero(1e6, "mL"),
    "downstream_ml": _above_zero(1e6, "mL"),
    "dilution": _above_zero(1e9),
    "upstream_dilution": _above_zero(1e9),
    "downstream_dilution": _above_zero(1e9),
    "coincidence_per_ml": _above_zero(1e12, "/mL"),
    "ratio_uncertainty_percent": PhysicalLimits(0.0, 100.0, "%"),
    "size_uncertainty_percent": PhysicalLimits(0.0, 100.0, "%"),
    "system_volume_l": _above_zero(10_000.0, "L"),
    "base_level_mg_l": PhysicalLimits(0.0, 1e6, "mg/L"),
    "clean_hardware_kpa": _ANY_PRESSURE,
    "clean_element_kpa": _PRESSURE,
    "terminal_kpa": _PRESSURE,
    "terminal_ratio": PhysicalLimits(1.0, 1_000.0, is_above=True),
    "time_min": _above_zero(1e6, "min"),
    "differential_pressure_kpa": _ANY_PRESSURE,
    "injected_g": PhysicalLimits(0.0, 1e6, "g"),
    "circulating_mg_l": PhysicalLimits(0.0, 1e6, "mg/L"),
    # benches
    "uncertainty_kpa": _PRESSURE,
    "pressure_kpa": _ANY_PRESSURE,
    "BypassBenchRow.flow_l_min": PhysicalLimits(0.0, 10_000.0, "L/min"),
    "stated_flow_l_min": _FLOW,
    "gauge_error_percent": _above_zero(100.0, "%"),
    # plans
    "loading": _above_zero(1_000.0),
    "loading_g": _above_zero(10_000.0, "g"),
    "stud_bore_mm": _LENGTH,
    "bypass_opening_kpa": _PRESSURE,
    "anti_drain_lift_mm": _LENGTH,
    "start_c": PhysicalLimits(-60.0, 200.0, "°C"),
    "end_c": PhysicalLimits(-60.0, 200.0, "°C"),
    "time_constant_min": _above_zero(1_440.0, "min"),
    "can_time_constant_min": PhysicalLimits(0.0, 1_440.0, "min"),
    "gallery_volume_l": _above_zero(1_000.0, "L"),
    "ingress_g_h": _above_zero(10_000.0, "g/h"),
    "sump_volume_l": _above_zero(10_000.0, "L"),
    # uses
    "hot_temperature_c": _OIL,
    "hot_speed_rpm": _SPEED,
    "interval_km": _above_zero(1e7, "km"),
    "interval_h": _above_zero(1e6, "h"),
    # in use
    "distance_km": _above_zero(1e7, "km"),
    "distance_uncertainty_km": PhysicalLimits(0.0, 1e6, "km"),
    "months": _above_zero(1_200.0, "months"),
    "hours": PhysicalLimits(0.0, 1e6, "h"),
    "km": PhysicalLimits(0.0, 1e7, "km"),
    "mounting_angle_deg": PhysicalLimits(-180.0, 180.0, "°"),
    "after_min": PhysicalLimits(0.0, 1e7, "min"),
    "Finding.pleat": _above_zero(10_000.0),
    "Finding.count": _above_zero(100_000.0),
    "UnfilteredOpening.count": _above_zero(100_000.0),
    "UnfilteredOpening.pleats": _above_zero(10_000.0),
    "arc_deg": _above_zero(360.0, "°"),
    "GaugeLogRow.time_s": PhysicalLimits(0.0, 1e9, "s"),
    "GaugeLogRow.speed_rpm": PhysicalLimits(0.0, 20_000.0, "rpm"),
    "oil_temperature_c": _OIL,
    "table_version": _above_zero(1e6),
    "spread_factor": _above_zero(10.0),
    "weight": PhysicalLimits(0.0, 1e6),
    "best": _END_POINT,
    "worst": _END_POINT,
    "at_least": _END_POINT,
    "at_most": _END_POINT,
}
"""By the name of a field, with that of its class before it where one class has others."""


MOST_HOLES = 100_000
"""Of one group."""
MOST_PARTICLES = 10**15
"""Of one count."""


def limits_of(owner: type, name: str) -> PhysicalLimits | None:
    """Return the limits of a number of a class, or None where its own rule says more than limits can."""
    return PHYSICAL_LIMITS.get(f"{owner.__name__}.{name}") or PHYSICAL_LIMITS.get(name)

"""Plans of a study: scenarios, duty cycles, the plan of a start and of a life."""

from __future__ import annotations

from dataclasses import dataclass

from tabrel.core.field_units import Grams, Kpa, Mm
from tabrel.core.study.strict import BypassLocation, RegulatorFault, Strict


@dataclass(frozen=True)
class RoundHoles(Strict):
    """A number of equal round holes."""

    count: int
    diameter_mm: Mm


@dataclass(frozen=True)
class Scenario(Strict):
    """Scenario: changes tried without touching the study; None leaves a value as it is.

    Attributes
    ----------
    name : str
        Of the scenario.
    loading, loading_g : float or None
        Multiplies the media's resistance, or the dust that does, in grams.
    oil_grade : str or None
        Another oil, by the grade's name.
    stud_bore_mm : float or None
        Another stud.
    without_adapter : bool or None
        True removes the adapter.
    adapter_holes : RoundHoles or None
        An adapter with these cross-holes.
    bypass_location : str or None
        Another place of the bypass valve.
    bypass_opening_kpa : float or None
        Another opening pressure at 20 °C.
    leak : RoundHoles or None
        Defects beside the element.
    regulator : str or None
        A regulator that is stuck.
    anti_drain_lift_mm : float or None
        Lift of the anti-drainback valve, where it was not measured or is another.
    """

    name: str
    loading: float | None = None
    oil_grade: str | None = None
    stud_bore_mm: Mm | None = None
    without_adapter: bool | None = None
    adapter_holes: RoundHoles | None = None
    bypass_location: BypassLocation | None = None
    bypass_opening_kpa: Kpa | None = None
    leak: RoundHoles | None = None
    regulator: RegulatorFault | None = None
    anti_drain_lift_mm: Mm | None = None
    loading_g: Grams | None = None


@dataclass(frozen=True)
class DutyCycle(Strict):
    """A duty cycle as it was read: CSV with time_s, speed_rpm and, if recorded, oil_temperature_c."""

    name: str
    csv: str


@dataclass(frozen=True)
class WarmUpPlan(Strict):
    """How a start goes on and how the oil soils, as far as it is stated.

    Attributes
    ----------
    start_c, end_c : float or None
        Oil temperature at the start, and the final one.
    time_constant_min, can_time_constant_min : float or None
        Of the sump, and of the can behind the sump.
    gallery_volume_l : float or None
        What has to be filled before there is pressure.
    duty_cycle : str or None
        Name of a cycle of the study, or of a shipped one.
    ingress_g_h : float or None
        Dirt that reaches the filter.
    terminal_ratio : float or None
        Loading of the media when its capacity is full.
    sump_volume_l : float or None
        Oil in the engine.
    """

    start_c: float | None = None
    end_c: float | None = None
    time_constant_min: float | None = None
    can_time_constant_min: float | None = None
    gallery_volume_l: float | None = None
    duty_cycle: str | None = None
    ingress_g_h: float | None = None
    terminal_ratio: float | None = None
    sump_volume_l: float | None = None

"""A scenario in words."""

from __future__ import annotations

from collections.abc import Iterator

from tabrel.core.catalogue.terms import BYPASS_LOCATIONS, REGULATOR_FAULTS
from tabrel.core.study.plans import Scenario


def scenario_words(scenario: Scenario) -> tuple[str, ...]:
    """Return what a scenario changes, thing by thing; empty where it changes nothing.

    Examples
    --------
    >>> scenario_words(Scenario("old and cold", loading=3.0, oil_grade="15W-40"))
    ('media 3 × as resistant', '15W-40 oil')
    """
    return tuple(_changes(scenario))


def _changes(scenario: Scenario) -> Iterator[str]:
    if scenario.loading not in (None, 1.0):
        yield f"media {scenario.loading:g} × as resistant"
    if scenario.loading_g is not None:
        yield f"media with {scenario.loading_g:g} g of dust"
    if scenario.oil_grade:
        yield f"{scenario.oil_grade} oil"
    if scenario.stud_bore_mm:
        yield f"stud bore {scenario.stud_bore_mm:g} mm"
    if scenario.without_adapter:
        yield "no adapter"
    if holes := scenario.adapter_holes:
        yield f"adapter with {holes.count} × {holes.diameter_mm:g} mm"
    if scenario.bypass_location:
        place = BYPASS_LOCATIONS[scenario.bypass_location]
        yield "no bypass" if scenario.bypass_location == "none" else f"bypass at {place}"
    if scenario.bypass_opening_kpa:
        yield f"bypass opens at {scenario.bypass_opening_kpa:g} kPa"
    if leak := scenario.leak:
        yield f"defects {leak.count} × {leak.diameter_mm:g} mm"
    if scenario.regulator:
        yield f"regulator {REGULATOR_FAULTS[scenario.regulator]}"
    if scenario.anti_drain_lift_mm:
        yield f"anti-drainback lift {scenario.anti_drain_lift_mm:g} mm"

"""Details of a scenario: row by row, understood as the details of a study are."""

from __future__ import annotations

import re
from dataclasses import replace

from tabrel.core.catalogue.units import UnitFamily
from tabrel.core.details.detail import Detail
from tabrel.core.details.kinds import understood_detail
from tabrel.core.details.places import with_value
from tabrel.core.rules.plans import check_scenario
from tabrel.core.study.plans import Scenario

_MASS = re.compile(r"\d\s*(mg|g|grams?|kg|oz|lb)\s*$", re.IGNORECASE)

SCENARIO_DETAILS: dict[str, Detail] = {
    detail.key: detail
    for detail in (
        Detail("loading", "media resistance", "quantity", ("loading",), "times that of the clean media", unit=""),
        Detail("loading_g", "dust in the media", "quantity", ("loading_g",), "grams, such as 5 g", unit="g"),
        Detail("stud_bore", "stud bore", "length", ("stud_bore_mm",)),
        Detail("adapter_holes", "adapter holes", "round_holes", ("adapter_holes",), "such as 3 x 5.3 mm"),
        Detail("bypass_opening", "bypass opening pressure", "quantity", ("bypass_opening_kpa",), unit="kPa"),
        Detail("leak", "defects", "round_holes", ("leak",), "such as 6 x 0.4 mm"),
        Detail("anti_drain_lift", "anti-drainback lift", "length", ("anti_drain_lift_mm",)),
    )
}
"""By key."""


def with_scenario_detail(scenario: Scenario, key: str, text: str, family: UnitFamily) -> Scenario:
    """Return a scenario with one value set from its text; an empty text leaves it as it is in the study.

    Raises
    ------
    ReadingTextError
        If the text is not what the value takes, with the correction.
    StudyError
        If it cannot be.

    Examples
    --------
    >>> with_scenario_detail(Scenario("wide"), "stud_bore", "20 mm", "inch").stud_bore_mm
    20.0
    >>> with_scenario_detail(Scenario("dirty", loading=3.0), "loading", "5 g", "inch").loading_g
    5.0
    """
    if key == "loading" and _MASS.search(text):
        key, scenario = "loading_g", replace(scenario, loading=None)
    elif key == "loading":
        scenario = replace(scenario, loading_g=None)
    elif key == "loading_g":
        scenario = replace(scenario, loading=None)
    detail = SCENARIO_DETAILS[key]
    changed: Scenario = with_value(scenario, detail, understood_detail(detail, text, family))
    check_scenario("scenario", changed)
    return changed

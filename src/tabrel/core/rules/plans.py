"""Refuse what is impossible in scenarios, duty cycles and the plan of a start."""

from __future__ import annotations

from collections.abc import Iterable

from tabrel.core.errors import StudyError, nearest_hint
from tabrel.core.oil.grades import grade_oil
from tabrel.core.rules.refusals import require_count, require_limits, require_text
from tabrel.core.starts.duty_cycle import SHIPPED_CYCLES, read_duty_cycle
from tabrel.core.starts.warm_up import completed_plan
from tabrel.core.study.model import Study
from tabrel.core.study.plans import Scenario, WarmUpPlan


def check_plans(study: Study) -> None:
    """Raise `StudyError` at the first impossible thing in scenarios, duty cycles and the plan of a start."""
    names: set[str] = set()
    for i, scenario in enumerate(study.scenarios):
        check_scenario(f"scenarios[{i}]", scenario)
        if scenario.name in names:
            raise StudyError(f"scenarios[{i}].name", f"{scenario.name!r} names two scenarios: give each its own name")
        names.add(scenario.name)
    cycles: set[str] = set()
    for i, cycle in enumerate(study.duty_cycles):
        require_text(f"duty_cycles[{i}].name", cycle.name)
        if cycle.name in cycles or cycle.name in SHIPPED_CYCLES:
            raise StudyError(f"duty_cycles[{i}].name", f"{cycle.name!r} names two duty cycles: give each its own name")
        cycles.add(cycle.name)
        read_duty_cycle(cycle.csv, f"duty_cycles[{i}].csv")
    if study.warm_up:
        check_plan(study.warm_up, {*cycles, *SHIPPED_CYCLES})


def check_plan(plan: WarmUpPlan, cycles: Iterable[str]) -> None:
    """Raise `StudyError` at the first impossible thing in the plan of a start; `cycles` are those there are."""
    path = "warm_up"
    require_limits(path, plan)
    completed_plan(plan)
    if plan.duty_cycle is not None and plan.duty_cycle not in cycles:
        hint = nearest_hint(plan.duty_cycle, cycles)
        raise StudyError(f"{path}.duty_cycle", f"{plan.duty_cycle!r} is no duty cycle{hint}: use one of {', '.join(cycles)}")


def check_scenario(path: str, scenario: Scenario) -> None:
    """Raise `StudyError` at the first impossible thing in a scenario."""
    require_text(f"{path}.name", scenario.name)
    require_limits(path, scenario)
    if scenario.loading_g is not None and scenario.loading not in (None, 1.0):
        raise StudyError(f"{path}.loading_g", "cannot be beside a loading as a ratio: leave one of the two out")
    if scenario.oil_grade is not None:
        grade_oil(scenario.oil_grade, f"{path}.oil_grade")
    for name in ("adapter_holes", "leak"):
        if holes := getattr(scenario, name):
            require_count(f"{path}.{name}", holes.count)
            require_limits(f"{path}.{name}", holes)
    if scenario.without_adapter and scenario.adapter_holes:
        raise StudyError(f"{path}.adapter_holes", "cannot be without an adapter: leave one of the two out")

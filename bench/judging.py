"""Measure judging: the chances of places, and a use of the demo judged whole."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
from growth import best_of

import tabrel.demo
from tabrel.core.judge.categories import Category, CategoryValue
from tabrel.core.judge.chances import DRAWS, chance_of_place
from tabrel.core.judge.comparison_sheet import SheetRow, comparison_sheet, sheet_measures
from tabrel.core.judge.judged_use import judge_use
from tabrel.core.judge.known_filter import known_measures, of_part_numbers
from tabrel.core.judge.percentiles import MEASURES, are_of_size, percentiles_of
from tabrel.core.judge.same_part import compare_all_parts, part_facts
from tabrel.core.sample.measured_sample import measure_sample
from tabrel.core.study.uses import Criterion, Use
from tabrel.document.study_document import read_study_file

FILTERS, CATEGORIES = 10, 12
DEMO = Path(tabrel.demo.__path__[0]) / "mountain_road_service.study.json"
COLD = Use(
    "cold",
    temperature_c=-25.0,
    speed_rpm=2000.0,
    hot_temperature_c=110.0,
    hot_speed_rpm=5000.0,
    criteria=tuple(
        Criterion(measure)
        for measure in ("media_effective_area_cm2", "price", "element_cold_kpa", "filter_hot_kpa", "onset_c", "filling_onset_c")
    ),
)


def sheet() -> dict[str, Any]:
    """Measure a sheet of ten filters with the use's points, beside judging the same filters' parts pair by pair."""
    study = read_study_file(DEMO)
    samples = {f"{sample.label} {i}": replace(sample, label=f"{sample.label} {i}") for i in (1, 2) for sample in study.samples}
    use = study.uses[0]
    measures = sheet_measures(use, is_rough=True)

    def made() -> tuple[SheetRow, ...]:
        measured = {label: measure_sample(sample, study.circuit) for label, sample in samples.items()}
        known = {label: known_measures(study, item, use, measures, draws=1) for label, item in measured.items()}
        widened = of_part_numbers(list(samples.values()), known)
        return comparison_sheet(samples, widened, use, next(iter(samples)), is_rough=True)

    seconds = best_of(3, made)
    measured = [measure_sample(sample, study.circuit) for sample in samples.values()]
    reference = best_of(3, lambda: compare_all_parts([part_facts(item) for item in measured]))
    return {
        "name": "comparison_sheet",
        "filters": len(samples),
        "rows": len(made()),
        "seconds": seconds,
        "aim_seconds": 0.5,
        "reference_seconds": reference,
        "ratio": reference / seconds,
    }


def percentiles() -> dict[str, Any]:
    """Measure where a filter lies among two thousand in every number, beside sorting as many numbers alone."""
    random = np.random.default_rng(1)
    table = random.random((2000, len(MEASURES)))
    own = random.random(len(MEASURES))
    seconds = best_of(5, lambda: (are_of_size(own, table), percentiles_of(own, table)))
    reference = best_of(5, lambda: np.sort(table, axis=0))
    return {
        "name": "percentiles",
        "samples": len(table),
        "seconds": seconds,
        "aim_seconds": 0.1,
        "reference_seconds": reference,
        "ratio": reference / seconds,
    }


def chances() -> dict[str, Any]:
    """Measure ten thousand draws of ten filters in twelve categories, beside drawing and sorting as many numbers alone."""
    random = np.random.default_rng(1)
    labels = [f"F{i}" for i in range(FILTERS)]
    categories = [
        Category(f"m{k}", "high", {label: CategoryValue(float(random.normal()), 0.4) for label in labels})
        for k in range(CATEGORIES)
    ]
    seconds = best_of(5, lambda: chance_of_place(categories, labels))
    reference = best_of(5, lambda: np.argsort(random.standard_normal((CATEGORIES, DRAWS, FILTERS)).sum(axis=0), axis=1))
    return {
        "name": "chance_of_place",
        "seconds": seconds,
        "aim_seconds": 0.3,
        "reference_seconds": reference,
        "ratio": reference / seconds,
    }


def judged_demo() -> dict[str, Any]:
    """Measure a use of the demo's five filters, of best estimates with few draws, and with all of them."""
    study = read_study_file(DEMO)
    seconds = best_of(2, lambda: judge_use(study, COLD))
    reference = best_of(2, lambda: judge_use(study, COLD, model_draws=2))
    return {"name": "judged_use", "seconds": seconds, "reference_seconds": reference, "ratio": reference / seconds}

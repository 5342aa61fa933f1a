"""Uses to begin with: usual points, criteria and weights, to be looked through and changed; the analyst's use is its own.

They state no requirement and no end points: what a filter must do is the analyst's to say. The points are usual ones of a
car or van engine; where the study plans its starts at another temperature, that one is taken.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from tabrel.core.catalogue.measures import better_of
from tabrel.core.study.model import Study
from tabrel.core.study.uses import Criterion, Use


@dataclass(frozen=True)
class Preset:
    """A use to begin with, and what it is for."""

    use: Use
    about: str


_EFFICIENCY = "efficiency_at_20_um_percent"
_MEDIA_AREA = "media_effective_area_cm2"


def _use(name: str, cold: tuple[float, float], hot: tuple[float, float], weights: dict[str, float]) -> Use:
    criteria = tuple(Criterion(measure, better=better_of(measure), weight=weight) for measure, weight in weights.items())
    return Use(name, cold[0], cold[1], hot[0], hot[1], criteria=criteria)


PRESETS: tuple[Preset, ...] = (
    Preset(
        _use(
            "daily",
            (-5.0, 2000.0),
            (95.0, 3500.0),
            {_EFFICIENCY: 2.0, _MEDIA_AREA: 2.0, "filter_hot_kpa": 1.0, "unfiltered_litres": 1.0, "price": 2.0},
        ),
        "short and long trips, oil changed on time",
    ),
    Preset(
        _use(
            "long interval",
            (-5.0, 2000.0),
            (95.0, 3500.0),
            {"life_h": 3.0, _MEDIA_AREA: 2.0, _EFFICIENCY: 2.0, "onset_c": 1.0, "price": 1.0},
        ),
        "oil and filter stay in longer than usual: what it holds counts most",
    ),
    Preset(
        _use(
            "cold start",
            (-25.0, 2000.0),
            (95.0, 3500.0),
            {"unfiltered_cold_percent": 2.0, "onset_c": 2.0, "unfiltered_litres": 2.0, _MEDIA_AREA: 1.0, _EFFICIENCY: 1.0},
        ),
        "starts in deep frost: how long, and how much, oil goes unfiltered",
    ),
    Preset(
        _use(
            "towing",
            (0.0, 2000.0),
            (120.0, 3000.0),
            {"gallery_hot_kpa": 2.0, "filter_hot_kpa": 1.0, "life_h": 2.0, _EFFICIENCY: 2.0},
        ),
        "hot oil at high load for long: gallery pressure and life",
    ),
    Preset(
        _use(
            "track",
            (10.0, 2500.0),
            (130.0, 6000.0),
            {"gallery_hot_kpa": 3.0, "filter_hot_kpa": 2.0, "plate_flow_area_mm2": 1.0, _EFFICIENCY: 1.0},
        ),
        "hot oil at the highest speeds: what the filter takes from the gallery",
    ),
    Preset(Use("my own"), "nothing in it yet: points, criteria and requirements are yours"),
)
"""In the order they are offered."""


def presets_for(study: Study) -> tuple[Preset, ...]:
    """Return the presets for a study: where it plans its starts at a temperature, its cold starts are at that one."""
    start = study.warm_up.start_c if study.warm_up else None
    if start is None:
        return PRESETS
    return tuple(
        replace(preset, use=replace(preset.use, temperature_c=start)) if preset.use.name == "cold start" else preset
        for preset in PRESETS
    )


def preset_named(study: Study, name: str) -> Use | None:
    """Return a preset's use by its name; None where there is none of it."""
    return next((preset.use for preset in presets_for(study) if preset.use.name == name), None)

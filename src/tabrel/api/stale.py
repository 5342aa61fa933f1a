"""Addresses that a change makes stale: every answer to a change names the addresses whose answers are no longer what they were.

A window fetches again what it shows of them, and nothing else; it keeps no list of its own.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from fastapi import Response

STALE_HEADER = "Tabrel-Stale"
DESCRIBED: dict[str, Any] = {
    STALE_HEADER: {
        "description": "Addresses, separated by commas, whose answers the change made stale; one that ends in /* covers what is "
        "beneath it, a * between two / any one step. What the answer brings itself is not named.",
        "schema": {"type": "string"},
        "example": "/api/studies, /api/studies/1/comparison",
    }
}


def naming(status: int) -> dict[int | str, dict[str, Any]]:
    """Return the description of an answer that names what is stale, by its status; a changed sample's is described by itself."""
    return {status: {"headers": DESCRIBED}}


STUDIES = "/api/studies"
TEMPLATES = "/api/templates"
EVERY_ENGINE = "/api/samples/*/engine"
"""Addresses that show the library of engines."""
EVERY_PLACE = "/api/samples/*/percentiles"
"""Where a sample lies among all others, whatever their study."""
COMPUTED_OF_SAMPLE = (
    "engine",
    "working/*",
    "map",
    "filter-alone",
    "sensitivity",
    "figures",
    "date-code",
    "efficiency",
    "counts",
    "percentiles",
)
"""Beneath a sample: what is computed from its readings and its study."""
COMPUTED_OF_STUDY = (
    "comparison",
    "comparison-sheet",
    "same-part",
    "lots",
    "uses",
    "uses/*/judged",
    "uses/*/answer",
    "adapter",
    "uses/*/filters/*",
    "arithmetic",
    "report",
    "report/preview",
    "report/files/*",
    "bench-sheets",
    "part-labels",
    "behaviour",
    "slices",
    "warm-up",
    "document",
    "results",
)
"""Beneath a study: what is computed from, or holds, all its samples."""


def of_sample(sample_id: int, *, figures: bool = True) -> list[str]:
    """Return the addresses of what is computed from a sample, its figures unless they come with the answer."""
    return [f"/api/samples/{sample_id}/{name}" for name in COMPUTED_OF_SAMPLE if figures or name != "figures"]


def of_study(study_id: int) -> list[str]:
    """Return the addresses of what is computed from all samples of a study, and of what every other one is held against."""
    return [*(f"{STUDIES}/{study_id}/{name}" for name in COMPUTED_OF_STUDY), EVERY_PLACE]


def whole_samples(sample_ids: Iterable[int]) -> list[str]:
    """Return the addresses of samples and of everything beneath them."""
    return [f"/api/samples/{number}{end}" for number in sample_ids for end in ("", "/*")]


def whole_study(study_id: int, sample_ids: Iterable[int]) -> list[str]:
    """Return the addresses of all samples of a study, of what is beneath them, and of what is computed from all."""
    return [STUDIES, *of_study(study_id), *whole_samples(sample_ids)]


def name_stale(response: Response, names: Iterable[str]) -> None:
    """Name addresses in an answer."""
    response.headers[STALE_HEADER] = ", ".join(names)
